"""From which end sizes are worked out: by hand on a tote of 11 × 12 × 3 with seams of ⅜."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes.acts.shaping import start_from, wish
from tests.conftest import tote

F = Fraction
PANEL = {
    "panel_width": F(59, 4),  # 11 + 3 and two seams
    "panel_height": F(111, 8),  # 12, half of 3 and a seam
    "notch_side": F(3, 2),
    "notch_bottom": F(3, 2),
}


@pytest.fixture
def made():
    return plan(tote())


def test_the_panels_sizes_are_those_it_has(made):
    shape = applied(made.project, start_from(made, "panel")).shape
    assert shape.way == "panel"
    assert {key: shape.sizes[key] for key in PANEL} == PANEL
    assert plan(applied(made.project, start_from(made, "panel"))).bag.finished[0].value == 11


def test_and_back_to_the_finished_ones():
    panel = plan(tote(shape=applied(tote(), start_from(plan(tote()), "panel")).shape))
    wider = plan(applied(panel.project, edit("", ("shape.sizes.panel_width", F(63, 4)))))
    shape = applied(wider.project, start_from(wider, "finished")).shape
    assert shape.way == "finished"
    assert [shape.sizes[key] for key in ("width", "height", "depth")] == [12, 12, 3]


@pytest.mark.parametrize("way", ["cloth", "object"])
def test_cloth_and_things_leave_sizes_alone(made, way):
    shape = applied(made.project, start_from(made, way)).shape
    assert shape.way == way
    assert shape.sizes == made.project.shape.sizes
    assert (shape.cloth.width, shape.cloth.height) == (18, 21)


def test_cloth_from_which_no_panel_comes_is_first_told_larger():
    """Front and back 35¼, the lining 33¾, side by side: 104¼, up to an inch; 21 high is enough."""
    wide = plan(applied(tote(), edit("", ("shape.sizes.width", F(30)))))
    cloth = applied(wide.project, start_from(wide, "cloth")).shape.cloth
    needed = [panel.needed.width.value for panel in wide.panels]
    assert needed == [F(141, 4), F(141, 4), F(135, 4)]
    assert (cloth.width, cloth.height) == (105, 21)


def test_a_wish_begins_from_its_own_end(made):
    panel = applied(made.project, wish(made, "panel_width", F(16))).shape
    assert (panel.way, panel.sizes["panel_width"], panel.sizes["panel_height"]) == (
        "panel",
        16,
        F(111, 8),
    )
    finished = wish(made, "width", F(13))
    assert finished.words == "Wish for another width"
    assert applied(made.project, finished).shape.sizes["width"] == 13
    assert applied(made.project, finished).shape.way == "finished"
