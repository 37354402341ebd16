"""Lines one way and on the slant, value by value: hand sums of the two causes (common practice, no
source) with constants that make them round."""

import pytest

from tessil.core.catalogue import materials
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given
from tessil.core.quilting.shrinkage import (
    NO_DRAW,
    Constants,
    Family,
    draw_in,
    prior_of,
    row_of,
    starting_constants,
    turned,
)

F = Fraction


@pytest.mark.parametrize(
    ("angle", "squares"),
    [
        (0, (0, 1, 0)),
        (180, (0, 1, 0)),
        (90, (1, 0, 0)),
        (-90, (1, 0, 0)),
        (270, (1, 0, 0)),
        (45, (F(1, 2), F(1, 2), F(1, 2))),
        (-45, (F(1, 2), F(1, 2), -F(1, 2))),
        (30, (F(1, 4), F(3, 4), F(433, 1000))),
    ],
)
def test_squares_of_sine_and_cosine(angle, squares):
    for found, wanted in zip(turned(angle), squares, strict=True):
        assert float(found) == pytest.approx(float(wanted), abs=1e-4)
    assert turned(angle)[0] + turned(angle)[1] == 1


@pytest.fixture
def known():
    """Cotton batting's fit, with a rise of 0.3 in, 0.02 in a line and 1 % along."""
    real = starting_constants((materials()["cotton-batting"],))
    return Constants(
        rise=given("rise", F(3, 10)),
        draw=given("draw", F(1, 50)),
        along=given("along", F(1, 100), Basis.GUESS, 0, "percent"),
        fitted=real.fitted,
    )


def lines(angle, gap, share=None):
    shared = None if share is None else given("share", share, Basis.CHOSEN, 0)
    return Family(angle=angle, gap=given("gap", gap), share=shared, name="")


def lost(draw):
    lean = None if draw.lean is None else draw.lean.expected.value
    return draw.x.expected.value, draw.y.expected.value, lean


def test_upright_lines_draw_the_width_in_and_a_little_of_the_height(known):
    """Three inches apart: 8/3 × (0.3 / 3)² is 2⅔ %, 0.02 / 3 is ⅔ %; along them 1 %."""
    across = F(8, 3) / 100 + F(2, 300)
    assert lost(draw_in((lines(90, F(3)),), known)) == (across, F(1, 100), None)
    assert lost(draw_in((lines(0, F(3)),), known)) == (F(1, 100), across, None)


def test_both_ways_add_and_half_of_the_lines_draw_half(known):
    across = F(8, 3) / 100 + F(2, 300)
    both = draw_in((lines(90, F(3)), lines(0, F(3))), known)
    assert lost(both) == (across + F(1, 100), across + F(1, 100), None)
    half = draw_in((lines(90, F(3), F(1, 2)),), known)
    assert lost(half) == (across / 2, F(1, 200), None)


def test_on_the_slant_both_are_the_mean_and_it_leans_by_the_difference(known):
    across, along = F(8, 3) / 100 + F(2, 300), F(1, 100)
    wide, high, lean = lost(draw_in((lines(45, F(3)),), known))
    assert wide == high == (across + along) / 2
    assert lean == across - along
    other = lost(draw_in((lines(-45, F(3)),), known))
    assert other == (wide, high, -lean)
    together = draw_in((lines(45, F(3)), lines(-45, F(3))), known)
    assert lost(together)[:2] == (across + along, across + along)


def test_a_loss_is_never_less_than_nothing_but_a_lean_may_turn(known):
    """A foot apart, what it may miss by is more than what is lost."""
    for strain in (draw_in((lines(90, F(12)),), known).x, draw_in((lines(0, F(12)),), known).y):
        assert strain.miss.value > strain.expected.value
        assert strain.least.value == 0
        assert strain.most.value == strain.expected.value + strain.miss.value
    lean = draw_in((lines(45, F(12)),), known).lean
    assert lean.least.value == lean.expected.value - lean.miss.value < 0


def test_the_row_of_a_family_is_its_sum_taken_apart(known):
    """Of q = 8/3 rise², d and g the rows give the same loss as the figures do."""
    q, d, g = 8 / 3 * 0.09, 0.02, 0.01
    for angle in (90, 0, 45, -30):
        strain = draw_in((lines(angle, F(3)),), known)
        for row, found in zip(row_of(lines(angle, F(3))), lost(strain), strict=True):
            assert row[0] * q + row[1] * d + row[2] * g == pytest.approx(
                float(found or 0), abs=1e-5
            )


def test_nothing_is_lost_without_lines(known):
    assert draw_in((), known) is NO_DRAW
    assert NO_DRAW.x.expected.value == NO_DRAW.y.most.value == 0
    assert NO_DRAW.lean is None


def test_lofts_add_and_the_strongest_draw_counts():
    """Cotton and polyester batting one on the other."""
    two = [materials()[key] for key in ("cotton-batting", "polyester-batting")]
    known = starting_constants(tuple(two))
    mm = F(254, 10)
    assert known.rise.value * mm == sum(one.rise_mm for one in two)
    assert known.draw.value * mm == max(one.draw_mm for one in two)
    rise = float(known.rise.value)
    assert prior_of(tuple(two)).mean[0] == pytest.approx(8 / 3 * rise**2)
