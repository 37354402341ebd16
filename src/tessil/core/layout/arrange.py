"""Giving prints to pieces so that few rules are broken: a numeric kernel.

Minimum conflicts with a short memory (tabu search): a piece that breaks a rule takes the print
that breaks least, or swaps with a piece that has it where there is no more of that print.
Seeded and repeatable.  The answer carries what it costs; nothing here claims that no cheaper
one exists unless it costs nothing.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from tessil.core.numbers.records import Record

Ints = NDArray[np.int64]
Watch = Callable[[float, int], bool]  # how far, cost so far; answers whether to go on
LARGE = 1 << 40
ASK_EVERY = 64
LEAST_STEPS, STEPS_A_PIECE = 3000, 30


class Problem(Record, frozen=True):
    """Pieces 0…n−1 and prints 0…k−1.

    ``pairs`` (m × 2) are pieces that touch; both having one print costs ``same`` (m), both
    having prints of one class costs ``alike`` (m), classes by ``classes`` (k).  ``alone`` (n × k)
    is what a print costs on a piece by itself.  A piece uses up ``weights`` (n) of its print,
    of which there are ``limits`` (k; −1 without limit).  ``fixed`` (n) is a print, or −1.
    """

    pairs: Ints
    same: Ints
    alike: Ints
    classes: Ints
    alone: Ints
    weights: Ints
    limits: Ints
    fixed: Ints
    floor: int = 0  # what every layout must cost; below it no search is needed

    @property
    def pieces(self) -> int:
        return len(self.weights)

    @property
    def prints(self) -> int:
        return len(self.limits)


class Answer(Record, frozen=True):
    """A print for each piece and what it costs; ``over`` counts pieces beyond what is in hand."""

    prints: Ints
    cost: int
    over: int


def cost_of(problem: Problem, prints: Ints) -> int:
    """What a layout costs, counted plainly from the problem."""
    one, other = prints[problem.pairs[:, 0]], prints[problem.pairs[:, 1]]
    kinds = problem.classes
    return int(
        problem.same[one == other].sum()
        + problem.alike[kinds[one] == kinds[other]].sum()
        + problem.alone[np.arange(problem.pieces), prints].sum()
    )


class _Search:
    """The state of one search: prints, and what each print would cost on each piece."""

    def __init__(self, problem: Problem, seed: int, orderly: bool = False) -> None:
        self.problem = problem
        self.draw = np.random.default_rng(seed)
        self.neighbours = _neighbours(problem)
        self.stay = np.full((problem.pieces, problem.prints), -1, dtype=np.int64)
        self.free = np.flatnonzero(problem.fixed < 0)
        self.limits = np.where(problem.limits < 0, LARGE, problem.limits)
        self.prints = self._in_order() if orderly else self._begin()
        self.used = np.bincount(
            self.prints, weights=problem.weights, minlength=problem.prints
        ).astype(np.int64)
        self.costs = self._costs()
        self.rows = np.arange(problem.pieces)
        self.cost = cost_of(problem, self.prints)

    def _begin(self) -> Ints:
        """Shares in proportion to what is in hand, the rest wherever there is more, shuffled."""
        problem = self.problem
        prints = problem.fixed.copy()
        left = self.limits.copy()
        for at in np.flatnonzero(prints >= 0):
            left[prints[at]] -= problem.weights[at]
        order = self.draw.permutation(self.free)
        used = np.zeros(problem.prints, dtype=np.int64)
        for at in order:
            room = left - problem.weights[at]
            rank = np.where(room >= 0, used, LARGE - np.minimum(room, 0))
            best = int(np.argmin(rank * 1024 + self.draw.integers(0, 1024, problem.prints)))
            prints[at] = best
            left[best] -= problem.weights[at]
            used[best] += 1
        return prints

    def _in_order(self) -> Ints:
        """Piece after piece the first print that breaks least: dull, but hard to beat where
        prints are few."""
        problem = self.problem
        prints, left = problem.fixed.copy(), self.limits.copy()
        for at in np.flatnonzero(prints >= 0):
            left[prints[at]] -= problem.weights[at]
        for at in self.free:
            others, same, _ = self.neighbours[at]
            costs = problem.alone[at].astype(np.int64).copy()
            there = prints[others] >= 0
            np.add.at(costs, prints[others[there]], same[there])
            costs = costs + np.where(left >= problem.weights[at], 0, LARGE // 1024)
            prints[at] = int(np.argmin(costs))
            left[prints[at]] -= problem.weights[at]
        return prints

    def _costs(self) -> Ints:
        problem = self.problem
        costs = problem.alone.astype(np.int64).copy()
        for at, (others, same, alike) in enumerate(self.neighbours):
            if not len(others):
                continue
            np.add.at(costs[at], self.prints[others], same)
            for kind in np.unique(problem.classes[self.prints[others]]):
                share = alike[problem.classes[self.prints[others]] == kind].sum()
                costs[at, problem.classes == kind] += share
        return costs

    def put(self, at: int, new: int) -> None:
        """Give a piece another print and bring every cost up to date."""
        old, problem = int(self.prints[at]), self.problem
        self.cost += int(self.costs[at, new] - self.costs[at, old])
        others, same, alike = self.neighbours[at]
        if len(others):
            self.costs[others, old] -= same
            self.costs[others, new] += same
            if alike.any():
                was, now = problem.classes[old], problem.classes[new]
                if was != now:
                    self.costs[np.ix_(others, problem.classes == was)] -= alike[:, None]
                    self.costs[np.ix_(others, problem.classes == now)] += alike[:, None]
        self.used[old] -= problem.weights[at]
        self.used[new] += problem.weights[at]
        self.prints[at] = new

    def pick(self) -> int:
        """A free piece that costs something, or any if only the amounts are wrong."""
        now = self.costs[self.rows, self.prints][self.free]
        over = (self.used > self.limits)[self.prints[self.free]]
        worst = np.flatnonzero((now > 0) | over)
        pool = self.free[worst] if len(worst) else self.free
        return int(pool[self.draw.integers(len(pool))])

    def step(self, turn: int, best: int) -> None:
        """One move: the best of giving the piece another print and of swapping it."""
        problem = self.problem
        at = self.pick()
        old = int(self.prints[at])
        gain = self.costs[at] - self.costs[at, old]
        room = self.used + problem.weights[at] <= self.limits
        if self.used[old] > self.limits[old]:
            gain = gain - LARGE // 1024  # getting below the amount in hand goes first
        tabu = (self.stay[at] > turn) & (self.cost + gain >= best)
        moves = np.where(room & ~tabu, gain, LARGE)
        moves[old] = LARGE
        new = self._least(moves)
        swap, swap_gain = self._best_swap(at, old, turn, best)
        tenure = turn + 6 + int(self.draw.integers(10))
        if swap >= 0 and swap_gain < moves[new]:
            self.stay[at, old] = tenure
            self.stay[swap, self.prints[swap]] = tenure
            other = int(self.prints[swap])
            self.put(at, other)
            self.put(swap, old)
        elif moves[new] < LARGE:
            self.stay[at, old] = tenure
            self.put(at, new)

    def _least(self, values: Ints) -> int:
        low = values.min()
        ties = np.flatnonzero(values == low)
        return int(ties[self.draw.integers(len(ties))])

    def _best_swap(self, at: int, old: int, turn: int, best: int) -> tuple[int, int]:
        """The free piece that is best swapped with this one, and what that changes."""
        problem, free = self.problem, self.free
        theirs = self.prints[free]
        gain = (
            self.costs[at, theirs]
            - self.costs[at, old]
            + self.costs[free, old]
            - self.costs[free, theirs]
        )
        others, same, alike = self.neighbours[at]
        if len(others):  # two that touch each counted the other as staying
            apart = problem.classes[self.prints[others]] != problem.classes[old]
            place = np.zeros(problem.pieces, dtype=np.int64)
            np.add.at(place, others, same + alike * apart)
            gain = gain - 2 * place[free]
        tabu = ((self.stay[at, theirs] > turn) | (self.stay[free, old] > turn)) & (
            self.cost + gain >= best
        )
        barred = tabu | (theirs == old) | (problem.weights[free] != problem.weights[at])
        gain = np.where(barred, LARGE, gain)
        place_at = self._least(gain)
        if gain[place_at] >= LARGE:
            return -1, LARGE
        return int(free[place_at]), int(gain[place_at])

    @property
    def over(self) -> int:
        return int(np.maximum(self.used - self.limits, 0).sum())


def _neighbours(problem: Problem) -> list[tuple[Ints, Ints, Ints]]:
    """For each piece the pieces it touches, and what same and alike cost there."""
    lists: list[list[tuple[int, int, int]]] = [[] for _ in range(problem.pieces)]
    for (one, other), same, alike in zip(problem.pairs, problem.same, problem.alike, strict=True):
        lists[one].append((int(other), int(same), int(alike)))
        lists[other].append((int(one), int(same), int(alike)))
    return [
        (
            np.array([entry[0] for entry in found], dtype=np.int64),
            np.array([entry[1] for entry in found], dtype=np.int64),
            np.array([entry[2] for entry in found], dtype=np.int64),
        )
        for found in lists
    ]


def arrange(
    problem: Problem, seed: int, steps: int = 0, watch: Watch = lambda _, __: True
) -> Answer:
    """The best layout found; ends early at the least cost there can be, or when ``watch`` says
    to stop.

    ``steps`` bounds the search (0: by the number of pieces), so that a seed always gives the
    same answer on every machine.
    """
    steps = steps or LEAST_STEPS + STEPS_A_PIECE * problem.pieces
    if not problem.pieces or not problem.prints:
        return Answer(problem.fixed.copy(), 0, 0)
    best: Answer | None = None
    for half, orderly in enumerate((False, True)):
        search = _Search(problem, seed, orderly)
        found = _searched(search, steps // 2, lambda far, cost, h=half: watch((h + far) / 2, cost))  # type: ignore[misc]
        if best is None or (found.over, found.cost) < (best.over, best.cost):
            best = found
        if (best.over == 0 and best.cost <= problem.floor) or not watch((half + 1) / 2, best.cost):
            break
    assert best is not None
    return best


def _searched(search: _Search, steps: int, watch: Watch) -> Answer:
    best, rank = search.prints.copy(), (search.over, search.cost)
    for turn in range(steps if len(search.free) else 0):
        if rank[0] == 0 and rank[1] <= search.problem.floor:
            break
        if turn % ASK_EVERY == 0 and not watch(turn / steps, rank[1]):
            break
        search.step(turn, rank[1])
        now = (search.over, search.cost)
        if now < rank:
            best, rank = search.prints.copy(), now
    return Answer(best, rank[1], rank[0])
