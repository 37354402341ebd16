"""Filling rows from pieces of given lengths with least over: a numeric kernel.

Whole numbers only.  One row is a subset sum, solved exactly over bit sets; several rows are
filled one after another, many times in shuffled order, and the best kept.  That is a search
with a lower bound, not a proof: ``Filling.over`` may be above the least there is.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from random import Random

from tessil.core.numbers.records import Record

Watch = Callable[[float], bool]  # told how far it is, answers whether to go on


class Filling(Record, frozen=True):
    """Which pieces go in which row (by index), and how much they are over in all.

    A row that could not be reached holds what came nearest; ``short`` counts what is missing.
    """

    rows: tuple[tuple[int, ...], ...]
    over: int
    short: int

    @property
    def rank(self) -> tuple[int, int]:
        return self.short, self.over


def best_row(lengths: Sequence[int], target: int) -> tuple[int, ...]:
    """Pieces whose lengths reach the target with least over; all of them if none can.

    ``lengths`` are positive; the answer are places in it.  Of equal answers, the one that
    uses earlier pieces less.
    """
    if sum(lengths) < target:
        return tuple(range(len(lengths)))
    most = target + max(lengths)
    mask = (1 << (most + 1)) - 1
    reached = [1]
    for length in lengths:
        reached.append((reached[-1] | reached[-1] << length) & mask)
    above = reached[-1] >> target
    at = target + (above & -above).bit_length() - 1
    chosen = []
    for place in range(len(lengths) - 1, -1, -1):
        if not reached[place] >> at & 1:
            chosen.append(place)
            at -= lengths[place]
    return tuple(reversed(chosen))


def _once(lengths: Sequence[int], targets: Sequence[int], order: list[int]) -> Filling:
    left, rows, over, short = list(order), [], 0, 0
    for target in targets:
        pool = [lengths[at] for at in left]
        picked = best_row(pool, target) if pool else ()
        got = sum(pool[place] for place in picked)
        over += max(got - target, 0)
        short += max(target - got, 0)
        taken = {left[place] for place in picked}
        rows.append(tuple(at for at in left if at in taken))
        left = [at for at in left if at not in taken]
    return Filling(tuple(rows), over, short)


def unwatched(_: float) -> bool:
    """Goes on to the end."""
    return True


def fill_quickly(lengths: Sequence[int], targets: Sequence[int]) -> Filling:
    """Row after row, the longest pieces first in use."""
    return _once(lengths, targets, sorted(range(len(lengths)), key=lambda at: lengths[at]))


def fill_well(
    lengths: Sequence[int],
    targets: Sequence[int],
    seed: int,
    tries: int = 400,
    watch: Watch = unwatched,
) -> Filling:
    """The best of many fillings in shuffled order, each then improved row by row.

    Repeatable by its seed.  Ends early once nothing is over or short, or when ``watch`` says so.
    """
    draw = Random(seed)
    best = fill_quickly(lengths, targets)
    for turn in range(tries):
        if best.rank == (0, 0) or not watch(turn / tries):
            break
        order = list(range(len(lengths)))
        draw.shuffle(order)
        if turn % 3 == 0:  # short pieces kept for later rows make fine adjusting easier
            order.sort(key=lambda at: -lengths[at] + draw.random())
        found = _improved(lengths, targets, _once(lengths, targets, order), draw)
        if found.rank < best.rank:
            best = found
    return best


def _improved(
    lengths: Sequence[int], targets: Sequence[int], filling: Filling, draw: Random
) -> Filling:
    """Fill two rows at a time anew from their own pieces and the unused ones, while it helps."""
    if len(targets) < 2:
        return filling
    best = filling
    for _ in range(6 * len(targets)):
        one, other = draw.sample(range(len(targets)), 2)
        kept = {at for i, row in enumerate(best.rows) if i not in (one, other) for at in row}
        pool = [at for at in range(len(lengths)) if at not in kept]
        draw.shuffle(pool)
        pair = _once(lengths, (targets[one], targets[other]), pool)
        rows = list(best.rows)
        rows[one], rows[other] = pair.rows
        found = _counted(lengths, targets, tuple(rows))
        if found.rank < best.rank:
            best = found
            if best.rank == (0, 0):
                break
    return best


def _counted(
    lengths: Sequence[int], targets: Sequence[int], rows: tuple[tuple[int, ...], ...]
) -> Filling:
    sums = [sum(lengths[at] for at in row) for row in rows]
    pairs = list(zip(sums, targets, strict=True))
    return Filling(
        rows, sum(max(got - t, 0) for got, t in pairs), sum(max(t - got, 0) for got, t in pairs)
    )
