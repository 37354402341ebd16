"""A record that notes what is read of it, so that what was computed from it can be remembered.

A check or a reading looks at a whole plan and uses little of it.  What it used last time is noted
as it reads; where that is still the same, so is what it would say.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial
from types import MethodType
from typing import Any

from tessil.core.memory.same import same

Step = str | tuple[str, tuple[Any, ...]]  # an attribute, or a method with what it was given
Way = tuple[Step, ...]


class Watched:
    """Stands for a record; ``whole`` names those of its fields that are records to watch too."""

    def __init__(
        self, record: object, read: dict[Way, object], whole: frozenset[str], way: Way = ()
    ) -> None:
        self._record, self._read, self._whole, self._way = record, read, whole, way

    def __getattr__(self, name: str) -> Any:
        value = getattr(self._record, name)
        if isinstance(value, MethodType):
            return partial(self._call, name)
        way = (*self._way, name)
        if name in self._whole:
            return Watched(value, self._read, self._whole, way)
        self._read[way] = value
        return value

    def _call(self, name: str, *given: Any) -> Any:
        value = getattr(self._record, name)(*given)
        self._read[(*self._way, (name, given))] = value
        return value


def still(
    record: object, read: Mapping[Way, object], alike: Callable[[object, object], bool] = same
) -> bool:
    """Whether a record still says what was read of another."""
    return all(alike(value, _at(record, way)) for way, value in read.items())


def _at(record: Any, way: Way) -> Any:
    for step in way:
        record = (
            getattr(record, step) if isinstance(step, str) else getattr(record, step[0])(*step[1])
        )
    return record
