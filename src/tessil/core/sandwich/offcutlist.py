"""An offcut as one line of text: its material, its size, how many."""

from __future__ import annotations

import re
from collections.abc import Mapping

from tessil.core.catalogue import NO_PLIES, Material
from tessil.core.numbers.lengths import LengthError, Units, read_size
from tessil.core.numbers.rulers import rulers
from tessil.core.sandwich.choice import Offcut

_MANY = re.compile(r"\s*[×x]\s*(\d{1,3})\s*$")
_SIZE = re.compile(r"(?P<name>[^\d½¼¾⅛⅜⅝⅞]*)(?P<size>.*)")


def read_offcut(text: str, units: Units, known: Mapping[str, Material]) -> Offcut:
    """``cotton batting 20 × 30 ×2``; raises LengthError with a sentence.

    Without a name it is the first material of the catalogue that has loft.
    """
    number = 1
    found = _SIZE.fullmatch(text.strip())
    assert found is not None  # both parts may be empty
    name, size = found["name"].strip(" ,;:").lower(), found["size"]
    parts = re.split(r"[×x*]", size)
    if len(parts) > 2 and (many := _MANY.search(size)):
        number, size = int(many[1]), size[: many.start()]
    width, height = read_size(size, units)
    lofty = [entry for entry in known.values() if entry.kind not in NO_PLIES]
    if not name:
        key = next(entry.key for entry in lofty if entry.kind == "batting")
    else:
        keys = [entry.key for entry in lofty if entry.name.lower().startswith(name)]
        if not keys:
            raise LengthError(f"“{name}” is not in the catalogue of materials.")
        key = keys[0]
    return Offcut(material=key, width=width, height=height, number=number)


def write_offcut(offcut: Offcut, units: Units, known: Mapping[str, Material]) -> str:
    """The same as it is read."""
    notation = rulers(units).notation
    many = f" ×{offcut.number}" if offcut.number > 1 else ""
    name = known[offcut.material].name.lower()
    size = " × ".join(notation.exact(side, unit=True) for side in (offcut.width, offcut.height))
    return f"{name} {size}{many}"
