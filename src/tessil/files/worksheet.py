"""The worksheet: pages to cut and sew by, painted the same for preview and PDF.

First the bag, the leading panel with its dimensions, every panel's ladder with room to write what
was measured; then the whole cut list, what to buy, the snags left; then every layout of pieces,
every sandwich, every quilting map, the edges, and a swatch sheet to fill in.  A list that is longer
than its page goes on over the next.  Every page has a line of exactly 100 mm.
"""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from tessil.core.making.cautions import caution_for
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.core.words.written import value_text, working
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.drawing.handview import stands_of
from tessil.drawing.pictures import View, bag_picture, picture_of
from tessil.files.edgepages import edge_blocks
from tessil.files.flow import Block, Column, gap, heading, paged, paragraph, pictures, table
from tessil.files.layoutpage import laid_out, layout_blocks
from tessil.files.printing import Pages, paper_for, pdf_of, room_on
from tessil.files.quiltpages import (
    layered,
    line_words,
    quilt_blocks,
    quilted,
    sandwich_blocks,
    swatch_blocks,
)
from tessil.files.report import finished_text, merged_rows
from tessil.files.sheet import LEAST, LEFT, MARGIN, RIGHT, TO_CUT, Sheet, text, title

# -- the bag -------------------------------------------------------------------------------


def _bag(plan: Plan, width: float) -> Iterator[Block]:
    lead = plan.shape.leader
    row = (
        (picture_of(plan, View(Stage.QUILT, lead)), "Quilt; trim on the broken line", 0.5),
        (picture_of(plan, View(Stage.TRIM, lead)), "Trim, and cut the corners", 0.5),
    )
    yield pictures(row, 76, width)
    sides = [side for side in ("front", "back", "end") if side in stands_of(plan)]
    yield pictures(
        tuple(
            (
                bag_picture(plan, side, things=side == "front"),
                f"The finished bag, from the {side}",
                1 / len(sides),
            )
            for side in sides
        ),
        60,
        width,
    )
    yield heading("From piece to panel")
    for panel in plan.panels:
        yield _ladder(plan, panel, width)
    yield gap(2)
    for panel in quilted(plan):
        for entry in panel.quilt.sets:
            yield paragraph(line_words(plan, panel, entry), width)
    yield paragraph(caution_for(Stage.QUILT), width, LEAST, theme.SOFT)


def _ladder(plan: Plan, panel: PanelPlan, width: float) -> Block:
    """Every rung of a panel but the last, with a box where something was measured."""
    copies = f" ×{panel.panel.copies}" if panel.panel.copies > 1 else ""
    rungs = plan.ladder(panel.key)[:-1]
    step = width / 4

    def paint(sheet: Sheet) -> None:
        top = sheet.y
        sheet.rule()
        with sheet.tagged("P"):
            sheet.words(panel.panel.label + copies, text(10, True), MARGIN, sheet.inner, 6)
        for at, rung in enumerate(rungs):
            x = MARGIN + at * step
            size = plan.marks.notation.size(*(figure.value for figure in rung.sizes))
            size = f"{rung.number.whole} of {size}" if rung.number else size
            with sheet.tagged("P"):
                sheet.y = top + 6
                about = f"{rung.label}, {rung.note}"
                sheet.words(about, text(LEAST), x, step, 4, LEFT, theme.SOFT)
                sheet.y = top + 10
                sheet.words(size, title(12), x, step, 6)
            if rung.measurable:
                sheet.y = top + 16.6
                sheet.frame(x, sheet.y, step - 5, 5.6, dashed=True)
                sheet.words("I got", text(LEAST), x + 1, step, 4, LEFT, theme.FAINT)

    return Block(23.5 if any(rung.measurable for rung in rungs) else 18, paint)


# -- to cut and to buy ------------------------------------------------------------------------


def _cutting(plan: Plan, width: float) -> Iterator[Block]:
    yield heading("To cut")
    large = title(TO_CUT)
    rest = width - 20 - 46
    columns = (
        Column("pieces", 20, RIGHT, large),
        Column("width × height", 46, RIGHT, large),
        Column("for", rest * 0.54),
        Column("from", rest * 0.46),
    )
    rows = [
        (
            str(row["number"]),
            f"{row['width']} × {row['height']}",
            f"{row['panel']}: {row['what']}",
            f"{row['from']}; {row['note']}" if row["note"] else row["from"],
        )
        for row in merged_rows(plan)
    ]
    yield from table(columns, rows, tick=True)
    yield gap(2)
    yield paragraph(caution_for(Stage.CUT), width, LEAST, theme.SOFT)
    yield from _buying(plan, width)


def _buying(plan: Plan, width: float) -> Iterator[Block]:
    notation = plan.marks.notation
    yield heading("To buy")
    columns = (
        Column("", width * 0.34, font=text(10, True)),
        Column("", width * 0.2, RIGHT, text(10, True)),
        Column("", width * 0.46, font=text(LEAST), colour=theme.SOFT),
    )
    rows = [
        (bought.name, value_text(bought.cloth.buy, notation), working(bought.cloth.buy, notation))
        for bought in plan.bought
    ]
    yield from table(columns, rows)
    yield gap(3)
    if plan.snags:
        yield heading("Mind")
    for snag in plan.snags:
        yield paragraph(f"{snag.title}. {snag.why}", width)


# -- pages ---------------------------------------------------------------------------------------


def _begun(blocks: Iterator[Block]) -> Iterator[Block]:
    """The same blocks; the first begins a page."""
    yield replace(next(blocks), fresh=True)
    yield from blocks


def _blocks(plan: Plan, width: float, room: float) -> Iterator[Block]:
    bag = list(_bag(plan, width))
    yield from bag
    if len(paged(bag, room)) == 1:
        yield from _begun(_cutting(plan, width))
    else:  # the bag goes on over a second page, and there is room below
        yield gap(3)
        yield from _cutting(plan, width)
    for panel in laid_out(plan):
        yield from _begun(layout_blocks(plan, panel, width))
    for panel in layered(plan):
        yield from _begun(sandwich_blocks(plan, panel, width))
    for panel in quilted(plan):
        yield from _begun(quilt_blocks(plan, panel, width))
    yield from edge_blocks(plan, width)
    if quilted(plan):
        yield from _begun(swatch_blocks(plan, width))


def worksheet(plan: Plan) -> Pages:
    """Set everything the maker needs at the table on pages, in order."""
    load_fonts()
    paper = paper_for(plan.project.units)
    made = f"{plan.shape.name}, finished {finished_text(plan)}; make {plan.project.made}"
    with theme.usual_size():
        wide, room = room_on(paper)
        pages = paged(list(_blocks(plan, wide, room)), room)
    return Pages(plan.project.name, made, paper, tuple(pages))


def pdf_bytes(plan: Plan) -> bytes:
    """The worksheet as a PDF; raises FileTrouble if Qt cannot make one."""
    return pdf_of(worksheet(plan), f"{plan.project.name}: worksheet")
