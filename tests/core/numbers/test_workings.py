"""A working is made by the arithmetic, so it can be worked out again and must agree."""

import re

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.workings import (
    Basis,
    ceiling,
    count,
    from_mm,
    given,
    near_to,
    no_less,
    number,
    squared,
    total,
    up_to,
)
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.words.written import value_text, working, working_words
from tests.conftest import tote
from tests.outside.calculator import GLYPHS

INCH = Notation("inch", Fraction(1, 16))


def test_the_sum_shows_its_numbers_and_its_names():
    strips, cut, seam = (
        count("strips", 6),
        given("cut", Fraction(5, 2)),
        given("seam", Fraction(1, 4)),
    )
    pieced = (strips * (cut - 2 * seam) + 2 * seam).called("pieced")
    assert pieced.value == Fraction(25, 2)
    assert working(pieced, INCH) == "6 × (2½ − 2 × ¼) + 2 × ¼"
    assert working_words(pieced, INCH) == "strips × (cut − 2 × seam) + 2 × seam"
    assert value_text(pieced, INCH) == "12½"


def test_a_named_figure_stands_as_one_value_in_the_next_sum():
    pieced = (given("a", 3) + given("b", 4)).called("pieced")
    assert working(pieced * 2, INCH) == "7 × 2"


@pytest.mark.parametrize(
    ("figure", "shown"),
    [
        (given("a", 9) - (given("b", 2) - given("c", 1)), "9 − (2 − 1)"),
        (given("a", 9) / (given("b", 2) * 3), "9 ÷ (2 × 3)"),
        ((given("a", 9) + 0 * given("b", 2)) * 2, "(9 + 0 × 2) × 2"),
        (ceiling(number(7) / 2), "7 ÷ 2, rounded up"),
        (up_to(given("a", Fraction(7, 3)), given("mark", Fraction(1, 8))), "2⅓, up to ⅛"),
        (squared(number(3) / 4), "(3 ÷ 4)²"),
        (2 * ceiling(number(7) / 2), "2 × (7 ÷ 2, rounded up)"),
        (given("a", 9) + given("b", -2), "9 − 2"),
        (given("a", 9) - given("b", -2), "9 + 2"),
        (given("a", 9) * given("b", -2), "9 × −2"),
    ],
)
def test_brackets_stand_where_they_must(figure, shown):
    assert working(figure, INCH) == shown


def test_a_sum_is_no_firmer_than_its_softest_part():
    chosen, guess = given("gap", 1), given("draw", Fraction(1, 50), Basis.GUESS)
    assert (chosen + chosen).basis is Basis.GEOMETRY
    assert (chosen + guess).basis is Basis.GUESS
    cut_to = up_to(chosen + guess, given("mark", Fraction(1, 4))).settled("cut")
    assert cut_to.basis is Basis.GUESS
    assert (cut_to * 2).basis is Basis.GEOMETRY


def test_unlike_powers_do_not_add():
    with pytest.raises(TypeError):
        given("length", 3) + count("strips", 2)


def test_thread_fine_sums_read_in_millimetres():
    layers = (from_mm("cotton", Fraction(3, 10), Basis.GUESS) * 2).called("thickness", "mm")
    assert working(layers, INCH) == "(0.3 × 2) mm"
    assert value_text(layers, INCH) == "0.6 mm"


def test_metric_readers_see_centimetres_in_the_same_sum():
    metric = Notation("metric", Fraction(5, 127))
    pieced = 6 * (given("cut", Fraction(125, 50)) - 2 * given("seam", Fraction(1, 4)))
    assert working(pieced, metric) == "6 × (6.35 cm − 2 × 0.635 cm)"


def test_a_floor_shows_only_where_it_bites():
    floor = given("least", 1)
    assert no_less(given("a", 3), floor).op == "given"
    assert working(no_less(given("a", Fraction(1, 2)), floor), INCH) == "largest of ½, 1"


def test_near_goes_up_from_the_middle():
    figure = near_to(given("a", Fraction(3, 32)), given("mark", Fraction(1, 16)))
    assert figure.value == Fraction(1, 8)


UNITS = {"%": 0.01, "m": 1000 / 25.4}


def _worked_out(text: str) -> float:
    """The working's own text, worked out by Python: independent of what recorded it."""
    text, _, rounding = text.partition(", ")
    text = text.removesuffix(" mm").replace(" g", "")
    for glyph, plain in GLYPHS.items():
        text = re.sub(rf"(\d*){glyph}", lambda m, p=plain: f"({m[1] or 0}+{p})", text)
    text = text.translate(str.maketrans({"×": "*", "÷": "/", "−": "-", "²": "§"}))
    text = text.replace("§", "**2")
    text = re.sub(r"([\d.]+) (%|m\b)", lambda m: f"({m[1]}*{UNITS[m[2]]})", text)
    value = eval(text, {"__builtins__": {}})
    return float(value) if not rounding else value


@pytest.mark.parametrize("stage", list(Stage))
def test_every_working_on_screen_comes_to_its_figure(stage):
    made = plan(tote())
    checked = 0
    for panel in made.panels:
        for reading in readings(made, stage, panel.key):
            text = working(reading.figure, made.marks.notation)
            if not text or any(c in text for c in "₀₁₂₃₄₅₆₇₈₉") or ", " in text:
                continue
            in_mm = text.endswith(" mm")
            expected = float(reading.figure.value) * (25.4 if in_mm else 1)
            assert _worked_out(text) == pytest.approx(expected, rel=6e-3, abs=6e-3), reading.key
            checked += 1
    assert checked or stage is Stage.MAKE or stage is Stage.CUT


def test_a_figure_in_a_message_says_what_it_is():
    assert repr(count("bags", 2)) == "Figure(bags: 2)"
    assert repr(count("", 2) + count("", 3)) == "Figure(+: 5)"


def test_the_sum_of_one_is_that_one():
    one = count("bags", 2)
    assert total([one]) is one
    two = total([one, one])
    assert (two.value, two.op, two.args) == (4, "sum", (one, one))
    with pytest.raises(TypeError, match="unlike powers"):
        total([one, given("width", 3)])
