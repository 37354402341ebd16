"""Every pattern: where its lines lie, that they keep to their part, and come out as chosen."""

from itertools import pairwise
from math import cos, hypot, radians, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import given as chosen
from tessil.core.plan import plan
from tessil.core.quilting.acts.minding import offers
from tessil.core.quilting.choice import DrawnLine, QuiltZone
from tessil.core.quilting.clip import segments
from tessil.core.quilting.patterns import PATTERNS
from tessil.core.quilting.quilt import sewn_outline
from tessil.core.quilting.seams import seam_runs
from tessil.core.quilting.sewing import swatch_plan
from tessil.core.sandwich.choice import Ply
from tessil.core.trimming.choice import Mark
from tessil.core.trouble import CannotPlan
from tessil.core.words.steps import told
from tests.conftest import tote, with_front

F = Fraction
EVERY = tuple(key for key in PATTERNS if key != "none")


def _front(*changes, project=None):
    return plan(with_front(project or tote(), *changes)).panel("front")


def _squares():
    return with_front(tote(), ("piecing.way", "squares"), ("piecing.square", F(5, 2)))


@pytest.mark.parametrize("pattern", EVERY)
def test_every_pattern_has_lines_that_reach_past_the_trim_and_no_further_than_the_batting(pattern):
    front = _front(("quilting.pattern", pattern))
    width, height = front.trimmed.floats()
    assert front.quilt.lines
    assert front.sewing.lines.value == len(front.quilt.lines)
    beyond = front.quilt.beyond
    for line in front.quilt.lines:
        for x, y in line.points:
            assert -beyond - 1e-6 <= x <= width + beyond + 1e-6
            assert -beyond - 1e-6 <= y <= height + beyond + 1e-6
    if pattern in ("channels", "grid", "ditch", "offset"):
        assert 0 < beyond <= float(front.choices.quilting.run_off)
        runs = [y for line in front.quilt.lines for _, y in line.points]
        xs = [x for line in front.quilt.lines for x, _ in line.points]
        assert min(*runs, *xs) == pytest.approx(-beyond)


def test_a_grid_has_two_sets_each_with_its_own_gap():
    front = _front(
        ("quilting.pattern", "grid"),
        ("quilting.gap", F(1)),
        ("quilting.gap_other", F(2)),
        ("quilting.spacing", "keep"),
    )
    upright, level = front.quilt.sets
    assert (upright.angle, level.angle) == (90.0, 0.0)
    assert (upright.gap.value, level.gap.value) == (1, 2)
    assert upright.lines.value > level.lines.value


@pytest.mark.parametrize("angle", [5, 30, 45, 60, -45, 85])
def test_slanted_lines_rise_as_said_and_lie_a_gap_apart(angle):
    front = _front(
        ("quilting.pattern", "diagonal"),
        ("quilting.angle", angle),
        ("quilting.spacing", "keep"),
        ("quilting.gap", F(3, 2)),
    )
    normal = sin(radians(angle)), cos(radians(angle))
    offsets = []
    for line in front.quilt.lines:
        (x1, y1), (x2, y2) = line.points
        assert (y1 - y2) / (x2 - x1) == pytest.approx(sin(radians(angle)) / cos(radians(angle)))
        offsets.append(x1 * normal[0] + y1 * normal[1])
    steps = sorted(offsets)
    assert all(b - a == pytest.approx(1.5) for a, b in pairwise(steps))


def test_diamonds_are_the_same_lines_both_ways():
    front = _front(("quilting.pattern", "diamonds"), ("quilting.angle", -60))
    rising, falling = front.quilt.sets
    assert (rising.angle, falling.angle) == (60.0, -60.0)
    assert rising.lines.value == falling.lines.value
    assert front.draw.lean is None or front.draw.lean.expected.value == 0


@pytest.mark.parametrize("angle", [720, 91, 0, 90, 2, "much"])
def test_angles_that_are_none_are_refused_in_words(angle):
    with pytest.raises(ValueError, match=r"degrees|lie level|stand upright|run out"):
        with_front(tote(), ("quilting.angle", angle))


def test_in_the_ditch_every_line_lies_on_a_seam():
    front = _front(("quilting.pattern", "ditch"), project=_squares())
    seams = {(run.angle, run.offset) for run in front.quilt.seams}
    for line in front.quilt.lines:
        entry = front.quilt.sets[line.group]
        assert (
            min(abs(line.offset - offset) for angle, offset in seams if angle == entry.angle) < 2e-3
        )
    assert {entry.angle for entry in front.quilt.sets} == {0.0, 90.0}


def test_beside_the_seams_there_are_two_lines_a_seam():
    ditch = _front(("quilting.pattern", "ditch"), project=_squares())
    beside = _front(
        ("quilting.pattern", "offset"), ("quilting.offset", F(1, 4)), project=_squares()
    )
    assert len(beside.quilt.lines) == 2 * len(ditch.quilt.lines)
    for line in beside.quilt.lines:
        entry = beside.quilt.sets[line.group]
        near = min(
            abs(line.offset - run.offset) for run in beside.quilt.seams if run.angle == entry.angle
        )
        assert near == pytest.approx(0.25, abs=2e-3)


