"""Times and bags made as CSV, out and in: any separator, decimal commas, formulas harmless."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from tessil.core.costing.stats import wage_of
from tessil.core.logbook.book import MOST_TIMES, Book, MadeBag, Timing
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import Units
from tessil.core.numbers.money import write_money
from tessil.core.numbers.rulers import rulers
from tessil.files.csvtext import Cells, read_list, row_trouble, rows_of, write_list

TIMES = (
    *("date", "begun", "kind", "bag", "work", "number", "before", "minutes", "guess", "goes on"),
    *("used", "note"),
)
WANTED = ("work", "minutes")
MADE = (
    *("date", "name", "kind", "number", "planned", "got", "minutes", "currency", "cost", "price"),
    *("wage", "way", "buyer", "mistakes", "remarks"),
)
LARGEST = 4_000_000  # bytes
NO = ("no", "0", "false", "off")


def times_csv(book: Book) -> str:
    """Every sitting, a row each."""
    return write_list(TIMES, (_time_row(one) for one in book.times))


def _time_row(one: Timing) -> list[object]:
    first = [one.date, one.begun, one.kind, one.bag, one.work, one.number, one.before]
    guess = "" if one.guess is None else f"{one.guess:g}"
    rest = [guess, "yes" if one.goes_on else "no", "yes" if one.used else "no", one.note]
    return [*first, f"{one.minutes:g}", *rest]


def read_times(path: Path) -> tuple[Timing, ...]:
    """The sittings in a CSV file; raises FileTrouble with one sentence that says where."""
    text = read_list(path, "log of times", LARGEST, f"{MOST_TIMES:,} rows at most")
    rows = rows_of(text, f"“{path.name}”", WANTED, WANTED, MOST_TIMES)
    return tuple(_timing(cells, where) for where, cells in rows)


def _timing(cells: Cells, where: str) -> Timing:
    fields: dict[str, Any] = {
        key: cells[key] for key in ("date", "begun", "kind", "bag", "work", "note") if key in cells
    }
    for key in ("number", "before"):
        if key in cells:
            fields[key] = cells[key]
    fields["minutes"] = cells.get("minutes", "").replace(",", ".")
    if "guess" in cells:
        fields["guess"] = cells["guess"].replace(",", ".")
    fields["goes_on"] = cells.get("goes on", "no").lower() not in NO
    fields["used"] = cells.get("used", "yes").lower() not in NO
    try:
        return Timing(**fields)
    except Refused as error:
        raise row_trouble(error, where) from None


def made_csv(book: Book, units: Units) -> str:
    """Every bag that was made, a row each, with the wage it paid."""
    return write_list(MADE, (_made_row(one, units) for one in book.made))


def _made_row(one: MadeBag, units: Units) -> list[object]:
    size = rulers(units).notation.size
    wage = wage_of(one)
    return [
        *(one.date, one.name, one.kind, one.number),
        size(*one.planned) if one.planned else "",
        size(*one.got) if one.got else "",
        "" if one.minutes is None else f"{one.minutes:g}",
        one.currency,
        *("" if value is None else write_money(value) for value in (one.cost, one.price)),
        "" if wage is None else f"{float(wage):.2f}",
        *(one.way, one.buyer, one.mistakes, one.remarks),
    ]
