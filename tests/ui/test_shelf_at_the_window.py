"""The shelf through the real window: typed, searched, changed, cut from, and put back on."""

import random

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication

from tessil.core.cutting.acts.whole import plan_whole
from tessil.core.edits import edit
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import Scrap
from tessil.core.shelf.inhand import CLOTHS
from tessil.core.shelf.rows import MOST_LOOK, Row, Shelf
from tessil.core.snags import Stage
from tessil.files.projectfile import load
from tessil.files.shelffile import keep_shelf, load_shelf, shelf_path
from tessil.ui import cutsearches as cutting_module
from tests.conftest import DEMO

F = Fraction
RGB = QImage.Format.Format_RGB888


@pytest.fixture
def shelf(kit_at_work):
    """The demo's shelf, come to by its key."""
    hands = kit_at_work
    hands.ctrl(Qt.Key.Key_H)
    assert hands.window.pages.currentWidget() is hands.window.shelf_page
    return hands


def put(hands, text):
    page = hands.window.shelf_page
    page.line.setFocus()
    hands.type(text)
    hands.press(Qt.Key.Key_Return)


def test_what_is_typed_lies_on_the_shelf_and_can_be_taken_back(shelf):
    window, page = shelf.window, shelf.window.shelf_page
    assert page.table.rowCount() == 40
    put(shelf, "fq river ripple 3")
    assert page.table.rowCount() == 41
    last = window.desk.shelf.rows[-1]
    assert (last.kind, last.name, last.number) == ("fat quarter", "river ripple", 3)
    assert page.line.text() == ""
    window.acts["undo"].trigger()
    assert page.table.rowCount() == 40
    window.acts["redo"].trigger()
    assert window.desk.shelf.rows[-1] == last


def test_what_cannot_be_read_stays_typed_with_a_sentence(shelf):
    page = shelf.window.shelf_page
    put(shelf, "oat")
    assert page.line.text() == "oat"
    assert page.error.isVisible()
    assert "has no size" in page.error.text()
    assert page.table.rowCount() == 40
    put(shelf, "1/2 yd oat")
    assert not page.error.isVisible()


def test_search_sort_and_change(shelf):
    window, page = shelf.window, shelf.window.shelf_page
    shelf.click(page.sought)
    shelf.type("river drawer")
    assert page.table.rowCount() == 1
    assert page.told.text() == "1 of 40 rows have these words."
    shelf.type("")
    page.view.sortByColumn(3, Qt.SortOrder.DescendingOrder)
    first = page.table.index(0, 3)
    assert page.table.data(first) == "42"
    assert page.table.setData(first, "41")
    assert max(one.number for one in window.desk.shelf.rows) == 41
    assert not page.table.setData(page.table.index(0, 3), "many")
    assert page.error.isVisible()
    assert page.table.setData(page.table.index(0, 5), "1,20")
    assert 1.2 in [one.price for one in window.desk.shelf.rows]
    page.view.selectRow(0)
    shelf.click(page.gone)
    assert page.table.rowCount() == 39


def chips(page):
    """The rows that have a picture of their cloth."""
    shown = range(page.table.rowCount())
    role = Qt.ItemDataRole.DecorationRole
    return [row for row in shown if page.table.data(page.table.index(row, 1), role) is not None]


def test_every_cloth_is_drawn_and_nothing_else(shelf):
    page = shelf.window.shelf_page
    cloths = [at for at, row in enumerate(shelf.window.desk.shelf.rows) if row.kind in CLOTHS]
    assert chips(page) == cloths
    assert not page.side.isVisible()
    page.view.selectRow(next(at for at in range(40) if at not in cloths))
    assert not page.side.isVisible()


