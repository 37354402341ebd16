"""A still picture that fills its widget: no zoom, nothing to take."""

from __future__ import annotations

from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from tessil.drawing.painter import fitted, paint_picture
from tessil.drawing.picture import Picture


class PictureView(QWidget):
    """Shows one picture."""

    def __init__(self, width: int = 0) -> None:
        super().__init__()
        if width:
            self.setFixedWidth(width)
        self.picture: Picture | None = None

    def show_picture(self, picture: Picture) -> None:
        if picture == self.picture:
            return
        self.picture = picture
        if picture.caption:
            self.setAccessibleName(picture.caption)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is None:
            return
        painter = QPainter(self)
        paint_picture(painter, self.picture, fitted(self.picture, self.width(), self.height()))
