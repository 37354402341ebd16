"""Prints drawn by the program: one repeat as an image, to be laid at true scale."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from math import cos, hypot, pi, sin

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QImage, QPainter, QPainterPath, QPen, QTransform

from tessil.core.catalogue.prints import Photo, Print
from tessil.drawing.photos import part_in_use

Motif = Callable[[QPainter, float, QColor], None]


def _pen(ink: QColor, width: float) -> QPen:
    return QPen(ink, width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)


def _plain(painter: QPainter, size: float, ink: QColor) -> None:
    soft = QColor(ink)
    soft.setAlphaF(0.25)
    painter.setPen(_pen(soft, size / 60))
    for at in range(8):
        place = (at + 0.5) * size / 8
        painter.drawLine(QPointF(0, place), QPointF(size, place))


def _disc(painter: QPainter, x: float, y: float, radius: float, ink: QColor) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(ink)
    painter.drawEllipse(QPointF(x, y), radius, radius)


def _dots(painter: QPainter, size: float, ink: QColor) -> None:
    for x, y in ((0.25, 0.25), (0.75, 0.75)):
        _disc(painter, x * size, y * size, size * 0.11, ink)


def _checks(painter: QPainter, size: float, ink: QColor) -> None:
    painter.setPen(_pen(ink, size / 26))
    for at in (0.125, 0.375, 0.625, 0.875):
        painter.drawLine(QPointF(at * size, 0), QPointF(at * size, size))
        painter.drawLine(QPointF(0, at * size), QPointF(size, at * size))


def _ticking(painter: QPainter, size: float, ink: QColor) -> None:
    for at, width in ((0.2, 0.16), (0.45, 0.04), (0.6, 0.04), (0.85, 0.08)):
        painter.fillRect(QRectF(at * size, 0, width * size, size), ink)


def _waves(painter: QPainter, size: float, ink: QColor) -> None:
    painter.setPen(_pen(ink, size / 20))
    for row in (0.25, 0.75):
        path = QPainterPath(QPointF(-size * 0.25, row * size))
        for step in range(3):
            x = (step - 0.25) * size * 0.5 + size * 0.0
            path.quadTo(
                QPointF(x + size * 0.125, (row - 0.22) * size), QPointF(x + size * 0.25, row * size)
            )
            path.quadTo(
                QPointF(x + size * 0.375, (row + 0.22) * size), QPointF(x + size * 0.5, row * size)
            )
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(path)


def _plaid(painter: QPainter, size: float, ink: QColor) -> None:
    wash = QColor(ink)
    wash.setAlphaF(0.45)
    painter.fillRect(QRectF(size * 0.1, 0, size * 0.3, size), wash)
    painter.fillRect(QRectF(0, size * 0.1, size, size * 0.3), wash)
    painter.setPen(_pen(ink, size / 30))
    painter.drawLine(QPointF(size * 0.7, 0), QPointF(size * 0.7, size))
    painter.drawLine(QPointF(0, size * 0.7), QPointF(size, size * 0.7))


def _rays(painter: QPainter, centre: QPointF, radius: float, arms: int, turn: float) -> None:
    for arm in range(arms):
        angle = turn + arm * 2 * pi / arms
        painter.drawLine(
            centre, QPointF(centre.x() + radius * cos(angle), centre.y() + radius * sin(angle))
        )


def _stars(painter: QPainter, size: float, ink: QColor) -> None:
    painter.setPen(_pen(ink, size / 22))
    for x, y, turn in ((0.27, 0.28, 0.3), (0.77, 0.74, 0.9)):
        _rays(painter, QPointF(x * size, y * size), size * 0.15, 5, turn)


def _sprig(painter: QPainter, x: float, y: float, size: float, ink: QColor) -> None:
    painter.setPen(_pen(ink, size / 18))
    painter.drawLine(QPointF(x, y + size * 0.3), QPointF(x, y - size * 0.2))
    for lift in (-0.02, 0.14):
        painter.drawLine(
            QPointF(x, y + lift * size + size * 0.1),
            QPointF(x - size * 0.16, y + lift * size - size * 0.04),
        )
        painter.drawLine(
            QPointF(x, y + lift * size + size * 0.1),
            QPointF(x + size * 0.16, y + lift * size - size * 0.04),
        )
    _disc(painter, x, y - size * 0.24, size * 0.07, ink)


def _sprigs(painter: QPainter, size: float, ink: QColor) -> None:
    for x, y in ((0.27, 0.3), (0.77, 0.7)):
        _sprig(painter, x * size, y * size, size * 0.62, ink)


def _notes(painter: QPainter, size: float, ink: QColor) -> None:
    for x, y in ((0.28, 0.36), (0.74, 0.84)):
        head = QPointF(x * size, y * size)
        _disc(painter, head.x(), head.y(), size * 0.075, ink)
        painter.setPen(_pen(ink, size / 32))
        stem = QPointF(head.x() + size * 0.065, head.y() - size * 0.28)
        painter.drawLine(QPointF(head.x() + size * 0.065, head.y()), stem)
        painter.drawLine(stem, QPointF(stem.x() + size * 0.11, stem.y() + size * 0.09))


def _leaves(painter: QPainter, size: float, ink: QColor) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(ink)
    for x, y, turn in ((0.28, 0.28, 35.0), (0.75, 0.72, -40.0)):
        path = QPainterPath(QPointF(0, -size * 0.18))
        path.quadTo(QPointF(size * 0.15, 0), QPointF(0, size * 0.18))
        path.quadTo(QPointF(-size * 0.15, 0), QPointF(0, -size * 0.18))
        turned = QTransform().translate(x * size, y * size).rotate(turn)
        painter.drawPath(turned.map(path))


def _birds(painter: QPainter, size: float, ink: QColor) -> None:
    """Small birds on a twig, heads up: a print with an up and a down."""
    painter.setBrush(ink)
    for x, y, way in ((0.27, 0.3, 1), (0.75, 0.76, -1)):
        painter.setPen(Qt.PenStyle.NoPen)
        body = QPainterPath(QPointF(0.13 * way, -0.02))
        body.quadTo(QPointF(0.05 * way, 0.15), QPointF(-0.15 * way, 0.11))
        body.quadTo(QPointF(-0.08 * way, -0.08), QPointF(0.06 * way, -0.06))
        body.closeSubpath()
        place = QTransform().translate(x * size, y * size).scale(size, size)
        painter.drawPath(place.map(body))
        _disc(painter, (x + 0.1 * way) * size, (y - 0.06) * size, size * 0.055, ink)
        painter.setPen(_pen(ink, size / 40))
        for foot in (0.0, 0.04):
            at = QPointF((x + foot * way) * size, (y + 0.09) * size)
            painter.drawLine(at, at + QPointF(0, size * 0.07))
        painter.drawLine(
            QPointF((x - 0.16) * size, (y + 0.16) * size),
            QPointF((x + 0.18) * size, (y + 0.16) * size),
        )


def _rings(painter: QPainter, size: float, ink: QColor) -> None:
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(_pen(ink, size / 20))
    for x, y in ((0.25, 0.25), (0.75, 0.75)):
        for radius in (0.09, 0.19):
            painter.drawEllipse(QPointF(x * size, y * size), radius * size, radius * size)


_MOTIFS: dict[str, Motif] = {
    "plain": _plain,
    "dots": _dots,
    "checks": _checks,
    "sprigs": _sprigs,
    "ticking": _ticking,
    "waves": _waves,
    "plaid": _plaid,
    "notes": _notes,
    "stars": _stars,
    "leaves": _leaves,
    "birds": _birds,
    "rings": _rings,
}

LEAST, MOST = 6, 512
MOST_POINTS = 2_000_000  # of one tile made from a photo


@lru_cache(maxsize=256)
def _tile(motif: str, ground: str, ink: str, pixels: int) -> QImage:
    image = QImage(pixels, pixels, QImage.Format.Format_RGB32)
    image.fill(QColor(ground))
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _MOTIFS[motif](painter, float(pixels), QColor(ink))
    painter.end()
    return image


def print_brush(cloth: Print, pixels_per_inch: float) -> QBrush:
    """A brush that lays the print at true scale, its repeat starting at the origin.

    The tile is drawn at the nearest power-of-√2 size and scaled by the brush, so that a
    smooth zoom does not draw every tile anew.
    """
    if cloth.photo is not None:
        return _photo_brush(cloth.photo, pixels_per_inch)
    wanted = float(cloth.repeat) * pixels_per_inch
    if wanted < LEAST:
        return QBrush(_mean(cloth))
    pixels = LEAST
    while pixels < min(wanted, MOST):
        pixels = int(pixels * 1.42) + 1
    brush = QBrush(_tile(cloth.motif, cloth.ground, cloth.ink, pixels))
    scale = wanted / pixels
    brush.setTransform(QTransform.fromScale(scale, scale))
    return brush


def points_per_inch(photo: Photo) -> float:
    """How many points of a photo are an inch of cloth, by its two points and their length."""
    across = (photo.other[0] - photo.one[0]) * photo.wide
    down = (photo.other[1] - photo.one[1]) * photo.high
    return max(hypot(across, down), 1.0) / float(photo.apart)


@lru_cache(maxsize=32)
def _scaled_part(photo: Photo, pixels: int) -> QImage | None:
    image = part_in_use(photo)
    if image is None or pixels * pixels * image.height() / image.width() > MOST_POINTS:
        return None  # not a picture, or a sliver of one that would become a tower
    return image.scaledToWidth(pixels, Qt.TransformationMode.SmoothTransformation)


def _photo_brush(photo: Photo, pixels_per_inch: float) -> QBrush:
    """The part of the photo in use, at true scale, side by side without end."""
    wide = max(photo.crop[2] * photo.wide, 1.0)
    wanted = wide * pixels_per_inch / points_per_inch(photo)
    pixels = LEAST
    while pixels < min(wanted, MOST):
        pixels = int(pixels * 1.42) + 1
    image = _scaled_part(photo, pixels) if wanted >= LEAST else None
    if image is None:
        return QBrush(QColor(photo.mean))
    brush = QBrush(image)
    brush.setTransform(QTransform.fromScale(wanted / pixels, wanted / pixels))
    return brush


def _mean(cloth: Print) -> QColor:
    """Too small to see its motif: the print as one colour, mostly ground."""
    ground, ink = QColor(cloth.ground), QColor(cloth.ink)
    parts = zip(ground.getRgb()[:3], ink.getRgb()[:3], strict=True)  # type: ignore[index]
    return QColor(*(int(g * 0.8 + i * 0.2) for g, i in parts))
