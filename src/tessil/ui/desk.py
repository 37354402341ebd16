"""The desk: the open project, its plan, what is looked at, and the undo list.

Every change passes through ``attempt``: it is tried, planned, and only then put on the
desk, so that the last good plan always stays.  Knows no widgets.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from contextlib import suppress
from pathlib import Path
from typing import TypeVar

from msgspec.structs import replace
from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QUndoCommand, QUndoStack

from tessil.core.edits import Edit, applied
from tessil.core.logbook.book import EMPTY, Book
from tessil.core.memory.recall import Memory
from tessil.core.numbers.decided import Refused, usual
from tessil.core.numbers.records import Record
from tessil.core.plan import plan
from tessil.core.planned import PARTS, Plan
from tessil.core.project import MOST_IN_A_JOB, Job, OneBag, Project
from tessil.core.reading import Reading
from tessil.core.shelf.rows import NOTHING, Shelf, merged_shelves
from tessil.core.snags import Snag, Stage
from tessil.core.trouble import CannotPlan
from tessil.core.words.refusals import first_refusal
from tessil.drawing.handview import stand_of
from tessil.drawing.projecting import Stand
from tessil.ui.seen import Seen

T = TypeVar("T")


class Work(Record, frozen=True, dict=True):
    """A job, which of its bags is in hand, and that bag with what it shares."""

    job: Job
    at: int
    project: Project


def work_on(job: Job, at: int = 0) -> Work:
    """One bag of a job in hand."""
    return Work(job, at, job.project(at))


Kept = Work | Book | Shelf


class UndoStep(QUndoCommand):
    """One named change; typing on in the same field is one step.

    Keeps jobs, not plans: a plan is quick to make again and large to keep.
    """

    def __init__(self, desk: Desk, after: Kept, made: Plan | None, words: str, run: str) -> None:
        super().__init__(words)
        self.desk = desk
        self.before = desk.kept_like(after)
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
        """Hold no job any more.  The toolkit's binding never frees a step that was merged or
        written over, so it must not keep what is large."""
        self.before = self.after = EMPTY
        self.fresh = None

    def redo(self) -> None:
        self.desk.take_back(self._onto(self.before, self.after), self.fresh)
        self.fresh = None

    def undo(self) -> None:
        self.desk.take_back(self._onto(self.after, self.before))

    def _onto(self, left: Kept, taken: Kept) -> Kept:
        """What to put on the desk: of a shelf only what this step changes, since another window may
        have put something there meanwhile."""
        if isinstance(left, Shelf) and isinstance(taken, Shelf):
            return merged_shelves(left, taken, self.desk.shelf)
        return taken


MOST_MEMORIES = 4  # of bags; more would only fill memory
MOST_STEPS = 1000  # that can be taken back; more would only fill memory


class Desk(QObject):
    """What the window shows.  ``planned`` follows any change of the project, ``looked`` any
    change of stage, panel, picked figure or piece, ``opened`` another project.  ``leaving``
    comes before another stage or panel, so that fields settle what belongs to this one.
    ``sketched`` follows a change that is only tried, as by a slider under the hand; ``booked`` a
    change of the logbook."""

    planned = Signal()
    looked = Signal()
    turned = Signal()  # the bag in the hand, and nothing else
    opened = Signal()
    leaving = Signal()
    sketched = Signal()
    booked = Signal()
    shelved = Signal()  # the shelf changed
    teaching = Signal()  # the logbook is about to change, and the plan with it

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.work = work_on(usual(Job))
        self.book = EMPTY
        self.shelf = NOTHING
        self.memories: dict[int, Memory] = {}
        self._plan: Plan | None = None
        self.sketch: Plan | None = None  # the plan of what a slider shows under the hand
        self.path: Path | None = None
        self.is_open = False
        self.seen = Seen("")
        self.stack = QUndoStack(self)
        self.stack.setUndoLimit(MOST_STEPS)
        self.run = 0

    @property
    def plan(self) -> Plan:
        """The last good plan; before anything is open, that of an empty bag."""
        if self._plan is None:
            self._plan = self._planned(self.work, self.book)
        return self._plan

    @property
    def job(self) -> Job:
        """The document."""
        return self.work.job

    @property
    def at(self) -> int:
        """Which of the job's bags is in hand."""
        return self.work.at

    @property
    def project(self) -> Project:
        """The bag in hand with what it shares."""
        return self.work.project

    @property
    def memory(self) -> Memory:
        """What was computed for the bag in hand."""
        return self._memory(self.at)

    def _memory(self, at: int) -> Memory:
        """The memory of one bag; those of a few bags are kept."""
        memory = self.memories.pop(at, None) or Memory()
        self.memories[at] = memory
        while len(self.memories) > MOST_MEMORIES:
            del self.memories[next(iter(self.memories))]
        return memory

    def _planned(self, work: Work, book: Book) -> Plan:
        return plan(work.project, book, self._memory(work.at))

    def put(self, work: Work, book: Book, made: Plan) -> None:
        """Show a bag of a job with its book and plan; the undo steps call this."""
        other_book = book is not self.book
        self.work, self.book, self._plan, self.sketch = work, book, made, None
        self.seen = self.seen.of(made)
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

    def kept_like(self, kept: Kept) -> Kept:
        """What stands on the desk in the place of such a thing."""
        if isinstance(kept, Shelf):
            return self.shelf
        return self.work if isinstance(kept, Work) else self.book

    def take_back(self, kept: Kept, made: Plan | None = None) -> None:
        """Put a job, a book or a shelf on the desk, as one step of the undo list."""
        if isinstance(kept, Shelf):
            self.shelf = kept
            self.shelved.emit()
            return
        work = kept if isinstance(kept, Work) else self.work
        book = kept if isinstance(kept, Book) else self.book
        self.put(work, book, made or self._planned(work, book))

    def learn(self, book: Book) -> None:
        """Take a book that has grown by itself: no step to undo, the plan follows."""
        if book is not self.book:
            self.put(self.work, book, self._planned(self.work, book))

    def open(self, job: Job, path: Path | None, book: Book | None = None) -> str:
        """Begin with another job, at the first of its bags that can be planned; returns a sentence,
        and changes nothing, if none can."""
        book, sentence = self.book if book is None else book, ""
        for at in range(len(job.bags)):
            work, memory = work_on(job, at), Memory()
            try:
                made = plan(work.project, book, memory).complete()
            except CannotPlan as trouble:
                sentence = sentence or trouble.sentence
                continue
            self.stack.clear()
            self.memories = {at: memory}
            self.path = path
            self.is_open = True
            self.seen = self.seen.opened(made)
            self.opened.emit()
            self.put(work, book, made)
            return ""
        return sentence

    def turn_to(self, at: int) -> str:
        """Take another bag of the job in hand; a sentence if it cannot be planned."""
        self.leaving.emit()
        work = work_on(self.job, at % len(self.job.bags))
        try:
            made = self._planned(work, self.book)
        except CannotPlan as trouble:
            return f"{work.project.name}: {trouble.sentence}"
        self.seen = self.seen.opened(made)
        self.put(work, self.book, made)
        return ""

    def add_bag(self, bag: OneBag, words: str) -> str:
        """One bag more, after the one in hand; a sentence if it cannot be planned."""
        bags = self.job.bags
        if len(bags) >= MOST_IN_A_JOB:
            return f"A job holds at most {MOST_IN_A_JOB} bags."
        at = self.at + 1
        return self._have_bags((*bags[:at], bag, *bags[at:]), at, words)

    def remove_bag(self) -> str:
        """The bag in hand goes from the job; the last one stays."""
        bags, at = self.job.bags, self.at
        if len(bags) == 1:
            return "A job has at least one bag."
        words = f"Remove {bags[at].name}"
        return self._have_bags((*bags[:at], *bags[at + 1 :]), max(at - 1, 0), words)

    def _have_bags(self, bags: tuple[OneBag, ...], at: int, words: str) -> str:
        return self.have_job(self.job.model_copy(update={"bags": bags}), at, words)

    def have_job(self, job: Job, at: int, words: str) -> str:
        """The job with other bags, one of them in hand; a sentence if that cannot be planned."""
        self.leaving.emit()
        work = work_on(job, at)
        self.memories.clear()
        try:
            made = self._planned(work, self.book)
        except CannotPlan as trouble:
            return trouble.sentence
        self._push(UndoStep(self, work, made, words, ""))
        return ""

    def measured_plans(self) -> list[Plan]:
        """The plans of all bags that were measured, and of the one in hand."""
        made = [self.plan]
        for at, bag in enumerate(self.job.bags):
            project = self.job.project(at)
            for nth in (*([0] if bag.measured else []), *map(int, bag.copies)):
                if (at, nth) != (self.at, self.project.nth):
                    with suppress(CannotPlan):
                        made.append(plan(project.model_copy(update={"nth": nth}), self.book))
        return made

    def plan_of(self, at: int) -> Plan:
        """The plan of one bag of the job; raises CannotPlan."""
        if at == self.at:
            return self.plan
        return plan(self.job.project(at), self.book, self._memory(at))

    def take_one(self, nth: int) -> str:
        """Measure one of the bags made alike from now on, or all of them with 0."""
        self.leaving.emit()
        work = replace(self.work, project=self.project.model_copy(update={"nth": nth}))
        try:
            made = self._planned(work, self.book)
        except CannotPlan as trouble:
            return trouble.sentence
        self.put(work, self.book, made)
        return ""

    def rename_job(self, name: str, run: str = "") -> str:
        """What the bags are called together."""
        try:
            job = Job(**{**dict(self.job), "name": name})
        except Refused as error:
            return first_refusal(error)
        if job != self.job:
            work = work_on(job, self.at)
            self._push(UndoStep(self, work, self.plan, "Name the job", run))
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
            if project.nth > project.bags:
                project = project.model_copy(update={"nth": 0})
            work = Work(self.job.holding(project, self.at), self.at, project)
            made = self._planned(work, self.book)
        except Refused as error:
            return first_refusal(error)
        except CannotPlan as trouble:
            return trouble.sentence
        self._push(UndoStep(self, work, made, change.words, run))
        return ""

    def attempt_book(self, change: Edit, run: str = "") -> str:
        """Try a change of the logbook; the plan follows what it teaches."""
        try:
            book = applied(self.book, change)
            if book == self.book:
                return ""
            self.teaching.emit()
            made = self._planned(self.work, book)
        except Refused as error:
            return first_refusal(error)
        except CannotPlan as trouble:
            return trouble.sentence
        self._push(UndoStep(self, book, made, change.words, run))
        return ""

    def attempt_shelf(self, shelf: Shelf, words: str, run: str = "") -> None:
        """Another shelf, as one step that can be taken back; steps of one run are one."""
        if shelf != self.shelf:
            self._push(UndoStep(self, shelf, None, words, run))

    def try_out(self, change: Edit) -> str:
        """Show what a change would bring, without keeping it."""
        try:
            project = applied(self.project, change)
            self.sketch = plan(project, self.book, self._memory(self.work.at))
        except Refused as error:
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

    def told(
        self, key: Hashable, work: Callable[[Plan], Iterable[T]], asked: object = None
    ) -> tuple[T, ...]:
        """What is read or drawn from the plan on show: the same object as long as nothing that was
        read has changed, so that what shows it can be left alone."""
        return self.memory.reading(("told", key), work, self.shown, PARTS, asked)

    def new_run(self) -> str:
        """A mark for one stretch of typing."""
        self.run += 1
        return f"run {self.run}"

    def _see(self, seen: Seen) -> None:
        self.seen = seen
        self.looked.emit()

    def see(self, seen: Seen) -> None:
        """Look at something else of the same plan."""
        if seen != self.seen:
            self._see(seen)

    def look(self, stage: Stage | None = None, panel: str | None = None) -> None:
        """Turn to a stage or a panel."""
        self.leaving.emit()
        self._see(self.seen.at(stage, panel))

    def pick(self, reading: Reading | None) -> None:
        """Point at what a figure measures, or at nothing."""
        self._see(replace(self.seen, picked=reading, snag=None))

    def show_snag(self, snag: Snag) -> None:
        """Go where a snag sits."""
        self.leaving.emit()
        self._see(self.seen.at_snag(snag))

    def take_mark(self, mark: int | None) -> None:
        """Take a mark in hand."""
        if mark != self.seen.mark:
            self.run += 1
            self._see(replace(self.seen, mark=mark))

    def turn_bag(self, side: str) -> None:
        """Look at another side of the finished bag, sewn up and standing as it begins."""
        self._stand(replace(self.seen, side=side, stand=None))

    def turn_by(self, right: float, up: float) -> None:
        """Turn the bag in the hand, by degrees to the right and up."""
        self._stand(replace(self.seen, stand=self.stand.turned(right, up)))

    def fold_to(self, fold: float) -> None:
        """Fold the bag up so far, from 0 flat to 1 sewn."""
        self._stand(replace(self.seen, stand=replace(self.stand, fold=fold)))

    @property
    def stand(self) -> Stand:
        """From where the finished bag is looked at."""
        return self.seen.stand or stand_of(self.plan, self.seen.side)

    def _stand(self, seen: Seen) -> None:
        self.seen = seen
        self.turned.emit()

    def select_piece(self, piece: str) -> None:
        """Take one piece of the bag in hand; its panel and part come with it."""
        there = self.seen.at_piece(piece)
        if (there.panel, there.zone) != (self.seen.panel, self.seen.zone):
            self.leaving.emit()
        self._see(self.seen.at_piece(piece))

    def turn_leaf(self, leaf: str) -> None:
        """Turn to another leaf of the open stage."""
        self.leaving.emit()
        seen = self.seen
        self._see(replace(seen, leaf={**seen.leaf, seen.stage: leaf}))

    def turn_part(self, part: int) -> None:
        """Ask about another part of the panel."""
        self.leaving.emit()
        self._see(self.seen.at_part(part))

    def take_ply(self, ply: int) -> None:
        """Take a layer in hand."""
        if ply != self.seen.ply:
            self.leaving.emit()
        self._see(replace(self.seen, ply=ply))

    def take_line(self, line: str) -> None:
        """Take a line of quilting in hand, or none."""
        if line != self.seen.line:
            self.run += 1
        self._see(replace(self.seen, line=line))

    def hold_line(self, line: str) -> None:
        """The line in hand has another name now; nothing else changes."""
        self.seen = replace(self.seen, line=line)

    def draw_lines(self, on: bool) -> None:
        """Whether a stroke on the bench draws a line."""
        self._see(replace(self.seen, draws=on, line=""))

    def see_worn(self, side: str) -> None:
        """See the pieces flat, or on a side of the finished bag."""
        self._see(replace(self.seen, worn=side))

    def hold_brush(self, brush: str) -> None:
        """The print that is laid from now on."""
        self.seen = replace(self.seen, brush=brush)

    def take_tool(self, tool: str, brush: str = "") -> None:
        """What a click on a piece does from now on."""
        self._see(replace(self.seen, tool=tool, brush=brush or self.seen.brush))
