"""The scrap list as CSV, out and in: width, height, number, print."""

from __future__ import annotations

from pathlib import Path

from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import LengthError
from tessil.core.numbers.rulers import rulers
from tessil.core.piecing.choice import MOST_SCRAPS, Scrap
from tessil.core.piecing.scraplist import read_scrap
from tessil.core.project import Project
from tessil.core.trouble import FileTrouble
from tessil.core.words.refusals import first_refusal, printable
from tessil.files.csvtext import Cells, read_list, rows_of, write_list

COLUMNS = ("width", "height", "number", "print")
LARGEST = 1024 * 1024


def scraps_csv(project: Project) -> str:
    """The scraps of a project, sizes with their unit."""
    notation = rulers(project.units).notation
    return write_list(
        COLUMNS,
        (
            (
                notation.exact(scrap.width, unit=True),
                notation.exact(scrap.height, unit=True),
                scrap.number,
                project.print_of(scrap.print).name if scrap.print else "",
            )
            for scrap in project.scraps
        ),
    )


def read_scraps(path: Path, project: Project) -> tuple[Scrap, ...]:
    """The scraps in a CSV file; raises FileTrouble with one sentence that says where.

    Takes commas, semicolons or tabs between columns, and decimal commas inside them.
    """
    text = read_list(path, "list of scraps", LARGEST, "1 MB at most")
    rows = rows_of(text, f"“{path.name}”", COLUMNS[:2], COLUMNS, MOST_SCRAPS)
    return tuple(_scrap(cells, where, project) for where, cells in rows)


def _scrap(cells: Cells, where: str, project: Project) -> Scrap:
    many = cells.get("number", "1")
    words = f"{cells.get('width', '')} × {cells.get('height', '')} ×{many} "
    try:
        return read_scrap(words + cells.get("print", ""), project.prints, project.units)
    except LengthError as error:
        raise FileTrouble(f"{where}: {printable(str(error))}") from None
    except Refused as error:
        raise FileTrouble(f"{where}: {first_refusal(error)}") from None
