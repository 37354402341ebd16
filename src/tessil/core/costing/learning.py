"""How times fall with practice: Wright's curve, fitted to what was timed.

``T(n) = T(1)·n^b``, ``b = log₂ r`` (T. P. Wright, Factors Affecting the Cost of Airplanes, Journal
of the Aeronautical Sciences 3, 1936): every doubling takes ``r`` times as long.  In logarithms a
line, learned with its scatter (``numbers/regress.py``) from a starting guess, so that one sitting
says a little and ten say nearly all.  What was timed for several bags at once counts at the bag
whose own time is their mean.  Knows numbers only.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import exp, log, log2

from tessil.core.numbers.records import Record
from tessil.core.numbers.regress import Guess, Learned, Seen, learn

RATE = 0.8  # of practised hands; from memory, as is all that is said here of how far one may be off
RATE_OFF = 0.18  # of its logarithm to base 2: rates from 0.62 to 1.03 lie within two of it
GUESS_OFF = 0.6  # of the logarithm of a first guess: half to double
SCATTER, VAGUE = 0.15, 0.9  # of the logarithm, from sitting to sitting, and of that one's own
ROUNDS = 3


class Timed(Record, frozen=True):
    """A sitting: so many bags at once, after so many before, and minutes for one of them."""

    before: int
    number: int
    minutes: float


class Curve(Record, frozen=True):
    """What is expected of the nth bag: ``ln T = level + slope·ln n``, with how sure that is."""

    learned: Learned
    sittings: int

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
        """Minutes for each of so many bags on the average, after so many before."""
        return exp(self.learned.mean[0]) * mean_power(before, number, self.slope)

    def at(self, nth: float) -> tuple[float, float]:
        """Minutes for the nth bag, and how many times longer or shorter they may be."""
        x = log(nth)
        off = exp(self.learned.miss((1.0, x)))
        return exp(self.learned.mean[0] + self.slope * x), off

    def off(self, before: int, number: int = 1) -> float:
        """How many times longer or shorter it may be, nine sittings in ten."""
        return exp(self.learned.miss((1.0, _place(before, number, self.slope))))


def mean_power(before: int, number: int, slope: float) -> float:
    """The mean of ``n^slope`` over the bags ``before + 1`` to ``before + number``.

    Beyond 200 bags the sum is taken as its integral (Euler and Maclaurin), right to a millionth.
    """
    if number <= 200:
        every = range(before + 1, before + number + 1)
        return float(sum(n**slope for n in every)) / number
    low, high = before + 1.0, float(before + number)
    if abs(slope + 1) < 1e-9:
        area = log(high / low)
    else:
        area = (high ** (slope + 1) - low ** (slope + 1)) / (slope + 1)
    ends = (low**slope + high**slope) / 2
    bend = slope * (high ** (slope - 1) - low ** (slope - 1)) / 12
    return float(area + ends + bend) / number


def fitted(guess: float, seen: Sequence[Timed], rate: float = RATE) -> Curve:
    """The curve after these sittings, begun from minutes guessed for a first bag."""
    prior = Guess((log(guess), log2(rate)), (GUESS_OFF, RATE_OFF), SCATTER, VAGUE)
    slope = prior.mean[1]
    for _ in range(ROUNDS if any(one.number > 1 for one in seen) else 1):
        rows = [
            Seen((1.0, _place(one.before, one.number, slope)), log(one.minutes)) for one in seen
        ]
        found = learn(prior, rows)
        slope = found.mean[1]
    return Curve(found, len(seen))


def _place(before: int, number: int, slope: float) -> float:
    """The logarithm of the bag whose own time is the mean of so many."""
    if number == 1 or abs(slope) < 1e-6:
        return log(before + (number + 1) / 2)
    return log(mean_power(before, number, slope)) / slope


def rate_of(first: float, nth: float, number: int) -> float:
    """The rate at which a first time falls to the nth: ``(T(n) / T(1))^(1 / log₂ n)``."""
    return float((nth / first) ** (1 / log2(number)))
