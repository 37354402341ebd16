"""Nothing is lost, nothing is replaced or changed unasked: driven at the window."""

import gc
import json
import os
from time import monotonic

import pytest
from PySide6.QtCore import QEvent, QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent, QGuiApplication, QImage
from PySide6.QtGui import Qt as GuiQt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QLineEdit, QWidget

from tessil.core.changes import moved
from tessil.core.edits import edit
from tessil.core.logbook.book import Swatch
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.project import job_of
from tessil.core.snags import Stage
from tessil.core.trimming.choice import Mark
from tessil.files import recovery
from tessil.ui.desk import UndoStep, Work
from tessil.ui.filing import BOOK_MOST_MS
from tessil.ui.rest import Rest
from tessil.ui.settings import keep_place, restore_place
from tessil.ui.widgets.fields import MeasuredField
from tessil.ui.widgets.receipt import FigureRow
from tessil.ui.widgets.snaglist import SnagRow
from tessil.ui.window import AUTOSAVE_MOST_MS, Window
from tests.conftest import job_tote, load_bag, save_bag, tote

F = Fraction
CTRL = Qt.KeyboardModifier.ControlModifier


def _few_in_hand(window):
    prints = tuple(p.model_copy(update={"amount": 1}) for p in window.desk.project.prints)
    window.desk.attempt(edit("few", ("prints", prints)))
    QApplication.processEvents()


# -- no widget goes while it is pressed -----------------------------------------------------------


def test_a_fix_pressed_while_a_wrong_entry_is_taken_back(at_work):
    """The press takes the focus, the field gives its entry up, the list changes under the press."""
    window = at_work.window
    _few_in_hand(window)
    at_work.click(window.bags)
    at_work.type("3*2.5")
    before = len(window.desk.plan.snags)
    button = next(b for row in window.snags.rows for b in row.buttons if b.isVisible())
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    QApplication.processEvents()
    assert window.desk.project.bags in (1, 2)
    assert len(window.desk.plan.snags) < before


def test_rows_of_snags_that_stay_are_the_same_widgets(at_work):
    window = at_work.window
    _few_in_hand(window)
    kept = {row.snag.key: row for row in window.snags.rows}
    window.desk.attempt(edit("name", ("name", "Another name")))
    assert all(kept[row.snag.key] is row for row in window.snags.rows)


def test_a_fix_that_is_gone_does_nothing(at_work):
    window = at_work.window
    _few_in_hand(window)
    row = next(row for row in window.snags.rows if row.buttons)
    assert isinstance(row, SnagRow)
    gone, fix = row.snag, row.snag.fixes[0]
    window.desk.attempt(
        edit(
            "many",
            (
                "prints",
                tuple(p.model_copy(update={"amount": None}) for p in window.desk.project.prints),
            ),
        )
    )
    steps = window.desk.stack.index()
    window.snags.mend(gone, fix)
    assert window.desk.stack.index() == steps


# -- kept in time ---------------------------------------------------------------------------------


def test_a_rest_has_a_longest_wait(qtbot):
    """Touched every 10 ms it still comes at most so long after the first touch."""
    rest, came = Rest(50, 120), []
    rest.due.connect(lambda: came.append(monotonic()))
    began = monotonic()
    while not came and monotonic() - began < 3:
        rest.touch()
        qtbot.wait(10)
    assert 0.05 <= came[0] - began < 0.6
    assert not rest.waits


def test_a_busy_loop_cannot_put_it_off():
    """Without any event loop at all, a touch that comes too late does it itself."""
    rest, came = Rest(50, 30), []
    rest.due.connect(lambda: came.append(1))
    rest.touch()
    end = monotonic() + 0.06
    while monotonic() < end:
        pass
    rest.touch()
    assert came == [1]


def test_work_and_logbook_are_on_disk_within_two_seconds():
    assert AUTOSAVE_MOST_MS <= 1000
    assert BOOK_MOST_MS <= 1000


