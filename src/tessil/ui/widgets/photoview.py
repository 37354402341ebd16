"""A photo of cloth with its part in use and the two points that give its scale.

Four handles: two corners of the part, two points of the scale.  Drag one, or take the next with
Space and move it with the arrows.
"""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from tessil.core.catalogue.prints import Photo
from tessil.drawing import theme
from tessil.drawing.photos import whole_image

REACH = 14.0
LEAST = 0.03
STEP = 0.01
NAMES = ("upper left corner", "lower right corner", "first point", "second point")


class PhotoView(QWidget):
    """``moved`` carries the crop and both points as they should be."""

    moved = Signal(object, object, object)
    grabbed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(260, 220)
        self.setAccessibleName("Photo of the cloth")
        self.photo: Photo | None = None
        self.handle = 0
        self._held = False

    def show_photo(self, photo: Photo) -> None:
        """Show a photo as it is in the project."""
        self.photo = photo
        self._describe()
        self.update()

    def _describe(self) -> None:
        self.setAccessibleDescription(f"In hand: {NAMES[self.handle]}; Space takes the next.")

    def _box(self) -> QRectF:
        assert self.photo is not None
        room = QRectF(self.rect()).adjusted(12, 12, -12, -12)
        share = min(room.width() / self.photo.wide, room.height() / self.photo.high)
        width, height = self.photo.wide * share, self.photo.high * share
        return QRectF(room.left(), room.top(), width, height)

    def places(self) -> list[QPointF]:
        """Where the four handles are on the widget."""
        assert self.photo is not None
        box = self._box()
        left, top, width, height = self.photo.crop
        shares = ((left, top), (left + width, top + height), self.photo.one, self.photo.other)
        return [
            QPointF(box.left() + x * box.width(), box.top() + y * box.height()) for x, y in shares
        ]

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.photo is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        image = whole_image(self.photo.data, self.photo.wide, self.photo.high)
        box = self._box()
        if image is None:
            painter.drawText(
                self.rect(),
                int(Qt.AlignmentFlag.AlignCenter),
                "This photo cannot be shown: choose it again.",
            )
            return
        painter.drawImage(box, image)
        first, last, one, other = self.places()
        part = QRectF(first, last)
        shade = QColor(theme.PAPER)
        shade.setAlphaF(0.62)
        for side in (
            QRectF(box.left(), box.top(), box.width(), part.top() - box.top()),
            QRectF(box.left(), part.bottom(), box.width(), box.bottom() - part.bottom()),
            QRectF(box.left(), part.top(), part.left() - box.left(), part.height()),
            QRectF(part.right(), part.top(), box.right() - part.right(), part.height()),
        ):
            painter.fillRect(side, shade)
        painter.setPen(QPen(QColor(theme.INK), 1.4))
        painter.drawRect(part)
        self._ruler(painter, one, other)
        for at, place in enumerate((first, last, one, other)):
            taken = at == self.handle and self.hasFocus()
            painter.setPen(QPen(QColor(theme.THREAD if taken else theme.INK), 2))
            painter.setBrush(QColor(theme.CARD))
            painter.drawEllipse(place, 6, 6) if at > 1 else painter.drawRect(
                QRectF(place.x() - 5, place.y() - 5, 10, 10)
            )

    def _ruler(self, painter: QPainter, one: QPointF, other: QPointF) -> None:
        for colour, width in ((theme.CHALK, 4.0), (theme.INK, 1.6)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawLine(one, other)

    def _put(self, x: float, y: float) -> None:
        """Move the handle in hand to shares of the picture, within reason."""
        photo = self.photo
        assert photo is not None
        x, y = min(max(x, 0.0), 1.0), min(max(y, 0.0), 1.0)
        left, top, width, height = photo.crop
        right, bottom = left + width, top + height
        one, other = photo.one, photo.other
        if self.handle == 0:
            left, top = min(x, right - LEAST), min(y, bottom - LEAST)
        elif self.handle == 1:
            right, bottom = max(x, left + LEAST), max(y, top + LEAST)
        elif self.handle == 2:
            one = (x, y)
        else:
            other = (x, y)
        if one != other:
            crop = (left, top, min(right - left, 1 - left), min(bottom - top, 1 - top))
            self.moved.emit(tuple(max(v, 0.0) for v in crop), one, other)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.photo is None:
            return
        gaps = [(place - event.position()).manhattanLength() for place in self.places()]
        near = min(range(4), key=lambda at: gaps[at])
        if gaps[near] <= 2 * REACH:
            self.handle, self._held = near, True
            self._describe()
            self.grabbed.emit()
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._held and self.photo is not None:
            box = self._box()
            at = event.position()
            self._put((at.x() - box.left()) / box.width(), (at.y() - box.top()) / box.height())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._held = False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {
            Qt.Key.Key_Left: (-STEP, 0.0),
            Qt.Key.Key_Right: (STEP, 0.0),
            Qt.Key.Key_Up: (0.0, -STEP),
            Qt.Key.Key_Down: (0.0, STEP),
        }
        step = steps.get(Qt.Key(event.key()))
        if self.photo is not None and event.key() == Qt.Key.Key_Space:
            self.handle = (self.handle + 1) % 4
            self._describe()
            self.update()
        elif self.photo is not None and step is not None:
            box = self._box()
            at = self.places()[self.handle]
            self._put(
                (at.x() - box.left()) / box.width() + step[0],
                (at.y() - box.top()) / box.height() + step[1],
            )
        else:
            super().keyPressEvent(event)
