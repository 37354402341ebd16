"""Everything fits, for every bag, stage and leaf, in both units, in windows small and large; Tab
goes as one reads; what has the focus is seen to have it."""

from itertools import pairwise

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QAccessible
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QWidget

from tessil.core.cutting.acts.whole import plan_whole
from tessil.core.edits import edit
from tessil.core.numbers.exact import Fraction
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.wording import Box, Ground
from tessil.ui import settings
from tessil.ui.app import _resize_texts
from tessil.ui.stages import LEAVES
from tessil.ui.widgets.choosers import Tick
from tests.conftest import DEMO, HUNT
from tests.ui.fitting import not_fitting

BAGS = sorted(path.stem for path in DEMO.parent.glob("*.tessil") if "kit" not in path.stem)
# The least window, of one bag a large one too; a long hunt looks at every bag in all of it.
SIZES = {(1024, 640): ("metric",)}
LARGE = {(1920, 1080): ("inch",)}
ALL = {(1024, 640): ("metric", "inch"), (1280, 800): ("inch",), (1920, 1080): ("inch",)}


def _settle(window=None):
    while window is not None and window.cutter.first.laying:
        QTest.qWait(5)
    for _ in range(5):
        QApplication.processEvents()


def _places(window):
    for stage in Stage:
        for leaf in [key for key, _ in LEAVES.get(stage, ())] or [""]:
            yield stage, leaf, window.desk.plan.shape.leader
    for panel in window.desk.plan.panels[1:]:
        yield Stage.QUILT, "lines", panel.key
        yield Stage.TRIM, "", panel.key


@pytest.mark.parametrize("bag", BAGS)
def test_everything_fits(window, bag):
    window.open_demo(bag)
    sizes = ALL if HUNT > 1 else SIZES | (LARGE if bag == "mute-sack" else {})
    wrong = [line for size, units in sizes.items() for line in _wrong(window, size, units)]
    assert wrong == []


def _wrong(window, size, both):
    """A line for each thing that does not fit a window of this size."""
    window.resize(*size)
    for units in both:
        if window.desk.project.units != units:
            window.change_units()
        for stage, leaf, panel in _places(window):
            window.desk.look(stage=stage, panel=panel)
            if leaf:
                window.desk.turn_leaf(leaf)
            _settle(window)
            where = (size, window.desk.project.units, str(stage), leaf, panel)
            yield from ((*where, line) for line in not_fitting(window))


def test_a_planned_cutting_fits_the_least_window(window):
    window.open_demo()
    window.resize(1024, 640)
    window.desk.look(stage=Stage.CUT)
    made = plan_whole(window.cutter.lots(), (), window.desk.plan.marks, 0.0)
    window.desk.attempt(edit("", ("cutting", made)))
    wrong = []
    for in_hand in (False, True):
        window.cutter.take(in_hand)
        for _ in made.sheets:
            window.cutter.turn(1)
            _settle(window)
            wrong += not_fitting(window)
    assert wrong == []


@pytest.mark.parametrize("size", [(1280, 800), (1100, 700), (1024, 640)], ids=str)
def test_the_finished_size_is_whole_however_long_its_figures_are(window, size):
    window.open_demo("rehearsal-satchel")
    window.resize(*size)
    for units in ("inch", "metric"):
        for wide in (Fraction(9), Fraction(12), Fraction(321, 16)):
            change = ("hold.things.0.width", wide), ("units", units)
            assert window.desk.attempt(edit("", *change)) == ""
            _settle(window)
            label = window.finished
            assert label.text().startswith("finished ")
            assert "…" not in label.text()
            assert label.fontMetrics().horizontalAdvance(label.text()) <= label.width()


@pytest.mark.parametrize(("share", "size"), [(0.9, (1600, 1000)), (1.5, (1100, 700))], ids=str)
def test_every_text_moves_with_its_setting(at_work, qapp, share, size):
    window = at_work.window
    window.resize(*size)
    before = window.column.receipt.rows[0].sizeHint().height(), window.column.width()
    try:
        _resize_texts(qapp, window, round((share - 1) / settings.STEP))
        assert settings.text_size() == share
        assert round(13 * share) == theme.TEXT
        window.desk.look(stage=Stage.QUILT)
        _settle(window)
        after = window.column.receipt.rows[0].sizeHint().height(), window.column.width()
        assert (after[0] > before[0]) == (share > 1)
        assert after[1] == pytest.approx(before[1] * share, rel=0.12)
        on_bench = [line for line in not_fitting(window) if " lies " in line]
        assert on_bench == []
    finally:
        settings.keep_text_size(1.0)
        _resize_texts(qapp, window, 0)
    assert theme.TEXT == 13