def test_typing_without_a_pause_is_kept(at_work, qtbot):
    window = at_work.window
    at_work.click(window.name)
    began = monotonic()
    while monotonic() - began < 1.6:
        QTest.keyClicks(window.name, "x")
        qtbot.wait(15)
    kept = json.loads(recovery._own_path().read_text().partition("\n")[0])
    assert "xxx" in kept["name"]
    assert kept["changes"] >= 1


def test_work_that_cannot_be_kept_is_said_once_and_closing_waits(at_work, tmp_path, monkeypatch):
    window = at_work.window
    (tmp_path / "blocked").write_text("no folder")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "blocked"))
    window.desk.attempt(edit("x", ("name", "Precious")))
    window.keep_safe()
    assert "cannot be kept" in window.told.text()
    window._unkept = ""
    assert not window.close()  # once: somebody should save it elsewhere first
    assert "Closed again" in window.told.text()
    assert window.close()


# -- files ----------------------------------------------------------------------------------------


def test_new_bags_get_free_names_from_what_they_are(hands, tmp_path):
    window = hands.window
    for name in ("Tote for folder", "Tote for folder 2", "Tote for folder 3"):
        window.new_bag()
        hands.click(window.start.plan_it)
        assert window.desk.project.name == name
        hands.ctrl(Qt.Key.Key_S)
        hands.press(Qt.Key.Key_Return)
        assert window.desk.path.name == f"{name}.tessil"
    assert len(list((tmp_path / "documents").glob("*.tessil"))) == 3


def test_another_bag_is_not_replaced_unasked(at_work, tmp_path):
    window, path = at_work.window, tmp_path / "documents" / "other.tessil"
    save_bag(tote(bags=9), path)
    at_work.ctrl(Qt.Key.Key_S)
    at_work.type(str(path))
    at_work.press(Qt.Key.Key_Return)
    assert "is there already" in window.file_bar.error.text()
    assert load_bag(path).bags == 9
    at_work.click(window.file_bar.replace)
    assert load_bag(path).name == window.desk.project.name
    assert load_bag(path.with_name("other.tessil~")).bags == 9


def test_a_list_over_a_list_asks_and_over_a_project_is_refused(at_work, tmp_path):
    window, there = at_work.window, tmp_path / "documents" / "there.csv"
    there.write_text("mine")
    at_work.menu("csv")
    at_work.type(str(there))
    at_work.press(Qt.Key.Key_Return)
    assert "is there already" in window.file_bar.error.text()
    assert there.read_text() == "mine"
    at_work.click(window.file_bar.replace)
    assert there.read_text().startswith("panel,")
    assert str(there) in window.quiet.whole
    bag = tmp_path / "documents" / "bag.tessil"
    save_bag(tote(), bag)
    at_work.menu("csv")
    at_work.type(str(bag))
    at_work.press(Qt.Key.Key_Return)
    assert "is a Tessil project" in window.file_bar.error.text()
    assert not window.file_bar.replace.isVisible()


def test_what_another_program_saved_is_kept_too(at_work, tmp_path):
    window, path = at_work.window, tmp_path / "documents" / "bag.tessil"
    save_bag(tote(bags=1), path)
    window.open_path(path)
    save_bag(tote(bags=77), path)
    window.desk.attempt(edit("x", ("bags", 5)))
    at_work.ctrl(Qt.Key.Key_S)
    assert "was changed by another program" in window.file_bar.error.text()
    assert load_bag(path).bags == 77
    at_work.click(window.file_bar.go)  # under the free name that is offered
    assert load_bag(path).bags == 77
    assert load_bag(tmp_path / "documents" / "bag 2.tessil").bags == 5


