"""What the bag in hand takes, costs and pays, as the window shows it: loaded when time or money is
first looked at.

Binds the desk to what the core reckons; computes nothing itself.
"""

from __future__ import annotations

import datetime
from collections.abc import Callable, Iterator
from contextlib import suppress

from msgspec.structs import replace
from PySide6.QtCore import QObject, QTimer, Signal

from tessil.core.costing.acts.cost import Heap, things_of
from tessil.core.costing.acts.hours import (
    Hours,
    clock_times,
    day_words,
    days_of,
    guess_of,
    hours_of,
    tasks_of,
    time_readings,
    waiting_words,
    with_clock,
)
from tessil.core.costing.acts.levers import Lever, best_first, each_lever, pay_of
from tessil.core.costing.acts.price import Pay, price_readings
from tessil.core.costing.acts.together import Member, Whole, paid_for, whole_readings
from tessil.core.costing.days import Task
from tessil.core.costing.prices import PriceList
from tessil.core.edits import edit
from tessil.core.logbook.book import Book, Timing
from tessil.core.making.acts.whole import making_of
from tessil.core.memory.recall import Memory
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan as plan_project
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.reading import Reading
from tessil.core.shelf.acts import prices_of, scraps_of
from tessil.core.trouble import CannotPlan
from tessil.core.words.money import money_text
from tessil.drawing.costview import Reckoned
from tessil.ui.cutter import Cutter
from tessil.ui.maker import Maker
from tessil.ui.price_specs import cost_specs, price_specs, time_specs
from tessil.ui.rest import Rest
from tessil.ui.specs import Spec

LATE_MS, LATE_MOST_MS = 300, 1500


