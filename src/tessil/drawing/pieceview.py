"""The piecing stage: a panel's pieces laid flat, or as the finished bag shows them.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.layout.rules import Broken
from tessil.core.layout.touches import Ref
from tessil.core.numbers.polygons import box_of
from tessil.core.panels.panel import EdgeShow, PanelPlan
from tessil.core.piecing.choice import GRIDS
from tessil.core.piecing.top import Patch
from tessil.core.planned import Plan
from tessil.drawing.bands import patch_cloths
from tessil.drawing.handview import in_hand, stand_of
from tessil.drawing.picture import Cloth, Dimension, Item, Label, Line, Net, Picture, Point

MANY = 150  # so many pieces carry no words of their own


def trim_line(panel: PanelPlan) -> Line:
    """Where the panel will be trimmed, on its pieced top."""
    corners = tuple(panel.pieced_at(float(x), float(y)) for x, y in panel.panel.outline)
    return Line(corners, "trim", closed=True)


def frame(plan: Plan, panel: PanelPlan, aside: float = 1.2) -> list[Item]:
    """Overall dimensions of the pieced top, below and to the left."""
    read = plan.marks.notation.read_off
    width, height = panel.pieced.floats()
    return [
        Dimension((0, height), (width, height), read(panel.pieced.width.value), 1.2),
        Dimension((0, 0), (0, height), read(panel.pieced.height.value), -aside),
    ]


def centre(points: tuple[Point, ...]) -> Point:
    """The middle of the corners."""
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


def flat_picture(plan: Plan, panel: PanelPlan, piece: str) -> Picture:
    """The pieced top with every piece in its print, its number, and what is wrong with it."""
    laid = list(patch_cloths(plan, panel))
    width, height = panel.pieced.floats()
    items: list[Item] = [cloth for _, cloth in laid]
    if len(laid) > 1:
        items += _outlines(laid)
    items += _sewn_in(panel)
    items.append(trim_line(panel))
    if len(laid) > 1:
        items += _numbers(panel, laid)
    items += _laid_marks(laid)
    items += _broken(plan, panel, laid)
    taken = next((cloth for _, cloth in laid if cloth.key and cloth.key == piece), None)
    if taken is not None:
        items.append(Line(taken.outline, "picked", closed=True))
    grid = any(part.choice.way in GRIDS for part in panel.parts)
    aside = 2.9 if len(panel.parts) == 1 else 4.8  # room for the names of rows
    items += frame(plan, panel, aside if grid else 1.2)
    items += _edge_dimensions(plan, panel)
    pieces = {cloth.key: cloth.outline for _, cloth in laid if cloth.key}
    words = f"{panel.panel.label}, pieced. The broken line is where it will be trimmed."
    if panel.choices.piecing.way == "crumbs":
        words = f"{panel.panel.label}: one way the scraps may fall; the broken line is the trim."
    return Picture(
        tuple(items),
        (0, 0, width, height),
        pieces=pieces,
        caption=words,
        room=(54 + round(aside * 20) if grid else 84, 26, 64, 78),
    )


def _outlines(laid: list[tuple[Patch, Cloth]]) -> Iterator[Net]:
    """The seams between pieces: every side once."""
    sides: set[tuple[float, float, float, float]] = set()
    for _, cloth in laid:
        shape = cloth.outline
        for (x1, y1), (x2, y2) in zip(shape, (*shape[1:], shape[0]), strict=True):
            sides.add((x1, y1, x2, y2) if (x1, y1) <= (x2, y2) else (x2, y2, x1, y1))
    yield Net(tuple(sorted(sides)), "piece")


def seam_lines(panel: PanelPlan) -> Iterator[Line]:
    """The bag's own seam lines on the trimmed panel, edge by edge."""
    edges = panel.panel.edges
    for edge in edges:
        if not edge.allowance.value:
            continue
        (x1, y1), (x2, y2) = ((float(x), float(y)) for x, y in (edge.start, edge.end))
        length = ((x2 - x1) ** 2 + (y2 - y1) ** 2) ** 0.5
        inset = float(edge.allowance.value) / length
        dx, dy = -(y2 - y1) * inset, (x2 - x1) * inset
        yield Line(((x1 + dx, y1 + dy), (x2 + dx, y2 + dy)), "seam")


def _sewn_in(panel: PanelPlan) -> Iterator[Line]:
    """The bag's own seams on the pieced top: what lies beyond them will not be seen."""
    for line in seam_lines(panel):
        yield Line(tuple(panel.pieced_at(x, y) for x, y in line.points), "seam")


def _numbers(panel: PanelPlan, laid: list[tuple[Patch, Cloth]]) -> Iterator[Label]:
    """Numbers on strips and scraps; row numbers beside a grid."""
    rows: dict[tuple[int, int], float] = {}
    for patch, cloth in laid:
        way = panel.parts[patch.zone].choice.way
        if way in GRIDS:
            if patch.row:
                rows.setdefault((patch.zone, patch.row), centre(cloth.outline)[1])
        elif patch.name and len(laid) <= MANY and _roomy(cloth.outline):
            yield Label(centre(cloth.outline), patch.name, chip=True)
    if len(rows) <= 40:
        for (zone, row), y in rows.items():
            yield Label((-0.12, y), row_words(panel, zone, row), align="right")


