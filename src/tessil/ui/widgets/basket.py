"""The print basket: swatches to lay on the piece in hand, or on all pieces in turn."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QTransform
from PySide6.QtWidgets import QAbstractButton, QGridLayout, QLabel, QVBoxLayout, QWidget

from tessil.core.project import Print
from tessil.drawing import theme
from tessil.drawing.prints import print_brush

ACROSS = 4


class Swatch(QAbstractButton):
    """One print, pinked at the edges like a swatch."""

    def __init__(self, cloth: Print) -> None:
        super().__init__()
        self.cloth = cloth
        self.in_hand = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        upright = "; must stand upright" if cloth.directional else ""
        self.setToolTip(f"{cloth.name}{upright}")
        self.setAccessibleName(f"Print {cloth.name}")

    def sizeHint(self) -> QSize:
        return QSize(60, 40)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(3, 3, -3, -3)
        brush = print_brush(self.cloth, 22)
        shift = QTransform.fromTranslate(box.left(), box.top())
        brush.setTransform(brush.transform() * shift)
        painter.setBrush(brush)
        marked = self.hasFocus() or self.in_hand
        painter.setPen(QPen(QColor(theme.THREAD if marked else theme.INK), 2.4 if marked else 1))
        painter.drawRect(box)
        if self.in_hand:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(theme.THREAD))
            painter.drawEllipse(QPointF(box.right(), box.top()), 4, 4)


class Basket(QWidget):
    """The prints of the bag.  ``laid`` carries the key of the print to lay."""

    laid = Signal(str)

    def __init__(self, prints: tuple[Print, ...]) -> None:
        super().__init__()
        self.prints = prints
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        self.words = QLabel()
        self.words.setObjectName("soft")
        self.words.setWordWrap(True)
        column.addWidget(self.words)
        grid = QGridLayout()
        grid.setSpacing(4)
        column.addLayout(grid)
        self.swatches = [Swatch(cloth) for cloth in prints]
        for at, swatch in enumerate(self.swatches):
            swatch.clicked.connect(lambda _=False, key=swatch.cloth.key: self.laid.emit(key))
            grid.addWidget(swatch, at // ACROSS, at % ACROSS)

    def show_value(self, value: Any) -> None:
        """Nothing to show: the bench shows the prints in their places."""

    def show_piece(self, piece: int | None, key: str) -> None:
        """Say which piece a click will change."""
        if piece is None:
            self.words.setText("Click a piece on the bench, then its print here.")
        else:
            self.words.setText(f"Print of piece {piece + 1}; Shift and an arrow swap it onwards.")
        for swatch in self.swatches:
            swatch.in_hand = piece is not None and swatch.cloth.key == key
            swatch.update()
