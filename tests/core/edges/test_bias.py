"""Bias strips from pieces: against shapely, against every choice there is, against a solver."""

from itertools import permutations, product
from math import hypot, sqrt

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp
from shapely.geometry import LineString, Point, Polygon

from tessil.core.edges.bias import (
    BiasStrip,
    Ends,
    OutlineError,
    best_strips,
    checked,
    join_cost,
    joined,
    plan_bias,
    strips_of,
)
from tests.conftest import HUNT

COST = join_cost(0.25)


def _box(width, height):
    return ((0.0, 0.0), (float(width), 0.0), (float(width), float(height)), (0.0, float(height)))


LEANING = ((0.0, 0.0), (16.0, 0.0), (14.0, 11.0), (2.0, 9.0))
HOLLOW = ((0.0, 0.0), (14.0, 0.0), (14.0, 5.0), (6.0, 5.0), (6.0, 12.0), (0.0, 12.0))
SPIKE = ((0.0, 0.0), (12.0, 0.0), (12.0, 10.0), (7.0, 2.0), (5.0, 10.0), (0.0, 10.0))
THREE = ((0.0, 0.0), (9.0, 1.0), (4.0, 10.0))
OUTLINES = (_box(8, 15), _box(18, 21), LEANING, HOLLOW, SPIKE, THREE)


@pytest.mark.parametrize("outline", OUTLINES)
@pytest.mark.parametrize("angle", [45.0, -45.0])
def test_strips_lie_on_their_cloth_and_not_on_each_other(outline, angle):
    """shapely: every strip inside its piece, its area its width times its length, none shared."""
    cloth = Polygon(outline).buffer(1e-6)
    found = [s for s in strips_of(outline, 1.25, angle, 0.4, 0) if s.longest > 2.0]
    assert found
    shapes = [Polygon(strip.outline) for strip in found]
    for strip, shape in zip(found, shapes, strict=True):
        assert cloth.contains(shape)
        assert shape.area == pytest.approx(1.25 * strip.longest)
        (x1, y1), (x2, y2) = strip.outline[:2]
        assert abs(x2 - x1) == pytest.approx(abs(y2 - y1))  # 45° to the grain
    for at, one in enumerate(shapes):
        assert all(one.intersection(other).area < 1e-4 for other in shapes[at + 1 :])


@pytest.mark.parametrize("outline", [_box(8, 15), LEANING, THREE])
def test_no_strip_could_be_longer(outline):
    """The middle line of a strip on a convex piece, lengthened by a little, leaves room for no
    end cut at all (shapely)."""
    cloth = Polygon(outline).buffer(1e-9)
    cases = list(strips_of(outline, 1.0, 45.0, 0.0, 0))
    assert cases
    for strip in cases:
        if strip.longest < 2:
            continue
        a, b, c, d = (np.array(p) for p in strip.outline)
        along = (b - a) / np.linalg.norm(b - a)
        for corner in ((b, c), (a, d)):
            way = along if corner[0] is b else -along
            moved = [Point(p + way * 0.01) for p in corner]
            assert not all(cloth.contains(p) for p in moved)


def test_a_scrap_of_8_by_15_gives_about_11():
    """√2 · min(W, H) less what a strip's width takes; common practice, no source."""
    longest = max(s.longest for s in strips_of(_box(8, 15), 1.0, 45.0, 0.0, 0))
    centre = sqrt(2) * 8
    assert centre == pytest.approx(11.25, abs=0.07)
    assert longest == pytest.approx(centre, abs=1.0)


@given(st.floats(6, 30), st.floats(6, 30), st.floats(0.75, 3))
def test_chords_of_a_rectangle(width, height, strip):
    """A strip whose ends lie on two parallel sides is as long on its middle as shapely's chord."""
    outline = _box(width, height)
    cases = list(strips_of(outline, strip, 45.0, 0.0, 0))
    assert cases
    for made in cases:
        a, b, c, d = made.outline
        if hypot(a[0] - d[0], a[1] - d[1]) == 0 or made.longest < strip:
            continue
        start = ((a[0] + d[0]) / 2, (a[1] + d[1]) / 2)
        end = ((b[0] + c[0]) / 2, (b[1] + c[1]) / 2)
        way = ((end[0] - start[0]) * 9, (end[1] - start[1]) * 9)
        far = LineString(
            [(start[0] - way[0], start[1] - way[1]), (end[0] + way[0], end[1] + way[1])]
        )
        chord = Polygon(outline).intersection(far).length
        assert made.longest <= chord + 1e-6


