"""How much cloth to buy: pieces laid in rows across the usable width.

Rotary cuts run edge to edge, so a row is a strip across the cloth, as high as its highest
piece.  First fit in falling height: what a maker does, with the bare area as lower bound.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Basis, Figure, count, given, total, up_to


@dataclass(frozen=True, slots=True)
class Piece:
    """Pieces of one size to lay out: ``along`` runs across the cloth's width."""

    name: str
    along: Inches
    high: Inches
    number: int


@dataclass(frozen=True, slots=True)
class Row:
    """``times`` alike rows: their height, what lies in each, and the width left."""

    high: Inches
    times: int
    left: Inches
    pieces: tuple[tuple[str, Inches, Inches, int], ...]  # name, along, high, how many


@dataclass(frozen=True, slots=True)
class ClothPlan:
    """The rows for one cloth and what to buy; ``too_long`` names pieces that fit no way."""

    rows: tuple[Row, ...]
    usable: Inches
    buy: Figure
    bare: Inches  # length that the area alone would take
    too_long: tuple[str, ...]


def oriented(name: str, width: Inches, height: Inches, number: int, usable: Inches) -> Piece | None:
    """The piece with its longer side across the cloth if that fits, else the other way."""
    long, short = max(width, height), min(width, height)
    if long <= usable:
        return Piece(name, long, short, number)
    if short <= usable:
        return Piece(name, short, long, number)
    return None


def _placed(rows: list[Row], piece: Piece) -> tuple[list[Row], int]:
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


def _with(row: Row, piece: Piece, each: int, times: int) -> Row:
    more = (piece.name, piece.along, piece.high, each)
    return replace(row, times=times, left=row.left - each * piece.along, pieces=(*row.pieces, more))


def _fresh(piece: Piece, number: int, usable: Inches) -> list[Row]:
    each = int(usable / piece.along)
    full, rest = divmod(number, each)
    empty = Row(piece.high, 1, usable, ())
    rows = [_with(empty, piece, each, full)] if full else []
    return rows + ([_with(empty, piece, rest, 1)] if rest else [])


def lay_out(
    pieces: Sequence[tuple[str, Inches, Inches, int]], usable: Inches
) -> tuple[tuple[Row, ...], tuple[str, ...]]:
    """Rows for (name, width, height, number) pieces, and the names of those too long."""
    turned = [(piece[0], oriented(*piece, usable)) for piece in pieces]
    too_long = tuple(name for name, piece in turned if piece is None)
    return fill_rows([piece for _, piece in turned if piece is not None], usable), too_long


def fill_rows(pieces: Sequence[Piece], usable: Inches) -> tuple[Row, ...]:
    """First fit in falling height, then length; every piece must fit the usable width."""
    rows: list[Row] = []
    for piece in sorted(pieces, key=lambda p: (-p.high, -p.along, p.name)):
        rows, todo = _placed(rows, piece)
        if todo:
            rows += _fresh(piece, todo, usable)
    return tuple(rows)


def plan_cloth(
    pieces: Sequence[tuple[str, Inches, Inches, int]],
    usable: Inches,
    straightening: Inches,
    marks: Rulers,
) -> ClothPlan:
    """Rows and the length to buy, up to ⅛ yard or 10 cm, with straightening of the end."""
    rows, too_long = lay_out(pieces, usable)
    area = sum((p[1] * p[2] * p[3] for p in pieces), start=straightening * 0)
    if not rows:
        nothing = given("nothing to buy", 0, Basis.GEOMETRY).called("to buy")
        return ClothPlan(rows, usable, nothing, area / usable, too_long)
    terms = [given("straightening the end", straightening)]
    heights: dict[Inches, int] = {}
    for row in rows:
        heights[row.high] = heights.get(row.high, 0) + row.times
    for high, times in heights.items():
        each = given("row", high, Basis.GEOMETRY)
        terms.append(count("rows", times, Basis.GEOMETRY) * each if times > 1 else each)
    buy = up_to(total(terms), marks.yardage).called("to buy")
    return ClothPlan(rows, usable, buy, area / usable, too_long)
