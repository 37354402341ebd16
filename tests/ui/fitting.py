"""What does not fit in the window as it stands: words cut off, on one another, or off their ground."""

from PySide6.QtCore import QRect
from PySide6.QtGui import QFontMetricsF
from PySide6.QtWidgets import QAbstractButton, QCheckBox, QLabel, QLineEdit, QPushButton

from tessil.ui.widgets.bench import RULER
from tessil.ui.widgets.fields import Chooser
from tessil.ui.widgets.quietline import QuietLine


def not_fitting(window):
    """A line for each thing that does not fit."""
    window.bench.grab()
    return [*_widgets(window.work), *_bench(window.bench), *_column(window.column)]


def _widgets(top):
    for widget in top.findChildren(QLabel) + top.findChildren(QPushButton) + top.findChildren(QLineEdit):
        if not widget.isVisible() or isinstance(widget, QuietLine):
            continue
        text = widget.text()
        if not text or "\n" in text:
            continue
        if isinstance(widget, QLabel) and widget.wordWrap():
            if widget.heightForWidth(widget.width()) > widget.height() + 1:
                yield f"{text[:40]!r} is cut off below ({widget.width()}×{widget.height()})"
            continue
        room = widget.contentsRect().width()
        if isinstance(widget, QLineEdit):
            room -= 18
        elif isinstance(widget, QPushButton):
            room -= 4
        wide = QFontMetricsF(widget.font()).horizontalAdvance(text)
        if wide > room + 1:
            yield f"{text[:40]!r} in {type(widget).__name__} takes {wide:.0f} of {room}"
    for check in top.findChildren(QCheckBox):
        if check.isVisible() and check.sizeHint().width() > check.width() + 1:
            yield f"{check.text()!r} in a tick takes {check.sizeHint().width()} of {check.width()}"
    for chooser in top.findChildren(Chooser):
        room = chooser.width() - 31
        wide = QFontMetricsF(chooser.font()).horizontalAdvance(chooser.currentText())
        if chooser.isVisible() and wide > room + 1:
            yield f"{chooser.currentText()!r} in a list takes {wide:.0f} of {room}"
    for button in top.findChildren(QAbstractButton):
        parent = button.parentWidget()
        if button.isVisible() and parent is not None:
            inside = QRect(0, 0, parent.width(), parent.height()).adjusted(-1, -1, 1, 1)
            if not inside.contains(button.geometry()):
                yield f"{button.text() or button.accessibleName()!r} lies outside its place"


def _bench(bench):
    edge = RULER if bench.picture.ruled else 0
    boxes = [writing.box for writing in bench.written]
    for at, one in enumerate(bench.written):
        box = one.box
        if box.left < edge - 1 or box.top < edge - 1:
            yield f"{one.text!r} lies on the ruler"
        if box.right > bench.width() + 1 or box.bottom > bench.height() + 1:
            yield f"{one.text!r} lies off the bench"
        for other in boxes[at + 1 :]:
            if box.meets(other):
                yield f"{one.text!r} lies on other words"
        if bench.picture.caption and box.meets(bench._caption_box()):
            yield f"{one.text!r} lies on the caption"


def _column(column):
    view = column.scrolled.viewport().width()
    body = column.scrolled.widget()
    if body.width() > view or body.minimumSizeHint().width() > view:
        yield f"the column is {body.minimumSizeHint().width()} wide in a view of {view}"
