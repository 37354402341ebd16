"""What the hand does on the pieces: take one, lay a print, swap two, turn, fill, pin.

Bench, basket and the bar above the bench all work through it.  Changes go to the desk; words
for the maker come by ``told``.
"""

from __future__ import annotations

from PySide6.QtCore import QObject, Signal

from tessil.core.edits import Edit
from tessil.core.panels import PanelPlan
from tessil.core.piecing.laying import Spot, fill_row, lock, paint, pieces_of, swap, turn
from tessil.core.snags import Stage
from tessil.drawing.bands import spot_in
from tessil.ui.desk import Desk


class Hand(QObject):
    """The one hand; it works on the piece in hand, or on the one clicked."""

    told = Signal(str)

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.desk = desk

    def clicked(self, key: str) -> None:
        """A piece was clicked: what that does depends on the tool."""
        desk = self.desk
        if desk.stage is not Stage.PIECE or not key:
            self._take(key)
        elif desk.tool == "lay":
            self.painted(key, desk.new_run())
        elif desk.tool == "swap" and desk.piece and desk.piece != key:
            self._swap(desk.piece, key)
            desk.select_piece("")
        else:
            self._take(key)

    def _take(self, key: str) -> None:
        self.told.emit("")
        self.desk.select_piece(key)

    def painted(self, key: str, run: str) -> None:
        """The print in hand goes over a piece; one stroke is one undo step."""
        desk = self.desk
        if not desk.brush:
            self.told.emit("First click a print: it is then laid on every piece you touch.")
            return
        panel, zone, piece = spot_in(key)
        plan = desk.plan.panel(panel)
        patch = plan.piece_of(zone, piece)
        if patch is not None and patch.print != desk.brush:
            self._do(paint(desk.project, plan, [(zone, piece)], desk.brush), run)

    def lay(self, key: str) -> None:
        """A print was clicked: lay it on the piece in hand, or take it in hand to lay."""
        desk = self.desk
        panel = desk.plan.panel(desk.panel)
        pieces = pieces_of(panel)
        if not pieces:
            self.told.emit("These pieces come from the scraps: their prints stand in the list.")
            return
        if desk.tool == "lay":
            desk.take_tool("lay", key)
            return
        spot = self._spot()
        if spot is None and len(pieces) == 1:
            spot = next(iter(pieces))
        if spot is None:
            desk.take_tool("lay", key)
            self.told.emit("Now click the pieces it goes on, or draw over them.")
            return
        desk.brush = key
        self._do(paint(desk.project, panel, [spot], key))

    def swap_with(self, key: str) -> None:
        """Swap the piece in hand with another and keep it in hand."""
        if self.desk.stage is Stage.PIECE and self.desk.piece and key:
            self._swap(self.desk.piece, key)
            self.desk.select_piece(key)

    def _swap(self, one: str, other: str) -> None:
        (panel, *first), (on, *second) = spot_in(one), spot_in(other)
        if panel != on:
            self.told.emit("Two pieces of one panel can be swapped.")
            return
        plan = self.desk.plan.panel(panel)
        self._do(swap(self.desk.project, plan, tuple(first), tuple(second)))  # type: ignore[arg-type]

    def turn(self) -> None:
        """Turn the piece in hand upside-down."""
        self._with_piece(turn)

    def fill_row(self) -> None:
        """Lay the print of the piece in hand on its whole row."""
        self._with_piece(fill_row)

    def pin(self) -> None:
        """Pin the piece in hand where it is, or take the pin out."""
        self._with_piece(lock)

    def lay_number(self, number: int) -> None:
        """Lay the print of that number, from 1."""
        prints = self.desk.project.prints
        if self.desk.stage is Stage.PIECE and 1 <= number <= len(prints):
            self.lay(prints[number - 1].key)

    def _with_piece(self, work: object) -> None:
        spot = self._spot()
        if self.desk.stage is not Stage.PIECE:
            return
        if spot is None:
            self.told.emit("First click a piece on the bench.")
            return
        panel: PanelPlan = self.desk.plan.panel(self.desk.panel)
        self._do(work(self.desk.project, panel, spot))  # type: ignore[operator]

    def _spot(self) -> Spot | None:
        if not self.desk.piece:
            return None
        panel, zone, piece = spot_in(self.desk.piece)
        return (zone, piece) if panel == self.desk.panel else None

    def _do(self, change: Edit, run: str = "") -> None:
        self.told.emit(self.desk.attempt(change, run))
