"""The edges of a panel as a maker sees them: sides and curves, how long, how tight, what becomes
of them.

Read off the bag model.  An arc that the outline has as short straight pieces is one curve; its
radius is that of the circle through its ends and its middle (geometry).
"""

from __future__ import annotations

from math import asin, hypot

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Bag, Edge, Finish, Panel
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import Vector
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import HAIR, Basis, Figure, given, root, squared, total
from tessil.core.words.names import edge_name

Corner = tuple[Fraction | float, Fraction | float]
TIGHT = Fraction(3)  # below this radius straight grain puckers; common practice
BECOMES: dict[Finish, str] = {
    "seam": "in a seam",
    "bound": "bound",
    "turned": "turned in",
    "zip": "zipper",
    "free": "as cut",
}


class Run(Record, frozen=True):
    """A side or a curve of one panel.

    ``cut`` is its length on the cut edge, ``sewn`` on the seam line; ``radius`` None where it is
    straight; ``points`` on the trimmed panel, clockwise.
    """

    panel: str
    edge: EdgeKey
    finish: Finish
    allowance: Fraction
    cut: Figure
    sewn: Figure
    radius: Figure | None
    points: tuple[Vector, ...]
    inside: str = ""  # what becomes of a seam's raw allowance where no lining hides it

    @property
    def key(self) -> str:
        return f"{self.panel}.{self.edge.slug}"

    @property
    def name(self) -> str:
        return edge_name(self.edge)

    @property
    def becomes(self) -> str:
        return BECOMES[self.finish] + (f", {self.inside}" if self.inside else "")

    @property
    def tight(self) -> bool:
        return self.radius is not None and self.radius.value < TIGHT - HAIR


def fine(value: float) -> Fraction:
    """A length that was measured in floats, to a ten-thousandth of an inch."""
    return Fraction(round(value * 10000), 10000)


def _between(start: Corner, end: Corner, what: str) -> Figure:
    """The length from corner to corner: exact where it is level or upright."""
    legs = []
    for one, other, way in ((start[0], end[0], "across"), (start[1], end[1], "down")):
        far, near = max(one, other), min(one, other)
        if far != near:
            legs.append(
                given(f"{what} ends at, {way}", _exact(far), Basis.GEOMETRY)
                - given(f"{what} starts at, {way}", _exact(near), Basis.GEOMETRY)
            )
    if len(legs) == 2:
        return root(squared(legs[0]) + squared(legs[1]))
    return legs[0] if legs else given(what, 0, Basis.GEOMETRY)


def _exact(value: Fraction | float) -> Fraction:
    return value if isinstance(value, Fraction) else fine(value)


def _seam_corners(edges: tuple[Edge, ...]) -> list[Corner]:
    """Where the seam lines of neighbouring edges meet: the start of each edge, moved inwards;
    exact where both lie along the grain."""
    inwards = [_inwards(edge) for edge in edges]
    found: list[Corner] = []
    for at, edge in enumerate(edges):
        (x1, y1), (x2, y2) = inwards[at - 1], inwards[at]
        x, y = x1 if x1 is not None else x2, y1 if y1 is not None else y2
        both = (x1 is None) != (x2 is None) and (y1 is None) != (y2 is None)
        if both and x is not None and y is not None:
            found.append((edge.start[0] + x, edge.start[1] + y))
        else:
            found.append(_crossing(_seam_line(edges[at - 1]), _seam_line(edge)))
    return found


def _inwards(edge: Edge) -> tuple[Fraction | None, Fraction | None]:
    """How far an upright edge's seam line lies to the right of it, and a level one's below it."""
    (x1, y1), (x2, y2), seam = edge.start, edge.end, edge.allowance.value
    upright, level = x1 == x2, y1 == y2
    return (
        (-seam if y2 > y1 else seam) if upright else None,
        (seam if x2 > x1 else -seam) if level else None,
    )


def _seam_line(edge: Edge) -> tuple[Vector, Vector]:
    (x1, y1), (x2, y2) = ((float(x), float(y)) for x, y in (edge.start, edge.end))
    long = hypot(x2 - x1, y2 - y1) or 1.0
    nx, ny = (y1 - y2) / long, (x2 - x1) / long
    a = float(edge.allowance.value)
    return (x1 + nx * a, y1 + ny * a), (x2 + nx * a, y2 + ny * a)


def _crossing(one: tuple[Vector, Vector], other: tuple[Vector, Vector]) -> Vector:
    (x1, y1), (x2, y2) = one
    (x3, y3), (x4, y4) = other
    d = (x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3)
    if abs(d) < 1e-9:
        return x3, y3
    t = ((x3 - x1) * (y4 - y3) - (y3 - y1) * (x4 - x3)) / d
    return x1 + t * (x2 - x1), y1 + t * (y2 - y1)