def test_words_move_aside_or_wait_for_room():
    """By hand: two boxes in one place, a third that has no room left in so small a ground."""
    ground = Ground(Box(0, 0, 60, 22))
    first = ground.place(Box(10, 0, 40, 10))
    second = ground.place(Box(10, 0, 40, 10))
    assert (first.left, first.top) == (10, 0)
    assert second.top >= 10
    assert not first.meets(second)
    assert ground.place(Box(10, 0, 40, 10)) is None
    assert Ground(None).place(Box(-5, -5, 10, 10)) == Box(-5, -5, 10, 10)
    assert Ground(Box(20, 20, 100, 100)).place(Box(15, 15, 30, 20)) == Box(20, 20, 30, 20)


def _tabs(window, first):
    """Where Tab goes from a widget, until it comes round."""
    first.setFocus(Qt.FocusReason.TabFocusReason)
    found = [first]
    for _ in range(200):
        QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Tab)
        QApplication.processEvents()
        focus = QApplication.focusWidget()
        if focus is first:
            break
        found.append(focus)
    return found


def test_tab_goes_as_one_reads(at_work):
    """Stage, leaves, choices, figures, snags: each before the next."""
    window = at_work.window
    for stage in Stage:
        window.desk.look(stage=stage)
        QApplication.processEvents()
        order = _tabs(window, window.selvage.dots[stage])
        groups = [
            list(window.column.leaves.buttons.values()),
            [row.field for row in window.column.fields.values()],
            window.column.receipt.rows,
            [row.head for row in window.snags.rows],
        ]
        places = [[order.index(w) for w in group if w in order] for group in groups]
        places = [group for group in places if group]
        assert places
        assert all(max(one) < min(other) for one, other in pairwise(places))
        at_work.press(Qt.Key.Key_F7)
        assert window.column.isAncestorOf(QApplication.focusWidget())


@pytest.mark.parametrize("stage", [Stage.BRIEF, Stage.PIECE, Stage.QUILT, Stage.EDGE])
def test_what_has_the_focus_is_seen_to_have_it(at_work, stage):
    window = at_work.window
    window.desk.look(stage=stage)
    QApplication.processEvents()
    tried = 0
    for widget in window.work.findChildren(QWidget):
        reached = widget.focusPolicy() & Qt.FocusPolicy.TabFocus
        if not (widget.isVisible() and widget.isEnabled() and reached):
            continue
        (window.units_button if widget is window.menu_button else window.menu_button).setFocus()
        QApplication.processEvents()
        before = widget.grab().toImage()
        widget.setFocus(Qt.FocusReason.TabFocusReason)
        QApplication.processEvents()
        if widget.hasFocus():
            assert widget.grab().toImage() != before, widget.accessibleName()
            tried += 1
    assert tried > 20


def test_what_can_be_reached_has_a_name_and_a_role(at_work):
    window = at_work.window
    cases = list(Stage)
    assert cases
    for stage in cases:
        window.desk.look(stage=stage)
        QApplication.processEvents()
        for widget in window.work.findChildren(QWidget):
            if not widget.isVisible() or not widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
                continue
            told = QAccessible.queryAccessibleInterface(widget)
            assert told.text(QAccessible.Text.Name), widget
            if isinstance(widget, QAbstractButton) and widget.autoExclusive():
                assert told.role() == QAccessible.Role.RadioButton


def test_a_tick_answers_on_its_whole_row(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.PIECE)
    _settle()
    tick = next(row.field for row in window.column.fields.values() if isinstance(row.field, Tick))
    was = tick.isChecked()
    at_work.click(tick, QPoint(tick.width() - 3, tick.height() // 2))
    assert tick.isChecked() != was


def test_an_error_lies_below_its_field_and_makes_nothing_wider(at_work):
    window = at_work.window
    window.resize(1100, 700)
    window.desk.look(stage=Stage.QUILT)
    _settle()
    row = window.column.fields["panel.quilting.gap"]
    at_work.click(row.field)
    at_work.type("twelve and a half and then some more of it")
    at_work.press(Qt.Key.Key_Return)
    _settle()
    assert row.error.isVisible()
    assert row.error.geometry().top() >= row.field.geometry().bottom()
    assert row.error.heightForWidth(row.error.width()) <= row.error.height()
    assert not [line for line in not_fitting(window) if "column" in line]
