"""The time that a planned bag takes, alone and in a batch, and what is waiting for what."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from tessil.core.bag.deeds import OPERATIONS, Making, Operation
from tessil.core.costing.days import (
    MOST_DAYS,
    Day,
    Share,
    Task,
    batch_minutes,
    batch_range,
    best_batch,
    day_plan,
)
from tessil.core.costing.timing import WorkTime, made_before, work_times
from tessil.core.logbook.book import Book, Timing
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.words.making import OPERATION_WORDS

MOST_TOLD = 20  # sittings that are told one by one


def guesses_of(making: Making) -> dict[Operation, Figure]:
    """First guesses for one bag, by the steps it takes; quilting's by the length of its lines."""
    found: dict[Operation, Figure] = {}
    for work in OPERATIONS:
        parts = [d.minutes for d in making.deeds if d.operation == work and d.minutes is not None]
        if parts:
            found[work] = total(parts).called(OPERATION_WORDS[work], "minutes")
    return found


def guess_of(making: Making, work: str) -> float | None:
    """What one bag is guessed to take of a kind of work, or in all; none where it has no such."""
    guesses = guesses_of(making)
    parts = guesses.values() if work == "all" else [f for w, f in guesses.items() if w == work]
    minutes = float(sum(figure.value for figure in parts))
    return minutes if minutes > 0 else None


class Hours(Record, frozen=True):
    """What the bags in hand take: work by work, and how many they are."""

    works: tuple[WorkTime, ...]
    number: int

    @property
    def all(self) -> Figure:
        """Minutes for all of them together."""
        return batch_minutes(self.works, self.number)

    @property
    def each(self) -> Figure:
        """Minutes for one of them."""
        return (self.all / count("bags", self.number)).called("time for one", "minutes")

    def range(self) -> tuple[float, float]:
        """What one of them takes, nine times in ten."""
        low, high = batch_range(self.works, self.number)
        return low / self.number, high / self.number


def hours_of(plan: Plan, making: Making, book: Book, number: int = 0) -> Hours | None:
    """What a planned bag takes in a batch of so many, or of as many as are planned."""
    works = work_times(guesses_of(making), book.times, plan.project.shape.kind)
    return Hours(works, number or plan.project.made) if works else None


def tasks_of(plan: Plan, hours: Hours, name: str = "") -> tuple[Task, ...]:
    """The kinds of work that are still to be done for a bag's batch."""
    through = through_of(plan)
    return tuple(
        Task(one, hours.number, hours.number - min(through.get(one.work, 0), hours.number), name)
        for one in hours.works
    )


def days_of(plan: Plan, tasks: Sequence[Task]) -> tuple[Day, ...]:
    """The sittings that are still to come."""
    return day_plan(tasks, plan.project.pricing.sitting)


def through_of(plan: Plan) -> Mapping[Operation, int]:
    """How many of the batch are through each kind of work, where it is counted."""
    return plan.project.making.through


def time_readings(plan: Plan, hours: Hours) -> Iterator[Reading]:
    """Each kind of work for the batch, all of it, one bag, and what the time there is allows."""
    for one in hours.works:
        name = OPERATION_WORDS[one.work]
        figure = one.all(hours.number).called(name, "minutes")
        low, high = one.range(hours.number)
        through = through_of(plan).get(one.work)
        said = f"{through} of {hours.number} are through; " if through else ""
        many = one.curve.sittings
        know = f"{many} sitting{'s' if many != 1 else ''} in your log" if many else "not timed yet"
        about = f"{said}{know}; {low:.0f} to {high:.0f} min, nine times in ten"
        yield Reading(f"time.{one.work}", figure, about, leaf="time")
    low, high = hours.range()
    yield Reading("time.all", hours.all.called("All of them", "minutes"), "Together", leaf="time")
    yield Reading(
        "time.each", hours.each, f"{low:.0f} to {high:.0f} min, nine times in ten", leaf="time"
    )
    yield from _batch(plan, hours)


def _batch(plan: Plan, hours: Hours) -> Iterator[Reading]:
    if hours.number > 1:
        number = count("bags", hours.number)
        ready = total([one.ready for one in hours.works]).called("getting ready", "minutes")
        saved = (ready * (number - 1) / number).called("saved by the batch", "minutes")
        about = "For each bag, against getting ready for every one of them alone"
        yield Reading("time.saved", saved, about, leaf="time")
    pricing = plan.project.pricing
    there = pricing.sitting * pricing.sittings
    fit = best_batch(hours.works, float(there))
    about = f"Together in {pricing.sittings} × {pricing.sitting} min"
    figure = given("Best batch", fit, Basis.GEOMETRY, 0)
    yield Reading("time.batch", figure, about, leaf="time")


def day_words(days: Sequence[Day], alone: bool) -> Iterator[str]:
    """The sittings in sentences: what in which; ``alone`` where one bag of one name is made."""
    for at, day in enumerate(days[:MOST_TOLD], start=1):
        parts = [share_words(share, alone) for share in day.shares]
        yield f"Sitting {at}, {day.minutes:.0f} min: {', '.join(parts)}."
    if len(days) > MOST_TOLD:
        least = "at least " if len(days) >= MOST_DAYS else ""
        yield f"And {least}{len(days) - MOST_TOLD} more sittings."


def share_words(share: Share, alone: bool) -> str:
    """What is done in a part of a sitting: ``piece 6``, ``trim 2 reed pouch``."""
    name = OPERATION_WORDS[share.work].lower()
    if share.name:
        return f"{name} {share.number} {share.name.lower()}"
    return name if alone else f"{name} {share.number}"


def waiting_words(plan: Plan, hours: Hours) -> Iterator[str]:
    """What is waiting for what, where bags of the batch are counted."""
    through = through_of(plan)
    last = hours.number
    for one in hours.works:
        now = min(through.get(one.work, 0), hours.number)
        if through and last > now:
            name = OPERATION_WORDS[one.work].lower()
            yield f"{last - now} wait to be taken through: {name} ({now} of {hours.number} done)."
        last = now


def clock_times(
    plan: Plan, making: Making, today: str, log: Sequence[Timing]
) -> tuple[Timing, ...]:
    """What the clock of the Make stage says, work by work, for the logbook: once for all the bags
    that are made together."""
    project = plan.project
    seconds = project.making.seconds
    found = []
    for work in OPERATIONS:
        took = sum(seconds.get(d.id, 0) for d in making.deeds if d.operation == work)
        if took >= 1:
            found.append(
                Timing(
                    date=today,
                    kind=project.shape.kind,
                    bag=project.name,
                    work=work,
                    number=project.made,
                    before=made_before(log, project.shape.kind, work),
                    minutes=min(max(round(took / 60, 1), 0.1), 6000),
                    guess=guess_of(making, work),
                    source=f"{project.log_name}/{work}",
                )
            )
    return tuple(found)


def with_clock(book: Book, new: Sequence[Timing]) -> Book:
    """The book with these sittings in place of what the same clock said before."""
    sources = {one.source for one in new}
    kept = tuple(one for one in book.times if not one.source or one.source not in sources)
    return book.model_copy(update={"times": (*kept, *new)})
