"""Looks for bags that could be made of a heap, beside the window's thread.

One search at a time; another heap ends it.  Knows offers; must not know how they are shown.
"""

from __future__ import annotations

import threading

from PySide6.QtCore import QObject, Signal

from tessil.core.proposals.offers import Asked, Offer, best, offer, ways, with_others
from tessil.core.proposals.said import Heap


class Offering(QObject):
    """``found`` tells the three best at the end, ``moved`` how far it is, from 0 to 1."""

    found = Signal(object)
    moved = Signal(float)
    _came = Signal(int, object, float)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._turn = 0
        self._thread: threading.Thread | None = None
        self._came.connect(self._take)
        self._gone = threading.Event()
        self.destroyed.connect(self._gone.set)
        self.looking = False

    def look(self, heap: Heap, asked: Asked) -> None:
        """Look for bags of that heap."""
        self.stop()
        self.looking = True
        self._thread = threading.Thread(
            target=self._run, args=(self._turn, heap, asked), daemon=True
        )
        self._thread.start()
        self.moved.emit(0.0)

    def stop(self) -> None:
        """Nobody waits for it any more; it ends with the bag in hand."""
        self._turn += 1
        self.looking = False

    def wait(self) -> None:
        """Give it up, and wait until it has ended."""
        self.stop()
        self.finish()

    def finish(self) -> None:
        """Wait for it to end; what it found is told once events are seen to."""
        if self._thread is not None:
            self._thread.join()

    def _is_waited_for(self, turn: int) -> bool:
        return turn == self._turn and not self._gone.is_set()

    def _run(self, turn: int, heap: Heap, asked: Asked) -> None:
        made, chosen = list[Offer](), list[Offer]()
        try:
            every = ways(heap)
            for at, laid in enumerate(every, start=1):
                one = offer(heap, asked, laid)
                if not self._is_waited_for(turn):
                    return
                if one is not None:
                    made.append(one)
                self._came.emit(turn, None, at / (len(every) + 1))
            chosen = [with_others(heap, asked, one) for one in best(made)]
        finally:  # whatever went wrong, nobody waits for ever
            if self._is_waited_for(turn):
                self._came.emit(turn, chosen, 1.0)

    def _take(self, turn: int, chosen: list[Offer] | None, share: float) -> None:
        if turn != self._turn:
            return
        if chosen is None:
            self.moved.emit(share)
            return
        self.looking = False
        self.found.emit(chosen)
