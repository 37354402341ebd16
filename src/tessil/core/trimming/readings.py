"""The figures of trimming: the size to trim to, what comes off, legs, marks, the turning gap."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.net import OVER
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import SIDES
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, upright
from tessil.core.panels.readings import leg_readings
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place


def trim_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    yield Reading(
        "trim.width",
        panel.trimmed.width.called("trim to, width"),
        "Cut edge to cut edge",
        across(panel),
    )
    yield Reading(
        "trim.height",
        panel.trimmed.height.called("trim to, height"),
        "Cut edge to cut edge",
        upright(panel),
    )
    yield from leg_readings(panel, "trim.notch")
    for placed in plan.marks_on(panel.key):
        x, y, w, h = (float(v) for v in placed.box)
        for at, figure in enumerate(placed.figures):
            yield Reading(
                f"{placed.key}.{at}",
                figure,
                "Measure it on the trimmed panel, or sewn",
                Place(x, y, w, h),
            )
    if panel.key == "lining" and not plan.tucked:
        yield Reading("trim.gap", plan.gap, "Left open in its bottom seam, to turn the bag")
    if not panel.quilt.sets and panel.only_cloth:
        return
    yield from _creases(plan, panel)
    yield Reading("trim.quilted.width", panel.quilted.width, "Before trimming", across(panel))
    yield Reading("trim.quilted.height", panel.quilted.height, "Before trimming", upright(panel))
    for side in SIDES:
        yield Reading(
            f"trim.off.{side}",
            panel.cut_off[side],
            "What the ruler takes off here",
            _side(panel, side),
        )


def _creases(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """Where to press the panel before it is sewn: the bag takes its shape from its creases."""
    sheet = next((sheet for sheet in plan.bag.net.sheets if sheet.panel == panel.key), None)
    told: set[tuple[str, Inches]] = set()
    for crease in sheet.creases if sheet is not None else ():
        (x1, y1), (x2, y2) = crease.start, crease.end
        where = "left" if x1 == x2 else "top"
        if crease.at is None or (where, crease.at.value) in told:
            continue
        told.add((where, crease.at.value))
        figure = crease.at.called(f"crease, from the {where} edge")
        over = "folded together" if crease.turn == OVER else "square"
        place = Place(float(x1), float(y1), float(x2 - x1), float(y2 - y1), "line")
        yield Reading(f"trim.crease.{len(told)}", figure, f"Press it here: it turns {over}", place)


def _side(panel: PanelPlan, side: str) -> Place:
    width, height = (float(v) for v in panel.trimmed.values())
    off = float(panel.cut_off[side].value)  # type: ignore[index]
    return {
        "left": Place(-off, 0, off, height),
        "right": Place(width, 0, off, height),
        "top": Place(0, -off, width, off),
        "bottom": Place(0, height, width, off),
    }[side]
