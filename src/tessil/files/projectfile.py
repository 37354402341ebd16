"""The ``.tessil`` file: reading it without trusting it, writing it without risk.

Knows the file format and disks; must not know windows.  A file is UTF-8 JSON, sorted and
indented, with a ``format`` number.
"""

from __future__ import annotations

import json
import os
import tempfile
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from tessil.core.project import FORMAT, Project
from tessil.core.trouble import FileTrouble as FileTrouble

LARGEST = 16 * 1024 * 1024
DEEPEST = 40

Migration = Callable[[dict[str, Any]], dict[str, Any]]


def _layers_in_order(document: dict[str, Any]) -> dict[str, Any]:
    """Format 3 keeps layers as a list from outside in, not as one batting and one backing."""
    panels = document.get("panels")
    if not isinstance(panels, dict):
        return {**document, "format": 3}
    moved = {}
    for key, choices in panels.items():
        old = choices.get("layers") if isinstance(choices, dict) else None
        if isinstance(old, dict) and old.keys() <= {"batting", "backing", "margin"}:
            margin = {"margin": old["margin"]} if "margin" in old else {}
            names = (old.get("batting", "cotton-batting"), old.get("backing", "none"))
            plies = [{"material": name, **margin} for name in names if name != "none"]
            choices = {**choices, "layers": {"plies": plies}}
        moved[key] = choices
    return {**document, "panels": moved, "format": 3}


# From a format number to the next: MIGRATIONS[1] makes a format 2 document of a format 1 one.
MIGRATIONS: dict[int, Migration] = {
    # Format 2 only has more to say of piecing, prints and scraps: what was is still right.
    1: lambda document: {**document, "format": 2},
    2: _layers_in_order,
}


def to_text(project: Project) -> str:
    """The project as it stands in a file."""
    data = project.model_dump(mode="json")
    return json.dumps(data, ensure_ascii=False, indent=2, sort_keys=True) + "\n"


def from_text(text: str, name: str = "This file") -> Project:
    """The project in a file's text; raises FileTrouble with one sentence that says where."""
    if _depth(text) > DEEPEST:
        raise FileTrouble(f"{name} is nested too deeply to be a Tessil project.")
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise FileTrouble(
            f"{name} is not a whole Tessil project: it breaks off or goes wrong in line "
            f"{error.lineno}, column {error.colno}."
        ) from None
    except (RecursionError, ValueError):
        raise FileTrouble(f"{name} is not a Tessil project: its contents make no sense.") from None
    return _validated(_migrated(data, name), name)


def _depth(text: str) -> int:
    """How deeply brackets nest, counted without parsing; brackets in strings only add."""
    deep = most = 0
    for letter in text:
        if letter in "[{":
            deep += 1
            most = max(most, deep)
        elif letter in "]}":
            deep -= 1
    return most


def _migrated(data: Any, name: str) -> dict[str, Any]:
    if not isinstance(data, dict) or not _is_number(data.get("format")):
        raise FileTrouble(f"{name} is not a Tessil project: it has no format number.")
    if data["format"] > FORMAT:
        raise FileTrouble(
            f"{name} was written by a newer Tessil (format {data['format']}; this one reads up to "
            f"{FORMAT})."
        )
    document: dict[str, Any] = data
    while document["format"] < FORMAT:
        step = MIGRATIONS.get(document["format"])
        if step is None:
            raise FileTrouble(f"{name} has a format number that never was: {document['format']}.")
        document = step(document)
    return document


def _is_number(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool)


def _validated(data: dict[str, Any], name: str) -> Project:
    try:
        return Project.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        where = " → ".join(str(part) for part in first["loc"]) or "the top"
        raise FileTrouble(f"{name} has a wrong entry at {where}: {plain_sentence(first)}") from None


def plain_sentence(error: Any) -> str:
    """The sentence of a validation error, without the library's prefix."""
    message: str = error["msg"]
    text = message.removeprefix("Value error, ")
    return text if text.endswith((".", "!")) else text + "."


def load(path: Path) -> Project:
    """Read a project; raises FileTrouble and changes nothing else."""
    name = f"“{path.name}”"
    try:
        if not path.is_file():
            raise FileTrouble(f"{name} is not a file that can be opened.")
        if path.stat().st_size > LARGEST:
            raise FileTrouble(f"{name} is larger than a Tessil project can be (16 MB).")
        raw = path.read_bytes()
    except OSError as error:
        raise FileTrouble(f"{name} cannot be read: {_reason(error)}.") from None
    try:
        text = raw.decode("utf-8")
    except UnicodeDecodeError:
        raise FileTrouble(f"{name} is not a Tessil project: it is not text.") from None
    return from_text(text, name)


def save(project: Project, path: Path) -> None:
    """Write a project so that either the old or the new file is whole; keep one backup.

    Raises FileTrouble, with the old file untouched, if the disk refuses.
    """
    name = f"“{path.name}”"
    try:
        if path.exists() and not os.access(path, os.W_OK):
            raise FileTrouble(f"{name} is read-only: save it under another name.")
        _replace_whole(path, to_text(project).encode("utf-8"), backup=True)
    except OSError as error:
        raise FileTrouble(f"{name} could not be saved: {_reason(error)}.") from None


def _reason(error: OSError) -> str:
    return (error.strerror or "the disk refused").lower()


def _replace_whole(path: Path, data: bytes, backup: bool) -> None:
    handle, temporary = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        if backup and path.exists():
            _keep_backup(path)
        os.replace(temporary, path)
    except BaseException:
        with suppress(OSError):
            os.unlink(temporary)
        raise
    _sync_folder(path.parent)


def _keep_backup(path: Path) -> None:
    """The old file stays under ``name.tessil~``; a hard link, so that nothing is copied."""
    backup = path.with_name(path.name + "~")
    with suppress(FileNotFoundError):
        backup.unlink()
    try:
        os.link(path, backup)
    except OSError:
        backup.write_bytes(path.read_bytes())


def _sync_folder(folder: Path) -> None:
    with suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def write_export(path: Path, data: bytes) -> None:
    """Write something made from a project, whole or not at all; raises FileTrouble."""
    try:
        _replace_whole(path, data, backup=False)
    except OSError as error:
        raise FileTrouble(f"“{path.name}” could not be written: {_reason(error)}.") from None


def write_quickly(path: Path, text: str) -> None:
    """An atomic write without a backup, for recovery files; raises OSError."""
    _replace_whole(path, text.encode("utf-8"), backup=False)


def schema() -> dict[str, Any]:
    """The JSON Schema of the file format."""
    made = Project.model_json_schema(mode="serialization")
    made["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    made["title"] = "Tessil project"
    return made
