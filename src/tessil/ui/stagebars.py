"""The bars over the bench, one for each stage that has one, made when that stage is first open."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING, TypeVar

from PySide6.QtWidgets import QVBoxLayout, QWidget

from tessil.core.snags import Stage
from tessil.ui.acting import ActingWindow
from tessil.ui.maker import Maker
from tessil.ui.widgets.ladderbar import LadderBar

if TYPE_CHECKING:
    from tessil.ui.widgets.cutbar import CutBar
    from tessil.ui.widgets.layoutbar import LayoutBar
    from tessil.ui.widgets.makebar import MakeBar
    from tessil.ui.widgets.quiltbar import QuiltBar
    from tessil.ui.widgets.sidebar import SideBar

LOW = 760  # pixels: below, tiles go without their drawings
Bar = TypeVar("Bar", bound=QWidget)


class BarredWindow(ActingWindow):
    """Which bar belongs to which stage."""

    maker: Maker
    ladder: LadderBar
    over_bench: QVBoxLayout  # the bars, then the bench

    def _barred(self, bar: Bar) -> Bar:
        """No two of them are ever seen together, so that any order will do."""
        self.over_bench.insertWidget(0, bar)
        return bar

    @cached_property
    def sides(self) -> SideBar:
        """How the bag in the hand stands."""
        from tessil.ui.widgets.sidebar import SideBar

        return self._barred(SideBar(self.desk))

    @cached_property
    def layout_bar(self) -> LayoutBar:
        """How the panel is looked at, and what a click on a piece does."""
        from tessil.ui.widgets.layoutbar import LayoutBar

        return self._barred(LayoutBar(self.desk, self.hand))

    @cached_property
    def quilt_bar(self) -> QuiltBar:
        """The ways to quilt, drawn on this panel."""
        from tessil.ui.widgets.quiltbar import QuiltBar

        bar = QuiltBar(self.desk, self.hand)
        bar.set_compact(self.height() < LOW)
        return self._barred(bar)

    @cached_property
    def cut_bar(self) -> CutBar:
        """The cloth that is cut, and the piece in hand."""
        from tessil.ui.widgets.cutbar import CutBar

        return self._barred(CutBar(self.cutter, self.bench))

    @cached_property
    def make_bar(self) -> MakeBar:
        """The step in hand."""
        from tessil.ui.widgets.makebar import MakeBar

        bar = MakeBar(self.maker, self.bench, self.ladder)
        bar.photo_wanted.connect(self.ask_photo)
        return self._barred(bar)

    def _bar_of(self, stage: Stage) -> QWidget | None:
        match stage:
            case Stage.BRIEF:
                return self.sides
            case Stage.PIECE:
                return self.layout_bar
            case Stage.QUILT:
                return self.quilt_bar
            case Stage.CUT:
                return self.cut_bar
            case Stage.MAKE:
                return self.make_bar
        return None

    def show_bars(self) -> None:
        """The bar of the open stage is shown, those made before for others go out of sight."""
        self._bar_of(self.desk.seen.stage)
        made = self.__dict__
        for name in ("sides", "layout_bar", "quilt_bar", "cut_bar", "make_bar"):
            if name in made:
                made[name].refresh()

    def fit_bars(self) -> None:
        """The window has another height."""
        if "quilt_bar" in self.__dict__:
            self.quilt_bar.set_compact(self.height() < LOW)
