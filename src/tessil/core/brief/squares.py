"""Other corners in the same panel: what a smaller or a larger square would make of the bag."""

from __future__ import annotations

from dataclasses import dataclass

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Figure, given
from tessil.core.planned import Plan
from tessil.core.shapes.base import Sizes
from tessil.core.trouble import CannotPlan

STEPS = (-2, -1, 0, 1, 2)
STEP = {"inch": Fraction(1, 2), "metric": Fraction(50, 127)}  # ½ in, 1 cm


@dataclass(frozen=True, slots=True)
class Square:
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
    finished = _finished(plan)
    now = _values(_legs(plan, finished))
    for key in plan.shape.finished_keys if now else ():
        more = finished | {key: finished[key] + given("more", 1)}
        if _values(_legs(plan, more)) != now:
            return key
    return ""


def _values(legs: Sizes) -> list[Inches]:
    return [figure.value for figure in legs.values()]


def _finished(plan: Plan) -> dict[str, Figure]:
    told = zip(plan.shape.finished_keys, plan.bag.finished, strict=True)
    return dict(plan.sizes) | dict(told)


def _legs(plan: Plan, finished: Sizes) -> dict[str, Figure]:
    """The legs of corners for finished sizes, in the shape's order."""
    if not plan.shape.legs:
        return {}
    sizes = plan.shape.to_panel(plan.brief, finished)
    keys = [field.key for field in plan.shape.fields if field.leg]
    return {key: sizes[key] for key in keys if key in sizes}


def _with_corner(plan: Plan, boxed: str, by: Fraction) -> Square | None:
    finished = _finished(plan)
    if finished[boxed].value + by <= 0:
        return None
    wanted = finished | {boxed: given(finished[boxed].label, finished[boxed].value + by)}
    try:
        legs = _legs(plan, wanted) if by else {key: plan.sizes[key] for key in _legs(plan, wanted)}
        bag = plan.shape.build(plan.brief, dict(plan.sizes) | legs)
    except CannotPlan:
        return None
    shown = [figure for key, figure in legs.items() if _is_asked(plan, key)]
    holds = bag.figure("holds-filled-as-a-box")
    return Square(tuple(shown), bag.finished, holds) if holds is not None else None


def _is_asked(plan: Plan, key: str) -> bool:
    field = next(field for field in plan.shape.fields if field.key == key)
    return plan.shape.asked(field, plan.brief.options)
