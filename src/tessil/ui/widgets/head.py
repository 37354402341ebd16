"""The head of the window: the bag's name and count, its panels, undo, units and the menu."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from tessil.core.edits import edit
from tessil.ui.desk import Desk
from tessil.ui.widgets.bagswitch import BagSwitch
from tessil.ui.widgets.fields import CountField, WordField
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.tray import PanelTray
from tessil.ui.widgets.words import Elided, Words, plain_tip


class Head(QHBoxLayout):
    """Name, finished size and count on the left, the tray in the middle, buttons on the right."""

    def __init__(self, desk: Desk, unsaved: QWidget) -> None:
        super().__init__()
        self.desk = desk
        self.setSpacing(12)
        self.told = Words()
        self.told.setObjectName("error")
        self.finished = Elided()
        self.finished.setObjectName("soft")
        self.switch = BagSwitch(desk.rename_job)
        self.name = self._name()
        self.bags = self._bags()
        for field in (self.bags, self.name, self.switch.title):
            field.new_run = desk.new_run
            field.told.connect(self.told.setText)
        self.tray = PanelTray()
        self.tray.chosen.connect(lambda key: desk.look(panel=key))
        words = QVBoxLayout()
        words.setSpacing(0)
        names = QHBoxLayout()
        names.setSpacing(4)
        names.addWidget(self.name)
        names.addWidget(self.switch)
        names.addStretch(1)
        words.addLayout(names)
        words.addLayout(self._count_row(unsaved))
        self.addLayout(words)
        self.addStretch(1)
        self.addWidget(self.tray)
        self.addStretch(1)
        self.addLayout(self._buttons())

    def _name(self) -> WordField:
        field = WordField(
            lambda text, run: self.desk.attempt(edit("Name the bag", ("name", text)), run)
        )
        field.setObjectName("name")
        field.setAccessibleName("Name of the bag")
        field.setToolTip("Name of the bag")
        field.setMaximumWidth(300)
        return field

    def _bags(self) -> CountField:
        field = CountField(
            lambda value, run: self.desk.attempt(edit("Set bags to make", ("bags", value)), run)
        )
        fixed(field, 52)
        field.setAccessibleName("Bags to make")
        field.setToolTip("How many bags to make; all amounts follow")
        return field

    def _count_row(self, unsaved: QWidget) -> QHBoxLayout:
        make = Words("· make")
        make.setObjectName("soft")
        row = QHBoxLayout()
        row.setSpacing(6)
        row.setContentsMargins(10, 0, 0, 0)
        for widget in (self.finished, make, self.bags, unsaved, self.told):
            row.addWidget(widget)
        row.addStretch(1)
        return row

    def _buttons(self) -> QHBoxLayout:
        self.undo_button, self.redo_button = QPushButton("Undo"), QPushButton("Redo")
        self.units_button, self.menu_button = QPushButton("in"), QPushButton("Menu")
        self.units_button.setToolTip("Inches or centimetres (Ctrl+U)")
        self.units_button.setAccessibleName("Units")
        self.menu_button.setToolTip("New, open, save, worksheet (F10)")
        row = QHBoxLayout()
        row.setSpacing(2)
        for button in (self.undo_button, self.redo_button, self.units_button, self.menu_button):
            button.setObjectName("quiet")
            row.addWidget(button)
        stack = self.desk.stack
        stack.undoTextChanged.connect(self._name_undo)
        stack.redoTextChanged.connect(self._name_redo)
        stack.canUndoChanged.connect(self.undo_button.setEnabled)
        stack.canRedoChanged.connect(self.redo_button.setEnabled)
        self.undo_button.setEnabled(False)
        self.redo_button.setEnabled(False)
        return row

    # The words come with the signal: at the end the stack tells once more when it is half gone.
    def _name_undo(self, words: str) -> None:
        self.undo_button.setToolTip(plain_tip(f"Undo: {words} (Ctrl+Z)"))

    def _name_redo(self, words: str) -> None:
        self.redo_button.setToolTip(plain_tip(f"Redo: {words} (Ctrl+Shift+Z)"))
