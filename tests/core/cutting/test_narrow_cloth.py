"""Cloth of any width is planned from or refused in a sentence; it never breaks a sum."""

from contextlib import suppress

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import DEMO, load_bag

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
            made_plan = plan(applied(project, change))
            assert all(strap.strips.whole >= 1 for strap in made_plan.edging.straps)
            continue
        with suppress(CannotPlan):
            plan(applied(project, change))


def test_a_strap_as_wide_as_the_cloth_names_the_field():
    project = load_bag(DEMO)  # its strap is cut 6 wide
    with pytest.raises(CannotPlan) as told:
        plan(applied(project, edit("", ("stock.usable_width", Fraction(6)))))
    assert told.value.field == "stock.usable_width"
    assert "too narrow" in told.value.sentence
