"""What a bag costs, and what a price pays an hour, by hand sums."""

import pytest
from hypothesis import given as tried
from hypothesis import strategies as st

from tessil.core.costing.acts.cost import Heap, cost_of, materials_of, things_of
from tessil.core.costing.acts.hours import hours_of
from tessil.core.costing.acts.levers import best_first, each_lever, pay_of
from tessil.core.costing.acts.price import asked, kept, wage
from tessil.core.costing.acts.together import Member, Whole, whole_readings
from tessil.core.costing.choice import Pricing
from tessil.core.costing.prices import PriceList
from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.edits import applied, edit
from tessil.core.logbook.book import EMPTY
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given
from tessil.core.piecing.choice import Scrap
from tessil.core.plan import plan
from tessil.core.shelf.acts import prices_of
from tessil.core.shelf.rows import Row, Shelf
from tessil.core.trimming.choice import Mark
from tests.conftest import tote, with_front

F = Fraction


def money(value):
    return given("", F(value), Basis.CHOSEN, 0, "money")


def hours(value):
    return given("", F(value), Basis.CHOSEN, 0, "hours")


def test_twenty_of_materials_half_an_hour_sold_at_fifty_five():
    """Common practice, no source: 35 for half an hour are 70 an hour."""
    assert wage(money(55), money(20), hours(F(1, 2)), Pricing()).value == 70


def test_tax_is_on_top_of_the_price_without_it_and_fees_are_of_what_is_paid():
    """119 with 19 % of tax is 100 without; 5 % of 119 go in fees."""
    pricing = Pricing(vat=F(19, 100), fees=F(1, 20))
    assert kept(money(119), pricing).value == 100 - F(119, 20)
    assert kept(money(119), Pricing()).value == 119


shares = st.integers(0, 40).map(lambda n: F(n, 100))


@tried(st.integers(0, 200), st.integers(1, 40), st.integers(0, 60), shares, shares)
def test_the_price_by_a_wage_pays_that_wage(cost, quarters, wished, fees, vat):
    pricing = Pricing(wage=F(wished), fees=fees, vat=vat)
    time = hours(F(quarters, 4))
    price = asked(money(cost), time, pricing)
    assert wage(price, money(cost), time, pricing).value == wished


def test_profit_comes_on_top_of_cost_and_time():
    assert asked(money(20), hours(1), Pricing(wage=F(10), profit=F(1, 10))).value == 33


def test_where_fees_take_all_there_is_no_price():
    assert asked(money(20), hours(1), Pricing(fees=F(9, 10), vat=F(1, 4))).value == 0


PRICES = {
    "cloth red": F(12, 36),  # 12 a yard
    "cloth blue": F(9, 36),
    "cloth oat": F(6, 36),
    "material cotton-batting": F(18, 36),
    "thread": F(1, 1000),
}


def costs(made, prices=None, **changes):
    project = applied(made, edit("", *changes.items()))
    done = plan(project)
    materials = materials_of(done, PriceList(PRICES if prices is None else prices, {}), Heap())
    return done, materials


def test_cloth_costs_what_goes_into_the_bag():
    """Each piece's width × height × number over the cloth's width, at the price of an inch."""
    done, materials = costs(tote())
    for key in ("red", "blue", "oat"):
        area = sum(
            item.width.value * item.height.value * item.number.value
            for item in done.items
            if item.stock == key and not item.material
        )
        line = next(one for one in materials.lines if one.thing.key == f"cloth {key}")
        assert line.amount.value == area / done.project.stock.usable_width
        assert line.cost.value == line.amount.value * PRICES[f"cloth {key}"]
    assert materials.cost.value == sum(one.cost.value for one in materials.lines if one.cost)


def test_what_is_in_hand_and_scraps_that_are_free_cost_nothing():
    """A pocket of what is left over: of the oat only lining and binding are paid for."""
    pocket = Mark(kind="slip", panel="front", x=F(4), y=F(3), cloths="leftover")
    done, materials = costs(tote(marks=(pocket,)))
    hand = [item for item in done.items if item.in_hand]
    assert {item.stock for item in hand} == {"oat"}
    paid = sum(
        item.width.value * item.height.value * item.number.value
        for item in done.items
        if item.stock == "oat" and not item.in_hand and not item.material
    )
    line = next(one for one in materials.lines if one.thing.key == "cloth oat")
    assert line.amount.value == paid / done.project.stock.usable_width
    scraps = (Scrap(width=F(9), height=F(3), number=60, print="red"),)
    pieced = with_front(tote(scraps=scraps), ("piecing.way", "courses"))
    keys = [
        {one.thing.key for one in costs(pieced, **{"pricing.scraps_free": free})[1].lines}
        for free in (True, False)
    ]
    assert "cloth red" not in keys[0]
    assert "cloth red" in keys[1]


