"""How times fall with practice: Wright's curve against SciPy, hand sums and logs of known truth.

T. P. Wright, Factors Affecting the Cost of Airplanes, Journal of the Aeronautical Sciences 3, 1936.
"""

from math import exp, log, log2

import numpy as np
import pytest

from tessil.core.costing.learning import RATE, Timed, ends_rate, fitted, power_sum, rate_of


def test_sixty_forty_thirty():
    """Common practice, no source: 40 ÷ 60 = 0.667; (30 ÷ 60)^(1 ÷ log₂ 3) = 0.646."""
    assert rate_of(60, 40, 2) == pytest.approx(0.667, abs=5e-4)
    assert rate_of(60, 30, 3) == pytest.approx(0.646, abs=5e-4)
    story = tuple(Timed(at, 1, minutes) for at, minutes in enumerate((60, 40, 30)))
    assert ends_rate(story[:2]) == pytest.approx(0.667, abs=5e-4)
    assert ends_rate(story) == pytest.approx(0.646, abs=5e-4)
    assert ends_rate(story[:1]) is None
    assert ends_rate(story[1:]) is None


def test_nothing_timed_is_the_guess():
    curve = fitted(50.0, ())
    assert curve.minutes(0) == pytest.approx(50.0)
    assert curve.rate == pytest.approx(RATE)
    assert curve.minutes(1) == pytest.approx(40.0)  # each doubling takes 0.8 times as long
    assert curve.minutes(3) == pytest.approx(32.0)
    low, high = curve.rate_range
    assert low < 0.7
    assert high > 0.9


@pytest.mark.parametrize("seed", range(4))
def test_many_single_bags_are_a_straight_line_in_logarithms(seed):
    """With three hundred sittings the guess weighs nothing: SciPy's regression line."""
    from scipy.stats import linregress  # dear to load: by whom it is used

    dice = np.random.default_rng(seed)
    slope = log2(0.75)
    seen = [Timed(n, 1, 90 * (n + 1) ** slope * exp(dice.normal(0, 0.1))) for n in range(300)]
    line = linregress([log(one.before + 1) for one in seen], [log(one.minutes) for one in seen])
    curve = fitted(60.0, tuple(seen))
    assert curve.slope == pytest.approx(line.slope, abs=0.003)
    assert log(curve.first) == pytest.approx(line.intercept, abs=0.02)


def test_batches_with_getting_ready_against_a_least_squares_fit():
    """Sittings of several bags, getting ready a third of the first bag: SciPy's curve_fit on the
    logarithms of ``T·(1/3 + Σ n^b)``."""
    from scipy.optimize import curve_fit

    dice = np.random.default_rng(5)
    seen, before = [], 0
    for _ in range(120):
        number = int(dice.integers(1, 7))
        minutes = 40 * (1 / 3 + power_sum(before, number, log2(0.8)))
        seen.append(Timed(before, number, minutes * exp(dice.normal(0, 0.08))))
        before = (before + number) % 60

    def whole(_, level, slope):
        return [level + log(1 / 3 + power_sum(one.before, one.number, slope)) for one in seen]

    values = [log(one.minutes) for one in seen]
    (level, slope), _ = curve_fit(whole, np.zeros(len(seen)), values, p0=(log(30), -0.2))
    curve = fitted(30.0, tuple(seen), 1 / 3)
    assert curve.slope == pytest.approx(slope, abs=0.003)
    assert log(curve.first) == pytest.approx(level, abs=0.01)
    assert curve.ready == pytest.approx(curve.first / 3)


@pytest.mark.parametrize("slope", [-0.7, -0.32, -1.0, 0.0, 0.1])
def test_long_sums_are_right_to_a_millionth(slope):
    for before in (0, 5, 400):
        number = 700
        plain = sum(n**slope for n in range(before + 1, before + number + 1))
        begun = power_sum(before, 200, slope) + power_sum(before + 200, 500, slope)
        assert begun == pytest.approx(plain, rel=1e-6)


@pytest.mark.parametrize(("scatter", "number"), [(0.15, 8), (0.2, 4)])
def test_nine_in_ten_of_five_hundred_new_sittings_fall_in_the_range(scatter, number):
    """Logs of known truth: rates from 0.65 to 0.95, guesses half too short to half too long."""
    dice = np.random.default_rng(number)
    held = 0
    for _ in range(500):
        slope, first = log2(dice.uniform(0.65, 0.95)), dice.uniform(20, 200)
        before, seen = 0, []
        for _ in range(number):
            many = int(dice.integers(1, 5))
            minutes = first * power_sum(before, many, slope) * exp(dice.normal(0, scatter))
            seen.append(Timed(before, many, minutes))
            before += many
        curve = fitted(first * exp(dice.normal(0, 0.4)), tuple(seen))
        many = int(dice.integers(1, 7))
        truth = first * power_sum(before, many, slope) * exp(dice.normal(0, scatter))
        expected, off = many * curve.minutes(before, many), curve.off(before, many)
        held += expected / off <= truth <= expected * off
    assert 0.85 <= held / 500 <= 0.95