def test_how_a_cloth_looks_is_said_once_for_all_its_rows(shelf, qtbot, tmp_path):
    window, page = shelf.window, shelf.window.shelf_page
    put(shelf, "fq moss stars 2")
    put(shelf, "9 x 4 Moss Stars")
    assert not set(chips(page)) & {40, 41}
    page.view.selectRow(41)
    assert page.called.whole == "Moss Stars"
    motif = page.look.rows["motif"].field
    shelf.click(motif)
    row = motif.findData("stars")
    motif.setCurrentIndex(row)
    motif.activated.emit(row)
    shelf.click(page.look.ground.field)
    shelf.type("#4c6b45")
    shelf.press(Qt.Key.Key_Return)
    look = window.desk.shelf.cloth("moss stars")
    assert (look.motif, look.ground) == ("stars", "#4c6b45")
    assert {40, 41} <= set(chips(page))
    shelf.click(page.look.ground.field)
    shelf.type("green")
    shelf.press(Qt.Key.Key_Return)
    assert "six digits" in page.look.rows["ground"].error.text()
    shelf.press(Qt.Key.Key_Escape)
    path = tmp_path / "moss.png"
    noise = QImage(bytes(random.Random(1).randbytes(3 * 1400 * 1400)), 1400, 1400, 4200, RGB)
    assert noise.save(str(path))
    assert window.take_photo(path) == ""
    page.view.selectRow(0)  # the hands go on while it is read
    qtbot.waitUntil(lambda: not window.searches.running)
    assert window.desk.shelf.cloth(window.desk.shelf.rows[0].name).photo is None
    page.view.selectRow(41)
    photo = window.desk.shelf.cloth("moss stars").photo
    assert max(photo.wide, photo.high) <= 480
    assert len(photo.data) <= MOST_LOOK
    assert [index.row() for index in page.view.selectionModel().selectedRows()] == [41]
    assert page.look.rows["apart"].isVisible()
    assert not page.look.rows["ground"].isVisible()
    window.acts["undo"].trigger()
    assert window.desk.shelf.cloth("moss stars").photo is None
    page.view.clearSelection()
    assert "Choose the cloth" in window.take_photo(path)
    shelf.click(page.back)
    window.show_prints()
    basket = window.basket_page
    basket.lying.activated.emit(basket.lying.findData("moss stars"))
    new = window.desk.project.prints[-1]
    assert (new.name, new.motif, new.ground) == ("moss stars", "stars", "#4c6b45")


def test_a_demo_s_shelf_is_not_the_maker_s(shelf):
    put(shelf, "fq river ripple 3")
    shelf.window.shelving.flush()
    assert not shelf_path().exists()


def test_the_maker_s_own_shelf_is_kept_beside_all_projects(hands):
    window = hands.window
    window.open_job(load(DEMO), None)
    window.show_shelf()
    QApplication.processEvents()
    assert window.shelf_page.told.text().startswith("Nothing is on the shelf yet")
    put(hands, "1/2 yd oat plain")
    window.shelving.flush()
    assert [one.name for one in load_shelf().rows] == ["oat plain"]
    window.open_demo()
    window.show_shelf()
    assert len(window.desk.shelf.rows) == 40
    window.open_job(load(DEMO), None)
    window.show_shelf()
    assert [one.name for one in window.desk.shelf.rows] == ["oat plain"]


def test_undo_leaves_what_another_window_put_on_the_shelf(hands):
    """Written by the other between our two steps, it outlives the undo of both, also on disk."""
    window = hands.window
    window.open_job(load(DEMO), None)
    window.show_shelf()
    put(hands, "1/2 yd oat plain")
    window.shelving.flush()
    theirs = Row(id="theirs", name="their cloth")
    keep_shelf(load_shelf(), load_shelf().having(theirs))
    put(hands, "fq sea stars")
    window.shelving.flush()
    assert [one.name for one in window.desk.shelf.rows] == ["oat plain", "their cloth", "sea stars"]
    window.acts["undo"].trigger()
    window.acts["undo"].trigger()
    window.shelving.flush()
    assert load_shelf().rows == window.desk.shelf.rows == (theirs,)
    window.acts["redo"].trigger()
    assert [one.name for one in window.desk.shelf.rows] == ["their cloth", "oat plain"]


def test_five_thousand_rows_are_searched_at_the_window(shelf):
    window, page = shelf.window, shelf.window.shelf_page
    rows = tuple(
        Row(id=f"n{at}", name=f"cloth {at}", width=F(5), length=F(4)) for at in range(5000)
    )
    window.desk.attempt_shelf(Shelf(rows=rows), "Many")
    shelf.click(page.sought)
    shelf.type("4999")
    assert page.table.rowCount() == 1
    assert page.told.text() == "1 of 5000 rows have these words."


