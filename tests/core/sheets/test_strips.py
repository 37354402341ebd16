"""One strip filled: by hand, and against all ways there are of small jobs."""

from collections import Counter
from itertools import product
from random import Random

import pytest

from tessil.core.sheets.lengths import Lengthwise, Yardage, _added
from tessil.core.sheets.search import Search
from tessil.core.sheets.strips import Filler, Kind, Stack, Strip, settings


def kind(wide, high, many=9, turns=False):
    return Kind(wide, high, many, turns)


def test_which_pieces_go_into_a_width_and_which_way():
    filler = Filler([kind(4, 6), kind(11, 3), kind(11, 3, turns=True), kind(5, 5, turns=True)], 10)
    assert filler.by_width == {4: [(0, 6, False)], 3: [(2, 11, True)], 5: [(3, 5, False)]}
    assert [filler.fits(at) for at in range(4)] == [True, False, True, True]
    assert Filler([kind(10, 2)], 10).fits(0)


def test_heights_are_of_pieces_and_of_two_and_three_alike_wide():
    filler = Filler([kind(4, 3), kind(4, 5), kind(6, 7)], 10)
    ones, twos = {3, 5, 7}, {6, 8, 10, 14}
    threes = {9, 11, 13, 15, 21}
    assert filler.heights(99) == sorted(ones | twos | threes)
    assert filler.heights(9) == [3, 5, 6, 7, 8, 9]
    many = Filler([kind(4, high) for high in (2, 3, 5, 9)], 10)  # of four heights no threes
    assert 2 + 3 + 5 in many.heights(99)  # 10, which 5 and 5 make as well
    assert 9 + 9 + 9 not in many.heights(99)


def test_a_strip_is_filled_with_what_is_worth_most():
    """10 wide, 6 high: of 4 × 6 worth 5 and 5 × 3 worth 3 two stacks of two are worth 12."""
    filler = Filler([kind(4, 6), kind(5, 3)], 10)
    strip = filler.fill(6, {0: 9, 1: 9}, [5.0, 3.0])
    assert strip == Strip(6, (Stack(5, ((1, False), (1, False))),) * 2)
    assert strip.counts == {1: 4}
    few = filler.fill(6, {0: 9, 1: 2}, [5.0, 3.0])  # two left: one stack of them, and one of 5
    assert few.counts == {0: 1, 1: 2}
    assert [stack.wide for stack in few.stacks] == [5, 4]
    assert filler.fill(5, {0: 9, 1: 9}, [5.0, 3.0]).counts == {1: 2}  # the 6 is too high
    assert filler.fill(6, {0: 0, 1: 0}, [5.0, 3.0]).stacks == ()
    assert filler.fill(6, {0: 9, 1: 9}, [5.0, 0.0]).counts == {0: 2}


def test_a_piece_that_lies_both_ways_is_laid_no_more_often_than_it_is_there():
    filler = Filler([kind(4, 5, 3, turns=True)], 13)
    strip = filler.fill(5, {0: 3}, [1.0])
    assert strip.counts == {0: 3}
    assert all(filler.tall(stack) <= 5 for stack in strip.stacks)
    assert sum(stack.wide for stack in strip.stacks) <= 13


def test_how_high_a_stack_is():
    filler = Filler([kind(4, 5, turns=True), kind(4, 3)], 10)
    assert filler.tall(Stack(4, ((0, False), (1, False)))) == 8
    assert filler.tall(Stack(5, ((0, True),))) == 4


def test_how_often_the_ruler_is_set():
    """Two strips of 6 with the same stack, one of 4: two heights, two widths, two trims."""
    stack, other = Stack(5, ((0, False),)), Stack(3, ((1, False),))
    assert settings([Strip(6, (stack,)), Strip(6, (stack, stack)), Strip(4, (other,))]) == 6
    assert settings([]) == 0
    assert settings([Strip(6, (stack, Stack(5, ((0, True),))))]) == 4


def _best(kinds, wide, high, left, values):
    """The most that a strip can be worth: every number of every stack."""
    stacks = []
    for across in {k.wide for k in kinds}:
        mine = [at for at, k in enumerate(kinds) if k.wide == across]
        for numbers in product(*(range(left[at] + 1) for at in mine)):
            tall = sum(n * kinds[at].high for n, at in zip(numbers, mine, strict=True))
            if tall <= high and any(numbers):
                stacks.append((across, dict(zip(mine, numbers, strict=True))))
    best, todo = 0.0, [(wide, dict(left), 0.0, 0)]
    while todo:
        room, there, worth, first = todo.pop()
        best = max(best, worth)
        for at, (across, counts) in enumerate(stacks[first:], start=first):
            if across <= room and all(there[k] >= n for k, n in counts.items()):
                after = {k: n - counts.get(k, 0) for k, n in there.items()}
                more = sum(values[k] * n for k, n in counts.items())
                todo.append((room - across, after, worth + more, at))
    return best


