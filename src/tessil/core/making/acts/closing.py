"""Turned and closed: the gap, the top, a binding; bags sewn flat, faces bound; the last steps."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from msgspec.structs import replace

from tessil.core.bag.deeds import Deed, Gate
from tessil.core.bag.steps import Step
from tessil.core.edges.sewing import FLAP_BOUND
from tessil.core.making.acts.basing import slid_in
from tessil.core.making.acts.common import (
    CAUGHT,
    CLIPPED,
    FLAP_ON,
    GAP_LEFT,
    OPEN_ZIP,
    from_steps,
    minutes,
)
from tessil.core.making.acts.kinds import Kinds, kinds_of, turned_through_gap
from tessil.core.making.acts.parts import before_the_top, hanging_deeds, hung_on, strips_ready
from tessil.core.planned import Plan

SMALL = ("zip.pull-tab", "loop.button")  # what is sewn on by hand once the bag is whole
SMALL_ON = "small things on"


def closed_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    if turned_through_gap(kinds) and kinds.zips:
        yield from _through_the_gap(plan, kinds, ("shell sewn", "lining sewn"))
    elif turned_through_gap(kinds):
        yield _put_in(kinds, wrong=False)
        gates = before_the_top(plan)
        hangs = any(gate.id in (FLAP_ON.id, "strap-in-seam") for gate in gates)
        yield Deed(
            "top.sew",
            "top.sew-hanging" if hangs else "top.sew",
            "line",
            tool="walking foot",
            needs=("lining in",),
            gates=gates,
            gives=("top sewn", "lining closed"),
            seam=plan.brief.seams.top,
            minutes=minutes(8),
        )
        yield from _through_the_gap(plan, kinds, ("top sewn",))
    elif kinds.lined and kinds.turned:
        yield from _tucked_in(plan, kinds)
    elif kinds.lined:
        yield _turned(kinds, ("shell sewn",))
        yield _put_in(kinds, wrong=True)
        yield Deed(
            "top.baste",
            "top.baste",
            "line",
            tool="walking foot",
            needs=("lining in", "turned"),
            gates=before_the_top(plan),
            gives=("top basted", "lining closed"),
            minutes=minutes(4),
        )
        yield from _bound(plan, ("top basted",))
    else:
        for join in (*kinds.seams, *kinds.corners):
            yield Deed(
                f"inside.{join.slug}",
                "inside.finish",
                "turn",
                join=join.slug,
                tool="walking foot",
                needs=("shell sewn",),
                gives=(f"inside:{join.slug}",),
                minutes=minutes(3),
            )
        raw = tuple(f"inside:{join.slug}" for join in (*kinds.seams, *kinds.corners))
        yield _turned(kinds, ("shell sewn", *raw))
        gates = before_the_top(plan)
        if binding_steps(plan):
            yield from _bound(plan, ("turned",), gates)
        elif not kinds.zips:
            yield Deed(
                "top.turn-in",
                "top.turn-in",
                "turn",
                tool="walking foot",
                needs=("turned",),
                gates=gates,
                gives=("top finished",),
                minutes=minutes(8),
            )


def _put_in(kinds: Kinds, wrong: bool) -> Deed:
    keys = tuple(panel.key for panel in kinds.lined)
    return Deed(
        "line.put-in",
        "line.put-in" if wrong else "line.put-round",
        "line",
        keys,
        needs=("lining sewn", "shell sewn", *(("turned",) if wrong else ())),
        gives=("lining in",),
        minutes=minutes(3),
    )


def _tucked_in(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """Both tops pressed under, the lining slipped in, one stitching round the edge: no gap."""
    yield _turned(kinds, ("shell sewn",))
    for key, needs in (("outside", "turned"), ("lining", "lining sewn")):
        yield Deed(
            f"top.press-{key}",
            "top.press-under",
            "line",
            tool="iron",
            needs=(needs,),
            gives=(f"top of the {key} under",),
            values=(("what", key), ("seam", plan.brief.seams.top.value)),
            minutes=minutes(4),
        )
    yield _put_in(kinds, wrong=True)
    yield Deed(
        "top.edge-stitch",
        "top.edge-stitch",
        "line",
        tool="walking foot",
        needs=("lining in", "top of the outside under", "top of the lining under"),
        gates=before_the_top(plan),
        gives=("top finished", "lining closed"),
        minutes=minutes(8),
    )


def _turned(kinds: Kinds, needs: Sequence[str]) -> Deed:
    gates = [CAUGHT, CLIPPED]
    if kinds.zips:
        gates.append(OPEN_ZIP)
    return Deed(
        "turn",
        "turn.mouth" if not kinds.zips else "turn.zip",
        "turn",
        needs=tuple(needs),
        gates=tuple(gates),
        gives=("turned", *(() if kinds.lined else ("lining closed",))),
        minutes=minutes(3),
    )


def _through_the_gap(plan: Plan, kinds: Kinds, needs: Sequence[str]) -> Iterator[Deed]:
    gates = [CAUGHT, CLIPPED, GAP_LEFT]
    if kinds.zips:
        gates += [OPEN_ZIP, *before_the_top(plan)]
    yield Deed(
        "turn",
        "turn.gap",
        "turn",
        needs=tuple(needs),
        gates=tuple(gates),
        gap=plan.gap,
        gives=("turned", *(("lining closed",) if kinds.zips else ())),
        minutes=minutes(5),
    )
    yield Deed(
        "turn.corners",
        "turn.corners",
        "turn",
        needs=("turned",),
        gives=("corners out",),
        minutes=minutes(2),
    )
    yield Deed(
        "gap.close",
        "gap.close",
        "turn",
        tool="hand needle",
        needs=("corners out",),
        ends=(GAP_LEFT.fact,),
        gives=("gap closed",),
        gap=plan.gap,
        minutes=minutes(6),
    )
    if not kinds.zips:
        yield Deed(
            "top.stitch",
            "top.stitch",
            "finish",
            tool="walking foot",
            needs=("gap closed",),
            gives=("top finished",),
            minutes=minutes(5),
        )


def binding_steps(plan: Plan) -> tuple[Step, ...]:
    """How the bag's own edges are bound: a flap is before it is sewn on."""
    steps = plan.edge_steps.get("binding", ())
    return tuple(step for step in steps if step.what != FLAP_BOUND)


