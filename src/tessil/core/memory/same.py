"""Whether two values are the same through and through, workings and all.

Figures compare by what they are, not by their number alone: a plan that shows another working is
another plan.  Knows frozen records; must not know what they stand for.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from typing import Any

from tessil.core.numbers.workings import Figure


def same(one: object, other: object) -> bool:
    """Whether nothing that reads the one could tell it from the other."""
    return _same(one, other, set())


def _same(one: Any, other: Any, seen: set[tuple[int, int]]) -> bool:
    if one is other:
        return True
    kind: Any = type(one)
    if kind is not type(other):
        return False
    if kind is Figure:
        return _same_figures(one, other, seen)
    if isinstance(one, tuple | list):
        return len(one) == len(other) and all(
            a is b or _same(a, b, seen) for a, b in zip(one, other, strict=True)
        )
    names = _names(kind)
    if names:
        return all(
            (a := getattr(one, name)) is (b := getattr(other, name)) or _same(a, b, seen)
            for name in names
        )
    if isinstance(one, Mapping):
        return list(one) == list(other) and all(_same(one[key], other[key], seen) for key in one)
    return bool(one == other)


def _same_figures(one: Figure, other: Figure, seen: set[tuple[int, int]]) -> bool:
    """Workings share their parts: two that were compared once are not compared again."""
    pair = id(one), id(other)
    if pair in seen:
        return True
    if (
        one.value != other.value
        or one.op != other.op
        or one.label != other.label
        or one.power != other.power
        or one.basis is not other.basis
        or one.passes is not other.passes
        or one.show != other.show
    ):
        return False
    seen.add(pair)
    return _same(one.args, other.args, seen)


_NAMES: dict[type, tuple[str, ...]] = {}


def _names(kind: type) -> tuple[str, ...]:
    """The fields of a record; none of what is no record, or compares by itself."""
    found = _NAMES.get(kind)
    if found is None:
        found = ()
        if is_dataclass(kind):
            found = tuple(field.name for field in fields(kind) if field.compare)
        _NAMES[kind] = found
    return found
