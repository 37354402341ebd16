"""Cutting many parallel lines to an outline, which may be hollow and odd.

In floats.  Every side of the outline looks up the lines it crosses in their sorted order, so
that the work grows with crossings, not with lines times sides.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence

from tessil.core.numbers.sizes import Outline
from tessil.core.quilting.seams import point_at, ways

Span = tuple[float, float]
Segment = tuple[tuple[float, float], tuple[float, float]]
TINY = 1e-9


def chords(outline: Outline, angle: float, offsets: Sequence[float]) -> list[list[Span]]:
    """For each offset (sorted), where its line lies inside the outline: spans along itself.

    A side counts for the lines from its lower offset up to, but not at, its upper one, so that
    a line through a corner is cut once; a line along a side counts as the side's inner limit.
    """
    (ax, ay), (nx, ny) = ways(angle)
    cuts: list[list[float]] = [[] for _ in offsets]
    for (x1, y1), (x2, y2) in zip(outline, (*outline[1:], outline[0]), strict=True):
        one, other = x1 * nx + y1 * ny, x2 * nx + y2 * ny
        if one == other:
            continue
        start, end = x1 * ax + y1 * ay, x2 * ax + y2 * ay
        low, high = (one, other) if one < other else (other, one)
        for at in range(bisect_left(offsets, low), bisect_left(offsets, high)):
            share = (offsets[at] - one) / (other - one)
            cuts[at].append(start + share * (end - start))
    spans = []
    for found in cuts:
        found.sort()
        spans.append(
            [
                (found[i], found[i + 1])
                for i in range(0, len(found) - 1, 2)
                if found[i + 1] - found[i] > TINY
            ]
        )
    return spans


def joined(spans: list[Span], beyond: float) -> list[Span]:
    """Spans made longer at both ends, those that then meet as one."""
    made: list[Span] = []
    for start, end in spans:
        if made and start - beyond <= made[-1][1]:
            made[-1] = (made[-1][0], end + beyond)
        else:
            made.append((start - beyond, end + beyond))
    return made


def segments(
    outline: Outline, angle: float, offsets: Sequence[float], beyond: float = 0.0
) -> list[tuple[int, Segment]]:
    """The pieces of all lines inside an outline and ``beyond`` it, each with its line's number."""
    found = []
    for at, spans in enumerate(chords(outline, angle, offsets)):
        for start, end in joined(spans, beyond):
            found.append(
                (at, (point_at(angle, offsets[at], start), point_at(angle, offsets[at], end)))
            )
    return found
