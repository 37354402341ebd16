"""What the quilting stage shows, leaf by leaf: the lines, how they come out, what they take in.

Computes nothing: readings are figures of the plan, or what core modules make of it.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from tessil.core.numbers.workings import Figure, near_to, number
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, upright, whole
from tessil.core.planned import Plan
from tessil.core.quilting.sets import LineSet
from tessil.core.reading import Reading
from tessil.core.snags import Place


def quilt_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """All leaves of one panel."""
    yield from _lines(plan, panel)
    yield from _draws(panel)
    yield from _sewing(panel)


def _tail(at: int) -> str:
    return f".{at}" if at else ""


def guide_of(plan: Plan, panel: PanelPlan, entry: LineSet) -> Figure | None:
    """What a guide bar is set to: the gap as it is before it is drawn in."""
    if not entry.regular or entry.lines.value < 2:
        return None
    part = next((p for p in panel.draw.parts if p.family.key == entry.key), None)
    left = number(1) - part.across if part is not None else number(1)
    return near_to(entry.gap / left, plan.marks.gauge).called("guide bar at")


def _lines(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    sewn = [entry for entry in panel.quilt.sets if entry.lines.value]
    several = len(sewn) > 1
    for at, entry in enumerate(panel.quilt.sets):
        if entry not in sewn:  # the other half of what runs every way: its lines are told
            continue
        tail, of = _tail(at), f", {entry.name}" if several else ""
        leaf, zone = "lines", entry.zone if panel.choices.quilt_zones else None
        yield Reading(
            f"quilt.gap{tail}",
            entry.gap.called(f"gap, as sewn{of}"),
            "From line to line, once sewn",
            gap_place(panel, entry),
            leaf,
            zone,
        )
        guide = guide_of(plan, panel, entry)
        if guide is not None:
            yield Reading(
                f"quilt.guide{tail}",
                guide.called(f"guide bar at{of}"),
                "Set the guide bar so far from the needle",
                gap_place(panel, entry),
                leaf,
                zone,
            )
        yield Reading(
            f"quilt.lines{tail}",
            entry.lines.called(f"lines{of}"),
            "Lines to sew",
            whole(panel),
            leaf,
            zone,
        )
        if entry.margin is not None:
            margin = entry.margin.called(f"margin to the seam line{of}")
            yield Reading(
                f"quilt.margin{tail}",
                margin,
                "From the last line to the seam line",
                _margin(panel, entry),
                leaf,
                zone,
            )
    if panel.sewing is not None:
        yield Reading(
            "quilt.thread", panel.sewing.thread, "Top and bobbin thread together", leaf="lines"
        )
    if panel.draw.parts:
        yield Reading(
            "quilt.piece.width",
            panel.needed.width,
            "Pieced so wide, it can be trimmed",
            across(panel),
            "lines",
        )
        yield Reading(
            "quilt.piece.height",
            panel.needed.height,
            "Pieced so high, it can be trimmed",
            upright(panel),
            "lines",
        )


def gap_place(panel: PanelPlan, entry: LineSet) -> Place | None:
    """A gap in the middle of a set, to point at."""
    offsets = entry.offsets
    if len(offsets) < 2 or entry.angle not in (0.0, 90.0):
        return None
    at = (len(offsets) - 1) // 2
    first, second = list(pairwise(offsets))[min(at, len(offsets) - 2)]
    if entry.angle == 90:
        return Place(first, 0, second - first, 0, "across")
    return Place(0, first, 0, second - first, "upright")


def _margin(panel: PanelPlan, entry: LineSet) -> Place | None:
    if not entry.places:
        return None
    first = float(entry.places[0])
    if entry.angle == 90:
        start = float(panel.shown["left"])
        return Place(start, 0, first - start, 0, "across")
    start = float(panel.shown["top"])
    return Place(0, start, 0, first - start, "upright")


def _draws(panel: PanelPlan) -> Iterator[Reading]:
    draw, leaf = panel.draw, "draws"
    for at, part in enumerate(draw.parts):
        yield Reading(f"quilt.across{_tail(at)}", part.across, "Lost across the lines", leaf=leaf)
    if draw.parts:
        yield Reading("quilt.along", draw.parts[0].along, "Lost along the lines", leaf=leaf)
        yield Reading("quilt.width", draw.x.expected, "The width loses", across(panel), leaf)
        yield Reading("quilt.height", draw.y.expected, "The height loses", upright(panel), leaf)
        yield Reading(
            "quilt.most", draw.x.most, "The width at the bad end of the range", across(panel), leaf
        )
        yield Reading(
            "quilt.most.height",
            draw.y.most,
            "The height at the bad end of the range",
            upright(panel),
            leaf,
        )
        yield Reading(
            "quilt.expected.width",
            panel.expected.width,
            "Quilted, before it is trimmed",
            across(panel),
            leaf,
        )
        yield Reading(
            "quilt.expected.height",
            panel.expected.height,
            "Quilted, before it is trimmed",
            upright(panel),
            leaf,
        )
        yield Reading(
            "quilt.least.width", panel.least.width, "If it is drawn in most", across(panel), leaf
        )
        yield Reading(
            "quilt.least.height", panel.least.height, "If it is drawn in most", upright(panel), leaf
        )
    if draw.lean is not None:
        yield Reading(
            "quilt.lean",
            draw.lean.expected,
            "Of its height, the top over the bottom",
            whole(panel),
            leaf,
        )
        shift = panel.leans
        if shift is not None:
            yield Reading(
                "quilt.leans", shift, "The top goes so far to the right", whole(panel), leaf
            )
            half = (abs(shift) / 2).called("squaring takes, each side")
            yield Reading("quilt.squares", half, "To cut it square again", whole(panel), leaf)


def _sewing(panel: PanelPlan) -> Iterator[Reading]:
    sewing, leaf = panel.sewing, "sewing"
    if sewing is None:
        return
    yield Reading("quilt.sewn", sewing.lines, "Each from edge to edge", whole(panel), leaf)
    yield Reading(
        "quilt.length",
        sewing.length,
        "All lines together, off the edge and all",
        whole(panel),
        leaf,
    )
    yield Reading("quilt.top", sewing.top, "On the spool", leaf=leaf)
    yield Reading("quilt.bobbin", sewing.bobbin, "On the bobbin", leaf=leaf)
    yield Reading("quilt.bobbins", sewing.bobbins, "Wound before you begin", leaf=leaf)
    yield Reading("quilt.minutes", sewing.minutes, "At your pace, with the turns", leaf=leaf)
