"""A size on the drawing, typed over: a field that lies on its figure while it is written in."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QFrame, QVBoxLayout

from tessil.core.shapes.acts.shaping import wish
from tessil.ui.desk import Desk
from tessil.ui.widgets.bench import Bench
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import LengthField
from tessil.ui.widgets.sized import fixed

BESIDE = 8  # pixels that stay free at the bench's sides


class _SizeField(LengthField):
    """Is taken by Return alone, since a size of the drawing may turn where all sizes begin; goes by
    Return, by Escape, by a look elsewhere."""

    box: SizeBox

    def _typed(self, text: str) -> None:
        if not self.dirty:
            self._origin = self.value  # what a refusal leaves as it is
        self.dirty = True
        self._tell("")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        super().keyPressEvent(event)
        done = event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not self.dirty
        if done or event.key() == Qt.Key.Key_Escape:
            event.accept()
            self.box.leave()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.forget()
        super().focusOutEvent(event)
        self.box.hide()


class SizeBox(QFrame):
    """Lies on a figure of the bench while another is typed."""

    def __init__(self, desk: Desk, bench: Bench) -> None:
        super().__init__(bench)
        self.desk, self.bench, self.key = desk, bench, ""
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.field = _SizeField(lambda: desk.plan.marks.notation, self._attempt, False)
        self.field.box = self
        self.field.new_run = desk.new_run
        self.field.setObjectName("size")
        self.row = FieldRow("", self.field, "Type another size; Return takes it, Escape leaves it")
        inside = QVBoxLayout(self)
        inside.setContentsMargins(6, 6, 6, 6)
        inside.addWidget(self.row)
        fixed(self, 168)
        self.hide()
        bench.size_wanted.connect(self.ask)
        desk.planned.connect(self._show)
        desk.looked.connect(self.leave)

    def ask(self, key: str, at: QPoint) -> None:
        """Ask for another size of that key, its figure's middle at a point of the bench."""
        self.key = key
        self.field.forget()
        self.field.setAccessibleName(self._label())
        self._show()
        self.adjustSize()
        most_x = self.bench.width() - self.width() - BESIDE
        most_y = self.bench.height() - self.height() - BESIDE
        x, y = at.x() - self.width() // 2, at.y() - self.height() // 2
        self.move(max(min(x, most_x), BESIDE), max(min(y, most_y), BESIDE))
        self.show()
        self.raise_()
        self.field.setFocus()
        self.field.selectAll()

    def leave(self) -> None:
        """Done: the bench is in hand again."""
        if self.isVisible():
            at_work = self.field.hasFocus()
            self.field.forget()
            self.hide()
            if at_work:
                self.bench.setFocus()

    def _label(self) -> str:
        return next(one.label for one in self.desk.plan.shape.fields if one.key == self.key)

    def _show(self) -> None:
        plan = self.desk.plan
        keys = {field.key for field in plan.shape.fields}
        if self.key not in keys:
            self.hide()
            return
        finished = dict(zip(plan.shape.finished_keys, plan.bag.finished, strict=True))
        figure = finished.get(self.key) or plan.sizes[self.key]
        self.field.show_value(figure.value)

    def _attempt(self, value: Any, run: str) -> str:
        plan = self.desk.plan
        got = plan.panel(plan.shape.leader).measured
        if any(side is not None for one in (got.trimmed, got.notch) for side in dict(one).values()):
            label = plan.panel(plan.shape.leader).panel.label.lower()
            return f"The {label} was measured as it is trimmed: take that back first, then wish."
        return self.desk.attempt(wish(self.desk.plan, self.key, value), f"size {run}")
