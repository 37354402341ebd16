"""The quilting stage: lines on the pieced top, their spacing, their order, what they draw in.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import hypot

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.clip import segments
from tessil.core.quilting.quilt import sewn_outline
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewn import QuiltLine
from tessil.drawing.bands import bands
from tessil.drawing.picture import (
    Dimension,
    Item,
    Label,
    Line,
    Net,
    Picture,
    Point,
    Shade,
    rectangle,
)
from tessil.drawing.pieceview import frame, trim_line

MOST_NUMBERS = 80
FACTORS = (1, 2, 3, 5, 8, 10, 15, 20)
SEEN = 0.13  # so much of the panel the drawn-in outline should lie inside it, to be seen


def quilt_picture(plan: Plan, panel: PanelPlan, leaf: str, line: str) -> Picture:
    """The pieced top on its batting with every line; a leaf adds what it is about."""
    width, height = panel.pieced.floats()
    margin = max((float(layer.margin) for layer in panel.layers), default=0.0)
    items: list[Item] = []
    if leaf == "draws":
        items += _bare(panel, margin)
        items += drawn_in(panel)
    else:
        items += _ground(plan, panel, margin)
        items.append(trim_line(panel))
        items += stitches(panel)
        items += _order(panel) if leaf == "sewing" else spacing(plan, panel)
    items += frame(plan, panel)
    strokes = {f"line:{entry.key}": _on_top(panel, entry) for entry in panel.quilt.lines}
    taken = strokes.get(line)
    if taken is not None:
        items.append(Line(taken, "picked", closed=len(taken) > 2))
    box = (-margin, -margin, width + 2 * margin, height + 2 * margin)
    return Picture(
        tuple(items), box, caption=_caption(panel, leaf), room=(64, 42, 40, 76), strokes=strokes
    )


def _ground(plan: Plan, panel: PanelPlan, margin: float) -> Iterator[Item]:
    width, height = panel.pieced.floats()
    if margin:
        batting = rectangle(-margin, -margin, width + 2 * margin, height + 2 * margin)
        yield Shade(batting, "batting")
        yield Line(batting, "thin", closed=True)
    laid = list(bands(plan, panel))
    yield from laid
    if panel.sewn_down:
        for cloth in laid:
            yield Line(cloth.outline, "quilt", closed=True)


def _bare(panel: PanelPlan, margin: float) -> Iterator[Item]:
    """The top without its prints, so that what becomes of its outline can be seen."""
    width, height = panel.pieced.floats()
    batting = rectangle(-margin, -margin, width + 2 * margin, height + 2 * margin)
    yield Shade(batting, "batting")
    yield Line(batting, "thin", closed=True)
    whole = rectangle(0.0, 0.0, width, height)
    yield Shade(whole, "paper")
    straight = []
    for line in panel.quilt.lines:
        points = _on_top(panel, line)
        if line.bent:
            yield Line(points, "thin", closed=line.closed)
        else:
            straight.append((*points[0], *points[-1]))
    yield Net(tuple(straight), "thin")
    yield Line(whole, "notch", closed=True)


def _on_top(panel: PanelPlan, line: QuiltLine) -> tuple[Point, ...]:
    return tuple(panel.pieced_at(x, y) for x, y in line.points)


def stitches(panel: PanelPlan) -> Iterator[Item]:
    """All lines: straight ones in one go, rings one by one."""
    straight = []
    for line in panel.quilt.lines:
        points = _on_top(panel, line)
        if line.bent:
            yield Line(points, "quilt", closed=line.closed, key=f"line:{line.key}")
        else:
            (x1, y1), (x2, y2) = points
            straight.append((x1, y1, x2, y2))
    if straight:
        yield Net(tuple(straight), "quilt")


def _caption(panel: PanelPlan, leaf: str) -> str:
    label = panel.panel.label
    if not panel.quilt.lines:
        if panel.sewn_down:
            return f"{label}: its strips are sewn through the batting; that is the quilting."
        return f"The {label.lower()} is not quilted."
    if leaf == "sewing":
        return f"{label}: begin each line at its number, sew towards the arrowhead."
    if leaf == "draws":
        factor = exaggeration(panel)
        return f"{label}: black as pieced, red as quilted; the change drawn {factor} times."
    return (
        f"{label}, ready to quilt. Broken: the trim. Drag a line to move it, Delete leaves it out."
    )


# -- spacing -----------------------------------------------------------------------


def spacing(plan: Plan, panel: PanelPlan) -> Iterator[Item]:
    """The gap of every set, and the margins of straight ones to the seam lines."""
    margin = max((float(layer.margin) for layer in panel.layers), default=0.0)
    seen: set[float] = set()
    for entry in panel.quilt.sets:
        if not entry.regular or len(entry.offsets) < 2 or entry.angle in seen:
            continue
        seen.add(entry.angle)
        if entry.angle in (0.0, 90.0):
            yield from _straight_gap(plan, panel, entry, margin)
        else:
            yield from _slanted_gap(plan, panel, entry)


def _straight_gap(plan: Plan, panel: PanelPlan, entry: LineSet, margin: float) -> Iterator[Item]:
    read = plan.marks.notation.read_off
    places = [*entry.offsets]
    at = len(places) // 2
    upright = entry.angle == 90
    edges = (
        (float(panel.shown["left"]), panel.trimmed.floats()[0] - float(panel.shown["right"]))
        if upright
        else (float(panel.shown["top"]), panel.trimmed.floats()[1] - float(panel.shown["bottom"]))
    )
    marks = [(places[at - 1], places[at], read(entry.gap.value))]
    if entry.margin is not None and len(places) > 3:
        marks.append((edges[0], places[0], read(entry.margin.value)))
    for low, high, text in marks:
        if upright:
            (x1, _), (x2, _) = panel.pieced_at(low, 0), panel.pieced_at(high, 0)
            yield Dimension((x1, -margin), (x2, -margin), text, -0.6)
        else:
            right = float(panel.pieced.width.value) + margin
            (_, y1), (_, y2) = panel.pieced_at(0, low), panel.pieced_at(0, high)
            yield Dimension((right, y1), (right, y2), text, 0.6)


def _slanted_gap(plan: Plan, panel: PanelPlan, entry: LineSet) -> Iterator[Item]:
    """The gap of a slanted set, measured square to its lines in the middle of the panel."""
    at = len(entry.offsets) // 2
    group = panel.quilt.sets.index(entry)
    pair = [
        next(
            (line for line in panel.quilt.lines if line.group == group and line.offset == offset),
            None,
        )
        for offset in entry.offsets[at - 1 : at + 1]
    ]
    if pair[0] is None or pair[1] is None:
        return
    (ax, ay), (bx, by) = _on_top(panel, pair[0])
    (cx, cy), (dx, dy) = _on_top(panel, pair[1])
    start = ((ax + bx) / 2, (ay + by) / 2)
    long = hypot(dx - cx, dy - cy) or 1.0
    share = ((start[0] - cx) * (dx - cx) + (start[1] - cy) * (dy - cy)) / long**2
    foot = (cx + share * (dx - cx), cy + share * (dy - cy))
    text = plan.marks.notation.read_off(entry.gap.value)
    yield Dimension(start, foot, text, 0.01, over_cloth=True)


# -- the order of sewing ---------------------------------------------------------------


def _order(panel: PanelPlan) -> Iterator[Item]:
    """A number and a dot where each line begins, and the line's direction by their ends."""
    if panel.sewing is None:
        return
    turns = panel.sewing.order
    for number, turn in enumerate(turns[:MOST_NUMBERS], start=1):
        points = _on_top(panel, panel.quilt.lines[turn.line])
        if panel.quilt.lines[turn.line].bent:
            yield Label(points[0], str(number), chip=True, strong=True)
            continue
        start, end = (points[-1], points[0]) if turn.back else (points[0], points[-1])
        yield from _arrow(start, end)
        yield Label(_beyond(start, end, 0.02), str(number), chip=True, strong=True)


