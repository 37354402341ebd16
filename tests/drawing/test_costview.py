"""Pictures of time and money as data."""

import pytest

from tessil.core.costing.acts.cost import Heap
from tessil.core.costing.acts.hours import days_of, tasks_of
from tessil.core.costing.acts.levers import pay_of
from tessil.core.costing.learning import fitted
from tessil.core.costing.prices import PriceList
from tessil.core.costing.stats import Dot
from tessil.core.edits import applied, edit
from tessil.core.logbook.book import EMPTY
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.drawing.costview import Reckoned, reckoned_picture, shares_of, step_of
from tessil.drawing.picture import Label, Line, Shade
from tessil.drawing.statview import bars_picture, learning_picture, season_picture
from tests.conftest import tote

F = Fraction


def paid(**changes):
    project = applied(tote(), edit("", *changes.items()))
    made = plan(project)
    return made, pay_of(made, EMPTY, PriceList({"cloth red": F(1, 3)}, {}), Heap())


@pytest.mark.parametrize("bags", [1, 5, 30])
def test_each_sitting_is_a_row_as_long_as_it_takes(bags):
    made, pay = paid(bags=bags)
    days = days_of(made, tasks_of(made, pay.hours))
    picture = reckoned_picture(Reckoned(pay.hours, days), made.marks.notation)
    rows = [label.text for label in picture.of(Label) if label.text.startswith("sitting ")]
    assert rows == [f"sitting {at}" for at in range(1, min(len(days), 9) + 1)]
    more = [label.text for label in picture.of(Label) if "more sittings" in label.text]
    assert bool(more) == (len(days) > 9)
    left, _, wide, _ = picture.box
    for item in picture.of(Shade):
        assert all(left - 1e-6 <= x <= left + wide + 0.2 for x, _ in item.outline)


@pytest.mark.parametrize(
    "changes",
    [
        {"sale.price": "60"},
        {"sale.price": "60", "pricing.vat": "0.19", "pricing.fees": "0.05"},
        {"pricing.profit": "0.1", "pricing.overhead": "2"},
        {"sale.price": "1"},
    ],
)
def test_where_a_price_goes_is_all_of_it(changes):
    made, pay = paid(**changes)
    price = pay.price if pay.price is not None else pay.asked
    parts = list(shares_of(pay))
    assert sum(value for _, value, _ in parts) == price.value
    assert parts[-1][0] in ("your hours", "profit")
    picture = reckoned_picture(Reckoned(pay.hours, pay=pay), made.marks.notation)
    words = [label.text for label in picture.of(Label)]
    assert any("goes to" in text for text in words)
    assert ("bags made together" in words) == (pay.price is not None)


@pytest.mark.parametrize("most", [0.7, 3, 9, 47, 120, 999, 12345])
def test_an_axis_has_up_to_eight_round_steps(most):
    step = step_of(most)
    assert most / step <= 8
    assert str(step).strip("0.")[0] in "125"


def test_points_of_a_season_differ_by_their_form():
    dots = [Dot(0.0, 2.0, "cotton"), Dot(30.0, 3.0, "fleece"), Dot(60.0, 2.5, "cotton")]
    picture = season_picture(dots, "% drawn in")
    forms = {len(item.outline) for item in picture.of(Shade)}
    assert forms == {4}
    points = [s.outline for s in picture.of(Shade)]
    moved = {tuple((round(x - o[0][0], 6), round(y - o[0][1], 6)) for x, y in o) for o in points}
    assert len(moved) == 2
    words = [label.text for label in picture.of(Label)]
    assert {"cotton", "fleece", "% drawn in"} <= set(words)
    assert "nothing to draw yet" in [label.text for label in season_picture([], "x").of(Label)]


def test_the_curve_of_practice_falls_and_its_points_are_there():
    curve = fitted(60.0, ())
    dots = [Dot(1.0, 60.0, "all"), Dot(4.0, 40.0, "all")]
    picture = learning_picture(dots, curve)
    (drawn,) = (line for line in picture.of(Line) if line.stroke == "drawn")
    heights = [y for _, y in drawn.points]
    assert heights == sorted(heights)  # y downwards: later bags take less
    assert len([s for s in picture.of(Shade) if s.tone == "shade"]) == 2


def test_bars_are_as_long_as_their_values():
    picture = bars_picture([("a", 10.0), ("b", 5.0)], "min")
    widths = [max(x for x, _ in s.outline) for s in picture.of(Shade)]
    assert widths[0] == pytest.approx(2 * widths[1])
    assert {"10 min", "5 min"} <= {label.text for label in picture.of(Label)}
