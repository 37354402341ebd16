"""Layouts that can be cut with a ruler, near the least there can be.

Every layout is looked at by a checker of its own.  Optima of tiny jobs are sums by hand; published
guillotine instances are recalled from memory and say so.
"""

import itertools
import random
import time

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.job import CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting
from tessil.core.trouble import CannotPlan
from tests.core.sheets.checking import careful_hand, faults, separable

F = Fraction


def yardage(wide=40, trim=0, name="oat", id_="y"):
    return Stock(id_, "yardage", name, F(wide), None, F(trim))


def cloth(id_, wide, high, name="oat"):
    return Stock(id_, "fat_quarter", name, F(wide), F(high))


def piece(id_, wide, high, qty=1, turn=False, name="oat"):
    return Piece(id_, id_, F(wide), F(high), qty, name, turn)


def planned(stock, pieces, seconds=0.8, **more):
    job = CutJob("in", tuple(stock), tuple(pieces))
    answer = plan_cutting(job, seconds, **more)
    assert faults(job, answer) == []
    return answer


def random_job(seed, number, stock=None):
    dice = random.Random(seed)
    pieces, left = [], number
    while left:
        many = min(dice.choice((1, 1, 2, 2, 4, 6)), left)
        wide, high = (F(dice.randint(16, 8 * dice.choice((6, 12, 18))), 8) for _ in range(2))
        pieces.append(piece(f"p{len(pieces)}", wide, high, many, dice.random() < 0.6))
        left -= many
    return CutJob("in", tuple(stock or [yardage(trim=F(1, 2))]), tuple(pieces))


def test_the_checker_sees_what_cannot_be_cut():
    pinwheel = [(0, 0, 2, 1), (2, 0, 3, 2), (1, 2, 3, 3), (0, 1, 1, 3), (1, 1, 2, 2)]
    assert not separable(pinwheel, "y", 3)
    stacked = [(0, 0, 2, 1), (0, 1, 2, 2), (2, 0, 5, 2)]
    assert separable(stacked, "y", 3)
    assert not separable(stacked, "y", 2)
    four_deep = [(0, 0, 2, 1), (0, 1, 1, 2), (2, 0, 5, 2)]  # the narrow one wants a fourth cut
    assert not separable(four_deep, "y", 3)


@pytest.mark.parametrize(
    ("pieces", "least"),
    [
        ([piece("a", 10, 5, 4)], 5),  # four side by side
        ([piece("a", 10, 5, 5)], 10),
        ([piece("a", 20, 6), piece("b", 20, 3, 2)], 6),  # two of 3 in a stack beside the 6
        ([piece("a", 5, 20, 4, turn=True)], 10),  # two rows of two, turned; upright 20
        ([piece("a", 5, 20, 4)], 20),
        ([piece("a", 40, 1), piece("b", 39, 1), piece("c", 1, 1)], 2),
        ([piece("a", 30, 4), piece("b", 10, 4), piece("c", 25, 3), piece("d", 15, 3)], 7),
    ],
)
def test_the_least_length_of_small_jobs_by_hand(pieces, least):
    answer = planned([yardage(trim=1)], pieces, 0.6)
    assert answer.used == least + 1
    assert answer.bound <= answer.used
    assert dict(answer.lengths) == {"y": least + 1}


def brute_force(job):
    """The least length of few pieces that are not turned: every way to share them out among strips
    and stacks."""
    (stock,) = job.stock
    each = [(p.w, p.h) for p in job.pieces for _ in range(p.qty)]
    best = sum(h for _, h in each)
    for groups in _partitions(list(range(len(each)))):
        total = sum((_strip(stock.w, [each[at] for at in group]) for group in groups), F(0))
        best = min(best, total)
    return best


def _strip(wide, sizes):
    """The least height of one strip that holds these, by every way to stack those alike wide."""
    best = F(10**9)
    for stacks in _partitions(list(range(len(sizes)))):
        across = F(0)
        high = F(0)
        for stack in stacks:
            if len({sizes[at][0] for at in stack}) > 1:
                break
            across += sizes[stack[0]][0]
            high = max(high, sum((sizes[at][1] for at in stack), F(0)))
        else:
            if across <= wide:
                best = min(best, high)
    return best


def _partitions(items):
    if not items:
        yield []
        return
    first, rest = items[0], items[1:]
    for number in range(len(rest) + 1):
        for others in itertools.combinations(rest, number):
            left = [one for one in rest if one not in others]
            for more in _partitions(left):
                yield [[first, *others], *more]