def row_words(panel: PanelPlan, zone: int, row: int) -> str:
    """The name of a row of a grid; with its part, where there are several."""
    return f"part {zone + 1}, row {row}" if len(panel.parts) > 1 else f"row {row}"


def _roomy(outline: tuple[Point, ...]) -> bool:
    """Whether a word fits on a piece, at the size at which panels are usually seen."""
    x1, y1, x2, y2 = box_of(outline)
    return min(x2 - x1, y2 - y1) > 0.8


def _laid_marks(laid: list[tuple[Patch, Cloth]]) -> Iterator[Item]:
    """An arrow on pieces laid upside-down, a pin in those that are to stay."""
    for patch, cloth in laid:
        if patch.piece < 0 or not (patch.turned or patch.locked):
            continue
        x, y = centre(cloth.outline)
        high = max(py for _, py in cloth.outline) - min(py for _, py in cloth.outline)
        reach = min(high, 2.0) * 0.3
        if patch.turned:
            aside = reach * 1.4 if patch.name and not patch.in_grid else 0.0
            yield from _arrow((x + aside, y - reach), (x + aside, y + reach), reach * 0.45)
        if patch.locked:
            left = x - reach * 0.9
            yield Line(((left - reach * 0.5, y + reach), (left + reach * 0.5, y)), "pin")
            yield Line(((left + reach * 0.5, y), (left + reach * 0.62, y - reach * 0.12)), "head")


def _arrow(start: Point, end: Point, head: float) -> Iterator[Line]:
    (x, _), (_, y) = start, end
    yield Line((start, end), "mark")
    yield Line(((x - head, y - head), (x, y), (x + head, y - head)), "mark")


def _broken(plan: Plan, panel: PanelPlan, laid: list[tuple[Patch, Cloth]]) -> Iterator[Line]:
    """A stroke between two pieces that break a rule, or round one whose fellow is elsewhere."""
    shapes = {(patch.zone, patch.piece): cloth.outline for patch, cloth in laid}
    drawn = 0
    for broken in plan.broken if len(laid) > 1 else ():
        mine = [shapes[ref.zone, ref.piece] for ref in broken.pieces if _here(ref, panel, shapes)]
        if not mine or drawn > MANY:
            continue
        drawn += 1
        yield from _broken_strokes(broken, mine)


def _here(ref: Ref, panel: PanelPlan, shapes: dict[tuple[int, int], tuple[Point, ...]]) -> bool:
    return ref.panel == panel.key and (ref.zone, ref.piece) in shapes


def _broken_strokes(broken: Broken, mine: list[tuple[Point, ...]]) -> Iterator[Line]:
    if len(mine) == 2 and broken.rule in ("side", "corner", "order"):
        (ax, ay), (bx, by) = centre(mine[0]), centre(mine[1])
        yield Line(
            (
                (ax * 0.62 + bx * 0.38, ay * 0.62 + by * 0.38),
                (ax * 0.38 + bx * 0.62, ay * 0.38 + by * 0.62),
            ),
            "clash",
        )
        return
    for outline in mine:
        (x, y), share = centre(outline), 0.72
        inner = tuple((x + (px - x) * share, y + (py - y) * share) for px, py in outline)
        yield Line(inner, "warn", closed=True)


def _edge_dimensions(plan: Plan, panel: PanelPlan) -> Iterator[Dimension]:
    """What the outermost pieces will show, from the bag's seam to their inner seam."""
    for edge in panel.edges_show:
        if edge.shows.value <= 0:
            continue
        yield _edge_dimension(plan, panel, edge)


def _edge_dimension(plan: Plan, panel: PanelPlan, edge: EdgeShow) -> Dimension:
    width, height = panel.trimmed.floats()
    deep, inset = float(edge.shows.value), float(panel.shown[edge.side])
    x, y = width * 0.36, height * 0.62
    start, end = {
        "top": ((x, inset), (x, inset + deep)),
        "bottom": ((x, height - inset - deep), (x, height - inset)),
        "left": ((inset, y), (inset + deep, y)),
        "right": ((width - inset - deep, y), (width - inset, y)),
    }[edge.side]
    words = plan.marks.notation.read_off(edge.shows.value)
    lane = 0.01 if edge.side != "right" else -0.01
    return Dimension(panel.pieced_at(*start), panel.pieced_at(*end), words, lane, over_cloth=True)


def worn_picture(plan: Plan, side: str, panel: PanelPlan, piece: str) -> Picture:
    """The pieces where they lie in the finished bag; each can be taken in hand there too."""
    hand = in_hand(plan, stand_of(plan, side), things=False, named=True)
    pieces = dict(hand.pieces)
    items: list[Item] = [*hand.items]
    items += [Line(outline, "piece", closed=True) for outline in pieces.values()]
    if piece in pieces:
        items.append(Line(pieces[piece], "picked", closed=True))
    return Picture(
        tuple(items),
        hand.box,
        (76, 20, 48, 70),
        ruled=False,
        caption=f"As worn: the {side}. Arrows are only in the flat view.",
        pieces=pieces,
    )
