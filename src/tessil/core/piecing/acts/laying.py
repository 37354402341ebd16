"""Laying prints on the pieces of a panel: paint, swap, turn, fill a row, lock.

Each answers an edit of the panel's choices, so that undo and files know nothing of layouts.
A piece is named by its part and its place in that part's list of prints.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.top import Patch
from tessil.core.project import Project

PieceAt = tuple[int, int]  # the part, and the piece in it


def part_path(zone: int) -> str:
    """Where the choices of a part stand, below the panel's."""
    return "piecing" if not zone else f"zones.{zone - 1}.piecing"


def spot_of(patch: Patch) -> PieceAt:
    """The name of a piece."""
    return patch.zone, patch.piece


def pieces_of(panel: PanelPlan) -> dict[PieceAt, Patch]:
    """All pieces that can be laid, by name; not border, sashing or scraps."""
    return {spot_of(patch): patch for patch in panel.patches if patch.piece >= 0}


def laid(panel: PanelPlan, zone: int) -> list[str]:
    """The prints of a part, piece by piece; hidden pieces keep what they had."""
    there = {p.piece: p.print for p in panel.patches if p.zone == zone and p.piece >= 0}
    stored = panel.parts[zone].choice.prints
    number = max(there, default=-1) + 1
    return [there.get(at, stored[at % len(stored)] if stored else "cloth") for at in range(number)]


def in_a_row(panel: PanelPlan, zone: int) -> int:
    """How many pieces stand in a row of a grid; 0 for what is no grid."""
    part = panel.parts[zone]
    if part.choice.way not in ("squares", "web"):
        return 0
    return max(p.place for p in panel.patches if p.zone == zone and p.piece >= 0)


def laying(
    project: Project,
    panel: PanelPlan,
    words: str,
    prints: Mapping[PieceAt, str],
    turned: Mapping[PieceAt, bool] | None = None,
) -> Edit:
    """Lay prints on pieces, and turn those named."""
    turned = turned or {}
    changes: list[tuple[str, Any]] = []
    for zone in sorted({zone for zone, _ in (*prints, *turned)}):
        keys = laid(panel, zone)
        for (at, piece), key in prints.items():
            if at == zone:
                keys[piece] = key
        flips = {piece: on for (at, piece), on in turned.items() if at == zone}
        kept = (_marked(panel, zone, "turned") - set(flips)) | {p for p, on in flips.items() if on}
        if any(at == zone for at, _ in prints) or in_a_row(panel, zone):
            changes += _as_it_lies(panel, zone, keys)
        if flips or in_a_row(panel, zone):
            changes.append((f"{part_path(zone)}.turned", tuple(sorted(kept))))
    return choose(project, panel.panel, words, *changes)


def _marked(panel: PanelPlan, zone: int, mark: str) -> set[int]:
    """Which pieces of a part are turned, or locked, as it lies now."""
    return {p.piece for p in panel.patches if p.zone == zone and p.piece >= 0 and getattr(p, mark)}


def _as_it_lies(panel: PanelPlan, zone: int, keys: list[str]) -> list[tuple[str, Any]]:
    """Prints and pins of a part numbered as it lies now: it may have been laid at another size."""
    path = part_path(zone)
    pinned = tuple(sorted(_marked(panel, zone, "locked")))
    return [
        (f"{path}.prints", tuple(keys)),
        (f"{path}.laid", in_a_row(panel, zone)),
        (f"{path}.locked", pinned),
    ]


def paint(project: Project, panel: PanelPlan, spots: Iterable[PieceAt], key: str) -> Edit:
    """Lay one print on some pieces."""
    name = project.print_of(key).name
    return laying(project, panel, f"Lay {name}", dict.fromkeys(spots, key))


def swap(project: Project, panel: PanelPlan, one: PieceAt, other: PieceAt) -> Edit:
    """Swap two pieces: their prints, and whether they lie turned."""
    pieces = pieces_of(panel)
    a, b = pieces[one], pieces[other]
    return laying(
        project,
        panel,
        "Swap two pieces",
        {one: b.print, other: a.print},
        {one: b.turned, other: a.turned},
    )


def turn(project: Project, panel: PanelPlan, spot: PieceAt) -> Edit:
    """Turn a piece upside-down, or back."""
    piece = pieces_of(panel)[spot]
    return laying(project, panel, "Turn a piece", {}, {spot: not piece.turned})


def fill_row(project: Project, panel: PanelPlan, spot: PieceAt) -> Edit:
    """Lay the print of a piece on all of its row that are not locked."""
    pieces = pieces_of(panel)
    key = pieces[spot].print
    row = {
        at: key
        for at, patch in pieces.items()
        if at[0] == spot[0] and patch.row == pieces[spot].row and not patch.locked
    }
    return laying(project, panel, "Fill a row", {**row, spot: key})


def lock(project: Project, panel: PanelPlan, spot: PieceAt) -> Edit:
    """Lock a piece, so that arranging leaves it, or open it again."""
    zone, piece = spot
    kept = _marked(panel, zone, "locked") ^ {piece}
    words = "Pin a piece" if piece in kept else "Take a pin out"
    path = part_path(zone)
    changes = _as_it_lies(panel, zone, laid(panel, zone)) if in_a_row(panel, zone) else []
    turned = (f"{path}.turned", tuple(sorted(_marked(panel, zone, "turned"))))
    return choose(
        project, panel.panel, words, *changes, turned, (f"{path}.locked", tuple(sorted(kept)))
    )


def divide(project: Project, panel: PanelPlan, starts: tuple[Any, ...]) -> Edit:
    """Divide a panel into parts below each other, each beginning with the same choices."""
    base = panel.choices.piecing.model_copy(update={"prints": (), "turned": (), "locked": ()})
    zones = tuple({"starts": at, "piecing": base} for at in starts)
    words = "Divide the panel" if zones else "Piece the panel in one"
    return choose(project, panel.panel, words, ("zones", zones))
