"""Thick spots counted by hand: turned-in tops, straps and loops in seams, piping.

Pressed, from the catalogue (from memory): quilting cotton 0.25 mm, cotton batting 0.9 mm.  A seam
catches cotton and batting of both panels, 2 × 1.15 = 2.3 mm and four layers.
"""

import pytest

from tessil.core.edges.choice import Piping
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
COTTON, BATTING = F(25, 100), F(9, 10)
WALL = COTTON + BATTING


def spots(shape, options=None, panel=None, **changes):
    base = project_of(shape)
    choice = base.shape.model_copy(update={"options": options or {}})
    made = plan(base.model_copy(update={"shape": choice, **changes}))
    return {spot.label: spot for spot in made.spots_on(panel or made.shape.leader)}


def test_the_catalogue_s_pressed_values():
    made = plan(project_of("tote"))
    assert [entry.pressed_mm for entry in made.panel("front").materials] == [COTTON, BATTING]


def test_a_turned_in_top_over_a_side_seam_is_ten_layers():
    """Wall and lining folded over, and the side seam's allowances folded with them."""
    found = spots("tote", {"top": "turned"})
    top, over = found["top edge, turned in"], found["top edge, turned in, left seam"]
    assert top.mm == 2 * (WALL + COTTON)
    assert over.mm == top.mm + 2 * WALL
    assert (top.layers, over.layers) == (6, 10)
    assert over.at == (0, 0)


def test_a_handle_in_a_turned_in_top_adds_its_four_layers():
    found = spots("tote", {"top": "turned", "handles": "pair"})
    one = found["handle in the top edge, turned in"]
    assert one.mm == found["top edge, turned in"].mm + 4 * COTTON
    assert one.layers == 10
    bound = spots("tote", {"top": "bound", "handles": "pair"})
    assert bound["handle in the bound top edge"].mm == bound["bound top edge"].mm + 4 * COTTON


def test_a_strap_in_the_side_seams_is_told_on_either_side():
    found = spots("satchel")
    left, right = found["strap in the left seam"], found["strap in the right seam"]
    assert left.mm == right.mm == 2 * WALL + 4 * COTTON
    assert left.layers == 8
    assert left.at[0] < right.at[0]


def test_both_ends_of_a_loop_lie_in_one_seam():
    found = spots("flat-pouch", {"wrist": "loop"})
    (one,) = (spot for label, spot in found.items() if label.startswith("wrist loop"))
    assert one.mm == 2 * WALL + 8 * COTTON
    assert one.layers == 12


def test_a_covered_cord_lies_in_every_seam_of_its_panel():
    plain, piped = spots("flat-pouch"), spots("flat-pouch", piping=Piping(panels=("front",)))
    for name in ("left seam", "right seam", "bottom seam"):
        assert piped[name].mm == plain[name].mm + 2 * COTTON
        assert piped[name].layers == plain[name].layers + 2
    assert piped["zipper, top edge"].mm == plain["zipper, top edge"].mm


@pytest.mark.parametrize("shape", ["flat-pouch", "clutch", "sleeve"])
def test_a_bag_without_a_strap_has_none_in_its_seams(shape):
    assert not [label for label in spots(shape) if "strap" in label or "loop" in label]


def test_a_zipper_on_the_top_fold_lies_there_with_both_its_edges():
    """Cloth and lining of either edge folded, two tapes, and the side seam's allowances: what is
    sewn an inch lower is half of it."""
    found = spots("flat-pouch")
    edge, over = found["zipper, top edge"], found["zipper on the top fold, left seam"]
    assert over.mm == 2 * edge.mm + WALL
    assert over.layers == 2 * edge.layers + 2
    lower = spots("offset-pouch")
    assert not [label for label in lower if "top fold" in label]


def test_a_boxed_bag_says_how_high_it_lies_flat():
    """A tote 11 × 12 × 3 lies 12 + 1½ high, its base folded up."""
    choice = project_of("tote").shape.model_copy(
        update={"way": "finished", "sizes": {"width": F(11), "height": F(12), "depth": F(3)}}
    )
    made = plan(project_of("tote").model_copy(update={"shape": choice}))
    assert made.bag.figure("height-lying-flat").value == F(27, 2)
    assert made.bag.figure("opening-flat").value == 14
