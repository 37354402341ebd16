"""What the bench shows: the picture of a view, and the flags of its snags over it.

While letters are typed nobody looks for snags; the flags of the last look stay until the hand
rests.
"""

from __future__ import annotations

from tessil.drawing.picture import Item, Picture
from tessil.drawing.pictures import View, bare_picture, flagged, flags_of
from tessil.ui.desk import Desk


class BenchPicture:
    """The picture of the bench, the same object as long as nothing in it changes."""

    def __init__(self, desk: Desk) -> None:
        self._desk = desk
        self._bare: Picture | None = None
        self._flags: tuple[Item, ...] = ()
        self._whole: Picture | None = None

    def of(self, view: View, looked: bool = True) -> Picture:
        """The picture of a view; with the flags of before if no snags shall be ``looked`` for."""
        flags, told = self._flags, self._desk.told
        (bare,) = told("bench", lambda plan: [bare_picture(plan, view)], view)
        if looked:
            flags = told("flags", lambda plan: flags_of(plan, view), view)
        if self._whole is None or bare is not self._bare or flags is not self._flags:
            self._whole = flagged(bare, flags)
            self._bare, self._flags = bare, flags
        return self._whole
