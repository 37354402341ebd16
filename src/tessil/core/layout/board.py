"""The board of a bag: every piece that can be laid, what it touches, where it is worn.

Made from a plan's panels; views, checks and the arranging all read it.  Knows no rules.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tessil.core.bag.model import Bag
from tessil.core.layout.touches import Laid, Ref, Touch, laid_of, touches, touches_of
from tessil.core.numbers.polygons import box_of
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.choice import GRIDS
from tessil.core.piecing.top import Patch
from tessil.core.sewn.faces import Look

LITTLE = 0.25  # so much of a piece may reach round a fold before it counts
Decision = tuple[str, int, int]  # the panel whose choices it is, the part, the piece


class Area(Record, frozen=True):
    """A part of the closed bag that one face shows, such as its flap."""

    key: str
    name: str
    panel: str
    turned: bool
    source: tuple[float, ...]  # x, y, width and height on the trimmed panel


class Board(Record, frozen=True):
    """Pieces by where they lie, what touches what, and which pieces are one decision."""

    patches: dict[Ref, Patch]
    touches: tuple[Touch, ...]
    copies: dict[Decision, int]  # how many pieces of the bag one decision is
    grids: frozenset[tuple[str, int]]  # panels and parts that are squares

    def touching(self) -> tuple[Touch, ...]:
        """What the rules mind: squares every way, other pieces only side by side on a panel."""
        if all((ref.panel, ref.zone) in self.grids for ref in self.patches):
            return self.touches
        return tuple(
            touch
            for touch in self.touches
            if touch.kind == "side"
            or all((ref.panel, ref.zone) in self.grids for ref in (touch.one, touch.other))
        )


def board_of(bag: Bag, looks: tuple[Look, ...], panels: Sequence[PanelPlan]) -> Board:
    """The board of all outer panels that are pieced."""
    laid: list[Laid] = []
    patches: dict[Ref, Patch] = {}
    copies: dict[Decision, int] = {}
    grids: set[tuple[str, int]] = set()
    pieced = [p for p in panels if p.panel.kind == "outer" and not p.only_cloth]
    squares = any(part.choice.way in GRIDS for panel in pieced for part in panel.parts)
    for panel in pieced:
        entry = laid_of(panel, panel.owner, squares)
        laid.append(entry)
        own = [patch for patch in panel.patches if patch.piece >= 0]
        for ref, patch in zip(entry.refs, own, strict=True):
            patches[ref] = patch
            copies[ref.decision] = copies.get(ref.decision, 0) + panel.panel.copies
        for zone, part in enumerate(panel.parts):
            if part.choice.way in GRIDS:
                grids.add((panel.key, zone))
    # Without squares only neighbours on a panel are minded: folds and joins are not asked for.
    found = touches_of(bag, looks, tuple(laid)) if grids else touches(tuple(laid), (), ())
    return Board(patches, found, copies, frozenset(grids))


def areas(bag: Bag, looks: tuple[Look, ...]) -> tuple[Area, ...]:
    """The parts of the closed bag, by the names a maker has for them."""
    found = []
    for look in looks:
        if look.side == "open":
            continue
        for at, face in enumerate(look.faces):
            name: str = look.side
            if at:
                on_own = face.panel != look.faces[0].panel
                name = bag.panel(face.panel).label.lower() if on_own else "flap"
            key = f"{face.panel}:{look.side}:{at}"
            found.append(Area(key, name, face.panel, face.turned, face.source))
    return tuple(found)


def areas_inside(bag: Bag, outer: Sequence[Area]) -> Iterator[Area]:
    """The same parts of a lining that is folded as its panel is: what hangs on the right side of
    the one hangs on the wrong side of the other, its up the same."""
    for lining in bag.panels:
        if lining.kind != "lining" or not lining.folds:
            continue
        for area in outer:
            panel = bag.panel(area.panel)
            if len(panel.folds) == len(lining.folds) and panel.width.value == lining.width.value:
                x, y, wide, high = area.source
                longer = float(lining.height.value / panel.height.value)
                source = x, y * longer, wide, high * longer
                key = f"{lining.key}:{area.key}"
                yield Area(key, f"{area.name}, inside", lining.key, area.turned, source)


def shown_on(panel: PanelPlan, area: Area, patch: Patch) -> bool:
    """Whether a piece reaches into the part of the panel that an area of the bag shows."""
    x1, y1, x2, y2 = box_of(patch.on_panel)
    x, y, w, h = area.source
    return x2 > x + LITTLE and x1 < x + w - LITTLE and y2 > y + LITTLE and y1 < y + h - LITTLE


def ways_up(found: Sequence[Area], panel: PanelPlan, patch: Patch) -> set[bool]:
    """How a piece must be laid to stand upright in these areas: turned, not turned, or both
    where it goes round a fold."""
    return {
        area.turned for area in found if area.panel == panel.key and shown_on(panel, area, patch)
    }
