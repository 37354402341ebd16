"""A picture of a plan as data: what is drawn, in inches, and what it means.

Pictures know no Qt, so that what is drawn can be tested without pixels; ``painter`` puts
them on a screen, a page or an SVG.  Coordinates are inches, x to the right, y downwards.
Words, dimension offsets and line widths are in reading sizes and do not grow with zoom.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import pairwise
from math import hypot
from typing import Literal

from tessil.core.catalogue.prints import Print
from tessil.core.numbers.polygons import band
from tessil.core.numbers.polygons import rectangle as rectangle
from tessil.core.numbers.records import Record

Point = tuple[float, float]
Tone = Literal[
    "batting", "backing", "off", "paper", "shade", "object", "glow", "binding", "zip", "window"
]
Stroke = Literal[
    "raw",
    "seam",
    "trim",
    "quilt",
    "notch",
    "fold",
    "piece",
    "picked",
    "warn",
    "thin",
    "object",
    "cord",
    "teeth",
    "mark",
    "pin",
    "head",
    "clash",
    "drawn",
    "hatch",
]


class Cloth(Record, frozen=True):
    """A polygon of a print at true scale; the print's pattern starts at ``origin``."""

    outline: tuple[Point, ...]
    print: Print
    key: str = ""
    turned: bool = False  # upside-down

    @property
    def origin(self) -> Point:
        """Where a repeat begins: at its first corner, as it is cut; of a print that is placed so
        that the picture lies in the middle."""
        if not self.print.placed:
            return self.outline[0]
        xs, ys = [x for x, _ in self.outline], [y for _, y in self.outline]
        wide, high = (float(side) for side in self.print.tile)
        way = 1 if self.turned else -1
        return (min(xs) + max(xs) + way * wide) / 2, (min(ys) + max(ys) + way * high) / 2


class Shade(Record, frozen=True):
    """A polygon in a plain tone; ``share`` how much it covers, where the tone is sheer."""

    outline: tuple[Point, ...]
    tone: Tone
    key: str = ""
    share: float | None = None


Affine = tuple[float, float, float, float, float, float]  # x to a, b; y to c, d; moved by e, f


class Placed(Record, frozen=True):
    """Cloth and lines of a flat thing that lies askew: in its own inches, and where they lie."""

    items: tuple[Cloth | Line, ...]
    affine: Affine

    def at(self, point: Point) -> Point:
        """Where a point of the flat thing lies in the picture."""
        a, b, c, d, e, f = self.affine
        return a * point[0] + c * point[1] + e, b * point[0] + d * point[1] + f


class Line(Record, frozen=True):
    """A straight or broken line."""

    points: tuple[Point, ...]
    stroke: Stroke
    closed: bool = False
    key: str = ""


class Net(Record, frozen=True):
    """Many short straight lines of one kind: from x, y to x, y."""

    segments: tuple[tuple[float, float, float, float], ...]
    stroke: Stroke


class Dimension(Record, frozen=True):
    """A measured distance; ``lane`` reading steps away from it, up or left if negative."""

    start: Point
    end: Point
    text: str
    lane: float = 0
    picked: bool = False
    over_cloth: bool = False  # its words on a chip, to be read on any print
    size: str = ""  # the size of the bag that it tells, where that can be wished for


class Label(Record, frozen=True):
    """Words at a point."""

    at: Point
    text: str
    align: Literal["left", "centre", "right"] = "centre"
    strong: bool = False
    chip: bool = False  # on a small paper chip, over cloth
    within: float = 0.0  # inches of room: where the words are wider, the short ones or none
    short: str = ""


class Badge(Record, frozen=True):
    """A snag's number at its place."""

    at: Point
    number: int
    blocks: bool


class Late(Mapping[str, tuple[Point, ...]]):
    """Outlines by name that are worked out when first somebody points at one."""

    def __init__(self, made: Callable[[], Mapping[str, tuple[Point, ...]]]) -> None:
        self._made = made
        self._all: Mapping[str, tuple[Point, ...]] | None = None

    def _known(self) -> Mapping[str, tuple[Point, ...]]:
        if self._all is None:
            self._all = self._made()
        return self._all

    def __getitem__(self, key: str) -> tuple[Point, ...]:
        return self._known()[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self._known())

    def __len__(self) -> int:
        return len(self._known())


