"""Stitched fillings: a wandering line, rings repeated, decorative rows between ditch lines.

A filling holds the layers in every direction alike: for the draw-in model half of it is upright
lines and half level ones.  Floats along its lines; its gap is exact.  shapely clips them.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, cos, hypot, pi, sin
from typing import TYPE_CHECKING

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.sizes import Outline
from tessil.core.numbers.workings import Basis, Figure, count, given
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.seams import SeamLine
from tessil.core.quilting.sets import LineSet, Region, lay_channels, lay_ditch
from tessil.core.trouble import CannotPlan

if TYPE_CHECKING:
    from shapely import LineString, Polygon
    from shapely.geometry.base import BaseGeometry

Point = tuple[float, float]
CLEAR = 0.125  # inches round a place that is kept free
SWING = 0.4  # of the gap: how far the line wanders to either side
WAVE = 2.5  # gaps from one swing to the next
POINTS = 14  # of a wave
ROUND = 24  # points of a ring
RING = Fraction(4, 5)  # of the gap: how large a ring of the repeat is
MOST_POINTS = 60_000
_HALF = given("half of it each way", Fraction(1, 2), Basis.PRACTICE, 0)


def lay_meander(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    """One line that wanders to and fro and nowhere lies further apart than its gap, on average."""
    gap = float(choice.gap)
    left, top, right, bottom = (
        float(v) for v in (region.left, region.top, region.right, region.bottom)
    )
    # A row and the way to the next one: so many inches of line for its part of the area.
    wide = max(right - left, 2 * gap)
    apart = gap * wide * _longer(gap) / (wide - gap)
    rows = max(round((bottom - top) / apart), 1)
    along = max(ceil((right - left) / (WAVE * gap) * POINTS), 2)
    _few_enough(region, rows * along)
    step = (bottom - top) / rows
    points: list[tuple[float, float]] = []
    for row in range(rows):
        y = top + (row + 0.5) * step
        xs = [left + (right - left) * at / along for at in range(along + 1)]
        wave = [(x, y + SWING * gap * sin(2 * pi * x / (WAVE * gap) + pi * (row % 2))) for x in xs]
        points += wave if row % 2 == 0 else reversed(wave)
    inside = [(x, min(max(y, top), bottom)) for x, y in points]
    return _sets(
        region, "meander", tuple(_clipped(region, [inside], choice, True)), choice.gap, False
    )


def _longer(gap: float) -> float:
    """How many times as long as its row a wandering line is."""
    steps = 400
    long = 0.0
    for at in range(steps):
        one, other = (SWING * gap * sin(2 * pi * share / steps) for share in (at, at + 1))
        long += hypot(WAVE * gap / steps, other - one)
    return long / (WAVE * gap)


def lay_repeat(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    """Rings, a gap from middle to middle, every other row set off by half of one."""
    gap, radius = float(choice.gap), float(choice.gap * RING) / 2
    left, top, right, bottom = (
        float(v) for v in (region.left, region.top, region.right, region.bottom)
    )
    columns, rows = int((right - left) / gap), int((bottom - top) / gap)
    if not columns or not rows:
        raise CannotPlan(f"{region.field}.gap", "No ring of that size fits inside: make it less.")
    _few_enough(region, columns * rows * ROUND)
    x0 = left + (right - left - columns * gap) / 2 + gap / 2
    y0 = top + (bottom - top - rows * gap) / 2 + gap / 2
    rings = []
    for row in range(rows):
        off = gap / 2 if row % 2 else 0.0
        for column in range(columns - row % 2):
            x, y = x0 + column * gap + off, y0 + row * gap
            turns = [2 * pi * at / ROUND for at in range(ROUND)]
            rings.append([(x + radius * cos(t), y + radius * sin(t)) for t in turns])
    # Rings of d lie g apart both ways: as much line as lines g²/(πd) apart would be.
    square = given("gap", choice.gap) * given("gap", choice.gap)
    ring = given("ring", choice.gap * RING)
    pi_ = given("round a ring, of its width", Fraction(pi).limit_denominator(10**6), power=0)
    like = (square / (pi_ * ring)).called("as dense as lines so far apart")
    whole = tuple(_clipped(region, rings, choice, False))
    return _sets(region, "rings", whole, like, True)


def lay_rows(region: Region, choice: Quilting, seams: tuple[SeamLine, ...]) -> tuple[LineSet, ...]:
    """Lines in the ditch, and rows between them, which may be of a decorative stitch."""
    ditch = lay_ditch(region, choice, seams)
    kept = choice.model_copy(update={"spacing": "divide"})
    (rows,) = lay_channels(region, kept, seams)
    named = LineSet(
        key=f"{region.zone}.s",
        zone=rows.zone,
        name="rows between",
        angle=rows.angle,
        gap=rows.gap,
        lines=rows.lines,
        margin=rows.margin,
        places=rows.places,
        offsets=rows.offsets,
        regular=rows.regular,
        wide=choice.stitch_wide,
    )
    return (*ditch, named)


def _few_enough(region: Region, points: int) -> None:
    if points > MOST_POINTS:
        raise CannotPlan(
            f"{region.field}.gap", "So close a filling has no end: choose a wider gap."
        )


def _clipped(
    region: Region, lines: list[list[Point]], choice: Quilting, ends: bool
) -> Iterator[Outline]:
    """Lines inside the part's outline, round what is kept free; rings only where they lie inside
    whole and clear of it."""
    import shapely

    inside = shapely.Polygon(region.shape).buffer(-1e-6)
    holes = [
        shapely.box(float(o.x), float(o.y), float(o.x + o.width), float(o.y + o.height))
        for o in choice.kept_free
    ]
    for line in lines:
        if not ends:
            ring = shapely.Polygon(line)
            if inside.covers(ring) and not any(hole.intersects(ring) for hole in holes):
                yield tuple(line)
            continue
        for hole in holes:
            line = _round(line, hole.buffer(CLEAR))
        cut = shapely.LineString(line).intersection(inside)
        for part in getattr(cut, "geoms", [cut]):
            if part.geom_type == "LineString" and len(part.coords) > 2:
                yield tuple((x, y) for x, y in part.coords)


def _round(line: list[Point], hole: Polygon) -> list[Point]:
    """The line with each way through a place replaced by the shorter one along its rim."""
    import shapely

    within = shapely.contains_xy(hole, *zip(*line, strict=True))
    rim = shapely.LineString(hole.exterior.coords)
    points: list[Point] = []
    outside: Point | None = None  # the last point before the place
    skipped = False
    for point, gone in zip(line, within, strict=True):
        if gone:
            skipped = True
            continue
        if skipped and outside is not None:
            points += _along_rim(rim, outside, point)
        points.append(point)
        outside, skipped = point, False
    return points if len(points) > 1 else line


def _along_rim(rim: LineString, one: Point, other: Point) -> list[Point]:
    """The shorter way along a closed rim from beside one point to beside the other."""
    import shapely
    from shapely.ops import substring

    start, end = (rim.project(shapely.Point(point)) for point in (one, other))
    if abs(end - start) <= rim.length / 2:
        return _points(substring(rim, start, end))
    first, last = (0.0, rim.length) if start < end else (rim.length, 0.0)  # over where it closes
    return _points(substring(rim, start, first)) + _points(substring(rim, last, end))


def _points(line: BaseGeometry) -> list[Point]:
    return [(x, y) for x, y, *_ in line.coords]


def _sets(
    region: Region, name: str, lines: tuple[Outline, ...], gap: Fraction | Figure, closed: bool
) -> tuple[LineSet, ...]:
    """A filling as two sets, each of half of it: upright lines have its stitches."""
    if not lines:
        raise CannotPlan(f"{region.field}.gap", "Nothing of such a filling fits: make it closer.")
    wish = gap if isinstance(gap, Figure) else given("gap, as sewn", gap)
    number = count(name, len(lines), Basis.GEOMETRY)
    none = count(name, 0, Basis.GEOMETRY)
    return tuple(
        LineSet(
            f"{region.zone}.{letter}",
            region.zone,
            f"{name}, {way}",
            angle,
            wish,
            many,
            share=_HALF,
            drawn=drawn,
            regular=False,
            ends=not closed,
        )
        for letter, way, angle, many, drawn in (
            ("a", "upright", 90.0, number, lines),
            ("b", "level", 0.0, none, ()),
        )
    )
