"""Layers in order: their cut sizes by rule, what to buy of them, what is done to them."""

import pytest

from tessil.core.bag.ids import CutNote
from tessil.core.catalogue import material, to_own, with_own
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.choices import materials_of
from tessil.core.choosing import choose
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError
from tessil.core.plan import plan
from tessil.core.project import Project
from tessil.core.sandwich.acts.plying import (
    SCHOOLS,
    add_ply,
    begin_with,
    move_ply,
    remove_ply,
    schools_for,
    set_ply,
)
from tessil.core.sandwich.choice import MOST_PLIES, Layers, Offcut, Ply
from tessil.core.sandwich.offcutlist import read_offcut, write_offcut
from tessil.core.shapes import SHAPES
from tests.conftest import plies, tote, with_front
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction

KNOWN = ("inch", materials_of(Project()))


def _layer(project, ply=0):
    front = plan(project).panel("front")
    return front, next(layer for layer in front.layers if layer.ply == ply)


def test_a_margin_goes_all_round_and_as_the_top_is_as_the_top():
    front, layer = _layer(
        with_front(tote(), ("layers.plies", plies("cotton-batting", margin=F(1))))
    )
    assert layer.width.value == front.pieced.width.value + 2
    assert layer.height.value == front.pieced.height.value + 2
    front, layer = _layer(
        with_front(tote(), ("layers.plies", plies("fusible-fleece", rule="panel")))
    )
    assert (layer.width.value, layer.height.value) == front.pieced.values()


def test_inside_the_seams_it_never_reaches_them_once_it_is_drawn_in_with_the_rest():
    front, layer = _layer(
        with_front(tote(), ("layers.plies", plies("fusible-fleece", rule="inside")))
    )
    room = front.trimmed.width.value - front.shown["left"] - front.shown["right"]
    stays = 1 - front.draw.x.expected.value
    assert layer.width.value * stays <= room < (layer.width.value + F(1, 8)) * stays
    assert not layer.in_seam
    _, short = _layer(
        with_front(
            tote(),
            ("layers.plies", plies("stiff-interfacing", rule="short")),
            ("quilting.pattern", "none"),
        )
    )
    assert short.width.value == room - F(1, 4)  # ⅛ short of the seam line on both sides


def test_a_lining_quilted_in_is_the_last_layer_and_counts_in_the_stack():
    front = plan(tote(lining="quilted-in")).panel("front")
    assert [layer.label for layer in front.layers] == [
        "Top",
        "Cotton batting",
        "Lining, quilted in",
    ]
    assert front.layers[-1].width.value == front.layers[-2].width.value
    assert float(front.pressed.value * F(254, 10)) == pytest.approx(0.25 + 0.9 + 0.25)


def test_fifty_layers_are_refused_in_a_sentence():
    with pytest.raises(ValueError, match=f"More than {MOST_PLIES} layers"):
        Layers(plies=plies(*["cotton-batting"] * 50))


@pytest.mark.parametrize("thick", [0, -1])
def test_a_material_has_some_thickness(thick):
    with pytest.raises(ValueError, match="some thickness"):
        OwnMaterial(key="air", name="Air", relaxed_mm=thick)


def test_a_changed_material_changes_all_that_is_reckoned_with_it():
    thicker = to_own(material("cotton-batting")).model_copy(
        update={"pressed_mm": 2.0, "rise_mm": 1.5}
    )
    before, after = plan(tote()).panel("front"), plan(tote(materials=(thicker,))).panel("front")
    assert after.pressed.value > before.pressed.value
    assert after.draw.x.expected.value > before.draw.x.expected.value
    assert with_own((thicker,))["cotton-batting"].own
    assert not material("cotton-batting").own


def test_a_material_of_ones_own_can_be_quilted_and_bought():
    own = OwnMaterial(key="own-1", name="Wool wadding", width=F(60))
    project = with_front(tote(materials=(own,)), ("layers.plies", plies("own-1")))
    made = plan(project)
    (bought,) = [b for b in made.bought if b.batting]
    assert bought.name == "Wool wadding"
    assert bought.cloth.usable == 60


