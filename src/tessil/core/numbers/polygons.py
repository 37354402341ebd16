"""Convex cutting of polygons by straight lines, in floats: areas, chords, bands.

For looking, touching and lengths on a slant; sizes at right angles stay exact figures.
"""

from __future__ import annotations

from math import hypot

from tessil.core.numbers.sizes import Outline

Vector = tuple[float, float]
TINY = 1e-9


def rectangle(x: float, y: float, width: float, height: float) -> Outline:
    """The corners of a rectangle, clockwise as drawn."""
    return ((x, y), (x + width, y), (x + width, y + height), (x, y + height))


def along(point: Vector, way: Vector) -> float:
    """How far a point lies along a unit vector from the origin."""
    return point[0] * way[0] + point[1] * way[1]


def half(outline: Outline, way: Vector, limit: float, above: bool) -> Outline:
    """The part of a polygon above (or below) a limit along a unit vector.

    Right for outlines that the line crosses twice at most (Sutherland and Hodgman, 1974).
    """
    if not outline:
        return ()
    across, down = way
    sides = [x * across + y * down - limit for x, y in outline]
    if not above:
        sides = [-side for side in sides]
    if min(sides) >= 0:
        return outline
    if max(sides) < 0:
        return ()
    kept: list[Vector] = []
    last = len(outline) - 1
    for at, (start, a) in enumerate(zip(outline, sides, strict=True)):
        if a >= 0:
            kept.append(start)
        b = sides[at - last]  # the next corner's; the first's after the last
        if (a > 0 > b) or (a < 0 < b):
            end, share = outline[at - last], a / (a - b)
            kept.append(
                (start[0] + share * (end[0] - start[0]), start[1] + share * (end[1] - start[1]))
            )
    return tuple(kept)


def band(outline: Outline, way: Vector, low: float, high: float) -> Outline:
    """The part of a polygon between two limits along a unit vector; empty if there is none."""
    part = half(half(outline, way, low, above=True), way, high, above=False)
    return part if len(part) > 2 and area(part) > TINY else ()


def cut_by(outline: Outline, shape: Outline) -> Outline:
    """The part of a polygon inside a convex one that is given clockwise as drawn."""
    part = outline
    for (ax, ay), (bx, by) in zip(shape, (*shape[1:], shape[0]), strict=True):
        length = hypot(bx - ax, by - ay)
        if length < TINY:
            continue
        inwards = (ay - by) / length, (bx - ax) / length
        part = half(part, inwards, along((ax, ay), inwards), above=True)
    return part


def boxed(outline: Outline, x: float, y: float, width: float, height: float) -> Outline:
    """The part of a polygon inside an upright rectangle."""
    return band(band(outline, (1.0, 0.0), x, x + width), (0.0, 1.0), y, y + height)


def area(outline: Outline) -> float:
    """The area inside, whichever way round the corners go."""
    twice = 0.0
    for (x1, y1), (x2, y2) in zip(outline, (*outline[1:], outline[:1][0]), strict=True):
        twice += x1 * y2 - x2 * y1
    return abs(twice) / 2


def reach(outline: Outline, way: Vector) -> tuple[float, float]:
    """The least and the most along a unit vector."""
    places = [along(point, way) for point in outline]
    return min(places), max(places)


def shifted(outline: Outline, dx: float, dy: float) -> Outline:
    """The same polygon elsewhere."""
    return tuple((x + dx, y + dy) for x, y in outline)


def box_of(outline: Outline) -> tuple[float, float, float, float]:
    """Left, top, right and bottom."""
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return min(xs), min(ys), max(xs), max(ys)
