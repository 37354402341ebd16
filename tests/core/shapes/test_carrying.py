"""How bags are carried: every way on every shape, its ends where the sewn bag has them, all of it
among what is cut, bought, thick and sewn.

Places are held against the bag in space (``core/sewn``) and hand sums.  Common practice, no source.
"""

from math import dist

import pytest

from tessil.core.bag.ids import CutOwner
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.edits import applied
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.sewn.placing import Sewn
from tessil.core.shapes import SHAPES
from tessil.core.shapes.carry_choices import OPTIONS
from tessil.core.trouble import CannotPlan
from tessil.drawing.handview import place_on
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
FIRST = {"strap": "one", "handles": "pair", "wrist": "loop", "end": "both", "tabs": "both"}
CARRIED = [key for key, shape in SHAPES.items() if shape.carries]


def ways_of(key):
    """Every way of carrying a bag of that shape, one after the other."""
    return [
        {kind: FIRST[kind], option.key: value}
        for kind in SHAPES[key].carries
        for option in OPTIONS[kind]
        for value, _ in option.choices
        if value != "none" and (option.key != kind or value == FIRST[kind])
    ]


def made(key, options, lining=None, **sizes):
    base = project_of(key, **({"lining": lining} if lining else {}))
    choice = base.shape.model_copy(
        update={
            "options": {**base.shape.options, "strap": "none", **options},
            "sizes": {**base.shape.sizes, **{name: F(size) for name, size in sizes.items()}},
        }
    )
    return plan(base.model_copy(update={"shape": choice}))


def ends_of(one, key):
    """Where the ends of what is carried so lie in space."""
    sewn = Sewn(one.bag.net)
    poses = sewn.placed()
    return [
        tuple(place_on(sewn, poses, *end) for end in hang.ends)
        for hang in one.bag.net.hangs
        if hang.key == key
    ]


@pytest.mark.parametrize("key", CARRIED)
def test_everything_of_it_is_cut_and_sewn_on(key):
    """Its strips are in the cut list, a patch where an end is sewn on the face; it is on at the end
    of the making, and no gate breaks on the way."""
    seen = []
    for options in ways_of(key):
        one = made(key, options, strap_length=30)  # of one strip
        making = making_of(one, Made())
        facts = standing(making, [deed.id for deed in making.deeds]).facts
        parts = [part for part in one.bag.attachments if part.cloth]
        for part in parts:
            cut = [item for item in one.items if item.owner == CutOwner("part", (part.key,))]
            strips = [item for item in cut if item.what == "strip to fold"]
            assert [item.number.value for item in strips] == [part.number * one.project.bags]
            assert ("reinforcing patch" in {item.what for item in cut}) == (part.ends == "face")
        seen.append((bool(parts), {f"on:{part.key}" for part in parts} <= facts, making.broken))
    assert seen == [(True, True, ())] * len(seen)
    assert len(seen) > 4


@pytest.mark.parametrize("key", CARRIED)
def test_what_is_sewn_to_an_outer_panel_is_a_thick_place(key):
    """Every end on a panel that is quilted, two ends in one place once; what hangs on rings is not
    in the seam, its tabs are."""
    found = []
    for options in ways_of(key):
        one = made(key, options)
        outer = {panel.key for panel in one.bag.panels if panel.kind == "outer"}
        ends = {
            (hang.key, *end[::2])
            for hang in one.bag.net.hangs
            for end in hang.ends
            if hang.sewn and hang.key != "cord" and end[0] in outer
        }
        spots = [s for panel in outer for s in one.spots_on(panel) if s.kind == "hung"]
        found.append(len(spots) - len(ends))
    assert found == [0] * len(ways_of(key))


BELOW = {"handles": "pair", "handle_ends": "below", "handle_set": "centre"}


