"""What swatches teach about the three constants of the draw-in model.

Each measured loss is linear in θ = (q, d, g), with q = 8/3·a²: ``e = A·q + B·d + C·g``.  The
starting values are the prior; swatches are weighed against it by conjugate Bayesian linear
regression with unknown scatter (normal-inverse-gamma; Gelman and others, Bayesian Data Analysis,
3rd edition 2013, chapter 14, from memory).  Predictions then follow a t distribution.  Lengths
are inches.  Knows numbers only; must not know swatches or panels.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

from tessil.core.numbers.records import Record

Matrix = list[list[float]]
Triple = tuple[float, float, float]
SCATTER = 0.004  # from panel to panel, as a share; starting value, from memory
READING = 0.025  # inches: reading a ruler before and after
FREEDOM = 3.0  # the prior's shape: as if six losses had shown that scatter
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
    def weight(self) -> float:
        """Short lengths say less: reading them adds to the scatter."""
        return 1 / (1 + (READING / self.length / SCATTER) ** 2)


class Fitted(Record, frozen=True):
    """The constants after the swatches.

    ``cov`` is their covariance as a multiple of the scatter's square, row by row; ``scatter``
    the expected panel-to-panel scatter; ``freedom`` the degrees of freedom.
    """

    mean: Triple
    cov: tuple[Triple, Triple, Triple]
    scatter: float
    freedom: float
    swatches: int
    losses: int
    rank: int  # how many of the three constants the swatches can tell apart

    def expects(self, row: Triple) -> float:
        """The loss to expect."""
        return sum(a * b for a, b in zip(row, self.mean, strict=True))

    def miss(self, row: Triple) -> float:
        """Half of the 90 % range of a new panel's loss."""
        if row == ZERO:
            return 0.0
        spread = sum(row[i] * self.cov[i][j] * row[j] for i in range(3) for j in range(3))
        return float(student(self.freedom) * self.scatter * (1 + max(spread, 0.0)) ** 0.5)


def student(freedom: float) -> float:
    """The 95 % point of Student's t, by its expansion about the normal one.

    Abramowitz and Stegun, Handbook of Mathematical Functions (1964), 26.7.5, from memory; within
    0.001 from six degrees of freedom on.  A fifth of a second quicker to begin with than
    importing ``scipy.special``, which the tests hold it against.
    """
    x = 1.6448536269514722
    terms = (
        (x**3 + x) / 4,
        (5 * x**5 + 16 * x**3 + 3 * x) / 96,
        (3 * x**7 + 19 * x**5 + 17 * x**3 - 15 * x) / 384,
        (79 * x**9 + 776 * x**7 + 1482 * x**5 - 1920 * x**3 - 945 * x) / 92160,
    )
    return x + sum(term / freedom**power for power, term in enumerate(terms, start=1))


def unlearned(prior: Prior) -> Fitted:
    """The starting values, with no swatch behind them."""
    variance = [(spread / SCATTER) ** 2 for spread in prior.spread]
    cov = tuple(tuple(variance[i] if i == j else 0.0 for j in range(3)) for i in range(3))
    return Fitted(prior.mean, cov, SCATTER, 2 * FREEDOM, 0, 0, 0)  # type: ignore[arg-type]


def fit(prior: Prior, seen: tuple[Observation, ...]) -> Fitted:
    """Constants after these losses; none are less than nothing.

    Three unknowns are solved by hand: a window with a logbook would else wait a tenth of a second
    for a library of matrices, which the tests hold this against.
    """
    if not seen:
        return unlearned(prior)
    firm = [(SCATTER / spread) ** 2 for spread in prior.spread]
    precision = [
        [
            sum(entry.weight * entry.row[i] * entry.row[j] for entry in seen)
            + (firm[i] if i == j else 0.0)
            for j in range(3)
        ]
        for i in range(3)
    ]
    pull = [
        firm[i] * prior.mean[i] + sum(entry.weight * entry.row[i] * entry.value for entry in seen)
        for i in range(3)
    ]
    cov = inverse(precision)
    mean = _times(cov, pull)
    square = (
        sum(entry.weight * entry.value**2 for entry in seen)
        + sum(firm[i] * prior.mean[i] ** 2 for i in range(3))
        - _dot(mean, _times(precision, mean))
    )
    shape = FREEDOM + len(seen) / 2
    rate = FREEDOM * SCATTER**2 + max(square, 0.0) / 2
    if min(mean) < 0:
        mean = _no_less_than_nothing(precision, pull)
    return Fitted(
        mean=(mean[0], mean[1], mean[2]),
        cov=tuple((line[0], line[1], line[2]) for line in cov),  # type: ignore[arg-type]
        scatter=(rate / shape) ** 0.5,
        freedom=2 * shape,
        swatches=len({entry.swatch for entry in seen}),
        losses=len(seen),
        rank=rank([_scaled(entry.row, prior.spread) for entry in seen]),
    )


def _scaled(row: Triple, by: Triple) -> list[float]:
    return [value * share for value, share in zip(row, by, strict=True)]


def _dot(one: Sequence[float], other: Sequence[float]) -> float:
    return sum(a * b for a, b in zip(one, other, strict=True))


def _times(matrix: Matrix, vector: Sequence[float]) -> list[float]:
    return [_dot(line, vector) for line in matrix]


def inverse(matrix: Matrix) -> Matrix:
    """The inverse of a positive definite matrix of one to three rows (Gauss and Jordan)."""
    size = len(matrix)
    rows = [[*line, *(float(i == j) for j in range(size))] for i, line in enumerate(matrix)]
    for at in range(size):
        pivot = rows[at][at]
        rows[at] = [value / pivot for value in rows[at]]
        for other in range(size):
            if other != at:
                times = rows[other][at]
                rows[other] = [a - times * b for a, b in zip(rows[other], rows[at], strict=True)]
    return [line[size:] for line in rows]


def rank(rows: Sequence[Sequence[float]]) -> int:
    """How many of three columns rows can tell apart: directions that a thousandth of the largest
    entry is left of, once those before are taken out (Gram and Schmidt, the longest first)."""
    least = 1e-3 * max(abs(value) for row in rows for value in row)
    columns = [[row[at] for row in rows] for at in range(3)]
    found = 0
    while columns:
        longest = max(columns, key=lambda column: _dot(column, column))
        length = _dot(longest, longest) ** 0.5
        if length <= least:
            break
        found += 1
        columns.remove(longest)
        way = [value / length for value in longest]
        columns = [_less(column, _dot(column, way), way) for column in columns]
    return found


def _less(column: list[float], far: float, way: list[float]) -> list[float]:
    """A column without what of it lies along a way."""
    return [value - far * along for value, along in zip(column, way, strict=True)]


def _no_less_than_nothing(precision: Matrix, pull: Sequence[float]) -> list[float]:
    """The best constants of which none is negative, by trying which of them are zero."""
    best, cost = [0.0, 0.0, 0.0], 0.0
    for number in (1, 2, 3):
        for kept in combinations(range(3), number):
            part = _times(
                inverse([[precision[i][j] for j in kept] for i in kept]), [pull[i] for i in kept]
            )
            if min(part) < 0:
                continue
            gain = -_dot(part, [pull[i] for i in kept])
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
        leverage = min(entry.weight * spread, 1.0)
        expected = fitted.expects(row)
        unit = fitted.scatter / entry.weight**0.5 * max(1 - leverage, 0.02) ** 0.5
        found.append(Residual(entry, expected, (entry.value - expected) / unit, leverage))
    return tuple(found)
