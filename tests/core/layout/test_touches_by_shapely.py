"""Which pieces touch, side to side or corner to corner: shapely finds the same."""

import random
from itertools import combinations

import pytest
from shapely.geometry import Polygon, box

from tessil.core.layout.board import Area, shown_on
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote, with_front

F = Fraction
NEAR = 1e-3


def _touching(panel):
    """Pairs of pieces by the way they touch: along a line, or in a point."""
    shapes = {patch.piece: Polygon(patch.on_panel) for patch in panel.patches if patch.piece >= 0}
    inside = box(0, 0, *panel.trimmed.floats())
    found = {}
    for (one, a), (other, b) in combinations(shapes.items(), 2):
        if a.distance(b) > NEAR:
            continue
        both = a.buffer(NEAR).intersection(b.buffer(NEAR)).intersection(inside)
        if both.is_empty:
            continue
        x1, y1, x2, y2 = both.bounds
        long = max(x2 - x1, y2 - y1)
        found[one, other] = "side" if long > 0.1 else "corner"
    return found


def _told(made, key):
    """The same as the board has it, of one panel by itself."""
    return {
        tuple(sorted((touch.one.piece, touch.other.piece))): touch.kind
        for touch in made.table.board.touches
        if touch.one.panel == touch.other.panel == key and touch.kind in ("side", "corner")
    }


@pytest.mark.parametrize("square", [F(5, 2), F(7, 2), F(5)])
@pytest.mark.parametrize("sashing", [0, F(3, 2)])
def test_squares_touch_as_they_lie(square, sashing):
    made = plan(
        with_front(
            tote(),
            ("piecing.way", "squares"),
            ("piecing.square", square),
            ("piecing.sashing", F(sashing)),
            ("piecing.prints", ("red", "blue", "oat")),
        )
    )
    panel = made.panel("front")
    found = _touching(panel)
    if sashing:
        assert found == {}
        assert _told(made, "front") == {}
        return
    assert len(found) > 20
    assert _told(made, "front") == found


@pytest.mark.parametrize("run", ["level", "upright"])
def test_strips_touch_the_next_one_only(run):
    made = plan(with_front(tote(), ("piecing.run", run)))
    panel = made.panel("front")
    number = len(panel.patches)
    assert _told(made, "front") == {(at, at + 1): "side" for at in range(number - 1)}
    assert _told(made, "front") == _touching(panel)


def test_strips_on_the_slant_touch_as_shapely_has_them():
    made = plan(with_front(tote(), ("piecing.run", "diagonal")))
    panel = made.panel("front")
    told = {pair for pair, kind in _told(made, "front").items() if kind == "side"}
    assert told == {pair for pair, kind in _touching(panel).items() if kind == "side"}


def test_a_piece_is_shown_on_an_area_by_more_than_a_little():
    """Held against shapely: the part of it inside, ¼ from each side."""
    dice, panel = random.Random(3), plan(tote()).panel("front")
    seen = set()
    for _ in range(300):
        x, y = dice.uniform(-2, 15), dice.uniform(-2, 14)
        area = Area("a", "front", "front", False, (x, y, dice.uniform(1, 6), dice.uniform(1, 6)))
        for patch in panel.patches:
            ax, ay, aw, ah = area.source
            inner = box(ax + 0.25, ay + 0.25, ax + aw - 0.25, ay + ah - 0.25)
            shown = Polygon(patch.on_panel).intersection(inner).area > 0
            assert shown_on(panel, area, patch) == shown
            seen.add(shown)
    assert seen == {True, False}
