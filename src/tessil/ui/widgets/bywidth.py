"""A painted row that is as high as its words need in the width there is."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QAbstractButton, QSizePolicy

from tessil.drawing import theme


class ByWidth(QAbstractButton):
    """Its ``high`` says how high; reached by Tab, checked when it is the one in hand."""

    def __init__(self) -> None:
        super().__init__()
        self._heights: dict[tuple[int, float], int] = {}  # by its width and the size of texts
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def high(self, width: int) -> int:
        """How high what it shows is in that width."""
        raise NotImplementedError

    def heightForWidth(self, width: int) -> int:
        asked = width, theme.scale()
        if asked not in self._heights:
            self._heights[asked] = self.high(width)
        return self._heights[asked]

    def changed(self) -> None:
        """It shows something else: all round it is laid anew only if it is as high no more."""
        wide = self.width()
        before = self._heights.get((wide, theme.scale()))
        self._heights = {}
        if before is None or self.heightForWidth(wide) != before:
            self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(240, self.heightForWidth(max(self.width(), 240)))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """A scroll area asks for heights by the hint alone: tell it that a width changed one."""
        super().resizeEvent(event)
        if event.size().width() != event.oldSize().width():
            self.updateGeometry()
