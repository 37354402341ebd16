"""What three answers begin with, in inches and in centimetres; common practice, no source."""

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.starting import Answers, first_project

F = Fraction
CM = F(100, 254)


def test_in_inches():
    made = first_project(Answers())
    front = made.panels["front"]
    assert (made.name, made.units, made.bags) == ("Tote for folder", "inch", 1)
    assert (made.shape.kind, made.shape.way) == ("tote", "object")
    thing = made.hold.things[0]
    assert (thing.name, thing.width, thing.height, thing.thickness, thing.count) == (
        "folder",
        9,
        12,
        1,
        1,
    )
    assert (made.hold.ease, made.hold.minded) == (F(1, 2), True)
    assert (made.seams.piecing, made.seams.side, made.seams.top) == (F(1, 4), F(3, 8), F(3, 8))
    assert (made.oversize.squaring, made.zipper.seam, made.zipper.shown) == (
        F(1, 4),
        F(1, 4),
        F(3, 4),
    )
    assert (front.piecing.way, front.piecing.fixed, front.piecing.count) == ("strips", "count", 6)
    assert (front.piecing.strip_cut, front.quilting.gap) == (F(5, 2), F(5, 4))
    assert [ply.margin for ply in front.layers.plies] == [F(1, 2)]
    assert front.piecing.prints == ("river", "straw", "brick", "moss", "night")
    binding = made.binding
    assert (binding.print, binding.seam, binding.cover, binding.overlap) == (
        "plum",
        F(1, 4),
        F(1, 8),
        F(5, 2),
    )
    lining = made.panels["lining"]
    assert (lining.piecing.way, lining.piecing.prints) == ("whole", ("oat",))
    assert (lining.layers.plies, lining.quilting.pattern) == ((), "none")
    assert [cloth.name for cloth in made.prints] == [
        "River waves",
        "Straw check",
        "Brick sprigs",
        "Moss dots",
        "Night leaves",
        "Plum plain",
        "Oat plain",
    ]


def test_in_centimetres_all_is_round_in_centimetres():
    made = first_project(Answers().changed("units", "metric"))
    front, thing = made.panels["front"], made.hold.things[0]
    assert (thing.width, thing.height, thing.thickness) == (23 * CM, 32 * CM, 3 * CM)
    assert made.hold.ease == CM
    assert made.seams.piecing == CM * 6 / 10
    assert {made.seams.side, made.seams.bottom, made.seams.top, made.seams.corner} == {CM}
    assert made.oversize.squaring == CM * 6 / 10
    assert (made.zipper.seam, made.zipper.shown) == (CM * 6 / 10, 2 * CM)
    assert (front.piecing.strip_cut, front.quilting.gap) == (6 * CM, 3 * CM)
    assert [ply.margin for ply in front.layers.plies] == [CM]
    binding = made.binding
    assert (binding.seam, binding.cover, binding.overlap) == (CM * 6 / 10, CM * 3 / 10, 6 * CM)


def test_sizes_that_were_typed_stay_where_the_units_change():
    typed = Answers().changed("width", F(10)).changed("units", "metric")
    assert (typed.width, typed.height) == (10, 12)
    back = Answers().changed("units", "metric").changed("units", "inch")
    assert (back.width, back.height, back.thickness) == (9, 12, 1)
    assert Answers().changed("units", "inch") == Answers()


@pytest.mark.parametrize(("name", "called"), [("  ", "Tote"), ("drum", "Tote for drum")])
def test_a_bag_is_called_by_its_shape_and_what_it_is_for(name, called):
    assert first_project(Answers(name=name)).name == called


@pytest.mark.parametrize("key", SHAPES)
def test_the_leading_panel_is_pieced_as_asked(key):
    asked = Answers(shape=key, strips=3, run="upright")
    made = plan(first_project(asked))
    piecing = made.lead.choices.piecing
    assert (piecing.count, piecing.run, made.lead.strips.number.whole) == (3, "upright", 3)
    assert ("lining" in made.project.panels) == ("lining" in SHAPES[key].uses)
    whole = plan(first_project(Answers(shape=key, way="whole")))
    assert whole.lead.only_cloth
