"""How times fall with practice: Wright's curve, fitted to what was timed.

``T(n) = T(1)·n^b``, ``b = log₂ r`` (T. P. Wright, Factors Affecting the Cost of Airplanes, Journal
of the Aeronautical Sciences 3, 1936): every doubling takes ``r`` times as long.  In logarithms a
line, learned with its scatter (``numbers/regress.py``) from a starting guess, so that one sitting
says a little and ten say nearly all.  Bags that are made together share getting ready, which takes
so many times as long as the first bag's own work: ``M = T(1)·(ratio + Σ n^b)``.  Knows numbers.
"""

from __future__ import annotations

from functools import lru_cache
from math import exp, log, log2

from tessil.core.numbers.records import Record
from tessil.core.numbers.regress import Guess, Learned, Seen, learn

RATE = 0.8  # of practised hands; from memory, as is all that is said here of how far one may be off
RATE_OFF = 0.18  # of its logarithm to base 2: rates from 0.62 to 1.03 lie within two of it
GUESS_OFF = 0.6  # of the logarithm of a first guess: half to double
SCATTER, VAGUE = 0.15, 0.9  # of the logarithm, from sitting to sitting, and of that one's own
ROUNDS = 3


class Timed(Record, frozen=True):
    """A sitting: so many bags at once, after so many before, and minutes for all of them."""

    before: int
    number: int
    minutes: float


class Curve(Record, frozen=True, dict=True):
    """What is expected of the nth bag: ``ln T = level + slope·ln n``, with how sure that is."""

    learned: Learned
    sittings: int
    ratio: float = 0.0  # getting ready against the first bag's own work

    @property
    def first(self) -> float:
        """Minutes of the first bag's own work."""
        return exp(self.learned.mean[0])

    @property
    def ready(self) -> float:
        """Minutes to get ready."""
        return self.first * self.ratio

    @property
    def slope(self) -> float:
        return self.learned.mean[1]

    @property
    def rate(self) -> float:
        """How many times as long every doubling takes."""
        return float(2**self.slope)

    @property
    def rate_range(self) -> tuple[float, float]:
        """Nine in ten that the rate lies between."""
        off = 1.645 * self.learned.cov[1][1] ** 0.5
        return float(2 ** (self.slope - off)), float(2 ** (self.slope + off))

    def minutes(self, before: int, number: int = 1) -> float:
        """Minutes of own work for each of so many bags on the average, after so many before."""
        return self.first * power_sum(before, number, self.slope) / number

    def at(self, nth: float) -> tuple[float, float]:
        """Minutes of own work for the nth bag, and how many times longer or shorter they may be."""
        off = exp(self.learned.miss((1.0, log(nth))))
        return self.first * float(nth**self.slope), off

    def off(self, before: int, number: int = 1) -> float:
        """How many times longer or shorter a sitting may be, nine times in ten."""
        kept: dict[tuple[int, int], float] = self.__dict__.setdefault("offs", {})
        if (before, number) not in kept:
            lean = _lean(before, number, self.slope, self.ratio)
            kept[before, number] = exp(self.learned.miss((1.0, lean)))
        return kept[before, number]


@lru_cache(maxsize=4096)
def power_sum(before: int, number: int, slope: float) -> float:
    """The sum of ``n^slope`` over the bags ``before + 1`` to ``before + number``.

    Beyond 200 bags it is taken as its integral (Euler and Maclaurin), right to a millionth.
    """
    if number <= 200:
        return float(sum(n**slope for n in range(before + 1, before + number + 1)))
    low, high = before + 1.0, float(before + number)
    if abs(slope + 1) < 1e-9:
        area = log(high / low)
    else:
        area = float(high ** (slope + 1) - low ** (slope + 1)) / (slope + 1)
    ends = float(low**slope + high**slope) / 2
    return area + ends + slope * float(high ** (slope - 1) - low ** (slope - 1)) / 12


def _lean(before: int, number: int, slope: float, ratio: float) -> float:
    """How a sitting's logarithm leans on the slope: what ``ln (ratio + Σ n^slope)`` grows by."""
    step = 1e-4
    up, down = (log(ratio + power_sum(before, number, slope + by)) for by in (step, -step))
    return (up - down) / (2 * step)


@lru_cache(maxsize=256)
def fitted(first: float, seen: tuple[Timed, ...], ratio: float = 0.0, rate: float = RATE) -> Curve:
    """The curve after these sittings, begun from minutes guessed for a first bag's own work;
    remembered, since every plan asks again."""
    prior = Guess((log(first), log2(rate)), (GUESS_OFF, RATE_OFF), SCATTER, VAGUE)
    slope = prior.mean[1]
    for _ in range(ROUNDS if seen else 1):
        found = learn(prior, [_row(one, slope, ratio) for one in seen])
        slope = found.mean[1]
    return Curve(found, len(seen), ratio)


def _row(one: Timed, slope: float, ratio: float) -> Seen:
    """A sitting's logarithm as a line in level and slope, about a slope that is nearly right."""
    lean = _lean(one.before, one.number, slope, ratio)
    whole = log(ratio + power_sum(one.before, one.number, slope))
    return Seen((1.0, lean), log(one.minutes) - whole + lean * slope)


def rate_of(first: float, nth: float, number: int) -> float:
    """The rate at which a first time falls to the nth: ``(T(n) / T(1))^(1 / log₂ n)``."""
    return float((nth / first) ** (1 / log2(number)))


def ends_rate(seen: tuple[Timed, ...]) -> float | None:
    """The rate by the first bag and the last alone; none where there are no two such, each made by
    itself."""
    singles = sorted((one for one in seen if one.number == 1), key=lambda one: one.before)
    if len(singles) < 2 or singles[0].before or not singles[-1].before:
        return None
    return rate_of(singles[0].minutes, singles[-1].minutes, singles[-1].before + 1)
