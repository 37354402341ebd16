"""What lies under a binding: every wall that is bound there, and the zipper that ends in it."""

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.sewn.stacks import meeting, walls_bound
from tests.conftest import plies, tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


@pytest.mark.parametrize(
    ("key", "options", "walls"),
    [
        ("tote", {"top": "bound"}, 1),
        ("bound-pouch", {}, 2),
        ("free-panel", {"edge": "bound"}, 1),
        ("satchel", {"top": "bound"}, 2),  # the flap goes into the back's binding
        ("satchel", {"top": "turned"}, 1),
    ],
)
def test_walls_under_a_binding(key, options, walls):
    made = plan(applied(project_of(key), edit("", ("shape.options", options))))
    assert walls_bound(made.bag.net) == walls


def test_a_bound_pouch_of_two_quilted_cotton_walls_takes_two_and_a_quarter():
    """At a ¼ seam: 2¼ and not 2 (common practice, no source)."""
    project = project_of("bound-pouch", lining="quilted-in")
    layers = project.panels["lower"].layers.model_copy(update={"plies": plies("cotton-batting")})
    lower = project.panels["lower"].model_copy(update={"layers": layers})
    made = plan(project.model_copy(update={"panels": {**project.panels, "lower": lower}}))
    assert made.project.binding.seam == F(1, 4)
    assert made.binding.cut.value == F(9, 4)


def test_front_back_and_zipper_lie_under_the_side_of_a_bound_pouch():
    made = plan(project_of("bound-pouch"))
    met = meeting(made.bag.net)
    assert set(met["back", EdgeKey("right")]) == {"upper", "zipper", "lower"}
    assert met["lower", EdgeKey("left")] == ("back",)
    (side,) = [s for s in made.spots_on("back") if s.key == "back.edge.right"]
    (bottom,) = [s for s in made.spots_on("back") if s.key == "back.edge.bottom"]
    assert side.layers == bottom.layers + 1  # the tape
    one = plan(tote())
    (top,) = [s for s in one.spots_on("front") if s.key == "front.edge.top"]
    assert side.layers > top.layers


def test_the_flap_lies_in_the_seam_of_the_back_alone():
    made = plan(project_of("satchel"))
    tops = {
        panel: next(s for s in made.spots_on(panel) if s.key == f"{panel}.edge.top")
        for panel in ("front", "back")
    }
    assert tops["back"].layers > tops["front"].layers
    assert "flap" in tops["back"].panels
