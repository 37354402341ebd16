"""The shelf's page: what there is, typed in as one says it, searched, sorted, counted."""

from __future__ import annotations

import datetime
from typing import Any
from uuid import uuid4

from msgspec.structs import replace
from PySide6.QtCore import QSize, Signal
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QVBoxLayout, QWidget

from tessil.core.catalogue.prints import Photo, Print, known_as
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import LengthError, Notation
from tessil.core.shelf.inhand import CLOTHS
from tessil.core.shelf.rows import Row, fresh_id
from tessil.core.shelf.typed import read_row
from tessil.core.words.refusals import first_refusal, printable
from tessil.ui.desk import Desk
from tessil.ui.listpage import Cell, ListPage, figure, word
from tessil.ui.shelving import Shelving, small_look
from tessil.ui.widgets.basket import chip
from tessil.ui.widgets.lookform import LookForm, LookView, plainly_said
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Elided

HELP = "fq river ripple 3 · 1/2 yd oat · 5 x 4 pea dots · zip 12 navy 2 · strips 2½ birds 6"
CHIP = (34, 20)  # points of the small picture beside a name


def size_text(row: Row, notation: Notation) -> str:
    """How large a thing on the shelf is, with its unit."""
    if row.width is not None and row.length is not None:
        size = notation.size(row.width, row.length)
        return size if notation.units == "metric" else f"{size} in"
    return "" if row.length is None else notation.read_off(row.length, unit=True)


def _area(row: Row) -> float:
    return float((row.width or 1) * (row.length or 0))


