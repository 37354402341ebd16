"""The worksheet's layout page: one pieced panel in letters, its key, its order of sewing."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QBrush, QColor, QPen, QTransform

from tessil.core.panels import PanelPlan
from tessil.core.plan import Plan
from tessil.drawing import theme
from tessil.drawing.layoutview import KeyLine, key_of_prints, layout_picture
from tessil.drawing.painter import Surface, fitted, paint_picture
from tessil.drawing.prints import print_brush
from tessil.files.sheet import LEFT, MARGIN, MM_PER_INCH, Sheet

MOST_KEYS = 24
PICTURE, KEY_WIDTH = 0.5, 58.0


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


def paint_layout(sheet: Sheet, plan: Plan, panel: PanelPlan) -> None:
    """One panel's layout below the head of the page."""
    like = [p.panel.label.lower() for p in plan.panels if p.panel.like == panel.key
            and p.key not in plan.project.panels]  # fmt: skip
    also = f" and {' and '.join(like)}" if like else ""
    sheet.words(f"Layout: {panel.panel.label.lower()}{also}", sheet.title(16), MARGIN,
                sheet.inner, 7)  # fmt: skip
    sheet.y += 9
    high = sheet.height * PICTURE
    picture = layout_picture(plan, panel)
    unit = sheet.unit * 0.85
    width = sheet.inner - KEY_WIDTH - 4
    place = fitted(picture, width * sheet.per_mm, high * sheet.per_mm, unit)
    left, top = MARGIN * sheet.per_mm, sheet.y * sheet.per_mm
    surface = Surface(place.left + left, place.top + top, place.per_inch, unit)
    paint_picture(sheet.painter, picture, surface)
    begin = sheet.y
    _key(sheet, key_of_prints(plan, panel), MARGIN + width + 4)
    sheet.y = begin + high + 3
    _order(sheet, plan, panel)


def _key(sheet: Sheet, lines: tuple[KeyLine, ...], x: float) -> None:
    sheet.words("Prints", sheet.text(11, True), x, KEY_WIDTH, 6)
    sheet.y += 7
    for line in lines[:MOST_KEYS]:
        sheet.words(line.letter, sheet.text(12, True), x, 8, 6)
        box = sheet.box(x + 8, sheet.y + 0.6, 8, 5)
        per_inch = sheet.per_mm * MM_PER_INCH * 0.35
        brush: QBrush = print_brush(line.cloth, per_inch)
        brush.setTransform(brush.transform() * QTransform.fromTranslate(box.left(), box.top()))
        sheet.painter.setPen(QPen(QColor(theme.INK), 0.2 * sheet.per_mm))
        sheet.painter.setBrush(brush)
        sheet.painter.drawRect(box)
        sheet.painter.setBrush(Qt.BrushStyle.NoBrush)
        turned = f", {line.turned} turned ↓" if line.turned else ""
        sheet.words(f"{line.cloth.name}: {line.pieces}{turned}", sheet.text(9.5), x + 18,
                    KEY_WIDTH - 18, 6, LEFT)  # fmt: skip
        sheet.y += 6.6
    if len(lines) > MOST_KEYS:
        sheet.words(f"and {len(lines) - MOST_KEYS} more", sheet.text(9), x, KEY_WIDTH, 5)


def _order(sheet: Sheet, plan: Plan, panel: PanelPlan) -> None:
    notation = plan.marks.notation
    for at, part in enumerate(panel.parts):
        top = part.top
        number = top.pieces.whole
        size = notation.size(*(figure.value for figure in top.piece_size))
        name = f"Part {at + 1}: " if len(panel.parts) > 1 else ""
        alike = len({(c.width.value, c.height.value) for c in top.cuts}) < 2
        cut = f", {'' if alike else 'at most '}{size} cut" if top.piece_size else ""
        sheet.wrapped(f"{name}{number} {'pieces' if number > 1 else 'piece'}{cut}",
                      sheet.text(11, True), theme.INK)  # fmt: skip
        for turn, step in enumerate(top.order, start=1):
            sheet.wrapped(f"{turn}. {step}", sheet.text(10), theme.INK)
        if top.left:
            sheet.wrapped(f"Left of the scraps: {'; '.join(top.left)}.", sheet.text(9.5))
        sheet.y += 1.5
