"""A field with its label, its unit's other reading and the sentence below it."""

from __future__ import annotations

from functools import cached_property

from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from tessil.drawing import theme
from tessil.ui.widgets.choosers import Chooser, Segments
from tessil.ui.widgets.fields import TypedField
from tessil.ui.widgets.scrolled import Inside
from tessil.ui.widgets.sized import fixed, unfixed
from tessil.ui.widgets.words import Told, Words, plain_tip


class FieldRow(QWidget):
    """A label, its field, and room below for one sentence.

    The label stands beside the field, or above it where the field would be too narrow for what
    stands in it.
    """

    def __init__(self, label: str, field: QWidget, help_: str, label_width: int = 112) -> None:
        super().__init__()
        self.field, self.label_width = field, label_width
        self.label: Words | None = None
        self.outer = outer = QVBoxLayout(self)
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
            above = above.area if isinstance(above, Inside) else above.parentWidget()
        if above is None or above.verticalScrollBar().isVisible():
            return self.width()
        return self.width() - above.verticalScrollBar().sizeHint().width()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()
        self._give_room()

    def _give_room(self) -> None:
        """The sentence has its own lines: it lies on nothing."""
        if self._told() and self.error.text():
            self.error.setMinimumHeight(self.error.heightForWidth(self.width()))

    def tell(self, sentence: str) -> None:
        """Show a sentence under the field, or take it away."""
        self.field.setAccessibleDescription(sentence or self.field.toolTip())
        if not sentence and not self._told():
            return
        self.error.setText(sentence)
        self.error.setMinimumHeight(0)
        self.error.setVisible(bool(sentence))
        self._give_room()

    def _told(self) -> bool:
        """Whether there was anything to say yet."""
        return "error" in self.__dict__

    @cached_property
    def error(self) -> Told:
        """The sentence below the field: made when first there is one, for most never get one."""
        made = Told()
        made.setObjectName("error")
        made.hide()
        self.outer.addWidget(made)
        return made


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
