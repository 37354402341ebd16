"""The page of keys, and of what Tessil is: its version, its licences."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tessil import __version__
from tessil.ui.actions import ACTIONS
from tessil.ui.widgets.words import Told, Words

# What keys do where the hands are: (where, ((keys, what), …)).
PLACES = (
    (
        "In a field",
        (
            ("↑ ↓, wheel", "one mark more or less"),
            ("Return", "take it as typed"),
            ("Esc", "what stood here before"),
            ("Ctrl+Z", "undo letters first, then the plan"),
        ),
    ),
    (
        "On the bench",
        (
            ("+ − 0", "larger, smaller, all of it"),
            ("Ctrl + arrows", "move the view"),
            ("arrows", "from piece to piece; move what is in hand"),
            ("Shift + arrows", "swap two pieces; move a layer"),
            ("T  R  P  1 … 9", "turn, fill the row, pin, lay a print"),
            ("M  L", "take the next mark or line in hand"),
            ("Delete", "take away what is in hand"),
        ),
    ),
    (
        "Between them",
        (
            ("Ctrl+1 … Ctrl+8", "the eight stages"),
            ("Tab", "stage, leaves, choices, figures, snags"),
            ("right click, Menu key", "what can be done with a thing"),
        ),
    ),
)
LICENCES = (
    f"Tessil {__version__}, a planner for makers of quilted bags. Free software under the GNU "
    "General Public License, version 3 or later; it comes with no warranty.\n\n"
    "Its faces are made from Inter and Vollkorn, under the SIL Open Font License 1.1. It is drawn "
    "with Qt through PySide6 (LGPL 3), checks its files with pydantic (MIT) and reckons with "
    "NumPy and SciPy (BSD). The licence texts lie beside the program.\n\n"
    "Nothing leaves this computer: Tessil uses no network. Cautions it shows are the usual ones; "
    "the maker of your tools and your local rules go before them."
)


class HelpPage(QWidget):
    """Keys on the left in columns, below them what the program is."""

    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.title = Words("Keys")
        self.title.setObjectName("title")
        self.leave = QPushButton("Back to the bench")
        self.leave.clicked.connect(self.left)
        head = QHBoxLayout()
        head.addWidget(self.title, 1)
        head.addWidget(self.leave)
        inner = QWidget()
        columns = QHBoxLayout(inner)
        columns.setSpacing(32)
        menu = [(_shown(row.keys), row.words) for row in ACTIONS if row.keys]
        half = (len(menu) + 1) // 2
        for part in (menu[:half], menu[half:]):
            columns.addLayout(_table(part), 1)
        places = QVBoxLayout()
        for where, rows in PLACES:
            name = Words(where)
            name.setObjectName("strong")
            places.addWidget(name)
            places.addLayout(_table(rows))
            places.addSpacing(10)
        places.addStretch(1)
        columns.addLayout(places, 1)
        self.area = area = QScrollArea()
        area.setWidgetResizable(True)
        area.setObjectName("pages")
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setAccessibleName("Keys")
        area.setWidget(inner)
        self.about = Told(LICENCES)
        self.about.setObjectName("soft")
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(12)
        outer.addLayout(head)
        outer.addWidget(area, 1)
        outer.addWidget(self.about)

    def begin(self, about: bool) -> None:
        """Show the keys, or what the program is."""
        self.title.setText("About Tessil" if about else "Keys")
        self.area.setHidden(about)
        self.leave.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


def _shown(keys: tuple[str, ...]) -> str:
    native = QKeySequence.SequenceFormat.NativeText
    return "  ".join(QKeySequence(key).toString(native) for key in keys)


def _table(rows: list[tuple[str, str]] | tuple[tuple[str, str], ...]) -> QGridLayout:
    grid = QGridLayout()
    grid.setHorizontalSpacing(14)
    grid.setVerticalSpacing(4)
    for at, (keys, what) in enumerate(rows):
        key = Words(keys)
        key.setObjectName("strong")
        said = Words(what)
        said.setObjectName("soft")
        said.setWordWrap(True)
        grid.addWidget(key, at, 0, Qt.AlignmentFlag.AlignTop)
        grid.addWidget(said, at, 1)
    grid.setColumnStretch(1, 1)
    grid.setRowStretch(len(rows), 1)
    return grid
