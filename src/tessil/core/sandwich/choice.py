"""What a maker decides about the layers under a top, from outside in."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, checks
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Limits, Room, Size

CutRule = Literal["margin", "panel", "inside", "short"]
Rule = Literal[CutRule, "hoop"]  # and what is cut to the hoop
Bond = Literal["fuse", "spray", "glue", "pins", "itself"]
MOST_PLIES = 12
STIFF = "stiff-interfacing"  # of the catalogue


class Ply(Decided):
    """One layer: what it is, how large it is cut, how it is held, which way its grain runs.

    ``rule``: a margin beyond the pieced top, as the pieced top, inside the seams, or ⅛ in
    short of every seam line.  ``joined`` pieces butt edge to edge where one is too small.
    """

    material: Key = "cotton-batting"
    rule: CutRule = "margin"
    margin: Room = Fraction(1, 2)
    bond: Bond = "pins"
    grain: Literal["free", "upright", "level"] = "free"
    print: str = ""
    joined: bool = False


class Layers(Decided):
    """The material of the top, what lies under it, and on which stabiliser it is made in a hoop, if
    it is."""

    top: Key = "cotton"
    plies: tuple[Ply, ...] = (Ply.model_construct(),)
    stabiliser: Literal["", "cut-away", "tear-away", "wash-away"] = ""

    @checks("plies")
    @staticmethod
    def _few_enough(value: tuple[Ply, ...]) -> tuple[Ply, ...]:
        if len(value) > MOST_PLIES:
            raise ValueError(f"More than {MOST_PLIES} layers cannot be sewn: take some out.")
        return value


class Offcut(Decided):
    """So many left-over pieces of one material, of one size."""

    material: Key = "cotton-batting"
    width: Size
    height: Size
    number: Annotated[int, Limits(ge=1, le=99)] = 1
