"""The desk: the open project, its plan, what is looked at, and the undo list.

Every change passes through ``attempt``: it is tried, planned, and only then put on the
desk, so that the last good plan always stays.  Knows no widgets.
"""

from __future__ import annotations

from pathlib import Path

from pydantic import ValidationError
from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QUndoCommand, QUndoStack

from tessil.core.edits import Edit, applied
from tessil.core.logbook.book import EMPTY, Book
from tessil.core.memory.recall import Memory
from tessil.core.plan import plan, with_panel
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.reading import Reading
from tessil.core.snags import Snag, Stage
from tessil.core.trouble import CannotPlan
from tessil.core.words.refusals import first_refusal
from tessil.drawing.bands import spot_in

Kept = Project | Book


class UndoStep(QUndoCommand):
    """One named change; typing on in the same field is one step.

    Keeps projects, not plans: a plan is quick to make again and large to keep.
    """

    def __init__(self, desk: Desk, after: Kept, made: Plan, words: str, run: str) -> None:
        super().__init__(words)
        self.desk = desk
        self.before: Kept = desk.project if isinstance(after, Project) else desk.book
        self.after = after
        self.fresh: Plan | None = made
        self.run = run

    def id(self) -> int:
        return 1 if self.run else -1

    def mergeWith(self, other: QUndoCommand) -> bool:
        if not isinstance(other, UndoStep) or other.run != self.run:
            return False
        self.after = other.after
        self.setText(other.text())
        other.let_go()
        if self.after == self.before:
            self.setObsolete(True)
            self.let_go()
        return True

    def let_go(self) -> None:
        """Hold no project any more.  The toolkit's binding never frees a step that was merged or
        written over, so it must not keep what is large."""
        self.before = self.after = EMPTY
        self.fresh = None

    def redo(self) -> None:
        self.desk.take_back(self.after, self.fresh)
        self.fresh = None

    def undo(self) -> None:
        self.desk.take_back(self.before)


MOST_STEPS = 1000  # that can be taken back; more would only fill memory


