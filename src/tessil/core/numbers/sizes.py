"""A width and a height, and the four sides of a panel: words that all stages share."""

from __future__ import annotations

from typing import Literal

from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure

Side = Literal["left", "right", "top", "bottom"]
SIDES: tuple[Side, ...] = ("left", "right", "top", "bottom")
Outline = tuple[tuple[float, float], ...]  # inches, clockwise as drawn; for looking and touching


class Pair(Record, frozen=True):
    """A width and a height at one rung."""

    width: Figure
    height: Figure

    def values(self) -> tuple[Inches, Inches]:
        return self.width.value, self.height.value

    def floats(self) -> tuple[float, float]:
        return float(self.width.value), float(self.height.value)
