"""The bench: the panel at true proportion, with zoom, pan, rulers and pieces to take in hand.

Shows a picture; knows nothing of plans.  Zooming never changes what is drawn, only how
large.
"""

from __future__ import annotations

from msgspec.structs import replace
from PySide6.QtCore import QLineF, QPoint, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from tessil.core.numbers.records import Record
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.painter import Surface, Writing, fitted, paint_picture
from tessil.drawing.picture import Picture, Point, distance, inside, neighbour
from tessil.drawing.wording import Box
from tessil.ui.widgets.rulers import RULER, paint_rulers

LEAST_ZOOM, MOST_ZOOM = 0.25, 40.0
HEAVY = 700  # so many items are drawn once and then moved about as a picture
OVERSCAN = 160
REACH = 7.0  # pixels within which a line is taken
SETTLE_MS = 90


class Crisp(Record, frozen=True):
    """A full picture as it was last drawn."""

    pixmap: QPixmap
    surface: Surface
    size: QSize


A_PIXEL, A_KEY = 0.5, 15.0  # degrees that a bag turns by


class Bench(QWidget):
    """Shows one picture.  Click or arrow keys take a piece; + − 0 zoom; drag pans."""

    piece_taken = Signal(str)  # its name, or nothing
    piece_drawn = Signal(str)  # the hand passes over it while laying
    draw_begun = Signal()
    piece_met = Signal(str)  # swap the piece in hand with this one
    key_pressed = Signal(str)
    mark_taken = Signal(object)
    mark_dragged = Signal(int, float, float)  # which, and where its corner should be
    mark_nudged = Signal(int, int)  # steps right and down
    line_taken = Signal(str)  # its name, or nothing
    line_dragged = Signal(str, float, float)  # which, and how far since it was taken
    line_nudged = Signal(int, int)
    line_drawn = Signal(float, float, float, float)
    menu_wanted = Signal(QPoint)
    bag_turned = Signal(float, float)  # by degrees to the right and up
    bag_put_back = Signal()
    size_wanted = Signal(str, QPoint)  # a size on the drawing shall be another: which, and where
    away = Signal()  # Delete: what is in hand shall go
    zoomed = Signal(float)

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(360, 240)
        self.setAccessibleName("Bench")
        self.setToolTip("")
        self.picture: Picture | None = None
        self.piece = ""
        self.lays = False  # whether a stroke lays prints rather than pans
        self._crisp: Crisp | None = None
        self.written: tuple[Writing, ...] = ()  # the words on show, and where
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(SETTLE_MS)
        self._settle.timeout.connect(self._draw_crisp)
        self.in_metric = False
        self.zoom = 1.0
        self.shift = QPointF(0, 0)
        self._grip: QPointF | None = None
        self._stroke = False
        self._moved = False
        self.mark: int | None = None
        self._hold: tuple[int, float, float] | None = None  # mark, and where in it it is held
        self.line = ""  # the stroke in hand
        self.draws = False  # whether a stroke of the hand draws a line
        self._held = ""  # the stroke that is dragged
        self._from: Point = (0.0, 0.0)
        self._turns = False
        self.turning = False  # the bag moves under the hand: quick rather than crisp
        self._asked = -1  # which of the figures was typed over last
        self.setMouseTracking(True)
        self._to: Point | None = None  # the other end of a line that is being drawn

    def show_picture(
        self,
        picture: Picture,
        piece: str,
        metric: bool,
        mark: int | None = None,
        lays: bool = False,
    ) -> None:
        """Show a picture, keeping zoom and place."""
        self.mark, self.lays = mark, lays
        if self.picture is picture and (self.piece, self.in_metric) == (piece, metric):
            return
        if self.picture is not picture:
            self._crisp = None
        self.picture, self.piece, self.in_metric = picture, piece, metric
        self.setAccessibleDescription(picture.caption)
        self.update()

    def show_lines(self, line: str, draws: bool) -> None:
        """Which stroke is in hand, and whether the hand draws new ones."""
        self.line, self.draws = line, draws

    def fit(self) -> None:
        """Show all of it."""
        self.zoom, self.shift = 1.0, QPointF(0, 0)
        self.zoomed.emit(self.zoom)
        self.update()

    def surface(self) -> Surface:
        """Where the picture lies now."""
        assert self.picture is not None
        edge = self._edge()
        base = fitted(self.picture, self.width() - edge, self.height() - edge, theme.scale())
        centre = QPointF(self.width() / 2, self.height() / 2)
        left = (base.left + edge - centre.x()) * self.zoom + centre.x() + self.shift.x()
        top = (base.top + edge - centre.y()) * self.zoom + centre.y() + self.shift.y()
        return replace(base, left=left, top=top, per_inch=base.per_inch * self.zoom)

    def zoom_by(self, factor: float, about: QPointF | None = None) -> None:
        """Zoom with one point of the bench held still."""
        about = about or QPointF(self.width() / 2, self.height() / 2)
        wanted = min(max(self.zoom * factor, LEAST_ZOOM), MOST_ZOOM)
        factor = wanted / self.zoom
        centre = QPointF(self.width() / 2, self.height() / 2)
        self.shift = about - centre - (about - centre - self.shift) * factor
        self.zoom = wanted
        self.zoomed.emit(self.zoom)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.MAT))
        painter.drawRoundedRect(QRectF(self.rect()), theme.RADIUS, theme.RADIUS)
        if self.picture is None:
            return
        painter.setClipRect(self.rect().adjusted(1, 1, -1, -1))
        surface = self.surface()
        self._paint(painter, surface)
        if self.picture.ruled:
            paint_rulers(painter, surface, self.size(), self.in_metric)
        self._caption(painter)
        self._under_sizes(painter)
        if self._to is not None:
            painter.setPen(QPen(QColor(theme.THREAD), 2, Qt.PenStyle.DashLine))
            painter.drawLine(surface.at(self._from), surface.at(self._to))
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(theme.THREAD), 2))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)

    def _paint(self, painter: QPainter, surface: Surface) -> None:
        """The picture; a very full one as it was last drawn, moved and scaled, until the hand
        rests."""
        assert self.picture is not None
        if self.turning or self.picture.weight < HEAVY:
            taken = [self._caption_box()] if self.picture.caption else []
            self.written = paint_picture(
                painter, self.picture, surface, self._room(), taken, self.turning
            )
            return
        if self._crisp is None or self._crisp.size != self.size():
            self._draw_crisp(again=False)
        assert self._crisp is not None
        drawn = self._crisp.surface
        if drawn != surface:
            self._settle.start()
        share = surface.per_inch / drawn.per_inch
        painter.save()
        painter.translate(surface.left - drawn.left * share, surface.top - drawn.top * share)
        painter.scale(share, share)
        painter.translate(-OVERSCAN, -OVERSCAN)
        painter.drawPixmap(0, 0, self._crisp.pixmap)
        painter.restore()

    def _draw_crisp(self, again: bool = True) -> None:
        """Draw a full picture anew where it is now, with some room round it."""
        if self.picture is None:
            return
        if self.turning:
            self.turning = False
            self.update()
            return
        ratio = self.devicePixelRatioF()
        room = self.size() + QSize(2 * OVERSCAN, 2 * OVERSCAN)
        pixmap = QPixmap(room * ratio)
        pixmap.setDevicePixelRatio(ratio)
        pixmap.fill(QColor(theme.MAT))
        surface = self.surface()
        painter = QPainter(pixmap)
        painter.translate(OVERSCAN, OVERSCAN)
        taken = [self._caption_box()] if self.picture.caption else []
        at_rest = self.zoom == 1.0 and self.shift.isNull()
        bounds = self._room() if at_rest else None
        self.written = paint_picture(painter, self.picture, surface, bounds, taken)
        painter.end()
        self._crisp = Crisp(pixmap, surface, self.size())
        if again:
            self.update()

    def _sizes(self) -> list[Writing]:
        """The figures on show that can be typed over."""
        return [] if self.turning else [one for one in self.written if one.size]

    def _under_sizes(self, painter: QPainter) -> None:
        """A row of small stitches under what can be typed over."""
        painter.setPen(QPen(QColor(theme.THREAD), 1.2, Qt.PenStyle.DotLine))
        under = [(one.box.left, one.box.right, one.box.bottom - 1) for one in self._sizes()]
        painter.drawLines([QLineF(left, low, right, low) for left, right, low in under])

    def _size_at(self, at: QPointF) -> Writing | None:
        """The figure at a point, with a little room round it."""
        point = Box(at.x() - 4, at.y() - 3, 8, 6)
        return next((one for one in self._sizes() if one.box.meets(point)), None)

    def _want_size(self, one: Writing) -> None:
        middle = QPointF(one.box.left + one.box.width / 2, one.box.top + one.box.height / 2)
        self.size_wanted.emit(one.size, middle.toPoint())

    def _next_size(self) -> None:
        """Type over the next figure, as without a mouse."""
        sizes = self._sizes()
        self._asked = (self._asked + 1) % len(sizes)
        self._want_size(sizes[self._asked])

    def _caption(self, painter: QPainter) -> None:
        assert self.picture is not None
        if not self.picture.caption:
            return
        painter.setFont(text_font(theme.SMALL + 1))
        place = self._caption_box()
        box = QRectF(place.left, place.top, place.width, place.height)
        painter.setPen(Qt.PenStyle.NoPen)
        mat = QColor(theme.MAT)
        mat.setAlphaF(0.9)
        painter.setBrush(mat)
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(QColor(theme.SOFT))
        wrapped = int(Qt.AlignmentFlag.AlignCenter) | int(Qt.TextFlag.TextWordWrap)
        painter.drawText(box, wrapped, self.picture.caption)

    def _caption_box(self) -> Box:
        """Where the caption lies: at the lower right, on as many lines as it takes."""
        assert self.picture is not None
        metrics = QFontMetricsF(text_font(theme.SMALL + 1))
        most = self.width() - self._edge() - 32
        wrap = int(Qt.TextFlag.TextWordWrap)
        need = metrics.boundingRect(QRectF(0, 0, most, 400), wrap, self.picture.caption)
        width, height = need.width() + 16, need.height() + 8
        return Box(self.width() - width - 8, self.height() - height - 6, width, height)

    def _edge(self) -> int:
        return RULER if self.picture is not None and self.picture.ruled else 2

    def _room(self) -> Box:
        """Where words may lie: not on the rulers, and not over the edge."""
        edge = self._edge()
        return Box(edge, edge, self.width() - edge - 3, self.height() - edge - 3)

    def _piece_at(self, at: QPointF) -> str:
        if self.picture is None:
            return ""
        point = self.surface().inches(at.x(), at.y())
        for key, outline in reversed(list(self.picture.pieces.items())):
            if inside(point, outline):
                return key
        return ""

    def _mark_at(self, at: QPointF) -> tuple[int, float, float] | None:
        if self.picture is None:
            return None
        x, y = self.surface().inches(at.x(), at.y())
        for key, outline in reversed(self.picture.handles.items()):
            if inside((x, y), outline):
                corner = outline[0]
                return int(key.partition(":")[2]), x - corner[0], y - corner[1]
        return None

    def _stroke_at(self, at: QPointF) -> str:
        """The line of the picture within reach of a point."""
        if self.picture is None or not self.picture.strokes:
            return ""
        surface = self.surface()
        point = surface.inches(at.x(), at.y())
        reach, found = REACH / surface.per_inch, ""
        for key, points in self.picture.strokes.items():
            away = distance(point, points)
            if away < reach:
                reach, found = away, key
        return found

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.RightButton:
            return  # asks for the menu, and takes nothing in hand
        self._grip, self._moved = event.position(), False
        self._turns = self._on_bag(event.position())
        if (self.picture is not None and self.picture.strokes) or self.draws:
            at = self.surface().inches(event.position().x(), event.position().y())
            self._from = at
            if self.draws:
                self._to = at
                return
            self._held = self._stroke_at(event.position())
            if self._held:
                self.line_taken.emit(self._held)
        self._hold = self._mark_at(event.position())
        if self._hold is not None:
            self.mark_taken.emit(self._hold[0])
        self._stroke = self.lays and bool(self._piece_at(event.position()))
        if self._stroke:
            self.draw_begun.emit()
            self.piece_drawn.emit(self._piece_at(event.position()))

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.menu_wanted.emit(event.globalPos())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grip is None:
            over = self._size_at(event.position()) is not None
            self.setCursor(Qt.CursorShape.IBeamCursor if over else Qt.CursorShape.ArrowCursor)
            return
        if self._stroke:
            if key := self._piece_at(event.position()):
                self.piece_drawn.emit(key)
            return
        if self._to is not None:
            self._to = self.surface().inches(event.position().x(), event.position().y())
            self.update()
            return
        step = event.position() - self._grip
        if not self._moved and step.manhattanLength() < 6:
            return
        self._moved = True
        if self._hold is not None:
            index, dx, dy = self._hold
            x, y = self.surface().inches(event.position().x(), event.position().y())
            self.mark_dragged.emit(index, x - dx, y - dy)
            return
        if self._held:
            x, y = self.surface().inches(event.position().x(), event.position().y())
            self.line_dragged.emit(self._held, x - self._from[0], y - self._from[1])
            return
        self._grip = event.position()
        self.setCursor(Qt.CursorShape.ClosedHandCursor)
        if self._turns:
            self.bag_turned.emit(step.x() * A_PIXEL, step.y() * A_PIXEL)
            return
        self.shift += step
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.unsetCursor()
        size = None if self._moved or self._grip is None else self._size_at(event.position())
        if size is not None:
            self._grip = None
            self._want_size(size)
            return
        if self._to is not None:
            ends, self._to = (*self._from, *self._to), None
            self._grip = None
            self.line_drawn.emit(*ends)
            self.update()
            return
        held, self._held = self._held, ""
        if not held and self.line and not self._moved:
            self.line_taken.emit("")
        if self._hold is None and self.mark is not None and not self._moved:
            self.mark_taken.emit(None)
        self._hold = None
        stroke, self._stroke = self._stroke, False
        if not stroke and not self._moved and self.picture is not None and self.picture.pieces:
            self.piece_taken.emit(self._piece_at(event.position()))
        self._grip = None

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if not self._piece_at(event.position()):
            self.fit()

    def wheelEvent(self, event: QWheelEvent) -> None:
        turn = event.angleDelta().y() or event.pixelDelta().y()
        self.zoom_by(1.0015**turn, event.position())
        event.accept()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self.zoom_by(1.25)
        elif key == Qt.Key.Key_Minus:
            self.zoom_by(0.8)
        elif key == Qt.Key.Key_0:
            self.fit()
        elif key == Qt.Key.Key_Escape:
            self.piece_taken.emit("")
            self.mark_taken.emit(None)
            self.line_taken.emit("")
        elif key == Qt.Key.Key_Home and self.picture and self.picture.turns:
            self.bag_put_back.emit()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self._sizes():
            self._next_size()
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.away.emit()
        elif key == Qt.Key.Key_L and self.picture and self.picture.strokes:
            self._next_line()
        elif key in (Qt.Key.Key_M, Qt.Key.Key_Space) and self.picture and self.picture.handles:
            self._next_mark()
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Left, Qt.Key.Key_Down, Qt.Key.Key_Right):
            step = -1 if key in (Qt.Key.Key_Up, Qt.Key.Key_Left) else 1
            self._arrow(step, event)
        elif event.text().isalnum() and self.picture and self.picture.pieces:
            self.key_pressed.emit(event.text().upper())
        else:
            super().keyPressEvent(event)

    def _next_mark(self) -> None:
        """Take the next mark in hand, as without a mouse."""
        assert self.picture is not None
        marks = [int(key.partition(":")[2]) for key in self.picture.handles]
        at = marks.index(self.mark) + 1 if self.mark in marks else 0
        self.mark_taken.emit(marks[at % len(marks)])

    def _next_line(self) -> None:
        """Take the next line in hand, as without a mouse."""
        assert self.picture is not None
        keys = list(self.picture.strokes)
        at = keys.index(self.line) + 1 if self.line in keys else 0
        self.line_taken.emit(keys[at % len(keys)])

    def _arrow(self, step: int, event: QKeyEvent) -> None:
        """Arrows go from piece to piece; with Shift they swap it onwards; with Ctrl they pan."""
        pieces = self.picture.pieces if self.picture else {}
        level = event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right)
        if self.line and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.line_nudged.emit(step if level else 0, 0 if level else step)
            return
        if self.mark is not None and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.mark_nudged.emit(step if level else 0, 0 if level else step)
            return
        held = event.modifiers() & Qt.KeyboardModifier.ControlModifier
        if not held and self.picture is not None and self.picture.turns:
            self.bag_turned.emit(A_KEY * step if level else 0.0, 0.0 if level else A_KEY * step)
            return
        if held or not pieces:
            self.shift += QPointF(-40.0 * step, 0) if level else QPointF(0, -40.0 * step)
            self.update()
            return
        if self.piece not in pieces:
            self.piece_taken.emit(next(iter(pieces)))
            return
        found = neighbour(pieces, self.piece, (step, 0) if level else (0, step))
        if not found:
            return
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.piece_met.emit(found)
        else:
            self.piece_taken.emit(found)

    def hurry(self) -> None:
        """The bag moves: quick pictures until the hand rests."""
        self.turning = True
        self._settle.start()

    def _on_bag(self, at: QPointF) -> bool:
        """Whether a point lies on a bag that can be turned."""
        if self.picture is None or self.picture.turns is None:
            return False
        x, y = self.surface().inches(at.x(), at.y())
        left, top, wide, high = self.picture.turns
        return left <= x <= left + wide and top <= y <= top + high

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.update()
