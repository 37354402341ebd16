"""A lining that goes in as a sleeve: both short ends sewn, turned, then the sides through all."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.making.acts.common import CAUGHT, UPRIGHT, minutes
from tessil.core.making.acts.kinds import Kinds
from tessil.core.making.acts.parts import before_the_top, in_the_seams
from tessil.core.planned import Plan


def sleeved_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """From trimmed panels to a bag whose sides are sewn through outside and lining at once."""
    body = plan.shape.leader
    keys = (*(panel.key for panel in kinds.lined), body)
    yield Deed(
        "ends.sew",
        "ends.sew",
        "line",
        keys,
        tuple((body, side) for side in ("top", "bottom")),
        tool="walking foot",
        needs=tuple(fact for key in keys for fact in (f"trimmed:{key}", f"marked:{key}")),
        gates=before_the_top(plan),
        gives=("ends sewn", "lining closed"),
        seam=plan.brief.seams.top,
        minutes=minutes(6),
    )
    yield Deed(
        "ends.turn",
        "ends.turn",
        "turn",
        keys,
        tool="iron",
        needs=("ends sewn",),
        gives=("top finished",),
        minutes=minutes(5),
    )
    directional = any(cloth.directional for cloth in plan.project.prints)
    facts: list[str] = []
    for join in (*kinds.seams, *kinds.corners):
        corner = join in kinds.corners
        needs = ("top finished", *(facts if corner else ()))
        ready = tuple(f"corners ready:{key}" for key in join.panels) if corner else ()
        yield Deed(
            f"sew.{join.slug}",
            "join.through",
            "assemble",
            join.panels,
            join.edges,
            join=join.slug,
            tool="walking foot",
            needs=(*needs, *ready),
            gates=(*((UPRIGHT,) if directional else ()), *in_the_seams(plan)),
            gives=(f"sewn:{join.slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(4),
        )
        facts.append(f"sewn:{join.slug}")
        yield Deed(
            f"inside.{join.slug}",
            "inside.finish",
            "turn",
            join=join.slug,
            tool="walking foot",
            needs=(f"sewn:{join.slug}",),
            gives=(f"inside:{join.slug}",),
            minutes=minutes(3),
        )
    yield Deed(
        "shell.caught",
        "check.caught",
        "assemble",
        check=True,
        needs=tuple(facts),
        gives=(CAUGHT.fact,),
        minutes=minutes(2),
    )
    inside = tuple(f"inside:{join.slug}" for join in (*kinds.seams, *kinds.corners))
    yield Deed(
        "turn",
        "turn.mouth",
        "turn",
        needs=inside,
        gates=(CAUGHT,),
        gives=("turned", "shell sewn"),
        minutes=minutes(2),
    )
