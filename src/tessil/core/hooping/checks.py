"""What goes wrong in the hoop: an outline larger than its field, or one that only fits turned."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.catalogue import hoop
from tessil.core.choices import owner_key
from tessil.core.edits import Edit, edit
from tessil.core.hooping.hoopings import fits, hoops_for
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import measured_way
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight

_TOO = {"width": "wide", "height": "high"}


def hoop_snags(plan: Plan) -> Iterator[Snag]:
    """Panels that do not go into the hoop."""
    if plan.hooped is None:
        return
    seen = set()
    for key in plan.hooped.too_large:
        panel = plan.panel(key)
        owner = owner_key(plan.project, panel.panel)
        if owner not in seen:  # panels alike are told once
            seen.add(owner)
            yield _too_large(plan, panel)


def _too_large(plan: Plan, panel: PanelPlan) -> Snag:
    assert plan.hooped is not None
    size, field = panel.trimmed.values(), plan.hooped.field.values()
    read = plan.marks.notation.size
    name = panel.panel.label.lower()
    across = fits(size, field, True)
    over = max(zip(size, field, ("width", "height"), strict=True), key=lambda one: one[0] - one[1])
    more = plan.marks.notation.read_off(over[0] - over[1], unit=True)
    title = f"The {name} is {more} too {_TOO[over[2]]} for the hoop"
    why = f"With its seams it is {read(*size)}; the hoop's field is {read(*field)}."
    if across:
        title = f"The {name} fits the hoop only turned"
        why += " Its cloth has an up, or outlines are not to be turned."
    return Snag(
        key=f"hoop.{panel.key}",
        stage=Stage.LAYER,
        weight=Weight.BLOCKS,
        title=title,
        why=why,
        panel=panel.key,
        place=measured_way(panel, over[2]),
        fixes=tuple(_ways_out(plan, panel, across)),
    )


def _ways_out(plan: Plan, panel: PanelPlan, across: bool) -> Iterator[Edit]:
    if across and not plan.project.hooping.turned:
        yield edit("Let outlines be turned", ("hooping.turned", True))
    for key in hoops_for(panel.trimmed.values(), plan.project.hooping.turned and not across)[:2]:
        yield edit(f"Take the {hoop(key).name} hoop", ("hooping.hoop", key))
    owner = owner_key(plan.project, panel.panel)
    changed = panel.choices.layers.model_copy(update={"stabiliser": ""})
    made = panel.choices.model_copy(update={"layers": changed})
    words = f"Make the {panel.panel.label.lower()} without a hoop"
    yield Edit(words, ((("panels", owner), made),))