Item = Cloth | Shade | Placed | Line | Net | Dimension | Label | Badge


@dataclass(frozen=True, slots=True)
class Picture:
    """Items in painting order, the box they live in, and how much room words need round it.

    ``room`` is left, top, right, bottom in reading sizes.  ``pieces`` are the outlines that
    can be clicked, by key.
    """

    items: tuple[Item, ...]
    box: tuple[float, float, float, float]
    room: tuple[int, int, int, int] = (56, 44, 28, 32)
    caption: str = ""
    ruled: bool = True
    pieces: Mapping[str, tuple[Point, ...]] = field(default_factory=dict, compare=False)
    handles: dict[str, tuple[Point, ...]] = field(default_factory=dict)  # what can be dragged
    strokes: dict[str, tuple[Point, ...]] = field(default_factory=dict)  # lines to take in hand
    turns: tuple[float, float, float, float] | None = None  # where a bag is that can be turned
    cuts: bool = False  # a cloth whose cuts are made one after the other

    @property
    def weight(self) -> int:
        """How many things there are to paint."""
        return sum(len(item.items) if isinstance(item, Placed) else 1 for item in self.items)

    def of(self, kind: type) -> list[Item]:
        """The items of one kind, for tests and hit finding."""
        return [item for item in self.items if isinstance(item, kind)]


def inside(point: Point, outline: tuple[Point, ...]) -> bool:
    """Whether a point lies in a polygon, by counting crossings."""
    x, y = point
    found = False
    for (x1, y1), (x2, y2) in zip(outline, (*outline[1:], outline[0]), strict=True):
        if (y1 > y) != (y2 > y) and x < (x2 - x1) * (y - y1) / (y2 - y1) + x1:
            found = not found
    return found


def distance(point: Point, points: tuple[Point, ...]) -> float:
    """From a point to a broken line, closed if it has more than two points."""
    x, y = point
    ends = (*points, points[0]) if len(points) > 2 else points
    best = float("inf")
    for (x1, y1), (x2, y2) in pairwise(ends):
        dx, dy = x2 - x1, y2 - y1
        long = dx * dx + dy * dy or 1e-12
        share = min(max(((x - x1) * dx + (y - y1) * dy) / long, 0.0), 1.0)
        best = min(best, hypot(x - x1 - share * dx, y - y1 - share * dy))
    return best


def clipped(outline: tuple[Point, ...], low: float, high: float, axis: int) -> tuple[Point, ...]:
    """A polygon cut to low..high along one axis."""
    return band(outline, (1.0, 0.0) if axis == 0 else (0.0, 1.0), low, high)


def neighbour(pieces: Mapping[str, tuple[Point, ...]], key: str, way: tuple[int, int]) -> str:
    """The next piece from one that way, by where their middles lie; nothing at the edge.

    Pieces that are stacked one way only are reached by either pair of arrows.
    """
    middles = {
        name: (sum(x for x, _ in shape) / len(shape), sum(y for _, y in shape) / len(shape))
        for name, shape in pieces.items()
    }
    x, y = middles[key]
    dx, dy = way
    best, found = float("inf"), ""
    for name, (px, py) in middles.items():
        ahead = (px - x) * dx + (py - y) * dy
        aside = abs((px - x) * dy) + abs((py - y) * dx)
        if name == key or ahead < 1e-6 or aside > ahead * 1.5:
            continue
        if ahead + 2 * aside < best:
            best, found = ahead + 2 * aside, name
    if found:
        return found
    single_row = len({round(py, 3) for _, py in middles.values()}) == 1
    single_column = len({round(px, 3) for px, _ in middles.values()}) == 1
    names = list(pieces)
    if (single_column and dx) or (single_row and dy):
        at = names.index(key) + (dx or dy)
        return names[at] if 0 <= at < len(names) else ""
    return ""
