"""Values that makers agree on.  Common practice, no source, for every row here."""

from fractions import Fraction

import pytest

from tessil.core.brief.choice import Seams, ShapeChoice
from tessil.core.edges.binding import joined_length, plan_binding
from tessil.core.edges.choice import Binding
from tessil.core.numbers.workings import count
from tessil.core.numbers.workings import given as chosen
from tessil.core.piecing.strips import cut_across, pieced_size, strips_for
from tessil.core.plan import plan
from tests.conftest import tote, with_front

F = Fraction
QUARTER = chosen("seam", F(1, 4))


@pytest.mark.parametrize(
    ("number", "cut", "size"),
    [
        (6, F(5, 2), F(25, 2)),  # six 2½ strips
        (5, F(5, 2), F(21, 2)),  # 5 × 4 small squares, width
        (4, F(5, 2), F(17, 2)),  # and height
        (8, F(5, 2), F(33, 2)),  # 8 × 5 small squares, width
        (9, F(5, 2), F(37, 2)),  # nine rows
    ],
)
def test_pieces_in_a_row(number, cut, size):
    assert pieced_size(count("n", number), chosen("w", cut), QUARTER).value == size
    assert strips_for(chosen("T", size), chosen("w", cut), QUARTER).whole == number


def test_strip_set_of_41_gives_panels_of_14_14_and_7():
    (row,) = cut_across(F(41), [("front", F(14), 1), ("back", F(14), 1), ("flap", F(7), 1)])
    assert (row.times, row.left) == (1, 6)


def _panel_way(notch, seam, **more):
    sizes = {
        "panel_width": F(15),
        "panel_height": F(14),
        "notch_side": notch,
        "notch_bottom": notch,
    }
    seams = Seams(side=seam, bottom=seam, corner=more.get("corner", seam), top=seam)
    return plan(tote(shape=ShapeChoice(way="panel", sizes=sizes), seams=seams))


def test_two_panels_notch_1_1_2_every_seam_a_quarter():
    assert _panel_way(F(3, 2), F(1, 4)).bag.finished[2].value == 3


@pytest.mark.parametrize("seam", [F(1, 4), F(3, 8), F(1, 2)])
def test_with_all_seams_equal_the_base_is_twice_the_notch(seam):
    assert _panel_way(F(2), seam).bag.finished[2].value == 4


@pytest.mark.parametrize(
    ("seam", "least", "most"), [(F(1, 4), F(2), F(9, 4)), (F(3, 8), F(21, 8), F(23, 8))]
)
def test_double_binding_is_cut_as_wide_as_makers_cut_it(seam, least, most):
    """2 to 2¼ at a ¼ seam, about 2¾ at ⅜, on cotton batting."""
    wall = plan(tote()).wall
    made = plan_binding(
        Binding(seam=seam),
        chosen("edge", 28),
        True,
        wall,
        chosen("usable", 40),
        chosen("mark", F(1, 8)),
    )
    assert least <= made.cut.value <= most


def test_a_strap_of_60_from_42_takes_two_strips_and_one_join():
    """The strap is cut 4 wide; 60 and a little for the ends."""
    for strips, enough in ((1, False), (2, True)):
        reach = joined_length(count("n", strips), chosen("u", 42), chosen("w", 4)).value
        assert (reach >= 60) is enough


def test_a_cotton_panel_in_a_one_inch_grid_trims_as_makers_find():
    """8½ × 9½ quilted in 1 in channels trims to 8 × 9, to 9¼ at best."""
    front = plan(with_front(tote(), ("quilting.gap", F(1)))).panel("front")
    for pieced, worst, best in ((F(17, 2), F(8), F(17, 2)), (F(19, 2), F(9), F(19, 2))):
        both = front.draw.x.most.value + front.draw.y.most.value  # one set each way
        assert worst <= pieced * (1 - both) <= best


def test_common_oversize_without_a_model_agrees_with_the_model():
    """Makers add ½ to 1 in each direction; the model stays within that on a small panel."""
    front = plan(tote()).panel("front")
    for way in ("width", "height"):
        more = getattr(front.needed, way).value - getattr(front.trimmed, way).value
        assert F(1, 2) <= more <= F(5, 4)
