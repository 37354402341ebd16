"""The workings column: the choices of a stage on top, its figures below, a caution last."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

from pydantic import ValidationError
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QCheckBox,
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tessil.core.checks.shape import hoop_words
from tessil.core.edits import edit
from tessil.core.lengths import Notation
from tessil.core.making.cautions import caution_for
from tessil.core.making.squaring import squaring_advice
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.files.projectfile import plain_sentence
from tessil.ui.desk import Desk
from tessil.ui.specs import Spec
from tessil.ui.stages import TITLES, TO_COME, specs
from tessil.ui.widgets.basket import Basket
from tessil.ui.widgets.fields import (
    Chooser,
    CountField,
    FieldRow,
    LengthField,
    Segments,
    TypedField,
    WordField,
)
from tessil.ui.widgets.receipt import Receipt

SHORT = {2: 21, 3: 16}  # choices with so few letters in all stand side by side


class Stitches(QFrame):
    """A row of running stitches between choices and figures."""

    def __init__(self) -> None:
        super().__init__()
        self.setFixedHeight(12)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(QColor(theme.THREAD), 1.4, Qt.PenStyle.CustomDashLine))
        pen = painter.pen()
        pen.setDashPattern([5, 4])
        painter.setPen(pen)
        painter.drawLine(2, 6, self.width() - 2, 6)


def _advice(desk: Desk) -> list[str]:
    """What the open stage has to say beyond its figures."""
    plan = desk.plan
    if desk.stage is Stage.TRIM:
        return [squaring_advice(plan.panel(desk.panel), plan.marks.notation)]
    return [_cloth_words(desk), hoop_words(plan)]


def _cloth_words(desk: Desk) -> str:
    """How the cloth is used, and what limits the bag, where it was begun from cloth."""
    fit = desk.plan.cloth
    if fit is None or desk.stage is not Stage.BRIEF:
        return ""
    cut = f"cut {fit.across} across by {fit.down} down" if fit.across * fit.down > 1 else "whole"
    turned = ", turned" if fit.turned else ""
    return (
        f"The largest bag there is: each piece {cut}{turned}. It is the {fit.limits} of the cloth "
        f"that limits it. Counted for {_counted(desk)}; linings and other parts come on top."
    )


def _counted(desk: Desk) -> str:
    """The panels that the cloth was shared out to."""
    plan = desk.plan
    names = [p.panel.label.lower() for p in plan.panels if p.panel.kind == "outer"]
    return " and ".join(names[: plan.shape.cloths])


class Column(QWidget):
    """Shows and edits the open stage of the panel in hand."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(336)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(4, 8, 2, 8)
        outer.setSpacing(4)
        outer.addLayout(self._head())
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFrameShape(QFrame.Shape.NoFrame)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.scrolled = scroll
        body = QWidget()
        self.body = QVBoxLayout(body)
        self.body.setContentsMargins(10, 0, 8, 0)
        self.body.setSpacing(6)
        scroll.setWidget(body)
        outer.addWidget(scroll, 1)
        self.form = QVBoxLayout()
        self.form.setSpacing(6)
        self.stitches = Stitches()
        self.receipt = Receipt()
        self.receipt.picked.connect(desk.pick)
        self.caution = QLabel()
        self.caution.setObjectName("caution")
        self.caution.setWordWrap(True)
        self.body.addLayout(self.form)
        self.body.addWidget(self.stitches)
        self.body.addWidget(self.receipt)
        self.body.addWidget(self.caution)
        self.body.addStretch(1)
        self.fields: dict[str, FieldRow] = {}
        self.specs: dict[str, Spec] = {}
        self._shape: tuple[Any, ...] = ()
        self._place = ("", "")

    def _head(self) -> QHBoxLayout:
        self.title = QLabel()
        self.title.setObjectName("title")
        self.panel_name = QLabel()
        self.panel_name.setObjectName("soft")
        self.settled = QCheckBox("Settled")
        self.settled.setToolTip("This stage is decided: fill its dot (Ctrl+Return)")
        self.settled.clicked.connect(self._settle)
        row = QHBoxLayout()
        row.setContentsMargins(12, 0, 10, 0)
        row.addWidget(self.title)
        row.addWidget(self.panel_name, 1, Qt.AlignmentFlag.AlignBottom)
        row.addWidget(self.settled)
        return row

    def _settle(self, on: bool) -> None:
        desk = self.desk
        kept = [stage for stage in desk.project.settled if stage != desk.stage]
        words = f"{'Settle' if on else 'Reopen'} {TITLES[desk.stage].lower()}"
        self.desk.attempt(edit(words, ("settled", tuple(kept + [str(desk.stage)] * on))))

    def refresh(self) -> None:
        """Show the desk as it is."""
        desk = self.desk
        plan, stage = desk.plan, desk.stage
        label = plan.panel(desk.panel).panel.label
        general = stage in (Stage.EDGE, Stage.CUT, Stage.MAKE)
        self.title.setText(TITLES[stage])
        self.panel_name.setText("" if general else label.lower())
        self.settled.setChecked(str(stage) in desk.project.settled)
        self._show_form()
        figures = readings(plan, stage, desk.panel)
        self.receipt.show_readings(figures, plan.marks.notation, desk.picked)
        self.stitches.setVisible(bool(figures) and bool(self.fields))
        batting = plan.panel(desk.panel).choices.layers.batting
        words = [TO_COME.get(stage, ""), *_advice(desk), caution_for(stage, batting)]
        if not figures and not self.fields and not TO_COME.get(stage):
            words.insert(0, f"Nothing to decide for the {label.lower()} here.")
        self.caution.setText("\n\n".join(word for word in words if word))

    def _show_form(self) -> None:
        desk = self.desk
        made = specs(desk.plan, desk.stage, desk.panel)
        shape = tuple(spec.form for spec in made)
        place = (str(desk.stage), desk.panel)
        self.specs = {spec.key: spec for spec in made}
        if shape != self._shape or place != self._place:
            self._rebuild(made, keep=place == self._place)
            if place != self._place:
                self.scrolled.verticalScrollBar().setValue(0)
            self._shape, self._place = shape, place
        for spec in made:
            self._show_value(spec)

    def _rebuild(self, made: tuple[Spec, ...], keep: bool) -> None:
        """Lay the rows anew, keeping those of the same stage that still serve."""
        old = self.fields
        forms = {form[0]: form for form in self._shape} if keep else {}
        self.fields = {}
        while self.form.takeAt(0) is not None:
            pass
        for spec in made:
            row = old.pop(spec.key) if forms.get(spec.key) == spec.form else self._row(spec)
            self.fields[spec.key] = row
            self.form.addWidget(row)
        for row in old.values():
            row.hide()
            row.deleteLater()
        self._link_tabs()

    def _link_tabs(self) -> None:
        fields = [row.field for row in self.fields.values()]
        for one, other in pairwise(fields):
            QWidget.setTabOrder(one, other)
        if fields and self.receipt.rows:
            QWidget.setTabOrder(fields[-1], self.receipt.rows[0])

    def _notation(self) -> Notation:
        return self.desk.plan.marks.notation

    def _attempt(self, key: str, value: Any, run: str) -> str:
        spec = self.specs.get(key)
        if spec is None:
            return ""
        try:
            change = spec.edit(value)
        except ValidationError as error:
            return plain_sentence(error.errors()[0])
        return self.desk.attempt(change, f"{key} {run}" if run else "")

    def _row(self, spec: Spec) -> FieldRow:
        field = self._field(spec)
        if isinstance(field, TypedField):
            field.new_run = self.desk.new_run
        label = "" if spec.kind in ("toggle", "basket", "action") else spec.label
        row = FieldRow(label, field, spec.help)
        field.setObjectName(field.objectName() or spec.key)
        field.setAccessibleName(spec.label)
        return row

    def _field(self, spec: Spec) -> QWidget:
        key = spec.key

        def attempt(value: Any, run: str) -> str:
            sentence = self._attempt(key, value, run)
            if spec.kind in ("choice", "toggle", "basket", "action") and key in self.fields:
                self.fields[key].tell(sentence)
                if key in self.specs:
                    self._show_value(self.specs[key])
            return sentence

        if spec.kind in ("length", "length?"):
            return LengthField(self._notation, attempt, spec.kind == "length?")
        if spec.kind in ("count", "count?"):
            return CountField(attempt, spec.kind == "count?")
        if spec.kind == "word":
            return WordField(attempt)
        if spec.kind == "toggle":
            box = QCheckBox(spec.label)
            box.clicked.connect(lambda on: attempt(on, ""))
            return box
        if spec.kind == "basket":
            return self._basket()
        if spec.kind == "action":
            button = QPushButton(spec.label)
            button.clicked.connect(lambda: attempt(None, ""))
            return button
        letters = sum(len(words) for _, words in spec.choices)
        kind = Segments if letters <= SHORT.get(len(spec.choices), 0) else Chooser
        return kind(spec.choices, attempt)

    def _basket(self) -> Basket:
        basket = Basket(self.desk.project.prints)
        basket.laid.connect(self.lay_print)
        return basket

    def lay_print(self, key: str) -> None:
        """Lay a print on the piece in hand, or on all of a whole-cloth panel."""
        desk = self.desk
        panel = desk.plan.panel(desk.panel)
        prints = [band.print for band in panel.bands]
        if desk.piece is None and len(prints) > 1:
            self.fields["panel.piecing.prints"].tell("First click a piece on the bench.")
            return
        prints[desk.piece or 0] = key
        self._set_prints(prints)

    def swap_piece(self, step: int) -> None:
        """Swap the piece in hand with its neighbour and keep it in hand."""
        desk = self.desk
        prints = [band.print for band in desk.plan.panel(desk.panel).bands]
        if desk.stage is not Stage.PIECE or desk.piece is None:
            return
        other = desk.piece + step
        if 0 <= other < len(prints):
            prints[desk.piece], prints[other] = prints[other], prints[desk.piece]
            self._set_prints(prints)
            desk.select_piece(other)

    def _set_prints(self, prints: list[str]) -> None:
        self.fields["panel.piecing.prints"].tell("")
        self._attempt("panel.piecing.prints", tuple(prints), "")

    def _show_value(self, spec: Spec) -> None:
        field = self.fields[spec.key].field
        if isinstance(field, QPushButton):
            field.setText(spec.label)
        elif isinstance(field, QCheckBox):
            field.setChecked(bool(spec.value))
        elif isinstance(field, Basket):
            if field.prints != self.desk.project.prints:
                return
            bands = self.desk.plan.panel(self.desk.panel).bands
            piece = self.desk.piece if len(bands) > 1 else 0
            at = piece if piece is not None and piece < len(bands) else None
            field.show_piece(at, bands[at].print if at is not None else "")
        elif isinstance(field, (TypedField, Chooser, Segments)):
            field.show_value(spec.value)

    def field(self, key: str) -> QWidget:
        """The field of a key, for the window's shortcuts and for tests."""
        return self.fields[key].field
