"""Facets placed in space: each turned about its crease, each sheet held by its hinge.

``fold`` goes from 0, everything flat in one net, to 1, the bag sewn up.  What a spanning tree of
creases and hinges does not decide, the other seams prove: sewn up, their edges lie on one another.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterator
from functools import cached_property
from math import atan2, degrees, hypot

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.net import Crease, Net, Side
from tessil.core.memory.once import Once
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.sewn.facets import HAIR, Facet, Rim, facets_of, tape_sheet
from tessil.core.sewn.vectors import Flat, Pose, Space, cross, dot, minus, plus, scaled, unit

_FACING = {
    "front": ((1.0, 0.0, 0.0), (0.0, -1.0, 0.0)),
    "back": ((-1.0, 0.0, 0.0), (0.0, -1.0, 0.0)),
    "down": ((1.0, 0.0, 0.0), (0.0, 0.0, -1.0)),
}
Stretch = tuple[Facet, int, Rim]  # a facet, and which of its sides is a stretch of an edge
Piece = tuple[str, int, int]  # a sheet, which copy of it, and a facet by its number

# A bag is folded up to see where its straps go, and again with them on it.
_FACETS: Once[dict[str, tuple[Facet, ...]]] = Once()
_TREES: Once[tuple[tuple[Piece, Piece, Hold], ...]] = Once()


class Sewn(Record, frozen=True, dict=True):
    """A bag's facets and how they hang together; nothing of it depends on how far it is folded."""

    net: Net

    @cached_property
    def facets(self) -> dict[str, tuple[Facet, ...]]:
        """The facets of every sheet and tape, by its name."""
        return _FACETS.of((self.net.sheets, self.net.tapes), self._facets)

    def _facets(self) -> dict[str, tuple[Facet, ...]]:
        sheets = (*self.net.sheets, *(tape_sheet(tape) for tape in self.net.tapes))
        return {sheet.panel: facets_of(sheet) for sheet in sheets}

    @cached_property
    def creases(self) -> dict[str, tuple[Crease, ...]]:
        """The creases of every sheet and tape."""
        sheets = (*self.net.sheets, *(tape_sheet(tape) for tape in self.net.tapes))
        return {sheet.panel: sheet.creases for sheet in sheets}

    @property
    def opens(self) -> bool:
        """Whether something of it is turned back to open it."""
        return any(seam.opens for seam in self.net.seams) or any(
            crease.opens for creases in self.creases.values() for crease in creases
        )

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """Every facet of every copy."""
        copies = {sheet.panel: sheet.copies for sheet in self.net.sheets}
        return tuple(
            (name, copy, facet.number)
            for name, facets in self.facets.items()
            for copy in range(copies.get(name, 1))
            for facet in facets
        )

    def facet(self, piece: Piece) -> Facet:
        return self.facets[piece[0]][piece[2]]

    @cached_property
    def tree(self) -> tuple[tuple[Piece, Piece, Hold], ...]:
        """Which piece is placed from which, the still one's neighbours first."""
        net = self.net
        return _TREES.of((net.sheets, net.tapes, net.seams, net.still), self._tree)

    def _tree(self) -> tuple[tuple[Piece, Piece, Hold], ...]:
        start = (self.net.still[0], 0, self._still.number)
        met, order, queue = {start}, [], deque([start])
        while queue:
            piece = queue.popleft()
            for other, hold in self._beside(piece):
                if other not in met:
                    met.add(other)
                    order.append((piece, other, hold))
                    queue.append(other)
        return tuple(order)

    @cached_property
    def _still(self) -> Facet:
        name, (x, y) = self.net.still
        at = (float(x), float(y))
        facets = self.facets[name]
        return next((facet for facet in facets if _holds(facet, at)), facets[0])

    def _beside(self, piece: Piece) -> Iterator[tuple[Piece, Hold]]:
        """The pieces over this one's creases in the order they are folded, then over the hinges of
        its sheet."""
        name, copy, _ = piece
        facet = self.facet(piece)
        for at, rim in sorted(enumerate(facet.rims), key=lambda found: found[1].crease):
            if rim.crease >= 0:
                start, end = _side(facet, at)
                for other in self.facets[name]:
                    if other.number != facet.number and _shares(other, rim.crease, start, end):
                        crease = self.creases[name][rim.crease]
                        hold = Hold(start, end, crease.turn, opens=crease.opens)
                        yield (name, copy, other.number), hold
        for at, here, there in self._hinges.get(piece[:2], ()):
            yield from self._over(piece, at, here, there)

    @cached_property
    def _hinges(self) -> dict[tuple[str, int], list[tuple[int, Side, Side]]]:
        """The hinges of every copy of a sheet: which seam, its side there, and the other."""
        found: dict[tuple[str, int], list[tuple[int, Side, Side]]] = {}
        for at, seam in enumerate(self.net.seams):
            if seam.hinge:
                for here, there in ((seam.one[0], seam.other[0]), (seam.other[0], seam.one[0])):
                    found.setdefault((here.sheet, here.copy), []).append((at, here, there))
        return found

    def _over(self, piece: Piece, at: int, here: Side, there: Side) -> Iterator[tuple[Piece, Hold]]:
        """The facet that a hinge hangs on this one, where these two have most of the seam."""
        _, one, other = max(self._shares(here, there), key=lambda found: found[0])
        if one[0].number == piece[2]:
            start, end = self.stretch(here)
            own = _line(*other, *self.stretch(there))
            seam = self.net.seams[at]
            hold = Hold(*_line(*one, start, end), seam.turn, own, seam.opens, at)
            yield (there.sheet, there.copy, other[0].number), hold

    def _shares(self, here: Side, there: Side) -> Iterator[tuple[float, Stretch, Stretch]]:
        """How much of a seam each two facets of its sheets have in common."""
        (start, _), (_, end) = self.stretch(here), self.stretch(there)
        for one in self.rims(here):
            for other in self.rims(there):
                low = max(one[2].start - start, end - other[2].end)
                high = min(one[2].end - start, end - other[2].start)
                yield high - low, one, other

    def long(self, side: Side) -> float:
        """The length of a side on its stitch line."""
        start, end = self.stretch(side)
        return end - start

    def stretch(self, side: Side) -> tuple[float, float]:
        """From where to where a side goes along the stitch line of its edge."""
        rims = self.rims(side)
        if side.part is None:
            return min(rim.start for _, _, rim in rims), max(rim.end for _, _, rim in rims)
        start, end = (_reached(rims, side.edge.side, float(at)) for at in side.part)
        return start, end

    def rims(self, side: Side) -> list[Stretch]:
        """Where the facets of a sheet have a stretch of a side."""
        return self._stretches[side.sheet, side.edge]

    @cached_property
    def _stretches(self) -> dict[tuple[str, EdgeKey], list[Stretch]]:
        """The stretches of every edge."""
        found: dict[tuple[str, EdgeKey], list[Stretch]] = {}
        for name, facets in self.facets.items():
            for facet in facets:
                for at, rim in enumerate(facet.rims):
                    if rim.edge is not None:
                        found.setdefault((name, rim.edge), []).append((facet, at, rim))
        return found

    @property
    def start(self) -> dict[Piece, Pose]:
        """Where the piece lies that keeps still."""
        right, down = _FACING[self.net.facing]
        return {(self.net.still[0], 0, self._still.number): Pose((0.0, 0.0, 0.0), right, down)}

    def placed(self, fold: float = 1.0, opened: bool = False) -> dict[Piece, Pose]:
        """Where every piece lies, folded so far, or ``opened``; in the order they are folded."""
        poses = self.start
        for piece, other, hold in self.tree:
            turn = 0.0 if opened and hold.opens else hold.turn * fold
            poses[other] = hold.hung(poses[piece], self.facet(other), turn)
        return poses

    @cached_property
    def shut(self) -> dict[Piece, Pose]:
        """Sewn up, in the middle of the ground: x and z about nothing, y from nothing up."""
        return grounded(self, self.placed())

    @cached_property
    def opening(self) -> frozenset[Piece]:
        """The pieces that hang on what opens: a flap."""
        found: set[Piece] = set()
        for holder, piece, hold in self.tree:
            if hold.opens or holder in found:
                found.add(piece)
        return frozenset(found)

    @cached_property
    def closed(self) -> dict[Piece, Pose]:
        """As it is carried: where a flap passes over less than the depth, both walls lean together
        above and the ends fold in."""
        return self.shut if self.net.mouth is None else _drawn_together(self, self.net.mouth)

    def outline(self, piece: Piece, pose: Pose) -> tuple[Space, ...]:
        return tuple(pose.at(corner) for corner in self.facet(piece).corners)

    def along(self, side: Side, steps: int, poses: dict[Piece, Pose]) -> list[Space]:
        """Points along a side in space, from where it starts clockwise."""
        start, end = self.stretch(side)
        return [
            self._point(side, start + (end - start) * step / steps, poses)
            for step in range(steps + 1)
        ]

    def _point(self, side: Side, at: float, poses: dict[Piece, Pose]) -> Space:
        facet, number, rim = min(
            self.rims(side), key=lambda found: max(found[2].start - at, at - found[2].end, 0.0)
        )
        (x1, y1), (x2, y2) = _side(facet, number)
        t = (at - rim.start) / (rim.end - rim.start)
        pose = poses[side.sheet, side.copy, facet.number]
        return pose.at((x1 + t * (x2 - x1), y1 + t * (y2 - y1)))


