"""The seams and corners of the outside, and those of its lining with the gap."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Deed
from tessil.core.making.acts.basing import (
    SLEEVE,
    STIFF,
    STRIP,
    fused_deeds,
    has_strip,
    lining_base,
    stiff,
    strip_deeds,
)
from tessil.core.making.acts.common import (
    CAUGHT,
    CLIPPED,
    GAP_LEFT,
    OPEN_ZIP,
    PIPED,
    TEETH_TO_LINING,
    UPRIGHT,
    Sewing,
    edges_of,
    from_steps,
    minutes,
)
from tessil.core.making.acts.kinds import Kinds, ready_for, turned_through_gap
from tessil.core.making.acts.parts import in_the_seams
from tessil.core.planned import Plan


def shell_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """The seams of the outside; the last one closes it."""
    directional = any(cloth.directional for cloth in plan.project.prints)
    channel = [
        s for s in plan.edge_steps.get("closing", ()) if s.what in ("cord.open", "cord.eyelets")
    ]
    sides = tuple(fact for join in kinds.seams[:1] for fact in ready_for(join))
    yield from from_steps(channel, "shell", "mark", (), sides, ("channel marked",))
    facts: list[str] = []
    for at, join in enumerate(kinds.seams):
        last = at == len(kinds.seams) - 1
        gates = [UPRIGHT] if directional else []
        gates += in_the_seams(plan)
        if plan.project.piping.panels and plan.edge_steps.get("piping"):
            gates.append(PIPED)
        if last and kinds.zips:
            gates.append(OPEN_ZIP)
        band = join.key.what == "band"
        opened = ("channel marked",) if channel and join.key.side in ("left", "right") else ()
        first = any(one.key.what == "band" for one in kinds.seams) and not band
        slug = join.slug
        yield Deed(
            f"sew.{slug}",
            "join.folded" if len(join.panels) == 1 else "join.band" if band else "join.seam",
            "assemble",
            join.panels,
            join.edges,
            join=slug,
            tool="walking foot",
            needs=(*ready_for(join), *_before_side(kinds, first), *opened),
            gates=tuple(gates),
            gives=(f"sewn:{slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(4),
        )
        facts.append(f"sewn:{slug}")
    bottom = tuple(f"sewn:{one.slug}" for one in kinds.seams if one.key.side == "bottom")
    yield from strip_deeds(plan, bottom)
    over = (STRIP,) if has_strip(plan) else ()
    for join in kinds.corners:
        slug = join.slug
        yield Deed(
            f"sew.{slug}",
            "join.corner" if plan.project.corner != "pinch" else "join.pinched",
            "assemble",
            join.panels,
            join.edges,
            join=slug,
            tool="walking foot",
            needs=(*facts, *over, *(f"corners ready:{key}" for key in join.panels)),
            gives=(f"sewn:{slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(3),
        )
    shell = (*facts, *(f"sewn:{join.slug}" for join in kinds.corners))
    if not shell:
        shell = tuple(f"trimmed:{panel.key}" for panel in plan.panels)
    yield from fused_deeds(plan, kinds, shell)
    yield Deed(
        "shell.press",
        "shell.press",
        "assemble",
        tool="iron",
        needs=shell,
        gives=("shell pressed",),
        minutes=minutes(4),
    )
    yield Deed(
        "shell.caught",
        "check.caught",
        "assemble",
        check=True,
        needs=shell,
        gives=(CAUGHT.fact,),
        minutes=minutes(2),
    )
    yield Deed(
        "shell.clip",
        "shell.clip",
        "assemble",
        needs=shell,
        gives=(CLIPPED.fact,),
        minutes=minutes(2),
    )
    yield Deed(
        "shell.sewn",
        "check.shell",
        "assemble",
        check=True,
        needs=("shell pressed", CAUGHT.fact, CLIPPED.fact, *_on_shell(plan, kinds)),
        gives=("shell sewn",),
        minutes=minutes(1),
    )


def _on_shell(plan: Plan, kinds: Kinds) -> tuple[str, ...]:
    """What lies on the base of the outside before it is turned."""
    way = stiff(plan, kinds)
    if way == "fused":
        return (STIFF,)
    return (SLEEVE,) if way == "sleeve" and not kinds.lined else ()


def _before_side(kinds: Kinds, first: bool) -> tuple[str, ...]:
    """What is sewn before the sides: zippers, and bands where they go on before."""
    zips = tuple("zip trimmed" for _ in kinds.zips[:1])
    bands = tuple(f"sewn:{join.slug}" for join in kinds.seams if first and join.key.what == "band")
    return (*zips, *bands)


def _shell_sewn(kinds: Kinds) -> tuple[str, ...]:
    return tuple(f"sewn:{join.slug}" for join in (*kinds.seams, *kinds.corners))


def lining_deeds(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """The lining, a bag of its own: its seams, with a gap where the bag is turned through it."""
    if not kinds.lined:
        yield from lining_base(plan, kinds, _shell_sewn(kinds))
        return
    keys = tuple(panel.key for panel in kinds.lined)
    gap = turned_through_gap(kinds)
    joins = [join for join in kinds.seams if join.key.what != "band"]
    needs = [f"trimmed:{key}" for key in keys] + [f"marked:{key}" for key in keys]
    if kinds.zips:
        needs.append("zip trimmed")
        yield Deed(
            "line.lay",
            "check.teeth",
            "line",
            keys,
            check=True,
            needs=tuple(needs),
            gives=(TEETH_TO_LINING.fact,),
            minutes=minutes(1),
        )
    facts: list[str] = []
    corner = "line.corner" if plan.project.corner != "pinch" else "line.pinched"
    pleat = gap and kinds.way == "false-seam"
    if pleat:
        yield Deed(
            "line.false-seam",
            "line.false-seam",
            "line",
            keys,
            tool="walking foot",
            needs=tuple(needs),
            gives=("false seam sewn", GAP_LEFT.fact),
            gap=plan.gap,
            minutes=minutes(4),
        )
        needs.append("false seam sewn")
    bottoms = [join for join in joins if join.key.side in ("bottom", "")] or joins[-1:]
    opened = (bottoms or kinds.corners[-1:])[:1] if gap and not pleat else ()
    for join in joins:
        open_here = join in opened
        slug = join.slug
        gives = [f"lining:{slug}"] + ([GAP_LEFT.fact] if open_here else [])
        yield Deed(
            f"line.sew.{slug}",
            "line.seam-gap" if open_here else "line.seam",
            "line",
            keys,
            _lining_edges(kinds, join),
            join=slug,
            tool="walking foot",
            needs=tuple(needs),
            gates=(TEETH_TO_LINING,) if kinds.zips else (),
            gives=tuple(gives),
            seam=join.allowance,
            length=join.length,
            gap=plan.gap if open_here else None,
            minutes=minutes(3),
        )
        facts.append(f"lining:{slug}")
    for join in kinds.corners:
        slug = join.slug
        open_here = join in opened
        yield Deed(
            f"line.sew.{slug}",
            "line.seam-gap" if open_here else corner,
            "line",
            keys,
            _lining_edges(kinds, join),
            join=slug,
            tool="walking foot",
            needs=(*needs, *facts),
            gives=(f"lining:{slug}", *((GAP_LEFT.fact,) if open_here else ())),
            seam=join.allowance,
            length=join.length,
            gap=plan.gap if open_here else None,
            minutes=minutes(2),
        )
        facts.append(f"lining:{slug}")
    base = tuple(lining_base(plan, kinds, tuple(facts)))
    yield from base
    facts += [fact for deed in base for fact in deed.gives]
    yield Deed(
        "line.sewn",
        "check.lining",
        "line",
        keys,
        check=True,
        needs=tuple(facts or needs),
        gives=("lining sewn",),
        minutes=minutes(1),
    )


def _lining_edges(kinds: Kinds, join: Sewing) -> tuple[tuple[str, str], ...]:
    """The same edges on the lining: of one that is folded on itself both sides of the seam, else
    those of the panel on top."""
    first = kinds.lined[0]
    folded = len(kinds.lined) == 1 and first.copies == 1
    refs = [r for r in (*join.one, *join.other) if folded or r.panel == join.panels[0]]
    return tuple((first.key, edge) for _, edge in edges_of(refs))