@pytest.mark.parametrize("seed", range(5))
def test_few_pieces_are_laid_as_well_as_can_be(seed):
    dice = random.Random(seed)
    pieces = [
        piece(f"p{at}", dice.choice((4, 6, 9, 13)), dice.choice((2, 3, 5, 7))) for at in range(6)
    ]
    job = CutJob("in", (yardage(20),), tuple(pieces))
    answer = planned(job.stock, job.pieces, 0.6)
    assert answer.used == brute_force(job)
    assert answer.bound <= answer.used


@pytest.mark.parametrize(("seed", "number"), [(1, 8), (2, 15), (3, 25), (4, 40), (5, 60)])
def test_no_careful_hand_lays_it_shorter(seed, number):
    job = random_job(seed, number)
    answer = plan_cutting(job, 0.4)
    assert faults(job, answer) == []
    assert answer.used <= careful_hand(job)
    area = sum(p.w * p.h * p.qty for p in job.pieces) / 40
    assert area <= answer.bound <= answer.used


def test_pieces_alike_wide_are_stacked_and_cut_in_the_third_stage():
    answer = planned([yardage(12)], [piece("a", 8, 6), piece("b", 4, 2, 3)])
    assert answer.used == 6
    assert [cut.deep for cut in answer.cuts] == [1, 2, 2, 3, 3]
    assert [(cut.way, cut.at, cut.begins, cut.ends) for cut in answer.cuts[:2]] == [
        ("across", 6, 0, 12),
        ("along", 8, 0, 6),
    ]


def test_the_fewest_pieces_are_left_out_then_the_least_cloth_is_opened():
    """Four 9 × 10 fill an 18 × 21 but for a strip; six more do not go in: two are left out."""
    cloths = [cloth("large", 18, 21), cloth("small", 9, 10), cloth("odd", 30, 30)]
    answer = planned(cloths[:2], [piece("a", 9, 10, 6)])
    assert answer.left_out == (("a", 1),)
    assert sorted(answer.opened) == ["large", "small"]
    answer = planned(cloths, [piece("a", 9, 10)])
    assert answer.opened == ("small",)
    assert answer.used == answer.bound == 90
    answer = planned(cloths, [piece("a", 10, 9, turn=True)])
    assert answer.opened == ("small",)
    answer = planned(cloths, [piece("a", 10, 9)])
    assert answer.opened == ("large",)


def test_strips_of_a_piece_of_cloth_run_either_way():
    """Three strips of 6 × 20 need cuts along the length of 18 × 20 first."""
    answer = planned(
        [cloth("q", 18, 20)], [piece("a", 6, 20, 2), piece("b", 6, 7), piece("c", 6, 13)]
    )
    assert answer.left_out == ()
    assert answer.used == 360


def test_prints_are_kept_apart_and_cloths_come_before_yardage():
    stock = [yardage(), cloth("q", 18, 21), yardage(name="plum", id_="p")]
    pieces = [piece("a", 18, 10, 3), piece("b", 20, 5, name="plum"), piece("c", 50, 5, name="plum")]
    answer = planned(stock, pieces, 0.8)
    assert answer.left_out == (("c", 1),)
    assert [p.stock for p in answer.placements if p.piece == "a"].count("q") == 2
    assert dict(answer.lengths) == {"y": 10, "p": 5}


@pytest.mark.parametrize("seed", range(4))
def test_random_jobs_from_pieces_of_cloth_can_be_cut(seed):
    dice = random.Random(seed)
    stock = [cloth(f"q{at}", 21, 18) for at in range(4)]
    stock += [cloth(f"s{at}", dice.randint(5, 15), dice.randint(5, 15)) for at in range(6)]
    job = random_job(seed + 50, 18, stock)
    answer = plan_cutting(job, 0.4)
    assert faults(job, answer) == []
    opened = {one.id: one.w * one.h for one in stock}
    assert answer.used == sum(opened[name] for name in answer.opened)


def test_the_same_seed_finds_the_same_again_where_it_is_soon_done():
    job = random_job(7, 12)
    one, other = (plan_cutting(job, 0.8, seed=3) for _ in range(2))
    assert one.used == other.used


def test_a_search_that_is_stopped_gives_the_best_so_far():
    job = random_job(9, 60)
    begun, heard = time.monotonic(), []

    def told(share):
        heard.append(share)
        return len(heard) < 5

    answer = plan_cutting(job, 30.0, told=told)
    assert time.monotonic() - begun < 10
    assert faults(job, answer) == []
    assert heard == sorted(heard)


def test_a_first_plan_of_many_pieces_takes_a_moment():
    job = random_job(11, 500)
    answer = plan_cutting(job, 0.2)
    assert faults(job, answer) == []
    assert answer.used <= careful_hand(job) * F(105, 100)


