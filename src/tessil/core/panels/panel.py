"""What is computed for one panel: its sizes rung by rung, its parts, layers and lines.

A record and the few things that can be read off it; how it is computed is ``planning``'s.
"""

from __future__ import annotations

from tessil.core.bag.model import Panel
from tessil.core.catalogue import Material
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Pair, Side
from tessil.core.numbers.workings import Figure
from tessil.core.panels.choice import Measured, PanelChoices
from tessil.core.piecing.choice import FOUNDATIONS
from tessil.core.piecing.top import Patch, Strips, Top
from tessil.core.piecing.tops import Part
from tessil.core.quilting.quilt import Quilt
from tessil.core.quilting.sewing import Stitching
from tessil.core.quilting.shrinkage import Draw, Family
from tessil.core.sandwich.layers import Layer


def sewn_as_one(choices: PanelChoices) -> bool:
    """Whether all parts are flipped and sewn on one foundation, later ones covering the ends of
    those above; an undivided panel is."""
    parts = (choices.piecing, *(zone.piecing for zone in choices.zones))
    alike = all(part.foundation == choices.piecing.foundation for part in parts)
    covers = all(zone.covers for zone in choices.zones)
    return alike and covers and all(part.way == "flip" for part in parts)


def flipped_through(choices: PanelChoices) -> bool:
    """Whether strips are sewn through what lies under them, so that piecing quilts."""
    piecing = choices.piecing
    return sewn_as_one(choices) and (piecing.foundation == "batting" or piecing.lined)


def foundation_of(choices: PanelChoices) -> str:
    """The material, of the catalogue, on which strips are flipped and sewn; nothing where that is
    the batting, or nothing is."""
    parts = (choices.piecing, *(zone.piecing for zone in choices.zones))
    found = [FOUNDATIONS.get(part.foundation, "") for part in parts if part.way == "flip"]
    return next((name for name in found if name), "")


class EdgeShow(Record, frozen=True):
    """What the outermost piece of one part still shows along one side of the trimmed panel."""

    side: Side
    zone: int
    shows: Figure
    cut: Figure


class PanelPlan(Record, frozen=True):
    """Everything computed for one panel; sizes say which rung they are."""

    panel: Panel
    owner: str  # under which key its choices stand
    choices: PanelChoices
    measured: Measured
    draw: Draw
    families: tuple[Family, ...]  # the sets of lines that the draw-in was worked out for
    quilt: Quilt
    sewing: Stitching | None
    needed: Pair  # pieced, at least
    parts: tuple[Part, ...]
    patches: tuple[Patch, ...]
    planned: Pair  # pieced, by the plan
    pieced: Pair  # pieced, measured where it was
    expected: Pair  # quilted, by the model
    least: Pair  # quilted, at the bad end of the range
    most: Pair
    quilted: Pair  # quilted, measured where it was
    trimmed: Pair
    cut_off: dict[Side, Figure]
    edges_show: tuple[EdgeShow, ...]
    layers: tuple[Layer, ...]
    pressed: Figure
    at: tuple[float, float, float, float]  # quilted inches a pieced one; cut off left and top
    piecing_seam: Figure
    shown: dict[Side, Inches]  # how far in from each trimmed edge the panel begins to show

    @property
    def key(self) -> str:
        return self.panel.key

    @property
    def top(self) -> Top:
        """The top of the first part, which is all of it unless the panel is divided."""
        return self.parts[0].top

    @property
    def strips(self) -> Strips | None:
        """The strips, or the rows of a grid, of an undivided panel."""
        if len(self.parts) > 1:
            return None
        return self.top.rows or self.top.columns

    @property
    def level_strips(self) -> bool:
        return self.top.rows is not None or self.choices.piecing.run == "level"

    @property
    def sewn_down(self) -> bool:
        """Whether the strips are sewn through the batting, so that piecing quilts."""
        return flipped_through(self.choices)

    @property
    def quilts(self) -> bool:
        """Whether it lives through a quilted size of its own."""
        return bool(self.quilt.sets) or self.sewn_down

    @property
    def only_cloth(self) -> bool:
        """Whether it is all one cloth."""
        return len(self.parts) == 1 and self.choices.piecing.way == "whole"

    def piece_of(self, zone: int, piece: int) -> Patch | None:
        """The piece of that place in the part's list of prints, if it is there."""
        for patch in self.patches:
            if patch.zone == zone and patch.piece == piece:
                return patch
        return None

    @property
    def scale(self) -> tuple[float, float]:
        """How many quilted inches a pieced inch becomes, each way."""
        return self.at[:2]

    def pieced_at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the trimmed panel lies on the pieced top."""
        across, down, left, top = self.at
        return (x + left) / across, (y + top) / down

    def trimmed_at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the pieced top lies on the trimmed panel."""
        across, down, left, top = self.at
        return x * across - left, y * down - top

    @property
    def leans(self) -> Figure | None:
        """How far its top moves sideways over its height, to the right if more than nothing."""
        if self.draw.lean is None:
            return None
        return (self.draw.lean.expected * self.pieced.height).called("leans over its height")

    @property
    def materials(self) -> tuple[Material, ...]:
        """Its layers from outside in."""
        return tuple(layer.material for layer in self.layers)
