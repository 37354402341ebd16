"""Panels in the hoop: what lies in it, how many hoopings, what is cut (common practice, no source).

That outlines lie apart is asked of `shapely`; how many go in together of brute force.
"""

from itertools import permutations, product

import pytest
from shapely.geometry import box

from tessil.core.catalogue import hoops
from tessil.core.choosing import choose
from tessil.core.edits import applied, edit
from tessil.core.hooping.hoopings import HoopGroup
from tessil.core.hooping.packing import Outline, pack
from tessil.core.hooping.readings import group_of, hoop_readings
from tessil.core.hooping.words import hoop_words, hoopings_words
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.workings import count, given
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tessil.core.words.cuts import note_words
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def hooped(width=4, height=3, stabiliser="cut-away", bags=1, **hooping):
    """A pouch of typed panels whose front, and its back as the front, is made in a hoop."""
    base = project_of("flat-pouch")
    sizes = {"panel_width": F(width), "panel_height": F(height)}
    small = edit("", ("shape.way", "panel"), ("shape.sizes", sizes), ("bags", bags))
    changed = applied(base, small)
    lead = plan(changed).lead.panel
    made = applied(changed, choose(changed, lead, "", ("layers.stabiliser", stabiliser)))
    panels = {name: own for name, own in made.panels.items() if name != "back"}
    made = made.model_copy(update={"panels": panels})
    wanted = {"hoop": "h-5-7", **hooping}
    return applied(made, edit("", *((f"hooping.{name}", value) for name, value in wanted.items())))


def cut_of(made, what):
    return [
        (item.number.value, item.width.value, item.height.value)
        for item in made.items
        if item.owner.kind == "hoop" and item.what == what
    ]


def test_a_hoop_of_6_by_10_takes_cloth_of_8_by_12():
    made = plan(hooped(hoop="h-6-10"))
    assert made.hooped.cut.values() == (8, 12)


def test_a_pouch_in_a_hoop_by_hand():
    """5 × 7: front and back of 4 × 3, ½ apart, are 6½ high: one hooping, one length of 7 × 9."""
    made = plan(hooped())
    assert made.hooped.number == 1
    assert cut_of(made, "batting") == [(1, 7, 9)]
    assert cut_of(made, "stabiliser") == [(1, 7, 9)]
    (hooping,) = made.hooped.groups[0].hoopings
    assert {(one.y, one.height) for one in hooping.laid} == {(0, 3), (F(7, 2), 3)}


def test_cloth_is_drawn_on_from_hooping_to_hooping():
    """Three pouches are six outlines, two a hooping; drawn on by 6½ and ½ twice, then 7 and 2."""
    made = plan(hooped(bags=3))
    (group,) = made.hooped.groups
    assert group.number.whole == 3
    assert group.length.value == 7 + 7 + 7 + 2
    assert cut_of(made, "batting") == [(1, 7, 23)]


def test_or_each_hooping_has_a_piece_of_its_own():
    made = plan(hooped(bags=3, cloth="apiece"))
    assert cut_of(made, "batting") == [(3, 7, 9)]
    made_of = next(item for item in made.items if item.owner.kind == "hoop")
    assert note_words(made_of.owner, made_of.notes) == "for 3 hoopings"


def test_outlines_turned_take_fewer_hoopings():
    """6½ × 2 does not lie across 5, turned it stands 6½ high, two beside each other in 4½."""
    straight = plan(hooped(F(13, 2), F(2), turned=False))
    assert set(straight.hooped.too_large) == {"front", "back"}
    turned = plan(hooped(F(13, 2), F(2)))
    assert turned.hooped.number == 1
    assert all(one.turned for one in turned.hooped.groups[0].hoopings[0].laid)


def test_batting_is_trimmed_2_mm_outside_its_line():
    made = plan(hooped())
    told = {one.key: one.figure.value for one in hoop_readings(made, made.lead)}
    seams = made.project.seams
    assert told["hoop.batting.width"] == 4 - 2 * seams.side + 2 * F(2) / F(254, 10)


def test_a_hoop_of_ones_own():
    own = edit("", ("hooping.width", F(6)), ("hooping.height", F(8)))
    made = plan(applied(hooped(hoop="own"), own))
    assert made.hooped.field.values() == (6, 8)
    assert made.hooped.cut.values() == (8, 10)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ((("hooping.hoop", "own"), ("hooping.width", F(1, 2))), "hooping.width"),
        ((("hooping.hoop", "h-99-99"),), "hooping.hoop"),
    ],
)
def test_a_hoop_without_a_field_is_refused_beside_it(change, field):
    with pytest.raises(CannotPlan) as trouble:
        plan(applied(hooped(), edit("", *change)))
    assert trouble.value.field == field


