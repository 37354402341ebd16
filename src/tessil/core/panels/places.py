"""Places on a panel that figures and snags point at: its whole, its sides, its middles."""

from __future__ import annotations

from tessil.core.bag.model import Notch
from tessil.core.numbers.polygons import box_of
from tessil.core.panels.panel import EdgeShow, PanelPlan
from tessil.core.snags import Place


def _size(panel: PanelPlan) -> tuple[float, float]:
    width, height = panel.trimmed.values()
    return float(width), float(height)


def across(panel: PanelPlan, at: float = 0.5) -> Place:
    """The width, measured at a share of the height."""
    width, height = _size(panel)
    return Place(0, height * at, width, 0, "across")


def upright(panel: PanelPlan, at: float = 0.5) -> Place:
    """The height, measured at a share of the width."""
    width, height = _size(panel)
    return Place(width * at, 0, 0, height, "upright")


def measured_way(panel: PanelPlan, way: str) -> Place:
    """The width or the height, by its name."""
    return upright(panel) if way == "height" else across(panel)


def whole(panel: PanelPlan) -> Place:
    """All of the trimmed panel."""
    return Place(0, 0, *_size(panel))


def corner(panel: PanelPlan) -> Place | None:
    """The left notch, or nothing for a panel without."""
    if not panel.panel.notches:
        return None
    return notch_place(panel.panel.notches[0])


def notch_place(notch: Notch) -> Place:
    """The square of one boxed corner."""
    x, y, width, height = (float(v) for v in (notch.x, notch.y, notch.width, notch.height))
    return Place(x, y, width, height)


def piece_place(panel: PanelPlan, zone: int, piece: int) -> Place | None:
    """One piece, where it lies on the trimmed panel; None if it is not there."""
    patch = panel.piece_of(zone, piece)
    if patch is None:
        return None
    x1, y1, x2, y2 = box_of(patch.on_panel)
    return Place(x1, y1, x2 - x1, y2 - y1)


def edge_place(panel: PanelPlan, edge: EdgeShow) -> Place:
    """The outermost pieces along one side, from the raw edge to their inner seam."""
    width, height = _size(panel)
    deep = max(float(edge.shows.value), 0.0) + float(panel.shown[edge.side])
    if edge.side in ("top", "bottom"):
        return Place(0, 0 if edge.side == "top" else height - deep, width, deep)
    return Place(0 if edge.side == "left" else width - deep, 0, deep, height)
