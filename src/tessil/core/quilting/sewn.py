"""Where each line of a set runs: from end to end on the trimmed panel, clipped to its part."""

from __future__ import annotations

from itertools import pairwise
from math import hypot

from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.quilting.clip import Segment, segments
from tessil.core.quilting.seams import angle_of, ways
from tessil.core.quilting.sets import LineSet, Region


class QuiltLine(Record, frozen=True):
    """One line to sew: its points on the trimmed panel, from end to end."""

    key: str
    group: int  # its set's place in the panel's list
    points: tuple[tuple[float, float], ...]
    offset: float = 0.0
    closed: bool = False

    @property
    def bent(self) -> bool:
        """Whether it is a ring, or wanders: not one straight line."""
        return self.closed or len(self.points) > 2

    @property
    def length(self) -> float:
        """Inches along it, as sewn."""
        ends = (*self.points, self.points[0]) if self.closed else self.points
        return sum(hypot(bx - ax, by - ay) for (ax, ay), (bx, by) in pairwise(ends))


def sewn_lines(
    region: Region, sets: tuple[LineSet, ...], first: int, beyond: float, left_out: frozenset[str]
) -> list[QuiltLine]:
    """Every line of a part, cut to its outline and run past the trim."""
    found: list[QuiltLine] = []
    shape = region.shape
    for at, entry in enumerate(sets, start=first):
        if entry.drawn:
            found += _drawn_lines(entry, at, shape, beyond)
        else:
            numbers: dict[int, int] = {}
            for line, segment in segments(shape, entry.angle, entry.offsets, beyond):
                part = numbers.get(line, 0)
                numbers[line] = part + 1
                name = f"{entry.key}.{line}" + (f".{part}" if part else "")
                found.append(QuiltLine(name, at, _within(segment, region), entry.offsets[line]))
    return [line for line in found if line.key not in left_out]


def _drawn_lines(entry: LineSet, at: int, shape: Outline, beyond: float) -> list[QuiltLine]:
    found = []
    for number, points in enumerate(entry.drawn):
        key = entry.names[number] if entry.names else f"{entry.key}.{number}"
        if len(points) > 2:
            found.append(QuiltLine(key, at, points, number, closed=not entry.ends))
            continue
        (x1, y1), (x2, y2) = points
        angle = angle_of(x2 - x1, y2 - y1)
        (ax, ay), (nx, ny) = ways(angle)
        offset = (x1 + x2) / 2 * nx + (y1 + y2) / 2 * ny
        low, high = sorted((x1 * ax + y1 * ay, x2 * ax + y2 * ay))
        for _, (start, end) in segments(shape, angle, [offset], beyond):
            s, e = (p[0] * ax + p[1] * ay for p in (start, end))
            s = s if low - s < beyond * 2 + 0.01 else low
            e = e if e - high < beyond * 2 + 0.01 else high
            if e - s > 0.01:
                a = (ax * s + nx * offset, ay * s + ny * offset)
                b = (ax * e + nx * offset, ay * e + ny * offset)
                found.append(QuiltLine(key, at, (a, b), offset))
    return found


def _within(segment: Segment, region: Region) -> Segment:
    """A line that ran past the border to another part is cut back there."""
    low = float(region.top) if not region.first else None
    high = float(region.bottom) if not region.last else None
    (x1, y1), (x2, y2) = segment
    if (low is None and high is None) or y1 == y2:
        return segment

    def at(x: float, y: float, ox: float, oy: float) -> tuple[float, float]:
        for limit, beyond in ((low, -1), (high, 1)):
            if limit is not None and (y - limit) * beyond > 0:
                share = (limit - oy) / (y - oy)
                return ox + share * (x - ox), limit
        return x, y

    return at(x1, y1, x2, y2), at(x2, y2, x1, y1)
