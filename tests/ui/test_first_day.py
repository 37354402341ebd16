"""A first day with Tessil, through the real window: once with keys only, once with the mouse.

Start with the demo, make a tote for a 23 × 32 × 4 cm folder from six strips a side, see why
the front is pieced larger than it ends, write down a measured size, mend a snag by its
button, save, open again, print.
"""

import pypdf
import pytest
from PySide6.QtCore import Qt

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import read_length
from tessil.core.snags import Stage
from tests.conftest import load_bag

CM = Fraction(50, 127)


def _is_the_folder_bag(window):
    project, plan = window.desk.project, window.desk.plan
    assert project.units == "metric"
    (thing,) = project.hold.things
    assert (thing.width, thing.height, thing.thickness) == (23 * CM, 32 * CM, 4 * CM)
    assert plan.panel("front").strips.number.whole == 6
    assert plan.panel("back").strips.number.whole == 6
    assert plan.snags == ()


def _sees_why(window):
    """The receipt gives the reason for piecing larger, and the sum comes out."""
    row = window.column.receipt.row("needed.width")
    figure = row.reading.figure
    trimmed = window.desk.plan.panel("front").trimmed.width.value
    assert figure.value > trimmed
    assert "÷ (1 −" in row.sum
    assert window.desk.plan.marks.notation.exact(trimmed) in row.sum
    assert row.basis == "starting guess"
    assert "width drawn in, at most" in row.tip()


def _was_saved_and_printed(folder):
    project = load_bag(folder / "Tote for folder.tessil")
    assert project.hold.things[0].thickness == 4 * CM
    assert project.measured["front"].quilted.height is not None
    document = pypdf.PdfReader(folder / "Tote for folder.pdf")
    assert len(document.pages) >= 3
    assert "Tote for folder" in " ".join(document.pages[0].extract_text().split())


def test_with_the_keyboard_alone(at_work, tmp_path):
    hands, window = at_work, at_work.window
    start, folder = window.start, tmp_path / "documents"

    hands.ctrl(Qt.Key.Key_N)
    assert start.isVisible()
    hands.tab_to(start.rows["units"].field.buttons["inch"])
    hands.press(Qt.Key.Key_Right)
    hands.press(Qt.Key.Key_Space)
    for key, text in (("width", "23"), ("height", "32 cm"), ("thickness", "40 mm")):
        hands.tab_to(start.rows[key].field)
        hands.type(text)
    hands.tab_to(start.rows["strips"].field)
    hands.type("6")
    hands.tab_to(start.plan_it)
    hands.press(Qt.Key.Key_Space)
    assert window.work.isVisible()
    _is_the_folder_bag(window)

    hands.ctrl(Qt.Key.Key_2)
    assert window.desk.seen.stage is Stage.PIECE
    hands.tab_to(window.column.receipt.row("needed.width"))
    hands.press(Qt.Key.Key_Space)
    assert window.desk.seen.picked.key == "needed.width"
    _sees_why(window)

    trimmed = window.desk.plan.panel("front").trimmed
    hands.tab_to(window.ladder.cells["quilted"].box)
    hands.type(
        f"{float(trimmed.width.value / CM):.1f} x {float(trimmed.height.value / CM) - 1:.1f}"
    )
    hands.press(Qt.Key.Key_Return)
    assert "too small in height" in window.desk.plan.snags[0].title
    assert window.snags.isVisible()

    hands.press(Qt.Key.Key_F8)
    assert hands.focus is window.snags.rows[0].buttons[0]
    hands.press(Qt.Key.Key_Space)
    # What is trimmed is settled; that the folder has less ease now is said too.
    assert [snag.key for snag in window.desk.plan.snags] == ["fit.height"]
    assert "tight fit" in window.desk.plan.snags[0].title
    back = window.desk.plan.panel("back").trimmed.height.value
    assert back == window.desk.plan.panel("front").trimmed.height.value
    assert window.desk.stack.undoText().startswith("Trim all to")

    hands.ctrl(Qt.Key.Key_S)
    assert hands.focus is window.file_bar.line
    hands.press(Qt.Key.Key_Return)
    assert not window.file_bar.isVisible()
    assert not window.unsaved.unsaved

    hands.ctrl(Qt.Key.Key_O)
    hands.type(str(folder / "Tote for folder.tessil"))
    hands.press(Qt.Key.Key_Return)
    assert window.desk.path == folder / "Tote for folder.tessil"
    assert not window.desk.stack.canUndo()

    hands.ctrl(Qt.Key.Key_P)
    assert window.preview.isVisible()
    assert hands.focus is window.preview.save
    hands.press(Qt.Key.Key_Space)
    hands.press(Qt.Key.Key_Return)
    _was_saved_and_printed(folder)


def test_with_the_mouse_alone(at_work, tmp_path):
    hands, window = at_work, at_work.window
    start, folder = window.start, tmp_path / "documents"

    hands.menu("new")
    hands.click(start.rows["units"].field.buttons["metric"])
    thickness = start.rows["thickness"].field
    assert start.rows["width"].field.text() == "23 cm"
    hands.click(thickness)
    hands.wheel(thickness, 10)
    assert thickness.text() == "4 cm"
    assert start.rows["strips"].field.text() == "6"
    hands.click(start.plan_it)
    _is_the_folder_bag(window)

    hands.click(window.selvage.dots[Stage.PIECE])
    hands.click(window.column.receipt.row("needed.width"))
    assert window.desk.seen.picked.key == "needed.width"
    _sees_why(window)

    box = window.ladder.cells["quilted"].box
    hands.click(box)
    hands.wheel(box, 1)
    assert box.is_empty()  # the wheel makes no measurement up
    hands.pointed(window.ladder.cells["quilted"], "It came out as planned")
    assert box.value.width is not None
    hands.click(box)
    hands.wheel(box, -30, share=0.8)
    assert "too small in height" in window.desk.plan.snags[0].title

    hands.click(window.snags.rows[0].buttons[0])
    assert "trim.small" not in " ".join(snag.key for snag in window.desk.plan.snags)

    hands.menu("save")
    hands.click(window.file_bar.go)
    hands.menu("open")
    lately = [window.file_bar.recent.itemAt(at).widget() for at in range(2)][1]
    assert lately.text() == "Tote for folder"
    hands.click(lately)
    assert window.desk.path == folder / "Tote for folder.tessil"

    hands.menu("worksheet")
    hands.click(window.preview.save)
    hands.click(window.file_bar.go)
    _was_saved_and_printed(folder)


@pytest.mark.usefixtures("beginning")
def test_the_three_answers_are_checked_where_they_are_given(hands):
    window = hands.window
    field = window.start.rows["thickness"].field
    hands.click(field)
    hands.type("0")
    hands.press(Qt.Key.Key_Return)
    assert "more than zero" in window.start.rows["thickness"].error.text()
    assert field.text() == "0"
    hands.click(window.start.plan_it)
    assert window.start.isVisible()
    hands.click(field)
    hands.type("1 1/4")
    hands.press(Qt.Key.Key_Return)
    assert window.start.rows["thickness"].error.text() == ""
    assert window.start.answers.thickness == read_length("1 1/4")
