"""Lines drawn, moved, left out and put back, by value: upright channels 7⁄6 apart on a front of
14¾ × 13⅞; a line runs ½ beyond the trim at both ends."""

import pytest

from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.acts.byhand import add_line, hand_number, leave_out, move_line, put_back
from tessil.core.quilting.choice import MOST_DRAWN, DrawnLine
from tests.conftest import tote, with_front

F = Fraction


@pytest.fixture(scope="module")
def made():
    return plan(tote())


def _quilting(made, change):
    return applied(made.project, change).panels["front"].quilting


@pytest.mark.parametrize(
    ("one", "other", "drawn"),
    [
        # within 4° of level: level, half way between
        ((1.0, 2.0), (9.0, 2.5), (1, F(9, 4), 9, F(9, 4))),
        ((9.0, 2.5), (1.0, 2.0), (9, F(9, 4), 1, F(9, 4))),
        # 4.3° is a slant
        ((1.0, 2.0), (9.0, 2.6), (1, 2, 9, F(21, 8))),
        ((3.0, 1.0), (3.5, 9.0), (F(13, 4), 1, F(13, 4), 9)),
        ((3.0, 1.0), (3.6, 9.0), (3, 1, F(29, 8), 9)),
        ((1.03, 2.04), (5.0, 6.07), (1, 2, 5, F(49, 8))),
    ],
)
def test_a_line_is_drawn_to_the_rulers_marks(made, one, other, drawn):
    change = add_line(made, made.panel("front"), one, other)
    assert change.words == "Draw a line"
    (line,) = _quilting(made, change).drawn
    assert (line.x1, line.y1, line.x2, line.y2) == drawn


@pytest.mark.parametrize(("long", "lines"), [(0.24, 0), (0.25, 1)])
def test_a_dot_is_no_line(made, long, lines):
    change = add_line(made, made.panel("front"), (1.0, 1.0), (1.0 + long, 1.0))
    assert len(_quilting(made, change).drawn if change.changes else ()) == lines


def test_there_are_lines_enough_at_two_hundred():
    line = DrawnLine(x1=F(1), y1=F(1), x2=F(5), y2=F(5))
    full = with_front(tote(), ("quilting.drawn", (line,) * (MOST_DRAWN - 1)))
    made = plan(full)
    once = plan(applied(full, add_line(made, made.panel("front"), (1.0, 2.0), (9.0, 9.0))))
    assert len(once.panel("front").choices.quilting.drawn) == MOST_DRAWN == 200
    with pytest.raises(ValueError, match=r"So many lines by hand are enough: 200 at most\."):
        add_line(once, once.panel("front"), (1.0, 2.0), (9.0, 9.0))


def test_a_patterns_line_moves_square_to_itself_and_is_then_by_hand(made):
    """The sixth lies on the centre, 7⅜: by 1 to the right and 3 down it goes to 8⅜."""
    front = made.panel("front")
    middle = next(line for line in front.quilt.lines if line.points[0][0] == pytest.approx(7.375))
    change, key = move_line(made, front, middle.key, (1.0, 3.0))
    assert key == "drawn.0"
    quilting = _quilting(made, change)
    assert quilting.left_out == (middle.key,)
    (line,) = quilting.drawn
    assert (line.x1, line.x2) == (F(67, 8), F(67, 8))
    assert sorted((line.y1, line.y2)) == [F(-1, 2), F(115, 8)]
    moved = plan(applied(made.project, change))
    again, same = move_line(moved, moved.panel("front"), "drawn.0", (-0.5, 0.0))
    assert same == "drawn.0"
    (line,) = _quilting(moved, again).drawn
    assert line.x1 == F(63, 8)
    assert _quilting(moved, again).left_out == (middle.key,)


def test_what_is_not_there_does_not_move(made):
    change, key = move_line(made, made.panel("front"), "nothing", (1.0, 0.0))
    assert (change.changes, key) == ((), "nothing")


def test_lines_are_left_out_and_all_put_back(made):
    front = made.panel("front")
    key = front.quilt.lines[2].key
    less = plan(applied(made.project, leave_out(made, front, key)))
    assert less.panel("front").choices.quilting.left_out == (key,)
    assert len(less.panel("front").quilt.lines) == 10
    drawn = plan(applied(less.project, add_line(less, less.panel("front"), (1.0, 2.0), (9.0, 9.0))))
    both = drawn.panel("front").choices.quilting
    assert (len(both.drawn), len(both.left_out)) == (1, 1)
    whole = _quilting(drawn, put_back(drawn, drawn.panel("front")))
    assert (whole.drawn, whole.left_out) == ((), ())
    gone = _quilting(drawn, leave_out(drawn, drawn.panel("front"), "drawn.0"))
    assert (gone.drawn, gone.left_out) == ((), (key,))


@pytest.mark.parametrize(
    ("key", "number"), [("drawn.0", 0), ("drawn.17", 17), ("0.a.3", None), ("drawn", None)]
)
def test_lines_by_hand_are_known_by_their_name(key, number):
    if key == "drawn":
        with pytest.raises(ValueError, match="invalid literal"):
            hand_number(key)
    else:
        assert hand_number(key) == number
