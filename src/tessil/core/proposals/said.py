"""What there is, as a maker says it: ``forty 2½ squares``, ``strips 2½ wide``, ``a piece 21 × 23
quilted already``, ``six fat quarters``, ``three odd scraps 8 × 15``, ``a pack of 42 squares``.

A kind, a size and a number, in any order.  Knows words and lengths, no bags.
"""

from __future__ import annotations

import re
from typing import Literal

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, LengthError, Units, read_length, read_size
from tessil.core.numbers.records import Record

Kind = Literal["squares", "strips", "cloth"]
MOST = 999
PACK = 42  # pieces: common practice, no source
USABLE = Fraction(40)  # inches of a strip cut across the width of the fabric
WORDS: dict[str, tuple[Kind, tuple[Inches, Inches] | None]] = {
    "ten-inch square": ("squares", (Fraction(10), Fraction(10))),
    "small charm square": ("squares", (Fraction(5, 2), Fraction(5, 2))),
    "small square": ("squares", (Fraction(5, 2), Fraction(5, 2))),
    "charm square": ("squares", (Fraction(5), Fraction(5))),
    "square": ("squares", (Fraction(5, 2), Fraction(5, 2))),
    "strip roll": ("strips", (USABLE, Fraction(5, 2))),
    "strip": ("strips", (USABLE, Fraction(5, 2))),
    "fat quarter": ("cloth", (Fraction(21), Fraction(18))),
    "fat eighth": ("cloth", (Fraction(21), Fraction(9))),
    "scrap": ("cloth", None),
    "offcut": ("cloth", None),
    "piece": ("cloth", None),
    "panel": ("cloth", None),
    "cloth": ("cloth", None),
    "fabric": ("cloth", None),
}
_ONES = "one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen"
_TEENS = "sixteen seventeen eighteen nineteen"
_TENS = "twenty thirty forty fifty sixty seventy eighty ninety"
NUMBERS = {
    **{word: at for at, word in enumerate(f"{_ONES} {_TEENS}".split(), start=1)},
    **{word: at * 10 for at, word in enumerate(_TENS.split(), start=2)},
    "a": 1,
    "an": 1,
    "dozen": 12,
    "hundred": 100,
}
_PLAIN = r"\d+(?:[.,]\d+)?(?:[\s-]\d+/\d+|\s?[½¼¾⅛⅜⅝⅞⅓⅔])?|\d+/\d+|[½¼¾⅛⅜⅝⅞⅓⅔]"
_UNIT = r"(?:\s?(?:\"|″|inch(?:es)?\b|in\b|cm\b|mm\b|yd\b|m\b))?"
_SIDE = f"(?:{_PLAIN}){_UNIT}"
_BY = re.compile(rf"({_SIDE})\s*(?:[x×*]|\bby\b)\s*({_SIDE})")
_ONE = re.compile(_SIDE)
_MADE_OF = re.compile(r"[½¼¾⅛⅜⅝⅞⅓⅔/.,\"″a-z]")
_OPEN = r"(?<![a-z])[x×*]\s*$"  # a size of which a side is missing
_LESS = re.compile(r"(?<![\w½¼¾⅛⅜⅝⅞⅓⅔])[-\u2212]\s*\d")
_GLUED = re.compile(r"\d(?!(?:in|inch|inches|cm|mm|yd|m)\b|x)[a-z]")
_PACKS = re.compile(r"\b(\d+|[a-z]+)?\s*\b(?:packs?|rolls?)\b(?:\s+of\s+(\d+)\b(?![.,/½¼¾]))?")
EXAMPLES = "“forty 2½ squares”, “ten strips 2½ wide” or “a piece 21 × 23 quilted already”"


class Heap(Record, frozen=True):
    """So many pieces of one kind and size; a strip is as wide as the fabric and so high."""

    kind: Kind
    number: int
    width: Inches
    height: Inches
    quilted: bool = False


def read_heap(text: str, units: Units = "inch") -> Heap:
    """What is meant; raises LengthError with a sentence."""
    said = " ".join(text.casefold().replace("-inch", " inch").split())
    if not said:
        raise LengthError(f"Say what there is, such as {EXAMPLES}.")
    if _LESS.search(said):
        raise LengthError("It must be larger than nothing.")
    word, kind, usual = _kind(said)
    quilted, packs = "quilted" in said, _PACKS.search(said)
    rest = re.sub(rf"\b{re.escape(word)}s?\b", " ", said.replace("ten inch", "ten-inch"))
    if packs is not None and kind != "cloth":
        each, rest = int(packs[2] or PACK), rest.replace(packs[0], " ")
        size, rest = _size(rest, units)
        number = _number(packs[1] or "", 1) * each
    else:
        size, rest = _size(_parted(rest, kind), units)
        number = _number(rest, 1 if kind == "cloth" else None)
        rest = re.sub(r"\d+", "", rest, count=1)
    if number > MOST:
        raise LengthError(f"At most {MOST} are planned with.")
    if re.search(rf"\d|{_OPEN}", rest) or _GLUED.search(said):
        raise LengthError(f"A number here is not understood: say it such as {EXAMPLES}.")
    width, height = _sides(kind, size, usual)
    return Heap(kind, number, width, height, quilted)


