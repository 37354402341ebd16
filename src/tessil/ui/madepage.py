"""The page of bags made: what they took, cost and paid; compared, and made again."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout

from tessil.core.costing.acts.record import compared
from tessil.core.costing.stats import (
    Dot,
    draw_in_dots,
    minutes_dots,
    scrap_dots,
    wage_of,
    wages_by_kind,
)
from tessil.core.edits import Edit, applied, edit
from tessil.core.logbook.book import MadeBag
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError, read_length
from tessil.core.words.money import currency_of, money_text
from tessil.core.words.refusals import first_refusal, printable
from tessil.drawing.picture import Picture
from tessil.drawing.statview import bars_picture, season_picture
from tessil.ui.desk import Desk
from tessil.ui.listpage import ListPage, figure, word
from tessil.ui.widgets.choosers import Segments
from tessil.ui.widgets.pictureview import PictureView

PLOTS = (("wage", "Wage"), ("time", "Time"), ("draws", "Draw-in"), ("scraps", "Scraps"))


def _money(field: str) -> Callable[[MadeBag], str]:
    def text(one: MadeBag) -> str:
        value = getattr(one, field)
        return "" if value is None else money_text(value, one.currency)

    return text


def _wage(one: MadeBag) -> str:
    wage = wage_of(one)
    return "" if wage is None else money_text(wage, one.currency)


class MadePage(ListPage):
    """Lists the bags made; ``again`` asks for one of them to be made again."""

    again = Signal(object)
    photo_wanted = Signal()

    def __init__(self, desk: Desk) -> None:
        def size(field: str) -> Callable[[MadeBag], str]:
            return lambda one: self._size(getattr(one, field))

        cells = (
            word("Date", 100, "date"),
            word("Bag", 150, "name"),
            figure("Bags", 52, lambda one: str(one.number), "number"),
            figure("Minutes", 72, _minutes, "minutes"),
            figure("Cost", 70, _money("cost"), "cost"),
            figure("Price", 76, _money("price"), "price"),
            figure("An hour", 74, _wage),
            word("It went", 68, "way"),
            figure("Planned", 130, size("planned")),
            figure("Got", 130, size("got"), "got"),
            word("To", 120, "buyer"),
            word("Mistakes", 160, "mistakes"),
            word("Remarks", 180, "remarks"),
        )
        about = "What each took, cost and paid. Choose two to see how they differ."
        super().__init__(desk, "Bags you made", about, cells)
        self.add_search()
        self.add_button("Make it again", self._again).setObjectName("main")
        self.add_button("A photo of it…", self.photo_wanted.emit)
        self.add_button("Take out", self.take_out)
        self.add_button("Save as CSV…", self.csv_out.emit)
        self.shown = "wage"
        row = QHBoxLayout()
        self.which = Segments(PLOTS, self._turn)
        row.addWidget(self.which)
        side = self.add_side()
        side.addLayout(row)
        side.addWidget(self.plot, 3)
        side.addWidget(self.said)
        self.photo = PictureView()
        side.addWidget(self.photo, 2)

    def _size(self, sides: tuple[Fraction, ...]) -> str:
        return self.desk.plan.marks.notation.size(*sides) if sides else ""

    def entries(self) -> tuple[MadeBag, ...]:
        return self.desk.book.made

    def _turn(self, key: str, _: str) -> str:
        self.shown = key
        self.show_said()
        return ""

    def show_said(self) -> None:
        self.which.show_value(self.shown)
        self.plot.show_picture(self._picture())
        rows = [self.table.rows[at] for at in self.chosen() if at < len(self.table.rows)]
        notation = self.desk.plan.marks.notation
        if len(rows) == 2:
            say = lambda value: money_text(value, rows[0].currency)  # noqa: E731
            lines = list(compared(rows[0], rows[1], notation, say))
            self.said.setText("\n".join([f"{rows[0].name} and {rows[1].name}", *lines]))
        elif rows:
            self.said.setText(self._about(rows[0]))
        else:
            self.said.setText(self._sum())
        photo = rows[0].photo if len(rows) == 1 else None
        self.photo.setVisible(photo is not None)
        if photo is not None:
            from tessil.drawing.statview import photo_picture

            self.photo.show_picture(photo_picture(photo))

    def _sum(self) -> str:
        made = self.desk.book.made
        number = sum(one.number for one in made)
        other = {one.currency for one in made if one.currency} - {self._currency()}
        words = f"{number} bags in {len(made)} entries." if made else ""
        if other:
            words += f" Wages in {', '.join(sorted(other))} are not drawn beside those in "
            words += f"{self._currency() or 'no currency'}."
        return words

    def _about(self, one: MadeBag) -> str:
        """One bag in a few lines: sizes, where it went, what it taught."""
        mark = f"{one.source}/"
        swatches = self.desk.book.swatches if one.source else ()
        taught = sum(swatch.source.startswith(mark) for swatch in swatches)
        sizes = f"Planned {self._size(one.planned)}" if one.planned else ""
        sizes += f", got {self._size(one.got)}" if one.got else ""
        parts = [
            f"{one.name}, {one.number} of it" + (f", for {one.buyer}" if one.buyer else ""),
            sizes,
            f"Taught {taught} swatches of your logbook." if taught else "",
            one.remarks,
            f"Mistakes: {one.mistakes}" if one.mistakes else "",
        ]
        return "\n".join(part for part in parts if part)

    def _currency(self) -> str:
        return currency_of(self.desk.project.pricing.currency)

    def _picture(self) -> Picture:
        book = self.desk.book
        if self.shown == "wage":
            return bars_picture(wages_by_kind(book, self._currency()), "an hour")
        dots: dict[str, tuple[Callable[..., object], str]] = {
            "time": (minutes_dots, "minutes for one"),
            "draws": (draw_in_dots, "% drawn in"),
            "scraps": (scrap_dots, "% of cloth from scraps"),
        }
        work, unit = dots[self.shown]
        found: list[Dot] = list(work(book))  # type: ignore[call-overload]
        return season_picture(found, unit)

    # -- answering ----------------------------------------------------------------------------

    def change(self, at: int, field: str, text: str) -> bool:
        made = self.desk.book.made
        try:
            value = self._read(field, text)
            after = applied(made[at], edit("", (field, value)))
        except Refused as error:
            self.say(first_refusal(error))
            return False
        except (LengthError, ValueError) as error:
            self.say(printable(str(error)))
            return False
        return not self._keep("Change a bag made", (*made[:at], after, *made[at + 1 :]))

    def _read(self, field: str, text: str) -> object:
        if field == "got":
            parts = [part for part in text.replace("x", "×").split("×") if part.strip()]
            return tuple(read_length(part, self.desk.project.units) for part in parts)
        if field in ("cost", "price", "minutes") and not text:
            return None
        return text.replace(",", ".") if field == "minutes" else text

    def _keep(self, words: str, made: tuple[MadeBag, ...]) -> str:
        sentence = self.desk.attempt_book(edit(words, ("made", made)))
        self.say(sentence)
        self.refresh()
        return sentence

    def _again(self) -> None:
        chosen = self.chosen()
        if not chosen:
            self.say("Choose the bag first that is to be made again.")
            return
        self.again.emit(self.desk.book.made[chosen[0]])

    def photo_edit(self, photo: object) -> Edit:
        """The edit that gives the chosen bag a photo."""
        made, at = self.desk.book.made, (self.chosen() or [len(self.desk.book.made) - 1])[0]
        after = made[at].model_copy(update={"photo": photo})
        return edit("Keep a photo of a bag", ("made", (*made[:at], after, *made[at + 1 :])))

    def take_out(self) -> None:
        chosen = set(self.chosen())
        if not chosen:
            self.say("Choose the bags first that are to go.")
            return
        made = self.desk.book.made
        self._keep(
            "Take bags made out", tuple(one for at, one in enumerate(made) if at not in chosen)
        )


def _minutes(one: MadeBag) -> str:
    return "" if one.minutes is None else f"{one.minutes:.0f}"
