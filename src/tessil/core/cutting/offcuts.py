"""Pieces that come out of offcuts in hand, so that less is bought.

Largest pieces first into the smallest offcut that takes them, in rows as they are cut.
"""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from tessil.core.bag.ids import CutId
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rows import fill_rows, oriented
from tessil.core.sandwich.choice import Offcut

MOST_PARTS = 4


class Wanted(Record, frozen=True):
    """Pieces of one size that are to be cut; in ``parts`` where they are put together."""

    id: CutId
    width: Inches
    height: Inches
    number: int
    parts: int = 1


class Taken(Record, frozen=True):
    """What an offcut gives: so many of some pieces, or of the parts of some."""

    id: CutId
    number: int
    parts: int


class OffcutUse(Record, frozen=True):
    """One offcut and what comes out of it."""

    offcut: Offcut
    pieces: tuple[Taken, ...]


def from_offcuts(
    pieces: Sequence[Wanted],
    offcuts: Sequence[Offcut],
    stock: str,
    joins: frozenset[CutId] = frozenset(),
) -> tuple[list[Wanted], tuple[OffcutUse, ...]]:
    """The pieces still to be cut from the roll, and what came out of which offcut.

    Pieces whose ids are in ``joins`` may be put together from narrower ones, edge to edge, where
    that lets all of their parts come out of what is left.
    """
    mine = _single([entry for entry in offcuts if entry.material == stock])
    left, taken = _taken(list(pieces), mine)
    open_ = {piece.id for piece in left}
    settled = [piece for piece in pieces if piece.id not in open_]
    for piece in [piece for piece in left if piece.id in joins]:
        for parts in range(2, MOST_PARTS + 1):
            whole = next(entry for entry in pieces if entry.id == piece.id)
            tried = [*settled, _split(whole, parts)]
            rest, again = _taken(tried, mine)
            if not rest:
                left = [entry for entry in left if entry.id != piece.id]
                settled, taken = tried, again
                break
    return left, tuple(use for use in taken if use.pieces)


def _single(offcuts: Sequence[Offcut]) -> list[Offcut]:
    """Every offcut by itself, the smallest first."""
    one_by_one = [entry for entry in offcuts for _ in range(entry.number)]
    return sorted(one_by_one, key=lambda one: one.width * one.height)


def _taken(pieces: list[Wanted], offcuts: list[Offcut]) -> tuple[list[Wanted], list[OffcutUse]]:
    left, taken = pieces, []
    for entry in offcuts:
        left, took = _one(left, entry)
        taken.append(OffcutUse(entry, took))
    return left, taken


def _split(piece: Wanted, parts: int) -> Wanted:
    """A piece as so many side by side."""
    number = piece.number * parts
    if piece.width <= piece.height:
        return replace(piece, width=piece.width / parts, number=number, parts=parts)
    return replace(piece, height=piece.height / parts, number=number, parts=parts)


def _one(pieces: list[Wanted], offcut: Offcut) -> tuple[list[Wanted], tuple[Taken, ...]]:
    """Fill one offcut with as many pieces as its rows take, the largest first."""
    taken: list[Wanted] = []
    left: list[Wanted] = []
    for piece in sorted(pieces, key=lambda one: -one.width * one.height):
        fits = 0
        while fits < piece.number and _fits([*taken, replace(piece, number=fits + 1)], offcut):
            fits += 1
        if fits:
            taken.append(replace(piece, number=fits))
        if piece.number > fits:
            left.append(replace(piece, number=piece.number - fits))
    return left, tuple(Taken(piece.id, piece.number, piece.parts) for piece in taken)


def _fits(pieces: list[Wanted], offcut: Offcut) -> bool:
    turned = [
        oriented((piece.id, piece.parts), piece.width, piece.height, piece.number, offcut.width)
        for piece in pieces
    ]
    if any(piece is None for piece in turned):
        return False
    rows = fill_rows([piece for piece in turned if piece is not None], offcut.width)
    return sum((row.high * row.times for row in rows), start=offcut.width * 0) <= offcut.height
