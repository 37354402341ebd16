"""Clutch, satchel, drawstring bag, free panel, worked by hand (common practice)."""

from math import dist

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.brief.choice import ShapeChoice
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.sewn.placing import Sewn
from tessil.core.trimming.choice import Snap
from tessil.core.trouble import CannotPlan
from tessil.drawing.handview import place_on
from tests.conftest import tote
from tests.core.shapes.helpers import bare, figure, finished, made, size_of

F = Fraction


FLAPPED = "width 11, height 12, depth 3"


def test_a_clutch_of_9_by_6_with_a_flap_of_4():
    """Width 9½; length 2 × 6 + 4 + ½ = 16½; folds at 4¼ and 10¼."""
    bag = made("clutch", **bare("width 9, height 6, flap 4"))
    assert size_of(bag, "body") == (F(19, 2), F(33, 2))
    assert [fold.start[1] for fold in bag.panel("body").panel.folds] == [F(17, 4), F(41, 4)]


def test_equal_thirds_are_a_flap_as_long_as_the_body():
    bag = made("clutch", "panel", **bare("panel_width 9, panel_height 18 1/2, flap 6"))
    assert finished(bag)[1] == 6


@pytest.mark.parametrize(("style", "corners"), [("square", 4), ("envelope", 6), ("round", 20)])
def test_a_flap_is_square_clipped_or_rounded(style, corners):
    bag = made("clutch", options={"flap_shape": style}, **bare("width 9, height 6, flap 4"))
    assert len(bag.panel("body").panel.outline) == corners


def test_a_rounded_corner_keeps_its_radius():
    bag = made(
        "clutch",
        options={"flap_shape": "round"},
        **bare("width 9, height 6, flap 4, flap_round 1 1/2"),
    )
    cases = list(bag.panel("body").panel.outline)
    assert cases
    for x, y in cases:
        if x < F(3, 2) and y < F(3, 2):
            reach = float((x - F(3, 2)) ** 2 + (y - F(3, 2)) ** 2) ** 0.5
            assert reach == pytest.approx(1.5, abs=2e-4)


def test_a_satchels_flap_is_narrower_than_the_opening_and_follows_it():
    """Opening flat 14; flap 14 − ¾ = 13¼, cut 13¾; 9 long, cut 9¼ with its top in the binding;
    lands 9 − 1½ = 7½, half the depth passed over."""
    bag = made("satchel", **bare("width 11, height 12, depth 3, flap 9, flap_less 3/4"))
    assert figure(bag, "opening-flat") == 14
    assert figure(bag, "finished-width-of-the-flap") == F(53, 4)
    assert size_of(bag, "flap") == size_of(bag, "flap-lining") == (F(55, 4), F(37, 4))
    assert figure(bag, "flap-comes-down-the-front") == F(15, 2)


@pytest.mark.parametrize(
    ("passes", "more", "lands"),
    [
        ("half", "", F(15, 2)),
        ("whole", "", F(6)),
        ("none", "", F(9)),
        ("held", "", F(17, 2)),  # what these bags hold is ½ thick
        ("own", ", flap_over 2", F(7)),
    ],
)
def test_what_the_flap_passes_over_is_the_makers_to_say(passes, more, lands):
    bag = made("satchel", options={"flap_passes": passes}, **bare(f"{FLAPPED}, flap 9{more}"))
    assert figure(bag, "flap-comes-down-the-front") == lands


def test_a_soft_satchel_by_the_trade():
    """3 deep, flap 6, snap 1½ above its edge, top seam ½, half the depth passed over: the female
    half 3½ below the raw top (common practice, no source)."""
    project = made("satchel", options={"top": "turned"}, **bare(f"{FLAPPED}, flap 6")).project
    seams = project.seams.model_copy(update={"top": F(1, 2)})
    snap = Snap(used=True, offset=F(3, 2))
    soft = plan(project.model_copy(update={"seams": seams, "snap": snap}))
    (female,) = [mark for mark in soft.marks_on("front") if mark.key == "snap:female"]
    assert female.box[1] + female.box[3] / 2 == F(7, 2)
    assert not [snag.title for snag in soft.snags if snag.key.startswith("mark")]


