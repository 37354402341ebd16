"""The worksheet's layout page: one pieced panel in letters, its key, its order of sewing."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import Qt
from PySide6.QtGui import QBrush, QColor, QPen, QTransform

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.words.steps import told
from tessil.drawing import theme
from tessil.drawing.layoutview import KeyLine, key_of_prints, layout_picture
from tessil.drawing.prints import print_brush
from tessil.files.flow import CELL, Block, gap, heading, paragraph, picture_in
from tessil.files.sheet import FINE, LEAST, MARGIN, MM_PER_INCH, WRAP, Sheet, text, wrapped_high

PICTURE, KEY_WIDTH, KEY_HIGH = 128.0, 58.0, 7.0  # mm
BESIDE = int(PICTURE / KEY_HIGH) - 1  # prints that stand beside the picture
ABREAST = 3  # prints a row, below it
SWATCH = 18.0  # mm before a print's name: its letter, and a piece of it


def laid_out(plan: Plan) -> list[PanelPlan]:
    """The panels that have a layout of their own to sew from."""
    shared = plan.project.panels
    return [
        panel
        for panel in plan.panels
        if panel.panel.kind == "outer"
        and len(panel.patches) > 1
        and (panel.key in shared or not panel.panel.like)
    ]


def layout_blocks(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    """One panel's layout, the key of its prints, and how it is sewn together."""
    like = [
        p.panel.label.lower()
        for p in plan.panels
        if p.panel.like == panel.key and p.key not in plan.project.panels
    ]
    also = f" and {' and '.join(like)}" if like else ""
    yield heading(f"Layout: {panel.panel.label.lower()}{also}")
    lines = key_of_prints(plan, panel)
    beside = len(lines) <= BESIDE and all(_key_high(one, KEY_WIDTH) <= KEY_HIGH for one in lines)
    picture = layout_picture(plan, panel)

    def paint(sheet: Sheet) -> None:
        top, room = sheet.y, width - KEY_WIDTH - 4 if beside else width
        with sheet.tagged("Figure", picture.caption):
            picture_in(sheet, picture, MARGIN, room, PICTURE)
        if beside:
            for at, line in enumerate(lines):
                sheet.y = top + at * KEY_HIGH
                with sheet.tagged("P"):
                    _key_line(sheet, line, MARGIN + room + 4, KEY_WIDTH)

    yield Block(PICTURE + 3, paint)
    if not beside:
        for at in range(0, len(lines), ABREAST):
            yield _key_row(lines[at : at + ABREAST], width / ABREAST)
        yield gap(3)
    yield from _order(plan, panel, width)


def _said(line: KeyLine) -> str:
    turned = f", {line.turned} turned ↓" if line.turned else ""
    return f"{line.cloth.name}: {line.pieces}{turned}"


def _key_high(line: KeyLine, width: float) -> float:
    return wrapped_high(_said(line), text(LEAST), width - SWATCH - CELL) + 1


def _key_row(lines: tuple[KeyLine, ...], width: float) -> Block:
    def paint(sheet: Sheet) -> None:
        for at, line in enumerate(lines):
            with sheet.tagged("P"):
                _key_line(sheet, line, MARGIN + at * width, width)

    return Block(max(KEY_HIGH, *(_key_high(line, width) for line in lines)), paint)


def _key_line(sheet: Sheet, line: KeyLine, x: float, width: float) -> None:
    sheet.words(line.letter, text(10, True), x, 8, 6)
    box = sheet.box(x + 8, sheet.y + 0.6, 8, 5)
    brush: QBrush = print_brush(line.cloth, FINE * MM_PER_INCH * 0.35)
    brush.setTransform(brush.transform() * QTransform.fromTranslate(box.left(), box.top()))
    sheet.painter.setPen(QPen(QColor(theme.INK), 0.2 * FINE))
    sheet.painter.setBrush(brush)
    sheet.painter.drawRect(box)
    sheet.painter.setBrush(Qt.BrushStyle.NoBrush)
    sheet.y += 1
    sheet.words(_said(line), text(LEAST), x + SWATCH, width - SWATCH - CELL, 40, WRAP)
    sheet.y -= 1


def _order(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    notation = plan.marks.notation
    for at, part in enumerate(panel.parts):
        top = part.top
        number = top.pieces.whole
        size = notation.size(*(figure.value for figure in top.piece_size))
        name = f"Part {at + 1}: " if len(panel.parts) > 1 else ""
        alike = len({(c.width.value, c.height.value) for c in top.cuts}) < 2
        cut = f", {'' if alike else 'at most '}{size} cut" if top.piece_size else ""
        pieces = "pieces" if number > 1 else "piece"
        yield paragraph(f"{name}{number} {pieces}{cut}", width, 11, strong=True)
        for turn, step in enumerate(told(top.order, plan.marks.notation), start=1):
            yield paragraph(f"{turn}. {step}", width)
        if top.left:
            left = f"Left of the scraps: {'; '.join(top.left)}."
            yield paragraph(left, width, LEAST, theme.SOFT)
        yield gap(1.5)
