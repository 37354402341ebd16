"""The document, its edits, catalogue, ladder and first answers."""

import pytest

from tessil.core.brief.choice import Seams
from tessil.core.catalogue import hoop, hoops, material, materials
from tessil.core.catalogue.prints import Print
from tessil.core.choices import owner_key
from tessil.core.choosing import choose, choose_alike, choose_apart, measure
from tessil.core.edits import applied, edit, path_of
from tessil.core.making.cautions import caution_for
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, Oversize
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.project import Project
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape
from tessil.core.snags import Stage
from tessil.core.starting import Answers, first_project
from tessil.core.trimming.choice import Mark
from tessil.core.trimming.squaring import squaring
from tessil.core.words.steps import told
from tests.conftest import tote, with_front

F = Fraction


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (lambda: Seams(side="0 in"), "at least 1/16"),
        (lambda: Seams(side="3 in"), "At most 2 in"),
        (lambda: Seams(side=[1]), "written as text"),
        (lambda: Seams(side=True), "written as text"),
        (lambda: Oversize(squaring="-1 in"), "below zero"),
        (lambda: Piecing(count=0), "1 to 200"),
        (lambda: Piecing(strip_cut="0 in"), "more than zero"),
        (lambda: Print(key="A b", name="x"), "pattern"),
        (lambda: Print(key="a", name="x", ground="red"), "pattern"),
        (lambda: Project(bags=0), "1 to 999"),
        (lambda: Project(name=""), "at least 1 character"),
        (lambda: Mark(kind="slip", panel="front", x="-1 in", y="0 in"), "below zero"),
    ],
)
def test_fields_refuse_what_cannot_be(make, says):
    with pytest.raises(Refused, match=says):
        make()


def test_a_project_is_frozen_and_edits_make_a_new_one():
    before = tote()
    after = applied(before, edit("Make three", ("bags", 3)))
    assert (before.bags, after.bags) == (1, 3)
    with pytest.raises(AttributeError, match="frozen"):
        before.bags = 3


def test_edits_reach_into_lists_and_maps_and_take_entries_out():
    project = tote()
    renamed = applied(project, edit("", ("prints.1.name", "Navy checks")))
    assert renamed.prints[1].name == "Navy checks"
    gone = applied(project, edit("", ("panels.lining", None)))
    assert "lining" not in gone.panels
    assert path_of("a.1.b") == ("a", 1, "b")


def test_edits_of_fields_that_do_not_exist_are_faults():
    with pytest.raises(KeyError):
        applied(tote(), edit("", ("no_such_field", 1)))
    with pytest.raises(KeyError):
        applied(tote(), edit("", ("name.deeper", 1)))


def test_the_back_shares_the_fronts_choices_until_it_has_its_own():
    project = tote()
    back = plan(project).bag.panel("back")
    assert owner_key(project, back) == "front"
    apart = applied(project, choose_apart(project, back))
    assert owner_key(apart, back) == "back"
    changed = applied(apart, choose(apart, back, "", ("quilting.gap", F(2))))
    assert changed.panels["front"].quilting.gap == F(5, 4)
    alike = applied(changed, choose_alike(back))
    assert "back" not in alike.panels


def test_forgetting_a_measurement_leaves_no_trace():
    project = tote()
    got = applied(project, measure(project, "front", "quilted", Got(width=F(15), height=F(14))))
    assert "front" in got.measured
    assert applied(got, measure(got, "front", "quilted", Got())).measured == {}


@pytest.mark.parametrize("key", SHAPES)
def test_another_shape_keeps_the_strips_and_leaves_what_was_measured(key):
    project = tote()
    got = applied(project, measure(project, "front", "pieced", Got(width=F(15), height=F(14))))
    turned = applied(got, reshape(got, SHAPES[key]))
    assert turned.shape.kind == key
    assert turned.measured == (got.measured if key == "tote" else {})
    assert turned.panels[SHAPES[key].leader].piecing.prints == ("red", "blue")
    back = applied(turned, reshape(turned, SHAPES["tote"]))
    assert back.shape == got.shape
    assert (back.panels, back.measured, back.lining) == (got.panels, got.measured, got.lining)


def test_catalogue_values_are_sound():
    for entry in materials().values():
        assert 0 < entry.pressed_mm <= entry.relaxed_mm
        assert entry.grams_per_square_metre > 0
        assert entry.width > 10 or entry.kind == "tape"
    for batting in (one for one in materials().values() if one.kind == "batting"):
        assert batting.rise_mm > 0
        assert batting.draw_mm > 0
        assert 0 < batting.along < F(2, 100)
    with pytest.raises(KeyError, match="known:"):
        material("velvet")


