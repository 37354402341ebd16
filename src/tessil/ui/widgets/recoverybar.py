"""Offers work that a crash, a close without saving, or another project left behind."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from tessil.files import recovery
from tessil.ui.widgets.words import Words


class RecoveryBar(QWidget):
    """One line for the newest kept work; the page of all kept work is a button away.

    ``restored`` asks the window to take work up; what it answers goes to ``taken``.  While another
    bar asks for something at the same place, this one is out of sight: a low window has no room
    for both.
    """

    restored = Signal(object)
    page_wanted = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.lost: list[recovery.Lost] = []
        self.dropped: recovery.Lost | None = None
        self.offering = self.stands_back = False
        self.words = Words()
        self.words.setWordWrap(True)
        self.take = QPushButton("Take it up again")
        self.take.setObjectName("main")
        self.drop = QPushButton("Throw it away")
        self.back = QPushButton("Bring it back")
        self.all = QPushButton("All kept work")
        self.later = QPushButton("Later")
        self.later.setObjectName("quiet")
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 8, 12, 8)
        row.addWidget(self.words, 1)
        for button in (self.take, self.drop, self.back, self.all, self.later):
            row.addWidget(button)
        self.take.clicked.connect(self._take)
        self.drop.clicked.connect(self._drop)
        self.back.clicked.connect(self._bring_back)
        self.all.clicked.connect(self.page_wanted)
        self.later.clicked.connect(lambda: self._offer(False))
        self.hide()

    def give_way_to(self, other: QWidget) -> None:
        """Stand back as long as the other bar is shown."""
        other.installEventFilter(self)

    def eventFilter(self, other: QObject, event: QEvent) -> bool:
        if event.type() in (QEvent.Type.ShowToParent, QEvent.Type.HideToParent):
            self.stands_back = event.type() == QEvent.Type.ShowToParent
            self._offer(self.offering)
        return False

    def _offer(self, on: bool) -> None:
        self.offering = on
        self.setVisible(on and not self.stands_back)

    def offer(self, lost: list[recovery.Lost]) -> None:
        """Show the newest, or nothing."""
        self.lost, self.dropped = lost, None
        self._offer(bool(lost))
        self._show_buttons()
        if lost:
            newest = lost[0]
            self.words.setText(
                f"“{newest.name}” is not saved yet; it is kept from {newest.when:%d %B %H:%M}."
            )

    def _show_buttons(self) -> None:
        for button in (self.take, self.drop):
            button.setVisible(bool(self.lost) and self.dropped is None)
        self.back.setVisible(self.dropped is not None)
        self.all.setVisible(len(self.lost) > 1)

    def _take(self) -> None:
        self.restored.emit(self.lost[0])

    def taken(self, lost: recovery.Lost, sentence: str) -> None:
        """Work was taken up; or it could not be, and stays with the sentence that says why."""
        if sentence:
            self.words.setText(f"“{lost.name}” cannot be taken up: {sentence}")
            self._offer(True)
        else:
            self.offer(recovery.find_lost())

    def _drop(self) -> None:
        dropped, self.lost = self.lost[0], self.lost[1:]
        recovery.discard(dropped)
        self.dropped = dropped
        self.words.setText(f"“{dropped.name}” is thrown away.")
        self._show_buttons()

    def _bring_back(self) -> None:
        if self.dropped is not None:
            recovery.bring_back(self.dropped)
        self.offer(recovery.find_lost())
