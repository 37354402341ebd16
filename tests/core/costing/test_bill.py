"""What the shopping list comes to, what else could be bought, what the shelf gives."""

import pytest

from tessil.core.costing.acts.bill import (
    QUARTER,
    bill_of,
    bill_readings,
    other_words,
    others_of,
    thing_of,
    told_bill,
)
from tessil.core.costing.acts.cost import things_of
from tessil.core.costing.prices import PriceList
from tessil.core.cutting.acts.shopping import Line, shopping
from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given
from tessil.core.plan import plan
from tessil.core.shelf.acts import prices_of, serving, used_up
from tessil.core.shelf.rows import Row, Shelf
from tests.conftest import tote

F = Fraction


@pytest.fixture(scope="module")
def bought():
    """A tote's list, its cloth planned from the bolt."""
    made = plan(tote())
    lots = lots_of([made])
    found = spreads_of(plan_whole(lots, (), made.marks, 0.0), lots)
    return made, found.spreads, tuple(shopping(found.spreads, [made], made.marks.notation))


def test_each_line_is_its_amount_at_its_price(bought):
    _, spreads, lines = bought
    prices = PriceList({"cloth red": F(12, 36), "thread": F(1, 1000)}, {})
    bill = bill_of(lines, prices)
    costs = {line.what: cost for line, cost in bill.lines}
    (red,) = (one.sheet for one in spreads if one.lot.stock == "red")
    assert costs["Red dots"].value == (red.length + red.trim) * F(12, 36)
    assert costs["Oat plain"] is None
    assert "Oat plain" in bill.missing
    assert bill.total.value == sum(cost.value for cost in costs.values() if cost)
    (reading,) = bill_readings(bill, True)
    assert "no price yet" in reading.about
    (bare,) = bill_readings(bill, False)
    assert "cutting is not planned" in bare.about
    told = {line.what: line.cost for line in told_bill(bill, lambda value: f"{float(value):.2f}")}
    assert told["Red dots"] == f"{float(costs['Red dots'].value):.2f}"
    assert told["Oat plain"] == ""
    assert list(bill_readings(bill_of(lines, PriceList({}, {})), True)) == []


def test_a_list_and_the_costs_call_things_by_one_key(bought):
    made, _, lines = bought
    keys = {one.key for one in things_of(made)}
    assert {thing_of(line).key for line in lines} == keys


def test_fat_quarters_hold_the_pieces_and_their_price_is_compared(bought):
    made, spreads, _ = bought
    prices = PriceList({"cloth red": F(12, 36), "fat quarter": F(3)}, {})
    found = {one.name: one for one in others_of(spreads, prices, made.marks.notation)}
    assert "Cotton batting" not in found
    red = found["Red dots"]
    (sheet,) = (one.sheet for one in spreads if one.lot.stock == "red")
    area = sum(one.box.w * one.box.h for s in spreads if s.lot.stock == "red" for one in s.pieces)
    assert area <= red.number * 21 * 18
    assert red.dearer == 3 * red.number - (sheet.length + sheet.trim) * F(12, 36)
    words = other_words(red, made.marks.notation, lambda value: f"{float(value):.2f}")
    assert words.startswith(f"{red.number} fat quarter")
    assert ("dearer" in words) == (red.dearer >= 0)
    assert found["Blue checks"].dearer is None
    assert list(others_of(spreads, prices, made.marks.notation, lambda far: False)) == []


def line(kind, amount, size=None, power=0):
    return Line("x", "", "", kind, size, figure=given("x", F(amount), Basis.GEOMETRY, power))


def test_what_the_list_takes_goes_from_the_shelf():
    shelf = Shelf(
        rows=(
            Row(id="long", kind="zipper", name="navy", length=F(22), number=2),
            Row(id="near", kind="zipper", name="oat", length=F(12), number=1),
            Row(id="short", kind="zipper", name="plum", length=F(9), number=5),
            Row(id="ring", kind="ring", name="1 in", number=6),
            Row(id="wide", kind="ring", name="1 1/2 in", number=3),
            Row(id="cord", kind="cord", name="navy", length=F(90), number=2),
        )
    )
    wanted = [line("zipper", 2, F(12)), line("ring", 4, F(1)), line("cord", 100, power=1)]
    assert [row.id for row in serving(shelf, wanted[1])] == ["ring"]
    after = used_up(shelf, wanted)
    left = {row.id: (row.number, row.length) for row in after.rows}
    assert left["near"][0] == 0  # the smallest that does goes first
    assert left["long"][0] == 1
    assert left["short"][0] == 5
    assert left["ring"][0] == 2
    assert left["wide"][0] == 3
    assert left["cord"] == (0, 90)
    assert left["cord-rest"] == (1, 80)
    assert used_up(shelf, [line("snap", 3)]) == shelf


def test_a_quarter_costs_what_was_paid_for_the_last(bought):
    made, _, _ = bought
    shelf = Shelf(
        rows=(
            Row(id="a", kind="fat quarter", name="Any", price=2.6, date="2026-03-01"),
            Row(id="b", kind="fat quarter", name="Other", price=3.1, date="2026-05-01"),
        )
    )
    assert prices_of(shelf, (QUARTER,), made) == {"fat quarter": F(31, 10)}