def test_kept_work_is_a_list_to_take_up_or_throw_away(hands):
    window = hands.window
    for bags in (3, 4):
        recovery.put_aside(job_tote(name=f"Kept {bags}", bags=bags), None, changes=bags)
    bad = tote(shape=tote().shape.model_copy(update={"kind": "no-such-shape"}), name="Strange")
    recovery.put_aside(job_of(bad), None)
    hands.window.open_demo("rehearsal-satchel")
    hands.menu("kept")
    rows = {row.lost.name: row for row in window.kept_page.rows}
    assert set(rows) == {"Kept 3", "Kept 4", "Strange"}
    assert "Cut-corner tote" in rows["Kept 3"].about.text()
    assert "3 changes not saved" in rows["Kept 3"].about.text()
    hands.click(rows["Strange"].take)
    assert "not one this Tessil knows" in rows["Strange"].about.text()
    hands.click(rows["Kept 3"].drop)
    assert len(recovery.find_lost()) == 2
    hands.click(rows["Kept 3"].back)
    assert len(recovery.find_lost()) == 3
    hands.click(rows["Kept 4"].take)
    assert window.desk.project.bags == 4


# -- behind the back ------------------------------------------------------------------------------


def test_escape_gives_back_what_stood_there_when_the_hands_came(at_work):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("7")
    assert window.desk.project.bags == 7
    at_work.press(Qt.Key.Key_Up)
    assert window.desk.project.bags == 8
    at_work.press(Qt.Key.Key_Escape)
    assert window.desk.project.bags == 2
    assert window.bags.text() == "2"
    assert not window.desk.stack.canUndo()


def test_undo_in_a_field_takes_letters_back_first(at_work):
    window = at_work.window
    window.desk.attempt(edit("Plan before", ("corner", "line")))
    at_work.click(window.name)
    window.name.setCursorPosition(len(window.name.text()))
    QTest.keyClicks(window.name, "s")
    assert window.desk.project.name == "Rehearsal satchels"
    at_work.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.name == "Rehearsal satchel"
    assert window.desk.project.corner == "line"  # the plan's own step is still done
    at_work.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.corner == "cut"


def test_a_unit_change_settles_the_field_in_hand_first(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.BRIEF)
    QApplication.processEvents()
    field = at_work.field("seams.side")
    at_work.click(field)
    at_work.type("1/2")
    at_work.ctrl(Qt.Key.Key_U)
    assert window.desk.project.seams.side == F(1, 2)
    assert at_work.field("seams.side").text() == "1.27 cm"


def test_another_shape_and_back_keeps_all_that_was_typed(at_work):
    window = at_work.window
    before = window.desk.project
    at_work.choose("shape.kind", "clutch")
    assert window.desk.project.shape.kind == "clutch"
    at_work.choose("shape.kind", before.shape.kind)
    after = window.desk.project
    assert (after.shape, after.panels, after.measured) == (
        before.shape,
        before.panels,
        before.measured,
    )


@pytest.mark.parametrize("way", ["panel", "finished"])
def test_another_end_carries_on_from_the_sizes_there_are(at_work, way):
    window = at_work.window
    before = [figure.value for figure in window.desk.plan.bag.finished]
    at_work.choose("shape.way", way)
    after = [figure.value for figure in window.desk.plan.bag.finished]
    assert all(abs(a - b) <= F(1, 4) for a, b in zip(after, before, strict=True))


def test_measured_and_settled_sizes_do_not_move_with_the_unit(at_work):
    window = at_work.window
    loose = plan(window.desk.project)
    window.change_units()
    moved_now = moved(loose, window.desk.plan, Stage.BRIEF, "front")
    assert "→" in moved_now
    QTest.qWait(400)
    assert window.quiet.whole.startswith("Changed with it: ")
    assert "→" in window.quiet.whole
    window.undo()
    window.desk.attempt(edit("Settle", ("settled", ("brief",))))
    firm = window.desk.plan
    window.change_units()
    assert moved(firm, window.desk.plan, Stage.BRIEF, "front") == ""
    sizes = [[p.trimmed.values() for p in made.panels] for made in (window.desk.plan, firm)]
    assert sizes[0] == sizes[1]
    assert window.desk.project.rounding == "inch"
    window.change_units()
    assert window.desk.project.rounding is None


