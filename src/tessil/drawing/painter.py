"""Paints a picture with Qt: the same for the bench, the page, SVG and thumbnails.

Knows pictures and the theme; must not know the plan.  ``Surface`` says how many device
units an inch of the picture and a reading size take, so that print and screen agree.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from math import ceil, hypot
from typing import Any

from msgspec.structs import replace
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFontMetricsF,
    QPaintEngine,
    QPainter,
    QPen,
    QPixmap,
    QPolygonF,
    QTransform,
)

from tessil.core.numbers.records import Record
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.pens import MANY_STITCHES, MOST_STITCHED, STITCHES, STROKES, pen_of
from tessil.drawing.picture import (
    Badge,
    Cloth,
    Dimension,
    Label,
    Line,
    Net,
    Picture,
    Placed,
    Point,
    Shade,
)
from tessil.drawing.prints import print_brush
from tessil.drawing.wording import Box, Ground

LANE = 20.0
MANY_PLACED = 24  # pieces of something askew that are painted as one image while it moves
MOST_IMAGES = 60
SLANTED = 0.3  # a dimension steeper than this has its words beside it
NEAR_ENOUGH = 0.5  # of the scale an image was painted at; further off it would be coarse
FLAG = 12.0  # half of a snag's flag


class Surface(Record, frozen=True):
    """Where the picture's origin is, device units an inch, and device units a reading size."""

    left: float
    top: float
    per_inch: float
    unit: float = 1.0

    def at(self, point: Point) -> QPointF:
        return QPointF(self.left + point[0] * self.per_inch, self.top + point[1] * self.per_inch)

    def inches(self, x: float, y: float) -> Point:
        """The picture's point under a device point."""
        return (x - self.left) / self.per_inch, (y - self.top) / self.per_inch

    def polygon(self, points: tuple[Point, ...]) -> QPolygonF:
        return QPolygonF([self.at(point) for point in points])


def fitted(picture: Picture, width: float, height: float, unit: float = 1.0) -> Surface:
    """A surface that shows the whole picture, with its room, in a box at the origin."""
    left, top, right, bottom = (side * unit for side in picture.room)
    x, y, w, h = picture.box
    per_inch = min(
        max(width - left - right, 10) / max(w, 0.1), max(height - top - bottom, 10) / max(h, 0.1)
    )
    spare_x = (width - left - right - w * per_inch) / 2
    spare_y = (height - top - bottom - h * per_inch) / 2
    return Surface(left + spare_x - x * per_inch, top + spare_y - y * per_inch, per_inch, unit)


_TONES = {
    "batting": theme.BATTING,
    "backing": theme.LINING,
    "paper": theme.CARD,
    "binding": theme.THREAD,
    "zip": theme.SOFT,
}

_SHEER = {
    "shade": (theme.SHADE, 0.28),
    "object": (theme.SHADE, 0.28),
    "glow": (theme.THREAD, 0.16),
    "window": (theme.CHALK, 0.72),
}


