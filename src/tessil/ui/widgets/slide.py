"""A length under the hand: a ruler's edge to slide along, tried out while it is dragged."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QSlider

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH, Notation
from tessil.drawing import theme

PAD = 10.0


class Slide(QSlider):
    """``attempt`` takes a length for good, ``try_out`` shows one while the hand moves."""

    def __init__(
        self,
        notation: Callable[[], Notation],
        attempt: Callable[[Any, str], str],
        try_out: Callable[[Any], str],
    ) -> None:
        super().__init__(Qt.Orientation.Horizontal)
        self.notation, self.attempt, self.try_out = notation, attempt, try_out
        self.setMinimumHeight(30)
        self.setTracking(True)
        self._told = False
        self.valueChanged.connect(self._moved)

    @property
    def mark(self) -> Fraction:
        """One step: an eighth of an inch, or two millimetres."""
        return Fraction(1, 8) if self.notation().units == "inch" else 2 / MM_PER_INCH

    def show_value(self, value: Fraction) -> None:
        """Show a length, to the nearest step, without taking it."""
        steps = (2, 32) if self.notation().units == "inch" else (3, 50)
        self._told = True
        self.setRange(*steps)
        self.setPageStep(4)
        self.setValue(round(value / self.mark))
        self._told = False
        self.update()

    def length(self) -> Fraction:
        """The length where the hand is."""
        return self.value() * self.mark

    def _moved(self) -> None:
        if self._told:
            return
        if self.isSliderDown():
            self.try_out(self.length())
        else:
            self.attempt(self.length(), "")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """The handle comes to where the ruler is touched, and follows the hand from there."""
        self.setSliderDown(True)
        self._follow(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.isSliderDown():
            self._follow(event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.setSliderDown(False)
        self.attempt(self.length(), "")

    def _follow(self, event: QMouseEvent) -> None:
        room = max(self.width() - 2 * PAD, 1)
        share = min(max((event.position().x() - PAD) / room, 0.0), 1.0)
        self.setValue(round(self.minimum() + share * (self.maximum() - self.minimum())))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()  # a turn of the wheel over the column scrolls it, and changes nothing

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        low, high = self.minimum(), self.maximum()
        room = self.width() - 2 * PAD
        base = self.height() - 7.0
        painter.setPen(QPen(QColor(theme.FAINT), 1))
        every = 8 if self.notation().units == "inch" else 5
        for step in range(low, high + 1):
            x = PAD + room * (step - low) / (high - low)
            tall = 8 if step % every == 0 else 3
            painter.drawLine(QPointF(x, base), QPointF(x, base - tall))
        painter.setPen(QPen(QColor(theme.SOFT), 1))
        painter.drawLine(QPointF(PAD, base), QPointF(PAD + room, base))
        x = PAD + room * (self.value() - low) / (high - low)
        painter.setPen(QPen(QColor(theme.INK if self.hasFocus() else theme.THREAD), 2))
        painter.setBrush(QColor(theme.THREAD))
        painter.drawEllipse(QRectF(x - 6, base - 15, 12, 12))
