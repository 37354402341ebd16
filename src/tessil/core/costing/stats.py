"""What the log says over a season: wages, minutes, draw-in, scraps; and two bags side by side.

Knows the logbook; must not know plans.
"""

from __future__ import annotations

import datetime
from collections.abc import Iterator, Sequence

from tessil.core.logbook.book import Book, MadeBag, Timing
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.records import Record


class Dot(Record, frozen=True):
    """One point of a plot, of one series."""

    x: float
    y: float
    series: str


def wage_of(bag: MadeBag) -> Fraction | None:
    """What a bag that was sold paid for an hour; none where that is not known."""
    if bag.price is None or bag.minutes is None or bag.way == "gift":
        return None
    return (bag.price - (bag.cost or Fraction(0))) * 60 / fraction_of(str(bag.minutes))


def wages_by_kind(book: Book, currency: str) -> list[tuple[str, float]]:
    """The mean wage of each kind of bag, by its hours, the best first; in one currency."""
    paid: dict[str, Fraction] = {}
    hours: dict[str, Fraction] = {}
    for bag in book.made:
        wage = wage_of(bag)
        if wage is None or bag.currency not in ("", currency):
            continue
        worked = fraction_of(str(bag.minutes)) * bag.number / 60
        paid[bag.kind] = paid.get(bag.kind, Fraction(0)) + wage * worked
        hours[bag.kind] = hours.get(bag.kind, Fraction(0)) + worked
    found = [(kind, float(paid[kind] / hours[kind])) for kind in paid]
    return sorted(found, key=lambda one: -one[1])


def minutes_by_work(times: Sequence[Timing]) -> list[tuple[str, float]]:
    """Minutes of each kind of work, all that was timed together, in the order of the work."""
    found: dict[str, float] = {}
    for one in times:
        if one.used:
            found[one.work] = found.get(one.work, 0.0) + one.minutes
    return list(found.items())


def learning_dots(times: Sequence[Timing], kind: str, work: str) -> list[Dot]:
    """Minutes for one bag at each sitting, by how many were made before."""
    return [
        Dot(one.before + (one.number + 1) / 2, one.minutes / one.number, one.work)
        for one in times
        if one.kind == kind and one.work == work and one.used
    ]


def day_of(date: str, first: str) -> float | None:
    """Days since the first; none for what has no date."""
    if not date or not first:
        return None
    days = datetime.date.fromisoformat(date) - datetime.date.fromisoformat(first)
    return float(days.days)


def first_day(book: Book) -> str:
    """The earliest date in the log; empty where there is none."""
    dates = [one.date for one in book.swatches]
    dates += [one.date for one in book.made]
    dates += [one.date for one in book.times]
    return min((date for date in dates if date), default="")


def draw_in_dots(book: Book) -> Iterator[Dot]:
    """How much of its area's sides each swatch lost, in hundredths, over time, by its layers."""
    first = first_day(book)
    for one in book.swatches:
        day = day_of(one.date, first)
        if day is None or one.width_after is None or one.height_after is None or not one.used:
            continue
        kept = (one.width_after / one.width_before + one.height_after / one.height_before) / 2
        yield Dot(day, float(1 - kept) * 100, one.batting)


def scrap_dots(book: Book) -> Iterator[Dot]:
    """The share of scraps in each bag, in hundredths, over time."""
    first = first_day(book)
    for bag in book.made:
        day = day_of(bag.date, first)
        if day is not None and bag.scraps is not None:
            yield Dot(day, bag.scraps * 100, bag.kind)


def minutes_dots(book: Book) -> Iterator[Dot]:
    """Minutes for one bag over time, by its kind."""
    first = first_day(book)
    for bag in book.made:
        day = day_of(bag.date, first)
        if day is not None and bag.minutes is not None:
            yield Dot(day, bag.minutes, bag.kind)
