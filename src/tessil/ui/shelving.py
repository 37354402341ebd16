"""The shelf at the window: read when it is first needed, written when the hand rests.

A demo has a shelf of its own, which is not kept.  Knows the desk and the shelf's file.
"""

from __future__ import annotations

import datetime
from collections.abc import Callable
from uuid import uuid4

from PySide6.QtCore import QObject, Signal

from tessil.core.catalogue.prints import Print
from tessil.core.edits import Edit
from tessil.core.shelf.inhand import bias_taken_up, laid_down, taken_up, with_looks
from tessil.core.shelf.rows import MOST_LOOK, NOTHING, Keeper, Shelf
from tessil.ui.desk import Desk
from tessil.ui.rest import Rest

REST_MS, MOST_MS = 200, 1000
LOOK_SIDE = 480  # points of a photo that is kept on the shelf


def small_look(cloth: Print) -> Print:
    """A cloth as it is kept on the shelf: a photo with fewer points, since a shelf has many."""
    if cloth.photo is None or len(cloth.photo.data) <= MOST_LOOK:
        return cloth
    from tessil.drawing.photos import smaller

    return cloth.model_copy(update={"photo": smaller(cloth.photo, LOOK_SIDE, MOST_LOOK)})


class Shelving(QObject):
    """Keeps the desk's shelf: ``trouble`` says what went wrong with its file."""

    trouble = Signal(str)

    def __init__(self, desk: Desk, is_demo: Callable[[], bool]) -> None:
        super().__init__(desk)
        self.desk, self._is_demo = desk, is_demo
        self._own: Shelf | None = None  # the maker's, once it was read
        self._on_disk = NOTHING
        self._here = ""  # whose shelf is on the desk
        self._kept = True  # whether what is put on it can be kept
        self._rest = Rest(REST_MS, MOST_MS, self)
        self._rest.due.connect(self.flush)
        desk.shelved.connect(self._changed)

    def need(self) -> Shelf:
        """The shelf of what is on the desk."""
        here = "demo" if self._is_demo() else "own"
        if here != self._here:
            self._here = here
            self.desk.shelf = self._demo() if here == "demo" else self._read()
        return self.desk.shelf

    def _demo(self) -> Shelf:
        from tessil.files import shipped
        from tessil.files.shelffile import load_shelf

        return load_shelf(shipped.DEMO / "shelf.json")

    def _read(self) -> Shelf:
        from tessil.files.shelffile import begin_shelf

        if self._own is None:
            self._own, sentence = begin_shelf()
            self._on_disk = self._own
            if sentence:
                self._kept = not sentence.endswith("is not kept.")
                self.trouble.emit(sentence)
        return self._own

    def _changed(self) -> None:
        if self._here == "own":
            self._own = self.desk.shelf
            self._rest.touch()

    def flush(self) -> None:
        """Write what is new on the shelf now; what another window changed meanwhile is kept."""
        self._rest.stop()
        if self._own is None or self._own is self._on_disk or not self._kept:
            return
        from tessil.files.shelffile import keep_shelf

        made, sentence = keep_shelf(self._on_disk, self._own)
        if sentence:
            self.trouble.emit(sentence)
            return
        if made != self._own and self._here == "own":
            self.desk.shelf = made
            self.desk.shelved.emit()
        self._own = self._on_disk = made if made != self._own else self._own
        self._rest.stop()

    # -- what a bag has in hand ------------------------------------------------------------------

    def lay_down(self) -> str:
        """Scraps, offcuts and the pack of the bag in hand lie on the shelf for all bags."""
        shelf, today = self.need(), datetime.date.today().isoformat()
        after, change = laid_down(shelf, self.desk.plan, f"hand-{uuid4().hex[:8]}", today)
        after = self.with_looks(after)
        nothing = "Nothing lies by: no offcuts, no pack, no scraps that it is not pieced of."
        return self._moved(after, change, nothing) or "It lies on the shelf now, for all bags."

    def take_up(self, keeper: Keeper) -> str:
        """Scraps of the bag's prints are taken from the shelf, to piece courses of."""
        after, change = taken_up(self.need(), self.desk.plan, keeper)
        nothing = "No scrap of this bag's prints lies on the shelf."
        return self._moved(after, change, nothing) or "They stand in the list of scraps now."

    def take_bias(self, keeper: Keeper) -> str:
        """Pieces of the binding's cloth are taken from the shelf, to cut bias from."""
        after, change = bias_taken_up(self.need(), self.desk.plan, keeper)
        nothing = "No piece of the binding's cloth lies on the shelf."
        return self._moved(after, change, nothing) or "They stand among the pieces for bias now."

    def with_looks(self, after: Shelf) -> Shelf:
        """The shelf with the looks of the bag's cloths of which something is new there."""
        if after is self.desk.shelf:
            return after
        return with_looks(after, map(small_look, self.desk.project.prints))

    def _moved(self, after: Shelf, change: Edit, nothing: str) -> str:
        """The shelf and the bag changed in one step that can be taken back; a sentence if not."""
        if after is self.desk.shelf:
            return nothing
        self.desk.stack.beginMacro(change.words)
        try:
            sentence = self.desk.attempt(change)
            if not sentence:
                self.desk.attempt_shelf(after, change.words)
        finally:
            self.desk.stack.endMacro()
        return sentence
