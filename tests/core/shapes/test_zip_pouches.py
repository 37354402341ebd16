"""Flat, offset and bound pouches, worked by hand (common practice, no source)."""

import pytest

from tessil.core.bag.ids import CutOwner
from tessil.core.numbers.exact import Fraction
from tessil.core.trouble import CannotPlan
from tests.core.shapes.helpers import bare, figure, finished, made, size_of

F = Fraction


def test_a_flat_pouch_of_9_by_6():
    """Width 9 + ½; height 6 − 3/8 + ¼ + ¼ = 6⅛."""
    bag = made("flat-pouch", **bare("width 9, height 6"))
    assert size_of(bag, "front") == (F(19, 2), F(49, 8))
    assert finished(bag) == [9, 6]


def test_its_zipper_is_2_in_longer_than_the_cloth_it_is_sewn_to():
    bag = made("flat-pouch", **bare("width 9, height 6"))
    assert bag.bag.zipper.length.value == F(19, 2) + 2


def test_a_wrist_strap_is_a_strip_for_the_cut_list():
    bag = made("flat-pouch", options={"wrist": "loop"}, **bare("width 9, height 6"))
    assert [i.owner for i in bag.items if i.what == "strip to fold"] == [
        CutOwner("part", ("wrist",))
    ]


@pytest.mark.parametrize("height", [F(1, 8), F(1, 4)])
def test_a_flat_pouch_of_nothing_is_refused(height):
    with pytest.raises(CannotPlan, match="take all of it"):
        made("flat-pouch", "panel", panel_width=8, panel_height=height)


def test_an_offset_pouch_of_9_by_6():
    """Ring 12 = L − ½ + ¾, so L = 11¾; width 9½."""
    bag = made("offset-pouch", **bare("width 9, height 6"))
    assert size_of(bag, "body") == (F(19, 2), F(47, 4))
    assert figure(bag, "ring-zipper-and-all") == 12


def test_the_makers_short_rule_is_near():
    """Cut = finished + 1 both ways (the length counting both faces), to within ½ in."""
    bag = made("offset-pouch", **bare("width 9, height 6"))
    width, length = size_of(bag, "body")
    assert abs(width - (9 + 1)) <= F(1, 2)
    assert abs(length - (12 + 1)) <= F(5, 4)


def test_the_panel_goes_down_the_front_up_the_back_and_over_the_top():
    """Zipper's middle 1¼ below the top: front 6 − 1¼ − 3/8, back 6, front again 1¼ − 3/8."""
    front, back = made("offset-pouch", **bare("width 9, height 6, zip_drop 1 1/4")).looks
    below, above = front.faces
    assert below.source[3] == pytest.approx(6 - 1.25 - 0.375)
    assert above.source[3] == pytest.approx(1.25 - 0.375)
    assert back.faces[0].source[3] == pytest.approx(6)
    assert [face.turned for face in (below, above, back.faces[0])] == [False, False, True]
    used = sum(face.source[3] for face in (below, above, back.faces[0]))
    assert used + 2 * 0.25 == pytest.approx(11.75)


def test_a_zipper_over_the_top_fold_leaves_no_upper_part():
    looks = made("offset-pouch", **bare("width 9, height 6, zip_drop 1/4")).looks
    assert len(looks[0].faces) == 1


def test_a_zipper_below_the_bottom_is_refused():
    with pytest.raises(CannotPlan, match="below the bottom") as trouble:
        made("offset-pouch", **bare("width 9, height 6, zip_drop 7"))
    assert trouble.value.field == "shape.sizes.zip_drop"


def test_a_bound_pouch_of_10_by_8():
    """Front 8 = lower − ¼ + ¾ + upper − ¼ with 1½ showing above: lower 8 − ¾ − 1½ + ¼ = 6."""
    bag = made("bound-pouch", **bare("width 10, height 8, upper 1 1/2"))
    assert size_of(bag, "lower") == (10, 6)
    assert size_of(bag, "upper") == (10, F(7, 4))
    assert size_of(bag, "back") == (10, 8)
    assert finished(bag) == [10, 8]


def test_binding_eats_the_inside_but_not_the_outside():
    bag = made("bound-pouch", **bare("width 10, height 8"))
    wall = bag.wall.value
    assert bag.bag.inside[0].figure.value == 10 - 2 * F(1, 4) - 2 * wall
    assert bag.binding.length.value == 2 * (10 + 8) + 10


def test_the_back_is_trimmed_to_the_assembled_front():
    from tessil.core.choosing import measure
    from tessil.core.edits import applied
    from tessil.core.panels.choice import Got
    from tessil.core.plan import plan

    bag = made("bound-pouch", **bare("width 10, height 8, upper 1 1/2"))
    got = Got(width=F(79, 8), height=F(47, 8))
    after = plan(applied(bag.project, measure(bag.project, "lower", "trimmed", got)))
    assert size_of(after, "back") == (F(79, 8), F(63, 8))
    rung = next(r for r in after.ladder("back") if r.key == "trimmed")
    assert rung.note == "follows the lower front"


def test_a_vinyl_window_is_one_plain_piece():
    bag = made("bound-pouch", options={"window": "vinyl"}, **bare("width 10, height 8"))
    assert bag.panel("upper").panel.label == "Window"
    assert not bag.panel("upper").quilt.lines
    window = next(face for face in bag.looks[0].faces if face.panel == "upper")
    assert window.target[1] == pytest.approx(0)  # at the top of the front
