"""The snags: what, where, why, and the fixes as buttons; folded away when there are none."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QPointF, QSize, Qt, Signal
from PySide6.QtGui import QContextMenuEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from tessil.core.edits import Edit
from tessil.core.snags import Snag, Weight
from tessil.drawing import theme
from tessil.drawing.painter import paint_flag
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Told, plain_tip

MOST_HIGH = 104  # pixels of snags in sight at once; the rest scrolls


class Flag(QWidget):
    """A snag's number, as on the bench."""

    def __init__(self, number: int, blocks: bool) -> None:
        super().__init__()
        self.number, self.blocks = number, blocks
        fixed(self, 28, 28)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_flag(painter, QPointF(14, 14), self.number, self.blocks)


class SnagRow(QWidget):
    """One snag."""

    def __init__(self, snag: Snag, number: int, parent: SnagList) -> None:
        super().__init__()
        self.snag, self.number, self.list = snag, number, parent
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 2, 8, 2)
        row.setSpacing(8)
        row.addWidget(Flag(number, snag.weight is Weight.BLOCKS), 0, Qt.AlignmentFlag.AlignTop)
        words = QVBoxLayout()
        words.setSpacing(0)
        head = self.head = QPushButton(snag.title.replace("&", "&&"))
        head.setObjectName("link")
        head.setToolTip("Show where")
        head.clicked.connect(lambda: parent.shown.emit(snag))
        words.addWidget(head, 0, Qt.AlignmentFlag.AlignLeft)
        why = Told(snag.why)
        why.setObjectName("soft")
        why.setContentsMargins(3, 0, 0, 0)
        words.addWidget(why)
        row.addLayout(words, 1)
        self.buttons: list[QPushButton] = []
        for fix in snag.fixes:
            button = QPushButton(fix.words)
            button.setObjectName("fix")
            button.setToolTip(plain_tip(f"Mend it: {fix.words}"))
            button.clicked.connect(lambda _=False, chosen=fix: parent.mend(snag, chosen))
            row.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
            self.buttons.append(button)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.list.menu_wanted.emit(self.snag, event.globalPos())


class SnagList(QScrollArea):
    """All snags of the plan."""

    fixed = Signal(Edit)
    shown = Signal(Snag)
    menu_wanted = Signal(Snag, QPoint)

    def __init__(self) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.setObjectName("snags")
        self.setStyleSheet(
            f"QScrollArea#snags {{ background: {theme.WARNING_WASH}; border: 1px solid "
            f"{theme.RULE}; border-radius: {theme.RADIUS}px; }}"
        )
        self.setAccessibleName("Snags")
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # its rows have what is to be reached
        self.snags: tuple[Snag, ...] = ()
        self.rows: list[SnagRow] = []
        body = QWidget()
        self.column = QVBoxLayout(body)
        self.column.setContentsMargins(4, 6, 4, 6)
        self.column.setSpacing(2)
        self.column.addStretch(1)
        self.setWidget(body)
        self.hide()

    def show_snags(self, snags: tuple[Snag, ...]) -> None:
        """Show them in order; nothing at all if there are none.

        A press on one row may change the plan before it is done: rows that still hold stay, and
        those that go are only destroyed once the press is over.
        """
        if snags == self.snags:
            return
        self.snags = snags
        old = {(row.snag.key, row.snag.panel, row.number): row for row in self.rows}
        self.rows = []
        for at, snag in enumerate(snags, start=1):
            row = old.get((snag.key, snag.panel, at))
            if row is not None and row.snag == snag:
                del old[snag.key, snag.panel, at]
            else:
                row = SnagRow(snag, at, self)
            self.rows.append(row)
        for row in old.values():
            self.column.removeWidget(row)
            row.hide()
            row.deleteLater()
        for at, row in enumerate(self.rows):
            self.column.insertWidget(at, row)
        self.setVisible(bool(snags))
        self.updateGeometry()

    def mend(self, snag: Snag, fix: Edit) -> None:
        """A fix was pressed.  If the plan has changed since it was shown, the same fix of the same
        snag as it stands now is meant; if there is none any more, nothing is."""
        now = [fix for row in self.rows if row.snag == snag for fix in row.snag.fixes]
        if fix not in now:
            now = [
                other
                for row in self.rows
                if (row.snag.key, row.snag.panel) == (snag.key, snag.panel)
                for other in row.snag.fixes
                if other.words == fix.words
            ]
            if not now:
                return
            fix = now[0]
        self.fixed.emit(fix)

    def sizeHint(self) -> QSize:
        wide = max(self.viewport().width(), 400)
        high = sum(_high(row, wide - 8) + 2 for row in self.rows) + 14
        return QSize(400, min(high, theme.px(MOST_HIGH)))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In another width the reasons take other lines."""
        super().resizeEvent(event)
        if event.size().width() != event.oldSize().width():
            self.updateGeometry()


def _high(row: SnagRow, wide: int) -> int:
    layout = row.layout()
    if layout is not None and layout.hasHeightForWidth():
        return layout.totalHeightForWidth(wide)
    return row.sizeHint().height()
