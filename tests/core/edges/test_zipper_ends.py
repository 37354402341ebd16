"""A zipper whose teeth begin and end inside the seams at its ends (sums by hand; common practice,
no source)."""

import pytest

from tessil.core.bag.ids import ENDS
from tessil.core.edges.choice import Zipper
from tessil.core.edits import applied
from tessil.core.making.acts.state import way_out
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.core.shapes.helpers import bare
from tests.core.shapes.helpers import made as made_of
from tests.core.shapes.test_edge_by_edge import ZIPPED
from tests.core.shapes.test_edge_by_edge import made_of as by_edges

F = Fraction


def pouch(left=0, right=0, **more):
    """A zip pouch 9 wide with seams of ⅜: its panel 9¾."""
    return by_edges("flat-pouch", zipper=Zipper(left=F(left), right=F(right), **more))


@pytest.mark.parametrize(
    ("left", "right", "opens", "least"),
    [
        (0, 0, F(9), F(47, 4)),  # 9¾ and 2
        (F(1, 2), 0, F(17, 2), F(79, 8)),  # 8½, and the seam of ⅜ and an inch at the other end
        (F(1, 2), F(3, 4), F(31, 4), F(31, 4)),  # no tail at either
    ],
)
def test_it_opens_less_far_and_may_be_shorter(left, right, opens, least):
    need = pouch(left, right).bag.zipper
    assert (need.opens.value, need.length.value) == (opens, least)
    assert need.free == tuple(way for way, room in zip(ENDS, (left, right), strict=True) if room)


def test_metal_teeth_that_end_inside_meet_no_needle():
    """A zipper of 8 in hand in an opening of 7¾ between seams 9 apart: ¼ over, still inside."""
    safe = pouch(F(1, 2), F(3, 4), teeth="metal", length=F(8))
    assert not [snag for snag in safe.snags if snag.key in ("edge.metal", "fit.zipper")]
    long = pouch(F(1, 2), F(3, 4), teeth="metal", length=F(10))
    (snag,) = [snag for snag in long.snags if snag.key == "edge.metal"]
    assert "run 1 in into" in snag.title
    plain = pouch(teeth="metal", length=F(12))
    assert [snag for snag in plain.snags if snag.key == "edge.metal"]


@pytest.mark.parametrize(
    ("left", "right", "kind"),
    [(F(1, 2), 0, "left"), (0, F(1, 2), "right"), (F(1, 2), 1, "both"), (0, 0, "")],
)
def test_its_step_says_where_it_begins_and_ends(left, right, kind):
    steps = [step for step in pouch(left, right).edge_steps["closing"] if "stops" in step.what]
    assert [step.what for step in steps] == ([f"zip.stops-{kind}"] if kind else [])
    if kind == "both":
        assert dict(steps[0].values) == {"left": F(1, 2), "right": F(1)}


def test_no_tape_lies_in_a_seam_where_it_is_folded_away():
    """Under the binding of a window's pouch lies the tape too, half a millimetre of it: at the
    right still, not at the left."""
    one = by_edges("bound-pouch", zipper=Zipper(left=F(1)))
    plain = by_edges("bound-pouch", zipper=Zipper())

    def thick(made, side):
        spot = next(s for s in made.spots_on("back") if s.key == f"back.edge.{side}")
        return spot.layers, spot.thick.value * F(127, 5)

    assert thick(one, "right") == thick(plain, "right") == thick(plain, "left")
    layers, left = thick(one, "left")
    assert (layers + 1, left + F(1, 2)) == thick(plain, "left")


def test_no_tape_lies_over_the_side_seam_of_a_boxed_bag_either():
    one, plain = (by_edges("boxed-zip", zipper=Zipper(left=F(at))) for at in (1, 0))

    def layers(made, side):
        return next(s.layers for s in made.spots_on("body") if s.key == f"body.top.{side}")

    assert layers(one, "right") == layers(plain, "right") == layers(plain, "left")
    assert layers(one, "left") == layers(plain, "left") - 1


def test_nothing_left_is_refused_beside_the_further_end():
    with pytest.raises(CannotPlan) as refused:
        pouch(4, F(9, 2) + 1)
    assert refused.value.field == "zipper.right"


@pytest.mark.parametrize("key", ZIPPED)
def test_every_zipped_bag_takes_it(key):
    one = by_edges(key, zipper=Zipper(left=F(1, 2), right=F(1, 2)))
    making = making_of(one, Made())
    assert making.broken == ()
    assert one.bag.zipper.opens.value == one.bag.zipper.between.value - 1
    way, wide = way_out(one, frozenset({"turned", "zip open"}))
    assert (way, wide.value) == ("zip", one.bag.zipper.opens.value)


