"""What the hand does on the pieces: take one, lay a print, swap two, turn, fill, pin.

Bench, basket and the bar above the bench all work through it.  Changes go to the desk; words
for the maker come by ``told``.
"""

from __future__ import annotations

from collections.abc import Callable

from msgspec.structs import replace
from PySide6.QtCore import QObject, Signal

from tessil.core.edits import Edit
from tessil.core.numbers.decided import Refused
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.acts.laying import PieceAt, fill_row, lock, paint, pieces_of, swap, turn
from tessil.core.planned import Plan
from tessil.core.quilting.acts.byhand import add_line, leave_out, move_line
from tessil.core.sandwich.acts.plying import move_ply, remove_ply
from tessil.core.snags import Stage
from tessil.core.words.refusals import first_refusal
from tessil.drawing.bands import on_panel, spot_in
from tessil.ui.desk import Desk

NOTHING = (Edit("", ()), "")


class Hand(QObject):
    """The one hand; it works on the piece in hand, or on the one clicked."""

    told = Signal(str)

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.desk = desk
        self._before: Plan | None = None  # as it was when the line in hand was taken

    def clicked(self, key: str) -> None:
        """A piece was clicked: what that does depends on the tool."""
        desk = self.desk
        if desk.seen.stage is Stage.CUT:
            self._lying(key)
        elif desk.seen.stage is Stage.LAYER:
            if key.startswith("ply:"):
                desk.take_ply(int(key.partition(":")[2]))
        elif desk.seen.stage is not Stage.PIECE or not key:
            self._take(key)
        elif desk.seen.tool == "lay":
            self.painted(key, desk.new_run())
        elif desk.seen.tool == "swap" and desk.seen.piece and desk.seen.piece != key:
            self._swap(desk.seen.piece, key)
            desk.select_piece("")
        else:
            self._take(key)

    def _lying(self, key: str) -> None:
        """A piece on the cloth is taken in hand, or let go."""
        at = int(key.partition(":")[2]) if key.startswith("laid:") else -1
        self.desk.see(replace(self.desk.seen, laid=-1 if at == self.desk.seen.laid else at))

    def _take(self, key: str) -> None:
        self.told.emit("")
        self.desk.select_piece(on_panel(key))

    def painted(self, key: str, run: str) -> None:
        """The print in hand goes over a piece; one stroke is one undo step."""
        desk = self.desk
        if not desk.seen.brush:
            self.told.emit("First click a print: it is then laid on every piece you touch.")
            return
        panel, zone, piece = spot_in(key)
        plan = desk.plan.panel(panel)
        patch = plan.piece_of(zone, piece)
        if patch is not None and patch.print != desk.seen.brush:
            self._do(paint(desk.project, plan, [(zone, piece)], desk.seen.brush), run)

    def lay(self, key: str) -> None:
        """A print was clicked: lay it on the piece in hand, or take it in hand to lay."""
        desk = self.desk
        panel = desk.plan.panel(desk.seen.panel)
        pieces = pieces_of(panel)
        if not pieces:
            self.told.emit("These pieces come from the scraps: their prints stand in the list.")
            return
        if desk.seen.tool == "lay":
            desk.take_tool("lay", key)
            return
        spot = self._spot()
        if spot is None and len(pieces) == 1:
            spot = next(iter(pieces))
        if spot is None:
            desk.take_tool("lay", key)
            self.told.emit("Now click the pieces it goes on, or draw over them.")
            return
        desk.hold_brush(key)
        self._do(paint(desk.project, panel, [spot], key))

    def swap_with(self, key: str) -> None:
        """Swap the piece in hand with another and keep it in hand; of layers, their order."""
        if self.desk.seen.stage is Stage.LAYER and key.startswith("ply:"):
            self._move_ply(int(key.partition(":")[2]))
            return
        if self.desk.seen.stage is Stage.PIECE and self.desk.seen.piece and key:
            self._swap(self.desk.seen.piece, key)
            self.desk.select_piece(key)

    # -- layers and lines --------------------------------------------------------

    def _move_ply(self, to: int) -> None:
        desk = self.desk
        panel = desk.plan.panel(desk.seen.panel)
        self._do(move_ply(desk.plan, panel, desk.seen.ply, 1 if to > desk.seen.ply else -1))
        desk.take_ply(to)

    def away(self) -> None:
        """Delete was pressed: the layer or the line in hand goes."""
        desk = self.desk
        panel = desk.plan.panel(desk.seen.panel)
        if desk.seen.stage is Stage.QUILT:
            self.leave_line_out()
        elif desk.seen.stage is Stage.LAYER and desk.seen.ply < len(panel.choices.layers.plies):
            self._do(remove_ply(desk.plan, panel, desk.seen.ply))

    def leave_line_out(self) -> None:
        """Leave the line in hand out of its pattern, or take it away if it is by hand."""
        desk = self.desk
        if not desk.seen.line:
            self.told.emit("First click a line on the bench.")
            return
        panel = desk.plan.panel(desk.seen.panel)
        key = desk.seen.line
        desk.take_line("")
        self._do(leave_out(desk.plan, panel, key))

    def take_line(self, key: str) -> None:
        """A line was clicked; what follows starts from how things are now."""
        desk = self.desk
        if desk.seen.stage is not Stage.QUILT:
            return
        self._before = desk.plan
        desk.take_line(key.partition(":")[2])

    def drag_line(self, key: str, dx: float, dy: float) -> None:
        """A line is dragged so far from where it was taken; one drag is one undo step."""
        desk, name = self.desk, key.partition(":")[2]
        before = self._before or desk.plan
        panel = before.panel(desk.seen.panel)
        across, down = panel.scale
        by = (dx * across, dy * down)
        made = self._made(lambda: move_line(before, panel, name, by))
        if made is None:
            return
        change, now = made
        self._do(change, f"line {name} {desk.run}")
        desk.hold_line(now if desk.plan.panel(desk.seen.panel).quilt.line(now) else "")

    def nudge_line(self, right: int, down: int) -> None:
        """An arrow moves the line in hand by a ruler mark."""
        desk = self.desk
        mark = float(desk.plan.marks.ruler.value)
        panel = desk.plan.panel(desk.seen.panel)
        by = (right * mark, down * mark)
        change, now = self._made(lambda: move_line(desk.plan, panel, desk.seen.line, by)) or NOTHING
        if change.changes:
            self._do(change, f"nudge line {desk.run}")
            desk.hold_line(now)
            desk.looked.emit()

    def draw_line(self, x1: float, y1: float, x2: float, y2: float) -> None:
        """A line was drawn on the bench, in inches of the pieced top."""
        desk = self.desk
        if desk.seen.stage is not Stage.QUILT:
            return
        panel = desk.plan.panel(desk.seen.panel)
        ends = panel.trimmed_at(x1, y1), panel.trimmed_at(x2, y2)
        made = self._made(lambda: (add_line(desk.plan, panel, *ends), ""))
        if made is not None:
            self._do(made[0])

    def _made(self, make: Callable[[], tuple[Edit, str]]) -> tuple[Edit, str] | None:
        """What the hand asked for and the line it then holds, or nothing and a sentence: a hand
        goes where no line can."""
        try:
            return make()
        except Refused as error:
            self.told.emit(first_refusal(error))
        except ValueError as error:
            self.told.emit(str(error))
        return None

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
        if self.desk.seen.stage is Stage.PIECE and 1 <= number <= len(prints):
            self.lay(prints[number - 1].key)

    def _with_piece(self, work: object) -> None:
        spot = self._spot()
        if self.desk.seen.stage is not Stage.PIECE:
            return
        if spot is None:
            self.told.emit("First click a piece on the bench.")
            return
        panel: PanelPlan = self.desk.plan.panel(self.desk.seen.panel)
        self._do(work(self.desk.project, panel, spot))  # type: ignore[operator]

    def _spot(self) -> PieceAt | None:
        if not self.desk.seen.piece:
            return None
        panel, zone, piece = spot_in(self.desk.seen.piece)
        return (zone, piece) if panel == self.desk.seen.panel else None

    def _do(self, change: Edit, run: str = "") -> None:
        self.told.emit(self.desk.attempt(change, run))
