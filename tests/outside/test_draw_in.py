"""The draw-in model against SciPy's quadrature and sums worked by hand.

The flat-arc rule, 8/3·(a/p)² longer than its chord, is the parabola's length to second order
(a standard calculus result, from memory); quadrature integrates the real parabola.
"""

from fractions import Fraction

import pytest
from scipy.integrate import quad

from tessil.core.catalogue import of_kind
from tessil.core.quilting.channels import stitching
from tessil.core.quilting.shrinkage import across_lines, along_lines, bare_constants, constants
from tessil.core.workings import Basis, count, from_mm
from tessil.core.workings import given as chosen

F = Fraction
KEYS = [entry.key for entry in of_kind("batting")]


def _arc_excess(rise: float, gap: float) -> float:
    """How much longer a parabola of that rise is than its chord, as a share of the chord."""

    def speed(x: float) -> float:
        slope = 4 * rise * (1 - 2 * x / gap) / gap
        return (1 + slope * slope) ** 0.5

    return quad(speed, 0, gap)[0] / gap - 1


@pytest.mark.parametrize("key", KEYS)
@pytest.mark.parametrize("gap_mm", [13, 25.4, 50, 100])
def test_the_arc_part_is_the_length_of_a_real_parabola(key, gap_mm):
    known = constants(key)
    gap = from_mm("gap", F(str(gap_mm)), Basis.CHOSEN)
    strain = float(across_lines(gap, known).expected.value)
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
    strain = across_lines(chosen("gap", 1), constants(key)).expected.value
    assert float(strain) * 100 == pytest.approx(percent, abs=0.002)
    assert 1.5 <= float(strain) * 100 <= 3.0  # the range makers expect (common practice)


def test_the_range_is_half_of_the_guess_each_way():
    for strain in (across_lines(chosen("gap", 1), constants("cotton-batting")),
                   along_lines(constants("cotton-batting"))):  # fmt: skip
        assert strain.least.value == strain.expected.value / 2
        assert strain.most.value == strain.expected.value * 3 / 2
        assert strain.expected.basis is Basis.GUESS


def test_without_batting_there_is_no_arc():
    strain = across_lines(from_mm("gap", F(35), Basis.CHOSEN), bare_constants())
    assert strain.expected.value == F(1, 100)


def test_thread_by_hand():
    """Ten lines of 30 cm through 1.5 mm at a 3 mm stitch: 300 cm × 2 (1 + ½) = 9 m."""
    run, thick = from_mm("run", F(300), Basis.CHOSEN), from_mm("thick", F(3, 2), Basis.CHOSEN)
    made = stitching(count("lines", 10), run, thick, F(3))
    assert made.length.value * F(254, 10) == 3000
    assert made.thread.value * F(254, 10) == 9000
