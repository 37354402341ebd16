"""A scrap told by its corners: the largest piece with square corners that comes out of it.

Along the cloth's own ways, so that the grain is kept; rounded down to a sixteenth.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations
from typing import TYPE_CHECKING

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, LengthError, round_down
from tessil.core.shelf.rows import MOST_CORNERS

if TYPE_CHECKING:
    from shapely.geometry.base import BaseGeometry

Corner = tuple[Inches, Inches]
LEVELS = 48  # lines across it at which a side may lie, besides its corners
MARK = Fraction(1, 16)


def largest_inside(corners: Sequence[Corner]) -> tuple[Inches, Inches]:
    """Width and length of the largest upright rectangle inside an outline; raises LengthError for
    an outline that crosses itself or holds nothing.

    Its upper and lower sides are looked for at the corners and at so many levels between them: it
    is at most one level's height away from the best.
    """
    import shapely

    if not 3 <= len(corners) <= MOST_CORNERS:
        raise LengthError(f"A piece of cloth has 3 to {MOST_CORNERS} corners here.")
    shape = shapely.Polygon([(float(x), float(y)) for x, y in corners])
    if not shape.is_valid or not shape.area:
        raise LengthError("These corners go round no piece of cloth: say them in their order.")
    left, top, right, bottom = shape.bounds
    step = (bottom - top) / LEVELS
    levels = sorted({float(y) for _, y in corners} | {top + step * at for at in range(LEVELS + 1)})
    best = (0.0, 0.0)
    for upper, lower in combinations(levels, 2):
        high = lower - upper
        if high * (right - left) <= best[0] * best[1]:
            continue
        outside = shapely.box(left - 1, upper, right + 1, lower).difference(shape)
        wide = _widest_gap(outside, left, right)
        if wide * high > best[0] * best[1]:
            best = wide, high
    width, length = (round_down(Fraction(round(v * 4096), 4096), MARK) for v in best)
    if not width or not length:
        raise LengthError("Nothing with square corners comes out of so narrow a piece.")
    return width, length


def _widest_gap(outside: BaseGeometry, left: float, right: float) -> float:
    """The widest stretch across in which nothing of the outside lies."""
    import shapely

    parts = [part for part in shapely.get_parts(outside) if part.area > 1e-12]
    spans = sorted((part.bounds[0], part.bounds[2]) for part in parts)
    widest, reached = 0.0, left
    for start, end in spans:
        widest = max(widest, min(start, right) - reached)
        reached = max(reached, end)
    return max(widest, right - reached)
