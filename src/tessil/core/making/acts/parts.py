"""What is put on panels before they are joined: pockets, snap, tabs, piping, flap, straps."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from msgspec.structs import replace

from tessil.core.bag.deeds import SEWN, Deed, Gate, Tool
from tessil.core.bag.model import Attachment, Join, edge_long
from tessil.core.bag.steps import Step
from tessil.core.edges.sewing import FLAP_BOUND
from tessil.core.making.acts.common import (
    FLAP_ON,
    NOT_CLOSED,
    PIPED,
    SNAP_IN,
    from_steps,
    minutes,
    sewings_of,
)
from tessil.core.numbers.workings import total
from tessil.core.planned import Plan
from tessil.core.trimming.choice import Mark

POCKETS = ("slip", "divided", "window")
FOOT: Tool = "walking foot"
ON_TOP = ("ribbon", "label", "patch")
LATER = ("motif",)
FOLDS = ("strap.fold", "strap.cover", "strap.underside")  # how a strap is made of its strip
JOINS = ("strap.join-diagonal", "strap.join-straight")
FIRM = "strap.fuse"
IN_RINGS = ("strap.slider-first", "strap.slider-last", "strap.thread", "strap.ends")
BIAS_READY = "bias strips joined"


def part_deeds(plan: Plan) -> Iterator[Deed]:
    """Everything of a bag that is made by itself or put on one panel."""
    yield from _marked(plan)
    yield from _snap(plan)
    yield from _bias(plan)
    yield from _piping(plan)
    yield from _flap(plan)
    yield from _straps(plan)
    yield from _loop(plan)


def _motif(plan: Plan, at: int, mark: Mark) -> Deed:
    """A motif is stitched while its panel is still too large: then it is cut to size."""
    outer = plan.panel(mark.panel).panel.kind == "outer"
    return Deed(
        f"motif.{at}",
        f"motif.{mark.made}",
        "piece",
        (mark.panel,),
        tool="walking foot",
        needs=(f"pieced:{mark.panel}" if outer else "cut",),
        gives=(f"motif:{at}",),
        values=(("wide", mark.width), ("high", mark.height)),
        minutes=minutes(20),
    )


def _marked(plan: Plan) -> Iterator[Deed]:
    """Pockets and tabs by their marks.  A lining that is closed takes no pocket any more."""
    for at, mark in enumerate(plan.project.marks):
        if mark.kind == "motif" and any(p.key == mark.panel for p in plan.panels):
            yield _motif(plan, at, mark)
    pockets = [one for one in plan.placed if one.kind in POCKETS and one.index is not None]
    for one in plan.placed:
        if one.index is None or one.kind in LATER:
            continue
        made = one.kind if one.kind in (*POCKETS, *ON_TOP) else "tab"
        lines = tuple(line - one.box[0] for line in one.lines)
        if made == "divided" and not lines:  # all its divisions lie beyond it
            made = "slip"
        fact = f"pocket:{one.index}" if one in pockets else f"tab:{one.index}"
        yield Deed(
            f"prepare.{made}.{one.index}",
            f"prepare.{made}",
            "prepare",
            (one.panel,),
            needs=(f"trimmed:{one.panel}",),
            gates=(NOT_CLOSED,),
            gives=(fact,),
            values=(
                ("what", one.label.lower()),
                ("down", one.box[1]),
                ("across", one.box[0]),
                *((("lines", lines),) if lines else ()),
            ),
            minutes=minutes(10),
        )
    if pockets:
        yield Deed(
            "check.pockets",
            "check.pockets",
            "prepare",
            tuple(dict.fromkeys(one.panel for one in pockets)),
            check=True,
            needs=tuple(f"pocket:{one.index}" for one in pockets),
            gives=("pockets on",),
        )


def _snap(plan: Plan) -> Iterator[Deed]:
    halves = [one for one in plan.placed if one.kind == "snap"]
    for one in halves:
        half = one.key.partition(":")[2]
        yield Deed(
            f"prepare.snap.{half}",
            f"prepare.snap-{half}",
            "mark" if plan.project.making.snap == "early" else "prepare",
            (one.panel,),
            needs=(f"trimmed:{one.panel}",),
            gates=(NOT_CLOSED,),
            gives=(f"snap:{half}",),
            values=(("down", one.box[1]),),
            minutes=minutes(4),
        )
    if halves:
        yield Deed(
            "check.snap",
            "check.snap",
            "prepare",
            tuple(one.panel for one in halves),
            check=True,
            needs=tuple(f"snap:{one.key.partition(':')[2]}" for one in halves),
            gives=(SNAP_IN.fact,),
            minutes=minutes(1),
        )


def _bias(plan: Plan) -> Iterator[Deed]:
    """Strips on the bias, joined before they bind or cover anything."""
    steps = plan.edge_steps.get("bias", ())
    yield from from_steps(steps, "bias", "prepare", (), ("cut",), (BIAS_READY,), "¼ in foot")


def strips_ready(plan: Plan) -> tuple[str, ...]:
    """What is so before a binding or piping is made of its strips."""
    return (BIAS_READY,) if plan.edge_steps.get("bias") else ()


def _piping(plan: Plan) -> Iterator[Deed]:
    keys = tuple(
        key for key in plan.project.piping.panels if any(p.key == key for p in plan.panels)
    )
    steps = plan.edge_steps.get("piping", ())
    if keys and steps:
        needs = (*(f"trimmed:{key}" for key in keys), *strips_ready(plan))
        yield from from_steps(steps, "pipe", "prepare", keys, needs, (PIPED.fact,), "zipper foot")


def _flap(plan: Plan) -> Iterator[Deed]:
    """A flap that is a panel of its own, and its lining: turned or bound, basted to the top
    behind."""
    bag = plan.bag
    join = next((one for one in bag.joins if one.key.what == "flap"), None)
    if join is None:
        return
    outer, lining = join.one[0].panel, join.other[0].panel
    held = next(one for one in sewings_of(bag) if one.key.what == "flap")
    bound = [step for step in plan.edge_steps.get("binding", ()) if step.what == FLAP_BOUND]
    if bound:
        yield from _flap_bound(plan, outer, lining, bound)
    else:
        yield from _flap_turned(plan, join, outer, lining)
    yield Deed(
        "flap.baste",
        "flap.baste",
        "prepare",
        (outer, "back"),
        held.edges,
        held.slug,
        tool="walking foot",
        needs=("flap made", "trimmed:back", "marked:back"),
        gives=(FLAP_ON.fact, SEWN + held.slug),
        length=held.length,
        minutes=minutes(3),
    )


def _flap_ready(plan: Plan, outer: str, lining: str) -> tuple[tuple[str, ...], tuple[Gate, ...]]:
    """What is so before the flap and its lining are one, and what may not be forgotten."""
    snap = any(one.kind == "snap" for one in plan.placed)
    gates = (Gate("snap-first", "snap:male"),) if snap else ()
    return (f"trimmed:{outer}", f"trimmed:{lining}", f"marked:{outer}"), gates


def _flap_bound(plan: Plan, outer: str, lining: str, steps: Iterable[Step]) -> Iterator[Deed]:
    """Laid on its lining and bound: nothing of it is turned."""
    needs, gates = _flap_ready(plan, outer, lining)
    ready = (*needs, *strips_ready(plan))
    both = (lining, outer)
    free = [e for e in plan.bag.panel(outer).edges if e.key.side != "top"]
    long = total(edge_long(edge) for edge in free).called("round the flap")
    for deed in from_steps(steps, "flap", "prepare", both, ready, ("flap bound",), FOOT):
        yield replace(deed, gates=gates, seam=plan.brief.seams.binding, length=long)
    yield Deed(
        "flap.caught",
        "check.caught",
        "prepare",
        both,
        check=True,
        needs=("flap bound",),
        gives=("flap made",),
        minutes=minutes(1),
    )


def _flap_turned(plan: Plan, join: Join, outer: str, lining: str) -> Iterator[Deed]:
    """Sewn to its lining on three sides and turned."""
    round_ = [edge for edge in plan.bag.panel(outer).edges if edge.finish == "seam"]
    sides = tuple((key, edge.key.slug) for key in (lining, outer) for edge in round_)
    needs, gates = _flap_ready(plan, outer, lining)
    yield Deed(
        "flap.sew",
        "flap.sew",
        "prepare",
        (lining, outer),
        sides,
        tool="walking foot",
        needs=needs,
        gates=gates,
        gives=("flap sewn",),
        join=join.key.slug,
        seam=join.allowance,
        length=total(edge_long(edge) for edge in round_).called("round the flap"),
        minutes=minutes(6),
    )
    yield Deed(
        "flap.clip",
        "flap.clip",
        "prepare",
        (lining, outer),
        needs=("flap sewn",),
        gives=("flap clipped",),
        minutes=minutes(3),
    )
    yield Deed(
        "flap.caught",
        "check.caught",
        "prepare",
        (lining, outer),
        check=True,
        needs=("flap sewn",),
        gives=("flap caught",),
        minutes=minutes(1),
    )
    yield Deed(
        "flap.turn",
        "flap.turn",
        "prepare",
        (outer,),
        tool="iron",
        gates=(Gate("clipped", "flap clipped"), Gate("caught", "flap caught")),
        needs=("flap sewn",),
        gives=("flap turned",),
        minutes=minutes(4),
    )
    yield Deed(
        "flap.topstitch",
        "flap.topstitch",
        "prepare",
        (outer,),
        tool="walking foot",
        needs=("flap turned",),
        gives=("flap made",),
        minutes=minutes(4),
    )


def loaded(plan: Plan) -> list[Attachment]:
    """Straps, handles, loops and tabs; a cord is threaded last."""
    return [one for one in plan.bag.attachments if one.cloth]


def sewn_on(plan: Plan) -> list[Attachment]:
    """Those that are sewn to the bag itself."""
    later = plan.project.making.handles == "after"
    caught = ("seam",) if later else ("seam", "face")
    return [one for one in loaded(plan) if one.ends in caught]


def hung_on(plan: Plan) -> list[Attachment]:
    """Those that come on once the bag is done: on rings or loops, or on the face by choice."""
    on = sewn_on(plan)
    return [one for one in loaded(plan) if one not in on]


def at_the_top(one: Attachment) -> bool:
    """Whether it goes into the top edge or on the face, and not into the sides."""
    return one.key == "handles"


def _straps(plan: Plan) -> Iterator[Deed]:
    """Straps, handles and loops: made, looked at, and sewn on where they go."""
    for one in loaded(plan):
        yield from _strap(plan, one)


def _strap(plan: Plan, one: Attachment) -> Iterator[Deed]:
    steps = _steps_of(plan, one)
    made, ready = f"{one.key} made", f"{one.key} ends sewn"
    folds = [step for step in steps if step.what in (*JOINS, FIRM, *FOLDS)]
    later = [s for s in steps if s not in folds and not (one.ends == "ring" and s.what in IN_RINGS)]
    if folds:
        yield from _of(one, from_steps(folds, one.key, "prepare", (), ("cut",), (made,), FOOT))
    else:
        yield Deed(
            f"prepare.{one.key}",
            "strap.make",
            "prepare",
            needs=("cut",),
            gives=(made,),
            tool="walking foot",
            values=(("what", one.label.lower()), ("number", one.number)),
            minutes=minutes(10),
        )
    yield Deed(
        f"check.{one.key}",
        "check.untwisted",
        "prepare",
        needs=(made,),
        check=True,
        gives=(f"{one.key} untwisted", f"{one.key} looked at"),
        values=(("what", one.label.lower()),),
        minutes=minutes(1),
    )
    looked = f"{one.key} untwisted"
    ends_of = from_steps(later, f"{one.key} ends", "prepare", (), (looked,), (ready,), FOOT)
    yield from _of(one, ends_of)
    if one in hung_on(plan):
        return
    ends = _where(plan, one.key)
    yield Deed(
        f"baste.{one.key}",
        _basted(plan, one),
        "prepare",
        ends,
        tool="walking foot",
        needs=(ready if later else made, *(f"marked:{key}" for key in ends)),
        gates=(Gate("untwisted", looked), Gate("fold-inside", f"{one.key} looked at")),
        gives=(f"on:{one.key}",),
        values=(("what", one.label.lower()),),
        minutes=minutes(5),
    )


def _basted(plan: Plan, one: Attachment) -> str:
    if one.ends == "face":
        return "strap.face"
    rings = any(other.ends == "ring" for other in plan.bag.attachments)
    return "strap.baste-rings" if one.key == "tabs" and rings else "strap.baste"


def _of(one: Attachment, deeds: Iterable[Deed]) -> Iterator[Deed]:
    """Steps told of straps at large, with what they are done to."""
    for deed in deeds:
        tool: Tool = "iron" if deed.what == FIRM else deed.tool
        yield replace(deed, tool=tool, values=(*deed.values, ("of", one.label.lower())))


def _steps_of(plan: Plan, one: Attachment) -> list[Step]:
    """The steps of the edge stage that this one takes."""
    found = set(FOLDS)
    cut = next((strap for strap in plan.edging.straps if strap.part.key == one.key), None)
    if cut is not None and cut.joins.whole:
        found |= set(JOINS)
    if cut is not None and cut.interfacing is not None:
        found |= {FIRM}
    if one.key == "strap":
        runs = any(strap.longest is not None for strap in plan.edging.straps)
        if runs:
            found |= set(IN_RINGS)
        if one.ends == "ring":
            found |= {"strap.ends"}
    found |= {"tied": {"strap.hem"}, "face": {"strap.patch"}}.get(one.ends, set())
    return [step for step in plan.edge_steps.get("straps", ()) if step.what in found]


def hanging_deeds(plan: Plan, whole: tuple[str, ...]) -> Iterator[Deed]:
    """What hangs on rings or loops goes on last."""
    for one in hung_on(plan):
        steps = _steps_of(plan, one)
        at_rings = [step for step in steps if one.ends == "ring" and step.what in IN_RINGS]
        later = [step for step in steps if step.what not in (*JOINS, FIRM, *FOLDS)]
        ready = "ends sewn" if later else "untwisted"
        if at_rings:
            waits = (*whole, f"{one.key} untwisted")
            sewn = (f"{one.key} ends sewn",)
            made = from_steps(at_rings, f"{one.key} rings", "finish", (), waits, sewn, FOOT)
            yield from _of(one, made)
        yield Deed(
            f"hang.{one.key}",
            _HANGING[one.ends],
            "finish",
            needs=(*whole, f"{one.key} {ready}"),
            gates=(Gate("untwisted", f"{one.key} untwisted"),),
            gives=(f"on:{one.key}",),
            values=(("what", one.label.lower()),),
            minutes=minutes(3),
        )


_HANGING = {
    "ring": "strap.hang-rings",
    "tied": "strap.hang-tied",
    "face": "strap.face-late",
    "below": "strap.below",
}


def _where(plan: Plan, key: str) -> tuple[str, ...]:
    """The panels on which a strap's ends are sewn."""
    hangs = [one for one in plan.bag.net.hangs if one.key == key]
    found = dict.fromkeys(end[0] for one in hangs for end in one.ends)
    return tuple(found) or (plan.shape.leader,)


