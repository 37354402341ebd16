"""An order that its maker has changed: which gate breaks in it, and the way back."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Broken
from tessil.core.edits import Edit
from tessil.core.making.acts.doing import left_out, put_back
from tessil.core.making.acts.telling import told
from tessil.core.making.acts.whole import making_of
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight
from tessil.core.trouble import CannotPlan
from tessil.core.words.making import GATE_WORDS


def making_snags(plan: Plan) -> Iterator[Snag]:
    """What would go wrong in the order as it is now; nothing where nobody has changed it."""
    made = plan.project.making
    if not made.moved and not made.skipped:
        return
    try:
        broken = making_of(plan, made).broken
    except CannotPlan as trouble:
        yield Snag(
            "make.circle", Stage.MAKE, Weight.BLOCKS, "No order of the steps", trouble.sentence
        )
        return
    yield from _waiting(plan, broken)
    for one in broken:
        if one.gate in GATE_WORDS:
            why, cost = GATE_WORDS[one.gate]
            yield Snag(
                key=f"make.{one.gate}.{one.deed}",
                stage=Stage.MAKE,
                weight=Weight.WARNS,
                title=why.rstrip("."),
                why=cost,
                fixes=tuple(_ways_back(plan, one)),
            )


def _waiting(plan: Plan, broken: tuple[Broken, ...]) -> Iterator[Snag]:
    """Steps left out that others need, where no gate tells it: what they are called, how many
    wait."""
    made = plan.project.making
    gated = {one.fact for one in broken if one.gate}
    every = making_of(plan, made.model_copy(update={"skipped": ()})).deeds
    for deed in every:
        waiting = {one.deed for one in broken if not one.gate and one.fact in deed.gives}
        if deed.id in made.skipped and waiting and not gated & set(deed.gives):
            number = len(waiting)
            yield Snag(
                key=f"make.waits.{deed.id}",
                stage=Stage.MAKE,
                weight=Weight.WARNS,
                title=f"{told(plan, deed)[0]}: left out",
                why=f"{number} {'step waits' if number == 1 else 'steps wait'} for it.",
                fixes=(left_out(made, deed.id, out=False),),
            )


def _ways_back(plan: Plan, one: Broken) -> Iterator[Edit]:
    """What was left out comes in again; what was moved goes back."""
    made = plan.project.making
    every = making_of(plan, made.model_copy(update={"skipped": ()})).deeds
    for deed in every:
        if deed.id in made.skipped and one.fact in deed.gives:
            yield left_out(made, deed.id, out=False)
    moved = {first for first, _ in made.moved}
    for deed in every:
        if deed.id in moved and (deed.id == one.deed or one.fact in (*deed.gives, *deed.ends)):
            yield put_back(made, deed.id)