def test_opened_cloth_is_what_is_bought():
    done, materials = costs(tote(), **{"pricing.count": "opened"})
    bought = {one.stock: one.cloth.buy.value for one in done.bought}
    line = next(one for one in materials.lines if one.thing.key == "cloth red")
    assert line.amount.value == bought["red"]
    used = costs(tote())[1]
    assert materials.cost.value > used.cost.value


def test_with_a_plan_of_the_cuts_each_bag_has_its_share_of_what_is_opened():
    """Two bags of one job: their shares of a cloth are the whole cloth."""
    both = [plan(applied(tote(), edit("", ("pricing.count", "opened")))) for _ in range(2)]
    lots = lots_of(both)
    cutting = plan_whole(lots, (), both[0].marks, 0.0)
    found = spreads_of(cutting, lots)
    amounts = []
    for at, one in enumerate(both):
        lines = materials_of(one, PriceList(PRICES, {}), Heap(at, found)).lines
        amounts.append(next(line.amount.value for line in lines if line.thing.key == "cloth red"))
    (sheet,) = (one.sheet for one in found.spreads if one.lot.stock == "red")
    assert sum(amounts) == sheet.length + sheet.trim
    assert amounts[0] == amounts[1]


def test_two_bags_cost_twice_one_and_what_has_no_price_is_named():
    _, one = costs(tote(), prices={})
    assert one.cost.value == 0
    assert {"Red dots", "Blue checks", "Oat plain", "Cotton batting"} <= set(one.missing)
    single = costs(tote())[1].cost.value
    assert costs(tote(), bags=4)[1].cost.value == single


def test_overhead_by_the_bag_and_wear_by_the_hour():
    done, materials = costs(
        tote(), **{"pricing.overhead": "1.5", "pricing.packaging": ".5", "pricing.wear": "0.8"}
    )
    cost = cost_of(done, materials, hours(F(5, 2)))
    assert cost.by_bag.value == 2
    assert cost.by_hour.value == 2
    assert cost.all.value == materials.cost.value + 4


def row(id_, kind, name, price, **more):
    return Row(id=id_, kind=kind, name=name, price=price, **more)


def test_the_shelf_knows_what_was_paid_last():
    """A fat quarter of 21 × 18 for 2.52 is 0.00667 a square inch, over 40 wide 0.2667 an inch."""
    done = plan(tote())
    shelf = Shelf(
        rows=(
            row("a", "yardage", "Red dots", 12.0, width="40 in", length="36 in", date="2026-01-02"),
            row(
                "b",
                "fat quarter",
                "red dots",
                2.52,
                width="21 in",
                length="18 in",
                date="2026-03-01",
            ),
            row("c", "yardage", "Blue checks", None, width="40 in", length="36 in"),
            row("d", "thread", "200 m grey", 4.0),
            row("e", "batting", "Cotton batting", 9.0, width="45 in", length="36 in"),
        )
    )
    found = prices_of(shelf, things_of(done), done)
    wide = done.project.stock.usable_width
    assert found["cloth red"] == F("2.52") / (21 * 18) * wide
    assert "cloth blue" not in found
    assert found["thread"] == F(4) / (200_000 / F("25.4"))
    batting = done.materials["cotton-batting"].width
    assert found["material cotton-batting"] == F(9) / (45 * 36) * batting


def sold(price=48, **changes):
    project = applied(tote(), edit("", ("sale.price", str(price)), *changes.items()))
    return plan(project)


def pay(done):
    return pay_of(done, EMPTY, PriceList(PRICES, {}), Heap())


def test_what_a_price_pays_and_the_range_by_the_time():
    found = pay(sold(60))
    minutes = found.hours.each.value
    assert found.wage.value == (60 - found.cost.all.value) / (minutes / 60)
    low, high = found.wage_range()
    assert low < found.wage.value < high
    slow, quick = (
        float((60 - found.cost.all.value) * 60) / one for one in found.hours.range()[::-1]
    )
    assert float(low) == pytest.approx(slow, rel=1e-3)
    assert float(high) == pytest.approx(quick, rel=1e-3)


