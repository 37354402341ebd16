"""What timed sittings say of the next one, by hand sums."""

from itertools import pairwise

import pytest
from hypothesis import given as tried
from hypothesis import strategies as st

from tessil.core.bag.deeds import OPERATIONS
from tessil.core.costing.acts.hours import day_words
from tessil.core.costing.days import Task, batch_minutes, batch_range, best_batch, day_plan
from tessil.core.costing.timing import (
    Sitting,
    made_before,
    overlapping,
    sittings,
    timed,
    work_times,
)
from tessil.core.logbook.book import Timing
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given

F = Fraction


def guesses(**minutes):
    return {work: given(work, value, Basis.GUESS, 0, "minutes") for work, value in minutes.items()}


def test_cutting_six_at_once_saves_ten_to_fifteen_minutes_a_bag():
    """Common practice, no source."""
    (cut,) = work_times(guesses(cut=21), (), "tote")
    alone, together = cut.all(1).value, cut.all(6).value
    ready = cut.ready.value
    assert 10 <= ready * 5 / 6 <= 15
    assert together < 6 * alone - 60


def test_minutes_of_a_batch_are_ready_once_and_each_bag():
    """A guess of 20 min: 14 to get ready, 6 for the bag; two bags 6 × (1 + 0.8) ÷ 2 each."""
    (cut,) = work_times(guesses(cut=20), (), "tote")
    assert (cut.ready.value, cut.first.value) == (14, 6)
    assert float(cut.each(2).value) == pytest.approx(5.4)
    assert float(cut.all(2).value) == pytest.approx(24.8)
    assert cut.all(2).basis is Basis.GUESS


def test_what_was_broken_off_counts_as_one():
    times = (
        Timing(kind="tote", bag="A", work="quilt", number=2, minutes=30),
        Timing(kind="tote", bag="B", work="quilt", minutes=10),
        Timing(kind="tote", bag="A", work="quilt", number=2, minutes=12, goes_on=True),
        Timing(kind="pouch", bag="A", work="quilt", minutes=99),
        Timing(kind="tote", bag="A", work="quilt", minutes=500, used=False),
    )
    found = sittings(times, "tote")
    assert [(one.timing.bag, one.minutes) for one in found] == [("A", 42), ("B", 10)]
    alone = sittings((times[2],), "tote")
    assert [one.minutes for one in alone] == [12]  # what goes on after nothing stands by itself


def test_own_times_win_over_guesses():
    times = [Timing(kind="tote", work="quilt", number=1, before=at, minutes=60) for at in range(12)]
    (quilt,) = work_times(guesses(quilt=20), times, "tote")
    assert made_before(times, "tote") == 12
    assert quilt.before == 12
    assert float(quilt.all(1).value) == pytest.approx(60, rel=0.06)
    assert quilt.all(1).basis is Basis.TIMES
    low, high = quilt.range(1)
    assert low < 60 < high < 90
    (other,) = work_times(guesses(quilt=20), times, "clutch")
    assert float(other.all(1).value) == pytest.approx(20)


def test_whole_bags_that_were_timed_say_how_quick_the_hand_is():
    """Bags guessed at 100 take 50: work that is not timed by itself takes half of its guess."""
    times = [Timing(kind="tote", work="all", before=at, minutes=50) for at in range(20)]
    found = work_times(guesses(cut=20, quilt=80), times, "tote")
    assert float(batch_minutes(found, 1).value) == pytest.approx(50, rel=0.12)
    quilt = next(one for one in found if one.work == "quilt")
    assert quilt.curve.sittings == 20


def test_nobody_sews_two_bags_at_once():
    day = {"date": "2026-05-02"}
    times = (
        Timing(begun="14:00", minutes=60, **day),
        Timing(begun="14:30", minutes=10, **day),
        Timing(begun="15:00", minutes=30, **day),
        Timing(begun="14:10", minutes=10, date="2026-05-03"),
        Timing(begun="", minutes=600, **day),
    )
    assert overlapping(times) == {0, 1}
    assert overlapping(()) == frozenset()
    odd = tuple(Timing(begun=begun, minutes=60, **day) for begun in ("14", "1430", "T16:00"))
    assert overlapping(odd) == {0, 1}


def test_the_best_batch_fills_the_time_there_is():
    found = work_times(guesses(cut=20, quilt=40), (), "tote")
    for minutes in (30, 70, 240, 600):
        best = best_batch(found, minutes)
        assert not best or float(batch_minutes(found, best).value) <= minutes
        assert float(batch_minutes(found, best + 1).value) > minutes
    assert best_batch(found, 5) == 0


