"""Putting marks on a panel, moving them, taking them away.

Usual places are common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from tessil.core.bag.model import Box
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_near
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.trimming.choice import Mark
from tessil.core.trimming.marks import KINDS


def free_room(plan: Plan, panel: PanelPlan, margin: Inches) -> Box:
    """Where a mark may lie on the leading face: inside the seams and above the base."""
    left, top = panel.shown["left"] + margin, panel.shown["top"] + margin
    right = panel.trimmed.width.value - panel.shown["right"] - margin
    bottom = panel.trimmed.height.value - panel.shown["bottom"] - margin
    base = [notch.y for notch in panel.panel.notches if notch.meets == "seam"]
    if base:
        bottom = min(bottom, min(base) - plan.brief.seams.corner.value - margin)
    return left, top, right - left, bottom - top


def face_room(plan: Plan, panel: PanelPlan, box: Box, margin: Inches) -> Box:
    """Where something that shows may lie: inside the flat part of the sewn bag that it is on, clear
    of its seams and of where the bag turns.  On a panel inside the bag, as any mark."""
    x, y = float(box[0] + box[2] / 2), float(box[1] + box[3] / 2)
    for facet in plan.sewn.facets.get(panel.key, ()):
        left, top, wide, high = facet.box
        if left <= x <= left + wide and top <= y <= top + high:
            found = (left, top, wide, high)
            ends = [Fraction(round(value * 100_000), 100_000) for value in found]
            return (ends[0] + margin, ends[1] + margin, ends[2] - 2 * margin, ends[3] - 2 * margin)
    return free_room(plan, panel, margin)


def add_mark(plan: Plan, panel: PanelPlan, kind: str) -> Edit:
    """A new mark of a kind at its usual place."""
    made = _usual(plan, panel, kind)
    words = f"Mark a {KINDS[kind].lower()}"
    return edit(words, ("marks", (*plan.project.marks, made)))


_SIZES: Mapping[str, Mapping[str, Inches]] = {  # that are not as large as a pocket
    "ribbon": {"height": Fraction(1, 2)},
    "label": {"width": Fraction(2), "height": Fraction(1)},
    "patch": {"width": Fraction(3), "height": Fraction(3)},
}


def _usual(plan: Plan, panel: PanelPlan, kind: str) -> Mark:
    left, top, width, height = free_room(plan, panel, Fraction(0))
    mark = plan.marks.ruler.value
    wide = min(Fraction(6), round_near(width * 2 / 3, mark))
    high = min(Fraction(5), round_near(height / 2, mark))
    centred = round_near(left + (width - wide) / 2, mark)
    base: dict[str, Any] = {"kind": kind, "panel": panel.key, "width": wide, "height": high}
    places = {
        "slip": (centred, top + Fraction(5, 2)),
        "divided": (centred, top + Fraction(5, 2)),
        "window": (centred, top + Fraction(7, 4)),
        "motif": (centred, round_near(top + (height - high) / 2, mark)),
        "d-ring": (Fraction(0), top + Fraction(1, 2)),
        "ribbon": (Fraction(0), round_near(top + height / 3, mark)),
        "label": (left + width - 3, top + height - 2),
        "patch": (centred, round_near(top + height / 4, mark)),
    }
    base |= _SIZES.get(kind, {})
    x, y = places[kind]
    return Mark(**base, x=max(x, Fraction(0)), y=max(y, Fraction(0)))


def move_mark(plan: Plan, index: int, x: float, y: float) -> Edit:
    """A mark dragged to a place, snapped to the ruler and kept on its panel."""
    mark = plan.project.marks[index]
    ruler = plan.marks.ruler.value
    width, height = plan.panel(mark.panel).trimmed.values()
    to_x = min(max(round_near(Fraction(x), ruler), Fraction(0)), width)
    to_y = min(max(round_near(Fraction(y), ruler), Fraction(0)), height)
    return set_mark(plan, index, f"Move the {KINDS[mark.kind].lower()}", x=to_x, y=to_y)


def set_mark(plan: Plan, index: int, words: str, **changes: Any) -> Edit:
    """A mark with some fields changed; raises ``Refused``."""
    mark = plan.project.marks[index]
    changed = applied(mark, Edit("", tuple(((key,), value) for key, value in changes.items())))
    kept = plan.project.marks
    return edit(words, ("marks", (*kept[:index], changed, *kept[index + 1 :])))


def remove_mark(plan: Plan, index: int) -> Edit:
    """Take a mark away."""
    kept = plan.project.marks
    words = f"Take the {KINDS[kept[index].kind].lower()} away"
    return edit(words, ("marks", (*kept[:index], *kept[index + 1 :])))
