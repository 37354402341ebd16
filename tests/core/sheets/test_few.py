"""The least length of few pieces is proved; a published program says the same of larger ones."""

import itertools
import random

import numpy as np
import pytest
from msgspec.structs import replace
from scipy.optimize import Bounds, LinearConstraint, milp

from tessil.core.sheets.apart import plan_by_two
from tessil.core.sheets.few import Few
from tessil.core.sheets.job import CutJob
from tessil.core.sheets.lengths import Yardage
from tessil.core.sheets.plan import plan_cutting
from tessil.core.sheets.search import Search
from tessil.core.sheets.strips import Filler, Kind, Stack, Strip
from tests.conftest import HUNT
from tests.core.sheets.checking import faults
from tests.core.sheets.test_cutting_plans import cloth, piece, planned, random_job, yardage


def levels(sizes, wide):
    """The least length in levels of pieces side by side, by the program of Lodi, Martello and Vigo,
    Journal of Combinatorial Optimization 8 (2004), from memory: a level is begun by its highest
    piece, and holds lower ones as far as the width goes."""
    sizes = sorted(sizes, key=lambda one: -one[1])
    pairs = [(at, at) for at in range(len(sizes))]
    pairs += list(itertools.combinations(range(len(sizes)), 2))
    cost = [sizes[i][1] if i == j else 0 for i, j in pairs]
    once = [[1 if j == at else 0 for _, j in pairs] for at in range(len(sizes))]
    room = [
        [0 if i != at else sizes[at][0] - wide if i == j else sizes[j][0] for i, j in pairs]
        for at in range(len(sizes))
    ]
    solved = milp(
        cost,
        constraints=[LinearConstraint(once, 1, 1), LinearConstraint(room, ub=0)],
        integrality=np.ones(len(pairs)),
        bounds=Bounds(0, 1),
    )
    return round(solved.fun)


@pytest.mark.parametrize("seed", range(2 * HUNT))
def test_a_general_solver_finds_no_shorter_one(seed):
    """Of pieces that differ in width and keep their way no two can stand in one stack: levels."""
    dice = random.Random(seed)
    wide = dice.sample(range(5, 25), 11)
    sizes = [(w, dice.randint(4, 30)) for w in wide]
    answer = planned([yardage(40)], [piece(f"p{at}", *one) for at, one in enumerate(sizes)], 6.0)
    assert answer.used == answer.bound == levels(sizes, 40)


@pytest.mark.parametrize("seed", range(4))
def test_every_heap_stands_in_its_lowest_strip(seed):
    """Against every way to share a heap out among stacks, on pieces of two widths."""
    dice = random.Random(seed)
    kinds = [Kind(dice.choice((3, 4)), dice.randint(2, 6), 1, False) for _ in range(6)]
    few = Few(Filler(kinds, 10), dict.fromkeys(range(6), 1), 40)
    for heap in range(1, few.heaps):
        pieces = [at for at in range(6) if heap >> at & 1]
        strip = few.strip(heap) if few.high[heap] <= 40 else None
        assert strip is None or sorted(strip.counts) == pieces
        assert few.high[heap] == lowest([kinds[at] for at in pieces], 10)


def lowest(pieces, wide):
    """The lowest strip by trying: each piece into one of up to three stacks of one width."""
    best = 2**29
    for stacks in itertools.product(range(3), repeat=len(pieces)):
        widths, high = {}, {}
        for stack, one in zip(stacks, pieces, strict=True):
            if widths.setdefault(stack, one.wide) != one.wide:
                break
            high[stack] = high.get(stack, 0) + one.high
        else:
            if sum(widths.values()) <= wide:
                best = min(best, max(high.values()))
    return best


def test_too_many_pieces_are_left_to_the_search():
    kinds = [Kind(3 + at, 5, 9, False) for at in range(12)]
    few = Few(Filler(kinds, 40), dict.fromkeys(range(12), 9), 40)
    assert not few.ready


def test_all_in_two_strips_or_not_at_all():
    kinds = [Kind(6, 5, 1, False), Kind(6, 4, 1, False), Kind(4, 3, 1, False)]
    few = Few(Filler(kinds, 10), dict.fromkeys(range(3), 1), 40)
    strips = few.in_two(9, 0, Search(1.0))
    assert sum(strip.high for strip in strips) == 9
    assert few.in_two(8, 0, Search(1.0)) == ()


def test_two_searches_are_no_worse_than_one():
    job = random_job(4, 26)
    answer = plan_by_two(job, 1.0, 1)
    assert faults(job, answer) == []
    small = CutJob("in", (yardage(),), (piece("a", 10, 5, 4),))
    assert plan_by_two(small, 20.0, 1).used == 5


def aimed(aim, stock, pieces):
    job = CutJob("in", tuple(stock), tuple(pieces), aim)
    answer = plan_cutting(job, 1.5)
    assert faults(job, answer) == []
    assert answer.left_out == ()
    return answer