def test_echo_rings_lie_a_gap_apart_inside_the_seam_lines():
    front = _front(("quilting.pattern", "echo"), ("quilting.gap", F(1)))
    boxes = []
    for line in front.quilt.lines:
        assert line.closed
        xs = [x for x, _ in line.points]
        boxes.append((min(xs), max(xs)))
    first = boxes[0][0]
    assert first > float(front.shown["left"])
    assert all(inner[0] - outer[0] == pytest.approx(1) for outer, inner in pairwise(boxes))
    with pytest.raises(CannotPlan, match="No echo"):
        _front(("quilting.pattern", "echo"), ("quilting.gap", F(9)))


def test_a_part_of_its_own_keeps_its_lines_to_itself():
    zone = QuiltZone(starts=F(6)).model_copy(
        update={"quilting": _front().choices.quilting.model_copy(update={"pattern": "grid"})}
    )
    front = _front(("quilting.pattern", "diagonal"), ("quilt_zones", (zone,)))
    upper = [line for line in front.quilt.lines if front.quilt.sets[line.group].zone == 0]
    lower = [line for line in front.quilt.lines if front.quilt.sets[line.group].zone == 1]
    assert upper
    assert lower
    assert max(y for line in upper for _, y in line.points) <= 6 + 1e-6
    assert min(y for line in lower for _, y in line.points) >= 6 - 1e-6
    shares = [float(part.family.share.value) for part in front.draw.parts]
    assert shares[0] + shares[1] == pytest.approx(1)  # the upper set, and the upright of the grid


@pytest.mark.parametrize("starts", [F(1, 8), F(60)])
def test_a_part_must_begin_on_the_panel(starts):
    with pytest.raises(CannotPlan, match="begin below the one above it, and on the panel"):
        _front(("quilt_zones", (QuiltZone(starts=starts),)))


def test_lines_by_hand_are_sewn_as_drawn_and_counted():
    line = DrawnLine(x1=F(2), y1=F(3), x2=F(9), y2=F(3))
    front = _front(("quilting.pattern", "none"), ("quilting.drawn", (line,)))
    (sewn,) = front.quilt.lines
    assert sewn.key == "drawn.0"
    assert sewn.points == ((2.0, 3.0), (9.0, 3.0))
    assert front.sewing.length.value == 7
    assert front.draw.y.expected.value > 0  # one line takes a little of the height


def test_what_is_left_out_is_not_sewn():
    all_of_them = _front()
    key = all_of_them.quilt.lines[3].key
    fewer = _front(("quilting.left_out", (key,)))
    assert len(fewer.quilt.lines) == len(all_of_them.quilt.lines) - 1
    assert fewer.quilt.line(key) is None


def test_hitting_seams_puts_a_line_on_every_one():
    front = _front(
        ("quilting.pattern", "grid"),
        ("quilting.spacing", "hit"),
        ("quilting.gap", F(1)),
        project=_squares(),
    )
    cases = list(front.quilt.sets)
    assert cases
    for entry in cases:
        seams = [run.offset for run in front.quilt.seams if run.angle == entry.angle]
        inside = [s for s in set(seams) if 0.4 < s < float(front.trimmed.width.value) - 0.4]
        for seam in inside:
            assert min(abs(seam - offset) for offset in entry.offsets) < 2e-3
        assert float(entry.gap.value) == pytest.approx(1, abs=0.05)  # 2 in squares, halved


@given(st.integers(12, 40).map(lambda n: F(n, 16)))
def test_clearing_seams_keeps_the_gap_and_stays_as_far_off_as_it_can(gap):
    front = _front(("quilting.run", "level"), ("quilting.spacing", "clear"), ("quilting.gap", gap))
    plain = _front(("quilting.run", "level"), ("quilting.spacing", "keep"), ("quilting.gap", gap))

    def nearest(panel):
        low, high = panel.shown["top"], panel.trimmed.height.value - panel.shown["bottom"]
        seams = [r.offset for r in panel.quilt.seams if r.angle == 0.0 and low < r.offset < high]
        return min(abs(o - s) for s in seams for o in panel.quilt.sets[0].offsets)

    assert front.quilt.sets[0].gap.value == gap
    assert nearest(front) >= nearest(plain) - 0.04  # to a sixteenth


def test_every_offer_is_what_it_says_once_it_is_taken():
    made = plan(with_front(_squares(), ("quilting.pattern", "grid"), ("quilting.gap", F(5, 4))))
    found = offers(made, made.panel("front"), 0)
    assert [offer.key for offer in found if offer.now] == ["divide.line"]
    assert {"hit", "clear", "keep.gap"} <= {offer.key for offer in found}
    for offer in found:
        taken = plan(applied(made.project, offer.edit))
        front = taken.panel("front")
        assert front.quilt.sets[0].gap.value == pytest.approx(float(offer.gap.value), abs=0.01)
        now = offers(taken, front, 0)
        assert [entry.key for entry in now if entry.now] == [offer.key]
    hit = next(offer for offer in found if offer.key == "hit")
    assert hit.misses == 0


