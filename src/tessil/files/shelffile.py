"""The shelf on disk: one JSON file in the XDG data folder, and its rows as CSV, out and in.

Knows files; what the rows mean is the core's.  A broken shelf is put aside, never overwritten.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, get_args

from tessil.core.numbers.corners import read_corners
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import FARTHEST, LengthError, Units, read_length
from tessil.core.numbers.money import MoneyError, kept_money
from tessil.core.numbers.rulers import rulers
from tessil.core.shelf.outlines import largest_inside
from tessil.core.shelf.rows import MOST_ROWS, NOTHING, Kind, Row, Shelf, fresh_id, merged_shelves
from tessil.core.trouble import BrokenFile, FileTrouble, NewerFile
from tessil.core.words.refusals import first_refusal, printable
from tessil.files.csvtext import Cells, read_list, rows_of, write_list
from tessil.files.disk import held, reason
from tessil.files.jsontext import written
from tessil.files.ownfile import put_aside
from tessil.files.pictures import check_pictures
from tessil.files.places import data_folder
from tessil.files.projectfile import validated, write_quickly

FORMAT = 5
LOST = "what is put on the shelf now"
LARGEST = 96 * 1024 * 1024
LARGEST_CSV = 8 * 1024 * 1024
COLUMNS = (
    "kind",
    "name",
    "width",
    "length",
    "number",
    "place",
    "price",
    "date",
    "note",
    "kept_for",
    "corners",
)
WANTED = ("name",)
KINDS: tuple[str, ...] = get_args(Kind)


def shelf_path() -> Path:
    """Where the maker's shelf lies."""
    return data_folder() / "shelf.json"


def to_text(shelf: Shelf) -> str:
    """The shelf as it stands in its file."""
    data = shelf.model_dump(mode="json", short=True)
    return written({"format": FORMAT, **data}, indent=1)


def from_text(text: str, name: str = "The shelf") -> Shelf:
    """The shelf in a file's text; raises FileTrouble with one sentence that says where."""
    try:
        data: Any = json.loads(text)
    except (ValueError, RecursionError):
        raise BrokenFile(f"{name} is not a whole shelf: its contents make no sense.") from None
    number = data.get("format") if isinstance(data, dict) else None
    if not isinstance(number, int) or isinstance(number, bool):
        raise BrokenFile(f"{name} is no shelf of Tessil's.")
    if number > FORMAT:
        raise NewerFile(f"{name} was written by a newer Tessil.")
    data.pop("format")
    shelf = validated(Shelf, data, name)
    check_pictures(((one.name, one.photo) for one in shelf.cloths), name)
    return shelf


# What a file held when it was read or written last, by its path and by what the disk says of it: a
# shelf with many photos takes a while to read.
_known: dict[Path, tuple[tuple[int, int, int], Shelf]] = {}


def _stamp(path: Path) -> tuple[int, int, int]:
    """Another one as soon as anybody has written the file: that makes a new one in its place."""
    told = path.stat()
    return told.st_ino, told.st_mtime_ns, told.st_size


def load_shelf(path: Path | None = None) -> Shelf:
    """The maker's shelf, an empty one if there is none yet; raises FileTrouble."""
    path = path or shelf_path()
    try:
        if not path.exists():
            return NOTHING
        stamp = _stamp(path)
        if path in _known and _known[path][0] == stamp:
            return _known[path][1]
        if path.stat().st_size > LARGEST:
            raise BrokenFile("The shelf is larger than it can be (96 MB).")
        shelf = from_text(path.read_text("utf-8"))
        _known[path] = stamp, shelf
        return shelf
    except UnicodeDecodeError:
        raise BrokenFile("The shelf is not text.") from None
    except OSError as error:
        raise FileTrouble(f"The shelf cannot be read: {reason(error)}.") from None


def begin_shelf() -> tuple[Shelf, str]:
    """The shelf to start with, and a sentence if the one on disk cannot be used: a broken one is
    put aside; one of a newer Tessil, or that cannot be read just now, is left as it is."""
    try:
        return load_shelf(), ""
    except BrokenFile as trouble:
        return NOTHING, f"{trouble} {put_aside(shelf_path(), LOST)}"
    except FileTrouble as trouble:
        return NOTHING, f"{trouble} It is left as it is; what is put on the shelf now is not kept."


