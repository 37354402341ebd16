"""Autosave beside the maker's file, and finding it again after a crash.

Each running Tessil keeps one recovery file named by its process; a file whose process has
gone was left by a crash.
"""

from __future__ import annotations

import json
import os
import re
import time
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from tessil.core.project import Project
from tessil.files.places import state_folder
from tessil.files.projectfile import FileTrouble, from_text, to_text, write_quickly


@dataclass(frozen=True, slots=True)
class Lost:
    """Work that a crash left behind."""

    path: Path
    project: Project
    origin: Path | None
    when: datetime


def _own_path() -> Path:
    return state_folder() / f"recovery-{os.getpid()}.json"


def keep(project: Project, origin: Path | None) -> None:
    """Write the current work where a crash cannot reach it; a full disk is no reason to stop."""
    _write(_own_path(), project, origin)


def put_aside(project: Project, origin: Path | None) -> None:
    """Keep unsaved work that makes room for another project; it is found like lost work."""
    _write(state_folder() / f"aside-{time.time_ns()}.json", project, origin)


def _write(path: Path, project: Project, origin: Path | None) -> None:
    record = {"origin": str(origin) if origin else None, "project": json.loads(to_text(project))}
    with suppress(OSError):
        write_quickly(path, json.dumps(record, ensure_ascii=False))


def forget() -> None:
    """The work is safe in its file, or given up: the recovery file goes."""
    with suppress(OSError):
        _own_path().unlink()


def discard(lost: Lost) -> None:
    """Give up work that a crash left behind."""
    with suppress(OSError):
        lost.path.unlink()


def _is_running(process: int) -> bool:
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def find_lost() -> list[Lost]:
    """Work put aside, or whose process has gone, newest first; unreadable files are left alone."""
    found = []
    for path in state_folder().glob("*.json"):
        match = re.fullmatch(r"(recovery|aside)-(\d+)\.json", path.name)
        if match is None or (match[1] == "recovery" and _is_running(int(match[2]))):
            continue
        with suppress(OSError, ValueError, KeyError, TypeError, FileTrouble):
            record = json.loads(path.read_text("utf-8"))
            project = from_text(json.dumps(record["project"]), "The recovered work")
            origin = Path(record["origin"]) if record["origin"] else None
            found.append(Lost(path, project, origin, datetime.fromtimestamp(path.stat().st_mtime)))
    return sorted(found, key=lambda lost: lost.when, reverse=True)