def test_the_halves_of_the_snap_meet_in_space_when_the_bag_is_closed():
    """The flap's lining lies on its wrong side, mirrored; the cloths' thickness is left out."""
    for passes in ("half", "whole", "none"):
        options = {"flap_passes": passes}
        project = made("satchel", options=options, **bare(f"{FLAPPED}, flap 9")).project
        snapped = plan(project.model_copy(update={"snap": Snap(used=True)}))
        sewn = Sewn(snapped.bag.net)
        spots = {}
        for panel, key in (("front", "snap:female"), ("flap-lining", "snap:male")):
            (mark,) = [mark for mark in snapped.marks_on(panel) if mark.key == key]
            x, y = (float(mark.box[at] + mark.box[at + 2] / 2) for at in (0, 1))
            sheet = panel.removesuffix("-lining")
            wide = float(snapped.panel(sheet).panel.width.value)
            spots[key] = place_on(
                sewn, sewn.closed, sheet, 0, (x if sheet == panel else wide - x, y)
            )
        assert dist(*spots.values()) < 1 / 16, passes


def test_the_flap_is_joined_at_its_top_and_shaped_at_its_bottom():
    panel = made("satchel", **bare("width 11, height 12, depth 3, flap 9")).panel("flap").panel
    assert panel.outline[0] == (0, 0)
    top = panel.edge(EdgeKey("top"))
    assert top.end[0] - top.start[0] == panel.width.value
    bottom = panel.edge(EdgeKey("bottom"))
    assert abs(bottom.end[0] - bottom.start[0]) == panel.width.value - 3


@pytest.mark.parametrize(("flap", "says"), [("1", "on top of the bag"), ("16", "longer than")])
def test_flaps_that_cannot_be(flap, says):
    with pytest.raises(CannotPlan, match=says) as trouble:
        made("satchel", **bare(f"width 11, height 12, depth 3, flap {flap}"))
    assert trouble.value.field == "shape.sizes.flap"


def test_a_drawstring_bag_of_8_by_12_by_3_with_a_band_of_4():
    """Main 12 − 4 + ¼ + 1½ + ¼ = 10; band 4 + ½; lining 12 + 1¾ + ¼ = 14."""
    bag = made("drawstring", **bare("width 8, height 12, depth 3, band 4"))
    assert size_of(bag, "front") == (F(23, 2), F(39, 4) + F(1, 4))
    assert size_of(bag, "band") == (F(23, 2), F(9, 2))
    assert size_of(bag, "lining") == (F(23, 2), 14)
    assert finished(bag) == [8, 12, 3]


def test_two_cords_each_once_round_with_tails():
    """2 × (11½ − ½) + 2 × 5 = 32."""
    bag = made("drawstring", **bare("width 8, height 12, depth 3, band 4, tail 5"))
    (cord,) = bag.bag.attachments
    assert (cord.number, cord.length.value, cord.cloth) == (2, 32, False)
    assert not [item for item in bag.items if item.owner.kind == "part"]


def test_a_band_that_takes_all_is_refused():
    with pytest.raises(CannotPlan, match="band"):
        made("drawstring", **bare("width 8, height 6, depth 3, band 9"))


@pytest.mark.parametrize(("edge", "cut"), [("bound", 9), ("seam", F(19, 2)), ("raw", 9)])
def test_a_free_panel_loses_seams_only_where_it_is_sewn_in(edge, cut):
    bag = made("free-panel", options={"edge": edge}, **bare("width 9, height 9"))
    assert size_of(bag, "panel") == (cut, cut)
    assert (bag.binding is not None) == (edge == "bound")


def test_a_free_panel_may_have_rounded_corners():
    bag = made("free-panel", options={"corners": "round"}, **bare("width 9, height 9"))
    assert len(bag.panel("panel").panel.outline) > 10


@pytest.mark.parametrize(("flap", "made"), [(F(3, 2), False), (F(25, 16), True)])
def test_a_flap_comes_down_the_front_or_is_none(flap, made):
    """A soft bag 3 deep: it passes over half of it, 1½."""
    sizes = {"width": F(11), "height": F(12), "depth": F(3), "flap": flap}
    project = tote(shape=ShapeChoice(kind="satchel", sizes=sizes))
    if made:
        assert plan(project).bag.flap is not None
        return
    with pytest.raises(CannotPlan, match="ends on top of the bag"):
        plan(project)


@pytest.mark.parametrize("out", ["seams", "eyelets"])
def test_cords_come_out_at_the_middle_of_their_channel(out):
    """A seam of ⅜, ¾ to its first line, and half of ¾: 1½ below the band's raw edge."""
    options = {"cords_out": out}
    shape = ShapeChoice(kind="drawstring", options=options)
    hangs = [one for one in plan(tote(shape=shape)).bag.net.hangs if one.key == "cord"]
    assert len(hangs) == 2
    assert {end[2][1] for one in hangs for end in one.ends} == {F(3, 2)}
