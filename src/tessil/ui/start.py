"""The first page: three answers make a plan.  Shown when nothing is open, and for New."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from tessil.core.numbers.decided import Refused
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.rulers import rulers
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.shapes import SHAPES
from tessil.core.starting import Answers, first_project
from tessil.core.trouble import CannotPlan
from tessil.core.words.refusals import first_refusal
from tessil.drawing.pictures import bag_picture
from tessil.ui.offersbox import OffersBox
from tessil.ui.widgets.choosers import Chooser, Segments
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import CountField, LengthField, WordField
from tessil.ui.widgets.pictureview import PictureView
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Words


class StartPage(QWidget):
    """Asks for shape, object and pieces, and says what will come of them."""

    made = Signal(object)
    added = Signal(object)
    demo_wanted = Signal()
    open_wanted = Signal()
    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.answers, self.adds = Answers(), False
        self.rows: dict[str, FieldRow] = {}
        outer = QHBoxLayout(self)
        outer.addStretch(1)
        page = QVBoxLayout()
        page.setSpacing(14)
        outer.addLayout(page)
        outer.addStretch(1)
        page.addStretch(1)
        page.addLayout(self._head())
        self.asking = QStackedWidget()
        self.asking.addWidget(self._answering())
        self.heap = OffersBox()
        self.heap.made.connect(self._tell)
        self.asking.addWidget(self.heap)
        fixed(self.asking, 1024)
        page.addWidget(self.asking)
        page.addLayout(self._foot())
        page.addStretch(2)

    def _answering(self) -> QWidget:
        """The three questions, and what comes of them."""
        body = QWidget()
        row = QHBoxLayout(body)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(24)
        column = QVBoxLayout()
        column.setSpacing(14)
        row.addLayout(column)
        self.picture = PictureView(380)
        row.addWidget(self.picture)
        column.addWidget(self._question("1", "What shall it be?", self._shape()))
        column.addWidget(self._question("2", "What must it hold?", self._object()))
        column.addWidget(self._question("3", "What is each side pieced from?", self._pieces()))
        self.outcome = Words()
        column.addWidget(self.outcome)
        self.plan_it = QPushButton("Plan this bag")
        self.plan_it.setObjectName("main")
        self.plan_it.clicked.connect(self._finish)
        column.addWidget(self.plan_it, 0, Qt.AlignmentFlag.AlignLeft)
        return body

    def _head(self) -> QVBoxLayout:
        title = self.title = Words("A new bag")
        title.setObjectName("large")
        words = Words("Every answer can be changed later; sizes are read as you write them.")
        words.setObjectName("soft")
        head = QVBoxLayout()
        head.setSpacing(0)
        head.addWidget(title)
        head.addWidget(words)
        ways = (("answers", "What it must hold"), ("heap", "What there is"))
        self.begins = Segments(ways, lambda way, run: self.begin_with(way))
        self.begins.setAccessibleName("Begin with")
        self.begins.show_value("answers")
        row = QHBoxLayout()
        row.addWidget(self.begins)
        row.addStretch(1)
        head.addSpacing(12)
        head.addLayout(row)
        return head

    def begin_with(self, way: str) -> str:
        """Begin with what it must hold, or with what there is."""
        self.begins.show_value(way)
        self.asking.setCurrentIndex(int(way == "heap"))
        if way == "heap":
            self.heap.rows["there"].field.setFocus()
        return ""

    def _question(self, number: str, words: str, body: QWidget) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(card, 620)
        row = QHBoxLayout(card)
        row.setContentsMargins(16, 12, 16, 12)
        row.setSpacing(16)
        mark = Words(number)
        mark.setObjectName("large")
        row.addWidget(mark, 0, Qt.AlignmentFlag.AlignTop)
        ask = Words(words)
        ask.setObjectName("title")
        ask.setWordWrap(True)
        fixed(ask, 150)
        row.addWidget(ask, 0, Qt.AlignmentFlag.AlignTop)
        row.addWidget(body, 1)
        return card

    def _notation(self) -> Notation:
        return rulers(self.answers.units).notation

    def _answer(self, key: str, value: Any) -> str:
        """Try an answer; the sentence if no plan would follow."""
        try:
            tried = self.answers.changed(key, value)
            plan(first_project(tried))
        except CannotPlan as trouble:
            return trouble.sentence
        except ValueError as error:
            return _sentence(error)
        self.answers = tried
        self.refresh()
        return ""

    def _row(self, key: str, label: str, field: QWidget, help_: str) -> FieldRow:
        row = FieldRow(label, field, help_, label_width=78)
        field.setObjectName(f"start.{key}")
        self.rows[key] = row
        return row

    def _length(self, key: str, label: str, help_: str) -> FieldRow:
        field = LengthField(self._notation, lambda v, run: self._answer(key, v), False)
        return self._row(key, label, field, help_)

    def _chosen(
        self, key: str, label: str, help_: str, choices: tuple[tuple[str, str], ...]
    ) -> FieldRow:
        field = Segments(choices, lambda v, run: self._answer(key, v))
        return self._row(key, label, field, help_)

    def _shape(self) -> QWidget:
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 0)
        choices = tuple((key, shape.name) for key, shape in SHAPES.items())
        shapes = Chooser(choices, lambda v, run: self._answer("shape", v))
        column.addWidget(self._row("shape", "", shapes, "The shape of the bag"))
        self.sentence = Words()
        self.sentence.setObjectName("soft")
        self.sentence.setWordWrap(True)
        column.addWidget(self.sentence)
        units = (("inch", "inches"), ("metric", "centimetres"))
        column.addWidget(self._chosen("units", "Measured in", "How you read lengths", units))
        return body

    def _object(self) -> QWidget:
        body = QWidget()
        grid = QGridLayout(body)
        grid.setContentsMargins(0, 0, 0, 0)
        name = WordField(lambda v, run: self._answer("name", v))
        grid.addWidget(self._row("name", "It holds a", name, "Used in words only"), 0, 0, 1, 2)
        grid.addWidget(self._length("width", "Width", "As it stands in the bag"), 1, 0)
        grid.addWidget(self._length("height", "Height", "As it stands in the bag"), 1, 1)
        grid.addWidget(self._length("thickness", "Thickness", "Of one"), 2, 0)
        count = CountField(lambda v, run: self._answer("count", v))
        grid.addWidget(self._row("count", "How many", count, "One behind the other"), 2, 1)
        return body

    def _pieces(self) -> QWidget:
        body = QWidget()
        grid = QGridLayout(body)
        grid.setContentsMargins(0, 0, 0, 0)
        made = (("strips", "strips"), ("whole", "one cloth"))
        grid.addWidget(self._chosen("way", "Made of", "Each side's top", made), 0, 0, 1, 2)
        strips = CountField(lambda v, run: self._answer("strips", v))
        grid.addWidget(self._row("strips", "How many", strips, "Strips on each side"), 1, 0)
        lie = (("level", "level"), ("upright", "upright"))
        grid.addWidget(self._chosen("run", "They lie", "As the bag is worn", lie), 1, 1)
        return body

    def _foot(self) -> QHBoxLayout:
        demo = QPushButton("Show me the demo bags")
        demo.setObjectName("quiet")
        demo.clicked.connect(self.demo_wanted)
        open_ = QPushButton("Open a project…")
        open_.setObjectName("quiet")
        open_.clicked.connect(self.open_wanted)
        self.back = QPushButton("Back to my bag")
        self.back.setObjectName("quiet")
        self.back.clicked.connect(self.left)
        row = QHBoxLayout()
        for button in (self.back, open_, demo):
            row.addWidget(button)
        row.addStretch(1)
        return row

    def _finish(self) -> None:
        for row in self.rows.values():
            if isinstance(row.field, (LengthField, CountField, WordField)):
                row.field.settle()
        wrong = [row for row in self.rows.values() if row.error.text()]
        if wrong:
            wrong[0].field.setFocus()
            return
        self._tell(first_project(self.answers))

    def _tell(self, project: Project) -> None:
        told = self.added if self.adds else self.made
        told.emit(project)

    def begin(self, units: str, can_go_back: bool, adds: bool = False) -> None:
        """Ask afresh: for a new job, or for one bag more of the job there is."""
        self.adds = adds
        self.title.setText("One bag more" if adds else "A new bag")
        self.plan_it.setText("Add this bag" if adds else "Plan this bag")
        self.answers = Answers().changed("units", units)
        self.heap.begin(self.answers.units)
        self.begin_with("answers")
        self.back.setVisible(can_go_back)
        self.rows["units"].setVisible(not adds)  # a job is read in one of them
        for row in self.rows.values():
            if isinstance(row.field, (LengthField, CountField, WordField)):
                row.field.forget()
        self.refresh()
        self.rows["shape"].field.setFocus()

    def refresh(self) -> None:
        """Show the answers and what comes of them."""
        for key, row in self.rows.items():
            row.field.show_value(getattr(self.answers, key))  # type: ignore[attr-defined]
        self.sentence.setText(SHAPES[self.answers.shape].sentence)
        made = _planned(self.answers)
        sizes = [figure.value for figure in made.bag.finished]
        self.outcome.setText(f"It will be {made.marks.notation.size(*sizes)} finished.")
        self.picture.show_picture(bag_picture(made))
        stripped = self.answers.way == "strips"
        for key in ("strips", "run"):
            self.rows[key].setVisible(stripped)


@lru_cache(8)
def _planned(answers: Answers) -> Plan:
    """The bag that comes of these answers: asked for at every start, and at each key."""
    return plan(first_project(answers))


def _sentence(error: ValueError) -> str:
    return first_refusal(error) if isinstance(error, Refused) else str(error)
