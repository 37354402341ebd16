"""Snags: how grave they are, in which order, and what measuring does to them."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.snags import Weight
from tessil.core.trouble import CannotPlan
from tests.conftest import tote
from tests.core.snag_cases import CASES, found, held, measured

F = Fraction


def test_an_object_may_go_in_without_the_ease_wished_for():
    wall = plan(tote()).wall.value
    for height, weight in ((12 - wall, Weight.WARNS), (12, Weight.BLOCKS)):
        snag = found("fit.height", tote(hold=held(height=F(height))))
        assert snag.weight is weight


def test_a_clean_bag_has_no_snags():
    assert plan(tote()).snags == ()


def test_a_measured_quilted_panel_that_is_too_small_blocks():
    made = plan(measured("quilted", F(59, 4), F(111, 8)))
    assert made.snags == ()
    small = plan(measured("quilted", F(14), F(111, 8)))
    assert small.snags[0].weight is Weight.BLOCKS


def test_no_oversize_only_warns_since_the_size_is_a_guess():
    project = applied(tote(), edit("", ("oversize.way", "none")))
    snags = plan(project).snags
    assert {snag.weight for snag in snags} == {Weight.BLOCKS}
    fixed = applied(tote(), edit("", ("oversize.way", "fixed"), ("oversize.fixed", F(1, 4))))
    assert {snag.weight for snag in plan(fixed).snags} == {Weight.WARNS}


def test_what_was_measured_wins_and_the_rest_follows():
    made = plan(measured("trimmed", F(14), F(27, 2)))
    assert made.panel("front").trimmed.values() == (14, F(27, 2))
    for follower in ("back", "lining"):
        assert made.panel(follower).trimmed.values() == (14, F(27, 2))
    assert made.bag.finished[0].value == 11 - F(3, 4)
    assert made.binding.edge.value == 2 * (14 - F(3, 4))


def test_a_measured_top_moves_what_quilting_is_expected_to_leave():
    plan_, real = plan(tote()), plan(measured("pieced", F(31, 2), F(57, 4)))
    assert real.panel("front").expected.width.value < plan_.panel("front").expected.width.value
    assert real.panel("back").expected == real.panel("back").expected


def test_an_absurd_measurement_is_refused_beside_its_box():
    with pytest.raises(CannotPlan, match="Trimmed so small") as trouble:
        plan(measured("trimmed", 3, 3))
    assert trouble.value.field == "measured.front.trimmed"


def test_the_gravest_comes_first():
    project = applied(CASES["trim.small.front.height"], edit("", ("binding.cut", F(3, 2))))
    weights = [snag.weight for snag in plan(project).snags]
    assert weights == sorted(weights, key=[Weight.BLOCKS, Weight.WARNS, Weight.NOTES].index)
