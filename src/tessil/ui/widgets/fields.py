"""Fields for decisions: lengths, sizes, counts, words, choices.  Each says in words what is
wrong beside itself, keeps what was typed, and never computes with it."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction
from typing import Any

from pydantic import ValidationError
from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QFontMetricsF,
    QKeyEvent,
    QKeySequence,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import (
    QBoxLayout,
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QStyle,
    QStyleOptionButton,
    QVBoxLayout,
    QWidget,
)

from tessil.core.lengths import LengthError, Notation, read_length, read_size
from tessil.core.project import Got
from tessil.core.refusals import first_refusal
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.ui.widgets.sized import fixed, unfixed
from tessil.ui.widgets.words import Told, Words, plain_tip

ERROR_DELAY = 600  # a sum half typed is not yet a mistake

Read = Callable[[str], Any]
Write = Callable[[Any], str]
Try = Callable[[Any, str], str]


def told(attempt: Try) -> Try:
    """The same attempt; a value that cannot even be made is refused in a sentence, too."""

    def tried(value: Any, run: str) -> str:
        try:
            return attempt(value, run)
        except ValidationError as error:
            return first_refusal(error)

    return tried


class TypedField(QLineEdit):
    """A line that reads values: live while they make sense, with the sentence when not.

    ``attempt`` gets a value and returns a sentence or nothing.  ``told`` carries the
    sentence to show.  What is typed stays until it is read or Escape takes it back.
    """

    told = Signal(str)
    stepping = Signal()  # comes before a step by the wheel or an arrow

    def __init__(self, read: Read, write: Write, attempt: Try) -> None:
        super().__init__()
        self.read, self.write, self._hand_over = read, write, told(attempt)
        self.value: Any = None
        self._entered: Any = None  # what stood here when the hands came
        self._taking = False
        self._origin: Any = None
        self.run = ""
        self.dirty = False
        self.sentence = ""
        self.new_run: Callable[[], str] = lambda: ""
        self.pointed: float | None = None  # where the wheel turned, as a share of the width
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.setInterval(ERROR_DELAY)
        self._late.timeout.connect(self._refuse)
        self.textEdited.connect(self._typed)

    def show_value(self, value: Any) -> None:
        """Show the desk's value, unless something unread is still typed here."""
        if value != self.value and not self._taking:
            self._entered = value  # changed from elsewhere: that is what stands here now
        self.value = value
        if not self.dirty:
            text = self.write(value)
            if text != self.text():
                self.setText(text)
                if not self.hasFocus():
                    self.setCursorPosition(0)

    def attempt(self, value: Any, run: str) -> str:
        """Hand a value over; what it changes here is this field's own doing."""
        self._taking = True
        try:
            return self._hand_over(value, run)
        finally:
            self._taking = False

    def _typed(self, text: str) -> None:
        if not self.dirty:
            self._origin = self.value
        self.dirty = True
        self.sentence = self._try(text)
        if self.sentence:
            self._late.start()
        else:
            self._late.stop()
            self._tell("")

    def _refuse(self) -> None:
        """Say what is wrong, and take back what its first letters alone would have meant."""
        self._tell(self.sentence)
        if self.value != self._origin:
            self.attempt(self._origin, self.run)

    def _try(self, text: str) -> str:
        try:
            value = self.read(text)
        except ValidationError as error:
            return first_refusal(error)
        except (LengthError, ValueError) as error:
            return str(error)
        return self.attempt(value, self.run)

    def settle(self) -> None:
        """Take what is typed as meant: show it read, or say at once what is wrong."""
        if not self.dirty:
            return
        self._late.stop()
        self.sentence = self._try(self.text())
        if self.sentence:
            self._refuse()
            return
        self._tell("")
        self.dirty = False
        self.setText(self.write(self.value))  # letters are settled: undo is the plan's from here

    def _tell(self, sentence: str) -> None:
        wrong = bool(sentence)
        if self.property("wrong") != wrong:
            self.setProperty("wrong", wrong)
            self.style().unpolish(self)
            self.style().polish(self)
        self.told.emit(sentence)

    def forget(self) -> None:
        """Take back what is typed and unread."""
        self.dirty = False
        self.sentence = ""
        self._late.stop()
        self._tell("")
        self.show_value(self.value)

    def give_back(self) -> bool:
        """Put back what stood here when the hands came; whether there was anything to put back."""
        changed = self.dirty or self.value != self._entered
        self.forget()
        if self.value != self._entered:
            self.attempt(self._entered, self.run)
        self.show_value(self.value)
        return changed

    def event(self, event: QEvent) -> bool:
        """Undo takes back letters first; where there are none it belongs to the plan."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent):
            undo, redo = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo
            letters = (event.matches(undo) and self.isUndoAvailable()) or (
                event.matches(redo) and self.isRedoAvailable()
            )
            if (event.matches(undo) or event.matches(redo)) and not letters:
                event.ignore()
                return True
        return super().event(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.run = self.new_run()
        if not self.dirty:
            self._entered = self.value
        super().focusInEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.settle()
        super().focusOutEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            if not self.give_back():
                super().keyPressEvent(event)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.settle()
            if not self.dirty:
                self._entered = self.value
            self.selectAll()
            self.returnPressed.emit()
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.stepping.emit()
            self.step(1 if event.key() == Qt.Key.Key_Up else -1)
        else:
            super().keyPressEvent(event)

    def is_empty(self) -> bool:
        """Whether no value stands here: a turn of the wheel must not make one up."""
        return self.value is None

    def step(self, by: int) -> None:
        """Change the value by one step; nothing for fields that have none."""

    def wheelEvent(self, event: QWheelEvent) -> None:
        """A turn of the wheel steps what stands in the field in hand; elsewhere, and where nothing
        stands, it scrolls the column."""
        if not self.hasFocus() or self.is_empty():
            event.ignore()
            return
        self.stepping.emit()
        self.pointed = event.position().x() / max(self.width(), 1)
        self.step(1 if event.angleDelta().y() > 0 else -1)
        self.pointed = None
        event.accept()


class LengthField(TypedField):
    """A length in the maker's units, with the other unit shown faintly."""

    def __init__(self, notation: Callable[[], Notation], attempt: Try, optional: bool) -> None:
        self.notation = notation
        self.optional = optional
        super().__init__(self._read, self._write, attempt)

    def show_empty(self, words: str) -> None:
        """What an empty field means."""
        self.setPlaceholderText(words)

    def _read(self, text: str) -> Fraction | None:
        if self.optional and not text.strip():
            return None
        return read_length(text, self.notation().units)

    def _write(self, value: Fraction | None) -> str:
        return "" if value is None else self.notation().exact(value)

    def step(self, by: int) -> None:
        if self.value is None:
            return
        self.dirty = False
        self._tell(self.attempt(self.notation().next_mark(self.value, by), self.run))

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.value is None or self.dirty:
            return
        text = self.notation().other(self.value)
        painter = QPainter(self)
        painter.setFont(text_font(theme.SMALL))
        painter.setPen(QColor(theme.FAINT))
        room = QRectF(self.rect()).adjusted(0, 0, -8, 0)
        metrics = QFontMetricsF(painter.font())
        typed = QFontMetricsF(self.font()).horizontalAdvance(self.text())
        if typed + metrics.horizontalAdvance(text) + 28 < self.width():
            flags = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
            painter.drawText(room, int(flags), text)


