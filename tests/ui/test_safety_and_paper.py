"""The worksheet on screen, the recovery offer, crashes, and closing without saving."""

import sys
from pathlib import Path

import pypdf
import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication

from tessil.core.choosing import measure
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.snags import Stage
from tessil.files import recovery
from tessil.ui import shots
from tessil.ui.app import _furnished, _guard
from tessil.ui.shell import Shell
from tessil.ui.shots import take_shots
from tessil.ui.window import Window
from tests.conftest import job_tote, load_bag, save_bag, tote

F = Fraction


def test_the_worksheet_shows_two_pages_and_comes_back(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_P)
    assert window.preview.isVisible()
    for page in window.preview.pages:
        assert page.pixmap().width() > 300
    at_work.press(Qt.Key.Key_Escape)
    assert window.work.isVisible()


@pytest.mark.parametrize(("printers", "says"), [([], "No printer"), (["Attic"], "pages, ")])
def test_the_printer_button_says_when_there_is_none(at_work, monkeypatch, printers, says):
    window = at_work.window
    names = "tessil.ui.preview.QPrinterInfo.availablePrinterNames"
    monkeypatch.setattr(names, lambda: printers)
    window.show_worksheet()
    assert window.preview.printer.isEnabled() == bool(printers)
    assert says in window.preview.words.text()


def test_a_pdf_into_no_folder_is_refused_in_words(at_work, tmp_path):
    window = at_work.window
    window.show_worksheet()
    at_work.click(window.preview.save)
    at_work.type(str(tmp_path / "no" / "sheet.pdf"))
    at_work.press(Qt.Key.Key_Return)
    assert "There is no folder" in window.file_bar.error.text()


def test_the_pdf_is_of_the_bag_on_the_desk(at_work, tmp_path):
    window = at_work.window
    window.open_demo("mute-sack")
    window.show_worksheet()
    at_work.click(window.preview.save)
    at_work.click(window.file_bar.go)
    path = tmp_path / "documents" / "Mute sack.pdf"
    text = " ".join(pypdf.PdfReader(path).pages[0].extract_text().split())
    assert "Mute sack" in text
    assert "Drawstring bag" in text


def test_closing_without_saving_keeps_the_work_for_the_next_start(at_work):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("5")
    window.close()
    kept = recovery._own_path()
    assert '"bags": 5' in kept.read_text()


@pytest.mark.usefixtures("beginning")
def test_a_new_bag_that_was_only_answered_is_kept_too(hands):
    window = hands.window
    hands.click(window.start.plan_it)
    window.close()
    assert '"name": "Tote for folder"' in recovery._own_path().read_text()


def test_work_taken_up_again_and_closed_untouched_is_still_kept(qtbot):
    recovery.keep(job_tote(bags=4), None)
    kept = recovery._own_path()
    kept.rename(kept.with_name("recovery-999999997.json"))
    window = Window()
    qtbot.addWidget(window)
    window.show()
    window.bar.take.click()
    window.close()
    assert '"bags": 4' in recovery._own_path().read_text()


def test_a_demo_that_nobody_touched_leaves_nothing(at_work):
    at_work.window.close()
    assert not recovery._own_path().exists()


def test_another_project_does_not_swallow_unsaved_work(at_work, tmp_path):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("5")
    other = tmp_path / "other.tessil"
    save_bag(tote(bags=9), other)
    assert window.open_path(other) == ""
    assert window.desk.project.bags == 9
    assert window.bar.isVisible()
    at_work.click(window.bar.take)
    assert window.desk.project.bags == 5
    assert window.unsaved.unsaved
    assert recovery.find_lost() == []


