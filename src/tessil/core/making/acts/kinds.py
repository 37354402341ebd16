"""How a bag is put together: zipper, seams, corners and lining, read from its panels and from what
its edges become.
"""

from __future__ import annotations

from tessil.core.bag.model import Panel
from tessil.core.brief.choice import LiningIn
from tessil.core.making.acts.common import Sewing, sewings_of
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan


class Kinds(Record, frozen=True):
    """What kind of putting together a bag asks for, read from its panels and joins."""

    zips: tuple[Sewing, ...]
    seams: tuple[Sewing, ...]
    corners: tuple[Sewing, ...]
    lined: tuple[Panel, ...]  # linings that are bags of their own
    edging: bool  # the outside edges are bound all round, nothing is turned
    turned: bool  # the top is turned in, or sewn to its lining and turned
    flat: bool  # sewn to its lining all round and turned: no seams of its own
    tucked: bool  # the lining is in without a gap
    way: LiningIn  # how it comes in


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
    flap = any(join.key.what == "flap" for join in bag.joins)
    edging = "bound" in finishes and "seam" not in finishes and not flap
    return Kinds(
        zips=tuple(join for join in joins if join.key.what == "zipper"),
        seams=tuple(join for join in joins if join.key.what not in ("zipper", "box corner")),
        corners=tuple(join for join in joins if join.key.what == "box corner"),
        lined=lined if plan.project.lining == "drop-in" else (),
        edging=edging,
        turned=any(e.finish in ("turned", "seam") for p in lined for e in p.edges if _top(e.key)),
        flat=flat,
        tucked=plan.tucked,
        way=plan.lining_way,
    )


def _top(key: object) -> bool:
    return getattr(key, "side", "") == "top"


def ready_for(join: Sewing) -> tuple[str, ...]:
    return tuple(fact for key in join.panels for fact in (f"trimmed:{key}", f"marked:{key}"))


def turned_through_gap(kinds: Kinds) -> bool:
    """Whether the bag is turned right side out through a gap in its lining."""
    return bool(kinds.lined) and (bool(kinds.zips) or (kinds.turned and not kinds.tucked))