class Hold(Record, frozen=True):
    """What a piece hangs on: a line on the piece that holds it, how far it turns about that, and
    the same line on the piece itself where that is of another sheet, the other way round."""

    start: Flat
    end: Flat
    turn: int
    own: tuple[Flat, Flat] | None = None
    opens: bool = False
    seam: int = -1  # which of the net's seams it is; none where it is a crease

    def hung(self, holder: Pose, facet: Facet, turn: float) -> Pose:
        """Where the piece lies that hangs on a holder placed so."""
        first, last = holder.at(self.start), holder.at(self.end)
        pose = holder
        if self.own is not None:
            pose = _straight_on(first, last, holder, self.own)
        if not turn:
            return pose
        axis = unit(minus(last, first))
        inwards = minus(pose.at(facet.middle), first)
        side = cross(axis, inwards)
        return pose.about(first, axis, -turn if dot(side, pose.out) > 0 else turn)


def _straight_on(first: Space, last: Space, holder: Pose, own: tuple[Flat, Flat]) -> Pose:
    """The pose that goes on flat over a seam: its start lies on the holder's end."""
    (x1, y1), (x2, y2) = own
    length = hypot(x2 - x1, y2 - y1)
    ex, ey = (x2 - x1) / length, (y2 - y1) / length
    back = unit(minus(first, last))  # the way of the hung edge in space
    inwards = cross(back, holder.out)
    inwards = scaled(inwards, 1 / (dot(inwards, inwards) ** 0.5))
    right = plus(scaled(back, ex), inwards, -ey)
    down = plus(scaled(back, ey), inwards, ex)
    pose = Pose((0.0, 0.0, 0.0), right, down)
    return pose.moved(minus(last, pose.at((x1, y1))))


