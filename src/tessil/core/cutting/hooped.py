"""What is cut to the size of a hoop: every layer of what is made in it, and what it lies on."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.ids import CutKind, CutNote, CutOwner
from tessil.core.cutting.item import CutItem
from tessil.core.hooping.hoopings import HoopGroup, HoopPlan

_ROLES: dict[str, CutKind] = {"batting": "batting", "backing": "backing", "firm": "firm"}


def hoop_items(plan: HoopPlan) -> list[CutItem]:
    """Every layer of every group of hoopings, as long as they take."""
    return [item for group in plan.groups for item in _items(group)]


def _items(group: HoopGroup) -> Iterator[CutItem]:
    lead = group.panels[0]
    keys = tuple(panel.key for panel in group.panels)
    notes = (CutNote("hoop", group.number.whole),)

    def item(what: CutKind, stock: str, material: bool, at: int = 0) -> CutItem:
        owner = CutOwner("hoop", (*keys, str(at)) if at else keys)
        size = group.width, group.length
        return CutItem(owner, what, stock, group.pieces, *size, notes, material=material)

    if lead.only_cloth:
        yield item("top", lead.patches[0].print, False)
    for at, layer in enumerate(lead.layers):
        stayed = layer.material.key == group.stabiliser
        if layer.role == "top" or layer.rule != "hoop" or stayed:
            continue
        stock = layer.cloth or layer.material.key
        yield item(_ROLES[layer.role], stock, not layer.cloth, at)
    yield item("stabiliser", group.stabiliser, True)
