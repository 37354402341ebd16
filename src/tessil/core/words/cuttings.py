"""What one cut does, in words."""

from __future__ import annotations

from tessil.core.numbers.lengths import Notation
from tessil.core.sheets.cuts import Stroke

_DEEP = {1: "across the cloth", 2: "across the strip", 3: "within the stack"}


def cut_words(cut: Stroke, notation: Notation) -> str:
    """Where a cut runs, and how long it is."""
    where = "along the cloth" if cut.deep == 1 and cut.way == "along" else _DEEP[cut.deep]
    return f"{where}, {notation.read_off(cut.ends - cut.begins, unit=True)} long"
