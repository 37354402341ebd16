"""What lines should mind: the bag's seams, patchwork seams, hardware; and spacings that do.

Common practice, no source: off a seam line by ⅛, on a patchwork seam or clear of it by ¼, never
through a snap or a window.
"""

from __future__ import annotations

from collections.abc import Iterable

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import reach
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.numbers.workings import Figure
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.patterns import PATTERNS
from tessil.core.quilting.quilt import panel_sets
from tessil.core.quilting.seams import SeamLine, ways
from tessil.core.quilting.sets import CLEARANCE, LineSet
from tessil.core.quilting.sewn import QuiltLine
from tessil.core.trimming.marks import Placed
from tessil.core.trouble import CannotPlan

ON = 1 / 16  # so near is on the seam
HARDWARE = ("snap", "window")


class NearMiss(Record, frozen=True):
    """A line beside a patchwork seam that it neither hits nor clears."""

    group: int
    offset: float
    seam: float
    angle: float


def near_misses(
    sets: Iterable[LineSet], seams: tuple[SeamLine, ...], size: tuple[float, float]
) -> tuple[NearMiss, ...]:
    """Lines that run beside a long seam by less than ¼ in without lying on it.

    Seams that go over less than half of the panel, as between scraps, read as no line.
    """
    found = []
    for group, entry in enumerate(sets):
        if not entry.regular:
            continue
        beside = _long_seams(seams, entry.angle, size)
        for offset in entry.offsets:
            near = min(beside, key=lambda seam: abs(seam - offset), default=None)
            if near is not None and ON < abs(near - offset) < float(CLEARANCE) - 1e-6:
                found.append(NearMiss(group, offset, near, entry.angle))
    return tuple(found)


def _long_seams(
    seams: tuple[SeamLine, ...], angle: float, size: tuple[float, float]
) -> list[float]:
    """The offsets at which parallel seams together go over half of the panel."""
    (ax, ay), _ = ways(angle)
    extent = abs(ax) * size[0] + abs(ay) * size[1]
    together: dict[float, float] = {}
    for run in seams:
        if abs(run.angle - angle) < 0.5:
            together[run.offset] = together.get(run.offset, 0.0) + run.length
    return sorted(offset for offset, length in together.items() if length > extent / 2)


def crosses(line: QuiltLine, box: tuple[float, float, float, float]) -> bool:
    """Whether a line runs through a box of x, y, width, height."""
    x, y, width, height = box
    ends = (*line.points, line.points[0]) if line.closed else line.points
    return any(
        _meets(ends[at], ends[at + 1], (x, y, x + width, y + height)) for at in range(len(ends) - 1)
    )


def _meets(
    one: tuple[float, float], other: tuple[float, float], box: tuple[float, float, float, float]
) -> bool:
    """A segment against a box by its limits on each axis (Liang and Barsky 1984, from memory)."""
    (x1, y1), (x2, y2) = one, other
    left, top, right, bottom = box
    low, high = 0.0, 1.0
    for step, start, least, most in ((x2 - x1, x1, left, right), (y2 - y1, y1, top, bottom)):
        if step == 0:
            if not least < start < most:
                return False
            continue
        a, b = sorted(((least - start) / step, (most - start) / step))
        low, high = max(low, a), min(high, b)
    return low < high - 1e-9


def hardware(plan: Plan, panel: PanelPlan) -> tuple[Placed, ...]:
    """Marks on a panel that no needle should go through."""
    return tuple(mark for mark in plan.marks_on(panel.key) if mark.kind in HARDWARE)


def through(panel: PanelPlan, marks: Iterable[Placed]) -> tuple[tuple[QuiltLine, Placed], ...]:
    """Lines that run through hardware."""
    found = []
    for mark in marks:
        free = needle_free(mark)
        for line in panel.quilt.lines:
            if crosses(line, free):
                found.append((line, mark))
    return tuple(found)


def needle_free(mark: Placed) -> tuple[float, float, float, float]:
    """Where no needle should go: of a snap its own half of the patch it is marked by."""
    x, y, width, height = _floats(mark.box)
    if mark.kind != "snap":
        return x, y, width, height
    return x + width / 4, y + height / 4, width / 2, height / 2


def _floats(box: tuple[Fraction, ...]) -> tuple[float, float, float, float]:
    x, y, width, height = (float(value) for value in box)
    return x, y, width, height


