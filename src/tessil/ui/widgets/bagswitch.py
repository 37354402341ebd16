"""Which bag of the job is in hand: a button that opens the list of them all."""

from __future__ import annotations

from PySide6.QtCore import QPoint, Signal
from PySide6.QtGui import QAction, QActionGroup
from PySide6.QtWidgets import QMenu, QPushButton, QVBoxLayout, QWidget, QWidgetAction

from tessil.core.project import Job
from tessil.core.words.refusals import printable
from tessil.ui.widgets.fields import Try, WordField

LONGEST = 48  # letters of a name in the list


class BagSwitch(QPushButton):
    """``2 of 4``; its list turns to a bag, adds one, copies or removes the one in hand."""

    chosen = Signal(int)
    add_wanted = Signal()
    copy_wanted = Signal()
    remove_wanted = Signal()
    seams_wanted = Signal()

    def __init__(self, rename: Try) -> None:
        super().__init__()
        self.setObjectName("quiet")
        self.list = QMenu(self)
        self.title = WordField(rename)
        self.title.setAccessibleName("Name of the job")
        self.title.setToolTip("What its bags are called together")
        self.title.setPlaceholderText("name of the job")
        self._titled = QWidgetAction(self)
        around = QWidget()
        row = QVBoxLayout(around)
        row.setContentsMargins(10, 6, 10, 4)
        row.addWidget(self.title)
        self._titled.setDefaultWidget(around)
        self.clicked.connect(self.open_list)
        self._shown: tuple[tuple[str, ...], int, bool] = ((), 0, False)

    def show_job(self, job: Job, at: int) -> None:
        """Show which of how many is in hand."""
        self.title.show_value(job.name)
        names = tuple(bag.name for bag in job.bags)
        learned = job.shared.first_seams == job.bags[at].seams
        if (names, at, learned) == self._shown:
            return
        self._shown = names, at, learned
        number = len(names)
        self.setText(f"{at + 1} of {number} bags ▾" if number > 1 else "1 bag ▾")
        self.setAccessibleName(f"Bag {at + 1} of {number}: {names[at]}")
        more = "Alt+PgUp and Alt+PgDn go through them" if number > 1 else "a job can hold more"
        self.setToolTip(f"The bags of this job: {more}")
        if self.list.isVisible():
            self._fill()

    def _fill(self) -> None:
        names, at, learned = self._shown
        for action in self.list.actions():
            self.list.removeAction(action)
            if action is not self._titled:
                action.deleteLater()
        if len(names) > 1:
            self.list.addAction(self._titled)
        group = QActionGroup(self.list)
        for number, name in enumerate(names):
            told = printable(name)
            told = told if len(told) <= LONGEST else f"{told[: LONGEST - 1]}…"
            action = QAction(f"{number + 1}.  {told}".replace("&", "&&"), self.list)
            action.setCheckable(True)
            action.setChecked(number == at)
            action.triggered.connect(lambda _=False, number=number: self.chosen.emit(number))
            group.addAction(action)
            self.list.addAction(action)
        self.list.addSeparator()
        self.list.addAction("Add a bag", self.add_wanted.emit)
        self.list.addAction("Copy this bag", self.copy_wanted.emit)
        remove = self.list.addAction("Remove this bag", self.remove_wanted.emit)
        remove.setEnabled(len(names) > 1)
        self.list.addSeparator()
        seams = self.list.addAction("New bags begin with these seams", self.seams_wanted.emit)
        seams.setEnabled(not learned)

    def open_list(self) -> None:
        """Below the button, without waiting for an answer."""
        self._fill()
        self.list.popup(self.mapToGlobal(QPoint(0, self.height())))
