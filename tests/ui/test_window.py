"""The window as makers use it: fields, stages, panels, undo, files, safety."""

from time import monotonic

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLineEdit

from tessil.core import plan as planning
from tessil.core.choosing import measure
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.project import MOST_BAGS
from tessil.core.snags import Stage
from tessil.drawing.picture import Badge
from tessil.files import recovery
from tessil.ui.actions import ACTIONS
from tessil.ui.stages import specs
from tessil.ui.window import Window
from tests.conftest import load_bag, save_bag, tote

F = Fraction


@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)])
def test_every_stage_fits_its_window(at_work, qtbot, size):
    window, column = at_work.window, at_work.window.column
    window.resize(*size)
    for stage in Stage:
        window.desk.look(stage=stage)
        qtbot.waitUntil(lambda: not window.cutter.first.laying)
        QApplication.processEvents()
        assert (window.width(), window.height()) == size
        room = column.scrolled.viewport().width()
        for row in column.fields.values():
            assert row.mapTo(column.scrolled.viewport(), QPoint(row.width(), 0)).x() <= room
            assert row.field.width() > 80 or isinstance(row.field, QAbstractButton)
        assert window.bench.height() >= 240
        for cell in window.ladder.cells.values():
            assert cell.figure.sizeHint().width() <= cell.width() + 2, cell.key


def test_everything_that_can_be_used_has_a_name(at_work):
    window = at_work.window
    cases = list(Stage)
    assert cases
    for stage in cases:
        window.desk.look(stage=stage)
        QApplication.processEvents()
        for kind in (QAbstractButton, QLineEdit, QComboBox):
            for widget in window.work.findChildren(kind):
                if widget.isVisible() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
                    assert widget.accessibleName() or getattr(widget, "text", str)(), widget


def test_control_and_a_number_turn_to_a_stage(at_work):
    cases = list(enumerate(Stage, start=1))
    assert cases
    for number, stage in cases:
        at_work.ctrl(getattr(Qt.Key, f"Key_{number}"))
        assert at_work.window.desk.seen.stage is stage
        assert at_work.window.selvage.dots[stage].isChecked()


def test_control_tab_goes_through_the_panels(at_work):
    seen = []
    for _ in range(6):
        seen.append(at_work.window.desk.seen.panel)
        at_work.window.acts["next-panel"].trigger()
    assert seen == ["front", "back", "lining", "flap", "flap-lining", "front"]


def test_every_action_has_its_method_and_no_shortcut_is_taken_twice(window):
    keys = [key for row in ACTIONS for key in row.keys]
    assert len(keys) == len(set(keys))
    for row in ACTIONS:
        assert callable(getattr(window, row.does))


def _bad(at_work, key, text):
    window = at_work.window
    before, field = window.desk.plan, at_work.field(key)
    undo = window.desk.stack.undoText()
    at_work.click(field)
    at_work.type(text)
    at_work.press(Qt.Key.Key_Return)
    assert window.desk.plan.project == before.project, "the last good plan stays"
    assert window.desk.stack.undoText() == undo
    assert field.text() == text, "nothing typed is lost"
    return window.column.fields[key].error


BAD = [
    ("hold.things.0.width", "", "missing"),
    ("hold.things.0.width", "abc", "number is missing"),
    ("hold.things.0.width", "1/0", "divided by zero"),
    ("hold.things.0.width", "12 1/2 cm", "write 12.5 cm"),
    ("hold.things.0.width", "0", "more than zero"),
    ("hold.things.0.width", "-3", "more than zero"),
    ("hold.things.0.width", "11 m", "longer than 10 m"),
    ("hold.ease", "-1/4", "below zero"),
    ("hold.ease", "40", "At most"),
    ("seams.side", "0", "at least 1/16"),
    ("hold.things.0.count", "1.5", "whole number"),
    ("hold.things.0.count", "0", "At least 1 goes here."),
    ("hold.things.0.name", "  ", "name is missing"),
]


@pytest.fixture
def late():
    """What follows a hand that types comes after the bench, as for a maker."""


def test_the_bench_follows_each_letter_and_all_else_the_hand(late, at_work, qtbot):
    window = at_work.window
    field = at_work.field("hold.things.0.width")
    qtbot.waitUntil(lambda: not window.late.waits)
    at_work.click(field)
    before, finished, kept = window.bench.picture, window.finished.text(), field.text()
    field.selectAll()
    QTest.keyClicks(field, "7")
    assert window.desk.project.hold.things[0].width == 7
    assert window.bench.picture is not before  # at once
    assert window.finished.text() == finished  # not yet
    qtbot.waitUntil(lambda: window.finished.text() != finished)
    assert field.text() == "7"
    at_work.press(Qt.Key.Key_Escape)
    assert field.text() == kept  # what stood there when the hands came
    assert window.finished.text() == finished  # given back at once, all of it


