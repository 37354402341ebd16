"""Changes to a project as data: which fields get which values, and the words for undo.

A command, a snag's fix and a bench gesture are all ``Edit``s.  Knows only how to set a
field by its path in frozen parts of a document; must not know what the fields mean.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, TypeVar

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.records import Record

Path = tuple[str | int, ...]
M = TypeVar("M", bound=Decided)


class Edit(Record, frozen=True):
    """Named change: the words stand in the undo list and on a fix's button."""

    words: str
    changes: tuple[tuple[Path, Any], ...]


def edit(words: str, *changes: tuple[str, Any]) -> Edit:
    """An edit from dotted paths: ``edit("Sew upright lines", ("panels.front.x", 1))``."""
    return Edit(words, tuple((path_of(dotted), value) for dotted, value in changes))


def path_of(dotted: str) -> Path:
    """``panels.front.gap`` as a path; whole numbers are places in a list."""
    return tuple(int(part) if part.isdigit() else part for part in dotted.split("."))


def applied(model: M, change: Edit) -> M:
    """The project after an edit; raises ``Refused`` for values it refuses."""
    for path, value in change.changes:
        model = _set(model, path, value)
    return model


def tried(model: M, change: Edit) -> M:
    """The same of an edit that is only looked at: whether its values are taken is not asked."""
    for path, value in change.changes:
        model = _set(model, path, value, checked=False)
    return model


def _set(holder: Any, path: Path, value: Any, checked: bool = True) -> Any:
    if not path:
        return value
    head, rest = path[0], path[1:]
    if isinstance(holder, Decided):
        fields = dict(holder)
        if head not in fields:
            raise KeyError(f"{type(holder).__name__} has no field {head!r}")
        fields[str(head)] = _set(fields[str(head)], rest, value, checked)
        return type(holder)(**fields) if checked else type(holder).model_construct(**fields)
    if isinstance(holder, Mapping):
        copied = dict(holder)
        if not rest and value is None:
            copied.pop(head, None)
            return copied
        copied[head] = _set(copied.get(head), rest, value, checked)
        return copied
    if isinstance(holder, tuple) and isinstance(head, int):
        changed = _set(holder[head], rest, value, checked)
        return (*holder[:head], changed, *holder[head + 1 :])
    raise KeyError(f"nothing to set at {head!r}")
