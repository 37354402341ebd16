"""The edge stage at the window: leaves, pieces typed, fixes clicked, files written."""

import csv
import io
import xml.etree.ElementTree as ET

import pytest
from PySide6.QtCore import QPoint, Qt

from tessil.core.edits import edit
from tessil.core.numbers.exact import Fraction
from tessil.core.snags import Stage
from tessil.drawing.picture import Badge, Cloth, Label

F = Fraction
LEAVES = ("binding", "bias", "piping", "straps", "closing")


@pytest.fixture
def satchel(at_work):
    at_work.ctrl(Qt.Key.Key_6)
    return at_work


@pytest.fixture
def plain(tote_at_work):
    tote_at_work.ctrl(Qt.Key.Key_6)
    return tote_at_work


def _words(window):
    return " ".join(item.text for item in window.bench.picture.of(Label))


def _tick(hands, key):
    box = hands.field(key)
    hands.click(box, QPoint(9, box.height() // 2))


def _tell(hands, text):
    """Type a piece of cloth and press Return."""
    hands.click(hands.field("bias.add"))
    hands.type(text)
    hands.press(Qt.Key.Key_Return)
    return hands.window.column.fields["bias.add"]


def test_every_leaf_has_its_drawing_its_fields_and_figures(satchel):
    window = satchel.window
    assert LEAVES
    for leaf in LEAVES:
        satchel.leaf(leaf)
        assert window.bench.picture.items
        assert window.bench.picture.caption
        if leaf != "closing":  # this bag closes with its flap
            assert window.column.fields
            assert window.column.receipt.rows


def test_the_demo_s_pieces_give_the_piping_and_say_where_each_strip_lies(satchel):
    satchel.leaf("bias")
    window = satchel.window
    numbers = [item.text for item in window.bench.picture.of(Label) if item.text.isdigit()]
    assert {"1", "2", "3", "4", "5"} <= set(numbers)
    assert "4 joins" in _words(window)
    assert {cloth.print.key for cloth in window.bench.picture.of(Cloth)} == {"dots"}
    satchel.choose("bias.prefer", "waste")
    assert "5 joins" in _words(window)
    assert "the other way: 4 joins" in _words(window)
    satchel.ctrl(Qt.Key.Key_Z)
    assert "4 joins" in _words(window).split("the other way")[0]


def test_pieces_are_typed_left_out_and_too_little_is_a_snag_with_a_fix(plain):
    window = plain.window
    plain.leaf("piping")
    _tick(plain, "piping.on.front")
    plain.leaf("bias")
    plain.choose("bias.source", "pieces")
    _tell(plain, "5 × 5")
    _tell(plain, "0 0, 12 0, 9 7")
    assert len(window.desk.project.bias.pieces) == 2
    keys = [snag.key for snag in window.desk.plan.snags]
    assert "edge.bias" in keys
    _tell(plain, "9 × 9 ×2")
    assert len(window.desk.project.bias.pieces) == 4
    assert "edge.bias" not in [snag.key for snag in window.desk.plan.snags]
    plain.click(window.column.fields["bias.0.gone"].field)
    assert len(window.desk.project.bias.pieces) == 3


def test_a_piece_that_is_none_is_said_beside_its_field(plain):
    plain.leaf("piping")
    _tick(plain, "piping.on.front")
    plain.leaf("bias")
    plain.choose("bias.source", "pieces")
    before = plain.window.desk.plan
    for text, words in (
        ("0 0, 4 0, 8 0", "line"),
        ("0 0, 8 8, 8 0, 0 6", "crosses"),
        ("0 0, 4", "two numbers"),
        ("0 × 5", ""),
    ):
        row = _tell(plain, text)
        assert words in row.error.text()
        assert row.error.text().endswith(".")
        assert row.field.text() == text
        assert plain.window.desk.plan is before
        plain.press(Qt.Key.Key_Escape)


def test_a_cord_that_is_none_is_refused_beside_its_field(plain):
    plain.leaf("piping")
    _tick(plain, "piping.on.front")
    before = plain.window.desk.plan.edging.piping.strip.value
    for field, text in (("piping.cord", "0"), ("piping.overlap", "-1"), ("piping.around", "0")):
        plain.click(plain.field(field))
        plain.type(text)
        plain.press(Qt.Key.Key_Return)
        row = plain.window.column.fields[field]
        assert row.error.text().endswith(".")
        assert row.field.text() == text
        assert plain.window.desk.plan.edging.piping.strip.value == before
        plain.press(Qt.Key.Key_Escape)


def test_a_binding_of_two_metres_cannot_be_cut_from_the_cloth(plain):
    plain.click(plain.field("binding.cut"))
    plain.type("78 3/4")
    plain.press(Qt.Key.Key_Return)
    row = plain.window.column.fields["binding.cut"]
    assert row.error.text().endswith(".")
    assert row.field.text() == "78 3/4"
    assert plain.window.desk.plan.binding.cut.value < 20  # what it was before the last key


def test_a_binding_of_a_millimetre_is_a_snag_mended_by_its_fix(plain):
    plain.click(plain.field("binding.cut"))
    plain.type("1 mm")
    plain.press(Qt.Key.Key_Return)
    window = plain.window
    assert window.desk.plan.binding.cut.value == F(5, 127)
    assert "edge.narrow" in [snag.key for snag in window.desk.plan.snags]
    plain.press(Qt.Key.Key_F8)
    plain.press(Qt.Key.Key_Space)
    assert window.desk.project.binding.cut is None
    plain.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.binding.cut == F(5, 127)


def test_a_tube_shows_its_marking_and_one_square_is_cut(plain):
    plain.leaf("binding")
    plain.choose("binding.grain", "bias")
    plain.leaf("bias")
    plain.choose("bias.source", "tube")
    window = plain.window
    assert "cut on its diagonal" in _words(window)
    assert "tube" in window.bench.picture.caption
    (item,) = [i for i in window.desk.plan.items if i.owner.kind == "bias"]
    assert item.width.value == item.height.value


def test_piping_goes_in_and_a_wrong_allowance_is_mended_by_its_fix(plain):
    window = plain.window
    plain.leaf("piping")
    assert window.desk.plan.edging.piping is None
    _tick(plain, "piping.on.front")
    assert window.desk.plan.edging.piping.strip.value == F(9, 8)
    plain.click(plain.field("piping.allowance"))
    plain.type("1/2")
    plain.press(Qt.Key.Key_Return)
    plain.ctrl(Qt.Key.Key_1)
    plain.press(Qt.Key.Key_F8)
    assert (window.desk.seen.stage, window.desk.seen.leaf[Stage.EDGE]) == (Stage.EDGE, "piping")
    assert window.bench.picture.of(Badge)
    plain.press(Qt.Key.Key_Space)
    assert window.desk.plan.snags == ()
    assert window.desk.project.piping.allowance is None


def test_a_cord_is_chosen_from_the_list_or_measured(plain):
    window = plain.window
    plain.leaf("piping")
    _tick(plain, "piping.on.front")
    assert plain.field("piping.usual").currentText() == "2.5 mm"
    plain.choose("piping.usual", "6 mm")
    assert window.desk.plan.edging.piping.strip.value == F(3, 2)  # 0.742 + ¾, up to ⅛
    plain.click(plain.field("piping.around"))
    plain.type("1 1/2")
    plain.press(Qt.Key.Key_Return)
    assert window.desk.plan.edging.piping.strip.value == F(9, 4)
    plain.choose("piping.usual", "3 mm")
    assert window.desk.project.piping.around is None


def test_a_strap_that_is_to_slide_hangs_on_rings(satchel):
    desk = satchel.window.desk
    satchel.leaf("straps")
    if desk.project.strap.slider:
        satchel.click(satchel.field("strap.slider"))
    sewn = {**desk.project.shape.options, "strap_ends": "sides"}
    assert desk.attempt(edit("", ("shape.options", sewn))) == ""
    satchel.click(satchel.field("strap.slider"))
    assert desk.project.strap.slider
    assert desk.project.shape.options["strap_ends"] == "rings"
    assert not [snag for snag in desk.plan.snags if snag.key.startswith("edge.slider")]
    assert any(part.label == "Ring tabs" for part in desk.plan.bag.attachments)


def test_how_it_is_carried_sets_the_strap_and_a_narrow_ring_is_a_snag(satchel):
    window = satchel.window
    satchel.leaf("straps")
    satchel.choose("strap.carried", "child")
    assert window.desk.project.shape.sizes["strap_length"] == 35
    assert "35" in _words(window) or any(
        "35" in item.text for item in window.bench.picture.items if hasattr(item, "text")
    )
    satchel.click(satchel.field("strap.ring"))
    satchel.type("1")
    satchel.press(Qt.Key.Key_Return)
    assert any(snag.key == "edge.ring.strap" for snag in window.desk.plan.snags)
    assert window.bench.picture.of(Badge)
    satchel.choose("strap.made", "webbing")
    assert "strap.interfaced" not in window.column.fields


@pytest.mark.parametrize(("text", "sets"), [("22", True), ("-3", False), ("low", False)])
def test_a_strap_is_typed_by_where_the_bag_hangs(satchel, text, sets):
    window = satchel.window
    satchel.leaf("straps")
    before = window.desk.project.shape.sizes.get("strap_length")
    satchel.click(satchel.field("strap.hang"))
    satchel.type(text)
    satchel.press(Qt.Key.Key_Return)
    after = window.desk.project.shape.sizes.get("strap_length")
    assert (after != before) is sets
    if not sets:
        assert window.column.fields["strap.hang"].error.text().endswith(".")


def test_a_button_is_asked_for_and_its_steps_are_said(satchel):
    satchel.leaf("closing")
    _tick(satchel, "button.used")
    keys = [row.reading.key for row in satchel.window.column.receipt.rows]
    assert "loop.cut" in keys
    assert "loop" in satchel.window.column.caution.text()


def test_a_metal_zipper_gets_tabs_by_its_fix(at_work):
    hands = at_work
    hands.menu("demo-pouch")
    window = hands.window
    hands.ctrl(Qt.Key.Key_6)
    hands.leaf("closing")
    hands.choose("zipper.teeth", "metal")
    hands.leaf("binding")
    hands.press(Qt.Key.Key_F8)
    assert window.desk.seen.leaf[Stage.EDGE] == "closing"
    hands.press(Qt.Key.Key_Space)
    assert window.desk.project.zipper.ends == "tabs"
    assert not any(snag.key == "edge.metal" for snag in window.desk.plan.snags)


def test_foam_in_the_layers_widens_the_binding_at_the_window(plain):
    window = plain.window
    before = window.desk.plan.binding.cut.value
    plain.ctrl(Qt.Key.Key_3)
    row = next(key for key in window.column.fields if key.endswith("material"))
    plain.choose(row, "sew-in-foam")
    plain.ctrl(Qt.Key.Key_6)
    assert window.desk.plan.binding.cut.value > before


def test_strips_go_to_a_csv_and_the_bias_map_to_an_svg(satchel, tmp_path):
    window = satchel.window
    satchel.leaf("bias")
    satchel.menu("strips")
    path = tmp_path / "strips.csv"
    satchel.click(window.file_bar.line)
    satchel.type(str(path))
    satchel.press(Qt.Key.Key_Return)
    rows = list(csv.DictReader(io.StringIO(path.read_text("utf-8"))))
    assert [row["for"] for row in rows].count("piping") == 5
    assert {row["angle"] for row in rows} >= {"0", "45"}
    satchel.ctrl(Qt.Key.Key_E)
    drawn = tmp_path / "map.svg"
    satchel.click(window.file_bar.line)
    satchel.type(str(drawn))
    satchel.press(Qt.Key.Key_Return)
    root = ET.fromstring(drawn.read_text("utf-8"))
    assert root.tag.endswith("svg")
    assert "joined" in drawn.read_text("utf-8")


def test_piping_along_some_sides_is_chosen_and_shown(satchel):
    window = satchel.window
    satchel.leaf("piping")
    satchel.click(satchel.field("piping.on.front"))
    satchel.choose("piping.sides", "left right")
    assert window.desk.project.piping.sides == ("left", "right")
    assert {run.edge.side for run in window.desk.plan.edging.piping.runs} == {"left", "right"}
    assert satchel.field("piping.sides").currentText() == "the sides"
    assert "piping.overlap" not in window.column.fields  # its ends go into the seams across


def test_a_snag_of_the_straps_is_not_drawn_where_a_panel_would_lie(satchel):
    window = satchel.window
    assert window.desk.attempt(edit("", ("shape.sizes.strap_length", Fraction(20)))) == ""
    row = next(row for row in window.snags.rows if row.snag.key == "edge.strap")
    satchel.click(row.head)
    assert window.desk.seen.leaf[Stage.EDGE] == "straps"
    items = window.bench.picture.items
    assert [item.number for item in items if isinstance(item, Badge)] == [1]
    assert not [item for item in items if getattr(item, "picked", False)]
