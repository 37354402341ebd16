"""The scrap list as CSV, out and in: width, height, number, print."""

from __future__ import annotations

import csv
import io
from pathlib import Path

from pydantic import ValidationError

from tessil.core.lengths import LengthError
from tessil.core.piecing.scraplist import read_scrap
from tessil.core.project import MOST_SCRAPS, Project, Scrap
from tessil.core.rulers import rulers
from tessil.core.trouble import FileTrouble
from tessil.files.projectfile import plain_sentence

COLUMNS = ("width", "height", "number", "print")
LARGEST = 1024 * 1024


def scraps_csv(project: Project) -> str:
    """The scraps of a project, sizes with their unit."""
    notation = rulers(project.units).notation
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for scrap in project.scraps:
        sizes = (notation.exact(size, unit=True) for size in (scrap.width, scrap.height))
        name = project.print_of(scrap.print).name if scrap.print else ""
        writer.writerow((*sizes, scrap.number, name))
    return out.getvalue()


def read_scraps(path: Path, project: Project) -> tuple[Scrap, ...]:
    """The scraps in a CSV file; raises FileTrouble with one sentence that says where.

    Takes commas, semicolons or tabs between columns, and decimal commas inside them.
    """
    name = f"“{path.name}”"
    try:
        if not path.is_file():
            raise FileTrouble(f"{name} is not a file that can be opened.")
        if path.stat().st_size > LARGEST:
            raise FileTrouble(f"{name} is larger than a list of scraps can be (1 MB).")
        text = path.read_text("utf-8-sig")
    except UnicodeDecodeError:
        raise FileTrouble(f"{name} is no list of scraps: it is not text.") from None
    except OSError as error:
        reason = (error.strerror or "the disk refused").lower()
        raise FileTrouble(f"{name} cannot be read: {reason}.") from None
    return _rows(text, name, project)


def _rows(text: str, name: str, project: Project) -> tuple[Scrap, ...]:
    first = text.partition("\n")[0]
    between = max(";\t,", key=first.count)
    reader = csv.DictReader(io.StringIO(text), delimiter=between)
    columns = [column.strip().lower() for column in reader.fieldnames or ()]
    missing = [column for column in COLUMNS[:2] if column not in columns]
    if missing:
        raise FileTrouble(f"{name} has no column “{missing[0]}”: {', '.join(COLUMNS)} are wanted.")
    found: list[Scrap] = []
    for number, row in enumerate(reader, start=2):
        if len(found) >= MOST_SCRAPS:
            raise FileTrouble(f"{name} has more than {MOST_SCRAPS} rows: leave some out.")
        found.append(_scrap(row, number, name, project))
    return tuple(found)


def _scrap(row: dict[str, str], number: int, name: str, project: Project) -> Scrap:
    cells = {(key or "").strip().lower(): (value or "") for key, value in row.items()
             if isinstance(value, str) or value is None}  # fmt: skip
    many = cells.get("number", "").strip() or "1"
    words = f"{cells.get('width', '')} × {cells.get('height', '')} ×{many} "
    try:
        return read_scrap(words + cells.get("print", ""), project.prints, project.units)
    except LengthError as error:
        raise FileTrouble(f"{name}, line {number}: {error}") from None
    except ValidationError as error:
        raise FileTrouble(f"{name}, line {number}: {plain_sentence(error.errors()[0])}") from None
