"""The tote's panels laid out as polygons and sewn on paper, without Tessil's formulas.

Areas by shapely; sewn lengths by cutting the seam lines against each other.
"""

from fractions import Fraction
from itertools import product

import pytest
from shapely import Polygon

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Bag
from tessil.core.brief.choice import Seams, ShapeChoice
from tessil.core.plan import plan
from tests.conftest import tote
from tests.outside.paper import stitched

F = Fraction
SEAMS = [F(1, 4), F(3, 8), F(1, 2)]


def _bag(side, bottom, corner, depth=3) -> Bag:
    sizes = {"width": F(11), "height": F(12), "depth": F(depth)}
    seams = Seams(side=side, bottom=bottom, corner=corner, top=F(3, 8))
    return plan(tote(shape=ShapeChoice(sizes=sizes), seams=seams)).bag


@pytest.mark.parametrize(("side", "bottom", "corner"), list(product(SEAMS, SEAMS, SEAMS)))
def test_edges_that_are_sewn_together_have_the_same_stitched_length(side, bottom, corner):
    bag = _bag(side, bottom, corner)
    sewn = {panel.key: stitched(panel) for panel in bag.panels}
    cases = list(bag.joins)
    assert cases
    for join in cases:
        one = sum(sewn[ref.panel][ref.edge] for ref in join.one)
        other = sum(sewn[ref.panel][ref.edge] for ref in join.other)
        assert one == other, join.key


@pytest.mark.parametrize(("side", "bottom", "corner"), list(product(SEAMS, SEAMS, SEAMS)))
def test_the_box_corner_seam_is_as_long_as_the_base_is_deep(side, bottom, corner):
    bag = _bag(side, bottom, corner)
    sewn = {panel.key: stitched(panel) for panel in bag.panels}
    depth = bag.finished[2].value
    corners = [join for join in bag.joins if join.kind == "corner"]
    long = [sum(sewn[ref.panel][ref.edge] for ref in join.one) for join in corners]
    assert long == [depth, depth]


def test_the_bottom_seam_is_as_long_as_the_base_is_wide():
    bag = _bag(F(3, 8), F(1, 4), F(1, 2))
    assert stitched(bag.panel("front"))[EdgeKey("bottom")] == bag.finished[0].value


@pytest.mark.parametrize("depth", [F(2), F(3), F(9, 2)])
def test_the_notched_outline_has_the_area_of_its_panel_less_two_notches(depth):
    panel = _bag(F(3, 8), F(3, 8), F(3, 8), depth).panel("front")
    shape = Polygon([(float(x), float(y)) for x, y in panel.outline])
    assert shape.is_valid
    notch = panel.notches[0]
    expected = panel.width.value * panel.height.value
    expected -= 2 * notch.side_leg.value * notch.other_leg.value
    assert shape.area == pytest.approx(float(expected))


@pytest.mark.parametrize("seam", SEAMS)
def test_what_shows_is_the_outline_shrunk_by_its_seam(seam):
    """With one seam all round, shapely's own inset must give the stitched edges."""
    sizes = {"width": F(11), "height": F(12), "depth": F(3)}
    choice = ShapeChoice(sizes=sizes, options={"top": "turned"})
    same = Seams(side=seam, bottom=seam, corner=seam, top=seam)
    bag = plan(tote(shape=choice, seams=same)).bag
    panel = bag.panel("front")
    inner = Polygon([(float(x), float(y)) for x, y in panel.outline]).buffer(
        -float(seam), join_style="mitre"
    )
    lengths = stitched(panel)
    assert inner.length == pytest.approx(float(sum(lengths.values())))
    width, height, depth = (float(figure.value) for figure in bag.finished)
    # front and back together: the base, two half sides each, and both faces
    assert 2 * inner.area == pytest.approx(2 * width * height + 2 * depth * height + width * depth)
