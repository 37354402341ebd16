"""What a bag tells of itself, by the formulas of the trade from its panels, over many sizes.

Side and bottom seams ⅜, corners ⅜, zipper seam ¼ with ¾ showing, a wall of 3.1 mm with its lining;
common practice, no source.
"""

import random

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.binding import joined_length
from tessil.core.edges.choice import Binding
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import given
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import tote

F = Fraction
A = B = F(3, 8)  # side and corner seams
Z, SHOWN = F(1, 4), F(3, 4)
WALL = F(31, 10) * F(10, 254)

RANGES = {
    "tote": {"width": (6, 16), "height": (6, 16), "depth": (1, 4)},
    "one-piece": {"width": (6, 16), "height": (6, 16), "depth": (1, 4)},
    "satchel": {"width": (6, 16), "height": (6, 16), "depth": (1, 4), "flap": (3, 6)},
    "flat-pouch": {"width": (5, 14), "height": (4, 12)},
    "offset-pouch": {"width": (5, 14), "height": (4, 12)},
    "boxed-zip": {"width": (6, 12), "height": (2, 4), "depth": (3, 6)},
    "clutch": {"width": (6, 14), "height": (4, 8)},
    "bound-pouch": {"width": (6, 14), "height": (5, 10)},
    "drawstring": {"width": (6, 14), "height": (8, 14), "depth": (1, 4)},
}


def bags(kind, number=6):
    """Bags of a shape in random sizes, in eighths."""
    dice = random.Random(kind)
    found = []
    while len(found) < number:
        sizes = {key: F(dice.randint(8 * a, 8 * b), 8) for key, (a, b) in RANGES[kind].items()}
        try:
            found.append(plan(tote(shape=ShapeChoice(kind=kind, sizes=sizes))))
        except CannotPlan:
            continue
    return [(made, {key: figure.value for key, figure in made.sizes.items()}) for made in found]


def told(made):
    return {one.id: one.figure.value for one in (*made.bag.inside, *made.bag.figures)}


def leader(made):
    panel = made.lead.panel
    return panel.width.value, panel.height.value


def boxed(made):
    """Finished width, height and depth less two walls, one wall (the base), two walls."""
    width, height, depth = (figure.value for figure in made.bag.finished)
    says = told(made)
    inside = (says["inside-width"], says["inside-height"], says["inside-depth"])
    assert inside == (width - 2 * WALL, height - WALL, depth - 2 * WALL)
    assert says["holds-filled-as-a-box"] == inside[0] * inside[1] * inside[2]
    return width, height, depth


@pytest.mark.parametrize("kind", ["tote", "satchel"])
def test_bags_of_two_panels_with_a_base(kind):
    for made, sizes in bags(kind):
        w, h = leader(made)
        c = sizes["notch_side"]
        width, height, depth = boxed(made)
        assert depth == 2 * (c - A + B)
        assert width == w - 2 * (c + B)
        assert height == h - (sizes["notch_bottom"] + B)  # bound: no seam lost at the top
        assert told(made)["opening-flat"] == w - 2 * A
        assert told(made)["depth-by-the-bottom-leg"] == depth
        bag = made.bag
        assert (bag.opening.value, bag.loop, bag.corners) == (2 * (w - 2 * A), True, 2)
        assert bag.floor[1].value == depth
        assert bag.zipper is None


def test_a_flap_is_narrower_than_the_opening_and_lands_where_it_does():
    for made, sizes in bags("satchel"):
        w, _ = leader(made)
        says, flap = told(made), made.bag.flap
        panel = made.bag.panel("flap")
        assert says["finished-width-of-the-flap"] == w - 2 * A - sizes["flap_less"]
        assert panel.width.value == says["finished-width-of-the-flap"] + 2 * A
        # its drop less half the depth that it passes over
        depth = made.bag.finished[2].value
        assert says["flap-comes-down-the-front"] == sizes["flap"] - depth / 2 - flap_lost(made)
        assert flap.lands.value == says["flap-comes-down-the-front"]
        assert (flap.male_panel, flap.female_panel, flap.male_sign, flap.female_sign) == (
            "flap-lining",
            "front",
            -1,
            1,
        )
        assert flap.male_from.value == panel.height.value - A
        assert flap.female_from.value == 0
        assert flap.narrower.value == sizes["flap_less"]


def flap_lost(made):
    """What its drop loses beside the way over the top, by its working."""
    flap = made.bag.flap
    return made.sizes["flap"].value - made.bag.finished[2].value / 2 - flap.lands.value


def test_a_folded_bag_is_half_as_high_and_its_legs_differ_by_the_side_seam():
    for made, sizes in bags("one-piece"):
        w, long = leader(made)
        side, fold = sizes["notch_side"], sizes["notch_fold"]
        width, height, depth = boxed(made)
        assert side == fold + A
        assert depth == 2 * (fold + B)
        assert width == w - 2 * (side + B)
        assert height == long / 2 - (fold + B)
        assert told(made)["depth-by-the-fold-leg"] == depth
        assert made.bag.opening.value == 2 * (w - 2 * A)
        assert (made.bag.loop, made.bag.corners) == (True, 2)


