"""A simulated stitching machine: outlines in, a run of stitches with its time out.

It stands in for a device that nobody needs to have: a needle that makes so many stitches a minute,
a frame that jumps from one line to the next, a stop wherever another layer or thread comes.  What
a real machine does beyond that is its maker's to say.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from math import ceil, dist

from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.trouble import CannotPlan

MOST_STITCHES = 500_000
A_HAIR = 1e-3  # of a stitch, so that none is made for what rounding left over
TIES = 3  # short stitches that hold a line at either end
JUMP_MM_A_SECOND = 100.0
STOP_SECONDS = 20.0  # to lay a layer or change the thread; the maker's own hand is not in it


class Setting(Record, frozen=True):
    """How it is set: stitches a minute, and the length of one in millimetres."""

    a_minute: float = 600.0
    stitch_mm: float = 2.5


class Line(Record, frozen=True):
    """One line to stitch, in inches, and the stop it belongs to."""

    name: str
    points: Outline


class Stitched(Record, frozen=True):
    """The run: where the needle goes down, in inches, line by line, and how long it takes."""

    lines: tuple[tuple[str, Outline], ...]
    stitches: int
    jumps: int
    stops: int
    seconds: float
    thread_mm: float
    box: tuple[float, float, float, float]  # left, top, right, bottom


def stitched(lines: Sequence[Line], setting: Setting) -> Stitched:
    """The run over lines in their order; raises CannotPlan for a setting or a heap of lines that
    no machine stitches."""
    if not 50 <= setting.a_minute <= 2000 or not 0.4 <= setting.stitch_mm <= 12:
        raise CannotPlan(
            "", "A machine makes 50 to 2000 stitches a minute, each 0.4 to 12 mm long."
        )
    step = setting.stitch_mm / float(MM_PER_INCH)
    made: list[tuple[str, Outline]] = []
    number = 0
    for line in lines:
        points = _needle(line.points, step)
        number += len(points) - 1 + 2 * TIES
        if number > MOST_STITCHES:
            raise CannotPlan("", f"More than {MOST_STITCHES:,} stitches: take fewer lines at once.")
        made.append((line.name, points))
    if not made:
        raise CannotPlan("", "There is nothing to stitch in it.")
    gaps = [(one[1][-1], other[1][0]) for one, other in pairwise(made)]
    jumped = sum(dist(*gap) for gap in gaps) * float(MM_PER_INCH)
    stops = sum(one[0] != other[0] for one, other in pairwise(made))
    seconds = number / setting.a_minute * 60 + jumped / JUMP_MM_A_SECOND + stops * STOP_SECONDS
    xs = [x for _, points in made for x, _ in points]
    ys = [y for _, points in made for _, y in points]
    return Stitched(
        lines=tuple(made),
        stitches=number,
        jumps=sum(dist(*gap) > 1e-9 for gap in gaps),
        stops=stops,
        seconds=seconds,
        thread_mm=2 * sum(_long(points) for _, points in made) * float(MM_PER_INCH),
        box=(min(xs), min(ys), max(xs), max(ys)),
    )


def _long(points: Outline) -> float:
    return sum(dist(a, b) for a, b in pairwise(points))


def _needle(points: Outline, step: float) -> Outline:
    """Where the needle goes down: at every corner, and between them as evenly as can be, no further
    apart than one stitch."""
    if len(points) < 2:
        raise CannotPlan("", "A line needs two points to be stitched.")
    made = [points[0]]
    for (ax, ay), (bx, by) in pairwise(points):
        parts = ceil(dist((ax, ay), (bx, by)) / step - A_HAIR)
        for at in range(1, parts + 1):
            share = at / parts
            made.append((ax + (bx - ax) * share, ay + (by - ay) * share))
    return tuple(made)
