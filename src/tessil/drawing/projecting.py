"""The bag looked at from somewhere: where its facets lie in a picture, and what hides what.

Parallel projection, in inches; the picture's x to the right, y downwards.  Knows facets and poses;
must not know plans, prints or Qt.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import cos, radians, sin

from msgspec.structs import replace

from tessil.core.numbers.records import Record
from tessil.core.sewn.placing import Piece, Sewn, grounded
from tessil.core.sewn.sofar import so_far
from tessil.core.sewn.vectors import Pose, Space, cross, dot
from tessil.drawing.picture import Affine, Point

FLUSH = 1e-4  # inches before a plane that are still in it


class Stand(Record, frozen=True):
    """From where a bag is looked at, in degrees: turned about its upright axis, and from above; how
    far it is folded up, from 0 flat to 1; whether it is open, and whether one looks into it; which
    of its seams are sewn, by their slugs, where not all of them are."""

    turn: float = 0.0
    above: float = 0.0
    fold: float = 1.0
    opened: bool = False
    within: bool = False  # the walls before what is in it are left out
    done: frozenset[str] | None = None

    @property
    def sewn_up(self) -> bool:
        """Whether one sees the whole bag."""
        return self.fold == 1.0 and self.done is None

    def turned(self, right: float, up: float) -> Stand:
        """Turned by hand; not further up than straight above or below."""
        turn = (self.turn + right + 180) % 360 - 180
        return replace(self, turn=turn, above=min(max(self.above + up, -90.0), 90.0))

    def seen(self, point: Space) -> Space:
        """To the right, up, and towards the one who looks."""
        x, y, z = point
        c, s = cos(radians(self.turn)), sin(radians(self.turn))
        x, z = x * c + z * s, z * c - x * s
        c, s = cos(radians(self.above)), sin(radians(self.above))
        return x, y * c - z * s, z * c + y * s

    def drawn(self, point: Space) -> Point:
        """Where a point lies in the picture."""
        x, y, _ = self.seen(point)
        return x, -y


STANDS: dict[str, Stand] = {
    "front": Stand(-24, 16),
    "back": Stand(156, 16),
    "end": Stand(-78, 12),
    "above": Stand(-12, 62),
    "open": Stand(-24, 34, opened=True),
    "inside": Stand(-24, 20, within=True),
}
FLAT_STANDS: dict[str, Stand] = {
    "front": Stand(0, 0),
    "back": Stand(180, 0),
    "open": Stand(0, 0, opened=True),
    "inside": Stand(0, 0, within=True),
}


class Shown(Record, frozen=True):
    """A facet in the picture: its outline, how its panel maps into it, which side of the cloth is
    seen, and how squarely."""

    piece: Piece
    pose: Pose
    outline: tuple[Point, ...]
    depths: tuple[float, ...]
    affine: Affine
    right_side: bool
    out: Space  # its right side's direction, as seen
    square: float  # 1 looked at squarely, 0 along its edge


def shown(sewn: Sewn, poses: Mapping[Piece, Pose], stand: Stand) -> list[Shown]:
    """All facets, what is hidden first."""
    made = [_shown(sewn, piece, pose, stand) for piece, pose in poses.items()]
    # What is folded later lies further out.
    layers = {piece: at for at, piece in enumerate(poses)}
    seen = [one for one in made if one is not None and not (stand.within and one.right_side)]
    return _ordered(seen, layers)


def _shown(sewn: Sewn, piece: Piece, pose: Pose, stand: Stand) -> Shown | None:
    seen = [stand.seen(point) for point in sewn.outline(piece, pose)]
    right, down = stand.seen(pose.right), stand.seen(pose.down)
    out = cross(down, right)
    origin = stand.seen(pose.origin)
    if abs(out[2]) < 1e-3:
        return None
    return Shown(
        piece,
        pose,
        tuple((x, -y) for x, y, _ in seen),
        tuple(z for _, _, z in seen),
        (right[0], -right[1], down[0], -down[1], origin[0], -origin[1]),
        out[2] > 0,
        out,
        abs(out[2]),
    )


def _ordered(facets: list[Shown], layers: Mapping[Piece, int]) -> list[Shown]:
    """What hides nothing first: a facet comes after those that lie behind its plane."""
    facets = sorted(facets, key=lambda one: sum(one.depths) / len(one.depths))
    behind: dict[int, set[int]] = {at: set() for at in range(len(facets))}
    boxes = [_box(one.outline) for one in facets]
    planes = [_plane(one) for one in facets]
    for a in range(len(facets)):
        for b in range(a + 1, len(facets)):
            if not _meet(boxes[a], boxes[b]):
                continue
            first = _before(facets, planes, a, b, layers)
            if first is not None:
                behind[b if first == a else a].add(first)
    done: list[int] = []
    left = set(behind)
    while left:
        free = [at for at in sorted(left) if not behind[at] & left]
        at = free[0] if free else min(left)
        done.append(at)
        left.remove(at)
    return [facets[at] for at in done]


Plane = tuple[Space, float]  # a direction towards the one who looks, and how far along it


def _plane(one: Shown) -> Plane:
    out, (x, y) = one.out, one.outline[0]
    size = dot(out, out) ** 0.5
    way = size if out[2] >= 0 else -size
    towards = (out[0] / way, out[1] / way, out[2] / way)
    return towards, dot(towards, (x, -y, one.depths[0]))


def _before(
    facets: Sequence[Shown], planes: Sequence[Plane], a: int, b: int, layers: Mapping[Piece, int]
) -> int | None:
    """Which of two is painted first, if it matters."""
    of_b = _sides(facets[b], planes[a])
    of_a = _sides(facets[a], planes[b])
    if max(map(abs, of_b)) < FLUSH * 50 and max(map(abs, of_a)) < FLUSH * 50:
        return _flush(facets, a, b, layers)
    if min(of_b) > -FLUSH or max(of_a) < FLUSH:
        return a
    if max(of_b) < FLUSH or min(of_a) > -FLUSH:
        return b
    return None


def _flush(facets: Sequence[Shown], a: int, b: int, layers: Mapping[Piece, int]) -> int:
    """Two in one plane: what looks away lies under; else what was folded later lies on top."""
    one, other = facets[a], facets[b]
    if one.right_side != other.right_side:
        return b if one.right_side else a
    later = a if layers[one.piece] > layers[other.piece] else b
    on_top = later if one.right_side else (b if later == a else a)
    return b if on_top == a else a


def _sides(one: Shown, plane: Plane) -> list[float]:
    """How far the corners of a facet lie before a plane."""
    out, at = plane
    return [
        x * out[0] - y * out[1] + z * out[2] - at
        for (x, y), z in zip(one.outline, one.depths, strict=True)
    ]


def _box(outline: tuple[Point, ...]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return min(xs), min(ys), max(xs), max(ys)


def _meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return (
        a[0] < b[2] - FLUSH and b[0] < a[2] - FLUSH and a[1] < b[3] - FLUSH and b[1] < a[3] - FLUSH
    )


def poses_for(sewn: Sewn, stand: Stand) -> dict[Piece, Pose]:
    """Where everything lies for a stand, in the middle of the ground."""
    if stand.done is not None:
        return grounded(sewn, so_far(sewn, stand.done))
    if stand.fold == 1.0 and not stand.opened:
        return sewn.closed
    return grounded(sewn, sewn.placed(stand.fold, opened=stand.opened))
