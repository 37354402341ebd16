"""The figures of the piecing stage, leaf by leaf: the pieces, their prints, the stock."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, edge_place, piece_place, upright, whole
from tessil.core.piecing.pressing import pressed
from tessil.core.piecing.seamtest import seam_cost
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place

UNPRESSED = ("whole", "flip", "crumbs")


def piece_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """The pieces, part by part."""
    needed = panel.needed
    yield Reading("needed.width", needed.width, "So large, to be trimmed safely", across(panel))
    yield Reading("needed.height", needed.height, "So large, to be trimmed safely", upright(panel))
    divided = len(panel.parts) > 1
    for zone, part in enumerate(panel.parts):
        for line in part.top.lines:
            key = f"part{zone}.{line.key}" if divided else line.key
            yield Reading(key, line.figure, line.about, _spot(panel, zone, line.where), zone=zone)
        if part.choice.way not in UNPRESSED:
            top = pressed(part.choice.press)
            prefix = f"part{zone}.press" if divided else "press"
            for key, figure in (("seam", top.at_seam), ("crossing", top.at_crossing)):
                if key == "crossing" and part.choice.way == "strips":
                    continue
                yield Reading(
                    f"{prefix}.{key}", figure, "The top alone, under the presser foot", zone=zone
                )
    for edge in panel.edges_show:
        key = f"edge.{edge.side}.{edge.zone}" if edge.zone else f"edge.{edge.side}"
        about = "After quilting, trimming and seam"
        yield Reading(key, edge.shows, about, edge_place(panel, edge), zone=edge.zone)
    for group in plan.sets:
        if any(member.key == panel.key for member in group.panels):
            yield Reading("sets.number", group.sets, "Strips sewn full length, then cut across")
            narrow = panel.key in group.narrower
            about = "This one from what is left, its outer strips taken off"
            about = about if narrow else "Panels cut from one strip set"
            yield Reading("sets.per", group.per_set, about)
            yield Reading("sets.left", group.left, "Good for a pocket, a flap or tabs")


def _spot(panel: PanelPlan, zone: int, spot: str) -> Place | None:
    """What a figure of the piecing measures, on the trimmed panel."""
    if spot == "across":
        return across(panel, 0.1)
    if spot == "upright":
        return upright(panel, 0.06)
    if spot in ("first", "second"):
        return piece_place(panel, zone, 0 if spot == "first" else 1)
    return whole(panel) if spot == "whole" else None


def stock_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """What one's own seam costs."""
    project = plan.project
    if project.seam_test is not None:
        yield Reading(
            "seam.real", plan.brief.seams.piecing, "Used from here on for all counts", leaf="stock"
        )
        cost = seam_cost(plan.project.seams.piecing, plan.project.seam_test, panel.strips)
        if cost is not None:
            yield Reading(
                "seam.cost", cost, "This panel, against the seam wished for", leaf="stock"
            )
