"""What a maker asks of a bag: shape and sizes, what it holds, its seams, its cloth."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, none_yet, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Limits, Name, Room, Seam, Size

Lining = Literal["drop-in", "quilted-in", "none"]
LiningIn = Literal["gap", "tucked", "sleeve", "false-seam"]
ZipSet = Literal["seam", "bound", "lapped"]  # how a zipper meets the cloth
CornerSchool = Literal["cut", "line", "pinch"]


class Cloth(Decided):
    """Pieces of cloth to make the largest bag from, quilted already or not yet."""

    width: Size = Fraction(18)
    height: Size = Fraction(21)
    pieces: Annotated[int, Limits(ge=1, le=50)] = 1
    quilted: bool = False
    lining: bool = True  # whether a dropped-in lining comes out of it too
    directional: bool = False  # its print has an up, along its height: no piece is turned
    keep: Literal["none", "width", "height"] = "none"  # the finished size that is held


class ShapeChoice(Decided):
    """Which shape, which way in, and the sizes and options that the shape declares."""

    kind: Key = "tote"
    way: Literal["finished", "object", "panel", "cloth"] = "finished"
    sizes: Annotated[dict[str, Size], Limits(max_length=40)] = none_yet()
    options: Annotated[dict[str, str], Limits(max_length=40)] = none_yet()
    cloth: Cloth = usual(Cloth)


class Thing(Decided):
    """Something the bag must hold, and how many of it, one behind the other."""

    name: Name = "folder"
    width: Size = Fraction(9)
    height: Size = Fraction(12)
    thickness: Size = Fraction(1)
    count: Annotated[int, Limits(ge=1, le=500)] = 1


class Held(Decided):
    """All that the bag must hold, how it lies together, and the ease round it."""

    things: Annotated[tuple[Thing, ...], Limits(min_length=1, max_length=12)] = (
        Thing.model_construct(),
    )
    packed: Literal["stacked", "beside"] = "stacked"
    ease: Room = Fraction(1, 2)
    minded: bool = False


SLIDES = Fraction(1, 4)  # smaller each way, a stiffener slides into its sleeve; common practice


class Base(Decided):
    """What lies on the base of a boxed bag: a strip of cloth over its open seam, ``strip_width``
    wide once its edges are turned; a stiffener ``fused`` over that, in a ``sleeve`` of cloth, or on
    the ``lining``."""

    strip: bool = False
    strip_width: Size = Fraction(3, 2)
    stiffener: Literal["none", "fused", "sleeve", "lining"] = "none"


class Seams(Decided):
    """Seam allowances: piecing and assembly apart."""

    piecing: Seam = Fraction(1, 4)
    side: Seam = Fraction(3, 8)
    bottom: Seam = Fraction(3, 8)
    top: Seam = Fraction(3, 8)
    corner: Seam = Fraction(3, 8)