def test_a_flat_pouch():
    for made, _ in bags("flat-pouch"):
        w, long = leader(made)
        width, height = (figure.value for figure in made.bag.finished)
        assert width == w - 2 * A
        assert height == long - Z - A + SHOWN / 2
        says = told(made)
        assert (says["inside-width"], says["inside-height"]) == (width - 2 * WALL, height - WALL)
        assert made.bag.zipper.length.value == w + 2
        assert made.bag.zipper.between.value == w - 2 * A
        assert (made.bag.opening, made.bag.corners) == (None, 0)


def test_a_pouch_from_a_ring():
    for made, _ in bags("offset-pouch"):
        w, long = leader(made)
        ring = long - 2 * Z + SHOWN
        assert told(made)["ring-zipper-and-all"] == ring
        assert [figure.value for figure in made.bag.finished] == [w - 2 * A, ring / 2]
        assert made.bag.zipper.length.value == w + 2


def test_a_boxed_zip_bag():
    for made, sizes in bags("boxed-zip"):
        w, long = leader(made)
        k = sizes["notch_fold"] + B
        ring = long - 2 * Z + SHOWN
        says = told(made)
        length, across, height = (figure.value for figure in made.bag.finished)
        assert says["ring-zipper-and-all"] == ring
        assert length == w - 2 * A - 2 * k
        assert {across, height} == {2 * k, ring / 2 - 2 * k}
        assert says["volume-finished"] == length * across * height
        # the same piece with its zipper along the other side
        other = (long - 2 * A - 2 * k) * 2 * k * ((w - 2 * Z + SHOWN) / 2 - 2 * k)
        assert says["volume-with-the-zipper-on-the-other-side"] == other
        assert made.bag.corners == 4
        assert made.bag.zipper.length.value == w + 2
        # from the raw zipper edge: as wide as it shows at the ends, it takes half of that less
        assert sizes["notch_zip"] == sizes["notch_fold"] + Z - SHOWN / 2
        assert sizes["notch_side"] == sizes["notch_fold"] + A


def test_a_clutch_is_folded_in_three():
    for made, sizes in bags("clutch"):
        w, long = leader(made)
        width, height = (figure.value for figure in made.bag.finished)
        assert width == w - 2 * A
        assert long == 2 * height + sizes["flap"] + 2 * A
        flap = made.bag.flap
        assert (flap.male_panel, flap.female_panel, flap.male_sign, flap.female_sign) == (
            "lining",
            "body",
            1,
            -1,
        )
        assert flap.male_from.value == A
        assert flap.female_from.value == long - A


def test_a_bound_pouch_loses_no_seam():
    for made, sizes in bags("bound-pouch"):
        w, lower = leader(made)
        width, height = (figure.value for figure in made.bag.finished)
        back = made.bag.panel("back")
        assert width == w == back.width.value
        upper = made.bag.panel("upper").height.value
        assert upper == sizes["upper"] + Z
        assert height == back.height.value == lower - Z + SHOWN + upper - Z
        says = told(made)
        binding = Binding().seam
        assert says["inside-width"] == width - 2 * binding - 2 * WALL
        assert says["inside-height"] == height - 2 * binding - WALL
        assert made.bag.opening.value == 2 * (width + height)
        assert not made.bag.loop


def test_a_drawstring_bag():
    for made, sizes in bags("drawstring"):
        w, lower = leader(made)
        c = sizes["notch_side"]
        width, height, depth = boxed(made)
        band = made.bag.panel("band")
        assert depth == 2 * (c - A + B)
        assert width == w - 2 * (c + B)
        # the band stands on the body: both lose a seam where they join, the band one at its top
        joined = lower + band.height.value - 2 * A - A
        assert height == joined - (sizes["notch_bottom"] + B)
        assert band.height.value == sizes["band"] + 2 * A
        says = told(made)
        assert says["each-cord"] == 2 * (w - 2 * A) + 2 * sizes["tail"]
        assert says["opening-flat"] == w - 2 * A
        assert (made.bag.corners, made.bag.floor[1].value) == (2, depth)


@pytest.mark.parametrize(("number", "usable", "cut"), [(1, 40, 2), (2, 20, 2), (5, 41, F(9, 4))])
def test_strips_joined_on_the_diagonal(number, usable, cut):
    """Each join takes the strip's own width."""
    figures = (given("strips", number, power=0), given("usable", usable), given("cut", cut))
    assert joined_length(*figures).value == number * usable - (number - 1) * cut


def test_short_cloth_takes_more_strips_with_joins():
    """31 from 20 wide: two strips of 2 give 38, with one join."""
    made = plan(tote(stock=tote().stock.model_copy(update={"usable_width": F(20)})))
    binding = made.binding
    assert (binding.strips.whole, binding.joins.whole, binding.reaches.value) == (2, 1, 38)
