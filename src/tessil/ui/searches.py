"""Searches off the window's thread: arranging prints, filling courses.

One at a time.  A search works on the plan it was started with; if the maker changes anything
meanwhile it is stopped, since its answer would no longer fit.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from time import monotonic

from PySide6.QtCore import QObject, Signal

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.piecing.acts.laying import part_path
from tessil.core.planned import Plan
from tessil.core.trouble import CannotPlan, FileTrouble
from tessil.ui.desk import Desk

Watch = Callable[[float, int], bool]
Work = Callable[[Watch], tuple[Edit, str]]
TELL_EVERY = 0.05


class GivenUp(Exception):
    """Nobody waits for this search any more."""


class Searches(QObject):
    """Starts, shows and stops the one search.  ``moved`` tells that its state changed."""

    moved = Signal()
    _progress = Signal(int, float, int)
    _found = Signal(int, object, str)

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.desk = desk
        self.key = ""  # which search runs
        self.kinds: dict[str, Callable[[], Work]] = {
            "rules.arrange": lambda: _arranging(desk.plan),
            "courses.search": lambda: _filling(desk.plan, desk.seen.panel, desk.seen.zone),
        }
        self.share = 0.0
        self.words: dict[str, str] = {}  # what the last search of each kind said
        self._turn = 0
        self._takes: Callable[[Edit], str] = desk.attempt
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self._progress.connect(self._show)
        self._found.connect(self._take)
        desk.planned.connect(self._plan_changed)
        desk.opened.connect(self.words.clear)

    @property
    def running(self) -> bool:
        return bool(self.key)

    def start(self, key: str) -> None:
        """Start the search of a field's key, or stop it if it runs."""
        if self.running:
            self.stop()
        else:
            self.start_work(key, self.kinds[key]())

    def start_work(self, key: str, work: Work, take: Callable[[Edit], str] | None = None) -> None:
        """Do some work off the window's thread; its edit is taken when it is done."""
        self._turn += 1
        self._takes = take or self.desk.attempt
        self.key, self.share = key, 0.0
        self.words[key] = ""
        self._stop = threading.Event()
        self._thread = threading.Thread(
            target=self._run, args=(self._turn, work, self._stop), daemon=True
        )
        self._thread.start()
        self.moved.emit()

    def stop(self) -> None:
        """Stop searching; the best found so far is taken."""
        self._stop.set()

    def give_up(self) -> None:
        """Stop searching and forget what was found; waits for the thread."""
        self._turn += 1
        self._stop.set()
        if self._thread is not None:
            self._thread.join()
        self._thread, self.key = None, ""

    def _plan_changed(self) -> None:
        if self.running:
            key = self.key
            self.give_up()
            self.words[key] = "Stopped, since the plan changed. Start it again when you like."
            self.moved.emit()

    def _run(self, turn: int, work: Work, stop: threading.Event) -> None:
        last = 0.0

        def watch(share: float, cost: int) -> bool:
            nonlocal last
            if turn != self._turn:
                raise GivenUp
            if monotonic() - last > TELL_EVERY:
                last = monotonic()
                self._progress.emit(turn, share, cost)
            return not stop.is_set()

        try:
            change, words = work(watch)
        except GivenUp:
            return
        except (FileTrouble, CannotPlan) as trouble:
            change, words = Edit("", ()), str(trouble)
        except Exception:
            self._found.emit(turn, Edit("", ()), "The search went wrong; nothing was changed.")
            raise
        self._found.emit(turn, change, words)

    def _show(self, turn: int, share: float, cost: int) -> None:
        if turn == self._turn and self.running:
            self.share = share
            self.moved.emit()

    def _take(self, turn: int, change: Edit, words: str) -> None:
        if turn != self._turn:
            return
        key, self.key, self._thread = self.key, "", None
        sentence = self._takes(change)
        self.words[key] = sentence or words
        self.moved.emit()


def _arranging(plan: Plan) -> Work:
    table = plan.table

    def work(watch: Watch) -> tuple[Edit, str]:
        from tessil.core.edits import applied
        from tessil.core.layout.acts.arranging import arranged, outcome
        from tessil.core.layout.arrange import arrange
        from tessil.core.layout.rules import ask
        from tessil.core.plan import plan as plan_again

        asked = ask(table)
        answer = arrange(asked.problem, plan.project.rules.seed, watch=watch)
        change = arranged(plan, asked, answer)
        return change, outcome(plan_again(applied(plan.project, change)))

    return work


def _filling(plan: Plan, panel_key: str, zone: int) -> Work:
    def work(watch: Watch) -> tuple[Edit, str]:
        from tessil.core.piecing.scrap_tops import least_waste

        panel = plan.panel(panel_key)
        part = panel.parts[zone]
        filled = least_waste(part.wish, plan.project.rules.seed, lambda far: watch(far, 0))
        path = f"{part_path(zone)}.filled"
        change = choose(plan.project, panel.panel, "Fill the courses", (path, filled))
        return change, "The best of some hundred fillings; no better one was found."

    return work
