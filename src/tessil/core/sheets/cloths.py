"""Pieces of cloth of given sizes: as few pieces as can be left out, then as little cloth opened.

Each cloth is filled strip by strip, its strips running either way; of all fillings that were found
those are chosen together that do best (HiGHS), and their prices make new ones.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from msgspec.structs import replace

from tessil.core.numbers.records import Record
from tessil.core.sheets.job import Aim
from tessil.core.sheets.search import Search
from tessil.core.sheets.strips import Filler, Kind, Strip, settings

if TYPE_CHECKING:
    from tessil.core.sheets.few import Few
    from tessil.core.sheets.programs import Program

MOST_FILLINGS = 4000
HEAPS_A_SECOND = 15_000  # that can be tried on a cloth in a second
MOST_HEAPS = 1000  # of pieces of which all is looked at that cloths can hold


class Filling(Record, frozen=True):
    """One cloth's strips; ``across`` where they run along its height instead of its width."""

    cloth: int
    across: bool
    strips: tuple[Strip, ...]
    counts: tuple[tuple[int, int], ...]


class Cloth(Record, frozen=True):
    """Cloths alike, and how many."""

    wide: int
    high: int
    many: int

    @property
    def area(self) -> int:
        return self.wide * self.high


class Cloths:
    """One search for one print's pieces of cloth."""

    def __init__(
        self, kinds: Sequence[Kind], cloths: Sequence[Cloth], search: Search, aim: Aim = "least"
    ) -> None:
        self.kinds, self.cloths, self.search = tuple(kinds), tuple(cloths), search
        self.aim = aim
        self.proved = False  # that nothing better is possible
        self.all_area = sum(cloth.area * cloth.many for cloth in cloths) + 1
        over = [Kind(kind.high, kind.wide, kind.many, kind.turns) for kind in kinds]
        self.fillers = {
            (at, across): Filler(over if across else kinds, cloth.high if across else cloth.wide)
            for at, cloth in enumerate(cloths)
            for across in (False, True)
        }
        self.wanted = {at: kind.many for at, kind in enumerate(kinds)}
        self.pool: dict[tuple[object, ...], Filling] = {}
        self.best: tuple[Filling, ...] = ()
        self.score = (sum(self.wanted.values()), 0)

    def cost(self, filling: Filling) -> int:
        """What one cloth counts for by the aim."""
        cloth = self.cloths[filling.cloth]
        if self.aim == "open":
            return self.all_area + cloth.area
        if self.aim == "setups":
            return self.all_area * settings(filling.strips) + cloth.area
        if self.aim == "offcut":
            across = cloth.high if filling.across else cloth.wide
            return sum(strip.high for strip in filling.strips) * across
        return cloth.area

    def room(self, cloth: int, across: bool) -> int:
        """How far strips are laid one after another."""
        return self.cloths[cloth].wide if across else self.cloths[cloth].high

    def fill(
        self, cloth: int, across: bool, left: Mapping[int, int], values: Sequence[float]
    ) -> Filling:
        """One cloth, filled strip by strip with what is worth most for the room it takes."""
        filler, room = self.fillers[cloth, across], self.room(cloth, across)
        there, strips = dict(left), []
        heights = [high for high in filler.heights(room) if high <= room]
        while room > 0:
            some = self.search.dice.sample(heights, min(14, len(heights)))
            best = None
            for high in {*(one for one in some if one <= room), room}:
                strip = self._close(filler, filler.fill(high, there, values))
                if strip is not None:
                    worth = sum(values[at] * many for at, many in strip.counts.items())
                    if best is None or worth / strip.high > best[0]:
                        best = (worth / strip.high, strip)
            if best is None:
                break
            strips.append(best[1])
            room -= best[1].high
            for at, many in best[1].counts.items():
                there[at] -= many
        return self._filling(cloth, across, strips)

    def _close(self, filler: Filler, strip: Strip) -> Strip | None:
        if not strip.stacks:
            return None
        return Strip(max(filler.tall(stack) for stack in strip.stacks), strip.stacks)

    def _filling(self, cloth: int, across: bool, strips: Sequence[Strip]) -> Filling:
        counts: dict[int, int] = {}
        for strip in strips:
            for at, many in strip.counts.items():
                counts[at] = counts.get(at, 0) + many
        return Filling(cloth, across, tuple(strips), tuple(sorted(counts.items())))

    def _keep(self, filling: Filling) -> bool:
        key = (filling.cloth, filling.counts)
        if not filling.counts or key in self.pool:
            return False
        self.pool[key] = filling
        return True

    # -- plans -------------------------------------------------------------------------

    def one_after_another(self, order: Sequence[int], values: Sequence[float]) -> None:
        """Cloth after cloth until nothing is left or none is left."""
        left, made = dict(self.wanted), []
        for cloth in order:
            if not any(left.values()):
                break
            both = [self.fill(cloth, across, left, values) for across in (False, True)]
            filling = max(both, key=lambda one: sum(values[at] * many for at, many in one.counts))
            if not filling.counts:
                continue
            made.append(filling)
            self._keep(filling)
            for at, many in filling.counts:
                left[at] -= many
        self.take(made)

    def take(self, fillings: Sequence[Filling]) -> None:
        """Keep a plan if it is the best; one that has a piece too many is none."""
        given: dict[int, int] = {}
        for filling in fillings:
            for at, many in filling.counts:
                given[at] = given.get(at, 0) + many
        if any(many > self.wanted.get(at, 0) for at, many in given.items()):
            return
        out = sum(max(many - given.get(at, 0), 0) for at, many in self.wanted.items())
        cost = sum(self.cost(filling) for filling in fillings)
        if (out, cost) < self.score:
            self.best, self.score = tuple(fillings), (out, cost)

    def shaken(self) -> None:
        """A plan in another order, by areas a little off."""
        dice = self.search.dice
        every = [at for at, cloth in enumerate(self.cloths) for _ in range(cloth.many)]
        way = dice.choice(("small", "large", "any", "any", "best"))
        if way == "any":
            dice.shuffle(every)
        elif way == "best" and self.best:
            opened = [filling.cloth for filling in self.best]
            dice.shuffle(opened)
            del opened[dice.randrange(len(opened))]
            rest = (Counter(every) - Counter(opened)).elements()
            every = opened + sorted(rest, key=lambda at: self.cloths[at].area)
        else:
            every.sort(key=lambda at: self.cloths[at].area * (1 if way == "small" else -1))
        power = dice.choice((1.0, 1.05, 1.15))
        values = [kind.area**power * dice.uniform(0.85, 1.15) for kind in self.kinds]
        self.one_after_another(every, values)

    # -- the best of them together ---------------------------------------------------------

    def _program(self, pool: Sequence[Filling]) -> Program:
        """Every piece laid or left out; no more cloths than there are."""
        from tessil.core.sheets.programs import Program, sparse

        kinds, cost = len(self.kinds), [self.cost(one) for one in pool]
        missing = self.all_area + (max(cost) * len(self.kinds) if self.aim != "least" else 0)
        cost += [missing] * kinds
        laid = [(at, n, many) for n, one in enumerate(pool) for at, many in one.counts]
        laid += [(at, len(pool) + at, 1) for at in range(kinds)]
        opened = [(one.cloth, n, 1) for n, one in enumerate(pool)]
        size = len(pool) + kinds
        return Program(
            cost,
            (sparse(laid, (kinds, size)), [self.wanted[at] for at in range(kinds)]),
            (sparse(opened, (len(self.cloths), size)), [cloth.many for cloth in self.cloths]),
        )

    def choose(self, seconds: float) -> None:
        """The fillings of all there are that do best together."""
        pool = list(self.pool.values())
        if seconds < 0.05 or not pool:
            return
        numbers, _ = self._program(pool).chosen(seconds, 1e-5)
        if numbers is not None:
            chosen = [one for one, many in zip(pool, numbers, strict=False) for _ in range(many)]
            self.take(self._without_more(chosen))

    def _without_more(self, fillings: Sequence[Filling]) -> list[Filling]:
        left, made = dict(self.wanted), []
        for one in sorted(fillings, key=lambda f: -sum(many for _, many in f.counts)):
            strips = []
            filler = self.fillers[one.cloth, one.across]
            for strip in one.strips:
                stacks = filler.once(list(strip.stacks), left)
                if stacks:
                    kept = Strip(max(filler.tall(stack) for stack in stacks), stacks)
                    strips.append(kept)
                    for at, many in kept.counts.items():
                        left[at] -= many
            if strips:
                made.append(self._filling(one.cloth, one.across, strips))
        return made

    def _priced(self) -> None:
        """Fillings made for the prices of pieces and cloths."""
        pool = list(self.pool.values())
        worth = [max(price, 0.0) for price in self._program(pool).prices()]
        if not worth:
            return
        dice = self.search.dice
        for cloth in range(len(self.cloths)):
            for across in (False, True):
                if self.search.goes_on(0.95):
                    near = [value * dice.uniform(0.95, 1.05) + 1e-6 for value in worth]
                    self._keep(self.fill(cloth, across, self.wanted, near))

    # -- one cloth by itself ------------------------------------------------------------------

    def rest(self, filling: Filling) -> int:
        """The area of what is left of a cloth beyond its last strip, in one piece."""
        cloth = self.cloths[filling.cloth]
        used = sum(strip.high for strip in filling.strips)
        return (self.room(filling.cloth, filling.across) - used) * (
            cloth.high if filling.across else cloth.wide
        )

    def laid_short(
        self, cloth: int, across: bool, many: Mapping[int, int], search: Search
    ) -> Filling | None:
        """These pieces on one cloth, in as little of it as can be; nothing if they do not fit."""
        from tessil.core.sheets.lengths import Yardage

        filler = self.fillers[cloth, across]
        some = [replace(kind, many=many.get(at, 0)) for at, kind in enumerate(filler.kinds)]
        if any(many.get(at, 0) and not filler.fits(at) for at in range(len(some))):
            return None
        found = Yardage(some, filler.wide, search).solve()
        if found.length > self.room(cloth, across):
            return None
        return self._filling(cloth, across, found.strips)

    def done(self) -> bool:
        """Nothing better is possible: all pieces laid in the least area that could hold them."""
        out, cost = self.score
        if self.proved:
            return True
        if self.aim == "fits":
            return out == 0 or self.hopeless() > 0
        if out > self.hopeless():
            return False
        if self.aim == "open":
            return len(self.best) <= 1
        return self.aim == "least" and cost <= self.least_area()

    def hopeless(self) -> int:
        """Pieces that fit no cloth."""
        return sum(
            many
            for at, many in self.wanted.items()
            if not any(
                (self.kinds[at].wide <= cloth.wide and self.kinds[at].high <= cloth.high)
                or (
                    self.kinds[at].turns
                    and self.kinds[at].high <= cloth.wide
                    and self.kinds[at].wide <= cloth.high
                )
                for cloth in self.cloths
            )
        )

    def least_area(self) -> int:
        """The least area of cloths that together are as large as the pieces laid; what is opened
        where it is proved that nothing less would do."""
        if self.proved:
            return self.score[1]
        laid = sum(kind.area * kind.many for kind in self.kinds)
        areas = sorted(cloth.area for cloth in self.cloths for _ in range(cloth.many))
        if sum(areas) <= laid or len(areas) > 40:
            return min(laid, sum(areas))
        reached = {0}
        for area in areas:
            reached |= {there + area for there in reached if there < laid}
            if len(reached) > 60_000:
                return laid
        return min((there for there in reached if there >= laid), default=sum(areas))

    # -- few pieces, all that there is ---------------------------------------------------------

    def _all_looked_at(self) -> None:
        """Of few pieces all that each cloth can hold, and the best of it together: proved."""
        from tessil.core.sheets.few import Few, heaps_of

        most = min(MOST_HEAPS, self.search.left(0.6) * HEAPS_A_SECOND / len(self.fillers))
        if heaps_of(self.wanted) > most or self.aim not in ("least", "fits"):
            return
        held: dict[tuple[int, tuple[int, ...]], tuple[int, bool, Few, int]] = {}
        for (cloth, across), filler in self.fillers.items():
            few = Few(filler, self.wanted, self.room(cloth, across))
            if not few.ready or not self.search.goes_on(0.6):
                return
            for heap in few.within(self.room(cloth, across)):
                counts = tuple(int(there[heap]) for there in few.there)
                held.setdefault((cloth, counts), (cloth, across, few, int(heap)))
        rows = sorted(at for at, many in self.wanted.items() if many)
        found = list(held.items())
        fillings = [
            Filling(cloth, across, (), tuple(zip(rows, counts, strict=True)))
            for (cloth, counts), (_, across, _, _) in found
        ]
        chosen = self._best_of(fillings, self.search.left(0.6))
        if chosen is not None:
            made = []
            for at in chosen:
                cloth, across, few, heap = found[at][1]
                made.append(self._filling(cloth, across, few.strips(heap)))
            self.take(self._without_more(made))
            self.proved = True

    def _best_of(self, fillings: Sequence[Filling], seconds: float) -> list[int] | None:
        """Which of these fillings do best together, one number a cloth; None if that is not
        proved."""
        if not fillings or len(fillings) > MOST_FILLINGS * 3:
            return None
        numbers, proved = self._program(fillings).chosen(max(seconds, 0.05), 0.0)
        if numbers is None or not proved:
            return None
        return [at for at, many in enumerate(numbers[: len(fillings)]) for _ in range(many)]

    def solve(self) -> tuple[Filling, ...]:
        """The best plan that the time allows."""
        every = [at for at, cloth in enumerate(self.cloths) for _ in range(cloth.many)]
        areas = [float(kind.area) for kind in self.kinds]
        for order in (every, sorted(every, key=lambda at: -self.cloths[at].area)):
            self.one_after_another(order, areas)
        if self.search.at_once:
            return self.best
        if not self.done():
            self._all_looked_at()
        while not self.done() and self.search.goes_on(0.95):
            for _ in range(8):
                if not self.done() and self.search.goes_on(0.95):
                    self.shaken()
            if self.pool and not self.done():
                self._priced()
                self.choose(min(self.search.left(0.97), 1.5))
            if len(self.pool) > MOST_FILLINGS:
                kept = list(self.pool.items())[-MOST_FILLINGS // 2 :]
                self.pool = dict(kept)
                for filling in self.best:
                    self._keep(filling)
        return self.best