def test_kept_work_is_offered_when_nothing_else_is_asked(at_work, tmp_path):
    """Both bars over a low window left no room for the bench above its ladder."""
    window = at_work.window
    window.resize(1100, 700)
    recovery.keep(job_tote(bags=4), None)
    kept = recovery._own_path()
    kept.rename(kept.with_name("recovery-999999997.json"))
    window.bar.offer(recovery.find_lost())
    least = window.minimumSizeHint().height()
    assert window.bar.isVisible()
    at_work.ctrl(Qt.Key.Key_O)
    assert window.file_bar.isVisible()
    assert not window.bar.isVisible()
    assert window.minimumSizeHint().height() <= least + 8
    at_work.press(Qt.Key.Key_Escape)
    assert not window.file_bar.isVisible()
    assert window.bar.isVisible()
    at_work.ctrl(Qt.Key.Key_O)
    other = tmp_path / "other.tessil"
    save_bag(tote(bags=9), other)
    at_work.type(str(other))
    at_work.press(Qt.Key.Key_Return)
    assert window.desk.project.bags == 9
    assert window.bar.isVisible()  # nothing is asked any more
    at_work.click(window.bar.later)
    at_work.ctrl(Qt.Key.Key_O)
    at_work.press(Qt.Key.Key_Escape)
    assert not window.bar.isVisible()  # later is later


def test_a_file_that_will_not_open_puts_nothing_aside(at_work, tmp_path):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("5")
    broken = tmp_path / "broken.tessil"
    broken.write_text("{")
    assert window.open_path(broken)
    assert not window.bar.isVisible()
    assert recovery.find_lost() == []


def test_closing_saved_work_leaves_nothing_behind(at_work, tmp_path):
    window = at_work.window
    assert window.save_to(tmp_path / "bag.tessil") == ""
    window.close()
    assert not recovery._own_path().exists()


def test_work_that_was_thrown_away_is_gone(qtbot):
    recovery.keep(job_tote(bags=4), None)
    kept = recovery._own_path()
    kept.rename(kept.with_name("recovery-999999998.json"))
    window = Window()
    qtbot.addWidget(window)
    window.show()
    assert window.bar.isVisible()
    window.bar.drop.click()
    assert recovery.find_lost() == []
    assert window.bar.words.text() == "“Test tote” is thrown away."
    window.bar.back.click()  # until the next start it can be had back
    (lost,) = recovery.find_lost()
    assert lost.job.bags[0].bags == 4
    window.bar.drop.click()
    recovery.prune()
    recovery.bring_back(lost)
    assert recovery.find_lost() == []


def test_a_fault_inside_keeps_the_work_first(at_work, capsys, monkeypatch):
    window = at_work.window
    at_work.click(window.bags)
    at_work.type("5")
    monkeypatch.setattr(sys, "excepthook", sys.__excepthook__)
    _guard(window)
    recovery.forget()
    try:
        raise RuntimeError("a fault")
    except RuntimeError as fault:
        sys.excepthook(RuntimeError, fault, fault.__traceback__)
    assert recovery._own_path().exists()
    assert "your work is kept" in window.told.text()
    assert "a fault" in capsys.readouterr().err


def test_a_demo_that_nobody_touched_is_not_kept(at_work):
    window = at_work.window
    assert window.keep_safe() == ""
    assert not recovery._own_path().exists()
    at_work.click(window.bags)
    at_work.type("5")
    assert window.keep_safe() == ""
    assert recovery._own_path().exists()


def test_the_frame_takes_the_furnished_window_in(qtbot):
    shell = Shell()
    qtbot.addWidget(shell)
    shell.show()
    shell.grab()
    window = Window()
    window.open_demo("rehearsal-satchel")
    shell.take_in(window)
    QApplication.processEvents()
    assert window.isVisible()
    assert window.size() == shell.centralWidget().size()
    shell.close()


def test_what_is_made_for_the_frame_is_part_of_it(qtbot, qapp):
    shell = Shell()
    qtbot.addWidget(shell)
    shell.show()
    window, sentence = _furnished(qapp, shell, None, True)
    QApplication.processEvents()
    assert sentence == ""
    assert not window.isWindow()
    assert window.isVisible()
    assert shell.centralWidget() is window
    assert window.size() == shell.size()
    assert shell.windowTitle().startswith("Rehearsal satchel, The band's kit of four[*]")
    seen = shell.grab().toImage()
    assert seen.pixelColor(500, 300) == window.grab().toImage().pixelColor(500, 300)
    shell.close()


