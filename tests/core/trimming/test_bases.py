"""A strip over the bottom seam and a stiffener on the base: cut, bought, marked, sewn, counted in
thickness and inside (common practice, no source; by hand from a tote of 11 × 12 × 3)."""

import itertools

import pytest

from tessil.core.brief.choice import Base, ShapeChoice
from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
MM = F(10, 254)
STIFF, COTTON = F(18, 10) * MM, F(3, 10) * MM  # relaxed, from memory (the catalogue)
BOXED = [key for key, shape in SHAPES.items() if "corner" in shape.uses]


def based(**base):
    return plan(tote(base=Base(**base)))


def cut(made, what):
    return [
        (i.stock, i.number.value, i.width.value, i.height.value)
        for i in made.items
        if i.what == what and i.owner.kind in ("stiffener", "base strip")
    ]


def inside(made):
    return {told.id: told.figure.value for told in made.bag.inside}


def test_a_stiffener_is_as_large_as_the_base():
    assert cut(based(stiffener="fused"), "stiffener") == [("stiff-interfacing", 1, 11, 3)]
    assert cut(based(stiffener="lining"), "stiffener") == [("stiff-interfacing", 1, 11, 3)]


def test_in_a_sleeve_it_is_a_quarter_smaller_and_its_sleeve_is_cut_too():
    """Sleeve: 11 and two seams of ⅜ long; folded, so twice 3 and two seams high."""
    made = based(stiffener="sleeve")
    assert cut(made, "stiffener") == [("stiff-interfacing", 1, F(43, 4), F(11, 4))]
    ((_, number, width, height),) = cut(made, "sleeve")
    assert (number, width, height) == (1, F(47, 4), F(27, 4))


def test_a_strip_over_the_seam_is_cut_with_what_is_turned_under_and_caught():
    """1½ finished and ¼ twice are 2; 11 and a corner seam of ⅜ at either end are 11¾."""
    ((_, number, width, height),) = cut(based(strip=True), "strip to fold")
    assert (number, width, height) == (1, F(47, 4), F(2))


@pytest.mark.parametrize(
    ("base", "takes"),
    [
        ({"stiffener": "fused"}, STIFF),
        ({"stiffener": "lining"}, STIFF),
        ({"stiffener": "sleeve"}, STIFF + 2 * COTTON),
        ({"strip": True}, COTTON),
        ({"strip": True, "stiffener": "fused"}, STIFF + COTTON),
    ],
)
def test_what_lies_on_the_base_takes_from_the_height_inside(base, takes):
    bare, made = inside(based()), inside(based(**base))
    assert bare["inside-height"] - made["inside-height"] == takes
    assert made["inside-width"] == bare["inside-width"]
    volume = {one.id: one.figure.value for one in based(**base).bag.figures}
    product = made["inside-width"] * made["inside-height"] * made["inside-depth"]
    assert volume["holds-filled-as-a-box"] == product


def test_a_bag_for_an_object_is_higher_by_it():
    bare = plan(applied(project_of("tote"), edit("", ("shape.way", "object"))))
    stiff = plan(applied(bare.project, edit("", ("base.stiffener", "fused"))))
    more = stiff.bag.finished[1].value - bare.bag.finished[1].value
    assert 0 < more <= STIFF + F(1, 8)


def test_half_of_it_is_marked_on_either_panel_and_all_of_it_where_one_goes_round():
    made = based(stiffener="fused")
    boxes = {p.panel: p.box for p in made.placed if p.kind == "stiffener"}
    assert set(boxes) == {"front", "back"}
    x, y, wide, high = boxes["front"]
    assert (wide, high) == (11, F(3, 2))
    assert x + wide / 2 == made.panel("front").trimmed.width.value / 2
    assert y + high == made.panel("front").trimmed.height.value - F(3, 8)
    whole = plan(project_of("one-piece", base=Base(stiffener="fused")))
    (box,) = [p.box for p in whole.placed if p.kind == "stiffener"]
    assert box[3] == whole.bag.floor[1].value
    assert box[1] + box[3] / 2 == whole.lead.trimmed.height.value / 2


def test_the_strip_is_thick_where_it_lies_over_the_seam():
    places = {spot.kind: spot for spot in based(strip=True).spots_on("front")}
    bare = [spot.kind for spot in based().spots_on("front")]
    assert "base" in places
    assert "base" not in bare
    # twice its layers, and the strip with its edge turned under
    assert places["base"].layers % 2 == 0


@pytest.mark.parametrize("lining", ["drop-in", "quilted-in", "none"])
@pytest.mark.parametrize("key", BOXED)
def test_every_boxed_bag_is_made_with_any_base_and_no_gate_breaks(key, lining):
    for stiffener, strip in itertools.product(("none", "fused", "sleeve", "lining"), (False, True)):
        base = Base(stiffener=stiffener, strip=strip)
        made = plan(project_of(key, base=base, lining=lining))
        steps = making_of(made, made.project.making)
        assert not steps.broken, (stiffener, strip)
        given = {fact for deed in steps.deeds for fact in deed.gives}
        assert ("on:base stiffener" in given) == (stiffener != "none")
        assert ("on:base strip" in given) == (strip and made.bag.has_bottom_seam)
        assert bool(cut(made, "stiffener")) == (stiffener != "none")


def test_the_strip_is_on_before_the_corners_catch_its_ends():
    made = based(strip=True, stiffener="fused")
    order = [deed.id for deed in making_of(made, made.project.making).deeds]
    assert order.index("sew.seam.bottom") < order.index("base.strip")
    assert order.index("base.strip") < order.index("sew.box-corner.left")
    assert order.index("sew.box-corner.left") < order.index("base.fuse") < order.index("shell.sewn")


def test_a_flat_bag_has_nothing_on_a_base():
    flat = edit("", ("shape.options", {"base": "none"}))
    made = plan(applied(tote(base=Base(stiffener="fused", strip=True)), flat))
    assert not cut(made, "stiffener")
    assert not cut(made, "strip to fold")
    assert not [p for p in made.placed if p.key.startswith("base:")]


def test_a_sleeve_as_wide_as_its_seams_holds_nothing():
    """A base ¼ deep: of its stiffener nothing would be left, so that only the sleeve is cut."""
    sizes = {"width": F(11), "height": F(12), "depth": F(1, 4)}
    shape = ShapeChoice(kind="tote", way="finished", sizes=sizes)
    made = plan(tote(shape=shape, base=Base(stiffener="sleeve")))
    assert cut(made, "stiffener") == []
    assert len(cut(made, "sleeve")) == 1
