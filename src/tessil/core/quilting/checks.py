"""Do lines keep clear of seams and hardware, and close enough; will the panel lean?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from math import ceil, floor
from typing import NamedTuple

from tessil.core.choices import batting_of
from tessil.core.choosing import choose, forget
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import MOST_ROOM
from tessil.core.numbers.lengths import Inches, round_up
from tessil.core.numbers.sizes import Side
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import whole
from tessil.core.panels.trial import AFRESH, panel_if
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


class Near(NamedTuple):
    """A line near a seam: its set, its number there, the side, and how far it is from its seam."""

    group: int
    number: int
    side: Side
    gap: Inches


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


def _span(panel: PanelPlan, entry: LineSet) -> tuple[Inches, Inches, Side, Side]:
    if entry.angle == 90:
        right = panel.trimmed.width.value - panel.shown["right"]
        return panel.shown["left"], right, "left", "right"
    bottom = panel.trimmed.height.value - panel.shown["bottom"]
    return panel.shown["top"], bottom, "top", "bottom"


def _near_seams(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A line in a seam allowance, or within ⅛ of a seam line, shows as a crooked seam."""
    for near in _too_near(panel):
        yield _near_seam(plan, panel, near)


def _too_near(panel: PanelPlan) -> Iterator[Near]:
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
                    yield Near(group, number, side, gap)


def _near_seam(plan: Plan, panel: PanelPlan, near: Near) -> Snag:
    group, number, side, gap = near
    read, entry = plan.marks.notation.exact, panel.quilt.sets[group]
    title = (
        f"Line {number + 1} runs inside the {side} seam"
        if gap < 0
        else f"Line {number + 1} runs {read(gap, unit=True)} from the {side} seam line"
    )
    part = f".{entry.zone}" if entry.zone else ""
    return Snag(
        key=f"quilt.seam.{panel.key}.{side}.{number + 1}{part}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=title,
        why="A line in the allowance adds bulk, one within ⅛ in (3 mm) of the seam looks crooked.",
        panel=panel.key,
        place=_line_place(panel, entry, entry.places[number]),
        fixes=(
            *_spacing_fixes(plan, panel, near),
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


def _if(plan: Plan, panel: PanelPlan, step: Edit) -> PanelPlan | None:
    return panel_if(plan.setting, plan.tasks, panel.key, step)


def _spacing_fixes(plan: Plan, panel: PanelPlan, near: Near) -> Iterator[Edit]:
    """Other ways to come out, of which none brings a line near that seam."""
    zone, path = panel.quilt.sets[near.group].zone, _part(panel, near.group)
    quilting = panel.choices.quilt_wish.all[zone]
    ways = []
    if quilting.spacing != "divide":
        ways.append(("Divide the width evenly", (f"{path}.spacing", "divide")))
    if quilting.spacing == "keep":
        other = "gap" if quilting.centre == "line" else "line"
        ways.append((f"Put a {other} on the centre", (f"{path}.centre", other)))
    for words, change in ways:
        step = choose(plan.project, panel.panel, words, change)
        made = _if(plan, panel, step)
        left = () if made is None else _too_near(made)
        if made is not None and all(
            (made.quilt.sets[one.group].zone, one.side) != (zone, near.side) for one in left
        ):
            yield step


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
        if not offer.now and _clears(panel, _if(plan, panel, offer.edit))
    ]
    path = f"{_part(panel, first.group)}.pattern"
    ditch = choose(plan.project, panel.panel, "Sew in the ditch of the seams", (path, "ditch"))
    if not fixes and _clears(panel, _if(plan, panel, ditch)):
        fixes = [ditch]
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


def _clears(panel: PanelPlan, made: PanelPlan | None) -> bool:
    """Whether no line nearly meets a seam of the patchwork, nor comes near one of the bag."""
    if made is None or not _as_clear(panel, made):
        return False
    return not near_misses(made.quilt.sets, made.quilt.seams, made.trimmed.floats())


def _as_clear(panel: PanelPlan, made: PanelPlan) -> bool:
    """Whether no more lines come near a seam of the bag than do now."""
    return len([*_too_near(made)]) <= len([*_too_near(panel)])


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
        offer.edit
        for offer in offers(plan, panel, zone)
        if not offer.now and _misses(panel, _if(plan, panel, offer.edit), mark)
    ]
    round_ = _round(plan, panel, zone)
    one = len(lines) == 1
    without = _leave_out(plan, panel, *(line.key for line in lines))
    left = (without,) if _misses(panel, _if(plan, panel, without), mark) else ()
    return Snag(
        key=f"quilt.through.{panel.key}.{mark.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=f"{'A line runs' if one else f'{len(lines)} lines run'} through the "
        f"{mark.label.lower()}",
        why="The needle would meet it, or the stitches lie where the hole is cut.",
        panel=panel.key,
        place=Place(x, y, w, h),
        fixes=(*free[:1], *round_, *left),
    )


