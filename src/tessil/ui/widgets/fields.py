"""Fields that are typed in: lengths, sizes, counts, words.  Each says in words what is
wrong beside itself, keeps what was typed, and never computes with it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any
from weakref import WeakKeyDictionary

from PySide6.QtCore import QEvent, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QFontMetricsF,
    QKeyEvent,
    QKeySequence,
    QPainter,
    QPaintEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QLineEdit, QWidget
from shiboken6 import isValid

from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError, Notation, read_length, read_size
from tessil.core.panels.choice import Got
from tessil.core.words.refusals import first_refusal, printable
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.ui.widgets.dressed import show_state

ERROR_DELAY = 600  # a sum half typed is not yet a mistake
# Fields that hold what is not read, or say what is wrong, in the order in which they came to it.
_unread: WeakKeyDictionary[TypedField, None] = WeakKeyDictionary()

Read = Callable[[str], Any]
Write = Callable[[Any], str]
Try = Callable[[Any, str], str]


def answered(attempt: Try) -> Try:
    """The same attempt; a value that cannot even be made is refused in a sentence, too."""

    def tried(value: Any, run: str) -> str:
        try:
            return attempt(value, run)
        except Refused as error:
            return first_refusal(error)

    return tried


def unread(inside: QWidget) -> list[TypedField]:
    """The fields in there that hold what is not read, or say what is wrong."""
    return [field for field in list(_unread) if isValid(field) and inside.isAncestorOf(field)]


class TypedField(QLineEdit):
    """A line that reads values: live while they make sense, with the sentence when not.

    ``attempt`` gets a value and returns a sentence or nothing.  ``told`` carries the
    sentence to show.  What is typed stays until it is read or Escape takes it back.
    """

    told = Signal(str)
    stepping = Signal()  # comes before a step by the wheel or an arrow

    def __init__(self, read: Read, write: Write, attempt: Try) -> None:
        super().__init__()
        self.read, self.write, self._hand_over = read, write, answered(attempt)
        self.value: Any = None
        self._entered: Any = None  # what stood here when the hands came
        self._taking = False
        self.typing = False  # while letters as they come are handed over
        self._origin: Any = None
        self.run = ""
        self._dirty = False
        self.sentence = ""
        self.new_run: Callable[[], str] = lambda: ""
        self.pointed: float | None = None  # where the wheel turned, as a share of the width
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.setInterval(ERROR_DELAY)
        self._late.timeout.connect(self._refuse)
        self.textEdited.connect(self._typed)

    @property
    def dirty(self) -> bool:
        """Whether what is typed here is not read yet."""
        return self._dirty

    @dirty.setter
    def dirty(self, dirty: bool) -> None:
        self._dirty = dirty
        if dirty:
            _unread[self] = None

    def show_empty(self, words: str) -> None:
        """What an empty field means."""
        self.setPlaceholderText(words)

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
            sentence = self._hand_over(value, run)
        finally:
            self._taking = False
        if self.typing and not sentence:
            self.value = value  # what else shows it follows when the hand rests
        return sentence

    def _typed(self, text: str) -> None:
        if not self.dirty:
            self._origin = self.value
        self.dirty = self.typing = True
        self.sentence = self._try(text)
        self.typing = False
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
        except Refused as error:
            return first_refusal(error)
        except (LengthError, ValueError) as error:
            return printable(str(error))
        return self.attempt(value, self.run)

    def begin(self, text: str) -> None:
        """The first letter of a new value, typed elsewhere: the hands go on here."""
        self.setFocus()
        self.setText(text)
        self._typed(text)

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
        if sentence:
            _unread[self] = None
        show_state(self, "wrong", bool(sentence))
        self.told.emit(sentence)

    def forget(self) -> None:
        """Take back what is typed and unread."""
        self.dirty = False
        self.sentence = ""
        self._late.stop()
        self._tell("")
        self.show_value(self.value)
        _unread.pop(self, None)

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
        except Refused as error:
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
        show_state(self, "got", got)


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


class NoteField(WordField):
    """A word that may be empty."""

    def _try_name(self, value: str, run: str) -> str:
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