def keep_shelf(base: Shelf, ours: Shelf) -> tuple[Shelf, str]:
    """Write our shelf over the one on disk, with what another window has changed there since
    ``base``; returns what now stands there, and a sentence if the disk refuses."""
    path = shelf_path()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        with held(path) as free:
            if not free:
                return base, "The shelf could not be written: its folder is locked or read-only."
            made = merged_shelves(base, ours, theirs := load_shelf())
            if made != theirs:
                write_quickly(path, to_text(made))
                _known[path] = _stamp(path), made
            return made, ""
    except FileTrouble as trouble:
        return base, str(trouble)
    except OSError as error:
        return base, f"The shelf could not be written: {reason(error)}."


def shelf_schema() -> dict[str, Any]:
    """The JSON Schema of the shelf's file."""
    made = Shelf.model_json_schema(mode="serialization")
    made["properties"]["format"] = {"enum": [FORMAT], "type": "integer"}
    made["required"] = ["format"]
    made["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    made["title"] = "Tessil shelf"
    return made


# -- CSV -----------------------------------------------------------------------------


def shelf_csv(shelf: Shelf, units: Units) -> str:
    """All rows, sizes with their unit."""
    exact = rulers(units).notation.exact
    return write_list(
        COLUMNS,
        (
            (
                row.kind,
                row.name,
                "" if row.width is None else exact(row.width, unit=True),
                "" if row.length is None else exact(row.length, unit=True),
                row.number,
                row.place,
                "" if row.price is None else f"{row.price:.12g}",
                row.date,
                row.note,
                row.kept_for,
                " ".join(f"{exact(x)};{exact(y)}" for x, y in row.corners),
            )
            for row in shelf.rows
        ),
    )


def read_shelf(path: Path, shelf: Shelf, units: Units) -> Shelf:
    """The shelf with the rows of a CSV file put on it; raises FileTrouble with one sentence that
    says where.  Takes commas, semicolons or tabs between columns, and decimal commas inside."""
    text = read_list(path, "list of what there is", LARGEST_CSV, f"{MOST_ROWS:,} rows at most")
    free = MOST_ROWS - len(shelf.rows)
    taken = {row.id for row in shelf.rows}
    made: list[Row] = []
    for number, (where, cells) in enumerate(
        rows_of(text, f"“{path.name}”", WANTED, COLUMNS, free), start=1
    ):
        mark = f"list-{number}"
        id_ = fresh_id(shelf, mark) if mark in taken else mark
        made.append(_row(cells, where, units, id_))
    return shelf.having(*made)


def _corners(text: str, units: Units) -> dict[str, Any]:
    """Corners one after the other, ``0;0 9;0 7½;6``."""
    corners, more = read_corners(text, units)
    if more:
        raise LengthError("Corners are written 0;0 9;0 7½;6, one after the other.")
    width, length = largest_inside(corners)
    return {"corners": corners, "width": width, "length": length}


def _row(cells: Cells, where: str, units: Units, id_: str) -> Row:
    fields: dict[str, Any] = {"id": id_, **{key: cells[key] for key in COLUMNS if key in cells}}
    fields["kind"] = cells.get("kind", "scrap").lower()
    if fields["kind"] not in KINDS:
        said = printable(fields["kind"])
        raise FileTrouble(f"{where}: “{said}” is no kind; there are {', '.join(KINDS)}.")
    try:
        for key in ("width", "length"):
            if key in fields:
                fields[key] = read_length(fields[key], units, FARTHEST)
        if "corners" in fields:
            fields |= _corners(fields["corners"], units)
        if "price" in fields:
            fields["price"] = float(kept_money(fields["price"]))
        return Row(**fields)
    except (LengthError, MoneyError) as error:
        raise FileTrouble(f"{where}: {printable(str(error))}") from None
    except Refused as error:
        raise FileTrouble(f"{where}: {first_refusal(error)}") from None
