"""Where Tessil may write beside the maker's own files: the XDG folders, nothing else.

A folder that cannot be made is named all the same: whoever writes there says so.
"""

from __future__ import annotations

import os
from contextlib import suppress
from pathlib import Path
from urllib.parse import unquote, urlsplit


def _home() -> Path:
    try:
        return Path.home()
    except RuntimeError:  # no HOME, and nobody of that number in the system's list
        import tempfile

        return Path(tempfile.gettempdir())


def _base(variable: str, fallback: str) -> Path:
    value = os.environ.get(variable, "")
    root = Path(value) if os.path.isabs(value) else _home() / fallback
    folder = root / "tessil"
    with suppress(OSError):
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    return folder


def state_folder() -> Path:
    """For work that is kept, and the list of recent projects."""
    return _base("XDG_STATE_HOME", ".local/state")


def data_folder() -> Path:
    """For the maker's logbook."""
    return _base("XDG_DATA_HOME", ".local/share")


def config_folder() -> Path:
    """For the window's place and the size of its text."""
    return _base("XDG_CONFIG_HOME", ".config")


def documents_folder() -> Path:
    """Where a new project is offered to be saved: the XDG documents folder, or home."""
    value = os.environ.get("XDG_DOCUMENTS_DIR", "")
    if value and os.path.isabs(value):
        return Path(value)
    documents = _home() / "Documents"
    return documents if documents.is_dir() else _home()


def path_in(text: str) -> Path:
    """A path as it is typed, dropped or handed over: ``~/bag.tessil``, ``file:///home/…``."""
    text = text.strip()
    if text.lower().startswith("file:"):
        text = unquote(urlsplit(text).path)
    path = Path(text)
    with suppress(RuntimeError):  # of a user whom the system does not know
        path = path.expanduser()
    return path
