"""Few pieces: every heap that can be made of them, and the lowest strip each heap goes into.

A heap is so many of each kind; heaps are numbered in mixed radix, so that a heap less a stack is
a number less.  With all strips known, the least length is proved: a linear program over them bounds
it, and of the strips that could do better than what is known the best are chosen (HiGHS).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import cache
from math import ceil, prod

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, linprog, milp

from tessil.core.numbers.records import Record
from tessil.core.sheets.search import Search
from tessil.core.sheets.strips import Filler, Stack, Strip

MOST_HEAPS = 600_000
MOST_WORK = 4e8  # heaps times stacks
MOST_COLUMNS = 20_000
NEVER = 2**29
TIGHT = 1e-6


class _Pile(Record, frozen=True):
    """Pieces of one width on top of each other: how many of each row, how wide, how high."""

    wide: int
    high: int
    pieces: tuple[tuple[int, bool], ...]  # row, turned
    counts: tuple[tuple[int, int], ...]  # row, how many


def heaps_of(many: Mapping[int, int]) -> int:
    """How many heaps can be made of so many of each kind."""
    return prod(number + 1 for number in many.values())


class Few:
    """All heaps of some pieces for strips of one width, none higher than ``most``.

    ``ready`` is False where they are too many to be looked at.
    """

    def __init__(self, filler: Filler, many: Mapping[int, int], most: int) -> None:
        self.filler, self.wide = filler, filler.wide
        self.rows = sorted(at for at, number in many.items() if number)
        self.many = [many[at] for at in self.rows]
        self.heaps = heaps_of(many)
        self.piles: list[_Pile] = []
        self.ready = self.heaps <= MOST_HEAPS
        for pile in self._piles(most) if self.ready else ():
            self.piles.append(pile)
            if len(self.piles) * self.heaps > MOST_WORK:
                self.ready = False
                break
        if self.ready:
            self.piles.sort(key=lambda one: one.high)
            self._number()
            self.high = self._heights()
            self.long = self.high  # in several strips, once that is asked

    def _number(self) -> None:
        self.steps = []
        step = 1
        for number in self.many:
            self.steps.append(step)
            step *= number + 1
        all_ = np.arange(self.heaps, dtype=np.int32)
        self.there = [
            ((all_ // step) % (number + 1)).astype(np.int8)
            for step, number in zip(self.steps, self.many, strict=True)
        ]

    def _piles(self, most: int) -> Iterator[_Pile]:
        """Every stack there can be."""
        row_of = {at: row for row, at in enumerate(self.rows)}
        for across, options in self.filler.by_width.items():
            rows = [(row_of[at], along, turned) for at, along, turned in options if at in row_of]
            yield from self._of_width(across, rows, 0, (), most)

    def _of_width(
        self,
        across: int,
        options: Sequence[tuple[int, int, bool]],
        high: int,
        pieces: tuple[tuple[int, bool], ...],
        most: int,
    ) -> Iterator[_Pile]:
        if not options:
            if pieces:
                counts: dict[int, int] = {}
                for row, _ in pieces:
                    counts[row] = counts.get(row, 0) + 1
                yield _Pile(across, high, pieces, tuple(counts.items()))
            return
        (row, along, turned), *rest = options
        for number in range(min(self.many[row], (most - high) // along) + 1):
            more = pieces + ((row, turned),) * number
            yield from self._of_width(across, rest, high + number * along, more, most)

    def _heights(self) -> np.ndarray:
        """How high the lowest strip is that a heap goes into; NEVER where none does."""
        narrow = np.full(self.heaps, NEVER, dtype=np.int32)
        high = np.full(self.heaps, NEVER, dtype=np.int32)
        narrow[0], high[0] = 0, 0
        for pile in self.piles:
            less = sum(self.steps[row] * number for row, number in pile.counts)
            holds = np.ones(self.heaps, dtype=bool)
            for row, number in pile.counts:
                holds &= self.there[row] >= number
            where = np.flatnonzero(holds)
            times = min(self.many[row] // number for row, number in pile.counts)
            for _ in range(min(times, self.wide // pile.wide)):
                with_it = narrow[where - less] + pile.wide
                better = with_it < narrow[where]
                narrow[where[better]] = with_it[better]
            fits = where[(narrow[where] <= self.wide) & (high[where] == NEVER)]
            high[fits] = pile.high
        return high

    # -- strips and heaps ---------------------------------------------------------------

    def strip(self, heap: int) -> Strip:
        """A heap laid out in its lowest strip."""
        limit = int(self.high[heap])
        piles = [pile for pile in self.piles if pile.high <= limit]

        @cache
        def laid(left: tuple[int, ...]) -> tuple[int, tuple[_Pile, ...]]:
            lead = next((row for row, number in enumerate(left) if number), None)
            if lead is None:
                return 0, ()
            best: tuple[int, tuple[_Pile, ...]] = NEVER, ()
            for pile in piles:
                counts = dict(pile.counts)
                if lead in counts and all(left[row] >= n for row, n in pile.counts):
                    rest = tuple(n - counts.get(row, 0) for row, n in enumerate(left))
                    wide, others = laid(rest)
                    if pile.wide + wide < best[0]:
                        best = pile.wide + wide, (pile, *others)
            return best

        counts = tuple(int(there[heap]) for there in self.there)
        stacks = [
            Stack(pile.wide, tuple((self.rows[row], turned) for row, turned in pile.pieces))
            for pile in laid(counts)[1]
        ]
        tall = self.filler.tall
        return Strip(limit, tuple(sorted(stacks, key=lambda one: (-tall(one), -one.wide))))

    def within(self, room: int) -> np.ndarray:
        """The numbers of the heaps that strips one after another hold in that length, without those
        to which something could be added."""
        long = self.high.astype(np.int64)
        for heap in range(1, self.heaps):
            part = self._parts(heap)
            long[heap] = min(long[heap], int((self.high[part] + long[heap - part]).min()))
        self.long = long
        fits = long <= room
        fits[0] = False
        for row, step in enumerate(self.steps):
            where = np.flatnonzero(fits & (self.there[row] < self.many[row]))
            fits[where[long[where + step] <= room]] = False
        return np.flatnonzero(fits)

    def _parts(self, heap: int) -> np.ndarray:
        """All heaps that a heap holds, but for the empty one and itself."""
        found = np.zeros(1, dtype=np.int64)
        for row, step in enumerate(self.steps):
            taken = np.arange(int(self.there[row][heap]) + 1) * step
            found = (found[:, np.newaxis] + taken[np.newaxis, :]).ravel()
        return found[1:-1] if len(found) > 2 else found[:1]

    def strips(self, heap: int) -> tuple[Strip, ...]:
        """A heap in strips one after another, as short as can be; after ``within``."""
        made: list[Strip] = []
        while heap:
            if self.high[heap] == self.long[heap]:
                return (*made, self.strip(heap))
            part = self._parts(heap)
            best = int(part[int(np.argmin(self.high[part] + self.long[heap - part]))])
            made.append(self.strip(best))
            heap -= best
        return tuple(made)

    def in_two(self, most: int, worse: int, search: Search) -> tuple[Strip, ...]:
        """All pieces in one strip or two, as low as can be or so much worse, by chance; nothing if
        ``most`` does not do.  Heaps of all pieces and of what they lack are numbered back to front.
        """
        both = self.high + self.high[::-1]
        least = int(both.min())
        if least > most:
            return ()
        ways = np.flatnonzero(both <= least + worse)
        heap = int(ways[search.dice.randrange(len(ways))])
        return tuple(self.strip(one) for one in (heap, self.heaps - 1 - heap) if one)

    def _fullest(self) -> np.ndarray:
        """Heaps to which nothing can be added without a higher strip: the others can be left."""
        kept = self.high < NEVER
        kept[0] = False
        for row, step in enumerate(self.steps):
            where = np.flatnonzero(kept & (self.there[row] < self.many[row]))
            kept[where[self.high[where + step] <= self.high[where]]] = False
        return np.flatnonzero(kept)

    def least(
        self, known: int, search: Search, share: float, seconds: float = 1e9, shake: float = 0.0
    ) -> tuple[tuple[Strip, ...], float]:
        """Strips for all pieces shorter than ``known``, if there are any and they are found; and
        a length that no strips can do without.  ``shake`` favours some strips by chance."""
        columns = _Columns(self, self._fullest())
        bound, costs = columns.priced(search, share)
        least = ceil(bound - TIGHT)
        if costs is None or least >= known:
            return (), min(least, known)
        if shake:
            chance = np.random.default_rng(search.dice.randrange(2**32))
            columns.favour = shake * chance.random(len(costs))
        chosen, proved = columns.chosen(costs, known, bound, min(search.left(share), seconds))
        strips = tuple(self.strip(heap) for heap in chosen)
        length = sum(strip.high for strip in strips) if strips else known
        return strips, length if proved else least


class _Columns:
    """The program over all strips of few pieces."""

    def __init__(self, few: Few, heaps: np.ndarray) -> None:
        self.few, self.heaps = few, heaps
        self.high = few.high[heaps].astype(float)
        self.there = np.array([there[heaps] for there in few.there], dtype=np.float32)
        self.many = np.array(few.many, float)
        self.favour = np.zeros(len(heaps))

    def priced(self, search: Search, share: float) -> tuple[float, np.ndarray | None]:
        """The least of the linear program, and what each strip costs beyond its pieces' prices;
        0 and nothing if the time was up before."""
        some = np.unique(
            np.concatenate([self._singles(), np.argsort(self.high / self._areas())[:200]])
        )
        while search.goes_on(share):
            solved = linprog(
                self.high[some], A_ub=-self.there[:, some], b_ub=-self.many, method="highs"
            )
            if solved.status:
                return 0.0, None
            prices = -solved.ineqlin.marginals
            costs = self.high - prices.astype(np.float32) @ self.there
            new = np.argpartition(costs, min(80, len(costs) - 1))[:80]
            new = new[costs[new] < -1e-4]
            if not len(new) or not len(np.setdiff1d(new, some)):
                dear = float(min(costs.min(), 0.0))
                return float(solved.fun) * (1 + dear / max(self.high.min(), 1.0)), costs
            some = np.union1d(some, new)
        return 0.0, None

    def _areas(self) -> np.ndarray:
        kinds = self.few.filler.kinds
        area = np.array([kinds[at].area for at in self.few.rows], np.float32)
        return np.asarray(area @ self.there)

    def _singles(self) -> np.ndarray:
        """For every row the lowest strip that has such a piece."""
        return np.array([int(np.argmin(np.where(row > 0, self.high, NEVER))) for row in self.there])

    def chosen(
        self, costs: np.ndarray, known: int, bound: float, seconds: float
    ) -> tuple[list[int], bool]:
        """The heaps of a layout shorter than ``known``; whether that is proved the least."""
        could = np.flatnonzero(costs <= known - 1 - bound + TIGHT * known)
        every = len(could) <= MOST_COLUMNS
        if not every:
            could = could[np.argsort(costs[could])[:MOST_COLUMNS]]
        if seconds < 0.02 or not len(could):
            return [], every and not len(could)
        high = self.high[could]
        solved = milp(
            high + self.favour[could],
            constraints=[
                LinearConstraint(self.there[:, could], lb=self.many),
                LinearConstraint(high[np.newaxis, :], ub=known - 1),
            ],
            integrality=np.ones(len(could)),
            bounds=Bounds(0, float(self.many.max())),
            options={"time_limit": seconds, "mip_rel_gap": 0.0},
        )
        if solved.x is None:
            return [], every and solved.status == 2
        heaps = [
            int(self.heaps[could[at]])
            for at, x in enumerate(solved.x)
            for _ in range(round(float(x)))
        ]
        return heaps, every and solved.status == 0
