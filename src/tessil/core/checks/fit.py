"""Does the object fit, do the notch legs agree, is there a base left?"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import TYPE_CHECKING

from tessil.core.edits import Edit, edit
from tessil.core.lengths import Inches
from tessil.core.places import corner, measured_way
from tessil.core.snags import Snag, Stage, Weight

if TYPE_CHECKING:
    from tessil.core.plan import Fit, Plan

LEAST_BASE = Fraction(1)


def fit_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of the brief: object, notch legs, base."""
    yield from (_too_big(plan, fit) for fit in plan.fits if not fit.fits)
    yield from _legs(plan)
    yield from _narrow_base(plan)


def _read(plan: Plan, value: Inches) -> str:
    return plan.marks.notation.read_off(value, unit=True)


def _too_big(plan: Plan, fit: Fit) -> Snag:
    held = plan.project.hold
    things = held.name if held.count == 1 else f"{held.count} × {held.name}"
    short = fit.needs.value - fit.there.value
    title = f"The {things} does not fit: {_read(plan, short)} too little {fit.way}"
    if fit.goes_in:
        title = f"The {things} is a tight fit: {_read(plan, short)} less {fit.way} than wished"
    leader = plan.panel(plan.shape.leader)
    return Snag(
        key=f"fit.{fit.way}",
        stage=Stage.BRIEF,
        weight=Weight.WARNS if fit.goes_in else Weight.BLOCKS,
        title=title,
        why=(
            f"With ease and the thickness of the walls it needs a finished {fit.way} of "
            f"{_read(plan, fit.needs.value)}; the bag has {_read(plan, fit.there.value)}."
        ),
        panel=leader.key,
        place=measured_way(leader, fit.way),
        fixes=_roomier(plan, fit),
    )


def _roomier(plan: Plan, fit: Fit) -> tuple[Edit, ...]:
    fixes = [
        edit(f"Size the bag by the {plan.project.hold.name}", ("shape.way", "object")),
        edit("Do not mind the object", ("hold.minded", False)),
    ]
    if plan.project.shape.way == "finished":
        up = plan.marks.ruler.value
        wanted = -(-fit.needs.value // up) * up
        words = f"Make the {fit.way} {_read(plan, wanted)}"
        fixes.insert(0, edit(words, (f"shape.sizes.{fit.way}", wanted)))
    return tuple(fixes)


def _legs(plan: Plan) -> Iterator[Snag]:
    """Both legs of a boxed corner must give the same depth, or its seam will not lie flat."""
    if not plan.bag.boxed:
        return
    panel = plan.panel(plan.shape.leader)
    notch = panel.panel.notches[0]
    seams = plan.brief.seams
    by_side = notch.side_leg.value - seams.side.value
    by_bottom = notch.bottom_leg.value - seams.bottom.value
    if by_side == by_bottom:
        return
    side, bottom = notch.side_leg.value, notch.bottom_leg.value
    right_bottom = by_side + seams.bottom.value
    yield Snag(
        key="notch.legs",
        stage=Stage.TRIM,
        weight=Weight.BLOCKS,
        title=f"The corner's edges differ by {_read(plan, 2 * abs(by_side - by_bottom))}",
        why=(
            f"Less their seams, {_read(plan, side)} from the side and {_read(plan, bottom)} from "
            "the bottom do not meet: the corner seam will not lie flat."
        ),
        panel=panel.key,
        place=corner(plan.panel(plan.shape.leader)),
        fixes=_leg_fixes(plan, right_bottom, by_bottom + seams.side.value),
    )


def _leg_fixes(plan: Plan, bottom: Inches, side: Inches) -> tuple[Edit, ...]:
    if plan.project.shape.way != "panel":
        return ()
    return (
        edit(f"Cut {_read(plan, bottom)} from the bottom", ("shape.sizes.notch_bottom", bottom)),
        edit(f"Cut {_read(plan, side)} from the side", ("shape.sizes.notch_side", side)),
    )


def _narrow_base(plan: Plan) -> Iterator[Snag]:
    if not plan.bag.boxed:
        return
    width, height = plan.bag.finished[0], plan.bag.finished[1]
    for figure, what, field in ((width, "base", "width"), (height, "side", "height")):
        if figure.value >= LEAST_BASE:
            continue
        fixes: tuple[Edit, ...] = ()
        if plan.project.shape.way == "finished":
            words = f"Make the {field} {_read(plan, LEAST_BASE)}"
            fixes = (edit(words, (f"shape.sizes.{field}", LEAST_BASE)),)
        if plan.project.shape.way == "panel":
            half = max(plan.brief.seams.side.value, plan.brief.seams.bottom.value) + Fraction(1, 2)
            fixes = (
                edit(
                    f"Cut the notches {_read(plan, half)}",
                    ("shape.sizes.notch_side", half),
                    ("shape.sizes.notch_bottom", half),
                ),
            )
        yield Snag(
            key=f"notch.deep.{field}",
            stage=Stage.TRIM,
            weight=Weight.WARNS,
            title=f"The notches leave a {what} of only {_read(plan, figure.value)}",
            why="They are deeper than the panel allows: under 1 in (25 mm) nothing will stand.",
            panel=plan.shape.leader,
            place=corner(plan.panel(plan.shape.leader)),
            fixes=fixes,
        )
