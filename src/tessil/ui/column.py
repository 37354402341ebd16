"""The workings column: the choices of a stage on top, its figures below, a caution last."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import QCheckBox, QFrame, QHBoxLayout, QVBoxLayout, QWidget
from shiboken6 import isValid

from tessil.core.catalogue import Material
from tessil.core.edits import edit
from tessil.core.making.cautions import caution_for
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import Notation
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.words.refusals import first_refusal
from tessil.drawing import theme
from tessil.ui.advice import advice_of
from tessil.ui.desk import Desk
from tessil.ui.pricer import Pricer
from tessil.ui.searches import Searches
from tessil.ui.specs import Spec
from tessil.ui.stages import LEAVES, TITLES, leaf_of, specs
from tessil.ui.widgets.amounts import MoneyField, PercentField
from tessil.ui.widgets.basket import Basket
from tessil.ui.widgets.choosers import Chooser, LateChooser, Segments, Tick
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import (
    CountField,
    EntryField,
    LengthField,
    NoteField,
    Try,
    TypedField,
    WordField,
)
from tessil.ui.widgets.leaves import Leaves
from tessil.ui.widgets.question import Question
from tessil.ui.widgets.receipt import Receipt
from tessil.ui.widgets.scrolled import Scrolled
from tessil.ui.widgets.searchrow import SearchRow
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.slide import Slide
from tessil.ui.widgets.words import Words
from tessil.ui.widgets.wordybutton import WordyButton

CHOICES = 0.58  # of the column's height goes to choices at most, where figures need the rest
SHORT = {2: 21, 3: 16}  # choices with so few letters in all stand side by side


MOST_ASIDE = 120  # rows of fields; about as many as all stages of a bag ask for
_OF_THE_MOMENT = ("basket", "search", "slide")  # they hold more than their form says
_PLAIN_FIELDS: dict[str, Callable[[Try], QWidget]] = {
    "word": WordField,
    "entry": EntryField,
    "note": NoteField,
    "money": MoneyField,
    "percent": PercentField,
}


class Stitches(QFrame):
    """A row of running stitches between choices and figures."""

    def __init__(self) -> None:
        super().__init__()
        fixed(self, height=12)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(QColor(theme.THREAD), 1.4, Qt.PenStyle.CustomDashLine))
        pen = painter.pen()
        pen.setDashPattern([5, 4])
        painter.setPen(pen)
        painter.drawLine(2, 6, self.width() - 2, 6)


def _in_hand(plan: Plan, stage: Stage, panel: str) -> tuple[Material, ...]:
    """What is in hand at a stage: a panel's layers; where all panels meet, what is no cloth too."""
    if stage is Stage.LAYER:
        return plan.panel(panel).materials
    return tuple(entry for one in plan.panels if one.panel.made_of for entry in one.materials)


