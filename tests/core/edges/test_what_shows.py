"""What a binding shows on either side, where a zipper's pull rests; by hand."""

import pytest

from tessil.core.edges.choice import Binding, Zipper
from tessil.core.edits import applied
from tessil.core.making.acts.telling import told
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote
from tests.core.shapes.test_carrying import made
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def bound(**binding):
    return plan(tote(lining="quilted-in", binding=Binding(**binding)))


def test_a_double_binding_shows_its_seam_in_front_and_the_cover_more_behind():
    """Sewn at 3/8 and cut by the formula 2 (3 x 3/8 + t + c), up to a mark: 3/8 in front, at least
    3/8 + c behind, and not a mark's half more."""
    one = bound(seam=F(3, 8), fold="double", cover=F(1, 16))
    assert one.binding.front.value == F(3, 8)
    assert F(7, 16) <= one.binding.behind.value < F(7, 16) + F(1, 16)


@pytest.mark.parametrize(("fold", "more"), [("double", F(1, 8)), ("single", F(1, 4))])
def test_a_strip_cut_wider_shows_more_behind(fold, more):
    """A quarter wider, of a double fold an eighth comes to each half."""
    first = bound(seam=F(3, 8), fold=fold)
    wider = bound(seam=F(3, 8), fold=fold, cut=first.binding.cut.value + F(1, 4))
    assert wider.binding.behind.value - first.binding.behind.value == more


def test_a_loop_away_from_the_closed_pull_is_told_and_moved():
    one = made("flat-pouch", {"wrist": "loop", "wrist_side": "left"})
    (snag,) = [snag for snag in one.snags if snag.key == "edge.pull"]
    for fix in snag.fixes:
        mended = plan(applied(one.project, fix))
        assert not any(snag.key == "edge.pull" for snag in mended.snags)
    right = made("flat-pouch", {"wrist": "loop", "wrist_side": "right"})
    assert not any(snag.key == "edge.pull" for snag in right.snags)


@pytest.mark.parametrize(
    ("choice", "words"),
    [
        (Zipper(), "towards the right"),
        (Zipper(rests="left"), "towards the left"),
        (Zipper(sliders="two"), "towards the middle"),
    ],
)
def test_the_step_says_which_way_it_closes(choice, words):
    one = plan(project_of("flat-pouch", zipper=choice))
    (deed,) = [deed for deed in making_of(one, Made()).deeds if deed.what == "check.middles"]
    assert words in told(one, deed)[1]


@pytest.mark.parametrize("key", ["flat-pouch", "sleeve"])
def test_edges_bound_by_themselves_are_cut_on_the_bias_where_that_is_chosen(key):
    """Their strips, end to end, as one length of bias; none of them on the straight grain any more,
    and one rectangle to cut on the cross instead."""
    straight, bias = (
        plan(made(key, {"sides": "bound"}).project.model_copy(update={"binding": Binding(grain=g)}))
        for g in ("straight", "bias")
    )
    long = sum(s.edge.number.value * s.edge.length.value for s in straight.edge_strips if s.cut)
    assert long
    assert sum(cut.need.value for cut in bias.edging.bias if cut.own) == long
    owners = {item.owner.kind for item in bias.items}
    assert "edge" not in owners
    assert "bias" in owners
    assert "edge" in {item.owner.kind for item in straight.items}
    for cut in bias.edging.bias:
        assert cut.reaches.value >= cut.need.value
