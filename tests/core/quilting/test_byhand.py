"""Lines under the hand: drawn, moved, left out, put back; and what a slider tries out."""

import itertools

import pytest

from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.acts.byhand import add_line, hand_number, leave_out, move_line, put_back
from tessil.core.quilting.choice import MOST_DRAWN
from tests.conftest import tote, with_front

F = Fraction


def _taken(project):
    made = plan(project)
    return made, made.panel("front")


def test_a_line_nearly_level_is_drawn_level_on_ruler_marks():
    made, front = _taken(tote())
    project = applied(tote(), add_line(made, front, (1.03, 4.0), (9.02, 4.2)))
    (line,) = project.panels["front"].quilting.drawn
    assert line.y1 == line.y2 == F(33, 8)
    assert (line.x1, line.x2) == (F(1), F(9))
    slanted = applied(tote(), add_line(made, front, (1, 1), (4, 6)))
    (line,) = slanted.panels["front"].quilting.drawn
    assert (line.x2, line.y2) == (4, 6)


def test_a_dot_is_no_line_and_too_many_are_refused():
    made, front = _taken(tote())
    assert add_line(made, front, (3, 3), (3.05, 3.05)).changes == ()
    drawn = [{"x1": F(1), "y1": F(1), "x2": F(5), "y2": F(5)}] * MOST_DRAWN
    made, front = _taken(with_front(tote(), ("quilting.drawn", tuple(drawn))))
    with pytest.raises(ValueError, match=f"{MOST_DRAWN} at most"):
        add_line(made, front, (1, 1), (5, 6))


def test_a_pattern_line_that_is_moved_is_drawn_by_hand_where_it_was_put():
    made, front = _taken(tote())
    line = front.quilt.lines[2]
    change, key = move_line(made, front, line.key, (0.52, 3.0))
    assert key == "drawn.0"
    after = plan(applied(tote(), change)).panel("front")
    assert len(after.quilt.lines) == len(front.quilt.lines)
    assert after.quilt.line(line.key) is None
    moved = after.quilt.line("drawn.0")
    was = round(line.points[0][0] * 8) / 8  # on the ruler now
    assert moved.points[0][0] == pytest.approx(was + 0.5, abs=1 / 8)


def test_a_line_by_hand_is_moved_as_it_is():
    made, front = _taken(tote())
    project = applied(tote(), add_line(made, front, (2, 5), (9, 5)))
    made, front = _taken(project)
    change, key = move_line(made, front, "drawn.0", (4.0, -1.0))
    (line,) = applied(project, change).panels["front"].quilting.drawn
    assert key == "drawn.0"
    assert (line.y1, line.x1) == (4, 2)  # square to itself only


def test_slanted_lines_keep_their_slant():
    project = with_front(tote(), ("quilting.pattern", "diagonal"))
    made, front = _taken(project)
    line = front.quilt.lines[3]
    change, key = move_line(made, front, line.key, (1.0, 0.0))
    moved = plan(applied(project, change)).panel("front").quilt.line(key)
    (x1, y1), (x2, y2) = moved.points
    assert (y1 - y2) / (x2 - x1) == pytest.approx(1, abs=1e-3)


def test_leaving_out_and_putting_back():
    made, front = _taken(tote())
    key = front.quilt.lines[0].key
    fewer = applied(tote(), leave_out(made, front, key))
    assert fewer.panels["front"].quilting.left_out == (key,)
    made, front = _taken(fewer)
    both = applied(fewer, add_line(made, front, (2, 5), (9, 5)))
    made, front = _taken(both)
    gone = applied(both, leave_out(made, front, "drawn.0"))
    assert gone.panels["front"].quilting.drawn == ()
    back = applied(both, put_back(made, front))
    assert back.panels["front"].quilting == tote().panels["front"].quilting
    assert (hand_number("drawn.7"), hand_number("0.a.3")) == (7, None)


def test_rings_stay_where_they_are():
    project = with_front(tote(), ("quilting.pattern", "echo"))
    made, front = _taken(project)
    change, key = move_line(made, front, front.quilt.lines[0].key, (1, 1))
    assert (change.changes, key) == ((), front.quilt.lines[0].key)


def test_measured_draw_in_moves_the_lines_with_the_panel():
    from tessil.core.choosing import measure
    from tessil.core.panels.choice import Got

    project = tote()
    plain = plan(project).panel("front")
    wide = plain.expected.width.value * F(99, 100)
    got = Got(width=wide, height=plain.expected.height.value)
    after = plan(applied(project, measure(project, "front", "quilted", got))).panel("front")
    before = plain.quilt.sets[0].offsets
    steps = [b - a for a, b in itertools.pairwise(before)]
    now = after.quilt.sets[0].offsets
    assert now[1] - now[0] == pytest.approx(steps[0] * 0.99, abs=1e-5)
    assert sum(now) / len(now) == pytest.approx(sum(before) / len(before))
