"""Whose sizes are measured: those of all bags made alike, or of a single one of them."""

from __future__ import annotations

from collections.abc import Collection

from PySide6.QtCore import QPoint, Signal
from PySide6.QtGui import QAction, QActionGroup
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QVBoxLayout, QWidget, QWidgetAction

from tessil.core.memory.same import same
from tessil.ui.widgets.fields import CountField
from tessil.ui.widgets.words import Words

MOST_LISTED = 12  # more are asked for by number


class OneOf(QWidget):
    """``all 3`` or ``no. 2 of 3``; nothing to see where only one bag is made."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.button = QPushButton()
        self.button.setObjectName("link")
        self.button.setToolTip(
            "Write down what really came out of all bags alike, or of a single one: "
            "its lining, binding and marks then follow that one"
        )
        self.list = QMenu(self)
        self.field = CountField(self._typed)
        self.field.setPlaceholderText("number")
        self.field.setAccessibleName("Number of the single bag")
        self.error = Words()
        self.error.setObjectName("error")
        self.field.told.connect(self.error.setText)
        self._asked = QWidgetAction(self)
        around = QWidget()
        inside = QVBoxLayout(around)
        inside.addWidget(self.field)
        inside.addWidget(self.error)
        self._asked.setDefaultWidget(around)
        self.list.addAction(self._asked)
        self.button.clicked.connect(self.open_list)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.button)
        row.addStretch(1)
        self._shown: object = None
        self._nth, self._most, self._narrow = 0, 1, False
        self._measured: frozenset[str] = frozenset()
        self.hide()

    def show_one(self, nth: int, of: int, measured: Collection[str]) -> None:
        """Show which of how many; those ``measured`` by themselves are told in the list."""
        shown = nth, of, tuple(measured)
        if same(shown, self._shown):
            return
        self._shown, self._nth, self._most = shown, nth, of
        self.setVisible(of > 1)
        self.show_narrow(self._narrow)
        self.button.setAccessibleName(
            f"Measured sizes are those of number {nth}"
            if nth
            else f"Measured sizes are of all {of}"
        )
        self._measured = frozenset(measured)
        if self.list.isVisible():
            self._fill()

    def show_narrow(self, narrow: bool) -> None:
        """In fewer words where there is little room."""
        self._narrow = narrow
        which = f"no. {self._nth} of {self._most}" if self._nth else f"all {self._most}"
        self.button.setText(f"{which} ▾" if narrow else f"measured: {which} ▾")

    def _fill(self) -> None:
        nth, of, measured = self._nth, self._most, self._measured
        for action in self.list.actions():
            if action is not self._asked:  # it may be typed in just now
                self.list.removeAction(action)
                action.deleteLater()
        group = QActionGroup(self.list)
        listed = range(1, of + 1) if of <= MOST_LISTED else sorted({*map(int, measured), nth} - {0})
        for number in (0, *listed):
            own = "  · measured" if str(number) in measured else ""
            action = QAction(f"No. {number}{own}" if number else f"All {of} alike", self.list)
            action.setCheckable(True)
            action.setChecked(number == nth)
            action.triggered.connect(lambda _=False, number=number: self.chosen.emit(number))
            group.addAction(action)
            self.list.insertAction(self._asked, action)
        self._asked.setVisible(of > MOST_LISTED)
        self.field.show_value(nth or 1)

    def _typed(self, value: int, run: str) -> str:
        if not 1 <= value <= self._most:
            return f"Give a number from 1 to {self._most}."
        if value != self._nth:
            # Before it is told: what leaves a bag settles this very field once more.
            self._nth = value
            self.chosen.emit(value)
        return ""

    def open_list(self) -> None:
        """Above the button, without waiting for an answer."""
        self._fill()
        up = self.list.sizeHint().height()
        self.list.popup(self.button.mapToGlobal(QPoint(0, -up)))
