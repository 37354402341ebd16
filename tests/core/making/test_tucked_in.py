"""A lining that is tucked in: no gap to leave or to close, one stitching round the top.

Common practice, no source.
"""

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.making.acts.state import way_out
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote

OPEN = ("tote", "one-piece", "satchel", "sleeve", "drawstring")


def made(kind, how, **changes):
    shape = ShapeChoice(kind=kind, options={"top": "turned"})
    return plan(tote(shape=shape, lining_in=how, **changes))


@pytest.mark.parametrize("kind", OPEN)
def test_the_top_closes_it_and_no_gap_is_left(kind):
    one = made(kind, "tucked")
    making = making_of(one, Made())
    ids = [deed.id for deed in making.deeds]
    assert not making.broken
    assert [step for step in ids if step.startswith("gap.") or step == "turn.corners"] == []
    assert not any(deed.gap for deed in making.deeds)
    order = ["turn", "top.press-outside", "line.put-in", "top.edge-stitch", "finish.look"]
    assert [step for step in ids if step in order] == sorted(order, key=ids.index)
    assert ids.index("top.press-lining") < ids.index("top.edge-stitch")
    facts = standing(making, ids).facts
    assert {"finished", "lining closed", "turned"} <= facts
    assert way_out(one, facts)[0] == "mouth"


@pytest.mark.parametrize("kind", OPEN)
def test_through_a_gap_it_is_as_before(kind):
    ids = [deed.id for deed in making_of(made(kind, "gap"), Made()).deeds]
    assert "gap.close" in ids
    assert "top.edge-stitch" not in ids


def test_what_is_caught_in_the_top_is_on_before_it_is_stitched():
    shape = ShapeChoice(kind="tote", options={"top": "turned", "handles": "pair"})
    ids = [d.id for d in making_of(plan(tote(shape=shape, lining_in="tucked")), Made()).deeds]
    assert ids.index("baste.handles") < ids.index("top.edge-stitch")


def test_a_bound_top_and_a_zipper_take_no_notice_of_it():
    for kind, options in (("tote", {"top": "bound"}), ("flat-pouch", {})):
        shape = ShapeChoice(kind=kind, options=options)
        ways = [
            [deed.id for deed in making_of(plan(tote(shape=shape, lining_in=how)), Made()).deeds]
            for how in ("gap", "tucked")
        ]
        assert ("top.edge-stitch" in ways[1]) is False
        if kind == "tote":
            assert ways[0] == ways[1]


def test_a_longer_lining_hangs_slack():
    plain, longer = (made("tote", "tucked", lining_shorter=Fraction(by)) for by in (0, -1))
    more = longer.panel("lining").panel.height.value - plain.panel("lining").panel.height.value
    assert more == 1
    sizes = [[figure.value for figure in one.bag.finished] for one in (plain, longer)]
    assert sizes[0] == sizes[1]
