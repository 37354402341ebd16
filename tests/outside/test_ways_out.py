"""Every way out that is offered leads out: it is taken, and what it is offered for is gone.

Bags are come by through edits drawn at random; ``TESSIL_HUNT=10`` draws ten times as many.
"""

import random
from collections import Counter

import pytest

from tessil.core.edits import applied, edit
from tessil.core.memory.recall import Memory
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, Measured
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import HUNT
from tests.core.memory.test_remembering import BAGS, SHAPES, _project, _typed
from tests.core.test_anything_typed import edit_of

F = Fraction

# Of several faults of a kind one is mended at a time; what is left is told anew.
ONE_OF_SEVERAL = (
    "edge.piece.",  # the next piece has its number then
    "layer.thick.",  # the next thickest spot
    "layout.alike.",
    "piece.courses.short.",
    "piece.scraps.twice",
    "piece.upside-down.",
)


def _after(made, way, memory):
    """The plan once a way out is taken; none, where it is refused."""
    try:
        return plan(applied(made.project, way), memory=memory)
    except (Refused, CannotPlan):
        return None


def _faults(made, memory):
    """The ways out that lead nowhere, each with what it is offered for."""
    for snag in made.snags:
        for way in snag.fixes:
            after = _after(made, way, memory)
            left = () if after is None else [one for one in after.snags if one.key == snag.key]
            if after is None or (left and not snag.key.startswith(ONE_OF_SEVERAL)):
                yield f"{snag.title}: {way.words}: {'still there' if left else 'refused'}"


def _begun(name, dice, memory):
    """A bag as it begins; or one that is washed, too small for what it holds, or cut already."""
    made = plan(_project(name), memory=memory)
    lead = made.lead
    small = Got(width=lead.trimmed.width.value * F(3, 4), height=lead.trimmed.height.value)
    begins = (
        (),
        (("wash.used", True), ("wash.share", F(1, 8))),
        (("hold.minded", True), ("shape.way", "object"), ("hold.ease", F(1, 8))),
        ((f"measured.{lead.key}", Measured(trimmed=small)), ("hold.minded", True)),
        ((f"measured.{lead.key}", Measured(quilted=small)), ("wash.used", True)),
    )
    return _after(made, edit("", *dice.choice(begins)), memory) or made


@pytest.mark.parametrize("name", [*BAGS, *SHAPES])
def test_every_way_out_leads_out_of_bags_drawn_at_random(name):
    dice, memory = random.Random(f"out of {name}"), Memory()
    taken, found = 0, set()
    for _ in range(2 * HUNT):
        made = _begun(name, dice, memory)
        for _ in range(8):
            made = _after(made, edit_of(made, *_typed(dice)), memory) or made
            taken += sum(len(snag.fixes) for snag in made.snags)
            found.update(_faults(made, memory))
            assert max(Counter(snag.key for snag in made.snags).values(), default=0) <= 1
    assert taken > 0 or name in ("tote", "sleeve", "free-panel")
    assert found == set()
