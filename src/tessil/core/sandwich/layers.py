"""The layers of a panel from outside in, their cut sizes, and how thick they are together.

Cut sizes are common practice: batting and backing a margin larger than the top on every
side.  Thickness values are typical, from memory (the catalogue).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tessil.core.catalogue import Material, material
from tessil.core.lengths import MM_PER_INCH, Inches
from tessil.core.workings import Basis, Figure, from_mm, given, number, total


@dataclass(frozen=True, slots=True)
class Layer:
    """One layer of one panel: what it is, and its cut width and height."""

    role: Literal["top", "batting", "backing"]
    label: str
    material: Material
    cloth: str  # print key for cloth, empty for batting
    width: Figure
    height: Figure
    margin: Inches


def layer_sizes(width: Figure, height: Figure, margin: Figure) -> tuple[Figure, Figure]:
    """A layer a margin larger than the top on every side."""
    return (width + 2 * margin).called("cut width"), (height + 2 * margin).called("cut height")


def margin_figure(margin: Inches) -> Figure:
    """The chosen margin as a figure."""
    return given("margin each side", margin)


def thickness(materials: tuple[Material, ...], state: Literal["relaxed", "pressed"]) -> Figure:
    """Layers on top of each other, relaxed as in the bag or pressed as under the foot."""
    parts = [
        from_mm(entry.name.lower(), getattr(entry, f"{state}_mm"), Basis.GUESS)
        for entry in materials
    ]
    return total(parts).called(f"thickness, {state}", "mm")


SQUARE_METRE = given("square metre", (1000 / MM_PER_INCH) ** 2, Basis.GEOMETRY, power=2)


def weight(area: Inches, materials: tuple[Material, ...]) -> Figure:
    """Grams of a panel of that area with all its layers."""
    cloth = given("area", area, Basis.GEOMETRY, power=2) / SQUARE_METRE
    grams = total(
        [
            number(entry.grams_per_square_metre, Basis.GUESS).called(entry.name)
            for entry in materials
        ]
    )
    return cloth * grams


def stack(batting: str, backing: bool, lining: bool) -> tuple[Material, ...]:
    """The materials of one wall, from outside in."""
    cloth = material("cotton")
    layers = [cloth]
    if batting != "none":
        layers.append(material(batting))
    layers += [cloth] * (int(backing) + int(lining))
    return tuple(layers)
