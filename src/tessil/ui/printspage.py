"""The page of the print basket: every print with its name, motif or photo, scale and amount."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from tessil.core.catalogue.prints import Photo, Print
from tessil.core.edits import Edit, edit
from tessil.core.layout.values import value_word
from tessil.core.numbers.decided import Refused
from tessil.core.shelf.inhand import cloth_names
from tessil.core.words.refusals import first_refusal
from tessil.ui.desk import Desk
from tessil.ui.widgets.basket import Swatch
from tessil.ui.widgets.choosers import Chooser, Tick
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import CountField, TypedField, WordField
from tessil.ui.widgets.lookform import COLOURS, LookForm, LookView, plainly_said
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Words


class PrintsPage(QWidget):
    """The basket.  ``file_wanted`` asks the window for a photo's file."""

    left = Signal()
    file_wanted = Signal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.desk = desk
        self.at = 0
        self.rows: dict[str, FieldRow] = {}
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(12)
        outer.addLayout(self._head())
        body = QHBoxLayout()
        body.setSpacing(20)
        outer.addLayout(body, 1)
        body.addWidget(self._list(), 0)
        body.addWidget(self._form(), 0)
        right = QVBoxLayout()
        self.view = LookView()
        self.photo = self.view.photo
        self.view.moved.connect(self._photo_moved)
        self.view.photo.grabbed.connect(self._new_run)
        right.addWidget(self.view, 1)
        body.addLayout(right, 1)
        self._run = ""
        desk.planned.connect(self._planned)

    def _head(self) -> QHBoxLayout:
        title = Words("The print basket")
        title.setObjectName("title")
        self.words = Words(
            "Every cloth of this bag. Scale is true: what is drawn here lies so on the bench."
        )
        self.words.setObjectName("soft")
        self.back = QPushButton("Back to the bench")
        self.back.clicked.connect(self.left)
        row = QHBoxLayout()
        row.addWidget(title)
        row.addWidget(self.words, 1)
        row.addWidget(self.back)
        return row

    def _list(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(card, 250)
        column = QVBoxLayout(card)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setFrameShape(QFrame.Shape.NoFrame)
        inner = QWidget()
        self.list = QVBoxLayout(inner)
        self.list.setContentsMargins(0, 0, 0, 0)
        self.list.addStretch(1)
        area.setWidget(inner)
        column.addWidget(area, 1)
        self.add = QPushButton("Add a print")
        self.add.clicked.connect(lambda: self._add())
        self.gone = QPushButton("Take this one out")
        self.gone.clicked.connect(self._remove)
        self.lying = Chooser((), self._add_lying)
        self.lying.setAccessibleName("Add a print from the shelf")
        self.lying.setToolTip("A cloth that lies on the shelf, by its name there")
        column.addWidget(self.add)
        column.addWidget(self.lying)
        column.addWidget(self.gone)
        self.swatches: list[Swatch] = []
        return card

    def _form(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(card, 356)
        self.form = QVBoxLayout(card)
        self.form.setSpacing(8)
        self.look = LookForm(
            lambda: self.desk.plan.marks.notation, self.desk.new_run, self._looks, self._ask_photo
        )
        self.ground = self.look.ground
        self._row("name", "Name", WordField(self._set("name")), "What you call it")
        self.rows |= self.look.rows
        for row in self.look.rows.values():
            self.form.addWidget(row)
        self._row(
            "amount",
            "In hand",
            CountField(self._set("amount"), True),
            "Pieces of it; empty: cut as needed",
        )
        self.placed = Tick("Its picture is placed")
        self.placed.clicked.connect(lambda on: self._set("placed")(on, ""))
        about = "Each piece is cut by a window with it in the middle: a repeat more each way"
        self._row("placed", "", self.placed, about)
        self.favourite = Tick("A favourite")
        self.favourite.clicked.connect(lambda on: self._set("favourite")(on, ""))
        self._row("favourite", "", self.favourite, "Arranging can keep favourites on one part")
        self.form.addStretch(1)
        return card

    def _row(self, key: str, label: str, field: QWidget, help_: str) -> None:
        self.rows[key] = self.look.row(key, label, field, help_)
        self.form.addWidget(self.rows[key])

    # -- showing ------------------------------------------------------------------

    @property
    def cloth(self) -> Print | None:
        prints = self.desk.project.prints
        return prints[min(self.at, len(prints) - 1)] if prints else None

    def begin(self) -> None:
        """Come to the page, at the print in hand."""
        keys = [entry.key for entry in self.desk.project.prints]
        if self.desk.seen.brush in keys:
            self.at = keys.index(self.desk.seen.brush)
        self.refresh()
        self._offer_lying()
        self.back.setFocus()

    def _planned(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Show the basket as it is."""
        prints = self.desk.project.prints
        self.at = min(self.at, max(len(prints) - 1, 0))
        self._show_list(prints)
        cloth = self.cloth
        for row in self.rows.values():
            row.setVisible(cloth is not None)
        self.look.show_cloth(cloth)
        self.gone.setEnabled(cloth is not None)
        if cloth is not None:
            self._show_cloth(cloth)

    def _show_list(self, prints: tuple[Print, ...]) -> None:
        if [swatch.cloth for swatch in self.swatches] != list(prints):
            focus = any(swatch.hasFocus() for swatch in self.swatches)
            while (item := self.list.takeAt(0)) is not None:
                if (widget := item.widget()) is not None:
                    widget.hide()
                    widget.deleteLater()
            self.swatches = []
            for at, cloth in enumerate(prints):
                self.list.addWidget(self._entry(at, cloth))
            self.list.addStretch(1)
            if focus and self.swatches:
                self.swatches[self.at].setFocus()
        for at, swatch in enumerate(self.swatches):
            swatch.in_hand = at == self.at
            swatch.update()

    def _entry(self, at: int, cloth: Print) -> QWidget:
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        swatch = Swatch(cloth)
        fixed(swatch, 64, 44)
        swatch.clicked.connect(lambda: self._choose(at))
        self.swatches.append(swatch)
        many = "" if cloth.amount is None else f", {cloth.amount} in hand"
        words = Words(f"{cloth.name}\n{value_word(cloth)}{many}")
        words.setObjectName("soft")
        words.setWordWrap(True)
        row.addWidget(swatch)
        row.addWidget(words, 1)
        return holder

    def _show_cloth(self, cloth: Print) -> None:
        for key in ("name", "amount"):
            field = self.rows[key].field
            assert isinstance(field, TypedField)
            field.show_value(getattr(cloth, key))
        self.placed.setChecked(cloth.placed)
        self.favourite.setChecked(cloth.favourite)
        self.view.show_cloth(cloth, self.desk.project.units == "metric")

    # -- answering ----------------------------------------------------------------

    def _choose(self, at: int) -> None:
        for row in self.rows.values():
            if isinstance(row.field, TypedField):
                row.field.settle()
        self.at = at
        self.refresh()

    def _new_run(self) -> None:
        self._run = self.desk.new_run()

    def _set(self, key: str) -> Callable[[Any, str], str]:
        def attempt(value: Any, run: str) -> str:
            return self._try(
                key, edit(f"Change a print's {key}", (f"prints.{self.at}.{key}", value)), run
            )

        return attempt

    def _try(self, key: str, change: Edit, run: str = "") -> str:
        try:
            sentence = self.desk.attempt(change, f"print {self.at} {key} {run}" if run else "")
        except Refused as error:
            sentence = first_refusal(error)
        sentence = plainly_said(sentence)
        if not run:  # a typed field tells its own sentence, in its own time
            self.rows[key].tell(sentence)
        return sentence

    def _ask_photo(self) -> None:
        self.file_wanted.emit()
        self.refresh()

    def _looks(self, key: str, value: Any, run: str) -> str:
        """How the print in hand looks."""
        base = f"prints.{self.at}"
        if key == "motif":
            words, also = "Change a print's motif", ((f"{base}.photo", None),)
            return self._try(key, edit(words, (f"{base}.motif", value), *also))
        if key == "apart":
            change = edit("Set the photo's scale", (f"{base}.photo.apart", value))
            return self._try(key, change, run)
        return self._set(key)(value, run)

    def _photo_moved(self, photo: Photo) -> None:
        self._try(
            "file",
            edit("Crop and scale the photo", (f"prints.{self.at}.photo", photo)),
            f"handle {self.photo.handle} {self._run}",
        )

    def take_photo(self, photo: Photo) -> Edit:
        """The edit that gives the print in hand this photo."""
        return edit("Use a photo", (f"prints.{self.at}.photo", photo))

    def say_photo(self, words: str) -> None:
        """A word beside the photo's button."""
        self.look.say_photo(words)

    def _offer_lying(self) -> None:
        """Cloths of the shelf that are not in the basket yet."""
        names = cloth_names(self.desk.shelf, self.desk.project.prints)
        self.lying.clear()
        self.lying.addItem("Add one from the shelf…", None)
        for name in names:
            self.lying.addItem(name, name)
        self.lying.setVisible(bool(names))

    def _add_lying(self, name: object, _words: str) -> str:
        if isinstance(name, str):
            self._add(name)
            self._offer_lying()
        return ""

    def _add(self, name: str = "") -> None:
        prints = self.desk.project.prints
        keys = {entry.key for entry in prints}
        key = next(f"print-{n}" for n in range(1, 200) if f"print-{n}" not in keys)
        ground = COLOURS[(3 * len(prints) + 4) % len(COLOURS)]
        seen = self.desk.shelf.cloth(name) if name else None
        new = Print(
            key=key,
            name=name or f"Print {len(prints) + 1}",
            motif="plain" if name else "dots",
            ground=ground,
            ink="#f6efe0",
        )
        if seen is not None:
            new = seen.model_copy(update={"key": key, "name": name})
        sentence = self.desk.attempt(edit("Add a print", ("prints", (*prints, new))))
        self.rows["name"].tell(sentence)
        self.at = len(self.desk.project.prints) - 1
        self.refresh()

    def _remove(self) -> None:
        prints = self.desk.project.prints
        kept = (*prints[: self.at], *prints[self.at + 1 :])
        self.rows["name"].tell(self.desk.attempt(edit("Take a print out", ("prints", kept))))
        self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
