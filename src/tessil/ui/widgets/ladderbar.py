"""The size ladder under the bench, with a box at each rung for what really came out."""

from __future__ import annotations

from collections.abc import Callable, Collection

from PySide6.QtCore import QPoint, QPointF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QFontMetricsF,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QShowEvent,
)
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from tessil.core.memory.same import same
from tessil.core.numbers.lengths import Notation
from tessil.core.panels.ladder import Rung
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.ui.widgets.dressed import show_state
from tessil.ui.widgets.fields import MeasuredField
from tessil.ui.widgets.oneof import OneOf
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Elided, Words

FIGURE, SMALLER = 17, 14  # as the style sheet has them
Measure = Callable[[str, object, str], str]


class Arrow(QWidget):
    """From one rung to the next."""

    def __init__(self) -> None:
        super().__init__()
        fixed(self, 20, 30)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(theme.FAINT), 1.4))
        y = self.height() / 2
        end = self.width() - 2.0
        painter.drawLine(QPointF(1, y), QPointF(end, y))
        painter.drawPolyline([QPointF(end - 5, y - 4), QPointF(end, y), QPointF(end - 5, y + 4)])


class RungCell(QWidget):
    """One rung: its name, its size, how sure that is, and the measured box."""

    menu_wanted = Signal(str, QPoint)

    def __init__(self, key: str, notation: Callable[[], Notation], measure: Measure) -> None:
        super().__init__()
        self.key = key
        self.notation = notation
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.name, self.size_text = "", ""
        self.caps = Words()
        self.caps.setFont(text_font(theme.SMALL, strong=True))
        self.caps.setObjectName("soft")
        self.figure = Words()
        self.figure.setObjectName("figure")
        self.note = Elided()
        self.note.setObjectName("soft")
        self.box = MeasuredField(notation, lambda got, run: measure(self.key, got, run))
        self.error = Words()
        self.error.setObjectName("error")
        self.error.setWordWrap(True)
        self.error.hide()
        self.box.told.connect(self._tell)
        upper_left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop
        for part in (self.caps, self.figure, self.note, self.box, self.error):
            where = Qt.AlignmentFlag.AlignTop if part is self.note else upper_left
            column.addWidget(part, 0, where)
        column.addStretch(1)

    def _tell(self, sentence: str) -> None:
        self.error.setText(sentence)
        wide = max(self.box.width(), theme.px(150))
        self.error.setFixedWidth(wide)
        self.error.setMinimumHeight(self.error.heightForWidth(wide) if sentence else 0)
        self.error.setVisible(bool(sentence))

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.menu_wanted.emit(self.key, event.globalPos())

    def show_rung(self, rung: Rung) -> None:
        number = f"{rung.number.whole} " if rung.number else ""
        self.name = number + rung.label.upper()
        self.size_text = size = self.notation().size(*(figure.value for figure in rung.sizes))
        self.show_unit(True)
        self.note.say(self._note(rung))
        exact = " × ".join(self.notation().exact(figure.value) for figure in rung.sizes)
        self.figure.setToolTip(f"Exactly {exact}")
        self.box.setVisible(rung.measurable)
        self.box.setAccessibleName(f"{rung.label}, measured width × height")
        self.box.setToolTip(
            f"Type what the {rung.label.lower()} panel really measures: 15 1/8 x 12"
        )
        self.box.planned = rung.planned.values() if rung.planned else None
        self.box.show_value(rung.got)
        self.setAccessibleName(f"{self.caps.text()}: {size}")

    def show_unit(self, beside: bool) -> None:
        """The unit beside the size, or, where that is too long, with the rung's name."""
        metric = not beside and self.size_text.endswith(" cm")
        self.caps.setText(self.name + (", cm" if metric else ""))
        self.figure.setText(self.size_text.removesuffix(" cm") if metric else self.size_text)

    def hold(self, below: QWidget) -> None:
        """Something to choose where this rung has no box."""
        column = self.layout()
        if isinstance(column, QVBoxLayout):
            column.insertWidget(column.indexOf(self.box), below)

    def show_narrow(self, narrow: bool) -> None:
        """Smaller figures and box where there is little room."""
        fixed(self.box, 98 if narrow else 128)
        show_state(self.figure, "narrow", narrow)

    def _note(self, rung: Rung) -> str:
        if rung.least is None or rung.most is None:
            if rung.note == "measured" and rung.planned is not None:
                return f"planned {self.notation().size(*rung.planned.values())}"
            return rung.note
        spread = max(
            (rung.most.width.value - rung.least.width.value) / 2,
            (rung.most.height.value - rung.least.height.value) / 2,
        )
        return f"{rung.note} ± {self.notation().read_off(spread)}" if spread else rung.note


