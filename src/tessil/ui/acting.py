"""What keys, the menu and strokes on the bench do to the work on the desk."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QMenu, QPushButton

from tessil.core.choosing import measure, read_in
from tessil.core.edits import edit
from tessil.core.numbers.decided import Refused
from tessil.core.piecing.acts.whole import row_step
from tessil.core.project import Project
from tessil.core.starting import brought, copied, joining
from tessil.core.trimming.acts.marking import move_mark
from tessil.core.trouble import CannotPlan, FileTrouble
from tessil.core.words.refusals import first_refusal, printable
from tessil.files import recent
from tessil.files.csvtext import write_list
from tessil.files.places import documents_folder
from tessil.files.projectfile import load, write_export
from tessil.ui.column import Column
from tessil.ui.cutter import Cutter
from tessil.ui.filing import new_mark
from tessil.ui.hand import Hand
from tessil.ui.manners import SHOPPING
from tessil.ui.moneypages import MoneyWindow
from tessil.ui.widgets.bagswitch import BagSwitch
from tessil.ui.widgets.bench import Bench
from tessil.ui.widgets.fields import unread
from tessil.ui.widgets.selvage import Selvage
from tessil.ui.widgets.snaglist import SnagList
from tessil.ui.widgets.words import Words


class ActingWindow(MoneyWindow):
    """Undo, redo, units, rows, ways to each place of the window by keys, work by hand."""

    bench: Bench
    hand: Hand
    cutter: Cutter
    column: Column
    snags: SnagList
    selvage: Selvage
    menu: QMenu
    menu_button: QPushButton
    told: Words
    _stroke: str  # the run of one stroke of laying prints

    def about_to_change(self) -> None:
        """Something is about to change that may move what is out of sight."""
        raise NotImplementedError

    def _settle_typing(self) -> None:
        """What is half typed belongs to this stage and panel: take it here, or give it up."""
        for field in unread(self.work):
            if field.dirty:
                field.settle()
                field.forget()

    def _forget_typing(self) -> None:
        """What is half typed belongs to the project before; it must not reach the next one."""
        for field in unread(self.work):
            field.forget()

    def new_bag(self) -> None:
        """Ask the three questions; the open work stays until they are answered."""
        units = self.desk.project.units if self.desk.is_open else "inch"
        self.start.begin(units, can_go_back=self.desk.is_open)
        self.pages.setCurrentWidget(self.start)

    def add_bag(self) -> None:
        """Ask the three questions for one bag more of this job."""
        if self.desk.is_open:
            self._settle_typing()
            self.start.begin(self.desk.project.units, can_go_back=True, adds=True)
            self.pages.setCurrentWidget(self.start)

    def take_bag(self, project: Project) -> str:
        """A bag that was asked for joins the job, with the job's prints and first seams."""
        desk = self.desk
        sentence = desk.add_bag(joining(desk.job, project, new_mark()), f"Add {project.name}")
        if not sentence:
            self._to_work()
        self.told.setText(sentence)
        return sentence

    def ask_bring(self) -> None:
        """The bags of another file join this job, to be cut together."""
        if self.desk.is_open:
            start = self.desk.path.parent if self.desk.path else documents_folder()
            about, recents = "Add the bags of", recent.recent_files()
            self.file_bar.ask(about, "Add them", Path(f"{start}/"), self.bring, False, recents)

    def bring(self, path: Path) -> str:
        """Add the bags of a file; a sentence, and the job untouched, if that cannot be."""
        desk = self.desk
        self._settle_typing()
        try:
            job = brought(desk.job, load(path), iter(new_mark, ""))
        except (FileTrouble, CannotPlan) as trouble:
            return str(trouble)
        except Refused as error:
            return first_refusal(error)
        name = printable(path.stem)
        return desk.have_job(job, len(desk.job.bags), f"Add the bags of {name}")

    def copy_bag(self) -> None:
        """Another bag like the one in hand, not yet measured."""
        if self.desk.is_open:
            self._settle_typing()
            bag = copied(self.desk.job, self.desk.at, new_mark())
            self.told.setText(self.desk.add_bag(bag, f"Copy {self.desk.project.name}"))

    def remove_bag(self) -> None:
        """The bag in hand leaves the job; undo brings it back."""
        if self.desk.is_open:
            self._forget_typing()
            self.told.setText(self.desk.remove_bag())

    def keep_seams(self) -> None:
        """Bags that join the job from now on begin with the seams of the one in hand."""
        desk = self.desk
        change = edit("Begin new bags with these seams", ("first_seams", desk.project.seams))
        self.told.setText(desk.attempt(change))

    def follow_switch(self, switch: BagSwitch) -> None:
        """Do what the list of bags asks for."""
        switch.chosen.connect(self.turn_to_bag)
        switch.add_wanted.connect(self.add_bag)
        switch.copy_wanted.connect(self.copy_bag)
        switch.remove_wanted.connect(self.remove_bag)
        switch.seams_wanted.connect(self.keep_seams)

    def next_bag(self) -> None:
        self._step_bag(1)

    def last_bag(self) -> None:
        self._step_bag(-1)

    def _step_bag(self, by: int) -> None:
        """The next bag that can be planned; the sentence of one that cannot stays in sight."""
        desk, told = self.desk, ""
        for step in range(1, len(desk.job.bags)):
            sentence = self.turn_to_bag(desk.at + by * step)
            told = told or sentence
            if not sentence:
                break
        self.told.setText(told)

    def _measure(self, rung: str, got: object, run: str) -> str:
        desk = self.desk
        label = desk.plan.panel(desk.seen.panel).panel.label
        step = measure(desk.project, desk.seen.panel, rung, got, label)
        return desk.attempt(step, f"{rung} {run}")

    def _fix(self, fix: object) -> None:
        self.about_to_change()
        sentence = self.desk.attempt(fix)  # type: ignore[arg-type]
        self.told.setText(sentence)
        # The button is gone with its snag: keep the keyboard's place.
        rows = [row for row in self.snags.rows if row.buttons]
        (rows[0].buttons[0] if rows else self.selvage.dots[self.desk.seen.stage]).setFocus()

    def take_one(self, nth: int) -> None:
        """Measure one of the bags made alike; a sentence at the head if it cannot be planned."""
        self.told.setText(self.desk.take_one(nth))

    def turn_to_bag(self, at: int) -> str:
        """Take a bag of the job in hand; a sentence if it cannot be planned."""
        self._settle_typing()
        sentence = self.desk.turn_to(at)
        self.told.setText(sentence)
        return sentence

    def undo(self) -> None:
        self._forget_typing()
        self.desk.stack.undo()

    def redo(self) -> None:
        self._forget_typing()
        self.desk.stack.redo()

    def change_units(self) -> None:
        self._settle_typing()
        self.about_to_change()
        metric = self.desk.project.units == "metric"
        self.desk.attempt(read_in(self.desk.project, "inch" if metric else "metric"))

    def row_more(self) -> None:
        self._step_rows(1)

    def row_fewer(self) -> None:
        self._step_rows(-1)

    def _step_rows(self, by: int) -> None:
        """A bag larger or smaller by a whole row of strips."""
        step = row_step(self.desk.plan, by)
        if step is None:
            self.told.setText("Whole rows need strips of a chosen width on the leading panel.")
        else:
            self.told.setText(self.desk.attempt(step.edit))

    def settle(self) -> None:
        self.column.settled.click()

    def first_snag(self) -> None:
        """Go to the first snag, with its first fix under the fingers."""
        if self.snags.rows:
            row = self.snags.rows[0]
            self.desk.show_snag(row.snag)
            if row.buttons:
                row.buttons[0].setFocus()

    def go_to_bench(self) -> None:
        self.bench.setFocus()

    def go_to_column(self) -> None:
        rows = list(self.column.fields.values())
        figures = self.column.receipt.rows
        where = rows[0].field if rows else figures[0] if figures else self.column.settled
        where.setFocus()

    def _step_panel(self, by: int) -> None:
        keys = [panel.key for panel in self.desk.plan.panels]
        self.desk.look(panel=keys[(keys.index(self.desk.seen.panel) + by) % len(keys)])

    def next_panel(self) -> None:
        self._step_panel(1)

    def last_panel(self) -> None:
        self._step_panel(-1)

    def open_menu(self) -> None:
        corner = self.menu_button.rect().bottomRight()
        at = self.menu_button.mapToGlobal(corner)
        self.menu.popup(at - QPoint(self.menu.sizeHint().width(), 0))

    def quit(self) -> None:
        """Close the window this one lives in, or itself."""
        self.window().close()

    # -- by hand on the bench ---------------------------------------------------

    def _begin_stroke(self) -> None:
        self._stroke = self.desk.new_run()

    def ask_shopping(self) -> None:
        """The shopping list as a file."""

        def write(path: Path) -> None:
            lines = self.cutter.shopping()
            rows = ((line.what, line.amount, line.cost, line.about) for line in lines)
            write_export(path, write_list(SHOPPING, rows).encode("utf-8"))

        self._ask_export("Shopping list as", ".csv", write)

    def ask_cutting_dxf(self) -> None:
        """All cloths of the plan of the cuts as a drawing."""
        found = self.cutter.whole() if self.desk.is_open else None
        if found is None or not found.spreads:
            self.say("Plan the cutting first, at the Cut stage.")
            return

        def write(path: Path) -> None:
            from tessil.files.dxf import cutting_dxf

            text = cutting_dxf(found.spreads, self.desk.project.units)
            write_export(path, text.encode("ascii"))

        self._ask_export("Cutting as", ".dxf", write)

    def ask_svg(self) -> None:
        """What the bench shows as SVG: at the Cut stage the cloth, else the panel."""
        spread, found = self.cutter.spread(), self.cutter.spreads()
        if not self.cutter.here or spread is None or found is None:
            super().ask_svg()
            return
        at = next(n for n, one in enumerate(found.spreads) if one is spread)

        def write(path: Path) -> None:
            from tessil.files.svg import cloth_svg

            write_export(path, cloth_svg(found, at, self.desk.plan.marks.notation))

        self._ask_export("Cloth as", ".svg", write)

    def _bench_key(self, letter: str) -> None:
        """A letter or digit on the bench, as the bar above it says."""
        deeds = {"T": self.hand.turn, "R": self.hand.fill_row, "P": self.hand.pin}
        if letter in deeds:
            deeds[letter]()
        elif letter.isdigit():
            self.hand.lay_number(int(letter))

    def _drag_mark(self, index: int, x: float, y: float) -> None:
        """One drag is one undo step."""
        placed = self.desk.plan.marks_on(self.desk.seen.panel)
        mark = next(mark for mark in placed if mark.index == index)
        shift = float(self.desk.project.marks[index].x - mark.box[0])
        change = move_mark(self.desk.plan, index, x + shift, y)
        self.desk.attempt(change, f"drag {index} {self.desk.run}")

    def _nudge_mark(self, right: int, down: int) -> None:
        desk = self.desk
        if desk.seen.mark is None:
            return
        mark, step = desk.project.marks[desk.seen.mark], float(desk.plan.marks.ruler.value)
        change = move_mark(
            desk.plan, desk.seen.mark, float(mark.x) + right * step, float(mark.y) + down * step
        )
        desk.attempt(change, f"nudge {desk.seen.mark} {desk.run}")
