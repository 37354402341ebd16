"""What one cut does, in words."""

from __future__ import annotations

from tessil.core.numbers.lengths import Inches, Notation

_DEEP = {1: "across the cloth", 2: "across the strip", 3: "within the stack"}


def cut_words(deep: int, along: bool, length: Inches, notation: Notation) -> str:
    """Where a cut of that depth runs, and how long it is."""
    where = "along the cloth" if deep == 1 and along else _DEEP[deep]
    return f"{where}, {notation.read_off(length, unit=True)} long"
