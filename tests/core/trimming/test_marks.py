"""Marks: measured from both edges, clear of seams, snap halves that meet."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.choosing import measure
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.trimming.acts.marking import add_mark, move_mark, set_mark
from tessil.core.trimming.choice import Mark, Snap
from tessil.core.trimming.marks import KINDS, female_below_top
from tessil.drawing.picture import Line
from tessil.drawing.pictures import View, picture_of
from tests.conftest import bag_from, flat_text, tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def _marked(kind, project=None):
    made = plan(project or tote())
    return applied(made.project, add_mark(made, made.panel("front"), kind))


@pytest.mark.parametrize("kind", KINDS)
def test_a_new_mark_lies_clear_at_its_usual_place(kind):
    made = plan(_marked(kind))
    (placed,) = made.marks_on("front")
    assert placed.label == KINDS[kind]
    assert not [snag for snag in made.snags if snag.key.startswith("mark")]


def test_a_slip_pocket_lies_2_1_2_below_the_top_and_is_centred():
    made = plan(_marked("slip"))
    (placed,) = made.marks_on("front")
    x, y, w, _ = placed.box
    covers = made.panel("front").shown["top"]
    assert y == covers + F(5, 2)
    assert abs(x + w / 2 - made.panel("front").trimmed.width.value / 2) <= F(1, 8)


def test_every_mark_is_given_from_the_edge_and_from_the_seam_line():
    made = plan(_marked("slip"))
    (placed,) = made.marks_on("front")
    edge, seam, top, top_seam = (figure.value for figure in placed.figures)
    assert edge - seam == F(3, 8)
    assert top - top_seam == made.project.binding.seam


@given(st.floats(-50, 80), st.floats(-50, 80))
def test_a_dragged_mark_snaps_to_the_ruler_and_stays_on_its_panel(x, y):
    project = _marked("slip")
    made = plan(project)
    mark = applied(project, move_mark(made, 0, x, y)).marks[0]
    width, height = made.panel("front").trimmed.values()
    for at, limit in ((mark.x, width), (mark.y, height)):
        assert 0 <= at <= limit
        assert at == limit or (at * 8).denominator == 1


@pytest.mark.parametrize(
    ("kind", "x", "y"), [("slip", 0, 3), ("slip", 10, 3), ("motif", 4, 9), ("window", 3, 13)]
)
def test_a_mark_in_a_seam_or_notch_is_a_snag_and_is_moved_clear(kind, x, y):
    project = _marked(kind)
    there = applied(project, set_mark(plan(project), 0, "", x=F(x), y=F(y)))
    snags = [snag for snag in plan(there).snags if snag.key.startswith("mark.seam")]
    assert snags
    mended = plan(applied(there, snags[0].fixes[0]))
    assert not [snag for snag in mended.snags if snag.key.startswith("mark.seam")]


def _snapped(key, **snap):
    return project_of(key, snap=Snap(used=True, **snap))


@pytest.mark.parametrize("key", ["satchel", "clutch"])
def test_the_female_half_is_where_the_flap_lands(key):
    """Common practice: flap drop, less what passes over the top edge, less the male offset."""
    made = plan(_snapped(key))
    over = made.bag.finished[2].value / 2 if key == "satchel" else 2 * made.wall.value
    below = female_below_top(made.project.snap, made.bag.flap).value
    assert below == made.sizes["flap"].value - over - F(7, 4)
    panel = made.bag.flap.female_panel
    female = next(p for p in made.marks_on(panel) if p.key == "snap:female")
    x, y, w, h = female.box
    face = next(f for look in made.looks for f in look.faces if f.panel == panel)
    in_look = float(y + h / 2) - face.source[1]
    if face.turned:
        in_look = face.source[3] - in_look
    assert in_look == pytest.approx(float(below))
    assert x + w / 2 == made.panel(panel).trimmed.width.value / 2


def test_a_thicker_bag_moves_the_female_half_up():
    thin, thick = (
        plan(_snapped("satchel").model_copy(update={"hold": _held(t)})) for t in (F(1), F(3))
    )
    assert thick.sizes["flap"].value - female_below_top(
        thick.project.snap, thick.bag.flap
    ).value > (thin.sizes["flap"].value - female_below_top(thin.project.snap, thin.bag.flap).value)


def test_a_snap_has_a_patch_of_an_inch_and_a_half_behind_each_half():
    made = plan(_snapped("satchel"))
    for panel in made.panels:
        for mark in made.marks_on(panel.key):
            if mark.kind == "snap":
                assert mark.box[2:] == (F(3, 2), F(3, 2))
    kinds = [mark.kind for panel in made.panels for mark in made.marks_on(panel.key)]
    assert kinds.count("snap") >= 2


def _held(thickness):
    hold = project_of("satchel").hold
    thing = hold.things[0].model_copy(update={"thickness": thickness})
    return hold.model_copy(update={"things": (thing,)})


@pytest.mark.parametrize("snap", [{"female": F(1, 2)}, {"offset": F(9)}])
def test_halves_that_cannot_meet_block(snap):
    project = _snapped("satchel", **snap)
    (found,) = [s for s in plan(project).snags if s.key == "mark.snap"]
    mended = plan(applied(project, found.fixes[0]))
    assert not [s for s in mended.snags if s.key == "mark.snap"]


def test_pockets_are_cut_doubled():
    made = plan(_marked("slip"))
    (item,) = [item for item in made.items if item.owner.kind == "pocket"]
    mark = made.project.marks[0]
    assert item.width.value == mark.width + 2 * F(3, 8)
    assert item.height.value == 2 * (mark.height + F(3, 8))


def test_marks_survive_their_file():

    project = tote(marks=(Mark(kind="divided", panel="front", x=F(3), y=F(4), divisions=3),))
    assert bag_from(flat_text(project)) == project
    assert len(plan(project).marks_on("front")[0].lines) == 2


@pytest.mark.parametrize(("length", "weight"), [(F(8), "blocks"), (F(23, 2), "warns")])
def test_a_short_zipper_blocks_and_stops_in_the_seam_warn(length, weight):
    base = project_of("flat-pouch")
    zipper = base.zipper.model_copy(update={"length": length})
    made = plan(base.model_copy(update={"zipper": zipper}))
    assert made.bag.zipper.spans.value == F(23, 2)
    assert [str(s.weight) for s in made.snags if s.key == "fit.zipper"] == [weight]


def test_metal_stops_in_a_seam_block():
    base = project_of("flat-pouch")
    zipper = base.zipper.model_copy(update={"length": F(23, 2), "teeth": "metal"})
    made = plan(base.model_copy(update={"zipper": zipper}))
    (snag,) = [s for s in made.snags if s.key == "fit.zipper"]
    assert snag.weight == "blocks"
    assert "never meet the needle" in snag.why


def test_birds_that_would_hang_upside_down_are_laid_turned():
    """Directional prints on a clutch: wrong on flap and front, right on the back."""
    base = project_of("clutch")
    birds = base.prints[0].model_copy(update={"directional": True})
    project = base.model_copy(update={"prints": (birds, *base.prints[1:])})
    wrong = [s for s in plan(project).snags if s.key.startswith("piece.upside-down")]
    assert wrong
    mended = applied(project, wrong[0].fixes[0])
    assert wrong[0].key not in {s.key for s in plan(mended).snags}


@pytest.mark.parametrize(
    ("sizes", "field"),
    [
        ({"width": "9 in", "height": "6 in", "flap": "7 in"}, "flap"),
        ({"width": "9 in", "height": "6 in", "depth": "1/8 in"}, "depth"),
    ],
)
def test_impossible_shapes_are_refused_beside_their_field(sizes, field):
    from tessil.core.trouble import CannotPlan

    key = "clutch" if field == "flap" else "tote"
    base = project_of(key)
    shape = base.shape.model_validate({"kind": key, "way": "finished", "sizes": sizes})
    seams = base.seams.model_copy(update={"corner": F(1, 2), "side": F(1, 4), "bottom": F(1, 4)})
    with pytest.raises(CannotPlan) as trouble:
        plan(base.model_copy(update={"shape": shape, "seams": seams}))
    assert trouble.value.field == f"shape.sizes.{field}"


def test_a_measured_leader_makes_every_follower_follow():
    for key in ("satchel", "clutch", "boxed-zip", "bound-pouch", "drawstring"):
        base = project_of(key)
        made = plan(base)
        lead = made.panel(made.shape.leader)
        width = lead.trimmed.width.value - F(1, 2)
        got = Got(width=width, height=lead.trimmed.height.value)
        after = plan(applied(base, measure(base, lead.key, "trimmed", got)))
        for match in after.bag.matches:
            if match.leader == lead.key and match.follower != "flap":
                assert after.panel(match.follower).trimmed.width.value == width, (key, match)


@pytest.mark.parametrize(
    ("wide", "warned"),
    [
        (F(14), True),  # round both ends of a front 11 wide
        (F(21, 2), True),  # to within ¼ of where the bag turns
        (F(10), False),
    ],
)
def test_a_motif_stays_on_the_front_clear_of_its_ends(wide, warned):
    """The panel is 14¾ wide, the front of the sewn bag 11 of it."""
    base = tote()
    middle = plan(base).panel("front").trimmed.width.value / 2
    motif = Mark(panel="front", kind="motif", x=middle - wide / 2, y=F(3), width=wide, height=F(4))
    made = plan(base.model_copy(update={"marks": (motif,)}))
    found = [snag for snag in made.snags if snag.key.startswith("mark.seam.front")]
    assert bool(found) is warned
    if warned:
        (snag,) = found
        assert "an end" in snag.title
        mended = plan(applied(made.project, snag.fixes[0]))
        assert not [s for s in mended.snags if s.key.startswith("mark.seam.front")]
        (mark,) = mended.project.marks
        assert abs(float(mark.width) - 10) < 1e-4


def test_creases_are_told_with_their_places_and_drawn():
    """The tote of 11 × 12 × 3: ends 1½ + ⅜ from the sides, the base's fold 12 down."""
    made = plan(tote())
    places = [
        (r.figure.label, r.figure.value)
        for r in readings(made, Stage.TRIM, "front")
        if r.key.startswith("trim.crease")
    ]
    assert places == [
        ("crease, from the top edge", F(12)),
        ("crease, from the left edge", F(15, 8)),
        ("crease, from the left edge", F(103, 8)),
    ]
    lines = picture_of(made, View(Stage.TRIM, "front")).of(Line)
    folds = [line for line in lines if line.stroke == "fold"]
    assert len(folds) >= 3
