"""The pages of the window beside the bench: each made when it is first needed."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property, partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QStackedWidget, QWidget

from tessil.core.edits import Edit
from tessil.core.project import Project
from tessil.ui.filing import FilingWindow
from tessil.ui.searches import Searches

if TYPE_CHECKING:
    from tessil.core.catalogue.prints import Photo
    from tessil.files.printing import Pages
    from tessil.files.recovery import Lost
    from tessil.ui.cutter import Cutter
    from tessil.ui.helppage import HelpPage
    from tessil.ui.keptpage import KeptPage
    from tessil.ui.logpage import LogPage
    from tessil.ui.maker import Maker
    from tessil.ui.materialspage import MaterialsPage
    from tessil.ui.preview import Preview
    from tessil.ui.printspage import PrintsPage
    from tessil.ui.shelfpage import ShelfPage
    from tessil.ui.start import StartPage


class PagedWindow(FilingWindow):
    """Start, worksheet, prints, logbook and materials, and the work they come back to."""

    pages: QStackedWidget
    work: QWidget
    searches: Searches
    cutter: Cutter
    maker: Maker

    def take_bag(self, project: Project) -> str:
        """A bag that was asked for joins the job; the window does it."""
        raise NotImplementedError

    @cached_property
    def start(self) -> StartPage:
        """The first page."""
        from tessil.ui.start import StartPage

        page = StartPage()
        page.made.connect(self.begin_project)
        page.added.connect(self.take_bag)
        page.demo_wanted.connect(lambda: self.open_demo())
        page.open_wanted.connect(self.ask_open)
        page.left.connect(self._to_work)
        self.pages.addWidget(page)
        return page

    @cached_property
    def preview(self) -> Preview:
        """The worksheet's page."""
        from tessil.ui.preview import Preview

        page = Preview()
        page.left.connect(self._to_work)
        page.pdf_wanted.connect(self.ask_pdf)
        self.pages.addWidget(page)
        return page

    @cached_property
    def basket_page(self) -> PrintsPage:
        """The page of the print basket."""
        from tessil.ui.printspage import PrintsPage

        page = PrintsPage(self.desk)
        page.left.connect(self._to_work)
        page.file_wanted.connect(self.ask_photo)
        self.pages.addWidget(page)
        return page

    @cached_property
    def log_page(self) -> LogPage:
        """The page of the logbook."""
        from tessil.ui.logpage import LogPage

        page = LogPage(self.desk)
        page.left.connect(self._to_work)
        page.csv_out.connect(self.ask_swatches_out)
        page.csv_in.connect(self.ask_swatches_in)
        page.photo_wanted.connect(self.ask_photo)
        self.pages.addWidget(page)
        return page

    @cached_property
    def materials_page(self) -> MaterialsPage:
        """The page of the catalogue."""
        from tessil.ui.materialspage import MaterialsPage

        page = MaterialsPage(self.desk)
        page.left.connect(self._to_work)
        self.pages.addWidget(page)
        return page

    @cached_property
    def shelf_page(self) -> ShelfPage:
        """The page of what there is."""
        from tessil.ui.shelfpage import ShelfPage

        page = ShelfPage(self.desk, self.shelving)
        page.left.connect(self._to_work)
        page.csv_out.connect(self.ask_shelf_out)
        page.csv_in.connect(self.ask_shelf_in)
        page.photo_wanted.connect(self.ask_photo)
        self.pages.addWidget(page)
        return page

    @cached_property
    def kept_page(self) -> KeptPage:
        """The page of work that is in no file."""
        from tessil.ui.keptpage import KeptPage

        page = KeptPage()
        page.left.connect(self._to_work)
        page.restored.connect(self._restore)
        self.pages.addWidget(page)
        return page

    @cached_property
    def help_page(self) -> HelpPage:
        """The page of keys and licences."""
        from tessil.ui.helppage import HelpPage

        page = HelpPage()
        page.left.connect(self._to_work)
        self.pages.addWidget(page)
        return page

    def show_keys(self) -> None:
        """All keys on one page."""
        self.pages.setCurrentWidget(self.help_page)
        self.help_page.begin(about=False)

    def show_about(self) -> None:
        """Version and licences."""
        self.pages.setCurrentWidget(self.help_page)
        self.help_page.begin(about=True)

    def show_kept(self) -> None:
        """All kept work, to take up or to throw away."""
        self.pages.setCurrentWidget(self.kept_page)
        self.kept_page.begin()

    def _restore(self, lost: Lost) -> None:
        """Take kept work up again; the window does it."""
        raise NotImplementedError

    def show_page(self, key: str) -> None:
        """A page of the window, by the key of the button that asks for it."""
        if key == "logbook.page":
            self.show_log()
        elif key == "materials.page":
            self.show_materials()
        elif key == "wares.take":
            self.say(self.cutter.take_wares())
        elif key == "bias.take":
            self.say(self.shelving.take_bias(self.cutter.keeper))
        elif key == "shelf.page":
            self.show_shelf()
        else:
            self.show_prints()

    def show_prints(self) -> None:
        """The page of the print basket."""
        if self.desk.is_open:
            self.shelving.need()
            self.pages.setCurrentWidget(self.basket_page)
            self.basket_page.begin()

    def show_log(self) -> None:
        """The page of the logbook."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.log_page)
            self.log_page.begin()

    def show_shelf(self) -> None:
        """The page of what there is."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.shelf_page)
            self.shelf_page.begin()

    def show_materials(self) -> None:
        """The page of the catalogue."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.materials_page)
            self.materials_page.begin()

    def show_worksheet(self) -> None:
        """The worksheet, page by page."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.preview)
            from tessil.files.worksheet import worksheet

            self.preview.show_pages(worksheet(self.desk.plan), "Worksheet")

    def show_cutting_sheet(self) -> None:
        """The cutting of all bags on paper: maps, cuts, labels, what to buy."""
        pages = self.cutter.on_paper() if self.desk.is_open else None
        if pages is not None:
            self.pages.setCurrentWidget(self.preview)
            self.preview.show_pages(pages, "Cutting sheet")
        elif self.desk.is_open:
            self.say("Plan the cutting first, at the Cut stage.")

    def keep_cloths(self) -> None:
        """The shelf keeps for this job what its plan of the cuts takes."""
        if self.desk.is_open:
            self.say(self.cutter.keep_cloths())

    def lay_on_shelf(self) -> None:
        """What the bag has in hand lies on the shelf."""
        if self.desk.is_open:
            self.say(self.shelving.lay_down())

    def take_from_shelf(self) -> None:
        """Scraps of the bag's prints from the shelf."""
        if self.desk.is_open:
            self.say(self.shelving.take_up(self.cutter.keeper))

    def show_sewing_sheet(self) -> None:
        """All steps of the bag in hand on paper."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.preview)
            from tessil.files.makingpages import sewing_sheet

            pages = sewing_sheet(self.desk.plan, self.maker.making())
            self.preview.show_pages(pages, "Sewing sheet")

    def show_templates(self, large: bool = False) -> None:
        """Every panel at its own size, tiled on the usual paper or each on one large page."""
        if self.desk.is_open:
            self.pages.setCurrentWidget(self.preview)
            from tessil.files.templates import templates

            self.preview.show_pages(templates(self.desk.plan, large), "Templates")

    def show_large_templates(self) -> None:
        """Every panel at its own size on a page of its own."""
        self.show_templates(large=True)

    def pages_on_show(self) -> tuple[Pages | None, str]:
        """The pages that are previewed, and what they are."""
        if self.pages.currentWidget() is self.__dict__.get("preview"):
            return self.preview.sheets, self.preview.named
        return None, "Worksheet"

    def say(self, sentence: str) -> None:
        """Tell something at the foot of the window; the window does it."""
        raise NotImplementedError

    def _to_work(self) -> None:
        self.pages.setCurrentWidget(self.work if self.desk.is_open else self.start)

    # -- photos --------------------------------------------------------------------

    def take_photo(self, path: Path) -> str:
        """Read a picture off the thread; what is wrong with it stands beside its button."""
        if not path.is_file():
            return f"“{path.name}” is not a file that can be opened."
        key, made, take = self._photo_for()
        if key == "shelf.photo" and self.shelf_page.chosen_row() is None:
            return "Choose the cloth in the list first that it is a photo of."

        def work(watch: object) -> tuple[Edit, str]:
            from tessil.drawing.photos import read_photo

            return made(read_photo(path)), ""

        self.searches.give_up()
        self.searches.start_work(key, work, take)
        return ""

    def _photo_for(self) -> tuple[str, Callable[[Photo], Edit], Callable[[Edit], str] | None]:
        """What is said of a photo's reading, what it changes, and who takes that: by the page."""
        page = self.pages.currentWidget()
        if page is self.__dict__.get("log_page"):
            return "log.photo", self.log_page.photo_edit, self.desk.attempt_book
        if page is self.__dict__.get("shelf_page"):
            row = self.shelf_page.chosen_row()
            return (
                "shelf.photo",
                self.shelf_page.photo_edit,
                partial(self.shelf_page.take_photo, row),
            )
        return "photo", self.basket_page.take_photo, None

    def show_photo_state(self) -> None:
        """A word beside the button: the picture is being read, or what is wrong with it."""
        said = self.searches.words
        if "photo" in said and "basket_page" in self.__dict__:
            runs = self.searches.key == "photo"
            self.basket_page.say_photo("Reading the picture…" if runs else said["photo"])
        if "shelf.photo" in said and "shelf_page" in self.__dict__:
            runs = self.searches.key == "shelf.photo"
            self.shelf_page.say_photo("Reading the picture…" if runs else said["shelf.photo"])
        if "log.photo" in said and "log_page" in self.__dict__:
            runs = self.searches.key == "log.photo"
            words = "Reading the picture…" if runs else said["log.photo"]
            self.log_page.rows["photo"].tell(words)