def test_what_the_catalogue_does_not_know_is_said_at_its_layer():
    from tessil.core.trouble import CannotPlan

    with pytest.raises(CannotPlan, match="not in the catalogue") as trouble:
        plan(with_front(tote(), ("layers.plies", plies("cotton-batting", "moss"))))
    assert trouble.value.field == "panels.front.layers.plies.1.material"


# -- amounts ------------------------------------------------------------------------------


def test_amounts_are_for_all_bags_off_the_rolls_own_width():
    one, six = (next(b.cloth for b in plan(tote(bags=bags)).bought if b.batting) for bags in (1, 6))
    assert one.usable == material("cotton-batting").width
    pieces = sum(n * row.times for row in six.rows for *_, n in row.pieces)
    assert pieces == 12  # front and back of six bags
    assert six.buy.value >= six.bare


@pytest.mark.parametrize("wide", [{"width": F(30), "height": F(40)}, {"width": F(40)}])
def test_a_narrow_roll_is_joined_edge_to_edge_only_if_wanted(wide):
    wide = {"height": F(30), "depth": F(3), **wide}
    base = tote(shape=tote().shape.model_copy(update={"sizes": wide}))
    apart = with_front(base, ("layers.plies", plies("narrow-fleece")))
    assert any(bought.cloth.too_long for bought in plan(apart).bought if bought.batting)
    joined = plan(with_front(base, ("layers.plies", plies("narrow-fleece", joined=True))))
    (bought,) = [b for b in joined.bought if b.batting]
    assert not bought.cloth.too_long
    item = bought.items[0]
    assert item.notes[0] == CutNote("side by side", item.each)
    front = joined.panel("front").layers[1]
    parts = [item.width.value, item.height.value]
    short = 0 if wide["width"] == 30 else 1
    assert parts[short] <= 22 < parts[short] * (item.each - 1) or item.each == 2
    parts[short] *= item.each
    assert parts == [front.width.value, front.height.value]


def test_offcuts_are_used_first_and_said():
    bare = plan(tote())
    size = bare.panel("front").layers[1]
    left = Offcut(width=size.width.value, height=size.height.value)
    made = plan(tote(offcuts=(left,)))
    (before,), (after,) = ([b for b in p.bought if b.batting] for p in (bare, made))
    assert after.cloth.bare == before.cloth.bare / 2
    assert after.cloth.buy.value <= before.cloth.buy.value
    (use,) = after.from_offcuts
    assert use.offcut == left
    assert [(one.id, one.number) for one in use.pieces] == [(after.items[0].id, 1)]
    both = plan(tote(offcuts=(left.model_copy(update={"number": 2}),)))
    (none,) = [b for b in both.bought if b.batting]
    assert none.cloth.buy.value == 0


def test_batting_is_put_together_from_offcuts_only_if_wanted():
    size = plan(tote()).panel("front").layers[1]
    half = Offcut(width=size.width.value / 2, height=size.height.value, number=4)
    apart = plan(tote(offcuts=(half,)))
    (bought,) = [b for b in apart.bought if b.batting]
    assert bought.from_offcuts == ()
    wanted = with_front(
        tote(offcuts=(half,)), ("layers.plies", plies("cotton-batting", joined=True))
    )
    (none,) = [b for b in plan(wanted).bought if b.batting]
    assert none.cloth.buy.value == 0
    parts = [(one.parts, one.number) for use in none.from_offcuts for one in use.pieces]
    assert parts == [(2, 1)] * 4


@pytest.mark.parametrize(
    ("text", "key", "size", "number"),
    [
        ("cotton batting 20 × 30 ×2", "cotton-batting", (F(20), F(30)), 2),
        ("fusible fleece, 12 1/2 x 9", "fusible-fleece", (F(25, 2), F(9)), 1),
        ("18 × 8", "cotton-batting", (F(18), F(8)), 1),
        ("sew-in foam 30cm × 20 cm", "sew-in-foam", (F(1500, 127), F(1000, 127)), 1),
    ],
)
def test_offcuts_are_read_as_makers_write_them(text, key, size, number):
    made = read_offcut(text, *KNOWN)
    assert (made.material, (made.width, made.height), made.number) == (key, size, number)
    again = read_offcut(write_offcut(made, *KNOWN), *KNOWN)
    assert (again.material, again.number) == (key, number)
    assert abs(again.width - made.width) < F(1, 100)


