"""What the layer stage shows, leaf by leaf: cut sizes, what to buy, how thick it gets."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.cutting.offcuts import OffcutUse
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, upright, whole
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place
from tessil.core.words.cuts import taken_words

WHAT = {
    "margin": "A margin larger than the top all round",
    "panel": "As large as the pieced top",
    "inside": "Inside the seam lines",
    "short": "⅛ in (3 mm) short of the seam lines",
}


def layer_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """All leaves of one panel."""
    yield from _sizes(plan, panel)
    yield from _amounts(plan)
    yield from _bulk(plan, panel)


def _sizes(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    leaf = "layers"
    seen: dict[str, int] = {}
    for layer in panel.layers:
        name = layer.label.lower()
        what = "Pieced size" if layer.role == "top" else WHAT[layer.rule]
        number = seen[layer.role] = seen.get(layer.role, 0) + 1
        key = f"layer.{layer.role}" + (f".{number}" if number > 1 else "")
        yield Reading(
            f"{key}.width", layer.width.called(f"{name}, width"), what, across(panel), leaf
        )
        yield Reading(
            f"{key}.height", layer.height.called(f"{name}, height"), what, upright(panel), leaf
        )
    yield Reading("layer.pressed", panel.pressed, "As under the presser foot", whole(panel), leaf)
    if panel.panel.kind == "outer":
        yield Reading(
            "layer.wall", plan.wall, "One wall of the bag with its lining, relaxed", leaf=leaf
        )


def _amounts(plan: Plan) -> Iterator[Reading]:
    read = plan.marks.notation.read_off
    for bought in plan.bought:
        if bought.batting:
            about = f"Off a roll {read(bought.cloth.usable, unit=True)} wide, for all bags"
            if bought.from_offcuts:
                about = "; ".join(_from_offcut(plan, use) for use in bought.from_offcuts)
            yield Reading(
                f"layer.buy.{bought.stock}",
                bought.cloth.buy.called(bought.name),
                about,
                leaf="amounts",
            )


def _bulk(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    seen: set[str] = set()
    for spot in plan.spots_on(panel.key):
        if spot.label in seen:
            continue
        seen.add(spot.label)
        x, y = spot.at
        about = f"{spot.layers} layers: {spot.advice.words}"
        yield Reading(
            f"bulk.{spot.key}", spot.thick, about, Place(x - 0.4, y - 0.4, 0.8, 0.8), "bulk"
        )


def _from_offcut(plan: Plan, use: OffcutUse) -> str:
    """What comes out of an offcut."""
    took = ", ".join(taken_words(one.id, one.number, one.parts, plan.bag) for one in use.pieces)
    size = plan.marks.notation.size(use.offcut.width, use.offcut.height)
    return f"{took}: from the offcut {size}"