def _reached(rims: list[Stretch], edge: str, place: float) -> float:
    """How far along an edge a place on it lies, told by how far down or across the panel it is."""
    way = 1 if edge in ("left", "right") else 0

    def ends(found: Stretch) -> tuple[float, float]:
        one, other = _side(found[0], found[1])
        return one[way], other[way]

    def off(found: Stretch) -> float:
        low, high = sorted(ends(found))
        return max(low - place, place - high, 0.0)

    nearest = min(rims, key=off)
    one, other = ends(nearest)
    rim = nearest[2]
    return rim.start + (place - one) / (other - one) * (rim.end - rim.start)


def _side(facet: Facet, at: int) -> tuple[Flat, Flat]:
    return facet.corners[at], facet.corners[(at + 1) % len(facet.corners)]


def _line(facet: Facet, at: int, rim: Rim, start: float, end: float) -> tuple[Flat, Flat]:
    """The line of a side drawn out to where its edge is so far along."""
    (x1, y1), (x2, y2) = _side(facet, at)
    per = 1 / (rim.end - rim.start)
    dx, dy = (x2 - x1) * per, (y2 - y1) * per
    return (
        (x1 + (start - rim.start) * dx, y1 + (start - rim.start) * dy),
        (x1 + (end - rim.start) * dx, y1 + (end - rim.start) * dy),
    )


def _shares(facet: Facet, crease: int, start: Flat, end: Flat) -> bool:
    """Whether a facet has the other side of a stretch of crease."""
    for at, rim in enumerate(facet.rims):
        if rim.crease == crease:
            (x1, y1), (x2, y2) = _side(facet, at)
            along = (end[0] - start[0], end[1] - start[1])
            square = along[0] ** 2 + along[1] ** 2
            a = ((x1 - start[0]) * along[0] + (y1 - start[1]) * along[1]) / square
            b = ((x2 - start[0]) * along[0] + (y2 - start[1]) * along[1]) / square
            if min(1.0, max(a, b)) - max(0.0, min(a, b)) > HAIR:
                return True
    return False


