"""The logbook on disk: one JSON file in the XDG data folder, and swatches as CSV, out and in.

Knows files; what swatches teach is the core's.  A broken logbook is put aside, never overwritten.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from tessil.core.logbook.book import EMPTY, MOST_SWATCHES, Book, Swatch
from tessil.core.logbook.merge import merged_books
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import Notation, Units
from tessil.core.numbers.rulers import rulers
from tessil.core.trouble import BrokenFile, FileTrouble, NewerFile
from tessil.files.csvtext import Cells, read_list, row_trouble, rows_of, write_list
from tessil.files.disk import held, reason
from tessil.files.jsontext import written
from tessil.files.ownfile import put_aside
from tessil.files.pictures import check_pictures
from tessil.files.places import data_folder
from tessil.files.projectfile import validated, write_quickly

LOST = "what is learned now"
LARGEST = 64 * 1024 * 1024  # forty photos and all else
LARGEST_CSV = 4 * 1024 * 1024
SIZES = (
    "gap",
    "gap other",
    "width before",
    "height before",
    "width after",
    "height after",
    "rising before",
    "falling before",
    "rising after",
    "falling after",
)
COLUMNS = ("name", "date", "batting", "pattern", "run", "angle", *SIZES, "minutes", "used")
WANTED = ("batting", "gap", "width before", "height before")


FORMAT = 2


def book_path() -> Path:
    """Where the maker's logbook lies."""
    return data_folder() / "logbook.json"


def to_text(book: Book) -> str:
    """The book as it stands in its file."""
    data = book.model_dump(mode="json", short=True)
    return written({"format": FORMAT, **data})


def from_text(text: str, name: str = "The logbook") -> Book:
    """The book in a file's text; raises FileTrouble with one sentence that says where."""
    try:
        data: Any = json.loads(text)
    except (ValueError, RecursionError):
        raise BrokenFile(f"{name} is not a whole logbook: its contents make no sense.") from None
    if not isinstance(data, dict) or not _is_number(data.get("format")):
        raise BrokenFile(f"{name} is no logbook of Tessil's.")
    if data["format"] > FORMAT:
        raise NewerFile(f"{name} was written by a newer Tessil.")
    book = validated(Book, {**data, "format": FORMAT}, name)  # format 2 only has more to say
    photos = [(swatch.name, swatch.photo) for swatch in book.swatches]
    check_pictures([*photos, *((bag.name, bag.photo) for bag in book.made)], name)
    return book


def _is_number(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool)


def load_book(path: Path | None = None) -> Book:
    """The maker's logbook, an empty one if there is none yet; raises FileTrouble."""
    path = path or book_path()
    try:
        if not path.exists():
            return EMPTY
        if path.stat().st_size > LARGEST:
            raise BrokenFile("The logbook is larger than it can be (64 MB).")
        text = path.read_text("utf-8")
    except UnicodeDecodeError:
        raise BrokenFile("The logbook is not text.") from None
    except OSError as error:
        raise FileTrouble(f"The logbook cannot be read: {reason(error)}.") from None
    return from_text(text)


def begin_book() -> tuple[Book, str]:
    """The logbook to start with, and a sentence if the one on disk cannot be used.

    A broken one is put aside; one that a newer Tessil wrote, or that could not be read just now,
    stays where it is and is not written to.
    """
    try:
        return load_book(), ""
    except BrokenFile as trouble:
        return EMPTY, f"{trouble} {put_aside(book_path(), LOST)}"
    except FileTrouble as trouble:
        return EMPTY, f"{trouble} It is left as it is; what is learned now is not kept."


def save_book(book: Book, path: Path | None = None) -> str:
    """Write the logbook, whole or not at all; returns a sentence if the disk refuses."""
    try:
        write_quickly(path or book_path(), to_text(book))
    except OSError as error:
        return f"The logbook could not be written: {reason(error)}."
    return ""