def _loop(plan: Plan) -> Iterator[Deed]:
    ours = ("loop.make", "loop.baste")
    steps = [step for step in plan.edge_steps.get("closing", ()) if step.what in ours]
    if steps:
        key = "back" if any(panel.key == "back" for panel in plan.panels) else plan.shape.leader
        yield from from_steps(
            steps, "loop", "prepare", (key,), (f"trimmed:{key}",), ("on:loop",), "walking foot"
        )


def in_the_seams(plan: Plan) -> list[Gate]:
    """What is caught in the side seams and must be on before them: tabs, loops, straps."""
    kinds = ("d-ring", "ribbon")
    tabs = [one for one in plan.placed if one.kind in kinds and one.index is not None]
    found = [Gate("strap-in-seam", f"tab:{one.index}") for one in tabs]
    aside = [one for one in sewn_on(plan) if not at_the_top(one)]
    return found + [Gate("strap-in-seam", f"on:{one.key}") for one in aside]


def in_the_top(plan: Plan) -> list[Gate]:
    """Handles, which the top edge or the zipper catches."""
    return [Gate("strap-in-seam", f"on:{one.key}") for one in sewn_on(plan) if at_the_top(one)]


def before_the_top(plan: Plan) -> tuple[Gate, ...]:
    """What must be on before the top edge is closed."""
    found = []
    if any(join.key.what == "flap" for join in plan.bag.joins):
        found.append(FLAP_ON)
    if any(one.kind == "snap" for one in plan.placed):
        found.append(SNAP_IN)
    if any(one.kind in POCKETS and one.index is not None for one in plan.placed):
        found.append(Gate("pockets-first", "pockets on"))
    found += [Gate("strap-in-seam", f"on:{one.key}") for one in sewn_on(plan)]
    if any(step.what == "loop.baste" for step in plan.edge_steps.get("closing", ())):
        found.append(Gate("strap-in-seam", "on:loop"))
    return tuple(found)
