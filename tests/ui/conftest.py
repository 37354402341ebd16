"""A real window, driven by keys and clicks."""

import gc
from copy import copy

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QContextMenuEvent, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.memory.recall import Memory
from tessil.ui import desk as desk_module
from tessil.ui import window as window_module
from tessil.ui.app import dress
from tessil.ui.window import LATE_MS, Window
from tests.conftest import job_tote


@pytest.fixture(scope="session")
def qapp(qapp):
    dress(qapp)
    return qapp


class Hands:
    """What a maker does at the window: keys go where the focus is, clicks where she points."""

    def __init__(self, window, qtbot):
        self.window, self.qtbot = window, qtbot

    @property
    def focus(self):
        return QApplication.focusWidget()

    def press(self, key, modifier=Qt.KeyboardModifier.NoModifier):
        QTest.keyClick(self.focus or self.window, key, modifier)
        QApplication.processEvents()

    def ctrl(self, key):
        self.press(key, Qt.KeyboardModifier.ControlModifier)

    def type(self, text):
        """Replace what stands in the field in hand, and rest."""
        self.focus.selectAll()
        with pytest.MonkeyPatch.context() as patch:
            at_once = window_module.LATE_MS == 0
            if at_once:  # after each whole text, not after each letter of it
                patch.setattr(window_module, "LATE_MS", LATE_MS)
            QTest.keyClick(self.focus, Qt.Key.Key_Delete)
            QTest.keyClicks(self.focus, text)
        if at_once and self.window.late.waits:
            self.window.late.now()
        QApplication.processEvents()

    def tab_to(self, widget):
        """Reach a widget by Tab alone, as without a mouse."""
        for _ in range(120):
            if self.focus is widget:
                return
            self.press(Qt.Key.Key_Tab)
        raise AssertionError(f"Tab never reaches {widget.objectName() or widget}")

    def click(self, widget, at=None):
        assert widget.isVisible(), f"{widget} cannot be seen"
        assert widget.isEnabled(), f"{widget} is disabled"
        QTest.mouseClick(
            widget,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            at or widget.rect().center(),
        )
        QApplication.processEvents()

    def menu(self, key):
        """Open the menu by its button and click one of its lines."""
        self.click(self.window.menu_button)
        menu = self.window.menu
        self.click(menu, menu.actionGeometry(self.window.acts[key]).center())

    def pointed(self, widget, words, at=None):
        """Right-click a widget and click the line of its menu that begins so."""
        place = at or widget.rect().center()
        event = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, place, widget.mapToGlobal(place))
        QApplication.sendEvent(widget, event)
        QApplication.processEvents()
        menu = self.window.manners.menu
        action = next(one for one in menu.actions() if one.text().startswith(words))
        self.click(menu, menu.actionGeometry(action).center())

    def wheel(self, widget, turns, share=0.5):
        """Turn the wheel over a widget: one notch a turn, up if positive."""
        at = QPointF(widget.width() * share, widget.height() / 2)
        for _ in range(abs(turns)):
            turn = QPoint(0, 120 if turns > 0 else -120)
            event = QWheelEvent(
                at,
                widget.mapToGlobal(at),
                QPoint(),
                turn,
                Qt.MouseButton.NoButton,
                Qt.KeyboardModifier.NoModifier,
                Qt.ScrollPhase.NoScrollPhase,
                False,
            )
            QApplication.sendEvent(widget, event)
        QApplication.processEvents()

    def choose(self, key, value):
        """Come to a choice by its keys: a list by arrows, segments by a click."""
        field = self.field(key)
        if hasattr(field, "buttons"):
            self.click(field.buttons[value])
            return
        assert field.isVisible(), f"{key} cannot be seen"
        self.click(field)
        row = field.findData(value)
        assert row >= 0, f"{key} offers no {value}"
        view = field.view()
        QTest.keyClick(view, Qt.Key.Key_Home)
        for _ in range(row):
            QTest.keyClick(view, Qt.Key.Key_Down)
        QTest.keyClick(view, Qt.Key.Key_Return)
        QApplication.processEvents()

    def leaf(self, key):
        """Turn to a leaf of the stage by its button."""
        self.click(self.window.column.leaves.buttons[key])

    def piece(self, key):
        """Where on the bench the middle of a piece is."""
        bench = self.window.bench
        outline = bench.picture.pieces[key]
        x = sum(x for x, _ in outline) / len(outline)
        y = sum(y for _, y in outline) / len(outline)
        return bench.surface().at((x, y)).toPoint()

    def field(self, key):
        """A choice of the open stage; at the brief the question that asks it is opened."""
        column = self.window.column
        for asked in [name for name in column.fields if name.startswith("talk.")]:
            if key in column.fields:
                break
            self.click(column.field(asked))
        return column.field(key)


