"""The snags: what, where, why, and the fixes as buttons; folded away when there are none."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
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


class Flag(QWidget):
    """A snag's number, as on the bench."""

    def __init__(self, number: int, blocks: bool) -> None:
        super().__init__()
        self.number, self.blocks = number, blocks
        self.setFixedSize(28, 28)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_flag(painter, QPointF(14, 14), self.number, self.blocks)


class SnagRow(QWidget):
    """One snag."""

    def __init__(self, snag: Snag, number: int, parent: SnagList) -> None:
        super().__init__()
        self.snag = snag
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 2, 8, 2)
        row.setSpacing(8)
        row.addWidget(Flag(number, snag.weight is Weight.BLOCKS), 0, Qt.AlignmentFlag.AlignTop)
        words = QVBoxLayout()
        words.setSpacing(0)
        head = QPushButton(snag.title)
        head.setObjectName("link")
        head.setToolTip("Show where")
        head.clicked.connect(lambda: parent.shown.emit(snag))
        words.addWidget(head, 0, Qt.AlignmentFlag.AlignLeft)
        why = QLabel(snag.why)
        why.setObjectName("soft")
        why.setWordWrap(True)
        why.setContentsMargins(3, 0, 0, 0)
        words.addWidget(why)
        row.addLayout(words, 1)
        self.buttons: list[QPushButton] = []
        for fix in snag.fixes:
            button = QPushButton(fix.words)
            button.setObjectName("fix")
            button.setToolTip(f"Mend it: {fix.words}")
            button.clicked.connect(lambda _=False, chosen=fix: parent.fixed.emit(chosen))
            row.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
            self.buttons.append(button)


class SnagList(QScrollArea):
    """All snags of the plan."""

    fixed = Signal(Edit)
    shown = Signal(Snag)

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
        self.snags: tuple[Snag, ...] = ()
        self.rows: list[SnagRow] = []
        self.hide()

    def show_snags(self, snags: tuple[Snag, ...]) -> None:
        """Show them in order; nothing at all if there are none."""
        if snags == self.snags:
            return
        self.snags = snags
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(4, 6, 4, 6)
        column.setSpacing(2)
        self.rows = [SnagRow(snag, at, self) for at, snag in enumerate(snags, start=1)]
        for row in self.rows:
            column.addWidget(row)
        self.setWidget(body)
        self.setVisible(bool(snags))
        self.updateGeometry()

    def sizeHint(self) -> QSize:
        high = sum(row.sizeHint().height() + 2 for row in self.rows) + 14
        return QSize(400, min(high, 104))
