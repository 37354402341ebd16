"""A piece of cloth for bias as a line of text: ``8 × 15``, or its corners ``0 0, 12 0, 9 7``."""

from __future__ import annotations

import re

from tessil.core.edges.choice import MOST_PIECES, BiasPiece
from tessil.core.numbers.corners import HOW, read_corners
from tessil.core.numbers.lengths import LengthError, Notation, Units, read_size

_MANY = re.compile(r"\s*[×x]\s*(\d{1,2})\s*$")


def read_pieces(text: str, units: Units) -> tuple[BiasPiece, ...]:
    """One or several alike; raises LengthError or a validator's error with a sentence."""
    if set(",;") & set(text) and "×" not in text and "x" not in text.lower().replace("max", ""):
        corners, more = read_corners(text, units)
        if more:
            raise LengthError(HOW)
        return (BiasPiece(corners=corners),)
    number = 1
    if len(re.split(r"[×x*]", text)) > 2 and (many := _MANY.search(text)):
        number, text = int(many[1]), text[: many.start()]
    if not 1 <= number <= MOST_PIECES:
        raise LengthError(f"From 1 to {MOST_PIECES} pieces can be told at once.")
    width, height = read_size(text, units)
    return (BiasPiece(width=width, height=height),) * number


def write_piece(piece: BiasPiece, notation: Notation) -> str:
    """As it is read."""
    if piece.corners:
        return ", ".join(f"{notation.exact(x)} {notation.exact(y)}" for x, y in piece.corners)
    return notation.size(piece.width, piece.height)
