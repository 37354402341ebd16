"""Whether two values are the same through and through, workings and all.

Figures compare by what they are, not by their number alone: a plan that shows another working is
another plan.  Knows frozen records; must not know what they stand for.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import fields, is_dataclass
from functools import partial
from operator import attrgetter
from typing import Any

from msgspec import Struct

from tessil.core.numbers.exact import Fraction
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
    if kind is Fraction:
        # As their numbers stand, in lowest terms: quicker than asking whether they are equal.
        return bool(one.numerator == other.numerator and one.denominator == other.denominator)
    way = _WAYS.get(kind) or _way(kind)
    return way(one, other, seen)


def _same_rows(one: Sequence[Any], other: Sequence[Any], seen: set[tuple[int, int]]) -> bool:
    if len(one) != len(other):
        return False
    # Loops and no generators here and below: this is the inner loop of every plan.
    for a, b in zip(one, other, strict=True):  # noqa: SIM110
        if a is not b and not _same(a, b, seen):
            return False
    return True


def _same_mappings(
    one: Mapping[Any, Any], other: Mapping[Any, Any], seen: set[tuple[int, int]]
) -> bool:
    return list(one) == list(other) and all(_same(one[key], other[key], seen) for key in one)


def _equal(one: object, other: object, seen: set[tuple[int, int]]) -> bool:
    return bool(one == other)


def _same_figures(one: Figure, other: Figure, seen: set[tuple[int, int]]) -> bool:
    """Workings share their parts: two that were compared once are not compared again."""
    pair = id(one), id(other)
    if pair in seen:
        return True
    if (
        not _same(one.value, other.value, seen)
        or one.op != other.op
        or one.label != other.label
        or one.power != other.power
        or one.basis is not other.basis
        or one.passes is not other.passes
        or one.show != other.show
    ):
        return False
    seen.add(pair)
    return _same_rows(one.args, other.args, seen)


Same = Callable[[Any, Any, set[tuple[int, int]]], bool]
_WAYS: dict[type, Same] = {Figure: _same_figures}


def _way(kind: type) -> Same:
    """How two values of one type are compared, kept for the next two."""
    way: Same = _equal
    names = names_of(kind)
    if issubclass(kind, tuple | list):
        way = _same_rows
    elif len(names) == 1:
        way = partial(_same_record, attrgetter(*names))
    elif names:
        way = partial(_same_records, attrgetter(*names))
    elif issubclass(kind, Mapping):
        way = _same_mappings
    _WAYS[kind] = way
    return way


def names_of(kind: type) -> tuple[str, ...]:
    """The fields by which records of a type are compared; none of what is no record."""
    if issubclass(kind, Struct):
        return kind.__struct_fields__
    return (
        tuple(field.name for field in fields(kind) if field.compare) if is_dataclass(kind) else ()
    )


def _same_record(
    value: attrgetter[Any], one: object, other: object, seen: set[tuple[int, int]]
) -> bool:
    return _same(value(one), value(other), seen)


def _same_records(
    values: attrgetter[tuple[Any, ...]], one: object, other: object, seen: set[tuple[int, int]]
) -> bool:
    return _same_rows(values(one), values(other), seen)
