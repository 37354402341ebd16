"""What the ruler takes off a quilted panel, side by side."""

from __future__ import annotations

from typing import Literal

from tessil.core.bag.model import Panel
from tessil.core.numbers.sizes import Pair, Side
from tessil.core.numbers.workings import Basis, Figure, count
from tessil.core.panels.choice import PanelChoices
from tessil.core.piecing.tops import across_rule, down_rule, shared

Way = Literal["width", "height"]
ENDS_OF: dict[Way, tuple[Side, Side]] = {"width": ("left", "right"), "height": ("top", "bottom")}


def cut_off(
    squaring: Figure, choices: PanelChoices, quilted: Pair, trimmed: Pair
) -> dict[Side, Figure]:
    """What the ruler takes off each side of the quilted panel."""
    piecing, off = choices.piecing, {}
    undivided = not choices.zones
    sides: tuple[tuple[Side, Side, Figure, Figure, str], ...] = (
        ("left", "right", quilted.width, trimmed.width, across_rule(piecing)),
        ("top", "bottom", quilted.height, trimmed.height, down_rule(piecing)),
    )
    for first, last, have, want, rule in sides:
        begin, end = shared(have - want, rule if undivided else "both", squaring)
        off[first] = begin.called(f"cut off, {first}")
        off[last] = end.called(f"cut off, {last}")
    return off


def is_free(panel: Panel, side: Side) -> bool:
    """Whether a side is trimmed only when the panel is sewn to the others: bound, not in a seam."""
    return panel.side(side).finish == "bound"


def longer_by(panel: Panel, way: Way) -> Figure | None:
    """How much longer than it will be a panel is cut, to be trimmed together with the others."""
    ends = sum(is_free(panel, side) for side in ENDS_OF[way])
    if panel.spare is None or not ends:
        return None
    return count("free sides", ends, Basis.GEOMETRY) * panel.spare


def spare_off(panel: Panel, off: dict[Side, Figure]) -> dict[Side, Figure]:
    """What was cut longer goes off the free sides alone."""
    for first, last in ENDS_OF.values():
        both = off[first] + off[last]
        free = [side for side in (first, last) if is_free(panel, side)]
        for side in (first, last):
            share = both / len(free) if side in free else both - both
            off[side] = share.called(f"cut off, {side}") if free else off[side]
    return off
