"""Bias in one length from a tube: a square cut on its diagonal, sewn to a slanted piece, marked,
sewn to a tube with every line on the next one, and cut round and round.

The square of side S lies in the plane as two triangles.  The first seam, along a straight edge,
moves one of them by two allowances: the slanted piece is ``(S − 2s)/√2`` high between its bias
edges, and every line in it still ``√2·S`` long.  The second seam takes two allowances of S off
each line: once round is ``√2·(S − 2s)``.  Only whole lines can be cut (geometry).
"""

from __future__ import annotations

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import exact_root
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, floored, given, root, up_to

ROOT2 = given("√2", exact_root(Fraction(2)), Basis.GEOMETRY, 0)
MOST = 400  # ruler marks by which the side may grow


class TubePlan(Record, frozen=True):
    """The square's side by area alone and as it must be, whole lines, and what they give."""

    by_area: Figure
    side: Figure
    lines: Figure
    reaches: Figure


def side_by_area(need: Figure, width: Figure, mark: Figure) -> Figure:
    """The side of a square of as much cloth, up to a ruler mark; its seams not counted."""
    return up_to(root(need * width), mark)


def plan_tube(need: Figure, width: Figure, seam: Figure, mark: Figure) -> TubePlan:
    """The least square, on ruler marks, of which whole lines give ``need``."""
    by_area = side_by_area(need, width, mark).called("square by area")
    made = _from(by_area, by_area.value, width, seam)
    for step in range(1, MOST):
        if made.reaches.value >= need.value:
            break
        made = _from(by_area, by_area.value + step * mark.value, width, seam)
    return made


def _from(by_area: Figure, side: Fraction, width: Figure, seam: Figure) -> TubePlan:
    square = given("square for a tube, side", side, Basis.GEOMETRY)
    left = (square - 2 * seam).called("square less its seam")
    lines = floored(left / ROOT2 / width).called("whole lines")
    turn = (ROOT2 * left).called("once round")
    return TubePlan(by_area, square, lines, (lines * turn).called("the tube gives"))