def test_hoops_grow_along_their_list():
    areas = [entry.width * entry.height for entry in hoops()]
    assert areas == sorted(areas)
    assert (hoop("h-6-10").width, hoop("h-6-10").height) == (6, 10)


def test_the_ladder_has_the_rungs_a_panel_lives_through():
    made = plan(tote())
    assert [r.key for r in made.ladder("front")] == [
        "pieces",
        "pieced",
        "quilted",
        "trimmed",
        "finished",
    ]
    assert [r.key for r in made.ladder("lining")] == ["pieces", "trimmed", "finished"]
    plain = plan(with_front(tote(), ("quilting.pattern", "none")))
    assert "quilted" not in [r.key for r in plain.ladder("front")]


def test_a_prediction_carries_its_range_and_a_measurement_none():
    project = tote()
    rung = next(r for r in plan(project).ladder("front") if r.key == "quilted")
    assert rung.least.width.value < rung.sizes[0].value < rung.most.width.value
    got = applied(project, measure(project, "front", "quilted", Got(width=F(15), height=F(14))))
    rung = next(r for r in plan(got).ladder("front") if r.key == "quilted")
    assert (rung.note, rung.least, rung.sizes[0].value) == ("measured", None, 15)


def test_only_one_side_may_be_measured():
    project = tote()
    got = applied(project, measure(project, "front", "quilted", Got(width=F(15))))
    front = plan(got).panel("front")
    assert front.quilted.width.value == 15
    assert front.quilted.height.value == front.expected.height.value


@pytest.mark.parametrize("stage", [s for s in Stage if s is not Stage.BRIEF])
def test_every_stage_of_work_has_its_caution(stage):
    assert caution_for(stage).endswith(".")


def test_foam_and_polyester_warn_of_the_iron():
    for key in ("sew-in-foam", "polyester-batting"):
        assert "melt" in caution_for(Stage.LAYER, (material("cotton"), material(key)))


def test_squaring_says_which_seam_to_keep_and_what_to_take_off():
    made = plan(tote())
    words = " ".join(told(squaring(made.panel("front")), made.marks.notation))
    assert "between strips 4 and 5" in words
    off = made.panel("front").cut_off
    for side in ("top", "bottom", "left", "right"):
        assert made.marks.notation.read_off(off[side].value) in words
        assert side in words
    assert " ".join(told(squaring(made.panel("lining")), made.marks.notation)) == ""


@pytest.mark.parametrize("key", SHAPES)
@pytest.mark.parametrize("units", ["inch", "metric"])
def test_three_answers_make_a_plan_for_any_shape_in_either_unit(key, units):
    answers = Answers(shape=key).changed("units", units)
    made = plan(first_project(answers))
    assert made.project.units == units
    assert all(fit.fits for fit in made.fits)


def test_metric_starts_are_round_metric_sizes():
    project = first_project(Answers().changed("units", "metric"))
    millimetre = F(5, 127)
    for value in (
        project.seams.side,
        project.seams.piecing,
        project.binding.seam,
        project.panels["front"].quilting.gap,
        project.hold.things[0].width,
    ):
        assert (value / millimetre).denominator == 1
    made = plan(project)
    cases = list(made.panel("front").trimmed.values())
    assert cases
    for value in cases:
        assert (value / millimetre).denominator == 1


def test_typed_answers_stay_when_units_change():
    answers = Answers().changed("width", F(7)).changed("units", "metric")
    assert answers.width == 7


def test_weight_is_area_times_areal_weight_of_every_layer():
    """A free panel of 10 × 10 in of cotton alone: 0.0645 m² at 140 g, from memory."""
    answers = Answers(shape="free-panel", way="whole", width=F(9), height=F(9))
    base = first_project(answers)
    bare = _with_panel(base, ("layers.plies", ()), ("quilting.pattern", "none"))
    assert float(plan(bare).weight.value) == pytest.approx(0.254 * 0.254 * 140)


def _with_panel(project, *changes):
    return applied(project, choose(project, plan(project).bag.panels[0], "", *changes))


def test_how_to_fuse_is_told_where_it_is_fused_and_not_at_every_needle():
    fleece, vinyl = material("fusible-fleece"), material("clear-vinyl")
    assert "Fuse with" in caution_for(Stage.LAYER, (fleece,))
    for stage in (Stage.EDGE, Stage.CUT):
        assert caution_for(stage, (fleece,)) == caution_for(stage)
        assert "clips" in caution_for(stage, (fleece, vinyl))  # pins mark it wherever it is sewn
