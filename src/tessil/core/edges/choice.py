"""What a maker decides about edges: binding, bias from scraps, piping, straps, cords."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.brief.choice import ZipSet
from tessil.core.edges.bias import OutlineError, checked
from tessil.core.numbers.decided import Decided, checks
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Limits, Ranged, Room, Seam, Size
from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.core.numbers.sizes import SIDES, Side

MOST_PIECES = 40
CORD = Fraction(5, 2) / MM_PER_INCH  # 2.5 mm, a usual piping cord


class Binding(Decided):
    """A bound edge: its cloth, grain, fold and, if not computed, its cut width.

    ``inner`` binds the raw seams inside a bag whose lining is quilted in, ``inner_zip`` how many
    of the two along a zipper: often the first is turned under and topstitched, the last is not.
    """

    print: str = ""
    grain: Literal["straight", "bias"] = "straight"
    fold: Literal["double", "single"] = "double"
    seam: Seam = Fraction(1, 4)
    cover: Room = Fraction(1, 8)
    cut: Size | None = None
    overlap: Room = Fraction(5, 2)
    strips_on_hand: Annotated[int, Limits(ge=0, le=999)] | None = None
    corners: Literal["mitred", "butted"] = "mitred"
    ending: Literal["tuck", "diagonal"] = "tuck"
    first: Literal["front", "back"] = "front"
    sewn: Literal["machine", "hand"] = "machine"
    inner: bool = False
    inner_zip: Literal["none", "one", "both"] = "one"


class BiasPiece(Decided):
    """A piece of cloth to cut bias from: a rectangle, or an odd one by its corners."""

    width: Size = Fraction(18)
    height: Size = Fraction(21)
    corners: Annotated[tuple[tuple[Ranged, Ranged], ...], Limits(max_length=40)] = ()

    @checks()
    def _is_cloth(self) -> BiasPiece:
        if self.corners:
            try:
                checked(tuple((float(x), float(y)) for x, y in self.corners))
            except OutlineError as error:
                raise ValueError(str(error)) from None
        return self

    @property
    def outline(self) -> tuple[tuple[float, float], ...]:
        """Its corners, clockwise as drawn."""
        if self.corners:
            return checked(tuple((float(x), float(y)) for x, y in self.corners))
        w, h = float(self.width), float(self.height)
        return ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))


class Bias(Decided):
    """Where bias strips come from, and what counts: few joins or little waste."""

    source: Literal["yardage", "pieces", "tube"] = "yardage"
    pieces: Annotated[tuple[BiasPiece, ...], Limits(max_length=MOST_PIECES)] = ()
    prefer: Literal["joins", "waste"] = "joins"
    least: Size = Fraction(4)


class Piping(Decided):
    """A covered cord in seams: which panels go round with it, or along which of their ``sides``;
    its cord, its allowance.

    ``around`` is the cord's measured circumference, in place of its diameter; ``allowance`` None
    for that of the seam it goes into.
    """

    panels: Annotated[tuple[Key, ...], Limits(max_length=12)] = ()
    sides: Annotated[tuple[Side, ...], Limits(max_length=4)] = ()  # all of them where none is named
    print: str = ""
    cord: Size = CORD
    around: Size | None = None
    allowance: Seam | None = None
    overlap: Room = Fraction(3, 2)

    @property
    def stretches(self) -> int:
        """In how many pieces it goes along a panel: one round it, or as many as its sides leave."""
        ring: tuple[Side, ...] = ("top", "right", "bottom", "left")
        on = [side in self.sides for side in ring]
        begins = [at for at in range(len(ring)) if on[at] and not on[at - 1]]
        return max(len(begins), 1)

    def along(self, key: str) -> tuple[Side, ...]:
        """The sides of a panel along which it runs."""
        return (self.sides or SIDES) if key in self.panels else ()


class Strap(Decided):
    """How the bag's straps are made and carried."""

    carried: Literal["typed", "hand", "shoulder", "child", "adult"] = "typed"
    # Covered: webbing in a cover of cloth; underside: a top and a stiffened underside.
    made: Literal["cloth", "webbing", "covered", "underside"] = "cloth"
    joins: Literal["diagonal", "straight"] = "diagonal"
    interfaced: bool = True
    slider: bool = False
    ring: Size | None = None
    turned_back: Room = Fraction(3, 2)


class Button(Decided):
    """A button and the loop that goes over it."""

    used: bool = False
    across: Size = Fraction(3, 4)
    thick: Size = Fraction(1, 8)


class Cord(Decided):
    """A drawstring: how thick, or how wide if it is a flat tape; its tails and its channel are
    sizes of the shape."""

    kind: Literal["round", "flat"] = "round"
    thick: Size = Fraction(1, 4)


class Zipper(Decided):
    """The zipper: how it is set, its seam, how much of it shows, and what is in hand.

    It is sewn in a seam, sewn under edges that are bound, or its tape lies under the raw edges and
    a decorative tape is lapped over both: nothing of the cloth is lost then.
    """

    set: ZipSet = "seam"
    seam: Seam = Fraction(1, 4)
    shown: Room = Fraction(3, 4)
    length: Size | None = None
    tape: Size | None = None  # how wide it is in all, where that is known
    teeth: Literal["nylon", "metal"] = "nylon"
    sliders: Literal["one", "two"] = "one"
    ends: Literal["stops", "tabs", "length"] = "stops"  # or cut off the roll, sliders put on
    rests: Literal["right", "left"] = "right"  # where its pull lies when it is closed
    pull: bool = False
    left: Room = Fraction(0)  # from the seams at its ends to where its teeth begin and end; at
    right: Room = Fraction(0)  # nothing they run on into the seam
