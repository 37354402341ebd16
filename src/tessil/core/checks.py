"""The checks that find snags, one module a subject; each reads a plan and returns snags."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator
from functools import partial

from msgspec.structs import replace

from tessil.core.brief.checks.fit import fit_snags
from tessil.core.brief.checks.shape import shape_snags
from tessil.core.cutting.checks import cut_snags
from tessil.core.edges.checks import edge_snags
from tessil.core.hooping.checks import hoop_snags
from tessil.core.layout.checks.layout import layout_snags, top_snags
from tessil.core.layout.checks.upright import upright_snags
from tessil.core.making.checks import making_snags
from tessil.core.memory.recall import Memory
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.checks import piece_snags
from tessil.core.planned import PARTS, Plan
from tessil.core.quilting.checks import quilt_snags
from tessil.core.sandwich.checks import hold_snags, layer_snags
from tessil.core.snags import Snag, Weight
from tessil.core.trimming.checks.marks import mark_snags, snap_snags
from tessil.core.trimming.checks.trim import trim_snags

Check = Callable[[Plan], Iterator[Snag]]
PanelCheck = Callable[[Plan, PanelPlan], Iterator[Snag]]


class Checks(Record, frozen=True):
    """What is asked about a stage: of each panel by itself, then of the bag."""

    each: tuple[PanelCheck, ...] = ()
    whole: tuple[Check, ...] = ()


_CHECKS = (
    Checks(whole=(fit_snags, shape_snags)),
    Checks(each=(piece_snags,), whole=(upright_snags, layout_snags)),
    Checks(each=(top_snags,)),
    Checks(each=(layer_snags,), whole=(hold_snags, hoop_snags)),
    Checks(each=(quilt_snags,)),
    Checks(each=(trim_snags,)),
    Checks(each=(mark_snags,), whole=(snap_snags, edge_snags, cut_snags)),
    Checks(whole=(making_snags,)),
)
_GRAVITY = {Weight.BLOCKS: 0, Weight.WARNS: 1, Weight.NOTES: 2}


def find_snags(plan: Plan, memory: Memory) -> tuple[Snag, ...]:
    """All snags of a plan, the gravest first, otherwise in working order."""
    found = [snag for checks in _CHECKS for snag in _asked(plan, memory, checks)]
    return tuple(sorted(_told_apart(plan, found), key=lambda snag: _GRAVITY[snag.weight]))


def _asked(plan: Plan, memory: Memory, checks: Checks) -> Iterator[Snag]:
    for each in checks.each:
        for key in (panel.key for panel in plan.panels):
            about = partial(_of_panel, each, key)
            yield from memory.reading(("snags", each.__name__, key), about, plan, PARTS)
    for whole in checks.whole:
        yield from memory.reading(("snags", whole.__name__), whole, plan, PARTS)


def _of_panel(check: PanelCheck, key: str, plan: Plan) -> Iterator[Snag]:
    return check(plan, plan.panel(key))


def _told_apart(plan: Plan, found: list[Snag]) -> list[Snag]:
    """Snags of like words say which panel they are of."""
    times = Counter(snag.title for snag in found)
    return [
        replace(snag, title=f"{plan.panel(snag.panel).panel.label}: {_lowered(snag.title)}")
        if times[snag.title] > 1 and snag.panel
        else snag
        for snag in found
    ]


def _lowered(title: str) -> str:
    """A title inside a sentence; names that are all capitals keep them."""
    return title if title[:2].isupper() and title[1] != " " else title[:1].lower() + title[1:]
