"""Sizes at which the pieces come out whole: one row more, one fewer, and near the wish.

For n strips of the chosen cut width, backwards through squaring and draw-in to the panel, and
through the shape to the finished bag.  Knows the plan; changes nothing.
"""

from __future__ import annotations

from typing import Any

from tessil.core.edits import Edit, Path
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure, count, down_to, given
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.strips import pieced_size
from tessil.core.planned import Plan
from tessil.core.shapes.trial import body_if

AROUND = 2


class WholeSize(Record, frozen=True):
    """A bag whose leading panel takes ``number`` whole strips: its sizes and how to have it."""

    number: int
    trimmed: Figure
    finished: tuple[Figure, ...]
    edit: Edit
    now: bool


def _trimmed_from(plan: Plan, panel: PanelPlan, pieced: Figure) -> Figure:
    """The largest trimmed size that a pieced size is sure to give."""
    strain = panel.draw.y if panel.level_strips else panel.draw.x
    if not panel.quilts:
        left = pieced
    else:
        squaring = given("squaring margin", plan.project.oversize.squaring)
        left = (pieced - 2 * squaring) * (1 - strain.most)
    return down_to(left, plan.marks.ruler).settled("trimmed, from whole strips")


def may_be_whole(plan: Plan) -> bool:
    """Whether the leading panel is made of strips of one fixed width."""
    panel = plan.panel(plan.shape.leader)
    strips = panel.strips
    return (
        strips is not None
        and panel.choices.piecing.fixed == "width"
        and len(set(strips.kinds)) == 1
    )


def whole_sizes(plan: Plan) -> tuple[WholeSize, ...]:
    """Sizes around the present one at which the leading panel's strips come out whole.

    Empty where the leading panel is not made of strips of a fixed width.
    """
    panel = plan.panel(plan.shape.leader)
    strips = panel.strips
    if strips is None or not may_be_whole(plan):
        return ()
    key = plan.shape.panel_height if panel.level_strips else plan.shape.panel_width
    found = []
    for number in range(max(strips.number.whole - AROUND, 1), strips.number.whole + AROUND + 1):
        made = _one(plan, panel, key, number)
        if made is not None:
            found.append(made)
    return tuple(found)


def _one(plan: Plan, panel: PanelPlan, key: str, number: int) -> WholeSize | None:
    assert panel.strips is not None
    cut = panel.strips.cut
    pieced = pieced_size(count("strips", number), cut, plan.brief.seams.piecing)
    trimmed = _trimmed_from(plan, panel, pieced)
    if trimmed.value <= 0:
        return None
    sizes = {**plan.sizes, key: trimmed}
    bag = body_if(plan.shape, plan.brief, sizes)
    if bag is None:
        return None
    fields = {field.key for field in plan.shape.fields_for("panel")}
    typed = {name: figure.value for name, figure in sizes.items() if name in fields}
    changes: tuple[tuple[Path, Any], ...] = (
        (("shape", "way"), "panel"),
        (("shape", "sizes"), typed),
        (("measured",), {}),
    )
    now = number == panel.strips.number.whole
    noun = "strips" if panel.choices.piecing.way == "strips" else "rows"
    words = f"Make it {number} {noun}"
    return WholeSize(number, trimmed, bag.finished, Edit(words, changes), now)


def row_step(plan: Plan, by: int) -> WholeSize | None:
    """The bag with so many rows more (or fewer), or None if there is no such bag."""
    panel = plan.panel(plan.shape.leader)
    if panel.strips is None:
        return None
    wanted = panel.strips.number.whole + by
    return next((size for size in whole_sizes(plan) if size.number == wanted), None)
