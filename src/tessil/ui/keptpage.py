"""The page of kept work: all that is in no file of the maker's, to take up again or throw away."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from tessil.core.shapes import SHAPES
from tessil.files import recovery
from tessil.ui.widgets.words import Words


class KeptRow(QWidget):
    """One piece of kept work, with what can be done with it."""

    def __init__(self, lost: recovery.Lost, page: KeptPage) -> None:
        super().__init__()
        self.lost = lost
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        name = Words(lost.name)
        name.setObjectName("strong")
        self.about = Words(about(lost))
        self.about.setObjectName("soft")
        self.about.setWordWrap(True)
        words = QVBoxLayout()
        words.setSpacing(2)
        words.addWidget(name)
        words.addWidget(self.about)
        self.take = QPushButton("Take it up again")
        self.take.setAccessibleName(f"Take up {lost.name} again")
        self.drop = QPushButton("Throw it away")
        self.drop.setAccessibleName(f"Throw {lost.name} away")
        self.back = QPushButton("Bring it back")
        self.back.hide()
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 10, 12, 10)
        row.addLayout(words, 1)
        for button in (self.take, self.drop, self.back):
            row.addWidget(button)
        self.take.clicked.connect(lambda: page.restored.emit(lost))
        self.drop.clicked.connect(self._drop)
        self.back.clicked.connect(self._bring_back)

    def _drop(self) -> None:
        recovery.discard(self.lost)
        self._show("Thrown away; it can be brought back until Tessil is started anew.", True)

    def _bring_back(self) -> None:
        recovery.bring_back(self.lost)
        self._show(about(self.lost), False)

    def _show(self, words: str, dropped: bool) -> None:
        self.about.setText(words)
        self.take.setHidden(dropped)
        self.drop.setHidden(dropped)
        self.back.setVisible(dropped)
        (self.back if dropped else self.take).setFocus()

    def say(self, sentence: str) -> None:
        """Why it could not be taken up."""
        self.about.setText(f"It cannot be taken up: {sentence}")


def about(lost: recovery.Lost) -> str:
    """Shape, time, size of the change, and the file it belongs to."""
    shape = SHAPES[lost.shape].name if lost.shape in SHAPES else f"shape “{lost.shape}”"
    parts = [shape, f"{lost.when:%d %B %Y, %H:%M}"]
    if lost.changes:
        parts.append(f"{lost.changes} change{'s' if lost.changes > 1 else ''} not saved")
    parts.append(f"of “{lost.origin.name}”" if lost.origin else "never saved")
    return " · ".join(parts)


class KeptPage(QWidget):
    """All kept work, newest first."""

    restored = Signal(object)
    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        title = Words("Kept work")
        title.setObjectName("title")
        self.words = Words()
        self.words.setObjectName("soft")
        self.leave = QPushButton("Back to the bench")
        self.leave.clicked.connect(self.left)
        head = QHBoxLayout()
        head.addWidget(title)
        head.addWidget(self.words, 1)
        head.addWidget(self.leave)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setObjectName("pages")
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setAccessibleName("Kept work")
        inner = QWidget()
        self.column = QVBoxLayout(inner)
        self.column.setSpacing(8)
        self.column.addStretch(1)
        area.setWidget(inner)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 12, 16, 12)
        outer.addLayout(head)
        outer.addWidget(area, 1)
        self.rows: list[KeptRow] = []

    def begin(self) -> None:
        """Read anew what is kept."""
        for row in self.rows:
            self.column.removeWidget(row)
            row.hide()
            row.deleteLater()
        self.rows = [KeptRow(lost, self) for lost in recovery.find_lost()]
        for at, row in enumerate(self.rows):
            self.column.insertWidget(at, row)
        days = recovery.KEPT_DAYS
        self.words.setText(
            f"Work that is in no file yet. It is kept for {days} days."
            if self.rows
            else "Nothing is kept: all work is in its files."
        )
        (self.rows[0].take if self.rows else self.leave).setFocus()

    def taken(self, lost: recovery.Lost, sentence: str) -> None:
        """Work was taken up, or could not be."""
        for row in self.rows:
            if row.lost is lost and sentence:
                row.say(sentence)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
