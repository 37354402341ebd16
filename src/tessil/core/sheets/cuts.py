"""The cuts that part a cloth into the pieces laid on it, in the order of the ruler, and what is
left of it.

Edge to edge: strips first, then across each strip, then what lies in a stack.  Knows boxes; must
not know what they are for.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record

Way = Literal["across", "along"]
DEEPEST = 3


class Box(Record, frozen=True):
    """A rectangle on the cloth: its near corner, width across and height along; which piece it is,
    or -1 for what is left."""

    x: Fraction
    y: Fraction
    w: Fraction
    h: Fraction
    piece: int = -1

    @property
    def right(self) -> Fraction:
        return self.x + self.w

    @property
    def end(self) -> Fraction:
        return self.y + self.h


class Stroke(Record, frozen=True):
    """One cut: ``deep`` 1 for a strip, 2 across it, 3 within a stack.

    ``at`` is where it lies, ``edge`` the edge the ruler is laid to, both from the cloth's corner;
    it runs from ``begins`` to ``ends``.  ``of`` is what lies under the ruler before it, ``part``
    what it parts from the rest, ``done`` the piece that is finished with it.
    """

    deep: int
    way: Way
    at: Fraction
    edge: Fraction
    begins: Fraction
    ends: Fraction
    of: Box
    part: Box
    done: int = -1

    @property
    def length(self) -> Fraction:
        """How long the cut is."""
        return self.ends - self.begins

    @property
    def reading(self) -> Fraction:
        """What is read on the ruler."""
        return self.at - self.edge


class Parting(Record, frozen=True):
    """A cloth's cuts in order, and the rectangles that are left of it."""

    cuts: tuple[Stroke, ...]
    left: tuple[Box, ...]


def parted(cloth: Box, pieces: Sequence[Box]) -> Parting | None:
    """How the pieces come out of a cloth in three stages, the strips across it if they can be, else
    along it; None if they come out neither way."""
    ways: tuple[Way, Way] = ("across", "along")
    for way in ways:
        made = list(_parted(cloth, list(pieces), way, 1))
        if None not in made:
            found = [one for one in made if one is not None]
            return Parting(
                tuple(one for one in found if isinstance(one, Stroke)),
                tuple(one for one in found if isinstance(one, Box)),
            )
    return None


def _parted(part: Box, pieces: list[Box], way: Way, deep: int) -> Iterator[Stroke | Box | None]:
    """The cuts of one part, each followed by those of what it parts off; None where a piece cannot
    be parted in time."""
    if not pieces:
        yield part
        return
    if len(pieces) == 1 and _fills(pieces[0], part):
        return
    if deep > DEEPEST:
        yield None
        return
    across = way == "across"
    edge, over = (part.y, part.end) if across else (part.x, part.right)
    begins, ends = (part.x, part.right) if across else (part.y, part.end)
    other: Way = "along" if across else "across"
    for group in _groups(pieces, across):
        at = max(one.end if across else one.right for one in group)
        near = min(one.y if across else one.x for one in group)
        if near > edge:  # a gap before it: what lies there is cut off first
            gap = _slice(part, edge, near, across)
            of = _slice(part, edge, over, across)
            yield Stroke(deep, way, near, edge, begins, ends, of, gap)
            yield gap
            edge = near
        slice_ = _slice(part, edge, at, across)
        if at < over:
            done = group[0].piece if len(group) == 1 and _fills(group[0], slice_) else -1
            of = _slice(part, edge, over, across)
            yield Stroke(deep, way, at, edge, begins, ends, of, slice_, done)
        yield from _parted(slice_, group, other, deep + 1)
        edge = at
    if edge < over:
        yield _slice(part, edge, over, across)


def _fills(piece: Box, part: Box) -> bool:
    return (piece.x, piece.y, piece.w, piece.h) == (part.x, part.y, part.w, part.h)


def _slice(part: Box, low: Fraction, high: Fraction, across: bool) -> Box:
    if across:
        return Box(part.x, low, part.w, high - low)
    return Box(low, part.y, high - low, part.h)


def _groups(pieces: list[Box], across: bool) -> Iterator[list[Box]]:
    """Pieces between which one can cut right through, in order."""
    ordered = sorted(pieces, key=lambda one: (one.y, one.x) if across else (one.x, one.y))
    group: list[Box] = []
    reach = Fraction(0)
    for piece in ordered:
        begins = piece.y if across else piece.x
        if group and begins >= reach:
            yield group
            group = []
        group.append(piece)
        ends = piece.end if across else piece.right
        reach = ends if len(group) == 1 else max(reach, ends)
    if group:
        yield group
