"""Pages of blocks, painted the same for preview, printer and PDF.

Every page has its head, its number and a line of exactly 100 mm.  Knows blocks; must not know what
stands on them.
"""

from __future__ import annotations

from contextlib import nullcontext

from PySide6.QtCore import QBuffer, QIODevice, QMarginsF, QSizeF
from PySide6.QtGui import QColor, QPageLayout, QPageSize, QPainter, QPdfWriter, QPen

from tessil.core.numbers.lengths import Units
from tessil.core.numbers.records import Record
from tessil.core.trouble import FileTrouble
from tessil.drawing import theme
from tessil.files.flow import Block, paint_blocks
from tessil.files.sheet import FINE, LEAST, LEFT, MARGIN, MM_PER_INCH, RIGHT, Sheet, text, title
from tessil.files.tagging import Tags

HEAD, FOOT = 21.0, 8.0  # mm
TEST_LINE = 100.0  # mm


def paper_for(units: Units) -> QPageSize:
    """A4 for metric makers, Letter for inch makers."""
    metric = units == "metric"
    return QPageSize(QPageSize.PageSizeId.A4 if metric else QPageSize.PageSizeId.Letter)


def room_on(paper: QPageSize) -> tuple[float, float]:
    """How wide and how high blocks may be on one page, in mm."""
    size = paper.size(QPageSize.Unit.Millimeter)
    return size.width() - 2 * MARGIN, size.height() - 2 * MARGIN - HEAD - FOOT


class Pages(Record, frozen=True, eq=False):
    """Blocks set on pages, ready to be painted on anything; ``name`` and ``said`` head each."""

    name: str
    said: str
    size: QPageSize
    pages: tuple[list[Block], ...]

    @property
    def millimetres(self) -> QSizeF:
        """One page's size."""
        return self.size.size(QPageSize.Unit.Millimeter)

    def paint(self, painter: QPainter, page: int, per_mm: float, tags: Tags | None = None) -> None:
        """Paint one page (from 0) with its top left corner at the painter's origin; its parts are
        told to ``tags``."""
        size = self.millimetres
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.save()
        painter.scale(per_mm / FINE, per_mm / FINE)
        with theme.usual_size():
            sheet = Sheet(painter, size.width(), size.height(), tags=tags)
            self._head(sheet, page)
            paint_blocks(sheet, self.pages[page])
            _foot(sheet)
        painter.restore()

    def _head(self, sheet: Sheet, page: int) -> None:
        of = f"page {page + 1} of {len(self.pages)}"
        first = page == 0  # on all others it is only the head of a page
        with sheet.tagged("H1", self.name) if first else nullcontext():
            sheet.words(self.name, title(18), MARGIN, sheet.inner - 30, 10)
        sheet.words(of, text(LEAST), MARGIN, sheet.inner, 10, RIGHT, theme.SOFT)
        sheet.y += 10
        with sheet.tagged("P") if first else nullcontext():
            sheet.words(self.said, text(10), MARGIN, sheet.inner, 6)
        sheet.y += 8
        sheet.rule(theme.INK)
        sheet.y += HEAD - 18


def _foot(sheet: Sheet) -> None:
    """A line of 100 mm, to check that the printer did not scale the page."""
    y = sheet.height - MARGIN - 5
    sheet.painter.setPen(QPen(QColor(theme.INK), 0.3 * FINE))
    box = sheet.box(MARGIN, y, TEST_LINE, 0)
    sheet.painter.drawLine(box.topLeft(), box.topRight())
    for x in (MARGIN, MARGIN + TEST_LINE):
        tick = sheet.box(x, y - 2, 0, 4)
        sheet.painter.drawLine(tick.topLeft(), tick.bottomLeft())
    sheet.y = y + 2
    words = "This line is 100 mm (3.94 in) long if the page was printed at its own size."
    sheet.words(words, text(LEAST), MARGIN, sheet.inner, 5, LEFT, theme.SOFT)


def pdf_of(sheets: Pages, named: str) -> bytes:
    """The pages as a PDF with that title; raises FileTrouble if Qt cannot make one."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setPageSize(sheets.size)
    writer.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout.Unit.Millimeter)
    writer.setResolution(600)
    writer.setTitle(named)
    writer.setCreator("Tessil")
    painter = QPainter()
    if not painter.begin(writer):
        raise FileTrouble("The pages could not be painted.")
    per_mm = writer.resolution() / MM_PER_INCH
    tags = Tags()
    for page in range(len(sheets.pages)):
        if page:
            writer.newPage()
        tags.page(painter)
        sheets.paint(painter, page, per_mm, tags)
        tags.page_ends(painter)
    painter.end()
    return tags.put_into(bytes(buffer.data().data()))
