"""One line of the cut list."""

from __future__ import annotations

from tessil.core.bag.ids import CutId, CutKind, CutNote, CutOwner
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count

SQUARES = ("square", "piece")
SCRAP: CutKind = "course piece"  # cut from what there is, so not bought


class Windows(Record, frozen=True):
    """Pieces that are cut from a rough one by a window: how large, and how many of each."""

    width: Figure
    height: Figure
    number: int


class CutItem(Record, frozen=True):
    """Pieces of one size: what they are, for what, from which stock, how many, how large."""

    owner: CutOwner
    what: CutKind
    stock: str  # print key, or catalogue key for batting
    number: Figure
    width: Figure
    height: Figure
    notes: tuple[CutNote, ...] = ()
    each: int = 1  # for one panel
    material: bool = False  # of the catalogue, not a print
    joins: bool = False  # may be put together edge to edge
    in_hand: bool = False  # counted there already: neither cut nor bought
    windows: Windows | None = None  # of a rough piece

    @property
    def id(self) -> CutId:
        """Pieces with one id are laid, bought and told together."""
        return self.owner, self.what


def times(each: int, copies: int, bags: Figure) -> Figure:
    number = count("each", each, Basis.GEOMETRY)
    if copies > 1:
        number = number * count("panels", copies, Basis.GEOMETRY)
    return (number * bags).called("pieces")
