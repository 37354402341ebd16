"""What shows from the front and from the back, read off the sewn bag.

A face is a facet that looks that way: which part of its panel it is, where it lies in the view,
and whether what points up on the panel points down there.  Inches, y downwards from the top.
"""

from __future__ import annotations

from typing import Literal

from tessil.core.numbers.records import Record
from tessil.core.sewn.placing import Piece, Sewn, grounded
from tessil.core.sewn.vectors import Pose, long

LookSide = Literal["front", "back", "open"]
Box = tuple[float, float, float, float]  # x, y, width, height
SQUARE_ON = 0.9  # how squarely a facet looks at the one who looks, to show there


class Face(Record, frozen=True):
    """A part of a trimmed panel and where it lies in a view of the finished bag."""

    panel: str
    source: Box
    target: Box
    turned: bool = False


class Look(Record, frozen=True):
    """The finished bag from one side: its faces, those on top last."""

    side: LookSide
    width: float
    height: float
    faces: tuple[Face, ...]


def looks_of(sewn: Sewn) -> tuple[Look, ...]:
    """Front and back, and the front with its flap up, if it has one."""
    closed = sewn.closed
    found = [_look(sewn, closed, "front"), _look(sewn, closed, "back")]
    if sewn.opens:
        found.append(_look(sewn, grounded(sewn, sewn.placed(opened=True)), "open"))
    return tuple(look for look in found if look.faces)


def _look(sewn: Sewn, poses: dict[Piece, Pose], side: LookSide) -> Look:
    way = -1.0 if side == "back" else 1.0
    tapes = {tape.key for tape in sewn.net.tapes}
    shown = [
        (piece, pose)
        for piece, pose in poses.items()
        if piece[0] not in tapes and _square(pose) * way > SQUARE_ON
    ]
    main = [point for piece, pose in poses.items() for point in sewn.outline(piece, pose)]
    high = max((point[1] for point in main), default=0.0)
    opening = sewn.opening if side == "front" else frozenset()
    order = {piece: at for at, piece in enumerate(poses)}
    shown.sort(
        key=lambda found: (found[0] in opening, round(found[1].origin[2] * way, 6), order[found[0]])
    )
    faces = tuple(_face(sewn, piece, pose, way, high) for piece, pose in shown)
    left = min((face.target[0] for face in faces), default=0.0)
    right = max((face.target[0] + face.target[2] for face in faces), default=0.0)
    moved = tuple(
        Face(face.panel, face.source, (face.target[0] - left, *face.target[1:]), face.turned)
        for face in faces
    )
    return Look(side, right - left, high, moved)


def _square(pose: Pose) -> float:
    """How squarely it looks at the one before it: 1 full in the face, −1 away."""
    out = pose.out
    return out[2] / max(long(out), 1e-9)


def _face(sewn: Sewn, piece: Piece, pose: Pose, way: float, high: float) -> Face:
    points = sewn.outline(piece, pose)
    xs, ys = [point[0] * way for point in points], [high - point[1] for point in points]
    target = min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    return Face(piece[0], sewn.facet(piece).box, target, pose.down[1] > 0)
