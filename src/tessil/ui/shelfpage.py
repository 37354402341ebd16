"""The shelf's page: what there is, typed in as one says it, searched, sorted, counted."""

from __future__ import annotations

import datetime
from uuid import uuid4

from pydantic import ValidationError

from tessil.core.edits import applied, edit
from tessil.core.numbers.lengths import LengthError, Notation
from tessil.core.shelf.rows import Row, fresh_id
from tessil.core.shelf.typed import read_row
from tessil.core.words.refusals import first_refusal, printable
from tessil.ui.desk import Desk
from tessil.ui.listpage import Cell, ListPage, figure, word
from tessil.ui.shelving import Shelving

HELP = "fq river ripple 3 · 1/2 yd oat · 5 x 4 pea dots · zip 12 navy 2 · strips 2½ birds 6"


def size_text(row: Row, notation: Notation) -> str:
    """How large a thing on the shelf is, with its unit."""
    if row.width is not None and row.length is not None:
        size = notation.size(row.width, row.length)
        return size if notation.units == "metric" else f"{size} in"
    return "" if row.length is None else notation.read_off(row.length, unit=True)


def _area(row: Row) -> float:
    return float((row.width or 1) * (row.length or 0))


class ShelfPage(ListPage):
    """Lists what there is; ``csv_out`` and ``csv_in`` ask the window for a file."""

    empty = "Nothing is on the shelf yet: type what there is, a line each."

    def __init__(self, desk: Desk, shelving: Shelving) -> None:
        def size(row: Row) -> str:
            return size_text(row, desk.plan.marks.notation)

        cells = (
            word("Kind", 104, "kind", change=False),
            word("Name", 200, "name"),
            Cell("Size", 150, size, _area),
            figure("Number", 80, lambda row: str(row.number), "number"),
            word("Place", 140, "place"),
            figure("Price", 74, _price, "price"),
            word("Date", 116, "date"),
            word("Note", 140, "note"),
            word("Kept for", 120, "kept_for"),
        )
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
        desk.shelved.connect(self._follow)

    def entries(self) -> tuple[Row, ...]:
        return self.desk.shelf.rows

    def begin(self) -> None:
        self.shelving.need()
        super().begin()
        self.line.setFocus()

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
        except ValidationError as error:
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
        except ValidationError as error:
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
