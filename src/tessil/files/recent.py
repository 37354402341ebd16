"""The list of projects opened lately, newest first."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path

from tessil.files.disk import reachable
from tessil.files.places import state_folder
from tessil.files.projectfile import write_quickly

MOST = 8


def _path() -> Path:
    return state_folder() / "recent.json"


def recent_files() -> list[Path]:
    """Those that still exist."""
    with suppress(OSError, ValueError, TypeError):
        names = json.loads(_path().read_text("utf-8"))
        return [path for path in map(Path, names) if path.is_file()][:MOST]
    return []


def remember(path: Path) -> None:
    """Put a project at the head of the list."""
    whole = reachable(path).resolve()
    others = [entry for entry in recent_files() if entry != whole]
    with suppress(OSError):
        write_quickly(_path(), json.dumps([str(entry) for entry in [whole, *others][:MOST]]))