def test_a_fix_says_what_changed_out_of_sight(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.LAYER, panel="flap")
    window.about_to_change()
    window.desk.attempt(edit("Wider seams", ("seams.side", F(1, 2))))
    QTest.qWait(400)
    assert "front pieced, width 14¼ → 14½" in window.quiet.whole


def test_a_swatch_that_moves_a_panel_is_told(at_work):
    window = at_work.window
    strong = Swatch(
        batting="cotton-batting",
        gap=F(1),
        width_before=F(10),
        height_before=F(10),
        width_after=F(9),
        height_after=F(9),
        pattern="grid",
    )
    window.desk.attempt_book(edit("Learn", ("swatches", (strong,) * 6)))
    QTest.qWait(400)
    assert "pieced" in window.quiet.whole


def test_the_wheel_makes_no_measurement_up(at_work):
    window = at_work.window
    box = window.ladder.cells["pieced"].box
    at_work.click(box)
    at_work.wheel(box, 3)
    assert window.desk.project.measured.get("front") is None or box.is_empty()
    window.bags.clearFocus()
    window.bench.setFocus()
    at_work.wheel(window.bags, 2)
    assert window.desk.project.bags == 2


def test_marks_on_one_another_are_a_snag_with_a_way_out(at_work):
    window = at_work.window
    marks = tuple(Mark(kind="slip", panel="back", x=F(3), y=F(3)) for _ in range(2))
    window.desk.attempt(edit("x", ("marks", marks)))
    snag = next(s for s in window.desk.plan.snags if s.key.startswith("mark.over.back"))
    assert snag.title == "The slip pocket lies on the slip pocket"
    assert snag.place is not None
    window.snags.mend(snag, snag.fixes[0])
    assert not [s for s in window.desk.plan.snags if s.key.startswith("mark.over.back")]
    one, other = window.desk.project.marks
    assert abs(one.y - other.y) >= 5 or abs(one.x - other.x) >= 6


def test_snags_of_like_words_name_their_panels(at_work):
    window = at_work.window
    marks = tuple(
        Mark(kind="slip", panel=panel, x=F(3), y=F(3)) for panel in ("lining", "back") for _ in "ab"
    )
    window.desk.attempt(edit("x", ("marks", marks)))
    titles = [snag.title for snag in window.desk.plan.snags]
    assert "Lining: the slip pocket lies on the slip pocket" in titles
    assert "Back: the slip pocket lies on the slip pocket" in titles
    assert len(set(titles)) == len(titles)


# -- manners --------------------------------------------------------------------------------------


def test_the_title_names_bag_file_and_whether_it_is_saved(at_work, tmp_path):
    window, path = at_work.window, tmp_path / "documents" / "bag.tessil"
    assert "Rehearsal satchel" in window.windowTitle()
    assert window.isWindowModified()
    window.save_to(path)
    assert "(bag.tessil)" in window.windowTitle()
    assert not window.isWindowModified()
    window.desk.attempt(edit("x", ("bags", 5)))
    assert window.isWindowModified()


def test_the_window_comes_back_where_it_was(qtbot):
    first, again = Window(), Window()
    for window in (first, again):
        qtbot.addWidget(window)
    first.resize(1024, 651)
    keep_place(first)
    restore_place(again)
    assert (again.width(), again.height()) == (1024, 651)


