"""Pieces that come out of offcuts in hand, so that less is bought.

Largest pieces first into the smallest offcut that takes them, in rows as they are cut.
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.numbers.lengths import Inches, Notation
from tessil.core.numbers.rows import fill_rows, oriented
from tessil.core.sandwich.choice import Offcut

Piece = tuple[str, Inches, Inches, int]
MOST_PARTS = 4


def from_offcuts(
    pieces: Sequence[Piece],
    offcuts: Sequence[Offcut],
    stock: str,
    notation: Notation,
    joins: frozenset[str] = frozenset(),
) -> tuple[list[Piece], tuple[str, ...]]:
    """The pieces still to be cut from the roll, and what came out of which offcut.

    Pieces named in ``joins`` may be put together from narrower ones, edge to edge, where that
    lets all of their parts come out of what is left.
    """
    mine = _single([entry for entry in offcuts if entry.material == stock])
    left, taken = _taken(list(pieces), mine)
    open_ = {piece[0] for piece in left}
    settled = [piece for piece in pieces if piece[0] not in open_]
    for piece in [piece for piece in left if piece[0] in joins]:
        for parts in range(2, MOST_PARTS + 1):
            whole = next(entry for entry in pieces if entry[0] == piece[0])
            tried = [*settled, _split(whole, parts)]
            rest, again = _taken(tried, mine)
            if not rest:
                left = [entry for entry in left if entry[0] != piece[0]]
                settled, taken = tried, again
                break
    return left, tuple(_words(offcut, pieces_, notation) for offcut, pieces_ in taken if pieces_)


def _single(offcuts: Sequence[Offcut]) -> list[Offcut]:
    """Every offcut by itself, the smallest first."""
    one_by_one = [entry for entry in offcuts for _ in range(entry.number)]
    return sorted(one_by_one, key=lambda one: one.width * one.height)


def _taken(
    pieces: list[Piece], offcuts: list[Offcut]
) -> tuple[list[Piece], list[tuple[Offcut, list[str]]]]:
    left, taken = pieces, []
    for entry in offcuts:
        left, took = _one(left, entry)
        taken.append((entry, took))
    return left, taken


def _split(piece: Piece, parts: int) -> Piece:
    """A piece as so many side by side."""
    name, width, height, number = piece
    if width <= height:
        return (f"{name} in {parts}, edges butted", width / parts, height, number * parts)
    return (f"{name} in {parts}, edges butted", width, height / parts, number * parts)


def _words(offcut: Offcut, took: list[str], notation: Notation) -> str:
    return f"{', '.join(took)}: from the offcut {notation.size(offcut.width, offcut.height)}"


def _one(pieces: list[Piece], offcut: Offcut) -> tuple[list[Piece], list[str]]:
    """Fill one offcut with as many pieces as its rows take, the largest first."""
    taken: list[Piece] = []
    left: list[Piece] = []
    for name, width, height, number in sorted(pieces, key=lambda p: -p[1] * p[2]):
        fits = 0
        while fits < number and _fits([*taken, (name, width, height, fits + 1)], offcut):
            fits += 1
        if fits:
            taken.append((name, width, height, fits))
        if number > fits:
            left.append((name, width, height, number - fits))
    return left, [f"{name} ×{number}" if number > 1 else name for name, _, _, number in taken]


def _fits(pieces: list[Piece], offcut: Offcut) -> bool:
    turned = [oriented(*piece, offcut.width) for piece in pieces]
    if any(piece is None for piece in turned):
        return False
    rows = fill_rows([piece for piece in turned if piece is not None], offcut.width)
    return sum((row.high * row.times for row in rows), start=offcut.width * 0) <= offcut.height
