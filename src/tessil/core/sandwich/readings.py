"""What the layer stage shows of a panel: the cut sizes of its layers."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, upright, whole
from tessil.core.planned import Plan
from tessil.core.reading import Reading

WHAT = {
    "margin": "A margin larger than the top all round",
    "panel": "As large as the pieced top",
    "inside": "Inside the seam lines",
    "hoop": "As large as the hoop asks, 1 in (25 mm) over on each side",
    "short": "⅛ in (3 mm) short of the seam lines",
}


def layer_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """The sizes of its layers, from outside in, and how thick they are."""
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
