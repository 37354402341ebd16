"""What a maker decides about the layers under a top, from outside in."""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, field_validator

from tessil.core.fields import Decided, Key, Room, Size

CutRule = Literal["margin", "panel", "inside", "short"]
Bond = Literal["fuse", "spray", "glue", "pins", "itself"]
MOST_PLIES = 12


class Ply(Decided):
    """One layer: what it is, how large it is cut, how it is held, which way its grain runs.

    ``rule``: a margin beyond the pieced top, as the pieced top, inside the seams, or ⅛ in
    short of every seam line.  ``joined`` pieces butt edge to edge where one is too small.
    """

    material: Key = "cotton-batting"
    rule: CutRule = "margin"
    margin: Room = Fraction(1, 2)
    bond: Bond = "pins"
    grain: Literal["free", "upright", "level"] = "free"
    print: str = ""
    joined: bool = False


class Layers(Decided):
    """The material of the top, and what lies under it."""

    top: Key = "cotton"
    plies: tuple[Ply, ...] = (Ply(),)

    @field_validator("plies")
    @classmethod
    def _few_enough(cls, value: tuple[Ply, ...]) -> tuple[Ply, ...]:
        if len(value) > MOST_PLIES:
            raise ValueError(f"More than {MOST_PLIES} layers cannot be sewn: take some out.")
        return value


class Offcut(Decided):
    """So many left-over pieces of one material, of one size."""

    material: Key = "cotton-batting"
    width: Size
    height: Size
    number: Annotated[int, Field(ge=1, le=99)] = 1


class OwnMaterial(Decided):
    """A material as the maker knows it: one of the catalogue with other values, or a new one."""

    key: Key
    name: Annotated[str, Field(min_length=1, max_length=40)]
    kind: Literal["cloth", "batting", "firm", "web"] = "batting"
    relaxed_mm: Annotated[float, Field(le=40, allow_inf_nan=False)] = 2.5
    pressed_mm: Annotated[float, Field(le=40, allow_inf_nan=False)] = 0.9
    grams: Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)] = 120
    width: Size = Fraction(45)
    widest_gap: Size | None = None
    rise_mm: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] = 0.6
    draw_mm: Annotated[float, Field(ge=0, le=3, allow_inf_nan=False)] = 0.35
    along: Annotated[float, Field(ge=0, le=0.1, allow_inf_nan=False)] = 0.005
    fusible: bool = False
    melts: bool = False

    @field_validator("relaxed_mm", "pressed_mm")
    @classmethod
    def _some_thickness(cls, value: float) -> float:
        if value <= 0:
            raise ValueError("A material has some thickness: give more than 0 mm.")
        return value
