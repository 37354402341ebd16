"""Materials and their usual values, read once from the TOML tables beside this module.

Knows files of data shipped with the program; must not know projects or plans.
"""

from __future__ import annotations

import tomllib
from functools import cache, lru_cache
from pathlib import Path
from typing import Any

from tessil.core.catalogue.own import OwnMaterial
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import IN_PER, Inches
from tessil.core.numbers.records import Record

_HERE = Path(__file__).parent
NO_PLIES = (
    "tape",
    "stabiliser",
    "foundation",
)  # kinds of materials that are no layer of a sandwich


class Material(Record, frozen=True):
    """One kind of layer.  Thickness and the shrinkage constants are typical, from memory.

    ``rise_mm`` and ``draw_mm`` are a and d of the shrinkage model, ``along`` is g.
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
    caution: str = ""
    fusible: bool = False
    melts: bool = False
    stays: bool = False  # a stabiliser or foundation that is left in the bag
    own: bool = False  # the maker's own, or changed by the maker


def _material(row: dict[str, Any]) -> Material:
    exact = {
        name: fraction_of(str(row[name]))
        for name in ("relaxed_mm", "pressed_mm", "grams_per_square_metre")
    }
    shrink = {name: fraction_of(str(row.get(name, 0))) for name in ("rise_mm", "draw_mm", "along")}
    return Material(
        key=row["key"],
        name=row["name"],
        kind=row["kind"],
        width=fraction_of(str(row["width_in"])) * IN_PER["in"],
        widest_gap=fraction_of(str(row["widest_gap_in"])) if "widest_gap_in" in row else None,
        caution=row.get("caution", ""),
        fusible=row.get("fusible", False),
        melts=row.get("melts", False),
        stays=row.get("stays", False),
        relaxed_mm=exact["relaxed_mm"],
        pressed_mm=exact["pressed_mm"],
        grams_per_square_metre=exact["grams_per_square_metre"],
        rise_mm=shrink["rise_mm"],
        draw_mm=shrink["draw_mm"],
        along=shrink["along"],
    )


@cache
def materials() -> dict[str, Material]:
    """All catalogue materials by key, in the order a maker would look for them."""
    table = tomllib.loads((_HERE / "materials.toml").read_text("utf-8"))
    return {row["key"]: _material(row) for row in table["material"]}


def material(key: str) -> Material:
    """The material of that key; raises KeyError with the known keys for an unknown one."""
    try:
        return materials()[key]
    except KeyError:
        raise KeyError(f"no material {key!r}; known: {', '.join(materials())}") from None


@lru_cache(maxsize=16)
def with_own(own: tuple[OwnMaterial, ...]) -> dict[str, Material]:
    """The catalogue as the maker has it: own values in place of the shipped ones, own added."""
    known = dict(materials())
    for entry in own:
        known[entry.key] = _of_own(entry, known.get(entry.key))
    return known


def _of_own(own: OwnMaterial, shipped: Material | None) -> Material:
    return Material(
        key=own.key,
        name=own.name,
        kind=own.kind,
        width=own.width,
        widest_gap=own.widest_gap,
        relaxed_mm=_decimal(own.relaxed_mm),
        pressed_mm=_decimal(own.pressed_mm),
        grams_per_square_metre=_decimal(own.grams),
        rise_mm=_decimal(own.rise_mm),
        draw_mm=_decimal(own.draw_mm),
        along=_decimal(own.along),
        fusible=own.fusible,
        melts=own.melts,
        own=True,
        caution=shipped.caution if shipped else "",
    )


def _decimal(value: float) -> Fraction:
    return fraction_of(str(value))


def to_own(entry: Material) -> OwnMaterial:
    """A material of the catalogue as one that can be changed."""
    return OwnMaterial(
        key=entry.key,
        name=entry.name,
        kind=entry.kind,  # type: ignore[arg-type]
        relaxed_mm=float(entry.relaxed_mm),
        pressed_mm=float(entry.pressed_mm),
        grams=float(entry.grams_per_square_metre),
        width=entry.width,
        widest_gap=entry.widest_gap,
        rise_mm=float(entry.rise_mm),
        draw_mm=float(entry.draw_mm),
        along=float(entry.along),
        fusible=entry.fusible,
        melts=entry.melts,
    )


class Hoop(Record, frozen=True):
    """The field a machine can stitch in one hoop, in inches."""

    key: str
    name: str
    width: Inches
    height: Inches


@cache
def hoops() -> tuple[Hoop, ...]:
    """All hoops, the smallest first."""
    table = tomllib.loads((_HERE / "hoops.toml").read_text("utf-8"))
    return tuple(
        Hoop(row["key"], row["name"], Fraction(row["width"]), Fraction(row["height"]))
        for row in table["hoop"]
    )


def hoop(key: str) -> Hoop:
    """The hoop of that key; raises KeyError for an unknown one."""
    return {entry.key: entry for entry in hoops()}[key]
