"""What a batch shares, what a job keeps, what a coupon takes, how much smaller a bag must be
(sums by hand; common practice, no source)."""

from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.brief.choice import ShapeChoice
from tessil.core.costing.acts.bill import Bill, bill_of
from tessil.core.costing.prices import PriceList
from tessil.core.cutting.acts.shopping import Line
from tessil.core.edges.binding import pooled
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import count
from tessil.core.numbers.workings import given as given_
from tessil.core.plan import plan
from tessil.core.shelf.acts import kept_for
from tessil.core.shelf.rows import Keeper, Row, Shelf
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def long(value):
    return given_("length", F(value))


def strips(made, kind, what):
    (item,) = [i for i in made.items if i.owner.kind == kind and i.what == what]
    return item.number.whole


@pytest.mark.parametrize(
    ("length", "number", "usable", "takes", "expect"),
    [
        (60, 1, 40, 6, 2),  # one strap: 60 − 6 over 34
        (60, 2, 40, 6, 4),  # 120 − 6 over 34 is 3.35
        (60, 6, 40, 6, 11),  # 360 − 6 over 34 is 10.4, not 6 × 2
        (30, 4, 40, 2, 4),  # 120 − 2 over 38 is 3.1
        (10, 1, 40, 2, 1),
    ],
)
def test_strips_joined_across_bags(length, number, usable, takes, expect):
    found = pooled(long(length), count("bags", number), long(usable), long(takes))
    assert found.value == expect


@given(st.integers(5, 200), st.integers(1, 60), st.integers(30, 60), st.integers(1, 8))
def test_they_reach_and_one_fewer_does_not(length, number, usable, takes):
    n = pooled(long(length), count("bags", number), long(usable), long(takes)).whole
    assert n * usable - (n - 1) * takes >= length * number
    if n > 1:
        assert (n - 1) * usable - (n - 2) * takes < length * number


@pytest.mark.parametrize("bags", [1, 2, 5, 9])
def test_a_batch_takes_no_more_strips_than_its_bags_alone(bags):
    one, many = plan(tote()), plan(tote(bags=bags))
    alone, together = (strips(made, "edge", "binding strip") for made in (one, many))
    assert together <= bags * alone
    binding = many.binding
    usable, cut = many.project.stock.usable_width, binding.cut.value
    assert together == max(ceil((bags * binding.length.value - cut) / (usable - cut)), 1)


def test_strips_in_hand_are_counted_bag_by_bag():
    base = tote(bags=3)
    binding = base.binding.model_copy(update={"strips_on_hand": 2})
    made = plan(base.model_copy(update={"binding": binding}))
    assert strips(made, "edge", "binding strip") == 3 * made.binding.strips.whole


def test_half_strips_of_straps_are_shared():
    """Straps of 60 from cloth 40 wide take two strips each; six of them eleven."""
    shape = ShapeChoice(kind="satchel", sizes={"strap_length": F(60), "strap_width": F(3, 2)})
    made = plan(project_of("satchel", shape=shape, bags=6))
    (item,) = [i for i in made.items if i.owner.keys == ("strap",) and i.what == "strip to fold"]
    assert made.project.stock.usable_width == 40
    assert item.number.whole == 11


# -- kept for a job -------------------------------------------------------------------------


def shelf(number):
    return Shelf(rows=(Row(id="oat", name="oat plain", width=F(21), length=F(18), number=number),))


def test_of_a_row_only_what_is_taken_is_kept():
    kept = kept_for(shelf(6), ("oat#1", "oat#2"), Keeper("job-1", "Kit"))
    mine, free = kept.rows
    assert (mine.id, mine.number, mine.kept_by) == ("oat", 2, "job-1")
    assert (free.number, free.kept_by, free.kept_for) == (4, "", "")
    assert free.id != "oat"
    assert (free.width, free.length, free.name) == (21, 18, "oat plain")


def test_a_row_that_is_taken_whole_is_kept_whole():
    kept = kept_for(shelf(2), ("oat#1", "oat#2"), Keeper("job-1", "Kit"))
    assert [(row.number, row.kept_by) for row in kept.rows] == [(2, "job-1")]


def test_two_jobs_keep_parts_of_one_row():
    first = kept_for(shelf(5), ("oat#1",), Keeper("a", "A"))
    other = next(row for row in first.rows if not row.kept_by)
    both = kept_for(first, (f"{other.id}#1", f"{other.id}#2"), Keeper("b", "B"))
    assert sorted((row.kept_by, row.number) for row in both.rows) == [("", 2), ("a", 1), ("b", 2)]


# -- a coupon -------------------------------------------------------------------------------


def bill(coupon) -> Bill:
    line = Line(
        what="Oat", amount="1 yd", about="", stock=("oat", False), figure=given_("oat", F(36))
    )
    return bill_of((line,), PriceList({"cloth oat": F(1, 4)}, {}), coupon)


def test_a_coupon_takes_its_share_of_the_list():
    """36 in at 0.25 are 9; a fifth less is 7.20."""
    assert bill(F(0)).total.value == 9
    assert bill(F(1, 5)).total.value == F(36, 5)


# -- larger than any stock by a hair --------------------------------------------------------


def test_a_panel_a_hair_too_wide_says_how_much_smaller_the_bag_must_be():
    base = project_of("free-panel")
    sizes = {"width": F(42), "height": F(44)}
    shape = ShapeChoice(kind="free-panel", sizes=sizes, options={"edge": "bound"})
    project = base.model_copy(update={"shape": shape})
    whole = {
        key: own.model_copy(update={"piecing": own.piecing.model_copy(update={"way": "whole"})})
        for key, own in project.panels.items()
    }
    made = plan(project.model_copy(update={"panels": whole}))
    snag = next(one for one in made.snags if one.key.startswith("cut.wide"))
    fix = next(one for one in snag.fixes if "narrower" in one.words)
    after = plan(applied(made.project, fix))
    assert after.bag.finished[0].value < 42
    assert not [one for one in after.snags if one.key == snag.key]
