"""What sittings that were timed say of the next one: kind of work by kind of work.

Knows the logbook's times and first guesses; must not know plans.
"""

from __future__ import annotations

import datetime
from collections.abc import Iterable, Mapping, Sequence

from msgspec.structs import replace

from tessil.core.bag.deeds import OPERATIONS, Operation
from tessil.core.costing.learning import Curve, Timed, fitted
from tessil.core.logbook.book import Timing
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, given

# Minutes to get ready for a kind of work, once for all bags that are made together: from memory.
# Cutting six at once saves ten to fifteen minutes a bag (common practice, no source).
READY: Mapping[Operation, int] = {
    "cut": 15,
    "piece": 4,
    "layer": 4,
    "quilt": 5,
    "trim": 3,
    "mark": 2,
    "prepare": 4,
    "zipper": 4,
    "assemble": 4,
    "line": 3,
    "turn": 1,
    "finish": 3,
}
READY_MOST = Fraction(7, 10)  # of what one bag takes
LEAST_SHARE, MOST_SHARE = 0.1, 10.0  # that one bag may be of another of its kind


class Sitting(Record, frozen=True):
    """Minutes of one kind of work for so many bags, with what was broken off put together."""

    timing: Timing
    minutes: float


_SAT: list[tuple[Sequence[Timing], str, tuple[Sitting, ...]]] = []
_MOST_SAT = 12


def sittings(times: Sequence[Timing], kind: str) -> tuple[Sitting, ...]:
    """The sittings of one kind of bag that count; what goes on belongs to the one before it.

    Sorted out once as long as it is the same log: every plan asks again.
    """
    for log, one, kept in _SAT:
        if log is times and one == kind:
            return kept
    made = _sorted_out(times, kind)
    _SAT.insert(0, (times, kind, made))
    del _SAT[_MOST_SAT:]
    return made


def _sorted_out(times: Sequence[Timing], kind: str) -> tuple[Sitting, ...]:
    found: list[Sitting] = []
    last: dict[tuple[str, str], int] = {}  # where the last sitting of a bag and a work stands
    for one in times:
        if one.kind != kind or not one.used:
            continue
        key = (one.bag, one.work)
        if one.goes_on and key in last:
            before = found[last[key]]
            found[last[key]] = Sitting(before.timing, before.minutes + one.minutes)
        else:
            last[key] = len(found)
            found.append(Sitting(one, one.minutes))
    return tuple(found)


def made_before(times: Iterable[Timing], kind: str, work: str = "all") -> int:
    """How many bags of a kind went through a kind of work, by what is written down: of that work,
    or of whole bags; of any work where nobody wrote that one down."""
    every = {"all": 0}
    for one in times:
        if one.kind == kind:
            reach = one.before + one.number
            every[one.work] = max(every.get(one.work, 0), reach)
    if work == "all":
        return max(every.values())
    return max(every[work], every["all"]) if work in every else max(every.values())


def overlapping(times: Sequence[Timing]) -> frozenset[int]:
    """The places of sittings that lie in the time of another: nobody sews two bags at once."""
    by_day: dict[str, list[tuple[float, float, int]]] = {}
    for at, one in enumerate(times):
        if one.date and one.begun:
            clock = datetime.time.fromisoformat(one.begun)  # also as ``14`` or ``1405``
            begun = float(clock.hour * 60 + clock.minute)
            by_day.setdefault(one.date, []).append((begun, begun + one.minutes, at))
    found: set[int] = set()
    for rows in by_day.values():
        rows.sort()
        reach, last = -1.0, -1
        for begun, ended, at in rows:
            if begun < reach - 0.5:
                found |= {at, last}
            if ended > reach:
                reach, last = ended, at
    return frozenset(found)


class WorkTime(Record, frozen=True):
    """What one kind of work takes: ready once, then so much for each bag.

    ``first`` is what the first bag took or would take; ``curve`` what is learned of it.
    """

    work: Operation
    ready: Figure
    first: Figure
    curve: Curve
    before: int

    def each(self, number: int) -> Figure:
        """Minutes for one of so many bags."""
        share = self.curve.minutes(self.before, number) / self.curve.minutes(0)
        basis = Basis.TIMES if self.curve.sittings else Basis.GUESS
        falls = given("practice", Fraction(round(share * 1000), 1000), basis, power=0)
        return (self.first * falls).called("a bag", "minutes")

    def all(self, number: int) -> Figure:
        """Minutes for so many bags together."""
        return self.ready + count("bags", number) * self.each(number)

    def range(self, number: int) -> tuple[float, float]:
        """What so many take, nine times in ten."""
        off, middle = self.curve.off(self.before, number), float(self.all(number).value)
        return middle / off, middle * off


def work_times(
    guesses: Mapping[Operation, Figure], times: Sequence[Timing], kind: str
) -> tuple[WorkTime, ...]:
    """Every kind of work of a bag, from first guesses and what was timed of bags of its kind."""
    seen = sittings(times, kind)
    ready = {work: min(Fraction(READY[work]), guesses[work].value * READY_MOST) for work in guesses}
    own = max(float(sum(figure.value for figure in guesses.values()) - sum(ready.values())), 1.0)
    every = float(sum(figure.value for figure in guesses.values()))
    rows = tuple(timed(one, every) for one in seen if one.timing.work == "all")
    whole = fitted(own, rows, float(sum(ready.values())) / own)
    hand = _Hand(whole, own)
    return tuple(
        hand.time(
            work,
            guesses[work],
            ready[work],
            [one for one in seen if one.timing.work == work],
            made_before(times, kind, work),
        )
        for work in OPERATIONS
        if work in guesses and guesses[work].value > 0
    )


def timed(one: Sitting, guess: float = 0.0) -> Timed:
    """A sitting as numbers; as it would be for a bag that is guessed to take so long, where it is
    written down what that one was guessed at."""
    then = one.timing.guess
    share = min(max(guess / then, LEAST_SHARE), MOST_SHARE) if guess and then else 1.0
    return Timed(one.timing.before, one.timing.number, one.minutes * share)


class _Hand(Record, frozen=True):
    """How quick a hand is by whole bags that were timed, against what was guessed for one's own
    work."""

    whole: Curve
    guess: float

    def time(
        self, work: Operation, guess: Figure, ready: Fraction, seen: Sequence[Sitting], before: int
    ) -> WorkTime:
        """One kind of work: by its own sittings, else by whole bags, else as guessed."""
        first = float(guess.value - ready)
        ratio = float(ready) / first
        rows = tuple(timed(one, float(guess.value)) for one in seen)
        curve = fitted(first, rows, ratio)
        if not seen and self.whole.sittings:  # the whole's pace, at this work's own length
            curve, first = replace(self.whole, ratio=ratio), first * self.whole.first / self.guess
        elif seen:
            first = curve.first
        basis = Basis.TIMES if curve.sittings else Basis.GUESS
        return WorkTime(
            work,
            given("getting ready", _tenth(first * ratio), basis, 0, "minutes"),
            given("first bag", _tenth(first), basis, 0, "minutes"),
            curve,
            before,
        )


def _tenth(minutes: float) -> Fraction:
    return Fraction(round(minutes * 10), 10)
