"""The boxed zip bag, worked by hand (common practice, no source)."""

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.core.shapes.helpers import bare, figure, finished, made, size_of
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
SIZES = "width 8, depth 4, height 3"


def test_a_bag_of_8_by_4_by_3():
    """k = 1½; W = 8 + 2(¼ + 1½) = 11½; C = 2(4 + 3) = 14; L = 14 + ½ − ¾ = 13¾."""
    bag = made("boxed-zip", **bare(SIZES))
    assert size_of(bag, "body") == (F(23, 2), F(55, 4))
    assert finished(bag) == [8, 4, 3]
    assert figure(bag, "ring-zipper-and-all") == 14


EDGE = {"zip_lies": "edge"}


def test_with_the_zipper_along_the_top_all_corners_lie_on_the_halfway_folds():
    """c = 1½ − ¼ = 1¼: side c + a = 1½, fold c = 1¼; the folds C/4 = 3½ from the zipper's middle,
    which lies v/2 − z = ⅛ above the raw edge."""
    panel = made("boxed-zip", **bare(SIZES)).panel("body").panel
    legs = {(n.meets, n.side_leg.value, n.other_leg.value) for n in panel.notches}
    assert legs == {("fold", F(3, 2), F(5, 4))}
    assert len(panel.notches) == 4
    assert [fold.start[1] for fold in panel.folds] == [F(7, 2) - F(1, 8), F(21, 2) - F(1, 8)]


def test_zipper_at_the_edge_a_bag_of_8_by_3_by_4():
    """Across 2k, height C/2 − 2k: the same panel, k = 1½."""
    bag = made("boxed-zip", options=EDGE, **bare("width 8, depth 3, height 4"))
    assert size_of(bag, "body") == (F(23, 2), F(55, 4))
    assert finished(bag) == [8, 3, 4]


def test_three_kinds_of_leg():
    """c = 1½ − ¼ = 1¼: side c + a = 1½, fold c = 1¼, zipper edge c + z − v/2 = 1⅛; c + z where its
    edges are brought together."""
    bag = made("boxed-zip", options=EDGE, **bare("width 8, depth 3, height 4"))
    notches = bag.panel("body").panel.notches
    legs = {notch.meets: (notch.side_leg.value, notch.other_leg.value) for notch in notches}
    assert legs == {"fold": (F(3, 2), F(5, 4)), "zip": (F(3, 2), F(9, 8))}
    assert len(notches) == 6
    together = made(
        "boxed-zip", options=EDGE | {"zip_ends": "together"}, **bare("width 8, depth 3, height 4")
    )
    at_zip = next(n for n in together.panel("body").panel.notches if n.meets == "zip")
    assert at_zip.other_leg.value == F(5, 4) + F(1, 4)


def test_a_wrong_zipper_leg_is_found():
    bag = made("boxed-zip", options=EDGE, **bare("width 8, depth 3, height 4"))
    sizes = {k: f.value for k, f in bag.sizes.items() if k.startswith(("panel", "notch"))}
    wrong = made("boxed-zip", "panel", options=EDGE, **(sizes | {"notch_zip": F(5, 4)}))
    (snag,) = [s for s in wrong.snags if "legs" in s.key]
    assert snag.key == "notch.legs.zip"
    assert [fix.words for fix in snag.fixes] == [
        "Mark 1⅛ in from the zipper edge",
        "Mark 1⅝ in from the side",
    ]


@pytest.mark.parametrize(
    ("way", "shorter", "longer"),
    [("gap", 0, 0), ("false-seam", 0, F(1, 2)), ("gap", F(1, 4), -F(1, 4)), ("gap", -1, 1)],
)
def test_the_lining_is_longer_for_a_false_seam_or_by_choice(way, shorter, longer):
    bag = made("boxed-zip", **bare(SIZES))
    chosen = {"lining_in": way, "lining_shorter": F(shorter)}
    bag = plan(bag.project.model_copy(update=chosen))
    assert size_of(bag, "lining")[1] - size_of(bag, "body")[1] == longer
    panel = bag.panel("lining").panel
    assert panel.edge(EdgeKey("bottom")).start[1] == panel.height.value


def test_quilted_in_there_is_no_lining_panel():
    from tessil.core.plan import plan

    bag = made("boxed-zip", **bare(SIZES))
    quilted = plan(bag.project.model_copy(update={"lining": "quilted-in"}))
    assert [panel.key for panel in quilted.panels] == ["body"]
    assert quilted.panel("body").layers[-1].role == "backing"


@pytest.mark.parametrize(
    ("field", "sizes"),
    [
        (
            "notch_side",
            "panel_width 6, panel_height 14, notch_side 3, notch_fold 2 3/4, notch_zip 3",
        ),
        (
            "notch_fold",
            "panel_width 12, panel_height 6, notch_side 2, notch_fold 1 3/4, notch_zip 2",
        ),
    ],
)
def test_corners_that_meet_are_refused(field, sizes):
    with pytest.raises(CannotPlan, match="meet") as trouble:
        made("boxed-zip", "panel", **bare(sizes))
    assert trouble.value.field == f"shape.sizes.{field}"


def test_volume_by_hand():
    bag = made("boxed-zip", **bare(SIZES))
    assert figure(bag, "volume-finished") == 8 * 4 * 3
    wall = bag.wall.value
    assert figure(bag, "holds-filled-as-a-box") == (8 - 2 * wall) * (4 - 2 * wall) * (3 - 2 * wall)


@pytest.mark.parametrize("size", ["width 8, depth 3, height 4", "width 10, depth 4, height 5"])
def test_the_corner_at_the_zipper_closes_on_itself(size):
    """Two level legs less the end seam meet two upright ones, less the zipper's seam, and the
    zipper that shows between them."""
    bag = made("boxed-zip", options=EDGE, **bare(size))
    notch = next(n for n in bag.panel("body").panel.notches if n.meets == "zip")
    along_the_end = 2 * (notch.side_leg.value - F(1, 4))
    across_the_zipper = 2 * (notch.other_leg.value - F(1, 4)) + F(3, 4)
    assert along_the_end == across_the_zipper == finished(bag)[1] - 2 * F(1, 4)


def test_between_the_ends_of_a_zipper_lie_its_panel_less_two_seams():
    bag = plan(project_of("boxed-zip")).bag
    wide, seam = bag.panel("body").width.value, project_of("boxed-zip").seams.side
    assert bag.zipper.between.value == wide - 2 * seam
    assert bag.zipper.spans.value == wide
    assert bag.zipper.length.value == wide + 2
