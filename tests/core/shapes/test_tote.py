"""The cut-corner tote, worked by hand (common practice, no source)."""

import pytest

from tessil.core.numbers.exact import Fraction
from tests.core.shapes.helpers import bare, figure, finished, made, size_of

F = Fraction


def test_a_bag_of_11_by_12_by_3():
    """Notch 3/2 + 1/4 − 1/4 = 1½; width 11 + 2(1½ + ¼) = 14½; height 12 + 1½ + ¼ = 13¾."""
    bag = made("tote", **bare("width 11, height 12, depth 3"))
    assert size_of(bag, "front") == (F(29, 2), F(55, 4))
    notch = bag.panel("front").panel.notches[0]
    assert (notch.side_leg.value, notch.other_leg.value) == (F(3, 2), F(3, 2))


def test_a_turned_top_takes_one_seam_more():
    bag = made("tote", options={"top": "turned"}, **bare("width 11, height 12, depth 3"))
    assert size_of(bag, "front")[1] == F(55, 4) + F(1, 4)
    assert bag.binding is None


@pytest.mark.parametrize(("notch", "depth"), [("1", 2), ("1 1/2", 3), ("2 1/4", F(9, 2))])
def test_with_equal_seams_the_base_is_twice_the_notch(notch, depth):
    sizes = bare(f"panel_width 16, panel_height 14, notch_side {notch}, notch_bottom {notch}")
    assert finished(made("tote", "panel", **sizes))[2] == depth


def test_the_opening_laid_flat_loses_both_side_seams():
    bag = made("tote", **bare("width 11, height 12, depth 3"))
    assert figure(bag, "opening-flat") == F(29, 2) - F(1, 2)


def test_handles_are_cut_four_times_as_wide_as_they_end():
    bag = made(
        "tote",
        options={"handles": "pair"},
        **bare("width 11, height 12, depth 3, handle_length 22"),
    )
    (part,) = bag.bag.attachments
    assert (part.cut.value, part.length.value, part.number) == (4, 22, 2)
    item, firm = (item for item in bag.items if item.owner.keys == ("handles",))
    assert (item.number.whole, firm.number.whole) == (2, 2)
    assert (firm.width.value, firm.height.value) == (21, 2)  # twice as wide as it ends, ½ short


@pytest.mark.parametrize(("width", "cut"), [(1, 4), (F(3, 2), 6), (F(3, 4), 3)])
def test_strap_widths_in_use(width, cut):
    """Strap cut 4, 6, 3 ends 1, 1½, ¾."""
    bag = made(
        "tote",
        options={"handles": "pair"},
        **bare("width 11, height 12, depth 3", handle_width=width),
    )
    assert bag.bag.attachments[0].cut.value == cut
