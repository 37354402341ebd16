"""What is done in the hoop of an embroidery machine until its panels are out of it."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.hooping.hoopings import BETWEEN, TRIM, HoopGroup
from tessil.core.hooping.readings import group_of
from tessil.core.making.acts.common import minutes
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan

_GOES = {"cut-away": "stays", "tear-away": "torn", "wash-away": "washed"}


def _id(group: HoopGroup) -> str:
    return group.panels[0].key


def hoop_deeds(plan: Plan) -> Iterator[Deed]:
    """Hooping, and taking out of the hoop, for all panels that lie in it together."""
    groups = plan.hooped.groups if plan.hooped is not None else ()
    for group in groups:
        at, keys = _id(group), tuple(panel.key for panel in group.panels)
        what = plan.materials[group.stabiliser].name.lower()
        yield Deed(
            f"hoop.set.{at}",
            "hoop.set",
            "layer",
            keys,
            needs=("cut",),
            gives=(f"hooped:{at}",),
            values=(("what", what), ("number", group.number.whole)),
            minutes=minutes(5),
        )
        way = plan.project.hooping.cloth
        reach = max(one.reach for one in group.hoopings) + BETWEEN.value
        yield Deed(
            f"hoop.out.{at}",
            "hoop.out-drawn" if way == "drawn-on" and group.number.whole > 1 else "hoop.out-apiece",
            "quilt",
            keys,
            needs=tuple(f"stitched:{key}" for key in keys),
            gives=(f"out of the hoop:{at}",),
            values=(("by", reach),),
            minutes=minutes(3),
        )


def hooped_panel(plan: Plan, panel: PanelPlan, pieced: str) -> Iterator[Deed]:
    """One panel in its hoop: placing line, layer by layer, top, lines; then its stabiliser."""
    group = group_of(plan, panel.key)
    assert group is not None
    key, at = panel.key, _id(group)
    yield Deed(
        f"hoop.place.{key}",
        "hoop.place",
        "layer",
        (key,),
        needs=(f"hooped:{at}",),
        gives=(f"placed:{key}",),
        minutes=minutes(2),
    )
    before = f"placed:{key}"
    lofty = [layer for layer in panel.layers if layer.role == "batting" and layer.rule == "hoop"]
    for number, layer in enumerate(lofty):
        yield Deed(
            f"hoop.lay.{key}.{number}",
            "hoop.lay",
            "layer",
            (key,),
            needs=(before,),
            gives=(f"laid:{key}.{number}",),
            values=(("what", layer.label.lower()), ("by", TRIM.value)),
            minutes=minutes(4),
        )
        before = f"laid:{key}.{number}"
    yield Deed(
        f"hoop.top.{key}",
        "hoop.top",
        "layer",
        (key,),
        needs=(before, pieced),
        gives=(f"topped:{key}",),
        minutes=minutes(3),
    )
    lines = panel.sewing.lines.whole if panel.sewing else 0
    yield Deed(
        f"quilt.{key}",
        "hoop.quilt",
        "quilt",
        (key,),
        needs=(f"topped:{key}",),
        gives=(f"stitched:{key}",),
        values=(("lines", lines),),
        minutes=panel.sewing.minutes if panel.sewing else minutes(3),
    )
    yield Deed(
        f"hoop.off.{key}",
        f"hoop.{_GOES[group.stabiliser]}",
        "quilt",
        (key,),
        needs=(f"out of the hoop:{at}",),
        gives=(f"quilted:{key}",),
        minutes=minutes(2),
    )