class ShelfPage(ListPage):
    """Lists what there is; ``csv_out``, ``csv_in`` and ``photo_wanted`` ask the window for a
    file."""

    photo_wanted = Signal()
    empty = "Nothing is on the shelf yet: type what there is, a line each."
    more = "Choose a cloth to say how it looks."

    def __init__(self, desk: Desk, shelving: Shelving) -> None:
        def size(row: Row) -> str:
            return size_text(row, desk.plan.marks.notation)

        cells = (
            word("Kind", 96, "kind", change=False),
            replace(word("Name", 206, "name"), chip=self._chip),
            Cell("Size", 132, size, _area),
            figure("Number", 76, lambda row: str(row.number), "number"),
            word("Place", 124, "place"),
            figure("Price", 66, _price, "price"),
            word("Date", 104, "date"),
            word("Note", 130, "note"),
            word("Kept for", 110, "kept_for"),
        )
        self._looks: tuple[object, dict[str, Print]] = (None, {})
        about = "What there is, kept beside all projects. Cutting takes from it first."
        super().__init__(desk, "The shelf", about, cells)
        self.shelving = shelving
        self.line = self.add_line("shelf.line", "Put on the shelf", HELP, self._put)
        self.line.setToolTip("What it is, its size, its name and how many; Enter puts it there")
        self.add_button("Put on the shelf", self._put).setObjectName("main")
        self.top.addSpacing(16)
        self.add_search("Search: dots, zipper, second drawer…").setObjectName("shelf.find")
        self.gone = self.add_button("Take out", self.take_out)
        self.add_button("Save as CSV…", self.csv_out.emit)
        self.add_button("Take from CSV…", self.csv_in.emit)
        self.view.setIconSize(QSize(*CHIP))
        self.body.addWidget(self._side())
        desk.shelved.connect(self._follow)

    def entries(self) -> tuple[Row, ...]:
        return self.desk.shelf.rows

    def named(self, row: Row) -> object:
        return row.id

    def begin(self) -> None:
        self.shelving.need()
        super().begin()
        self.line.setFocus()

    # -- how a cloth looks ---------------------------------------------------------

    def _side(self) -> QWidget:
        """The look of the cloth that is chosen in the list."""
        self.side = QWidget()
        fixed(self.side, 330)
        column = QVBoxLayout(self.side)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        self.called = Elided()
        self.called.setObjectName("figure")
        self.shown = LookView()
        self.shown.large.setMinimumSize(200, 120)
        self.shown.moved.connect(self._photo_moved)
        self.look = LookForm(
            lambda: self.desk.plan.marks.notation, self.desk.new_run, self._change_look, self._ask
        )
        column.addWidget(self.called)
        column.addWidget(self.shown, 1)
        for row in self.look.rows.values():
            column.addWidget(row)
        self.side.setVisible(False)
        return self.side

    def cloth_of(self, row: Row) -> Print | None:
        """How a row's cloth looks: as the shelf knows it, else as the bag in hand has it."""
        if row.kind not in CLOTHS:
            return None
        prints, cloths = self.desk.project.prints, self.desk.shelf.cloths
        if self._looks[0] != (id(prints), id(cloths)):
            found = {known_as(one.name): one for one in (*prints, *cloths)}
            self._looks = ((id(prints), id(cloths)), found)
        return self._looks[1].get(known_as(row.name))

    def _chip(self, row: Row) -> QIcon | None:
        cloth = self.cloth_of(row)
        if cloth is None:
            return None
        return chip(cloth, CHIP, self.devicePixelRatioF())

    def chosen_row(self) -> Row | None:
        """The cloth that is chosen in the list: the first of several."""
        rows = [self.table.rows[at] for at in self.chosen()]
        return next((row for row in rows if row.kind in CLOTHS), None)

    def show_said(self) -> None:
        """The look of the cloth that is chosen."""
        row = self.chosen_row()
        self.side.setVisible(row is not None)
        if row is None:
            return
        cloth = self._cloth_to_change(row)
        self.called.say(row.name)
        self.shown.show_cloth(cloth, self.desk.project.units == "metric")
        self.look.show_cloth(cloth)

    def _cloth_to_change(self, row: Row) -> Print:
        """How the chosen cloth looks; of one whose look is not known a plain weave."""
        known = self.cloth_of(row) or Print(key="cloth", name=row.name)
        return known.model_copy(update={"amount": None, "favourite": False, "name": row.name})

    def _ask(self) -> None:
        self.photo_wanted.emit()
        self.show_said()

    def _change_look(self, key: str, value: Any, run: str) -> str:
        """Another look of the chosen cloth; a sentence where that cannot be."""
        row = self.chosen_row()
        if row is None:
            return ""
        also = [("photo", None)] if key == "motif" else []
        field = "photo.apart" if key == "apart" else key
        try:
            cloth = applied(self._cloth_to_change(row), edit("", (field, value), *also))
        except Refused as error:
            sentence = plainly_said(first_refusal(error))
            if not run:
                self.look.rows[key].tell(sentence)
            return sentence
        self._keep(cloth, f"look {row.id} {key} {run}" if run else "")
        return ""

    def _keep(self, cloth: Print, run: str = "") -> None:
        after = self.desk.shelf.looking(small_look(cloth))
        self.desk.attempt_shelf(after, f"Change how {cloth.name} looks", run)

    def _photo_moved(self, photo: Photo) -> None:
        row = self.chosen_row()
        if row is not None:
            cloth = self._cloth_to_change(row).model_copy(update={"photo": photo})
            self._keep(cloth, f"handle {row.id} {self.shown.photo.handle}")

    def photo_edit(self, photo: Photo) -> Edit:
        """A photo as small as they are kept here, beside the window; what it is taken for is said
        when it is there."""
        cloth = small_look(Print(key="cloth", name="cloth", photo=photo))
        return edit("Use a photo", ("photo", cloth.photo))

    def take_photo(self, row: Row | None, change: Edit) -> str:
        """A photo that was read is that of a row's cloth; no sentence."""
        if row is not None and change.changes:
            self._keep(applied(self._cloth_to_change(row), change))
        return ""

    def say_photo(self, words: str) -> None:
        """A word beside the photo's button."""
        self.look.say_photo(words)

    # -- answering ----------------------------------------------------------------

    def _put(self) -> None:
        """Put what was typed on the shelf; what cannot be read stays in the line."""
        project = self.desk.project
        id_ = fresh_id(self.desk.shelf, f"r-{uuid4().hex[:10]}")
        try:
            row = read_row(self.line.text(), project.units, project.stock.usable_width, id_)
            dated = applied(row, edit("", ("date", datetime.date.today().isoformat())))
            after = applied(self.desk.shelf, edit("", ("rows", (*self.desk.shelf.rows, dated))))
        except LengthError as error:
            self.say(printable(str(error)))
            return
        except Refused as error:
            self.say(first_refusal(error))
            return
        self.say("")
        self.line.clear()
        self.desk.attempt_shelf(after, f"Put {row.name} on the shelf")
        self.view.scrollToBottom()

    def change(self, at: int, field: str, text: str) -> bool:
        row = self.table.rows[at]
        value: object = text
        if field == "price":
            value = text.replace(",", ".") or None
        also = [("kept_by", "")] if field == "kept_for" else []  # by hand: kept by its name alone
        try:
            after = applied(row, edit("", (field, value), *also))
        except Refused as error:
            self.say(first_refusal(error))
            return False
        self.say("")
        self.desk.attempt_shelf(self.desk.shelf.having(after), f"Change {row.name} on the shelf")
        return True

    def take_out(self) -> None:
        rows = [self.table.rows[at] for at in self.chosen()]
        if not rows:
            self.say("Choose the rows first that are to go.")
            return
        self.say("")
        words = f"Take {rows[0].name} out" if len(rows) == 1 else f"Take {len(rows)} rows out"
        self.desk.attempt_shelf(self.desk.shelf.without(*(row.id for row in rows)), words)


def _price(row: Row) -> str:
    return "" if row.price is None else f"{row.price:.2f}"