@pytest.mark.parametrize("text", ["velvet 3 × 4", "cotton batting", "", "20 ×"])
def test_offcuts_that_are_none_are_refused_in_a_sentence(text):
    with pytest.raises(LengthError, match=r"\.$"):
        read_offcut(text, *KNOWN)


# -- deeds ------------------------------------------------------------------------------------


def _plies(project):
    return [ply.material for ply in project.panels["front"].layers.plies]


def test_layers_are_put_in_moved_and_taken_out():
    made = plan(tote())
    front = made.panel("front")
    project = applied(tote(), add_ply(made, front, "cotton"))
    assert _plies(project) == ["cotton-batting", "cotton"]
    made = plan(project)
    project = applied(project, add_ply(made, made.panel("front"), "stiff-interfacing"))
    assert _plies(project) == ["cotton-batting", "stiff-interfacing", "cotton"]
    stiff = project.panels["front"].layers.plies[1]
    assert (stiff.rule, stiff.bond) == ("short", "fuse")
    made = plan(project)
    project = applied(project, move_ply(made, made.panel("front"), 1, -1))
    assert _plies(project) == ["stiff-interfacing", "cotton-batting", "cotton"]
    assert move_ply(made, made.panel("front"), 0, -1).changes == ()
    made = plan(project)
    assert _plies(applied(project, remove_ply(made, made.panel("front"), 0))) == [
        "cotton-batting",
        "cotton",
    ]
    changed = applied(project, set_ply(made, made.panel("front"), 1, "", bond="spray"))
    assert changed.panels["front"].layers.plies[1].bond == "spray"


@pytest.mark.parametrize("shape", SHAPES)
def test_every_school_that_is_offered_plans_for_every_shape(shape):
    made = plan(project_of(shape))
    lead = made.panel(made.shape.leader)
    offered = schools_for(made)
    assert offered
    for school in offered:
        after = plan(applied(made.project, begin_with(made, lead, school.key)))
        layers = after.panel(made.shape.leader).choices.layers
        assert [ply.material for ply in layers.plies] == list(school.materials)


@pytest.mark.parametrize(
    ("school", "from_none", "from_grid"),
    [
        *((key, "channels", "grid") for key in ("drop-in", "interlined", "quilted-in")),
        *((key, "channels", "grid") for key in ("foam", "double")),
        *((key, "none", "grid") for key in ("fleece", "hoop")),  # as it was
        *((key, "none", "none") for key in ("flip", "bought")),
    ],
)
def test_a_school_quilts_what_was_plain_or_leaves_it_or_takes_it_off(school, from_none, from_grid):
    """Common practice, no source."""
    for before, after in (("none", from_none), ("grid", from_grid)):
        made = plan(with_front(tote(), ("quilting.pattern", before)))
        begun = applied(made.project, begin_with(made, made.panel("front"), school))
        assert plan(begun).panel("front").choices.quilting.pattern == after


def test_schools_say_what_they_are():
    made = plan(tote())
    front = made.panel("front")
    inside = plan(applied(made.project, begin_with(made, front, "quilted-in")))
    assert inside.project.lining == "quilted-in"
    flipped = plan(applied(made.project, begin_with(made, front, "flip"))).panel("front")
    assert flipped.sewn_down
    assert not flipped.quilt.lines
    bought = plan(applied(made.project, begin_with(made, front, "bought"))).panel("front")
    assert bought.only_cloth
    assert bought.layers[0].material.key == "quilted-yardage"
    assert len({school.key for school in SCHOOLS}) == len(SCHOOLS)


def test_a_backing_has_its_own_cloth_if_it_is_given_one():
    project = with_front(tote(), ("layers.plies", (Ply(), Ply(material="cotton", print="blue"))))
    _, backing = _layer(project, 1)
    assert (backing.role, backing.cloth) == ("backing", "blue")
    assert any(item.stock == "blue" and item.what == "backing" for item in plan(project).items)


def test_layers_of_a_panel_that_is_alike_are_changed_for_both():
    made = plan(tote())
    change = choose(made.project, made.panel("back").panel, "", ("layers.plies", plies("cotton")))
    after = plan(applied(made.project, change))
    for key in ("front", "back"):
        assert [layer.role for layer in after.panel(key).layers] == ["top", "backing"]
    assert plan(applied(made.project, edit("", ("bags", 2)))).project.bags == 2
