"""The tray: the bag's panels as small pictures at one scale, in their real proportion."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QContextMenuEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QHBoxLayout, QWidget

from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.painter import Surface, paint_picture
from tessil.drawing.picture import Picture

HIGH, WIDE = 42.0, 84.0


class PanelTile(QAbstractButton):
    """One panel."""

    menu_wanted = Signal(str, QPoint)

    def __init__(self) -> None:
        super().__init__()
        self.setCheckable(True)
        self.setAutoExclusive(True)  # one of several, and told so to screen readers
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.picture: Picture | None = None
        self.per_inch = 1.0
        self.key = ""

    def show_panel(self, key: str, label: str, picture: Picture, per_inch: float) -> None:
        shown = (self.key, self.text(), self.per_inch) == (key, label, per_inch)
        if shown and self.picture is picture:
            return
        self.key, self.picture, self.per_inch = key, picture, per_inch
        self.setText(label)
        self.setAccessibleName(label if label == "Panel" else f"Panel {label}")
        self.setToolTip(f"{label} (Ctrl+Tab for the next panel)")
        self.updateGeometry()
        self.update()

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.menu_wanted.emit(self.key, event.globalPos())

    def sizeHint(self) -> QSize:
        width = self.picture.box[2] * self.per_inch if self.picture else 40
        self.setFont(text_font(theme.SMALL + 1))
        return QSize(
            int(max(width, self.fontMetrics().horizontalAdvance(self.text())) + 16), theme.px(70)
        )

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        _, _, w, h = self.picture.box
        width, height = w * self.per_inch, h * self.per_inch
        left, top = (self.width() - width) / 2, 4 + (HIGH - height) / 2
        paint_picture(painter, self.picture, Surface(left, top, self.per_inch))
        chosen = self.isChecked()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if chosen:
            painter.setPen(QPen(QColor(theme.THREAD), 2))
            painter.drawRoundedRect(QRectF(left - 3, top - 3, width + 6, height + 6), 3, 3)
        if self.hasFocus():
            painter.setPen(QPen(QColor(theme.INK), 2, Qt.PenStyle.DashLine))
            whole = QRectF(self.rect()).adjusted(1, 1, -1, -1)
            painter.drawRoundedRect(whole, 4, 4)
        painter.setPen(QColor(theme.THREAD if chosen else theme.SOFT))
        painter.setFont(text_font(theme.SMALL + 1, strong=chosen))
        words = QRectF(0, self.height() - theme.px(20), self.width(), theme.px(18))
        painter.drawText(words, int(Qt.AlignmentFlag.AlignCenter), self.text())


class PanelTray(QWidget):
    """All panels of the bag."""

    chosen = Signal(str)
    menu_wanted = Signal(str, QPoint)

    def __init__(self) -> None:
        super().__init__()
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(0, 0, 0, 0)
        self.row.setSpacing(8)
        self.tiles: list[PanelTile] = []

    def show_panels(
        self, panels: list[tuple[str, str, Callable[[], Picture]]], current: str
    ) -> None:
        """Show (key, label, picture) for every panel; one scale for all of them."""
        pictures = [make() for _, _, make in panels]
        high = max(picture.box[3] for picture in pictures)
        wide = max(picture.box[2] for picture in pictures)
        scale = min(HIGH / high, WIDE / wide)
        while len(self.tiles) > len(panels):
            tile = self.tiles.pop()
            self.row.removeWidget(tile)
            tile.hide()
            tile.deleteLater()
        while len(self.tiles) < len(panels):
            self._add(PanelTile())
        for tile, (key, label, _), picture in zip(self.tiles, panels, pictures, strict=True):
            tile.show_panel(key, label, picture, scale)
            tile.setChecked(key == current)

    def _add(self, tile: PanelTile) -> None:
        tile.clicked.connect(lambda: self.chosen.emit(tile.key))
        tile.menu_wanted.connect(self.menu_wanted)
        self.tiles.append(tile)
        self.row.addWidget(tile)


class UnsavedDot(QWidget):
    """A small dot while there is work that is in no file yet."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setFixedSize(12, 12)
        self.unsaved = False

    def show_unsaved(self, unsaved: bool) -> None:
        self.unsaved = unsaved
        self.setToolTip("Not saved yet (Ctrl+S)" if unsaved else "Saved")
        self.setAccessibleName("not saved" if unsaved else "saved")
        self.update()
        self.changed.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self.unsaved:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.THREAD))
        painter.drawEllipse(QPointF(6, 6), 4, 4)
