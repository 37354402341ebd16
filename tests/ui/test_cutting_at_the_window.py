"""The cutting of a job through the real window: planned, turned through, ticked off, taken back."""

from collections import Counter
from time import monotonic

import ezdxf
import pypdf
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.cutting.acts.byhand import partners
from tessil.core.edits import edit
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tessil.drawing.picture import Cloth, Dimension, Label, Placed
from tessil.ui import cutsearches as cutting_module
from tessil.ui import firstlaid
from tessil.ui import window as window_module
from tessil.ui.cutter import FIRST


@pytest.fixture(scope="module")
def found():
    """What the search found when it was first asked: the other tests begin with it."""
    return []


@pytest.fixture
def cutting(kit_at_work, qtbot, monkeypatch, found):
    """The kit of four at the cutting stage, its cutting planned by the button."""
    monkeypatch.setattr(cutting_module, "SECONDS", 0.5)
    hands, window = kit_at_work, kit_at_work.window
    if found:
        window.desk.attempt(edit("", ("cut_from", "new"), ("cutting", found[0])))
    window.desk.look(stage=Stage.CUT)
    QApplication.processEvents()
    if found:
        return hands
    hands.choose("cut_from", "new")
    row = window.column.field("cutting.search")
    assert row.button.text() == "Plan the cutting"
    hands.click(row.button)
    qtbot.waitUntil(lambda: window.desk.project.cutting is not None, timeout=20_000)
    QApplication.processEvents()
    found.append(window.desk.project.cutting)
    return hands


def test_the_whole_kit_is_planned_drawn_and_told(cutting):
    window = cutting.window
    found = window.cutter.spreads()
    assert {want.bag for lot in found.lots for want in lot.wants} == {0, 1, 2, 3}
    rows = {row.reading.key for row in window.column.receipt.rows}
    assert rows == {f"cutting.{one.sheet.stock}" for one in found.spreads}
    assert window.cut_bar.isVisible()
    assert window.cut_bar.cloth.whole == f"1 of 12: {found.spreads[0].lot.name}"
    picture = window.bench.picture
    (cloths,) = picture.of(Placed)
    assert sum(isinstance(one, Cloth) for one in cloths.items) == len(found.spreads[0].pieces)
    assert "no layout takes less than" in picture.caption
    assert window.column.field("cutting.search").button.text() == "Plan the cutting again"
    window.acts["undo"].trigger()
    assert window.desk.project.cutting is None
    assert window.column.field("cutting.search").button.text() == "Plan the cutting"
    assert window.column.caution.text().startswith(FIRST)


def test_cuts_are_made_from_the_keyboard_with_their_reading_in_large(cutting):
    window = cutting.window
    bar = window.cut_bar
    window.bench.setFocus()
    cutting.press(Qt.Key.Key_Return)
    assert bar.hand.isChecked()
    spread = window.cutter.spread()
    first, second = spread.parting.cuts[:2]
    read = window.desk.plan.marks.notation.read_off
    assert bar.reading.text() == read(first.reading)
    assert [one.text for one in window.bench.picture.of(Dimension)] == [read(first.reading)]
    cutting.press(Qt.Key.Key_Space)
    assert window.desk.project.cutting.sheets[0].done == 1
    assert bar.reading.text() == read(second.reading)
    assert bar.words.text().startswith(f"Cut 2 of {window.cutter.spreads().cuts}: ")
    cutting.press(Qt.Key.Key_Backspace)
    assert window.desk.project.cutting.sheets[0].done == 0
    assert not bar.back.isEnabled()
    window.acts["undo"].trigger()
    assert window.desk.project.cutting.sheets[0].done == 1


def test_forty_cuts_go_on_to_the_next_cloth(cutting):
    window = cutting.window
    found = window.cutter.spreads()
    window.bench.setFocus()
    for _ in range(40):
        cutting.press(Qt.Key.Key_Space)
    done = [one.sheet.done for one in window.cutter.spreads().spreads]
    assert sum(done) == 40
    assert done[0] == len(found.spreads[0].parting.cuts)
    assert window.desk.seen.sheet > 0
    cutting.press(Qt.Key.Key_Left)
    assert window.cutter.spread().sheet.done == len(window.cutter.spread().parting.cuts)
    assert not window.cut_bar.made.isVisible()
    assert window.cut_bar.words.text().startswith("All ")