def test_handles_below_the_edge_come_on_last_and_are_sewn_below_it():
    """A tote quilted in, its top bound: ends a half below it, 24 long less a quarter sewn twice at
    each end; on once the top is finished."""
    one = made("tote", BELOW, lining="quilted-in", handle_down="1/2", handle_at=2)
    hangs = [hang for hang in one.bag.net.hangs if hang.key == "handles"]
    assert [end[2][1] for hang in hangs for end in hang.ends] == [F(1, 2)] * 4
    assert {hang.long for hang in hangs} == {24 - 1}
    making = making_of(one, Made())
    order = [deed.what for deed in making.deeds]
    assert order.index("strap.below") > max(
        at for at, what in enumerate(order) if what.startswith("bind.")
    )
    assert "reinforcing patch" not in {item.what for item in one.items}


def test_handles_sewn_too_near_to_the_edge_are_told_and_mended():
    """A quarter below a top bound at 3/8: the binding needs 3/8 and the raw ends a quarter."""
    one = made("tote", BELOW, lining="quilted-in", handle_down="1/4", handle_at=2)
    (snag,) = [snag for snag in one.snags if snag.key == "edge.below"]
    seam = one.project.binding.seam
    mended = plan(applied(one.project, snag.fixes[0]))
    assert mended.project.shape.sizes["handle_down"] == seam + F(1, 4)
    assert not any(snag.key == "edge.below" for snag in mended.snags)


def test_from_the_corners_and_from_the_side_seams():
    """A boxed tote 8 wide and 1½ deep: its side seams lie ¾ beyond the corners of its front, so
    handles 2 from either are 2 · (4 − 2) = 4 and 2 · (4¾ − 2) = 5½ apart."""
    for way, apart in (("sides", 4), ("seams", 5.5)):
        options = {"handles": "pair", "handle_ends": "face", "handle_set": way}
        one = made("tote", options, handle_at=2, handle_down=1)
        width, depth = (float(one.bag.finished[at].value) for at in (0, 2))
        (hang, *_) = [hang for hang in one.bag.net.hangs if hang.key == "handles"]
        (x1, _), (x2, _) = (end[2] for end in hang.ends)
        assert float(x2 - x1) == pytest.approx(apart + width - 8 + (depth - 1.5) * (way == "seams"))


@pytest.mark.parametrize("key", [key for key, shape in SHAPES.items() if "tabs" in shape.carries])
def test_tabs_lie_where_the_zipper_ends(key):
    """One at each end, mirrored, as high as the highest place of the side that the zipper meets."""
    one = made(key, {"tabs": "both"}, tab_length=4)
    (a, b), (c, d) = ends_of(one, "end-tabs")
    assert a == b
    assert c == d
    assert a[1:] == pytest.approx(c[1:])
    assert dist(a, c) > float(one.bag.finished[0].value) - 0.1
    assert {hang.long for hang in one.bag.net.hangs if hang.key == "end-tabs"} == {3}
    spots = {s.label for p in one.panels for s in one.spots_on(p.key) if s.kind == "hung"}
    assert any("zipper end tab" in label for label in spots)


@pytest.mark.parametrize("key", [key for key, shape in SHAPES.items() if "strap" in shape.carries])
def test_a_strap_hangs_level_on_both_sides(key):
    """Its two ends stand equally high and are mirrored: the bag hangs straight."""
    one = made(key, {"strap": "one"})
    ((left, right),) = ends_of(one, "strap")
    assert left[1] == pytest.approx(right[1])
    assert left[2] == pytest.approx(right[2])
    assert dist(left, right) > float(one.bag.finished[0].value) - 0.1


@pytest.mark.parametrize(
    "key", [key for key, shape in SHAPES.items() if "handles" in shape.carries]
)
def test_a_pair_of_handles_faces_itself(key):
    """Front and back, equally high, so far apart as they are set."""
    one = made(key, {"handles": "pair", "handle_set": "centre"}, handle_at=1)
    (a, b), (c, d) = ends_of(one, "handles")
    assert {round(end[1], 6) for end in (a, b, c, d)} == {round(a[1], 6)}
    assert dist(a, b) == pytest.approx(2)
    assert dist(c, d) == pytest.approx(2)


