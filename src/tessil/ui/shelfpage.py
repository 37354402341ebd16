"""The shelf's page: what there is, typed in as one says it, searched, sorted, counted."""

from __future__ import annotations

import datetime
from collections.abc import Callable
from uuid import uuid4

from pydantic import ValidationError
from PySide6.QtCore import (
    QAbstractTableModel,
    QModelIndex,
    QPersistentModelIndex,
    QSortFilterProxyModel,
    Qt,
    Signal,
)
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from tessil.core.edits import applied, edit
from tessil.core.numbers.lengths import LengthError, Notation
from tessil.core.shelf.rows import Row, Shelf, fresh_id
from tessil.core.shelf.typed import read_row
from tessil.core.words.refusals import first_refusal, printable
from tessil.drawing import theme
from tessil.ui.desk import Desk
from tessil.ui.shelving import Shelving
from tessil.ui.widgets.words import Words

Index = QModelIndex | QPersistentModelIndex
COLUMNS = ("Kind", "Name", "Size", "Number", "Place", "Price", "Date", "Note", "Kept for")
EDITED = {1: "name", 3: "number", 4: "place", 5: "price", 6: "date", 7: "note", 8: "kept_for"}
WIDE = (104, 200, 150, 80, 140, 74, 116, 140, 120)
HELP = "fq river ripple 3 · 1/2 yd oat · 5 x 4 pea dots · zip 12 navy 2 · strips 2½ birds 6"


class ShelfTable(QAbstractTableModel):
    """The rows as a table; what is typed into a cell is tried on the shelf."""

    def __init__(self, page: ShelfPage) -> None:
        super().__init__(page)
        self.page = page
        self.rows: tuple[Row, ...] = ()

    def show_rows(self, rows: tuple[Row, ...]) -> None:
        """Other rows in the table."""
        if rows != self.rows:
            self.beginResetModel()
            self.rows = rows
            self.endResetModel()

    def rowCount(self, parent: Index | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.rows)

    def columnCount(self, parent: Index | None = None) -> int:
        return len(COLUMNS)

    def headerData(self, section: int, way: Qt.Orientation, role: int = 0) -> object:
        if role == Qt.ItemDataRole.DisplayRole and way == Qt.Orientation.Horizontal:
            return COLUMNS[section]
        return None

    def data(self, index: Index, role: int = 0) -> object:
        row, column = self.rows[index.row()], index.column()
        if role == Qt.ItemDataRole.DisplayRole:
            return self.text(row, column)
        if role == Qt.ItemDataRole.EditRole:
            value = getattr(row, EDITED[column]) if column in EDITED else ""
            return "" if value is None else f"{value:g}" if isinstance(value, float) else str(value)
        if role == Qt.ItemDataRole.UserRole:  # what it is sorted by
            return self.sorts_by(row, column)
        if role == Qt.ItemDataRole.TextAlignmentRole and column in (3, 5):
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        return None

    def text(self, row: Row, column: int) -> str:
        """What stands in a cell."""
        if column == 2:
            return size_text(row, self.page.notation())
        price = "" if row.price is None else f"{row.price:.2f}"
        first = (row.kind, row.name, "", str(row.number), row.place, price)
        return (*first, row.date, row.note, row.kept_for)[column]

    def sorts_by(self, row: Row, column: int) -> float | str:
        """Sizes by their area, numbers by their value, words as they are read."""
        if column == 2:
            return float((row.width or 1) * (row.length or 0))
        if column == 3:
            return float(row.number)
        if column == 5:
            return row.price or 0.0
        return self.text(row, column).casefold()

    def flags(self, index: Index) -> Qt.ItemFlag:
        flags = super().flags(index)
        return flags | Qt.ItemFlag.ItemIsEditable if index.column() in EDITED else flags

    def setData(self, index: Index, value: object, role: int = 0) -> bool:
        text = printable(str(value)).strip()
        key = EDITED[index.column()]
        given: object = text.replace(",", ".") if key == "price" else text
        if key == "price" and not text:
            given = None
        return self.page.change(self.rows[index.row()], key, given)


def size_text(row: Row, notation: Notation) -> str:
    """How large a thing on the shelf is, with its unit."""
    if row.width is not None and row.length is not None:
        size = notation.size(row.width, row.length)
        return size if notation.units == "metric" else f"{size} in"
    return "" if row.length is None else notation.read_off(row.length, unit=True)


class Matching(QSortFilterProxyModel):
    """The rows in which all of the words that are searched for stand."""

    def __init__(self, table: ShelfTable) -> None:
        super().__init__(table)
        self.table = table
        self.words: tuple[str, ...] = ()
        self.setSourceModel(table)
        self.setSortRole(Qt.ItemDataRole.UserRole)

    def search(self, text: str) -> None:
        """Show the rows that have these words."""
        self.words = tuple(text.casefold().split())
        self.beginResetModel()
        self.endResetModel()

    def filterAcceptsRow(self, at: int, parent: Index) -> bool:
        if not self.words:
            return True
        row = self.table.rows[at]
        text = f"{row.kind} {row.name} {row.place} {row.note} {row.kept_for}".casefold()
        return all(word in text for word in self.words)


