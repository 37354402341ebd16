"""Scraps as a maker writes them down: ``4½ × 6 ×3 dots``; and lists of lengths.

Knows lengths and the names of prints; must not know what scraps are used for.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

from tessil.core.catalogue.prints import Print
from tessil.core.numbers.lengths import Inches, LengthError, Notation, Units, read_length, read_size
from tessil.core.piecing.choice import Scrap
from tessil.core.words.refusals import shortened

_TIMES = re.compile(r"\s*[×x*]\s*", re.IGNORECASE)
_NUMBER = re.compile(r"(?:^|\s)[×x*]\s*(\d{1,3})(?=\s|$)", re.IGNORECASE)
_LENGTH = re.compile(r"^[\s\d./½¼¾⅛⅜⅝⅞⅓⅔,+\-\"″]*(?:\s*(?:mm|cm|in|inch|yd|m)\b)?", re.IGNORECASE)


def read_lengths(text: str, units: Units) -> tuple[Inches, ...]:
    """``2½, 1½, 2½`` as lengths; raises LengthError.

    A semicolon or a comma with a space parts them, so that ``6,5; 4,5`` is two.
    """
    parts = [part for part in re.split(r";|,\s+|,$", text.strip()) if part.strip()]
    if not parts:
        raise LengthError("Give at least one length, such as 2½.")
    return tuple(read_length(part, units) for part in parts)


def write_lengths(lengths: Sequence[Inches], notation: Notation) -> str:
    """Lengths as a maker types them."""
    return ", ".join(notation.exact(length) for length in lengths)


def _print_named(name: str, prints: Sequence[Print]) -> str:
    """The key of the print that is meant: by its name, or by how it begins."""
    wanted = name.strip().casefold()
    if not wanted:
        return ""
    for entry in prints:
        if wanted in (entry.name.casefold(), entry.key):
            return entry.key
    found = [e for e in prints if any(w.startswith(wanted) for w in e.name.casefold().split())]
    if len(found) == 1:
        return found[0].key
    known = ", ".join(entry.name for entry in prints[:4]) or "none yet"
    if found:
        raise LengthError(f"“{shortened(name)}” could be {' or '.join(e.name for e in found[:3])}.")
    raise LengthError(f"There is no print “{shortened(name)}” in the basket: {known}…")


def read_scrap(text: str, prints: Sequence[Print], units: Units) -> Scrap:
    """One scrap, or several of one size: width × height, then ×number and the print.

    Raises LengthError or Refused with a sentence.
    """
    first = _TIMES.split(text.strip(), 1)
    if len(first) != 2:
        raise LengthError("A scrap is width × height, such as 4½ × 6.")
    width, rest = first
    size = _LENGTH.match(rest)
    high = size.group(0) if size else ""
    if not high.strip():
        raise LengthError("A scrap is width × height, such as 4½ × 6.")
    after = rest[len(high) :]
    number = _NUMBER.search(" " + after)
    name = _NUMBER.sub(" ", " " + after, count=1) if number else after
    across, down = read_size(f"{width} x {high}", units)
    return Scrap(
        width=across,
        height=down,
        number=int(number.group(1)) if number else 1,
        print=_print_named(name, prints),
    )


def write_scrap(scrap: Scrap, prints: Sequence[Print], notation: Notation) -> str:
    """A scrap as a maker types it."""
    names = {entry.key: entry.name for entry in prints}
    size = f"{notation.exact(scrap.width)} × {notation.exact(scrap.height)}"
    many = f" ×{scrap.number}" if scrap.number > 1 else ""
    name = f" {names[scrap.print]}" if scrap.print in names else ""
    return f"{size}{many}{name}"
