"""A plan never blocks itself: whatever the seams, nothing is found that the maker did not cause."""

from random import Random

import pytest

from tessil.core.brief.choice import Seams
from tessil.core.choosing import measure
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.snags import Weight
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
SEAMS = ("side", "bottom", "top", "corner")


def _seams(chance, units):
    """From ⅛ to 1 in sixteenths, or from 3 to 25 mm, in every mix."""
    low, high, per = (2, 16, F(1, 16)) if units == "inch" else (3, 25, F(10, 254))
    return Seams(**{name: chance.randint(low, high) * per for name in SEAMS})


@pytest.mark.parametrize("units", ["inch", "metric"])
@pytest.mark.parametrize("key", list(SHAPES))
def test_seams_of_every_width_plan_without_a_stop(key, units):
    chance = Random(f"{key} {units}")
    stops = []
    for _ in range(9):
        options = {option.key: chance.choice(option.choices)[0] for option in SHAPES[key].options}
        change = edit(
            "",
            ("seams", _seams(chance, units)),
            ("units", units),
            ("corner", chance.choice(("cut", "line", "pinch"))),
            ("shape.options", options),
        )
        made = plan(applied(project_of(key), change))
        stops += [snag.title for snag in made.snags if snag.weight is Weight.BLOCKS]
        assert not [snag.title for snag in made.snags if snag.title.endswith("0 in too small")]
    assert stops == []


def test_what_is_trimmed_ends_the_doubt_whether_it_will_be_large_enough():
    project = tote()
    small = applied(project, measure(project, "front", "quilted", Got(width=F(14))))
    assert [s.key for s in plan(small).snags if s.key.startswith("trim.small.front.width")]
    wide = plan(project).panel("front").trimmed.width.value
    trimmed = applied(small, measure(small, "front", "trimmed", Got(width=wide)))
    assert not [s.key for s in plan(trimmed).snags if s.key.startswith("trim.small.front.width")]
