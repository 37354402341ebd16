"""Keys that others read: of figures, of snags and their leaves, of panels and their kinds.

Reports carry the keys of figures (docs/report.md); they stay when words change.
"""

import pytest

from tessil.core.edges.choice import Strap, Zipper
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.shapes import SHAPES
from tessil.core.snags import Snag, Stage, Weight
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


@pytest.mark.parametrize(
    ("key", "leaf"),
    [
        ("layer.thick.front", "bulk"),
        ("layer.needle", "bulk"),
        ("layer.melts.front", "layers"),
        ("quilt.lean.front", "draws"),
        ("quilt.wide.front", "lines"),
        ("edge.piece", "bias"),
        ("edge.bias.short", "bias"),
        ("edge.piping.seam", "piping"),
        ("edge.strap.join", "straps"),
        ("edge.strap.back", "straps"),
        ("edge.ring", "straps"),
        ("edge.slider", "straps"),
        ("edge.metal", "closing"),
        ("edge.channel", "closing"),
        ("edge.binding.narrow", "binding"),
        ("fit.zipper", "closes"),
        ("fit.width", "holds"),
        ("trim.gap", ""),
    ],
)
def test_a_snag_stands_on_the_leaf_it_is_about(key, leaf):
    assert Snag(key, Stage.EDGE, Weight.WARNS, "", "").leaf == leaf


def keys(made, stage: Stage) -> list[str]:
    return [reading.key for reading in readings(made, stage, made.shape.leader)]


def test_the_keys_of_the_brief():
    assert keys(plan(tote()), Stage.BRIEF) == [
        "finished.width",
        "finished.height",
        "finished.depth",
        "trimmed.width",
        "trimmed.height",
        "notch.side",
        "notch.bottom",
        "bag.inside-width",
        "bag.inside-height",
        "bag.inside-depth",
        "bag.opening-flat",
        "bag.depth-by-the-bottom-leg",
        "bag.height-lying-flat",
        "bag.holds-filled-as-a-box",
        "bag.wall",
        "bag.weight",
    ]


def test_the_keys_of_trimming_and_cutting():
    made = plan(tote())
    assert keys(made, Stage.TRIM) == [
        "trim.width",
        "trim.height",
        "trim.notch.side",
        "trim.notch.bottom",
        "trim.crease.1",
        "trim.crease.2",
        "trim.crease.3",
        "trim.quilted.width",
        "trim.quilted.height",
        "trim.off.left",
        "trim.off.right",
        "trim.off.top",
        "trim.off.bottom",
    ]
    assert keys(made, Stage.CUT) == ["buy.red", "buy.blue", "buy.oat", "buy.cotton-batting"]
    assert keys(made, Stage.MAKE) == []


def test_the_keys_of_straps():
    webbing = plan(project_of("satchel", strap=Strap(made="webbing", slider=True)))
    told = keys(webbing, Stage.EDGE)
    for key in (
        "strap.strap.webbing",
        "strap.strap.ring",
        "strap.strap.shortest",
        "strap.strap.longest",
    ):
        assert key in told, key
    cloth = keys(plan(project_of("satchel")), Stage.EDGE)
    assert "strap.strap.webbing" not in cloth


@pytest.mark.parametrize("key", SHAPES)
def test_the_leader_is_pieced_and_linings_are_not(key):
    bag = plan(project_of(key)).bag
    assert bag.panel(SHAPES[key].leader).kind == "outer"
    for panel in bag.panels:
        lining = panel.key == "lining" or panel.key.endswith("-lining")
        assert not lining or panel.kind == "lining", panel.key
        like = {other.key: other.kind for other in bag.panels}.get(panel.like, panel.kind)
        assert panel.kind == like


@pytest.mark.parametrize(
    ("wide", "buy"),
    [
        (4, 7),
        (5, 8),
        (6, 9),
        (7, 10),
        (8, 12),
        (11, 14),
        (13, 16),
        (15, 18),
        (17, 20),
        (21, 24),
        (25, 30),
        (31, 36),
    ],
)
def test_the_zipper_to_buy_is_the_next_there_is(wide, buy):
    """Two inches over the panel, ¾ of it in two seams of ⅜, then the next length sold (common
    practice, no source)."""
    base = project_of("flat-pouch", zipper=Zipper())
    sizes = {"width": F(wide), "height": F(5)}
    shape = base.shape.model_copy(update={"way": "finished", "sizes": sizes})
    zipper = plan(base.model_copy(update={"shape": shape})).edging.zipper
    assert zipper.length.value == wide + F(3, 4) + 2
    assert zipper.buy.value == buy
