"""The corners of an odd piece as makers say them: ``0 0, 12 0, 9 7`` or ``0,0 12,0 9,7``.

Where commas are decimal, ``0;0 7,5;6`` says the same.
"""

from __future__ import annotations

import re

from tessil.core.numbers.lengths import Inches, LengthError, Units, read_length

Corner = tuple[Inches, Inches]
_PAIR = re.compile(r"^([^;,]+),([^;,]+)$|^([^;]+);([^;]+)$")
HOW = "Give each corner as two numbers, such as 0 0, 12 0, 9 7."


def read_corners(text: str, units: Units) -> tuple[tuple[Corner, ...], str]:
    """The corners at the beginning, one after the other, and the words behind them; raises
    LengthError with a sentence."""
    words, made = text.split(), list[Corner]()
    while words and (found := _PAIR.match(words[0])):
        made.append(_corner([part for part in found.groups() if part is not None], units))
        words = words[1:]
    return (tuple(made), " ".join(words)) if made else _with_spaces(text, units)


def _with_spaces(text: str, units: Units) -> tuple[tuple[Corner, ...], str]:
    made, parts = list[Corner](), text.split(",")
    while parts:
        words = parts.pop(0).split()
        if len(words) < 2:
            raise LengthError(HOW)
        made.append(_corner(words[:2], units))
        if words[2:]:
            return tuple(made), ",".join([" ".join(words[2:]), *parts])
    return tuple(made), ""


def _corner(said: list[str], units: Units) -> Corner:
    return read_length(said[0], units), read_length(said[1], units)
