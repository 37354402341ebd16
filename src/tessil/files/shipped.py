"""The band's demo as it ships with the program: its jobs and its logbook.

They are read as they stand, by the kinds of their fields alone: what checks documents is slow to
load, and tests check these.  A document from anywhere else is never read so.
"""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

from tessil.core.logbook.book import Book
from tessil.core.numbers.decided import trusted
from tessil.core.project import Job
from tessil.files.projectfile import migrated

DEMO = Path(__file__).parents[1] / "demo"


@lru_cache(8)
def demo(key: str) -> tuple[Job, Book]:
    """A job of the band's, and its logbook; they never change."""
    name = f"{key}.tessil"
    return trusted(Job, migrated(_data(name), name)), trusted(Book, _data("logbook.json"))


def _data(name: str) -> dict[str, Any]:
    data: dict[str, Any] = json.loads((DEMO / name).read_text("utf-8"))
    return data
