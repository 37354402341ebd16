"""The one window: selvage, tray, bench, ladder, workings and snags round one desk."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import (
    QAction,
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeySequence,
    QResizeEvent,
    QShowEvent,
)
from PySide6.QtWidgets import QApplication, QHBoxLayout, QMenu, QStackedWidget, QVBoxLayout, QWidget

from tessil.core.changes import moved
from tessil.core.logbook.book import Book
from tessil.core.numbers.lengths import Notation
from tessil.core.planned import Plan
from tessil.core.project import Job
from tessil.core.snags import Stage, by_stage
from tessil.core.words.refusals import printable
from tessil.drawing import theme
from tessil.drawing.picture import Picture
from tessil.drawing.pictures import seat_of, thumbnail
from tessil.files import recovery
from tessil.files.projectfile import FileTrouble, state_on_disk
from tessil.files.report import finished_short, finished_text
from tessil.ui.actions import ACTIONS
from tessil.ui.benchpicture import BenchPicture
from tessil.ui.column import Column
from tessil.ui.cutsearches import CutSearches
from tessil.ui.cutter import Cutter
from tessil.ui.hand import Hand
from tessil.ui.maker import Maker
from tessil.ui.manners import Manners
from tessil.ui.pricer import Pricer
from tessil.ui.rest import Rest
from tessil.ui.searches import Searches
from tessil.ui.seen import view_of
from tessil.ui.shell import LEAST_HEIGHT, LEAST_WIDTH
from tessil.ui.stagebars import BarredWindow
from tessil.ui.widgets.basket import Basket
from tessil.ui.widgets.bench import Bench
from tessil.ui.widgets.fields import TypedField
from tessil.ui.widgets.head import Head
from tessil.ui.widgets.ladderbar import LadderBar
from tessil.ui.widgets.quietline import QuietLine
from tessil.ui.widgets.recoverybar import RecoveryBar
from tessil.ui.widgets.selvage import Selvage
from tessil.ui.widgets.sizebox import SizeBox
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.snaglist import SnagList
from tessil.ui.widgets.taborder import TabOrder

TELL_MS, TELL_MOST_MS = 250, 1500
AUTOSAVE_MS, AUTOSAVE_MOST_MS = 200, 800
FIGURES_MS = 60
LATE_MS, LATE_MOST_MS = 25, 200  # while a value is typed: the bench first, all else after it


class Window(BarredWindow):
    """Binds the desk to the widgets; every method of the action table is here."""

    text_size_wanted = Signal(int)  # so many steps larger; the application makes it so

    def __init__(self, frame: QWidget | None = None) -> None:
        super().__init__(frame)
        self._stroke = ""  # the run of one stroke of laying prints
        self.setWindowTitle("Tessil")
        self.resize(1280, 800)
        self.setMinimumSize(LEAST_WIDTH, LEAST_HEIGHT)
        self._build()
        self._make_actions()
        self.manners = Manners(self)
        self.copy, self.copy_figures = self.manners.copy, self.manners.copy_figures
        self.copy_cut_list = self.manners.copy_cut_list
        self.copy_shopping = self.manners.copy_shopping
        self.setAcceptDrops(True)
        self._tabs = TabOrder()
        self._unkept = ""  # why the work cannot be kept by itself, once that was said
        self._autosave = Rest(AUTOSAVE_MS, AUTOSAVE_MOST_MS, self)
        self._autosave.due.connect(self.keep_safe)
        self._picture = BenchPicture(self.desk)
        self._before: Plan | None = None  # the plan before what is to be told of
        self._telling = Rest(TELL_MS, TELL_MOST_MS, self)
        self._telling.due.connect(self._tell_moved)
        self.late = Rest(LATE_MS, LATE_MOST_MS, self)
        self.late.due.connect(self.refresh)
        self._figures_late = QTimer(self, singleShot=True, interval=FIGURES_MS)
        self._figures_late.timeout.connect(self._show_sketch)
        self.desk.planned.connect(self._planned)
        self.desk.looked.connect(self.refresh)
        self.desk.sketched.connect(self._sketched)
        self.desk.opened.connect(self._forget_typing)
        self.desk.leaving.connect(self._settle_typing)
        self.desk.stack.cleanChanged.connect(lambda clean: self.unsaved.show_unsaved(not clean))
        self.unsaved.changed.connect(self._show_title)
        self.desk.booked.connect(self.keep_book)
        self.desk.teaching.connect(self.about_to_change)
        self.column.stepping.connect(self.about_to_change)
        self.ladder.stepping.connect(self.about_to_change)
        self.bar.offer(recovery.prune())
        if self.book_trouble:
            self.told.setText(self.book_trouble)

    # -- building ---------------------------------------------------------------

    def _build(self) -> None:
        self.pages = QStackedWidget()
        self.work = QWidget()
        self.pages.addWidget(self.work)
        self.bar = RecoveryBar()
        self.bar.restored.connect(self._restore)
        self.bar.page_wanted.connect(self.show_kept)
        root = QWidget()
        root.setObjectName("paper")
        column = self.root = QVBoxLayout(root)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.bar)
        column.addWidget(self.pages, 1)
        self.setCentralWidget(root)
        self._build_work()

    def _build_work(self) -> None:
        self.selvage = Selvage()
        self.selvage.turned.connect(lambda stage: self.desk.look(stage=stage))
        self.bench = Bench()
        self.hand = Hand(self.desk)
        self.hand.told.connect(self._tell_hand)
        self.searches = Searches(self.desk)
        self.searches.moved.connect(self.show_photo_state)
        self.cutter, self.maker = Cutter(self.desk, self.shelving), Maker(self.desk)
        self.pricer = Pricer(self.maker, self.cutter)
        self.searches.kinds |= CutSearches(self.cutter).searches()
        self.bench.piece_taken.connect(self.hand.clicked)
        self.bench.piece_met.connect(self.hand.swap_with)
        self.bench.key_pressed.connect(self._bench_key)
        self.bench.draw_begun.connect(self._begin_stroke)
        self.bench.piece_drawn.connect(lambda key: self.hand.painted(key, self._stroke))
        self.ladder = LadderBar(self._notation, self._measure)
        self.ladder.one_of.chosen.connect(self.take_one)
        self.column = Column(self.desk, self.searches, self.pricer)
        self.column.print_clicked.connect(self.hand.lay)
        self.column.page_wanted.connect(self.show_page)
        self.bench.mark_taken.connect(self.desk.take_mark)
        self.bench.mark_dragged.connect(self._drag_mark)
        self.bench.mark_nudged.connect(self._nudge_mark)
        self.bench.line_taken.connect(self.hand.take_line)
        self.bench.line_dragged.connect(self.hand.drag_line)
        self.bench.line_nudged.connect(self.hand.nudge_line)
        self.bench.line_drawn.connect(self.hand.draw_line)
        self.bench.away.connect(self.hand.away)
        self.bench.bag_turned.connect(self.desk.turn_by)
        self.bench.bag_put_back.connect(lambda: self.desk.turn_bag(self.desk.seen.side))
        self.size_box = SizeBox(self.desk, self.bench)
        self.desk.turned.connect(self._turned)
        self.snags = SnagList()
        self.snags.fixed.connect(self._fix)
        self.snags.shown.connect(self.desk.show_snag)
        left = self.over_bench = QVBoxLayout()
        left.setSpacing(10)
        left.addWidget(self.bench, 1)
        left.addWidget(self.ladder)
        middle = QHBoxLayout()
        middle.setSpacing(12)
        middle.addLayout(left, 1)
        middle.addWidget(self.column)
        right = QVBoxLayout()
        right.setContentsMargins(14, 8, 14, 4)
        right.setSpacing(8)
        right.addLayout(self._build_head())
        right.addLayout(middle, 1)
        right.addWidget(self.snags)
        self.quiet = QuietLine()
        right.addWidget(self.quiet)
        row = QHBoxLayout(self.work)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.selvage)
        row.addLayout(right, 1)

    def _build_head(self) -> QHBoxLayout:
        head = self.head = Head(self.desk, self.unsaved)
        self.name, self.bags, self.finished = head.name, head.bags, head.finished
        self.told, self.tray = head.told, head.tray
        self.undo_button, self.redo_button = head.undo_button, head.redo_button
        self.units_button, self.menu_button = head.units_button, head.menu_button
        self.switch = head.switch
        self.follow_switch(head.switch)
        for button, work in (
            (self.undo_button, self.undo),
            (self.redo_button, self.redo),
            (self.units_button, self.change_units),
        ):
            button.clicked.connect(work)
        return head

    def _tell_hand(self, sentence: str) -> None:
        """Beside the prints if they are on show, else at the head."""
        for row in self.column.fields.values():
            if isinstance(row.field, Basket):
                row.tell(sentence)
                return
        self.told.setText(sentence)

    def _make_actions(self) -> None:
        self.menu = QMenu(self)
        self.acts: dict[str, QAction] = {}
        for row in ACTIONS:
            action = QAction(self)  # without its words: each way to give them here knows of icons
            action.setText(row.words)
            action.setShortcuts([QKeySequence(keys) for keys in row.keys])
            action.triggered.connect(partial(self._run, row.does))
            self.addAction(action)
            self.acts[row.key] = action
            if row.menu:
                if row.apart:
                    self.menu.addSeparator()
                self.menu.addAction(action)
        for number, stage in enumerate(Stage, start=1):
            action = QAction(self)
            action.setText(f"Stage {stage}")
            action.setShortcut(QKeySequence(f"Ctrl+{number}"))
            action.triggered.connect(partial(self._turn, stage))
            self.addAction(action)
        self.menu_button.clicked.connect(self.open_menu)

    def showEvent(self, event: QShowEvent) -> None:
        if not self.desk.is_open:
            self.new_bag()
        super().showEvent(event)

    def _run(self, method: str, _: bool = False) -> None:
        getattr(self, method)()

    def _turn(self, stage: Stage, _checked: bool = False) -> None:
        if self.desk.is_open:
            self._to_work()
            self.desk.look(stage=stage)
            self.selvage.dots[stage].setFocus()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        fixed(self.column, 336 if self.width() >= theme.px(1200) else 304)
        self.fit_bars()

    # -- showing ----------------------------------------------------------------

    def _notation(self) -> Notation:
        return self.desk.plan.marks.notation

    def _planned(self) -> None:
        """Letters as they are typed move the bench at once; lists and figures follow it."""
        hand = QApplication.focusWidget()
        if LATE_MS and isinstance(hand, TypedField) and hand.typing:
            self._show_bench(looked=False)
            self.late.touch()
        else:
            self.refresh()
        self._autosave.touch()

    def refresh(self) -> None:
        """Show the desk as it is now."""
        self.late.stop()
        desk, plan = self.desk, self.desk.plan
        self._show_title()
        project = desk.project
        self.name.show_value(project.name)
        self.bags.show_value(project.bags)
        self.switch.show_job(desk.job, desk.at)
        self._show_finished()
        self.units_button.setText("inches" if project.units == "inch" else "cm")
        self.selvage.name = project.name
        self.selvage.show_state(desk.seen.stage, project.settled, by_stage(plan.snags))
        self.tray.show_panels(
            [
                (panel.key, self._tile_label(panel.key), partial(self._thumbnail, panel.key))
                for panel in plan.panels
            ],
            desk.seen.panel,
        )
        self._show_bench()
        self.show_bars()
        self.ladder.show_one(project.nth, project.bags, project.copies)
        self.ladder.show_ladder(desk.seen.panel, plan.ladder(desk.seen.panel))
        self.column.refresh()
        self.snags.show_snags(plan.snags)
        self._chain_tabs()

    def _chain_tabs(self) -> None:
        """Tab goes as one reads: stage, leaves, choices, figures, snags; then head and bench."""
        snags = [button for row in self.snags.rows for button in (row.head, *row.buttons)]
        head = (self.name, self.switch, self.bags, *self.tray.tiles, self.bench)
        boxes = (cell.box for cell in self.ladder.cells.values())
        dots, asked = self.selvage.dots.values(), self.column.in_order()
        self._tabs.lay((*dots, *asked, *snags, *head, self.ladder.one_of.button, *boxes))

    def _show_finished(self) -> None:
        """The finished size in words, or in figures alone where there is no room for them."""
        plan = self.desk.plan
        words, short = finished_text(plan), finished_short(plan)
        self.finished.say(f"finished {words}", f"finished {short}")

    def _sketched(self) -> None:
        """A slider moves: the bench follows at once, figures and ladder when the hand lets them."""
        self._show_bench()
        self.bench.repaint()
        self._figures_late.start()

    def _show_sketch(self) -> None:
        panel = self.desk.seen.panel
        self.ladder.show_ladder(panel, self.desk.shown.ladder(panel))
        self.column.show_sketch()

    def _tile_label(self, key: str) -> str:
        panel = self.desk.plan.panel(key).panel
        return f"{panel.label} ×{panel.copies}" if panel.copies > 1 else panel.label

    def _turned(self) -> None:
        """The bag in the hand turns: nothing else follows."""
        self.bench.hurry()
        self._show_bench()
        self.sides.refresh()

    def _thumbnail(self, key: str) -> Picture:
        (picture,) = self.desk.told(("tile", key), lambda plan: [thumbnail(plan, plan.panel(key))])
        return picture

    def _show_bench(self, looked: bool = True) -> None:
        desk, seen = self.desk, self.desk.seen
        place = seen.picked.place if seen.picked else None
        if seen.snag is not None:
            place = seat_of(seen.snag)
        found = self.cutter.on_bench(looked)
        view = view_of(seen, place, found, *self.maker.shown(), self.pricer.shown())
        metric = desk.project.units == "metric"
        mark = seen.mark if seen.stage is Stage.TRIM else None
        lays = seen.stage is Stage.PIECE and seen.tool == "lay"
        piece = view.piece if seen.stage is not Stage.LAYER else f"ply:{seen.ply}"
        line = f"line:{seen.line}" if seen.line else ""
        self.bench.show_lines(line, seen.draws and seen.stage is Stage.QUILT)
        self.bench.show_picture(self._picture.of(view, looked), piece, metric, mark, lays)

    # -- answering --------------------------------------------------------------

    def about_to_change(self) -> None:
        """Something is about to change that may move figures out of sight: tell when it is done."""
        if self._before is None:
            self._before = self.desk.plan
        self._telling.touch()

    def _tell_moved(self) -> None:
        before, self._before = self._before, None
        desk = self.desk
        if before is None or before is desk.plan:
            return
        told = moved(before, desk.plan, desk.seen.stage, desk.seen.panel)
        self.say(f"Changed with it: {told}." if told else "")

    def say(self, sentence: str) -> None:
        self.quiet.say(sentence)

    # -- the action table -------------------------------------------------------

    def open_job(self, job: Job, path: Path | None, book: Book | None = None) -> str:
        """Put another job on the desk; unsaved work is put aside and offered again.  A demo
        brings its own logbook; everything else has the maker's."""
        desk, unsaved = self.desk, self._has_unsaved_work()
        changes = abs(desk.stack.index() - max(desk.stack.cleanIndex(), 0))
        before = (desk.job, desk.path, changes, self.on_disk)
        was_demo, self.is_demo = self.is_demo, book is not None
        sentence = desk.open(job, path, self.own_book if book is None else book)
        if sentence:
            self.is_demo = was_demo
            return sentence
        if unsaved:
            self.told.setText(recovery.put_aside(*before))
            self.bar.offer(recovery.find_lost())
        self.on_disk = state_on_disk(path) if path else ""
        self.bench.fit()
        self.unsaved.show_unsaved(path is None)
        self._to_work()
        self.selvage.dots[Stage.BRIEF].setFocus()
        return ""

    def say_book(self, sentence: str) -> None:
        """What went wrong with the logbook, at the head of the window."""
        self.told.setText(sentence)

    def _has_unsaved_work(self) -> bool:
        return self.desk.is_open and self.unsaved.unsaved and not self.demo_untouched

    # -- manners ------------------------------------------------------------------

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if self.manners.dropped_path(event) is not None:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        path = self.manners.dropped_path(event)
        if path is not None:
            event.acceptProposedAction()
            sentence = self.manners.take_dropped(path)
            self.told.setText(sentence)
            self.say("" if sentence else f"Taken from {path.name}.")

    def _show_title(self) -> None:
        """Bag, file, and whether there is something to save, on the frame."""
        frame, desk = self.window(), self.desk
        file = desk.path.name if desk.path else "not in a file yet"
        several = len(desk.job.bags) > 1
        name = printable(desk.project.name + (f", {desk.job.title}" if several else ""))
        frame.setWindowTitle(f"{name}[*] ({file}) – Tessil" if desk.is_open else "Tessil")
        frame.setWindowModified(desk.is_open and self.unsaved.unsaved)

    def resized_texts(self) -> None:
        """Texts are of another size: lay out anew what is measured by them."""
        fixed(self.column, 336 if self.width() >= theme.px(1200) else 304)
        if self.desk.is_open:
            self.refresh()
        self.updateGeometry()

    def text_more(self) -> None:
        self.text_size_wanted.emit(1)

    def text_less(self) -> None:
        self.text_size_wanted.emit(-1)

    # -- safety -----------------------------------------------------------------

    def keep_safe(self) -> str:
        """Keep the work; say once that it cannot be kept, and again when it can."""
        sentence = super().keep_safe()
        if sentence != self._unkept:
            self.told.setText(sentence)
            self._unkept = sentence
        return sentence

    def _restore(self, lost: recovery.Lost) -> None:
        """Take kept work up again; where that fails its sentence stands beside it."""
        try:
            sentence = self.open_job(lost.job, lost.origin)
        except FileTrouble as trouble:
            sentence = str(trouble)
        self.told.setText(sentence)
        if not sentence:
            self.desk.stack.resetClean()
            self.unsaved.show_unsaved(True)
            self.on_disk = lost.stood or self.on_disk
            if not self.keep_safe():
                recovery.done_with(lost)
        self.bar.taken(lost, sentence)
        if "kept_page" in self.__dict__:
            self.kept_page.taken(lost, sentence)

    def closeEvent(self, event: QCloseEvent) -> None:
        """Unsaved work is kept and offered again at the next start; nothing is asked.  Only where
        it cannot be kept the window stays, once, and says so."""
        self._settle_typing()
        self.searches.give_up()
        self.flush_book()
        self.shelving.flush()
        if self._has_unsaved_work():
            sentence = self.keep_work()
            if sentence and sentence != self._unkept:
                self.told.setText(f"{sentence} Closed again, the window gives it up.")
                self._unkept = sentence
                event.ignore()
                return
        else:
            recovery.forget()
        event.accept()
