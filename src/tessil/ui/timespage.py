"""The page of times: every sitting, typed as one says it, and how times fall with practice."""

from __future__ import annotations

import datetime
from collections import Counter
from collections.abc import Callable

from tessil.core.costing.learning import Curve, Timed, ends_rate, fitted
from tessil.core.costing.stats import learning_dots, minutes_by_work
from tessil.core.costing.timing import made_before, overlapping, sittings, timed
from tessil.core.edits import applied, edit
from tessil.core.logbook.book import MOST_TIMES, Timing
from tessil.core.logbook.typed import NoSitting, read_timing
from tessil.core.numbers.decided import Refused
from tessil.core.words.refusals import first_refusal
from tessil.drawing import theme
from tessil.drawing.statview import bars_picture, learning_picture
from tessil.ui.desk import Desk
from tessil.ui.listpage import ListPage, figure, word
from tessil.ui.widgets.pictureview import PictureView

CELLS = (
    word("Date", 100, "date"),
    word("Bag", 146, "bag"),
    word("Work", 84, "work"),
    figure("Bags", 52, lambda one: str(one.number), "number"),
    figure("Minutes", 72, lambda one: f"{one.minutes:g}", "minutes"),
    figure("Each", 56, lambda one: f"{one.minutes / one.number:.0f}"),
    figure("Made before", 96, lambda one: str(one.before), "before"),
    word("Begun", 64, "begun"),
    word("Kind", 120, "kind"),
    word("Goes on", 74, "goes_on"),
    word("Counts", 70, "used"),
    word("Note", 140, "note"),
)
HELP = "quilt 6 bags 85 min · cut 1:20 · whole bag 2 h 5 · zipper 24 min, new foot"
YES = ("yes", "true", "1", "on", "y")


class TimesPage(ListPage):
    """Lists the sittings; ``csv_out`` and ``csv_in`` ask the window for a file."""

    def __init__(self, desk: Desk, guess: Callable[[str], float | None]) -> None:
        about = "Every sitting you timed. What it teaches is used in time and price of every bag."
        super().__init__(desk, "Your times", about, CELLS)
        self.guess = guess
        self.line = self.add_line("times.line", "Write a sitting down", HELP, self._put)
        self.add_button("Write it down", self._put).setObjectName("main")
        self.add_search()
        self.add_button("Leave out", self._leave_out)
        self.add_button("Take out", self.take_out)
        self.add_button("Save as CSV…", self.csv_out.emit)
        self.add_button("Take from CSV…", self.csv_in.emit)
        side = self.add_side()
        self.bars = PictureView()
        self.plot.setMinimumHeight(theme.px(150))
        side.addWidget(self.said)
        side.addWidget(self.plot, 3)
        side.addWidget(self.bars, 2)

    def entries(self) -> tuple[Timing, ...]:
        return self.desk.book.times

    def begin(self) -> None:
        super().begin()
        self.line.setFocus()

    def _in_hand(self) -> tuple[str, str]:
        """Kind of bag and of work that are looked at: of the chosen sitting, else of the bag."""
        chosen = self.chosen()
        if chosen and chosen[0] < len(self.table.rows):
            one = self.table.rows[chosen[0]]
            return one.kind, one.work
        kind = self.desk.project.shape.kind
        works = [one.work for one in self.desk.book.times if one.kind == kind]
        return kind, next((work for work, _ in Counter(works).most_common(1)), "all")

    def show_said(self) -> None:
        times = self.desk.book.times
        kind, work = self._in_hand()
        rows = tuple(timed(one) for one in sittings(times, kind) if one.timing.work == work)
        curve = fitted(sum(r.minutes / r.number for r in rows) / len(rows), rows) if rows else None
        dots = learning_dots(times, kind, work)
        self.plot.show_picture(learning_picture(dots, curve))
        bars = minutes_by_work(times)
        self.bars.setMinimumHeight(theme.px(21) * len(bars) + 24)  # a line of words for each
        self.bars.show_picture(bars_picture(bars, "min"))
        name = kind.replace("-", " ")
        self.said.setText(
            "\n".join(
                line
                for line in (
                    _curve_words(name, work, rows, curve),
                    _overlap_words(times),
                    f"Work that is timed of no {name} is guessed by its steps." if not rows else "",
                )
                if line
            )
        )

    def _put(self) -> None:
        """Write down what was typed; what cannot be read stays in the line."""
        book, project = self.desk.book, self.desk.project
        like = Timing(
            date=datetime.date.today().isoformat(), kind=project.shape.kind, bag=project.name
        )
        try:
            made = read_timing(self.line.text(), like)
            before = made_before(book.times, made.kind, made.work)
            made = made.model_copy(update={"before": before, "guess": self.guess(made.work)})
        except NoSitting as trouble:
            self.say(str(trouble))
            return
        if len(book.times) >= MOST_TIMES:
            self.say(f"The log holds {MOST_TIMES:,} sittings at most: take some out first.")
            return
        sentence = self._keep("Write a sitting down", (*book.times, made))
        if not sentence:
            self.line.clear()
            self.view.scrollToBottom()

    def _keep(self, words: str, times: tuple[Timing, ...]) -> str:
        sentence = self.desk.attempt_book(edit(words, ("times", times)))
        self.say(sentence)
        self.refresh()
        return sentence

    def change(self, at: int, field: str, text: str) -> bool:
        value: object = text
        if field in ("used", "goes_on"):
            value = text.lower() in YES
        elif field == "minutes":
            value = text.replace(",", ".")
        times = self.desk.book.times
        try:
            made = applied(times[at], edit("", (field, value)))
        except Refused as error:
            self.say(first_refusal(error))
            return False
        return not self._keep("Change a sitting", (*times[:at], made, *times[at + 1 :]))

    def _leave_out(self) -> None:
        """The chosen sittings do not count, or count again."""
        chosen, times = set(self.chosen()), self.desk.book.times
        if not chosen:
            self.say("Choose the sittings first that are not to count.")
            return
        on = not all(times[at].used for at in chosen)
        made = tuple(
            one.model_copy(update={"used": on}) if at in chosen else one
            for at, one in enumerate(times)
        )
        self._keep("Count sittings again" if on else "Leave sittings out", made)

    def take_out(self) -> None:
        chosen = set(self.chosen())
        if not chosen:
            self.say("Choose the sittings first that are to go.")
            return
        times = self.desk.book.times
        self._keep(
            "Take sittings out", tuple(one for at, one in enumerate(times) if at not in chosen)
        )


def _curve_words(kind: str, work: str, rows: tuple[Timed, ...], curve: Curve | None) -> str:
    if curve is None:
        return f"No sitting of a {kind} yet: type one, or start the clock with a step."
    low, high = curve.rate_range
    number, alone = len(rows), ends_rate(rows)
    ends = "" if alone is None else f" By the first and the last alone it is {alone:.2f}."
    what = "All of it" if work == "all" else work.capitalize()
    return (
        f"{what}, {kind}: {number} sitting{'s' if number != 1 else ''}. Each doubling of the bags "
        f"made takes {curve.rate:.2f} times as long ({low:.2f} to {high:.2f}, nine in ten).{ends}"
    )


def _overlap_words(times: tuple[Timing, ...]) -> str:
    found = sorted(overlapping(times))
    if not found:
        return ""
    names = ", ".join(str(at + 1) for at in found[:6])
    return f"Sittings {names} lie in one another’s time: change when they began, or leave one out."
