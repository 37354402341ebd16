"""What the window does about time and money: its two pages, lists out and in, tags, the log."""

from __future__ import annotations

import datetime
import json
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING

from tessil.core.edits import Edit, edit
from tessil.core.logbook.book import MOST_MADE, MOST_TIMES, MadeBag
from tessil.core.trouble import FileTrouble
from tessil.files.places import documents_folder
from tessil.files.projectfile import write_export
from tessil.ui.pages import PagedWindow

if TYPE_CHECKING:
    from tessil.ui.madepage import MadePage
    from tessil.ui.pricer import Pricer
    from tessil.ui.timespage import TimesPage


class MoneyWindow(PagedWindow):
    """Times, bags made, price tags."""

    pricer: Pricer

    @cached_property
    def times_page(self) -> TimesPage:
        """The page of sittings."""
        from tessil.ui.timespage import TimesPage

        page = TimesPage(self.desk, self.pricer.reckoner.guess)
        page.left.connect(self._to_work)
        page.csv_out.connect(self.ask_times_out)
        page.csv_in.connect(self.ask_times_in)
        self.pages.addWidget(page)
        return page

    @cached_property
    def made_page(self) -> MadePage:
        """The page of bags made."""
        from tessil.ui.madepage import MadePage

        page = MadePage(self.desk)
        page.left.connect(self._to_work)
        page.csv_out.connect(self.ask_made_out)
        page.again.connect(self.make_again)
        page.photo_wanted.connect(self.ask_photo)
        self.pages.addWidget(page)
        return page

    def show_page(self, key: str) -> None:
        """A page of the window, or what a button of time and price does."""
        does = {
            "times.page": self.show_times,
            "made.page": self.show_made,
            "times.clock": lambda: self.say(self.pricer.reckoner.write_clock()),
            "made.log": self.write_down,
            "tag.page": self.show_tag,
        }.get(key)
        if does is None:
            super().show_page(key)
        else:
            does()

    def show_times(self) -> None:
        """The page of sittings."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.times_page)
            self.times_page.begin()

    def show_made(self) -> None:
        """The page of bags made."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.made_page)
            self.made_page.begin()

    def show_tag(self) -> None:
        """A price tag and a label to print."""
        if self.desk.is_open:
            from tessil.files.tagpages import tag_pages

            self.pages.setCurrentWidget(self.preview)
            self.preview.show_pages(tag_pages(self.desk.plan), "Price tag")

    def write_down(self) -> None:
        """The bag in hand goes into the log of bags made."""
        from tessil.core.costing.acts.record import bag_made

        desk = self.desk
        if len(desk.book.made) >= MOST_MADE:
            self.say(f"The log holds {MOST_MADE:,} entries at most: take some out first.")
            return
        made = bag_made(desk.plan, self.pricer.reckoner.pay(), datetime.date.today().isoformat())
        sentence = desk.attempt_book(edit("Write a bag down", ("made", (*desk.book.made, made))))
        self.say(sentence or f"{made.name} is in your log of bags made.")

    def make_again(self, made: MadeBag) -> None:
        """A bag of the log joins the job, planned with what was learned since."""
        from tessil.files.projectfile import from_text

        if not made.choices:
            self.made_page.say("Its choices were not kept: it was written down by hand.")
            return
        try:
            job = from_text(json.dumps(made.choices), "That bag")
        except FileTrouble as trouble:
            self.made_page.say(str(trouble))
            return
        except RecursionError:
            self.made_page.say("Its choices are nested too deeply to be a bag.")
            return
        sentence = self.take_bag(job.project())
        if sentence:
            self.made_page.say(sentence)
        else:
            self.say(f"{made.name} is planned again, with what your swatches and times say now.")

    # -- lists ----------------------------------------------------------------------------------

    def ask_times_out(self) -> None:
        """Ask where the sittings go."""

        def write(path: Path) -> None:
            from tessil.files.timesfile import times_csv

            write_export(path, times_csv(self.desk.book).encode("utf-8"))

        self._ask_export("Times as", ".csv", write)

    def ask_made_out(self) -> None:
        """Ask where the bags made go."""

        def write(path: Path) -> None:
            from tessil.files.timesfile import made_csv

            write_export(path, made_csv(self.desk.book, self.desk.project.units).encode("utf-8"))

        self._ask_export("Bags made as", ".csv", write)

    def ask_times_in(self) -> None:
        """Ask for a list of sittings."""
        start = Path(f"{documents_folder()}/")
        self.file_bar.ask("Take times from a CSV", "Take", start, self.take_times, False)

    def take_times(self, path: Path) -> str:
        """Add the sittings of a list to those there are; one step to undo."""
        from tessil.files.timesfile import read_times

        desk = self.desk
        try:
            both = (*desk.book.times, *read_times(path))
        except FileTrouble as trouble:
            return str(trouble)
        if len(both) > MOST_TIMES:
            return f"The log holds {MOST_TIMES:,} sittings at most."
        return desk.attempt_book(edit("Take times from a list", ("times", both)))

    # -- photos ---------------------------------------------------------------------------------

    def take_photo(self, path: Path) -> str:
        """A picture for a bag made where that page is open, or for the step in hand."""
        here, makes = self.pages.currentWidget(), self.maker.sews
        made = here is self.__dict__.get("made_page")
        if not made and not (makes and here is self.work):
            return super().take_photo(path)
        if not path.is_file():
            return f"“{path.name}” is not a file that can be opened."
        if made and not self.desk.book.made:
            return "Write a bag down first."

        def work(watch: object) -> tuple[Edit, str]:
            from tessil.drawing.photos import read_photo

            photo = read_photo(path)
            return (self.made_page.photo_edit(photo) if made else self.maker.pictured(photo)), ""

        self.searches.give_up()
        if made:
            self.searches.start_work("made.photo", work, self.desk.attempt_book)
        else:
            self.searches.start_work("step.photo", work)
        return ""

    def show_photo_state(self) -> None:
        super().show_photo_state()
        said = self.searches.words
        if "made.photo" in said and "made_page" in self.__dict__:
            runs = self.searches.key == "made.photo"
            self.made_page.say("Reading the picture…" if runs else said["made.photo"])
        if "step.photo" in said:
            runs = self.searches.key == "step.photo"
            self.say("Reading the picture…" if runs else said["step.photo"])
