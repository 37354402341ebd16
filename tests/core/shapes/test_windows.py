"""A window of vinyl or mesh: cut, bought, weighed and cautioned as what it is.

3 show above the zipper and ¼ goes into its seam: 3¼ high; cut ½ longer at the three sides that are
trimmed with the front, 10 + 2 × ½ by 3¼ + ½.  One square inch is 0.00064516 m² (exact by
definition); 400 and 150 g/m² are the catalogue's, from memory.
"""

import pytest

from tessil.core.layout.touches import laid_of
from tessil.core.making.cautions import caution_for
from tessil.core.numbers.exact import Fraction
from tessil.core.snags import Stage
from tessil.drawing.bands import trimmed_bands
from tessil.files.report import merged_rows
from tests.outside.test_every_shape_on_paper import sized

F = Fraction
SIZES = {"width": 10, "height": 8, "upper": 3}


def pouch(window, **more):
    return sized("bound-pouch", SIZES, options={"window": window}, **more)


@pytest.mark.parametrize(
    ("window", "name", "grams"), [("vinyl", "Clear vinyl", 400), ("mesh", "Bag mesh", 150)]
)
def test_a_window_is_cut_bought_and_weighed_as_what_it_is(window, name, grams):
    made = pouch(window, bags=2)
    panel = made.panel("upper")
    assert panel.panel.label == "Window"
    assert panel.trimmed.values() == (10, F(13, 4))
    assert panel.pieced.values() == (11, F(15, 4))
    assert {side: off.value for side, off in panel.cut_off.items()} == {
        "left": F(1, 2),
        "right": F(1, 2),
        "top": F(1, 2),
        "bottom": 0,
    }
    (row,) = (row for row in merged_rows(made) if row["panel"] == "Window")
    assert row["from"] == name
    assert (row["number"], row["width"], row["height"]) == (2, "11", "3¾")
    assert row["note"] == "cut longer; trim when sewn"
    (bought,) = (one for one in made.bought if one.name == name)
    assert bought.batting
    assert bought.cloth.usable == 54
    assert bought.cloth.buy.value == F(9, 2)  # one row of 3¾ and ½ for straightening, up to ⅛ yd
    strip, square = pouch("strip", bags=2), 10 * F(13, 4) * F(64516, 100000000)
    cotton = strip.panel("upper").materials[0].grams_per_square_metre
    assert strip.weight.value - made.weight.value == square * (cotton - grams)


def test_a_strip_of_cloth_is_cut_longer_too_and_of_a_print():
    made = pouch("strip")
    (row,) = (row for row in merged_rows(made) if row["panel"] == "Upper strip")
    assert (row["width"], row["height"]) == ("11", "3¾")
    assert row["from"] in [cloth.name for cloth in made.project.prints]


@pytest.mark.parametrize("window", ["vinyl", "mesh"])
def test_a_window_has_no_print_no_layers_and_no_part_in_the_layout(window):
    made = pouch(window)
    panel = made.panel("upper")
    assert [layer.role for layer in panel.layers] == ["top"]
    assert {cloth.print.key for cloth in trimmed_bands(made, panel)} == {panel.panel.made_of}
    assert laid_of(panel, "upper", False).refs == ()
    assert not panel.quilt.lines


@pytest.mark.parametrize(("window", "word"), [("vinyl", "no iron"), ("mesh", "cool")])
@pytest.mark.parametrize("stage", [Stage.LAYER, Stage.EDGE, Stage.CUT])
def test_what_melts_is_said_where_it_is_in_hand(window, word, stage):
    materials = pouch(window).panel("upper").materials
    assert word in caution_for(stage, materials)
    assert "clips" in caution_for(stage, materials)
    assert word not in caution_for(stage)
