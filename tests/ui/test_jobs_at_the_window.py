"""Several bags at the window: turned to by keys and by the list, added, copied, removed, undone."""

import json

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.snags import Stage
from tessil.files.projectfile import load
from tests.conftest import DEMO

KIT = DEMO.with_name("kit-of-four.tessil")
ALT = Qt.KeyboardModifier.AltModifier


@pytest.fixture
def kit(kit_at_work):
    return kit_at_work


def _alt(hands, key):
    QTest.keyClick(hands.window, key, ALT)
    QApplication.processEvents()


def _pick(hands, words):
    """Open the list of bags by its button and click the line that begins so."""
    switch = hands.window.switch
    hands.click(switch)
    action = next(a for a in switch.list.actions() if a.text().startswith(words))
    hands.click(switch.list, switch.list.actionGeometry(action).center())


def test_the_demo_is_the_kit_of_four(kit):
    window = kit.window
    assert window.switch.text() == "1 of 4 bags ▾"
    assert window.name.text() == "Rehearsal satchel"
    assert "Rehearsal satchel, The band's kit of four" in window.window().windowTitle()


def test_keys_go_through_the_bags_and_round(kit):
    window, names = kit.window, []
    for _ in range(4):
        names.append(window.name.text())
        _alt(kit, Qt.Key.Key_PageDown)
    assert names == ["Rehearsal satchel", "Reed pouch", "March-card clutch", "Mute sack"]
    assert window.name.text() == "Rehearsal satchel"
    _alt(kit, Qt.Key.Key_PageUp)
    assert window.name.text() == "Mute sack"
    assert window.switch.text() == "4 of 4 bags ▾"
    assert window.desk.stack.count() == 0  # looking changes nothing


def test_the_bags_of_a_file_join_the_job_and_are_cut_with_it(hands):
    window = hands.window
    window.open_demo("march-card-clutch")
    window.acts["bring-bags"].trigger()
    assert window.file_bar.isVisible()
    window.file_bar.line.setText(str(KIT.with_name("no.tessil")))
    hands.click(window.file_bar.go)
    assert "is not a file that can be opened" in window.file_bar.error.text()
    window.file_bar.line.setText(str(KIT))
    hands.click(window.file_bar.go)
    assert window.switch.text() == "2 of 5 bags ▾"
    assert window.name.text() == "Rehearsal satchel"
    assert {want.bag for lot in window.cutter.lots() for want in lot.wants} == {0, 1, 2, 3, 4}
    names = [bag.name for bag in window.desk.job.bags]
    assert names[3] == "March-card clutch 2"  # a name of its own, since one is called so
    window.acts["undo"].trigger()
    assert len(window.desk.job.bags) == 1
    assert window.name.text() == "March-card clutch"


def test_what_is_typed_is_this_bags_and_undo_goes_to_it(kit):
    window = kit.window
    _pick(kit, "2.")
    kit.click(window.bags)
    kit.type("7")
    kit.press(Qt.Key.Key_Return)
    _alt(kit, Qt.Key.Key_PageDown)
    assert window.name.text() == "March-card clutch"
    assert [bag.bags for bag in window.desk.job.bags] == [2, 7, 1, 2]
    kit.ctrl(Qt.Key.Key_Z)
    assert window.name.text() == "Reed pouch"
    assert [bag.bags for bag in window.desk.job.bags] == [2, 1, 1, 2]


def test_units_and_prints_are_shared(kit):
    window = kit.window
    window.change_units()
    _alt(kit, Qt.Key.Key_PageDown)
    assert window.desk.project.units == "metric"
    assert "cm" in window.finished.text() + window.finished.toolTip()


def test_a_bag_is_copied_removed_and_brought_back(kit):
    window = kit.window
    _pick(kit, "2.")
    _pick(kit, "Copy this bag")
    assert [bag.name for bag in window.desk.job.bags][1:3] == ["Reed pouch", "Reed pouch 2"]
    assert window.name.text() == "Reed pouch 2"
    assert window.switch.text() == "3 of 5 bags ▾"
    _pick(kit, "Remove this bag")
    assert window.switch.text() == "2 of 4 bags ▾"
    kit.ctrl(Qt.Key.Key_Z)
    assert window.name.text() == "Reed pouch 2"
    kit.ctrl(Qt.Key.Key_Z)
    assert len(window.desk.job.bags) == 4


def test_the_job_is_named_in_its_list_and_undone(kit):
    window = kit.window
    kit.click(window.switch)
    title = window.switch.title
    title.setFocus()
    title.selectAll()
    QTest.keyClicks(title, "Kit for the tour")
    assert window.desk.job.name == "Kit for the tour"
    assert "Kit for the tour" in window.window().windowTitle()
    window.switch.list.close()
    kit.ctrl(Qt.Key.Key_Z)
    assert window.desk.job.name == "The band's kit of four"
    assert window.desk.stack.count() == 1


def test_the_last_bag_stays(at_work):
    window = at_work.window
    assert window.switch.text() == "1 bag ▾"
    window.remove_bag()
    assert window.told.text() == "A job has at least one bag."
    assert len(window.desk.job.bags) == 1


def test_a_bag_is_added_by_three_answers_and_saved_with_the_others(kit, tmp_path):
    window = kit.window
    _pick(kit, "New bags begin with these seams")
    assert window.desk.job.shared.first_seams == window.desk.project.seams
    _pick(kit, "Add a bag")
    assert window.pages.currentWidget() is window.start
    assert window.start.title.text() == "One bag more"
    assert not window.start.rows["units"].isVisible()  # the job has them already
    kit.click(window.start.plan_it)
    assert window.pages.currentWidget() is not window.start
    assert len(window.desk.job.bags) == 5
    assert window.switch.text() == "2 of 5 bags ▾"
    assert window.desk.project.seams == window.desk.job.shared.first_seams
    assert window.desk.project.prints == window.desk.job.shared.prints
    path = tmp_path / "kit.tessil"
    assert window.save_to(path) == ""
    assert [bag.name for bag in load(path).bags] == [bag.name for bag in window.desk.job.bags]
    window.new_bag()
    assert window.start.rows["units"].isVisible()
    assert window.start.title.text() == "A new bag"


