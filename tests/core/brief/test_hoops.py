"""A panel as large as the field of a hoop still goes into it; a hair more does not."""

import pytest

from tessil.core.brief.checks.shape import hoop_words
from tessil.core.catalogue import hoops
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def sized(width: Fraction, height: Fraction):
    base = project_of("hoop")
    sizes = {"panel_width": width, "panel_height": height}
    shape = base.shape.model_copy(update={"way": "panel", "sizes": sizes})
    return plan(base.model_copy(update={"shape": shape}))


@pytest.mark.parametrize("hoop", hoops(), ids=lambda hoop: hoop.key)
def test_the_panel_that_just_goes_in(hoop):
    assert hoop.name in hoop_words(sized(hoop.width, hoop.height))
    wider = hoop_words(sized(hoop.width + F(1, 8), hoop.height))
    higher = hoop_words(sized(hoop.width, hoop.height + F(1, 8)))
    assert f"{hoop.name}," not in f"{wider.rstrip('.')},"
    assert f"{hoop.name}," not in f"{higher.rstrip('.')},"


def test_other_shapes_name_no_hoop():
    assert hoop_words(plan(project_of("tote"))) == ""
