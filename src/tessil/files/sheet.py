"""One page under the pen: boxes, words and rules in millimetres, for screen and paper alike."""

from __future__ import annotations

from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPen

from tessil.drawing import theme
from tessil.drawing.fonts import text_font, title_font

MM_PER_INCH = 25.4
MARGIN = 14.0
LEFT = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
RIGHT = int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
CENTRE = int(Qt.AlignmentFlag.AlignCenter)
WRAP = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap)


@dataclass
class Sheet:
    """One page under the pen: millimetres from its top left, and device units a millimetre."""

    painter: QPainter
    width: float
    height: float
    per_mm: float
    y: float = MARGIN

    @property
    def inner(self) -> float:
        return self.width - 2 * MARGIN

    @property
    def unit(self) -> float:
        """Device units a reading size: 96 to the inch."""
        return self.per_mm * MM_PER_INCH / 96

    def box(self, x: float, y: float, width: float, height: float) -> QRectF:
        return QRectF(*(value * self.per_mm for value in (x, y, width, height)))

    def words(
        self, text: str, font: QFont, x: float, width: float, high: float, align: int = LEFT,
        colour: str = theme.INK,
    ) -> None:  # fmt: skip
        """Text in a box at the pen's height; the pen does not move."""
        self.painter.setFont(font)
        self.painter.setPen(QColor(colour))
        self.painter.drawText(self.box(x, self.y, width, high), align, text)

    def rule(self, colour: str = theme.RULE) -> None:
        """A thin line across the page."""
        self.painter.setPen(QPen(QColor(colour), 0.2 * self.per_mm))
        box = self.box(MARGIN, self.y, self.inner, 0)
        self.painter.drawLine(box.topLeft(), box.topRight())

    def text(self, size: float = 11, strong: bool = False) -> QFont:
        return text_font(size * self.unit, strong)

    def title(self, size: float) -> QFont:
        return title_font(size * self.unit)

    def wrapped(self, text: str, font: QFont, colour: str = theme.SOFT) -> None:
        """A paragraph; the pen moves below it."""
        metrics = QFontMetricsF(font)
        room = self.box(MARGIN, self.y, self.inner, 60)
        high = metrics.boundingRect(room, WRAP, text).height() / self.per_mm
        self.words(text, font, MARGIN, self.inner, high + 1, WRAP, colour)
        self.y += high + 1.5
