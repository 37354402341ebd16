"""Where Tessil may write beside the maker's own files: the XDG folders, nothing else."""

from __future__ import annotations

import os
from pathlib import Path


def _base(variable: str, fallback: str) -> Path:
    value = os.environ.get(variable, "")
    root = Path(value) if os.path.isabs(value) else Path.home() / fallback
    return root / "tessil"


def state_folder() -> Path:
    """For recovery files and the list of recent projects; made if missing."""
    folder = _base("XDG_STATE_HOME", ".local/state")
    folder.mkdir(parents=True, exist_ok=True)
    return folder


def data_folder() -> Path:
    """For the maker's logbook; made if missing."""
    folder = _base("XDG_DATA_HOME", ".local/share")
    folder.mkdir(parents=True, exist_ok=True)
    return folder


def documents_folder() -> Path:
    """Where a new project is offered to be saved: the XDG documents folder, or home."""
    value = os.environ.get("XDG_DOCUMENTS_DIR", "")
    if value and os.path.isabs(value):
        return Path(value)
    documents = Path.home() / "Documents"
    return documents if documents.is_dir() else Path.home()
