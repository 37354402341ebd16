"""A button that starts a search, a running stitch that shows how far it is, and its outcome."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from tessil.drawing import theme
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Words


class StitchBar(QWidget):
    """Progress as stitches along a line."""

    def __init__(self) -> None:
        super().__init__()
        self.share = 0.0
        fixed(self, height=10)
        self.setAccessibleName("Progress")

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        width = self.width() - 4
        painter.setPen(QPen(QColor(theme.RULE), 2))
        painter.drawLine(2, 5, width, 5)
        pen = QPen(QColor(theme.THREAD), 3)
        pen.setDashPattern([4, 2])
        painter.setPen(pen)
        painter.drawLine(2, 5, 2 + round(width * self.share), 5)


class SearchRow(QWidget):
    """Start, watch, stop.  ``wanted`` asks to start it, or to stop it while it runs."""

    wanted = Signal()

    def __init__(self, label: str) -> None:
        super().__init__()
        self.label = label
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 2, 0, 2)
        column.setSpacing(4)
        self.button = QPushButton(label)
        self.button.setObjectName("main")
        self.button.clicked.connect(self.wanted)
        self.bar = StitchBar()
        self.words = Words()
        self.words.setObjectName("soft")
        self.words.setWordWrap(True)
        for widget in (self.button, self.bar, self.words):
            column.addWidget(widget)
        self.setFocusProxy(self.button)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.show_state(None, "")

    def show_state(self, share: float | None, words: str) -> None:
        """How far it is, or None while nothing runs; and what came of the last one."""
        runs = share is not None
        self.button.setText("Stop and take the best so far" if runs else self.label)
        self.bar.setVisible(runs)
        self.bar.share = share or 0.0
        self.bar.update()
        self.words.setText(words)
        self.words.setVisible(bool(words) and not runs)
