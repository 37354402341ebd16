"""Bias in one length from a tube: a square cut on its diagonal, sewn to a slanted piece, marked,
sewn to a tube with every line on the next one, and cut round and round.

By area the square's side would be ``√(length × width)`` (geometry).  But only whole lines
can be cut, and both seams take ``2·√2·s`` of every round: the side is made larger until they reach.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from math import sqrt

from tessil.core.workings import Basis, Figure, floored, given, up_to

ROOT2 = given("√2", Fraction(577, 408), Basis.GEOMETRY, 0)
MOST = 400  # ruler marks by which the side may grow


@dataclass(frozen=True, slots=True)
class TubePlan:
    """The square's side by area alone and as it must be, whole lines, and what they give."""

    by_area: Figure
    side: Figure
    lines: Figure
    reaches: Figure


def side_by_area(need: Figure, width: Figure, mark: Figure) -> Figure:
    """The side of a square of as much cloth, up to a ruler mark; its seams not counted."""
    area = need * width
    side = Fraction(int(sqrt(float(area.value)) * 10000) + 1, 10000)
    return up_to(given("root of length × width", side, Basis.GEOMETRY), mark)


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
    lines = floored(square / ROOT2 / width).called("whole lines")
    turn = (ROOT2 * (square - 4 * seam)).called("once round")
    return TubePlan(by_area, square, lines, (lines * turn).called("the tube gives"))
