"""Sittings as a maker says them, and two windows that write one log."""

import pytest

from tessil.core.catalogue.prints import Photo
from tessil.core.logbook.book import MOST_PHOTOS, Book, MadeBag, Timing
from tessil.core.logbook.merge import merged_books
from tessil.core.logbook.typed import NoSitting, read_timing
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction

LIKE = Timing(kind="tote", bag="Tote")


@pytest.mark.parametrize(
    ("text", "work", "number", "minutes", "note"),
    [
        ("quilt 6 bags 85 min", "quilt", 6, 85, ""),
        ("cut 1:20", "cut", 1, 80, ""),
        ("whole bag 2 h 5", "all", 1, 125, "bag"),
        ("2 h", "all", 1, 120, ""),
        ("Zipper 24 min, new foot", "zipper", 1, 24, "new foot"),
        ("basting 3 x 12,5 minutes", "layer", 3, 12.5, ""),
        ("12× piecing 1 hour 10 min", "piece", 12, 70, ""),
        ("topstitch 8 minutes", "finish", 1, 8, ""),
    ],
)
def test_a_sitting_is_read_as_it_is_said(text, work, number, minutes, note):
    made = read_timing(text, LIKE)
    assert (made.work, made.number, made.minutes, made.note) == (work, number, minutes, note)
    assert (made.kind, made.bag) == ("tote", "Tote")


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("quilted all day", "how long it took"),
        ("cut 0 min", "no time"),
        ("cut -5 min", "no time"),
        ("cut 101 h", "hundred hours"),
        ("cut 0 bags 5 min", "1 to 999"),
        ("", "how long it took"),
    ],
)
def test_what_is_no_sitting_is_told_in_a_sentence(text, says):
    with pytest.raises(NoSitting, match=says):
        read_timing(text, LIKE)


@pytest.mark.parametrize(
    "fields",
    [
        {"minutes": 0},
        {"minutes": -3},
        {"minutes": float("inf")},
        {"date": "yesterday"},
        {"begun": "25:00"},
        {"number": 0},
        {"work": "sleep"},
        {"before": -1},
    ],
)
def test_a_sitting_that_cannot_be_is_refused(fields):
    with pytest.raises(Refused):
        Timing(**fields)


def test_two_windows_that_write_one_log_lose_nothing():
    base = Book(times=(LIKE,))
    ours = base.model_copy(update={"times": (LIKE, Timing(bag="ours"))})
    theirs = base.model_copy(update={"times": (Timing(bag="theirs"),), "made": (MadeBag(),)})
    both = merged_books(base, ours, theirs)
    assert {one.bag for one in both.times} == {"theirs", "ours"}
    assert len(both.made) == 1


def test_photos_of_bags_are_bounded():
    seen = MadeBag(photo=Photo(data="iVBORw0KGgo=", wide=4, high=3))
    assert len(Book(made=(seen,) * MOST_PHOTOS).made) == MOST_PHOTOS
    with pytest.raises(Refused, match="take one out first"):
        Book(made=(seen,) * (MOST_PHOTOS + 1))


def test_a_bags_price_is_exact():
    assert MadeBag(price="48,50").price == Fraction(97, 2)
