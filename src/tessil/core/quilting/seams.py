"""Where patchwork seams lie on a panel: long straight runs, read off the pieces that touch.

In floats, for lines that follow seams or keep clear of them.  Must not know how tops are made.
"""

from __future__ import annotations

from collections.abc import Iterable
from math import atan2, cos, degrees, hypot, radians, sin

from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline

FINE = 3  # decimals of an inch to which two sides are one line
SHORT = 0.05
MOST_PIECES = 1500  # beyond, seams are not sought


class SeamLine(Record, frozen=True):
    """A straight seam: its angle (degrees, rising to the right, above −90 up to 90), its offset
    along the normal, and where it starts and ends along itself."""

    angle: float
    offset: float
    start: float
    end: float

    @property
    def length(self) -> float:
        return self.end - self.start

    def points(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """Its two ends."""
        return point_at(self.angle, self.offset, self.start), point_at(
            self.angle, self.offset, self.end
        )


def ways(angle: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """Unit vectors along lines at that angle and across them; y points down."""
    if angle == 0:
        return (1.0, 0.0), (0.0, 1.0)
    if angle == 90:
        return (0.0, -1.0), (1.0, 0.0)
    s, c = sin(radians(angle)), cos(radians(angle))
    return (c, -s), (s, c)


def point_at(angle: float, offset: float, along: float) -> tuple[float, float]:
    """The point so far along a line of that offset."""
    (ax, ay), (nx, ny) = ways(angle)
    return ax * along + nx * offset, ay * along + ny * offset


def angle_of(dx: float, dy: float) -> float:
    """The angle of a direction, rising to the right, above −90 up to 90."""
    angle = round(degrees(atan2(-dy, dx)), 4)
    if angle <= -90:
        angle += 180
    elif angle > 90:
        angle -= 180
    return angle + 0.0


Spans = list[tuple[float, float]]


def seam_runs(outlines: Iterable[Outline]) -> tuple[SeamLine, ...]:
    """The seams between pieces: where sides of two pieces face each other along one line."""
    sides: dict[tuple[float, float], tuple[Spans, Spans]] = {}
    for outline in outlines:
        _gather(outline, sides)
    found = []
    for (angle, offset), (one, other) in sides.items():
        for start, end in _both(_merged(one), _merged(other)):
            if end - start > SHORT:
                found.append(SeamLine(angle, offset, start, end))
    return tuple(sorted(found, key=lambda run: (run.angle, run.offset, run.start)))


def _gather(outline: Outline, sides: dict[tuple[float, float], tuple[Spans, Spans]]) -> None:
    for (x1, y1), (x2, y2) in zip(outline, (*outline[1:], outline[0]), strict=True):
        dx, dy = x2 - x1, y2 - y1
        if hypot(dx, dy) < SHORT:
            continue
        angle = angle_of(dx, dy)
        (ax, ay), (nx, ny) = ways(angle)
        offset = round((x1 * nx + y1 * ny + x2 * nx + y2 * ny) / 2, FINE) + 0.0
        start, end = x1 * ax + y1 * ay, x2 * ax + y2 * ay
        pair = sides.setdefault((angle, offset), ([], []))
        if start <= end:
            pair[0].append((start, end))
        else:
            pair[1].append((end, start))


def _merged(spans: Spans) -> Spans:
    merged: Spans = []
    for start, end in sorted(spans):
        if merged and start <= merged[-1][1] + 1e-3:
            merged[-1] = (merged[-1][0], max(merged[-1][1], end))
        else:
            merged.append((start, end))
    return merged


def _both(one: Spans, other: Spans) -> Spans:
    """Where two sorted lists of spans overlap."""
    found: Spans = []
    i = j = 0
    while i < len(one) and j < len(other):
        start, end = max(one[i][0], other[j][0]), min(one[i][1], other[j][1])
        if start < end:
            found.append((start, end))
        if one[i][1] < other[j][1]:
            i += 1
        else:
            j += 1
    return found


def offsets_at(runs: Iterable[SeamLine], angle: float) -> tuple[float, ...]:
    """The offsets of seams parallel to an angle, each once, in order."""
    return tuple(sorted({run.offset for run in runs if abs(run.angle - angle) < 0.5}))
