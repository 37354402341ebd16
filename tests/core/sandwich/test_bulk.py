"""How thick it gets: counted by hand, and thinner after each fix."""

import pytest

from tessil.core.edges.bulk import ADVICE, advice_for, thickest
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.sandwich.checks import held_out, pressed_open, tab_moved
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Mark
from tests.conftest import load_bag, plies, tote, with_front
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
COTTON, BATTING = 0.25, 0.9  # pressed mm, as in the catalogue


def _spots(project, panel="front"):
    return {spot.label: spot for spot in plan(project).spots_on(panel)}


def _mm(spot):
    return float(spot.mm)


def test_seams_are_the_layers_of_both_panels():
    spots = _spots(tote())
    one = COTTON + BATTING
    assert _mm(spots["left seam"]) == pytest.approx(2 * one)
    assert spots["left seam"].layers == 4
    # A binding: outside, lining, and two layers of it in front and behind.
    assert _mm(spots["bound top edge"]) == pytest.approx(one + COTTON + 4 * COTTON)
    # Over the side seam, pressed open, the panel's allowance lies there once more.
    assert _mm(spots["bound top edge, left seam"]) == pytest.approx(2 * one + 5 * COTTON)
    # The boxed corner crosses the bottom and the side seam: twice open on both of its sides.
    assert _mm(spots["boxed corner, over the seam"]) == pytest.approx(4 * one)


def test_a_patch_seam_adds_its_allowance_one_open_two_to_the_side():
    plain = _spots(tote())
    for press, more in (("open", 1), ("side", 2)):
        spots = _spots(with_front(tote(), ("piecing.press", press)))
        assert _mm(spots["patch seam, left seam"]) == pytest.approx(
            _mm(plain["left seam"]) + more * COTTON
        )


def test_seams_to_one_side_are_thicker_where_they_cross():
    opened, aside = _spots(tote()), _spots(tote(press_seams="side"))
    name = "bound top edge, left seam"
    assert _mm(aside[name]) == pytest.approx(_mm(opened[name]) + COTTON + BATTING)
    assert aside[name].folded
    assert not opened[name].folded


def test_what_is_held_out_of_the_seams_is_not_counted_there():
    inside = _spots(with_front(tote(), ("layers.plies", plies("cotton-batting", rule="inside"))))
    assert _mm(inside["left seam"]) == pytest.approx(2 * COTTON)


def test_a_tab_in_the_seam_is_thicker_than_one_beside_it():
    tab = Mark(kind="d-ring", panel="front", x=F(0), y=F(1))
    project = tote(marks=(tab,))
    made = plan(project)
    spot = next(spot for spot in made.spots_on("front") if spot.mark == 0)
    assert "in the side seam" in spot.label
    assert _mm(spot) == pytest.approx(2 * (COTTON + BATTING) + 8 * COTTON)
    (shift,) = tab_moved(made, spot)
    moved = plan(applied(project, shift))
    after = next(spot for spot in moved.spots_on("front") if spot.mark == 0)
    assert "on the face" in after.label
    assert after.mm < spot.mm


def test_each_fix_makes_its_place_thinner():
    tab = Mark(kind="d-ring", panel="front", x=F(0), y=F(1))
    project = with_front(
        tote(press_seams="side", marks=(tab,)),
        ("layers.plies", plies("sew-in-foam")),
        ("piecing.press", "side"),
    )
    made = plan(project)
    tried = 0
    for spot in made.spots_on("front"):
        for fix in (*held_out(made, spot), *pressed_open(made, spot), *tab_moved(made, spot)):
            after = plan(applied(project, fix))
            again = {s.key: s for s in after.spots_on("front")}[spot.key]
            assert again.mm < spot.mm, (spot.label, fix.words)
            tried += 1
    assert tried > 10


def test_the_worst_place_of_a_foam_bag_is_one_to_redesign():
    worst = thickest(
        plan(with_front(tote(), ("layers.plies", plies("sew-in-foam")))).spots_on("front")
    )
    assert worst.label == "boxed corner, over the seam"
    assert _mm(worst) == pytest.approx(4 * (COTTON + 2.0))
    assert "hammer" in worst.advice.words


@pytest.mark.parametrize(
    ("mm", "needle"),
    [(F(1), 80), (F(2), 80), (F(21, 10), 90), (F(4), 90), (F(6), 100), (F(7), 110)],
)
def test_needles_grow_with_the_seam(mm, needle):
    assert advice_for(mm).needle == needle
    assert f"{needle}/" in advice_for(mm).words
    assert [entry.most for entry in ADVICE] == sorted(entry.most for entry in ADVICE)


@pytest.mark.parametrize("shape", SHAPES)
def test_every_shape_has_places_on_its_panels_with_a_working_that_comes_out(shape):
    made = plan(project_of(shape))
    lead = made.panel(made.shape.leader)
    spots = made.spots_on(lead.key)
    assert spots
    width, height = lead.trimmed.floats()
    for spot in spots:
        assert spot.mm > 0
        assert -0.01 <= spot.at[0] <= width + 0.01
        assert -0.01 <= spot.at[1] <= height + 0.01
        assert spot.thick.show == "mm"
    assert len({spot.key for spot in spots}) == len(spots)
    linings = [panel.key for panel in made.panels if panel.panel.kind != "outer"]
    assert all(made.spots_on(key) == () for key in linings)


def test_a_snap_wants_something_behind_it():
    from tests.conftest import DEMO

    demo = load_bag(DEMO)
    front = demo.panels["front"]
    bare = front.model_copy(update={"layers": front.layers.model_copy(update={"plies": ()})})
    project = demo.model_copy(update={"panels": {**demo.panels, "front": bare}})
    (snag,) = [s for s in plan(project).snags if s.key == "layer.snap.front"]
    mended = plan(applied(project, snag.fixes[0]))
    assert not any(s.key.startswith("layer.snap") for s in mended.snags)
    assert mended.panel("front").layers[1].material.key == "woven-interfacing"


def test_the_half_in_a_lining_has_its_patch_and_no_snag():
    """The male part goes into the flap's lining, a square of interfacing behind it."""
    from tests.conftest import DEMO

    made = plan(load_bag(DEMO))
    (male,) = [mark for mark in made.marks_on("flap-lining") if mark.key == "snap:male"]
    assert male.box[2:] == (F(3, 2), F(3, 2))
    assert not any(s.key == "layer.snap.flap-lining" for s in made.snags)


def test_a_zipper_edge_is_folded_cloth_twice_and_its_tape():
    """Pressed: cotton 0.25, cotton batting 0.9, lining 0.25, each twice, and tape 0.5 mm (typical
    values, from memory): 3.3 mm in seven layers."""
    made = plan(project_of("flat-pouch"))
    (zipped,) = [spot for spot in made.spots_on("front") if spot.key == "front.edge.top"]
    assert zipped.mm == F(33, 10)
    assert zipped.layers == 7
    assert zipped.advice.needle == 90


def test_a_bound_edge_carries_its_wall_and_four_layers_of_binding():
    """(0.25 + 0.9 + 0.25) and 4 × 0.25: 2.4 mm."""
    (bound,) = [spot for spot in plan(tote()).spots_on("front") if spot.key == "front.edge.top"]
    assert bound.mm == F(24, 10)
    assert bound.layers == 7