@pytest.mark.parametrize("seed", range(12))
def test_with_pieces_enough_nothing_is_worth_more(seed):
    dice = Random(seed)
    kinds = [kind(dice.randint(2, 5), dice.randint(1, 4)) for _ in range(3)]
    wide, high = dice.randint(5, 9), dice.randint(3, 5)
    values = [float(dice.randint(1, 9)) for _ in kinds]
    left = dict.fromkeys(range(3), 3 if seed % 2 else 9)
    if seed % 2 == 0:  # no stack can want for pieces: nothing is worth more
        strip = Filler(kinds, wide).fill(high, left, values)
        found = sum(values[at] * many for at, many in strip.counts.items())
        several = {at: min(9, wide // k.wide * (high // k.high)) for at, k in enumerate(kinds)}
        assert found == pytest.approx(_best(kinds, wide, high, several, values))
        return
    strip = Filler(kinds, wide).fill(high, left, values)
    found = sum(values[at] * many for at, many in strip.counts.items())
    assert all(many <= left[at] for at, many in strip.counts.items())
    assert 0 <= found <= _best(kinds, wide, high, left, values)


def test_what_strips_of_any_number_of_pieces_could_be_worth():
    """10 wide: of 4 × 3 worth 2 two side by side, of 5 × 5 worth 7 two."""
    bound = Filler([kind(4, 3), kind(5, 5)], 10).worth_of_all([2.0, 7.0], 6)
    assert list(bound) == [0, 0, 0, 4, 4, 14, 14]


def yardage(kinds, wide=10, aim="least"):
    return Yardage(kinds, wide, Search(0.0), aim)


def strip(high, *stacks):
    return Strip(high, tuple(Stack(wide, ((at, False),) * many) for wide, at, many in stacks))


def test_how_low_a_piece_can_lie_and_which_heights_come_next():
    """4 × 6 turned is 4 high; 11 × 3 only turned, 11 high; 5 × 5 either way."""
    made = yardage([kind(4, 6, turns=True), kind(11, 3, turns=True), kind(5, 5), kind(4, 8)])
    assert [made._low(at) for at in range(4)] == [4, 11, 5, 8]
    left = dict.fromkeys(range(4), 1)
    assert made._next_heights(left, 1) == [11]
    assert made._next_heights(left, 3) == [5, 8, 11]
    assert made._next_heights({0: 1, 2: 1}, 1) == [5, 6]  # and upright, which is higher than 5
    assert yardage([kind(9, 2, turns=True)])._next_heights({0: 1}, 1) == [2]


def test_strips_one_after_the_other_as_full_as_they_get():
    """Of 5 × 4 four and of 10 × 3 one: 4 + 4 with two each, and 3."""
    made = yardage([kind(5, 4, 4), kind(10, 3, 1)])
    strips = made.one_after_another([20.0, 30.0], {0: 4, 1: 1, 2: 0})
    assert sorted(one.high for one in strips) == [3, 4, 4]
    assert sum((Counter(one.counts) for one in strips), Counter()) == {0: 4, 1: 1}
    assert made.first() == made.best
    assert sum(one.high for one in made.best) == 11


def test_a_strip_is_no_higher_than_its_highest_stack():
    made = yardage([kind(5, 4, 4)])
    loose, close = strip(9, (5, 0, 2), (5, 0, 1)), strip(8, (5, 0, 2), (5, 0, 1))
    assert made._close(loose, {}) == close
    assert made._close(close, {}) is close
    assert made._worth(close, [2.5]) == 7.5


def test_a_plan_is_taken_if_it_has_every_piece_and_kept_if_it_is_shorter():
    made = yardage([kind(5, 4, 4)])
    two, four = strip(4, (5, 0, 1), (5, 0, 1)), strip(8, (5, 0, 2), (5, 0, 2))
    one = strip(4, (5, 0, 1))
    assert not made.take([two])  # two are missing
    assert not made.take([two, two, one])  # one too many
    assert made.best == ()
    assert made.pool == {}
    assert made.take([one] * 4)
    assert made.take([two, two])
    assert made.best == (two, two)
    assert not made.take([four])  # as long, not shorter
    assert made.best == (two, two)
    assert len(made.pool) == 3
    assert not made._keep(two)


def test_of_plans_that_set_the_ruler_as_often_the_shortest_is_near():
    made = yardage([kind(5, 4, 4)], aim="setups")
    two, one = strip(4, (5, 0, 1), (5, 0, 1)), strip(4, (5, 0, 1))
    made.take([one] * 4)
    made.take([two, two])
    assert made.near == {settings([two, two]): (two, two)}


def test_what_is_left_once_a_strip_is_taken_apart():
    assert _added({0: 2, 1: 1}, strip(4, (5, 0, 2), (3, 2, 1))) == {0: 4, 1: 1, 2: 1}
    assert Lengthwise((strip(4, (5, 0, 1)), strip(3, (5, 0, 1))), 6.5).length == 7