def test_a_bag_of_an_unknown_shape_leaves_the_others_open(at_work, tmp_path):
    window = at_work.window
    data = json.loads(KIT.read_text("utf-8"))
    for at in (0, 2):
        data["bags"][at]["shape"]["kind"] = "hammock"
    path = tmp_path / "odd.tessil"
    path.write_text(json.dumps(data), "utf-8")
    assert window.open_path(path) == ""
    assert window.name.text() == "Reed pouch"
    window.next_bag()
    assert window.name.text() == "Mute sack"
    assert window.told.text().startswith("March-card clutch: The shape “hammock” is not one")
    data["bags"] = [data["bags"][0]]
    path.write_text(json.dumps(data), "utf-8")
    assert "The shape “hammock” is not one this Tessil knows." in window.open_path(path)
    assert window.name.text() == "Mute sack"


def test_sixty_bags_are_turned_through(at_work, tmp_path):
    window = at_work.window
    data = json.loads(KIT.read_text("utf-8"))
    data["bags"] = data["bags"] * 15
    path = tmp_path / "sixty.tessil"
    path.write_text(json.dumps(data), "utf-8")
    assert window.open_path(path) == ""
    window.last_bag()
    assert window.switch.text() == "60 of 60 bags ▾"
    window.copy_bag()
    assert window.told.text() == "A job holds at most 60 bags."
    assert len({bag.log_name for bag in window.desk.job.bags}) == 60


def test_kept_work_is_the_whole_job(kit, tmp_path):
    from tessil.files import recovery

    window = kit.window
    _pick(kit, "3.")
    kit.click(window.name)
    kit.type("Clutch for marches")
    kit.press(Qt.Key.Key_Return)
    assert window.keep_work() == ""
    text = recovery._own_path().read_text("utf-8")
    assert "Clutch for marches" in text
    assert "Mute sack" in text


@pytest.mark.parametrize("stage", [Stage.PIECE, Stage.CUT])
def test_another_bag_begins_at_its_brief(kit, stage):
    window = kit.window
    window.desk.look(stage=stage)
    _alt(kit, Qt.Key.Key_PageDown)
    assert window.desk.seen.stage is Stage.BRIEF
    assert window.desk.seen.panel == window.desk.plan.shape.leader


def test_a_row_that_comes_back_shows_what_holds_and_no_half_word(kit):
    """Half a size is typed, then its row goes with another way of piecing, and comes back."""
    window = kit.window
    window.desk.look(stage=Stage.PIECE)
    field = window.column.field("panel.piecing.strip_cut")
    kit.click(field)
    kit.type("2 1/")
    kit.choose("panel.piecing.way", "whole")
    assert "panel.piecing.strip_cut" not in window.column.fields
    kit.choose("panel.piecing.way", "strips")
    assert window.column.field("panel.piecing.strip_cut") is field
    assert (field.text(), field.dirty) == ("2½", False)


def _one_of(hands, words):
    """Open the list of the bags made alike by its button and click the line that begins so."""
    one_of = hands.window.ladder.one_of
    hands.click(one_of.button)
    action = next(a for a in one_of.list.actions() if a.text().startswith(words))
    hands.click(one_of.list, one_of.list.actionGeometry(action).center())


def test_one_of_the_bags_is_measured_by_itself(kit):
    ladder = kit.window.ladder
    assert ladder.one_of.isVisible()  # the satchel is made twice
    assert ladder.one_of.button.text() == "measured: all 2 ▾"
    planned = ladder.cells["quilted"].figure.text()
    _one_of(kit, "No. 2")
    assert ladder.one_of.button.text() == "measured: no. 2 of 2 ▾"
    kit.click(ladder.cells["quilted"].box)
    kit.type("14 x 16 1/4")
    assert ladder.cells["quilted"].figure.text() == "14 × 16¼"
    _one_of(kit, "All 2")
    assert "No. 2  · measured" in [action.text() for action in ladder.one_of.list.actions()]
    assert ladder.cells["quilted"].figure.text() == planned
    assert ladder.cells["quilted"].box.text() == ""
    kit.ctrl(Qt.Key.Key_Z)  # back to the one that was measured, without its size
    assert ladder.one_of.button.text() == "measured: no. 2 of 2 ▾"
    assert ladder.cells["quilted"].figure.text() == planned


def test_a_bag_made_once_asks_for_no_single_one(kit):
    _alt(kit, Qt.Key.Key_PageDown)
    assert kit.window.desk.project.bags == 1
    assert not kit.window.ladder.one_of.isVisible()


def test_of_many_bags_one_is_asked_for_by_number(kit):
    window, one_of = kit.window, kit.window.ladder.one_of
    kit.click(window.bags)
    kit.type("40")
    kit.click(one_of.button)
    one_of.field.setFocus()
    kit.type("41")
    kit.press(Qt.Key.Key_Return)
    assert one_of.error.text() == "Give a number from 1 to 40."
    kit.type("31")
    kit.press(Qt.Key.Key_Return)
    assert one_of.error.text() == ""
    assert one_of.button.text() == "measured: no. 31 of 40 ▾"
    one_of.list.close()
    kit.click(window.bags)
    kit.type("3")
    assert one_of.button.text() == "measured: all 3 ▾"  # there is no number 31 any more
