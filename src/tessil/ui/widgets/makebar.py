"""The bar above the bench at the making stage: the step in hand, large, and what keeps it back."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QEvent, QObject, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from tessil.ui.maker import Maker
from tessil.ui.widgets.bench import Bench
from tessil.ui.widgets.ladderbar import LadderBar
from tessil.ui.widgets.pushes import push
from tessil.ui.widgets.words import Elided, Words

TALL = 760  # pixels: in a lower window the ladder is there where a step measures


class MakeKeys(QObject):
    """Keys on the bench that do steps and turn to others, while making is shown there."""

    def __init__(self, bench: Bench, maker: Maker, ladder: LadderBar) -> None:
        super().__init__(bench)
        self.maker, self.ladder = maker, ladder
        self.deeds: dict[int, Callable[[], object]] = {
            Qt.Key.Key_Space: maker.do_next,
            Qt.Key.Key_Backspace: maker.take_back,
            Qt.Key.Key_Left: partial(maker.turn, -1),
            Qt.Key.Key_Right: partial(maker.turn, 1),
            Qt.Key.Key_Return: maker.to_next,
        }
        bench.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            deed = self.deeds.get(event.key())
            if deed is not None and self.maker.sews and not event.modifiers():
                deed()
                return True
            if event.text().isdigit() and self.maker.sews and self._measure(event.text()):
                return True
        return super().eventFilter(watched, event)

    def _measure(self, digit: str) -> bool:
        """A digit begins what the step measures; False where it measures nothing."""
        cell = self.ladder.cells.get(self.maker.rung())
        if cell is None or not cell.box.isVisible():
            return False
        cell.box.begin(digit)
        return True


class MakeBar(QWidget):
    """The step that is looked at: what it is called, what is done, what keeps it back."""

    photo_wanted = Signal()

    def __init__(self, maker: Maker, bench: Bench, ladder: LadderBar) -> None:
        super().__init__()
        self.maker, self.ladder = maker, ladder
        self.keys = MakeKeys(bench, maker, ladder)
        self._of = ""
        self._told = ("", "")  # what to do, and at which step it was said
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        row = QHBoxLayout()
        row.setSpacing(6)
        column.addLayout(row)
        self.before = push("‹", "The step before (←)", partial(maker.turn, -1), "quiet")
        self.after = push("›", "The step after (→)", partial(maker.turn, 1), "quiet")
        self.title = Elided()
        self.title.setObjectName("steptitle")
        self.count = Words()
        self.count.setObjectName("soft")
        row.addWidget(self.before)
        row.addWidget(self.after)
        row.addWidget(self.title, 1)
        row.addWidget(self.count)
        second = QHBoxLayout()
        second.setSpacing(12)
        column.addLayout(second)
        self.words = Words()
        self.words.setObjectName("step")
        self.words.setWordWrap(True)
        second.addWidget(self.words, 1)
        self.back = push("Take it back", "It is not done (Backspace)", maker.take_back)
        self.do = push("Done", "The step is done (Space)", maker.do)
        self.do.setObjectName("main")
        second.addWidget(self.back)
        second.addWidget(self.do)
        third = QHBoxLayout()
        third.setSpacing(8)
        column.addLayout(third)
        self.with_it = Elided()
        self.with_it.setObjectName("figure")
        self.trouble = Words()
        self.trouble.setObjectName("error")
        self.trouble.setWordWrap(True)
        self.note = QLineEdit()
        self.note.setPlaceholderText("note…")
        self.note.setMaxLength(400)
        self.note.setMaximumWidth(220)
        self.note.setAccessibleName("A note to this step")
        self.note.setToolTip("What is to be remembered of this step")
        self.note.editingFinished.connect(self._note)
        self.photo = push("Photo…", "A photo of this step, kept with it", self.photo_wanted.emit)
        self.clock = push("Start the clock", "Time this step", self._toggle)
        self._tick = QTimer(self)
        self._tick.setInterval(1000)
        self._tick.timeout.connect(self._show_clock)
        self.sooner = push("Do it next", "This step comes next", maker.now)
        self.out = push("Leave it out", "This step is not made", maker.leave_out)
        self.wrong = push("It went wrong", "Do it again, with what rests on it", self._spoil)
        self.in_ = push("Take in again", "The last step left out is made", maker.take_in)
        third.addWidget(self.with_it, 1)
        third.addWidget(self.clock)
        third.addWidget(self.note)
        third.addWidget(self.photo)
        for button in (self.sooner, self.wrong, self.in_, self.out):
            third.addWidget(button)
        column.addWidget(self.trouble)
        self.caution = Words()
        self.caution.setObjectName("caution")
        self.caution.setWordWrap(True)
        column.addWidget(self.caution)

    def _toggle(self) -> None:
        self.maker.toggle_clock()
        (self._tick.start if self.maker.ticks else self._tick.stop)()
        self._show_clock()

    def _show_clock(self) -> None:
        """Minutes and seconds of the step, or what the button does."""
        seconds = int(self.maker.elapsed())
        running = self.maker.ticks
        words = f"{seconds // 60}:{seconds % 60:02}" if running or seconds else "Start the clock"
        self.clock.setText(words if running or not seconds else f"{words} ▸")
        self.clock.setToolTip("Let the clock rest" if running else "Time this step")

    def _spoil(self) -> None:
        """What is to be done is told until another step is looked at."""
        said = self.maker.spoil()
        self._told = (self._of, said)
        self.refresh()

    def _note(self) -> None:
        deed = self.maker.deed()
        if deed is None or deed.id != self._of:
            return
        kept = self.maker.desk.project.making.notes.get(deed.id, "")
        if self.note.text().strip() != kept:
            self.maker.note(self.note.text())

    def refresh(self) -> None:
        """Show the step as it is."""
        here, sews = self.maker.here, self.maker.sews
        self.setVisible(sews)
        room = self.window().height() >= TALL
        self.ladder.setVisible(not here or (sews and (room or self.maker.measures())))
        if not sews:
            return
        deed, made = self.maker.deed(), self.maker.desk.project.making
        standing = self.maker.standing()
        self.in_.setVisible(bool(made.skipped))
        self.back.setEnabled(standing.done > 0)
        self.note.setVisible(deed is not None)
        self.photo.setVisible(deed is not None)
        self.clock.setVisible(deed is not None)
        for button in (self.do, self.sooner, self.out, self.wrong):
            button.setVisible(deed is not None and button is not self.wrong)
        if deed is None:
            self.title.say("The bag is made" if standing.number else "Nothing to make")
            self.count.setText(f"{standing.done} of {standing.number} steps")
            self.with_it.say("")
            for text in (self.words, self.trouble, self.caution):
                text.setText("")
            self.trouble.setVisible(False)
            self.caution.setVisible(False)
            return
        self._show(deed.id, standing.number)

    def _show(self, id_: str, number: int) -> None:
        maker = self.maker
        deed = maker.deed()
        assert deed is not None
        title, sentence = maker.words(deed)
        is_done = maker.is_done()
        self.title.say(f"✓ {title}" if is_done else title)
        self.count.setText(f"{maker.place() + 1} of {number} · {maker.kind(deed)}")
        self.words.setText(sentence)
        self.with_it.say(maker.with_it(deed))
        trouble = maker.trouble()
        said = self._told[1] if self._told[0] == id_ else ""
        self.trouble.setText(said or trouble)
        self.trouble.setVisible(bool(said or trouble))
        warning = "" if said or trouble else maker.warning()
        self.caution.setText(warning and f"Before you begin: {warning}")
        self.caution.setVisible(bool(warning))
        self.wrong.setVisible(is_done)
        self.clock.setVisible(not is_done)
        self._show_clock()
        following = maker.standing().next
        self.do.setText("Done" if not trouble else "Do it all the same")
        self.do.setToolTip("The step is done (Space)" if not trouble else "By a click alone")
        self.do.setVisible(not is_done)
        self.sooner.setVisible(not is_done and following is not None and following.id != id_)
        self.out.setVisible(not is_done)
        if self._of != id_ or not self.note.hasFocus():
            self.note.setText(maker.desk.project.making.notes.get(id_, ""))
        self._of = id_