def tasks(number, through=0, **minutes):
    return [
        Task(one, number, number - through) for one in work_times(guesses(**minutes), (), "tote")
    ]


@tried(st.integers(1, 20), st.integers(30, 300))
def test_sittings_hold_all_of_it_in_order_and_none_is_too_long(number, sitting):
    days = day_plan(tasks(number, cut=20, quilt=45, finish=15), sitting)
    shares = [share for day in days for share in day.shares]
    for work in ("cut", "quilt", "finish"):
        assert sum(share.number for share in shares if share.work == work) == number
    order = [OPERATIONS.index(share.work) for share in shares]
    assert all(one <= other for one, other in pairwise(order))
    for day in days:
        assert day.minutes <= sitting + 1e-6 or sum(share.number for share in day.shares) == 1


def test_one_gets_ready_again_in_another_sitting_and_once_for_bags_of_several_names():
    (cut,) = work_times(guesses(cut=20), (), "tote")
    each = float(cut.each(4).value)
    two = [Task(cut, 4, 4, "A"), Task(cut, 4, 4, "B")]
    (day,) = day_plan(two, 200)
    assert day.minutes == pytest.approx(14 + 8 * each)
    days = day_plan(two, 14 + int(5 * each))
    assert sum(day.minutes for day in days) == pytest.approx(28 + 8 * each)
    assert next(share.name for day in days for share in day.shares) == "A"


def test_what_is_through_is_not_planned_again():
    days = day_plan(tasks(6, through=4, cut=20), 500)
    assert [(share.work, share.number) for day in days for share in day.shares] == [("cut", 2)]
    assert day_plan(tasks(6, through=6, cut=20), 500) == ()


def test_the_range_of_many_works_is_narrower_than_their_ranges_together():
    found = work_times(guesses(cut=20, quilt=40, finish=30), (), "tote")
    low, high = batch_range(found, 3)
    middle = float(batch_minutes(found, 3).value)
    ends = [one.range(3) for one in found]
    assert low > sum(one for one, _ in ends)
    assert middle < high < sum(one for _, one in ends)


def test_bags_of_a_batch_are_counted_by_each_kind_of_work():
    """Six are cut, four of them quilted: the next quilting is the fifth's."""
    times = (
        Timing(kind="tote", work="cut", number=6, minutes=60),
        Timing(kind="tote", work="quilt", number=4, minutes=60),
    )
    assert [made_before(times, "tote", work) for work in ("cut", "quilt", "trim", "all")] == [
        *(6, 4, 6, 6)
    ]
    whole = (*times, Timing(kind="tote", work="all", before=6, number=2, minutes=90))
    assert made_before(whole, "tote", "quilt") == 8
    assert made_before((), "tote", "quilt") == 0


def test_a_plainer_bag_of_a_kind_takes_less_than_those_that_were_timed():
    """Timed at 60 when guessed at 40: one guessed at 20 takes about half of that."""
    times = [Timing(kind="tote", work="quilt", before=at, minutes=60, guess=40) for at in range(15)]
    rich, plain = (
        work_times(guesses(quilt=guess), times, "tote")[0].all(1).value for guess in (40, 20)
    )
    assert float(rich) == pytest.approx(60, rel=0.08)
    assert float(plain / rich) == pytest.approx(0.5, abs=0.05)
    unknown = [one.model_copy(update={"guess": None}) for one in times]
    (same,) = work_times(guesses(quilt=20), unknown, "tote")
    assert float(same.all(1).value) == pytest.approx(60, rel=0.1)


def test_a_plan_of_years_is_told_in_short():
    words = list(day_words(day_plan(tasks(900, cut=20, quilt=200), 120), False))
    assert len(words) == 21
    assert words[-1] == "And at least 180 more sittings."
    few = list(day_words(day_plan(tasks(2, cut=20), 120), False))
    assert few == ["Sitting 1, 25 min: cut 2."]


def test_sixty_are_made_together_at_the_most():
    found = work_times(guesses(cut=20, quilt=40), (), "tote")
    assert best_batch(found, 1e9) == 60


def test_minutes_of_a_sitting_count_by_what_its_bag_was_guessed_at_where_that_is_asked():
    """One that took 30 where 40 were guessed says 15 of a bag guessed at 20, and 30 by itself."""
    sitting = Sitting(Timing(work="cut", minutes=30, guess=40), 30)
    assert timed(sitting).minutes == 30
    assert timed(sitting, 20).minutes == 15
    assert timed(sitting, 1).minutes == 3  # a tenth at the least
    assert timed(sitting, 4000).minutes == 300  # ten times at the most
