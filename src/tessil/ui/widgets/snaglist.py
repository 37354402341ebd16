"""The snags: what, where, why, and the fixes as buttons; folded away when there are none."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QPointF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QContextMenuEvent, QGuiApplication, QPainter, QPaintEvent, QResizeEvent
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
from tessil.ui.widgets.scrolled import width_of
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Told, plain_tip

MOST_HIGH = 104  # pixels of snags in sight at once; the rest scrolls
STEADY_MS = 700  # that a list with fewer snags keeps its height: the window does not jump at a key


class Flag(QWidget):
    """A snag's number, as on the bench."""

    def __init__(self) -> None:
        super().__init__()
        self.number, self.blocks = 0, False
        fixed(self, 28, 28)

    def show_flag(self, number: int, blocks: bool) -> None:
        if (number, blocks) != (self.number, self.blocks):
            self.number, self.blocks = number, blocks
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_flag(painter, QPointF(14, 14), self.number, self.blocks)


class SnagRow(QWidget):
    """One snag."""

    def __init__(self, snag: Snag, parent: SnagList) -> None:
        super().__init__()
        self.number, self.list = 0, parent
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 2, 8, 2)
        row.setSpacing(8)
        self.flag = Flag()
        row.addWidget(self.flag, 0, Qt.AlignmentFlag.AlignTop)
        words = QVBoxLayout()
        words.setSpacing(0)
        head = self.head = QPushButton()
        head.setObjectName("link")
        head.setToolTip("Show where")
        head.clicked.connect(lambda: parent.shown.emit(self.snag))
        words.addWidget(head, 0, Qt.AlignmentFlag.AlignLeft)
        self.why = Told()
        self.why.setObjectName("soft")
        self.why.setContentsMargins(3, 0, 0, 0)
        words.addWidget(self.why)
        row.addLayout(words, 1)
        self.fixes = row
        self.all_buttons: list[QPushButton] = []
        self.show_snag(snag)

    @property
    def buttons(self) -> list[QPushButton]:
        """Those of the fixes that there are."""
        return self.all_buttons[: len(self.snag.fixes)]

    def show_snag(self, snag: Snag) -> None:
        """Show a snag, or the same as it has become, with the widgets there are."""
        self.snag = snag
        self.flag.show_flag(self.number, snag.weight is Weight.BLOCKS)
        self.head.setText(snag.title.replace("&", "&&"))
        self.why.setText(snag.why)
        while len(self.all_buttons) < len(snag.fixes):
            self._add_button(len(self.all_buttons))
        for at, button in enumerate(self.all_buttons):
            button.setVisible(at < len(snag.fixes))
        for button, fix in zip(self.buttons, snag.fixes, strict=True):
            button.setText(fix.words)
            button.setToolTip(plain_tip(f"Mend it: {fix.words}"))

    def _add_button(self, at: int) -> None:
        button = QPushButton()
        button.setObjectName("fix")
        button.clicked.connect(lambda: self.list.mend(self.snag, self.snag.fixes[at]))
        self.fixes.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
        self.all_buttons.append(button)

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
        self._spare: list[SnagRow] = []  # to be used again
        self._gone: list[SnagRow] = []  # a press may still be on them
        body = QWidget()
        self.column = QVBoxLayout(body)
        self.column.setContentsMargins(4, 6, 4, 6)
        self.column.setSpacing(2)
        self.column.addStretch(1)
        self.setWidget(body)
        self._held = 0  # pixels of height that are kept for a while
        self._steady = QTimer(self, singleShot=True, interval=STEADY_MS)
        self._steady.timeout.connect(self._let_go)
        self.hide()

    def show_snags(self, snags: tuple[Snag, ...]) -> None:
        """Show them in order; nothing at all if there are none.

        A press on one row may change the plan before it is done: while a button is down, a row
        whose snag has changed gives way to another, and is only destroyed once the press is over.
        Else the rows there are show what the snags have become.
        """
        if snags == self.snags:
            return
        self.snags = snags
        self._held = self.height() if self.isVisible() and snags else 0
        self._steady.start()
        pressed = QGuiApplication.mouseButtons() != Qt.MouseButton.NoButton
        old, self.rows = self.rows, []
        for at, snag in enumerate(snags):
            self.rows.append(self._row(old, at, snag, pressed))
        for row in old[len(snags) :]:
            row.hide()
            (self._gone if pressed else self._spare).append(row)
        if not pressed:
            for row in self._gone:
                row.deleteLater()
            self._gone = []
        self.setVisible(bool(snags))
        self.updateGeometry()

    def _row(self, old: list[SnagRow], at: int, snag: Snag, pressed: bool) -> SnagRow:
        """The row for a snag: the one in its place, one laid aside, or a new one."""
        row = old[at] if at < len(old) else None
        if row is not None and pressed and row.snag != snag:
            row.hide()
            self._gone.append(row)
            row = None
        if row is None:
            row = self._spare.pop() if self._spare else SnagRow(snag, self)
            self.column.insertWidget(at, row)
        if row.number != at + 1 or row.snag != snag:
            row.number = at + 1
            row.show_snag(snag)
        row.show()
        return row

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
        wide = max(width_of(self), 400)
        high = sum(_high(row, wide - 8) + 2 for row in self.rows) + 14
        return QSize(400, max(min(high, theme.px(MOST_HIGH)), self._held))

    def _let_go(self) -> None:
        """The hand rests: as high as the snags are."""
        if self._held:
            self._held = 0
            self.updateGeometry()

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
