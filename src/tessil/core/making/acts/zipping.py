"""The zipper: middles, both sides, the pull inside, its ends, half open."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
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

# With gates of their own here.
OWN = (
    "loop.baste",
    "zip.pull",
    "cord.open",
    "cord.eyelets",
    "cord.thread",
    "cord.thread-one",
)  # with gates of their own here


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


def zipper_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    if not kinds.zips:
        return
    keys = tuple(dict.fromkeys(key for join in kinds.zips for key in join.panels))
    yield Deed(
        "zip.middles",
        "check.middles",
        "zipper",
        keys,
        check=True,
        needs=tuple(fact for join in kinds.zips for fact in ready_for(join)),
        gives=(MIDDLES_MEET.fact,),
        values=(("towards", _closes(plan)),),
        minutes=minutes(1),
    )
    if kinds.lined:
        yield Deed(
            "zip.linings",
            "check.linings",
            "zipper",
            tuple(panel.key for panel in kinds.lined),
            check=True,
            needs=tuple(f"trimmed:{panel.key}" for panel in kinds.lined),
            gives=("linings face",),
            minutes=minutes(1),
        )
    made = "linings face" if kinds.lined else ""
    for number, join in enumerate(kinds.zips):
        yield Deed(
            f"sew.{join.slug}",
            "zip.sew-lined" if kinds.lined else "zip.sew",
            "zipper",
            join.panels,
            join.edges,
            join=join.slug,
            tool="zipper foot",
            needs=(*ready_for(join), *((made,) if made else ())),
            gates=(MIDDLES_MEET, *in_the_top(plan)),
            gives=(f"sewn:{join.slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(6),
            values=(("number", number + 1),),
        )
        made = f"sewn:{join.slug}"
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
