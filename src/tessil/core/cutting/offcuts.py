"""Pieces that come out of offcuts in hand, so that less is bought.

Largest pieces first into the smallest offcut that takes them, in rows as they are cut.
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.cutting.cloth import fill_rows, oriented
from tessil.core.lengths import Inches, Notation
from tessil.core.sandwich.choice import Offcut

Piece = tuple[str, Inches, Inches, int]


def from_offcuts(
    pieces: Sequence[Piece], offcuts: Sequence[Offcut], stock: str, notation: Notation
) -> tuple[list[Piece], tuple[str, ...]]:
    """The pieces still to be cut from the roll, and what came out of which offcut."""
    mine = [entry for entry in offcuts if entry.material == stock]
    left, words = list(pieces), []
    for entry in sorted(mine, key=lambda one: one.width * one.height):
        for _ in range(entry.number):
            left, took = _one(left, entry)
            if took:
                size = notation.size(entry.width, entry.height)
                words.append(f"{', '.join(took)}: from the offcut {size}")
    return left, tuple(words)


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
