"""A window that opens, saves and exports what is on its desk.

Knows files and the bar that asks for them; what is shown is the window's own matter.
"""

from __future__ import annotations

import datetime
from collections.abc import Callable
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING
from uuid import uuid4

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QMainWindow, QVBoxLayout, QWidget

from tessil.core.edits import edit
from tessil.core.logbook.book import MOST_SWATCHES, MOST_TESTS, Book
from tessil.core.panels.learning import with_panels
from tessil.core.project import Job, Project, job_of
from tessil.files import recent, recovery, shipped
from tessil.files.disk import Standing, is_there, reachable
from tessil.files.logfile import begin_book, keep_together, read_swatches, swatches_csv
from tessil.files.places import documents_folder
from tessil.files.projectfile import (
    SUFFIX,
    FileTrouble,
    is_project,
    load,
    save,
    state_on_disk,
    write_export,
)
from tessil.files.report import cut_csv
from tessil.files.scrapfile import read_scraps, scraps_csv
from tessil.files.striplist import strips_csv
from tessil.ui.desk import Desk
from tessil.ui.rest import Rest
from tessil.ui.shelving import Shelving
from tessil.ui.stages import leaf_of
from tessil.ui.widgets.tray import UnsavedDot

if TYPE_CHECKING:
    from tessil.files.printing import Pages
    from tessil.ui.widgets.filebar import FileBar
    from tessil.ui.widgets.recoverybar import RecoveryBar

BOOK_MS, BOOK_MOST_MS = 200, 1000
LONGEST_STEM = 120  # bytes of a file's name that is offered


