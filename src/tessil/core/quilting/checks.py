"""Do lines keep clear of seams and hardware, and close enough; will the panel lean?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from math import ceil, floor

from tessil.core.choices import batting_of
from tessil.core.choosing import choose
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_up
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import whole
from tessil.core.planned import Plan
from tessil.core.quilting.acts.byhand import hand_number
from tessil.core.quilting.acts.minding import (
    hardware,
    near_misses,
    needle_free,
    offers,
    part_path,
    through,
)
from tessil.core.quilting.channels import CLEAR
from tessil.core.quilting.choice import Spared
from tessil.core.quilting.patterns import PATTERNS
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewn import QuiltLine
from tessil.core.snags import Place, Snag, Stage, Weight
from tessil.core.trimming.marks import Placed

FINE = 64  # parts of an inch to which a place to go round is kept
FELT = Fraction(1, 16)  # a lean one sees against the ruler


def quilt_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of one panel's quilting."""
    if panel.panel.kind == "outer":
        yield from _near_seams(plan, panel)
        yield from _too_far_apart(plan, panel)
        yield from _beside_patches(plan, panel)
        yield from _through_hardware(plan, panel)
        yield from _leaning(plan, panel)


def _part(panel: PanelPlan, at: int) -> str:

    return part_path(panel.quilt.sets[at].zone)


def _line_place(panel: PanelPlan, entry: LineSet, at: Inches) -> Place:
    width, height = panel.trimmed.floats()
    if entry.angle == 90:
        return Place(float(at), 0, 0, height, "line")
    return Place(0, float(at), width, 0, "line")


def _span(panel: PanelPlan, entry: LineSet) -> tuple[Inches, Inches, str, str]:
    if entry.angle == 90:
        right = panel.trimmed.width.value - panel.shown["right"]
        return panel.shown["left"], right, "left", "right"
    bottom = panel.trimmed.height.value - panel.shown["bottom"]
    return panel.shown["top"], bottom, "top", "bottom"


