"""Yardage: all pieces out of as little length as can be, strip after strip.

First plans by filling the next strip as full as possible, again and again with other weights;
then strips are made to measure for the prices that a linear program gives the pieces (column
generation), and the best of all strips are chosen together (HiGHS).  The prices prove how little
length could do at least.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import TYPE_CHECKING

from tessil.core.numbers.records import Record
from tessil.core.sheets.job import Aim
from tessil.core.sheets.search import Search
from tessil.core.sheets.strips import Filler, Kind, Strip, settings

if TYPE_CHECKING:
    from tessil.core.sheets.programs import Program

TIGHT = 1e-7
MOST_HEIGHTS = 90
NEARLY = 1.03  # of the shortest, where the ruler is set less often
MOST_STRIPS = 1500
WARM = (0, 0, 0, 3, 6)
COLD, LOST = 15, 60
HEAPS_AT_ONCE = (0, 0, 0, 1_000, 3_000)  # of a part of a plan that is looked at wholly
HEAPS_A_SECOND = 300_000  # that can be looked at, and looked through, in a second
MOST_TO_PRICE = 120  # kinds of which strips are made for their prices
MOST_AT_ONCE = 300  # kinds of which a strip is made


def _long(strips: Sequence[Strip]) -> int:
    return sum(strip.high for strip in strips)


def _added(left: Mapping[int, int], strip: Strip) -> dict[int, int]:
    """What is left, with the pieces of a strip taken apart."""
    more = dict(left)
    for kind, many in strip.counts.items():
        more[kind] = more.get(kind, 0) + many
    return more


class Lengthwise(Record, frozen=True):
    """The strips of a cloth, and the least length that would do."""

    strips: tuple[Strip, ...]
    bound: float

    @property
    def length(self) -> int:
        return sum(strip.high for strip in self.strips)


class Begun(Record, frozen=True):
    """A plan that is begun: the least it can become, its length, what is left, its strips."""

    foreseen: float
    length: int
    left: dict[int, int]
    strips: tuple[Strip, ...]


class Yardage:
    """One search for one cloth."""

    def __init__(
        self, kinds: Sequence[Kind], wide: int, search: Search, aim: Aim = "least"
    ) -> None:
        self.aim = aim
        self.near: dict[int, tuple[Strip, ...]] = {}  # by settings of the ruler, the shortest
        self.filler, self.search = Filler(kinds, wide), search
        self.kinds, self.wide = tuple(kinds), wide
        self.wanted = {at: kind.many for at, kind in enumerate(kinds) if self.filler.fits(at)}
        self.pool: dict[tuple[object, ...], Strip] = {}
        self.best: tuple[Strip, ...] = ()
        self._all_heights = self.heights()
        self.known: list[float] = []  # the last prices

    # -- plans, strip after strip ----------------------------------------------------

    def one_after_another(
        self, values: Sequence[float], left: dict[int, int], width: int = 3
    ) -> list[Strip]:
        """Strips until nothing is left: the next as high as one of the highest pieces left, as
        full as it gets."""
        strips = []
        left = {at: many for at, many in left.items() if many}
        while left:
            near = self._highest(left)
            heights = self._next_heights(near, width if near is left else 1)
            made = [self._close(self.filler.fill(high, near, values), near) for high in heights]
            made = [strip for strip in made if strip.stacks]
            strip = max(made, key=lambda one: self._worth(one, values) / one.high)
            strips.append(strip)
            for at, many in strip.counts.items():
                left[at] -= many
                if not left[at]:
                    del left[at]
        return strips

    def _highest(self, left: dict[int, int]) -> dict[int, int]:
        """Of very many kinds those that lie highest: what the next strip may be made of."""
        if len(left) <= MOST_AT_ONCE:
            return left
        kept = sorted(left, key=self._low, reverse=True)[:MOST_AT_ONCE]
        return {at: left[at] for at in kept}

    def _next_heights(self, left: Mapping[int, int], width: int) -> list[int]:
        """Heights for the next strip: what the highest pieces left take the low way."""
        lows = sorted({self._low(at) for at in left}, reverse=True)
        tall = lows[:width]
        more = [
            kind.high
            for kind in (self.kinds[at] for at in left)
            if kind.high > lows[0] and kind.wide <= self.wide
        ]
        return sorted({*tall, *more[:2]})

    def _low(self, at: int) -> int:
        """How high a piece lies the lower way it can."""
        kind = self.kinds[at]
        ways = [kind.high] if kind.wide <= self.wide else []
        if kind.turns and kind.high <= self.wide:
            ways.append(kind.wide)
        return min(ways)

    def _close(self, strip: Strip, left: Mapping[int, int]) -> Strip:
        """A strip no higher than its highest stack."""
        tall = max((self.filler.tall(stack) for stack in strip.stacks), default=strip.high)
        return strip if tall == strip.high else Strip(tall, strip.stacks)

    def _worth(self, strip: Strip, values: Sequence[float]) -> float:
        return sum(values[at] * many for at, many in strip.counts.items())

    def first(self) -> tuple[Strip, ...]:
        """A plan at once."""
        areas = [float(kind.area) for kind in self.kinds]
        self.take(self.one_after_another(areas, dict(self.wanted)))
        return self.best

    def take(self, strips: Sequence[Strip]) -> bool:
        """Keep a plan's strips for choosing from, and the plan if it is the best; one that has a
        piece too many or too few is none."""
        counts: Counter[int] = Counter()
        for strip in strips:
            counts.update(strip.counts)
        if counts != Counter(self.wanted):  # kinds of which none is wanted count as none
            return False
        for strip in strips:
            self._keep(strip)
        length = sum(strip.high for strip in strips)
        if self.aim == "setups":
            number = settings(strips)
            if number not in self.near or length < _long(self.near[number]):
                self.near[number] = tuple(strips)
        if not self.best or length < sum(strip.high for strip in self.best):
            self.best = tuple(strips)
            return True
        return False

    def _keep(self, strip: Strip) -> bool:
        key = (strip.high, tuple(sorted(strip.counts.items())))
        if key in self.pool:
            return False
        self.pool[key] = strip
        return True

    def beam(
        self, left: Mapping[int, int], target: int, abreast: int, sampled: int
    ) -> tuple[Strip, ...]:
        """Plans side by side, strip after strip: of all that could come next, of any height, those
        are followed that leave least cloth unused.  Nothing, if none is shorter than ``target``."""
        found: tuple[Strip, ...] = ()
        values = self._near_areas()
        front = [Begun(0.0, 0, dict(left), ())]
        while front and self.search.goes_on():
            grown: dict[tuple[tuple[int, int], ...], Begun] = {}
            for begun in front:
                for strip in self._next_strips(begun.left, values, sampled):
                    more = self._with(begun, strip)
                    if more.foreseen >= target:
                        continue
                    if not more.left:
                        found, target = more.strips, more.length
                        continue
                    key = tuple(sorted(more.left.items()))
                    if key not in grown or grown[key].foreseen > more.foreseen:
                        grown[key] = more
            front = sorted(grown.values(), key=lambda one: one.foreseen)[:abreast]
            for begun in front:
                self._keep(begun.strips[-1])
        return found

    def _near_areas(self) -> list[float]:
        """What pieces are worth by their area, or by the last prices, a little off."""
        dice = self.search.dice
        shake, power = dice.choice((0.0, 0.05, 0.15)), dice.choice((1.0, 1.0, 1.04, 1.1))
        if self.known and dice.random() < 0.5:
            worth = [max(value, kind.area / self.wide / 2) for value, kind in self._known()]
            return [value * (1 + dice.uniform(-shake, shake)) for value in worth]
        return [kind.area**power * (1 + dice.uniform(-shake, shake)) for kind in self.kinds]

    def _known(self) -> Iterator[tuple[float, Kind]]:
        return zip(self.known, self.kinds, strict=True)

    def _next_strips(
        self, left: Mapping[int, int], values: Sequence[float], sampled: int
    ) -> Iterator[Strip]:
        heights = self._all_heights
        some = {*self.search.dice.sample(heights, min(sampled, len(heights)))}
        for high in sorted(some | {*self._next_heights(left, 2)}):
            strip = self._close(self.filler.fill(high, left, values), left)
            if strip.stacks:
                yield strip

    def _with(self, begun: Begun, strip: Strip) -> Begun:
        rest = {at: many - strip.counts.get(at, 0) for at, many in begun.left.items()}
        rest = {at: many for at, many in rest.items() if many}
        area = sum(self.kinds[at].area * many for at, many in rest.items())
        length = begun.length + strip.high
        return Begun(length + area / self.wide, length, rest, (*begun.strips, strip))

    def wide_beam(self, seconds: float) -> None:
        """One beam, as wide as such a time allows."""
        pieces = sum(self.wanted.values())
        fills = max(seconds / (0.0008 + 0.00001 * len(self.wanted)), 20)
        sampled = self.search.dice.choice((8, 16, 32, 64))
        sampled = min(sampled, len(self._all_heights))
        strips = max(len(self.best), 1)
        abreast = max(min(int(fills / (sampled * strips)), 20 * pieces), 2)
        found = self.beam(self.wanted, self._length(), abreast, sampled)
        if found:
            self.take(found)

    def mend(self) -> bool:
        """Some strips of the best plan cut otherwise: taken apart, their pieces laid anew."""
        dice = self.search.dice
        number = min(dice.choice((2, 2, 3, 3, 4, 5)), len(self.best))
        wasted = [
            strip.high * self.wide - self._worth(strip, [kind.area for kind in self.kinds])
            for strip in self.best
        ]
        ranked = sorted(range(len(self.best)), key=lambda at: -wasted[at] * dice.random())
        taken = ranked[:number]
        left: dict[int, int] = {}
        for at in taken:
            for kind, many in self.best[at].counts.items():
                left[kind] = left.get(kind, 0) + many
        there = sum(self.best[at].high for at in taken)
        found = self.beam(left, there, dice.choice((3, 6, 12)), dice.choice((8, 16, 32)))
        if not found:
            return False
        kept = [strip for at, strip in enumerate(self.best) if at not in taken]
        return self.take([*kept, *found])

    # -- a walk from plan to plan -------------------------------------------------------

    def walk(self, share: float, bound: float) -> None:
        """Parts of the plan cut the best way there is, again and again; now and then another way
        that is a little longer, to come to where a shorter one is near."""
        now, since, low = self.best, 0, self._length()
        while not self._done(bound) and self.search.goes_on(share):
            warm = self.search.dice.choice(WARM) if since > COLD else 0
            now = self._part_otherwise(now, warm)
            self.take(now)
            since, low = (0, _long(now)) if _long(now) < low else (since + 1, low)
            if since > LOST:
                now = self.best if low > self._length() else self._fresh() or self.best
                since, low = 0, _long(now)

    def _fresh(self) -> tuple[Strip, ...]:
        """Another beginning."""
        dice = self.search.dice
        return self.beam(self.wanted, 2**30, dice.choice((2, 4, 8)), dice.choice((8, 16)))

    def _part_otherwise(self, plan: tuple[Strip, ...], warm: int) -> tuple[Strip, ...]:
        """Two strips, or as many as can be looked at wholly, cut the best way, or one that is a
        little longer."""
        from tessil.core.sheets.few import Few, heaps_of

        dice = self.search.dice
        order = list(range(len(plan)))
        dice.shuffle(order)
        most = dice.choice(HEAPS_AT_ONCE)
        taken: list[int] = []
        left: dict[int, int] = {}
        for at in order:
            more = _added(left, plan[at])
            if len(taken) < 2 or heaps_of(more) <= most:
                taken, left = [*taken, at], more
        there = sum(plan[at].high for at in taken)
        few = Few(self.filler, left, there)
        if not few.ready:  # too many alike: laid anew as well as it comes
            return self.best if self.mend() else plan
        if len(taken) == 2:
            found = few.in_two(there, warm, self.search)
        else:
            shake = (0.9 + warm) / len(taken)
            chosen, _ = few.least(there + 1 + warm, self.search, 0.97, 0.3, shake)
            found = tuple(self.without_more(chosen, left))
        if not found:
            return plan
        return (*(strip for at, strip in enumerate(plan) if at not in taken), *found)

    def _length(self) -> int:
        return sum(strip.high for strip in self.best)

    # -- prices, and strips made for them ---------------------------------------------

    def prices(self) -> list[float]:
        """What each piece is worth in length, by the strips there are."""
        values = [0.0] * len(self.kinds)
        found = self._program(list(self.pool.values())).prices()
        for at, value in zip(self.wanted, found, strict=False):  # none where they cannot be told
            values[at] = value
        return values

    def _program(self, strips: Sequence[Strip]) -> Program:
        """Every piece in as little length as the strips give."""
        from tessil.core.sheets.programs import Program, sparse

        place = {at: row for row, at in enumerate(self.wanted)}
        entries = (
            (place[at], column, many)
            for column, strip in enumerate(strips)
            for at, many in strip.counts.items()
        )
        laid = sparse(entries, (len(place), len(strips)))
        return Program([strip.high for strip in strips], (laid, list(self.wanted.values())))

    def least(self, values: Sequence[float]) -> float:
        """No layout in strips is shorter, by these prices: what a length of cloth is worth at most
        against what all pieces are worth."""
        top = sum(strip.high for strip in self.best)
        worth = self.filler.worth_of_all(values, top)
        dearest = float((worth[1:] / range(1, top + 1)).max()) if top else 1.0
        total = sum(values[at] * many for at, many in self.wanted.items())
        return float(total / max(dearest, TIGHT))

    def generate(self, heights: Sequence[int], share: float) -> float:
        """Better strips for the prices, until there are none or the time is up; the bound."""
        bound = 0.0
        while self.search.goes_on(share) and len(self.pool) < MOST_STRIPS:
            values = self.prices()
            self.known = values
            bound = max(bound, self.least(values))
            better = []
            for high in heights:
                strip = self.filler.fill(high, self.wanted, values)
                gain = self._worth(strip, values) - high
                if gain > TIGHT * high:
                    better.append((gain / high, strip))
                if not self.search.goes_on(share):
                    break
            better.sort(key=lambda one: -one[0])
            new = [self._keep(self._close(strip, {})) for _, strip in better[:12]]
            if not any(new):
                break
        return bound

    # -- the best of them together -------------------------------------------------------

    def choose(self, seconds: float) -> bool:
        """The strips of all there are that together give every piece in the least length."""
        if seconds < 0.05:
            return False
        strips = list(self.pool.values())
        most = max(self.wanted.values())
        numbers, _ = self._program(strips).chosen(seconds, 1e-4, most)
        if numbers is None:
            return False
        chosen = [one for one, many in zip(strips, numbers, strict=True) for _ in range(many)]
        return self.take(self.without_more(chosen, self.wanted))

    def without_more(self, strips: Sequence[Strip], wanted: Mapping[int, int]) -> list[Strip]:
        """The same strips without pieces that nobody wants, each as low as that lets it be."""
        left, made = dict(wanted), []
        for strip in sorted(strips, key=lambda one: -one.high):
            stacks = self.filler.once(list(strip.stacks), left)
            if not stacks:
                continue
            kept = self._close(Strip(strip.high, stacks), left)
            made.append(kept)
            for at, many in kept.counts.items():
                left[at] -= many
        return made

    def heights(self) -> list[int]:
        """The heights for which strips are made: of single pieces always, of stacks the lower."""
        singles = {along for options in self.filler.by_width.values() for _, along, _ in options}
        top = max(singles, default=0) * 2
        more = [high for high in self.filler.heights(top) if high not in singles]
        return sorted(singles | set(more[: max(MOST_HEIGHTS - len(singles), 0)]))

    def shaken(self) -> None:
        """Another plan by areas that are a little off, for strips that nobody thought of."""
        dice = self.search.dice
        power = dice.choice((1.0, 1.02, 1.05, 1.1))
        values = [kind.area**power * dice.uniform(0.85, 1.15) for kind in self.kinds]
        self.take(self.one_after_another(values, dict(self.wanted), dice.choice((1, 2, 3, 5))))

    def _all_looked_at(self) -> float:
        """Of few pieces all strips there are; the bound that they prove."""
        from tessil.core.sheets.few import MOST_HEAPS, Few, heaps_of

        if heaps_of(self.wanted) > min(MOST_HEAPS, self.search.left(0.6) * HEAPS_A_SECOND):
            return 0.0
        few = Few(self.filler, self.wanted, self._length())
        if not few.ready:
            return 0.0
        found, bound = few.least(self._length(), self.search, 0.6)
        if found:
            self.take(self.without_more(found, self.wanted))
        return bound

    def _priced(self) -> float:
        """Strips made for their prices, the best of all chosen together; the bound they prove."""
        self._sparse()
        bound = self.generate(self._all_heights, min(0.4, self._share(0.8)))
        self.choose(min(self.search.left(0.5), 0.4))
        return bound

    def solve(self) -> Lengthwise:
        """The best plan that the time allows."""
        if not self.wanted:
            return Lengthwise((), 0.0)
        self.first()
        bound = self._plain_bound()
        if self.search.at_once:
            return Lengthwise(self.best, bound)
        for _ in range(12):
            if self._done(bound) or not self.search.goes_on(0.15):
                break
            self.shaken()
        if len(self.wanted) > MOST_TO_PRICE:
            while not self._done(bound) and self.search.goes_on(0.95):
                for _ in range(4):
                    if self.search.goes_on(0.95):
                        self.mend()
                self.walk(min(self._share(1.0), 0.95), bound)
        elif not self._done(bound):
            self.wide_beam(0.3)
            self.walk(0.25, bound)
            bound = max(bound, self._priced(), self._all_looked_at())
            self.walk(0.95, bound)
        return Lengthwise(self._by_aim(), min(bound, self._length()))

    def _by_aim(self) -> tuple[Strip, ...]:
        """The plan that is wanted: the shortest, or of those nearly as short the one with the
        fewest settings of the ruler."""
        most = self._length() * NEARLY
        return next((p for _, p in sorted(self.near.items()) if _long(p) <= most), self.best)

    def _share(self, seconds: float) -> float:
        """The share of the time that will be spent in so many seconds."""
        return (self.search.spent + seconds) / max(self.search.seconds, 1e-9)

    def _done(self, bound: float) -> bool:
        """Nothing shorter is possible, to the unit; settings are looked for a while longer."""
        if self.aim == "setups" and self.search.goes_on(0.6):
            return False
        return self._length() - bound < 1 - 1e-6

    def _sparse(self) -> None:
        """Not more strips to choose from than can be chosen from: the best plan's, the latest."""
        if len(self.pool) > MOST_STRIPS * 0.8:
            kept = list(self.pool.items())[-MOST_STRIPS // 2 :]
            self.pool = dict(kept)
            for strip in self.best:
                self._keep(strip)

    def _plain_bound(self) -> float:
        """The area over the width, and the highest piece."""
        area = sum(self.kinds[at].area * many for at, many in self.wanted.items())
        return max(area / self.wide, max(self._low(at) for at in self.wanted))