def test_sizes_finer_than_any_ruler_are_laid_with_room_to_spare():
    pieces = [piece("a", F(1000001, 100000), F(3000007, 1000000), 3)]
    answer = planned([yardage()], pieces, 0.3)
    assert len(answer.placements) == 3
    assert answer.used >= F(3000007, 1000000)


@pytest.mark.parametrize(
    ("stock", "pieces", "says"),
    [
        ([yardage(), yardage()], [piece("a", 1, 1)], "“y” is there twice"),
        ([yardage()], [piece("a", 1, 1), piece("a", 2, 2)], "“a” is there twice"),
        ([yardage()], [piece("a", 0, 1)], "“a” has no size"),
        ([cloth("q", 18, 0)], [piece("a", 1, 1)], "“q” has no size"),
    ],
)
def test_jobs_that_make_no_sense_are_refused(stock, pieces, says):
    with pytest.raises(CannotPlan, match=says):
        plan_cutting(CutJob("in", tuple(stock), tuple(pieces)), 1.0)


def test_nothing_to_cut_from_leaves_all_out():
    answer = planned([], [piece("a", 1, 1, 3)])
    assert answer.left_out == (("a", 3),)
    assert answer.placements == ()


def test_a_published_instance():
    """Problem C1-P1 of Hopper and Turton, European Journal of Operational Research 128 (2001),
    from memory: 16 pieces cut out of 20 × 20 without waste, so that 20 is the least."""
    sizes = (
        *((2, 12), (7, 12), (8, 6), (3, 6), (3, 5), (5, 5), (3, 12), (3, 7)),
        *((5, 7), (2, 6), (3, 2), (4, 2), (3, 4), (4, 4), (9, 2), (11, 2)),
    )
    assert sum(wide * high for wide, high in sizes) == 400
    answer = planned([yardage(20)], [piece(f"p{at}", *size) for at, size in enumerate(sizes)], 5.0)
    assert answer.used == answer.bound == 20


def test_beside_pieces_of_cloth_the_bound_is_of_the_length_that_is_left():
    """A 39 × 30 goes into no 18 × 21: 30 of the yardage and ½ to straighten it; two 18 × 10 go
    into the piece of cloth."""
    pieces = [piece("a", 39, 30), piece("b", 18, 10, 2)]
    answer = planned([yardage(40, F(1, 2)), cloth("q", 18, 21)], pieces)
    assert answer.used == answer.bound == F(61, 2)
    assert answer.opened == ("q",)


def test_thousands_of_sizes_get_a_plan_soon():
    job = random_job(12, 1100)
    begun = time.monotonic()
    answer = plan_cutting(job, 0.1)
    assert answer.left_out == ()
    assert answer.used <= careful_hand(job) * F(115, 100)
    assert time.monotonic() - begun < 30


@pytest.mark.parametrize(
    ("wide", "high", "turn", "bound"),
    [
        (18, 21, False, 0),  # as large as the quarter of 18 × 21
        (21, 18, True, 0),
        (21, 18, False, 19),  # from the bolt, and 1 to straighten it
        (18, F(169, 8), False, F(177, 8)),
        (F(145, 8), 21, False, 22),
        (18, 22, True, 19),  # on its side off the bolt of 40
    ],
)
def test_a_piece_as_large_as_a_cloth_asks_for_no_yardage(wide, high, turn, bound):
    """By hand: what goes into the quarter takes none, what does not takes its own height."""
    answer = planned([yardage(trim=1), cloth("q", 18, 21)], [piece("a", wide, high, turn=turn)])
    assert answer.bound == bound
    assert sum(long for _, long in answer.lengths) == bound
    assert answer.opened == (("q",) if not bound else ())


@pytest.mark.parametrize(
    ("stock", "pieces", "taken"),
    [
        ([yardage()], [piece("a", 40, 10, 3)], 30),  # whole widths one below another
        ([yardage()], [piece("a", 20, 10, 4), piece("b", 10, 5, 8)], 30),  # 400 and 400 of 40
        ([cloth("q", 18, 21)], [piece("a", 9, 21, 2)], 18 * 21),  # the quarter and nothing else
        ([cloth("q", 18, 21), cloth("r", 18, 21)], [piece("a", 18, 20, 2)], 2 * 18 * 21),
    ],
)
def test_a_search_ends_once_nothing_less_could_do(stock, pieces, taken):
    """Long before its time: what is found is as little as the bound."""
    shares = [0.0]

    def told(share):
        shares.append(share)
        return True

    job = CutJob("in", tuple(stock), tuple(pieces))
    answer = plan_cutting(job, 12.0, told=told)
    assert faults(job, answer) == []
    assert answer.left_out == ()
    assert answer.used == answer.bound == taken
    assert max(shares) < 0.5
