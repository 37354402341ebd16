"""The bar above the bench at the cutting stage: which cloth, and the cut in hand, large."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from tessil.core.cutting.acts.byhand import Place
from tessil.core.cutting.acts.whole import Lying, Spread, Spreads
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.sheets.cuts import Stroke
from tessil.core.words.cuttings import cut_words
from tessil.drawing.cuttingview import name_of
from tessil.ui.cutter import Cutter
from tessil.ui.widgets.bench import Bench
from tessil.ui.widgets.choosers import Chooser, Tick
from tessil.ui.widgets.dressed import dress_anew
from tessil.ui.widgets.pushes import push
from tessil.ui.widgets.words import Elided, Words

STORE, COUNT_OFF = "Put what is left on the shelf", "It is used up"


RULER = Fraction(24)  # inches of the usual long ruler: common practice, no source


class CutKeys(QObject):
    """Keys on the bench that make cuts and turn to other cloths, while one is shown there."""

    def __init__(self, bench: Bench, cutter: Cutter) -> None:
        super().__init__(bench)
        self.bench = bench
        self.deeds: dict[int, Callable[[], object]] = {
            Qt.Key.Key_Space: partial(cutter.tick, 1),
            Qt.Key.Key_Backspace: partial(cutter.tick, -1),
            Qt.Key.Key_Left: partial(cutter.turn, -1),
            Qt.Key.Key_Right: partial(cutter.turn, 1),
            Qt.Key.Key_T: cutter.turn_piece,
            Qt.Key.Key_Return: lambda: cutter.take(not cutter.desk.seen.cut),
        }
        bench.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        picture = self.bench.picture
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            deed = self.deeds.get(event.key())
            if deed is not None and picture is not None and picture.cuts and not event.modifiers():
                deed()
                return True
        return super().eventFilter(watched, event)


class PieceRow(QWidget):
    """What can be done with the piece in hand on a cloth."""

    def __init__(self, cutter: Cutter) -> None:
        super().__init__()
        self.cutter = cutter
        self._for: object = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        self.name = Elided()
        self.name.setObjectName("figure")
        self.told = Words()
        self.told.setObjectName("error")
        self.told.setWordWrap(True)
        tip = "It lies the other way on its cloth (T)"
        self.turn = push("Turn it", tip, lambda: self.say(cutter.turn_piece()))
        self.send = Chooser((), self._sent)
        self.send.setAccessibleName("Cut it from another cloth")
        self.send.setMinimumContentsLength(14)
        self.send.setToolTip("Cut it from another cloth")
        self.swap = Chooser((), self._swapped)
        self.swap.setAccessibleName("Swap it with another piece")
        self.swap.setMinimumContentsLength(12)
        self.swap.setToolTip("It changes places with another piece")
        tip = "It was cut wrong: find what to cut it from again"
        self.wrong = push("Cut wrong", tip, lambda: self.say(cutter.spoil_piece()))
        row.addWidget(self.name)
        row.addWidget(self.told, 1)
        for widget in (self.send, self.swap, self.turn, self.wrong):
            row.addWidget(widget)

    def say(self, sentence: str) -> None:
        """What came of it: in the red of what cannot be only while the piece is still in hand."""
        name = "error" if self.cutter.piece() is not None else "soft"
        if self.told.objectName() != name:
            self.told.setObjectName(name)
            dress_anew(self.told)
        self.told.setText(sentence)
        self.setVisible(bool(sentence) or self.cutter.piece() is not None)

    def _sent(self, place: object, _words: str) -> str:
        if isinstance(place, Place):
            self.say(self.cutter.send_piece(place))
        return ""

    def _swapped(self, pair: object, _words: str) -> str:
        if isinstance(pair, tuple):
            self.say(self.cutter.swap_piece(*pair))
        return ""

    def refresh(self) -> None:
        """Show the piece in hand as it is."""
        piece, spread = self.cutter.piece(), self.cutter.spread()
        for widget in (self.name, self.send, self.swap, self.turn, self.wrong):
            widget.setVisible(piece is not None)
        if piece is not None and spread is not None and self._for is not piece:
            self.told.setText("")
            self._offer(piece, spread)
        self._for = piece
        self.setVisible(piece is not None or bool(self.told.text()))

    def _offer(self, piece: Lying, spread: Spread) -> None:
        notation = self.cutter.desk.plan.marks.notation
        size = notation.size(piece.box.w, piece.box.h)
        self.name.say(f"{name_of(piece)}, {size}")
        begun = spread.sheet.done > 0
        self.wrong.setVisible(begun)
        self.turn.setVisible(not begun)
        self.turn.setEnabled(piece.want.turns)
        self.send.setVisible(not begun)
        self.send.clear()
        self.send.addItem("Cut it from…", None)
        for place in self.cutter.places():
            self.send.addItem(self._place_words(place), place)
        others = self.cutter.partners() if not begun else ()
        self.swap.setVisible(bool(others))
        self.swap.clear()
        self.swap.addItem("Swap with…", None)
        for other, at in others:
            one = other.pieces[at]
            words = f"{name_of(one)}, {notation.size(one.box.w, one.box.h)}"
            self.swap.addItem(words, (other, at))

    def _place_words(self, place: Place) -> str:
        if not place.source:
            return "new cloth"
        size = self.cutter.desk.plan.marks.notation.size(place.width, place.length)
        return f"{self.cutter.place_words(place.source)}, {size}"


class CutBar(QWidget):
    """Turns to another cloth, shows the whole of it or the cut that comes next, ticks cuts off."""

    def __init__(self, cutter: Cutter, bench: Bench) -> None:
        super().__init__()
        self.cutter = cutter
        self.keys = CutKeys(bench, cutter)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        row = QHBoxLayout()
        row.setSpacing(6)
        column.addLayout(row)
        self.before = push("‹", "The cloth before (←)", partial(cutter.turn, -1), "quiet")
        self.after = push("›", "The next cloth (→)", partial(cutter.turn, 1), "quiet")
        self.cloth = Elided()
        self.cloth.setObjectName("figure")
        self.source = Elided()
        self.source.setObjectName("soft")
        for widget in (self.before, self.after, self.cloth, self.source):
            row.addWidget(widget)
        row.addStretch()
        self.pin = Tick("Keep as it is")
        self.pin.setToolTip("When the cutting is planned again, this cloth stays as it is")
        self.pin.clicked.connect(cutter.pin)
        row.addWidget(self.pin)
        row.addSpacing(8)
        self.whole = self._segment("Whole cloth", partial(cutter.take, False))
        self.hand = self._segment("Cut in hand", partial(cutter.take, True))
        for button in (self.whole, self.hand):
            row.addWidget(button)
        second = QHBoxLayout()
        second.setSpacing(12)
        column.addLayout(second)
        self.reading = Words()
        self.reading.setObjectName("reading")
        self.words = Words()
        self.words.setWordWrap(True)
        self.back = QPushButton("Take it back")
        self.back.setToolTip("The last cut is not made (Backspace on the bench)")
        self.back.clicked.connect(partial(self._tick, -1))
        self.made = QPushButton("Cut made")
        self.made.setObjectName("main")
        self.made.setToolTip("The next cut is made (Space on the bench)")
        self.made.clicked.connect(partial(self._tick, 1))
        self.store = QPushButton(STORE)
        self.store.clicked.connect(lambda: cutter.put_away())
        second.addWidget(self.reading)
        second.addWidget(self.words, 1)
        second.addWidget(self.store)
        second.addWidget(self.back)
        second.addWidget(self.made)
        self.piece = PieceRow(cutter)
        column.addWidget(self.piece)

    def _segment(self, words: str, work: object) -> QPushButton:
        button = QPushButton(words)
        button.setObjectName("segment")
        button.setCheckable(True)
        button.clicked.connect(work)
        return button

    def _tick(self, step: int, _checked: bool = False) -> None:
        self.cutter.tick(step)

    def refresh(self) -> None:
        """Show the cutting as it is."""
        found = self.cutter.spreads() if self.cutter.here else None
        spread = self.cutter.spread() if found is not None else None
        self.setVisible(spread is not None)
        if found is None or spread is None:
            return
        notation = self.cutter.desk.plan.marks.notation
        at = next(n for n, one in enumerate(found.spreads, start=1) if one is spread)
        self.cloth.say(f"{at} of {len(found.spreads)}: {spread.lot.name}")
        self.source.say(self.cutter.whence(spread))
        self.pin.setChecked(spread.sheet.stays)
        # One that is begun, or whose rest lies on the shelf, stays anyway.
        self.pin.setEnabled(not spread.sheet.done and not spread.sheet.stored)
        in_hand = self.cutter.desk.seen.cut
        self.whole.setChecked(not in_hand)
        self.hand.setChecked(in_hand)
        self._show_cut(found, spread, notation)
        self.piece.refresh()

    def _show_cut(self, found: Spreads, spread: Spread, notation: Notation) -> None:
        cuts = spread.parting.cuts
        done = min(spread.sheet.done, len(cuts))
        self.back.setEnabled(done > 0 and not spread.sheet.stored)
        self.made.setVisible(done < len(cuts))
        self.store.setVisible(done == len(cuts))
        self.store.setEnabled(not spread.sheet.stored)
        self.store.setText(STORE if spread.offcuts else COUNT_OFF)
        if done == len(cuts):
            self.reading.setText("✓")
            left = _left(spread, notation)
            self.words.setText(f"All {len(cuts)} cuts of this cloth are made. {left}")
            return
        cut = cuts[done]
        self.reading.setText(notation.read_off(cut.reading))
        self.words.setText(
            f"Cut {spread.first + done} of {found.cuts}: {_said(spread, cut, notation)}"
        )


def _said(spread: Spread, cut: Stroke, notation: Notation) -> str:
    """What one cut does: from where, how long, what lies by itself after it."""
    said = cut_words(cut.deep, cut.way == "along", cut.length, notation)
    if cut.reading > RULER:
        rest = notation.read_off(cut.reading - RULER)
        said += f", two rulers joined: {notation.read_off(RULER)} and {rest}"
    if cut.done >= 0:
        one = spread.pieces[cut.done]
        return f"{said}. It frees: {name_of(one)}, {notation.size(one.box.w, one.box.h)}"
    return said


def _left(spread: Spread, notation: Notation) -> str:
    """What is over of a cloth, worth keeping."""
    kept = [notation.size(box.w, box.h) for box in spread.offcuts]
    return f"Left to keep: {', '.join(kept)}." if kept else "Nothing is left worth keeping."