class Offer(Record, frozen=True):
    """One way for the lines to come out, with what it costs."""

    key: str
    words: str
    gap: Figure
    margin: Figure | None
    sets: tuple[LineSet, ...]
    misses: int
    through: int
    edit: Edit
    now: bool


_WAYS: tuple[tuple[str, str, str, str], ...] = (
    ("divide.line", "divide", "line", "even, line on the centre"),
    ("divide.gap", "divide", "gap", "even, gap on the centre"),
    ("keep.line", "keep", "line", "gap kept, line on the centre"),
    ("keep.gap", "keep", "gap", "gap kept, gap on the centre"),
    ("hit", "hit", "line", "on the patchwork seams"),
    ("clear", "clear", "line", "clear of the patchwork seams"),
)


def offers(plan: Plan, panel: PanelPlan, part: int) -> tuple[Offer, ...]:
    """Every way for a part's lines to come out near the wished gap, the present one marked."""
    choices = panel.choices
    parts = choices.quilt_wish.all
    part = min(part, len(parts) - 1)
    now = parts[part]
    if now.pattern not in ("channels", "grid", "diagonal", "diamonds"):
        return ()
    marks = hardware(plan, panel)
    found = []
    for key, spacing, centre, words in _WAYS:
        if spacing in ("hit", "clear"):
            if not _has_seams(panel, now):
                continue
            centre = now.centre  # for the lines that run square to the seams
        changed = now.model_copy(update={"spacing": spacing, "centre": centre})
        path = part_path(part)
        made = _offer(plan, panel, part, changed, marks)
        if made is None:
            continue
        sets, misses, crossed = made
        edit = choose(
            plan.project,
            panel.panel,
            f"Space the lines: {words}",
            (f"{path}.spacing", spacing),
            (f"{path}.centre", centre),
        )
        same = _comes_out(panel, now) == spacing and (
            now.centre == centre or spacing in ("hit", "clear")
        )
        if same:  # as it really is, with what is left out
            crossed = len({line.key for line, _ in through(panel, marks)})
        found.append(
            Offer(key, words, sets[0].gap, sets[0].margin, sets, misses, crossed, edit, same)
        )
    return tuple(found)


def _comes_out(panel: PanelPlan, choice: Quilting) -> str:
    """How lines really come out: where there are no seams to mind they divide evenly."""
    if choice.spacing in ("hit", "clear") and not _has_seams(panel, choice):
        return "divide"
    return choice.spacing


def part_path(part: int) -> str:
    """Where a part's quilting stands among a panel's choices."""
    return "quilting" if part == 0 else f"quilt_zones.{part - 1}.quilting"


def _has_seams(panel: PanelPlan, choice: Quilting) -> bool:
    pattern = PATTERNS[choice.pattern]
    if pattern.by_seams != "to hit":
        return False
    both = "run" not in pattern.asks
    upright, level = both or choice.run == "upright", both or choice.run == "level"
    angles = {run.angle for run in panel.quilt.seams}
    return (upright and 90.0 in angles) or (level and 0.0 in angles)


def _offer(
    plan: Plan, panel: PanelPlan, part: int, changed: Quilting, marks: tuple[Placed, ...]
) -> tuple[tuple[LineSet, ...], int, int] | None:
    choices = panel.choices
    if part == 0:
        choices = choices.model_copy(update={"quilting": changed})
    else:
        zones = list(choices.quilt_zones)
        zones[part - 1] = zones[part - 1].model_copy(update={"quilting": changed})
        choices = choices.model_copy(update={"quilt_zones": tuple(zones)})
    try:
        sets = panel_sets(panel.panel, choices.quilt_wish, panel.shown, "", panel.quilt.seams)[part]
    except CannotPlan:
        return None
    if not sets or not sets[0].offsets:
        return None
    misses = len(near_misses(sets, panel.quilt.seams, panel.trimmed.floats()))
    return sets, misses, _crossed(sets, marks)


def _crossed(sets: tuple[LineSet, ...], marks: tuple[Placed, ...]) -> int:
    """How many lines go through hardware, told from their offsets alone."""
    number = 0
    for mark in marks:
        x, y, width, height = needle_free(mark)
        box: Outline = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
        for entry in sets:
            low, high = reach(box, ways(entry.angle)[1])
            number += sum(low + 1e-9 < offset < high - 1e-9 for offset in entry.offsets)
    return number
