"""The draw-in model against SciPy, NumPy, textbook strain and simulated logs.

The flat-arc rule, 8/3·(a/p)² longer than its chord, is the parabola's length to second order
(a standard calculus result, from memory); quadrature integrates the real parabola.  Plane strain:
the turning formulas as in Timoshenko and Goodier, Theory of Elasticity, 3rd edition 1970, article
on strain at a point (from memory), and as a product of matrices.
"""

from fractions import Fraction
from math import cos, radians, sin

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import lsq_linear
from shapely import LineString, Polygon

from tessil.core.catalogue import material, materials
from tessil.core.numbers.workings import Basis, count, from_mm
from tessil.core.numbers.workings import given as chosen
from tessil.core.plan import plan
from tessil.core.quilting.clip import segments
from tessil.core.quilting.fitting import Observation, Prior, fit, residuals, unlearned
from tessil.core.quilting.seams import ways
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewing import stitching
from tessil.core.quilting.sewn import QuiltLine
from tessil.core.quilting.shrinkage import (
    Family,
    across_lines,
    draw_in,
    prior_of,
    row_of,
    starting_constants,
)
from tessil.core.sandwich.choice import Ply
from tests.conftest import plies, tote, with_front

F = Fraction
KEYS = [entry.key for entry in materials().values() if entry.kind == "batting"]


def _known(key):
    return starting_constants((material("cotton"), material(key)))


def _arc_excess(rise: float, gap: float) -> float:
    """How much longer a parabola of that rise is than its chord, as a share of the chord."""

    def speed(x: float) -> float:
        slope = 4 * rise * (1 - 2 * x / gap) / gap
        return (1 + slope * slope) ** 0.5

    return quad(speed, 0, gap)[0] / gap - 1


@pytest.mark.parametrize("key", KEYS)
@pytest.mark.parametrize("gap_mm", [13, 25.4, 50, 100])
def test_the_arc_part_is_the_length_of_a_real_parabola(key, gap_mm):
    known = _known(key)
    strain = float(across_lines(from_mm("gap", F(str(gap_mm)), Basis.CHOSEN), known).value)
    draw = float(known.draw.value * F(254, 10))
    rise = float(known.rise.value * F(254, 10))
    assert strain - draw / gap_mm == pytest.approx(_arc_excess(rise, gap_mm), rel=0.035)


@pytest.mark.parametrize(
    ("key", "percent"),
    [  # at a gap of 25.4 mm, worked by hand
        ("cotton-batting", 1.527),  # 8/3 (0.6/25.4)² = 0.149 %, 0.35/25.4 = 1.378 %
        ("fusible-fleece", 1.713),  # 0.335 % + 1.378 %
        ("polyester-batting", 2.170),  # 0.595 % + 1.575 %
        ("sew-in-foam", 2.899),  # 0.930 % + 1.969 %
    ],
)
def test_starting_values_at_an_inch_by_hand(key, percent):
    strain = across_lines(chosen("gap", 1), _known(key)).value
    assert float(strain) * 100 == pytest.approx(percent, abs=0.002)
    assert 1.5 <= float(strain) * 100 <= 3.0  # the range makers expect (common practice)


def test_without_batting_there_is_no_arc():
    bare = starting_constants((material("cotton"), material("cotton")))
    assert across_lines(from_mm("gap", F(35), Basis.CHOSEN), bare).value == F(1, 100)


# -- turning the strain ---------------------------------------------------------------

angles = st.integers(-85, 90).filter(lambda a: abs(a) >= 5 or a == 0)
families = st.lists(
    st.tuples(angles, st.integers(4, 32).map(lambda n: F(n, 8))), min_size=1, max_size=4
)


def _by_matrix(across: float, along: float, angle: float) -> np.ndarray:
    """The strain tensor of one set of lines in x and y (y up), turned as a matrix."""
    c, s = cos(radians(angle)), sin(radians(angle))
    turn = np.array([[c, -s], [s, c]])
    return turn @ np.diag([-along, -across]) @ turn.T