# -- joining ----------------------------------------------------------------------------


def _strip(number, left, right):
    return BiasStrip(0, number, 45.0, (), Ends(left, right))


ends = st.tuples(st.floats(0, 2), st.floats(0, 2))


@st.composite
def some_strips(draw, most=4):
    return tuple(
        _strip(at, draw(ends), tuple(draw(st.floats(8, 20)) + x for x in draw(ends)))
        for at in range(draw(st.integers(1, most)))
    )


def _by_trying_all(strips):
    """The longest of every order, every turning and every end cut."""
    best = -1.0
    for order in permutations(strips):
        for turns in product((False, True), repeat=len(order)):
            ends = [s.ends.turned() if t else s.ends for s, t in zip(order, turns, strict=True)]
            for slants in product((0, 1), repeat=len(order) + 1):
                best = max(
                    best, sum(e.length(slants[i], slants[i + 1]) for i, e in enumerate(ends))
                )
    return best - (len(strips) - 1) * COST


@given(some_strips(3))
@settings(max_examples=40 * HUNT, deadline=None)
def test_joined_is_near_the_best_there_is(strips):
    """Never longer than the best of all orders, and the ends cost a few per cent at most."""
    made, best = joined(strips, COST), _by_trying_all(strips)
    assert made.reaches <= best + 1e-9
    assert made.reaches >= best * 0.9
    assert len(made.used) == len(strips)


@given(
    st.lists(st.tuples(st.integers(5, 20), st.integers(5, 24)), min_size=1, max_size=4),
    st.sampled_from([1.0, 1.75, 2.25, 4.0]),
    st.integers(20, 200),
    st.booleans(),
)
def test_the_shorter_side_of_every_strip_takes_its_joins(pieces, width, need, fewest):
    """Of a strip cut as it is used, measured on the cloth: its shorter side holds both seams."""
    outlines = tuple(_box(w, h) for w, h in pieces)
    made = plan_bias(outlines, width, need, 0.25, 0.5, fewest)
    used = made.joined.used
    sides = [one.length - (width if one.left != one.right else 0) for one in used]
    assert len(sides) < 2 or min(sides) >= COST - 1e-6


@given(some_strips())
def test_joins_are_one_fewer_than_pieces_and_ends_match(strips):
    made = joined(strips, COST)
    assert made.joins + 1 == len(made.used) == len(strips)
    for one, other in zip(made.used, made.used[1:], strict=False):
        assert one.right == other.left
    assert made.reaches == pytest.approx(sum(u.length for u in made.used) - made.joins * COST)
    places = made.places(COST)
    assert list(places) == sorted(places)
    assert len(places) == made.joins


def _fewest_by_solver(lengths, need):
    """HiGHS: the fewest strips whose lengths, less the joins, reach."""
    n = len(lengths)
    made = milp(
        np.ones(n),
        integrality=np.ones(n),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(np.array([lengths]) - COST, lb=need - COST),
    )
    return round(made.fun) if made.success else None


@pytest.mark.parametrize("seed", range(6))
def test_joins_against_an_exact_solver(seed):
    """SciPy's HiGHS picks the fewest strips by length alone: a bound no joining can beat."""
    random = np.random.default_rng(seed)
    outlines = tuple(_box(*random.uniform(6, 18, 2)) for _ in range(5))
    need = float(random.uniform(40, 120))
    made = plan_bias(outlines, 1.5, need, 0.25, 4.0, True)
    least = _fewest_by_solver([s.longest for s in made.strips], need)
    assert least is not None
    assert made.enough
    assert made.least == least - 1
    assert made.joined.joins in (least - 1, least)


