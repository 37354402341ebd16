"""The figures of a stage with their workings, like a till receipt; a click points at one."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QEnterEvent,
    QFont,
    QFontMetricsF,
    QPainter,
    QPaintEvent,
    QPen,
)
from PySide6.QtWidgets import QVBoxLayout, QWidget

from tessil.core.memory.same import same
from tessil.core.numbers.lengths import Notation
from tessil.core.reading import Reading
from tessil.core.words.written import exact_text, value_text, working, working_words
from tessil.drawing import theme
from tessil.drawing.fonts import medium_font, text_font, text_height
from tessil.ui.widgets.bywidth import ByWidth
from tessil.ui.widgets.words import plain_tip

PAD = 8
WRAP = int(Qt.TextFlag.TextWordWrap)


class FigureRow(ByWidth):
    """One figure: name and value, below it the working and what it rests on."""

    menu_wanted = Signal(object, QPoint)

    def __init__(self, reading: Reading, notation: Notation) -> None:
        super().__init__()
        self._shown: tuple[Reading, Notation] | None = None
        self.show_reading(reading, notation)

    def show_reading(self, reading: Reading, notation: Notation) -> None:
        """Show another reading in this row."""
        figure = reading.figure
        shown = reading, notation
        if same(shown, self._shown):
            return
        self.reading, self._shown = reading, shown
        self.name = figure.label[:1].upper() + figure.label[1:]
        self._name_wide = QFontMetricsF(medium_font(theme.TEXT)).horizontalAdvance(self.name)
        self.value = value_text(figure, notation)
        self.sum = working(figure, notation) or reading.about.lower()
        self.basis = figure.basis.words
        self.setAccessibleName(f"{self.name}: {self.value}")
        self.setAccessibleDescription(f"{self.sum}, {self.basis}")
        self.changed()

    def tip(self) -> str:
        """What the figure is for, its sum in words, and its exact value."""
        assert self._shown is not None
        reading, notation = self._shown
        exact = exact_text(reading.figure, notation)
        words = working_words(reading.figure, notation)
        return plain_tip(
            f"{reading.about}.\n"
            + (f"{words}\n" if words else "")
            + (f"Exactly {exact}" if exact != self.value else "")
        )

    def enterEvent(self, event: QEnterEvent) -> None:
        """The tip is written when somebody comes to read it."""
        self.setToolTip(self.tip())
        super().enterEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.menu_wanted.emit(self.reading, event.globalPos())

    def _fonts(self) -> tuple[QFont, QFont]:
        return text_font(theme.FIGURE - 1, strong=True), text_font(theme.SMALL)

    def _right_room(self) -> float:
        value, small = (QFontMetricsF(font) for font in self._fonts())
        return max(value.horizontalAdvance(self.value), small.horizontalAdvance(self.basis)) + 10

    def high(self, width: int) -> int:
        room = width - 2 * PAD - self._right_room()
        more = self._name_more(width - 2 * PAD)
        high = max(text_height(self.sum, room, theme.SMALL + 1), theme.px(15))
        return round(theme.px(22) + more + high + 7)

    def _name_more(self, width: float) -> float:
        """What a name that does not fit beside its value takes below it."""
        room = width - self._value_room()
        if self._name_wide <= room:
            return 0.0
        one = QFontMetricsF(medium_font(theme.TEXT)).height()
        return max(text_height(self.name, room, theme.TEXT, strong=True) - one, 0.0)

    def _value_room(self) -> float:
        return QFontMetricsF(self._fonts()[0]).horizontalAdvance(self.value) + 10

    def minimumSizeHint(self) -> QSize:
        return QSize(200, 40)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(1, 1, -1, -2)
        if self.isChecked() or self.underMouse():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(theme.THREAD_WASH if self.isChecked() else theme.PAPER))
            painter.drawRoundedRect(box, 4, 4)
        if self.hasFocus():
            painter.setPen(QPen(QColor(theme.THREAD), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(box, 4, 4)
        self._words(painter, box.adjusted(PAD - 1, 2, -PAD + 1, -2))

    def _words(self, painter: QPainter, box: QRectF) -> None:
        value, small = self._fonts()
        right = int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        left = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        painter.setPen(QColor(theme.THREAD if self.isChecked() else theme.INK))
        painter.setFont(value)
        painter.drawText(box.adjusted(0, -1, 0, 0), right, self.value)
        painter.setFont(medium_font(theme.TEXT))
        painter.setPen(QColor(theme.INK))
        painter.drawText(box.adjusted(0, 1, -self._value_room(), 0), left | WRAP, self.name)
        more = self._name_more(box.width())
        painter.setPen(QColor(theme.SOFT))
        painter.setFont(small)
        painter.drawText(box.adjusted(0, theme.px(20) + more, 0, 0), right, self.basis)
        painter.setFont(text_font(theme.SMALL + 1))
        painter.drawText(
            box.adjusted(0, theme.px(20) + more, -self._right_room(), 0), left | WRAP, self.sum
        )


class Receipt(QWidget):
    """All figures of a stage."""

    picked = Signal(object)
    menu_wanted = Signal(object, QPoint)

    def __init__(self) -> None:
        super().__init__()
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(0)
        self.rows: list[FigureRow] = []

    def show_readings(
        self, readings: tuple[Reading, ...], notation: Notation, picked: Reading | None
    ) -> None:
        """Show these figures, using the rows there are."""
        while len(self.rows) > len(readings):
            row = self.rows.pop()
            self.column.removeWidget(row)
            row.hide()
            row.deleteLater()
        for at, reading in enumerate(readings):
            if at < len(self.rows):
                self.rows[at].show_reading(reading, notation)
            else:
                self._add(FigureRow(reading, notation))
            self.rows[at].setChecked(picked is not None and picked.key == reading.key)

    def _add(self, row: FigureRow) -> None:
        row.clicked.connect(lambda checked: self.picked.emit(row.reading if checked else None))
        row.menu_wanted.connect(self.menu_wanted)
        self.rows.append(row)
        self.column.addWidget(row)

    def row(self, key: str) -> FigureRow:
        """The row of a reading; raises KeyError if the stage has no such figure."""
        for row in self.rows:
            if row.reading.key == key:
                return row
        raise KeyError(key)
