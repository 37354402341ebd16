"""How far a bag is made, and in which order its maker wants to go: decisions that are kept."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.bag.deeds import Operation
from tessil.core.catalogue.prints import Photo
from tessil.core.numbers.decided import Decided, none_yet
from tessil.core.numbers.fields import Limits

StepKey = Annotated[str, Limits(pattern=r"^[a-z0-9 .,:-]{1,80}$")]
MOST_STEPS = 400
MOST_SEEN = 12  # photos of one bag's steps
MOST_SECONDS = 360_000  # of one step: a hundred hours
Seconds = Annotated[int, Limits(ge=0, le=MOST_SECONDS)]
Note = Annotated[str, Limits(max_length=400)]


class Made(Decided):
    """Two schools of its maker; steps that are done, those that are left out, those that are moved
    before others, what was noted with them, and how many seconds they took by the clock."""

    snap: Literal["lining", "early"] = "lining"  # before the lining closes, or first of all
    handles: Literal["before", "after"] = "before"  # those on the face: the top is topstitched
    done: Annotated[tuple[StepKey, ...], Limits(max_length=MOST_STEPS)] = ()
    skipped: Annotated[tuple[StepKey, ...], Limits(max_length=MOST_STEPS)] = ()
    moved: Annotated[tuple[tuple[StepKey, StepKey], ...], Limits(max_length=MOST_STEPS)] = ()
    seconds: Annotated[dict[StepKey, Seconds], Limits(max_length=MOST_STEPS)] = none_yet()
    # How many of the batch are through a kind of work, where that is counted.
    through: dict[Operation, Annotated[int, Limits(ge=0, le=999)]] = none_yet()
    photos: Annotated[dict[StepKey, Photo], Limits(max_length=MOST_SEEN)] = none_yet()
    notes: Annotated[dict[StepKey, Note], Limits(max_length=MOST_STEPS)] = none_yet()
