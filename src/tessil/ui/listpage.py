"""A page of the window with a long list as a table: searched, sorted, changed cell by cell, and
room at its right for what the list says."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

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
    """Entries as a table; what is typed into a cell is tried on the page."""

    def __init__(self, page: ListPage, cells: Sequence[Cell]) -> None:
        super().__init__(page)
        self.page, self.cells = page, tuple(cells)
        self.rows: tuple[Any, ...] = ()
        self.marked: frozenset[int] = frozenset()

    def show_rows(self, rows: tuple[Any, ...]) -> None:
        """Other entries in the table."""
        if rows is not self.rows:
            self.beginResetModel()
            self.rows = rows
            self.endResetModel()

    def rowCount(self, parent: Index | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.rows)

    def columnCount(self, parent: Index | None = None) -> int:
        return len(self.cells)

    def headerData(self, section: int, way: Qt.Orientation, role: int = 0) -> object:
        if role == Qt.ItemDataRole.DisplayRole and way == Qt.Orientation.Horizontal:
            return self.cells[section].head
        return None

    def data(self, index: Index, role: int = 0) -> object:
        row, cell = self.rows[index.row()], self.cells[index.column()]
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return cell.text(row)
        if role == Qt.ItemDataRole.UserRole:
            return cell.sorts(row)
        if role == Qt.ItemDataRole.TextAlignmentRole and cell.right:
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        flags = super().flags(index)
        changes = bool(self.cells[index.column()].field)
        return flags | Qt.ItemFlag.ItemIsEditable if changes else flags

    def setData(self, index: Index, value: object, role: int = 0) -> bool:
        text = printable(str(value)).strip()
        return self.page.change(index.row(), self.cells[index.column()].field, text)


class Matching(QSortFilterProxyModel):
    """The entries in which all of the words that are searched for stand."""

    def __init__(self, table: Table) -> None:
        super().__init__(table)
        self.table = table
        self.words: tuple[str, ...] = ()
        self.setSourceModel(table)
        self.setSortRole(Qt.ItemDataRole.UserRole)

    def search(self, text: str) -> None:
        """Show the entries that have these words."""
        self.words = tuple(text.casefold().split())
        self.beginResetModel()
        self.endResetModel()

    def filterAcceptsRow(self, at: int, parent: Index) -> bool:
        if not self.words:
            return True
        row = self.table.rows[at]
        text = " ".join(cell.text(row) for cell in self.table.cells).casefold()
        return all(one in text for one in self.words)


class ListPage(QWidget):
    """Head, entry and search, the table, and what it says beside it.

    A page says what its entries are (``entries``), how one is changed (``change``), and shows what
    they say (``show_said``)."""

    empty = "Nothing is written down yet."
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
        outer.addLayout(self._head(title, words))
        self.top = QHBoxLayout()
        self.top.setSpacing(8)
        outer.addLayout(self.top)
        self.error = Words()
        self.error.setObjectName("error")
        self.error.setVisible(False)
        outer.addWidget(self.error)
        self.table = Table(self, cells)
        self.matching = Matching(self.table)
        self.body = QHBoxLayout()
        self.body.setSpacing(16)
        self.body.addWidget(self._view(title), 3)
        outer.addLayout(self.body, 1)
        self.told = Words()
        self.told.setObjectName("soft")
        outer.addWidget(self.told)
        desk.planned.connect(self._follow)
        desk.booked.connect(self._follow)

    def _head(self, title: str, words: str) -> QHBoxLayout:
        name = Words(title)
        name.setObjectName("title")
        soft = Words(words)
        soft.setObjectName("soft")
        soft.setWordWrap(True)
        self.back = QPushButton("Back to the bench")
        self.back.clicked.connect(self.left)
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(name)
        row.addWidget(soft, 1)
        row.addWidget(self.back)
        return row

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
        view.setModel(self.matching)
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
        """Show the list as it is."""
        self.table.show_rows(self.entries())
        self._tell()
        self.show_said()

    def _search(self, text: str) -> None:
        self.matching.search(text)
        self._tell()

    def _tell(self) -> None:
        shown, all_ = self.matching.rowCount(), len(self.table.rows)
        if shown < all_:
            self.told.setText(f"{shown} of {all_} rows have these words.")
        elif all_:
            self.told.setText(f"{all_} rows. Click a head to sort by it, a cell to change it.")
        else:
            self.told.setText(self.empty)

    def say(self, sentence: str) -> None:
        """What cannot be, under the line."""
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))

    def chosen(self) -> list[int]:
        """The places of the chosen entries in the list."""
        picked = self.view.selectionModel().selectedRows()
        return [self.matching.mapToSource(index).row() for index in picked]

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        elif event.key() == Qt.Key.Key_Delete:
            self.take_out()
        else:
            super().keyPressEvent(event)
