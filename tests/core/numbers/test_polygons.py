"""Cutting of outlines, held against shapely on outlines and lines drawn at random."""

import itertools
from math import cos, pi, sin

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import Polygon, box

from tessil.core.numbers.polygons import (
    area,
    band,
    box_of,
    boxed,
    cut_by,
    half,
    reach,
    rectangle,
    shifted,
)

CORNER = st.floats(-20, 20, allow_nan=False).map(lambda v: round(v, 3))
SIDE = st.floats(0.5, 20, allow_nan=False).map(lambda v: round(v, 3))


@st.composite
def round_outlines(draw):
    """Convex outlines: corners on a circle, in order."""
    angles = sorted(draw(st.lists(st.floats(0, 6.2), min_size=3, max_size=8, unique=True)))
    assume(all(b - a > 0.05 for a, b in itertools.pairwise(angles)))
    x, y, r = draw(CORNER), draw(CORNER), draw(SIDE)
    return tuple((x + r * cos(a), y + r * sin(a)) for a in angles)


def test_a_rectangle_is_clockwise_as_drawn_from_its_top_left():
    assert rectangle(1, 2, 3, 4) == ((1, 2), (4, 2), (4, 6), (1, 6))
    assert area(rectangle(1, 2, 3, 4)) == 12
    assert box_of(rectangle(1, 2, 3, 4)) == (1, 2, 4, 6)
    assert shifted(rectangle(0, 0, 1, 1), 2, -3) == ((2, -3), (3, -3), (3, -2), (2, -2))
    assert reach(rectangle(1, 2, 3, 4), (0.0, 1.0)) == (2, 6)


@given(round_outlines(), CORNER, CORNER, SIDE, SIDE)
def test_cut_to_a_box_as_shapely_does(outline, x, y, width, height):
    cut = boxed(outline, x, y, width, height)
    wanted = Polygon(outline).intersection(box(x, y, x + width, y + height)).area
    assert (area(cut) if cut else 0.0) == pytest.approx(wanted, abs=1e-6)


@given(round_outlines(), st.floats(0, 2 * pi), CORNER, SIDE)
def test_a_band_across_an_outline(outline, angle, low, wide):
    way = (cos(angle), sin(angle))
    strip = band(outline, way, low, low + wide)
    lower, upper = half(outline, way, low, above=False), half(outline, way, low, above=True)
    both = sum(area(part) for part in (lower, upper) if len(part) > 2)
    assert both == pytest.approx(area(outline), abs=1e-6)
    for point in strip:
        along = point[0] * way[0] + point[1] * way[1]
        assert low - 1e-6 <= along <= low + wide + 1e-6


@given(round_outlines(), round_outlines())
def test_one_outline_cut_by_another(outline, shape):
    cut = cut_by(outline, shape)
    wanted = Polygon(outline).intersection(Polygon(shape)).area
    assert (area(cut) if len(cut) > 2 else 0.0) == pytest.approx(wanted, abs=1e-5)
