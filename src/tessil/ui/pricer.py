"""Time and money at the window: whether they are looked at, and what reckons them then.

What it takes to reckon is loaded with the first look: the window does not wait for it.
"""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from tessil.core.reading import Reading
from tessil.core.snags import Stage
from tessil.ui.cutter import Cutter
from tessil.ui.maker import Maker
from tessil.ui.specs import Spec

if TYPE_CHECKING:
    from tessil.drawing.costview import Reckoned
    from tessil.ui.reckoner import Reckoner

LEAVES = ("time", "price", "costs")


class Pricer(QObject):
    """Whether time or money is what is looked at; ``moved`` when more of it is known."""

    moved = Signal()

    def __init__(self, maker: Maker, cutter: Cutter) -> None:
        super().__init__()
        self.desk, self.maker, self.cutter = maker.desk, maker, cutter

    @cached_property
    def reckoner(self) -> Reckoner:
        """What reckons, from the first look on."""
        from tessil.ui.reckoner import Reckoner

        made = Reckoner(self.maker, self.cutter, lambda: self.leaf)
        made.moved.connect(self.moved)
        return made

    @property
    def leaf(self) -> str:
        """Which of its leaves is open, if one is."""
        seen = self.desk.seen
        leaf = seen.leaf.get(Stage.MAKE, "step") if seen.stage is Stage.MAKE else ""
        return leaf if leaf in LEAVES else ""

    @property
    def here(self) -> bool:
        """Whether time or money is what is looked at."""
        return bool(self.leaf)

    def shown(self) -> Reckoned | None:
        """What the bench draws, while one of the leaves is open."""
        return self.reckoner.shown() if self.here else None

    def readings(self) -> tuple[Reading, ...]:
        """The figures of the open leaf."""
        return self.reckoner.readings()

    def specs(self) -> tuple[Spec, ...]:
        """The choices of the open leaf."""
        return self.reckoner.specs()

    def words(self) -> list[str]:
        """What is to be said beyond the figures."""
        return self.reckoner.words()
