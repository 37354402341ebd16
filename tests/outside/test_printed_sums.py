"""Every sum that is printed, done again on a calculator, gives its figure; every computed figure
has a sum.  The calculator reads letters only, and rounds the way a maker reads a ruler."""

from fractions import Fraction
from pathlib import Path

import pytest

from tessil.core.choosing import read_in
from tessil.core.edits import applied
from tessil.core.numbers.lengths import Notation, write_kept
from tessil.core.numbers.workings import Basis, given, number
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.core.starting import Answers, first_project
from tessil.core.words.written import exact_text, value_text, working
from tessil.files.logfile import load_book
from tessil.files.report import figure_data, report_data
from tests.conftest import DEMO, load_bag
from tests.outside.calculator import worked_out

BAGS = sorted(path.stem for path in DEMO.parent.glob("*.tessil"))


def _bag(name, units):
    if name in SHAPES:
        return first_project(Answers().changed("shape", name).changed("units", units))
    project = load_bag(DEMO.parent / f"{name}.tessil")
    return project if project.units == units else applied(project, read_in(project, units))


@pytest.mark.parametrize("units", ["inch", "metric"])
@pytest.mark.parametrize("name", [*BAGS, *SHAPES])
def test_a_printed_sum_gives_its_figure(name, units):
    made = plan(_bag(name, units), load_book(DEMO.parent / "logbook.json"))
    notation = made.marks.notation
    wrong, bare, done = [], [], 0
    for panel in made.panels:
        for stage in Stage:
            for reading in readings(made, stage, panel.key):
                figure = reading.figure
                text = working(figure, notation)
                if not text:
                    bare += [reading.key] if figure.basis is Basis.GEOMETRY else []
                    continue
                again = given(
                    "again", Fraction(worked_out(text)), power=figure.power, show=figure.show
                )
                said = value_text(again, notation)
                wrong += [(reading.key, text, said)] if said != value_text(figure, notation) else []
                done += 1
    assert wrong == []
    assert bare == []
    assert done > 40


@pytest.mark.parametrize(
    ("text", "comes_to"),
    [
        ("6 × (2½ − 2 × ¼) + 2 × ¼", Fraction(25, 2)),
        ("13⅜ ÷ (1 − 1.95 %) + 2 × ¼, up to ¼", Fraction(57, 4)),
        ("largest of ½, 1", 1),
        ("(0.3 × 2) mm", Fraction(6, 254)),
        ("7 ÷ 2, rounded up", 4),
        ("√(36 × 2¼)", 9),
        ("(3 ÷ 4)²", Fraction(9, 16)),
        ("6 × (6.35 cm − 2 × 0.635 cm)", 12),
        ("3³⁄₁₆ + ¹⁄₁₆", Fraction(13, 4)),
    ],
)
def test_the_calculator_reads_what_makers_read(text, comes_to):
    assert worked_out(text) == comes_to


def test_operands_are_printed_as_finely_as_their_sum_asks():
    """0.004 × 500 is 2; with two or three decimals it would be another number, or nothing."""
    thin = given("thin", Fraction(37, 10_000))
    text = working((thin * number(500)).called("all"), Notation())
    assert worked_out(text) == pytest.approx(1.85, abs=1 / 32)
    assert text == "0.004 × 500" or "0.0037" in text


@pytest.mark.parametrize(
    ("value", "places", "text"),
    [
        (Fraction(2997, 1000), 2, "3.00"),
        (Fraction(3), 2, "3"),
        (Fraction(5, 2), 2, "2.5"),
        (Fraction(1, 1000), 2, "0.00"),
    ],
)
def test_a_decimal_is_never_taken_for_the_whole_number_beside_it(value, places, text):
    assert write_kept(value, places) == text


def test_volumes_and_areas_say_their_unit_in_the_report():
    made = plan(_bag("tote", "inch"))
    volume = made.bag.figure("holds-filled-as-a-box")
    assert figure_data(volume, made)["unit"] == "cubic inches"
    assert figure_data(given("area", 4, power=2), made)["unit"] == "square inches"
    assert figure_data(given("six", 6, power=0), made)["unit"] == ""
    assert report_data(made)["report"] >= 2
    assert exact_text(volume, made.marks.notation).endswith(" cu in")


def test_the_demo_lies_where_the_tests_look():
    assert {Path(f"{name}.tessil").suffix for name in BAGS} == {".tessil"}
    assert len(BAGS) >= 4
