"""What goes on paper as a row of blocks, and how they fill pages: nothing is left out for room.

A block knows its height and paints itself at the pen.  A heading stays with what follows it; a
table's head comes again where the table goes on.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence
from contextlib import nullcontext
from typing import Literal

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtGui import QFont

from tessil.core.numbers.records import Record
from tessil.drawing import theme
from tessil.drawing.painter import Surface, fitted, paint_picture
from tessil.drawing.picture import Picture
from tessil.files.sheet import (
    FINE,
    LEAST,
    LEFT,
    MARGIN,
    WRAP,
    Sheet,
    in_points,
    text,
    title,
    wrapped_high,
)
from tessil.files.tagging import Tag

Paint = Callable[[Sheet], None]
PAD = 1.5  # millimetres after a paragraph
CELL = 3.5  # between the columns of a table


class Block(Record, frozen=True):
    """Something that is never torn across two pages; ``high`` in millimetres."""

    high: float
    paint: Paint
    fresh: bool = False  # begins a page of its own
    leads: bool = False  # stays with what follows
    again: Block | None = None  # comes first where this block begins a page
    tag: Tag | None = None  # what it is as a whole, where it does not tell its parts itself
    words: str = ""  # that stand for what it draws


def paged(blocks: Sequence[Block], room: float) -> list[list[Block]]:
    """The blocks on as few pages as their order allows; ``room`` is a page's height in mm."""
    pages: list[list[Block]] = [[]]
    used = 0.0
    for at, block in enumerate(blocks):
        if pages[-1] and (block.fresh or used + _with_next(blocks, at) > room):
            pages.append([])
            used = 0.0
            if block.again is not None:
                pages[-1].append(block.again)
                used = block.again.high
        pages[-1].append(block)
        used += block.high
    return pages


def _with_next(blocks: Sequence[Block], at: int) -> float:
    """What has to fit where block ``at`` is put: it, and what it leads."""
    high = blocks[at].high
    while blocks[at].leads and at + 1 < len(blocks):
        at += 1
        high += blocks[at].high
    return high


def paint_blocks(sheet: Sheet, blocks: Sequence[Block]) -> None:
    """One page's blocks, one below the other."""
    top = sheet.y
    for block in blocks:
        sheet.y = top
        with sheet.tagged(block.tag, block.words) if block.tag else nullcontext():
            block.paint(sheet)
        top += block.high


# -- kinds of blocks ----------------------------------------------------------------------


def gap(high: float) -> Block:
    """Nothing, for the eye to rest."""
    return Block(high, lambda sheet: None)


def heading(words: str, points: float = 13, fresh: bool = False) -> Block:
    """A title over what follows."""
    high = points * 0.55 + 2

    def paint(sheet: Sheet) -> None:
        sheet.words(words, title(points), MARGIN, sheet.inner, high - 1)

    return Block(high, paint, fresh=fresh, leads=True, tag="H2", words=words)


def paragraph(
    words: str, width: float, points: float = 10, colour: str = theme.INK, strong: bool = False
) -> Block:
    """Words that wrap."""
    font = text(points, strong)
    high = wrapped_high(words, font, width)

    def paint(sheet: Sheet) -> None:
        sheet.words(words, font, MARGIN, width, high + 1, WRAP, colour)

    return Block(high + PAD, paint, tag="P")


def picture_in(sheet: Sheet, picture: Picture, x: float, width: float, high: float) -> None:
    """A picture in a box at the pen; the pen does not move.  Its words keep the least size."""
    unit = in_points(LEAST) / theme.READING
    place = fitted(picture, width * FINE, high * FINE, unit)
    surface = Surface(place.left + x * FINE, place.top + sheet.y * FINE, place.per_inch, unit)
    paint_picture(sheet.painter, picture, surface)


def pictures(row: Sequence[tuple[Picture, str, float]], high: float, width: float) -> Block:
    """Pictures side by side: each with the words below it and its share of the width."""

    def paint(sheet: Sheet) -> None:
        x, top = MARGIN, sheet.y
        for picture, words, share in row:
            sheet.y = top
            with sheet.tagged("Figure", words or picture.caption):
                picture_in(sheet, picture, x, width * share, high)
            sheet.y = top + high
            if words:
                with sheet.tagged("Caption"):
                    sheet.words(words, text(LEAST), x, width * share - CELL, 12, WRAP, theme.SOFT)
            x += width * share

    below = max(wrapped_high(words, text(LEAST), width * share - CELL) for _, words, share in row)
    return Block(high + below + 3, paint)


class Column(Record, frozen=True):
    """A column of a table: its head, width in mm, how its words stand and in which type."""

    head: str
    width: float
    align: int = LEFT
    font: QFont | None = None
    colour: str = theme.INK

    @property
    def type(self) -> QFont:
        return self.font or text(LEAST + 0.5)

    def high(self, words: str) -> float:
        """How high the words get in this column."""
        return wrapped_high(words, self.type, self.width - CELL)


def table(
    columns: Sequence[Column], rows: Sequence[Sequence[str]], tick: bool = False
) -> Iterator[Block]:
    """A table with a rule above each row; ``tick`` puts a box before each."""
    plain = [replace(column, font=text(LEAST), colour=theme.SOFT) for column in columns]
    heads = [column.head for column in columns]
    key = f"table {next(_TABLES)}"
    if any(heads) and rows:
        yield replace(_row(plain, heads, "TH", key), leads=True)
    again = _row(plain, heads, "", key) if any(heads) else None
    for cells in rows:
        yield replace(_row(columns, cells, "TD", key, tick), again=again)


_TABLES = itertools.count()


def _row(
    columns: Sequence[Column],
    cells: Sequence[str],
    tag: Literal["TH", "TD", ""],
    table: str,
    tick: bool = False,
) -> Block:
    """A row of a table; of no tag where it only repeats the head."""
    pairs = list(zip(columns, cells, strict=True))
    high = max(column.high(words) for column, words in pairs) + 1.2

    def written(sheet: Sheet) -> None:
        x = MARGIN
        for column, words in pairs:
            align = column.align | int(Qt.TextFlag.TextWordWrap)
            with sheet.tagged(tag) if tag else nullcontext():
                sheet.words(words, column.type, x, column.width - CELL, high, align, column.colour)
            x += column.width

    def paint(sheet: Sheet) -> None:
        if tag == "TD":
            sheet.rule()
        if tick:
            sheet.frame(MARGIN, sheet.y + high / 2 - 1.7, 3.4, 3.4)
        if not tag:
            written(sheet)
            return
        with sheet.grouped("Table", table), sheet.grouped("TR"):
            written(sheet)

    return Block(high, paint)
