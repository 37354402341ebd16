"""Places on a panel that figures and snags point at: its whole, its sides, its middles."""

from __future__ import annotations

from tessil.core.bag import Notch
from tessil.core.panels import PanelPlan
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
