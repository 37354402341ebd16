"""What lines mind, by value: hardware, patchwork seams, and the ways offered to come out.

Crossings are held against shapely; spacings are reckoned by hand on a front of 14¾ × 13⅞.
"""

import random

import pytest
from shapely.geometry import LineString, box

from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.acts.minding import crosses, near_misses, offers, through
from tessil.core.quilting.sewn import QuiltLine
from tessil.core.trimming.choice import Mark
from tessil.core.words.written import working_words
from tests.conftest import tote, with_front

F = Fraction


def test_a_line_crosses_a_box_as_shapely_has_it():
    dice, seen = random.Random(4), []
    for _ in range(2000):
        kind = dice.choice(("free", "level", "upright"))
        x1, y1, x2, y2 = (dice.uniform(-3, 9) for _ in range(4))
        y2, x2 = (y1 if kind == "level" else y2), (x1 if kind == "upright" else x2)
        there = (dice.uniform(0, 5), dice.uniform(0, 5), dice.uniform(0.1, 3), dice.uniform(0.1, 3))
        x, y, w, h = there
        inside = LineString([(x1, y1), (x2, y2)]).intersection(box(x, y, x + w, y + h)).length > 0
        assert crosses(QuiltLine("a", 0, ((x1, y1), (x2, y2))), there) == inside
        seen.append(inside)
    assert 200 < sum(seen) < 1800


def test_a_closed_line_crosses_with_its_last_side_too():
    ring = ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0))
    assert crosses(QuiltLine("a", 0, ring, closed=True), (-0.5, 1.0, 1.0, 1.0))
    assert not crosses(QuiltLine("a", 0, ring), (-0.5, 1.0, 1.0, 1.0))


def test_a_line_along_the_side_of_a_box_does_not_cross_it():
    for x in (1.0, 3.0):
        assert not crosses(QuiltLine("a", 0, ((x, 0.0), (x, 9.0))), (1.0, 1.0, 2.0, 2.0))


def _windowed(x):
    """A window three wide; upright lines lie at 7⅜ and every 7⁄6 from there."""
    mark = Mark(kind="window", panel="front", x=F(x), y=F(3), width=F(3), height=F(1, 2))
    return plan(tote(marks=(mark,)))


@pytest.mark.parametrize(("x", "lines"), [(6, 3), (F(59, 8), 2), (F(15, 2), 2)])
def test_the_lines_through_a_window_are_counted(x, lines):
    """From 6 to 9: at 6.21, 7⅜ and 8.54; from 7⅜: the one on its side is not through it."""
    made = _windowed(x)
    front = made.panel("front")
    assert len(through(front, made.marks_on("front"))) == lines


# 14 between the seam lines: twelve gaps of 7⁄6, eleven of 14⁄11; kept at 1¼ ten gaps with the
# line on the centre leave ¾, eleven with the gap there leave ⅛.
OFFERS = {
    "divide.line": (F(7, 6), F(7, 6), 11),
    "divide.gap": (F(14, 11), F(14, 11), 10),
    "keep.line": (F(5, 4), F(3, 4), 11),
    "keep.gap": (F(5, 4), F(1, 8), 12),
}


def test_the_ways_for_lines_to_come_out():
    made = plan(tote())
    found = {offer.key: offer for offer in offers(made, made.panel("front"), 0)}
    assert set(found) == set(OFFERS)  # strips lie level: upright lines meet no seam
    for key, (gap, margin, number) in OFFERS.items():
        offer = found[key]
        assert (offer.gap.value, offer.margin.value) == (gap, margin), key
        assert len(offer.sets[0].offsets) == number
        assert (offer.misses, offer.through) == (0, 0)
        assert offer.now == (key == "divide.line")
        taken = plan(applied(made.project, offer.edit)).panel("front").choices.quilting
        assert f"{taken.spacing}.{taken.centre}" == key


def test_level_lines_may_hit_the_patchwork_seams_or_clear_them():
    """Strips show 2 on the pieced top, 1.99 once drawn in: a line on each of the seven seams."""
    made = plan(with_front(tote(), ("quilting.run", "level")))
    found = {offer.key: offer for offer in offers(made, made.panel("front"), 0)}
    assert {"hit", "clear"} < set(found)
    assert found["hit"].misses == 0
    hit = plan(applied(made.project, found["hit"].edit)).panel("front")
    seams = {round(seam.offset, 6) for seam in hit.quilt.seams}
    offsets = {round(offset, 6) for offset in hit.quilt.sets[0].offsets}
    assert len(seams) == 7
    assert seams <= offsets
    # every 1¼ past seams every 1.98 cannot all clear them; shifted, they keep further off
    nearest = {
        key: min(abs(o - s) for o in found[key].sets[0].offsets for s in seams) for key in found
    }
    words = working_words(hit.quilt.sets[0].lines, made.marks.notation)
    assert words == "lines on seams + lines between and beside them"
    assert nearest["hit"] < 2e-3  # the seams are those of the hit, drawn in a little otherwise
    assert nearest["clear"] >= max(nearest["keep.line"], nearest["keep.gap"])
    assert found["clear"].gap.value == F(5, 4)


def test_a_line_beside_a_seam_is_a_near_miss_between_a_sixteenth_and_a_quarter():
    made = plan(
        with_front(
            tote(),
            ("quilting.run", "level"),
            ("quilting.spacing", "keep"),
            ("quilting.gap", F(15, 8)),
        )
    )
    front = made.panel("front")
    seams = [seam.offset for seam in front.quilt.seams]
    beside = [
        offset
        for offset in front.quilt.sets[0].offsets
        if 1 / 16 < min(abs(offset - seam) for seam in seams) < 1 / 4
    ]
    found = near_misses(front.quilt.sets, front.quilt.seams, front.trimmed.floats())
    assert [miss.offset for miss in found] == beside != []
    assert {(miss.group, miss.angle) for miss in found} == {(0, 0.0)}
    for miss in found:
        assert miss.seam == min(seams, key=lambda seam: abs(seam - miss.offset))


@pytest.mark.parametrize("pattern", ["none", "ditch", "echo"])
def test_patterns_without_a_gap_to_space_offer_nothing(pattern):
    made = plan(with_front(tote(), ("quilting.pattern", pattern)))
    assert offers(made, made.panel("front"), 0) == ()


def test_the_second_part_of_a_panel_is_spaced_by_itself():
    zones = ({"starts": F(6), "quilting": {"run": "level", "gap": F(2)}},)
    made = plan(with_front(tote(), ("quilt_zones", zones)))
    found = offers(made, made.panel("front"), 1)
    kept = next(offer for offer in found if offer.key == "keep.gap")
    changed = plan(applied(made.project, kept.edit)).panel("front").choices
    assert changed.quilt_zones[0].quilting.spacing == "keep"
    assert changed.quilting.spacing == "divide"


@pytest.mark.parametrize(
    ("spacing", "run", "now"),
    [
        ("divide", "upright", "divide.line"),
        ("keep", "upright", "keep.line"),
        ("hit", "upright", "divide.line"),  # strips lie level: there is no seam to hit
        ("clear", "upright", "divide.line"),
        ("hit", "level", "hit"),
        ("clear", "level", "clear"),
    ],
)
def test_the_way_in_which_lines_come_out_now_is_marked(spacing, run, now):
    made = plan(with_front(tote(), ("quilting.spacing", spacing), ("quilting.run", run)))
    marked = [offer.key for offer in offers(made, made.panel("front"), 0) if offer.now]
    assert marked == [now]
