"""The hoop and its hoopings in words."""

from __future__ import annotations

from tessil.core.catalogue import hoop
from tessil.core.hooping.hoopings import HoopGroup, hoops_for
from tessil.core.numbers.lengths import Notation
from tessil.core.panels.panel import PanelPlan


def hoop_words(panel: PanelPlan, turned: bool) -> str:
    """Which hoops of the list take a panel."""
    taking = hoops_for(panel.trimmed.values(), turned)
    if not taking:
        return "No hoop of the list takes this panel."
    return f"Hoops that take this panel: {', '.join(hoop(key).name for key in taking)}."


def hoopings_words(group: HoopGroup, notation: Notation) -> str:
    """``3 hoopings; of every layer one piece 7 × 21½``."""
    many, pieces = group.number.whole, group.pieces.whole
    size = notation.size(group.width.value, group.length.value)
    of_each = "one piece" if pieces == 1 else f"{pieces} pieces"
    return f"{many} hooping{'s' if many > 1 else ''}; of every layer {of_each} {size}"
