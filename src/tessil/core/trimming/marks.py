"""Marks on trimmed panels: pockets, snaps, tabs, handles, the base, motifs.

Every mark is measured both from the raw trimmed edge and from the seam line, since one is
measured before sewing and the other after.  Usual places are common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from tessil.core.bag.model import Bag, Box, FlapNeed
from tessil.core.brief.choice import Base
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.panels.panel import PanelPlan
from tessil.core.trimming.choice import Mark, Snap

KINDS = {
    "slip": "Slip pocket",
    "divided": "Divided pocket",
    "window": "Window zip pocket",
    "d-ring": "Ring tab",
    "motif": "Motif",
    "ribbon": "Ribbon or lace",
    "label": "Label",
    "patch": "Patch",
}
CAUGHT = ("slip", "divided")  # pockets whose sides may go into the side seams
MARGIN = Fraction(1, 2)  # a motif keeps so clear of seams and of the base
SNAP_PATCH = Fraction(3, 2)


class Placed(Record, frozen=True):
    """A mark where it lies: its box on the trimmed panel, and its distances as figures."""

    key: str
    label: str
    kind: str
    panel: str
    box: Box
    index: int | None  # in the project's marks; None if its place is computed
    figures: tuple[Figure, ...]
    lines: tuple[Inches, ...] = ()  # x of division lines
    caught: Literal["", "sides", "top", "edge"] = ""  # in seams, which is as it should be


def _distances(panel: PanelPlan, box: Box, name: str) -> tuple[Figure, ...]:
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


def _caught(mark: Mark) -> Literal["", "sides", "top", "edge"]:
    """Which seams of its panel it goes into: with its ends or sides, at the top, all along one."""
    if mark.kind == "ribbon":
        return "edge" if mark.edge else "sides"
    if mark.kind in CAUGHT:
        return "sides" if mark.sides == "seams" else "top" if mark.sides == "free" else ""
    return ""


def _along_edge(mark: Mark, wide: Inches, high: Inches) -> Box:
    """A trim in the seam along an edge."""
    by = mark.height
    if mark.edge in ("left", "right"):
        return (Fraction(0) if mark.edge == "left" else wide - by), Fraction(0), by, high
    return Fraction(0), (Fraction(0) if mark.edge == "top" else high - by), wide, by


def _box(mark: Mark, size: tuple[Inches, Inches]) -> Box:
    wide, high = size
    if mark.kind == "ribbon" and mark.edge:
        return _along_edge(mark, wide, high)
    if mark.kind in CAUGHT and mark.sides == "free":
        return mark.x, Fraction(0), mark.width, mark.height
    if mark.kind == "d-ring":
        return mark.x, mark.y, Fraction(5, 4), Fraction(1)
    if mark.kind == "window":
        return mark.x, mark.y, mark.width, mark.box
    if _caught(mark) == "sides":
        return Fraction(0), mark.y, wide, mark.height
    return mark.x, mark.y, mark.width, mark.height


def _placed(panel: PanelPlan, at: int, mark: Mark) -> Placed:
    box = _box(mark, panel.trimmed.values())
    label = KINDS[mark.kind]
    lines: tuple[Inches, ...] = ()
    if mark.kind == "divided":
        step = box[2] / mark.divisions
        evenly = tuple(step * i for i in range(1, mark.divisions))
        lines = tuple(box[0] + off for off in (mark.at or evenly) if off < box[2])
    figures = _distances(panel, box, label.lower())
    key, caught = f"mark:{at}", _caught(mark)
    return Placed(key, label, mark.kind, panel.key, box, at, figures, lines, caught)


def female_below_top(snap: Snap, flap: FlapNeed | None) -> Figure | None:
    """Where the female snap belongs: how far the flap comes down, less the male's offset."""
    if flap is None or not snap.used:
        return None
    offset = given("male part above the flap's edge", snap.offset)
    return (flap.lands - offset).called("female snap, below the top edge")


def _snaps(snap: Snap, flap: FlapNeed | None, panels: Mapping[str, PanelPlan]) -> Iterator[Placed]:
    """Both halves, centred; the female one is computed unless it is set already."""
    computed = female_below_top(snap, flap)
    if computed is None or flap is None:
        return
    offset = given("offset", snap.offset)
    typed = snap.female
    below = computed if typed is None else given("female snap, set already", typed, Basis.MEASURED)
    half = SNAP_PATCH / 2
    for key, label, panel_key, start, step, sign in (
        ("male", "Snap's male part", flap.male_panel, flap.male_from, offset, flap.male_sign),
        (
            "female",
            "Snap's female part",
            flap.female_panel,
            flap.female_from,
            below,
            flap.female_sign,
        ),
    ):
        panel = panels[panel_key]
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


def base_places(base: Base, bag: Bag, panels: Mapping[str, PanelPlan]) -> tuple[Placed, ...]:
    """Where a strip and a stiffener lie on the panels that make the base, inside."""
    kinds = [("strip", "Base strip")] if base.strip and bag.has_bottom_seam else []
    if base.stiffener not in ("none", "lining"):
        kinds.append(("stiffener", "Base stiffener"))
    if bag.floor is None or not kinds:
        return ()
    return tuple(
        _on_base(panel, kind, label, bag, base)
        for panel in panels.values()
        if panel.panel.kind == "outer" and panel.panel.notches
        for kind, label in kinds
    )


def _on_base(panel: PanelPlan, kind: str, label: str, bag: Bag, base: Base) -> Placed:
    """Half of it on each of two panels; all of it in the middle of one that goes round the base."""
    assert bag.floor is not None
    long, deep = (figure.value for figure in bag.floor)
    if kind == "strip":
        deep = base.strip_width
    width, height = panel.trimmed.values()
    if any(notch.meets == "seam" for notch in panel.panel.notches):
        y, high = height - panel.shown["bottom"] - deep / 2, deep / 2
    else:
        y, high = (height - deep) / 2, deep
    box = (width - long) / 2, y, long, high
    key = f"base:{kind}"
    return Placed(key, label, kind, panel.key, box, None, _distances(panel, box, label.lower()))


def placed_marks(
    marks: Sequence[Mark], snap: Snap, flap: FlapNeed | None, panels: Mapping[str, PanelPlan]
) -> tuple[Placed, ...]:
    """All marks, the maker's own first; those on panels that this bag has not are left out."""
    own = [
        _placed(panels[mark.panel], at, mark)
        for at, mark in enumerate(marks)
        if mark.panel in panels
    ]
    return (*own, *_snaps(snap, flap, panels))
