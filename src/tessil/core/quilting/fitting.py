"""What swatches teach about the three constants of the draw-in model.

Each measured loss is linear in θ = (q, d, g), with q = 8/3·a²: ``e = A·q + B·d + C·g``.  The
starting values are the prior; constants and the maker's own scatter from panel to panel are
learned together (``numbers/regress.py``), so that the range is as wide as her panels differ.
Lengths are inches.  Knows numbers only; must not know swatches or panels.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

from tessil.core.numbers.records import Record
from tessil.core.numbers.regress import Guess, Learned, Seen, dot, inverse, learn

Matrix = list[list[float]]
Triple = tuple[float, float, float]
# The scatter from panel to panel, as a share, and how far that may be off, as a logarithm; from
# memory.  Three swatches then give a range that holds 84 to 96 of 100 panels, for hands of 0.2 to
# 0.8 % (simulated in the tests).
SCATTER, VAGUE = 0.0045, 0.8
READING = 0.025  # inches: reading a ruler before and after
ZERO: Triple = (0.0, 0.0, 0.0)


class Prior(Record, frozen=True):
    """Starting values of q, d, g and how far each may be off (one standard deviation)."""

    mean: Triple
    spread: Triple


class Observation(Record, frozen=True):
    """One measured loss: its row, its value as a share, the length it was measured on, and the
    number of the swatch it is from."""

    row: Triple
    value: float
    length: float
    swatch: int

    @property
    def reading(self) -> float:
        """The variance of reading it: short lengths say less."""
        return (READING / self.length) ** 2

    def weight(self, scatter: float) -> float:
        """How much it says beside one that is read exactly."""
        return scatter**2 / (scatter**2 + self.reading)


class Fitted(Record, frozen=True):
    """The constants after the swatches, of which none is less than nothing.

    ``learned`` is all that is known; ``cov`` the constants' covariance, row by row; ``scatter`` the
    maker's own from panel to panel.
    """

    mean: Triple
    cov: tuple[Triple, Triple, Triple]
    scatter: float
    learned: Learned
    swatches: int
    losses: int
    rank: int  # how many of the three constants the swatches can tell apart

    def expects(self, row: Triple) -> float:
        """The loss to expect."""
        return dot(row, self.mean)

    def miss(self, row: Triple) -> float:
        """Half of the 90 % range of a new panel's loss."""
        return 0.0 if row == ZERO else self.learned.miss(row)


def unlearned(prior: Prior) -> Fitted:
    """The starting values, with no swatch behind them."""
    return _fitted(prior, learn(_guess(prior), ()), ())


def _guess(prior: Prior) -> Guess:
    return Guess(prior.mean, prior.spread, SCATTER, VAGUE)


def fit(prior: Prior, seen: tuple[Observation, ...]) -> Fitted:
    """Constants after these losses."""
    if not seen:
        return unlearned(prior)
    learned = learn(_guess(prior), [Seen(entry.row, entry.value, entry.reading) for entry in seen])
    return _fitted(prior, learned, seen)


def _fitted(prior: Prior, learned: Learned, seen: tuple[Observation, ...]) -> Fitted:
    mean, cov = list(learned.mean), learned.cov
    if min(mean) < 0:
        precision, _ = inverse([list(line) for line in cov])
        mean = _no_less_than_nothing(precision, [dot(line, mean) for line in precision])
    return Fitted(
        mean=(mean[0], mean[1], mean[2]),
        cov=tuple((line[0], line[1], line[2]) for line in cov),  # type: ignore[arg-type]
        scatter=learned.scatter,
        learned=learned,
        swatches=len({entry.swatch for entry in seen}),
        losses=len(seen),
        rank=rank([_scaled(entry.row, prior.spread) for entry in seen]) if seen else 0,
    )


def _scaled(row: Triple, by: Triple) -> list[float]:
    return [value * share for value, share in zip(row, by, strict=True)]


def rank(rows: Sequence[Sequence[float]]) -> int:
    """How many of three columns rows can tell apart: directions that a thousandth of the largest
    entry is left of, once those before are taken out (Gram and Schmidt, the longest first)."""
    least = 1e-3 * max(abs(value) for row in rows for value in row)
    columns = [[row[at] for row in rows] for at in range(3)]
    found = 0
    while columns:
        longest = max(columns, key=lambda column: dot(column, column))
        length = dot(longest, longest) ** 0.5
        if length <= least:
            break
        found += 1
        columns.remove(longest)
        way = [value / length for value in longest]
        columns = [_less(column, dot(column, way), way) for column in columns]
    return found


def _less(column: list[float], far: float, way: list[float]) -> list[float]:
    """A column without what of it lies along a way."""
    return [value - far * along for value, along in zip(column, way, strict=True)]


def _no_less_than_nothing(precision: Matrix, pull: Sequence[float]) -> list[float]:
    """The best constants of which none is negative, by trying which of them are zero."""
    best, cost = [0.0, 0.0, 0.0], 0.0
    for number in (1, 2, 3):
        for kept in combinations(range(3), number):
            part_of, _ = inverse([[precision[i][j] for j in kept] for i in kept])
            wanted = [pull[i] for i in kept]
            part = [dot(line, wanted) for line in part_of]
            if min(part) < 0:
                continue
            gain = -dot(part, [pull[i] for i in kept])
            if gain < cost:
                best, cost = [0.0, 0.0, 0.0], gain
                for i, value in zip(kept, part, strict=True):
                    best[i] = value
    return best


class Residual(Record, frozen=True):
    """How one loss sits with the fit: expected and measured, how far off in units of what is to
    be expected, and its leverage, the share of its own expected value that it makes itself."""

    observation: Observation
    expected: float
    off: float
    leverage: float

    @property
    def outlies(self) -> bool:
        """Whether it is so far off that one should measure it again."""
        return abs(self.off) > FAR_OFF


FAR_OFF = 3.0


def residuals(fitted: Fitted, seen: tuple[Observation, ...]) -> tuple[Residual, ...]:
    """Each loss against the fit it is part of."""
    found = []
    for entry in seen:
        row, cov = entry.row, fitted.cov
        spread = sum(row[i] * cov[i][j] * row[j] for i in range(3) for j in range(3))
        own = fitted.scatter**2 + entry.reading
        leverage = min(spread / own, 1.0)
        expected = fitted.expects(row)
        unit = own**0.5 * max(1 - leverage, 0.02) ** 0.5
        found.append(Residual(entry, expected, (entry.value - expected) / unit, leverage))
    return tuple(found)
