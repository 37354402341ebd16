"""The bag put together: zipper, seams and corners of the outside and of its lining, the turning,
the top, the last steps.  All from the joins of the bag and from what its edges become.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tessil.core.bag.deeds import Deed, Gate
from tessil.core.bag.model import Panel
from tessil.core.making.acts.common import (
    CAUGHT,
    CLIPPED,
    GAP_LEFT,
    MIDDLES_MEET,
    OPEN_ZIP,
    PIPED,
    PULL_IN,
    TEETH_TO_LINING,
    UPRIGHT,
    Sewing,
    edges_of,
    from_steps,
    minutes,
    sewings_of,
)
from tessil.core.making.acts.parts import before_the_top
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan

OWN = ("loop.baste", "zip.pull", "cord.open", "cord.thread")  # with gates of their own here


class Kinds(Record, frozen=True):
    """What kind of putting together a bag asks for, read from its panels and joins."""

    zips: tuple[Sewing, ...]
    seams: tuple[Sewing, ...]
    corners: tuple[Sewing, ...]
    lined: tuple[Panel, ...]  # linings that are bags of their own
    edging: bool  # the outside edges are bound all round, nothing is turned
    turned: bool  # the top is turned in, or sewn to its lining and turned
    flat: bool  # sewn to its lining all round and turned: no seams of its own


def kinds_of(plan: Plan) -> Kinds:
    """How this bag is put together."""
    bag = plan.bag
    joins = [join for join in sewings_of(bag) if join.key.what != "flap"]
    outer = [panel for panel in bag.panels if panel.kind != "lining"]
    finishes = {edge.finish for panel in outer for edge in panel.edges}
    lined = tuple(
        panel
        for panel in bag.panels
        if panel.kind == "lining" and panel.key not in ("flap-lining", "band")
    )
    flat = not bag.joins and "turned" in finishes
    edging = "bound" in finishes and "seam" not in finishes
    return Kinds(
        zips=tuple(join for join in joins if join.key.what == "zipper"),
        seams=tuple(join for join in joins if join.key.what not in ("zipper", "box corner")),
        corners=tuple(join for join in joins if join.key.what == "box corner"),
        lined=lined if plan.project.lining == "drop-in" else (),
        edging=edging,
        turned=any(e.finish in ("turned", "seam") for p in lined for e in p.edges if _top(e.key)),
        flat=flat,
    )


def _top(key: object) -> bool:
    return getattr(key, "side", "") == "top"


def joining_deeds(plan: Plan) -> Iterator[Deed]:
    """All steps from trimmed panels to a finished bag."""
    kinds = kinds_of(plan)
    yield from _zippers(plan, kinds)
    if kinds.flat:
        yield from _sewn_flat(plan, kinds)
    elif kinds.edging:
        yield from _edged(plan, kinds)
    else:
        yield from _shell(plan, kinds)
        yield from _lining(plan, kinds)
        yield from _closed(plan, kinds)
    yield from _finished(plan)


def _ready(join: Sewing) -> tuple[str, ...]:
    return tuple(fact for key in join.panels for fact in (f"trimmed:{key}", f"marked:{key}"))


# -- the zipper -----------------------------------------------------------------------------


def _zippers(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    if not kinds.zips:
        return
    keys = tuple(dict.fromkeys(key for join in kinds.zips for key in join.panels))
    yield Deed(
        "zip.middles",
        "check.middles",
        "zipper",
        keys,
        check=True,
        needs=tuple(fact for join in kinds.zips for fact in _ready(join)),
        gives=(MIDDLES_MEET.fact,),
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
            needs=(*_ready(join), *((made,) if made else ())),
            gates=(MIDDLES_MEET,),
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
    yield Deed(
        "zip.open",
        "zip.open-half",
        "zipper",
        needs=("zip trimmed",),
        gives=(OPEN_ZIP.fact,),
        minutes=minutes(1),
    )


# -- the outside and its lining ---------------------------------------------------------------


def _shell(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """The seams of the outside; the last one closes it."""
    directional = any(cloth.directional for cloth in plan.project.prints)
    channel = [s for s in plan.edge_steps.get("closing", ()) if s.what == "cord.open"]
    sides = tuple(fact for join in kinds.seams[:1] for fact in _ready(join))
    yield from from_steps(channel, "shell", "mark", (), sides, ("channel marked",))
    facts: list[str] = []
    for at, join in enumerate(kinds.seams):
        last = at == len(kinds.seams) - 1
        gates = [UPRIGHT] if directional else []
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
            needs=(*_ready(join), *_before_side(kinds, first), *opened),
            gates=tuple(gates),
            gives=(f"sewn:{slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(4),
        )
        facts.append(f"sewn:{slug}")
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
            needs=(*facts, *(f"corners ready:{key}" for key in join.panels)),
            gives=(f"sewn:{slug}",),
            seam=join.allowance,
            length=join.length,
            minutes=minutes(3),
        )
    shell = (*facts, *(f"sewn:{join.slug}" for join in kinds.corners))
    if not shell:
        shell = tuple(f"trimmed:{panel.key}" for panel in plan.panels)
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
        needs=("shell pressed", CAUGHT.fact, CLIPPED.fact),
        gives=("shell sewn",),
        minutes=minutes(1),
    )


def _before_side(kinds: Kinds, first: bool) -> tuple[str, ...]:
    """What is sewn before the sides: zippers, and bands where they go on before."""
    zips = tuple("zip trimmed" for _ in kinds.zips[:1])
    bands = tuple(f"sewn:{join.slug}" for join in kinds.seams if first and join.key.what == "band")
    return (*zips, *bands)


def _lining(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """The lining, a bag of its own: its seams, with a gap where the bag is turned through it."""
    if not kinds.lined:
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
    bottoms = [join for join in joins if join.key.side in ("bottom", "")] or joins[-1:]
    opened = (bottoms or kinds.corners[-1:])[:1] if gap else ()
    for join in joins:
        open_here = join in opened
        slug = join.slug
        gives = [f"lining:{slug}"] + ([GAP_LEFT.fact] if open_here else [])
        yield Deed(
            f"line.sew.{slug}",
            "line.seam-gap" if open_here else "line.seam",
            "line",
            keys,
            _lining_edges(keys, join),
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
            "line.seam-gap" if open_here else "join.corner",
            "line",
            keys,
            _lining_edges(keys, join),
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


def _lining_edges(keys: tuple[str, ...], join: Sewing) -> tuple[tuple[str, str], ...]:
    """The same edges on the lining: of one that is folded on itself both sides of the seam."""
    refs = join.one if len(keys) > 1 else (*join.one, *join.other)
    return tuple((keys[0], edge) for _, edge in edges_of(refs))


def turned_through_gap(kinds: Kinds) -> bool:
    """Whether the bag is turned right side out through a gap in its lining."""
    return bool(kinds.lined) and (bool(kinds.zips) or kinds.turned)


# -- turned, and closed at the top -------------------------------------------------------------


def _closed(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    if turned_through_gap(kinds) and kinds.zips:
        yield from _through_the_gap(plan, kinds, ("shell sewn", "lining sewn"))
    elif turned_through_gap(kinds):
        yield _put_in(kinds, wrong=False)
        yield Deed(
            "top.sew",
            "top.sew",
            "line",
            tool="walking foot",
            needs=("lining in",),
            gates=before_the_top(plan),
            gives=("top sewn", "lining closed"),
            minutes=minutes(8),
        )
        yield from _through_the_gap(plan, kinds, ("top sewn",))
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
        if plan.edge_steps.get("binding"):
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


def _bound(plan: Plan, needs: Sequence[str], gates: tuple[Gate, ...] = ()) -> Iterator[Deed]:
    """The binding round the top, or round the bag, in the steps of the edge stage."""
    steps = plan.edge_steps.get("binding", ())
    made = from_steps(steps, "bind", "finish", (), tuple(needs), ("bound",), "walking foot")
    for at, deed in enumerate(made):
        yield deed if at else _gated(deed, gates)


def _gated(deed: Deed, gates: tuple[Gate, ...]) -> Deed:
    from msgspec.structs import replace

    return replace(deed, gates=gates)


# -- other ways ------------------------------------------------------------------------------


def _sewn_flat(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """Body and lining sewn together all round, turned, folded and stitched at its sides."""
    keys = tuple(panel.key for panel in plan.panels)
    body = plan.shape.leader
    edges = tuple((body, edge.key.slug) for edge in plan.bag.panel(body).edges)
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
    yield Deed(
        "sides.stitch",
        "sides.stitch",
        "finish",
        (body,),
        tool="walking foot",
        needs=("gap closed",),
        gives=("sides stitched", *_all_sewn(kinds)),
        minutes=minutes(6),
    )


def _all_sewn(kinds: Kinds) -> tuple[str, ...]:
    return tuple(f"sewn:{join.slug}" for join in kinds.seams)


def _edged(plan: Plan, kinds: Kinds) -> Iterator[Deed]:
    """Faces laid on one another wrong sides together and bound all round."""
    outer = tuple(panel.key for panel in plan.panels if panel.panel.kind != "lining")
    zips = ("zip trimmed",) if kinds.zips else ()
    ready = tuple(f"trimmed:{panel.key}" for panel in plan.panels)
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


def _finished(plan: Plan) -> Iterator[Deed]:
    """The last steps: cords in, a stiffener, a press, a look at it all."""
    whole = _last_facts(plan)
    for one in plan.placed:
        if one.kind == "stiffener" and one.index is not None:
            yield Deed(
                f"finish.stiffener.{one.index}",
                "finish.stiffener",
                "finish",
                (one.panel,),
                needs=whole,
                gives=(f"on:stiffener.{one.index}",),
                minutes=minutes(3),
            )
    threaded = [s for s in plan.edge_steps.get("closing", ()) if s.what == "cord.thread"]
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
    last = (*whole, *(("on:cord",) if threaded else ()))
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
    if kinds.flat:
        return ("sides stitched",)
    bound = bool(plan.edge_steps.get("binding"))
    if kinds.edging:
        return ("bound",) if bound else ("basted",)
    if turned_through_gap(kinds):
        return ("gap closed",) if kinds.zips else ("top finished",)
    if bound:
        return ("bound",)
    return ("turned",) if kinds.zips else ("top finished",)
