"""How bags are carried: usual strap lengths, least, usual and most.  Common practice, no source."""

from __future__ import annotations

from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import IN_PER, Inches

_CM = IN_PER["cm"]
Three = tuple[Inches, Inches, Inches]


def _inches(*values: int) -> Three:
    least, usual, most = (Fraction(value) for value in values)
    return least, usual, most


def _cm(*values: int) -> Three:
    least, usual, most = (_CM * value for value in values)
    return least, usual, most


# Piping cords by their thickness; common practice, sizes from memory.
CORDS: tuple[tuple[str, Inches], ...] = tuple(
    (f"{mm} mm", fraction_of(mm) * IN_PER["mm"]) for mm in ("2", "2.5", "3", "4", "5", "6", "8")
)

CARRIED: dict[str, dict[str, Three]] = {
    "inch": {
        "hand": _inches(14, 18, 22),
        "shoulder": _inches(24, 28, 34),
        "child": _inches(32, 35, 40),
        "adult": _inches(50, 60, 63),
    },
    "metric": {
        "hand": _cm(36, 46, 56),
        "shoulder": _cm(60, 70, 86),
        "child": _cm(80, 90, 100),
        "adult": _cm(127, 150, 160),
    },
}
