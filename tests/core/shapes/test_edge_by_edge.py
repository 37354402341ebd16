"""Edges finished one by one: sides bound outside, zippers under bound edges or lapped over, each
side of a panel by itself (common practice, no source; sums by hand; proven in space)."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.edges.choice import Zipper
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tests.core.sewn.test_proof import off
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
FLAT = [key for key, shape in SHAPES.items() if shape.flat_sides]
ZIPPED = [key for key, shape in SHAPES.items() if "zip" in shape.uses]
B = F(1, 4)  # the binding's seam


def made_of(key, way="finished", zipper=None, lining=None, **options):
    sizes = {"width": F(9), "height": F(6)} if way == "finished" else {}
    choice = ShapeChoice(kind=key, way=way, sizes=sizes, options=options)
    more = {"lining": lining} if lining else {}
    return plan(project_of(key, shape=choice, zipper=zipper or Zipper(), **more))


def widest(made):
    """How far stitch lines of any seam lie from one another, sewn up."""
    return max(off(made.sewn, seam) for seam in made.bag.net.seams)


def bound_sides(key, **more):
    flat = {"base": "none"} if "base" in {o.key for o in SHAPES[key].options} else {}
    return made_of(key, sides="bound", **flat, **more)


@pytest.mark.parametrize("key", FLAT)
def test_sides_that_are_bound_lose_nothing_outside_and_a_seam_of_binding_inside(key):
    made = bound_sides(key)
    assert made.bag.finished[0].value == 9
    assert made.lead.trimmed.width.value == 9
    inside = {told.id: told.figure.value for told in made.bag.inside}
    assert inside["inside-width"] == 9 - 2 * B - 2 * made.wall.value
    sides = [e.finish for e in made.lead.panel.edges if e.key.side in ("left", "right")]
    assert set(sides) == {"bound"}


def test_two_panels_are_bound_down_one_side_along_the_bottom_and_up_the_other():
    """6 and 6 and 9, an inch for each of two mitred corners, ½ turned under at either end: 24."""
    made = bound_sides("flat-pouch")
    (edge,) = made.bag.bound
    assert (edge.length.value, edge.number.whole, edge.walls) == (24, 1, 2)
    height = {told.id: told.figure.value for told in made.bag.inside}["inside-height"]
    assert height == made.bag.finished[1].value - B - made.wall.value


def test_one_panel_folded_has_a_strip_at_either_side():
    made = bound_sides("sleeve")
    (edge,) = made.bag.bound
    assert (edge.length.value, edge.number.whole) == (made.bag.finished[1].value + 1, 2)


def test_a_strip_is_as_wide_as_two_walls_ask():
    """2(3s + τ + o): twice three of ¼, both walls, and ⅛ to cover, up to the ruler's mark."""
    made = bound_sides("flat-pouch")
    (strip,) = made.edge_strips
    exact = 2 * (3 * B + 2 * made.wall.value + F(1, 8))
    assert exact <= strip.cut.value < exact + F(1, 8)
    (item,) = [i for i in made.items if i.owner.kind == "edge" and i.owner.keys == ("sides",)]
    assert (item.number.value, item.width.value, item.height.value) == (1, 24, strip.cut.value)


def test_strips_longer_than_the_cloth_are_joined():
    sizes = {"width": F(40), "height": F(30)}
    shape = ShapeChoice(kind="flat-pouch", sizes=sizes, options={"sides": "bound"})
    made = plan(project_of("flat-pouch", shape=shape))
    (strip,) = made.edge_strips
    usable = made.project.stock.usable_width
    n = strip.strips.whole
    assert n * usable - (n - 1) * strip.cut.value >= strip.edge.length.value
    assert (n - 1) * usable - (n - 2) * strip.cut.value < strip.edge.length.value


@pytest.mark.parametrize("lining", ["drop-in", "quilted-in", "none"])
@pytest.mark.parametrize("key", FLAT)
def test_it_is_made_and_nothing_is_turned_through_a_gap(key, lining):
    made = bound_sides(key, lining=lining)
    steps = making_of(made, made.project.making)
    assert not steps.broken
    whats = [deed.what for deed in steps.deeds]
    assert "bind.own" in whats
    assert "turn.gap" not in whats
    assert "lay.faces" in whats or "lay.one" in whats


@pytest.mark.parametrize("key", FLAT)
def test_it_holds_an_object_with_what_the_binding_takes(key):
    flat = {"base": "none"} if "base" in {o.key for o in SHAPES[key].options} else {}
    sewn = made_of(key, "object", **flat)
    bound = made_of(key, "object", sides="bound", **flat)
    more = [b.value - s.value for b, s in zip(bound.bag.finished, sewn.bag.finished, strict=True)]
    assert more[0] >= 2 * B - F(1, 8)


@pytest.mark.parametrize("key", FLAT)
def test_seams_still_lie_on_one_another(key):
    made = bound_sides(key)
    assert widest(made) < 1e-6


# -- zippers --------------------------------------------------------------------------------