class Reckoner(QObject):
    """What time and money say of the bag on the desk; ``moved`` when what pays more is known."""

    moved = Signal()

    def __init__(self, maker: Maker, cutter: Cutter, leaf: Callable[[], str]) -> None:
        super().__init__()
        self.desk, self.maker, self.cutter = maker.desk, maker, cutter
        self._leaf = leaf
        self._hours: tuple[object, object, Hours | None] = (None, None, None)
        self._pay: tuple[tuple[object, ...], Pay | None] = ((), None)
        self._levers: tuple[tuple[object, ...], tuple[Lever, ...]] = ((), ())
        self._whole: tuple[tuple[object, ...], Whole] = ((), Whole(()))
        self._memory = Memory()
        self._late = Rest(LATE_MS, LATE_MOST_MS, self)
        self._late.due.connect(self._begin_levers)
        self._step = QTimer(self)
        self._step.setSingleShot(True)
        self._step.timeout.connect(self._look_on)
        self._looking: Iterator[Lever | None] | None = None
        self._looked_for: tuple[object, ...] = ()
        self._seen_levers: list[Lever] = []
        self._tasks: tuple[tuple[object, ...], tuple[Task, ...]] = ((), ())

    @property
    def leaf(self) -> str:
        """Which of the leaves of time and money is open, if one is."""
        return self._leaf()

    # -- what is reckoned --------------------------------------------------------------------

    def hours(self) -> Hours | None:
        """What the bags in hand take."""
        plan, book = self.desk.plan, self.desk.book
        if self._hours[0] is not plan or self._hours[1] is not book:
            self._hours = (plan, book, hours_of(plan, self.maker.making(), book))
        return self._hours[2]

    def guess(self, work: str) -> float | None:
        """What the bag in hand is guessed to take of a kind of work, by its steps."""
        return guess_of(self.maker.making(), work)

    def prices(self) -> PriceList:
        """The job's own prices, and the shelf's."""
        plan, shelf = self.desk.plan, self.cutter.shelving.need()
        return PriceList(plan.project.pricing.prices, prices_of(shelf, things_of(plan), plan))

    def heap(self) -> Heap:
        """Where the cloth comes from."""
        found = self.cutter.spreads() if self.cutter.planned else None
        return Heap(self.desk.at, found, scraps_of(self.cutter.shelving.need(), found))

    def pay(self) -> Pay | None:
        """What the bag in hand costs and pays."""
        asked = self._asked()
        if not same_objects(self._pay[0], asked):
            prices, heap = self.prices(), self.heap()
            steps = self.maker.making()
            made = pay_of(self.desk.plan, self.desk.book, prices, heap, steps)
            self._pay = (asked, made)
        return self._pay[1]

    def _asked(self) -> tuple[object, ...]:
        return (
            self.desk.plan,
            self.desk.book,
            self.cutter.shelving.need(),
            self.desk.project.cutting,
        )

    def find_levers(self) -> None:
        """What would raise the wage most, all of it at once."""
        self._begin_levers()
        while self._looking is not None:
            self._look_on()

    def _begin_levers(self) -> None:
        """Look for it once the hand rests: one choice after the other, the window in between."""
        asked = self._asked()
        self._looking, self._seen_levers = None, []
        if self.leaf != "price" or same_objects(self._levers[0], asked):
            return
        self._looked_for = asked
        self._looking = each_lever(
            self.desk.plan, self.desk.book, self.prices(), self.heap(), self._planned
        )
        self._step.start(0)

    def _look_on(self) -> None:
        """One choice more; an answer for a bag that has changed meanwhile is given up."""
        self._step.stop()
        if self._looking is None or not same_objects(self._looked_for, self._asked()):
            self._looking = None
            return
        try:
            one = next(self._looking)
        except StopIteration:
            self._looking = None
            self._levers = (self._looked_for, best_first(self._seen_levers))
            self.moved.emit()
            return
        if one is not None:
            self._seen_levers.append(one)
        self._step.start(0)

    def _planned(self, project: Project) -> Plan:
        return plan_project(project, self.desk.book, self._memory)

    def levers(self) -> tuple[Lever, ...]:
        """What would raise the wage, as far as it is known for the bag as it is."""
        if same_objects(self._levers[0], self._asked()):
            return self._levers[1]
        self._late.touch()
        return ()

    @property
    def together(self) -> bool:
        """Whether all bags of the job are reckoned as one."""
        return len(self.desk.job.bags) > 1 and self.desk.project.pricing.together

    def _others(self) -> list[tuple[int, Plan]]:
        """The plans of all bags that can be planned, by their place in the job."""
        found = []
        for at in range(len(self.desk.job.bags)):
            with suppress(CannotPlan):
                plan = self.desk.plan if at == self.desk.at else self.desk.plan_of(at)
                found.append((at, plan))
        return found

    def tasks(self) -> tuple[Task, ...]:
        """What is still to be done, of the bag in hand or of all."""
        plan, hours = self.desk.plan, self.hours()
        if hours is None:
            return ()
        if not self.together:
            return tasks_of(plan, hours)
        asked = (*self._asked(), self.desk.job)
        if not same_objects(self._tasks[0], asked):
            found: list[Task] = []
            for _, one in self._others():
                own = hours_of(one, making_of(one, one.project.making), self.desk.book)
                if own is not None:
                    found += tasks_of(one, own, one.project.name)
            self._tasks = (asked, tuple(found))
        return self._tasks[1]

    def whole(self) -> Whole:
        """All bags of the job as one."""
        asked = (*self._asked(), self.desk.job)
        if not same_objects(self._whole[0], asked):
            heap, members = self.heap(), []
            for at, plan in self._others():
                shelf = self.cutter.shelving.need()
                known = prices_of(shelf, things_of(plan), plan)
                prices = PriceList(plan.project.pricing.prices, known)
                pay = pay_of(plan, self.desk.book, prices, replace(heap, at=at))
                if pay is not None:
                    members.append(Member(plan.project.name, pay))
            self._whole = (asked, Whole(tuple(members)))
        return self._whole[1]

    # -- what is shown -----------------------------------------------------------------------

    def shown(self) -> Reckoned | None:
        """What the bench draws, while one of the leaves is open."""
        hours = self.hours()
        if hours is None:
            return None
        if self.leaf == "time":
            return Reckoned(hours, days_of(self.desk.plan, self.tasks()), together=self.together)
        return Reckoned(hours, pay=self.pay())

    def readings(self) -> tuple[Reading, ...]:
        """The figures of the open leaf."""
        hours, pay = self.hours(), None
        if hours is None:
            return ()
        if self.leaf == "time":
            return tuple(time_readings(self.desk.plan, hours))
        if self.together and self.leaf == "price":
            return tuple(whole_readings(self.whole(), self.say))
        pay = self.pay()
        found = () if pay is None else tuple(price_readings(pay, self.say))
        own = {"price.wage", "price.kept", "price.asked", "price.time"}
        if self.leaf == "price":
            return tuple(one for one in found if one.key in {*own, "price.cost"})
        return tuple(one for one in found if one.key not in own)

    def say(self, value: Fraction) -> str:
        """An amount in the job's currency."""
        return money_text(value, self.desk.project.pricing.currency)

    def specs(self) -> tuple[Spec, ...]:
        """The choices of the open leaf."""
        plan = self.desk.plan
        if self.leaf == "time":
            clock = bool(plan.project.making.seconds)
            return tuple(time_specs(plan, self.hours(), clock, len(self.desk.job.bags) > 1))
        if self.leaf == "price":
            return tuple(price_specs(plan, self.levers(), len(self.desk.job.bags) > 1))
        return tuple(cost_specs(plan, things_of(plan), self.prices()))

    def words(self) -> list[str]:
        """What is to be said beyond the figures."""
        plan, hours = self.desk.plan, self.hours()
        if hours is None:
            return []
        if self.leaf == "time":
            days = days_of(plan, self.tasks())
            due = f"Due {plan.project.sale.due}." if plan.project.sale.due else ""
            return [*waiting_words(plan, hours), *day_words(days, hours.number == 1), due]
        if self.leaf == "price":
            bare = paid_for(self.whole().members) if self.together else ()
            unsold = f"No price is set for the {', the '.join(bare).lower()}." if bare else ""
            return [unsold, self._lever_words(), LAW]
        pay = self.pay()
        missing = pay.cost.materials.missing if pay is not None else ()
        return [f"No price yet: {', '.join(missing).lower()}."] if missing else []

    def _lever_words(self) -> str:
        said = [
            f"{one.edit.words}: {'+' if one.gain >= 0 else '−'}{self.say(abs(one.gain))} an hour."
            for one in self.levers()
        ]
        return "\n".join(["What would change the wage:", *said]) if said else ""

    # -- the logbook -------------------------------------------------------------------------

    def write_clock(self) -> str:
        """What the clock says goes into the logbook, once; a sentence."""
        plan, book = self.desk.plan, self.desk.book
        today = datetime.date.today().isoformat()
        new = clock_times(plan, self.maker.making(), today, _without(book, plan))
        if not new:
            return "The clock has timed nothing yet: start it with a step."
        after = with_clock(book, new)
        sentence = self.desk.attempt_book(
            edit("Write the clock's times down", ("times", after.times))
        )
        return sentence or f"{len(new)} kinds of work are in your log of times."


def _without(book: Book, plan: Plan) -> tuple[Timing, ...]:
    """The times in the book but for those of this bag's own clock."""
    mark = f"{plan.project.log_name}/"
    return tuple(one for one in book.times if not one.source.startswith(mark))


def same_objects(one: tuple[object, ...], other: tuple[object, ...]) -> bool:
    """Whether two tuples hold the very same things."""
    return len(one) == len(other) and all(a is b for a, b in zip(one, other, strict=True))


LAW = (
    "Goods that are sold fall under local rules (labels, fire, toys, tax): they come before "
    "anything here; ask the authority concerned."
)