@pytest.mark.parametrize("hoop", hoops(), ids=lambda hoop: hoop.key)
def test_the_panel_that_just_goes_in(hoop):
    just = plan(hooped(hoop.width, hoop.height, hoop=hoop.key))
    assert not just.hooped.too_large
    assert hoop.name in hoop_words(just.lead, False)
    wider = plan(hooped(hoop.width + F(1, 8), hoop.height, hoop=hoop.key, turned=False))
    assert wider.hooped.too_large
    assert f"{hoop.name}," not in f"{hoop_words(wider.lead, False).rstrip('.')},"


def test_a_cloth_with_an_up_is_never_turned():
    base = hooped(F(13, 2), F(2))
    prints = tuple(one.model_copy(update={"directional": True}) for one in base.prints)
    lead = plan(base).lead.panel
    whole = applied(base, choose(base, lead, "", ("piecing.way", "whole")))
    made = plan(whole.model_copy(update={"prints": prints}))
    assert set(made.hooped.too_large) == {"front", "back"}
    assert "only turned" in next(s.title for s in made.snags if s.key == "hoop.front")


def test_one_cloth_is_cut_to_the_hoop_a_pieced_top_is_not():
    pieced = plan(hooped())
    assert not cut_of(pieced, "top")
    assert [item for item in pieced.items if item.owner.keys == ("front",) and item.what == "strip"]
    lead = pieced.lead.panel
    whole = plan(
        applied(pieced.project, choose(pieced.project, lead, "", ("piecing.way", "whole")))
    )
    assert cut_of(whole, "top") == [(1, 7, 9)]
    assert not [i for i in whole.items if i.owner.keys == ("front",) and i.what == "top"]


@pytest.mark.parametrize(("stabiliser", "thicker"), [("cut-away", True), ("tear-away", False)])
def test_only_a_stabiliser_that_stays_makes_the_bag_thicker(stabiliser, thicker):
    bare, made = plan(hooped(stabiliser="")), plan(hooped(stabiliser=stabiliser))
    assert (made.wall.value > bare.wall.value) == thicker
    assert (made.weight.value > bare.weight.value) == thicker
    assert cut_of(made, "stabiliser")
    assert [one for one in made.bought if one.stock == stabiliser]


def test_every_layer_of_the_cut_list_is_cut_to_the_hoop():
    made = plan(hooped())
    layers = [item for item in made.items if item.what in ("batting", "backing", "stabiliser")]
    assert layers
    assert {(i.width.value, i.height.value) for i in layers} == {(7, 9)}


@pytest.mark.parametrize("key", ["flat-pouch", "clutch", "offset-pouch", "bound-pouch"])
def test_any_small_bag_is_made_in_the_hoop_without_a_gate_broken(key):
    base = project_of(key)
    lead = plan(base).lead.panel
    chosen = applied(base, choose(base, lead, "", ("layers.stabiliser", "wash-away")))
    made = plan(
        applied(
            chosen,
            edit("", ("hooping.hoop", "own"), ("hooping.width", F(40)), ("hooping.height", F(40))),
        )
    )
    assert group_of(made, lead.key) is not None
    steps = making_of(made, made.project.making)
    assert not steps.broken
    whats = [deed.what for deed in steps.deeds]
    assert whats.index("hoop.set") < whats.index("hoop.place") < whats.index("hoop.lay")
    assert whats.index("hoop.quilt") < whats.index("hoop.out-apiece") < whats.index("hoop.washed")
    assert "set.iron" in whats  # what is washed out melts


# -- packing --------------------------------------------------------------------------------


CASES = [
    ([(45, 40, 12, True)], (55, 75)),
    ([(25, 25, 40, True)], (105, 165)),
    ([(30, 40, 6, True), (25, 20, 12, True)], (105, 165)),
    ([(30, 40, 9, False), (60, 35, 7, True)], (105, 105)),
]


@pytest.mark.parametrize(("rows", "field"), CASES)
def test_outlines_lie_inside_and_apart(rows, field):
    outlines = [Outline(*row) for row in rows]
    packed = pack(outlines, *field)
    assert packed.least <= packed.fields
    counted = dict.fromkeys(range(len(rows)), 0)
    for heap in packed.heaps:
        laid = []
        for spot in heap.spots:
            wide, high = outlines[spot.outline].wide, outlines[spot.outline].high
            wide, high = (high, wide) if spot.turned else (wide, high)
            assert outlines[spot.outline].turns or not spot.turned
            laid.append(box(spot.x, spot.y, spot.x + wide, spot.y + high))
            counted[spot.outline] += heap.times
        assert all(box(0, 0, *field).covers(one) for one in laid)
        assert not any(a.intersection(b).area for a, b in permutations(laid, 2))
    assert list(counted.values()) == [row[2] for row in rows]


