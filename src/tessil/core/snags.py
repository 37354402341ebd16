"""What will go wrong, found while it is still cheap: problem, place, reason, fixes.

Knows edits, since a fix is one.  Must not know how a snag is found or shown.
"""

from __future__ import annotations

from collections.abc import Iterable
from enum import StrEnum

from tessil.core.edits import Edit
from tessil.core.numbers.records import Record


class Stage(StrEnum):
    """The eight stages of the work, in their order."""

    BRIEF = "brief"
    PIECE = "piece"
    LAYER = "layer"
    QUILT = "quilt"
    TRIM = "trim"
    EDGE = "edge"
    CUT = "cut"
    MAKE = "make"


class Weight(StrEnum):
    """How bad it is: the bag cannot be made so, it will show, or it is worth knowing."""

    BLOCKS = "blocks"
    WARNS = "warns"
    NOTES = "notes"


class Place(Record, frozen=True):
    """Where a snag sits or what a figure measures, on the bench of one panel.

    Inches on the trimmed panel, origin at its top left corner, y downwards; a line has
    zero width or height.  ``kind`` tells how it is shown.
    """

    x: float
    y: float
    width: float
    height: float
    kind: str = "area"  # area, across (a width), upright (a height), line


# The leaf of its stage that a snag is about, by the beginning of its key; the first that fits.
_LEAVES = (
    ("fit.flap", "closes"),
    ("fit.zipper", "closes"),
    ("fit", "holds"),
    ("layer.thick", "bulk"),
    ("layer.needle", "bulk"),
    ("hoop", "hoop"),
    ("layer", "layers"),
    ("quilt.lean", "draws"),
    ("quilt", "lines"),
    ("edge.piece", "bias"),
    ("edge.bias", "bias"),
    ("edge.piping", "piping"),
    ("edge.strap", "straps"),
    ("edge.ring", "straps"),
    ("edge.slider", "straps"),
    ("edge.metal", "closing"),
    ("edge.channel", "closing"),
    ("edge", "binding"),
)


class Snag(Record, frozen=True):
    """One problem with everything a maker needs to judge and mend it."""

    key: str
    stage: Stage
    weight: Weight
    title: str
    why: str
    panel: str = ""
    place: Place | None = None
    fixes: tuple[Edit, ...] = ()

    @property
    def leaf(self) -> str:
        """The leaf it is about; nothing where its stage has none that matters."""
        return next((leaf for start, leaf in _LEAVES if self.key.startswith(start)), "")


def by_stage(snags: Iterable[Snag]) -> dict[Stage, tuple[int, bool]]:
    """How many snags each stage has, and whether one of them blocks."""
    counts: dict[Stage, tuple[int, bool]] = {}
    for snag in snags:
        number, blocks = counts.get(snag.stage, (0, False))
        counts[snag.stage] = (number + 1, blocks or snag.weight is Weight.BLOCKS)
    return counts
