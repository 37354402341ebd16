"""Descriptions of fields as data: what to ask, what stands there, what an answer changes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal

from msgspec.structs import replace

from tessil.core.edits import Edit
from tessil.core.numbers.records import Record

Kind = Literal[
    "length",
    "length?",
    "count",
    "count?",
    "word",
    "money",
    "money?",
    "percent",
    "note",  # a word that may be empty
    "choice",
    "toggle",
    "basket",
    "action",
    "entry",  # a word that is taken and leaves the field empty for the next
    "page",  # a button that turns to another page of the window
    "slide",  # a length by a slider under the hand, tried out while it is dragged
    "question",  # a line with its answer, by which its fields are opened
    "search",  # a button that starts a search, with its progress
]


class Spec(Record, frozen=True):
    """One field.  ``key`` is stable; ``edit`` makes the change for an answer and may raise
    Refused."""

    key: str
    kind: Kind
    label: str
    help: str
    value: Any
    edit: Callable[[Any], Edit]
    choices: tuple[tuple[Any, str], ...] = ()
    empty: str = ""  # what it means to leave it empty
    more: Callable[[], tuple[tuple[Any, str], ...]] | None = None  # choices, when the list opens

    @property
    def form(self) -> tuple[Any, ...]:
        """What must stay alike for the same widget to serve."""
        return (
            self.key,
            self.kind,
            "" if self.kind == "action" else self.label,
            self.choices,
            self.help,
        )


def with_empty(spec: Spec, empty: str) -> Spec:
    """A field that may be left empty, and says what that means."""
    said = f"{spec.help}; empty: {empty}" if spec.help else f"Empty: {empty}"
    return replace(spec, help=said, empty=empty)
