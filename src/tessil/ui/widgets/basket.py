"""The print basket: swatches to lay on the piece in hand, or on all pieces in turn."""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPixmap, QTransform
from PySide6.QtWidgets import QAbstractButton, QGridLayout, QVBoxLayout, QWidget

from tessil.core.catalogue.prints import Print
from tessil.core.layout.values import value_word
from tessil.drawing import theme
from tessil.drawing.bands import key_of
from tessil.drawing.prints import print_brush
from tessil.ui.desk import Desk
from tessil.ui.widgets.words import Words, plain_tip

if TYPE_CHECKING:
    from PySide6.QtGui import QIcon

ACROSS = 4


def swatch_words(cloth: Print) -> str:
    """What there is to know of a print."""
    parts = [cloth.name, value_word(cloth)]
    if cloth.amount is not None:
        parts.append(f"{cloth.amount} in hand")
    if cloth.directional:
        parts.append("must stand upright")
    if cloth.favourite:
        parts.append("a favourite")
    return ", ".join(parts)


@lru_cache(maxsize=256)
def chip(cloth: Print, size: tuple[int, int], ratio: float) -> QIcon:
    """A small picture of a print for a list, in its own colours in a chosen row too."""
    from PySide6.QtGui import QIcon

    wide, high = size
    made = QPixmap(round(wide * ratio), round(high * ratio))
    made.setDevicePixelRatio(ratio)
    made.fill(Qt.GlobalColor.transparent)
    painter = QPainter(made)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(print_brush(cloth, 14))
    painter.setPen(QPen(QColor(theme.INK), 0.8))
    painter.drawRect(QRectF(0.5, 0.5, wide - 1, high - 1))
    painter.end()
    icon = QIcon(made)
    icon.addPixmap(made, QIcon.Mode.Selected)
    return icon


class Swatch(QAbstractButton):
    """One print, pinked at the edges like a swatch."""

    def __init__(self, cloth: Print) -> None:
        super().__init__()
        self.cloth = cloth
        self.in_hand = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.number = 0
        self.setToolTip(plain_tip(swatch_words(cloth)))
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
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(theme.INK), 2, Qt.PenStyle.DashLine))
            painter.drawRect(box.adjusted(4, 4, -4, -4))
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
        self.words = Words()
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

    def show_hand(self, desk: Desk) -> None:
        """Say what a click on a print will do, and mark the print concerned."""
        panel = desk.plan.panel(desk.seen.panel)
        pieces = {key_of(panel.key, p): p for p in panel.patches if p.piece >= 0}
        patch = pieces.get(desk.seen.piece) or (
            next(iter(pieces.values())) if len(pieces) == 1 else None
        )
        if not pieces:
            self.words.setText("These pieces come from the scraps: see “Scraps, seam”.")
        elif desk.seen.tool == "lay":
            name = desk.project.print_of(desk.seen.brush).name if desk.seen.brush else "a print"
            self.words.setText(f"In hand: {name}. Click or draw over the pieces it goes on.")
        elif patch is None:
            self.words.setText("Click a piece on the bench, then its print here.")
        else:
            self.words.setText(f"Print of piece {patch.name}; Shift and an arrow swap it onwards.")
        marked = desk.seen.brush if desk.seen.tool == "lay" else patch.print if patch else ""
        for swatch in self.swatches:
            swatch.in_hand = swatch.cloth.key == marked
            swatch.update()
