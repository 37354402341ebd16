"""What is put on the base while it can be reached: a strip over its seam, a stiffener."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.making.acts.common import NOT_CLOSED, minutes
from tessil.core.making.acts.kinds import Kinds
from tessil.core.planned import Plan

STRIP, STIFF, SLEEVE = "on:base strip", "on:base stiffener", "on:base sleeve"


def _outer(plan: Plan) -> tuple[str, ...]:
    """The outer panels that make the base."""
    return tuple(p.key for p in plan.panels if p.panel.kind == "outer" and p.panel.notches)


def strip_deeds(plan: Plan, bottom: tuple[str, ...]) -> Iterator[Deed]:
    """The strip over the open bottom seam, before the corners are boxed over its ends."""
    if not has_strip(plan):
        return
    yield Deed(
        "base.strip",
        "base.strip",
        "assemble",
        _outer(plan),
        tool="walking foot",
        needs=bottom,
        gives=(STRIP,),
        values=(("wide", plan.project.base.strip_width),),
        minutes=minutes(5),
    )


def has_strip(plan: Plan) -> bool:
    return plan.project.base.strip and plan.bag.floor is not None and plan.bag.has_bottom_seam


def stiff(plan: Plan, kinds: Kinds) -> str:
    """Where the stiffener goes: nowhere, on the outside's seam, in a sleeve, on the lining, if that
    is a bag of its own."""
    way = plan.project.base.stiffener
    if plan.bag.floor is None or way == "none":
        return ""
    return "fused" if way == "lining" and not kinds.lined else way


def fused_deeds(plan: Plan, kinds: Kinds, shell: tuple[str, ...]) -> Iterator[Deed]:
    """A stiffener fused over the seam and the base once its corners are sewn."""
    if stiff(plan, kinds) != "fused":
        return
    yield Deed(
        "base.fuse",
        "base.fuse",
        "assemble",
        _outer(plan),
        tool="iron",
        needs=shell,
        gates=(NOT_CLOSED,),
        gives=(STIFF,),
        minutes=minutes(4),
    )


def lining_base(plan: Plan, kinds: Kinds, facts: tuple[str, ...]) -> Iterator[Deed]:
    """What is put on the lining's base: a stiffener, or the sleeve for one."""
    way = stiff(plan, kinds)
    if way not in ("sleeve", "lining"):
        return
    keys = tuple(panel.key for panel in kinds.lined) or _outer(plan)
    yield Deed(
        f"base.{way}",
        f"base.{way}",
        "line",
        keys,
        tool="iron" if way == "lining" else "walking foot",
        needs=facts,
        gates=(NOT_CLOSED,),
        gives=(SLEEVE if way == "sleeve" else STIFF,),
        minutes=minutes(6),
    )


def slid_in(plan: Plan, kinds: Kinds, whole: tuple[str, ...]) -> Iterator[Deed]:
    """The stiffener pushed into its sleeve when all is sewn."""
    if stiff(plan, kinds) != "sleeve":
        return
    yield Deed(
        "finish.stiffener",
        "finish.stiffener",
        "finish",
        needs=(*whole, SLEEVE),
        gives=(STIFF,),
        minutes=minutes(2),
    )