def test_the_kit_is_cut_from_the_shelf_and_what_is_left_goes_back(hands, qtbot, monkeypatch):
    monkeypatch.setattr(cutting_module, "SECONDS", 1.0)
    window = hands.window
    window.open_demo()
    window.desk.look(stage=Stage.CUT)
    QApplication.processEvents()
    hands.click(window.column.field("cutting.search").button)
    qtbot.waitUntil(lambda: window.desk.project.cutting is not None, timeout=20_000)
    spread = window.cutter.spread()
    before = window.desk.shelf.row(spread.sheet.source.partition("#")[0])
    assert before is not None
    assert before.place in window.cut_bar.source.whole
    window.bench.setFocus()
    for _ in spread.parting.cuts:
        hands.press(Qt.Key.Key_Space)
    window.cutter.turn(-window.desk.seen.sheet)
    QApplication.processEvents()
    shelf = window.desk.shelf
    hands.click(window.cut_bar.store)
    after = window.desk.shelf
    assert after.row(before.id).number == before.number - 1
    new = [one for one in after.rows if one.note == "left of a cutting"]
    assert sum(one.number for one in new) == len(spread.offcuts)
    assert not window.cut_bar.store.isEnabled()
    assert not window.cut_bar.back.isEnabled()
    window.cutter.tick(-1)
    stored = window.desk.project.cutting.sheets[0]
    assert (stored.done, stored.stays) == (len(spread.parting.cuts), True)
    assert window.cutter.put_away() == ""
    assert window.desk.shelf == after
    window.acts["undo"].trigger()
    assert window.desk.shelf == shelf
    assert window.cut_bar.store.isEnabled()


def test_what_a_plan_is_cut_from_is_kept_for_its_job(hands):
    window, desk = hands.window, hands.window.desk
    window.open_demo()
    desk.look(stage=Stage.CUT)
    window.acts["keep-cloths"].trigger()
    assert "Plan the cutting first" in window.quiet.whole
    cutter = window.cutter
    made = plan_whole(cutter.lots(), cutter.sources(), desk.plan.marks, 0.0)
    desk.attempt(edit("", ("cutting", made)))
    window.acts["keep-cloths"].trigger()
    kept = {row.id for row in desk.shelf.rows if row.kept_for == desk.job.title}
    assert kept == {s.source.partition("#")[0] for s in made.sheets if s.source} - {""}
    assert cutter.sources()
    assert cutter.advice() == []
    assert desk.rename_job("Another name") == ""
    assert cutter.advice() == []  # it is known by its own mark
    fair = {"kept_for": "The fair", "kept_by": ""}
    others = [row.model_copy(update=fair) for row in desk.shelf.rows]
    desk.attempt_shelf(desk.shelf.having(*others), "Keep")
    assert any("is kept for The fair" in said for said in cutter.advice())
    assert not [one for one in cutter.sources() if not one.id.startswith("offcut")]


def test_what_a_bag_has_in_hand_lies_on_the_shelf_and_comes_back(hands):
    """By the menu, each one step that can be taken back."""
    window, desk = hands.window, hands.window.desk
    window.open_demo("rehearsal-satchel")
    name = desk.project.prints[0].key
    scraps = (Scrap(width=F(7), height=F(9, 2), number=3, print=name),)
    desk.attempt(edit("Note scraps", ("scraps", scraps)))
    rows = window.shelving.need().rows
    hands.menu("lay-on-shelf")
    assert desk.project.scraps == ()
    new = [row for row in desk.shelf.rows if row not in rows]
    assert sum(row.number for row in new) >= len(scraps)
    hands.menu("take-from-shelf")
    assert len(desk.project.scraps) >= len(scraps)
    hands.ctrl(Qt.Key.Key_Z)
    hands.ctrl(Qt.Key.Key_Z)
    assert desk.project.scraps == scraps
    assert desk.shelf.rows == rows


def test_scraps_that_a_bag_is_pieced_of_stay_with_it(hands):
    window, desk = hands.window, hands.window.desk
    window.open_demo("reed-pouch")
    scraps = desk.project.scraps
    hands.menu("lay-on-shelf")
    assert desk.project.scraps == scraps
    assert "no scraps that it is not pieced of" in window.quiet.text()