@pytest.mark.parametrize(("way", "z"), [("seam", B), ("bound", 0), ("lapped", 0)])
def test_a_ring_with_its_zipper_by_hand(way, z):
    """C = L − 2z + v: a panel of 12 in a seam of ¼ and ¾ shown is 12¼ round, else 12¾."""
    sizes = {"panel_width": F(10), "panel_height": F(12)}
    choice = ShapeChoice(kind="offset-pouch", way="panel", sizes=sizes)
    made = plan(project_of("offset-pouch", shape=choice, zipper=Zipper(set=way)))
    ring = made.bag.figure("ring-zipper-and-all").value
    assert ring == 12 - 2 * z + F(3, 4)
    assert made.bag.finished[1].value == ring / 2


@pytest.mark.parametrize("way", ["bound", "lapped"])
@pytest.mark.parametrize("key", ZIPPED)
def test_every_zipped_bag_is_planned_proven_and_made_with_any_setting(key, way):
    made = made_of(key, zipper=Zipper(set=way))
    assert widest(made) < 1e-6
    assert not making_of(made, made.project.making).broken
    edge = next(one for one in made.bag.bound if one.key == "zipper")
    assert edge.tape == (way == "lapped")
    assert edge.number.whole == 2
    tapes = [ware for ware in wares_of(made) if ware.kind == "edge tape"]
    strips = [i for i in made.items if i.owner.kind == "edge" and i.owner.keys == ("zipper",)]
    assert (len(tapes), len(strips)) == ((1, 0) if way == "lapped" else (0, 1))
    zips = [deed for deed in making_of(made, made.project.making).deeds if "zip." in deed.what]
    whats = [deed.what for deed in zips]
    assert whats.count(f"zip.sew-{way}") == 2
    assert not {"zip.sew", "zip.sew-lined", "zip.topstitch", "zip.under-bound"} & set(whats)
    assert all(deed.seam is None for deed in zips)  # nothing of the edges is lost in a seam
    if way == "bound":  # before the zipper comes under it
        assert whats.index("zip.bind-edges") < whats.index("zip.sew-bound")


def test_nothing_lies_folded_where_a_tape_is_lapped_over():
    def at_zipper(way):
        made = made_of("flat-pouch", zipper=Zipper(set=way))
        spots = {spot.label: spot for spot in made.spots_on("front")}
        return next(s.mm for label, s in spots.items() if label.startswith("zipper, top"))

    assert at_zipper("lapped") < at_zipper("bound") < at_zipper("seam")


# -- a panel, side by side ------------------------------------------------------------------


def panel_of(**options):
    return made_of("free-panel", "panel", **options)


def test_each_side_of_a_panel_takes_its_own():
    """12 × 9: sewn in at the left by ⅜, turned in at the top by ⅜, bound and raw else."""
    made = panel_of(edge="bound", edge_left="seam", edge_top="turned", edge_right="raw")
    assert [f.value for f in made.bag.finished] == [12 - F(3, 8), 9 - F(3, 8)]
    finishes = {e.key.side: e.finish for e in made.lead.panel.edges}
    assert finishes == {"left": "seam", "top": "turned", "right": "free", "bottom": "bound"}
    (edge,) = made.bag.bound
    assert (edge.key, edge.length.value, edge.corners) == ("bottom", 13, 0)


def test_bound_sides_that_meet_share_a_strip():
    made = panel_of(edge="raw", edge_left="bound", edge_bottom="bound")
    (edge,) = made.bag.bound
    assert (edge.label, edge.corners) == ("bottom and left", 1)
    assert edge.length.value == 12 + 9 + 1 + 1
    whats = [deed.what for deed in making_of(made, made.project.making).deeds]
    assert "bind.own" in whats
    assert "edge.overcast" in whats


def test_two_opposite_sides_have_a_strip_each():
    made = panel_of(edge="seam", edge_left="bound", edge_right="bound")
    assert sorted(edge.key for edge in made.bag.bound) == ["left", "right"]


WAYS = ("same", "bound", "seam", "turned", "raw")


@settings(max_examples=40, deadline=None)
@given(
    st.sampled_from(("bound", "seam", "turned", "raw")),
    st.tuples(*(st.sampled_from(WAYS) for _ in range(4))),
    st.sampled_from(("square", "round", "envelope")),
    st.sampled_from(("none", "quilted-in", "drop-in")),
)
def test_any_panel_is_planned_and_made(edge, own, corners, lining):
    sides = ("left", "right", "top", "bottom")
    options = {f"edge_{side}": way for side, way in zip(sides, own, strict=True)}
    made = panel_of(edge=edge, corners=corners, lining=lining, **options)
    steps = making_of(made, made.project.making)
    assert not steps.broken
    bound = {e.key.side for e in made.lead.panel.edges if e.finish == "bound"}
    stripped = {ref.edge.side for one in made.bag.bound for ref in one.edges}
    assert stripped == (set() if len(bound) == 4 else bound)
    assert (made.binding is not None) == (len(bound) == 4)
