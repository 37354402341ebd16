"""The bag while it is sewn: what is joined so far hangs together, what is not lies apart.

A part turns about the line it hangs on by as much of its angle as is sewn of the other seams that
hold it there: two panels sewn along one edge lie open like a book, and close as their sides are
sewn.  What no seam holds yet lies aside.  Knows the sewn model alone.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from tessil.core.bag.net import Side, named_seams
from tessil.core.numbers.records import Record
from tessil.core.sewn.facets import HAIR
from tessil.core.sewn.placing import Hold, Piece, Sewn
from tessil.core.sewn.vectors import Pose, minus, plus, scaled, unit

APART = 0.9  # inches: how far what is not sewn on lies from where it will be


class Link(Record, frozen=True):
    """A seam by its slug, and the pieces on either side of it."""

    slug: str
    one: frozenset[Piece]
    other: frozenset[Piece]

    def holds(self, parts: frozenset[Piece]) -> bool:
        """Whether it joins these parts to others."""
        one, other = self.one, self.other
        return bool((one & parts and other - parts) or (other & parts and one - parts))


def links_of(sewn: Sewn) -> tuple[Link, ...]:
    """Every seam of the net, and what it joins."""
    return tuple(
        Link(slug, _pieces(sewn, seam.one), _pieces(sewn, seam.other))
        for slug, seam in named_seams(sewn.net)
    )


def _pieces(sewn: Sewn, sides: Iterable[Side]) -> frozenset[Piece]:
    return frozenset(piece for side in sides for piece in _along(sewn, side))


def _along(sewn: Sewn, side: Side) -> Iterator[Piece]:
    """The facets along a side or the part of it."""
    start, end = sewn.stretch(side)
    for facet, _, rim in sewn.rims(side):
        if min(rim.end, end) - max(rim.start, start) > HAIR:
            yield side.sheet, side.copy, facet.number


def so_far(sewn: Sewn, done: frozenset[str]) -> dict[Piece, Pose]:
    """Where every piece lies when the seams with these slugs are sewn; sewn up when all are."""
    links = links_of(sewn)
    whole = all(link.slug in done for link in links)
    if whole:
        return sewn.closed
    poses = sewn.start
    for holder, piece, hold in sewn.tree:
        own = links[hold.seam].slug if hold.seam >= 0 else ""
        held = {link.slug for link in links if link.holds(_hung(sewn, piece))}
        others = held - {own}
        share = len(others & done) / len(others) if others and not hold.opens else 0.0
        pose = hold.hung(poses[holder], sewn.facet(piece), hold.turn * share)
        if own and not held & done:
            pose = _aside(sewn, hold, poses[holder], pose, piece)
        poses[piece] = pose
    return poses


def _hung(sewn: Sewn, piece: Piece) -> frozenset[Piece]:
    """A piece and all that hangs on it."""
    found = {piece}
    for holder, other, _ in sewn.tree:
        if holder in found:
            found.add(other)
    return frozenset(found)


def _aside(sewn: Sewn, hold: Hold, holder: Pose, pose: Pose, piece: Piece) -> Pose:
    """Moved away from the line it will hang on."""
    first, last = holder.at(hold.start), holder.at(hold.end)
    axis = unit(minus(last, first))
    inwards = minus(pose.at(sewn.facet(piece).middle), first)
    along = sum(a * b for a, b in zip(inwards, axis, strict=True))
    away = unit(plus(inwards, axis, -along))
    return pose.moved(scaled(away, APART))
