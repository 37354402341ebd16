"""The layers of a panel from outside in, their cut sizes, and how thick they are together.

Cut sizes are common practice: a margin larger than the top on every side, as the top, inside
the seams, or ⅛ in short of them.  Thickness values are typical, from memory (the catalogue).
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from tessil.core.catalogue import Material
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH, Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.sizes import Pair, Side
from tessil.core.numbers.workings import Basis, Figure, down_to, from_mm, given, number, total
from tessil.core.sandwich.choice import Bond, Layers, Ply, Rule

_SHORT = {
    "inch": given("short of the seam line", Fraction(1, 8), Basis.PRACTICE),
    "metric": given("short of the seam line", 3 / MM_PER_INCH, Basis.PRACTICE),
}


def short_of_seam(marks: Rulers) -> Figure:
    """How far stiff layers stop short of a seam line: ⅛ in, or 3 mm (common practice)."""
    return _SHORT[marks.units]


class Layer(Record, frozen=True):
    """One layer of one panel: what it is, and its cut width and height.

    ``ply`` is its place among the maker's plies, −1 for the top and for a lining quilted in.
    ``in_seam`` tells whether seams of the bag catch it.
    """

    role: Literal["top", "batting", "backing", "firm"]
    label: str
    material: Material
    cloth: str  # print key for cloth, empty for others
    width: Figure
    height: Figure
    margin: Inches
    ply: int = -1
    rule: Rule = "margin"
    bond: Bond = "pins"
    joined: bool = False
    grain: str = "free"

    @property
    def in_seam(self) -> bool:
        return self.rule in ("margin", "panel", "hoop")


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


def stack(
    known: Mapping[str, Material], layers: Layers, linings: int, foundation: str = ""
) -> tuple[Material, ...]:
    """The materials of one wall, from outside in, with so many linings of cotton behind; a
    foundation and a stabiliser among them if they stay."""
    materials = [known[layers.top]]
    if foundation and known[foundation].stays:
        materials.append(known[foundation])
    materials += [known[ply.material] for ply in layers.plies]
    if layers.stabiliser and known[layers.stabiliser].stays:
        materials.append(known[layers.stabiliser])
    return (*materials, *(known["cotton"],) * linings)


def main_batting(known: Mapping[str, Material], layers: Layers) -> Material | None:
    """The first layer that has loft."""
    for ply in layers.plies:
        if known[ply.material].kind == "batting":
            return known[ply.material]
    return None


class Sizes(Record, frozen=True):
    """What the cut sizes of layers depend on."""

    pieced: Pair
    trimmed: Pair
    takes: Mapping[Side, Figure]  # what the seam on each side takes
    left: Pair  # one less what quilting takes, each way
    marks: Rulers
    hoop: Pair | None = None  # what is cut for a hoop, where the panel is made in one
    foundation: str = ""  # on which the top is sewn


def _cut(ply: Ply, sizes: Sizes) -> tuple[Figure, Figure]:
    pieced = sizes.pieced
    if sizes.hoop is not None and ply.rule in ("margin", "panel"):
        return sizes.hoop.width, sizes.hoop.height
    if ply.rule == "margin":
        margin = given("margin each side", ply.margin)
        width, height = pieced.width + 2 * margin, pieced.height + 2 * margin
    elif ply.rule == "panel":
        width, height = pieced.width, pieced.height
    else:
        width = _inside(
            sizes, "left", "right", ply.rule == "short", sizes.trimmed.width, sizes.left.width
        )
        height = _inside(
            sizes, "top", "bottom", ply.rule == "short", sizes.trimmed.height, sizes.left.height
        )
    return width.called("cut width"), height.called("cut height")


def _inside(
    sizes: Sizes, one: Side, other: Side, short: bool, trimmed: Figure, left: Figure
) -> Figure:
    """Between the seam lines, as large as it is before quilting draws it in with the rest."""
    first, last = sizes.takes[one], sizes.takes[other]
    takes = 2 * first if first.value == last.value else first + last
    room = trimmed - takes
    if short:
        room = room - 2 * short_of_seam(sizes.marks)
    if left.value != 1:
        room = room / left
    return down_to(room, sizes.marks.ruler)


_ROLES: dict[str, Literal["batting", "backing", "firm"]] = {
    "batting": "batting",
    "cloth": "backing",
    "firm": "firm",
    "web": "firm",
    "tape": "firm",
}


def plan_layers(
    known: Mapping[str, Material], layers: Layers, sizes: Sizes, linings: int, lining_print: str
) -> tuple[Layer, ...]:
    """Every layer with its cut size, the top first, a lining quilted in last."""
    zero = sizes.pieced.width.value * 0
    made = [
        Layer("top", "Top", known[layers.top], "", sizes.pieced.width, sizes.pieced.height, zero)
    ]
    if sizes.foundation and known[sizes.foundation].stays:
        material, pieced = known[sizes.foundation], sizes.pieced
        made.append(
            Layer(
                "firm",
                material.name,
                material,
                "",
                pieced.width.called("cut width"),
                pieced.height.called("cut height"),
                zero,
                rule="panel",
                bond="itself",
            )
        )
    for at, ply in enumerate(layers.plies):
        material = known[ply.material]
        role = _ROLES[material.kind]
        label = "Backing" if role == "backing" else material.name
        cloth = (ply.print or lining_print) if material.key == "cotton" else ""
        made.append(_layer(sizes, ply, (role, label, material, cloth), at))
    if layers.stabiliser and known[layers.stabiliser].stays:
        material = known[layers.stabiliser]
        made.append(_layer(sizes, Ply(rule="margin"), ("firm", material.name, material, ""), -1))
    for _ in range(linings):
        ply = Ply(material="cotton", margin=_largest_margin(layers))
        named: _Named = ("backing", "Lining, quilted in", known["cotton"], lining_print)
        made.append(_layer(sizes, ply, named, -1))
    return tuple(made)


_Named = tuple[Literal["top", "batting", "backing", "firm"], str, Material, str]


def _layer(sizes: Sizes, ply: Ply, named: _Named, at: int) -> Layer:
    """One layer under a top; in a hoop as large as the hoop asks."""
    role, label, material, cloth = named
    width, height = _cut(ply, sizes)
    rule: Rule = ply.rule
    margin = ply.margin if rule == "margin" else Fraction(0)
    if sizes.hoop is not None and rule in ("margin", "panel"):
        rule, margin = "hoop", _beyond(sizes)
    return Layer(
        role,
        label,
        material,
        cloth,
        width,
        height,
        margin,
        at,
        rule,
        ply.bond,
        ply.joined,
        ply.grain,
    )


def _beyond(sizes: Sizes) -> Inches:
    """How far a layer cut for the hoop reaches past the pieced top, each way at least."""
    assert sizes.hoop is not None
    pairs = zip(sizes.hoop.values(), sizes.pieced.values(), strict=True)
    return max(min(hoop - top for hoop, top in pairs) / 2, Fraction(0))


def _largest_margin(layers: Layers) -> Inches:
    """A lining quilted in is cut as the batting before it."""
    return max((ply.margin for ply in layers.plies if ply.rule == "margin"), default=Fraction(1, 2))