class FilingWindow(QMainWindow):
    """The desk, the file bar, and every way between the desk and the disk."""

    root: QVBoxLayout  # what is told over the pages, then the pages
    bar: RecoveryBar

    def __init__(self, frame: QWidget | None = None) -> None:
        super().__init__(frame)
        if frame is not None:
            self.setWindowFlags(Qt.WindowType.Widget)  # no window of its own, but part of the frame
        self.desk = Desk(self)
        self.unsaved = UnsavedDot()
        self.is_demo = False
        self.shelving = Shelving(self.desk, lambda: self.is_demo)
        self.shelving.trouble.connect(self.say_book)
        self.own_book, self.book_trouble = begin_book()
        self.book_on_disk = self.own_book
        self.on_disk = ""  # what stood in the open file when it was read or written last
        self.book_rest = Rest(BOOK_MS, BOOK_MOST_MS, self)
        self.book_rest.due.connect(self.flush_book)

    @cached_property
    def file_bar(self) -> FileBar:
        """The bar that asks for a file; made when it is first wanted."""
        from tessil.ui.widgets.filebar import FileBar

        bar = FileBar()
        self.root.insertWidget(self.root.count() - 1, bar)
        self.bar.give_way_to(bar)
        return bar

    def begin_project(self, project: Project) -> str:
        """A new job of one bag: its own name in the logbook, the maker's materials and last seam
        test."""
        book = self.own_book
        last = book.seam_tests[-1] if book.seam_tests else project.seam_test
        fresh = project.model_copy(
            update={
                "id": new_mark(),
                "name": self._free_name(project.name),
                "materials": book.materials,
                "seam_test": last,
            }
        )
        return self.open_job(job_of(fresh), None)

    def open_job(self, job: Job, path: Path | None, book: Book | None = None) -> str:
        """Put another job on the desk; the window shows it."""
        raise NotImplementedError

    def open_path(self, path: Path) -> str:
        """Open a file; a sentence, and the open work untouched, if it will not do."""
        try:
            job = load(path)
        except FileTrouble as trouble:
            return str(trouble)
        sentence = self.open_job(job, path)
        if not sentence:
            recent.remember(path)
        return sentence

    def open_demo(self, key: str = "kit-of-four") -> None:
        """The band's kit, or one of its bags, as a new job."""
        job, book = shipped.demo(key)
        self.open_job(job, None, book)

    def open_satchel(self) -> None:
        self.open_demo("rehearsal-satchel")

    def open_reed_pouch(self) -> None:
        self.open_demo("reed-pouch")

    def open_clutch(self) -> None:
        self.open_demo("march-card-clutch")

    def open_sack(self) -> None:
        self.open_demo("mute-sack")

    def ask_open(self) -> None:
        start = self.desk.path.parent if self.desk.path else documents_folder()
        self.file_bar.ask(
            "Open", "Open", Path(f"{start}/"), self.open_path, False, recent.recent_files()
        )

    def save(self) -> None:
        """Save where it was saved before; ask, if that would take away what somebody else wrote."""
        path = self.desk.path
        if not self.desk.is_open:
            return
        if path is None:
            self.ask_save_as()
            return
        standing = self._standing(path)
        sentence = standing.sentence or self.save_to(path)
        if not sentence:
            return
        self.ask_save_as()
        if standing.sentence:
            self.file_bar.line.setText(str(self._free(path)))
            self.file_bar.offer_replace(path)
        self.file_bar.tell(sentence)

    def save_to(self, path: Path) -> str:
        """Save; a sentence, and the old file whole, if the disk refuses."""
        try:
            save(self.desk.job, path)
        except FileTrouble as trouble:
            return str(trouble)
        self.desk.path = path
        self.on_disk = state_on_disk(path)
        self.desk.stack.setClean()
        self.learn_from_panels()
        self.unsaved.show_unsaved(False)
        recent.remember(path)
        recovery.forget()
        return ""

    def _standing(self, path: Path) -> Standing:
        """What stands where a project shall be saved, if that must not be replaced unasked."""
        if not is_there(path):
            return Standing()
        name = f"“{path.name}”"
        if (
            self.desk.path is not None
            and reachable(path).resolve() == reachable(self.desk.path).resolve()
        ):
            if state_on_disk(path) == self.on_disk:
                return Standing()
            return Standing(
                f"{name} was changed by another program or window since it was opened here. Saved "
                "under the name above, both are kept."
            )
        return Standing(f"{name} is there already: give another name, or replace it.")

    def _standing_export(self, path: Path) -> Standing:
        if not is_there(path):
            return Standing()
        if is_project(path):
            said = f"“{path.name}” is a Tessil project: give this another name."
            return Standing(said, may_replace=False)
        return Standing(f"“{path.name}” is there already: give another name, or replace it.")

    def _free(self, path: Path) -> Path:
        """A name that is not taken yet: ``bag.tessil``, else ``bag 2.tessil``."""
        found, number = path, 2
        while is_there(found):
            found = path.with_name(f"{path.stem} {number}{path.suffix}")
            number += 1
        return found

    def _free_name(self, name: str) -> str:
        """A bag's name under which no file lies where it would be saved."""
        place = documents_folder() / f"{_stem_of(name)}{SUFFIX}"
        number = self._free(place).stem.removeprefix(place.stem)
        return f"{name[:76]}{number}"

    def learn_from_panels(self) -> None:
        """The panels measured in this project go into the logbook, with the maker's materials."""
        desk = self.desk
        today, book = datetime.date.today().isoformat(), desk.book
        for made in desk.measured_plans():
            book = with_panels(book, made.learning, today)
        keys = {entry.key for entry in desk.project.materials}
        kept = tuple(entry for entry in book.materials if entry.key not in keys)
        if desk.project.materials and (*kept, *desk.project.materials) != book.materials:
            book = book.model_copy(update={"materials": (*kept, *desk.project.materials)})
        test = desk.project.seam_test
        if test is not None and test not in book.seam_tests:
            book = book.model_copy(update={"seam_tests": (*book.seam_tests, test)[-MOST_TESTS:]})
        desk.learn(book)

    def keep_book(self) -> None:
        """The logbook changed: write it when the hand rests, unless it is a demo's."""
        if self.is_demo or self.desk.book is self.own_book:
            return
        self.own_book = self.desk.book
        self.book_rest.touch()

    def flush_book(self) -> None:
        """Write what is new in the logbook now; what another Tessil wrote meanwhile is kept."""
        self.book_rest.stop()
        if self.own_book is self.book_on_disk:
            return
        made, sentence = keep_together(self.book_on_disk, self.own_book)
        if sentence:
            self.book_trouble = sentence
            self.say_book(sentence)
            return
        self.book_on_disk = made
        if made == self.own_book:
            self.own_book = self.book_on_disk = self.own_book
            return
        self.own_book = made
        if not self.is_demo:
            self.desk.learn(made)

    def say_book(self, sentence: str) -> None:
        """What went wrong with the logbook; the window says it where it is seen."""
        raise NotImplementedError

    def ask_shelf_out(self) -> None:
        def write(path: Path) -> None:
            from tessil.files.shelffile import shelf_csv

            text = shelf_csv(self.desk.shelf, self.desk.project.units)
            write_export(path, text.encode("utf-8"))

        self._ask_export("Shelf as", ".csv", write)

    def ask_shelf_in(self) -> None:
        start = Path(f"{documents_folder()}/")
        self.file_bar.ask("Take what there is from a CSV", "Take", start, self.take_shelf, False)

    def take_shelf(self, path: Path) -> str:
        """Put the rows of a list on the shelf; a sentence if it cannot be read."""
        from tessil.files.shelffile import read_shelf

        try:
            shelf = read_shelf(path, self.desk.shelf, self.desk.project.units)
        except FileTrouble as trouble:
            return str(trouble)
        self.desk.attempt_shelf(shelf, "Put a list on the shelf")
        return ""

    def ask_swatches_out(self) -> None:
        def write(path: Path) -> None:
            units = self.desk.project.units
            write_export(path, swatches_csv(self.desk.book, units).encode("utf-8"))

        self._ask_export("Swatches as", ".csv", write)

    def ask_swatches_in(self) -> None:
        """Ask for a list of swatches."""
        if self.desk.is_open:
            folder = self.desk.path.parent if self.desk.path else documents_folder()
            self.file_bar.ask(
                "Swatches from",
                "Take them",
                Path(f"{folder}/"),
                self.take_swatches,
                False,
                suffix=".csv",
            )

    def take_swatches(self, path: Path) -> str:
        """Add the swatches of a list to those there are; one step to undo."""
        desk = self.desk
        try:
            found = read_swatches(path, desk.project.units)
        except FileTrouble as trouble:
            return str(trouble)
        both = (*desk.book.swatches, *found)
        if len(both) > MOST_SWATCHES:
            return f"The logbook holds {MOST_SWATCHES:,} swatches at most."
        return desk.attempt_book(edit("Take swatches from a list", ("swatches", both)))

    def _beside(self, suffix: str) -> Path:
        folder = self.desk.path.parent if self.desk.path else documents_folder()
        stem = self.desk.path.stem if self.desk.path else _stem_of(self.desk.project.name)
        return folder / f"{stem}{suffix}"

    def ask_save_as(self) -> None:
        if self.desk.is_open:
            path = self._beside(SUFFIX)
            if self.desk.path is None:
                path = self._free(path)
            self.file_bar.ask("Save as", "Save", path, self.save_to, True, standing=self._standing)

    def ask_pdf(self) -> None:
        from tessil.files.printing import pdf_of
        from tessil.files.worksheet import pdf_bytes

        def write(path: Path) -> None:
            sheets, named = self.pages_on_show()
            if sheets is None:
                write_export(path, pdf_bytes(self.desk.plan))
            else:
                write_export(path, pdf_of(sheets, f"{sheets.name}: {named.lower()}"))

        self._ask_export(f"{self.pages_on_show()[1]} as", ".pdf", write)

    def pages_on_show(self) -> tuple[Pages | None, str]:
        """The pages that are previewed, and what they are; the window knows."""
        return None, "Worksheet"

    def ask_svg(self) -> None:
        from tessil.files.svg import save_svg

        desk, seen = self.desk, self.desk.seen
        leaf = leaf_of(seen.stage, seen.leaf)
        self._ask_export(
            "Panel as", ".svg", lambda path: save_svg(desk.plan, seen.panel, path, seen.stage, leaf)
        )

    def ask_hoopings(self) -> None:
        """Every hooping at its real size, for a machine."""
        from tessil.files.stitchsvg import save_hoopings

        self._ask_export("Hoopings as", ".svg", lambda path: save_hoopings(self.desk.plan, path))

    def ask_bag_svg(self) -> None:
        self._ask_bag(".svg")

    def ask_bag_png(self) -> None:
        self._ask_bag(".png")

    def _ask_bag(self, suffix: str) -> None:
        """The bag as it is looked at now, into a file."""
        from tessil.files.svg import save_bag

        desk = self.desk
        self._ask_export("Bag as", suffix, lambda path: save_bag(desk.plan, desk.stand, path))

    def ask_photo(self) -> None:
        """Ask for a picture of the print in hand; the window reads it off its thread."""
        start = self.desk.path.parent if self.desk.path else documents_folder()
        self.file_bar.ask(
            "Photo of the cloth", "Use it", Path(f"{start}/"), self.take_photo, False, suffix=".png"
        )

    def take_photo(self, path: Path) -> str:
        """Read a picture for the print in hand; the window does it."""
        raise NotImplementedError

    def ask_csv(self) -> None:
        def write(path: Path) -> None:
            write_export(path, cut_csv(self.desk.plan).encode("utf-8"))

        self._ask_export("Cut list as", ".csv", write)

    def ask_strips_out(self) -> None:
        def write(path: Path) -> None:
            write_export(path, strips_csv(self.desk.plan).encode("utf-8"))

        self._ask_export("Strips of the edges as", ".csv", write)

    def ask_scraps_out(self) -> None:
        def write(path: Path) -> None:
            write_export(path, scraps_csv(self.desk.project).encode("utf-8"))

        self._ask_export("Scraps as", ".csv", write)

    def ask_scraps_in(self) -> None:
        """Ask for a list of scraps."""
        if self.desk.is_open:
            folder = self.desk.path.parent if self.desk.path else documents_folder()
            self.file_bar.ask(
                "Scraps from",
                "Take them",
                Path(f"{folder}/"),
                self.take_scraps,
                False,
                suffix=".csv",
            )

    def take_scraps(self, path: Path) -> str:
        """Take the scraps of a list in place of those there are; one step to undo."""
        try:
            scraps = read_scraps(path, self.desk.project)
        except FileTrouble as trouble:
            return str(trouble)
        return self.desk.attempt(edit("Take scraps from a list", ("scraps", scraps)))

    def _ask_export(self, words: str, suffix: str, write: Callable[[Path], None]) -> None:
        if not self.desk.is_open:
            return

        def accept(path: Path) -> str:
            try:
                write(path)
            except FileTrouble as trouble:
                return str(trouble)
            self.say(f"Saved as {path}.")
            return ""

        self.file_bar.ask(
            words,
            "Save",
            self._beside(suffix),
            accept,
            True,
            suffix=suffix,
            standing=self._standing_export,
        )

    def say(self, sentence: str) -> None:
        """One quiet line of what was done; the window has its place."""
        raise NotImplementedError

    def keep_safe(self) -> str:
        """Write the recovery file and the logbook; the crash handler calls this too.  A sentence if
        the work could not be kept."""
        self.flush_book()
        in_file = self.desk.path is not None and self.desk.stack.isClean()
        if in_file or self.demo_untouched:
            recovery.forget()  # the file has it all
            return ""
        return self.keep_work() if self.desk.is_open else ""

    @property
    def demo_untouched(self) -> bool:
        """Whether the demo is on the desk as it ships."""
        return self.is_demo and not self.desk.stack.count()

    def keep_work(self) -> str:
        """Keep what is on the desk; a sentence if that cannot be done."""
        desk = self.desk
        changes = abs(desk.stack.index() - max(desk.stack.cleanIndex(), 0))
        return recovery.keep(desk.job, desk.path, changes, self.on_disk)


def new_mark() -> str:
    """A mark of its own for a bag in the logbook."""
    return uuid4().hex[:16]


def _stem_of(name: str) -> str:
    """A bag's name as that of a file."""
    safe = "".join(c if c.isalnum() or c in " -_" else "-" for c in name).strip()
    return safe.encode()[:LONGEST_STEM].decode("utf-8", "ignore").strip() or "bag"
