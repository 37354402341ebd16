"""Figures that were wrong once, each worked out by hand beside it."""

from math import hypot

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.cutlist import strip_sets
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER
from tessil.core.numbers.workings import HAIR, given, up_to
from tessil.core.plan import plan
from tests.conftest import DEMO, load_bag, tote

F = Fraction
BAGS = sorted(DEMO.parent.glob("*.tessil"))


def _with_pattern(project, pattern, **more):
    panels = {
        key: choices.model_copy(
            update={"quilting": choices.quilting.model_copy(update={"pattern": pattern, **more})}
        )
        for key, choices in project.panels.items()
    }
    return project.model_copy(update={"panels": panels})


@pytest.mark.parametrize("pattern", ["ditch", "offset"])
@pytest.mark.parametrize("path", BAGS, ids=lambda path: path.stem)
def test_lines_on_seams_have_one_gap_and_one_count(path, pattern):
    """What the picture shows is counted, measured, sewn and drawn in: no second number."""
    made = plan(_with_pattern(load_bag(path), pattern))
    followed = 0
    for panel in made.panels:
        for at, entry in enumerate(panel.quilt.sets):
            drawn = [line for line in panel.quilt.lines if line.group == at]
            assert entry.lines.value == len({line.key for line in drawn})
            (family,) = [f for f in panel.families if f.name == entry.name]
            assert family.gap.value == entry.gap.value
            followed += 1
        if panel.sewing is not None:
            together = sum(line.length for line in panel.quilt.lines)
            assert float(panel.sewing.length.value) == pytest.approx(together, abs=0.01)
    assert followed


def test_even_seams_lie_as_far_apart_as_their_lines_are_drawn():
    made = plan(_with_pattern(tote(), "ditch"))
    panel = made.panel("front")
    (entry,) = panel.quilt.sets
    levels = sorted(line.points[0][1] for line in panel.quilt.lines)
    pitch = (levels[-1] - levels[0]) / (len(levels) - 1)
    assert float(entry.gap.value) == pytest.approx(pitch, abs=0.002)
    assert len(levels) == entry.lines.value


def test_a_line_that_is_left_out_is_neither_counted_nor_draws_in():
    whole = plan(tote()).panel("front")
    less = plan(_with_pattern(tote(), "channels", left_out=("0.a.1", "0.a.2"))).panel("front")
    all_, left = whole.quilt.sets[0].lines.value, less.quilt.sets[0].lines.value
    assert left == all_ - 2
    assert less.sewing.lines.value == left
    share = left / all_
    lost = [float(p.draw.x.expected.value + p.draw.y.expected.value) for p in (whole, less)]
    assert lost[1] == pytest.approx(lost[0] * float(share), rel=1e-6)


def test_what_is_left_of_a_strip_set_is_what_no_panel_takes():
    """14, 14 and 7 out of 41 usable leave 6 (common practice, no source)."""
    base = plan(tote()).panel("front")
    set_up = base.choices.model_copy(
        update={"piecing": base.choices.piecing.model_copy(update={"strip_sets": True})}
    )

    class Along:
        def __init__(self, key, along, copies):
            self.key, self.choices, self.parts = key, set_up, base.parts
            self.top, self.patches = base.top, base.patches
            self.panel = type("P", (), {"copies": copies, "label": key.capitalize()})
            self.strips = type("S", (), {"along": given("along", along), "cuts": ()})

    project = tote().model_copy(
        update={"stock": tote().stock.model_copy(update={"usable_width": F(41)})}
    )
    (group,) = strip_sets((Along("front", 14, 2), Along("flap", 7, 1)), project)
    assert group.sets.value == 1
    assert group.per_set.value == 3
    assert group.left.value == 6


@pytest.mark.parametrize("shorter", [F(1, 8), F(1, 4), F(1, 2), F(1)])
def test_a_shorter_lining_keeps_its_quarter_round(shorter):
    """Every corner of the arc lies one radius from its middle, on the lining as on the panel."""
    clutch = tote(
        shape=ShapeChoice(kind="clutch", options={"flap_shape": "round"}), lining_shorter=shorter
    )
    made = plan(clutch).bag
    radius = float(plan(clutch).sizes["flap_round"].value)
    lining = made.panel("lining")
    assert made.panel("body").height.value - lining.height.value == shorter
    for side, middle in (("left", radius), ("right", float(lining.width.value) - radius)):
        arc = [edge for edge in lining.edges if edge.key.run == EdgeKey(side, "curve")]
        assert len(arc) > 4
        for edge in arc:
            away = hypot(float(edge.start[0]) - middle, float(edge.start[1]) - radius)
            assert away == pytest.approx(radius, abs=1e-3)
    bottom = next(fold for fold in lining.folds if fold.name == "bottom")
    assert bottom.start[1] == made.panel("body").folds[1].start[1] - shorter


def test_what_was_measured_in_floats_is_not_lifted_to_the_next_mark():
    """50.3 cm and a hair up to 0.1 cm is 50.3; a whole tenth more is a mark more."""
    mark, exact = given("mark", IN_PER["mm"]), F(503, 10) * IN_PER["cm"]
    assert up_to(given("chord", exact + F(1, 10**6)), mark, HAIR).value == exact
    assert up_to(given("chord", exact + F(1, 10**3)), mark, HAIR).value == exact + IN_PER["mm"]
