"""The edges of a panel as a maker sees them: sides and curves, how long, how tight, what becomes
of them.

Read off the bag model.  An arc that the outline has as short straight pieces is one curve; its
radius is that of the circle through its ends and its middle (geometry).
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from math import hypot

from tessil.core.bag import Bag, Edge, Finish, Panel
from tessil.core.workings import Basis, Figure, given, total

Point = tuple[float, float]
TIGHT = Fraction(3)  # below this radius straight grain puckers; common practice
BECOMES: dict[Finish, str] = {
    "seam": "in a seam", "bound": "bound", "turned": "turned in", "zip": "zipper", "free": "as cut",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Run:
    """A side or a curve of one panel.

    ``cut`` is its length on the cut edge, ``sewn`` on the seam line; ``radius`` None where it is
    straight; ``points`` on the trimmed panel, clockwise.
    """

    key: str
    panel: str
    name: str
    finish: Finish
    allowance: Fraction
    cut: Figure
    sewn: Figure
    radius: Figure | None
    points: tuple[Point, ...]
    inside: str = ""  # what becomes of a seam's raw allowance where no lining hides it

    @property
    def becomes(self) -> str:
        return BECOMES[self.finish] + (f", {self.inside}" if self.inside else "")

    @property
    def tight(self) -> bool:
        return self.radius is not None and self.radius.value < TIGHT


def _base(name: str) -> str:
    """The name of an edge; the pieces of an arc are one rounded corner."""
    head, _, tail = name.rpartition(" ")
    return f"rounded corner, {head.split()[0]}" if tail.isdigit() else name


def _length(edge: Edge) -> float:
    return hypot(float(edge.end[0] - edge.start[0]), float(edge.end[1] - edge.start[1]))


def fine(value: float) -> Fraction:
    """A length that was measured in floats, to a ten-thousandth of an inch."""
    return Fraction(round(value * 10000), 10000)


def _exact(edges: list[Edge]) -> Figure:
    """The length of a run: exact where it is level or upright."""
    parts = []
    for edge in edges:
        dx, dy = abs(edge.end[0] - edge.start[0]), abs(edge.end[1] - edge.start[1])
        exact = dx + dy if dx == 0 or dy == 0 else fine(_length(edge))
        parts.append(given(edge.name, exact, Basis.GEOMETRY))
    if len(parts) == 1:
        return parts[0]
    return given("along the curve", sum((p.value for p in parts), Fraction(0)), Basis.GEOMETRY)


def _seam_corners(edges: tuple[Edge, ...]) -> list[Point]:
    """Where the seam lines of neighbouring edges meet: the start of each edge, moved inwards."""
    lines = []
    for edge in edges:
        (x1, y1), (x2, y2) = ((float(x), float(y)) for x, y in (edge.start, edge.end))
        long = hypot(x2 - x1, y2 - y1) or 1.0
        nx, ny = (y1 - y2) / long, (x2 - x1) / long
        a = float(edge.allowance)
        lines.append(((x1 + nx * a, y1 + ny * a), (x2 + nx * a, y2 + ny * a)))
    return [_crossing(lines[at - 1], lines[at]) for at in range(len(lines))]


def _crossing(one: tuple[Point, Point], other: tuple[Point, Point]) -> Point:
    (x1, y1), (x2, y2) = one
    (x3, y3), (x4, y4) = other
    d = (x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3)
    if abs(d) < 1e-9:
        return x3, y3
    t = ((x3 - x1) * (y4 - y3) - (y3 - y1) * (x4 - x3)) / d
    return x1 + t * (x2 - x1), y1 + t * (y2 - y1)


def _radius(points: list[Point]) -> Figure | None:
    """The circle through the first, the middle and the last point."""
    if len(points) < 4:
        return None
    (ax, ay), (bx, by), (cx, cy) = points[0], points[len(points) // 2], points[-1]
    a, b, c = hypot(bx - cx, by - cy), hypot(ax - cx, ay - cy), hypot(ax - bx, ay - by)
    twice = abs((bx - ax) * (cy - ay) - (by - ay) * (cx - ax))
    if twice < 1e-9:
        return None
    return given("radius of the curve", fine(a * b * c / (2 * twice)), Basis.GEOMETRY)


def runs_of(panel: Panel) -> tuple[Run, ...]:
    """All runs of a panel, clockwise from its first edge."""
    corners = _seam_corners(panel.edges)
    groups: list[tuple[str, list[int]]] = []
    for at, edge in enumerate(panel.edges):
        name = _base(edge.name)
        if groups and groups[-1][0] == name:
            groups[-1][1].append(at)
        else:
            groups.append((name, [at]))
    return tuple(_run(panel, name, numbers, corners) for name, numbers in groups)


def _run(panel: Panel, name: str, numbers: list[int], corners: list[Point]) -> Run:
    edges = [panel.edges[at] for at in numbers]
    points = [(float(x), float(y)) for x, y in (edges[0].start, *(e.end for e in edges))]
    sewn = 0.0
    for at in numbers:
        (x1, y1), (x2, y2) = corners[at], corners[(at + 1) % len(corners)]
        sewn += hypot(x2 - x1, y2 - y1)
    return Run(
        key=f"{panel.key}.{name}",
        panel=panel.key,
        name=name,
        finish=edges[0].finish,
        allowance=edges[0].allowance,
        cut=_exact(edges).called(f"{name}, cut edge"),
        sewn=given(f"{name}, seam line", fine(sewn), Basis.GEOMETRY),
        radius=_radius(points),
        points=tuple(points),
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
    front = bag.looks[0]
    for detail in front.details:
        if detail.kind == "zip":
            down = [float(y) for _, y in detail.points]
            middle = (min(down) + max(down)) / 2
            return float(front.width) + middle, edge - middle
    return ()


def _corners(runs: tuple[Run, ...]) -> tuple[float, ...]:
    """Where runs meet at an angle, along the edge from the first one's start."""
    at, found = 0.0, []
    for before, run in zip((runs[-1], *runs[:-1]), runs, strict=True):
        if before.radius is None and run.radius is None:
            found.append(at)
        at += float(run.cut.value)
    return tuple(found)
