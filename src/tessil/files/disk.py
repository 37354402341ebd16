"""Writing so that at every instant the old or the new file is whole, and locks between programs.

Knows disks; must not know what is written.  A file under way has a name by which a later start
can tell it from the maker's own files, and sweep it if a kill has left it behind.
"""

from __future__ import annotations

import fcntl
import os
import re
import stat
import sys
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

from tessil.core.numbers.records import Record

if TYPE_CHECKING:
    from concurrent.futures import ThreadPoolExecutor

    from PySide6.QtCore import QLockFile

PRIVATE, USUAL = 0o600, 0o666  # of the usual mode the maker's umask takes its part
_UNDER_WAY = re.compile(r"^\.tessil-[0-9a-f]{12}\.part$")
_LOCK_WAIT_MS = 3000


class Standing(Record, frozen=True):
    """What stands in the way of a name: nothing, or a sentence and whether it may be replaced."""

    sentence: str = ""
    may_replace: bool = True


def reason(error: OSError) -> str:
    """Why the disk refused, in the system's words."""
    return (error.strerror or "the disk refused").lower()


def reachable(path: Path) -> Path:
    """A path by which the system finds the file, also where its letters are only ASCII."""
    if sys.getfilesystemencoding() == "utf-8":
        return path
    return Path(os.fsdecode(str(path).encode("utf-8", "surrogateescape")))


def is_there(path: Path) -> bool:
    """Whether something stands under a name; no for a name that cannot be."""
    try:
        return reachable(path).exists()
    except (OSError, ValueError):
        return False


def write_whole(
    path: Path, data: bytes, mode: int = USUAL, backup: bool = False, wait: bool = True
) -> None:
    """Put ``data`` in the place of a file, whole or not at all; raises OSError.

    A link is followed, and a file that stands there keeps its mode; a new one gets ``mode``.
    With ``backup`` the old file stays as ``name~``, whole at every instant.  Without ``wait`` the
    file is in its place when this returns, safe from the program's end; the disk is told to hold it
    against a power cut behind the maker's back, since a busy disk may take seconds for that.
    """
    path = reachable(path).resolve()
    sweep(path.parent)
    for last in (False, True):
        try:
            _write_beside(path, data, mode, backup, wait)
            break
        except FileNotFoundError:  # swept by another program before it was locked: once more
            if last or not path.parent.is_dir():
                raise
    if wait:
        _sync_folder(path.parent)


def _write_beside(path: Path, data: bytes, mode: int, backup: bool, wait: bool) -> None:
    handle, temporary = _begin(path.parent, mode)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            with suppress(FileNotFoundError):
                os.fchmod(file.fileno(), stat.S_IMODE(path.stat().st_mode))
            if wait:
                os.fsync(file.fileno())
            if backup and path.exists():
                _keep_backup(path)
            os.replace(temporary, path)  # while the file is open, and so locked
            if not wait:
                _behind().submit(_settle, os.dup(file.fileno()), path.parent)
    except BaseException:
        with suppress(OSError):
            os.unlink(temporary)
        raise


@cache
def _behind() -> ThreadPoolExecutor:
    """One hand that waits for the disk."""
    from concurrent.futures import ThreadPoolExecutor

    return ThreadPoolExecutor(1, "disk")


def _settle(handle: int, folder: Path) -> None:
    with suppress(OSError):
        os.fsync(handle)
    os.close(handle)
    _sync_folder(folder)


def _begin(folder: Path, mode: int) -> tuple[int, Path]:
    """A new file beside the one to be written, locked as long as it is open."""
    path = folder / f".tessil-{os.urandom(6).hex()}.part"
    handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL | os.O_CLOEXEC, mode)
    with suppress(OSError):
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    return handle, path


def sweep(folder: Path) -> None:
    """Take away what a killed program was writing; what is being written is locked, and stays."""
    with suppress(OSError):
        left = [path for path in folder.iterdir() if _UNDER_WAY.match(path.name)]
        for path in left:
            _sweep_one(path)


def _sweep_one(path: Path) -> None:
    with suppress(OSError):
        handle = os.open(path, os.O_RDONLY | os.O_CLOEXEC)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            os.unlink(path)
        finally:
            os.close(handle)


def _keep_backup(path: Path) -> None:
    """The old file under ``name~``: by a hard link, or where the disk has none by a whole copy."""
    backup = path.with_name(path.name + "~")
    link = path.parent / f".tessil-{os.urandom(6).hex()}.part"
    try:
        os.link(path, link)
    except OSError:
        _write_beside(backup, path.read_bytes(), stat.S_IMODE(path.stat().st_mode), False, True)
        return
    try:
        os.replace(link, backup)
    finally:
        with suppress(OSError):  # where both were one file already, the link still stands
            os.unlink(link)


def _sync_folder(folder: Path) -> None:
    with suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def lock_for(path: Path) -> QLockFile:
    """The lock beside a file, not taken yet.

    Qt holds it by the system's own file lock, which dies with its program; by the short stale time
    every lock may be tried, so that neither process numbers nor clocks matter.
    """
    from PySide6.QtCore import QLockFile  # the command line comes without it

    lock = QLockFile(str(path) + ".lock")
    lock.setStaleLockTime(1)
    return lock


@contextmanager
def held(path: Path) -> Iterator[bool]:
    """Hold the lock of a file for a moment; False where another program does not let go of it."""
    lock = lock_for(path)
    got = lock.tryLock(_LOCK_WAIT_MS)
    try:
        yield got
    finally:
        if got:
            lock.unlock()
