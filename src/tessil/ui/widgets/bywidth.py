"""A painted row that is as high as its words need in the width there is."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QAbstractButton, QSizePolicy


class ByWidth(QAbstractButton):
    """Its ``heightForWidth`` says how high; reached by Tab, checked when it is the one in hand."""

    def __init__(self) -> None:
        super().__init__()
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def sizeHint(self) -> QSize:
        return QSize(240, self.heightForWidth(max(self.width(), 240)))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """A scroll area asks for heights by the hint alone: tell it that a width changed one."""
        super().resizeEvent(event)
        if event.size().width() != event.oldSize().width():
            self.updateGeometry()
