"""The worksheet: pages to cut and sew by, painted the same for preview and PDF.

Page one: the bag, the leading panel with its dimensions, every panel's ladder with room to
write what was measured.  Page two: the cut list, what to buy, snags left, and a test line
of exactly 100 mm.  Then a page for every layout of pieces, every sandwich, every quilting map,
and a swatch sheet to fill in.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QMarginsF, Qt
from PySide6.QtGui import (
    QColor,
    QFont,
    QPageLayout,
    QPageSize,
    QPainter,
    QPdfWriter,
    QPen,
)

from tessil.core.making.cautions import caution_for
from tessil.core.panels import PanelPlan
from tessil.core.plan import Plan
from tessil.core.snags import Stage
from tessil.core.workings import value_text, working
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.drawing.painter import Surface, fitted, paint_picture
from tessil.drawing.pictures import View, bag_picture, picture_of
from tessil.files.edgepages import edge_pages
from tessil.files.layoutpage import laid_out, paint_layout
from tessil.files.projectfile import FileTrouble, write_export
from tessil.files.quiltpages import (
    layered,
    line_words,
    paint_quilting,
    paint_sandwich,
    paint_swatch_sheet,
    quilted,
)
from tessil.files.report import finished_text, merged_rows
from tessil.files.sheet import CENTRE, LEFT, MARGIN, MM_PER_INCH, RIGHT, Sheet

Page = Callable[[Sheet, Plan], None]


def page_size(plan: Plan) -> QPageSize:
    """A4 for metric makers, Letter for inch makers."""
    metric = plan.project.units == "metric"
    return QPageSize(QPageSize.PageSizeId.A4 if metric else QPageSize.PageSizeId.Letter)


def _head(sheet: Sheet, plan: Plan, page: int) -> None:
    of = len(pages(plan))
    sheet.words(plan.project.name, sheet.title(24), MARGIN, sheet.inner, 10)
    sheet.words(f"page {page} of {of}", sheet.text(10), MARGIN, sheet.inner, 10, RIGHT, theme.SOFT)
    sheet.y += 10
    made = f"{plan.shape.name}, finished {finished_text(plan)}; make {plan.project.bags}"
    sheet.words(made, sheet.text(12), MARGIN, sheet.inner, 6)
    sheet.y += 8
    sheet.rule(theme.INK)
    sheet.y += 3


def _pictures(sheet: Sheet, plan: Plan, high: float) -> None:
    """The leading panel to quilt, the same trimmed, and the bag, side by side."""
    lead = plan.shape.leader
    x = MARGIN
    for picture, share, words in (
        (picture_of(plan, View(Stage.QUILT, lead)), 0.37, "Quilt; trim on the broken line"),
        (picture_of(plan, View(Stage.TRIM, lead)), 0.36, "Trim, and cut the corners"),
        (bag_picture(plan), 0.27, "The finished bag"),
    ):
        width = sheet.inner * share
        unit = sheet.unit * 0.8
        place = fitted(picture, width * sheet.per_mm, high * sheet.per_mm, unit)
        left, top = x * sheet.per_mm, sheet.y * sheet.per_mm
        surface = Surface(place.left + left, place.top + top, place.per_inch, unit)
        paint_picture(sheet.painter, picture, surface)
        keep, sheet.y = sheet.y, sheet.y + high
        sheet.words(words, sheet.text(9), x, width, 4, CENTRE, theme.SOFT)
        sheet.y = keep
        x += width
    sheet.y += high + 7


def _ladders(sheet: Sheet, plan: Plan) -> None:
    sheet.words("From piece to panel", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 9
    for panel in plan.panels:
        rungs = plan.ladder(panel.key)[:-1]
        step = (sheet.inner - 26) / 4
        copies = f" ×{panel.panel.copies}" if panel.panel.copies > 1 else ""
        sheet.words(panel.panel.label + copies, sheet.text(11, True), MARGIN, 26, 6)
        for at, rung in enumerate(rungs):
            x = MARGIN + 26 + at * step
            size = plan.marks.notation.size(*(figure.value for figure in rung.sizes))
            size = f"{rung.number.whole} of {size}" if rung.number else size
            sheet.words(f"{rung.label}, {rung.note}", sheet.text(8.5), x, step, 4, LEFT, theme.SOFT)
            keep, sheet.y = sheet.y, sheet.y + 4
            sheet.words(size, sheet.title(14), x, step, 6)
            if rung.measurable:
                sheet.y += 7
                _write_box(sheet, x, step - 5)
            sheet.y = keep
        sheet.y += 21


def _write_box(sheet: Sheet, x: float, width: float) -> None:
    """Room for a pencil."""
    sheet.painter.setPen(QPen(QColor(theme.FAINT), 0.2 * sheet.per_mm, Qt.PenStyle.DashLine))
    sheet.painter.setBrush(Qt.BrushStyle.NoBrush)
    sheet.painter.drawRect(sheet.box(x, sheet.y, width, 7))
    sheet.words("I got", sheet.text(8), x + 1, width, 4, LEFT, theme.FAINT)


def _lines(sheet: Sheet, plan: Plan) -> None:
    for panel in plan.panels:
        for entry in panel.quilt.sets:
            sheet.wrapped(line_words(plan, panel, entry), sheet.text(10), theme.INK)
    sheet.wrapped(caution_for(Stage.QUILT), sheet.text(9))


def _page_one(sheet: Sheet, plan: Plan) -> None:
    _head(sheet, plan, 1)
    _pictures(sheet, plan, sheet.height * (0.36 if len(plan.panels) < 4 else 0.24))
    _ladders(sheet, plan)
    _lines(sheet, plan)


_COLUMNS = (("number", 14, RIGHT), ("size", 34, RIGHT), ("what", 56, LEFT), ("from", 0, LEFT))


def _row(sheet: Sheet, cells: tuple[str, str, str, str], font: QFont, colour: str) -> None:
    x = MARGIN + 6
    for (_, width, align), text in zip(_COLUMNS, cells, strict=True):
        room = width or sheet.width - MARGIN - x
        sheet.words(text, font, x, room, 5.6, align, colour)
        x += width + 4


def _cut_table(sheet: Sheet, plan: Plan) -> None:
    sheet.words("To cut", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 8
    _row(sheet, ("pieces", "width × height", "for", "from"), sheet.text(9), theme.SOFT)
    sheet.y += 5.5
    rows = merged_rows(plan)
    below = 62 + 5 * min(len(plan.bought), 14) + (24 if plan.snags else 0)
    most = int((sheet.height - sheet.y - below) / 5.6)
    for row in rows[:most]:
        sheet.rule()
        sheet.painter.setPen(QPen(QColor(theme.INK), 0.25 * sheet.per_mm))
        sheet.painter.setBrush(Qt.BrushStyle.NoBrush)
        sheet.painter.drawRect(sheet.box(MARGIN, sheet.y + 1.2, 3.2, 3.2))
        size = f"{row['width']} × {row['height']}"
        note = f"; {row['note']}" if row["note"] else ""
        cells = (str(row["number"]), size, f"{row['panel']}: {row['what']}", f"{row['from']}{note}")
        _row(sheet, cells, sheet.text(10.5), theme.INK)
        sheet.y += 5.6
    if len(rows) > most:
        more = f"and {len(rows) - most} more sizes: see the cut list as CSV"
        sheet.words(more, sheet.text(9), MARGIN, sheet.inner, 5)
        sheet.y += 6
    sheet.y += 2
    sheet.wrapped(caution_for(Stage.CUT), sheet.text(9))


def _buy(sheet: Sheet, plan: Plan) -> None:
    sheet.y += 2
    sheet.words("To buy", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 8
    notation = plan.marks.notation
    for at, bought in enumerate(plan.bought[:14]):
        x = MARGIN + (at % 2) * sheet.inner / 2
        figure = bought.cloth.buy
        name = f"{bought.name}  {value_text(figure, notation)}"
        sheet.words(name, sheet.text(10.5, True), x, sheet.inner / 2 - 4, 4.6)
        keep, sheet.y = sheet.y, sheet.y + 4.4
        sheet.words(working(figure, notation), sheet.text(8.5), x, sheet.inner / 2 - 4, 4,
                    LEFT, theme.SOFT)  # fmt: skip
        sheet.y = keep + (10 if at % 2 or at == len(plan.bought) - 1 else 0)


def _snags(sheet: Sheet, plan: Plan) -> None:
    if not plan.snags:
        return
    sheet.words("Mind", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 8
    for snag in plan.snags[:4]:
        if sheet.y > sheet.height - 34:
            break
        sheet.wrapped(f"{snag.title}. {snag.why}", sheet.text(10), theme.INK)


def _test_line(sheet: Sheet) -> None:
    """A line of 100 mm, to check that the printer did not scale the page."""
    y = sheet.height - MARGIN - 4
    sheet.painter.setPen(QPen(QColor(theme.INK), 0.3 * sheet.per_mm))
    box = sheet.box(MARGIN, y, 100, 0)
    sheet.painter.drawLine(box.topLeft(), box.topRight())
    for x in (MARGIN, MARGIN + 100):
        tick = sheet.box(x, y - 2, 0, 4)
        sheet.painter.drawLine(tick.topLeft(), tick.bottomLeft())
    sheet.y = y + 1
    words = "This line is 100 mm (3.94 in) long if the page was printed at its own size."
    sheet.words(words, sheet.text(8.5), MARGIN, sheet.inner, 5, LEFT, theme.SOFT)


def _page_two(sheet: Sheet, plan: Plan) -> None:
    _head(sheet, plan, 2)
    _cut_table(sheet, plan)
    _buy(sheet, plan)
    _snags(sheet, plan)
    _test_line(sheet)


def _later_page(
    sheet: Sheet, plan: Plan, work: Callable[..., None], panel: PanelPlan | None, page: int
) -> None:
    _head(sheet, plan, page)
    if panel is None:
        work(sheet, plan)
    else:
        work(sheet, plan, panel)


def pages(plan: Plan) -> list[Page]:
    """What goes on each page: the bag, cutting, layouts, layers, quilting, edges, swatches."""
    made: list[tuple[Callable[..., None], PanelPlan | None]] = [
        *((paint_layout, panel) for panel in laid_out(plan)),
        *((paint_sandwich, panel) for panel in layered(plan)),
        *((paint_quilting, panel) for panel in quilted(plan)),
    ]
    made += [(work, None) for work in edge_pages(plan)]
    if quilted(plan):
        made.append((paint_swatch_sheet, None))
    later: list[Page] = [
        partial(_later_page, work=work, panel=panel, page=at)
        for at, (work, panel) in enumerate(made, start=3)
    ]
    return [_page_one, _page_two, *later]


def paint_page(painter: QPainter, plan: Plan, page: int, per_mm: float) -> None:
    """Paint one page (from 0) with its top left corner at the painter's origin."""
    size = page_size(plan).size(QPageSize.Unit.Millimeter)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    with theme.usual_size():
        pages(plan)[page](Sheet(painter, size.width(), size.height(), per_mm), plan)


def pdf_bytes(plan: Plan) -> bytes:
    """The worksheet as a PDF; raises FileTrouble if Qt cannot make one."""
    load_fonts()
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setPageSize(page_size(plan))
    writer.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout.Unit.Millimeter)
    writer.setResolution(600)
    writer.setTitle(f"{plan.project.name}: worksheet")
    writer.setCreator("Tessil")
    painter = QPainter()
    if not painter.begin(writer):
        raise FileTrouble("The worksheet could not be painted.")
    per_mm = writer.resolution() / MM_PER_INCH
    for page in range(len(pages(plan))):
        if page:
            writer.newPage()
        paint_page(painter, plan, page, per_mm)
    painter.end()
    return bytes(buffer.data().data())


def save_pdf(plan: Plan, path: Path) -> None:
    """Write the worksheet; raises FileTrouble if the disk refuses."""
    write_export(path, pdf_bytes(plan))