def test_as_few_cloths_as_can_be_or_as_little_cloth():
    """Four 6 × 6 come out of two 6 × 12, or of one 14 × 13 that is larger than both together."""
    stock = [cloth("a", 6, 12), cloth("b", 6, 12), cloth("c", 14, 13)]
    four = [piece("p", 6, 6, 4)]
    assert aimed("least", stock, four).opened == ("a", "b")
    assert aimed("open", stock, four).opened == ("c",)


def test_what_is_left_of_a_cloth_lies_in_one_piece():
    """Six 5 × 4 on 20 × 30: in two strips of one height, 20 × 22 are left."""
    job = CutJob("in", (cloth("a", 20, 30),), (piece("p", 5, 4, 6),))
    answer = plan_cutting(job, 1.0)
    assert faults(job, answer) == []
    ends = (max(one.y + one.h for one in answer.placements), 20)
    rights = (max(one.x + one.w for one in answer.placements), 30)
    assert max((30 - ends[0]) * 20, (20 - rights[0]) * 30) >= 20 * 22


@pytest.mark.parametrize("seed", range(2 * HUNT))
def test_the_ruler_is_set_less_often_for_a_little_more_cloth(seed):
    job = random_job(seed, 9)  # few enough to be proved in a moment
    least, fewest = (plan_cutting(replace(job, aim=aim), 0.8) for aim in ("least", "setups"))
    assert faults(job, fewest) == []
    assert fewest.used <= least.used * 1.031
    assert settings_of(fewest) <= settings_of(least)


def settings_of(answer):
    """Readings of the ruler that differ, by where pieces lie: strip, place in it, height."""
    ys = sorted({cut.at for cut in answer.cuts if cut.deep == 1})
    found = set()
    for one in answer.placements:
        row = next(at for at in ys if at > one.y)
        high = row - max((at for at in ys if at <= one.y), default=0)
        found |= {(high,), (high, one.w), (high, one.w, one.h)}
    return len(found)


def every_share(pieces, cloths):
    """The least area opened and the fewest pieces left out by trying: each piece onto one cloth or
    none; what one cloth holds is tried in strips and stacks of pieces by themselves, either way."""
    best = (len(pieces), 0)
    for places in itertools.product(range(-1, len(cloths)), repeat=len(pieces)):
        out = places.count(-1)
        area = sum(cloths[at][0] * cloths[at][1] for at in set(places) - {-1})
        if (out, area) >= best:
            continue
        shares = [
            [p for p, at in zip(pieces, places, strict=True) if at == n] for n in range(len(cloths))
        ]
        if all(holds(share, cloths[n]) for n, share in enumerate(shares) if share):
            best = (out, area)
    return best


def holds(share, cloth):
    """Whether pieces that keep their way come out of a cloth in strips across it or along it."""
    over = [(high, wide) for wide, high in share]
    return in_strips(share, *cloth) or in_strips(over, cloth[1], cloth[0])


def in_strips(share, wide, high):
    kinds = [Kind(w, h, 1, False) for w, h in share]
    for strips in itertools.product(range(len(share)), repeat=len(share)):
        groups = {}
        for strip, one in zip(strips, kinds, strict=True):
            groups.setdefault(strip, []).append(one)
        if sum(lowest(group, wide) for group in groups.values()) <= high:
            return True
    return False


@pytest.mark.parametrize("seed", range(4))
def test_few_pieces_from_scraps_open_the_least_there_is(seed):
    dice = random.Random(seed)
    pieces = [(dice.randint(2, 6), dice.randint(2, 6)) for _ in range(4)]
    cloths = [(dice.randint(4, 9), dice.randint(4, 9)) for _ in range(3)]
    stock = [cloth(f"c{at}", *size) for at, size in enumerate(cloths)]
    answer = planned(stock, [piece(f"p{at}", *size) for at, size in enumerate(pieces)], 3.0)
    out, area = every_share(pieces, cloths)
    assert sum(many for _, many in answer.left_out) == out
    assert answer.used == answer.bound == area


def test_a_plan_with_a_piece_too_many_or_too_few_is_none():
    """Two 10 × 5 are wanted: one strip of both is a plan, one of three or of one is not."""
    search = Yardage([Kind(10, 5, 2, False)], 40, Search(1.0))
    one, two, three = (Strip(5, (Stack(10, ((0, False),)),) * n) for n in (1, 2, 3))
    assert search.take([two])
    for strips in ([one], [three], [two, one], []):
        assert not search.take(strips)
    assert search.best == (two,)


@pytest.mark.parametrize("seed", range(2 * HUNT))
def test_a_longer_walk_lays_every_piece_once(seed):
    planned([yardage()], random_job(seed, 44).pieces, 1.0, seed=seed)