def _bound(plan: Plan, needs: Sequence[str], gates: tuple[Gate, ...] = ()) -> Iterator[Deed]:
    """The binding round the top, or round the bag, in the steps of the edge stage."""
    steps = binding_steps(plan)
    ready = (*needs, *strips_ready(plan))
    made = from_steps(steps, "bind", "finish", (), ready, ("bound",), "walking foot")
    for at, deed in enumerate(made):
        yield deed if at else _gated(deed, gates)


def _gated(deed: Deed, gates: tuple[Gate, ...]) -> Deed:
    return replace(deed, gates=gates)


def flat_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """Body and lining sewn together all round and turned, or the edges of a body without a lining
    turned in; folded and stitched at its sides."""
    body = plan.shape.leader
    edges = tuple((body, edge.key.slug) for edge in plan.bag.panel(body).edges)
    lined = any(panel.panel.kind == "lining" for panel in plan.panels)
    if lined:
        yield from _sewn_round(plan, edges)
    else:
        yield Deed(
            "edges.turn-in",
            "edges.turn-in",
            "assemble",
            (body,),
            tool="walking foot",
            needs=tuple(f"trimmed:{panel.key}" for panel in plan.panels),
            gates=before_the_top(plan),
            gives=("turned", "lining closed"),
            minutes=minutes(8),
        )
    yield Deed(
        "sides.stitch",
        "sides.stitch",
        "finish",
        (body,),
        tool="walking foot",
        needs=("gap closed",) if lined else ("turned",),
        gives=("sides stitched", *_all_sewn(kinds)),
        minutes=minutes(6),
    )


def _sewn_round(plan: Plan, edges: tuple[tuple[str, str], ...]) -> Iterator[Deed]:
    """Body and lining sewn together all round and turned through the gap."""
    keys = tuple(panel.key for panel in plan.panels)
    yield Deed(
        "sew.round",
        "join.round",
        "assemble",
        keys[::-1],
        edges,
        tool="walking foot",
        needs=tuple(f"trimmed:{key}" for key in keys),
        gates=before_the_top(plan),
        gives=("round sewn", GAP_LEFT.fact, "lining closed"),
        gap=plan.gap,
        minutes=minutes(8),
    )
    yield Deed(
        "shell.caught",
        "check.caught",
        "assemble",
        check=True,
        needs=("round sewn",),
        gives=(CAUGHT.fact,),
        minutes=minutes(2),
    )
    yield Deed(
        "shell.clip",
        "shell.clip",
        "assemble",
        needs=("round sewn",),
        gives=(CLIPPED.fact,),
        minutes=minutes(3),
    )
    yield Deed(
        "turn",
        "turn.gap",
        "turn",
        needs=("round sewn",),
        gates=(CAUGHT, CLIPPED, GAP_LEFT),
        gives=("turned",),
        gap=plan.gap,
        minutes=minutes(5),
    )
    yield Deed(
        "gap.close",
        "gap.close",
        "turn",
        tool="hand needle",
        needs=("turned",),
        ends=(GAP_LEFT.fact,),
        gives=("gap closed",),
        gap=plan.gap,
        minutes=minutes(5),
    )


