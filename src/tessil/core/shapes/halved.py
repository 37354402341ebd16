"""A lining of two panels as two halves that may differ in cloth and in pockets."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Bag, Panel
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.shapes.common import follows

LINING, BACK = "lining", "lining-back"


def halved(shape: Shape) -> Shape:
    """The shape with its lining of two panels in two halves, where they are to be unlike."""
    if "lining" not in shape.uses or shape.cloths == 1:
        return shape

    def build(brief: Brief, sizes: Sizes) -> Bag:
        bag = shape.build(brief, sizes)
        return in_halves(bag) if brief.lining_apart and brief.has_lining else bag

    return replace(shape, build=build)


def in_halves(bag: Bag) -> Bag:
    """Two panels instead of two copies of one."""
    panels: list[Panel] = []
    for panel in bag.panels:
        if panel.key != LINING or panel.copies != 2:
            panels.append(panel)
            continue
        panels.append(replace(panel, label="Lining, front", copies=1))
        panels.append(replace(panel, key=BACK, label="Lining, back", like=LINING, copies=1))
    if len(panels) == len(bag.panels):
        return bag
    matches = (*bag.matches, *follows(LINING, (BACK, "both halves of the lining are of one size")))
    return replace(bag, panels=tuple(panels), matches=matches)
