"""Strips sewn side by side: how many, how wide, what is left over.

Knows one panel's need across and along the strips.  ``T = n(w − 2s) + 2s`` for n strips of
cut width w with seam allowance s (geometry).  Must not know shapes or quilting.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from tessil.core.cutting.cloth import Piece, Row, fill_rows
from tessil.core.lengths import Inches
from tessil.core.project import Piecing
from tessil.core.rulers import Rulers
from tessil.core.trouble import CannotPlan
from tessil.core.workings import Basis, Figure, ceiling, count, given, no_less, up_to

NARROWEST = Fraction(1, 4)


@dataclass(frozen=True, slots=True)
class Need:
    """What a top must measure across its strips and along them, and the piecing seam."""

    across: Figure
    along: Figure
    seam: Figure
    field: str  # dotted path of the panel's piecing choices, for complaints


@dataclass(frozen=True, slots=True)
class Strips:
    """A pieced top of strips: ``across`` is what they make, ``surplus`` what it is over."""

    number: Figure
    cut: Figure
    along: Figure
    across: Figure
    surplus: Figure
    shows: Figure  # width of an inner strip between its seams

    def bands(self, seam: Inches) -> list[tuple[Inches, Inches]]:
        """From where to where each strip shows on the pieced top, raw edges included."""
        step = self.shows.value
        last = self.number.whole - 1
        return [
            (
                i * step + (seam if i else 0),
                (i + 1) * step + seam + (seam if i == last else 0),
            )
            for i in range(last + 1)
        ]


def pieced_size(number: Figure, cut: Figure, seam: Figure) -> Figure:
    """What ``number`` strips of one cut width measure once sewn."""
    return number * (cut - 2 * seam) + 2 * seam


def strips_for(need: Figure, cut: Figure, seam: Figure) -> Figure:
    """The least number of strips that reach a size."""
    one = count("strip", 1, Basis.GEOMETRY)
    return no_less(ceiling((need - 2 * seam) / (cut - 2 * seam)), one)


def width_for(need: Figure, number: Figure, seam: Figure, mark: Figure) -> Figure:
    """The cut width at which ``number`` strips reach a size, up to a ruler mark."""
    return up_to((need - 2 * seam) / number + 2 * seam, mark)


def _check_cut(cut: Figure, need: Need, field: str) -> None:
    shows = cut.value - 2 * need.seam.value
    if shows >= NARROWEST:
        return
    if field == "count":
        most = max(int((need.across.value - 2 * need.seam.value) / NARROWEST), 1)
        raise CannotPlan(
            f"{need.field}.count",
            f"So many strips would each show less than ¼ in (6 mm): use {most} at most.",
        )
    raise CannotPlan(
        f"{need.field}.strip_cut",
        "A strip this narrow goes into its two seams: cut it at least ¼ in (6 mm) wider than them.",
    )


def plan_strips(choice: Piecing, need: Need, marks: Rulers) -> Strips:
    """Count or width of the strips by what the maker fixed, and the top they make.

    Raises CannotPlan when strips would vanish in their seams or grow past reason.
    """
    seam = need.seam
    if choice.fixed == "count":
        number = count("strips", choice.count).called("strips")
        raw = (need.across.value - 2 * seam.value) / choice.count
        if raw < NARROWEST:
            _check_cut(given("", raw + 2 * seam.value), need, "count")
        cut = width_for(need.across, number, seam, marks.ruler).called("strip, cut")
    else:
        cut = given("strip, cut", choice.strip_cut)
        _check_cut(cut, need, "strip_cut")
        number = strips_for(need.across, cut, seam).called("strips")
        if number.whole > 200:
            raise CannotPlan(
                f"{need.field}.strip_cut",
                f"That takes {number.whole} strips for one panel: cut them wider.",
            )
        if choice.surplus == "recut":
            cut = width_for(need.across, number, seam, marks.ruler).called("strip, cut")
    across = pieced_size(number, cut, seam).called("strips sewn together")
    return Strips(
        number=number,
        cut=cut,
        along=need.along,
        across=across,
        surplus=(across - need.across).called("surplus across the strips"),
        shows=(cut - 2 * seam).called("each strip shows"),
    )


def cut_across(usable: Inches, lengths: Sequence[tuple[str, Inches, int]]) -> tuple[Row, ...]:
    """Panels cut across from strip sets of one usable length: a row is one set.

    ``lengths`` are (panel, length, how many), each within ``usable``.  The longest first:
    common practice at the table, not always the fewest sets.
    """
    pieces = [Piece(name, length, Fraction(1), many) for name, length, many in lengths]
    return fill_rows(pieces, usable)


def edge_strip_shows(
    strips: Strips, seam: Figure, draws_in: Figure, cut_off: Figure, allowance: Figure
) -> Figure:
    """What the outermost strip still shows after quilting, trimming and the bag's seam."""
    return (strips.cut - seam) * (1 - draws_in) - cut_off - allowance
