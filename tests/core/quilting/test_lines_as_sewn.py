"""Lines cut to their part of the panel: by hand on a square of 10 with a bite out of its side."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import count, given
from tessil.core.plan import plan
from tessil.core.quilting.choice import DrawnLine
from tessil.core.quilting.readings import quilt_readings
from tessil.core.quilting.sets import LineSet, Region
from tessil.core.quilting.sewn import sewn_lines
from tessil.core.trimming.choice import Mark
from tests.conftest import plies, tote, with_front

F = Fraction
SQUARE = ((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0))
# between 4 and 6 nothing is left of the first seven inches from the left
BITTEN = (
    *((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)),
    *((0.0, 6.0), (7.0, 6.0), (7.0, 4.0), (0.0, 4.0)),
)


def region(outline=SQUARE, top=0, bottom=10, **more):
    return Region(0, F(0), F(10), F(top), F(bottom), outline, "quilting", **more)


def lines(angle, *offsets, **more):
    return LineSet(
        "a", 0, "", angle, given("gap", F(2)), count("lines", 2), offsets=offsets, **more
    )


def sewn(part, entry, beyond=0.0, left_out=()):
    return {
        line.key: line.points for line in sewn_lines(part, (entry,), 0, beyond, frozenset(left_out))
    }


def ends(points):
    return sorted((round(x, 3), round(y, 3)) for x, y in points)


def test_a_line_that_is_parted_has_a_name_for_each_part():
    found = sewn(region(BITTEN), lines(90.0, 2.0, 8.0))
    assert list(found) == ["a.0", "a.0.1", "a.1"]
    assert sorted(ends(found[key]) for key in ("a.0", "a.0.1")) == [
        [(2, 0), (2, 4)],
        [(2, 6), (2, 10)],
    ]
    assert ends(found["a.1"]) == [(8, 0), (8, 10)]


def test_lines_run_past_the_trim_and_not_past_another_part():
    assert ends(sewn(region(), lines(90.0, 5.0), 0.5)["a.0"]) == [(5, -0.5), (5, 10.5)]
    lower = region(top=4, first=False)
    low = sewn(lower, lines(90.0, 5.0), 0.5)["a.0"]
    assert min(y for _, y in low) >= 4
    assert max(y for _, y in low) == pytest.approx(10.5)


def test_what_is_left_out_is_not_sewn():
    assert list(sewn(region(), lines(0.0, 2.0, 4.0, 6.0), left_out=("a.1",))) == ["a.0", "a.2"]


def test_drawn_lines_keep_their_own_names_and_close_where_they_have_no_ends():
    ring = ((2.0, 2.0), (4.0, 2.0), (4.0, 4.0))
    entry = lines(0.0, drawn=(ring,), names=("star",))
    (line,) = sewn_lines(region(), (entry,), 0, 0.0, frozenset())
    assert (line.key, line.closed) == ("star", True)
    assert line.length == pytest.approx(2 + 2 + 8**0.5)
    open_ = lines(0.0, drawn=(ring,), ends=True)
    (line,) = sewn_lines(region(), (open_,), 0, 0.0, frozenset())
    assert (line.key, line.closed) == ("a.0", False)
    assert line.length == pytest.approx(4)


def test_a_drawn_line_across_the_bite_is_in_two():
    entry = lines(0.0, drawn=(((5.0, 1.0), (5.0, 9.0)),))
    found = sewn_lines(region(BITTEN), (entry,), 0, 0.0, frozenset())
    assert sorted(ends(line.points) for line in found) == [[(5, 1), (5, 4)], [(5, 6), (5, 9)]]


def test_slanted_sets_are_called_by_their_angle_with_a_true_minus():
    made = plan(with_front(tote(), ("quilting.pattern", "diamonds"), ("quilting.angle", F(30))))
    assert [entry.name for entry in made.panel("front").quilt.sets] == [
        "lines at 30°",
        "lines at −30°",
    ]
    assert [entry.key for entry in made.panel("front").quilt.sets] == ["0.a", "0.b"]


def test_a_line_by_hand_that_runs_through_a_window_is_taken_away_and_no_other():
    kept, through = (DrawnLine(x1=F(1), y1=y, x2=F(12), y2=y) for y in (F(10), F(5)))
    window = Mark(kind="window", panel="front", x=F(4), y=F(4), width=F(5), box=F(2))
    project = with_front(
        tote(marks=(window,)), ("quilting.pattern", "none"), ("quilting.drawn", (kept, through))
    )
    (snag,) = [one for one in plan(project).snags if one.key == "quilt.through.front.mark:0"]
    assert [fix.words for fix in snag.fixes] == ["Leave this line out"]
    assert applied(project, snag.fixes[0]).panels["front"].quilting.drawn == (kept,)


@pytest.mark.parametrize(
    ("gap", "centre", "number", "guided"),
    [(7, "line", 1, False), (5, "gap", 2, True), (4, "line", 3, True)],
)
def test_a_guide_bar_is_told_from_the_second_line_on(gap, centre, number, guided):
    """14 between the seam lines: two gaps of 7, three of 4⅔, four of 3½."""
    wishes = ("quilting.gap", F(gap)), ("quilting.centre", centre)
    made = plan(with_front(tote(), *wishes))
    front = made.panel("front")
    assert len(front.quilt.lines) == number
    told = {one.key: one.figure for one in quilt_readings(made, front)}
    assert ("quilt.guide" in told) == guided
    if guided:  # as far apart as they were before they were drawn in, on the bar's scale
        wide = front.quilt.sets[0].gap.value
        assert abs(told["quilt.guide"].value - wide) <= F(1, 16) + wide / 50
        assert told["quilt.guide"].value >= wide


def test_what_runs_every_way_counts_half_upright_and_half_level():
    front = plan(with_front(tote(), ("quilting.pattern", "echo"))).panel("front")
    told = [(entry.name, entry.angle, entry.share.value) for entry in front.quilt.sets]
    assert told == [("echo, upright", 90, F(1, 2)), ("echo, level", 0, F(1, 2))]


@pytest.mark.parametrize(("way", "offered"), [("model", True), ("fixed", False)])
def test_more_to_square_a_lean_with_is_left_only_by_the_model(way, offered):
    leaning = with_front(
        tote(),
        ("quilting.pattern", "diagonal"),
        ("quilting.gap", F(1, 2)),
        ("layers.plies", plies("polyester-batting")),
    )
    small = edit("", ("oversize.way", way), ("oversize.fixed", F(1, 4)))
    snag = next(one for one in plan(applied(leaning, small)).snags if one.key == "quilt.lean.front")
    words = [fix.words for fix in snag.fixes]
    assert words[0] == "Sew as many lines the other way"
    assert any(one.startswith("Leave ") for one in words) == offered