class MeasuredField(TypedField):
    """Width × height as measured; empty when nothing was."""

    def __init__(self, notation: Callable[[], Notation], attempt: Try) -> None:
        self.notation = notation
        super().__init__(self._read, self._write, attempt)
        self.planned: tuple[Fraction, Fraction] | None = None
        self.setObjectName("measured")
        self.setPlaceholderText("what I got…")

    def _read(self, text: str) -> Got:
        if not text.strip():
            return Got()
        width, height = read_size(text, self.notation().units)
        for value in (width, height):
            if value <= 0:
                raise LengthError("A measured size must be more than zero.")
        return Got(width=width, height=height)

    def _write(self, value: Got | None) -> str:
        if value is None or (value.width is None and value.height is None):
            return ""
        exact = self.notation().exact
        sides = (value.width, value.height)
        return " × ".join("…" if side is None else exact(side) for side in sides)

    def is_empty(self) -> bool:
        return self.value is None or self.value == Got()

    def take_planned(self) -> None:
        """It came out as planned, as near as a maker measures."""
        if self.planned is not None:
            width, height = (self.notation().nearest(side) for side in self.planned)
            self._take_at_once(Got(width=width, height=height))

    def take_nothing(self) -> None:
        """It was not measured after all."""
        self._take_at_once(Got())

    def _take_at_once(self, got: Got) -> None:
        self.stepping.emit()
        self.dirty = False
        self._tell(self.attempt(got, self.new_run()))
        self.show_value(self.value)

    def step(self, by: int) -> None:
        """Step the side in hand; an arrow key begins an empty box at the planned size."""
        if self.planned is None:
            return
        notation = self.notation()
        value = self.value if isinstance(self.value, Got) else Got()
        if value.width is None or value.height is None:
            width, height = (notation.nearest(side) for side in self.planned)
        elif self._in_height():
            width, height = value.width, notation.next_mark(value.height, by)
        else:
            width, height = notation.next_mark(value.width, by), value.height
        self.dirty = False
        try:
            got = Got(width=width, height=height)
        except ValidationError as error:
            self._tell(first_refusal(error))
        else:
            self._tell(self.attempt(got, self.run))

    def _in_height(self) -> bool:
        if self.pointed is not None:
            return self.pointed > 0.5
        return self.cursorPosition() > self.text().find("×") >= 0

    def show_value(self, value: Any) -> None:
        super().show_value(value)
        got = value is not None and (value.width is not None or value.height is not None)
        if self.property("got") != got:
            self.setProperty("got", got)
            self.style().unpolish(self)
            self.style().polish(self)