def test_offers_count_lines_that_would_go_through_hardware():
    window = Mark(kind="window", panel="front", x=F(4), y=F(3), width=F(6))
    made = plan(with_front(tote(marks=(window,)), ("quilting.gap", F(1))))
    now = next(offer for offer in offers(made, made.panel("front"), 0) if offer.now)
    inside = [o for o in made.panel("front").quilt.sets[0].offsets if 4 < o < 10]
    assert now.through == len(inside) > 0


def test_seams_are_found_where_pieces_face_each_other():
    left = ((0.0, 0.0), (2.0, 0.0), (2.0, 3.0), (0.0, 3.0))
    right = ((2.0, 0.0), (5.0, 0.0), (5.0, 1.0), (2.0, 1.0))
    low = ((2.0, 1.0), (5.0, 1.0), (5.0, 3.0), (2.0, 3.0))
    runs = seam_runs((left, right, low))
    assert [(run.angle, run.offset, run.length) for run in runs] == [
        (0.0, 1.0, pytest.approx(3)),
        (90.0, 2.0, pytest.approx(3)),
    ]


def test_lines_end_where_a_hollow_outline_does():
    notched = (
        (0.0, 0.0),
        (10.0, 0.0),
        (10.0, 4.0),
        (6.0, 4.0),
        (6.0, 2.0),
        (4.0, 2.0),
        (4.0, 4.0),
        (0.0, 4.0),
    )
    found = segments(notched, 0.0, [1.0, 3.0])
    assert [(at, one[0], other[0]) for at, (one, other) in found] == [
        (0, 0.0, 10.0),
        (1, 0.0, 4.0),
        (1, 6.0, 10.0),
    ]
    joined = segments(notched, 0.0, [3.0], beyond=1.0)  # both reach into the hollow and meet
    assert [(one[0], other[0]) for _, (one, other) in joined] == [(-1.0, 11.0)]


def test_corners_are_notched_after_quilting_so_lines_run_over_them():
    front = plan(tote()).panel("front")
    assert front.panel.notches
    assert len(sewn_outline(front.panel)) == 4
    lengths = {round(line.length, 6) for line in front.quilt.lines}
    assert len(lengths) == 1


def test_sewing_goes_from_the_middle_outwards_and_turns_every_line():
    front = _front(("quilting.pattern", "grid"))
    turns = front.sewing.order
    assert sorted(turn.line for turn in turns) == list(range(len(front.quilt.lines)))
    assert all(a.back != b.back for a, b in pairwise(turns))
    first = front.quilt.lines[turns[0].line]
    width, _ = front.trimmed.floats()
    assert abs(first.offset - width / 2) <= float(front.quilt.sets[0].gap.value)
    uprights = [
        front.quilt.lines[turn.line].offset
        for turn in turns
        if front.quilt.lines[turn.line].group == 0
    ]
    right = [offset for offset in uprights if offset >= width / 2 - 1e-6]
    assert right == sorted(right)


def test_thread_time_and_bobbins_follow_the_stitched_length():
    few, many = _front(("quilting.gap", F(2))), _front(("quilting.gap", F(1, 2)))
    for panel in (few, many):
        total = sum(line.length for line in panel.quilt.lines)
        assert float(panel.sewing.length.value) == pytest.approx(total, rel=1e-6)
        assert panel.sewing.thread.value == 2 * panel.sewing.top.value
    assert many.sewing.minutes.value > 3 * few.sewing.minutes.value
    small = plan(with_front(tote(machine=tote().machine.model_copy(update={"bobbin_m": 1}))))
    assert small.panel("front").sewing.bobbins.value == -(
        -small.panel("front").sewing.bobbin.value * 254 // 10000
    )


def test_longest_lines_are_as_long_as_the_diagonal():
    front = _front(("quilting.pattern", "diagonal"), ("quilting.run_off", F(0)))
    width, height = front.trimmed.floats()
    assert max(line.length for line in front.quilt.lines) <= hypot(width, height)


@pytest.mark.parametrize(
    ("units", "gap", "side", "rim"),
    [
        ("inch", F(1), "10 in", "9 in"),
        ("inch", F(3), "14 in", "13 in"),
        ("metric", F(250, 254), "25 cm", "23 cm"),
        ("metric", F(1, 2), "20 cm", "18 cm"),
    ],
)
def test_a_swatch_to_sew_is_a_round_size_in_either_unit(units, gap, side, rim):
    notation = rulers(units).notation
    made = swatch_plan(chosen("gap", gap), notation, "cotton batting", "upright lines")
    words = told(made.steps, notation)
    assert f"{side} square" in words[0]
    assert f"a square of {rim}" in words[1]


def test_a_metric_maker_has_metric_steps_short_of_the_seam():
    stiff = ("layers.plies", (Ply(material="stiff-interfacing", rule="short"),))
    project = with_front(tote(units="metric"), stiff, ("quilting.pattern", "none"))
    front = plan(project).panel("front")
    room = front.trimmed.width.value - front.shown["left"] - front.shown["right"]
    exact = room - 2 * F(3) / F(254, 10)
    mark = F(1) / F(254, 10)
    assert 0 <= exact - front.layers[1].width.value < mark
