"""The bag put together: all steps from trimmed panels to a finished bag."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.making.acts.closing import closed_deeds, edged_deeds, finished_deeds, flat_deeds
from tessil.core.making.acts.kinds import kinds_of
from tessil.core.making.acts.sewing import lining_deeds, shell_deeds
from tessil.core.making.acts.sleeved import sleeved_deeds
from tessil.core.making.acts.zipping import zipper_deeds
from tessil.core.planned import Plan


def joining_deeds(plan: Plan) -> Iterator[Deed]:
    """All steps from trimmed panels to a finished bag."""
    kinds = kinds_of(plan)
    yield from zipper_deeds(plan, kinds)
    if kinds.edging:
        yield from edged_deeds(plan, kinds)
    elif kinds.flat:
        yield from flat_deeds(plan, kinds)
    elif kinds.lined and kinds.way == "sleeve":
        yield from sleeved_deeds(plan, kinds)
    else:
        yield from shell_deeds(plan, kinds)
        yield from lining_deeds(plan, kinds)
        yield from closed_deeds(plan, kinds)
    yield from finished_deeds(plan)
