"""A line through what was measured, where how far it scatters is to be learned too.

Bayesian linear regression with a normal prior on its constants, at several sizes of scatter, each
weighed by how likely it makes what was seen (Gelman and others, Bayesian Data Analysis, 3rd edition
2013, chapters 3 and 14, from memory).  What is predicted is then a mixture of normal
distributions.  Few unknowns are solved by hand: a window would else wait a tenth of a second for
a library of matrices, which the tests hold this against.  Knows numbers only.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import erf, exp, log, pi

from tessil.core.numbers.records import Record

Vector = tuple[float, ...]
Matrix = list[list[float]]
STEPS = 13  # sizes of scatter that are tried
SPAN = 2.2  # from the middle one to the least and to the largest, in units of ``vague``


class Seen(Record, frozen=True):
    """One measured value: the constants' factors in it, and the variance of reading it."""

    row: Vector
    value: float
    reading: float = 0.0


class Guess(Record, frozen=True):
    """Starting constants and how far each may be off; the scatter to begin with, and how far that
    may be off as a logarithm."""

    mean: Vector
    spread: Vector
    scatter: float
    vague: float


class Part(Record, frozen=True):
    """The constants at one size of scatter, and how much that counts."""

    weight: float
    mean: Vector
    cov: tuple[Vector, ...]
    scatter: float


class Learned(Record, frozen=True, dict=True):
    """Constants as they are known now, at every size of scatter that may be."""

    parts: tuple[Part, ...]

    @cached_property
    def mean(self) -> Vector:
        """What to expect of each constant."""
        size = len(self.parts[0].mean)
        return tuple(sum(part.weight * part.mean[at] for part in self.parts) for at in range(size))

    @cached_property
    def cov(self) -> tuple[Vector, ...]:
        """How the constants vary together, over all sizes of scatter."""
        mean = self.mean
        size = range(len(mean))
        return tuple(
            tuple(
                sum(
                    part.weight
                    * (part.cov[i][j] + (part.mean[i] - mean[i]) * (part.mean[j] - mean[j]))
                    for part in self.parts
                )
                for j in size
            )
            for i in size
        )

    @property
    def scatter(self) -> float:
        """The scatter to expect: the root of its mean square."""
        return float(sum(part.weight * part.scatter**2 for part in self.parts) ** 0.5)

    def expects(self, row: Vector) -> float:
        """The value to expect."""
        return dot(row, self.mean)

    def miss(self, row: Vector, share: float = 0.9, reading: float = 0.0) -> float:
        """How far a new value lies from the expected one at most, ``share`` of the times."""
        kept: dict[tuple[Vector, float, float], float] = self.__dict__.setdefault("misses", {})
        asked = (row, share, reading)
        if asked not in kept:
            kept[asked] = self._miss(row, share, reading)
        return kept[asked]

    def _miss(self, row: Vector, share: float, reading: float) -> float:
        middle = self.expects(row)
        normals = [
            (part.weight, dot(row, part.mean) - middle, self._wide(part, row, reading))
            for part in self.parts
        ]
        half = 1.645 * sum(w * (wide * wide + off * off) for w, off, wide in normals) ** 0.5
        for _ in range(20):  # Newton's steps: the share within grows ever more slowly
            short, slope = share, 0.0
            for weight, off, wide in normals:
                short -= weight * within(off, wide, half)
                slope += weight * (density(half - off, wide) + density(half + off, wide))
            step = short / slope if slope > 0 else 0.0
            half = max(half + step, half / 4)
            if abs(step) <= 1e-9 * half:
                break
        return float(half)

    @staticmethod
    def _wide(part: Part, row: Vector, reading: float) -> float:
        size = range(len(row))
        spread = sum(row[i] * part.cov[i][j] * row[j] for i in size for j in size)
        return float((max(spread, 0.0) + part.scatter**2 + reading) ** 0.5)


def within(off: float, wide: float, half: float) -> float:
    """The share of a normal distribution about ``off`` that lies within ``half`` of nothing."""
    if wide <= 0:
        return 1.0 if abs(off) <= half else 0.0
    by = wide * 2**0.5
    return (erf((half - off) / by) + erf((half + off) / by)) / 2