def test_flags_stay_where_they_are_between_two_letters(late, at_work, qtbot, monkeypatch):
    window, looked = at_work.window, []
    find = planning.find_snags
    small = measure(
        window.desk.project, "front", "quilted", Got(width=Fraction(13), height=Fraction(14))
    )
    assert window.desk.attempt(small) == ""
    window.desk.look(stage=Stage.TRIM, panel="front")
    qtbot.waitUntil(lambda: not window.late.waits)
    numbers = [flag.number for flag in window.bench.picture.of(Badge)]
    assert numbers == [1, 2]  # too small each way
    monkeypatch.setattr(planning, "find_snags", lambda *a: looked.append(1) or find(*a))
    field = at_work.field("snap.offset")
    at_work.click(field)
    before = window.bench.picture
    field.selectAll()
    QTest.keyClicks(field, "2")
    assert window.desk.project.snap.offset == 2
    assert window.bench.picture is not before
    assert [flag.number for flag in window.bench.picture.of(Badge)] == numbers
    assert looked == []
    qtbot.waitUntil(lambda: looked == [1])
    assert [flag.number for flag in window.bench.picture.of(Badge)] == numbers
    window.undo()  # the snap's place
    window.undo()  # what was measured
    assert window.bench.picture.of(Badge) == []


def test_all_else_waits_for_no_hand_for_long(late, at_work, qtbot):
    window = at_work.window
    field = at_work.field("hold.things.0.width")
    at_work.click(field)
    finished, begun = window.finished.text(), monotonic()
    while window.finished.text() == finished and monotonic() - begun < 5:
        field.selectAll()
        QTest.keyClicks(field, "7" if field.text() == "6" else "6")
        QApplication.processEvents()
    assert window.finished.text() != finished


def test_bad_input_gets_a_sentence_beside_its_field(at_work):
    for key, text, says in BAD:
        error = _bad(at_work, key, text)
        assert says in error.text()
        assert error.isVisible()
        at_work.press(Qt.Key.Key_Escape)
        assert not error.isVisible()
        assert at_work.field(key).text() not in ("", text)


def test_bags_out_of_reason(at_work):
    window = at_work.window
    for text, says in (("0", MOST_BAGS), ("10000", MOST_BAGS), ("-2", MOST_BAGS), ("two", "whole")):
        at_work.click(window.bags)
        at_work.type(text)
        at_work.press(Qt.Key.Key_Return)
        assert window.desk.project.bags == 2
        assert str(says) in window.told.text()
        at_work.press(Qt.Key.Key_Escape)
        assert window.bags.text() == "2"


def test_five_hundred_strips_and_strips_that_vanish(at_work):
    at_work.ctrl(Qt.Key.Key_2)
    at_work.choose("panel.piecing.fixed", "count")
    assert "1 to 200" in _bad(at_work, "panel.piecing.count", "500").text()
    assert "at most" in _bad(at_work, "panel.piecing.count", "150").text()


def test_a_notch_larger_than_the_panel(at_work):
    chooser = at_work.field("shape.way")
    chooser.setFocus()
    chooser.setCurrentIndex(chooser.findData("panel"))
    chooser.activated.emit(chooser.currentIndex())
    QApplication.processEvents()
    assert "no base" in _bad(at_work, "shape.sizes.notch_side", "9").text()


def test_a_measured_size_that_makes_no_sense(at_work):
    window = at_work.window
    cell = window.ladder.cells["trimmed"]
    at_work.click(cell.box)
    for text, says in (("12", "width × height"), ("0 x 3", "more than zero"), ("3 x 3", "no bag")):
        at_work.type(text)
        at_work.press(Qt.Key.Key_Return)
        assert says in cell.error.text()
        assert cell.box.text() == text
    assert window.desk.project.measured == {}


def test_typing_is_live_and_one_undo_step(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_4)
    field = at_work.field("panel.quilting.gap")
    at_work.click(field)
    before = len(window.desk.plan.panel("front").quilt.lines)
    at_work.type("3/4")
    assert len(window.desk.plan.panel("front").quilt.lines) > before
    assert window.desk.stack.count() == 1
    window.acts["undo"].trigger()
    assert len(window.desk.plan.panel("front").quilt.lines) == before
    window.acts["redo"].trigger()
    assert window.desk.project.panels["front"].quilting.gap == F(3, 4)


def test_arrows_step_by_the_ruler_mark(at_work):
    at_work.ctrl(Qt.Key.Key_4)
    field = at_work.field("panel.quilting.gap")
    at_work.click(field)
    at_work.press(Qt.Key.Key_Up)
    assert at_work.window.desk.project.panels["front"].quilting.gap == F(13, 8)
    assert field.text() == "1⅝"
    at_work.press(Qt.Key.Key_Down)
    at_work.press(Qt.Key.Key_Down)
    assert field.text() == "1⅜"


