"""Each panel until it is trimmed and marked: cut, pieced, layered, quilted, squared."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.catalogue import Material
from tessil.core.making.acts.common import COOL, FRONT, UPRIGHT, from_steps, minutes
from tessil.core.making.acts.corners import boxed, is_shaped, shaped
from tessil.core.making.acts.hoop import hoop_deeds, hooped_panel
from tessil.core.panels.panel import PanelPlan, foundation_of, sewn_as_one
from tessil.core.planned import Plan
from tessil.core.trimming.squaring import squaring

_BONDS = {
    "fuse": "layer.fuse",
    "spray": "layer.spray",
    "glue": "layer.glue",
    "pins": "layer.pin",
    "itself": "layer.smooth",
}


def materials_of(plan: Plan) -> tuple[Material, ...]:
    """What the bag is made of, each material once."""
    layers = [layer.material for panel in plan.panels for layer in panel.layers]
    sheets = [plan.materials[p.panel.made_of] for p in plan.panels if p.panel.made_of]
    groups = plan.hooped.groups if plan.hooped is not None else ()
    hooped = [plan.materials[group.stabiliser] for group in groups]
    under = [foundation_of(panel.choices) for panel in plan.panels]
    hooped += [plan.materials[name] for name in under if name]
    every = (*layers, *sheets, *hooped)
    return tuple({material.key: material for material in every}.values())


def panel_deeds(plan: Plan) -> Iterator[Deed]:
    """All panels of a bag, each until it can be sewn to others."""
    yield Deed("cut.all", "cut.all", "cut", tool="ruler", gives=("cut",), minutes=minutes(20))
    yield Deed("cut.label", "cut.label", "cut", needs=("cut",), gives=("labelled",))
    if any(material.melts for material in materials_of(plan)):
        yield Deed(
            "set.iron",
            "set.iron",
            "cut",
            tool="iron",
            gives=("iron set",),
            check=True,
            minutes=minutes(1),
        )
    yield from hoop_deeds(plan)
    for panel in plan.panels:
        if panel.panel.kind == "outer":
            yield from _outer(plan, panel)
        else:
            yield from _plain(plan, panel)
    yield from _looked_at(plan)


def _outer(plan: Plan, panel: PanelPlan) -> Iterator[Deed]:
    key = panel.key
    pieced = f"pieced:{key}"
    parts, as_one = panel.parts, sewn_as_one(panel.choices)
    for at in range(len(parts)):
        yield from _part(panel, at, as_one)
    if len(parts) > 1 and not as_one:
        yield Deed(
            f"piece.{key}.parts",
            "piece.parts",
            "piece",
            (key,),
            tool="¼ in foot",
            needs=tuple(f"pieced:{key}.{at}" for at in range(len(parts))),
            gives=(pieced,),
            values=(("number", len(parts)),),
            minutes=minutes(5),
        )
    yield Deed(
        f"piece.measure.{key}",
        "piece.measure",
        "piece",
        (key,),
        tool="ruler",
        needs=(pieced,),
        check=True,
        values=(("wide", panel.planned.width.value), ("high", panel.planned.height.value)),
        gives=(f"measured:pieced:{key}",),
        minutes=minutes(1),
    )
    if plan.hooped is not None and key in plan.hooped.panels:
        yield from hooped_panel(plan, panel, pieced)
    else:
        yield from _layered(plan, panel, pieced)
    yield from _trimmed(plan, panel)


def _part(panel: PanelPlan, at: int, as_one: bool) -> Iterator[Deed]:
    """One part of a top; a section goes on where the one above it ends."""
    key, last = panel.key, at == len(panel.parts) - 1
    whole = len(panel.parts) == 1 or (as_one and last)
    given_ = f"pieced:{key}" if whole else f"pieced:{key}.{at}"
    if panel.only_cloth:
        yield Deed(
            f"piece.{key}",
            "piece.whole",
            "piece",
            (key,),
            needs=("cut",),
            gives=(given_,),
            minutes=minutes(2),
        )
        return
    needs = ("cut",)
    if as_one and at:
        needs = (f"section:{key}.{at}",)
        yield Deed(
            f"piece.{key}.section.{at}",
            "piece.section",
            "piece",
            (key,),
            needs=(f"pieced:{key}.{at - 1}",),
            gives=needs,
            values=(("number", at + 1), ("of", len(panel.parts))),
            minutes=minutes(2),
        )
    order = panel.parts[at].top.order
    yield from from_steps(
        order, f"piece.{key}.{at}", "piece", (key,), needs, (given_,), "¼ in foot"
    )


def _layered(plan: Plan, panel: PanelPlan, pieced: str) -> Iterator[Deed]:
    key = panel.key
    under = foundation_of(panel.choices)  # the top is sewn on it already
    below = [one for one in panel.layers if one.role != "top" and one.material.key != under]
    ready = pieced
    gates = (COOL,) if any(layer.material.melts for layer in panel.layers) else ()
    if below and not panel.sewn_down:
        yield Deed(
            f"layer.press.{key}",
            "layer.press",
            "layer",
            (key,),
            tool="iron",
            needs=(pieced,),
            gates=gates,
            gives=(f"pressed:{key}",),
            minutes=minutes(2),
        )
        for number, layer in enumerate(below):
            before = f"pressed:{key}" if not number else f"laid:{key}.{number - 1}"
            yield Deed(
                f"layer.{key}.{number}",
                _BONDS[layer.bond],
                "layer",
                (key,),
                tool="iron" if layer.bond == "fuse" else "",
                needs=(before,),
                gates=gates if layer.bond == "fuse" else (),
                gives=(f"laid:{key}.{number}",),
                values=(("what", layer.label.lower()),),
                minutes=minutes(3),
            )
        ready = f"laid:{key}.{len(below) - 1}"
    if panel.quilt.sets:
        yield Deed(
            f"quilt.test.{key}",
            "quilt.test",
            "quilt",
            (key,),
            tool="walking foot",
            needs=(ready,),
            check=True,
            gives=(f"tested:{key}",),
            minutes=minutes(2),
        )
        yield Deed(
            f"quilt.{key}",
            "quilt.sew-one" if panel.sewing and panel.sewing.lines.whole == 1 else "quilt.sew",
            "quilt",
            (key,),
            tool="walking foot",
            needs=(f"tested:{key}",),
            gives=(f"quilted:{key}",),
            values=(("lines", panel.sewing.lines.whole if panel.sewing else 0),),
            minutes=panel.sewing.minutes if panel.sewing else None,
        )
        yield Deed(
            f"quilt.measure.{key}",
            "quilt.measure",
            "quilt",
            (key,),
            tool="ruler",
            needs=(f"quilted:{key}",),
            check=True,
            gives=(f"measured:quilted:{key}",),
            values=(("wide", panel.quilted.width.value), ("high", panel.quilted.height.value)),
            minutes=minutes(1),
        )
    else:
        yield Deed(
            f"quilt.{key}",
            "quilt.none",
            "quilt",
            (key,),
            needs=(ready,),
            gives=(f"quilted:{key}",),
            minutes=minutes(1),
        )


def _trimmed(plan: Plan, panel: PanelPlan) -> Iterator[Deed]:
    key = panel.key
    steps = squaring(panel)
    ready: tuple[str, ...] = (f"quilted:{key}",)
    if steps:
        yield from from_steps(
            steps, f"trim.{key}", "trim", (key,), ready, (f"squared:{key}",), "ruler"
        )
        ready = (f"squared:{key}",)
    if _follows_front(plan, key):
        ready = (*ready, FRONT)
    ready = (*ready, *_motifs(plan, key))
    yield Deed(
        f"trim.cut.{key}",
        "trim.cut",
        "trim",
        (key,),
        tool="ruler",
        needs=ready,
        gives=(f"cut to size:{key}",),
        minutes=minutes(3),
        values=(("wide", panel.trimmed.width.value), ("high", panel.trimmed.height.value)),
    )
    size = f"cut to size:{key}"
    if is_shaped(panel):
        yield from shaped(panel, size, f"shaped:{key}")
        size = f"shaped:{key}"
    yield Deed(
        f"trim.stay.{key}",
        "trim.stay",
        "trim",
        (key,),
        tool="walking foot",
        needs=(size,),
        gives=(f"trimmed:{key}",),
        minutes=minutes(3),
    )
    yield from _corners(panel)


def _motifs(plan: Plan, key: str) -> tuple[str, ...]:
    """What is stitched on a panel before it is cut to size."""
    marks = enumerate(plan.project.marks)
    return tuple(f"motif:{at}" for at, m in marks if m.kind == "motif" and m.panel == key)


def _follows_front(plan: Plan, key: str) -> bool:
    """Whether a panel is trimmed to a front that is sewn together first."""
    parts = {ref.panel for j in plan.bag.joins if j.kind == "zip" for ref in (*j.one, *j.other)}
    return plan.bag.assembled is not None and key not in parts


def _plain(plan: Plan, panel: PanelPlan) -> Iterator[Deed]:
    key = panel.key
    leaders = {match.leader for match in plan.bag.matches if match.follower == key}
    follows = tuple(
        f"cut to size:{other.key}"
        for other in plan.panels
        if other.key in leaders and other.panel.kind == "outer"
    )
    cut = "cut"
    if not panel.only_cloth:  # a lining of strips, or of squares
        cut = f"pieced:{key}"
        for at in range(len(panel.parts)):
            yield from _part(panel, at, True)
    yield Deed(
        f"trim.cut.{key}",
        "line.cut" if panel.panel.kind == "lining" else "trim.plain",
        "trim",
        (key,),
        tool="ruler",
        needs=(cut, *follows, *_motifs(plan, key)),
        gives=(f"cut to size:{key}" if is_shaped(panel) else f"trimmed:{key}",),
        values=(
            ("wide", panel.trimmed.width.value),
            ("high", panel.trimmed.height.value),
            ("number", panel.panel.copies),
        ),
        minutes=minutes(2),
    )
    yield from shaped(panel, f"cut to size:{key}", f"trimmed:{key}")
    yield from _corners(panel)


def _corners(panel: PanelPlan) -> Iterator[Deed]:
    """Corners that are boxed, and the middles of sides."""
    key = panel.key
    yield from boxed(panel)
    yield Deed(
        f"mark.middles.{key}",
        "mark.middles",
        "mark",
        (key,),
        needs=(f"trimmed:{key}",),
        gives=(f"marked:{key}",),
        minutes=minutes(1),
    )


def _looked_at(plan: Plan) -> Iterator[Deed]:
    """Whether prints that have an up stand upright, before two panels are joined."""
    keys = tuple(panel.key for panel in plan.panels if panel.panel.kind == "outer")
    if any(cloth.directional for cloth in plan.project.prints):
        yield Deed(
            "check.upright",
            "check.upright",
            "mark",
            keys,
            check=True,
            needs=tuple(f"trimmed:{key}" for key in keys),
            gives=(UPRIGHT.fact,),
            minutes=minutes(1),
        )