@given(families)
def test_strains_turn_as_the_tensor_does(sets):
    known = _known("cotton-batting")
    made = draw_in(
        tuple(Family(f"{n}", float(a), chosen("gap", g)) for n, (a, g) in enumerate(sets)), known
    )
    total = np.zeros((2, 2))
    for angle, gap in sets:
        across = float(across_lines(chosen("gap", gap), known).value)
        total += _by_matrix(across, float(known.along.value), angle)
    assert float(made.x.expected.value) == pytest.approx(-total[0, 0], abs=3e-6)
    assert float(made.y.expected.value) == pytest.approx(-total[1, 1], abs=3e-6)
    lean = 0.0 if made.lean is None else float(made.lean.expected.value)
    assert lean == pytest.approx(2 * total[0, 1], abs=3e-6)


@given(angles, st.integers(4, 32).map(lambda n: F(n, 8)))
def test_strains_turn_by_the_textbook_formulas(angle, gap):
    """ε_x' = (ε_x + ε_y)/2 + (ε_x − ε_y)/2·cos 2θ, γ' = −(ε_x − ε_y)·sin 2θ."""
    known = _known("sew-in-foam")
    family = Family("", float(angle), chosen("gap", gap))
    made = draw_in((family,), known)
    across, along = float(across_lines(family.gap, known).value), float(known.along.value)
    mean, half, double = (along + across) / 2, (along - across) / 2, radians(2 * angle)
    assert float(made.x.expected.value) == pytest.approx(mean + half * cos(double), abs=3e-6)
    assert float(made.y.expected.value) == pytest.approx(mean - half * cos(double), abs=3e-6)
    lean = 0.0 if made.lean is None else float(made.lean.expected.value)
    assert lean == pytest.approx((across - along) * sin(double), abs=3e-6)


def test_equal_lines_both_ways_cancel_the_lean_and_one_way_leans_as_by_hand():
    """45°, 1 in, cotton: 2 (1.527 % − 0.5 %) ½ = 1.027 %."""
    known = _known("cotton-batting")
    one = Family("a", 45.0, chosen("gap", 1))
    other = Family("b", -45.0, chosen("gap", 1))
    assert float(draw_in((one,), known).lean.expected.value) * 100 == pytest.approx(1.027, abs=2e-3)
    both = draw_in((one, other), known).lean
    assert both.expected.value == 0
    assert both.miss.value == 0


# -- learning from swatches -------------------------------------------------------------


PRIOR = prior_of((material("cotton-batting"),))


def _log(rng, swatches, truth=None, scatter=0.004):
    """Losses of simulated swatches, upright or slanted, at gaps from ½ to 2½."""
    spread = np.array(PRIOR.spread)
    theta = np.array(PRIOR.mean) + spread * rng.standard_normal(3) if truth is None else truth
    seen = []
    for number in range(swatches):
        angle = float(rng.choice([90.0, 0.0, 45.0]))
        gap = chosen("gap", F(int(rng.integers(8, 40)), 16))
        for row in row_of(Family("", angle, gap))[:2]:
            loss = Observation(row, 0.0, 10.0, number)
            wide = (scatter**2 + loss.reading) ** 0.5
            value = float(np.dot(row, theta) + rng.normal(0, wide))
            seen.append(Observation(row, value, 10.0, number))
    return theta, tuple(seen)


@pytest.mark.parametrize("swatches", [1, 3, 12, 200])
def test_the_fit_is_the_least_squares_of_losses_and_prior_together(swatches):
    """At each size of scatter prior rows are added as losses of their own; SciPy solves it."""
    _, seen = _log(np.random.default_rng(swatches), swatches)
    learned = fit(PRIOR, seen).learned
    scale = np.array(PRIOR.spread)
    for part in learned.parts[::4]:
        wide = np.sqrt([part.scatter**2 + entry.reading for entry in seen])
        rows = np.array([entry.row for entry in seen]) / wide[:, None]
        values = np.array([entry.value for entry in seen]) / wide
        both = np.vstack([rows, np.diag(1 / scale)])
        right = np.concatenate([values, np.array(PRIOR.mean) / scale])
        answer = lsq_linear(both * scale, right, tol=1e-14).x * scale
        assert part.mean == pytest.approx(answer, rel=1e-4, abs=1e-9)


