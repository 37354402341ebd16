"""The zipper: middles, both sides, the pull inside, its ends, half open."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.edges.edging import zip_seams_bound
from tessil.core.making.acts.common import (
    FRONT,
    MIDDLES_MEET,
    OPEN_ZIP,
    PULL_IN,
    from_steps,
    minutes,
)
from tessil.core.making.acts.kinds import Kinds, ready_for
from tessil.core.making.acts.parts import in_the_top
from tessil.core.planned import Plan

# Told here where they belong in the order, or with gates of their own.
OWN = (
    "zip.end-tabs",
    "zip.bind-edges",
    "zip.under-bound",
    "zip.lap-tape",
    "zip.pull-tab",
    "loop.make",
    "loop.baste",
    "loop.button",
    "zip.pull",
    "cord.open",
    "cord.eyelets",
    "cord.thread",
    "cord.thread-one",
)


EDGES_BOUND, TABBED = "zipper edges bound", "zipper tabbed"


def _assembled(plan: Plan, keys: tuple[str, ...]) -> Iterator[Deed]:
    """A front of several parts trimmed as one and measured: what lies behind it follows."""
    front = plan.bag.assembled
    if front is None:
        return
    yield Deed(
        "front.measure",
        "front.measure",
        "zipper",
        (front.leader, *(key for key in keys if key != front.leader)),
        tool="ruler",
        needs=("zip trimmed",),
        check=True,
        values=(("wide", front.width.value), ("high", front.height.value)),
        gives=(FRONT,),
        minutes=minutes(4),
    )


def _closes(plan: Plan) -> str:
    choice = plan.project.zipper
    return "middle" if choice.sliders == "two" else choice.rests


def _sewn_as(plan: Plan, kinds: Kinds) -> str:
    """How a side of the zipper is sewn: into a seam, under a bound edge, or a tape lapped over."""
    how = plan.project.zipper.set
    return f"zip.sew-{how}" if how != "seam" else "zip.sew-lined" if kinds.lined else "zip.sew"


def _inside(plan: Plan, kinds: Kinds, after: str) -> Iterator[Deed]:
    """The zipper's seams that are bound inside, while they still lie open."""
    if plan.edging.inner is None or plan.project.zipper.set != "seam":
        return
    for join in kinds.zips[: zip_seams_bound(plan.project.binding)]:
        yield Deed(
            f"inside.{join.slug}",
            "inside.finish",
            "zipper",
            join=join.slug,
            tool="walking foot",
            needs=(after,),
            gives=(f"inside:{join.slug}",),
            minutes=minutes(3),
        )
        after = f"inside:{join.slug}"


def _told_first(
    plan: Plan, what: str, keys: tuple[str, ...], needs: tuple[str, ...], gives: str
) -> tuple[Deed, ...]:
    """A step of the edge stage that is done before the zipper is sewn on: tabs on its ends, the
    edges bound that it lies under.  None where there is none."""
    steps = [one for one in plan.edge_steps.get("closing", ()) if one.what == what]
    prefix = what.replace("zip.", "zip.first.")
    return from_steps(steps, prefix, "zipper", keys, needs, (gives,), "walking foot")


def zipper_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    if not kinds.zips:
        return
    keys = tuple(dict.fromkeys(key for join in kinds.zips for key in join.panels))
    ready = tuple(fact for join in kinds.zips for fact in ready_for(join))
    how = plan.project.zipper.set
    tabs = _told_first(plan, "zip.end-tabs", (), ("cut",), TABBED)
    yield from tabs
    yield Deed(
        "zip.middles",
        "check.middles",
        "zipper",
        keys,
        check=True,
        needs=(*ready, *(TABBED for _ in tabs)),
        gives=(MIDDLES_MEET.fact,),
        values=(("towards", _closes(plan)),),
        minutes=minutes(1),
    )
    if kinds.lined:
        yield Deed(
            "zip.linings",
            "check.linings" if how == "seam" else "check.linings-behind",
            "zipper",
            tuple(panel.key for panel in kinds.lined),
            check=True,
            needs=tuple(f"trimmed:{panel.key}" for panel in kinds.lined),
            gives=("linings face",),
            minutes=minutes(1),
        )
    made = "linings face" if kinds.lined else ""
    if how == "bound":
        waits = (*ready, *((made,) if made else ()))
        yield from _told_first(plan, "zip.bind-edges", keys, waits, EDGES_BOUND)
        made = EDGES_BOUND
    for number, join in enumerate(kinds.zips):
        yield Deed(
            f"sew.{join.slug}",
            _sewn_as(plan, kinds),
            "zipper",
            join.panels,
            join.edges,
            join=join.slug,
            tool="zipper foot",
            needs=(*ready_for(join), *((made,) if made else ())),
            gates=(MIDDLES_MEET, *in_the_top(plan)),
            gives=(f"sewn:{join.slug}",),
            seam=join.allowance if how == "seam" else None,
            length=join.length,
            minutes=minutes(6),
            values=(("number", number + 1),),
        )
        made = f"sewn:{join.slug}"
    for deed in _inside(plan, kinds, made):
        yield deed
        made = deed.gives[0]
    yield from from_steps(
        [step for step in plan.edge_steps.get("closing", ()) if step.what not in OWN],
        "zip",
        "zipper",
        keys,
        (made,),
        ("zip stitched down",),
        "zipper foot",
    )
    yield Deed(
        "zip.run",
        "check.zip-runs",
        "zipper",
        check=True,
        needs=("zip stitched down",),
        gives=("zip runs",),
        minutes=minutes(1),
    )
    yield Deed(
        "zip.pull",
        "zip.pull",
        "zipper",
        needs=("zip runs",),
        gives=(PULL_IN.fact,),
        minutes=minutes(1),
    )
    yield Deed(
        "zip.trim",
        "zip.trim-ends",
        "zipper",
        keys,
        tool="ruler",
        needs=("zip runs",),
        gates=(PULL_IN,),
        gives=("zip trimmed",),
        minutes=minutes(1),
    )
    yield from _assembled(plan, keys)
    yield Deed(
        "zip.open",
        "zip.open-half",
        "zipper",
        needs=("zip trimmed",),
        gives=(OPEN_ZIP.fact,),
        minutes=minutes(1),
    )
