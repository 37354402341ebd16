"""Offers work that a crash, a close without saving, or another project left behind."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from tessil.files import recovery


class RecoveryBar(QWidget):
    """One line for the newest lost work; after its answer the next."""

    restored = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.lost: list[recovery.Lost] = []
        self.words = QLabel()
        self.take = QPushButton("Take it up again")
        self.take.setObjectName("main")
        self.drop = QPushButton("Throw it away")
        self.later = QPushButton("Later")
        self.later.setObjectName("quiet")
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 8, 12, 8)
        row.addWidget(self.words, 1)
        for button in (self.take, self.drop, self.later):
            row.addWidget(button)
        self.take.clicked.connect(self._take)
        self.drop.clicked.connect(self._drop)
        self.later.clicked.connect(self.hide)
        self.hide()

    def offer(self, lost: list[recovery.Lost]) -> None:
        """Show the newest, or nothing."""
        self.lost = lost
        self.setVisible(bool(lost))
        if lost:
            newest = lost[0]
            self.words.setText(
                f"“{newest.project.name}” is not saved yet; it is kept from "
                f"{newest.when:%d %B %H:%M}."
            )

    def _take(self) -> None:
        newest = self.lost[0]
        self.restored.emit(newest)
        self.offer(recovery.find_lost())

    def _drop(self) -> None:
        recovery.discard(self.lost[0])
        self.offer(self.lost[1:])
