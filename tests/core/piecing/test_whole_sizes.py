"""Bags at which the strips come out whole, and one row more or fewer."""

import pytest

from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.acts.whole import row_step, whole_sizes
from tessil.core.plan import plan
from tests.conftest import tote, with_front

F = Fraction


@pytest.mark.parametrize("run", ["level", "upright"])
def test_a_whole_size_takes_just_so_many_strips_and_leaves_under_a_mark(run):
    made = plan(with_front(tote(), ("piecing.run", run)))
    sizes = whole_sizes(made)
    assert len(sizes) == 5
    for size in sizes:
        after = plan(applied(made.project, size.edit))
        strips = after.panel("front").strips
        assert strips.number.whole == size.number
        assert strips.surplus.value < F(1, 2)
        assert [f.value for f in after.bag.finished] == [f.value for f in size.finished]


def test_one_row_more_is_one_strip_higher():
    made = plan(tote())
    more, fewer = row_step(made, 1), row_step(made, -1)
    shows = made.panel("front").strips.shows.value
    grown = more.finished[1].value - fewer.finished[1].value
    assert abs(grown - 2 * shows) < F(1, 4)


def test_strips_by_number_have_no_whole_sizes():
    made = plan(with_front(tote(), ("piecing.fixed", "count")))
    assert whole_sizes(made) == ()
    assert row_step(made, 1) is None
