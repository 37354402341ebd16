"""The figures of the brief: how large the bag ends, and what follows from that."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, corner, upright
from tessil.core.panels.readings import leg_readings
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place


def brief_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    keys = plan.shape.finished_keys
    for figure, key, word in zip(plan.bag.finished, keys, plan.bag.words, strict=False):
        yield Reading(f"finished.{key}", figure, f"How {word} it ends", _finished(plan, panel, key))
    yield Reading(
        "trimmed.width", panel.trimmed.width, "Panel, cut edge to cut edge", across(panel, 0.0)
    )
    yield Reading(
        "trimmed.height", panel.trimmed.height, "Panel, cut edge to cut edge", upright(panel, 0.0)
    )
    yield from leg_readings(panel, "notch")
    for told in (*plan.bag.inside, *plan.bag.figures):
        yield Reading(f"bag.{told.id}", told.figure, "Follows from the panel and its seams")
    if plan.bag.zipper is not None:
        yield Reading("zip.length", plan.bag.zipper.length, "Stops stay out of the seams")
    for part in plan.bag.attachments:
        label = f"{part.label.lower()}, length"
        yield Reading(f"part.{part.key}", part.length.called(label), "Cut length of each")
    if plan.project.wash.used:
        yield from _washed(plan)
    yield Reading("bag.wall", plan.wall, "All layers of one wall, not pressed")
    yield Reading("bag.weight", plan.weight, "Cloth and batting, without hardware")


def _washed(plan: Plan) -> Iterator[Reading]:
    """The finished sizes after the first wash."""
    for key, figure in zip(plan.shape.finished_keys, plan.washed, strict=False):
        yield Reading(f"washed.{key}", figure, "Cotton and its batting shrink once more")


def _finished(plan: Plan, panel: PanelPlan, key: str) -> Place:
    """Where a finished size lies on the leading panel."""
    if key == "depth" and (notch := corner(panel)) is not None:
        return notch
    for face in plan.looks[0].faces if plan.looks else ():
        if face.panel == panel.key:
            x, y, w, h = face.source
            if key == "width":
                return Place(x, y + h * 0.9, w, 0, "across")
            return Place(x + w / 2, y, 0, h, "upright")
    return across(panel) if key == "width" else upright(panel)
