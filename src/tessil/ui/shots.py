"""One PNG of each main view from the demo bag, at 1280 × 800, on any machine."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QApplication

from tessil.core.choosing import measure
from tessil.core.edits import edit
from tessil.core.panels.choice import Got
from tessil.core.snags import Stage

if TYPE_CHECKING:
    from tessil.ui.window import Window

LATER = (Stage.TRIM, Stage.CUT, Stage.MAKE)  # with something in hand
SECONDS = 1.5  # that the cutting is searched for
SIZE = (1280, 800)


def take_shots(folder: Path) -> int:
    """Write the pictures; returns 0."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as state:
        os.environ["XDG_STATE_HOME"] = state
        _take(folder)
    return 0


def _open(window: Window, *name: str) -> None:
    """Open a demo; what was changed for the pictures before is not to be offered again."""
    window.desk.stack.setClean()
    window.open_demo(*name)


def _beginning(window: Window) -> None:
    """The first page at what there is, with the bags that could be made of it."""
    start = window.start
    start.begin_with("heap")
    field = start.heap.rows["there"].field
    field.setText("forty 2½ squares")  # type: ignore[attr-defined]
    field.settle()  # type: ignore[attr-defined]
    start.heap.look_now()


def _take(folder: Path) -> None:
    from tessil.ui.app import dress, make_app
    from tessil.ui.window import Window

    app = make_app()
    dress(app)
    window = Window()
    window.resize(*SIZE)
    window.show()

    def shoot(name: str) -> None:
        _settle(app)
        window.grab().save(str(folder / f"{name}.png"))
        print(folder / f"{name}.png")

    _beginning(window)
    shoot("0-start")
    _open(window)
    for number, stage in enumerate(Stage, start=1):
        if stage not in LATER:
            window.desk.look(stage=stage)
            shoot(f"{number}-{stage}")
    _quilting(window, shoot)
    _making(window, shoot)
    _money(window, shoot)
    _piecing(window, shoot)
    _open(window)
    window.desk.look(stage=Stage.EDGE)
    window.desk.turn_leaf("bias")
    shoot("15-bias")
    window.desk.turn_leaf("binding")
    window.desk.look(stage=Stage.TRIM)
    window.desk.take_mark(0)
    shoot("5-trim")
    _with_snags(window)
    shoot("9-snags")
    window.show_worksheet()
    shoot("10-worksheet")
    _cutting(window, shoot)
    window.close()


def _cutting(window: Window, shoot: Callable[[str], None]) -> None:
    """The kit cut from the band's shelf, and the shelf."""
    from tessil.core.cutting.acts.whole import plan_whole

    window.desk.stack.setClean()  # what was changed for the pictures before need not be kept
    _open(window)
    desk, cutter = window.desk, window.cutter
    desk.look(stage=Stage.CUT)
    made = plan_whole(cutter.lots(), cutter.sources(), desk.plan.marks, SECONDS)
    desk.attempt(edit("", ("cutting", made)))
    found = cutter.spreads()
    assert found is not None
    cutter.turn(max(found.spreads, key=lambda one: len(one.pieces)).at)
    shoot("7-cut")
    window.show_shelf()
    window.shelf_page.view.selectRow(4)
    shoot("12-shelf")


def _making(window: Window, shoot: Callable[[str], None]) -> None:
    """The pouch of the kit, half made: the next seam in hand."""
    _open(window)
    names = [bag.name for bag in window.desk.job.bags]
    window.desk.turn_to(names.index("Reed pouch"))
    window.desk.look(stage=Stage.MAKE)
    shoot("8-make")


def _money(window: Window, shoot: Callable[[str], None]) -> None:
    """Six pouches for the reed section: when, for how much, and the season before."""
    window.desk.attempt(edit("Make six", ("bags", 6)))
    window.desk.turn_leaf("time")
    shoot("16-time")
    window.desk.turn_leaf("price")
    window.pricer.reckoner.find_levers()
    shoot("17-price")
    window.show_made()
    window.made_page.view.selectRow(7)
    shoot("18-bags-made")


def _piecing(window: Window, shoot: Callable[[str], None]) -> None:
    """The layout of prints by rules."""
    _open(window, "march-card-clutch")
    window.desk.look(stage=Stage.PIECE)
    window.desk.turn_leaf("prints")
    shoot("14-layout")


def _quilting(window: Window, shoot: Callable[[str], None]) -> None:
    """Thickness at the seams, the logbook."""
    _open(window)
    window.desk.look(stage=Stage.LAYER)
    window.desk.turn_leaf("bulk")
    shoot("11-thickness")
    window.show_log()
    shoot("13-logbook")


def _with_snags(window: object) -> None:
    """A measured panel that came out too small, lines kept near a seam: snags to show."""
    from tessil.ui.window import Window

    assert isinstance(window, Window)
    desk = window.desk
    quilted = desk.plan.panel("front").trimmed
    got = Got(width=quilted.width.value, height=quilted.height.value - 1)
    desk.attempt(measure(desk.project, "front", "quilted", got))
    desk.attempt(edit("", ("binding.strips_on_hand", 0)))
    desk.show_snag(desk.plan.snags[0])


def _settle(app: QApplication) -> None:
    for _ in range(5):
        app.processEvents()
