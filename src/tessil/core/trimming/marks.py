"""Marks on trimmed panels: pockets, snaps, tabs, handles, stiffener, motifs.

Every mark is measured both from the raw trimmed edge and from the seam line, since one is
measured before sewing and the other after.  Usual places are common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import TYPE_CHECKING, Any

from tessil.core.bag.model import Box
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.lengths import Inches, round_near
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.panels.planning import PanelPlan
from tessil.core.trimming.choice import Mark

if TYPE_CHECKING:
    from tessil.core.plan import Plan

KINDS = {
    "slip": "Slip pocket",
    "divided": "Divided pocket",
    "window": "Window zip pocket",
    "d-ring": "D-ring tab",
    "handle": "Handle ends",
    "stiffener": "Base stiffener",
    "motif": "Motif",
}
MARGIN = Fraction(1, 2)  # a motif keeps so clear of seams and of the base
SNAP_PATCH = Fraction(3, 2)


@dataclass(frozen=True, slots=True)
class Placed:
    """A mark where it lies: its box on the trimmed panel, and its distances as figures."""

    key: str
    label: str
    kind: str
    panel: str
    box: Box
    index: int | None  # in the project's marks; None if its place is computed
    figures: tuple[Figure, ...]
    lines: tuple[Inches, ...] = ()  # x of division lines
    twin: Box | None = None  # the other handle end


def _distances(plan: Plan, panel: PanelPlan, box: Box, name: str) -> tuple[Figure, ...]:
    """From the left and top, edge and seam line."""
    x, y, _, _ = box
    left, top = (given(f"{side} seam", panel.shown[side]) for side in ("left", "top"))
    across = given(f"{name}, from left edge", x)
    down = given(f"{name}, from top edge", y)
    return (
        across,
        (across - left).called(f"{name}, from left seam line"),
        down,
        (down - top).called(f"{name}, from top seam line"),
    )


def _box(mark: Mark) -> Box:
    if mark.kind == "handle":
        half = Fraction(1, 2)
        return mark.x - half, mark.y, 2 * half, Fraction(3, 2)
    if mark.kind == "d-ring":
        return mark.x, mark.y, Fraction(5, 4), Fraction(1)
    if mark.kind == "window":
        return mark.x, mark.y, mark.width, Fraction(1, 2)
    return mark.x, mark.y, mark.width, mark.height


def _placed(plan: Plan, at: int, mark: Mark) -> Placed:
    panel = plan.panel(mark.panel)
    box = _box(mark)
    label = KINDS[mark.kind]
    lines: tuple[Inches, ...] = ()
    if mark.kind == "divided":
        step = mark.width / mark.divisions
        lines = tuple(mark.x + step * i for i in range(1, mark.divisions))
    twin = None
    if mark.kind == "handle":
        other = mark.x2 if mark.x2 is not None else panel.trimmed.width.value - mark.x
        twin = (other - Fraction(1, 2), mark.y, Fraction(1), Fraction(3, 2))
    figures = _distances(
        plan, panel, box if mark.kind != "handle" else (mark.x, *box[1:]), label.lower()
    )
    return Placed(f"mark:{at}", label, mark.kind, panel.key, box, at, figures, lines, twin)


def female_below_top(plan: Plan) -> Figure | None:
    """Where the female snap belongs: how far the flap comes down, less the male's offset."""
    if plan.bag.flap is None or not plan.project.snap.used:
        return None
    offset = given("male part above the flap's edge", plan.project.snap.offset)
    return (plan.bag.flap.lands - offset).called("female snap, below the top edge")


def _snaps(plan: Plan) -> Iterator[Placed]:
    """Both halves, centred; the female one is computed unless it is set already."""
    computed, flap = female_below_top(plan), plan.bag.flap
    if computed is None or flap is None:
        return
    offset = given("offset", plan.project.snap.offset)
    typed = plan.project.snap.female
    below = computed if typed is None else given("female snap, set already", typed, Basis.MEASURED)
    half = SNAP_PATCH / 2
    for key, label, panel_key, start, step, sign in (
        ("male", "Snap, male part", flap.male_panel, flap.male_from, offset, flap.male_sign),
        (
            "female",
            "Snap, female part",
            flap.female_panel,
            flap.female_from,
            below,
            flap.female_sign,
        ),
    ):
        panel = plan.panel(panel_key)
        centre = panel.trimmed.width / 2
        at = (start + step if sign > 0 else start - step).called(f"{label.lower()}, from top edge")
        box = (centre.value - half, at.value - half, SNAP_PATCH, SNAP_PATCH)
        seam = given("top seam", panel.shown["top"])
        figures = (
            centre.called(f"{label.lower()}, from left edge"),
            at,
            (at - seam).called(f"{label.lower()}, from top seam line"),
            *((computed,) if key == "female" else ()),
        )
        yield Placed(f"snap:{key}", label, "snap", panel_key, box, None, figures)