def _near_seams(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A line in a seam allowance, or within ⅛ of a seam line, shows as a crooked seam."""
    left_out = set(panel.choices.quilting.left_out)
    for group, entry in enumerate(panel.quilt.sets):
        if not entry.places:
            continue
        start, end, first, last = _span(panel, entry)
        clear_from, clear_to = start + CLEAR, end - CLEAR
        for number, place in enumerate(entry.places):
            if clear_from <= place <= clear_to or f"{entry.key}.{number}" in left_out:
                continue
            for side, gap in ((first, place - start), (last, end - place)):
                bound = panel.panel.side(side).finish == "bound" and gap >= 0
                if gap < CLEAR and not bound:
                    yield _near_seam(plan, panel, group, number, side, gap)


def _near_seam(
    plan: Plan, panel: PanelPlan, group: int, number: int, side: str, gap: Inches
) -> Snag:
    read, entry = plan.marks.notation.exact, panel.quilt.sets[group]
    title = (
        f"Line {number + 1} runs inside the {side} seam"
        if gap < 0
        else f"Line {number + 1} runs {read(gap, unit=True)} from the {side} seam line"
    )
    return Snag(
        key=f"quilt.seam.{panel.key}.{side}.{number + 1}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=title,
        why="A line in the allowance adds bulk, one within ⅛ in (3 mm) of the seam looks crooked.",
        panel=panel.key,
        place=_line_place(panel, entry, entry.places[number]),
        fixes=(
            *_spacing_fixes(plan, panel, group),
            _leave_out(plan, panel, f"{entry.key}.{number}"),
        ),
    )


def _leave_out(plan: Plan, panel: PanelPlan, *keys: str) -> Edit:
    """Leave lines out of their pattern; those by hand are taken away."""
    quilting = panel.choices.quilting
    gone = {number for key in keys if (number := hand_number(key)) is not None}
    drawn = tuple(line for at, line in enumerate(quilting.drawn) if at not in gone)
    kept = (*quilting.left_out, *(key for key in keys if hand_number(key) is None))
    words = "Leave this line out" if len(keys) == 1 else "Leave these lines out"
    return choose(
        plan.project, panel.panel, words, ("quilting.left_out", kept), ("quilting.drawn", drawn)
    )


def _spacing_fixes(plan: Plan, panel: PanelPlan, group: int) -> tuple[Edit, ...]:
    path = _part(panel, group)
    zone = panel.quilt.sets[group].zone
    quilting = (panel.choices.quilting, *(z.quilting for z in panel.choices.quilt_zones))[zone]
    fixes = []
    if quilting.spacing != "divide":
        fixes.append(
            choose(
                plan.project, panel.panel, "Divide the width evenly", (f"{path}.spacing", "divide")
            )
        )
    if quilting.spacing == "keep":
        other = "gap" if quilting.centre == "line" else "line"
        fixes.append(
            choose(
                plan.project, panel.panel, f"Put a {other} on the centre", (f"{path}.centre", other)
            )
        )
    return tuple(fixes)


def _beside_patches(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Lines that nearly coincide with patchwork seams look like mistakes."""
    found = near_misses(panel.quilt.sets, panel.quilt.seams, panel.trimmed.floats())
    if not found:
        return
    first = found[0]
    entry = panel.quilt.sets[first.group]
    off = plan.marks.notation.read_under(Fraction(abs(first.offset - first.seam)), unit=True)
    width, height = panel.trimmed.floats()
    place = (
        Place(first.offset, 0, 0, height, "line")
        if entry.angle == 90
        else Place(0, first.offset, width, 0, "line")
        if entry.angle == 0
        else whole(panel)
    )
    more = f", and {len(found) - 1} more like it" if len(found) > 1 else ""
    fixes = [
        offer.edit
        for offer in offers(plan, panel, entry.zone)
        if not offer.now and not offer.misses
    ]
    yield Snag(
        key=f"quilt.beside.{panel.key}",
        stage=Stage.QUILT,
        weight=Weight.NOTES,
        title=f"A line runs {off} beside a patchwork seam{more}",
        why="Lines that nearly meet a seam look like mistakes: hit it, or clear it by ¼ in (6 mm).",
        panel=panel.key,
        place=place,
        fixes=tuple(fixes[:2]),
    )


def _through_hardware(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A line through a snap, a window or a handle's foot."""
    marks = hardware(plan, panel)
    if not marks or not panel.quilt.lines:
        return
    crossed: dict[str, list[QuiltLine]] = {}
    for line, mark in through(panel, marks):
        crossed.setdefault(mark.key, []).append(line)
    for mark in marks:
        if mark.key in crossed:
            yield _through(plan, panel, mark, crossed[mark.key])


def _through(plan: Plan, panel: PanelPlan, mark: Placed, lines: list[QuiltLine]) -> Snag:
    x, y, w, h = needle_free(mark)
    zone = panel.quilt.sets[lines[0].group].zone
    free = [
        offer.edit for offer in offers(plan, panel, zone) if not offer.through and not offer.now
    ]
    round_ = _round(plan, panel, zone)
    one = len(lines) == 1
    return Snag(
        key=f"quilt.through.{panel.key}.{mark.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=f"{'A line runs' if one else f'{len(lines)} lines run'} through the "
        f"{mark.label.lower()}",
        why="The needle would meet it, or the stitches lie where the hole is cut.",
        panel=panel.key,
        place=Place(x, y, w, h),
        fixes=(*free[:1], *round_, _leave_out(plan, panel, *(line.key for line in lines))),
    )


def _spared(x: float, y: float, wide: float, high: float) -> Spared:
    """All of a place, out to the next 64th."""
    left, top = (Fraction(floor(at * FINE), FINE) for at in (x, y))
    right, bottom = (Fraction(ceil(at * FINE), FINE) for at in (x + wide, y + high))
    return Spared(x=left, y=top, width=right - left, height=bottom - top)


def _round(plan: Plan, panel: PanelPlan, zone: int) -> tuple[Edit, ...]:
    """A filling may go round all that is set into the panel; what it went round before is quilted
    again."""
    if "free" not in PATTERNS[panel.choices.quilt_wish.all[zone].pattern].asks:
        return ()
    places = tuple(_spared(*needle_free(mark)) for mark in hardware(plan, panel))
    path = f"{part_path(zone)}.kept_free"
    return (choose(plan.project, panel.panel, "Quilt round it", (path, places)),)


def _too_far_apart(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    batting = batting_of(plan.project, panel.choices)
    if batting is None or batting.widest_gap is None:
        return
    limit = batting.widest_gap
    widest, part = _widest_gap(panel)
    if widest <= limit:
        return
    path = part_path(part)
    read = plan.marks.notation.read_off
    wish = _gap_within(panel, limit)
    at = next(
        at for at, ply in enumerate(panel.choices.layers.plies) if ply.material == batting.key
    )
    fixes = (
        choose(
            plan.project,
            panel.panel,
            f"Set the gap to {read(wish, unit=True)}",
            (f"{path}.pattern", "channels"),
            (f"{path}.gap", wish),
        ),
        choose(
            plan.project,
            panel.panel,
            "Use fusible fleece, which needs no lines",
            (f"layers.plies.{at}.material", "fusible-fleece"),
        ),
    )
    yield Snag(
        key=f"quilt.limit.{panel.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=f"{read(widest, unit=True)} without a line is too far for this batting",
        why=(
            f"{batting.name} shifts and bunches when more than "
            f"{read(limit, unit=True)} lie between lines (typical, from memory)."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=fixes,
    )


def _widest_gap(panel: PanelPlan) -> tuple[Inches, int]:
    """The widest stretch without a line, and the part it is in: of a part the least over its
    sets, since any of them holds."""
    width, height = (
        panel.trimmed.width.value - panel.shown["left"] - panel.shown["right"],
        panel.trimmed.height.value - panel.shown["top"] - panel.shown["bottom"],
    )
    if not panel.quilt.sets:
        return (_widest_strip(panel) if panel.sewn_down else max(width, height)), 0
    starts = [
        panel.shown["top"],
        *(zone.starts for zone in panel.choices.quilt_zones),
        panel.trimmed.height.value - panel.shown["bottom"],
    ]
    return max(
        (_widest_in_part(panel, zone, (width, below - above)), zone)
        for zone, (above, below) in enumerate(pairwise(starts))
    )


def _widest_in_part(panel: PanelPlan, zone: int, size: tuple[Inches, Inches]) -> Inches:
    """The same of one part: all of it, where nothing is sewn there."""
    width, height = size
    spans = [max(width, height)]
    for entry in panel.quilt.sets:
        if entry.zone != zone:
            continue
        if not entry.lines.value:
            spans.append(width if entry.angle == 90 else height)
        else:
            margin = entry.margin.value if entry.margin is not None else entry.gap.value
            spans.append(max(entry.gap.value, margin))
    return min(spans)


def _widest_strip(panel: PanelPlan) -> Inches:
    """From seam to seam of strips sewn through the batting."""
    shows = next(line.figure for line in panel.top.lines if line.key == "strips.shows")
    piecing = panel.choices.piecing
    if piecing.fixed != "mixed":
        return shows.value
    return shows.value + max(piecing.widths) - piecing.widths[0]


def _gap_within(panel: PanelPlan, limit: Inches) -> Inches:
    """A wish that stays within the limit after it has been evened out."""
    across = panel.trimmed.width.value - panel.shown["left"] - panel.shown["right"]
    wish = min(limit, across / 2)
    return max(wish - Fraction(1, 2), wish / 2) if wish == limit else wish


def _leaning(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """One-way slanted lines lean a panel; what leans beyond the margin cannot be squared."""
    lean, shift = panel.draw.lean, panel.leans
    if lean is None or shift is None or lean.expected.value == 0:
        return
    if panel.measured.quilted.width is not None:
        return  # it is known now: the ladder tells
    height = panel.pieced.height.value
    worst = max(abs(lean.most.value), abs(lean.least.value)) * height
    room = panel.least.width.value - panel.trimmed.width.value
    beyond = worst > room
    felt = abs(shift.value) >= FELT
    if not felt and (not beyond or worst < FELT):
        return
    read = plan.marks.notation.read_off
    squaring = round_up(worst / 2, plan.marks.ruler.value)
    fixes: list[Edit] = []
    zone = next((entry.zone for entry in panel.quilt.sets if entry.angle not in (0, 90)), None)
    if zone is not None:
        path = part_path(zone)
        fixes.append(
            choose(
                plan.project,
                panel.panel,
                "Sew as many lines the other way",
                (f"{path}.pattern", "diamonds"),
            )
        )
    if beyond and plan.project.oversize.way == "model":
        fixes.append(
            edit(
                f"Leave {read(squaring, unit=True)} each side to square it",
                ("oversize.squaring", squaring),
            )
        )
    side = "right" if shift.value > 0 else "left"
    yield Snag(
        key=f"quilt.{'lean' if beyond else 'leans'}.{panel.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS if beyond else Weight.NOTES,
        title=f"The {panel.panel.label.lower()} "
        + (
            f"will lean {read(abs(shift.value), unit=True)} to the {side}"
            if felt
            else f"may lean up to {read(worst, unit=True)}"
        ),
        why=(
            f"Lines one way on the slant draw it out of square, up to {read(worst, unit=True)} "
            f"over its height; there is {read(room, unit=True) if room >= FELT else 'nothing'} to "
            "square it with."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=tuple(fixes),
    )