def _parted(said: str, kind: Kind) -> str:
    """``40 × 2½`` of squares or strips is so many of that size; a size has two sides alike, or
    stands beside a number."""
    found = _BY.search(said)
    if kind == "cloth" or found is None or found[1] == found[2] or not found[1].isdigit():
        return said
    others = said[: found.start()] + said[found.end() :]
    if re.search(r"\d", others) or _counted(others):
        return said
    return said.replace(found[0], f"{found[1]} of {found[2]}")


def _kind(said: str) -> tuple[str, Kind, tuple[Inches, Inches] | None]:
    said = said.replace("ten inch", "ten-inch")
    for word, (kind, usual) in WORDS.items():
        if re.search(rf"\b{re.escape(word)}s?\b", said):
            return word, kind, usual
    raise LengthError(f"Squares, strips, quarters, scraps or a piece? Say it such as {EXAMPLES}.")


def _size(said: str, units: Units) -> tuple[tuple[Inches, ...], str]:
    """The size that is said, and what is left of the words.  A single length is one that has a
    fraction or a unit, or the second of two numbers."""
    found = _BY.search(said)
    if found:
        pair = read_size(f"{found[1]} x {found[2]}", units)
        return pair, said[: found.start()] + " " + said[found.end() :]
    every = list(_ONE.finditer(said))
    sized = [one for one in every if _MADE_OF.search(one[0])]
    if not sized and (len(every) > 1 or (every and _counted(said))):
        sized = every[-1:]
    if not sized:
        return (), said
    one = sized[-1]
    return (read_length(one[0], units),), said[: one.start()] + " " + said[one.end() :]


def _counted(said: str) -> bool:
    """Whether a number stands there in letters."""
    return any(word in NUMBERS for word in re.findall(r"[a-z]+", said) if word not in ("a", "an"))


def _number(said: str, usual: int | None) -> int:
    """How many, in figures or letters."""
    figures = re.search(r"\d+", said)
    if figures:
        number = int(figures[0])
    else:
        known = [NUMBERS[word] for word in re.findall(r"[a-z]+", said) if word in NUMBERS]
        number = _together(known)
    if not number and usual is None:
        raise LengthError(f"How many are there? Say it such as {EXAMPLES}.")
    return number or usual or 1


def _together(words: list[int]) -> int:
    """``forty two`` is 42, ``two dozen`` 24."""
    number = 0
    for word in words:
        number = max(number, 1) * word if word in (12, 100) and number else number + word
    return number


def _sides(
    kind: Kind, size: tuple[Inches, ...], usual: tuple[Inches, Inches] | None
) -> tuple[Inches, Inches]:
    if len(size) == 2:
        width, height = size
    elif size and kind == "squares":
        width = height = size[0]
    elif size and kind == "strips":
        width, height = USABLE, size[0]
    elif usual is not None and not size:
        width, height = usual
    else:
        raise LengthError("How large? Write width × height, such as 21 × 23.")
    if min(width, height) <= 0:
        raise LengthError("It must be larger than nothing.")
    if kind == "squares" and width != height:
        raise LengthError("A square has one size: say how many of it, such as “forty 2½ squares”.")
    return width, height


def read_sides(text: str, units: Units, most: int) -> tuple[Inches | None, ...]:
    """Sides between ``×``, the first alone if no more are said; ``8 wide``, ``6 high``, ``2 deep``
    each at its place.  Raises LengthError."""
    said = " ".join(text.casefold().split())
    named: dict[int, Inches] = {}
    for at, word in enumerate(("wide", "high", "deep")):
        found = re.search(rf"({_SIDE})\s*{word}\b", said)
        if found:
            named[at] = read_length(found[1], units)
    if named:
        return tuple(named.get(at) for at in range(max(named) + 1))
    parts = [part for part in re.split(r"\s*(?:[x×*]|\bby\b)\s*", said) if part]
    if not parts or len(parts) > most:
        raise LengthError(f"Give up to {most} lengths with × between them.")
    found_sides = tuple(read_length(part, units) for part in parts)
    if min(found_sides) <= 0:
        raise LengthError("It must be larger than nothing.")
    return found_sides