class Column(QWidget):
    """Shows and edits the open stage of the panel in hand."""

    print_clicked = Signal(str)
    page_wanted = Signal(str)
    stepping = Signal()

    def __init__(self, desk: Desk, searches: Searches, pricer: Pricer) -> None:
        super().__init__()
        self.desk, self.searches, self.pricer = desk, searches, pricer
        self.cutter, self.maker = pricer.cutter, pricer.maker
        pricer.moved.connect(self.refresh)
        searches.moved.connect(self._show_searches)
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(self, 336)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(4, 8, 2, 8)
        outer.setSpacing(4)
        outer.addLayout(self._head())
        self.leaves = Leaves()
        self.leaves.turned.connect(desk.turn_leaf)
        outer.addWidget(self.leaves)
        self.scrolled, self.told_area = Scrolled(), Scrolled()
        self.form = QVBoxLayout()
        self.form.setSpacing(6)
        self.scrolled.body.addLayout(self.form)
        self.scrolled.body.addStretch(1)
        self.stitches = Stitches()
        self.receipt = Receipt()
        self.receipt.picked.connect(desk.pick)
        self.caution = Words()
        self.caution.setObjectName("caution")
        self.caution.setWordWrap(True)
        self.told_area.body.addWidget(self.receipt)
        self.told_area.body.addWidget(self.caution)
        self.told_area.body.addStretch(1)
        outer.addWidget(self.scrolled)
        outer.addWidget(self.stitches)
        outer.addWidget(self.told_area, 1)
        for area in (self.scrolled, self.told_area):
            area.asks.connect(self._share)
        self.fields: dict[str, FieldRow] = {}
        self.specs: dict[str, Spec] = {}
        self._aside: dict[tuple[Any, ...], FieldRow] = {}
        self._shape: tuple[Any, ...] = ()
        self._place: tuple[str, ...] = ()

    def _head(self) -> QHBoxLayout:
        self.title = Words()
        self.title.setObjectName("title")
        self.panel_name = Words()
        self.panel_name.setObjectName("soft")
        self.settled = Tick("Settled")
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
        kept = [stage for stage in desk.project.settled if stage != desk.seen.stage]
        words = f"{'Settle' if on else 'Reopen'} {TITLES[desk.seen.stage].lower()}"
        self.desk.attempt(edit(words, ("settled", tuple(kept + [str(desk.seen.stage)] * on))))

    def refresh(self) -> None:
        """Show the desk as it is."""
        desk = self.desk
        plan, stage = desk.plan, desk.seen.stage
        label = plan.panel(desk.seen.panel).panel.label
        general = stage in (Stage.EDGE, Stage.CUT, Stage.MAKE)
        self.title.setText(TITLES[stage])
        self.panel_name.setText("" if general else label.lower())
        self.settled.setChecked(str(stage) in desk.project.settled)
        self._show_form()
        figures = self._figures()
        self.receipt.show_readings(figures, plan.marks.notation, desk.seen.picked)
        self.stitches.setVisible(bool(figures) and bool(self.fields))
        self.scrolled.setVisible(bool(self.fields))
        concerned = self.maker.concerned() if self.maker.here else stage
        caution = caution_for(concerned, _in_hand(plan, concerned, desk.seen.panel))
        state = [" ".join(self.maker.state()), self.maker.batch()] if self.maker.here else []
        if self.pricer.here:
            state, caution = self.pricer.words(), ""
        words = [*state, *advice_of(desk), *self.cutter.advice(), caution]
        if not figures and not self.fields:
            words.insert(0, f"Nothing to decide for the {label.lower()} here.")
        self.caution.setText("\n\n".join(word for word in words if word))
        self.caution.setVisible(bool(self.caution.text()))
        self._share()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._share()

    def _share(self) -> None:
        """Choices get the height they need, but never all: the figures stay in sight."""
        choices, figures = self.scrolled.needed, self.told_area.needed
        room = self.height() - self.scrolled.y() - self.stitches.height() - 16
        most = max(room - figures, round(room * CHOICES))
        self.scrolled.setFixedHeight(max(min(choices, most), 0))

    def _figures(self) -> tuple[Reading, ...]:
        """The figures of the stage; of the open leaf and part, where there are some."""
        desk = self.desk
        seen = desk.seen
        asked = (seen.stage, seen.panel)
        if self.pricer.here:
            return self.pricer.readings()
        if self.maker.here:
            return self.maker.readings()
        if self.cutter.here:
            found = self.cutter.readings()
            if found or self.cutter.first.laying:
                return found
        figures = desk.told("figures", lambda plan: readings(plan, *asked), asked)
        leaves = LEAVES.get(desk.seen.stage)
        if not leaves:
            return figures
        leaf = desk.seen.leaf.get(desk.seen.stage, leaves[0][0])
        return tuple(r for r in figures if r.leaf == leaf and r.zone in (None, desk.seen.asked))

    def _show_form(self) -> None:
        desk = self.desk
        leaves = LEAVES.get(desk.seen.stage, ())
        leaf = leaf_of(desk.seen.stage, desk.seen.leaf)
        self.leaves.show_leaves(leaves, leaf)
        seen = desk.seen
        if self.pricer.here:
            made = self.pricer.specs()
        else:
            made = specs(desk.plan, seen.stage, seen.panel, leaf, seen.asked, seen.ply)
        shape = tuple(spec.form for spec in made)
        place = (str(seen.stage), seen.panel, leaf, f"{seen.asked} {seen.ply}")
        self.specs = {spec.key: spec for spec in made}
        if shape != self._shape or place != self._place:
            self._rebuild(made, keep=place == self._place)
            turned = place != self._place
            self._shape, self._place = shape, place
            if turned:
                self._show_asked()
        for spec in made:
            self._show_value(spec)

    def _show_asked(self) -> None:
        """Another stage begins at its top; the question that was opened is in sight."""
        self.scrolled.verticalScrollBar().setValue(0)
        rows = list(self.fields.values())
        asked = [at for at, row in enumerate(rows) if isinstance(row.field, Question)]
        opened = [at for at in asked if self.specs[rows[at].field.objectName()].value[1]]
        if opened:
            after = [at for at in asked if at > opened[0]]
            self.wanted = rows[opened[0]], rows[(after[0] if after else len(rows)) - 1]
            QTimer.singleShot(0, self, self._scroll_to_asked)

    def _scroll_to_asked(self) -> None:
        first, last = self.wanted
        if isValid(first) and isValid(last):
            self.scrolled.lay_out()
            self.scrolled.ensureWidgetVisible(last, 0, 4)
            self.scrolled.ensureWidgetVisible(first, 0, 4)

    def _rebuild(self, made: tuple[Spec, ...], keep: bool) -> None:
        """Lay the rows anew, keeping those of the same stage that still serve."""
        old, forms = self.fields, {form[0]: form for form in self._shape}
        self.fields = {}
        self.scrolled.body.setEnabled(False)  # laid out once, not at every row
        while self.form.takeAt(0) is not None:
            pass
        for spec in made:
            kept = keep and forms.get(spec.key) == spec.form
            row = old.pop(spec.key) if kept else self._aside.pop(spec.form, None)
            if row is None:
                row = self._row(spec)
            self.fields[spec.key] = row
            self.form.addWidget(row)
            row.show()
        for key, row in old.items():
            row.hide()
            self._lay_aside(forms[key], row)
        self.scrolled.body.setEnabled(True)

    def _lay_aside(self, form: tuple[Any, ...], row: FieldRow) -> None:
        """A row that is not asked for now serves again when its stage comes back."""
        if form[1] in _OF_THE_MOMENT or form in self._aside:
            row.deleteLater()
            return
        if isinstance(row.field, TypedField):
            row.field.forget()  # half a word would stand in the way when the row comes back
        row.tell("")
        self._aside[form] = row
        while len(self._aside) > MOST_ASIDE:
            self._aside.pop(next(iter(self._aside))).deleteLater()

    def in_order(self) -> list[QWidget]:
        """What can be reached by Tab, as it is read: leaves, choices, figures."""
        leaves: list[QWidget] = list(self.leaves.buttons.values())
        fields: list[QWidget] = []
        for row in self.fields.values():
            if isinstance(row.field, Segments):
                fields += row.field.buttons.values()
            else:
                fields.append(row.field)
        return [*leaves, *fields, *self.receipt.rows, self.settled]

    def _notation(self) -> Notation:
        return self.desk.plan.marks.notation

    def _attempt(self, key: str, value: Any, run: str) -> str:
        spec = self.specs.get(key)
        if spec is None:
            return ""
        try:
            change = spec.edit(value)
        except Refused as error:
            return first_refusal(error)
        except ValueError as error:
            return str(error)
        return self.desk.attempt(change, f"{key} {run}" if run else "")

    def _try_out(self, key: str, value: Any) -> str:
        """Show what a slider would make; the field beside it says why not, if it cannot."""
        try:
            sentence = self.desk.try_out(self.specs[key].edit(value))
        except Refused as error:
            sentence = first_refusal(error)
        self.fields[key].tell(sentence)
        return sentence

    def show_sketch(self) -> None:
        """Show the figures of what is tried out."""
        notation = self.desk.plan.marks.notation
        self.receipt.show_readings(self._figures(), notation, self.desk.seen.picked)

    def _row(self, spec: Spec) -> FieldRow:
        field = self._field(spec)
        if isinstance(field, TypedField):
            field.new_run = self.desk.new_run
            field.stepping.connect(self.stepping)
        bare = ("toggle", "basket", "action", "page", "search", "slide", "question")
        label = "" if spec.kind in bare else spec.label
        row = FieldRow(label, field, spec.help)
        field.setObjectName(field.objectName() or spec.key)
        field.setAccessibleName(spec.label or spec.help)
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

        if spec.kind in ("length", "length?", "money?"):
            made = self._measured(spec, attempt)
            if spec.empty:
                made.show_empty(spec.empty)
            return made
        if spec.kind in ("count", "count?"):
            return CountField(attempt, spec.kind == "count?")
        if spec.kind == "slide":
            return Slide(self._notation, attempt, lambda value: self._try_out(key, value))
        if spec.kind in _PLAIN_FIELDS:
            return _PLAIN_FIELDS[spec.kind](attempt)
        if spec.kind == "question":
            asked = Question(spec.label)
            asked.clicked.connect(lambda: self.desk.turn_leaf(key.removeprefix("talk.")))
            return asked
        if spec.kind in ("toggle", "action", "page", "search", "basket"):
            return self._pressed(spec, attempt)
        letters = sum(len(words) for _, words in spec.choices)
        if spec.more is not None:
            return LateChooser(spec.choices, attempt, lambda: self._more(key))
        kind = Segments if letters <= SHORT.get(len(spec.choices), 0) else Chooser
        return kind(spec.choices, attempt)

    def _measured(self, spec: Spec, attempt: Try) -> LengthField | MoneyField:
        if spec.kind == "money?":
            return MoneyField(attempt, True)
        return LengthField(self._notation, attempt, spec.kind == "length?")

    def _more(self, key: str) -> tuple[tuple[Any, str], ...]:
        spec = self.specs.get(key)
        return spec.more() if spec is not None and spec.more is not None else ()

    def _pressed(self, spec: Spec, attempt: Try) -> QWidget:
        """What is clicked rather than typed in."""
        key = spec.key
        if spec.kind == "basket":
            return self._basket()
        if spec.kind == "search":
            row = SearchRow(spec.label)
            row.wanted.connect(lambda: self.searches.start(key))
            return row
        if spec.kind == "toggle":
            box = Tick(spec.label)
            box.clicked.connect(lambda on: attempt(on, ""))
            return box
        button = WordyButton(spec.label)
        if spec.kind == "page":
            button.clicked.connect(lambda: self.page_wanted.emit(key))
        else:
            button.clicked.connect(lambda: attempt(None, ""))
        return button

    def _basket(self) -> Basket:
        basket = Basket(self.desk.project.prints)
        basket.laid.connect(self.print_clicked)
        return basket

    def _show_value(self, spec: Spec) -> None:
        field = self.fields[spec.key].field
        if isinstance(field, WordyButton):
            field.say(spec.label)
        elif isinstance(field, Question):
            field.show_answer(*spec.value)
        elif isinstance(field, QCheckBox):
            field.setChecked(bool(spec.value))
        elif isinstance(field, Basket):
            if field.prints != self.desk.project.prints:
                return
            field.show_hand(self.desk)
        elif isinstance(field, SearchRow):
            self._show_search(spec.key, field)
        elif isinstance(field, (TypedField, Chooser, Segments, Slide)):
            field.show_value(spec.value)
            self.fields[spec.key].fit()

    def _show_search(self, key: str, row: SearchRow) -> None:
        searches = self.searches
        runs = searches.key == key
        row.show_state(searches.share if runs else None, searches.words.get(key, ""))

    def _show_searches(self) -> None:
        for key, row in self.fields.items():
            if isinstance(row.field, SearchRow):
                self._show_search(key, row.field)

    def field(self, key: str) -> QWidget:
        """The field of a key, for the window's shortcuts and for tests."""
        return self.fields[key].field
