"""Ruler edges along the top and the left of the bench, zero at the picture's origin."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPen

from tessil.core.numbers.records import Record
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.painter import Surface

RULER = 20
_STEPS_INCH = (0.125, 0.25, 0.5, 1, 2, 5, 10, 20)
_STEPS_METRIC = tuple(step / 2.54 for step in (0.1, 0.5, 1, 2, 5, 10, 20, 50))


class Ruler(Record, frozen=True):
    """One edge: where its zero is, how long it is, and which way it lies."""

    painter: QPainter
    zero: float
    length: int
    per_inch: float
    level: bool
    metric: bool


def paint_rulers(painter: QPainter, surface: Surface, size: QSize, metric: bool) -> None:
    """Ruler edges along the top and the left, zero at the picture's origin."""
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(theme.CARD))
    painter.drawRect(QRectF(0, 0, size.width(), RULER))
    painter.drawRect(QRectF(0, 0, RULER, size.height()))
    steps = _STEPS_METRIC if metric else _STEPS_INCH
    small = next((s for s in steps if s * surface.per_inch >= 6), steps[-1])
    large = next((s for s in steps if s * surface.per_inch >= 34), steps[-1])
    painter.setFont(text_font(theme.px(10)))
    _marks(Ruler(painter, surface.left, size.width(), surface.per_inch, True, metric), small, large)
    _marks(
        Ruler(painter, surface.top, size.height(), surface.per_inch, False, metric), small, large
    )
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(theme.CARD))
    painter.drawRect(QRectF(0, 0, RULER, RULER))
    painter.setPen(QColor(theme.FAINT))
    unit = "cm" if metric else "in"
    painter.drawText(QRectF(0, 0, RULER, RULER), int(Qt.AlignmentFlag.AlignCenter), unit)


def _marks(ruler: Ruler, small: float, large: float) -> None:
    """A mark every ``small`` inches, a longer one with its figure every ``large``."""
    painter, step = ruler.painter, small * ruler.per_inch
    painter.setPen(QPen(QColor(theme.FAINT), 1))
    first, last = int((RULER - ruler.zero) / step), int((ruler.length - ruler.zero) / step)
    every = max(round(large / small), 1)
    for mark in range(first, last + 1):
        at = ruler.zero + mark * step
        if at < RULER:
            continue
        tall = mark % every == 0
        reach = 8 if tall else 4
        if ruler.level:
            painter.drawLine(QPointF(at, RULER), QPointF(at, RULER - reach))
        else:
            painter.drawLine(QPointF(RULER, at), QPointF(RULER - reach, at))
        if tall:
            _figure(ruler, at, mark * small)


def _figure(ruler: Ruler, at: float, inches: float) -> None:
    painter = ruler.painter
    value = inches * 2.54 if ruler.metric else inches
    text = f"{value:g}" if abs(value - round(value)) < 1e-6 else f"{value:.1f}"
    text = text.replace("-", "−")
    if ruler.level:
        painter.drawText(QPointF(at + 3, RULER - 8), text)
        return
    painter.save()
    painter.translate(RULER - 9, at - 3)
    painter.rotate(-90)
    painter.drawText(QPointF(0, 0), text)
    painter.restore()