def marks_of(plan: Plan, panel: str) -> tuple[Placed, ...]:
    """All marks on one panel, the maker's own first."""
    own = [
        _placed(plan, at, mark) for at, mark in enumerate(plan.project.marks) if mark.panel == panel
    ]
    flap = plan.bag.flap
    if flap is None or panel not in (flap.male_panel, flap.female_panel):
        return tuple(own)
    return (*own, *(snap for snap in _snaps(plan) if snap.panel == panel))


def free_room(plan: Plan, panel: PanelPlan, margin: Inches) -> Box:
    """Where a mark may lie on the leading face: inside the seams and above the base."""
    left, top = panel.shown["left"] + margin, panel.shown["top"] + margin
    right = panel.trimmed.width.value - panel.shown["right"] - margin
    bottom = panel.trimmed.height.value - panel.shown["bottom"] - margin
    base = [notch.y for notch in panel.panel.notches if notch.meets == "seam"]
    if base:
        bottom = min(bottom, min(base) - plan.brief.seams.corner.value - margin)
    return left, top, right - left, bottom - top


def add_mark(plan: Plan, panel: PanelPlan, kind: str) -> Edit:
    """A new mark of a kind at its usual place."""
    made = _usual(plan, panel, kind)
    words = f"Mark a {KINDS[kind].lower()}"
    return edit(words, ("marks", (*plan.project.marks, made)))


def _usual(plan: Plan, panel: PanelPlan, kind: str) -> Mark:
    left, top, width, height = free_room(plan, panel, Fraction(0))
    mark = plan.marks.ruler.value
    wide = min(Fraction(6), round_near(width * 2 / 3, mark))
    high = min(Fraction(5), round_near(height / 2, mark))
    centred = round_near(left + (width - wide) / 2, mark)
    base: dict[str, Any] = {"kind": kind, "panel": panel.key, "width": wide, "height": high}
    places = {
        "slip": (centred, top + Fraction(5, 2)),
        "divided": (centred, top + Fraction(5, 2)),
        "window": (centred, top + Fraction(7, 4)),
        "motif": (centred, round_near(top + (height - high) / 2, mark)),
        "handle": (round_near(left + width / 4, mark), top + Fraction(1, 2)),
        "d-ring": (Fraction(0), top + Fraction(1, 2)),
        "stiffener": (left, top),
    }
    x, y = places[kind]
    if kind == "stiffener" and plan.bag.base is not None:
        inset = (panel.trimmed.width.value - plan.bag.finished[0].value) / 2
        half = plan.bag.base.value / 2
        y = panel.trimmed.height.value - panel.shown["bottom"] - half
        return Mark(
            **base | {"x": inset, "y": y, "width": plan.bag.finished[0].value, "height": half}
        )
    return Mark(**base, x=x, y=max(y, Fraction(0)))


def move_mark(plan: Plan, index: int, x: float, y: float) -> Edit:
    """A mark dragged to a place, snapped to the ruler and kept on its panel."""
    mark = plan.project.marks[index]
    ruler = plan.marks.ruler.value
    width, height = plan.panel(mark.panel).trimmed.values()
    to_x = min(max(round_near(Fraction(x), ruler), Fraction(0)), width)
    to_y = min(max(round_near(Fraction(y), ruler), Fraction(0)), height)
    return set_mark(plan, index, f"Move the {KINDS[mark.kind].lower()}", x=to_x, y=to_y)


def set_mark(plan: Plan, index: int, words: str, **changes: Any) -> Edit:
    """A mark with some fields changed; raises pydantic's ValidationError."""
    mark = plan.project.marks[index]
    changed = applied(mark, Edit("", tuple(((key,), value) for key, value in changes.items())))
    kept = plan.project.marks
    return edit(words, ("marks", (*kept[:index], changed, *kept[index + 1 :])))


def remove_mark(plan: Plan, index: int) -> Edit:
    """Take a mark away."""
    kept = plan.project.marks
    words = f"Take the {KINDS[kept[index].kind].lower()} away"
    return edit(words, ("marks", (*kept[:index], *kept[index + 1 :])))
