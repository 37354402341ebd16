"""A step of work as data: what is done to what, what it needs before, what it leaves behind.

Rooms make steps of their own part of the work; ``words.steps`` tells them, and the making puts
them in one order.
"""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure

Value = Inches | int | str | tuple[Inches, ...]


class Step(Record, frozen=True):
    """One thing to do.

    ``what`` is its kind, whose words stand in one table; ``on`` the ids of what it is done to;
    ``needs`` the ids of steps that come before it; ``gives`` what is so once it is done;
    ``values`` the lengths, counts and names that its words say; ``minutes`` is None until
    something is known of it.
    """

    id: str
    what: str
    on: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    gives: tuple[str, ...] = ()
    values: tuple[tuple[str, Value], ...] = ()
    minutes: Figure | None = None


class Do(Record, frozen=True):
    """A step before it has its place: what to do, with which values, and what it gives."""

    what: str
    values: Mapping[str, Value] | None = None
    gives: tuple[str, ...] = ()


def one_by_one(prefix: str, on: tuple[str, ...], deeds: tuple[Do, ...]) -> tuple[Step, ...]:
    """Steps that follow one another; each needs the one before it."""
    found: list[Step] = []
    for deed in deeds:
        before = (found[-1].id,) if found else ()
        values = tuple((deed.values or {}).items())
        found.append(Step(f"{prefix}.{deed.what}", deed.what, on, before, deed.gives, values))
    return tuple(found)


def length(value: Fraction | int) -> Inches:
    """A length for a step's words."""
    return Fraction(value)
