"""A page of the window with a long list as a table: searched, sorted, changed cell by cell, and
room at its right for what the list says."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from PySide6.QtCore import (
    QAbstractTableModel,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    Qt,
    Signal,
)
from PySide6.QtGui import QIcon, QKeyEvent
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from tessil.core.numbers.records import Record
from tessil.core.words.refusals import printable
from tessil.drawing import theme
from tessil.ui.desk import Desk
from tessil.ui.widgets.pagehead import PageHead
from tessil.ui.widgets.pictureview import PictureView
from tessil.ui.widgets.words import Told, Words

Index = QModelIndex | QPersistentModelIndex


class Cell(Record, frozen=True):
    """A column: its head, how wide it is, what stands in it, what it is sorted by, and the field
    that is changed by typing in it, if one is."""

    head: str
    wide: int
    text: Callable[[Any], str]
    sorts: Callable[[Any], float | str]
    field: str = ""
    right: bool = False
    chip: Callable[[Any], QIcon | None] | None = None  # a small picture before the text


def word(head: str, wide: int, field: str, change: bool = True) -> Cell:
    """A column of words, the entry's own field."""

    def text(row: Any) -> str:
        return str(getattr(row, field))

    return Cell(head, wide, text, lambda row: text(row).casefold(), field if change else "")


def figure(head: str, wide: int, text: Callable[[Any], str], field: str = "") -> Cell:
    """A column of figures at the right; what is sorted by is the number that stands there."""

    def sorts(row: Any) -> float:
        digits = "".join(letter for letter in text(row) if letter in "0123456789.-−")
        try:
            return float(digits.replace("−", "-"))
        except ValueError:
            return float("-inf")

    return Cell(head, wide, text, sorts, field, True)


class Table(QAbstractTableModel):
    """Entries as a table, those that match a search in the order of a column; what is typed into a
    cell is tried on the page.  Sorted and searched at once and not row by row: ten thousand
    entries are asked for without a wait."""

    def __init__(self, page: ListPage, cells: Sequence[Cell]) -> None:
        super().__init__(page)
        self.page, self.cells = page, tuple(cells)
        self.rows: tuple[Any, ...] = ()
        self.shown: list[int] = []
        self._texts: list[str] = []  # what is searched in, once it was asked for
        self._words: tuple[str, ...] = ()
        self._by: tuple[int, bool] = (-1, False)  # a column, and whether the largest comes first

    def show_rows(self, rows: tuple[Any, ...]) -> None:
        """Other entries in the table."""
        if rows is not self.rows:
            self.rows, self._texts = rows, []
            self._order()

    def search(self, text: str) -> None:
        """Show the entries that have these words."""
        self._words = tuple(text.casefold().split())
        self._order()

    def sort(self, column: int, order: Qt.SortOrder = Qt.SortOrder.AscendingOrder) -> None:
        self._by = (column, order == Qt.SortOrder.DescendingOrder)
        self._order()

    def _order(self) -> None:
        self.beginResetModel()
        found = list(range(len(self.rows)))
        if self._words:
            if not self._texts:
                self._texts = [
                    " ".join(cell.text(row) for cell in self.cells).casefold() for row in self.rows
                ]
            found = [at for at in found if all(one in self._texts[at] for one in self._words)]
        column, falling = self._by
        if 0 <= column < len(self.cells):
            sorts = self.cells[column].sorts
            found.sort(key=lambda at: sorts(self.rows[at]), reverse=falling)
        self.shown = found
        self.endResetModel()

    def rowCount(self, parent: Index | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.shown)

    def columnCount(self, parent: Index | None = None) -> int:
        return len(self.cells)

    def headerData(self, section: int, way: Qt.Orientation, role: int = 0) -> object:
        if role == Qt.ItemDataRole.DisplayRole and way == Qt.Orientation.Horizontal:
            return self.cells[section].head
        return None

    def data(self, index: Index, role: int = 0) -> object:
        cell = self.cells[index.column()]
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return cell.text(self.rows[self.shown[index.row()]])
        if role == Qt.ItemDataRole.DecorationRole and cell.chip is not None:
            return cell.chip(self.rows[self.shown[index.row()]])
        if role == Qt.ItemDataRole.TextAlignmentRole and cell.right:
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        flags = super().flags(index)
        changes = bool(self.cells[index.column()].field)
        return flags | Qt.ItemFlag.ItemIsEditable if changes else flags

    def setData(self, index: Index, value: object, role: int = 0) -> bool:
        text = printable(str(value)).strip()
        return self.page.change(self.shown[index.row()], self.cells[index.column()].field, text)