def test_a_file_given_on_the_command_line_is_opened_and_remembered(qtbot, tmp_path):
    path = tmp_path / "given.tessil"
    save_bag(tote(bags=6), path)
    window = Window()
    qtbot.addWidget(window)
    assert window.open_path(path) == ""
    assert window.desk.project.bags == 6
    assert not window.unsaved.unsaved
    window.ask_open()
    texts = [window.file_bar.recent.itemAt(1).widget().text()]
    assert texts == ["given"]


def test_saving_again_goes_to_the_same_file(at_work, tmp_path):
    window = at_work.window
    path = tmp_path / "bag.tessil"
    assert window.save_to(path) == ""
    at_work.click(window.bags)
    at_work.type("8")
    assert window.unsaved.unsaved
    at_work.ctrl(Qt.Key.Key_S)
    assert load_bag(path).bags == 8
    assert not window.unsaved.unsaved
    window.acts["undo"].trigger()
    assert window.unsaved.unsaved


@pytest.mark.parametrize("rung", ["pieced", "quilted", "trimmed"])
def test_every_rung_can_be_measured_at_the_window(at_work, rung):
    window = at_work.window
    box = window.ladder.cells[rung].box
    at_work.click(box)
    plan = window.desk.plan.panel("front")
    size = {"pieced": plan.planned, "quilted": plan.expected, "trimmed": plan.trimmed}[rung]
    width, height = (value // F(1, 8) / 8 for value in size.values())
    at_work.type(f"{width} x {height}")
    at_work.press(Qt.Key.Key_Return)
    got = getattr(window.desk.project.measured["front"], rung)
    assert (got.width, got.height) == (width, height)
    assert box.property("got")
    at_work.type("")
    at_work.press(Qt.Key.Key_Return)
    assert "front" not in window.desk.project.measured


def test_the_notch_as_cut_is_checked_and_can_be_cut_on(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.TRIM, panel="front")
    QApplication.processEvents()
    legs = window.desk.plan.panel("front").panel.notches[0]
    at_work.click(at_work.field("notch.width"))
    at_work.type(str(legs.side_leg.value + F(1, 4)))
    (snag,) = [s for s in window.desk.plan.snags if "legs" in s.key]
    row = next(row for row in window.snags.rows if row.snag.key == snag.key)
    at_work.click(row.buttons[0])
    assert not [s for s in window.desk.plan.snags if "legs" in s.key]
    notch = window.desk.plan.panel("front").panel.notches[0]
    assert notch.other_leg.value == legs.other_leg.value + F(1, 4)


def test_a_follower_that_was_trimmed_smaller_can_lead(at_work):
    desk = at_work.window.desk
    trimmed = desk.plan.panel("back").trimmed
    got = Got(width=trimmed.width.value - F(1, 4), height=trimmed.height.value)
    desk.attempt(measure(desk.project, "back", "trimmed", got))
    snag = next(s for s in desk.plan.snags if s.key == "trim.match.back.width")
    desk.attempt(snag.fixes[0])
    assert desk.plan.panel("front").trimmed.width.value == got.width
    assert not [s for s in desk.plan.snags if s.key.startswith("trim.match")]


def test_shots_are_written_at_the_design_size(tmp_path, capsys, monkeypatch):
    from PySide6.QtGui import QImage

    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    monkeypatch.setattr(shots, "SECONDS", 0.2)
    assert take_shots(tmp_path / "shots") == 0
    names = sorted(path.name for path in (tmp_path / "shots").iterdir())
    kept = Path(__file__).parents[2] / "docs" / "screenshots"
    assert names == sorted(path.name for path in kept.iterdir())
    assert len(names) < 20
    readme = (kept.parents[1] / "README.md").read_text("utf-8")
    assert all(f"docs/screenshots/{name}" in readme for name in names)
    for name in names:
        image = QImage(str(tmp_path / "shots" / name))
        assert (image.width(), image.height()) == (1280, 800), name