def density(off: float, wide: float) -> float:
    """The density of a normal distribution, so far from its middle."""
    return exp(-((off / wide) ** 2) / 2) / (wide * (2 * pi) ** 0.5) if wide > 0 else 0.0


def learn(guess: Guess, seen: Iterable[Seen]) -> Learned:
    """The constants after these values; the guess itself where there are none."""
    groups = _grouped(seen, len(guess.mean))
    sizes = [guess.vague * SPAN * (2 * at / (STEPS - 1) - 1) for at in range(STEPS)]
    found = [_at(guess, groups, guess.scatter * exp(size)) for size in sizes]
    tall = [
        likely - (size / guess.vague) ** 2 / 2
        for (_, _, likely), size in zip(found, sizes, strict=True)
    ]
    top = max(tall)
    weights = [exp(one - top) for one in tall]
    whole = sum(weights)
    return Learned(
        tuple(
            Part(weight / whole, mean, cov, guess.scatter * exp(size))
            for weight, (mean, cov, _), size in zip(weights, found, sizes, strict=True)
        )
    )


@dataclass
class _Sums:
    """What values of nearly one variance of reading add up to: all that a line through them needs;
    ``readings`` are those variances added."""

    readings: float
    number: int
    rows: Matrix
    pull: list[float]
    square: float


def _grouped(seen: Iterable[Seen], size: int) -> list[_Sums]:
    groups: dict[int, _Sums] = {}
    for one in seen:
        # Rulers are read on so many lengths: those within a twentieth of one another count as one.
        key = round(20 * log(one.reading)) if one.reading > 0 else -(10**9)
        sums = groups.get(key)
        if sums is None:
            empty = [[0.0] * size for _ in range(size)]
            sums = groups[key] = _Sums(0.0, 0, empty, [0.0] * size, 0.0)
        sums.number += 1
        sums.readings += one.reading
        sums.square += one.value**2
        for i, a in enumerate(one.row):
            if a:
                sums.pull[i] += a * one.value
                line = sums.rows[i]
                for j, b in enumerate(one.row):
                    line[j] += a * b
    return list(groups.values())


def _at(
    guess: Guess, groups: Sequence[_Sums], scatter: float
) -> tuple[Vector, tuple[Vector, ...], float]:
    """The constants at one size of scatter, and the logarithm of how likely it makes the values."""
    size = range(len(guess.mean))
    firm = [1 / spread**2 for spread in guess.spread]
    precision = [[firm[i] if i == j else 0.0 for j in size] for i in size]
    pull = [firm[i] * guess.mean[i] for i in size]
    likely = -sum(log(spread**2) for spread in guess.spread) / 2
    square = sum(firm[i] * guess.mean[i] ** 2 for i in size)
    for sums in groups:
        variance = scatter**2 + sums.readings / sums.number
        likely -= sums.number * log(2 * pi * variance) / 2
        square += sums.square / variance
        for i in size:
            pull[i] += sums.pull[i] / variance
            for j in size:
                precision[i][j] += sums.rows[i][j] / variance
    cov, grown = inverse(precision)
    mean = tuple(dot(line, pull) for line in cov)
    likely -= (grown + square - dot(mean, pull)) / 2
    return mean, tuple(tuple(line) for line in cov), likely


def dot(one: Sequence[float], other: Sequence[float]) -> float:
    """The sum of products, pair by pair."""
    return sum(a * b for a, b in zip(one, other, strict=True))


def inverse(matrix: Matrix) -> tuple[Matrix, float]:
    """The inverse of a positive definite matrix (Gauss and Jordan), and its determinant's
    logarithm."""
    size = len(matrix)
    rows = [[*line, *(float(i == j) for j in range(size))] for i, line in enumerate(matrix)]
    grown = 0.0
    for at in range(size):
        pivot = rows[at][at]
        grown += log(pivot)
        rows[at] = [value / pivot for value in rows[at]]
        for other in range(size):
            if other != at:
                times = rows[other][at]
                rows[other] = [a - times * b for a, b in zip(rows[other], rows[at], strict=True)]
    return [line[size:] for line in rows], grown
