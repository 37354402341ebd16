"""Outlines moved inwards: corners reckoned by hand, and rings of an echo on a notched panel."""

import pytest

from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.insets import inset
from tests.conftest import tote

SQUARE = ((0, 0), (10, 0), (10, 10), (0, 10))
NOTCHED = ((0, 0), (10, 0), (10, 8), (8, 8), (8, 10), (0, 10))
WAISTED = (
    (0, 0),
    (10, 0),
    (10, 4),
    (6, 4),
    (6, 6),
    (10, 6),
    (10, 10),
    (0, 10),
    (0, 6),
    (4, 6),
    (4, 4),
    (0, 4),
)


@pytest.mark.parametrize(
    ("outline", "by", "corners"),
    [
        (SQUARE, 1, ((1, 1), (9, 1), (9, 9), (1, 9))),
        (NOTCHED, 1, ((1, 1), (9, 1), (9, 7), (7, 7), (7, 9), (1, 9))),
    ],
)
def test_corners_move_inwards_along_both_their_sides(outline, by, corners):
    (ring,) = inset(outline, by)
    assert len(ring) == len(corners)
    for made, wanted in zip(ring, corners, strict=True):
        assert made == pytest.approx(wanted)


def test_a_waist_parts_the_ring_in_two():
    parts = inset(WAISTED, 1.5)
    assert len(parts) == 2
    assert sorted(min(y for _, y in part) for part in parts) == pytest.approx([1.5, 7.5])


def test_nothing_is_left_of_what_is_thinner_than_twice_the_inset():
    assert inset(SQUARE, 5) == ()
    assert inset(SQUARE, 6) == ()


def test_the_rings_of_an_echo_lie_a_gap_apart_inside_the_seam_lines():
    base = tote()
    front = base.panels["front"].model_copy(update={"quilting": Quilting(pattern="echo")})
    made = plan(base.model_copy(update={"panels": {**base.panels, "front": front}}))
    rings, shown = made.panel("front").quilt.sets[0].drawn, made.panel("front").shown
    seam = float(min(shown.values()))
    lefts = [min(x for x, _ in ring) for ring in rings]
    assert lefts == pytest.approx([seam + 1.25 * turn for turn in range(1, len(rings) + 1)])
    assert len(rings) > 3