class CountField(TypedField):
    """A whole number."""

    def __init__(self, attempt: Try, optional: bool = False) -> None:
        self.optional = optional
        super().__init__(self._read, lambda value: "" if value is None else str(value), attempt)

    def _read(self, text: str) -> int | None:
        text = text.strip()
        if self.optional and not text:
            return None
        if not re.fullmatch(r"[-−]?[0-9]{1,9}", text):
            raise ValueError("A whole number goes here, such as 2.")
        return int(text.replace("−", "-"))

    def step(self, by: int) -> None:
        if self.value is None:
            return
        self.dirty = False
        self._tell(self.attempt(self.value + by, self.run))


class WordField(TypedField):
    """A name."""

    def __init__(self, attempt: Try) -> None:
        super().__init__(str, lambda value: value or "", self._try_name)
        self._attempt = attempt

    def _try_name(self, value: str, run: str) -> str:
        if not value.strip():
            return "A name is missing here."
        if len(value) > 80:
            return "A name of at most 80 letters goes here."
        return self._attempt(value.strip(), run)


class EntryField(WordField):
    """A line to type one thing after another; what was taken leaves it empty."""

    def __init__(self, attempt: Try) -> None:
        super().__init__(attempt)
        self.setPlaceholderText("type and press Return")
        self.textEdited.disconnect()
        self.textEdited.connect(self._typing)
        self.returnPressed.connect(self._enter)

    def _typing(self) -> None:
        self.dirty = True
        self._tell("")

    def _enter(self) -> None:
        if not self.text().strip():
            return
        sentence = self._attempt(self.text().strip(), "")
        self._tell(sentence)
        if not sentence:
            self.dirty = False
            self.clear()

    def settle(self) -> None:
        """Half typed is not taken: it is a thing to add only once it is entered."""


class Chooser(QComboBox):
    """A list of choices, painted as a slip of paper with a small triangle."""

    def __init__(self, choices: tuple[tuple[Any, str], ...], attempt: Try) -> None:
        super().__init__()
        self.attempt = told(attempt)
        for key, words in choices:
            self.addItem(words, key)
        self.setMinimumHeight(30)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(6)
        self.activated.connect(lambda at: self.attempt(self.itemData(at), ""))

    def show_value(self, value: Any) -> None:
        self.setCurrentIndex(max(self.findData(value), 0))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()  # a turn of the wheel over the column scrolls it, and changes nothing

    def minimumSizeHint(self) -> QSize:
        return QSize(80, super().minimumSizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        focus = self.hasFocus()
        painter.setPen(QPen(QColor(theme.THREAD if focus else theme.RULE), 2 if focus else 1))
        painter.setBrush(QColor(theme.CARD))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 4, 4)
        painter.setPen(QColor(theme.INK))
        painter.setFont(self.font())
        room = self.rect().adjusted(9, 0, -22, 0)
        text = self.fontMetrics().elidedText(
            self.currentText(), Qt.TextElideMode.ElideRight, room.width()
        )
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        painter.drawText(room, int(flags), text)
        self._triangle(painter)

    def _triangle(self, painter: QPainter) -> None:
        x, y = self.width() - 14.0, self.height() / 2 - 1.5
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.SOFT))
        shape = QPolygonF()
        for dx, dy in ((-4.0, 0.0), (4.0, 0.0), (0.0, 5.0)):
            shape.append(QRectF(x + dx, y + dy, 0, 0).topLeft())
        painter.drawPolygon(shape)


