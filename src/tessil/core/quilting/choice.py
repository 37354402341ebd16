"""What a maker decides about the quilting of a panel."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Degrees, Limits, Ranged, Room, Size, exact_share
from tessil.core.numbers.records import Record

Pattern = Literal[
    "channels",
    "grid",
    "diagonal",
    "diamonds",
    "ditch",
    "offset",
    "ditch-rows",
    "echo",
    "meander",
    "repeat",
    "none",
]
Spacing = Literal["divide", "keep", "hit", "clear"]
Centre = Literal["line", "gap"]
Stitch = Annotated[Fraction, exact_share(exclusiveMinimum=0, maximum=8), Limits(gt=0, le=8)]
MOST_DRAWN = 200
MOST_SPARED = 60


class DrawnLine(Decided):
    """A line drawn by hand, from one point of the trimmed panel to another."""

    x1: Ranged
    y1: Ranged
    x2: Ranged
    y2: Ranged


class Spared(Decided):
    """A place that a filling goes round: its left, top and size on the trimmed panel."""

    x: Ranged
    y: Ranged
    width: Size
    height: Size


class Quilting(Decided):
    """Lines of quilting.

    ``gap_other`` is for the level lines of a grid and the falling ones of diamonds, where
    they differ.  ``drawn`` are lines by hand, ``left_out`` the names of pattern lines that are
    not sewn, ``kept_free`` what a filling goes round.
    """

    pattern: Pattern = "channels"
    run: Literal["upright", "level"] = "upright"
    angle: Degrees = Fraction(45)
    gap: Size = Fraction(5, 4)
    gap_other: Size | None = None
    centre: Centre = "line"
    spacing: Spacing = "divide"
    offset: Size = Fraction(1, 4)
    run_off: Room = Fraction(1, 2)
    stitch_mm: Stitch = Fraction(3)
    stitch_wide: Room = Fraction(0)  # of a decorative stitch in rows: how far it swings
    drawn: Annotated[tuple[DrawnLine, ...], Limits(max_length=MOST_DRAWN)] = ()
    left_out: Annotated[tuple[str, ...], Limits(max_length=600)] = ()
    kept_free: Annotated[tuple[Spared, ...], Limits(max_length=MOST_SPARED)] = ()


class QuiltZone(Decided):
    """A part of a panel quilted in its own way, from so far below its trimmed top edge."""

    starts: Size
    quilting: Quilting = usual(Quilting)


class Machine(Decided):
    """The sewing machine: its needle, the room under its lifted foot, its bobbin's thread."""

    needle: Literal[70, 80, 90, 100, 110] | None = None
    lift_mm: Annotated[float, Limits(gt=0, le=20, allow_inf_nan=False)] = 6
    bobbin_m: Annotated[float, Limits(gt=0, le=300, allow_inf_nan=False)] = 30


class QuiltWish(Record, frozen=True):
    """How one panel is quilted: its first part, and the parts below it."""

    quilting: Quilting
    quilt_zones: tuple[QuiltZone, ...] = ()

    @property
    def all(self) -> tuple[Quilting, ...]:
        """The quilting of each part, from the top down."""
        return (self.quilting, *(zone.quilting for zone in self.quilt_zones))
