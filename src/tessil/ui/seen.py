"""What is looked at: stage, panel, leaf, piece, line, layer, mark, tool.  One frozen value.

Knows how one look follows from another and from a new plan; must not know widgets.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING

from msgspec import field
from msgspec.structs import replace

from tessil.core.bag.deeds import Deed
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place, Snag, Stage
from tessil.drawing.bands import spot_in
from tessil.drawing.pictures import View
from tessil.drawing.projecting import Stand
from tessil.ui.stages import leaf_of

if TYPE_CHECKING:
    from tessil.core.cutting.acts.whole import Spreads
    from tessil.drawing.costview import Reckoned


class Seen(Record, frozen=True, dict=True):
    """What the window shows of a plan, and what is in hand there."""

    panel: str
    stage: Stage = Stage.BRIEF
    leaf: Mapping[Stage, str] = field(default_factory=dict)
    picked: Reading | None = None
    snag: Snag | None = None
    piece: str = ""  # the bench's name of the piece in hand
    zone: int = 0  # the part of the panel that is asked about
    tool: str = "take"  # what a click on a piece does: take, lay, swap
    brush: str = ""  # the print that is laid
    side: str = "front"  # of the finished bag
    stand: Stand | None = None  # from where it is looked at, once it is turned by hand
    worn: str = ""  # the side on which the pieces are seen, or flat
    mark: int | None = None  # in hand, at the trimming stage
    ply: int = 0  # the layer in hand
    part: int = 0  # the part of the quilting that is asked about
    line: str = ""  # the line of quilting in hand
    sheet: int = 0  # the cloth of the cutting plan
    cut: bool = False  # the next cut of it in hand
    step: str = ""  # of making, that is looked at; the next one where it is empty
    laid: int = -1  # the piece in hand on that cloth
    draws: bool = False  # whether a stroke on the bench draws a line

    @property
    def asked(self) -> int:
        """The part that the open stage asks about."""
        return self.part if self.stage is Stage.QUILT else self.zone

    def opened(self, plan: Plan) -> Seen:
        """Another bag, from its beginning; leaves stay open and its sides stay turned."""
        return Seen(plan.shape.leader, leaf=self.leaf, side=self.side)

    def at(self, stage: Stage | None, panel: str | None) -> Seen:
        """Another stage or panel; what is in hand on a panel stays on it."""
        seen = replace(self, stage=stage or self.stage, picked=None, snag=None)
        if panel is None or panel == self.panel:
            return seen
        return replace(seen, panel=panel, piece="", mark=None, zone=0, ply=0, part=0, line="")

    def at_snag(self, snag: Snag) -> Seen:
        """Where a snag sits."""
        leaf = {**self.leaf, snag.stage: snag.leaf} if snag.leaf else self.leaf
        return replace(
            self,
            stage=snag.stage,
            leaf=leaf,
            panel=snag.panel or self.panel,
            picked=None,
            snag=snag,
        )

    def at_piece(self, piece: str) -> Seen:
        """One piece in hand; its panel and part come with it."""
        if not piece:
            return replace(self, piece="")
        panel, zone, _ = spot_in(piece)
        return replace(self, piece=piece, panel=panel, zone=zone)

    def at_part(self, part: int) -> Seen:
        """Another part of the panel, or of its quilting."""
        if self.stage is Stage.QUILT:
            return replace(self, part=part, line="")
        return replace(self, zone=part, piece="")

    def of(self, plan: Plan) -> Seen:
        """The same of a new plan, as far as it is still there."""
        has = any(panel.key == self.panel for panel in plan.panels)
        there = plan.panel(self.panel if has else plan.shape.leader)
        piece = self.piece
        if piece:
            panel, zone, at = spot_in(piece)
            piece = piece if plan.panel(panel).piece_of(zone, at) is not None else ""
        gone = self.mark is not None and self.mark >= len(plan.project.marks)
        return replace(
            self,
            panel=there.key,
            picked=None,
            snag=None,
            zone=min(self.zone, len(there.parts) - 1),
            piece=piece,
            mark=None if gone else self.mark,
            ply=max(min(self.ply, len(there.choices.layers.plies) - 1), 0),
            part=min(self.part, len(there.choices.quilt_zones)),
            line=self.line if there.quilt.line(self.line) is not None else "",
        )


def lying(seen: Seen) -> str:
    """The bench's name of the piece in hand on a cloth."""
    return f"laid:{seen.laid}" if seen.laid >= 0 else ""


def view_of(
    seen: Seen,
    place: Place | None,
    spreads: Spreads | None,
    step: Deed | None = None,
    sewn: frozenset[str] | None = None,
    reckoned: Reckoned | None = None,
) -> View:
    """What the bench is asked to show."""
    return View(
        seen.stage,
        seen.panel,
        place,
        lying(seen) if seen.stage is Stage.CUT else seen.piece,
        seen.worn,
        seen.side,
        seen.stand,
        seen.mark,
        leaf_of(seen.stage, seen.leaf),
        seen.ply,
        f"line:{seen.line}",
        spreads,
        seen.sheet,
        seen.cut,
        step,
        sewn,
        reckoned,
    )