def most_by_trying(wide, high, field):
    """As many of one size as lie in a field on a grid of the common measure: all places tried."""
    best, step = 0, 5
    places = list(product(range(0, field[0], step), range(0, field[1], step)))

    def place(from_, taken, number):
        nonlocal best
        best = max(best, number)
        for at in range(from_, len(places)):
            x, y = places[at]
            for w, h in {(wide, high), (high, wide)}:
                cells = {(x + a, y + b) for a in range(0, w, step) for b in range(0, h, step)}
                if x + w <= field[0] and y + h <= field[1] and not cells & taken:
                    place(at + 1, taken | cells, number + 1)

    place(0, frozenset(), 0)
    return best


@pytest.mark.parametrize(
    ("wide", "high", "field"), [(15, 10, (25, 25)), (20, 10, (30, 25)), (15, 15, (40, 20))]
)
def test_as_many_in_one_field_as_brute_force_finds(wide, high, field):
    most = most_by_trying(wide, high, field)
    assert pack([Outline(wide, high, most, True)], *field).fields == 1
    assert pack([Outline(wide, high, most + 1, True)], *field).fields == 2


def test_an_outline_that_goes_into_no_field_is_refused():
    with pytest.raises(ValueError, match="no field"):
        pack([Outline(30, 10, 1, False)], 20, 40)


@pytest.mark.parametrize(
    ("number", "pieces", "says"),
    [
        (3, 1, "3 hoopings; of every layer one piece 7 × 21½"),
        (1, 2, "1 hooping; of every layer 2 pieces 7 × 21½"),
    ],
)
def test_hoopings_in_words(number, pieces, says):
    group = HoopGroup(
        (),
        (),
        count("hoopings", number),
        number,
        given("width", F(7)),
        given("length", F(43, 2)),
        count("pieces", pieces),
    )
    assert hoopings_words(group, Notation("inch")) == says


@pytest.mark.parametrize(
    ("rows", "least"),
    [
        ([(60, 50, 2, True)], 1),  # each half as high as the field: one above the other
        ([(60, 51, 2, True)], 2),  # a little more: each has a field of its own
        ([(50, 60, 2, False)], 1),
        ([(51, 51, 3, True)], 3),
        ([(60, 60, 1, True), (30, 30, 8, True)], 2),  # by area, 1.08 fields
        ([(10, 10, 1, True)], 1),
    ],
)
def test_the_least_number_of_fields_by_hand(rows, least):
    """A field of 100 × 100."""
    packed = pack([Outline(*row) for row in rows], 100, 100)
    assert packed.least == least
    assert packed.fields >= least


def test_a_layer_reaches_past_the_top_by_half_of_what_the_hoop_is_larger():
    """Each way at least: the side where less is over counts."""
    for width, height in ((4, 3), (2, 3)):
        lead = plan(hooped(width, height)).panel("front")
        layers = [layer for layer in lead.layers if layer.rule == "hoop"]
        assert layers
        for layer in layers:
            over = [
                cut.value - top
                for cut, top in zip((layer.width, layer.height), lead.pieced.values(), strict=True)
            ]
            assert layer.margin == min(over) / 2 > 0
            assert over[0] != over[1]


@pytest.mark.parametrize(
    ("width", "height", "says", "place"),
    [
        (8, 3, "The front is 3 in too wide for the hoop", (0, F(3, 2), 8, 0)),
        (3, 8, "The front is 1 in too high for the hoop", (F(3, 2), 0, 0, 8)),
        (5, F(29, 4), "The front is ¼ in too high for the hoop", (F(5, 2), 0, 0, F(29, 4))),
        (6, F(29, 4), "The front is 1 in too wide for the hoop", (0, F(29, 8), 6, 0)),
    ],
)
def test_a_panel_too_large_for_its_hoop_is_told_by_the_side_that_is_most_over(
    width, height, says, place
):
    """The hoop's field is 5 × 7."""
    (snag,) = [one for one in plan(hooped(width, height)).snags if one.key == "hoop.front"]
    size = f"{width} × {'7¼' if height == F(29, 4) else height}"
    assert snag.title == says
    assert snag.why == f"With its seams it is {size}; the hoop's field is 5 × 7."
    there = snag.place
    assert (there.x, there.y, there.width, there.height) == place