class Desk(QObject):
    """What the window shows.  ``planned`` follows any change of the project, ``looked`` any
    change of stage, panel, picked figure or piece, ``opened`` another project.  ``leaving``
    comes before another stage or panel, so that fields settle what belongs to this one.
    ``sketched`` follows a change that is only tried, as by a slider under the hand; ``booked`` a
    change of the logbook."""

    planned = Signal()
    looked = Signal()
    opened = Signal()
    leaving = Signal()
    sketched = Signal()
    booked = Signal()
    teaching = Signal()  # the logbook is about to change, and the plan with it

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.project = Project()
        self.book = EMPTY
        self.memory = Memory()
        self.plan = plan(self.project, memory=self.memory)
        self.sketch: Plan | None = None  # one panel planned anew while a slider is dragged
        self.path: Path | None = None
        self.is_open = False
        self.stage = Stage.BRIEF
        self.panel = self.plan.shape.leader
        self.picked: Reading | None = None
        self.snag: Snag | None = None
        self.piece = ""  # the bench's name of the piece in hand
        self.zone = 0  # the part of the panel that is asked about
        self.leaf: dict[Stage, str] = {}
        self.tool = "take"  # what a click on a piece does: take, lay, swap
        self.brush = ""  # the print that is laid
        self.side = "front"  # of the finished bag
        self.worn = ""  # the side on which the pieces are seen, or flat
        self.mark: int | None = None  # in hand, at the trimming stage
        self.ply = 0  # the layer in hand
        self.part = 0  # the part of the quilting that is asked about
        self.line = ""  # the line of quilting in hand
        self.draws = False  # whether a stroke on the bench draws a line
        self.stack = QUndoStack(self)
        self.stack.setUndoLimit(MOST_STEPS)
        self.run = 0

    def put(self, project: Project, book: Book, made: Plan) -> None:
        """Show a project with its book and plan; the undo steps call this."""
        other_book = book is not self.book
        self.project, self.book, self.plan, self.sketch = project, book, made, None
        if all(panel.key != self.panel for panel in made.panels):
            self.panel = made.shape.leader
        self.picked = self.snag = None
        parts = len(self.plan.panel(self.panel).parts)
        self.zone = min(self.zone, parts - 1)
        if self.piece and not self._is_there(self.piece):
            self.piece = ""
        if self.mark is not None and self.mark >= len(project.marks):
            self.mark = None
        there = self.plan.panel(self.panel)
        self.ply = max(min(self.ply, len(there.choices.layers.plies) - 1), 0)
        self.part = min(self.part, len(there.choices.quilt_zones))
        if self.line and there.quilt.line(self.line) is None:
            self.line = ""
        if other_book:
            self.booked.emit()
        self.planned.emit()

    def _push(self, step: UndoStep) -> None:
        """Onto the undo list; what could have been done again is written over."""
        for at in range(self.stack.index(), self.stack.count()):
            over = self.stack.command(at)
            if isinstance(over, UndoStep):
                over.let_go()
        self.stack.push(step)

    def take_back(self, kept: Kept, made: Plan | None = None) -> None:
        """Put a project or a book on the desk, as one step of the undo list."""
        project = kept if isinstance(kept, Project) else self.project
        book = kept if isinstance(kept, Book) else self.book
        self.put(project, book, made or plan(project, book, self.memory))

    def learn(self, book: Book) -> None:
        """Take a book that has grown by itself: no step to undo, the plan follows."""
        if book is not self.book:
            self.put(self.project, book, plan(self.project, book, self.memory))

    def _is_there(self, piece: str) -> bool:
        panel, zone, at = spot_in(piece)
        return self.plan.panel(panel).piece_of(zone, at) is not None

    def open(self, project: Project, path: Path | None, book: Book | None = None) -> str:
        """Begin with another project; returns a sentence, and changes nothing, if it fails."""
        book = self.book if book is None else book
        try:
            made = plan(project, book, self.memory)
        except CannotPlan as trouble:
            return trouble.sentence
        self.stack.clear()
        self.path = path
        self.is_open = True
        self.stage, self.panel, self.piece = Stage.BRIEF, made.shape.leader, ""
        self.zone, self.tool, self.brush, self.worn = 0, "take", "", ""
        self.ply, self.part, self.line, self.draws = 0, 0, "", False
        self.opened.emit()
        self.put(project, book, made)
        return ""

    def attempt(self, change: Edit, run: str = "") -> str:
        """Try an edit; returns the sentence that belongs beside its field, or nothing.

        Edits with the same ``run`` in a row become one undo step.
        """
        try:
            project = applied(self.project, change)
            if project == self.project:
                self._drop_sketch()
                return ""
            made = plan(project, self.book, self.memory)
        except ValidationError as error:
            return first_refusal(error)
        except CannotPlan as trouble:
            return trouble.sentence
        self._push(UndoStep(self, project, made, change.words, run))
        return ""

    def attempt_book(self, change: Edit, run: str = "") -> str:
        """Try a change of the logbook; the plan follows what it teaches."""
        try:
            book = applied(self.book, change)
            if book == self.book:
                return ""
            self.teaching.emit()
            made = plan(self.project, book, self.memory)
        except ValidationError as error:
            return first_refusal(error)
        except CannotPlan as trouble:
            return trouble.sentence
        self._push(UndoStep(self, book, made, change.words, run))
        return ""

    def try_out(self, change: Edit) -> str:
        """Show a change of the panel in hand at once, without planning the rest or keeping it."""
        try:
            project = applied(self.project, change)
            self.sketch = with_panel(self.plan, project, self.panel)
        except ValidationError as error:
            return first_refusal(error)
        except CannotPlan as trouble:
            return trouble.sentence
        self.sketched.emit()
        return ""

    def _drop_sketch(self) -> None:
        if self.sketch is not None:
            self.sketch = None
            self.planned.emit()

    @property
    def shown(self) -> Plan:
        """The plan to draw: the sketch under the hand, or what is settled."""
        return self.sketch or self.plan

    @property
    def asked(self) -> int:
        """The part that the open stage asks about."""
        return self.part if self.stage is Stage.QUILT else self.zone

    def new_run(self) -> str:
        """A mark for one stretch of typing."""
        self.run += 1
        return f"run {self.run}"

    def look(self, stage: Stage | None = None, panel: str | None = None) -> None:
        """Turn to a stage or a panel."""
        self.leaving.emit()
        if stage is not None:
            self.stage = stage
        if panel is not None and panel != self.panel:
            self.panel, self.piece, self.mark, self.zone = panel, "", None, 0
            self.ply, self.part, self.line = 0, 0, ""
        self.picked = self.snag = None
        self.looked.emit()

    def pick(self, reading: Reading | None) -> None:
        """Point at what a figure measures, or at nothing."""
        self.picked, self.snag = reading, None
        self.looked.emit()

    def show_snag(self, snag: Snag) -> None:
        """Go where a snag sits."""
        self.leaving.emit()
        self.stage = snag.stage
        if snag.leaf:
            self.leaf[snag.stage] = snag.leaf
        if snag.panel:
            self.panel = snag.panel
        self.picked, self.snag = None, snag
        self.looked.emit()

    def take_mark(self, mark: int | None) -> None:
        """Take a mark in hand."""
        if mark != self.mark:
            self.mark = mark
            self.run += 1
            self.looked.emit()

    def turn_bag(self, side: str) -> None:
        """Look at another side of the finished bag."""
        self.side = side
        self.looked.emit()

    def select_piece(self, piece: str) -> None:
        """Take one piece of the bag in hand; its panel and part come with it."""
        self.piece = piece
        if piece:
            panel, zone, _ = spot_in(piece)
            if (panel, zone) != (self.panel, self.zone):
                self.leaving.emit()
            self.panel, self.zone = panel, zone
        self.looked.emit()

    def turn_leaf(self, leaf: str) -> None:
        """Turn to another leaf of the open stage."""
        self.leaving.emit()
        self.leaf[self.stage] = leaf
        self.looked.emit()

    def turn_part(self, zone: int) -> None:
        """Ask about another part of the panel."""
        self.leaving.emit()
        if self.stage is Stage.QUILT:
            self.part, self.line = zone, ""
        else:
            self.zone, self.piece = zone, ""
        self.looked.emit()

    def take_ply(self, ply: int) -> None:
        """Take a layer in hand."""
        if ply != self.ply:
            self.leaving.emit()
        self.ply = ply
        self.looked.emit()

    def take_line(self, line: str) -> None:
        """Take a line of quilting in hand, or none."""
        if line != self.line:
            self.run += 1
        self.line = line
        self.looked.emit()

    def draw_lines(self, on: bool) -> None:
        """Whether a stroke on the bench draws a line."""
        self.draws, self.line = on, ""
        self.looked.emit()

    def see_worn(self, side: str) -> None:
        """See the pieces flat, or on a side of the finished bag."""
        self.worn = side
        self.looked.emit()

    def take_tool(self, tool: str, brush: str = "") -> None:
        """What a click on a piece does from now on."""
        self.tool = tool
        self.brush = brush or self.brush
        self.looked.emit()
