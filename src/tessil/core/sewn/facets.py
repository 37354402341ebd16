"""Panels inside their stitch lines, divided by their creases into flat facets.

In floats on the trimmed panel, clockwise as drawn.  Geometry.
"""

from __future__ import annotations

from itertools import pairwise
from math import hypot
from typing import NamedTuple

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Edge, ExactPoint
from tessil.core.bag.net import LOSE_NOTHING, SQUARE, Crease, Sheet, Tape
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side
from tessil.core.numbers.workings import Basis, given
from tessil.core.sewn.vectors import Flat

HAIR = 1e-7  # inches; what lies nearer is one place
CLOCKWISE: tuple[Side, ...] = ("top", "right", "bottom", "left")
NOTHING = given("nothing", 0, Basis.GEOMETRY)


class Rim(NamedTuple):
    """What a side of a facet is: a stretch of an edge, from so far along it to so far, or a crease
    by its number."""

    edge: EdgeKey | None = None
    start: float = 0.0
    end: float = 0.0
    crease: int = -1


class Facet(Record, frozen=True):
    """A flat part of a sheet: its corners, and what each side from one to the next is."""

    sheet: str
    number: int
    corners: tuple[Flat, ...]
    rims: tuple[Rim, ...]

    @property
    def middle(self) -> Flat:
        """The middle of its corners."""
        n = len(self.corners)
        return sum(x for x, _ in self.corners) / n, sum(y for _, y in self.corners) / n

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Left, top, width and height on the panel."""
        xs, ys = [x for x, _ in self.corners], [y for _, y in self.corners]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


def facets_of(sheet: Sheet) -> tuple[Facet, ...]:
    """The facets of a panel, those nearest its top left first as the creases leave them."""
    corners, rims = stitched(sheet.edges)
    parts = [(corners, rims)]
    for number, crease in enumerate(sheet.creases):
        parts = [piece for part in parts for piece in _divided(part, number, crease)]
    return tuple(
        Facet(sheet.panel, at, tuple(points), tuple(sides))
        for at, (points, sides) in enumerate(parts)
    )


def tape_sheet(tape: Tape) -> Sheet:
    """A zipper that shows as a sheet lying level, whose edges lose nothing."""
    zero, w, h = NOTHING.value, tape.length, tape.width
    points: tuple[ExactPoint, ...] = ((zero, zero), (w, zero), (w, h), (zero, h))
    edges = tuple(
        Edge(EdgeKey(side), start, end, "free", NOTHING)
        for side, start, end in zip(CLOCKWISE, points, (*points[1:], points[0]), strict=True)
    )
    creases = []
    if tape.turn:
        creases.append(Crease((zero, h / 2), (w, h / 2), tape.turn))
    if tape.ends is not None:
        creases += [Crease((x, zero), (x, h), SQUARE) for x in (tape.ends, w - tape.ends)]
    return Sheet(tape.key, edges, tuple(creases))


Part = tuple[list[Flat], list[Rim]]


def inset(edge: Edge) -> float:
    """How far inside an edge its stitch line lies: where the bag ends."""
    return 0.0 if edge.finish in LOSE_NOTHING else float(edge.allowance.value)


def stitched(edges: tuple[Edge, ...]) -> Part:
    """The stitch lines of a panel, and which edge each is of, measured along them."""
    points = [_meet(edges[at - 1], edge) for at, edge in enumerate(edges)]
    run: dict[EdgeKey, float] = {}
    rims = []
    for at, edge in enumerate(edges):
        (x1, y1), (x2, y2) = points[at], points[(at + 1) % len(points)]
        key = edge.key.run
        start = run.get(key, 0.0)
        run[key] = start + hypot(x2 - x1, y2 - y1)
        rims.append(Rim(key, start, run[key]))
    return points, rims


def _line(edge: Edge) -> tuple[Flat, Flat]:
    """A point of an edge's stitch line, and its way."""
    (x1, y1), (x2, y2) = ((float(x), float(y)) for x, y in (edge.start, edge.end))
    length = hypot(x2 - x1, y2 - y1) or 1.0
    dx, dy = (x2 - x1) / length, (y2 - y1) / length
    by = inset(edge)
    return (x1 - dy * by, y1 + dx * by), (dx, dy)


def _meet(before: Edge, after: Edge) -> Flat:
    """Where the stitch lines of two edges in a row meet."""
    (x1, y1), (dx1, dy1) = _line(before)
    (x2, y2), (dx2, dy2) = _line(after)
    sine = dx1 * dy2 - dy1 * dx2
    if abs(sine) < 1e-9:
        return x2, y2
    t = ((x2 - x1) * dy2 - (y2 - y1) * dx2) / sine
    return x1 + t * dx1, y1 + t * dy1


