"""Places on an edge and beside it, held against shapely."""

from random import Random
from types import SimpleNamespace

import pytest
import shapely

from tessil.core.edges.bulk import _away, _length, _point
from tessil.core.numbers.exact import Fraction

F = Fraction


def _edge(start, end):
    return SimpleNamespace(start=tuple(map(F, start)), end=tuple(map(F, end)))


@pytest.mark.parametrize("seed", range(8))
def test_how_far_a_point_lies_from_an_edge(seed):
    dice = Random(seed)
    start, end, at = ((dice.randint(-40, 40), dice.randint(-40, 40)) for _ in range(3))
    edge, line = _edge(start, end), shapely.LineString((start, end))
    assert _away(edge, at) == pytest.approx(line.distance(shapely.Point(at)))
    assert _length(edge) == pytest.approx(line.length)
    for share in (0.0, 0.25, 0.7, 1.0):
        there = line.interpolate(share, normalized=True)
        assert _point(edge, share) == pytest.approx((there.x, there.y))


@pytest.mark.parametrize(
    ("at", "away"), [((5, 3), 0), ((5, 7), 4), ((2, 3), 0), ((1, 3), 1), ((12, 6), 5), ((8, -1), 4)]
)
def test_beside_beyond_and_on_a_level_edge(at, away):
    """From 2, 3 to 8, 3; beyond its ends the corner is nearest."""
    assert _away(_edge((2, 3), (8, 3)), at) == away
