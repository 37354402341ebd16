"""The one-piece tote, worked by hand (common practice, no source)."""

from tessil.core.numbers.exact import Fraction
from tests.core.shapes.helpers import bare, figure, finished, made, size_of

F = Fraction


def test_a_bag_of_10_by_11_by_2_1_2():
    """Fold leg 5/4 − 1/4 = 1, side leg 1¼; width 10 + 2(1¼ + ¼) = 13; length 2(11 + 1¼) = 24½."""
    bag = made("one-piece", **bare("width 10, height 11, depth 2 1/2"))
    notch = bag.panel("body").panel.notches[0]
    assert (notch.side_leg.value, notch.other_leg.value) == (F(5, 4), 1)
    assert size_of(bag, "body") == (13, F(49, 2))


def test_back_from_the_panel():
    sizes = bare("panel_width 13, panel_height 24 1/2, notch_side 1 1/4, notch_fold 1")
    assert finished(made("one-piece", "panel", **sizes)) == [10, 11, F(5, 2)]


def test_the_notch_is_cut_on_both_sides_of_the_fold():
    panel = made("one-piece", **bare("width 10, height 11, depth 2 1/2")).panel("body").panel
    (fold,) = panel.folds
    left = panel.notches[0]
    assert left.y + left.height / 2 == fold.start[1] == F(49, 4)
    assert len(panel.outline) == 12


def test_both_legs_give_one_depth():
    bag = made("one-piece", **bare("width 10, height 11, depth 2 1/2"))
    assert figure(bag, "depth-by-the-fold-leg") == finished(bag)[2]


def test_the_back_hangs_upside_down_and_the_front_does_not():
    looks = made("one-piece", **bare("width 10, height 11, depth 2 1/2")).looks
    turned = {look.side: look.faces[0].turned for look in looks}
    assert turned == {"front": False, "back": True}


def test_one_lining_follows_the_body():
    bag = made("one-piece", **bare("width 10, height 11, depth 2 1/2"))
    assert bag.panel("lining").panel.copies == 1
    assert size_of(bag, "lining") == size_of(bag, "body")