class LadderBar(QWidget):
    """All rungs of the panel in hand."""

    stepping = Signal()
    menu_wanted = Signal(str, QPoint)

    def __init__(self, notation: Callable[[], Notation], measure: Measure) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.notation, self.measure = notation, measure
        self.one_of = OneOf()
        self.one_of.setParent(self)
        self.row = QHBoxLayout(self)
        self.row.setSpacing(4)
        self.cells: dict[str, RungCell] = {}
        self.arrows: list[Arrow] = []
        self.panel = ""
        self._shown: object = None

    def show_ladder(self, panel: str, rungs: tuple[Rung, ...]) -> None:
        """Show the rungs, keeping the boxes of a panel while its rungs stay the same."""
        shown = panel, rungs, self.notation()
        if same(shown, self._shown):
            return
        self._shown = shown
        keys: list[str] = [rung.key for rung in rungs]
        if panel != self.panel or keys != list(self.cells):
            self._rebuild(panel, keys)
        for rung in rungs:
            self.cells[rung.key].show_rung(rung)
        if self.isVisible():
            self._fit()

    def show_one(self, nth: int, of: int, measured: Collection[str]) -> None:
        """Which of the bags made alike the boxes are for: said where the last rung has none."""
        self.one_of.show_one(nth, of, measured)

    def _wanted(self, size: int, box: int) -> float:
        """The width that all figures take at a size, with their boxes."""
        metrics = QFontMetricsF(text_font(theme.px(size), strong=True))
        small = QFontMetricsF(text_font(theme.SMALL, strong=True))
        cells = sum(
            max(
                metrics.horizontalAdvance(cell.figure.text()) + 4,
                small.horizontalAdvance(cell.caps.text()) + 4,
                0.0 if cell.box.isHidden() else theme.px(box),
            )
            for cell in self.cells.values()
        )
        gap = theme.px(20) + 14 if size == FIGURE else theme.px(12) + 8
        return cells + gap * max(len(self.cells) - 1, 0) + 30

    def _rebuild(self, panel: str, keys: list[str]) -> None:
        self.one_of.setParent(self)
        while (item := self.row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self.panel = panel
        self.cells, self.arrows = {}, []
        for at, key in enumerate(keys):
            if at:
                self.arrows.append(Arrow())
                self.row.addWidget(self.arrows[-1], 0, Qt.AlignmentFlag.AlignTop)
            cell = RungCell(key, self.notation, self.measure)
            cell.box.stepping.connect(self.stepping)
            cell.menu_wanted.connect(self.menu_wanted)
            self.cells[key] = cell
            self.row.addWidget(cell)
        cell.hold(self.one_of)

    def _fit(self) -> None:
        """In a narrow window smaller figures and boxes, and the unit said once with the name."""
        for cell in self.cells.values():
            cell.show_unit(True)
        narrow = self.width() < self._wanted(FIGURE, 128)
        tight = narrow and self.width() < self._wanted(SMALLER, 98)
        for cell in self.cells.values():
            cell.show_unit(not tight)
        for cell in self.cells.values():
            cell.show_narrow(narrow)
        self.one_of.show_narrow(narrow)
        for arrow in self.arrows:
            fixed(arrow, 7 if tight else 12 if narrow else 20)
        self.row.setSpacing(2 if narrow else 4)
        margins = (8, 10, 2, 8) if tight else (12, 10, 4, 8) if narrow else (16, 10, 12, 8)
        self.row.setContentsMargins(*margins)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self._fit()
