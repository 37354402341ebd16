"""Single values that many figures rest on, each against a sum by hand."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.workings import given
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.patterns import wished_families
from tessil.core.words.written import exact_text
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import KEYS, project_of, sized

F = Fraction


@pytest.mark.parametrize(("run", "angle"), [("upright", 90.0), ("level", 0.0)])
def test_channels_run_upright_or_level(run, angle):
    (one,) = wished_families(Quilting(pattern="channels", run=run, gap=F(1)))
    assert one.angle == angle
    assert one.gap.value == 1


def test_a_turning_gap_leaves_an_inch_to_either_corner():
    """A tote 11 wide: 9 leave an inch on each side; a mark more is too much."""
    made = plan(applied(tote(), edit("", ("lining", "drop-in"), ("turning_gap", F(9)))))
    assert made.bag.finished[0].value == 11
    assert not [snag for snag in made.snags if snag.key == "trim.gap"]
    made = plan(applied(tote(), edit("", ("lining", "drop-in"), ("turning_gap", F(73, 8)))))
    (snag,) = (snag for snag in made.snags if snag.key == "trim.gap")
    assert "leaves too little to stitch" in snag.title
    least = made.gap_least.value
    made = plan(applied(tote(), edit("", ("turning_gap", least))))
    assert not [snag for snag in made.snags if snag.key == "trim.gap"]
    made = plan(applied(tote(), edit("", ("turning_gap", least - F(1, 8)))))
    assert "is too small" in next(s.title for s in made.snags if s.key == "trim.gap")


def test_diagonal_strips_are_numbered_as_they_lie():
    base = project_of("free-panel")
    change = (
        ("panels.panel.piecing.way", "strips"),
        ("panels.panel.piecing.run", "diagonal"),
        ("panels.panel.piecing.angle", F(45)),
    )
    made = plan(applied(base, edit("", *change)))
    rows = [patch.row for patch in made.panel("panel").patches if patch.piece >= 0]
    assert len(rows) > 3
    assert rows == list(range(rows[0], rows[0] + len(rows)))


def test_strips_for_sets_are_so_many_a_set_times_the_sets():
    """Strips of 40 give two panels of 15¾: for front and back of three bags three sets."""
    choice = ("panels.front.piecing.strip_sets", True)
    made = plan(applied(tote(bags=3), edit("", choice)))
    items = [item for item in made.items if item.what == "strip for a set"]
    (group,) = made.sets
    assert group.sets.whole == -(-2 * 3 // group.per_set.whole)
    each = {cut.print: cut.each for cut in group.panels[0].top.cuts}
    assert {item.stock: item.number.whole for item in items} == {
        name: many * group.sets.whole for name, many in each.items()
    }


@pytest.mark.parametrize("key", KEYS)
def test_whatever_hangs_on_a_bag_is_sewn_to_its_panel(key):
    """Both ends of straps, handles and loops lie on the panel that they are said to lie on."""
    options = {"wrist": "loop", "handles": "pair"}
    sizes = {"width": 8, "height": 6 if key != "boxed-zip" else 3, "depth": 3}
    shape = project_of(key).shape
    there = {option.key: options[option.key] for option in _options(key) if option.key in options}
    made = sized(key, sizes, options={**shape.options, **there})
    for hang in made.bag.net.hangs:
        for sheet, _, (x, y) in hang.ends:
            panel = made.bag.panel(sheet)
            assert 0 <= x <= panel.width.value
            assert 0 <= y <= panel.height.value
    if there:
        assert made.bag.net.hangs


def _options(key):
    return plan(project_of(key)).shape.options


def test_a_length_in_centimetres_is_exact_to_a_hundredth_of_a_millimetre():
    """1⅜ in are 3.4925 cm, told as 3.493 (1 in is 2.54 cm by definition)."""
    figure = given("it", F(11, 8))
    assert exact_text(figure, Notation("metric")).startswith("3.493 cm")