def test_a_constant_that_would_be_negative_is_nothing_as_in_scipy():
    """The nearest constants that are none, in the measure of how sure they are."""
    row, wide = (1.0, 1.0, 0.0), (0.25, 0.5, 0.0)
    seen = tuple(
        Observation(r, v, 10.0, n) for n, (r, v) in enumerate([(row, 0.001), (wide, 0.012)] * 40)
    )
    made = fit(Prior((0.0015, 0.0138, 0.005), (0.01, 0.01, 0.005)), seen)
    assert min(made.mean) == 0.0
    assert min(made.learned.mean) < 0
    half = np.linalg.cholesky(np.linalg.inv(np.array(made.cov))).T
    answer = lsq_linear(half, half @ np.array(made.learned.mean), bounds=(0, np.inf), tol=1e-14).x
    assert made.mean == pytest.approx(answer, rel=1e-3, abs=1e-8)


def test_many_swatches_recover_the_truth_within_the_error_they_state():
    truth = np.array(PRIOR.mean) * np.array([1.8, 0.7, 1.5])
    _, seen = _log(np.random.default_rng(5), 400, truth)
    made = fit(PRIOR, seen)
    errors = np.sqrt(np.diag(np.array(made.cov)))
    assert np.all(np.abs(np.array(made.mean) - truth) < 3 * errors)
    assert made.scatter == pytest.approx(0.004, rel=0.1)


@pytest.mark.parametrize("scatter", [0.002, 0.004, 0.006, 0.008])
@pytest.mark.parametrize("swatches", [3, 10])
def test_nine_new_panels_of_ten_fall_in_the_range_whoever_sews(swatches, scatter):
    """Over 300 simulated logs, each with a maker of her own scatter and one new panel."""
    rng = np.random.default_rng(90 + swatches + round(scatter * 1e4))
    row = row_of(Family("", 90.0, chosen("gap", F(5, 4))))[0]
    inside = 0
    for _ in range(300):
        theta, seen = _log(rng, swatches, scatter=scatter)
        made = fit(PRIOR, seen)
        new = float(np.dot(row, theta) + rng.normal(0, scatter))
        inside += abs(new - made.expects(row)) <= made.miss(row)
    most = 0.985 if scatter < 0.004 else 0.955  # careful hands get a little more than they need
    assert 0.85 <= inside / 300 <= most


def test_a_careless_hand_gets_a_wider_range_than_a_careful_one():
    rng = np.random.default_rng(4)
    row = row_of(Family("", 90.0, chosen("gap", F(5, 4))))[0]
    misses = [fit(PRIOR, _log(rng, 12, scatter=one)[1]).miss(row) for one in (0.001, 0.004, 0.008)]
    assert misses == sorted(misses)
    assert misses[2] > 1.8 * misses[0]
    assert unlearned(PRIOR).miss(row) > misses[1]


def test_leverage_is_the_diagonal_of_the_hat_matrix():
    """Where the scatter is known; here it is learned, and the leverage is of its mean."""
    _, seen = _log(np.random.default_rng(3), 6)
    made = fit(PRIOR, seen)
    own = np.array([made.scatter**2 + entry.reading for entry in seen])
    rows = np.array([entry.row for entry in seen])
    hat = np.einsum("ij,jk,ik->i", rows, np.array(made.cov), rows) / own
    assert [entry.leverage for entry in residuals(made, seen)] == pytest.approx(list(hat))


# -- lines and thread ------------------------------------------------------------------------


@st.composite
def outlines(draw):
    """Star-shaped outlines of up to 20 corners, hollow more often than not."""
    number = draw(st.integers(3, 20))
    radii = draw(st.lists(st.integers(8, 40), min_size=number, max_size=number))
    points = [
        (5 + r / 8 * cos(2 * np.pi * k / number), 5 + r / 8 * sin(2 * np.pi * k / number))
        for k, r in enumerate(radii)
    ]
    return tuple((float(x), float(y)) for x, y in points)