def keep_together(base: Book, ours: Book) -> tuple[Book, str]:
    """Write our book over the one on disk, with what another Tessil has written into that since
    ``base``; returns what now stands there, and a sentence if the disk refuses."""
    try:
        book_path().parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        return ours, f"The logbook could not be written: {reason(error)}."
    with held(book_path()) as free:
        if not free:
            return ours, "The logbook could not be written: its folder is locked or read-only."
        try:
            theirs = load_book()
        except FileTrouble as trouble:
            return ours, str(trouble)
        made = merged_books(base, ours, theirs)
        sentence = "" if made == theirs else save_book(made)
    return (base, sentence) if sentence else (made, "")


# -- CSV -----------------------------------------------------------------------------


def swatches_csv(book: Book, units: Units) -> str:
    """The swatches, sizes with their unit.  Measured panels are written with their first set."""
    notation = rulers(units).notation
    return write_list(COLUMNS, (_row(swatch, notation) for swatch in book.swatches))


def _row(swatch: Swatch, notation: Notation) -> list[str]:
    first = swatch.sewn[0]
    pattern, run, angle, gap = swatch.pattern, swatch.run, float(swatch.angle), swatch.gap
    other = swatch.gap_other
    if swatch.sets:
        gap = first.gap
        straight = {line.angle for line in swatch.sets}
        pattern = (
            "grid"
            if straight == {0, 90}
            else "channels"
            if straight <= {0, 90}
            else ("diamonds" if len(straight) > 1 else "diagonal")
        )
        run = "level" if first.angle == 0 else "upright"
        angle = abs(first.angle) if pattern == "diamonds" else first.angle
        other = swatch.sets[1].gap if len(swatch.sets) > 1 else None
    sizes = {"gap": gap, "gap other": other}
    cells = []
    for name in SIZES:
        value = sizes.get(name, getattr(swatch, name.replace(" ", "_"), None))
        cells.append("" if value is None else notation.exact(value, unit=True))
    slant = f"{angle:g}" if pattern in ("diagonal", "diamonds") else ""
    minutes = "" if swatch.minutes is None else f"{swatch.minutes:g}"
    return [
        swatch.name,
        swatch.date,
        swatch.batting,
        pattern,
        run,
        slant,
        *cells,
        minutes,
        "yes" if swatch.used else "no",
    ]


def read_swatches(path: Path, units: Units) -> tuple[Swatch, ...]:
    """The swatches in a CSV file; raises FileTrouble with one sentence that says where.

    Takes commas, semicolons or tabs between columns, and decimal commas inside them.
    """
    most = f"{MOST_SWATCHES:,} rows at most"
    text = read_list(path, "swatch log", LARGEST_CSV, most)
    rows = rows_of(text, f"“{path.name}”", WANTED, WANTED, MOST_SWATCHES)
    return tuple(_swatch(cells, where, units) for where, cells in rows)


def _swatch(cells: Cells, where: str, units: Units) -> Swatch:
    fields: dict[str, Any] = {
        key: cells[key]
        for key in ("name", "date", "batting", "pattern", "run", "angle", "minutes")
        if key in cells
    }
    if "minutes" in fields:
        fields["minutes"] = fields["minutes"].replace(",", ".")
    if "angle" in fields:
        fields["angle"] = fields["angle"].replace(",", ".")
    for name in SIZES:
        if name in cells:
            fields[name.replace(" ", "_")] = _with_unit(cells[name], units)
    fields["used"] = cells.get("used", "yes").lower() not in ("no", "0", "false", "off")
    try:
        return Swatch(**fields)
    except Refused as error:
        raise row_trouble(error, where) from None


def _with_unit(text: str, units: Units) -> str:
    """A bare number is in the maker's own unit: inches or centimetres."""
    bare = all(letter.isdigit() or letter in " .,/½¼¾⅛⅜⅝⅞⅓⅔-" for letter in text)
    return f"{text} {'in' if units == 'inch' else 'cm'}" if bare else text
