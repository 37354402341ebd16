"""All steps of one planned bag in their order, and how it stands."""

from __future__ import annotations

from collections.abc import Iterable

from tessil.core.bag.deeds import Deed, Making
from tessil.core.making.acts.joining import joining_deeds
from tessil.core.making.acts.panels import panel_deeds
from tessil.core.making.acts.parts import part_deeds
from tessil.core.making.choice import Made
from tessil.core.making.order import broken_in, moved, ordered, state_after
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan


def deeds_of(plan: Plan) -> tuple[Deed, ...]:
    """Every step of a bag, room by room, in no order yet."""
    return (*panel_deeds(plan), *part_deeds(plan), *joining_deeds(plan))


def making_of(plan: Plan, made: Made) -> Making:
    """The steps in their order, as their maker has changed it; steps left out are not there."""
    every = moved(ordered(deeds_of(plan)), made.moved)
    kept = tuple(deed for deed in every if deed.id not in made.skipped)
    return Making(kept, broken_in(kept))


class Standing(Record, frozen=True):
    """How a bag stands: what is so, the step that comes next, how many are done."""

    facts: frozenset[str]
    next: Deed | None
    done: int
    number: int


def standing(making: Making, done: Iterable[str]) -> Standing:
    """After the steps that are done; steps of another plan count for nothing."""
    there = set(done)
    made = [deed for deed in making.deeds if deed.id in there]
    following = next((deed for deed in making.deeds if deed.id not in there), None)
    return Standing(state_after(made), following, len(made), len(making.deeds))
