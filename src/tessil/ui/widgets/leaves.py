"""Segments on top of the column: the leaves of a stage that has too much for one."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget


class Leaves(QWidget):
    """One segment a leaf; hidden for a stage that has just one."""

    turned = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(10, 0, 10, 2)
        self.row.setSpacing(0)
        self.buttons: dict[str, QPushButton] = {}
        self.hide()

    def show_leaves(self, leaves: tuple[tuple[str, str], ...], leaf: str) -> None:
        """Show these leaves, one of them open."""
        if [key for key, _ in leaves] != list(self.buttons):
            self._rebuild(leaves)
        for key, button in self.buttons.items():
            button.setChecked(key == leaf)
        self.setVisible(bool(leaves))

    def _rebuild(self, leaves: tuple[tuple[str, str], ...]) -> None:
        while (item := self.row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self.buttons = {}
        for key, words in leaves:
            button = QPushButton(words)
            button.setObjectName("segment")
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.setAccessibleName(f"{words}, a part of this stage")
            button.clicked.connect(lambda _=False, leaf=key: self.turned.emit(leaf))
            self.buttons[key] = button
            self.row.addWidget(button, 1)
