"""Rectangles in one field: whether they go in together, and how few fields take all of them.

Plain geometry in whole numbers; must not know bags.  What lies together need not be parted edge
to edge, as cloth on the cutting table must: it is cut out by its outline.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from itertools import product
from math import ceil

from tessil.core.numbers.records import Record

MOST_TRIES = 600  # places tried until a heap is taken not to go in
MOST_WORK = 8000  # places tried in all
MOST_TOGETHER = 24  # outlines in one field, of which it is proved what goes in
MOST_HEAPS = 300


class Outline(Record, frozen=True):
    """One size that is wanted: with the room it keeps; ``turns`` whether it may lie across."""

    wide: int
    high: int
    many: int
    turns: bool


class Spot(Record, frozen=True):
    """One outline where it lies in its field, by its lower left corner."""

    outline: int
    x: int
    y: int
    turned: bool


class Heap(Record, frozen=True):
    """What lies in one field, and in how many fields alike."""

    spots: tuple[Spot, ...]
    times: int


class Packed(Record, frozen=True):
    """Fields that take all; ``least`` is what no layout can do with fewer than."""

    heaps: tuple[Heap, ...]
    least: int

    @property
    def fields(self) -> int:
        return sum(heap.times for heap in self.heaps)


def _sides(outline: Outline) -> tuple[tuple[int, int, bool], ...]:
    straight = (outline.wide, outline.high, False)
    if not outline.turns or outline.wide == outline.high:
        return (straight,)
    return straight, (outline.high, outline.wide, True)


class _Field:
    """One field being filled: outline after outline goes into a corner that others leave."""

    def __init__(self, wide: int, high: int, outlines: Sequence[Outline]) -> None:
        self.wide, self.high, self.outlines = wide, high, outlines
        self.tries, self.work = 0, MOST_WORK

    def lay(self, counts: Sequence[int]) -> tuple[Spot, ...] | None:
        """Places for so many of each outline, or None if none were found."""
        order = sorted(
            (at for at, many in enumerate(counts) for _ in range(many)),
            key=lambda at: -(self.outlines[at].wide * self.outlines[at].high),
        )
        self.tries = min(MOST_TRIES, self.work)
        laid = self._next(order, ())
        self.work -= min(MOST_TRIES, self.work) - max(self.tries, 0)
        return laid

    def _next(self, order: Sequence[int], laid: tuple[Spot, ...]) -> tuple[Spot, ...] | None:
        if not order:
            return laid
        at = order[0]
        for wide, high, turned in _sides(self.outlines[at]):
            for x, y in self._corners(laid):
                self.tries -= 1
                if self.tries < 0:
                    return None
                if self._free(x, y, wide, high, laid):
                    found = self._next(order[1:], (*laid, Spot(at, x, y, turned)))
                    if found is not None:
                        return found
        return None

    def _corners(self, laid: tuple[Spot, ...]) -> list[tuple[int, int]]:
        xs, ys = {0}, {0}
        for spot in laid:
            right, top = self._ends(spot)
            xs.add(right)
            ys.add(top)
        return sorted(product(xs, ys), key=lambda place: (place[1], place[0]))

    def _ends(self, spot: Spot) -> tuple[int, int]:
        outline = self.outlines[spot.outline]
        wide, high = (outline.high, outline.wide) if spot.turned else (outline.wide, outline.high)
        return spot.x + wide, spot.y + high

    def _free(self, x: int, y: int, wide: int, high: int, laid: tuple[Spot, ...]) -> bool:
        if x + wide > self.wide or y + high > self.high:
            return False
        for spot in laid:
            right, top = self._ends(spot)
            if x < right and spot.x < x + wide and y < top and spot.y < y + high:
                return False
        return True


def _in_rows(field: _Field, at: int) -> tuple[Spot, ...]:
    """As many of one outline as rows of them hold, whichever way they lie."""
    best: tuple[Spot, ...] = ()
    outline = field.outlines[at]
    for wide, high, turned in _sides(outline):
        across, up = field.wide // wide, field.high // high
        spots = [Spot(at, x * wide, y * high, turned) for y in range(up) for x in range(across)]
        if len(spots) > len(best):
            best = tuple(spots)
    return best[: outline.many]


def _heaps(field: _Field) -> Iterator[tuple[Spot, ...]]:
    """What goes in together: every number of each that goes in and takes no more."""
    tried: dict[tuple[int, ...], tuple[Spot, ...] | None] = {}
    waiting: list[tuple[int, ...]] = [tuple(0 for _ in field.outlines)]
    while waiting and len(tried) < MOST_HEAPS:
        counts = waiting.pop()
        grown = False
        for more in _one_more(field, counts):
            if more not in tried:
                tried[more] = field.lay(more)
                if tried[more] is not None:
                    waiting.append(more)
            grown = grown or tried[more] is not None
        spots = tried.get(counts)
        if not grown and spots is not None:
            yield spots


def _one_more(field: _Field, counts: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
    """The heaps with one outline more, as far as their area and number may go."""
    room = field.wide * field.high
    for at, outline in enumerate(field.outlines):
        more = (*counts[:at], counts[at] + 1, *counts[at + 1 :])
        taken = sum(n * o.wide * o.high for n, o in zip(more, field.outlines, strict=True))
        if more[at] <= outline.many and sum(more) <= MOST_TOGETHER and taken <= room:
            yield more


def pack(outlines: Sequence[Outline], wide: int, high: int) -> Packed:
    """The fewest fields found for all outlines; ValueError for one that goes into none.

    The heaps that can lie together are found by trying every corner, the fewest of them by an
    integer program (HiGHS) where there is more than one kind of heap.
    """
    field = _Field(wide, high, outlines)
    for at in range(len(outlines)):
        if not any(w <= wide and h <= high for w, h, _ in _sides(outlines[at])):
            raise ValueError(f"outline {at} goes into no field")
    found = {_counts(spots, outlines): spots for spots in _heaps(field)}
    for at in range(len(outlines)):
        rows = _in_rows(field, at)
        found.setdefault(_counts(rows, outlines), rows)
    least = _least(outlines, wide, high)
    chosen = _quickly(outlines, found)
    if sum(times for _, times in chosen) > least and len(found) > 1:
        chosen = _fewest(outlines, found)
    return Packed(tuple(_used(chosen, outlines)), least)


def _least(outlines: Sequence[Outline], wide: int, high: int) -> int:
    """Fields that any layout takes: by area; and an outline larger than half a field both ways,
    however it lies, has one of its own."""
    area = sum(o.wide * o.high * o.many for o in outlines)
    alone = sum(
        one.many
        for one in outlines
        if all(2 * w > wide and 2 * h > high for w, h, _ in _sides(one) if w <= wide and h <= high)
    )
    return max(ceil(area / (wide * high)), alone, 1)


def _counts(spots: tuple[Spot, ...], outlines: Sequence[Outline]) -> tuple[int, ...]:
    return tuple(sum(spot.outline == at for spot in spots) for at in range(len(outlines)))


def _quickly(
    outlines: Sequence[Outline], found: dict[tuple[int, ...], tuple[Spot, ...]]
) -> list[tuple[tuple[Spot, ...], int]]:
    """Heaps one after the other, each that takes most of the area that is left."""
    left = [outline.many for outline in outlines]
    chosen = []
    while any(left):
        best = max(found, key=partial(_taken, left=tuple(left), outlines=outlines))
        whole = min(there // n for n, there in zip(best, left, strict=True) if n)
        times = max(whole, 1)
        chosen.append((found[best], times))
        left = [max(there - n * times, 0) for n, there in zip(best, left, strict=True)]
    return chosen


def _taken(counts: Sequence[int], left: Sequence[int], outlines: Sequence[Outline]) -> int:
    """The area a heap takes of what is left."""
    rows = zip(counts, left, outlines, strict=True)
    return sum(min(n, there) * o.wide * o.high for n, there, o in rows)


def _fewest(
    outlines: Sequence[Outline], found: dict[tuple[int, ...], tuple[Spot, ...]]
) -> list[tuple[tuple[Spot, ...], int]]:
    """Heaps that together hold all, as few as can be."""
    import numpy as np
    from scipy.optimize import Bounds, LinearConstraint, milp

    kinds: list[tuple[int, ...]] = list(found)
    holds = np.array(kinds, dtype=float).T
    wanted = np.array([outline.many for outline in outlines], dtype=float)
    solved = milp(
        np.ones(len(kinds)),
        constraints=LinearConstraint(holds, wanted, np.inf),
        integrality=np.ones(len(kinds)),
        bounds=Bounds(0, np.inf),
    )
    times = [round(value) for value in solved.x]
    return [(found[kind], many) for kind, many in zip(kinds, times, strict=True) if many]


def _used(
    chosen: list[tuple[tuple[Spot, ...], int]], outlines: Sequence[Outline]
) -> Iterator[Heap]:
    """The heaps without what would be one too many; the fullest first."""
    left = [outline.many for outline in outlines]
    for spots, times in sorted(chosen, key=lambda one: -len(one[0])):
        whole = 0
        for _ in range(times):
            kept = _still_wanted(spots, left)
            if len(kept) == len(spots):
                whole += 1
            elif kept:
                yield Heap(kept, 1)
        if whole:
            yield Heap(spots, whole)


def _still_wanted(spots: tuple[Spot, ...], left: list[int]) -> tuple[Spot, ...]:
    kept = []
    for spot in spots:
        if left[spot.outline]:
            left[spot.outline] -= 1
            kept.append(spot)
    return tuple(kept)