def test_a_gift_has_no_price_and_no_wage():
    found = pay(sold(60, **{"sale.way": "gift"}))
    assert found.price is None
    assert found.wage is None
    assert found.wage_range() is None
    assert found.asked.value > found.cost.all.value


def test_more_at_once_pay_more_an_hour():
    wages = [pay(sold(60, bags=bags)).wage.value for bags in (1, 6, 12)]
    assert wages == sorted(wages)


def _levers(made, prices):
    found = each_lever(made, EMPTY, prices, Heap(), plan)
    return best_first(one for one in found if one is not None)


def test_levers_are_planned_anew_and_pay_what_they_say():
    done = sold(60)
    prices = PriceList(PRICES, {})
    found = _levers(done, prices)
    assert found
    assert list(found) == sorted(found, key=lambda one: -one.gain)
    words = {one.edit.words for one in found}
    assert {"Make 2 at once", "Cut it from whole cloth"} <= words
    for one in found:
        changed = pay_of(plan(applied(done.project, one.edit)), EMPTY, prices, Heap())
        assert changed.wage.value - pay(done).wage.value == one.gain
    assert _levers(plan(tote()), prices) == ()  # without a price


@pytest.mark.parametrize(("bags", "offered"), [(499, True), (500, False)])
def test_no_more_are_offered_at_once_than_a_job_takes(bags, offered):
    """999 at most; of one copy of a batch none at all."""
    found = _levers(sold(60, bags=bags), PriceList(PRICES, {}))
    said = [one.edit.words for one in found if one.edit.words.endswith(" at once")]
    assert said == ([f"Make {2 * bags} at once"] if offered else [])


def test_a_job_as_one_is_the_sum_of_its_bags():
    ones = [pay(sold(60, bags=2)), pay(sold(90))]
    whole = Whole((Member("A", ones[0]), Member("B", ones[1])))
    assert whole.cost.value == 2 * ones[0].cost.all.value + ones[1].cost.all.value
    assert whole.brings.value == 2 * 60 + 90
    time = (2 * ones[0].hours.each.value + ones[1].hours.each.value) / 60
    assert whole.hours.value == time
    assert whole.wage.value == (whole.brings.value - whole.cost.value) / time
    keys = [reading.key for reading in whole_readings(whole, str)]
    assert keys == [
        *(f"whole.{key}" for key in ("wage", "brings", "asked", "hours", "cost", "0", "1"))
    ]
    unpriced = Whole((Member("A", ones[0]), Member("B", pay(plan(tote())))))
    assert unpriced.wage is None


def test_every_figure_carries_its_sum():
    done = sold(60)
    making = making_of(done, done.project.making)
    found = hours_of(done, making, EMPTY)
    assert found.all.value == sum(
        one.ready.value + done.project.made * one.each(done.project.made).value
        for one in found.works
    )


def test_thread_of_seams_is_reckoned_from_the_steps():
    """2.6 inches of thread for each inch of seam."""
    done = plan(tote())
    making = making_of(done, done.project.making)
    length = sum(deed.length.value for deed in making.deeds if deed.seam and deed.length)
    assert length > 50
    lines = materials_of(done, PriceList(PRICES, {}), Heap(), making).lines
    (thread,) = (one for one in lines if one.thing.name == "Thread for seams")
    assert thread.amount.value == length * F(13, 5)
    assert thread.cost.value == thread.amount.value * PRICES["thread"]


def test_no_wage_wished_for_asks_for_what_it_costs():
    found = pay(sold(60, **{"pricing.wage": 0}))
    assert found.asked.value == found.cost.all.value


@pytest.mark.parametrize(
    ("changes", "offered"),
    [
        ({"pattern": "channels", "gap": F(16, 3)}, True),  # half as far again is 8, the limit
        ({"pattern": "channels", "gap": F(11, 2)}, False),
        ({"pattern": "ditch", "gap": F(1)}, False),  # lines in seams lie where they lie
        ({"pattern": "offset", "gap": F(1)}, False),
        ({"pattern": "none", "gap": F(1)}, False),
    ],
)
def test_wider_lines_are_offered_as_far_as_the_batting_bears(changes, offered):
    steps = [(f"quilting.{name}", value) for name, value in changes.items()]
    made = plan(with_front(sold(60).project, *steps))
    found = _levers(made, PriceList(PRICES, {}))
    words = {one.edit.words for one in found}
    assert ("Sew the lines half as far apart again" in words) == offered