@given(outlines(), st.sampled_from([0.0, 90.0, 30.0, -60.0, 45.0]))
def test_lines_are_clipped_as_shapely_clips_them(outline, angle):
    offsets = [-3.0 + 0.37 * n for n in range(45)]
    (ax, ay), (nx, ny) = ways(angle)
    shape = Polygon(outline)
    lengths = dict.fromkeys(range(len(offsets)), 0.0)
    for at, (one, other) in segments(outline, angle, offsets):
        lengths[at] += LineString([one, other]).length
    cases = list(enumerate(offsets))
    assert cases
    for at, offset in cases:
        long = LineString(
            [
                (nx * offset - ax * 50, ny * offset - ay * 50),
                (nx * offset + ax * 50, ny * offset + ay * 50),
            ]
        )
        assert lengths[at] == pytest.approx(shape.intersection(long).length, abs=1e-6)


def test_thread_by_hand_and_by_a_handbooks_figure():
    """Ten lines of 30 cm through 1.5 mm at a 3 mm stitch: 300 cm × 2 (1 + ½) = 9 m.

    Thread handbooks give about 2.5 to 3 m of thread for a metre of lockstitch seam, more in
    thick goods (a usual figure for stitch type 301, from memory): here 3.0 for a sandwich.
    """
    lines = tuple(QuiltLine(f"{n}", 0, ((n, 0.0), (n, 300 / 25.4)), float(n)) for n in range(10))
    entry = LineSet("0.a", 0, "lines", 90.0, chosen("gap", 1), count("lines", 10))
    thick = from_mm("thick", F(3, 2), Basis.CHOSEN)
    made = stitching((entry,), lines, thick, F(3), chosen("pace", 60), 30)
    assert float(made.length.value * F(254, 10)) == pytest.approx(3000, abs=0.1)
    assert float(made.thread.value * F(254, 10)) == pytest.approx(9000, abs=0.3)
    thin = stitching(
        (entry,), lines, from_mm("thick", F(4, 5), Basis.CHOSEN), F(3), chosen("pace", 60), 30
    )
    for seam, low, high in ((made, 2.5, 3.2), (thin, 2.4, 3.0)):
        assert low <= float(seam.thread.value / seam.length.value) <= high


# -- the rows of panels that makers report (common practice, no source) ---------------------


def _grid_panel(batting, trimmed):
    choices = (
        ("layers.plies", (Ply(material=batting),)),
        ("quilting.pattern", "grid"),
        ("quilting.gap", F(1)),
        ("quilting.spacing", "keep"),
    )
    return plan(with_front(tote(), *choices)).panel("front"), trimmed


@pytest.mark.parametrize(
    ("batting", "pieced", "trims"),
    [
        ("sew-in-foam", (11, 11), (F(21, 2), 10)),  # 10½ × 10 or better
        ("cotton-batting", (F(17, 2), F(19, 2)), (8, 9)),  # 8 × 9 to 9¼
    ],
)
def test_panels_that_makers_report_fall_in_the_predicted_range(batting, pieced, trims):
    front, _ = _grid_panel(batting, trims)
    for way, before, after in (("x", pieced[0], trims[0]), ("y", pieced[1], trims[1])):
        strain = getattr(front.draw, way)
        most_left = before * (1 - strain.least.value)
        least_left = before * (1 - strain.most.value)
        # What is trimmed to is what was left, less at most ½ in for squaring it.
        assert least_left - F(1, 8) - F(1, 2) <= after <= most_left
    quilted = [pieced[0] * (1 - front.draw.x.most.value), pieced[1] * (1 - front.draw.y.most.value)]
    assert all(left >= after - F(1, 8) for left, after in zip(quilted, trims, strict=True))


def test_layers_lofted_twice_draw_in_more_than_either():
    one = plan(with_front(tote(), ("layers.plies", plies("cotton-batting")))).panel("front")
    both = plan(
        with_front(tote(), ("layers.plies", plies("cotton-batting", "polyester-batting")))
    ).panel("front")
    assert both.draw.x.expected.value > one.draw.x.expected.value
