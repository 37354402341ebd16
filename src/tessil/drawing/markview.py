"""Marks on the trimmed panel, each with its name, the one in hand with its distances."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.model import Box
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.trimming.marks import Placed
from tessil.drawing.picture import Dimension, Item, Label, Line, Point, Shade, rectangle


def outline_of(box: Box) -> tuple[Point, ...]:
    """The corners of a mark's box."""
    x, y, w, h = (float(v) for v in box)
    return rectangle(x, y, w, h)


def mark_items(plan: Plan, panel: PanelPlan, mark: Placed, picked: bool) -> Iterator[Item]:
    """One mark with its name; the one in hand also with its distances from both edges."""
    shape = outline_of(mark.box)
    yield Shade(shape, "window")
    yield Line(shape, "picked" if picked else "object", closed=True)
    (x, y), _, (right, bottom), _ = shape
    for line in mark.lines:
        yield Line(((float(line), y), (float(line), bottom)), "fold")
    if mark.kind == "window":
        middle = (y + bottom) / 2
        yield Line(((x, middle), (right, middle)), "fold")
    if mark.kind == "snap":
        centre = ((x + right) / 2, (y + bottom) / 2)
        yield Line(((x, centre[1]), (right, centre[1])), "thin")
        yield Line(((centre[0], y), (centre[0], bottom)), "thin")
    yield Label(((x + right) / 2, bottom + 0.25), mark.label, chip=True)
    if picked:
        yield from _mark_dimensions(plan, panel, mark)


def _mark_dimensions(plan: Plan, panel: PanelPlan, mark: Placed) -> Iterator[Dimension]:
    (x, y), _, (right, bottom), _ = outline_of(mark.box)
    read = plan.marks.notation.read_off
    left, top = float(panel.shown["left"]), float(panel.shown["top"])
    middle, centre = (y + bottom) / 2, (x + right) / 2
    edge, seam = mark.figures[0], mark.figures[1]
    for start, end, figure, lane in (
        ((0.0, middle), (x, middle), edge, -0.2),
        ((left, middle), (x, middle), seam, 0.6),
        ((centre, 0.0), (centre, y), mark.figures[2], -0.4),
        ((centre, top), (centre, y), mark.figures[3], 0.4),
    ):
        yield Dimension(start, end, read(figure.value), lane, over_cloth=True)