def test_arrows_turn_to_other_cloths_and_come_round(cutting):
    window = cutting.window
    window.bench.setFocus()
    cutting.press(Qt.Key.Key_Left)
    assert window.cut_bar.cloth.whole.startswith("12 of 12: ")
    cutting.press(Qt.Key.Key_Right)
    assert window.cut_bar.cloth.whole.startswith("1 of 12: ")
    cutting.click(window.cut_bar.after)
    assert window.cut_bar.cloth.whole.startswith("2 of 12: ")
    named = [one for one in window.bench.picture.of(Label) if one.within]
    assert named


def test_other_numbers_say_that_the_plan_of_the_cuts_is_out_of_date(cutting):
    window = cutting.window
    assert "changed since" not in window.column.caution.text()
    cutting.click(cutting.field("bags"))
    cutting.type("5")
    assert "changed since the cutting was planned" in window.column.caution.text()
    window.acts["undo"].trigger()
    assert "changed since" not in window.column.caution.text()


def test_a_change_while_it_searches_stops_it(hands, qtbot, monkeypatch):
    monkeypatch.setattr(cutting_module, "SECONDS", 30.0)
    window = hands.window
    window.open_demo()
    window.desk.look(stage=Stage.CUT)
    QApplication.processEvents()
    row = window.column.field("cutting.search")
    hands.click(row.button)
    qtbot.waitUntil(lambda: window.searches.share > 0, timeout=10_000)
    assert row.button.text() == "Stop and take the best so far"
    hands.click(hands.field("bags"))
    hands.type("7")
    assert not window.searches.running
    assert "Stopped" in window.searches.words["cutting.search"]
    assert window.desk.project.cutting is None
    row = window.column.field("cutting.search")
    hands.click(row.button)
    qtbot.waitUntil(lambda: window.searches.share > 0, timeout=10_000)
    hands.click(row.button)
    qtbot.waitUntil(lambda: window.desk.project.cutting is not None, timeout=10_000)
    assert window.cutter.spreads().over == ()


def test_zippers_cord_and_thread_stand_on_their_leaf_and_on_the_copied_list(cutting):
    window = cutting.window
    cutting.leaf("wares")
    rows = {row.reading.figure.label: row.reading.figure for row in window.column.receipt.rows}
    assert rows["Zippers, 12 in"].value == 1
    assert rows["Rings, 1½ in"].value == 4
    window.acts["copy-shopping"].trigger()
    copied = QApplication.clipboard().text()
    assert "Magnetic snaps\t2\t€1.60\tfor rehearsal satchel; on the shelf: 4 × 18 mm" in copied
    assert "for reed pouch; on the shelf: 3 × navy, 1 × plum" in copied  # the one of 9 in is short
    assert "of 40 in wide" in copied
    cutting.leaf("cloth")
    assert "Zippers, 12 in" not in {row.reading.figure.label for row in window.column.receipt.rows}


def test_the_shopping_list_is_saved_as_csv(cutting, tmp_path):
    window = cutting.window
    cutting.menu("shopping")
    window.file_bar.line.setText(str(tmp_path / "to buy.csv"))
    cutting.click(window.file_bar.go)
    text = (tmp_path / "to buy.csv").read_text("utf-8")
    assert text.startswith("what,how much,comes to,for what\n")
    assert "Magnetic snaps,2,€1.60,for rehearsal satchel; on the shelf: 4 × 18 mm" in text


def test_the_cutting_sheet_is_seen_and_saved(cutting, tmp_path):
    window = cutting.window
    window.acts["cutting-sheet"].trigger()
    assert window.pages.currentWidget() is window.preview
    assert window.preview.title.text() == "Cutting sheet"
    number = len(window.preview.sheets.pages)
    assert number > 10
    cutting.click(window.preview.save)
    window.file_bar.line.setText(str(tmp_path / "cutting.pdf"))
    cutting.click(window.file_bar.go)
    assert len(pypdf.PdfReader(tmp_path / "cutting.pdf").pages) == number
    cutting.click(window.preview.back)
    window.acts["worksheet"].trigger()
    assert window.preview.title.text() == "Worksheet"


def wanted(window):
    """How often each piece is to be cut."""
    return Counter({w.key: w.number for lot in window.cutter.lots() for w in lot.wants})


def laid(spreads):
    """How often each piece lies somewhere."""
    return Counter(one.want.key for spread in spreads.spreads for one in spread.pieces)


