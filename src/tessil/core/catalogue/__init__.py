"""Materials and their usual values, read once from the TOML tables beside this module.

Knows files of data shipped with the program; must not know projects or plans.
"""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from importlib.resources import files
from typing import Any

from tessil.core.lengths import IN_PER, Inches


@dataclass(frozen=True, slots=True)
class Material:
    """One kind of layer.  Thickness and the shrinkage constants are typical, from memory.

    ``rise_mm`` and ``draw_mm`` are a and d of the shrinkage model, ``along`` is g, and
    ``unsure`` the fraction by which a prediction may miss before there are swatches.
    """

    key: str
    name: str
    kind: str
    relaxed_mm: Fraction
    pressed_mm: Fraction
    grams_per_square_metre: Fraction
    width: Inches
    widest_gap: Inches | None = None
    rise_mm: Fraction = Fraction(0)
    draw_mm: Fraction = Fraction(0)
    along: Fraction = Fraction(0)
    unsure: Fraction = Fraction(1, 2)
    caution: str = ""


def _material(row: dict[str, Any]) -> Material:
    exact = {
        name: Fraction(str(row[name]))
        for name in ("relaxed_mm", "pressed_mm", "grams_per_square_metre")
    }
    shrink = {
        name: Fraction(str(row[name])) for name in ("rise_mm", "draw_mm", "along") if name in row
    }
    return Material(
        key=row["key"],
        name=row["name"],
        kind=row["kind"],
        width=Fraction(str(row["width_in"])) * IN_PER["in"],
        widest_gap=Fraction(str(row["widest_gap_in"])) if "widest_gap_in" in row else None,
        caution=row.get("caution", ""),
        **exact,
        **shrink,
    )


@cache
def materials() -> dict[str, Material]:
    """All catalogue materials by key, in the order a maker would look for them."""
    table = tomllib.loads((files(__name__) / "materials.toml").read_text("utf-8"))
    return {row["key"]: _material(row) for row in table["material"]}


def material(key: str) -> Material:
    """The material of that key; raises KeyError with the known keys for an unknown one."""
    try:
        return materials()[key]
    except KeyError:
        raise KeyError(f"no material {key!r}; known: {', '.join(materials())}") from None


def of_kind(*kinds: str) -> tuple[Material, ...]:
    """The materials of these kinds, in catalogue order."""
    return tuple(entry for entry in materials().values() if entry.kind in kinds)


@dataclass(frozen=True, slots=True)
class Hoop:
    """The field a machine can stitch in one hoop, in inches."""

    key: str
    name: str
    width: Inches
    height: Inches


@cache
def hoops() -> tuple[Hoop, ...]:
    """All hoops, the smallest first."""
    table = tomllib.loads((files(__name__) / "hoops.toml").read_text("utf-8"))
    return tuple(
        Hoop(row["key"], row["name"], Fraction(row["width"]), Fraction(row["height"]))
        for row in table["hoop"]
    )


def hoop(key: str) -> Hoop:
    """The hoop of that key; raises KeyError for an unknown one."""
    return {entry.key: entry for entry in hoops()}[key]
