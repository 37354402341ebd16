"""A sitting as a maker says it: ``quilt 6 bags 85 min``, ``cut 1:20``, ``whole bag 2 h 5``.

Must not know windows.
"""

from __future__ import annotations

import re
from collections.abc import Mapping

from tessil.core.logbook.book import Timing, Work

_HOURS = re.compile(
    r"(?<![\w.])(\d{1,3})\s*(?:h|hours?)\s*(?:(\d{1,2})(?:\s*(?:min|minutes?))?)?(?!\w)"
)
_CLOCK = re.compile(r"(?<![\w.])(\d{1,3}):([0-5]\d)(?!\w)")
_MINUTES = re.compile(r"(?<![\w.])(-?\d+(?:[.,]\d+)?)\s*(?:min|minutes?)(?!\w)")
_NUMBER = re.compile(r"(?<![\w.])(\d{1,3})\s*(?:x|×|bags?)(?!\w)")
WORKS: Mapping[str, Work] = {
    **dict.fromkeys(("cut", "cutting"), "cut"),
    **dict.fromkeys(("piece", "piecing", "pieced"), "piece"),
    **dict.fromkeys(("layer", "layering", "baste", "basting"), "layer"),
    **dict.fromkeys(("quilt", "quilting", "quilted"), "quilt"),
    **dict.fromkeys(("trim", "trimming"), "trim"),
    **dict.fromkeys(("mark", "marking"), "mark"),
    **dict.fromkeys(("prepare", "parts", "strap", "straps", "binding"), "prepare"),
    **dict.fromkeys(("zipper", "zip"), "zipper"),
    **dict.fromkeys(("assemble", "join", "joining"), "assemble"),
    **dict.fromkeys(("line", "lining"), "line"),
    **dict.fromkeys(("turn", "turning"), "turn"),
    **dict.fromkeys(("finish", "finishing", "topstitch"), "finish"),
    **dict.fromkeys(("all", "whole", "bag"), "all"),
}


class NoSitting(ValueError):
    """What was typed is no sitting; the sentence says what is missing."""


def read_timing(text: str, like: Timing) -> Timing:
    """A sitting in words; bag, kind and count before are those of ``like``.

    Raises NoSitting without minutes, or with none to speak of.
    """
    rest, minutes = _minutes(text.strip())
    number = 1
    found = _NUMBER.search(rest)
    if found is not None:
        number, rest = int(found[1]), _without(rest, found)
    work: Work = "all"
    words = rest.split()
    for at, word in enumerate(words):
        if word.lower().strip(",.:") in WORKS:
            work = WORKS[word.lower().strip(",.:")]
            del words[at]
            break
    if not 1 <= number <= 999:
        raise NoSitting("Say for how many bags it was: 1 to 999.")
    note = " ".join(words).strip(" ,.;")[:200]
    return like.model_copy(
        update={"work": work, "number": number, "minutes": minutes, "note": note}
    )


def _minutes(text: str) -> tuple[str, float]:
    for pattern in (_HOURS, _CLOCK):
        found = pattern.search(text)
        if found is not None:
            return _told(text, found, int(found[1]) * 60 + int(found[2] or 0))
    found = _MINUTES.search(text)
    if found is None:
        raise NoSitting("Say how long it took: 85 min, 1:25 or 1 h 25.")
    return _told(text, found, float(found[1].replace(",", ".")))


def _told(text: str, found: re.Match[str], minutes: float) -> tuple[str, float]:
    if minutes <= 0:
        raise NoSitting("A sitting takes more than no time.")
    if minutes > 6000:
        raise NoSitting("A sitting of more than a hundred hours is none: say it day by day.")
    return _without(text, found), minutes


def _without(text: str, found: re.Match[str]) -> str:
    return f"{text[: found.start()]} {text[found.end() :]}"
