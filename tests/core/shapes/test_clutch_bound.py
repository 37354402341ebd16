"""A clutch bound outside instead of turned: nothing lost in seams, its strips by hand."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.sewn.placing import Sewn
from tests.core.shapes.test_carrying import made

F = Fraction
SIZES = {"panel_width": 10, "panel_height": 16, "flap": 4}


def clutch(flap="square", **options):
    return made("clutch", {"around": "bound", "flap_shape": flap, **options}, **SIZES)


def bound(one):
    """The panel typed: 10 wide, twice 6 high and a flap of 4."""
    return plan(applied(one.project, edit("", ("shape.way", "panel"))))


def test_it_ends_as_large_as_its_panel_folds():
    one = bound(clutch())
    assert [figure.value for figure in one.bag.finished] == [10, 6]
    panel = one.panel("body").trimmed
    assert panel.values() == (10, 16)


def test_its_front_first_then_once_round():
    """The front's top 10 and an inch to turn under; round it 6 + 6 up both sides, 4 + 10 + 4 round
    the flap, an inch for each of two mitres and one to turn under: 33."""
    front, around = bound(clutch()).edge_strips
    assert front.edge.length.value == 11
    assert around.edge.length.value == 33
    assert (front.edge.walls, around.edge.walls) == (1, 2)
    assert around.cut.value > front.cut.value


def test_round_a_round_flap_it_is_shorter_and_wants_bias():
    """Corners of radius 1 1/2: each quarter of a circle, by short straight pieces, for two sides of
    3/2: 2 * (3 - 2.356) less, and no mitres."""
    one = bound(clutch("round", strap="none"))
    _, around = one.edge_strips
    assert float(around.edge.length.value) == pytest.approx(31 - 2 * (3 - 2.356), abs=0.02)
    (snag,) = [snag for snag in one.snags if snag.key == "edge.curve"]
    assert snag.fixes


@pytest.mark.parametrize("flap", ["round", "square", "envelope"])
def test_it_is_made_in_order_and_folds_up(flap):
    one = bound(clutch(flap))
    making = making_of(one, Made())
    assert making.broken == ()
    assert standing(making, [deed.id for deed in making.deeds]).facts >= {"finished", "bound"}
    whats = [deed.what for deed in making.deeds]
    assert whats.count("bind.own") == 2
    assert "turn.gap" not in whats
    sewn = Sewn(one.bag.net)
    assert set(sewn.shut) == set(sewn.pieces)


def test_inside_the_binding_takes_its_seam_at_either_side():
    turned, around = bound(made("clutch", {}, **SIZES)), bound(clutch())
    told = {b.id: b.figure.value for b in around.bag.inside}
    plain = {b.id: b.figure.value for b in turned.bag.inside}
    seams, binding = 2 * turned.project.seams.side, 2 * around.project.binding.seam
    assert told["inside-width"] - plain["inside-width"] == seams - binding


def test_what_it_holds_still_goes_in_between_the_bindings():
    """Worked out from what it holds it is wider by two binding seams."""
    turned, around = (
        plan(applied(one.project, edit("", ("shape.way", "object"), ("shape.sizes", {}))))
        for one in (made("clutch", {}), clutch())
    )
    wider = around.bag.finished[0].value - turned.bag.finished[0].value
    assert abs(wider - 2 * around.project.binding.seam) <= F(1, 4)  # to a mark, either of them
    assert not [snag for snag in around.snags if snag.key.startswith("brief.fit")]