def _misses(panel: PanelPlan, made: PanelPlan | None, mark: Placed) -> bool:
    """Whether no line goes through a mark, nor comes near a seam."""
    return made is not None and not through(made, (mark,)) and _as_clear(panel, made)


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
    widest, part = max(_widest_gaps(panel))
    if widest <= limit:
        return
    read = plan.marks.notation.read_off
    at = next(
        at for at, ply in enumerate(panel.choices.layers.plies) if ply.material == batting.key
    )
    fixes = (
        *_closer(plan, panel, part, limit),
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


def _closer(plan: Plan, panel: PanelPlan, part: int, limit: Inches) -> Iterator[Edit]:
    """Channels within the limit of the batting, however they are evened out."""
    path, wish = part_path(part), _gap_within(panel, limit)
    for share in (1, Fraction(3, 4), Fraction(1, 2)):
        gap = plan.marks.notation.nearest(wish * share) if share != 1 else wish
        step = choose(
            plan.project,
            panel.panel,
            f"Set the gap to {plan.marks.notation.read_off(gap, unit=True)}",
            (f"{path}.pattern", "channels"),
            (f"{path}.gap", gap),
        )
        made = _if(plan, panel, step)
        if made is not None and _widest_gaps(made)[part][0] <= limit:
            yield step
            return


def _widest_gaps(panel: PanelPlan) -> list[tuple[Inches, int]]:
    """The widest stretch without a line of each part: the least over its sets, since any of them
    holds."""
    width, height = (
        panel.trimmed.width.value - panel.shown["left"] - panel.shown["right"],
        panel.trimmed.height.value - panel.shown["top"] - panel.shown["bottom"],
    )
    if not panel.quilt.sets:
        return [(_widest_strip(panel) if panel.sewn_down else max(width, height), 0)]
    starts = [
        panel.shown["top"],
        *(zone.starts for zone in panel.choices.quilt_zones),
        panel.trimmed.height.value - panel.shown["bottom"],
    ]
    return [
        (_widest_in_part(panel, zone, (width, below - above)), zone)
        for zone, (above, below) in enumerate(pairwise(starts))
    ]


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


class Lean(NamedTuple):
    """By how much one-way slanted lines lean a panel over its height."""

    shift: Inches  # as expected, to the right
    worst: Inches
    room: Inches  # that there is to square it with

    @property
    def beyond(self) -> bool:
        return self.worst > self.room and self.worst >= FELT

    @property
    def felt(self) -> bool:
        return abs(self.shift) >= FELT


def _lean_of(panel: PanelPlan) -> Lean | None:
    """None where it does not lean, or is known: the ladder tells."""
    lean, shift = panel.draw.lean, panel.leans
    if lean is None or shift is None or panel.measured.quilted.width is not None:
        return None
    worst = max(abs(lean.most.value), abs(lean.least.value)) * panel.pieced.height.value
    made = Lean(shift.value, worst, panel.least.width.value - panel.trimmed.width.value)
    return made if lean.expected.value and (made.felt or made.beyond) else None


def _leaning(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """One-way slanted lines lean a panel; what leans beyond the margin cannot be squared."""
    lean = _lean_of(panel)
    if lean is None:
        return
    read = plan.marks.notation.read_off
    worst, side = read(lean.worst, unit=True), "right" if lean.shift > 0 else "left"
    yield Snag(
        key=f"quilt.{'lean' if lean.beyond else 'leans'}.{panel.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS if lean.beyond else Weight.NOTES,
        title=f"The {panel.panel.label.lower()} "
        + (
            f"will lean {read(abs(lean.shift), unit=True)} to the {side}"
            if lean.felt
            else f"may lean up to {worst}"
        ),
        why=(
            f"Lines one way on the slant draw it out of square, up to {worst} over its height; "
            f"there is {read(lean.room, unit=True) if lean.room >= FELT else 'nothing'} to square "
            "it with."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=tuple(_upright_again(plan, panel, lean)),
    )


def _upright_again(plan: Plan, panel: PanelPlan, lean: Lean) -> Iterator[Edit]:
    """What takes the lean away, and what leaves room to square it."""
    zones = {entry.zone for entry in panel.quilt.sets if entry.angle not in (0, 90)}
    crossed = [(f"{part_path(zone)}.pattern", "diamonds") for zone in sorted(zones)]
    other = choose(plan.project, panel.panel, "Sew as many lines the other way", *crossed)
    made = _if(plan, panel, other)
    if made is not None and _lean_of(made) is None:
        yield other
    if not lean.beyond or plan.project.oversize.way != "model":
        return
    pieced = panel.measured.pieced.some
    least = (lean.worst - (0 if pieced else lean.room)) / 2 + plan.project.oversize.squaring
    squaring = round_up(least, plan.marks.ruler.value)
    words = f"eave {plan.marks.notation.read_off(squaring, unit=True)} each side to square it"
    again = (forget(plan.project, panel.key, *AFRESH),) if pieced else ()
    room = Edit(
        f"Piece it again, and l{words}" if pieced else f"L{words}",
        (*again, (("oversize", "squaring"), min(squaring, MOST_ROOM))),
    )
    made = _if(plan, panel, room)
    left = None if made is None else _lean_of(made)
    if made is not None and (left is None or not left.beyond):
        yield room