@pytest.mark.parametrize(("school", "least"), [("cut", F(10)), ("line", F(12))])
def test_corners_cut_first_leave_less_to_sew_it_to(school, least):
    """Zipper at the top edge, a panel 10 wide, notches 1 from either side: 8 between them and 2;
    drawn and sewn on the line, it is sewn to all of 10."""
    edge = {"zip_lies": "edge", "zip_ends": "wide"}
    sizes = bare("panel_width 10, panel_height 14, notch_side 1, notch_fold 1, notch_zip 1")
    bag = made_of("boxed-zip", options=edge, way="panel", **sizes)
    chosen = plan(bag.project.model_copy(update={"corner": school}))
    assert chosen.bag.zipper.length.value == least


@pytest.mark.parametrize(
    ("tape", "snags", "fixes"),
    [
        (None, 0, []),
        (F(5, 4), 0, []),  # ¾ that shows and twice ¼
        (F(9, 8), 1, [("zipper.shown", F(5, 8)), ("zipper.seam", F(3, 16))]),
        (F(17, 16), 1, [("zipper.shown", F(9, 16)), ("zipper.seam", F(5, 32))]),
        (F(1), 1, [("zipper.shown", F(1, 2)), ("zipper.seam", F(1, 8))]),  # it just catches
        (F(7, 8), 1, [("zipper.shown", F(3, 8))]),  # a seam of 1/16 catches nothing
    ],
)
def test_what_shows_both_seams_and_the_tape_go_together(tape, snags, fixes):
    one = pouch(tape=tape)
    assert one.edging.zipper.wide.value == F(5, 4)
    found = [snag for snag in one.snags if snag.key == "edge.tape"]
    assert len(found) == snags
    every = [change for snag in found for fix in snag.fixes for change in fix.changes]
    offered = [(".".join(path), value) for path, value in every]
    assert offered == fixes
    for snag in found:
        for fix in snag.fixes:
            after = plan(applied(one.project, fix))
            assert not [snag for snag in after.snags if snag.key == "edge.tape"]


@pytest.mark.parametrize(("drop", "told"), [(F(3, 8), 1), (0, 1), (F(3, 2), 0)])
def test_a_zipper_on_the_top_fold_is_told_to_be_thick(drop, told):
    one = by_edges("offset-pouch")
    choice = one.project.shape
    sizes = {**choice.sizes, "zip_drop": F(drop)}
    shape = choice.model_copy(update={"sizes": sizes})
    one = plan(one.project.model_copy(update={"shape": shape}))
    found = [snag for snag in one.snags if snag.key == "edge.top-fold"]
    assert len(found) == told
    for snag in found:
        after = plan(applied(one.project, snag.fixes[0]))
        assert not [s for s in after.snags if s.key == "edge.top-fold"]


@pytest.mark.parametrize(("length", "told"), [(F(12), 0), (F(14), 0), (F(16), 1), (F(22), 1)])
def test_a_zipper_of_which_a_third_is_cut_off_is_dear(length, told):
    """Sewn to 9¾: of 14 4¼ are over, of 16 6¼."""
    one = pouch(length=length)
    found = [snag for snag in one.snags if snag.key == "edge.dear"]
    assert len(found) == told
    for snag in found:
        after = plan(applied(one.project, snag.fixes[0]))
        assert not [s for s in after.snags if s.key in ("edge.dear", "fit.zipper")]


@pytest.mark.parametrize(
    ("units", "unit", "sold"),
    [
        ("inch", F(1), (4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 18, 20, 22, 24, 30, 36)),
        (
            "metric",
            F(100, 254),
            (10, 12, 15, 18, 20, 22, 25, 30, 35, 40, 45, 50, 55, 60, 70, 80, 100),
        ),
    ],
)
def test_zippers_are_sold_in_these_lengths(units, unit, sold):
    """The next that is as long as is needed; every one but the shortest is bought for some bag."""
    base = pouch().project
    bought = set()
    for one in sold[3:]:
        for more in (-1, F(-1, 2)):
            sizes = {"width": one * unit - F(11, 4) + more * unit, "height": F(5)}
            shape = base.shape.model_copy(update={"sizes": sizes})
            zipper = plan(base.model_copy(update={"shape": shape, "units": units})).edging.zipper
            wanted = min(n * unit for n in sold if n * unit >= zipper.length.value)
            assert zipper.buy.value == wanted
            bought.add(wanted / unit)
    assert bought >= set(sold[3:])
