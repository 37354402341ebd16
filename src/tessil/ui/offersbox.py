"""What there is, what it must hold, how large it may be; and three bags that could be made so."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from msgspec.structs import replace
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from tessil.core.brief.choice import Thing
from tessil.core.numbers.lengths import LengthError, Units
from tessil.core.proposals.offers import OFFERS, Asked, Offer
from tessil.core.proposals.said import EXAMPLES, Heap, read_heap, read_sides
from tessil.core.proposals.words import left_words, less_words, made_words, size_words
from tessil.drawing.pictures import bag_picture
from tessil.ui.offering import Offering
from tessil.ui.rest import Rest
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import NoteField
from tessil.ui.widgets.pictureview import PictureView
from tessil.ui.widgets.pushes import push
from tessil.ui.widgets.words import Words

REST_MS, MOST_MS = 350, 1500
SHOWN = {"there": "forty 2½ squares", "holds": "9 × 12 × 1", "most": "8 wide"}


class OfferCard(QWidget):
    """One bag that could be made: its picture, its size, what is left, a button to plan it."""

    def __init__(self, take: Callable[[Offer], None]) -> None:
        super().__init__()
        self._take = take
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 12, 14, 12)
        column.setSpacing(4)
        self.picture = PictureView()
        self.picture.setMinimumHeight(120)
        column.addWidget(self.picture, 1)
        self.told = {key: Words() for key in ("title", "strong", "made", "left")}
        for key, words in self.told.items():
            words.setObjectName(key if key in ("title", "strong") else "soft")
            words.setWordWrap(True)
            column.addWidget(words)
        self._shown: Offer | None = None
        tip = "Plan this smaller bag instead"
        self.others = [push("", tip, partial(self._plan, at), "link") for at in (1, 2)]
        for button in self.others:
            column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
        self.take = QPushButton("Plan this bag")
        self.take.setObjectName("main")
        self.take.clicked.connect(lambda: self._plan(0))
        column.addSpacing(6)
        column.addWidget(self.take, 0, Qt.AlignmentFlag.AlignLeft)

    def _plan(self, at: int) -> None:
        """Plan the bag itself, or one of those beside it."""
        if self._shown is not None:
            self._take((self._shown, *self._shown.beside)[at])

    def show_offer(self, heap: Heap, one: Offer) -> None:
        """Show a bag."""
        if one is self._shown:
            return
        self._shown = one
        self.picture.show_picture(bag_picture(one.made, things=False))
        self.told["title"].setText(one.made.shape.name)
        self.told["strong"].setText(f"{size_words(one)} finished")
        self.told["made"].setText(made_words(heap, one))
        self.told["left"].setText(left_words(heap, one))
        for at, button in enumerate(self.others):
            button.setVisible(at < len(one.beside))
            if at < len(one.beside):
                button.setText(less_words(one, one.beside[at]))
        self.take.setAccessibleName(f"Plan the {one.made.shape.name.lower()}")


class OffersBox(QWidget):
    """Asks in the maker's words and shows what could be made."""

    made = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.units: Units = "inch"
        self.heap: Heap | None = None
        self.asked = Asked()
        self.offers: list[Offer] = []
        self.offering = Offering(self)
        self.offering.found.connect(self._show)
        self.offering.moved.connect(self._tell)
        self._rest = Rest(REST_MS, MOST_MS, self)
        self._rest.due.connect(self._look)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(14)
        column.addWidget(self._ask())
        self.words = Words()
        self.words.setWordWrap(True)
        column.addWidget(self.words)
        row = QHBoxLayout()
        row.setSpacing(14)
        self.cards = [OfferCard(self._take) for _ in range(OFFERS)]
        for card in self.cards:
            row.addWidget(card, 1)
        column.addLayout(row, 1)
        self._show([])

    def _ask(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        inside = QVBoxLayout(card)
        inside.setContentsMargins(16, 12, 16, 12)
        inside.setSpacing(8)
        self.rows = {
            "there": self._row("there", "There is", f"Say it such as {EXAMPLES}"),
            "holds": self._row("holds", "It must hold", "Width × height × thickness, or nothing"),
            "most": self._row(
                "most", "At most", "Outside, as it stands: width × height × depth, or a width alone"
            ),
        }
        inside.addWidget(self.rows["there"])
        row = QHBoxLayout()
        row.setSpacing(16)
        row.addWidget(self.rows["holds"], 1)
        row.addWidget(self.rows["most"], 1)
        inside.addLayout(row)
        return card

    def _row(self, key: str, label: str, help_: str) -> FieldRow:
        field = NoteField(lambda value, run: self._answer(key, value))
        field.setObjectName(f"start.{key}")
        field.setPlaceholderText(SHOWN[key])
        return FieldRow(label, field, help_, label_width=84)

    def _answer(self, key: str, value: str) -> str:
        """Read an answer; the sentence where it cannot be read."""
        try:
            if key == "there":
                self.heap = read_heap(value, self.units) if value else None
            elif key == "holds":
                self.asked = replace(self.asked, thing=_thing(value, self.units))
            else:
                most = read_sides(value, self.units, 3) if value else ()
                self.asked = replace(self.asked, most=most)
        except LengthError as trouble:
            return str(trouble)
        self._rest.touch()
        return ""

    def begin(self, units: Units) -> None:
        """Ask afresh."""
        self.units, self.heap, self.asked = units, None, Asked(units)
        for row in self.rows.values():
            if isinstance(row.field, NoteField):
                row.field.forget()
                row.field.show_value("")
                row.tell("")
        self._show([])

    def look_now(self) -> None:
        """Look for bags and wait until they are found."""
        self._rest.now()
        self.offering.finish()

    def _look(self) -> None:
        if self.heap is None:
            self.offering.stop()
            self._show([])
        else:
            self.offering.look(self.heap, self.asked)

    def _show(self, chosen: list[Offer]) -> None:
        self.offers = chosen
        for at, card in enumerate(self.cards):
            card.setVisible(at < len(chosen))
            if at < len(chosen) and self.heap is not None:
                card.show_offer(self.heap, chosen[at])
        self._tell(0.0 if self.offering.looking else 1.0)

    def _tell(self, share: float) -> None:
        if self.heap is None:
            self.words.setText(f"Say what there is: {EXAMPLES}. Three bags come of it.")
        elif self.offering.looking:
            self.words.setText(f"Trying every shape… {share:.0%}")
        elif not self.offers:
            self.words.setText(
                "No bag comes of it so: say more of it, a smaller thing to hold, or more room."
            )
        else:
            self.words.setText("What could be made of it; everything can be changed later.")

    def _take(self, one: Offer) -> None:
        self.offering.stop()
        self.made.emit(one.made.project)


def _thing(said: str, units: Units) -> Thing | None:
    """What it must hold; raises LengthError if it cannot be read."""
    if not said:
        return None
    sides = [side for side in read_sides(said, units, 3) if side is not None]
    if len(sides) < 3:
        raise LengthError("Give width × height × thickness, such as 9 × 12 × 1.")
    width, height, thickness = sides
    return Thing(name="thing", width=width, height=height, thickness=thickness)
