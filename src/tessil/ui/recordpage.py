"""A page of the window that lists records on the left and asks about one of them beside it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from tessil.ui.desk import Desk
from tessil.ui.widgets.choosers import Chooser, Segments, Tick
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import TypedField
from tessil.ui.widgets.pagehead import PageHead
from tessil.ui.widgets.sized import fixed


def card(width: int = 0) -> tuple[QWidget, QVBoxLayout]:
    """A paper card with a column on it."""
    made = QWidget()
    made.setObjectName("card")
    made.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
    if width:
        fixed(made, width)
    return made, QVBoxLayout(made)


def scrolled(inner: QWidget) -> QScrollArea:
    """Something long in a frame that scrolls."""
    area = QScrollArea()
    area.setWidgetResizable(True)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # what is on it can be reached
    area.setFrameShape(QFrame.Shape.NoFrame)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setWidget(inner)
    return area


def _long_card(width: int, spacing: int) -> tuple[QWidget, QVBoxLayout, QVBoxLayout]:
    """A card with a column that scrolls, and the column round that."""
    made, column = card(width)
    inner = QWidget()
    long = QVBoxLayout(inner)
    long.setContentsMargins(0, 0, 4, 0)
    long.setSpacing(spacing)
    long.addStretch(1)
    column.addWidget(scrolled(inner), 1)
    return made, long, column


class RecordPage(QWidget):
    """Head, list and form; a page adds its fields, its records and what stands at the right."""

    left = Signal()

    def __init__(self, desk: Desk, title: str, words: str) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.desk = desk
        self.at = 0
        self.rows: dict[str, FieldRow] = {}
        self.entries: list[QPushButton] = []
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(12)
        self.head = PageHead(title, words)
        self.words, self.back = self.head.words, self.head.back
        self.back.clicked.connect(self.left)
        outer.addLayout(self.head)
        self.body = QHBoxLayout()
        self.body.setSpacing(16)
        outer.addLayout(self.body, 1)
        self.body.addWidget(self._list())
        self.body.addWidget(self._form_card())
        desk.planned.connect(self._planned)

    def _list(self) -> QWidget:
        made, self.list, column = _long_card(270, 0)
        self.buttons = QVBoxLayout()
        column.addLayout(self.buttons)
        return made

    def _form_card(self) -> QWidget:
        self.form_card, self.form, _ = _long_card(330, 6)
        return self.form_card

    def add_button(self, words: str, work: Callable[[], None]) -> QPushButton:
        """A button under the list."""
        button = QPushButton(words)
        button.clicked.connect(work)
        self.buttons.addWidget(button)
        return button

    def add_row(self, key: str, label: str, field: QWidget, help_: str) -> None:
        """A field of the form."""
        row = FieldRow(label, field, help_, 104)
        if isinstance(field, TypedField):
            field.new_run = self.desk.new_run
        field.setObjectName(field.objectName() or f"record.{key}")
        self.rows[key] = row
        self.form.insertWidget(self.form.count() - 1, row)

    def _planned(self) -> None:
        if self.isVisible():
            self.refresh()

    def begin(self) -> None:
        """Come to the page."""
        self.refresh()
        self.back.setFocus()

    def refresh(self) -> None:
        """Show everything as it is."""
        raise NotImplementedError

    def show_entries(self, texts: list[str]) -> None:
        """The list: two lines of words each, the one in hand marked."""
        while len(self.entries) > len(texts):
            button = self.entries.pop()
            self.list.removeWidget(button)
            button.hide()
            button.deleteLater()
        while len(self.entries) < len(texts):
            self._add_entry()
        for at, (button, text) in enumerate(zip(self.entries, texts, strict=True)):
            if button.text() != text:
                button.setText(text)
                button.setAccessibleName(text.replace("\n", ", "))
            button.setChecked(at == self.at)

    def _add_entry(self) -> None:
        at = len(self.entries)
        button = QPushButton()
        button.setObjectName("record")
        button.setCheckable(True)
        button.clicked.connect(lambda: self.choose(at))
        self.entries.append(button)
        self.list.insertWidget(at, button)

    def choose(self, at: int) -> None:
        """Take another record in hand; what is half typed belongs to the one before."""
        for row in self.rows.values():
            if isinstance(row.field, TypedField):
                row.field.settle()
                row.field.forget()
        self.at = at
        self.refresh()

    def show_values(self, values: dict[str, Any]) -> None:
        """Put values into the fields of the form."""
        for key, value in values.items():
            field = self.rows[key].field
            if isinstance(field, Tick):
                field.setChecked(bool(value))
            elif isinstance(field, (TypedField, Chooser, Segments)):
                field.show_value(value)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
