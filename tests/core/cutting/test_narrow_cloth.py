"""Cloth of any width is planned from or refused in a sentence; it never breaks a sum."""

from contextlib import suppress

import pytest

from tessil.core.catalogue.prints import Print
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Oversize, PanelChoices
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers
from tessil.core.trouble import CannotPlan
from tests.conftest import DEMO, load_bag, tote
from tests.outside.test_every_shape_on_paper import project_of

WIDTHS = (Fraction(1, 2), 1, Fraction(3, 2), 2, 3, 4, 6, 7, 8, 11, 12, 13, 20, 390)


@pytest.mark.parametrize("bag", ["rehearsal-satchel", "march-card-clutch", "mute-sack"])
@pytest.mark.parametrize("made", ["cloth", "webbing"])
@pytest.mark.parametrize("inner", [False, True])
def test_every_width_is_planned_or_refused(bag, made, inner):
    project = load_bag(DEMO.with_name(f"{bag}.tessil"))
    lining = "quilted-in" if inner else project.lining
    for wide in WIDTHS:
        change = edit(
            "",
            ("stock.usable_width", Fraction(wide)),
            ("strap.made", made),
            ("binding.inner", inner),
            ("lining", lining),
        )
        if wide >= 13:
            made_plan = plan(applied(project, change)).complete()
            assert all(strap.strips.whole >= 1 for strap in made_plan.edging.straps)
            continue
        with suppress(CannotPlan):
            plan(applied(project, change)).complete()


def test_a_strap_as_wide_as_the_cloth_names_the_field():
    project = load_bag(DEMO)  # its strap is cut 6 wide
    with pytest.raises(CannotPlan) as told:
        plan(applied(project, edit("", ("stock.usable_width", Fraction(6)))))
    assert told.value.field == "stock.usable_width"
    assert "too narrow" in told.value.sentence


def _to_buy(directional):
    """A free panel of one cloth, 11 × 26, from 42 wide."""
    cloth = Print(key="up", name="Up", directional=directional)
    panel = project_of("free-panel")
    sizes = {"panel_width": Fraction(11), "panel_height": Fraction(26)}
    shape = panel.shape.model_copy(
        update={"way": "panel", "sizes": sizes, "options": {"edge": "raw"}}
    )
    whole = Piecing(way="whole", prints=("up",))
    choices = PanelChoices(
        piecing=whole, layers=Layers(plies=()), quilting=Quilting(pattern="none")
    )
    project = panel.model_copy(
        update={
            "shape": shape,
            "prints": (cloth,),
            "panels": {"panel": choices},
            "oversize": Oversize(way="none"),
            "stock": panel.stock.model_copy(update={"usable_width": Fraction(42)}),
        }
    )
    return plan(project).bought[0]


def test_a_directional_panel_is_not_turned_to_save_cloth():
    """11 × 26 needs 27 to buy, in eighths of a yard, and not 13½ (common practice, no source)."""
    assert _to_buy(True).cloth.buy.value == 27
    assert _to_buy(False).cloth.buy.value == Fraction(27, 2)


def test_a_print_with_an_up_that_is_too_narrow_is_told_by_how_much_and_may_be_turned():
    """By hand: a lining 14¾ wide and 13⅞ high, of cloth 14¼ wide; upright ½ is missing."""
    project = tote()
    prints = tuple(
        entry.model_copy(update={"directional": entry.key == "oat"}) for entry in project.prints
    )
    stock = project.stock.model_copy(update={"usable_width": Fraction(57, 4)})
    made = plan(project.model_copy(update={"prints": prints, "stock": stock}))
    lining = made.panel("lining").needed
    assert (lining.width.value, lining.height.value) == (Fraction(59, 4), Fraction(111, 8))
    snag = next(one for one in made.snags if one.key == "cut.wide.oat")
    assert "only turned, and its print has an up" in snag.title
    assert snag.why == "Upright it is 14¾ in wide, ½ in more than the cloth."
    mended = plan(applied(made.project, snag.fixes[0]))
    assert "cut.wide.oat" not in {one.key for one in mended.snags}


@pytest.mark.parametrize(
    ("usable", "turned"), [(Fraction(111, 8), True), (Fraction(110, 8), False)]
)
def test_what_is_as_high_as_the_cloth_is_wide_comes_out_turned(usable, turned):
    """The lining is 14¾ wide and 13⅞ high; its print has an up."""
    project = tote()
    prints = tuple(
        entry.model_copy(update={"directional": entry.key == "oat"}) for entry in project.prints
    )
    stock = project.stock.model_copy(update={"usable_width": usable})
    made = plan(project.model_copy(update={"prints": prints, "stock": stock}))
    snag = next(one for one in made.snags if one.key == "cut.wide.oat")
    assert ("only turned" in snag.title) == turned
