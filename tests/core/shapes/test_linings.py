"""How linings go in: as a sleeve, with a false seam, in two unlike halves, pieced; the gap that is
left (common practice, no source; by hand)."""

import pytest

from tessil.core.brief.choice import Base, ShapeChoice
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import PanelChoices
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Mark
from tessil.core.trouble import CannotPlan
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
LINED = [key for key, shape in SHAPES.items() if "lining" in shape.uses]
OF_TWO = [key for key in LINED if SHAPES[key].cloths == 2]


def made_of(key, top="turned", **changes):
    options = {"top": top} if "top" in {o.key for o in SHAPES[key].options} else {}
    shape = ShapeChoice(kind=key, options=options)
    return plan(project_of(key, shape=shape, lining="drop-in", **changes))


def whats(made):
    steps = making_of(made, made.project.making)
    assert not steps.broken
    return [deed.what for deed in steps.deeds]


@pytest.mark.parametrize("key", ["sleeve", "one-piece"])
def test_as_a_sleeve_both_ends_are_sewn_before_the_sides_go_through_all(key):
    made = made_of(key, lining_in="sleeve")
    found = whats(made)
    assert made.lining_way == "sleeve"
    assert found.index("ends.sew") < found.index("ends.turn") < found.index("join.through")
    assert "line.seam-gap" not in found
    assert "turn.gap" not in found
    assert made.tucked  # no gap to leave
    joins = [deed.join for deed in making_of(made, made.project.making).deeds if deed.join]
    sewn = [join for join in joins if not join.startswith("lining")]
    assert set(sewn) == {seam.key.slug for seam in made.bag.net.seams if ":" not in seam.key.slug}


@pytest.mark.parametrize("way", ["gap", "tucked", "sleeve", "false-seam"])
@pytest.mark.parametrize("top", ["turned", "bound"])
@pytest.mark.parametrize("key", LINED)
def test_every_way_is_planned_and_made_for_every_lined_bag(key, top, way):
    made = made_of(key, top, lining_in=way)
    assert whats(made)
    if made.bag.zipper is not None:
        assert made.lining_way in ("gap", "false-seam")


@pytest.mark.parametrize("key", ["sleeve", "one-piece"])
def test_a_false_seam_is_half_an_inch_of_lining_and_holds_the_gap(key):
    bare, made = made_of(key, lining_in="gap"), made_of(key, lining_in="false-seam")
    longer = made.panel("lining").trimmed.height.value - bare.panel("lining").trimmed.height.value
    assert longer == F(1, 2)
    found = whats(made)
    assert "line.false-seam" in found
    assert "line.seam-gap" not in found
    assert found.index("line.false-seam") < found.index("gap.close")


@pytest.mark.parametrize("key", OF_TWO)
def test_halves_of_a_lining_have_their_own_cloth_and_pockets(key):
    pocket = Mark(kind="slip", panel="lining-back", x=F(2), y=F(2), width=F(3), height=F(2))
    plain = PanelChoices(
        piecing=Piecing(way="whole", prints=("oat",)),
        layers=Layers(plies=()),
        quilting=Quilting(pattern="none"),
    )
    made = made_of(key, lining_apart=True, marks=(pocket,))
    panels = {**made.project.panels, "lining-back": plain}
    made = plan(made.project.model_copy(update={"panels": panels}))
    halves = [p for p in made.panels if p.panel.kind == "lining" and p.key.startswith("lining")]
    assert [half.panel.copies for half in halves] == [1, 1]
    assert halves[0].trimmed.values() == halves[1].trimmed.values()
    assert halves[1].patches[0].print == "oat"
    assert [mark.panel for mark in made.marks_on("lining-back")] == ["lining-back"]
    items = [item for item in made.items if item.what == "lining"]
    assert {item.owner.keys[0] for item in items} >= {"lining", "lining-back"}
    assert whats(made)


def test_alike_they_are_one_panel_cut_twice():
    made = made_of("tote")
    assert made.panel("lining").panel.copies == 2
    assert "lining-back" not in [panel.key for panel in made.panels]


def test_a_lining_of_strips_is_pieced_before_it_is_trimmed():
    base = made_of("tote").project
    strips = PanelChoices(
        piecing=Piecing(way="strips"), layers=Layers(plies=()), quilting=Quilting(pattern="none")
    )
    made = plan(base.model_copy(update={"panels": {**base.panels, "lining": strips}}))
    ids = [deed.id for deed in making_of(made, made.project.making).deeds]
    first = next(at for at, id_ in enumerate(ids) if id_.startswith("piece.lining.0"))
    assert first < ids.index("trim.cut.lining")
    cut = [item for item in made.items if item.owner.keys == ("lining",)]
    assert sum(item.number.whole for item in cut) == 2 * made.panel("lining").strips.number.whole


def test_the_gap_is_never_less_than_a_base_that_does_not_fold():
    """A base 5 deep of stiff interfacing turned along its length wants 5, not 4."""
    sizes = {"width": F(11), "height": F(9), "depth": F(5)}
    shape = ShapeChoice(kind="tote", options={"top": "turned"}, sizes=sizes)
    soft = plan(project_of("tote", shape=shape))
    stiff = plan(project_of("tote", shape=shape, base=Base(stiffener="fused")))
    assert (soft.gap_least.value, stiff.gap_least.value) == (4, 5)
    small = plan(stiff.project.model_copy(update={"turning_gap": F(4)}))
    assert [snag for snag in small.snags if snag.key == "trim.gap"]


def test_all_but_two_inches_from_each_corner():
    made = made_of("flat-pouch", gap_corners=F(2))
    assert made.gap.value == made.bag.finished[0].value - 4
    with pytest.raises(CannotPlan) as trouble:
        made_of("flat-pouch", gap_corners=F(7))
    assert trouble.value.field == "gap_corners"


@pytest.mark.parametrize(
    ("kind", "wanted", "way"),
    [
        ("one-piece", "sleeve", "sleeve"),
        ("tote", "sleeve", "gap"),  # of two panels
        ("one-piece", "tucked", "tucked"),
        ("boxed-zip", "tucked", "gap"),  # closed by its zipper
        ("boxed-zip", "false-seam", "false-seam"),
        ("tote", "false-seam", "gap"),  # its lining has no fold
    ],
)
def test_a_lining_comes_in_as_it_can(kind, wanted, way):
    shape = ShapeChoice(kind=kind, options={"top": "turned"})
    assert plan(tote(shape=shape, lining_in=wanted)).lining_way == way
