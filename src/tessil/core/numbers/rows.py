"""Rectangles laid in rows across a width: first fit in falling height.

A row is as high as its highest piece, since rotary cuts run from edge to edge.  Knows lengths
only; must not know what is laid out.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Generic, TypeVar

from tessil.core.numbers.lengths import Inches

Name = TypeVar("Name")  # whatever tells pieces apart


@dataclass(frozen=True, slots=True)
class ToLay(Generic[Name]):
    """Pieces of one size to lay out: ``along`` runs across the cloth's width."""

    name: Name
    along: Inches
    high: Inches
    number: int


@dataclass(frozen=True, slots=True)
class Row(Generic[Name]):
    """``times`` alike rows: their height, what lies in each, and the width left."""

    high: Inches
    times: int
    left: Inches
    pieces: tuple[tuple[Name, Inches, Inches, int], ...]  # name, along, high, how many


def oriented(
    name: Name, width: Inches, height: Inches, number: int, usable: Inches
) -> ToLay[Name] | None:
    """The piece with its longer side across the cloth if that fits, else the other way."""
    long, short = max(width, height), min(width, height)
    if long <= usable:
        return ToLay(name, long, short, number)
    if short <= usable:
        return ToLay(name, short, long, number)
    return None


def _placed(rows: list[Row[Name]], piece: ToLay[Name]) -> tuple[list[Row[Name]], int]:
    """Fill the room left in rows already begun; returns the rows and what is still to lay."""
    todo, done = piece.number, []
    for row in rows:
        each = int(row.left / piece.along) if piece.high <= row.high else 0
        if not each or not todo:
            done.append(row)
            continue
        full = min(row.times, todo // each)
        if full:
            done.append(_with(row, piece, each, full))
            todo -= full * each
        if row.times > full and 0 < todo < each:
            done.append(_with(row, piece, todo, 1))
            todo, full = 0, full + 1
        if row.times > full:
            done.append(replace(row, times=row.times - full))
    return done, todo


def _with(row: Row[Name], piece: ToLay[Name], each: int, times: int) -> Row[Name]:
    more = (piece.name, piece.along, piece.high, each)
    return replace(row, times=times, left=row.left - each * piece.along, pieces=(*row.pieces, more))


def _fresh(piece: ToLay[Name], number: int, usable: Inches) -> list[Row[Name]]:
    each = int(usable / piece.along)
    full, rest = divmod(number, each)
    empty: Row[Name] = Row(piece.high, 1, usable, ())
    rows = [_with(empty, piece, each, full)] if full else []
    return rows + ([_with(empty, piece, rest, 1)] if rest else [])


def lay_out(
    pieces: Sequence[tuple[Name, Inches, Inches, int]], usable: Inches
) -> tuple[tuple[Row[Name], ...], tuple[Name, ...]]:
    """Rows for (name, width, height, number) pieces, and the names of those too long."""
    turned = [(piece[0], oriented(*piece, usable)) for piece in pieces]
    too_long = tuple(name for name, piece in turned if piece is None)
    return fill_rows([piece for _, piece in turned if piece is not None], usable), too_long


def fill_rows(pieces: Sequence[ToLay[Name]], usable: Inches) -> tuple[Row[Name], ...]:
    """First fit in falling height, then length; every piece must fit the usable width."""
    rows: list[Row[Name]] = []
    for piece in sorted(pieces, key=lambda p: (-p.high, -p.along, str(p.name))):
        rows, todo = _placed(rows, piece)
        if todo:
            rows += _fresh(piece, todo, usable)
    return tuple(rows)
