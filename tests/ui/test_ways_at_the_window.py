"""Ways of making chosen at the window: the hoop, edges one by one, the base, linings, fillings, a
front that is measured as one, the largest bag from the shelf."""

import xml.etree.ElementTree as ElementTree

import pytest
from PySide6.QtWidgets import QApplication

from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shelf.rows import Row, Shelf
from tessil.core.snags import Stage

F = Fraction


def look(hands, stage, panel=None):
    hands.window.desk.look(stage=stage, panel=panel)
    QApplication.processEvents()


def reshaped(hands, kind):
    hands.choose("shape.kind", kind)
    return hands.window.desk


def sized(hands, kind, width, height):
    """A bag of that shape, its sizes typed."""
    desk = reshaped(hands, kind)
    hands.choose("shape.way", "finished")
    for key, size in (("width", width), ("height", height)):
        hands.click(hands.field(f"shape.sizes.{key}"))
        hands.type(size)
    return desk


def test_a_pouch_goes_into_the_hoop_and_out_as_a_file(at_work, tmp_path):
    desk = sized(at_work, "flat-pouch", "5", "4")
    look(at_work, Stage.LAYER, "front")
    at_work.leaf("hoop")
    assert "not made in a hoop" in at_work.window.bench.picture.caption
    at_work.choose("panel.layers.stabiliser", "tear-away")
    assert desk.plan.hooped is not None
    at_work.choose("hooping.hoop", "h-10-16")
    assert desk.plan.hooped.cut.values() == (12, 18)
    assert "hooping" in at_work.window.bench.picture.caption
    assert "Hoops that take this panel" in at_work.window.column.caution.text()
    at_work.menu("hoopings")
    at_work.window.file_bar.line.setText(str(tmp_path / "pouch.svg"))
    at_work.click(at_work.window.file_bar.go)
    root = ElementTree.parse(tmp_path / "pouch.svg").getroot()
    assert root.get("width") == "254mm"


def test_a_hoop_that_is_too_small_is_mended_by_the_snag(at_work):
    desk = sized(at_work, "flat-pouch", "5", "4")
    look(at_work, Stage.LAYER, "front")
    at_work.leaf("hoop")
    at_work.choose("panel.layers.stabiliser", "cut-away")
    at_work.choose("hooping.hoop", "h-4-4")
    snags = [snag.key for snag in desk.plan.snags]
    assert "hoop.front" in snags
    row = next(row for row in at_work.window.snags.rows if "for the hoop" in row.head.text())
    button = row.buttons[0]
    at_work.click(button)
    assert "hoop.front" not in [snag.key for snag in desk.plan.snags]


def test_sides_are_bound_outside_and_their_strip_is_drawn(at_work):
    desk = reshaped(at_work, "flat-pouch")
    at_work.choose("shape.options.sides", "bound")
    assert desk.plan.edge_strips[0].edge.key == "sides"
    assert "seams.side" not in at_work.window.column.fields
    look(at_work, Stage.EDGE)
    assert "strips of those bound by themselves" in at_work.window.bench.picture.caption
    look(at_work, Stage.BRIEF)
    at_work.choose("zipper.set", "lapped")
    assert [strip.tape for strip in desk.plan.edge_strips] == [False, True]


def test_a_base_is_stiffened_and_marked_on_its_panels(at_work):
    desk = reshaped(at_work, "tote")
    look(at_work, Stage.TRIM, "front")
    high = desk.plan.bag.finished[1].value
    at_work.choose("base.stiffener", "sleeve")
    assert desk.plan.bag.finished[1].value > high  # it is made for what it holds
    assert "sleeve" in [item.what for item in desk.plan.items]
    assert "Base stiffener" in [mark.label for mark in desk.plan.marks_on("front")]


def test_halves_of_a_lining_become_two_panels_of_the_tray(at_work):
    desk = reshaped(at_work, "tote")
    at_work.click(at_work.field("lining_apart"))
    assert "lining-back" in [panel.key for panel in desk.plan.panels]
    look(at_work, Stage.TRIM, "lining-back")
    at_work.choose("marks.add", "slip")
    assert [mark.panel for mark in desk.project.marks][-1] == "lining-back"


def test_a_wandering_line_fills_the_panel(at_work):
    look(at_work, Stage.QUILT, "front")
    at_work.choose("panel.quilting.pattern", "meander")
    panel = at_work.window.desk.plan.panel("front")
    assert any(len(line.points) > 100 for line in panel.quilt.lines)
    assert at_work.window.bench.picture.items


def test_what_the_front_measured_the_back_follows(at_work):
    desk = sized(at_work, "bound-pouch", "9 1/4", "7 1/4")
    look(at_work, Stage.TRIM, "lower")
    cell = at_work.window.ladder.cells["assembled"]
    at_work.click(cell.box)
    at_work.type("9 x 7")
    assert desk.plan.panel("back").trimmed.values() == (9, 7)
    assert [figure.value for figure in desk.plan.bag.finished] == [9, 7]


def test_the_largest_of_each_shape_side_by_side(at_work, qtbot):
    desk, window = reshaped(at_work, "flat-pouch"), at_work.window
    name = desk.project.prints[0].name
    window.shelving.need()
    rows = (Row(id="s1", name=name, width=F(24), length=F(30)),)
    desk.attempt_shelf(Shelf(rows=rows), "Lay cloth on the shelf")
    at_work.choose("shape.way", "cloth")
    before = desk.project
    at_work.click(at_work.field("reach.compare").button)
    qtbot.waitUntil(lambda: bool(window.searches.words.get("reach.compare")), timeout=60_000)
    said = window.searches.words["reach.compare"].splitlines()
    assert len(said) > 4
    assert any(line.startswith("Zip pouch") or "pouch" in line.lower() for line in said)
    assert desk.project == before  # it only tells


@pytest.mark.parametrize("there", [True, False])
def test_the_largest_bag_from_the_shelf(at_work, qtbot, there):
    desk = reshaped(at_work, "flat-pouch")
    window = at_work.window
    cloths = {item.stock for item in desk.plan.items if not item.material}
    names = [desk.project.print_of(stock).name for stock in cloths]
    rows = tuple(
        Row(id=f"s{at}", name=name, width=F(24), length=F(30)) for at, name in enumerate(names)
    )
    window.shelving.need()  # the demo's own is there by now
    desk.attempt_shelf(Shelf(rows=rows if there else ()), "Lay cloth on the shelf")
    at_work.choose("shape.way", "cloth")
    row = at_work.field("reach.search")
    at_work.click(row.button)
    qtbot.waitUntil(lambda: bool(window.searches.words.get("reach.search")), timeout=30_000)
    said = window.searches.words["reach.search"]
    if there:
        assert said.startswith("The largest found: ")
        assert desk.project.shape.way == "finished"
    else:
        assert said == "No cloth of this bag lies on the shelf."
    assert plan(desk.project).bag.finished
