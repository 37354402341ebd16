"""A row of the shelf as a maker says it: ``fq river ripple 3``, ``1/2 yd oat``, ``5 x 4 dots``.

First what it is, if that needs saying, then its size, its name, and how many.
"""

from __future__ import annotations

import re

from tessil.core.numbers.corners import read_corners
from tessil.core.numbers.lengths import FARTHEST, Inches, LengthError, Units, read_length, read_size
from tessil.core.shelf.outlines import largest_inside
from tessil.core.shelf.rows import LONG, MOST_CORNERS, USUAL, Kind, Row
from tessil.core.words.refusals import shortened

_SAID: dict[str, Kind] = {
    "fq": "fat quarter",
    "fat quarter": "fat quarter",
    "fat quarters": "fat quarter",
    "f8": "fat eighth",
    "fat eighth": "fat eighth",
    "fat eighths": "fat eighth",
    "sq": "squares",
    "square": "squares",
    "squares": "squares",
    "strip": "strips",
    "strips": "strips",
    "scrap": "scrap",
    "batting": "batting",
    "foam": "foam",
    "interfacing": "interfacing",
    "vinyl": "vinyl",
    "webbing": "webbing",
    "cord": "cord",
    "zip": "zipper",
    "zipper": "zipper",
    "ring": "ring",
    "rings": "ring",
    "slider": "slider",
    "sliders": "slider",
    "snap": "snap",
    "snaps": "snap",
    "thread": "thread",
    "web": "web",
    "stabiliser": "stabiliser",
    "eyelet": "eyelet",
    "eyelets": "eyelet",
    "button": "button",
    "buttons": "button",
    "ribbon": "ribbon",
    "lace": "ribbon",
    "label": "label",
    "labels": "label",
    "patch": "patch",
    "patches": "patch",
}
# Their size is in their name.
_NAMED: tuple[Kind, ...] = (
    *("ring", "slider", "snap", "thread"),
    *("eyelet", "button", "label", "patch"),
)
_MANY = re.compile(r"^[×x*]?\s*(\d{1,4})$", re.IGNORECASE)
_BY = re.compile(r"\s*[×x*]\s*(?=[\d.½¼¾⅛⅜⅝⅞⅓⅔])", re.IGNORECASE)
_UNIT = re.compile(r"(?:\"|″|in|inch|inches|yd|yds|yard|yards|m|cm|mm)$", re.IGNORECASE)
MOST_WORDS = 6  # of a size: 1 1/2 yd x 40 in


def read_row(text: str, units: Units, usable: Inches, id_: str) -> Row:
    """The row that is meant; raises LengthError with a sentence.

    ``usable`` is the width of cloth off the bolt, where a length alone is said.
    """
    words = text.split()
    if not words:
        raise LengthError("Say what it is, such as “fq river ripple 3” or “1/2 yd oat”.")
    if words[0].casefold() in _CORNERS:
        return _by_corners(" ".join(words[1:]), units, id_)
    kind, words = _kind(words)
    bare = kind in ("squares", "strips", *LONG)
    size, words = ((), words) if kind in _NAMED else _size(words, units, bare)
    number, words = _number(words)
    name = " ".join(words).strip()
    if not name:
        raise LengthError("Give it a name too, as the cloth or colour is called.")
    if len(name) > 80:
        raise LengthError("A name has at most 80 letters.")
    width, length = _sides(kind, size, usable, text)
    kind = kind or ("yardage" if len(size) == 1 else "scrap")
    return Row(id=id_, kind=kind, name=name, width=width, length=length, number=number)


_CORNERS = ("corner", "corners")


def _by_corners(text: str, units: Units, id_: str) -> Row:
    """An odd scrap: ``corners 0,0 9,0 7½,6 0,5 river ripple``."""
    corners, said = read_corners(text, units)
    if any(place < 0 for corner in corners for place in corner):
        raise LengthError("Measure its corners from left and top: none is less than 0.")
    words = said.split()
    if not 3 <= len(corners) <= MOST_CORNERS:
        raise LengthError("Say its corners one after the other: corners 0,0 9,0 7½,6 0,5 river.")
    number, words = _number(words) if words else (1, words)
    name = " ".join(words).strip()
    if not name:
        raise LengthError("Give it a name too, as the cloth or colour is called.")
    width, length = largest_inside(corners)
    return Row(
        id=id_,
        kind="scrap",
        name=name[:80],
        width=width,
        length=length,
        corners=corners,
        number=number,
    )


def _kind(words: list[str]) -> tuple[Kind | None, list[str]]:
    for many in (2, 1):
        said = _SAID.get(" ".join(words[:many]).casefold())
        if said is not None:
            return said, words[many:]
    return None, words


def _number(words: list[str]) -> tuple[int, list[str]]:
    """How many there are: the last word, if it is a number and another stands before it."""
    found = _MANY.match(words[-1]) if len(words) > 1 else None
    if found is None:
        return 1, words
    last = -2 if words[-2] in ("×", "x", "*") else -1
    return int(found[1]), words[:last]


def _size(words: list[str], units: Units, bare: bool) -> tuple[tuple[Inches, ...], list[str]]:
    """The size at the beginning, and the words after it.  A length alone has its unit, unless
    nothing else can be meant by a number there."""
    for many in range(min(MOST_WORDS, len(words)), 0, -1):
        said = " ".join(words[:many])
        sides = _BY.split(said)
        try:
            if len(sides) == 2:
                return read_size(said, units, FARTHEST), words[many:]
            if len(sides) == 1 and (bare or _UNIT.search(said)) and said[0].isnumeric():
                return (read_length(said, units, FARTHEST),), words[many:]
        except LengthError:
            # Read with fewer words it would be another length than was meant.
            if many > 1 and len(sides) == 1 and _UNIT.fullmatch(words[many - 1]):
                raise
    return (), words


def _sides(
    kind: Kind | None, size: tuple[Inches, ...], usable: Inches, text: str
) -> tuple[Inches | None, Inches | None]:
    """Width and length of what was said, usual where nothing was."""
    if kind is None and not size:
        said = f"“{shortened(text)}” has no size: write “fq” or “zip” before it, or a size"
        raise LengthError(f"{said} such as 5 × 4 or 1/2 yd.")
    if len(size) == 2:
        return size
    if not size:
        return USUAL.get(kind, (None, None)) if kind else (None, None)
    (one,) = size
    if kind == "squares":
        return one, one
    if kind == "strips":
        return usable, one
    return (None, one) if kind in LONG else (usable, one)