def _all_sewn(kinds: Kinds) -> tuple[str, ...]:
    return tuple(f"sewn:{join.slug}" for join in kinds.seams)


def edged_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """Faces laid on one another wrong sides together and bound all round."""
    outer = tuple(panel.key for panel in plan.panels if panel.panel.kind != "lining")
    zips = ("zip trimmed",) if kinds.zips else ()
    ready = tuple(f"trimmed:{panel.key}" for panel in plan.panels)
    if _some_turned(plan):
        yield Deed(
            "top.turn-in",
            "top.turn-in",
            "assemble",
            outer,
            tool="walking foot",
            needs=ready,
            gives=("top finished",),
            minutes=minutes(8),
        )
        ready = (*ready, "top finished")
    yield Deed(
        "lay.faces",
        "lay.faces" if len(outer) > 1 else "lay.one",
        "assemble",
        outer,
        needs=(*ready, *zips),
        gives=("laid",),
        minutes=minutes(2),
    )
    yield Deed(
        "edge.baste",
        "edge.baste",
        "assemble",
        outer,
        tool="walking foot",
        needs=("laid",),
        gates=before_the_top(plan),
        gives=("basted", "lining closed", *_all_sewn(kinds)),
        minutes=minutes(4),
    )
    yield Deed(
        "shell.caught",
        "check.caught",
        "assemble",
        outer,
        check=True,
        needs=("basted",),
        gives=(CAUGHT.fact,),
        minutes=minutes(1),
    )
    yield from _bound(plan, ("basted",), (CAUGHT,))


def _some_turned(plan: Plan) -> bool:
    """Whether some edge of a bag that is bound elsewhere is turned in."""
    return "turned" in _finishes(plan)


def _finishes(plan: Plan) -> set[str]:
    """What becomes of the edges of the outside."""
    outer = (panel.panel for panel in plan.panels if panel.panel.kind == "outer")
    return {edge.finish for panel in outer for edge in panel.edges}


def finished_deeds(plan: Plan) -> Iterator[Deed]:
    """The last steps: cords in, a stiffener, a press, a look at it all."""
    whole = _last_facts(plan)
    if "free" in _finishes(plan):
        yield Deed(
            "edge.overcast",
            "edge.overcast",
            "finish",
            tool="walking foot",
            needs=whole,
            gives=("overcast",),
            minutes=minutes(4),
        )
        whole = (*whole, "overcast")
    pushed = tuple(slid_in(plan, kinds_of(plan), whole))
    yield from pushed
    threaded = [s for s in plan.edge_steps.get("closing", ()) if s.what.startswith("cord.thread")]
    if threaded:
        yield Deed(
            "finish.channel",
            "finish.channel",
            "finish",
            tool="walking foot",
            needs=whole,
            gives=("channel sewn",),
            minutes=minutes(5),
        )
        yield from from_steps(threaded, "finish", "finish", (), ("channel sewn",), ("on:cord",))
    small = [s for s in plan.edge_steps.get("closing", ()) if s.what in SMALL]
    yield from from_steps(small, "finish.small", "finish", (), whole, (SMALL_ON,), "hand needle")
    yield from hanging_deeds(plan, whole)
    hung = [f"on:{one.key}" for one in hung_on(plan)]
    last = (
        *whole,
        *(fact for deed in pushed for fact in deed.gives),
        *hung,
        *(("on:cord",) if threaded else ()),
        *((SMALL_ON,) if small else ()),
    )
    yield Deed(
        "finish.press",
        "finish.press",
        "finish",
        tool="iron",
        needs=last,
        gives=("pressed at last",),
        minutes=minutes(5),
    )
    yield Deed(
        "finish.look",
        "check.finished",
        "finish",
        check=True,
        needs=("pressed at last",),
        gives=("finished",),
        minutes=minutes(3),
    )


def _last_facts(plan: Plan) -> tuple[str, ...]:
    kinds = kinds_of(plan)
    bound = bool(binding_steps(plan))
    if kinds.edging:
        return ("bound",) if bound else ("basted",)
    if kinds.flat:
        return ("sides stitched",)
    if turned_through_gap(kinds):
        return ("gap closed",) if kinds.zips else ("top finished",)
    if kinds.lined and kinds.way == "sleeve":
        return ("turned",)
    if bound:
        return ("bound",)
    return ("turned",) if kinds.zips else ("top finished",)
