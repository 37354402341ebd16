"""A question of the talk with its answer in a line; a click opens its fields below it."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF

from tessil.drawing import theme
from tessil.drawing.fonts import WRAP, medium_font, text_font, text_height
from tessil.ui.widgets.bywidth import ByWidth
from tessil.ui.widgets.words import plain_tip

TITLE, PAD, MARK = 80, 5, 22  # pixels: the titles' column, above and below, the mark at the right


class Question(ByWidth):
    """A title with what stands in its fields; open, the title alone."""

    def __init__(self, title: str) -> None:
        super().__init__()
        self.title, self.answer = title, ""

    def show_answer(self, answer: str, is_open: bool) -> None:
        """Show what stands in the fields, and whether they are open below."""
        if (answer, is_open) == (self.answer, self.isChecked()):
            return
        self.setChecked(is_open)
        self.answer = answer
        self.setAccessibleName(f"{self.title}: {answer}")
        self.setToolTip(plain_tip(answer))
        self.changed()

    def nextCheckState(self) -> None:
        """The desk says what is open."""

    def _answer_box(self, width: float) -> QRectF:
        left = theme.px(TITLE)
        return QRectF(left, PAD, max(width - left - MARK, 40), 10000)

    def high(self, width: int) -> int:
        one = QFontMetricsF(medium_font(theme.TEXT)).height()
        if self.isChecked():
            return round(one + 2 * PAD)
        high = text_height(self.answer, self._answer_box(width).width(), theme.TEXT)
        return round(max(one, high) + 2 * PAD)

    def minimumSizeHint(self) -> QSize:
        return QSize(180, 20)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect())
        asked, under = self.isChecked(), self.underMouse() and not self.isChecked()
        if under or self.hasFocus():
            painter.setPen(QPen(QColor(theme.THREAD), 2) if self.hasFocus() else Qt.PenStyle.NoPen)
            painter.setBrush(QColor(theme.PAPER) if under else Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(box.adjusted(1, 1, -1, -1), 4, 4)
        painter.setPen(QPen(QColor(theme.RULE), 1))
        painter.drawLine(QPointF(2, 0.5), QPointF(box.right() - 2, 0.5))
        painter.setFont(medium_font(theme.TEXT))
        painter.setPen(QColor(theme.THREAD if asked else theme.INK))
        painter.drawText(QRectF(4, PAD, box.width() - MARK, box.height()), WRAP, self.title)
        if not asked:
            painter.setFont(text_font(theme.TEXT))
            painter.setPen(QColor(theme.SOFT))
            painter.drawText(self._answer_box(box.width()), WRAP, self.answer)
        self._mark(painter, asked)

    def _mark(self, painter: QPainter, asked: bool) -> None:
        """A stitch that points down where there is more, and up where it is shown."""
        middle = PAD + QFontMetricsF(medium_font(theme.TEXT)).height() / 2
        x, rise = self.width() - 11.0, -2.5 if asked else 2.5
        painter.setPen(QPen(QColor(theme.THREAD), 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(
            QPolygonF(
                [
                    QPointF(x - 5, middle - rise),
                    QPointF(x, middle + rise),
                    QPointF(x + 5, middle - rise),
                ]
            )
        )
