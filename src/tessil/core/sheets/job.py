"""A cutting job and its answer: pieces, stock, and where each piece is laid.

Lengths are exact, in the job's own unit; x runs across the width of the cloth, y along it.
"""

from __future__ import annotations

from typing import Literal

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record

Aim = Literal["least", "open", "setups", "offcut", "fits"]
StockKind = Literal["yardage", "fat_quarter", "scrap"]


class Stock(Record, frozen=True):
    """One cloth there is: ``w`` across, ``h`` along it (yardage: as long as it takes).

    ``trim`` is what straightening takes at the raw end of yardage (y is counted from there),
    ``step`` what it is sold by.
    """

    id: str
    kind: StockKind
    print: str
    w: Fraction
    h: Fraction | None = None
    trim: Fraction = Fraction(0)
    step: Fraction | None = None


class Piece(Record, frozen=True):
    """``qty`` pieces alike: width across the cloth, height along it; ``turn`` whether they may lie
    the other way."""

    id: str
    label: str
    w: Fraction
    h: Fraction
    qty: int
    print: str
    turn: bool = True


class CutJob(Record, frozen=True):
    """What there is and what is wanted.

    ``aim`` is what a layout is chosen for once as few pieces as can be are left out: ``least``
    cloth bought or opened, ``open`` as few cloths as can be, ``setups`` as few settings of the
    ruler (of yardage for at most 3 % more), ``offcut`` as much as can be left of the cloths that
    are opened, ``fits`` nothing more: the first layout that leaves none out is the answer.
    """

    unit: str
    stock: tuple[Stock, ...]
    pieces: tuple[Piece, ...]
    aim: Aim = "least"


class Placement(Record, frozen=True):
    """One piece as it is laid: its lower corner's place, width across and height along."""

    piece: str
    stock: str
    x: Fraction
    y: Fraction
    w: Fraction
    h: Fraction


class Cut(Record, frozen=True):
    """One cut with the ruler: on which cloth, how deep (1 strip, 2 crosscut, 3 trim), which way it
    runs, where it lies from the edge it is measured from, and between which ends."""

    stock: str
    deep: int
    way: Literal["across", "along"]
    at: Fraction
    begins: Fraction
    ends: Fraction


class Answer(Record, frozen=True):
    """The best layout found: its placements, its cuts in order, how much it takes and the least
    that any layout of its kind could take."""

    placements: tuple[Placement, ...]
    cuts: tuple[Cut, ...]
    left_out: tuple[tuple[str, int], ...]
    used: Fraction  # length of yardage, trims and all; area of the stock opened where there is none
    bound: Fraction
    lengths: tuple[tuple[str, Fraction], ...]  # of each yardage
    opened: tuple[str, ...]  # pieces of stock

    @property
    def score(self) -> tuple[int, Fraction]:
        """Of two answers the lesser is better: pieces left out, then cloth used."""
        return sum(many for _, many in self.left_out), self.used

    @property
    def is_best(self) -> bool:
        """Whether it is proved that nothing better is possible."""
        return not self.left_out and self.used <= self.bound
