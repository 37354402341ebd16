"""The frame that is on screen at once, drawn in Tessil's paper while the rest is fetched.

Imports nothing of Tessil but the theme and its own settings, so that a maker sees where things
will be before the core, the fonts and the project are loaded.
"""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QCloseEvent, QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QMainWindow

from tessil.drawing import theme
from tessil.ui.settings import keep_place, restore_place

LEAST_WIDTH, LEAST_HEIGHT = 1024, 640


class Shell(QMainWindow):
    """The top-level window: first an empty table, then home of the furnished window."""

    def __init__(self) -> None:
        super().__init__()
        self.setWindowTitle("Tessil")
        self.resize(1280, 800)
        self.setMinimumSize(LEAST_WIDTH, LEAST_HEIGHT)
        restore_place(self)

    def take_in(self, window: QMainWindow) -> None:
        """Put the furnished window in place of the empty table."""
        if window.isWindow():  # one that was made for this frame has told it its title
            self.setWindowTitle(window.windowTitle())
        self.setCentralWidget(window)

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.centralWidget() is not None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(theme.PAPER))
        painter.fillRect(0, 0, 96, self.height(), QColor(theme.SELVAGE))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.MAT))
        bench = QRectF(110, 86, self.width() - 472, self.height() - 210)
        painter.drawRoundedRect(bench, theme.RADIUS, theme.RADIUS)
        painter.setBrush(QColor(theme.CARD))
        column = QRectF(self.width() - 350, 86, 336, self.height() - 98)
        painter.drawRoundedRect(column, theme.RADIUS, theme.RADIUS)

    def closeEvent(self, event: QCloseEvent) -> None:
        home = self.centralWidget()
        if home is not None and not home.close():
            event.ignore()
            return
        keep_place(self)
        event.accept()
