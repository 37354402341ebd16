"""What a maker decides about how a top is pieced, and the scraps and packs it is pieced from."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, checks, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Degrees, ExactShare, Limits, Room, Size

MOST_STRIPS = 200
MOST_PIECES = 5000
MOST_SCRAPS = 300
Way = Literal["whole", "strips", "squares", "web", "flip", "courses", "crumbs"]
GRIDS = ("squares", "web")  # ways that lay pieces in rows and columns
Surplus = Literal["both", "one", "other", "recut", "border"]
Places = Annotated[tuple[int, ...], Limits(max_length=MOST_PIECES)]


# What strips are flipped and sewn on, if not on the batting: a material of the catalogue.
FOUNDATIONS = {
    "foundation": "foundation-cloth",
    "paper": "foundation-paper",
    "melting": "foundation-melting",
}


class Scrap(Decided):
    """So many scraps of one size and print; the print stands upright along the height."""

    width: Size
    height: Size
    number: Annotated[int, Limits(ge=1, le=200)] = 1
    print: str = ""


class Filled(Decided):
    """One scrap laid in a course: which of the list, and whether it lies on its side."""

    scrap: Annotated[int, Limits(ge=0, lt=MOST_SCRAPS)]
    turned: bool = False


class Piecing(Decided):
    """How a top is made, and which print each piece is.

    ``prints`` is in the order of the pieces, row by row; ``laid`` is how many stood in a row
    when they were laid.  ``surplus`` is for what lies one below another, ``surplus_across`` for
    columns.  ``filled`` is which scraps go in which course, once that is decided.
    """

    way: Way = "strips"
    run: Literal["level", "upright", "diagonal"] = "level"
    angle: Degrees = Fraction(45)
    fixed: Literal["width", "count", "mixed"] = "width"
    strip_cut: Size = Fraction(5, 2)
    widths: Annotated[tuple[Size, ...], Limits(min_length=1, max_length=24)] = (
        Fraction(5, 2),
        Fraction(3, 2),
    )
    count: int = 6
    square: Size = Fraction(5, 2)
    surplus: Surplus = "both"
    surplus_across: Surplus = "both"
    strip_sets: bool = False
    foundation: Literal["foundation", "batting", "paper", "melting"] = "batting"
    lined: bool = False  # flipped and sewn with the lining glued under, so that seams quilt it
    overhang: Room = Fraction(3, 4)
    heights: Annotated[tuple[Size, ...], Limits(min_length=1, max_length=24)] = (Fraction(5, 2),)
    filled: Annotated[tuple[tuple[Filled, ...], ...], Limits(max_length=60)] = ()
    allowance: Annotated[ExactShare, Limits(ge=0, le=1)] = Fraction(1, 8)
    sashing: Room = Fraction(0)
    border: Room = Fraction(0)
    border_print: str = ""
    press: Literal["open", "side"] = "open"
    turned: Places = ()
    locked: Places = ()
    prints: Annotated[tuple[str, ...], Limits(max_length=MOST_PIECES)] = ()
    laid: Annotated[int, Limits(ge=0, le=MOST_PIECES)] = 0

    @checks("count")
    @staticmethod
    def _few_enough(value: int) -> int:
        if not 1 <= value <= MOST_STRIPS:
            raise ValueError(f"Give a number of strips from 1 to {MOST_STRIPS}.")
        return value


class Zone(Decided):
    """A part of a panel pieced for itself, from so far below its trimmed top edge downwards.

    ``covers``: its strips are flipped and sewn on the foundation of the part above, and their first
    covers the raw ends that lie there.
    """

    starts: Size
    piecing: Piecing = usual(Piecing)
    covers: bool = False


class SeamTest(Decided):
    """Strips sewn to learn one's own seam: how many, how wide cut, and what they measured."""

    strips: Annotated[int, Limits(ge=2, le=40)] = 4
    cut: Size = Fraction(5, 2)
    measured: Size


class Pack(Decided):
    """Squares or strips bought as a pack."""

    pieces: Annotated[int, Limits(ge=1, le=999)] = 42