def test_handles_a_quarter_in_from_the_centre_and_from_the_sides():
    """The tote ends 9¼ wide: a quarter of it from the middle of a panel 12¼ wide, or 2, or its half
    less 2."""
    at = {}
    for how in ("quarter", "centre", "sides"):
        one = made("tote", {"handles": "pair", "handle_set": how}, handle_at=2)
        first = next(hang for hang in one.bag.net.hangs if hang.key == "handles")
        at[how] = [end[2][0] for end in first.ends]
    middle, wide = F(49, 8), F(37, 4)
    assert at["quarter"] == [middle - wide / 4, middle + wide / 4]
    assert at["centre"] == [middle - 2, middle + 2]
    assert at["sides"] == [middle - (wide / 2 - 2), middle + (wide / 2 - 2)]


def test_on_the_face_is_so_far_below_the_top_and_patched():
    one = made(
        "one-piece", {"handles": "pair", "handle_ends": "face"}, handle_down=2, handle_width=1
    )
    front, back = (hang for hang in one.bag.net.hangs if hang.key == "handles")
    high = one.bag.panel("body").height.value
    assert [end[2][1] for end in front.ends] == [2, 2]
    assert [end[2][1] for end in back.ends] == [high - 2, high - 2]
    (patch,) = (item for item in one.items if item.what == "reinforcing patch")
    assert (patch.width.value, patch.height.value) == (2, 2)
    assert patch.number.value == 4 * one.project.bags


def test_a_strap_on_rings_is_two_tabs_and_two_rings():
    one = made("clutch", {"strap": "one", "strap_ends": "rings"}, strap_length=48, strap_width=1)
    tabs = next(part for part in one.bag.attachments if part.key == "tabs")
    assert (tabs.number, tabs.cut.value) == (2, F(5, 2))
    rings = [ware for ware in wares_of(one) if ware.kind == "ring"]
    assert [ware.number.value for ware in rings] == [2 * one.project.bags]
    assert rings[0].size.value == 1  # as wide inside as the strap
    order = [deed.id for deed in making_of(one, Made()).deeds]
    assert order.index("baste.tabs") < order.index("hang.strap")


def test_a_loop_goes_on_the_side_that_is_chosen():
    for side, low in (("left", True), ("right", False)):
        one = made("boxed-zip", {"wrist": "loop", "wrist_side": side})
        (hang,) = (one for one in one.bag.net.hangs if one.key == "wrist")
        assert (hang.ends[0][2][0] < one.bag.panel("body").width.value / 2) is low


def test_a_handle_across_an_end_begins_on_both_sides_of_the_zipper():
    one = made("boxed-zip", {"end": "both"}, end_apart=3)
    for first, last in ends_of(one, "end"):
        shown = float(one.project.zipper.shown)
        assert dist(first, last) == pytest.approx(3 + shown)


@pytest.mark.parametrize(
    ("key", "options", "sizes", "field"),
    [
        ("tote", {"handles": "pair", "handle_set": "centre"}, {"handle_at": 9}, "handle_at"),
        ("tote", {"handles": "pair", "handle_set": "sides"}, {"handle_at": 6}, "handle_at"),
        ("tote", {"strap": "one"}, {"strap_below": 60}, "strap_below"),
        ("flat-pouch", {"wrist": "loop"}, {"wrist_below": 30}, "wrist_below"),
        ("flat-pouch", {"wrist": "loop"}, {"wrist_length": 1}, "wrist_length"),
        ("boxed-zip", {"end": "one"}, {"end_apart": 8}, "end_apart"),
    ],
)
def test_what_cannot_be_is_said_beside_its_field(key, options, sizes, field):
    with pytest.raises(CannotPlan) as trouble:
        made(key, options, **sizes)
    assert trouble.value.field == f"shape.sizes.{field}"
    assert trouble.value.sentence.endswith(".")