class ShelfPage(QWidget):
    """Lists what there is; ``csv_out`` and ``csv_in`` ask the window for a file."""

    left = Signal()
    csv_out = Signal()
    csv_in = Signal()

    def __init__(self, desk: Desk, shelving: Shelving) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.desk, self.shelving = desk, shelving
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(10)
        outer.addLayout(self._head())
        outer.addLayout(self._entry())
        self.error = Words()
        self.error.setObjectName("error")
        self.error.setVisible(False)
        outer.addWidget(self.error)
        self.table = ShelfTable(self)
        self.matching = Matching(self.table)
        outer.addWidget(self._view(), 1)
        self.told = Words()
        self.told.setObjectName("soft")
        outer.addWidget(self.told)
        desk.shelved.connect(self._follow)
        desk.planned.connect(self._follow)

    def _head(self) -> QHBoxLayout:
        name = Words("The shelf")
        name.setObjectName("title")
        words = Words("What there is, kept beside all projects. Cutting takes from it first.")
        words.setObjectName("soft")
        words.setWordWrap(True)
        self.back = QPushButton("Back to the bench")
        self.back.clicked.connect(self.left)
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(name)
        row.addWidget(words, 1)
        row.addWidget(self.back)
        return row

    def _entry(self) -> QHBoxLayout:
        self.line = QLineEdit()
        self.line.setObjectName("shelf.line")
        self.line.setPlaceholderText(HELP)
        self.line.setAccessibleName("Put on the shelf")
        self.line.setToolTip("What it is, its size, its name and how many; Enter puts it there")
        self.line.returnPressed.connect(self._put)
        self.sought = QLineEdit()
        self.sought.setObjectName("shelf.find")
        self.sought.setPlaceholderText("Search: dots, zipper, second drawer…")
        self.sought.setAccessibleName("Search the shelf")
        self.sought.textChanged.connect(self._search)
        row = QHBoxLayout()
        row.setSpacing(8)
        row.addWidget(self.line, 3)
        self._add(row, "Put on the shelf", self._put, main=True)
        row.addSpacing(16)
        row.addWidget(self.sought, 2)
        self.gone = self._add(row, "Take out", self._take_out)
        self._add(row, "Save as CSV…", self.csv_out.emit)
        self._add(row, "Take from CSV…", self.csv_in.emit)
        return row

    def _add(
        self, row: QHBoxLayout, words: str, work: Callable[[], object], main: bool = False
    ) -> QPushButton:
        button = QPushButton(words)
        if main:
            button.setObjectName("main")
        button.clicked.connect(lambda: work())
        row.addWidget(button)
        return button

    def _view(self) -> QTableView:
        view = self.view = QTableView()
        view.setObjectName("shelf")
        view.setModel(self.matching)
        view.setSortingEnabled(True)
        view.sortByColumn(-1, Qt.SortOrder.AscendingOrder)
        view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        view.setAlternatingRowColors(False)
        view.setShowGrid(False)
        view.verticalHeader().setVisible(False)
        view.verticalHeader().setDefaultSectionSize(28)
        view.setTabKeyNavigation(False)
        view.setAccessibleName("What there is")
        head = view.horizontalHeader()
        head.setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        for at, wide in enumerate(WIDE):
            view.setColumnWidth(at, wide)
        head.setStretchLastSection(True)
        head.setMinimumHeight(theme.px(32))
        head.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        head.setHighlightSections(False)
        return view

    def notation(self) -> Notation:
        """How sizes are written here."""
        return self.desk.plan.marks.notation

    # -- showing ------------------------------------------------------------------

    def begin(self) -> None:
        """Come to the page."""
        self.shelving.need()
        self.refresh()
        self.line.setFocus()

    def _follow(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Show the shelf as it is."""
        self.table.show_rows(self.desk.shelf.rows)
        self._tell()

    def _search(self, text: str) -> None:
        self.matching.search(text)
        self._tell()

    def _tell(self) -> None:
        shown, all_ = self.matching.rowCount(), len(self.table.rows)
        if not all_:
            self.told.setText("Nothing is on the shelf yet: type what there is, a line each.")
        elif shown < all_:
            self.told.setText(f"{shown} of {all_} rows have these words.")
        else:
            self.told.setText(f"{all_} rows. Click a head to sort by it, a cell to change it.")

    def say(self, sentence: str) -> None:
        """What cannot be, under the line."""
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))

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

    def change(self, row: Row, key: str, value: object) -> bool:
        """Another value in one cell; False, with a sentence, if it cannot be."""
        try:
            after = applied(row, edit("", (key, value)))
        except ValidationError as error:
            self.say(first_refusal(error))
            return False
        self.say("")
        self.desk.attempt_shelf(self.desk.shelf.having(after), f"Change {row.name} on the shelf")
        return True

    def _take_out(self) -> None:
        chosen = self.view.selectionModel().selectedRows()
        rows = [self.table.rows[self.matching.mapToSource(index).row()] for index in chosen]
        if not rows:
            self.say("Choose the rows first that are to go.")
            return
        self.say("")
        words = f"Take {rows[0].name} out" if len(rows) == 1 else f"Take {len(rows)} rows out"
        self.desk.attempt_shelf(self.desk.shelf.without(*(row.id for row in rows)), words)

    def take_in(self, shelf: Shelf) -> None:
        """The shelf as it is after a list was read."""
        self.desk.attempt_shelf(shelf, "Put a list on the shelf")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        elif event.key() == Qt.Key.Key_Delete:
            self._take_out()
        else:
            super().keyPressEvent(event)
