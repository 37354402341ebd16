"""The marks that cut sizes, gauges and yardage are rounded to, in either unit system.

Common practice, no source.  The metric marks are whole metric steps, not converted inches.
"""

from __future__ import annotations

from functools import cache

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER, Notation, Units
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given


class Rulers(Record, frozen=True):
    """Marks as figures, so that a rounding shows in its working."""

    ruler: Figure  # a cut size is rounded up to this
    piece_step: Figure  # a panel is pieced up to this
    gauge: Figure  # a guide bar is set to the nearest of this
    yardage: Figure  # cloth is bought up to this
    notation: Notation
    units: Units  # of the marks; lengths may be read in another


def _mark(label: str, value: Fraction) -> Figure:
    return given(label, value, Basis.GEOMETRY)


_INCH = Rulers(
    ruler=_mark("ruler mark", Fraction(1, 8)),
    piece_step=_mark("piecing step", Fraction(1, 4)),
    gauge=_mark("gauge mark", Fraction(1, 16)),
    yardage=_mark("⅛ yard", Fraction(9, 2)),
    notation=Notation("inch", Fraction(1, 16)),
    units="inch",
)
_METRIC = Rulers(
    ruler=_mark("ruler mark", IN_PER["mm"] * 1),
    piece_step=_mark("piecing step", IN_PER["mm"] * 5),
    gauge=_mark("gauge mark", IN_PER["mm"] * 1),
    yardage=_mark("10 cm", IN_PER["cm"] * 10),
    notation=Notation("metric", IN_PER["mm"]),
    units="metric",
)


@cache
def rulers(units: Units, rounding: Units | None = None, currency: str = "") -> Rulers:
    """The marks of a unit system, read in it too; or those of ``rounding``, read in ``units``;
    money is in ``currency``."""
    read = _INCH if units == "inch" else _METRIC
    if currency:
        read = replace(read, notation=replace(read.notation, currency=currency))
    if rounding is None:
        return read
    return replace(_INCH if rounding == "inch" else _METRIC, notation=read.notation)
