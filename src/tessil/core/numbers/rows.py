"""Rectangles laid in rows across a width: first fit in falling height.

A row is as high as its highest piece, since rotary cuts run from edge to edge.  Knows lengths
only; must not know what is laid out.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import lcm
from typing import Generic, NamedTuple, TypeVar

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record

Name = TypeVar("Name")  # whatever tells pieces apart


class ToLay(Record, Generic[Name], frozen=True):
    """Pieces of one size to lay out: ``along`` runs across the cloth's width."""

    name: Name
    along: Inches
    high: Inches
    number: int


class Row(Record, Generic[Name], frozen=True):
    """``times`` alike rows: their height, what lies in each, and the width left."""

    high: Inches
    times: int
    left: Inches
    pieces: tuple[tuple[Name, Inches, Inches, int], ...]  # name, along, high, how many


def oriented(
    name: Name, width: Inches, height: Inches, number: int, usable: Inches, turns: bool = True
) -> ToLay[Name] | None:
    """The piece with its longer side across the cloth if that fits, else the other way; as it
    stands where it may not be turned."""
    if not turns:
        return ToLay(name, width, height, number) if width <= usable else None
    long, short = max(width, height), min(width, height)
    if long <= usable:
        return ToLay(name, long, short, number)
    if short <= usable:
        return ToLay(name, short, long, number)
    return None


def lay_out(
    pieces: Sequence[tuple[Name, Inches, Inches, int]],
    usable: Inches,
    upright: frozenset[Name] = frozenset(),
) -> tuple[tuple[Row[Name], ...], tuple[Name, ...]]:
    """Rows for (name, width, height, number) pieces, and the names of those too long; ``upright``
    are not turned."""
    turned = [
        (piece[0], oriented(*piece, usable, turns=piece[0] not in upright)) for piece in pieces
    ]
    too_long = tuple(name for name, piece in turned if piece is None)
    return fill_rows([piece for _, piece in turned if piece is not None], usable), too_long


def fill_rows(pieces: Sequence[ToLay[Name]], usable: Inches) -> tuple[Row[Name], ...]:
    """First fit in falling height, then length; every piece must fit the usable width.

    Counted in whole numbers over one denominator, and told in lengths again.
    """
    ordered = sorted(pieces, key=lambda piece: (-piece.high, -piece.along))
    if len({(piece.high, piece.along) for piece in ordered}) < len(ordered):
        ordered.sort(key=lambda piece: (-piece.high, -piece.along, str(piece.name)))
    over = lcm(
        usable.denominator,
        *(length.denominator for piece in ordered for length in (piece.along, piece.high)),
    )

    def whole(length: Inches) -> int:
        return length.numerator * (over // length.denominator)

    rows: list[_Row] = []
    room = whole(usable)
    for at, piece in enumerate(ordered):
        sort = _Sort(at, whole(piece.along), whole(piece.high))
        rows, todo = _placed(rows, sort, piece.number)
        if todo:
            rows += _fresh(sort, todo, room)
    return tuple(
        Row(
            high=ordered[row.pieces[0][0]].high,
            times=row.times,
            left=Fraction(row.left, over),
            pieces=tuple(
                (ordered[at].name, ordered[at].along, ordered[at].high, many)
                for at, many in row.pieces
            ),
        )
        for row in rows
    )


class _Sort(NamedTuple):
    """Pieces of one size in whole numbers, by their place in the order."""

    at: int
    along: int
    high: int


class _Row(NamedTuple):
    """Alike rows in whole numbers: which pieces, and how many of each, lie in one."""

    high: int
    times: int
    left: int
    pieces: tuple[tuple[int, int], ...]


def _placed(rows: list[_Row], piece: _Sort, todo: int) -> tuple[list[_Row], int]:
    """Fill the room left in rows already begun; returns the rows and what is still to lay."""
    done: list[_Row] = []
    for row in rows:
        each = row.left // piece.along if piece.high <= row.high else 0
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
            done.append(row._replace(times=row.times - full))
    return done, todo


def _with(row: _Row, piece: _Sort, each: int, times: int) -> _Row:
    pieces = (*row.pieces, (piece.at, each))
    return _Row(row.high, times, row.left - each * piece.along, pieces)


def _fresh(piece: _Sort, number: int, room: int) -> list[_Row]:
    each = room // piece.along
    full, rest = divmod(number, each)
    empty = _Row(piece.high, 1, room, ())
    rows = [_with(empty, piece, each, full)] if full else []
    return rows + ([_with(empty, piece, rest, 1)] if rest else [])
