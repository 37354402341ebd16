"""Small things to cut and to buy: tabs, patches, stiffeners, ends of zippers, loops.

Sizes by hand; common practice, no source.
"""

import pytest

from tessil.core.bag.ids import CutOwner
from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.edges.choice import Button, Cord, Zipper
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.choice import Mark, Snap
from tests.conftest import tote

F = Fraction


def cut(made, kind):
    return [item for item in made.items if item.owner == CutOwner(kind)]


def told(item):
    return item.what, item.number.value, (item.width.value, item.height.value)


def marked(kind, **sizes):
    mark = Mark(kind=kind, panel="front", x=F(2), y=F(3), **sizes)
    return plan(applied(tote(), edit("", ("marks", (mark, mark)), ("bags", 3))))


def test_a_ring_tab_is_a_strip_for_each_mark():
    assert [told(item) for item in cut(marked("d-ring"), "tab")] == [
        ("strip to fold", 3, (3, F(5, 2)))
    ] * 2


def test_a_stiffener_is_cut_of_stiff_interfacing_as_it_is_marked():
    made = marked("stiffener", width=F(9), height=F(3))
    assert [told(item) for item in cut(made, "stiffener")] == [("stiffener", 3, (9, 3))] * 2
    assert {item.stock for item in cut(made, "stiffener")} == {"stiff-interfacing"}


def test_a_patch_lies_behind_the_half_of_a_snap_that_has_no_batting():
    """The male half is in the flap's lining; the front is quilted on its batting."""
    made = plan(
        applied(tote(shape=ShapeChoice(kind="satchel")), edit("", ("snap", Snap(used=True))))
    )
    (patch,) = cut(made, "snap")
    assert told(patch) == ("reinforcing patch", made.project.bags, (F(3, 2), F(3, 2)))
    assert cut(plan(tote(shape=ShapeChoice(kind="satchel"))), "snap") == []


def test_tabs_at_a_zipper_s_ends_are_two_pieces_of_cloth():
    """As wide as the tape of 1 and two seams of ¼; a half of ½ and two seams, twice."""
    made = plan(tote(shape=ShapeChoice(kind="flat-pouch"), zipper=Zipper(ends="tabs")))
    assert [told(item) for item in cut(made, "zipper end")] == [
        ("end tab", 2 * made.project.bags, (F(3, 2), F(2)))
    ]
    assert cut(plan(tote(shape=ShapeChoice(kind="flat-pouch"))), "zipper end") == []


def test_a_button_s_loop_is_a_strip_that_folds_to_a_quarter():
    made = plan(tote(button=Button(used=True)))
    (loop,) = cut(made, "button loop")
    assert (loop.width.value, loop.height.value) == (made.edging.loop.value, 1)


def test_a_window_pocket_s_zipper_is_bought():
    """Its opening and an inch."""
    zips = [w for w in wares_of(marked("window", width=F(6))) if w.kind == "zipper"]
    assert [(ware.size.value, ware.number.value) for ware in zips] == [(7, 3)] * 2


@pytest.mark.parametrize(
    ("cord", "least"),
    [(Cord(kind="flat", thick=F(1, 2)), F(3, 4)), (Cord(kind="flat", thick=F(1)), F(3, 2))],
)
def test_a_flat_tape_wants_half_as_much_again(cord, least):
    made = plan(tote(shape=ShapeChoice(kind="drawstring"), cord=cord))
    assert made.edging.cord.least.value == least
    snags = [snag for snag in made.snags if snag.key.startswith("edge.channel")]
    assert bool(snags) is (least > F(3, 4))  # the channel a drawstring bag begins with
    if snags:
        assert "half as wide again" in snags[0].why