def test_units_change_live_and_nothing_is_rounded(at_work):
    window = at_work.window
    widths = [panel.trimmed.width.value for panel in window.desk.plan.panels]
    at_work.click(window.units_button)
    assert window.desk.project.units == "metric"
    assert at_work.field("hold.things.0.width").text() == "23 cm"
    assert "cm" in window.finished.text()
    at_work.click(window.units_button)
    assert [panel.trimmed.width.value for panel in window.desk.plan.panels] == widths


def test_a_piece_is_taken_by_click_and_given_another_print(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    at_work.leaf("prints")
    at_work.click(window.bench, at_work.piece("piece:front:0:2"))
    assert window.desk.seen.piece == "piece:front:0:2"
    basket = at_work.field("panel.piecing.prints")
    at_work.click(basket.swatches[3])
    assert window.desk.plan.panel("front").patches[2].print == basket.swatches[3].cloth.key
    assert window.desk.plan.panel("front").patches[3].print == "dots"


def test_arrows_go_from_piece_to_piece_and_shift_swaps(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    window.bench.setFocus()
    at_work.press(Qt.Key.Key_Down)
    at_work.press(Qt.Key.Key_Down)
    assert window.desk.seen.piece == "piece:front:0:1"
    before = [patch.print for patch in window.desk.plan.panel("front").patches]
    at_work.press(Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    after = [patch.print for patch in window.desk.plan.panel("front").patches]
    assert (after[1], after[2]) == (before[2], before[1])
    assert window.desk.seen.piece == "piece:front:0:2"


def test_a_print_without_a_piece_says_what_to_do_first(at_work):
    at_work.ctrl(Qt.Key.Key_2)
    at_work.leaf("prints")
    at_work.click(at_work.field("panel.piecing.prints").swatches[0])
    row = at_work.window.column.fields["panel.piecing.prints"]
    assert "Now click the pieces it goes on" in row.error.text()
    assert at_work.window.layout_bar.tool_buttons["lay"].isChecked()


def test_the_back_is_alike_until_it_is_chosen_apart(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_4)
    window.desk.look(panel="back")
    QApplication.processEvents()
    at_work.click(at_work.field("panel.quilting.gap"))
    at_work.type("2")
    assert window.desk.plan.panel("front").choices.quilting.gap == 2
    box = at_work.field("alike")
    assert box.isChecked()
    at_work.click(box, QPoint(8, box.height() // 2))
    at_work.click(at_work.field("panel.quilting.gap"))
    at_work.type("1")
    assert window.desk.plan.panel("front").choices.quilting.gap == 2
    assert window.desk.plan.panel("back").choices.quilting.gap == 1


def test_zoom_and_pan_change_only_how_it_is_seen(at_work):
    bench = at_work.window.bench
    picture, whole = bench.picture, bench.surface().per_inch
    bench.setFocus()
    at_work.press(Qt.Key.Key_Plus)
    assert bench.surface().per_inch == pytest.approx(whole * 1.25)
    at_work.wheel(bench, 3)
    at_work.press(Qt.Key.Key_Left, Qt.KeyboardModifier.ControlModifier)
    assert bench.picture is picture
    at_work.press(Qt.Key.Key_0)
    assert bench.surface().per_inch == pytest.approx(whole)


def test_the_point_under_the_wheel_stays(at_work):
    bench = at_work.window.bench
    at = (bench.width() * 0.3, bench.height() / 2)
    before = bench.surface().inches(*at)
    at_work.wheel(bench, 4, share=0.3)
    assert bench.surface().inches(*at) == pytest.approx(before)


def test_settling_a_stage_fills_its_dot(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_Return)
    assert window.desk.project.settled == ("brief",)
    assert window.selvage.dots[Stage.BRIEF].settled
    window.acts["undo"].trigger()
    assert not window.selvage.dots[Stage.BRIEF].settled


def test_a_broken_file_leaves_the_open_work(at_work, tmp_path):
    window = at_work.window
    before = window.desk.project
    broken = tmp_path / "broken.tessil"
    broken.write_text("{")
    at_work.ctrl(Qt.Key.Key_O)
    at_work.type(str(broken))
    at_work.press(Qt.Key.Key_Return)
    assert "breaks off" in window.file_bar.error.text()
    assert window.file_bar.isVisible()
    assert window.desk.project is before
    at_work.press(Qt.Key.Key_Escape)
    assert not window.file_bar.isVisible()


def test_a_full_disk_on_save_says_so_and_keeps_the_work(at_work, tmp_path, monkeypatch):
    window = at_work.window
    path = tmp_path / "bag.tessil"
    save_bag(tote(bags=9), path)
    window.open_path(path)
    at_work.ctrl(Qt.Key.Key_U)

    def full(_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("tessil.files.disk.os.fsync", full)
    at_work.ctrl(Qt.Key.Key_S)
    assert "no space left" in window.file_bar.error.text()
    monkeypatch.undo()
    assert load_bag(path).bags == 9
    assert window.unsaved.unsaved


def test_saving_into_no_folder_says_so(at_work, tmp_path):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_S)
    at_work.type(str(tmp_path / "nowhere" / "bag"))
    at_work.press(Qt.Key.Key_Return)
    assert "There is no folder" in window.file_bar.error.text()


def test_unsaved_work_is_kept_by_itself_and_offered_again(at_work, qtbot, monkeypatch):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("7")
    kept = recovery._own_path()
    qtbot.waitUntil(lambda: kept.exists() and '"bags": 7' in kept.read_text(), timeout=2000)
    kept.rename(kept.with_name("recovery-999999999.json"))  # as if its process had died
    again = Window()
    qtbot.addWidget(again)
    again.show()
    assert again.bar.isVisible()
    assert "Rehearsal satchel" in again.bar.words.text()
    again.bar.take.click()
    assert again.desk.project.bags == 7
    assert again.unsaved.unsaved
    assert not again.bar.isVisible()


def test_a_snag_shows_where_and_its_fix_can_be_undone(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_6)
    at_work.click(at_work.field("binding.strips_on_hand"))
    at_work.type("0")
    noted = len(window.snags.rows) - 1
    row = window.snags.rows[0]
    assert window.selvage.dots[Stage.EDGE].snags == 1
    at_work.click(row.buttons[0])
    assert window.selvage.dots[Stage.EDGE].snags == 0
    assert len(window.snags.rows) == noted
    window.acts["undo"].trigger()
    assert window.selvage.dots[Stage.EDGE].snags == 1


def test_an_empty_optional_field_means_the_formula(at_work):
    at_work.ctrl(Qt.Key.Key_6)
    window = at_work.window
    at_work.click(at_work.field("binding.cut"))
    at_work.type("2 1/4")
    assert window.desk.plan.binding.cut.value == F(9, 4)
    at_work.type("")
    assert window.desk.project.binding.cut is None


def test_exports_from_the_window(at_work, tmp_path):
    window = at_work.window
    for action, suffix, begins in (("svg", ".svg", b"<?xml"), ("csv", ".csv", b"panel,")):
        window.acts[action].trigger()
        at_work.press(Qt.Key.Key_Return)
        path = tmp_path / "documents" / f"Rehearsal satchel{suffix}"
        assert path.read_bytes().startswith(begins)


def test_every_field_reads_back_what_it_shows(at_work):
    """Showing a value and leaving the field changes nothing."""
    window = at_work.window
    cases = list(Stage)
    assert cases
    for stage in cases:
        for panel in ("front", "lining"):
            window.desk.look(stage=stage, panel=panel)
            before = window.desk.project
            for row in window.column.fields.values():
                row.field.setFocus()
                QApplication.processEvents()
            window.bench.setFocus()
            assert window.desk.project is before


def test_specs_have_stable_unique_keys(demo):
    from tessil.core.plan import plan

    made = plan(demo)
    cases = list(Stage)
    assert cases
    for stage in cases:
        keys = [spec.key for spec in specs(made, stage, "front")]
        assert len(keys) == len(set(keys))


def test_half_typed_text_does_not_reach_the_next_panel(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.QUILT, panel="front")
    QApplication.processEvents()
    at_work.click(at_work.field("panel.quilting.gap"))
    at_work.type("2")  # taken, but the field is still in hand
    flap = window.desk.project.panels["flap"].quilting.gap
    window.desk.look(panel="flap")
    QApplication.processEvents()
    window.bench.setFocus()
    QApplication.processEvents()
    assert window.desk.project.panels["front"].quilting.gap == 2
    assert window.desk.project.panels["flap"].quilting.gap == flap


def test_half_typed_text_does_not_reach_the_next_panels_ladder(at_work):
    window = at_work.window
    at_work.click(window.ladder.cells["quilted"].box)
    at_work.type("14 x 15 1/2")
    window.acts["next-panel"].trigger()
    QApplication.processEvents()
    window.bench.setFocus()
    QApplication.processEvents()
    assert list(window.desk.project.measured) == ["front"]


def test_undo_by_key_works_from_inside_a_field(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_4)
    field = at_work.field("panel.quilting.gap")
    at_work.click(field)
    at_work.type("2")
    assert window.desk.project.panels["front"].quilting.gap == 2
    at_work.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.panels["front"].quilting.gap == F(3, 2)
    assert field.text() == "1½"
    at_work.ctrl(Qt.Key.Key_Y)
    assert window.desk.project.panels["front"].quilting.gap == 2
    assert field.text() == "2"
