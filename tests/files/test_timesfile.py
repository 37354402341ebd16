"""Sittings and made bags as CSV, row by row, out and in; read by the standard library's parser."""

import csv
import io

import pytest

from tessil.core.logbook.book import Book, MadeBag, Timing
from tessil.core.numbers.exact import Fraction
from tessil.core.trouble import FileTrouble
from tessil.files.timesfile import made_csv, read_times, times_csv

F = Fraction
TIMES = (
    Timing(
        date="2026-03-14",
        begun="19:30",
        kind="tote",
        bag="Test tote",
        work="piece",
        number=6,
        before=4,
        minutes=92.5,
        guess=80.25,
        goes_on=True,
        note="ran short",
    ),
    Timing(work="trim", minutes=8, used=False),
)


@pytest.fixture
def listed(tmp_path):
    def write(text):
        path = tmp_path / "times.csv"
        path.write_text(text, "utf-8")
        return path

    return write


def test_every_sitting_is_a_row_and_comes_back(listed):
    text = times_csv(Book(times=TIMES))
    first, second = csv.DictReader(io.StringIO(text))
    assert first == {
        "date": "2026-03-14",
        "begun": "19:30",
        "kind": "tote",
        "bag": "Test tote",
        "work": "piece",
        "number": "6",
        "before": "4",
        "minutes": "92.5",
        "guess": "80.25",
        "goes on": "yes",
        "used": "yes",
        "note": "ran short",
    }
    assert (second["minutes"], second["guess"]) == ("8", "")
    assert (second["goes on"], second["used"]) == ("no", "no")
    assert read_times(listed(text)) == TIMES


def test_a_list_of_another_program_needs_two_columns_only(listed):
    """Semicolons and decimal commas, as where a comma parts whole from tenths."""
    text = "work;minutes;guess;used\npiece;12,5;10,5;no\ntrim;3;;\n"
    piece, trim = read_times(listed(text.replace("trim;3;;", "trim;3;4;ja")))
    assert (piece.work, piece.minutes, piece.guess, piece.used) == ("piece", 12.5, 10.5, False)
    assert (trim.minutes, trim.used, trim.goes_on, trim.number) == (3, True, False, 1)


@pytest.mark.parametrize("word", ["no", "0", "False", "OFF"])
def test_what_is_not_counted_may_be_said_in_several_ways(listed, word):
    (one,) = read_times(listed(f"work,minutes,used,goes on\ntrim,3,{word},{word}\n"))
    assert (one.used, one.goes_on) == (False, False)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("work,minutes\npiece,12\ntrim,lots\n", "line 3, minutes: "),
        ("work,minutes\nsing,12\n", "line 2, work: "),
        ("work,hours\npiece,12\n", "minutes"),
    ],
)
def test_what_cannot_be_read_is_told_with_its_row(listed, text, says):
    with pytest.raises(FileTrouble) as trouble:
        read_times(listed(text))
    assert says in str(trouble.value)


def test_every_bag_is_a_row_with_its_wage():
    """60 less 15 in an hour and a half are 30 an hour."""
    full = MadeBag(
        name="A",
        kind="tote",
        date="2026-01-10",
        number=2,
        planned=(F(11), F(12), F(3)),
        got=(F(11), F(12), F(11, 4)),
        minutes=90,
        currency="EUR",
        cost=F(15),
        price=F(60),
        buyer="Ida",
        mistakes="none",
        remarks="quick",
    )
    first, second = csv.DictReader(io.StringIO(made_csv(Book(made=(full, MadeBag())), "inch")))
    assert first == {
        "date": "2026-01-10",
        "name": "A",
        "kind": "tote",
        "number": "2",
        "planned": "11 × 12 × 3",
        "got": "11 × 12 × 2¾",
        "minutes": "90",
        "currency": "EUR",
        "cost": "15",
        "price": "60",
        "wage": "30.00",
        "way": full.way,
        "buyer": "Ida",
        "mistakes": "none",
        "remarks": "quick",
    }
    empty = ("planned", "got", "minutes", "cost", "price", "wage")
    assert [second[key] for key in empty] == [""] * 6
    metric = next(csv.DictReader(io.StringIO(made_csv(Book(made=(full,)), "metric"))))
    assert metric["planned"].startswith("27.9 × 30.5 × 7.6")