def _straight(outline: tuple[Point, ...]) -> bool:
    """Whether four corners are a rectangle standing straight."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = outline
    return ay == by and bx == cx and cy == dy and dx == ax


class Writing(Record, frozen=True):
    """Words to write: their box with what is round it, and the chip they lie on, if on one."""

    text: str
    strong: bool
    chip: bool
    box: Box
    size: str = ""  # the size of the bag that they tell
    beside: bool = False  # whether they stand beside a size's line, and keep off all such lines


class PicturePainter:
    """Paints the items of one picture on one surface: shapes first, then flags and words, each
    where nothing else is written.

    With ``bounds`` no words lie outside them; ``taken`` is what is written there already.
    """

    def __init__(
        self,
        painter: QPainter,
        surface: Surface,
        bounds: Box | None = None,
        taken: Iterable[Box] = (),
        moving: bool = False,
    ) -> None:
        self.moving = moving
        self.painter = painter
        self.surface = surface
        self.ground = Ground(bounds, taken)
        self.ruled = Ground(None)  # where lines of sizes lie
        self.writings: list[Writing] = []
        self.flags: list[Badge] = []
        self.written: list[Writing] = []
        engine = painter.paintEngine()
        self.on_screen = engine is not None and engine.type() == QPaintEngine.Type.Raster
        self.brushes: dict[tuple[int, bool], QBrush] = {}
        self.placed_brushes: dict[tuple[int, bool], QBrush] = {}

    def paint(self, picture: Picture) -> None:
        """All items, in order."""
        self.painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for item in picture.items:
            _BY_KIND[type(item)](self, item)
        for flag in self.flags:
            self._flag(flag)
        for writing in self.writings:
            self._write(writing)

    def _cloth(self, item: Cloth) -> None:
        corner = self.surface.at(item.outline[0])
        origin = self.surface.at(item.origin)
        if self.on_screen:  # one brush a print, its origin moved from piece to piece
            key = (id(item.print), item.turned)
            brush = self.brushes.get(key)
            if brush is None:
                brush = self.brushes[key] = self._brush(item)
            self.painter.setBrushOrigin(origin)
            if len(item.outline) == 4 and _straight(item.outline):
                opposite = self.surface.at(item.outline[2])
                self.painter.fillRect(QRectF(corner, opposite).normalized(), brush)
                return
        else:
            brush = self._brush(item)
            shift = QTransform.fromTranslate(origin.x(), origin.y())
            brush.setTransform(brush.transform() * shift)
        self.painter.setPen(Qt.PenStyle.NoPen)
        self.painter.setBrush(brush)
        self.painter.drawPolygon(self.surface.polygon(item.outline))

    def _brush(self, item: Cloth) -> QBrush:
        brush = print_brush(item.print, self.surface.per_inch)
        if item.turned:
            brush.setTransform(brush.transform() * QTransform.fromScale(-1, -1))
        return brush

    def _net(self, item: Net) -> None:
        left, top, per_inch = self.surface.left, self.surface.top, self.surface.per_inch
        lines = [
            QLineF(
                left + x1 * per_inch, top + y1 * per_inch, left + x2 * per_inch, top + y2 * per_inch
            )
            for x1, y1, x2, y2 in item.segments
        ]
        strokes = (STROKES[item.stroke],) if item.stroke != "quilt" else STITCHES
        if item.stroke == "quilt" and len(lines) > MOST_STITCHED:
            strokes = MANY_STITCHES
        smooth, hint = self.painter, QPainter.RenderHint.Antialiasing
        for at, (colour, width, dashes) in enumerate(strokes):
            # Under so many lines the shadow may be rough: it is quicker by half.
            smooth.setRenderHint(hint, strokes is not MANY_STITCHES or at > 0)
            smooth.setPen(self._pen(colour, width, dashes))
            smooth.drawLines(lines)

    def _sheet(self, item: Shade) -> None:
        self.painter.setPen(Qt.PenStyle.NoPen)
        brush = self._tone(item.tone)
        if item.share is not None:
            colour = brush.color()
            colour.setAlphaF(item.share)
            brush.setColor(colour)
        self.painter.setBrush(brush)
        self.painter.drawPolygon(self.surface.polygon(item.outline))

    def _placed(self, item: Placed) -> None:
        """Its items painted flat, through the way they lie in the picture."""
        a, b, c, d, e, f = item.affine
        corner, painter = self.surface.at((e, f)), self.painter
        painter.save()
        painter.setTransform(QTransform(a, b, c, d, corner.x(), corner.y()), True)
        if self.moving and len(item.items) >= MANY_PLACED:
            image, left, top, share = _image_of(item, self.surface)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.scale(share, share)
            painter.drawPixmap(QPointF(left, top), image)
            painter.restore()
            return
        flat = replace(self.surface, left=0.0, top=0.0)
        inner = PicturePainter(painter, flat)
        inner.brushes = self.placed_brushes
        smooth = QPainter.RenderHint.Antialiasing
        for part in item.items:
            # Cloth askew takes half the time with rough edges, and no ground shows between pieces;
            # the line round each facet is smooth.
            painter.setRenderHint(smooth, not isinstance(part, Cloth))
            _BY_KIND[type(part)](inner, part)
        painter.restore()

    def _tone(self, tone: str) -> QBrush:
        if tone == "off":
            self.painter.setPen(Qt.PenStyle.NoPen)
            brush = QBrush(QColor(theme.RULE), Qt.BrushStyle.BDiagPattern)
            brush.setTransform(QTransform.fromScale(self.surface.unit, self.surface.unit))
            return brush
        if tone in _SHEER:
            name, share = _SHEER[tone]
            colour = QColor(name)
            colour.setAlphaF(share)
            return QBrush(colour)
        return QBrush(QColor(_TONES[tone]))

    def _pen(self, colour: str, width: float, dashes: tuple[float, ...] = ()) -> QPen:
        return pen_of(colour, 1.0, width, self.surface.unit, dashes)

    def _line(self, item: Line) -> None:
        self.painter.setBrush(Qt.BrushStyle.NoBrush)
        if item.stroke == "quilt":
            self._stitches(item)
            return
        colour, width, dashes = STROKES[item.stroke]
        shape = self.surface.polygon(item.points)
        if item.stroke in ("seam", "trim", "object", "notch", "mark", "pin", "clash"):
            halo = pen_of(theme.CHALK, 0.55, width + 1.8, self.surface.unit, ())
            self._draw(shape, item.closed, halo)
        self._draw(shape, item.closed, self._pen(colour, width, dashes))

    def _draw(self, shape: QPolygonF, closed: bool, pen: QPen) -> None:
        self.painter.setPen(pen)
        if closed:
            self.painter.drawPolygon(shape)
        else:
            self.painter.drawPolyline(shape)

    def _stitches(self, item: Line) -> None:
        shape = self.surface.polygon(item.points)
        for colour, width, dashes in STITCHES:
            self._draw(shape, item.closed, self._pen(colour, width, dashes))

    def _dimension(self, item: Dimension) -> None:
        start, end = self.surface.at(item.start), self.surface.at(item.end)
        run = hypot(end.x() - start.x(), end.y() - start.y()) or 1.0
        along = QPointF((end.x() - start.x()) / run, (end.y() - start.y()) / run)
        shift = item.lane * LANE * self.surface.unit
        level = abs(along.x()) >= abs(along.y())
        normal = QPointF(0, shift) if level else QPointF(shift, 0)
        start, end = start + normal, end + normal
        colour = theme.THREAD if item.picked else theme.INK
        self.painter.setPen(self._pen(colour, 2.4 if item.picked else 1.0))
        self.painter.drawLine(start, end)
        self._rule(start, end, run)
        self._ends(start, end, along)
        if item.text:
            slanted = min(abs(along.x()), abs(along.y())) > SLANTED
            self._dimension_text(item, start, end, level and not slanted, slanted)

    def _rule(self, start: QPointF, end: QPointF, run: float) -> None:
        """Note where a line lies: a slanted one in pieces as long as a letter is high."""
        x, y = start.x(), start.y()
        dx, dy = end.x() - x, end.y() - y
        straight = min(abs(dx), abs(dy)) < 1
        pieces = 1 if straight else max(ceil(run / (12 * self.surface.unit)), 1)
        dx, dy = dx / pieces, dy / pieces
        wide, high = abs(dx) + 2, abs(dy) + 2
        for at in range(pieces):
            left, top = x + at * dx + min(dx, 0.0), y + at * dy + min(dy, 0.0)
            self.ruled.take(Box(left - 1, top - 1, wide, high))

    def _ends(self, start: QPointF, end: QPointF, along: QPointF) -> None:
        tick = QPointF(-along.y(), along.x()) * (5 * self.surface.unit)
        for point in (start, end):
            self.painter.drawLine(point - tick, point + tick)

    def _dimension_text(
        self, item: Dimension, start: QPointF, end: QPointF, level: bool, slanted: bool
    ) -> None:
        middle = (start + end) / 2
        if slanted:  # below its lower half, on the side that it leans away from
            unit = self.surface.unit
            high, low = sorted((start, end), key=QPointF.y)
            side = -1 if low.x() > high.x() else 1
            at = (middle + low) / 2 + QPointF(side * 12 * unit, 10 * unit)
            self._beside(at, item, -side)
            return
        if level:
            up = -1 if item.lane < 0 else 1
            middle += QPointF(0, up * 11 * self.surface.unit)
            self._beside(middle, item, 0)
            return
        side = -1 if item.lane < 0 else 1
        shift = QPointF(side * 7 * self.surface.unit, 0)
        anchor = -1 if side > 0 else 1
        self._beside(middle + shift, item, anchor)

    def _beside(self, at: QPointF, item: Dimension, anchor: int) -> None:
        """The words of a size beside its line."""
        self._words(at, item.text, anchor, True, item.over_cloth, item.size)
        self.writings[-1] = replace(self.writings[-1], beside=True)

    def _label(self, item: Label) -> None:
        anchor = {"left": -1, "centre": 0, "right": 1}[item.align]
        text = self._fitting(item) if item.within else item.text
        if text:
            self._words(self.surface.at(item.at), text, anchor, item.strong, item.chip)

    def _fitting(self, item: Label) -> str:
        """The words of a label that has only so much room, or the short ones, or none."""
        unit = self.surface.unit
        metrics = QFontMetricsF(text_font(theme.READING * unit * 1.08, item.strong))
        room = item.within * self.surface.per_inch - 12 * unit
        texts = (item.text, item.short)
        return next((text for text in texts if metrics.horizontalAdvance(text) <= room), "")

    def _words(
        self, at: QPointF, text: str, anchor: int, strong: bool, chip: bool, size: str = ""
    ) -> None:
        """Words at a point; ``anchor`` −1 puts their left side there, 1 their right."""
        unit = self.surface.unit
        font = text_font(theme.READING * unit * 1.08, strong)
        metrics = QFontMetricsF(font)
        width, height = metrics.horizontalAdvance(text), metrics.height()
        x = at.x() - width * (anchor + 1) / 2
        round_x, round_y = (5 * unit, 1.5 * unit) if chip else (0.0, 0.0)
        box = Box(
            x - round_x, at.y() - height / 2 - round_y, width + 2 * round_x, height + 2 * round_y
        )
        self.writings.append(Writing(text, strong, chip, box, size))

    def _write(self, writing: Writing) -> None:
        unit, place = self.surface.unit, None
        if writing.beside:
            place = self.ground.place(writing.box, self.ruled)
        if place is None:
            place = self.ground.place(writing.box)
        if place is None:
            if self.ground.bounds is not None:
                return  # no room for it here: there is, once the picture is larger
            place = writing.box
        self.written.append(replace(writing, box=place))
        box = QRectF(place.left, place.top, place.width, place.height)
        self.painter.setFont(text_font(theme.READING * unit * 1.08, writing.strong))
        if writing.chip:
            self.painter.setPen(self._pen(theme.RULE, 1))
            self.painter.setBrush(QColor(theme.CARD))
            self.painter.drawRoundedRect(box, 4 * unit, 4 * unit)
        self.painter.setPen(QColor(theme.INK))
        centred = int(Qt.AlignmentFlag.AlignCenter)
        self.painter.drawText(box.adjusted(-2, -2, 2, 2), centred, writing.text)

    def _badge(self, item: Badge) -> None:
        self.flags.append(item)

    def _flag(self, item: Badge) -> None:
        unit, at = self.surface.unit, self.surface.at(item.at)
        size = FLAG * unit
        wished = Box(at.x() - size, at.y() - size, 2 * size, 2 * size)
        place = self.ground.place(wished) or wished
        middle = QPointF(place.left + size, place.top + size)
        paint_flag(self.painter, middle, item.number, item.blocks, unit)


# A table of plain functions: bound methods kept in the object would be a cycle, and a cycle
# keeps the QPainter alive past its paint event.
_BY_KIND: dict[type, Callable[[PicturePainter, Any], None]] = {
    Cloth: PicturePainter._cloth,
    Shade: PicturePainter._sheet,
    Placed: PicturePainter._placed,
    Line: PicturePainter._line,
    Net: PicturePainter._net,
    Dimension: PicturePainter._dimension,
    Label: PicturePainter._label,
    Badge: PicturePainter._badge,
}


def paint_flag(
    painter: QPainter, at: QPointF, number: int, blocks: bool, unit: float = 1.0
) -> None:
    """A snag's numbered flag: a diamond, solid where it blocks, outlined where it warns."""
    size = FLAG * unit
    shape = QPolygonF(
        [
            at + QPointF(0, -size),
            at + QPointF(size, 0),
            at + QPointF(0, size),
            at + QPointF(-size, 0),
        ]
    )
    fill = theme.BLOCKING if blocks else theme.WARNING_WASH
    text = theme.CARD if blocks else theme.WARNING
    painter.setPen(QPen(QColor(theme.BLOCKING if blocks else theme.WARNING), 1.6 * unit))
    painter.setBrush(QColor(fill))
    painter.drawPolygon(shape)
    painter.setPen(QColor(text))
    painter.setFont(text_font(theme.READING * unit, strong=True))
    box = QRectF(at.x() - size, at.y() - size, 2 * size, 2 * size)
    painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), str(number))


