"""A material as its maker knows it."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, checks
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Limits, Size


class OwnMaterial(Decided):
    """A material as the maker knows it: one of the catalogue with other values, or a new one."""

    key: Key
    name: Annotated[str, Limits(min_length=1, max_length=40)]
    kind: Literal["cloth", "batting", "firm", "web"] = "batting"
    relaxed_mm: Annotated[float, Limits(le=40, allow_inf_nan=False)] = 2.5
    pressed_mm: Annotated[float, Limits(le=40, allow_inf_nan=False)] = 0.9
    grams: Annotated[float, Limits(ge=0, le=2000, allow_inf_nan=False)] = 120
    width: Size = Fraction(45)
    widest_gap: Size | None = None
    rise_mm: Annotated[float, Limits(ge=0, le=10, allow_inf_nan=False)] = 0.6
    draw_mm: Annotated[float, Limits(ge=0, le=3, allow_inf_nan=False)] = 0.35
    along: Annotated[float, Limits(ge=0, le=0.1, allow_inf_nan=False)] = 0.005
    fusible: bool = False
    melts: bool = False

    @checks("relaxed_mm", "pressed_mm")
    @staticmethod
    def _some_thickness(value: float) -> float:
        if value <= 0:
            raise ValueError("A material has some thickness: give more than 0 mm.")
        return value
