"""A batch step by step, and the schools of its maker (common practice, no source)."""

from itertools import pairwise

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.making.acts.batching import batch_words, stretches
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Snap
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of


def steps(project):
    made = plan(project)
    making = making_of(made, project.making)
    assert not making.broken
    return making


@pytest.mark.parametrize("key", SHAPES)
def test_stretches_hold_every_step_once_in_order(key):
    making = steps(project_of(key, bags=6))
    found = list(stretches(making.deeds))
    assert [deed for one in found for deed in one.deeds] == list(making.deeds)
    assert found[0].first == 1
    assert all(two.first == one.last + 1 for one, two in pairwise(found))
    assert all(len({deed.operation for deed in one.deeds}) == 1 for one in found)
    assert all(one.operation != two.operation for one, two in pairwise(found))


def test_one_bag_goes_first_where_the_others_follow_what_it_measures():
    making = steps(tote(bags=6))
    quilted = next(one for one in stretches(making.deeds) if one.operation == "quilt")
    measured = [at for at, deed in enumerate(making.deeds, start=1) if deed.what == "quilt.measure"]
    assert quilted.alone == measured[-1]
    words = batch_words(quilted, 6)
    assert words.startswith(f"Steps {quilted.first} to {quilted.last} (quilt) for all 6 bags")
    assert f"up to step {measured[-1]}" in words
    assert batch_words(quilted, 1) == ""


def test_a_stretch_that_measures_nothing_has_no_bag_alone():
    making = steps(tote(bags=2))
    joined = next(one for one in stretches(making.deeds) if one.operation == "assemble")
    assert joined.alone is None
    assert "first" not in batch_words(joined, 2)


def test_the_snap_goes_in_early_or_with_the_marks():
    def place(when):
        made = project_of("satchel", snap=Snap(used=True), making=Made(snap=when))
        ids = [deed.id for deed in steps(made).deeds]
        return ids.index("prepare.snap.male"), ids.index("prepare.pocket.0") if (
            "prepare.pocket.0" in ids
        ) else ids.index("check.snap")

    early, _ = place("early")
    late, _ = place("lining")
    assert early < late


@pytest.mark.parametrize("lining", ["drop-in", "quilted-in", "none"])
@pytest.mark.parametrize("key", ["tote", "one-piece", "drawstring", "sleeve"])
def test_handles_on_the_face_go_on_flat_panels_or_on_the_finished_bag(key, lining):
    options = {"handles": "pair", "handle_ends": "face"}

    def order(when):
        shape = ShapeChoice(kind=key, options=options)
        made = project_of(key, shape=shape, lining=lining, making=Made(handles=when))
        return [deed.id for deed in steps(made).deeds]

    before, after = order("before"), order("after")
    assert "baste.handles" in before
    assert "baste.handles" not in after
    assert after.index("hang.handles") > after.index("turn")
    assert after.index("hang.handles") < after.index("finish.press")