def test_before_a_plan_is_asked_for_a_first_layout_has_every_piece(hands, qtbot):
    window = hands.window
    window.open_demo("march-card-clutch")
    hands.ctrl(Qt.Key.Key_7)
    qtbot.waitUntil(lambda: window.cutter.spreads() is not None)
    QApplication.processEvents()
    assert laid(window.cutter.spreads()) == wanted(window)
    (cloths,) = window.bench.picture.of(Placed)
    assert sum(isinstance(one, Cloth) for one in cloths.items) >= 1
    assert window.desk.project.cutting is None  # nothing is decided by looking
    assert not window.desk.stack.canUndo()
    window.desk.attempt(edit("", ("bags", 3)))
    assert wanted(window).total() > laid(window.cutter.spreads()).total()
    qtbot.waitUntil(lambda: laid(window.cutter.spreads()) == wanted(window))
    window.bench.setFocus()
    hands.press(Qt.Key.Key_Space)
    kept = window.desk.project.cutting
    assert [sheet.done for sheet in kept.sheets].count(1) == 1
    assert sum(len(sheet.laid) for sheet in kept.sheets) == wanted(window).total()
    window.acts["undo"].trigger()
    assert window.desk.project.cutting is None


def test_thousands_of_pieces_are_not_laid_unasked(hands):
    window = hands.window
    window.open_demo("rehearsal-satchel")
    window.desk.attempt(edit("", ("bags", 900)))
    hands.ctrl(Qt.Key.Key_7)
    assert window.cutter.spreads() is None
    assert "“Plan the cutting”" in window.bench.picture.caption
    window.acts["cutting-sheet"].trigger()
    assert window.quiet.text() == "Plan the cutting first, at the Cut stage."
    assert window.pages.currentWidget() is window.work


def test_a_first_layout_waits_for_a_hand_that_types_but_not_for_ever(hands, qtbot, monkeypatch):
    window = hands.window
    monkeypatch.setattr(window_module, "LATE_MS", 25)
    monkeypatch.setattr(firstlaid, "TYPED_MS", 60_000)
    window.open_demo("mute-sack")
    window.desk.look(stage=Stage.CUT)
    window.name.setFocus()
    first, told = window.cutter.first, []
    first.moved.connect(lambda: told.append(1))
    QTest.keyClicks(window.name, "ab")
    qtbot.wait(200)
    assert first.laying
    assert told == []
    monkeypatch.setattr(firstlaid, "TYPED_MOST", 0.1)  # which is over
    QTest.keyClicks(window.name, "c")  # puts it off no more
    qtbot.waitUntil(lambda: told != [] and not first.laying)
    assert window.cutter.spreads().over == ()
    later = monotonic() + 100
    first.wait()  # nothing is on its way: this letter puts nothing off
    monkeypatch.setattr(firstlaid, "monotonic", lambda: later)
    monkeypatch.setattr(firstlaid, "TYPED_MS", 60_000)
    QTest.keyClicks(window.name, "d")  # long after; the first one since
    qtbot.wait(200)
    assert first.laying
    first.hurry()
    assert not first.laying


def test_no_other_amounts_stand_there_until_the_first_layout_does(hands, qtbot):
    window = hands.window
    window.open_demo("mute-sack")
    window.desk.look(stage=Stage.CUT)
    assert window.cutter.first.laying
    assert window.column.receipt.rows == []
    qtbot.waitUntil(lambda: window.column.receipt.rows != [])
    keys = {row.reading.key for row in window.column.receipt.rows}
    assert all(key.startswith("cutting.") for key in keys)


def test_what_is_too_large_to_be_laid_is_said_and_changes_nothing(hands, qtbot, monkeypatch):
    def too_large(*_given, **_more):
        raise CannotPlan("cutting", "Too much: cut fewer bags together.")

    monkeypatch.setattr(firstlaid, "first_laid", too_large)
    monkeypatch.setattr(cutting_module, "plan_whole", too_large)
    window = hands.window
    window.open_demo("march-card-clutch")
    window.desk.look(stage=Stage.CUT)
    qtbot.waitUntil(lambda: not window.cutter.first.laying)
    assert window.cutter.spreads() is None
    hands.click(window.column.field("cutting.search").button)
    qtbot.waitUntil(lambda: not window.searches.running, timeout=10_000)
    assert window.searches.words["cutting.search"] == "Too much: cut fewer bags together."
    assert window.desk.project.cutting is None


def test_the_cutting_sheet_waits_for_nobody(hands):
    window = hands.window
    window.open_demo("mute-sack")
    window.acts["cutting-sheet"].trigger()
    assert window.preview.title.text() == "Cutting sheet"
    assert laid(window.cutter.spreads()) == wanted(window)


