"""The worksheet on screen, page by page, just as it goes on paper."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QPainter, QPixmap, QResizeEvent
from PySide6.QtPrintSupport import QPrintDialog, QPrinter, QPrinterInfo
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tessil.drawing import theme
from tessil.files.printing import Pages
from tessil.files.sheet import MM_PER_INCH
from tessil.ui.widgets.words import Words


class Preview(QWidget):
    """The pages side by side, with a button for PDF and one for a printer."""

    pdf_wanted = Signal()
    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.sheets: Pages | None = None
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 12, 16, 12)
        outer.addLayout(self._head())
        self.area = area = QScrollArea()
        area.setWidgetResizable(True)
        area.setObjectName("pages")
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setAccessibleName("Worksheet pages")
        body = QWidget()
        row = QHBoxLayout(body)
        row.setSpacing(16)
        row.addStretch(1)
        self.pages: list[QLabel] = []
        self.row = row
        row.addStretch(1)
        area.setWidget(body)
        outer.addWidget(area, 1)

    def _head(self) -> QHBoxLayout:
        self.named = "Worksheet"
        title = self.title = Words(self.named)
        title.setObjectName("title")
        self.save = QPushButton("Save as PDF")
        self.save.setObjectName("main")
        self.save.clicked.connect(self.pdf_wanted)
        self.printer = QPushButton("Print…")
        self.printer.clicked.connect(self._print)
        self.words = Words()
        self.words.setObjectName("soft")
        back = QPushButton("Back to the bench")
        back.clicked.connect(self.left)
        self.back = back
        row = QHBoxLayout()
        row.addWidget(title)
        row.addWidget(self.words, 1)
        for button in (self.save, self.printer, back):
            row.addWidget(button)
        return row

    def show_pages(self, sheets: Pages, named: str) -> None:
        """Paint the pages; ``named`` is what they are together."""
        self.sheets, self.named = sheets, named
        self.title.setText(named)
        can_print = bool(QPrinterInfo.availablePrinterNames())
        self.printer.setEnabled(can_print)
        self._make_room(len(self.sheets.pages))
        words = f"{len(self.pages)} pages, {self.sheets.size.name()}."
        self.words.setText(
            words if can_print else f"{words} No printer is set up here: save a PDF."
        )
        self._paint()
        self.area.horizontalScrollBar().setValue(0)
        self.save.setFocus()

    def _make_room(self, number: int) -> None:
        while len(self.pages) > number:
            self.pages.pop().deleteLater()
        while len(self.pages) < number:
            page = Words()
            self.row.insertWidget(len(self.pages) + 1, page, 0, Qt.AlignmentFlag.AlignTop)
            self.pages.append(page)

    def _paint(self) -> None:
        if self.sheets is None:
            return
        size = self.sheets.millimetres
        wide = max((self.width() - 100) / 2, 300)
        ratio = self.devicePixelRatioF()
        per_mm = wide / size.width() * ratio
        for at, label in enumerate(self.pages):
            pixels = QSize(round(size.width() * per_mm), round(size.height() * per_mm))
            image = QImage(pixels, QImage.Format.Format_RGB32)
            image.fill(QColor("#ffffff"))
            painter = QPainter(image)
            self.sheets.paint(painter, at, per_mm)
            painter.end()
            pixmap = QPixmap.fromImage(image)
            pixmap.setDevicePixelRatio(ratio)
            label.setPixmap(pixmap)
            label.setStyleSheet(f"border: 1px solid {theme.RULE};")
            label.setAccessibleName(f"Page {at + 1}")

    def _print(self) -> None:
        if self.sheets is None:
            return
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setPageSize(self.sheets.size)
        printer.setFullPage(True)
        if QPrintDialog(printer, self).exec():
            painter = QPainter(printer)
            for at in range(len(self.sheets.pages)):
                if at:
                    printer.newPage()
                self.sheets.paint(painter, at, printer.resolution() / MM_PER_INCH)
            painter.end()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self.isVisible():
            self._paint()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
