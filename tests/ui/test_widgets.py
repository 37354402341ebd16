"""Fields, bench, bars and lists by themselves, driven by keys and clicks."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.project import job_of
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.ui.desk import Desk
from tessil.ui.widgets.choosers import Chooser, Segments
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import CountField, LengthField, MeasuredField, WordField
from tessil.ui.widgets.filebar import FileBar
from tessil.ui.widgets.receipt import Receipt
from tessil.ui.widgets.selvage import Selvage
from tessil.ui.widgets.snaglist import SnagList
from tests.conftest import tote
from tests.core.snag_cases import CASES

F = Fraction
INCH, METRIC = Notation("inch", F(1, 16)), Notation("metric", F(5, 127))


class Taker:
    """Takes values, refuses some, and shows them back as the desk would."""

    def __init__(self, refuse=lambda value: ""):
        self.refuse, self.values = refuse, []

    def __call__(self, value, run):
        sentence = self.refuse(value)
        if not sentence:
            self.values.append(value)
            self.field.show_value(value)
        return sentence


def _show(qtbot, field, taker=None):
    """The field in a window of its own, with another field to go to."""
    home = QWidget()
    column = QVBoxLayout(home)
    row = FieldRow("Size", field, "how large")
    other = QLineEdit()
    column.addWidget(row)
    column.addWidget(other)
    if taker is not None:
        taker.field = field
    qtbot.addWidget(home)
    home.show()
    home.activateWindow()
    qtbot.waitExposed(home)
    field.setFocus()
    qtbot.waitUntil(field.hasFocus)
    return row, other, home


def _length(qtbot, notation=INCH, optional=False, **taker):
    take = Taker(**taker)
    field = LengthField(lambda: notation, take, optional)
    row, other, home = _show(qtbot, field, take)
    field.show_value(F(3))
    return field, take, row, other, home


def _retype(field, text):
    field.selectAll()
    QTest.keyClicks(field, text)


def test_a_length_is_taken_while_it_is_typed(qtbot):
    field, take, *_ = _length(qtbot)
    _retype(field, "2 1/2")
    assert take.values[-1] == F(5, 2)
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert field.text() == "2½"


def test_a_half_typed_sum_is_no_mistake_yet(qtbot):
    field, _, row, *_ = _length(qtbot)
    _retype(field, "2+")
    assert row.error.text() == ""
    qtbot.waitUntil(lambda: "missing" in row.error.text(), timeout=2000)
    assert field.text() == "2+"


def test_a_refused_length_is_taken_back_but_its_text_stays(qtbot):
    field, take, row, other, _home = _length(qtbot, refuse=lambda v: "too large" if v > 20 else "")
    _retype(field, "25")
    assert take.values == [2]
    other.setFocus()
    assert row.error.text() == "too large"
    assert take.values[-1] == 3, "the 2 that was on the way to 25 is taken back"
    assert field.text() == "25"
    field.setFocus()
    QTest.keyClick(field, Qt.Key.Key_Escape)
    assert field.text() == "3"
    assert row.error.text() == ""


def test_the_desk_does_not_overwrite_what_is_being_typed(qtbot):
    field, _, *_ = _length(qtbot)
    _retype(field, "2+")
    field.show_value(F(9))
    assert field.text() == "2+"


def test_leaving_a_field_untouched_takes_nothing(qtbot):
    field, take, _, other, _home = _length(qtbot)
    field.show_value(F(318 * 5, 127))
    other.setFocus()
    assert take.values == []
    assert field.text() == "12.52"


@pytest.mark.parametrize(
    ("notation", "up", "down"),
    [(INCH, F(25, 8), F(23, 8)), (METRIC, F(77 * 5, 127), F(76 * 5, 127))],
)
def test_steps_go_to_the_next_mark(qtbot, notation, up, down):
    field, take, *_ = _length(qtbot, notation)
    QTest.keyClick(field, Qt.Key.Key_Up)
    assert take.values[-1] == up
    field.show_value(F(3))
    QTest.keyClick(field, Qt.Key.Key_Down)
    assert take.values[-1] == down


def test_an_optional_length_may_be_empty(qtbot):
    field, take, *_ = _length(qtbot, optional=True)
    field.clear()
    QTest.keyClicks(field, "4")
    QTest.keyClick(field, Qt.Key.Key_Backspace)
    assert take.values[-1] is None


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "whole number"),
        ("2.5", "whole number"),
        ("two", "whole number"),
        ("12345678901", "whole"),
    ],
)
def test_a_count_is_a_whole_number(qtbot, text, says):
    take = Taker()
    field = CountField(take)
    row, *_keep = _show(qtbot, field, take)
    field.show_value(2)
    field.clear()
    QTest.keyClicks(field, text or "x")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert says in row.error.text()


def test_a_count_steps_by_one(qtbot):
    take = Taker()
    field = CountField(take)
    _keep = _show(qtbot, field, take)
    field.show_value(2)
    QTest.keyClick(field, Qt.Key.Key_Up)
    assert take.values == [3]


def test_a_name_must_not_be_empty_or_endless(qtbot):
    take = Taker()
    field = WordField(take)
    row, *_keep = _show(qtbot, field, take)
    field.show_value("bag")
    for text, says in (("   ", "missing"), ("x" * 81, "at most 80")):
        _retype(field, text)
        QTest.keyClick(field, Qt.Key.Key_Return)
        assert says in row.error.text()


def test_a_measured_box_reads_both_sides(qtbot):
    take = Taker()
    field = MeasuredField(lambda: INCH, take)
    _keep = _show(qtbot, field, take)
    field.show_value(Got())
    assert field.text() == ""
    QTest.keyClicks(field, "15 1/8 x 12")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert take.values[-1] == Got(width=F(121, 8), height=F(12))
    assert field.text() == "15⅛ × 12"
    assert field.property("got")


def test_a_measured_box_steps_from_the_plan(qtbot):
    take = Taker()
    field = MeasuredField(lambda: INCH, take)
    _keep = _show(qtbot, field, take)
    field.planned = (F(241, 16), F(12))
    field.show_value(Got())
    QTest.keyClick(field, Qt.Key.Key_Up)
    assert take.values[-1] == Got(width=F(121, 8), height=F(12))
    field.setCursorPosition(0)
    QTest.keyClick(field, Qt.Key.Key_Down)
    assert take.values[-1].width == F(15)
    field.setCursorPosition(len(field.text()))
    QTest.keyClick(field, Qt.Key.Key_Down)
    assert take.values[-1].height == F(95, 8)


def test_choices_by_list_and_side_by_side(qtbot):
    for kind in (Chooser, Segments):
        take = Taker()
        field = kind((("a", "first"), ("b", "second")), take)
        _keep = _show(qtbot, field, take)
        field.show_value("b")
        if kind is Chooser:
            assert field.currentText() == "second"
            QTest.keyClick(field, Qt.Key.Key_Up)
        else:
            assert field.buttons["b"].isChecked()
            QTest.mouseClick(field.buttons["a"], Qt.MouseButton.LeftButton)
        assert take.values == ["a"]


def test_the_receipt_points_and_lets_go(qtbot):
    made = plan(tote())
    receipt = Receipt()
    qtbot.addWidget(receipt)
    receipt.show_readings(readings(made, Stage.QUILT, "front"), INCH, None)
    receipt.show()
    got = []
    receipt.picked.connect(got.append)
    row = receipt.row("quilt.gap")
    QTest.mouseClick(row, Qt.MouseButton.LeftButton)
    assert got[-1].key == "quilt.gap"
    QTest.mouseClick(row, Qt.MouseButton.LeftButton)
    assert got[-1] is None
    with pytest.raises(KeyError):
        receipt.row("no.such")


def test_a_long_working_wraps_and_makes_its_row_higher(qtbot):
    made = plan(tote())
    receipt = Receipt()
    qtbot.addWidget(receipt)
    receipt.show_readings(readings(made, Stage.EDGE, "front"), INCH, None)
    row = receipt.row("edge.cut")
    assert row.heightForWidth(220) > row.heightForWidth(700)


def test_snags_show_titles_reasons_and_fixes(qtbot):
    made = plan(CASES["trim.small.front.height"])
    snags = SnagList()
    qtbot.addWidget(snags)
    assert not snags.isVisible()
    snags.show_snags(made.snags)
    fixed = []
    snags.fixed.connect(fixed.append)
    button = snags.rows[0].buttons[0]
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert fixed[0].words == button.text()
    snags.show_snags(())
    assert not snags.isVisible()


def test_the_selvage_is_walked_by_arrows(qtbot):
    selvage = Selvage()
    qtbot.addWidget(selvage)
    selvage.show()
    selvage.activateWindow()
    turned = []
    selvage.turned.connect(turned.append)
    selvage.dots[Stage.BRIEF].setFocus()
    qtbot.waitUntil(selvage.dots[Stage.BRIEF].hasFocus)
    QTest.keyClick(selvage.dots[Stage.BRIEF], Qt.Key.Key_Down)
    assert turned == [Stage.PIECE]
    selvage.show_state(Stage.PIECE, ("brief",), {Stage.EDGE: (2, True)})
    assert selvage.dots[Stage.EDGE].accessibleName() == "Edge, open, 2 snags"
    assert selvage.dots[Stage.BRIEF].accessibleName() == "Brief, settled"


def test_the_file_bar_adds_the_suffix_and_reports_refusals(qtbot, tmp_path):
    bar = FileBar()
    qtbot.addWidget(bar)
    taken: list[Path] = []

    def accept(path):
        taken.append(path)
        return "" if len(taken) > 1 else "Not there."

    bar.ask("Save as", "Save", tmp_path / "bag", accept, True)
    QTest.keyClick(bar.line, Qt.Key.Key_Return)
    assert bar.error.text() == "Not there."
    assert bar.isVisible()
    QTest.mouseClick(bar.go, Qt.MouseButton.LeftButton)
    assert taken == [tmp_path / "bag.tessil"] * 2
    assert not bar.isVisible()


def test_an_empty_path_is_asked_for(qtbot, tmp_path):
    bar = FileBar()
    qtbot.addWidget(bar)
    bar.ask("Open", "Open", tmp_path, lambda path: "", False)
    bar.line.clear()
    QTest.mouseClick(bar.go, Qt.MouseButton.LeftButton)
    assert "Type where" in bar.error.text()


def test_a_desk_keeps_its_last_good_plan(qtbot):
    from tessil.core.edits import edit

    desk = Desk()
    assert desk.open(job_of(tote()), None) == ""
    before = desk.plan
    assert "more than zero" in desk.attempt(edit("", ("hold.things.0.width", F(0))))
    assert "no notch" in desk.attempt(
        edit("", ("shape.sizes.depth", F(1, 16)), ("seams.corner", F(1, 2)))
    )
    assert desk.plan is before
    assert not desk.stack.canUndo()
    odd = tote(shape=tote().shape.model_copy(update={"kind": "balloon"}))
    assert "not one this Tessil knows" in desk.open(job_of(odd), None)
    assert desk.plan is before


def test_a_long_undo_list_comes_all_the_way_back(qtbot):
    from tessil.core.edits import edit

    desk = Desk()
    desk.open(job_of(tote()), None)
    start = desk.project
    for bags in range(2, 60):
        assert desk.attempt(edit(f"Make {bags}", ("bags", bags))) == ""
    assert desk.stack.undoText() == "Make 59"
    while desk.stack.canUndo():
        desk.stack.undo()
    assert desk.project == start
    while desk.stack.canRedo():
        desk.stack.redo()
    assert desk.project.bags == 59