def test_a_cloth_that_is_kept_or_begun_stays_when_the_rest_is_planned_again(cutting, qtbot):
    window = cutting.window
    window.bench.setFocus()
    cutting.press(Qt.Key.Key_Space)
    assert not window.cut_bar.pin.isEnabled()
    assert window.cut_bar.pin.isChecked()
    cutting.press(Qt.Key.Key_Right)
    cutting.click(window.cut_bar.pin)
    first, second, *_rest = window.desk.project.cutting.sheets
    assert (first.done, second.pinned) == (1, True)
    cutting.click(cutting.field("bags"))
    cutting.type("4")
    before = window.desk.project.cutting
    cutting.click(window.column.field("cutting.search").button)
    qtbot.waitUntil(lambda: window.desk.project.cutting is not before, timeout=20_000)
    again = window.desk.project.cutting
    assert first in again.sheets
    assert second in again.sheets
    assert len(again.sheets) > len(before.sheets)
    assert "changed since" not in window.column.caution.text()


def test_a_piece_is_taken_on_the_cloth_turned_sent_and_cut_once_more(cutting):
    window, desk = cutting.window, cutting.window.desk
    row = window.cut_bar.piece
    found = window.cutter.spreads()
    at, number = next(
        (at, n)
        for at, spread in enumerate(found.spreads)
        for n, one in enumerate(spread.pieces)
        if one.want.turns and one.box.w != one.box.h and min(one.box.w, one.box.h) > 2
    )
    window.cutter.turn(at)
    QApplication.processEvents()
    assert not row.isVisible()
    cutting.click(window.bench, cutting.piece(f"laid:{number}"))
    assert row.name.isVisible()
    assert found.spreads[at].pieces[number].want.words in row.name.whole
    before = desk.project.cutting
    cutting.press(Qt.Key.Key_T)
    if desk.project.cutting is before:
        assert row.told.text()  # it does not fit so, and says so
    else:
        cutting.ctrl(Qt.Key.Key_Z)
    assert desk.project.cutting == before
    if not row.name.isVisible():
        cutting.click(window.bench, cutting.piece(f"laid:{number}"))
    assert not row.wrong.isVisible()
    window.cutter.tick(1)
    QApplication.processEvents()
    assert row.wrong.isVisible()
    assert not row.turn.isVisible()
    cutting.click(row.wrong)
    assert desk.project.cutting.wrong == (found.spreads[at].pieces[number].want.key,)
    assert row.told.text()


def test_a_piece_changes_places_with_another(cutting):
    window, desk = cutting.window, cutting.window.desk
    row, found = window.cut_bar.piece, window.cutter.spreads()
    at, number = next(
        (at, n)
        for at, spread in enumerate(found.spreads)
        for n in range(len(spread.pieces))
        if any(other.at == spread.at for other, _ in partners(found, spread, n))
    )
    window.cutter.turn(at)
    QApplication.processEvents()
    cutting.click(window.bench, cutting.piece(f"laid:{number}"))
    assert row.swap.isVisible()
    assert row.swap.itemText(0) == "Swap with…"
    before = desk.project.cutting
    row.swap.setFocus()
    cutting.press(Qt.Key.Key_Down)
    assert desk.project.cutting != before
    assert desk.stack.undoText().startswith("Swap ")
    cutting.ctrl(Qt.Key.Key_Z)
    assert desk.project.cutting == before


def test_where_one_ruler_does_not_reach_two_are_joined(cutting):
    """The usual long one has 24 inches."""
    window = cutting.window
    found = window.cutter.spreads()
    at, number, cut = next(
        (at, number, cut)
        for at, spread in enumerate(found.spreads)
        for number, cut in enumerate(spread.parting.cuts)
        if cut.reading > 24
    )
    window.cutter.turn(at)
    for _ in range(number):
        window.cutter.tick(1)
    QApplication.processEvents()
    rest = window.desk.plan.marks.notation.read_off(cut.reading - 24)
    assert f"two rulers joined: 24 and {rest}" in window.cut_bar.words.text()
    window.cutter.tick(-1)


def test_a_plan_may_be_for_fewer_settings_of_the_ruler(cutting):
    window = cutting.window
    cutting.choose("cut_for", "setups")
    assert window.desk.project.cut_for == "setups"


def test_the_cutting_goes_into_drawings(cutting, tmp_path):
    window = cutting.window
    for act, name in (("dxf", "cutting.dxf"), ("svg", "cloth.svg")):
        cutting.menu(act)
        window.file_bar.line.setText(str(tmp_path / name))
        cutting.click(window.file_bar.go)
    drawing = ezdxf.readfile(tmp_path / "cutting.dxf")
    assert len(drawing.modelspace().query("LINE")) == window.cutter.spreads().cuts
    assert "River ripple: to cut" in (tmp_path / "cloth.svg").read_text("utf-8")