def _divided(part: Part, number: int, crease: Crease) -> list[Part]:
    """A part cut along a crease wherever that crosses it; the part itself where it does not."""
    points, _ = part
    (x1, y1), (x2, y2) = ((float(x), float(y)) for x, y in (crease.start, crease.end))
    length = hypot(x2 - x1, y2 - y1)
    way = ((x2 - x1) / length, (y2 - y1) / length)
    cuts = _crossings(points, (x1, y1), way)
    for (s, one), (e, other) in pairwise(cuts):
        middle = (s + e) / 2
        at = (x1 + middle * way[0], y1 + middle * way[1])
        if e - s > HAIR and -HAIR < middle < length + HAIR and _inside(points, at):
            first, second = _halves(part, number, one, other)
            return [*_divided(first, number, crease), *_divided(second, number, crease)]
    return [part]


Cut = tuple[float, tuple[int, Flat]]  # how far along the crease; after which corner, and where


def _crossings(points: list[Flat], start: Flat, way: Flat) -> list[Cut]:
    """Where the line of a crease meets an outline, in order along it; each place once."""
    found: list[Cut] = []
    for at, (p, q) in enumerate(zip(points, (*points[1:], points[0]), strict=True)):
        a = way[0] * (p[1] - start[1]) - way[1] * (p[0] - start[0])
        b = way[0] * (q[1] - start[1]) - way[1] * (q[0] - start[0])
        if abs(a) < HAIR:
            found.append((_along(p, start, way), (at, p)))
        elif abs(b) >= HAIR and (a < 0) != (b < 0):
            t = a / (a - b)
            place = (p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]))
            found.append((_along(place, start, way), (at, place)))
    return sorted(found)


def _along(point: Flat, start: Flat, way: Flat) -> float:
    return (point[0] - start[0]) * way[0] + (point[1] - start[1]) * way[1]


def _inside(points: list[Flat], at: Flat) -> bool:
    """Whether a point lies inside an outline, and not on it."""
    x, y = at
    odd = False
    for (x1, y1), (x2, y2) in zip(points, (*points[1:], points[0]), strict=True):
        length = hypot(x2 - x1, y2 - y1)
        if length < HAIR:
            continue
        off = abs((x2 - x1) * (y - y1) - (y2 - y1) * (x - x1)) / length
        along = ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length
        if off < HAIR and -HAIR < along < length + HAIR:
            return False
        if (y1 > y) != (y2 > y) and x < x1 + (y - y1) / (y2 - y1) * (x2 - x1):
            odd = not odd
    return odd


def _halves(
    part: Part, number: int, one: tuple[int, Flat], other: tuple[int, Flat]
) -> tuple[Part, Part]:
    """Both sides of a chord through a part, from one place on its outline to another."""
    return _side(part, number, one, other), _side(part, number, other, one)


def _side(part: Part, number: int, begin: tuple[int, Flat], end: tuple[int, Flat]) -> Part:
    """What lies clockwise from one place to another, closed by the crease."""
    points, rims = part
    (first, start), (last, stop) = begin, end
    corners, sides = [start], [_cut_rim(points, rims, first, start, after=True)]
    at = first
    while at != last:
        at = (at + 1) % len(points)
        if hypot(points[at][0] - corners[-1][0], points[at][1] - corners[-1][1]) < HAIR:
            sides[-1] = rims[at]
            continue
        corners.append(points[at])
        sides.append(rims[at])
    if hypot(corners[-1][0] - stop[0], corners[-1][1] - stop[1]) > HAIR:
        sides[-1] = _cut_rim(points, [*rims[:last], sides[-1], *rims[last + 1 :]], last, stop)
        corners.append(stop)
        sides.append(Rim(crease=number))
    else:
        sides[-1] = Rim(crease=number)
    return corners, sides


def _cut_rim(points: list[Flat], rims: list[Rim], at: int, place: Flat, after: bool = False) -> Rim:
    """The part of a side after or before a place on it."""
    rim, p = rims[at], points[at]
    q = points[(at + 1) % len(points)]
    if rim.edge is None:
        return rim
    gone = hypot(place[0] - p[0], place[1] - p[1])
    whole = hypot(q[0] - p[0], q[1] - p[1]) or 1.0
    # A side may be cut at both its ends: what is left of it is measured from where it starts now.
    here = rim.start + gone * (rim.end - rim.start) / whole
    return rim._replace(start=here) if after else rim._replace(end=here)