def _beyond(start: Point, end: Point, share: float) -> Point:
    return start[0] - (end[0] - start[0]) * share, start[1] - (end[1] - start[1]) * share


def _arrow(start: Point, end: Point) -> Iterator[Line]:
    """A small head at the far end."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    long = hypot(dx, dy) or 1.0
    ux, uy = dx / long * 0.22, dy / long * 0.22
    left = (end[0] - ux - uy * 0.6, end[1] - uy + ux * 0.6)
    right = (end[0] - ux + uy * 0.6, end[1] - uy - ux * 0.6)
    yield Line((left, end, right), "mark")


# -- what it draws in ------------------------------------------------------------------


def exaggeration(panel: PanelPlan) -> int:
    """How many times the change is drawn so that it can be seen, a round number."""
    draw = panel.draw
    change = max(float(draw.x.expected.value), float(draw.y.expected.value), 1e-4)
    if draw.lean is not None:
        change = max(change, abs(float(draw.lean.expected.value)))
    return max((factor for factor in FACTORS if factor * change <= SEEN), default=1)


def deformed(panel: PanelPlan, factor: float, end: str = "expected") -> tuple[Point, ...]:
    """The pieced top's outline after quilting, about its middle, the change so many times;
    at one ``end`` of the range, least or most, or as expected."""
    width, height = panel.pieced.floats()
    draw = panel.draw
    x, y = (float(getattr(way, end).value) * factor for way in (draw.x, draw.y))
    lean = float(draw.lean.expected.value) * factor if draw.lean is not None else 0.0
    cx, cy = width / 2, height / 2
    corners = []
    for px, py in ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height)):
        dx, dy = px - cx, py - cy
        corners.append((cx + dx * (1 - x) - lean * dy, cy + dy * (1 - y)))
    return tuple(corners)


def drawn_in(panel: PanelPlan) -> Iterator[Item]:
    """The outline it is drawn in to, over the one it is pieced to."""
    if not panel.draw.parts:
        return
    factor = exaggeration(panel)
    outline = deformed(panel, factor)
    yield Shade(outline, "glow")
    for limit in ("least", "most"):
        yield Line(deformed(panel, factor, limit), "fold", closed=True)
    yield Line(outline, "drawn", closed=True)
    width, height = panel.pieced.floats()
    for start, end in zip(
        ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height)), outline, strict=True
    ):
        yield Line((start, end), "drawn")


def offer_picture(panel: PanelPlan, sets: tuple[LineSet, ...]) -> Picture:
    """A small drawing of one way to come out: the trimmed panel and its lines."""
    width, height = panel.trimmed.floats()
    outline = sewn_outline(panel.panel)
    items: list[Item] = [Shade(outline, "batting")]
    for entry in sets:
        found = segments(outline, entry.angle, entry.offsets)
        strokes = tuple((x1, y1, x2, y2) for _, ((x1, y1), (x2, y2)) in found)
        items.append(Net(strokes, "hatch"))
    items.append(Line(outline, "raw", closed=True))
    return Picture(tuple(items), (0.0, 0.0, width, height), (0, 0, 0, 0), ruled=False)
