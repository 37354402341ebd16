"""Sittings to come: what is done in which, for a batch that is made work by work.

Knows times of work; must not know plans.
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.bag.deeds import OPERATIONS, Operation
from tessil.core.costing.timing import WorkTime
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure, total

MOST_BATCH = 60
MOST_DAYS = 200


class Task(Record, frozen=True):
    """One kind of work to be done for so many bags of one name."""

    time: WorkTime
    number: int
    waiting: int
    name: str = ""


class Share(Record, frozen=True):
    """So many bags through one kind of work in a sitting, in so many minutes; ``name`` of which,
    where bags of several names are made."""

    work: Operation
    number: int
    minutes: float
    name: str = ""


class Day(Record, frozen=True):
    """One sitting."""

    shares: tuple[Share, ...]

    @property
    def minutes(self) -> float:
        """How long it is."""
        return sum(share.minutes for share in self.shares)


def batch_minutes(times: Sequence[WorkTime], number: int) -> Figure:
    """Minutes for so many bags, made together work by work."""
    return total([one.all(number).called(one.work, "minutes") for one in times])


def batch_range(times: Sequence[WorkTime], number: int) -> tuple[float, float]:
    """What so many take, nine times in ten: every kind of work errs by itself."""
    middle = float(sum(one.all(number).value for one in times))
    low = high = 0.0
    for one in times:
        least, most = one.range(number)
        own = float(one.all(number).value)
        low += (own - least) ** 2
        high += (most - own) ** 2
    return max(middle - low**0.5, 0.0), float(middle + high**0.5)


def best_batch(times: Sequence[WorkTime], minutes: float) -> int:
    """The most bags that are made together in the time there is; 0 where not one is."""
    found = 0
    for number in range(1, MOST_BATCH + 1):
        if float(batch_minutes(times, number).value) > minutes:
            break
        found = number
    return found


def day_plan(tasks: Sequence[Task], sitting: int) -> tuple[Day, ...]:
    """What is done in which sitting: work by work, each bag's whole.  One gets ready for a kind of
    work once, for all bags whatever their name, and again where a sitting begins in the middle.

    A bag that takes longer than a sitting has one of its own.
    """
    days: list[list[Share]] = [[]]
    left, last = float(sitting), ""
    for task in sorted(tasks, key=lambda one: OPERATIONS.index(one.time.work)):
        waiting, each = task.waiting, float(task.time.each(task.number).value)
        while waiting and len(days) <= MOST_DAYS:
            ready = 0.0 if last == task.time.work else float(task.time.ready.value)
            fits = int((left - ready) / each + 1e-9) if each > 0 else waiting
            if fits < 1 and days[-1]:
                days.append([])
                left, last = float(sitting), ""
                continue
            now = min(max(fits, 1), waiting)
            days[-1].append(Share(task.time.work, now, ready + now * each, task.name))
            left -= ready + now * each
            waiting -= now
            last = task.time.work
    return tuple(Day(tuple(day)) for day in days if day)
