"""Numbers as they are printed, unit by unit; an inch is 25.4 mm (exact, international yard and
pound agreement of 1959), a litre 1000 cm³, a yard 36 in."""

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.workings import Basis, count, from_mm, given, total
from tessil.core.words.written import exact_text, value_text, working

F = Fraction
INCH, METRIC = Notation("inch"), Notation("metric")


def told(value, power=1, show="plain"):
    figure = given("it", F(value), power=power, show=show)
    return exact_text(figure, INCH), exact_text(figure, METRIC)


@pytest.mark.parametrize(
    ("value", "show", "inch", "metric"),
    [
        (F(1, 25), "percent", "4%", "4%"),
        (F(335, 10000), "percent", "3.35%", "3.35%"),
        (F(10, 254) * 9, "mm", "9 mm", "9 mm"),
        (F(3600), "metres", "91.4 m", "91.4 m"),
        (F(1507, 10), "grams", "150.7 g", "150.7 g"),
        (F(90), "minutes", "90 min", "90 min"),
        (F(61, 60), "hours", "1.02 h", "1.02 h"),
    ],
)
def test_what_is_no_length_keeps_its_own_unit(value, show, inch, metric):
    power = 1 if show in ("mm", "metres") else 0
    assert [text.replace(" %", "%") for text in told(value, power, show)] == [inch, metric]


@pytest.mark.parametrize(
    ("value", "power", "inch", "metric"),
    [
        (F(59, 4), 1, "14¾", "37.465 cm"),
        (F(1, 3), 1, "⅓", "0.847 cm"),
        (F(1, 10), 1, "0.1", "0.254 cm"),
        (F(1, 7), 1, "0.143", "0.363 cm"),
        (F(22, 7), 1, "3.14", "7.983 cm"),
        (F(5, 8), 0, "⅝", "⅝"),
        (F(2, 7), 0, "0.286", "0.286"),
        (F(22, 7), 0, "3.14", "3.14"),
        (F(100), 2, "100 sq in", "645.2 cm²"),
        (F(385), 3, "385 cu in", "6.31 l"),
    ],
)
def test_lengths_areas_and_volumes(value, power, inch, metric):
    assert told(value, power) == (inch, metric)


@pytest.mark.parametrize(
    ("value", "power", "inch", "metric"),
    [
        (F(25, 2), 0, "12.50", "12.50"),
        (F(1, 3), -1, "12.00 a yd", "13.12 a m"),  # by the inch: 36 of them, or 39.37
    ],
)
def test_money_is_told_for_a_length_where_it_is_paid_for_one(
    monkeypatch, value, power, inch, metric
):
    monkeypatch.setenv("LC_ALL", "en_US.UTF-8")
    figure = given("price", value, power=power, show="money")
    euros = [Notation(units, currency="EUR") for units in ("inch", "metric")]
    assert [exact_text(figure, one) for one in euros] == [inch, metric]  # in a sum: no sign
    assert value_text(given("price", F(25, 2), power=0, show="money"), euros[0]) == "€12.50"


def test_a_sum_is_written_as_it_was_reckoned():
    wide, seam, three = given("width", F(10)), given("seam", F(3, 8)), count("three", 3)
    assert working(wide + seam * 2, INCH) == "10 + ⅜ × 2"
    assert working((wide + seam) * three, INCH) == "(10 + ⅜) × 3"
    assert working(wide - (seam - wide), INCH) == "10 − (⅜ − 10)"
    assert working(wide / (three / count("two", 2)), INCH) == "10 ÷ (3 ÷ 2)"
    assert working(total([wide, seam, seam]), INCH) == "10 + ⅜ + ⅜"
    assert working(wide + given("less", F(-1, 8)), INCH) == "10 − ⅛"
    assert working(wide - given("less", F(-1, 8)), INCH) == "10 + ⅛"
    assert value_text(wide + seam * 2, INCH) == "10¾"
    assert working(wide + seam * 2, METRIC) == "25.4 cm + 0.953 cm × 2"


@pytest.mark.parametrize(("mm", "inch"), [(2, "2 mm"), (F(9, 4), "2.25 mm"), (F(1, 3), "0.33 mm")])
def test_millimetres_stay_millimetres(mm, inch):
    figure = from_mm("thick", F(mm), Basis.PRACTICE)
    assert exact_text(figure, INCH) == inch
    assert exact_text(figure, METRIC) == inch
