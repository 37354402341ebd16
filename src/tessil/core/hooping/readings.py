"""What the layer stage shows of a hoop: its field, what is cut for it, how many hoopings."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.hooping.hoopings import HoopGroup, batting_trimmed
from tessil.core.numbers.sizes import Pair
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, upright
from tessil.core.planned import Plan
from tessil.core.reading import Reading

LEAF = "hoop"


def group_of(plan: Plan, panel: str) -> HoopGroup | None:
    """The hoopings in which a panel is made, if it is."""
    groups = plan.hooped.groups if plan.hooped is not None else ()
    return next((g for g in groups if any(one.key == panel for one in g.panels)), None)


def hoop_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """The hoop, and all that is cut for the hoopings of this panel."""
    hooped, group = plan.hooped, group_of(plan, panel.key)
    if hooped is None or group is None:
        return
    yield Reading("hoop.field.width", hooped.field.width, "The machine stitches", leaf=LEAF)
    yield Reading("hoop.field.height", hooped.field.height, "The machine stitches", leaf=LEAF)
    about = f"For all bags; no layout does with fewer than {group.least}"
    yield Reading("hoop.number", group.number, about, leaf=LEAF)
    yield Reading("hoop.cut.width", group.width, "Of every layer, across the hoop", leaf=LEAF)
    yield Reading("hoop.cut.length", group.length, "Of every layer, along the hoop", leaf=LEAF)
    trimmed = batting_trimmed(_inside(panel))
    about = "2 mm outside its placing line, which is the seam line"
    yield Reading("hoop.batting.width", trimmed.width, about, across(panel), LEAF)
    yield Reading("hoop.batting.height", trimmed.height, about, upright(panel), LEAF)


def _inside(panel: PanelPlan) -> Pair:
    """Between the seam lines: where batting is placed."""
    edges = {side: panel.panel.side(side).allowance for side in ("left", "right", "top", "bottom")}
    width = panel.trimmed.width - edges["left"] - edges["right"]
    height = panel.trimmed.height - edges["top"] - edges["bottom"]
    return Pair(width.called("between seams, width"), height.called("between seams, height"))