class Arc(Record, frozen=True):
    """A curve as part of a circle: its radius, and how far round it goes, in radians."""

    radius: Figure
    turn: Figure


def _arc(points: list[Corner]) -> Arc | None:
    """The circle through the first, the middle and the last point: from its chord c and its rise h,
    the radius is ``c²/8h + h/2`` (geometry)."""
    if len(points) < 4:
        return None
    (ax, ay), (bx, by), (cx, cy) = (
        (float(x), float(y)) for x, y in (points[0], points[len(points) // 2], points[-1])
    )
    chord = hypot(cx - ax, cy - ay)
    rise = abs((cx - ax) * (by - ay) - (bx - ax) * (cy - ay)) / max(chord, 1e-9)
    if rise < 1e-6 or chord < 1e-6:
        return None
    span = given("chord of the curve", _finest(chord), Basis.GEOMETRY)
    height = given("rise over its chord", _finest(rise), Basis.GEOMETRY)
    radius = (squared(span) / (8 * height) + height / 2).called("radius of the curve")
    round_ = 2 * asin(min(chord / 2 / float(radius.value), 1.0))
    turn = given("round the circle, in radians", _finest(round_), Basis.GEOMETRY, 0)
    return Arc(radius, turn)


def _finest(value: float) -> Fraction:
    return Fraction(round(value * 10**6), 10**6)


def runs_of(panel: Panel) -> tuple[Run, ...]:
    """All runs of a panel, clockwise from its first edge."""
    corners = _seam_corners(panel.edges)
    groups: list[tuple[EdgeKey, list[int]]] = []
    for at, edge in enumerate(panel.edges):
        key = edge.key.run
        if groups and groups[-1][0] == key:
            groups[-1][1].append(at)
        else:
            groups.append((key, [at]))
    return tuple(_run(panel, key, numbers, corners) for key, numbers in groups)


def _run(panel: Panel, key: EdgeKey, numbers: list[int], corners: list[Corner]) -> Run:
    edges = [panel.edges[at] for at in numbers]
    points: list[Corner] = [edges[0].start, *(edge.end for edge in edges)]
    arc = _arc(points)
    if arc is not None:
        cut = arc.radius * arc.turn
        inner = arc.radius - given("seam", edges[0].allowance.value)
        sewn = inner * arc.turn if inner.value > 0 else given("no seam line is left", 0)
    else:
        ends = [(corners[at], corners[(at + 1) % len(corners)]) for at in numbers]
        cut = total([_between(edge.start, edge.end, "edge") for edge in edges])
        sewn = total([_between(start, end, "seam line") for start, end in ends])
    return Run(
        panel=panel.key,
        edge=key,
        finish=edges[0].finish,
        allowance=edges[0].allowance.value,
        cut=cut.called(f"{edge_name(key)}, cut edge"),
        sewn=sewn.called(f"{edge_name(key)}, seam line"),
        radius=arc.radius if arc is not None else None,
        points=tuple((float(x), float(y)) for x, y in points),
    )


def bound_edge(bag: Bag) -> tuple[Figure, tuple[float, ...]]:
    """The length that a binding goes round, and where along it there are corners or ends
    of a zipper.

    A bag's opening is round, with its side seams as the places to keep clear of; a panel that is
    bound all round is as long as its sides and curves together.
    """
    assert bag.opening is not None
    for panel in bag.panels if not bag.loop else ():
        runs = runs_of(panel)
        if all(run.finish == "bound" for run in runs):
            edge = total([run.cut for run in runs]).called(bag.opening.label)
            return edge, tuple(sorted((*_corners(runs), *_zipper_ends(bag, float(edge.value)))))
    half = float(bag.opening.value) / 2
    if bag.loop:
        return bag.opening, (0.0, half)
    wide = float(bag.panels[0].width.value)
    return bag.opening, (0.0, wide, half, half + wide)


def _zipper_ends(bag: Bag, edge: float) -> tuple[float, ...]:
    """Where a zipper right across the bag ends in the bound edge, on its right and on its left."""
    for seam in bag.net.seams:
        tape, bound = seam.one[0], seam.other[0]
        if tape.sheet == "zipper" and bound.part is not None:
            middle = float(sum(bound.part)) / 2
            return float(bag.finished[0].value) + middle, edge - middle
    return ()


def _corners(runs: tuple[Run, ...]) -> tuple[float, ...]:
    """Where runs meet at an angle, along the edge from the first one's start."""
    at, found = 0.0, []
    for before, run in zip((runs[-1], *runs[:-1]), runs, strict=True):
        if before.radius is None and run.radius is None:
            found.append(at)
        at += float(run.cut.value)
    return tuple(found)
