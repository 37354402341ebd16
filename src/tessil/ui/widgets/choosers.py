"""Fields to choose in: a list, segments side by side, a tick box that answers on its row."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF, QWheelEvent
from PySide6.QtWidgets import QButtonGroup, QCheckBox, QComboBox, QHBoxLayout, QPushButton, QWidget

from tessil.drawing import theme
from tessil.ui.widgets.fields import Try, answered
from tessil.ui.widgets.words import plain_tip


class Chooser(QComboBox):
    """A list of choices, painted as a slip of paper with a small triangle."""

    def __init__(self, choices: tuple[tuple[Any, str], ...], attempt: Try) -> None:
        super().__init__()
        self.attempt = answered(attempt)
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


class LateChooser(Chooser):
    """A list whose further choices are only found when it is opened."""

    def __init__(
        self,
        choices: tuple[tuple[Any, str], ...],
        attempt: Try,
        more: Callable[[], tuple[tuple[Any, str], ...]],
    ) -> None:
        super().__init__(choices, attempt)
        self.kept, self.more = len(choices), more

    def showPopup(self) -> None:
        while self.count() > self.kept:
            self.removeItem(self.count() - 1)
        for key, words in self.more():
            self.addItem(words, key)
        super().showPopup()


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
        from PySide6.QtWidgets import QStyle, QStyleOptionButton  # of very many names: when seen

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
