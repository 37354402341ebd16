"""Channels come out even, and a panel is pieced as much larger as quilting takes."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.catalogue import material, materials
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import given as chosen
from tessil.core.panels.choice import Oversize
from tessil.core.plan import plan
from tessil.core.quilting.channels import plan_channels
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.shrinkage import across_lines, starting_constants
from tessil.core.sandwich.choice import Layers
from tessil.core.trouble import CannotPlan
from tests.conftest import plies, tote, with_front

F = Fraction
spans = st.integers(16, 400).map(lambda n: F(n, 8))
gaps = st.integers(2, 40).map(lambda n: F(n, 8))


@given(spans, gaps, st.sampled_from(["line", "gap"]), st.sampled_from(["divide", "keep"]))
def test_lines_are_even_symmetric_and_inside(shows, gap, centre, spacing):
    made = plan_channels(
        Quilting(gap=gap, centre=centre, spacing=spacing), chosen("shows", shows), "quilting"
    )
    places = made.positions
    assert len(places) == max(made.lines.whole, 0)
    assert [-place for place in reversed(places)] == list(places)
    assert all(abs(place) <= shows / 2 for place in places)
    steps = {b - a for a, b in pairwise(places)}
    assert steps <= {made.gap.value}
    if places:
        assert places[0] + shows / 2 == made.margin.value
    if spacing == "divide":
        assert made.gap.value * (made.lines.whole + 1) == shows
    if centre == "line" and places:
        assert 0 in places


def test_a_divided_gap_is_the_nearest_to_the_wish():
    made = plan_channels(Quilting(gap=F(5, 4)), chosen("shows", F(14)), "q")
    even = [F(14, n) for n in range(2, 40, 2)]
    assert made.gap.value == min(even, key=lambda gap: abs(F(14) / gap - F(14) / F(5, 4)))


@pytest.mark.parametrize(("gap", "says"), [(F(1, 100), "1/16"), (F(1, 20), "1/16")])
@pytest.mark.parametrize("pattern", ["channels", "grid", "diagonal", "diamonds", "echo"])
def test_absurd_gaps_are_refused(pattern, gap, says):
    with pytest.raises(CannotPlan, match=says):
        plan(with_front(tote(), ("quilting.pattern", pattern), ("quilting.gap", gap)))


@pytest.mark.parametrize("centre", ["line", "gap"])
def test_a_gap_wider_than_the_panel_leaves_one_line_in_its_middle(centre):
    wide = with_front(
        tote(), ("quilting.gap", F(40)), ("quilting.spacing", "keep"), ("quilting.centre", centre)
    )
    (line,) = plan(wide).panel("front").quilt.lines
    assert line.offset == float(plan(wide).panel("front").trimmed.width.value) / 2


@pytest.mark.parametrize("shows", [F(0), F(-1)])
def test_a_panel_of_nothing_but_seams_is_refused(shows):
    with pytest.raises(CannotPlan, match="nothing is left to quilt"):
        plan_channels(Quilting(), chosen("shows", shows), "q")


@given(gaps, gaps)
def test_closer_lines_draw_in_more(first, second):
    near, far = sorted((first, second))
    known = starting_constants((material("cotton-batting"),))
    assert (
        across_lines(chosen("gap", near), known).value
        >= across_lines(chosen("gap", far), known).value
    )


@pytest.mark.parametrize(
    "batting", [key for key, entry in materials().items() if entry.kind == "batting"]
)
def test_the_pieced_size_survives_the_bad_end_of_the_range(batting):
    front = plan(with_front(tote(), ("layers.plies", plies(batting)))).panel("front")
    for way in ("width", "height"):
        left_over = getattr(front.least, way).value - getattr(front.trimmed, way).value
        assert left_over > F(1, 4)


def test_more_loft_means_a_larger_piece():
    sizes = [
        plan(with_front(tote(), ("layers.plies", plies(*keys)))).panel("front").needed.width.value
        for keys in (("cotton-batting",), ("cotton-batting", "sew-in-foam"))
    ]
    assert sizes[1] > sizes[0]


def test_level_lines_draw_in_the_height():
    level = plan(with_front(tote(), ("quilting.run", "level"))).panel("front")
    upright = plan(tote()).panel("front")
    assert upright.quilted.width.value / upright.pieced.width.value < F(99, 100)
    assert level.quilted.height.value / level.pieced.height.value < F(99, 100)
    assert level.quilted.width.value / level.pieced.width.value == 1 - F(5, 1000)


@pytest.mark.parametrize(
    ("oversize", "more"),
    [(Oversize(way="none"), F(0)), (Oversize(way="fixed", fixed=F(3, 4)), F(7, 8))],
)
def test_the_other_schools_of_oversize(oversize, more):
    front = plan(tote(oversize=oversize)).panel("front")
    # 14¾ + ¾ is on the quarter; the height 13⅞ + ¾ goes up to the next one.
    assert front.needed.width.value - front.trimmed.width.value == (F(3, 4) if more else 0)
    assert front.needed.height.value - front.trimmed.height.value == more


def test_without_quilting_nothing_is_pieced_larger():
    front = plan(with_front(tote(), ("quilting.pattern", "none"))).panel("front")
    assert front.needed.values() == front.trimmed.values()
    assert front.sewing is None
    assert front.leans is None


def test_a_stack_is_as_thick_as_its_layers():
    made = plan(with_front(tote(), ("layers.plies", plies("cotton-batting", "cotton"))))
    cotton, batting = material("cotton"), material("cotton-batting")
    pressed = (2 * cotton.pressed_mm + batting.pressed_mm) / F(254, 10)
    assert made.panel("front").pressed.value == pressed
    assert [ply.material for ply in Layers().plies] == ["cotton-batting"]
    assert all(entry.pressed_mm <= entry.relaxed_mm for entry in materials().values())
