"""Small things to cut and to buy: tabs, patches, ends of zippers, loops.

Sizes by hand; common practice, no source.
"""

import pytest

from tessil.core.bag.ids import CutOwner
from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.edges.choice import Button, Cord, Zipper
from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.acts.marking import add_mark
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


def pocket(kind="slip", **more):
    mark = Mark(kind=kind, panel="front", x=F(2), y=F(3), width=F(6), height=F(5), **more)
    return plan(applied(tote(), edit("", ("marks", (mark,)))))


POCKETS = [
    # ⅜ seams: 6 and both sides wide; twice 5 and a seam, folded
    (pocket(), [("slip", (F(27, 4), F(43, 4)))]),
    # two cloths: the outer ¼ less, the inner ¼ more, both with a seam above and below
    (pocket(cloths="two"), [("slip", (F(27, 4), F(11, 2))), ("pocket lining", (F(27, 4), F(6)))]),
    # an opening of 6 and 1 on either side; one piece folded, or two with a seam
    (pocket("window"), [("window", (F(8), F(10)))]),
    (pocket("window", bag="two"), [("window", (F(8), F(43, 8)))]),
]


@pytest.mark.parametrize(("made", "pieces"), POCKETS)
def test_a_pocket_is_cut_as_it_is_made(made, pieces):
    items = cut(made, "pocket")
    assert [(item.what, (item.width.value, item.height.value)) for item in items] == pieces


def test_a_window_s_bag_in_two_is_two_pieces():
    numbers = [cut(pocket("window", bag=bag), "pocket")[0].number.value for bag in ("one", "two")]
    assert numbers[1] == 2 * numbers[0]


def test_a_pocket_caught_in_the_side_seams_is_as_wide_as_its_panel():
    made = pocket("divided", sides="seams", at=(F(2), F(7)))
    (item,) = cut(made, "pocket")
    wide = made.panel("front").trimmed.width.value
    assert item.width.value == wide
    (placed,) = made.marks_on("front")
    assert (placed.box[0], placed.box[2]) == (0, wide)
    assert placed.lines == (2, 7)


def test_divisions_stand_where_they_are_wanted_in_order_and_inside():
    (placed,) = pocket("divided", at=(F(4), F(1), F(4), F(9))).marks_on("front")
    assert placed.lines == (2 + 1, 2 + 4)  # from the pocket's left, which is 2 in; 9 is outside
    (even,) = pocket("divided", divisions=3).marks_on("front")
    assert even.lines == (4, 6)


def test_a_pocket_caught_in_the_seams_runs_into_them_as_it_should():
    """It may still not run into the base."""
    keys = [snag.key.split(".")[:2] for snag in pocket("slip", sides="seams").snags]
    assert ["mark", "seam"] not in keys
    deep = plan(
        applied(
            tote(),
            edit(
                "",
                (
                    "marks",
                    (
                        Mark(
                            kind="slip", panel="front", x=F(0), y=F(3), height=F(20), sides="seams"
                        ),
                    ),
                ),
            ),
        )
    )
    assert ["mark", "seam"] in [snag.key.split(".")[:2] for snag in deep.snags]


@pytest.mark.parametrize(("sliders", "number"), [("one", 1), ("two", 2)])
def test_a_zipper_off_the_roll_is_as_long_as_it_is_sewn_and_gets_its_sliders(sliders, number):
    """Half an inch beyond both raw edges of a panel 10 wide; no standard length, no stops."""
    shape = ShapeChoice(kind="flat-pouch", way="panel", sizes={"panel_width": F(10)})
    zipper = Zipper(ends="length", sliders=sliders)
    made = plan(tote(shape=shape, zipper=zipper))
    wares = {ware.kind: ware for ware in wares_of(made)}
    assert wares["zipper"].size.value == 11
    assert wares["slider"].number.value == number * made.project.bags
    assert "zip.sliders-on" in [step.what for step in made.edge_steps["closing"]]
    bought = plan(tote(shape=shape, zipper=Zipper(sliders=sliders)))
    assert {ware.kind: ware for ware in wares_of(bought)}["zipper"].size.value == 12


def test_a_ribbon_goes_across_its_panel_and_is_bought_by_its_length():
    """As long as the panel is wide and half an inch over at each end; it is on before the sides are
    sewn, one layer more in their seam."""
    mark = Mark(kind="ribbon", panel="front", x=F(3), y=F(4), height=F(1, 2))
    made = plan(applied(tote(), edit("", ("marks", (mark,)))))
    wide = made.panel("front").trimmed.width.value
    (ware,) = [one for one in wares_of(made) if one.kind == "ribbon"]
    assert ware.size.value == wide + 1
    assert ware.amount.value == (wide + 1) * made.project.bags
    (placed,) = made.marks_on("front")
    assert (placed.box[0], placed.box[2], placed.box[3]) == (0, wide, F(1, 2))
    assert not [snag for snag in made.snags if snag.key.startswith("mark.")]
    spots = {spot.label: spot for spot in made.spots_on("front")}
    cotton = F(25, 100)  # pressed, in mm, from the catalogue
    assert spots["ribbon in the side seam"].mm == spots["left seam"].mm + cotton
    order = [deed.id for deed in making_of(made, Made()).deeds]
    assert order.index("prepare.ribbon.0") < order.index("sew.seam.left")


def test_a_label_is_bought_and_sewn_on_in_its_place():
    project = tote()
    added = applied(project, add_mark(plan(project), plan(project).panel("back"), "label"))
    made = plan(added)
    (ware,) = [one for one in wares_of(made) if one.kind == "label"]
    assert ware.number.value == made.project.bags
    assert not [snag for snag in made.snags if snag.key.startswith("mark.")]
    assert "prepare.label.0" in [deed.id for deed in making_of(made, Made()).deeds]