@pytest.mark.parametrize("seed", range(4))
def test_little_waste_touches_the_least_cloth(seed):
    """Of all sets of pieces that reach, none has less cloth, but for the eighths it reckons in."""
    random = np.random.default_rng(seed)
    outlines = tuple(_box(*random.uniform(8, 20, 2)) for _ in range(4))
    areas = [Polygon(o).area for o in outlines]
    need = 55.0
    few = plan_bias(outlines, 1.5, need, 0.25, 4.0, True)
    thrifty = plan_bias(outlines, 1.5, need, 0.25, 4.0, False)
    assert thrifty.enough
    touched = sum(areas[s] for s in {u.strip.scrap for u in thrifty.joined.used})
    reach = []
    for chosen in product((0, 1), repeat=4):
        mine = tuple(s for s in thrifty.strips if chosen[s.scrap])
        if mine and joined(mine, COST).reaches >= need + 4:
            reach.append(sum(a for a, c in zip(areas, chosen, strict=True) if c))
    assert touched <= min(reach) + 1e-6
    assert thrifty.joined.joins >= few.joined.joins


@given(
    st.lists(st.tuples(st.floats(3, 24), st.floats(3, 24)), min_size=1, max_size=4),
    st.floats(0, 8),
    st.floats(0.75, 3),
)
@settings(max_examples=30 * HUNT, deadline=None)
def test_more_cloth_never_gives_less(sizes, more, width):
    """One piece more, or a strip's whole diagonal more on one: never less bias in all."""

    def reaches(outlines):
        return plan_bias(outlines, width, 1e4, 0.25, 2.0, False).joined.reaches

    outlines = tuple(_box(*size) for size in sizes)
    before = reaches(outlines)
    assume(before > 0)
    grown = (*outlines, _box(5 + more, 5 + more))
    extra = plan_bias((_box(5 + more, 5 + more),), width, 1e4, 0.25, 2.0, False)
    # A piece that gives no strip worth its join adds nothing; no plan has to take it.
    if all(strip.longest > COST + 2 * width for strip in extra.strips):
        assert reaches(grown) >= before - 1e-6


def test_too_little_cloth_says_how_far_it_reaches():
    made = plan_bias((_box(6, 6),), 1.5, 200.0, 0.25, 2.0, True)
    assert not made.enough
    assert 0 < made.joined.reaches < 200
    assert plan_bias((_box(1, 1),), 1.5, 200.0, 0.25, 4.0, True).strips == ()


def test_the_search_can_be_stopped():
    seen = []

    def watch(share):
        seen.append(share)
        return len(seen) < 3

    made = plan_bias(tuple(_box(9, 9) for _ in range(9)), 1.5, 400.0, 0.25, 2.0, True, watch)
    assert len(seen) == 3
    assert {strip.scrap for strip in made.strips} == {0, 1}


@pytest.mark.parametrize(
    ("outline", "words"),
    [
        (((0, 0), (4, 0), (9, 0)), "lie in a line"),
        (((0, 0), (4, 0)), "lie in a line"),
        (((0, 0), (8, 8), (8, 0), (0, 6)), "crosses itself"),
    ],
)
def test_outlines_no_cloth_has(outline, words):
    with pytest.raises(OutlineError, match=words):
        checked(outline)


def test_an_outline_told_the_other_way_round_is_turned():
    assert checked(tuple(reversed(LEANING))) in (LEANING, tuple(reversed(LEANING)))
    assert sorted(checked(LEANING)) == sorted(LEANING)


@pytest.mark.parametrize("outline", OUTLINES)
@pytest.mark.parametrize("longest", [True, False])
def test_the_best_strips_of_a_piece_lie_on_it_whole(outline, longest):
    """shapely: of a hollow piece too, whose strips would else run across what is not there."""
    cloth = Polygon(outline).buffer(1e-6)
    found = best_strips(outline, 1.25, 4.0, longest, 0)
    assert found
    for strip in found:
        assert cloth.contains(Polygon(strip.outline))
        assert strip.longest >= 4
