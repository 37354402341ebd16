"""The figures of the brief: how large the bag ends, and what follows from that."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure, given
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, corner, upright
from tessil.core.panels.readings import leg_readings
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place
from tessil.core.trouble import CannotPlan


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


# -- other corners in the same panel ----------------------------------------------------------

STEPS = (-2, -1, 0, 1, 2)
STEP = {"inch": Fraction(1, 2), "metric": Fraction(50, 127)}  # ½ in, 1 cm


class Square(Record, frozen=True):
    """The legs of a corner from the side and the other way, the finished sizes they give, and the
    volume."""

    legs: tuple[Figure, ...]
    finished: tuple[Figure, ...]
    holds: Figure


def squares(plan: Plan) -> tuple[Square, ...]:
    """The bag of the same panel by corners in steps about those it has; fewer where they would not
    be possible, nothing for a shape whose corners are not sewn off."""
    boxed = _boxed(plan)
    if not boxed:
        return ()
    step = STEP[plan.project.units]
    found = (_with_corner(plan, boxed, step * by) for by in STEPS)
    return tuple(square for square in found if square is not None)


def _boxed(plan: Plan) -> str:
    """The finished size that the corners make: the one by which their legs change."""
    finished = _sizes_now(plan)
    now = _values(_legs(plan, finished))
    for key in plan.shape.finished_keys if now else ():
        more = finished | {key: finished[key] + given("more", 1)}
        if _values(_legs(plan, more)) != now:
            return key
    return ""


def _values(legs: dict[str, Figure]) -> list[Inches]:
    return [figure.value for figure in legs.values()]


def _sizes_now(plan: Plan) -> dict[str, Figure]:
    told = zip(plan.shape.finished_keys, plan.bag.finished, strict=True)
    return dict(plan.sizes) | dict(told)


def _legs(plan: Plan, finished: dict[str, Figure]) -> dict[str, Figure]:
    """The legs of corners for finished sizes, in the shape's order."""
    if not plan.shape.legs:
        return {}
    sizes = plan.shape.to_panel(plan.brief, finished)
    keys = [field.key for field in plan.shape.fields if field.leg]
    return {key: sizes[key] for key in keys if key in sizes}


def _with_corner(plan: Plan, boxed: str, by: Fraction) -> Square | None:
    finished = _sizes_now(plan)
    if finished[boxed].value + by <= 0:
        return None
    wanted = finished | {boxed: given(finished[boxed].label, finished[boxed].value + by)}
    try:
        legs = _legs(plan, wanted) if by else {key: plan.sizes[key] for key in _legs(plan, wanted)}
        bag = plan.shape.body(plan.brief, dict(plan.sizes) | legs)
    except CannotPlan:
        return None
    shown = [figure for key, figure in legs.items() if _is_asked(plan, key)]
    holds = bag.figure("holds-filled-as-a-box")
    return Square(tuple(shown), bag.finished, holds) if holds is not None else None


def _is_asked(plan: Plan, key: str) -> bool:
    field = next(field for field in plan.shape.fields if field.key == key)
    return plan.shape.asked(field, plan.brief.options)
