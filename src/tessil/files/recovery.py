"""Work that is kept beside the maker's files, and finding it again after a crash.

Each running Tessil keeps one file under a lock of its own; a file whose lock nobody holds was left
by a crash.  Unsaved work that made room for another project lies beside it.  A file is two lines:
what it is, short, so that a list of many is read at once, and the project.
"""

from __future__ import annotations

import json
import time
from contextlib import suppress
from datetime import datetime, timedelta
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import uuid4

from tessil.core.numbers.records import Record
from tessil.core.project import Job
from tessil.core.words.refusals import printable
from tessil.files.disk import lock_for, reason, sweep
from tessil.files.places import state_folder
from tessil.files.projectfile import FileTrouble, from_text, to_text, write_quickly

if TYPE_CHECKING:
    from PySide6.QtCore import QLockFile

KEPT_DAYS = 90
MOST_KEPT = 200
LARGEST_HEAD = 4096
DROPPED = ".dropped"  # thrown away, and still to be had until the next start
WHAT = "The kept work"

_token = uuid4().hex[:12]
_own_locks: dict[Path, QLockFile] = {}


class Lost(Record, frozen=True, dict=True):
    """Work that is in no file of the maker's: what it is, read without reading all of it."""

    path: Path
    name: str
    shape: str
    origin: Path | None
    when: datetime
    changes: int
    stood: str  # what the maker's own file held when it was read

    @cached_property
    def job(self) -> Job:
        """The work itself; raises FileTrouble, with a sentence, if it cannot be read any more."""
        try:
            text = self.path.read_text("utf-8")
        except UnicodeDecodeError:
            raise FileTrouble(f"{WHAT} is not text any more.") from None
        except OSError as error:
            raise FileTrouble(f"{WHAT} cannot be read: {reason(error)}.") from None
        head, _, body = text.partition("\n")
        if body:
            return from_text(body, WHAT)
        return _of_one_line(head)


def _of_one_line(text: str) -> Job:
    """What an earlier Tessil kept: all in one line."""
    try:
        record = json.loads(text)
        project = json.dumps(record["project"])
    except (ValueError, KeyError, TypeError, RecursionError):
        raise FileTrouble(f"{WHAT} breaks off or makes no sense.") from None
    return from_text(project, WHAT)


def _lock_of(path: Path) -> QLockFile:
    folder = path.parent / "locks"
    with suppress(OSError):
        folder.mkdir(mode=0o700, exist_ok=True)
    return lock_for(folder / path.stem)


def _own_path() -> Path:
    """This Tessil's own file; its lock is taken the first time, and held until the program ends."""
    path = state_folder() / f"recovery-{_token}.json"
    if path not in _own_locks:
        lock = _lock_of(path)
        if lock.tryLock(0):
            _own_locks[path] = lock
    return path


def keep(job: Job, origin: Path | None, changes: int = 0, stood: str = "") -> str:
    """Write the current work where a crash cannot reach it; a sentence if that fails.

    ``origin`` is the maker's file it belongs to, ``stood`` what that held when it was read.
    """
    return _write(_own_path(), job, origin, changes, stood)


def put_aside(job: Job, origin: Path | None, changes: int = 0, stood: str = "") -> str:
    """Keep unsaved work that makes room for another project; it is found like lost work."""
    path = state_folder() / f"aside-{time.time_ns()}-{uuid4().hex[:6]}.json"
    return _write(path, job, origin, changes, stood)


def _write(path: Path, job: Job, origin: Path | None, changes: int, stood: str) -> str:
    head = {
        "name": job.title,
        "shape": job.bags[0].shape.kind,
        "origin": str(origin) if origin else None,
        "changes": changes,
        "stood": stood,
    }
    text = json.dumps(head, ensure_ascii=False) + "\n" + to_text(job)
    try:
        write_quickly(path, text, wait=False)
    except OSError as error:
        return f"Your work cannot be kept by itself just now: {reason(error)}. Save it (Ctrl+S)."
    return ""


def forget() -> None:
    """The work is safe in its file, or given up: the recovery file goes."""
    with suppress(OSError):
        _own_path().unlink()


def discard(lost: Lost) -> Path | None:
    """Throw kept work away; returns where it can still be had, until the next start."""
    dropped = lost.path.with_suffix(DROPPED)
    with suppress(OSError):
        return lost.path.replace(dropped)
    return None


def bring_back(lost: Lost) -> None:
    """Kept work that was thrown away is there again."""
    with suppress(OSError):
        lost.path.with_suffix(DROPPED).replace(lost.path)


def done_with(lost: Lost) -> None:
    """Kept work was taken up again: its file goes."""
    with suppress(OSError):
        lost.path.unlink()


def find_lost() -> list[Lost]:
    """Work put aside, or whose program has gone, newest first.

    Only the first line of each is read; what makes no sense at all is left alone.
    """
    found = []
    with suppress(OSError):
        for path in state_folder().iterdir():
            if path.suffix == ".json" and path.name.startswith(("recovery-", "aside-")):
                lost = None if _is_in_use(path) else _read_head(path)
                found += [lost] if lost else []
    return sorted(found, key=lambda lost: lost.when, reverse=True)


def _is_in_use(path: Path) -> bool:
    """Whether a running Tessil, this one or another, keeps its work there."""
    if not path.name.startswith("recovery-"):
        return False
    if path.stem == f"recovery-{_token}":
        return True
    lock = _lock_of(path)
    if not Path(lock.fileName()).exists():
        return False
    if not lock.tryLock(0):
        return True
    lock.unlock()
    return False


def _read_head(path: Path) -> Lost | None:
    with suppress(OSError, ValueError, TypeError, KeyError, AttributeError, RecursionError):
        with path.open("rb") as file:
            line = file.readline(LARGEST_HEAD)
            whole = line if line.endswith(b"\n") else line + file.read()
        record = json.loads(whole.decode("utf-8"))
        record = _older(record) if "project" in record else record
        when = datetime.fromtimestamp(path.stat().st_mtime)
        origin = Path(record["origin"]) if isinstance(record["origin"], str) else None
        changes = record["changes"] if isinstance(record["changes"], int) else 0
        name, shape = printable(str(record["name"]))[:80], printable(str(record["shape"]))[:40]
        return Lost(path, name, shape, origin, when, changes, str(record.get("stood", "")))
    return None


def _older(record: dict[str, Any]) -> dict[str, Any]:
    """What an earlier Tessil kept says the same elsewhere."""
    project = record["project"]
    return {
        "name": project["name"],
        "shape": project["shape"]["kind"],
        "origin": record.get("origin"),
        "changes": 0,
    }


def prune() -> list[Lost]:
    """Take away what was thrown away, is far too old, or was only half written at a kill; what is
    left, newest first."""
    folder = state_folder()
    sweep(folder)
    oldest = datetime.now() - timedelta(days=KEPT_DAYS)
    with suppress(OSError):
        for path in folder.glob(f"*{DROPPED}"):
            path.unlink()
    found = find_lost()
    gone = [lost for at, lost in enumerate(found) if at >= MOST_KEPT or lost.when < oldest]
    for lost in gone:
        done_with(lost)
    with suppress(OSError):
        for path in (folder / "locks").iterdir():
            _is_in_use(folder / f"{path.stem}.json")  # a lock that nobody holds goes by being tried
    return [lost for lost in found if lost not in gone]