class ListPage(QWidget):
    """Head, entry and search, the table, and what it says beside it.

    A page says what its entries are (``entries``), how one is changed (``change``), and shows what
    they say (``show_said``)."""

    empty = "Nothing is written down yet."
    more = ""  # that can be done with its entries
    left = Signal()
    csv_out = Signal()
    csv_in = Signal()

    def __init__(self, desk: Desk, title: str, words: str, cells: Sequence[Cell]) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.desk = desk
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(10)
        head = PageHead(title, words)
        self.back = head.back
        self.back.clicked.connect(self.left)
        outer.addLayout(head)
        self.top = QHBoxLayout()
        self.top.setSpacing(8)
        outer.addLayout(self.top)
        self.error = Words()
        self.error.setObjectName("error")
        self.error.setVisible(False)
        outer.addWidget(self.error)
        self.table = Table(self, cells)
        self.body = QHBoxLayout()
        self.body.setSpacing(16)
        self.body.addWidget(self._view(title), 3)
        outer.addLayout(self.body, 1)
        self.told = Words()
        self.told.setObjectName("soft")
        outer.addWidget(self.told)
        desk.planned.connect(self._follow)
        desk.booked.connect(self._follow)

    def add_side(self) -> QVBoxLayout:
        """Room at the right of the list, with a plot and words to put there."""
        self.plot = PictureView()
        self.plot.setMinimumHeight(220)
        self.said = Told()
        self.said.setObjectName("soft")
        side = QVBoxLayout()
        side.setSpacing(8)
        self.body.addLayout(side, 2)
        return side

    def add_line(self, name: str, about: str, help_: str, work: Callable[[], None]) -> QLineEdit:
        """A line to type an entry in."""
        line = QLineEdit()
        line.setPlaceholderText(help_)
        line.setAccessibleName(about)
        line.setObjectName(name)
        line.returnPressed.connect(work)
        self.top.addWidget(line, 3)
        return line

    def add_search(self, help_: str = "Search…") -> QLineEdit:
        """A line to search in."""
        self.sought = QLineEdit()
        self.sought.setPlaceholderText(help_)
        self.sought.setAccessibleName("Search the list")
        self.sought.textChanged.connect(self._search)
        self.top.addWidget(self.sought, 2)
        return self.sought

    def add_button(
        self, words: str, work: Callable[[], object], to: QHBoxLayout | None = None
    ) -> QPushButton:
        """A button beside the lines, or in a row of its own."""
        button = QPushButton(words)
        button.clicked.connect(lambda: work())
        (to or self.top).addWidget(button)
        return button

    def _view(self, title: str) -> QTableView:
        view = self.view = QTableView()
        view.setObjectName("shelf")
        view.setModel(self.table)
        view.setSortingEnabled(True)
        view.sortByColumn(-1, Qt.SortOrder.AscendingOrder)
        view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        view.setShowGrid(False)
        view.verticalHeader().setVisible(False)
        view.verticalHeader().setDefaultSectionSize(28)
        view.setTabKeyNavigation(False)
        view.setAccessibleName(title)
        head = view.horizontalHeader()
        for at, cell in enumerate(self.table.cells):
            view.setColumnWidth(at, cell.wide)
        head.setStretchLastSection(True)
        head.setMinimumHeight(theme.px(32))
        head.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        head.setHighlightSections(False)
        view.selectionModel().selectionChanged.connect(lambda *_: self.show_said())
        return view

    # -- showing ------------------------------------------------------------------------------

    def entries(self) -> tuple[Any, ...]:
        """What is listed."""
        raise NotImplementedError

    def change(self, at: int, field: str, text: str) -> bool:
        """Another value in one cell; False, with a sentence, if it cannot be."""
        raise NotImplementedError

    def show_said(self) -> None:
        """What the list says, at its right; nothing where it has no room there."""

    def take_out(self) -> None:
        """The chosen entries go."""
        raise NotImplementedError

    def begin(self) -> None:
        """Come to the page."""
        self.refresh()
        self.back.setFocus()

    def _follow(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Show the list as it is; what was chosen in it stays so."""
        before = self.table.rows
        chosen = {self.named(before[at]) for at in self.chosen()}
        self.table.show_rows(self.entries())
        if chosen and before is not self.table.rows:
            self._choose(chosen)
        self._tell()
        self.show_said()

    def named(self, row: Any) -> object:
        """By what an entry is known again: itself, as long as it is not changed."""
        return id(row)

    def _choose(self, names: set[object]) -> None:
        model, choice = self.view.selectionModel(), QItemSelectionModel.SelectionFlag
        for line, at in enumerate(self.table.shown):
            if self.named(self.table.rows[at]) in names:
                flags = choice.Select | choice.Rows
                model.select(self.table.index(line, 0), flags)

    def _search(self, text: str) -> None:
        self.table.search(text)
        self._tell()

    def _tell(self) -> None:
        shown, all_ = len(self.table.shown), len(self.table.rows)
        if shown < all_:
            self.told.setText(f"{shown} of {all_} rows have these words.")
        elif all_:
            how = "Click a head to sort by it, a cell to change it."
            self.told.setText(f"{all_} rows. {how} {self.more}".strip())
        else:
            self.told.setText(self.empty)

    def say(self, sentence: str) -> None:
        """What cannot be, under the line."""
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))

    def chosen(self) -> list[int]:
        """The places of the chosen entries in the list."""
        picked = self.view.selectionModel().selectedRows()
        return [self.table.shown[index.row()] for index in picked]

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        elif event.key() == Qt.Key.Key_Delete:
            self.take_out()
        else:
            super().keyPressEvent(event)
