"""What the cloth on the table is like, and how a job is cut from it: decisions that are kept."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Along, Bolt, Key, Limits, Room, Room60, Size

MOST_LAID = 5000  # pieces on one cloth
MOST_SHEETS = 400
CutFrom = Literal["shelf", "new"]
CutFor = Literal["least", "open", "setups", "offcut"]  # what a plan of the cuts is chosen for


class Stock(Decided):
    """What the cloth on the table is like."""

    usable_width: Size = Fraction(40)
    straightening: Room = Fraction(1, 2)


PieceKey = Annotated[str, Limits(pattern=r"^[0-9]{1,2}\.[0-9]{1,3}$")]


class Laid(Decided):
    """One piece where it lies: its corner from the cloth's, its size across and along."""

    piece: PieceKey  # the bag, and the line of its cut list
    x: Room60
    y: Along
    w: Size
    h: Size


class Sheet(Decided):
    """One cloth and the pieces laid on it; ``done`` is how many of its cuts are made.

    ``source`` is where it comes from: nothing for new cloth, else a row of the shelf or an offcut.
    The length does not count ``trim``, which straightens the end of new cloth.
    """

    stock: Key
    source: Annotated[str, Limits(max_length=60)] = ""
    width: Size
    length: Bolt
    trim: Room = Fraction(0)
    laid: Annotated[tuple[Laid, ...], Limits(max_length=MOST_LAID)] = ()
    done: Annotated[int, Limits(ge=0, le=20_000)] = 0
    pinned: bool = False  # stays as it is when the rest is planned again
    stored: bool = False  # what is left of it lies on the shelf
    least: Along = Fraction(0)  # no layout takes less: of new cloth its length, else nothing

    @property
    def stays(self) -> bool:
        """Whether it is not planned again: it was begun, used up, or shall stay as it is."""
        return self.pinned or self.done > 0 or self.stored


class Cutting(Decided):
    """How a job is cut: what was asked, in short, and what came of it."""

    asked: Annotated[str, Limits(pattern=r"^[0-9a-f]{8}$")]
    sheets: Annotated[tuple[Sheet, ...], Limits(max_length=MOST_SHEETS)] = ()
    over: Annotated[tuple[tuple[PieceKey, int], ...], Limits(max_length=400)] = ()  # fit nowhere
    wrong: Annotated[tuple[PieceKey, ...], Limits(max_length=400)] = ()  # cut wrong: once more each
