"""The line through what was measured, against NumPy and SciPy."""

import numpy as np
import pytest

from tessil.core.numbers.regress import Guess, Seen, inverse, learn, within

PRIOR = Guess((2.0, -1.0, 0.5), (0.5, 0.3, 1.0), 0.2, 0.8)


def some(number, scatter, seed):
    dice = np.random.default_rng(seed)
    rows = dice.normal(size=(number, 3))
    values = rows @ (2.2, -0.8, 0.1) + dice.normal(size=number) * scatter
    return [Seen(tuple(row), float(v), 0.01) for row, v in zip(rows, values, strict=True)]


@pytest.mark.parametrize("number", [0, 1, 2, 7, 40])
def test_constants_at_each_scatter_are_those_of_a_library_of_matrices(number):
    from scipy.stats import multivariate_normal, norm  # dear to load: by whom it is used

    seen = some(number, 0.3, number)
    learned = learn(PRIOR, seen)
    rows = np.array([one.row for one in seen]).reshape(-1, 3)
    values = np.array([one.value for one in seen])
    firm = np.diag([1 / spread**2 for spread in PRIOR.spread])
    tall = []
    for part in learned.parts:
        variance = part.scatter**2 + 0.01
        precision = firm + rows.T @ rows / variance
        mean = np.linalg.solve(precision, firm @ PRIOR.mean + rows.T @ values / variance)
        assert np.allclose(part.mean, mean, atol=1e-9)
        assert np.allclose(part.cov, np.linalg.inv(precision), atol=1e-9)
        off = np.log(part.scatter / PRIOR.scatter) / PRIOR.vague
        likely = norm.logpdf(off)
        if number:
            cov = rows @ np.linalg.inv(firm) @ rows.T + variance * np.eye(number)
            likely += multivariate_normal.logpdf(values, rows @ PRIOR.mean, cov)
        tall.append(likely)
    weights = np.exp(np.array(tall) - max(tall))
    weights /= weights.sum()
    assert np.allclose([part.weight for part in learned.parts], weights, atol=1e-9)


def test_the_range_holds_the_share_it_says():
    """A mixture of normals, drawn at random."""
    learned = learn(PRIOR, some(6, 0.3, 3))
    row = (1.0, 0.5, -0.2)
    dice = np.random.default_rng(1)
    picked = dice.choice(len(learned.parts), 200_000, p=[part.weight for part in learned.parts])
    means = np.array([np.dot(row, part.mean) for part in learned.parts])
    wide = np.array(
        [(np.array(row) @ part.cov @ row + part.scatter**2) ** 0.5 for part in learned.parts]
    )
    drawn = dice.normal(means[picked], wide[picked])
    share = np.mean(np.abs(drawn - learned.expects(row)) <= learned.miss(row))
    assert share == pytest.approx(0.9, abs=0.004)


def test_within_is_the_normal_distribution():
    from scipy.stats import norm

    for off, wide, half in ((0.0, 1.0, 1.0), (0.4, 2.0, 1.5), (-3.0, 0.5, 2.0)):
        assert within(off, wide, half) == pytest.approx(
            norm.cdf(half, off, wide) - norm.cdf(-half, off, wide), abs=1e-12
        )
    assert within(0.5, 0.0, 1.0) == 1.0
    assert within(1.5, 0.0, 1.0) == 0.0


def test_the_inverse_and_its_determinant():
    matrix = [[4.0, 1.0, 0.5], [1.0, 3.0, -0.2], [0.5, -0.2, 2.0]]
    found, grown = inverse(matrix)
    assert np.allclose(found, np.linalg.inv(matrix))
    assert grown == pytest.approx(np.linalg.slogdet(matrix)[1])
