"""Open bags without a base: flat, with no depth to give and no corner to box.

Hand sums: a panel W × L ends ``W − 2a`` wide and ``L − t − a'`` high (geometry).
"""

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES, shape_as
from tessil.core.shapes.base import BASE
from tests.conftest import tote

F = Fraction
OPEN = [key for key, shape in SHAPES.items() if BASE in shape.options]


def flat(key, way="panel", options=None, **sizes):
    choice = ShapeChoice(
        kind=key,
        way=way,
        options={"base": "none", **(options or {})},
        sizes={name: F(size) for name, size in sizes.items()},
    )
    return plan(tote(shape=choice))


def test_every_boxed_open_bag_may_be_flat():
    assert OPEN == ["tote", "one-piece", "satchel", "drawstring"]


@pytest.mark.parametrize(
    ("key", "options", "sizes", "finished"),
    [
        # ⅜ seams: 15 less two side seams; 14 less bottom, and the top where it is turned in
        ("tote", {"top": "bound"}, (15, 14), (F(57, 4), F(109, 8))),
        ("tote", {"top": "turned"}, (15, 14), (F(57, 4), F(53, 4))),
        # folded at the bottom: half its length, no bottom seam
        ("one-piece", {"top": "bound"}, (15, 28), (F(57, 4), F(14))),
        ("one-piece", {"top": "turned"}, (15, 28), (F(57, 4), F(109, 8))),
    ],
)
def test_by_hand(key, options, sizes, finished):
    made = flat(key, options=options, panel_width=sizes[0], panel_height=sizes[1])
    assert tuple(figure.value for figure in made.bag.finished) == finished


@pytest.mark.parametrize("key", OPEN)
def test_nothing_is_boxed_marked_or_stiffened(key):
    made = flat(key)
    assert not made.bag.boxed
    assert (made.bag.corners, made.bag.floor) == (0, None)
    assert [panel.panel.notches for panel in made.panels] == [()] * len(made.panels)
    assert not [join for join in made.bag.joins if join.kind == "corner"]
    steps = [deed.id for deed in making_of(made, Made()).deeds]
    assert not [step for step in steps if "corner" in step.split(".")[:2]]
    assert not making_of(made, Made()).broken


@pytest.mark.parametrize("key", OPEN)
def test_it_asks_for_no_depth_and_no_corner_and_holds_by_wrapping(key):
    shape = shape_as(key, "none")
    assert len(shape.finished_keys) == 2
    assert not shape.legs
    assert "corner" not in shape.uses
    held = flat(key, "object").bag
    boxed = plan(tote(shape=ShapeChoice(kind=key, way="object"))).bag
    assert held.finished[0].value > boxed.finished[0].value  # it goes round the thickness too


@pytest.mark.parametrize("key", OPEN)
def test_a_base_comes_and_goes_and_the_depth_is_kept(key):
    """What was typed for the depth is there again with the base."""
    choice = ShapeChoice(kind=key, sizes={"depth": F(4)})
    boxed = plan(tote(shape=choice))
    gone = plan(tote(shape=choice.model_copy(update={"options": {"base": "none"}})))
    assert boxed.bag.finished[2].value == 4
    assert len(gone.bag.finished) == 2
    assert gone.project.shape.sizes["depth"] == 4