_IMAGES: dict[int, tuple[tuple[object, ...], float, QPixmap, float, float]] = {}


def _image_of(item: Placed, surface: Surface) -> tuple[QPixmap, float, float, float]:
    """The flat thing as an image near the picture's scale, where its corner lies, and how much
    larger it is to be drawn."""
    found = _IMAGES.get(id(item.items))
    if found is not None and found[0] is item.items:
        share = surface.per_inch / found[1]
        if NEAR_ENOUGH <= share <= 1 / NEAR_ENOUGH:
            return found[2], found[3], found[4], share
    points = [point for part in item.items for point in _points_of(part)]
    per_inch = surface.per_inch
    left, top = min(x for x, _ in points) * per_inch, min(y for _, y in points) * per_inch
    wide = max(x for x, _ in points) * per_inch - left
    high = max(y for _, y in points) * per_inch - top
    image = QPixmap(max(ceil(wide), 1), max(ceil(high), 1))
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    flat = replace(surface, left=-left, top=-top)
    inner = PicturePainter(painter, flat)
    for part in item.items:
        _BY_KIND[type(part)](inner, part)
    painter.end()
    if len(_IMAGES) > MOST_IMAGES:
        _IMAGES.clear()
    _IMAGES[id(item.items)] = item.items, per_inch, image, left, top
    return image, left, top, 1.0


def _points_of(part: Cloth | Line) -> tuple[Point, ...]:
    return part.outline if isinstance(part, Cloth) else part.points


def paint_picture(
    painter: QPainter,
    picture: Picture,
    surface: Surface,
    bounds: Box | None = None,
    taken: Iterable[Box] = (),
    moving: bool = False,
) -> tuple[Writing, ...]:
    """Paint a whole picture; returns the words that were written, and where.

    While it is ``moving`` under the hand, what lies askew and has many pieces is an image that was
    painted once and is drawn as it lies."""
    made = PicturePainter(painter, surface, bounds, taken, moving)
    made.paint(picture)
    return tuple(made.written)
