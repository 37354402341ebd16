"""What a machine stitches in one hooping, line after line, in the order in which it is made.

Floats, inches in the hoop's field from its top left corner.  Must not know files or machines.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from tessil.core.bag.model import Panel
from tessil.core.hooping.hoopings import Laid, OneHooping
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.panels.panel import PanelPlan

RunKind = Literal["placing", "batting", "top", "lines", "outline"]
ORDER: tuple[RunKind, ...] = ("placing", "batting", "top", "lines", "outline")


class Run(Record, frozen=True):
    """One line that is stitched without a stop; its last point is the first where it closes."""

    kind: RunKind
    panel: str
    points: Outline


def runs_of(hooping: OneHooping, panels: dict[str, PanelPlan]) -> tuple[Run, ...]:
    """All lines of a hooping: the placing lines of all its outlines, then layer after layer."""
    made = [run for laid in hooping.laid for run in _of_one(laid, panels[laid.panel])]
    return tuple(sorted(made, key=lambda run: ORDER.index(run.kind)))


def _of_one(laid: Laid, panel: PanelPlan) -> Iterator[Run]:
    placed = placing_line(panel.panel)
    if any(layer.role == "batting" for layer in panel.layers):
        yield Run("placing", panel.key, _at(laid, panel, placed))
        yield Run("batting", panel.key, _at(laid, panel, placed))
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    closed = (*outline, outline[0])
    yield Run("top", panel.key, _at(laid, panel, placed))
    for line in _within(panel, outline):
        yield Run("lines", panel.key, _at(laid, panel, line))
    yield Run("outline", panel.key, _at(laid, panel, closed))


def placing_line(panel: Panel) -> Outline:
    """Where batting is placed: the outline less what each of its seams takes, closed."""
    import shapely

    outline = shapely.Polygon([(float(x), float(y)) for x, y in panel.outline])
    taken = [
        shapely.LineString([tuple(map(float, e.start)), tuple(map(float, e.end))]).buffer(
            float(e.allowance.value), cap_style="square", join_style="mitre"
        )
        for e in panel.edges
        if e.allowance.value
    ]
    rest = outline.difference(shapely.union_all(taken))
    largest = max(getattr(rest, "geoms", [rest]), key=lambda part: part.area)
    return tuple((x, y) for x, y in largest.exterior.coords)


def _within(panel: PanelPlan, outline: Outline) -> Iterator[Outline]:
    """The panel's own lines, as far as they lie inside its outline."""
    import shapely

    inside = shapely.Polygon(outline)
    for line in panel.quilt.lines:
        points = (*line.points, line.points[0]) if line.closed else line.points
        cut = shapely.LineString(points).intersection(inside)
        for part in getattr(cut, "geoms", [cut]):
            if part.geom_type == "LineString" and part.length:
                yield tuple((x, y) for x, y in part.coords)


def _at(laid: Laid, panel: PanelPlan, points: Outline) -> Outline:
    """Points of the trimmed panel where they lie in the field."""
    x, y, high = float(laid.x), float(laid.y), float(panel.trimmed.height.value)
    if laid.turned:
        return tuple((x + high - b, y + a) for a, b in points)
    return tuple((x + a, y + b) for a, b in points)
