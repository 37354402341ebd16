"""Outlines moved inwards, whatever their shape: notched ones may fall into several.

shapely makes the offset; it is loaded when an echo is first asked for.
"""

from __future__ import annotations

from math import hypot

from tessil.core.numbers.sizes import Outline

SHARPEST = 10.0  # a corner's point is kept up to so many times the offset, then clipped


def inset(outline: Outline, by: float) -> tuple[Outline, ...]:
    """What is left of an outline so far inwards (inches), clockwise as drawn; nothing where all
    is eaten.  The first corner of each part is the one nearest to the outline's first."""
    import shapely

    made = shapely.Polygon(outline).buffer(-by, join_style="mitre", mitre_limit=SHARPEST)
    parts = [shapely.geometry.polygon.orient(part) for part in shapely.get_parts(made)]
    return tuple(
        _from_corner(tuple((x, y) for x, y in part.exterior.coords[:-1]), outline[0])
        for part in parts
        if not part.is_empty
    )


def _from_corner(ring: Outline, corner: tuple[float, float]) -> Outline:
    at = min(range(len(ring)), key=lambda i: hypot(ring[i][0] - corner[0], ring[i][1] - corner[1]))
    return ring[at:] + ring[:at]
