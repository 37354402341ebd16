"""One page under the pen: boxes, words and rules in millimetres, the same for screen and paper.

A page is always set at one fineness and scaled to the device, so that words wrap alike on the
screen, on a printer and in a file.
"""

from __future__ import annotations

from contextlib import AbstractContextManager, nullcontext
from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPen

from tessil.drawing import theme
from tessil.drawing.fonts import text_font, title_font
from tessil.files.tagging import Tag, Tags

MM_PER_INCH = 25.4
POINTS_PER_INCH = 72
MARGIN = 14.0
FINE = 600 / MM_PER_INCH  # units a millimetre in which every page is set
LEAST = 9.0  # points: no word on paper is smaller
TO_CUT = 14.0  # points of a size to cut
LEFT = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
RIGHT = int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
WRAP = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap)


def in_points(points: float) -> float:
    """A size of type in the units in which pages are set."""
    return points / POINTS_PER_INCH * MM_PER_INCH * FINE


def text(points: float = 10, strong: bool = False) -> QFont:
    """The reading face for paper."""
    return text_font(in_points(points), strong)


def title(points: float) -> QFont:
    """The face of titles and of sizes to cut, for paper."""
    return title_font(in_points(points))


def wrapped_high(words: str, font: QFont, width: float) -> float:
    """How many millimetres high a paragraph gets in a width."""
    room = QRectF(0, 0, width * FINE, 1000 * FINE)
    return QFontMetricsF(font).boundingRect(room, WRAP, words).height() / FINE


@dataclass
class Sheet:
    """One page under the pen: millimetres from its top left."""

    painter: QPainter
    width: float
    height: float
    y: float = MARGIN
    tags: Tags | None = None  # where the parts of the page are told too

    def tagged(self, tag: Tag, words: str = "") -> AbstractContextManager[None]:
        """What is painted inside is a part of that kind; ``words`` stand for what is drawn."""
        return nullcontext() if self.tags is None else self.tags.tagged(self.painter, tag, words)

    def grouped(self, tag: Tag, key: str = "") -> AbstractContextManager[None]:
        """Parts told inside belong together, with those of the same key just before."""
        return nullcontext() if self.tags is None else self.tags.grouped(tag, key)

    @property
    def inner(self) -> float:
        return self.width - 2 * MARGIN

    def box(self, x: float, y: float, width: float, height: float) -> QRectF:
        return QRectF(*(value * FINE for value in (x, y, width, height)))

    def words(
        self,
        text: str,
        font: QFont,
        x: float,
        width: float,
        high: float,
        align: int = LEFT,
        colour: str = theme.INK,
    ) -> None:
        """Text in a box at the pen's height; the pen does not move."""
        self.painter.setFont(font)
        self.painter.setPen(QColor(colour))
        self.painter.drawText(self.box(x, self.y, width, high), align, text)

    def rule(self, colour: str = theme.RULE) -> None:
        """A thin line across the page."""
        self.painter.setPen(QPen(QColor(colour), 0.2 * FINE))
        box = self.box(MARGIN, self.y, self.inner, 0)
        self.painter.drawLine(box.topLeft(), box.topRight())

    def frame(self, x: float, y: float, width: float, high: float, dashed: bool = False) -> None:
        """An empty box: to tick, or to write in."""
        style = Qt.PenStyle.DashLine if dashed else Qt.PenStyle.SolidLine
        colour = theme.FAINT if dashed else theme.INK
        self.painter.setPen(QPen(QColor(colour), 0.25 * FINE, style))
        self.painter.setBrush(Qt.BrushStyle.NoBrush)
        self.painter.drawRect(self.box(x, y, width, high))