def _holds(facet: Facet, at: Flat) -> bool:
    """Whether a point lies in a facet that has no dents, or on its rim."""
    x, y = at
    corners = facet.corners
    return all(
        (x2 - x1) * (y - y1) - (y2 - y1) * (x - x1) > -HAIR
        for (x1, y1), (x2, y2) in zip(corners, (*corners[1:], corners[0]), strict=True)
    )


def grounded(sewn: Sewn, poses: dict[Piece, Pose]) -> dict[Piece, Pose]:
    """The same, moved so that the bag stands on y = 0 in the middle."""
    points = [point for piece, pose in poses.items() for point in sewn.outline(piece, pose)]
    low, high = (
        tuple(pick(point[way] for point in points) for way in range(3)) for pick in (min, max)
    )
    by = (-(low[0] + high[0]) / 2, -low[1], -(low[2] + high[2]) / 2)
    return {piece: pose.moved(by) for piece, pose in poses.items()}


def spans(sewn: Sewn, poses: dict[Piece, Pose], leave: frozenset[str] = frozenset()) -> Space:
    """How wide, high and deep the facets of all sheets but some are together."""
    points = [
        point
        for piece, pose in poses.items()
        if piece[0] not in leave
        for point in sewn.outline(piece, pose)
    ]
    wide, high, deep = (
        max(point[way] for point in points) - min(point[way] for point in points)
        for way in range(3)
    )
    return wide, high, deep


def _drawn_together(sewn: Sewn, mouth: Inches) -> dict[Piece, Pose]:
    """A standing bag with its top drawn together to ``mouth`` deep, its flap closed over that.

    What hangs on a hinge that opens is the flap; all else gives: z shrinks evenly from the ground
    up.  A facet of an end would become crooked: it is drawn by three of its corners.
    """
    deep, high = _depth(sewn)
    over = float(mouth)
    lost = (deep - over) / deep / high

    def drawn(point: Space) -> Space:
        x, y, z = point
        return x, y, z * (1 - lost * y)

    flap = sewn.opening
    poses = {
        piece: pose if piece in flap else _fitted(sewn.facet(piece), pose, drawn)
        for piece, pose in sewn.shut.items()
    }
    lean = degrees(atan2((deep - over) / 2, high))
    for piece, other, hold in sewn.tree:
        if other in flap:
            # Both walls lean, each by as much: a flap folded right over has both to make up for.
            turn = hold.turn * (1 - lean / 90) if hold.opens else float(hold.turn)
            poses[other] = hold.hung(poses[piece], sewn.facet(other), turn)
    return poses


def _depth(sewn: Sewn) -> tuple[float, float]:
    """How deep and high the bag stands, without what opens."""
    flap = {piece[0] for piece in sewn.opening}
    _, high, deep = spans(sewn, sewn.shut, frozenset(flap))
    return deep, high


def _fitted(facet: Facet, pose: Pose, drawn: Callable[[Space], Space]) -> Pose:
    """The pose through three corners of a facet, moved."""
    a, b, c = _corners(facet)
    to = [drawn(pose.at(point)) for point in (a, b, c)]
    one, two = (b[0] - a[0], b[1] - a[1]), (c[0] - a[0], c[1] - a[1])
    area = one[0] * two[1] - one[1] * two[0]
    along, aside = minus(to[1], to[0]), minus(to[2], to[0])
    right = plus(scaled(along, two[1] / area), aside, -one[1] / area)
    down = plus(scaled(along, -two[0] / area), aside, one[0] / area)
    flat = Pose((0.0, 0.0, 0.0), right, down)
    return flat.moved(minus(to[0], flat.at(a)))


def _corners(facet: Facet) -> tuple[Flat, Flat, Flat]:
    """Three corners that lie well apart, the first at the top."""
    first = min(facet.corners, key=lambda point: (round(point[1], 6), point[0]))
    second = max(facet.corners, key=lambda p: hypot(p[0] - first[0], p[1] - first[1]))
    last = max(
        facet.corners,
        key=lambda p: abs(
            (second[0] - first[0]) * (p[1] - first[1]) - (second[1] - first[1]) * (p[0] - first[0])
        ),
    )
    return first, second, last