class Segments(QWidget):
    """Two or three choices side by side."""

    def __init__(self, choices: tuple[tuple[Any, str], ...], attempt: Try) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(1, 0, 0, 0)
        row.setSpacing(0)
        self.buttons: dict[str, QPushButton] = {}
        self.group = QButtonGroup(self)
        for key, words in choices:
            button = QPushButton(words)
            button.setObjectName("segment")
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.clicked.connect(lambda _=False, chosen=key: attempt(chosen, ""))
            self.group.addButton(button)
            self.buttons[key] = button
            row.addWidget(button, 1)

    def show_value(self, value: Any) -> None:
        if value in self.buttons:
            self.buttons[value].setChecked(True)

    def setAccessibleName(self, name: str) -> None:
        super().setAccessibleName(name)
        for button in self.buttons.values():
            button.setAccessibleName(f"{name}: {button.text()}")

    def setToolTip(self, text: str) -> None:
        for button in self.buttons.values():
            button.setToolTip(plain_tip(text))


class Tick(QCheckBox):
    """A check box with a stitched tick, so that on is more than a colour; it answers on its whole
    row."""

    def hitButton(self, pos: QPoint) -> bool:
        return self.rect().contains(pos)

    def minimumSizeHint(self) -> QSize:
        return QSize(60, super().minimumSizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.hasFocus():
            ring = QPainter(self)
            ring.setPen(QPen(QColor(theme.THREAD), 2))
            ring.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 4, 4)
            ring.end()
        if not self.isChecked():
            return
        option = QStyleOptionButton()
        self.initStyleOption(option)
        part = QStyle.SubElement.SE_CheckBoxIndicator
        box = QRectF(self.style().subElementRect(part, option, self))
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(theme.CARD), 2.2))
        w, h = box.width(), box.height()
        start = QPointF(box.left() + w * 0.24, box.top() + h * 0.52)
        turn = QPointF(box.left() + w * 0.43, box.top() + h * 0.72)
        end = QPointF(box.left() + w * 0.78, box.top() + h * 0.28)
        painter.drawPolyline([start, turn, end])


class FieldRow(QWidget):
    """A label, its field, and room below for one sentence.

    The label stands beside the field, or above it where the field would be too narrow for what
    stands in it.
    """

    def __init__(self, label: str, field: QWidget, help_: str, label_width: int = 112) -> None:
        super().__init__()
        self.field, self.label_width = field, label_width
        self.label: Words | None = None
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(2)
        self.row = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self.row.setSpacing(8)
        outer.addLayout(self.row)
        if label:
            self.label = Words(label)
            self.label.setObjectName("soft")
            self.label.setBuddy(field)
            self.label.setWordWrap(True)
            fixed(self.label, label_width)
            self.row.addWidget(self.label)
        self.row.addWidget(field, 1)
        self.error = Told()
        self.error.setObjectName("error")
        self.error.hide()
        outer.addWidget(self.error)
        field.setToolTip(plain_tip(help_))
        field.setAccessibleName(label or field.accessibleName())
        field.setAccessibleDescription(help_)
        if isinstance(field, TypedField):
            field.told.connect(self.tell)

    def fit(self) -> None:
        """Put the label beside the field or above it; never while the hands are in the field."""
        if self.label is None or self.field.hasFocus():
            return
        above = _wide(self.field) > self._room() - theme.px(self.label_width) - 8
        way = QBoxLayout.Direction.TopToBottom if above else QBoxLayout.Direction.LeftToRight
        if self.row.direction() != way:
            self.row.setDirection(way)
            self.row.setSpacing(2 if above else 8)
            if above:
                unfixed(self.label)
            else:
                fixed(self.label, self.label_width)

    def _room(self) -> int:
        """The width there is beside a scroll bar, whether it shows just now or not: were it counted
        only while it shows, rows and bar would chase one another."""
        above = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        if above is None or above.verticalScrollBar().isVisible():
            return self.width()
        return self.width() - above.verticalScrollBar().sizeHint().width()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()
        self._give_room()

    def _give_room(self) -> None:
        """The sentence has its own lines: it lies on nothing."""
        if self.error.text():
            self.error.setMinimumHeight(self.error.heightForWidth(self.width()))

    def tell(self, sentence: str) -> None:
        """Show a sentence under the field, or take it away."""
        self.error.setText(sentence)
        self.error.setMinimumHeight(0)
        self.error.setVisible(bool(sentence))
        self._give_room()
        self.field.setAccessibleDescription(sentence or self.field.toolTip())


def _wide(field: QWidget) -> int:
    """How wide a field must be for the longest that may stand in it."""
    metrics = field.fontMetrics()
    if isinstance(field, Chooser):
        words = (field.itemText(at) for at in range(field.count()))
        return max((metrics.horizontalAdvance(text) for text in words), default=0) + 33
    if isinstance(field, Segments):
        return sum(button.sizeHint().width() for button in field.buttons.values()) + 4
    if isinstance(field, QLineEdit):
        return metrics.horizontalAdvance(field.text()) + 22
    return 0
