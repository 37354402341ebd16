"""Manners that everyone expects of a window: copying, menus at the pointer, things dropped on it.

Knows the widgets of the window and what may be asked of each; decides nothing about bags.
"""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QPoint
from PySide6.QtGui import QDropEvent
from PySide6.QtWidgets import QApplication, QLabel, QMenu

from tessil.core.numbers.lengths import Notation
from tessil.core.reading import Reading
from tessil.core.snags import Snag
from tessil.files.report import CUT_COLUMNS, cut_rows
from tessil.ui.copying import FIGURES, copy_figure, copy_list, copy_picture, copy_text, figure_cells
from tessil.ui.menus import RULE, MenuRow, pop_menu
from tessil.ui.widgets.receipt import FigureRow

if TYPE_CHECKING:
    from tessil.ui.window import Window

PICTURES = (".png", ".jpg", ".jpeg")

SHOPPING = ("what", "how much", "comes to", "for what")


class Manners(QObject):
    """What the window does that has nothing to do with bags."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.window, self.desk = window, window.desk
        self.menu: QMenu | None = None  # the last one at the pointer, while it is open
        window.column.receipt.menu_wanted.connect(self.figure_menu)
        window.tray.menu_wanted.connect(self.panel_menu)
        window.snags.menu_wanted.connect(self.snag_menu)
        window.ladder.menu_wanted.connect(self.rung_menu)
        window.bench.menu_wanted.connect(self.bench_menu)

    # -- copying --------------------------------------------------------------------

    def copy(self) -> None:
        """Copy what has the focus: selected text, a figure, or else the drawing."""
        focus = QApplication.focusWidget()
        if isinstance(focus, QLabel) and focus.hasSelectedText():
            copy_text(focus.selectedText())
        elif isinstance(focus, FigureRow):
            copy_figure(focus.reading, self._notation())
            self.window.say(f"Copied: {focus.name}.")
        else:
            self.copy_drawing()

    def copy_drawing(self) -> None:
        """The bench as a picture."""
        copy_picture(self.window.bench)
        self.window.say("The drawing is copied as a picture.")

    def copy_figures(self) -> None:
        """All figures on show, as text and as CSV."""
        rows = self.window.column.receipt.rows
        cells = [figure_cells(row.reading, self._notation()) for row in rows]
        copy_list(FIGURES, cells)
        self.window.say(f"{len(cells)} figures are copied, as text and as CSV.")

    def copy_cut_list(self) -> None:
        """The cut list, as text and as CSV."""
        rows = [[row[name] for name in CUT_COLUMNS] for row in cut_rows(self.desk.plan)]
        copy_list(CUT_COLUMNS, rows)
        self.window.say(f"The cut list is copied, {len(rows)} rows, as text and as CSV.")

    def copy_shopping(self) -> None:
        """The shopping list, as text and as CSV."""
        lines = self.window.cutter.shopping()
        rows = [[line.what, line.amount, line.cost, line.about] for line in lines]
        copy_list(SHOPPING, rows)
        self.window.say(f"The shopping list is copied, {len(rows)} rows, as text and as CSV.")

    def _notation(self) -> Notation:
        return self.desk.plan.marks.notation

    # -- menus at the pointer ---------------------------------------------------------

    def _pop(self, at: QPoint, rows: list[MenuRow]) -> None:
        self.menu = pop_menu(self.window, at, rows)

    def figure_menu(self, reading: Reading, at: QPoint) -> None:
        """Of a figure on the receipt."""
        self._pop(
            at,
            [
                ("Point at it on the bench", lambda: self.desk.pick(reading)),
                RULE,
                ("Copy this figure", lambda: copy_figure(reading, self._notation())),
                ("Copy all figures here", self.copy_figures),
            ],
        )

    def panel_menu(self, key: str, at: QPoint) -> None:
        """Of a panel in the tray."""
        panel = self.desk.plan.panel(key)
        size = self._notation().size(*panel.trimmed.values())
        label = panel.panel.label
        self._pop(
            at,
            [
                (f"Turn to the {label.lower()}", lambda: self.desk.look(panel=key)),
                RULE,
                (f"Copy its trimmed size, {size}", lambda: copy_text(f"{label}, trimmed: {size}")),
            ],
        )

    def snag_menu(self, snag: Snag, at: QPoint) -> None:
        """Of a snag."""
        rows: list[MenuRow] = [("Show where", lambda: self.desk.show_snag(snag))]
        rows += [
            (f"Mend it: {fix.words}", lambda fix=fix: self.window.snags.mend(snag, fix))  # type: ignore[misc]
            for fix in snag.fixes
        ]
        self._pop(at, [*rows, RULE, ("Copy", lambda: copy_text(f"{snag.title}. {snag.why}"))])

    def rung_menu(self, key: str, at: QPoint) -> None:
        """Of a rung of the ladder: what came out, said with one click."""
        cell = self.window.ladder.cells[key]
        rows: list[MenuRow] = []
        if cell.box.isVisible():
            rows.append(("It came out as planned", cell.box.take_planned))
            if not cell.box.is_empty():
                rows.append(("Forget what was measured", cell.box.take_nothing))
            rows.append(RULE)
        words = f"{cell.caps.text().capitalize()}: {cell.figure.text()}"
        self._pop(at, [*rows, ("Copy this size", lambda: copy_text(words))])

    def bench_menu(self, at: QPoint) -> None:
        """Of the bench: looking, copying, saving, and what is in hand."""
        window, bench = self.window, self.window.bench
        rows: list[MenuRow] = []
        if bench.mark is not None or bench.line:
            rows += [("Take away what is in hand", bench.away.emit), RULE]
        if bench.piece and bench.picture and bench.piece in bench.picture.pieces:
            rows += [("Put the piece down", lambda: bench.piece_taken.emit("")), RULE]
        rows += [
            ("All of it in sight", bench.fit),
            ("Larger", lambda: bench.zoom_by(1.25)),
            ("Smaller", lambda: bench.zoom_by(0.8)),
            RULE,
            ("Copy the drawing", self.copy_drawing),
            ("Copy the cut list", self.copy_cut_list),
            ("Save this panel as SVG…", window.ask_svg),
        ]
        self._pop(at, rows)

    # -- dropping ---------------------------------------------------------------------

    @staticmethod
    def dropped_path(event: QDropEvent) -> Path | None:
        """The one file that is dropped, of a kind the window can take."""
        urls = [url for url in event.mimeData().urls() if url.isLocalFile()]
        if len(urls) != 1:
            return None
        path = Path(urls[0].toLocalFile())
        takes = (".tessil", ".csv", *PICTURES)
        return path if path.suffix.lower() in takes else None

    def take_dropped(self, path: Path) -> str:
        """Open a project, take a list, or use a picture for the print in hand; a sentence if it
        will not do."""
        window, kind = self.window, path.suffix.lower()
        if kind == ".tessil":
            return window.open_path(path)
        if not self.desk.is_open:
            return "Open a bag first: a list or a picture belongs to one."
        if kind == ".csv":
            logs = window.pages.currentWidget() is window.__dict__.get("log_page")
            return window.take_swatches(path) if logs else window.take_scraps(path)
        takes = (window.__dict__.get(page) for page in ("log_page", "shelf_page"))
        if window.pages.currentWidget() not in takes:
            window.show_prints()
        return window.take_photo(path)
