"""What the layer stage asks of a hoop: which panels are made in it, which hoop, how cloth lies."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.catalogue import hoops
from tessil.core.hooping.hoopings import OWN
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.ui.asking import alike, choice_of, field_of
from tessil.ui.specs import Spec

_ON = (
    ("", "not in a hoop"),
    ("cut-away", "in a hoop, on cut-away"),
    ("tear-away", "in a hoop, on tear-away"),
    ("wash-away", "in a hoop, on wash-away"),
)
_CLOTH = (("drawn-on", "one length, drawn on"), ("apiece", "a piece each hooping"))


def hoop_specs(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    """The fields of the leaf."""
    yield from alike(plan, panel)
    help_ = "Cut-away stays in the bag; the others are torn or washed out"
    yield choice_of(plan, panel, "layers.stabiliser", "choice", "It is made", help_, _ON)
    if plan.hooped is None:
        return
    listed = (*((one.key, one.name) for one in hoops()), (OWN, "my own"))
    about = "The field the machine can stitch, for all panels of this bag"
    yield field_of(plan, "hooping.hoop", "choice", "Hoop", about, "Take another hoop", listed)
    if plan.project.hooping.hoop == OWN:
        yield field_of(plan, "hooping.width", "length", "Hoop width", "Field of your own hoop")
        yield field_of(plan, "hooping.height", "length", "Hoop height", "Field of your own hoop")
    why = "Outlines may lie across; cloth with an up never does"
    yield field_of(plan, "hooping.turned", "toggle", "May be turned", why, "Let outlines turn")
    why = "Drawn on by what was stitched and ½ in (13 mm) more, or cut anew for each hooping"
    yield field_of(plan, "hooping.cloth", "choice", "Cloth", why, "Lay cloth otherwise", _CLOTH)
