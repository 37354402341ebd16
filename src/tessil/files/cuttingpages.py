"""The cutting sheet: a map and the cuts of every cloth, labels for the pieces, what to buy.

Reads in black and white: pieces are numbered and no print is painted.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence

from msgspec.structs import replace

from tessil.core.bag.ids import CutId
from tessil.core.cutting.acts.shopping import Line
from tessil.core.cutting.acts.whole import Lying, Spread, Spreads, Want
from tessil.core.making.cautions import caution_for
from tessil.core.numbers.lengths import Notation, Units
from tessil.core.numbers.records import Record
from tessil.core.snags import Stage
from tessil.core.words.cuttings import cut_words
from tessil.drawing import theme
from tessil.drawing.cuttingview import map_picture, table_of
from tessil.drawing.fonts import load_fonts
from tessil.files.flow import Block, Column, gap, heading, paged, paragraph, pictures, table
from tessil.files.printing import Pages, paper_for, room_on
from tessil.files.sheet import LEAST, LEFT, MARGIN, RIGHT, TO_CUT, Sheet, text, title

MAP_HIGH = 92.0  # mm
LABELS_ABREAST, LABEL_HIGH = 3, 26.0


class OnPaper(Record, frozen=True):
    """What is printed: the plan of the cuts, where each cloth comes from, and the shopping list."""

    name: str
    found: Spreads
    whence: tuple[str, ...]
    shopping: tuple[Line, ...]
    notation: Notation
    units: Units


def cutting_sheet(asked: OnPaper) -> Pages:
    """Maps and cuts, then labels, then what to buy."""
    load_fonts()
    paper = paper_for(asked.units)
    found = asked.found
    pieces = sum(len(one.pieces) for one in found.spreads)
    said = f"Cutting sheet: {len(found.spreads)} cloths, {pieces} pieces, {found.cuts} cuts"
    with theme.usual_size():
        wide, room = room_on(paper)
        pages = paged(list(_blocks(asked, wide)), room)
    return Pages(asked.name, said, paper, tuple(pages))


def _blocks(asked: OnPaper, width: float) -> Iterator[Block]:
    yield from _list(asked.shopping, width)
    for at, (spread, whence) in enumerate(zip(asked.found.spreads, asked.whence, strict=True)):
        yield from _cloth(spread, whence, asked.notation, width, fresh=not at)
    yield from _labels(asked.found.spreads, asked.notation, width)


def _list(lines: Sequence[Line], width: float) -> Iterator[Block]:
    yield heading("To buy")
    columns = (
        Column("", width * 0.31, font=text(10, True)),
        Column("", width * 0.31, font=text(10)),
        Column("", width * 0.1, RIGHT, text(10)),
        Column("", width * 0.28, font=text(LEAST), colour=theme.SOFT),
    )
    rows = [(f"     {one.what}", one.amount, one.cost, one.about) for one in lines]
    yield from table(columns, rows, True)
    yield gap(3)
    yield paragraph(caution_for(Stage.CUT), width, LEAST, theme.SOFT)


def _map_high(spread: Spread) -> float:
    """Small cloths take less of the page."""
    table = table_of(spread)
    return min(MAP_HIGH, 26 + 2.4 * min(table.wide, table.long))


def _cloth(
    spread: Spread, whence: str, notation: Notation, width: float, fresh: bool
) -> Iterator[Block]:
    sheet, cuts = spread.sheet, spread.parting.cuts
    size = notation.size(sheet.width, sheet.length + sheet.trim)
    yield heading(f"{spread.lot.name}: {size}, {whence}", fresh=fresh)
    if not cuts:
        names = ", ".join(one.want.words for one in spread.pieces)
        yield paragraph(f"Used as it is: {names}. Nothing to cut.", width)
        return
    said = "Its selvages are off."
    if sheet.trim:
        said = f"Straighten one end first: {notation.read_off(sheet.trim, unit=True)} is for that."
    words = f"{said} Pieces have their numbers, cuts across the cloth theirs at the edge."
    drawn = pictures(((map_picture(spread, notation), words, 1.0),), _map_high(spread), width)
    yield replace(drawn, leads=True)
    columns = (
        Column("cut", 16, RIGHT, text(10, True)),
        Column("ruler at", 30, RIGHT, title(TO_CUT)),
        Column("which", 62),
        Column("frees", width - 108),
    )
    rows = [
        (
            str(spread.first + at),
            notation.read_off(cut.reading),
            cut_words(cut.deep, cut.way == "along", cut.length, notation),
            _freed(spread, cut.done, notation),
        )
        for at, cut in enumerate(cuts)
    ]
    yield from table(columns, rows, tick=True)
    kept = [notation.size(box.w, box.h) for box in spread.offcuts]
    if kept:
        yield paragraph(f"Left to keep: {', '.join(kept)}.", width, LEAST, theme.SOFT)
    yield gap(4)


def _freed(spread: Spread, at: int, notation: Notation) -> str:
    if at < 0:
        return ""
    one = spread.pieces[at]
    return f"{at + 1}: {one.want.words}, {notation.size(one.box.w, one.box.h)}"


# -- labels ----------------------------------------------------------------------------------


def _labels(spreads: Sequence[Spread], notation: Notation, width: float) -> Iterator[Block]:
    """A label for every piece, to be cut out and pinned on."""
    every = [(spread, one) for spread in spreads for one in spread.pieces]
    laid = Counter[Alike]()  # one more where one was cut wrong
    wanted = dict[Alike, dict[str, int]]()
    for _, one in every:
        laid[_alike(one)] += _from_one(one.want)
        of = wanted.setdefault(_alike(one), {})
        of[one.want.key] = one.want.number * _from_one(one.want)
    counts = Counter[Alike]()
    texts = []
    for spread, one in every:
        alike = _alike(one)
        number = max(laid[alike], sum(wanted[alike].values()))
        for _ in range(_from_one(one.want)):
            counts[alike] += 1
            texts.append(_label(spread, one, counts[alike], number, notation))
    yield heading("Labels for the pieces", fresh=True)
    for at in range(0, len(texts), LABELS_ABREAST):
        yield _row(texts[at : at + LABELS_ABREAST], width / LABELS_ABREAST)


Alike = tuple[int, CutId, object]


def _alike(one: Lying) -> Alike:
    """Pieces that are numbered together: each line of a bag's list; what is cut by a window from
    rough pieces of two lengths is one line."""
    want = one.want
    return want.bag, want.item.id, want.key if want.item.windows is None else "windows"


def _from_one(want: Want) -> int:
    """How many pieces come of one that lies on the cloth."""
    return 1 if want.item.windows is None else want.item.windows.number


def _label(
    spread: Spread, one: Lying, nth: int, number: int, notation: Notation
) -> tuple[str, ...]:
    want, fine = one.want, one.want.item.windows
    arrow = "" if want.turns else "  ↑ up"
    width, height = (want.width, want.height)
    if fine is not None:
        width, height = fine.width.value, fine.height.value
    return (
        f"{want.words}{arrow}",
        notation.size(width, height),
        f"{want.bag_name}, {nth} of {number}",
        spread.lot.name if fine is None else f"{spread.lot.name}, by a window",
    )


def _row(labels: Sequence[tuple[str, ...]], width: float) -> Block:
    def paint(sheet: Sheet) -> None:
        top = sheet.y
        for at, (what, size, bag, cloth) in enumerate(labels):
            x = MARGIN + at * width
            sheet.frame(x, top, width - 2, LABEL_HIGH - 2, dashed=True)
            inner = width - 8
            for down, words, font, high in (
                (1.5, what, text(10, True), 5),
                (6.5, size, title(TO_CUT), 7),
                (13.5, bag, text(LEAST), 5),
                (18.0, cloth, text(LEAST), 5),
            ):
                sheet.y = top + down
                with sheet.tagged("P"):
                    sheet.words(words, font, x + 3, inner, high, LEFT)

    return Block(LABEL_HIGH, paint)