@pytest.fixture(autouse=True)
def _documents(own_folders, tmp_path, monkeypatch):
    """The maker's folder of documents is there."""
    (tmp_path / "documents").mkdir()
    monkeypatch.setenv("XDG_DOCUMENTS_DIR", str(tmp_path / "documents"))


@pytest.fixture(autouse=True)
def _gone_for_good(qapp):
    """No event loop runs between tests: what is to be deleted later is deleted now."""
    yield
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


# What a window opens before it is shown, as `tessil --demo` does, by the fixture that asks for it.
OPENED = {
    "at_work": lambda window: window.open_demo("rehearsal-satchel"),
    "clutch_at_work": lambda window: window.open_demo("march-card-clutch"),
    "pouch_at_work": lambda window: window.open_demo("reed-pouch"),
    "kit_at_work": lambda window: window.open_demo(),
    "tote_at_work": lambda window: window.open_job(job_tote(id="mine"), None),
}


@pytest.fixture(scope="session")
def planned_before(qapp, tmp_path_factory):
    """What the first window that opened something leaves to be remembered of it, by the fixture
    that asked for it; that a memory changes nothing but the time is tested in tests/core/memory."""
    home = tmp_path_factory.mktemp("first")
    with pytest.MonkeyPatch.context() as patch:
        for name in ("STATE", "DATA", "CONFIG"):
            patch.setenv(f"XDG_{name}_HOME", str(home / name))
        first = Window()
        OPENED["at_work"](first)
        first.show()
        QApplication.processEvents()
        memory = first.desk.memory
        first.close()
        first.deleteLater()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    gc.collect()
    gc.freeze()  # the toolkit and all that windows need is loaded by now
    return {"at_work": memory}


@pytest.fixture
def beginning():
    """The window begins at its first page, as for a maker who opens nothing."""


@pytest.fixture
def window(qtbot, request, monkeypatch, planned_before):
    asked = next((name for name in OPENED if name in request.fixturenames), "")
    if asked in planned_before:
        monkeypatch.setattr(desk_module, "Memory", lambda: _copied(planned_before[asked]))
    if "late" not in request.fixturenames:  # all at once: what follows a hand is tested by itself
        monkeypatch.setattr(window_module, "LATE_MS", 0)
    made = Window()
    qtbot.addWidget(made)
    if asked:
        OPENED[asked](made)
    with monkeypatch.context() as patch:
        if "beginning" not in request.fixturenames:  # the first page is for tests that begin there
            patch.setattr(Window, "new_bag", lambda self: None)
        made.show()
    qtbot.waitExposed(made)
    made.activateWindow()
    QApplication.processEvents()
    if asked not in planned_before:
        planned_before[asked] = _copied(made.desk.memory)
    return made


def _copied(memory):
    """Another memory of the same."""
    other = Memory()
    other._kept, other._used = copy(memory._kept), copy(memory._used)
    other._plans = memory._plans
    return other


@pytest.fixture
def hands(window, qtbot):
    return Hands(window, qtbot)


def _opened():
    """The window with what ``OPENED`` has under the fixture's name."""

    @pytest.fixture
    def opened(hands):
        return hands

    return opened


at_work = _opened()  # the demo bag on the bench
clutch_at_work = _opened()  # the demo's clutch
pouch_at_work = _opened()  # the demo's pouch
kit_at_work = _opened()  # the demo's kit of four, its first bag on the bench
tote_at_work = _opened()  # a tote of one's own, with one's own empty logbook
