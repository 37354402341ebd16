"""What does not fit in the window as it stands: words cut off, on one another, off their ground."""

from PySide6.QtCore import QRect
from PySide6.QtGui import QFontMetricsF
from PySide6.QtWidgets import QAbstractButton, QCheckBox, QLabel, QLineEdit, QPushButton

from tessil.ui.widgets.bench import RULER
from tessil.ui.widgets.choosers import Chooser
from tessil.ui.widgets.quietline import QuietLine
from tessil.ui.widgets.words import Elided

GIVES_WAY = (QuietLine, Elided)  # what does not fit stands in their tooltip


def not_fitting(window):
    """A line for each thing that does not fit."""
    window.bench.grab()
    work = window.work
    return [
        *_labels(work),
        *_lines(work),
        *_lists(work),
        *_places(work),
        *_bench(window.bench),
        *_column(window.column),
    ]


def _seen(top, kind):
    return [widget for widget in top.findChildren(kind) if widget.isVisible()]


def _wide(widget, text):
    return QFontMetricsF(widget.font()).horizontalAdvance(text)


def _labels(top):
    for label in _seen(top, QLabel):
        text = label.text()
        if not text or "\n" in text or isinstance(label, GIVES_WAY):
            continue
        if label.wordWrap():
            if label.heightForWidth(label.width()) > label.height() + 1:
                yield f"{text[:40]!r} is cut off below"
        elif _wide(label, text) > label.contentsRect().width() + 1:
            yield f"{text[:40]!r} is cut off at {label.width()}"


def _lines(top):
    for kind, frame in ((QLineEdit, 18), (QPushButton, 4)):
        for widget in _seen(top, kind):
            room = widget.contentsRect().width() - frame
            wide = max(_wide(widget, line) for line in widget.text().split("\n"))
            if wide > room + 1:
                yield f"{widget.text()[:40]!r} takes {wide:.0f} of {room}"


def _lists(top):
    for chooser in _seen(top, Chooser):
        if _wide(chooser, chooser.currentText()) > chooser.width() - 30:
            yield f"{chooser.currentText()!r} does not fit its list"
    for check in _seen(top, QCheckBox):
        if check.sizeHint().width() > check.width() + 1:
            yield f"{check.text()!r} does not fit its tick"


def _places(top):
    for button in _seen(top, QAbstractButton):
        parent = button.parentWidget()
        inside = QRect(0, 0, parent.width(), parent.height()).adjusted(-1, -1, 1, 1)
        if not inside.contains(button.geometry()):
            yield f"{button.text() or button.accessibleName()!r} lies outside its place"


def _bench(bench):
    edge = RULER if bench.picture.ruled else 0
    for at, one in enumerate(bench.written):
        box = one.box
        if box.left < edge - 1 or box.top < edge - 1:
            yield f"{one.text!r} lies on the ruler"
        if box.right > bench.width() + 1 or box.bottom > bench.height() + 1:
            yield f"{one.text!r} lies off the bench"
        if any(box.meets(other.box) for other in bench.written[at + 1 :]):
            yield f"{one.text!r} lies on other words"
        if bench.picture.caption and box.meets(bench._caption_box()):
            yield f"{one.text!r} lies on the caption"


def _column(column):
    """Neither the choices nor the figures are wider than their place, and both are in sight."""
    areas = [area for area in (column.scrolled, column.told_area) if area.isVisible()]
    for area in areas:
        view = area.viewport().width()
        need = area.widget().minimumSizeHint().width()
        if max(need, area.widget().width()) > view:
            yield f"the column is {need} wide in a view of {view}"
    if column.fields and column.receipt.rows:
        for area in areas:
            if area.height() < min(area.needed, 0.36 * (column.height() - column.scrolled.y())) - 4:
                yield f"{area.height()} of the column's {column.height()} are little for a half"