def _drop(window, path):
    mime = QMimeData()
    mime.setUrls([QUrl.fromLocalFile(str(path))])
    event = QDropEvent(
        QPointF(400, 300),
        Qt.DropAction.CopyAction,
        mime,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    window.dropEvent(event)
    QApplication.processEvents()


def test_a_project_a_list_and_a_photo_can_be_dropped(at_work, qtbot, tmp_path):
    window = at_work.window
    bag, scraps, photo = (tmp_path / name for name in ("b.tessil", "s.csv", "p.png"))
    save_bag(tote(bags=6), bag)
    _drop(window, bag)
    assert window.desk.project.bags == 6
    scraps.write_text("width,height\n4,6\n")
    _drop(window, scraps)
    assert len(window.desk.project.scraps) == 1
    image = QImage(200, 160, QImage.Format.Format_RGB32)
    image.fill(0x884422)
    image.save(str(photo))
    _drop(window, photo)
    qtbot.waitUntil(lambda: window.desk.project.prints[0].photo is not None, timeout=5000)


def test_file_addresses_are_paths(at_work, tmp_path):
    window, path = at_work.window, tmp_path / "documents" / "my bag.tessil"
    save_bag(tote(bags=8), path)
    at_work.ctrl(Qt.Key.Key_O)
    at_work.type(
        QUrl.fromLocalFile(str(path)).toString(QUrl.ComponentFormattingOption.FullyEncoded)
    )
    at_work.press(Qt.Key.Key_Return)
    assert window.desk.project.bags == 8


def test_ctrl_c_takes_a_figure_and_the_menu_takes_lists_and_drawings(at_work):
    window, clipboard = at_work.window, QGuiApplication.clipboard()
    window.desk.look(stage=Stage.PIECE)
    QApplication.processEvents()
    row = window.column.receipt.rows[0]
    row.setFocus()
    at_work.ctrl(Qt.Key.Key_C)
    assert clipboard.text().startswith(f"{row.name}: {row.value}")
    window.copy_figures()
    lines = clipboard.text().splitlines()
    assert lines[0] == "figure\tvalue\tworking\trests on"
    assert len(lines) == 1 + len(window.column.receipt.rows)
    assert bytes(clipboard.mimeData().data("text/csv").data()).startswith(b"figure,value")
    window.copy_cut_list()
    assert clipboard.text().startswith("panel\twhat\tfrom")
    window.bench.setFocus()
    at_work.ctrl(Qt.Key.Key_C)
    assert clipboard.mimeData().hasImage()


def test_each_thing_has_its_menu_at_the_pointer(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.PIECE)
    _few_in_hand(window)
    row = next(r for r in window.column.receipt.rows if isinstance(r, FigureRow))
    at_work.pointed(row, "Point at it on the bench")
    assert window.desk.seen.picked.key == row.reading.key
    at_work.pointed(window.tray.tiles[-1], "Turn to the")
    assert window.desk.seen.panel == window.tray.tiles[-1].key
    at_work.pointed(window.ladder.cells["trimmed"], "It came out as planned")
    assert not window.ladder.cells["trimmed"].box.is_empty()
    at_work.pointed(window.bench, "Larger", QPoint(200, 200))
    assert window.bench.zoom > 1
    at_work.pointed(window.bench, "All of it in sight", QPoint(200, 200))
    assert window.bench.zoom == 1
    snag = window.snags.rows[0]
    at_work.pointed(snag, "Copy")
    assert QGuiApplication.clipboard().text().startswith(snag.snag.title)


def test_f1_lists_the_keys_and_about_says_the_licences(at_work):
    from tessil import __version__

    window = at_work.window
    at_work.press(Qt.Key.Key_F1)
    page = window.help_page
    assert page.isVisible()
    words = " ".join(label.text() for label in page.findChildren(QLabel))
    assert "Ctrl+S" in words
    assert "Undo" in words
    at_work.press(Qt.Key.Key_Escape)
    assert window.work.isVisible()
    at_work.menu("about")
    assert __version__ in page.about.text()
    assert "General Public License" in page.about.text()


def test_names_are_shown_as_they_are_everywhere(at_work):
    """A name that would be formatting, in labels and tooltips of every stage and page."""
    window = at_work.window
    evil = "<h1>Qz</h1><font color=red>Zq</font>"
    prints = tuple(p.model_copy(update={"name": evil}) for p in window.desk.project.prints)
    window.desk.attempt(edit("x", ("prints", prints), ("name", evil)))
    seen = 0

    def look():
        nonlocal seen
        QApplication.processEvents()
        for widget in window.findChildren(QWidget):
            tip = widget.toolTip()
            assert not ("Qz" in tip and GuiQt.mightBeRichText(tip)), tip
            if isinstance(widget, QLabel):
                assert widget.textFormat() == Qt.TextFormat.PlainText, widget.text()
                seen += "Qz" in widget.text()

    for stage in Stage:
        window.desk.look(stage=stage)
        look()
    for show in (window.show_prints, window.show_log, window.show_worksheet, window.show_kept):
        show()
        look()
    assert seen


def test_a_saved_list_is_confirmed_with_its_place(at_work, tmp_path):
    window = at_work.window
    window.show_worksheet()
    at_work.click(window.preview.save)
    path = tmp_path / "documents" / "sheet.pdf"
    at_work.type(str(path))
    at_work.press(Qt.Key.Key_Return)
    assert path.read_bytes().startswith(b"%PDF")
    assert window.quiet.whole == f"Saved as {path}."
    assert os.path.getsize(path) > 10_000


def test_the_bar_for_files_outlives_the_field_it_came_from(at_work):
    """Where the hands were may be gone by the time the bar closes."""
    window = at_work.window
    gone = QLineEdit(window)
    gone.show()
    gone.setFocus()
    at_work.ctrl(Qt.Key.Key_O)
    assert window.file_bar.back_to is gone
    gone.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    at_work.press(Qt.Key.Key_Escape)
    assert not window.file_bar.isVisible()


def test_a_bare_name_is_saved_in_the_folder_that_is_shown(at_work, tmp_path, monkeypatch):
    (tmp_path / "elsewhere").mkdir()
    monkeypatch.chdir(tmp_path / "elsewhere")
    at_work.press(
        Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier
    )
    at_work.type("little bag")
    at_work.press(Qt.Key.Key_Return)
    assert not at_work.window.file_bar.error.text()
    assert at_work.window.desk.path.name == "little bag.tessil"
    assert at_work.window.desk.path.parent != tmp_path / "elsewhere"
    assert at_work.window.desk.path.parent.is_absolute()


def test_steps_that_are_no_longer_there_hold_no_project(at_work):
    """Typing on in one field, and writing over what was taken back, must not fill memory."""
    window = at_work.window
    at_work.click(window.name)
    for letter in "a bag of many letters":
        QTest.keyClick(window.name, letter)
    for bags in range(3, 9):
        window.desk.attempt(edit("Make", ("bags", bags)))
    for _ in range(5):
        window.desk.stack.undo()
    window.desk.attempt(edit("Make", ("bags", 40)))
    gc.collect()
    steps = [one for one in gc.get_objects() if type(one) is UndoStep and one.desk is window.desk]
    held = [one for one in steps if isinstance(one.after, Work)]
    assert len(held) == window.desk.stack.count()
    window.desk.stack.undo()
    assert window.desk.project.bags == 3


def test_a_measured_size_beyond_all_measure_is_refused_in_words(at_work):
    """Typed, or stepped to by an arrow: a sentence below the box, and no word of a library."""
    window = at_work.window
    box = next(one for one in window.findChildren(MeasuredField) if one.isVisible())
    for text in ("393½ × 393½", "99999 × 3"):
        at_work.click(box)
        at_work.type(text)
        for _ in range(8):
            at_work.press(Qt.Key.Key_Up)
        said = box.sentence or box.parentWidget().error.text()
        at_work.press(Qt.Key.Key_Return)
        assert said
        assert "validation" not in said
        assert "Got" not in said
        at_work.press(Qt.Key.Key_Escape)


def test_a_notch_cut_beyond_all_measure_is_refused_in_words(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_5)
    field = at_work.field("notch.width")
    at_work.click(field)
    at_work.type("99999")
    at_work.press(Qt.Key.Key_Return)
    assert "longer than 10 m" in field.sentence
    assert window.desk.plan.panel("front").measured.notch.width is None


def test_what_turns_the_writing_round_is_not_said_back(at_work):
    field = at_work.field("hold.ease")
    field.setFocus()
    field.setText("\u202e2")
    field.textEdited.emit(field.text())
    at_work.press(Qt.Key.Key_Return)
    assert "cannot be read" in field.sentence
    assert "\u202e" not in field.sentence
