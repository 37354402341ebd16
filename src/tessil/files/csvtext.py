"""Lists as CSV: reading what somebody's spreadsheet wrote, and writing what none will take for a
formula.

Knows text and disks; what the columns mean is the caller's.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Iterator, Sequence
from pathlib import Path

from tessil.core.numbers.decided import Refused
from tessil.core.trouble import FileTrouble
from tessil.core.words.refusals import printable, refusal, where_words
from tessil.files.disk import reason

Cells = dict[str, str]
_FORMULA = ("=", "+", "-", "@")
_NUMBER = re.compile(r"[-+]?\d+([.,]\d+)?")


def write_list(columns: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A list with its head row, every cell as text that no spreadsheet works out."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(columns)
    for row in rows:
        writer.writerow([harmless(cell) for cell in row])
    return out.getvalue()


def harmless(cell: object) -> str:
    """A cell that is no formula: one that begins like one gets an apostrophe before it, which a
    spreadsheet does not show and :func:`rows_of` takes away again."""
    text = printable(str(cell)).strip()
    if text.startswith(_FORMULA) and not _NUMBER.fullmatch(text):
        return f"'{text}"
    return text


def _as_written(cell: str) -> str:
    text = cell.strip()
    return text[1:] if text.startswith(tuple(f"'{sign}" for sign in _FORMULA)) else text


def read_list(path: Path, what: str, largest: int, too_large: str) -> str:
    """The text of a list; raises FileTrouble with one sentence.  ``what`` is what it should be."""
    name = f"“{path.name}”"
    try:
        if not path.is_file():
            raise FileTrouble(f"{name} is not a file that can be opened.")
        if path.stat().st_size > largest:
            raise FileTrouble(f"{name} is larger than a {what} can be: {too_large}.")
        return path.read_text("utf-8-sig")
    except UnicodeDecodeError:
        raise FileTrouble(f"{name} is no {what}: it is not text.") from None
    except OSError as error:
        raise FileTrouble(f"{name} cannot be read: {reason(error)}.") from None


def rows_of(
    text: str, name: str, wanted: tuple[str, ...], all_: tuple[str, ...], most: int
) -> Iterator[tuple[str, Cells]]:
    """Each row's place in words, and its cells by column in small letters, empty ones left out.

    Raises FileTrouble where a wanted column is missing, for more rows than ``most``, and for what
    is no CSV at all.
    """
    between = max(";\t,", key=text.partition("\n")[0].count)
    reader = csv.DictReader(io.StringIO(text), delimiter=between)
    try:
        columns = [(column or "").strip().lower() for column in reader.fieldnames or ()]
        missing = [column for column in wanted if column not in columns]
        if missing:
            raise FileTrouble(f"{name} has no column “{missing[0]}”: {', '.join(all_)} are wanted.")
        for number, row in enumerate(reader, start=2):
            if number - 2 >= most:
                raise FileTrouble(f"{name} has more than {most:,} rows: leave some out.")
            yield f"{name}, line {number}", _cells(row)
    except csv.Error as error:
        raise FileTrouble(f"{name} is no CSV that can be read: {error}.") from None


def _cells(row: dict[str, str]) -> Cells:
    """What stands in a row; cells beyond the head's columns are passed over."""
    return {
        (key or "").strip().lower(): _as_written(value)
        for key, value in row.items()
        if isinstance(value, str) and value.strip()
    }


def row_trouble(error: Refused, where: str) -> FileTrouble:
    """What is wrong with a row of a list: where it stands, which column, a sentence."""
    first = error.errors()[0]
    column = f" {where_words(first['loc'])}:" if first["loc"] else ""
    return FileTrouble(f"{where},{column} {refusal(first)}")
