"""Time, cost and price as data and as a page, against the figures they come from; sums by hand."""

import json

import pytest

from tessil.core.edits import applied, edit
from tessil.core.logbook.book import EMPTY
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shelf.rows import Row, Shelf
from tessil.files.costreport import Ledger, cost_data, cost_text, reckoned
from tests.conftest import tote

F = Fraction
SHELF = Shelf(
    rows=(Row(id="a", kind="yardage", name="Red dots", price=12.0, width="40 in", length="36 in"),)
)


def sold(name, number, price=None, **changes):
    more = changes if price is None else changes | {"sale.price": price}
    return plan(applied(tote(name=name, bags=number), edit("", *more.items())))


@pytest.fixture(scope="module")
def made():
    plans = (sold("Six", 6, F(60), **{"pricing.currency": "EUR"}), sold("One", 1))
    return reckoned(plans, Ledger(EMPTY, SHELF))


def test_each_bag_has_its_minutes_its_cost_and_its_wage(made):
    data = cost_data(made)
    assert json.loads(json.dumps(data)) == data
    six, one = data["bags"]
    pay = made.whole.members[0].pay
    assert (six["name"], six["number"], six["currency"]) == ("Six", 6, "EUR")
    for work in pay.hours.works:
        told = six["minutes"][work.work]
        assert told["value"] == pytest.approx(float(work.all(6).value), abs=1e-4)
        assert told["text"].endswith(" min")
        assert told["range"] == [round(value, 1) for value in work.range(6)]
        assert (told["sittings"], told["rate"]) == (0, round(work.curve.rate, 3))
    assert six["hours"]["value"] == pytest.approx(float(pay.hours.each.value) / 60, abs=1e-4)
    assert six["hours_range"] == [round(value / 60, 3) for value in pay.hours.range()]
    assert six["price"]["value"] == 60
    left = 60 - six["cost"]["value"]
    assert six["wage"]["value"] == pytest.approx(left / six["hours"]["value"], rel=1e-3)
    low, high = six["wage_range"]
    assert low < six["wage"]["value"] < high
    assert (one["price"], one["wage"], one["wage_range"]) == (None, None, None)


def test_cloth_is_priced_from_the_shelf_and_what_has_no_price_is_named(made):
    """12 for 36 inches of 40 are a third an inch, of the whole width."""
    six = cost_data(made)["bags"][0]
    (red,) = (line for line in six["materials"] if line["what"] == "Red dots")
    inches = next(
        line.amount.value
        for line in made.whole.members[0].pay.cost.materials.lines
        if line.thing.name == "Red dots"
    )
    assert red["cost"]["value"] == pytest.approx(float(inches) / 3, abs=1e-4)
    assert "Blue checks" in six["missing"]
    assert "Red dots" not in six["missing"]
    others = [line["cost"] for line in six["materials"] if line["what"] == "Blue checks"]
    assert others == [None]


def test_all_as_one_and_the_sittings_to_come(made):
    data = cost_data(made)
    bags = data["bags"]
    hours = 6 * bags[0]["hours"]["value"] + bags[1]["hours"]["value"]
    assert data["all"]["hours"] == pytest.approx(hours, abs=0.01)
    cost = 6 * bags[0]["cost"]["value"] + bags[1]["cost"]["value"]
    assert data["all"]["cost"] == pytest.approx(cost, abs=0.01)
    assert data["all"]["wage"] is None
    shares = [share for day in data["sittings"] for share in day]
    minutes = sum(share["minutes"] for share in shares)
    assert hours * 54 < minutes < hours * 60  # one gets ready once for both
    assert sum(share["number"] for share in shares if share["work"] == "trim") == 7
    assert {share["bag"] for share in shares} == {"Six", "One"}
    nobody = cost_data(reckoned((), Ledger(EMPTY, SHELF)))
    assert nobody == {
        "bags": [],
        "all": {"hours": None, "cost": None, "wage": None},
        "sittings": [],
    }


def test_the_same_as_a_page(made):
    lines = cost_text(made).splitlines()
    assert lines[0] == "Time, cost and price"
    assert lines[2] == "Six, 6 together"
    pay = made.whole.members[0].pay
    low, high = pay.hours.range()
    assert lines[3].startswith("  time for one   ")
    assert lines[3].endswith(f"{low:.0f} to {high:.0f} nine times in ten")
    assert any(line.startswith("  price          ") and "60.00" in line for line in lines)
    assert any(line.startswith("  no price yet   blue checks") for line in lines)
    assert lines.index("One, 1 together") > lines.index("Six, 6 together")
    assert any(line.startswith("Sitting 1, ") for line in lines)
    assert not any(
        line.startswith("  wage an hour") for line in lines[lines.index("One, 1 together") :]
    )
