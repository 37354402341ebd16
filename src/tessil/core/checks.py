"""The checks that find snags, one module a subject; each reads a plan and returns snags."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace

from tessil.core.brief.checks.fit import fit_snags
from tessil.core.brief.checks.shape import shape_snags
from tessil.core.cutting.checks import cut_snags
from tessil.core.edges.checks import edge_snags
from tessil.core.layout.checks.layout import layout_snags
from tessil.core.layout.checks.upright import upright_snags
from tessil.core.memory.recall import Memory
from tessil.core.piecing.checks import piece_snags
from tessil.core.planned import PARTS, Plan
from tessil.core.quilting.checks import quilt_snags
from tessil.core.sandwich.checks import layer_snags
from tessil.core.snags import Snag, Weight
from tessil.core.trimming.checks.marks import mark_snags
from tessil.core.trimming.checks.trim import trim_snags

_CHECKS = (
    fit_snags,
    shape_snags,
    piece_snags,
    upright_snags,
    layout_snags,
    layer_snags,
    quilt_snags,
    trim_snags,
    mark_snags,
    edge_snags,
    cut_snags,
)
_GRAVITY = {Weight.BLOCKS: 0, Weight.WARNS: 1, Weight.NOTES: 2}


def find_snags(plan: Plan, memory: Memory) -> tuple[Snag, ...]:
    """All snags of a plan, the gravest first, otherwise in working order."""
    found = [
        snag
        for check in _CHECKS
        for snag in memory.reading(("snags", check.__name__), check, plan, PARTS)
    ]
    return tuple(sorted(_told_apart(plan, found), key=lambda snag: _GRAVITY[snag.weight]))


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
    return title if title[:2].isupper() else title[:1].lower() + title[1:]
