"""A front sewn of several parts and trimmed as one: what was measured of it, the back, the binding
and the finished bag follow (common practice, no source; by hand)."""

import pytest

from tessil.core.choosing import measure
from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def pouch():
    """10 × 8 with 1½ above the zipper: a lower front of 8 − ¾ − 1½ + ¼ = 6."""
    base = project_of("bound-pouch")
    sizes = {"width": F(10), "height": F(8), "upper": F(3, 2)}
    return applied(base, edit("", ("shape.way", "finished"), ("shape.sizes", sizes)))


def measured(**got):
    project = pouch()
    return plan(applied(project, measure(project, "lower", "assembled", Got(**got))))


def test_the_front_as_planned():
    made = plan(pouch())
    front = made.bag.assembled
    assert (front.leader, front.width.value, front.height.value) == ("lower", 10, 8)
    rung = next(rung for rung in made.ladder("lower") if rung.key == "assembled")
    assert [figure.value for figure in rung.sizes] == [10, 8]
    assert rung.measurable
    assert "assembled" not in [rung.key for rung in made.ladder("back")]


def test_back_binding_and_window_follow_what_was_measured():
    """9¾ × 8¼: the back is cut so, the binding goes round 2 × 18, and ¼ more shows above."""
    made = measured(width=F(39, 4), height=F(33, 4))
    assert made.panel("back").trimmed.values() == (F(39, 4), F(33, 4))
    assert [figure.value for figure in made.bag.finished] == [F(39, 4), F(33, 4)]
    assert made.binding.edge.value == 36
    assert made.panel("upper").trimmed.values() == (F(39, 4), F(3, 2) + F(1, 4) + F(1, 4))
    assert made.panel("lower").trimmed.values() == (F(39, 4), 6)
    rung = next(rung for rung in made.ladder("lower") if rung.key == "assembled")
    assert rung.note == "measured"


def test_one_way_alone_may_be_measured():
    made = measured(height=F(31, 4))
    assert [figure.value for figure in made.bag.finished] == [10, F(31, 4)]


def test_so_low_that_nothing_is_left_above_the_zipper_is_refused():
    with pytest.raises(CannotPlan, match="above the zipper"):
        measured(height=F(6))


def test_the_back_is_trimmed_once_the_front_is():
    made = plan(pouch())
    steps = making_of(made, made.project.making)
    assert not steps.broken
    order = [deed.id for deed in steps.deeds]
    assert order.index("zip.trim") < order.index("front.measure") < order.index("trim.cut.back")


def test_other_bags_have_no_such_rung():
    for key in ("tote", "flat-pouch", "sleeve"):
        made = plan(project_of(key))
        assert made.bag.assembled is None
        assert "assembled" not in [rung.key for rung in made.ladder(made.shape.leader)]
