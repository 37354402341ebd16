"""Strips: counts, widths, surplus and what the edges still show."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import given as chosen
from tessil.core.piecing.choice import Piecing
from tessil.core.piecing.strips import Need, cut_across, joining_of, plan_joined, strips_for
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import tote, with_front

F = Fraction
MARKS = rulers("inch")
QUARTER = chosen("seam", F(1, 4))


def _strips(target, **choice):
    need = Need(chosen("need", F(target)), chosen("along", F(15)), QUARTER, "panels.front.piecing")
    return plan_joined(joining_of(Piecing(**choice)), need, MARKS)


def test_enough_strips_and_the_surplus():
    strips = _strips(F(25, 2), strip_cut=F(5, 2))
    assert strips.number.whole == 6
    assert strips.across.value == F(25, 2)
    assert strips.surplus.value == 0
    assert _strips(13, strip_cut=F(5, 2)).number.whole == 7


def test_recut_comes_out_at_or_just_over():
    strips = _strips(13, strip_cut=F(5, 2), surplus="recut")
    assert strips.number.whole == 7
    assert F(13) <= strips.across.value < F(13) + 7 * F(1, 8)


def test_a_chosen_number_gives_the_width():
    strips = _strips(13, fixed="count", count=5)
    assert strips.number.whole == 5
    assert strips.cut.value == 3
    assert strips.across.value == 13


@pytest.mark.parametrize(
    ("choice", "field", "says"),
    [
        ({"strip_cut": F(1, 2)}, "strip_cut", "two seams"),
        ({"strip_cut": F(3, 8)}, "strip_cut", "two seams"),
        ({"fixed": "count", "count": 200}, "count", "use 50 at most"),
    ],
)
def test_strips_that_vanish_are_refused(choice, field, says):
    with pytest.raises(CannotPlan, match=says) as trouble:
        _strips(13, **choice)
    assert trouble.value.field.endswith(field)


def test_five_hundred_strips_are_refused_by_the_field():
    with pytest.raises(ValueError, match="1 to 200"):
        Piecing(count=500)


@given(st.integers(8, 400), st.integers(0, 80), st.integers(7, 40))
def test_a_longer_target_never_needs_fewer_strips(eighths, more, cut):
    width = chosen("cut", F(cut, 8))
    first = strips_for(chosen("t", F(eighths, 8)), width, QUARTER)
    second = strips_for(chosen("t", F(eighths + more, 8)), width, QUARTER)
    assert second.value >= first.value


@given(st.integers(20, 400), st.integers(7, 40))
def test_the_count_is_the_least_that_reaches(eighths, cut):
    target, width = F(eighths, 8), F(cut, 8)
    number = strips_for(chosen("t", target), chosen("w", width), QUARTER).whole

    def made(n):
        return n * (width - F(1, 2)) + F(1, 2)

    assert made(number) >= target
    assert number == 1 or made(number - 1) < target


def test_bands_cover_the_top_without_gap_or_overlap():
    strips = _strips(13, strip_cut=F(5, 2))
    bands = strips.bands(F(1, 4))
    assert bands[0][0] == 0
    assert bands[-1][1] == strips.across.value
    assert all(a[1] == b[0] for a, b in pairwise(bands))


def test_upright_strips_stack_across_the_width():
    made = plan(with_front(tote(), ("piecing.run", "upright")))
    front = made.panel("front")
    assert front.pieced.width.value == front.strips.across.value
    assert front.pieced.height.value == front.needed.height.value


def test_strip_sets_are_shared_by_panels_of_like_strips():
    made = plan(with_front(tote(bags=2), ("piecing.strip_sets", True)))
    (group,) = made.sets
    assert [panel.key for panel in group.panels] == ["front", "back"]
    assert group.per_set.whole == 2
    assert group.sets.whole == 2
    assert group.left.value == 40 - 2 * F(63, 4)
    full = [item for item in made.items if item.what == "strip for a set"]
    assert {item.width.value for item in full} == {F(40)}


def test_sets_take_unlike_lengths_together():
    rows = cut_across(F(41), [("front", F(14), 2), ("pocket", F(7), 1)])
    assert len(rows) == 1
    assert rows[0].times == 1
    assert rows[0].left == 6


def test_trimming_one_side_keeps_the_first_strip_whole():
    one = plan(with_front(tote(), ("piecing.strip_cut", F(15, 4)), ("piecing.surplus", "one")))
    both = plan(with_front(tote(), ("piecing.strip_cut", F(15, 4))))
    off_one, off_both = one.panel("front").cut_off, both.panel("front").cut_off
    assert off_one["top"].value < off_one["bottom"].value
    assert off_both["top"].value == off_both["bottom"].value
    assert off_one["top"].value + off_one["bottom"].value == sum(
        off_both[side].value for side in ("top", "bottom")
    )


def _terms(figure):
    """The summands of a sum of sums."""
    return [one for part in figure.args for one in _terms(part)] if figure.args else [figure]


@pytest.mark.parametrize(
    ("across", "widths", "numbers"),
    [
        (F(25, 2), (F(5, 2),), [6]),  # check value: six of 2½ are 12½
        (F(25, 2), (F(5, 2), F(7, 2)), [3, 2]),  # 2, 3, 2, 3, 2 and ½
        (13, (F(5, 2), F(7, 2)), [3, 3]),
    ],
)
def test_widths_in_turn_are_enough_as_soon_as_they_reach(across, widths, numbers):
    made = _strips(across, fixed="mixed", widths=widths)
    assert made.number.whole == sum(numbers)
    if len(numbers) > 1:
        assert [one.whole for one in _terms(made.number)] == numbers
