"""Which figures a stage shows for a panel, in reading order, and what each one measures.

One table a stage; the workings column, the report and the worksheet all read it.  Computes
nothing: a reading is a figure of the plan, a place on the panel and a line of help.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tessil.core.edges.readings import edge_readings
from tessil.core.layout.readings import pack_readings, print_readings
from tessil.core.numbers.sizes import SIDES
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, corner, notch_place, upright
from tessil.core.piecing.readings import piece_readings, stock_readings
from tessil.core.planned import Plan
from tessil.core.quilting.readings import quilt_readings
from tessil.core.reading import Reading
from tessil.core.sandwich.readings import layer_readings
from tessil.core.snags import Place, Stage


def _brief(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    keys = plan.shape.finished_keys
    for figure, key, word in zip(plan.bag.finished, keys, plan.bag.words, strict=False):
        yield Reading(f"finished.{key}", figure, f"How {word} it ends", _finished(plan, panel, key))
    yield Reading(
        "trimmed.width", panel.trimmed.width, "Panel, cut edge to cut edge", across(panel, 0.0)
    )
    yield Reading(
        "trimmed.height", panel.trimmed.height, "Panel, cut edge to cut edge", upright(panel, 0.0)
    )
    yield from _legs(panel, "notch")
    for told in (*plan.bag.inside, *plan.bag.figures):
        yield Reading(f"bag.{told.id}", told.figure, "Follows from the panel and its seams")
    if plan.bag.zipper is not None:
        yield Reading("zip.length", plan.bag.zipper.length, "Stops stay out of the seams")
    for part in plan.bag.parts:
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


def _legs(panel: PanelPlan, prefix: str) -> Iterator[Reading]:
    """The legs of each kind of corner once."""
    seen: set[str] = set()
    for notch in panel.panel.notches:
        if notch.meets in seen:
            continue
        place = notch_place(notch)
        if not seen:
            yield Reading(f"{prefix}.side", notch.side_leg, "From the raw side edge", place)
        seen.add(notch.meets)
        key = {"seam": "bottom", "fold": "fold", "zip": "zip"}[notch.meets]
        yield Reading(f"{prefix}.{key}", notch.other_leg, "Measured on the trimmed panel", place)


def _finished(plan: Plan, panel: PanelPlan, key: str) -> Place:
    """Where a finished size lies on the leading panel."""
    if key == "depth" and (notch := corner(panel)) is not None:
        return notch
    for face in plan.bag.looks[0].faces if plan.bag.looks else ():
        if face.panel == panel.key:
            x, y, w, h = (float(v) for v in face.source)
            if key == "width":
                return Place(x, y + h * 0.9, w, 0, "across")
            return Place(x + w / 2, y, 0, h, "upright")
    return across(panel) if key == "width" else upright(panel)


def _trim(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
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
    yield from _legs(panel, "trim.notch")
    for placed in plan.marks_on(panel.key):
        x, y, w, h = (float(v) for v in placed.box)
        for at, figure in enumerate(placed.figures):
            yield Reading(
                f"{placed.key}.{at}",
                figure,
                "Measure it on the trimmed panel, or sewn",
                Place(x, y, w, h),
            )
    if panel.key == "lining":
        yield Reading("trim.gap", plan.gap, "Left open in its bottom seam, to turn the bag")
    if not panel.quilt.sets and panel.only_cloth:
        return
    yield Reading("trim.quilted.width", panel.quilted.width, "Before trimming", across(panel))
    yield Reading("trim.quilted.height", panel.quilted.height, "Before trimming", upright(panel))
    for side in SIDES:
        yield Reading(
            f"trim.off.{side}",
            panel.cut_off[side],
            "What the ruler takes off here",
            _side(panel, side),
        )


def _side(panel: PanelPlan, side: str) -> Place:
    width, height = (float(v) for v in panel.trimmed.values())
    off = float(panel.cut_off[side].value)  # type: ignore[index]
    return {
        "left": Place(-off, 0, off, height),
        "right": Place(width, 0, off, height),
        "top": Place(0, -off, width, off),
        "bottom": Place(0, height, width, off),
    }[side]


def _piece(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    yield from piece_readings(plan, panel)
    yield from print_readings(plan)
    yield from stock_readings(plan, panel)
    yield from pack_readings(plan)


def _cut(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    for bought in plan.bought:
        figure = bought.cloth.buy.called(bought.name)
        bare = plan.marks.notation.read_off(bought.cloth.bare)
        about = f"Length to buy, off the bolt; the bare area alone would take {bare}"
        yield Reading(f"buy.{bought.stock}", figure, about)


def _make(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    yield from ()


_TABLE: dict[Stage, Callable[[Plan, PanelPlan], Iterator[Reading]]] = {
    Stage.BRIEF: _brief,
    Stage.PIECE: _piece,
    Stage.LAYER: layer_readings,
    Stage.QUILT: quilt_readings,
    Stage.TRIM: _trim,
    Stage.EDGE: edge_readings,
    Stage.CUT: _cut,
    Stage.MAKE: _make,
}


def readings(plan: Plan, stage: Stage, panel_key: str) -> tuple[Reading, ...]:
    """The receipt of one stage for one panel."""
    return tuple(_TABLE[stage](plan, plan.panel(panel_key)))
