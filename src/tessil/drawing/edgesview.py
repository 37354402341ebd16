"""The edge stage: edges round a panel, binding unrolled, bias on its cloth, straps, zipper, cord.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import sqrt

from tessil.core.catalogue.prints import Print
from tessil.core.choices import bound_print
from tessil.core.edges.bias import Joined, join_cost
from tessil.core.edges.binding import EdgeStrip
from tessil.core.edges.crosscut import SEAM, BiasCut
from tessil.core.edges.runs import Run, bound_edge
from tessil.core.edges.tube import TubePlan
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import box_of, shifted
from tessil.core.numbers.workings import Basis, given
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.shapes.edged import CORNER, TURNED_UNDER
from tessil.core.words.written import value_text
from tessil.drawing.bands import trimmed_bands
from tessil.drawing.edgeparts import (
    cord_part,
    piping_strip_part,
    piping_unrolled,
    strap_part,
    zipper_part,
)
from tessil.drawing.picture import Cloth, Dimension, Item, Label, Line, Picture, Shade, rectangle

ROOM = (64, 32, 64, 40)


def edges_picture(plan: Plan, panel: PanelPlan, leaf: str) -> Picture:
    """What a leaf of the edge stage is about."""
    return _LEAVES.get(leaf, _binding_picture)(plan, panel)


def _stacked(parts: list[tuple[list[Item], float, float]], caption: str) -> Picture:
    """Drawings one below another, each given with its width and height, its items from 0, 0."""
    items: list[Item] = []
    y, wide = 0.0, 1.0
    for drawn, width, height in parts:
        items += [_lowered(item, y) for item in drawn]
        y += height + GAP
        wide = max(wide, width)
    return Picture(
        tuple(items), (0.0, -1.0, wide, max(y - GAP, 1.0) + 2.0), ROOM, caption=caption, ruled=False
    )


GAP = 3.0


def _lowered(item: Item, by: float) -> Item:
    if isinstance(item, Cloth):
        return Cloth(shifted(item.outline, 0, by), item.print, item.key, item.turned)
    if isinstance(item, Shade):
        return Shade(shifted(item.outline, 0, by), item.tone, item.key)
    if isinstance(item, Line):
        return Line(shifted(item.points, 0, by), item.stroke, item.closed, item.key)
    if isinstance(item, Dimension):
        return Dimension(
            (item.start[0], item.start[1] + by),
            (item.end[0], item.end[1] + by),
            item.text,
            item.lane,
            item.picked,
            item.over_cloth,
        )
    if isinstance(item, Label):
        return Label((item.at[0], item.at[1] + by), item.text, item.align, item.strong, item.chip)
    return item


# -- the panel with its edges ------------------------------------------------------------


def panel_edges(plan: Plan, panel: PanelPlan, heavy: Callable[[Run], bool]) -> list[Item]:
    """The trimmed panel, every side and curve with its length and what becomes of it."""
    read = plan.marks.notation.read_off
    items: list[Item] = list(trimmed_bands(plan, panel))
    middle = tuple(side / 2 for side in panel.trimmed.floats())
    runs = plan.edging.runs_on(panel.key)
    items += [Line(run.points, "picked" if heavy(run) else "notch") for run in runs]
    for run in runs:
        if run.cut.value < 1 or run.edge.lies == "level":
            continue  # a level side of a box corner is as long as the other bag side asks
        long = read((run.cut if run.finish == "bound" else run.sewn).value)
        notch = run.edge.notch
        words = f"box {long}" if notch else f"{long} {run.becomes}"
        if run.radius is not None and _middle(run)[0] > middle[0]:
            words = f"{long}, radius {read(run.radius.value)}"
        elif run.radius is not None:
            words = long  # its fellow on the right says the radius
        items.append(_beside(run, words, middle, out=notch or run.radius is not None))
    return items


def _beside(run: Run, words: str, middle: tuple[float, ...], out: bool) -> Label:
    """A run's words: on the cloth, or out beside it where the cloth is narrow."""
    x, y = _middle(run)
    if not out:
        return Label((x + (middle[0] - x) * 0.12, y + (middle[1] - y) * 0.08), words, chip=True)
    right = x > middle[0]
    return Label((x + (0.7 if right else -0.7), y), words, align="left" if right else "right")


def _middle(run: Run) -> tuple[float, float]:
    """A place on a run to write at."""
    if len(run.points) > 2:
        return run.points[len(run.points) // 2]
    (x1, y1), (x2, y2) = run.points
    return (x1 + x2) / 2, (y1 + y2) / 2


def _panel_part(
    plan: Plan, panel: PanelPlan, heavy: Callable[[Run], bool]
) -> tuple[list[Item], float, float]:
    width, height = panel.trimmed.floats()
    words = f"The {panel.panel.label.lower()}: bound edges on the cut edge, others on the seam line"
    head = Label((0.0, -1.1), words, align="left", strong=True)
    return [head, *panel_edges(plan, panel, heavy)], width, height


def _binding_picture(plan: Plan, panel: PanelPlan) -> Picture:
    parts = [_panel_part(plan, panel, lambda run: run.finish == "bound")]
    caption = f"{panel.panel.label}: its edges. No edge of this bag is bound."
    if plan.edge_strips:
        parts.append(own_strips(plan))
        caption = f"{panel.panel.label}: its edges, and the strips of those bound by themselves."
    if plan.binding is not None:
        parts.append(_unrolled(plan))
        if plan.project.binding.grain == "straight":
            parts.append(_strips(plan))
        caption = "The edges, the bound one unrolled, and its strips. Hatched: over."
    return _stacked(parts, caption)


def own_strips(plan: Plan) -> tuple[list[Item], float, float]:
    """Every edge with a strip or a tape of its own: how long each is, how wide it is cut."""
    read, y, wide = plan.marks.notation.read_off, 0.0, 1.0
    items: list[Item] = [Label((0, -1.1), "Strips of their own", align="left", strong=True)]
    for strip in plan.edge_strips:
        long = float(strip.edge.length.value)
        high = float(strip.cut.value) if strip.cut is not None else 0.75
        shape = rectangle(0, y, long, high)
        items += [Shade(shape, "paper"), Line(shape, "raw", closed=True)]
        items += _corner_lines(strip, y, high)
        many = strip.edge.number.whole
        name = strip.edge.label + (", tape" if strip.tape else "")
        words = f"{many} × {name}" if many > 1 else name
        items.append(Label((long / 2, y + high / 2), words, chip=True))
        items.append(Dimension((0, y + high), (long, y + high), read(strip.edge.length.value), 0.6))
        if strip.cut is not None:
            items.append(Dimension((long, y), (long, y + high), read(strip.cut.value), 0.6))
        y, wide = y + high + 2.0, max(wide, long)
    return items, wide, y


def _corner_lines(strip: EdgeStrip, y: float, high: float) -> Iterator[Item]:
    """Where a strip is mitred: half of what is turned under, then part by part."""
    x = float(TURNED_UNDER.value) / 2
    for part in strip.edge.parts[:-1]:
        x += float(part) + float(CORNER.value) / 2
        yield Line(((x, y - 0.2), (x, y + high + 0.2)), "seam")
        x += float(CORNER.value) / 2


def paper_pictures(plan: Plan) -> list[Picture]:
    """What the sheet shows: everything but the panels, whose edges have a page of their own."""
    panel = plan.panel(plan.shape.leader)
    edging, made = plan.edging, []
    if plan.binding is not None:
        parts = [_unrolled(plan)]
        if plan.project.binding.grain == "straight":
            parts.append(_strips(plan))
        made.append(_stacked(parts, "The bound edge unrolled, and its strips. Hatched: over."))
    if plan.edge_strips:
        made.append(_stacked([own_strips(plan)], "Edges that are bound by themselves."))
    if edging.bias:
        made.append(_bias_picture(plan, panel))
    if edging.straps:
        made.append(_straps_picture(plan, panel))
    if edging.zipper is not None or edging.cord is not None:
        made.append(_closing_picture(plan, panel))
    return made


def _unrolled(plan: Plan) -> tuple[list[Item], float, float]:
    """The bound edge unrolled: its corners, where to begin, where joins fall, the ending."""
    binding = plan.binding
    assert binding is not None
    read = plan.marks.notation.read_off
    edge, length = float(binding.edge.value), float(binding.length.value)
    items: list[Item] = [
        Label((0, -1.1), "The edge, unrolled", align="left", strong=True),
        Shade(rectangle(0, 0, edge, 0.9), "paper"),
        Shade(rectangle(edge, 0, length - edge, 0.9), "glow"),
        Line(rectangle(0, 0, length, 0.9), "raw", closed=True),
        Label(((edge + length) / 2, 0.45), "ending"),
        Dimension((0, 0.9), (edge, 0.9), read(binding.edge.value), 0.7),
        Dimension((0, 0.9), (length, 0.9), read(binding.length.value), 2.0),
    ]
    corners = bound_corners(plan)
    for at in corners:
        items.append(Line(((at, -0.25), (at, 1.15)), "seam"))
    begin = plan.edging.begin
    for at in begin.joins if begin is not None else ():
        items.append(Line(((at - 0.45, 0.9), (at + 0.45, 0.0)), "mark"))
        items.append(Label((at, -0.35), "join"))
    at = begin.at if begin is not None else 0.0
    items.append(Line(((at, -0.1), (at, 1.0)), "picked"))
    items.append(Label((at, 0.45), "begin", chip=True))
    return items, length, 4.4


def bound_corners(plan: Plan) -> tuple[float, ...]:
    """Corners along the bound edge, that joins keep clear of."""
    return bound_edge(plan.bag)[1]


def _strips(plan: Plan) -> tuple[list[Item], float, float]:
    """Each strip from the cloth, and hatched what stays over."""
    binding = plan.binding
    assert binding is not None
    cut, usable = float(binding.cut.value), float(plan.project.stock.usable_width)
    cloth = plan.project.print_of(bound_print(plan.project))
    read = plan.marks.notation.read_off
    items: list[Item] = []
    left, y = float(binding.length.value), 0.4
    for at in range(binding.strips.whole):
        used = min(left, usable if at == 0 else usable - cut)
        items += _strip(cloth, y, cut, usable, used + (cut if at else 0), first=at == 0)
        items.append(Label((0, y - 0.45), f"Strip {at + 1}", align="left"))
        text = f"{read(plan.project.stock.usable_width)} usable, cut {read(binding.cut.value)} wide"
        items.append(Label((usable, y - 0.45), text, align="right"))
        left -= used
        y += cut + 1.5
    return items, usable, y


def _strip(
    cloth: Print, y: float, cut: float, usable: float, used: float, first: bool
) -> Iterator[Item]:
    start = 0.0 if first else cut
    end = min(used, usable)
    body = ((0.0, y), (end, y), (end, y + cut), (start, y + cut))
    yield Shade(rectangle(0, y, usable, cut), "off")
    yield Cloth(body, cloth)
    yield Line(body, "raw", closed=True)
    yield Line(rectangle(0, y, usable, cut), "thin", closed=True)
    yield Line(((0, y + cut / 2), (usable, y + cut / 2)), "fold")


# -- bias -----------------------------------------------------------------------------------


def _bias_picture(plan: Plan, panel: PanelPlan) -> Picture:
    """Every piece of cloth with its strips, numbered as they are joined; below, them joined."""
    if not plan.edging.bias:
        words = Label(
            (10, 1),
            "No edge of this bag asks for bias: choose it for the binding, or put piping in.",
        )
        return Picture((words,), (0, 0, 20, 3), ruled=False, caption="Nothing to cut on the bias.")
    parts = []
    for cut in plan.edging.bias:
        if cut.tube is not None:
            parts.append(_tube_part(plan, cut, cut.tube))
            continue
        parts.append(bias_map(plan, cut))
        parts.append(_joined_part(plan, cut))
    caption = "Strips on their cloth, numbered as they are joined; pale: over."
    if all(cut.tube is not None for cut in plan.edging.bias):
        caption = "The tube before its last seam: the numbers say which lines meet."
    return _stacked(parts, caption)


def bias_map(plan: Plan, cut: BiasCut) -> tuple[list[Item], float, float]:
    """The pieces side by side, their strips where they are cut."""
    cloth = plan.project.print_of(cut.cloth)
    order = {
        (used.strip.scrap, used.strip.number): at
        for at, used in enumerate(cut.plan.joined.used, start=1)
    }
    items: list[Item] = [
        Label((0.0, -1.1), f"Bias for the {cut.what} of one bag", align="left", strong=True)
    ]
    x, high, wide, top = 0.0, 0.0, 0.0, 0.0
    for at, outline in enumerate(cut.outlines):
        x1, y1, x2, y2 = box_of(outline)
        if x and x + x2 - x1 > MOST_WIDE:
            top, x, high = top + high + 2.0, 0.0, 0.0
        placed = shifted(outline, x - x1, top - y1)
        items += [Cloth(placed, cloth), Shade(placed, "window")]
        for strip in cut.plan.strips:
            if strip.scrap != at:
                continue
            shape = shifted(strip.outline, x - x1, top - y1)
            number = order.get((strip.scrap, strip.number))
            items.append(Line(shape, "notch" if number else "thin", closed=True))
            if number:
                items.insert(-1, Cloth(shape, cloth))
                cx = sum(px for px, _ in shape) / 4
                cy = sum(py for _, py in shape) / 4
                items.append(Label((cx, cy), str(number), strong=True, chip=True))
        items.append(Line(placed, "raw", closed=True))
        if len(cut.outlines) > 1:
            items.append(Label((x, top + y2 - y1 + 0.9), f"piece {at + 1}", align="left"))
        x += x2 - x1 + 2.0
        high = max(high, y2 - y1)
        wide = max(wide, x - 2.0)
    return items, wide, top + high


MOST_WIDE = 56.0
MOST_NUMBERED = 30


def _tube_part(plan: Plan, cut: BiasCut, tube: TubePlan) -> tuple[list[Item], float, float]:
    """A square cut on its diagonal and sewn to a slanted piece, its lines drawn: sewn to a tube
    with every line on the next one, it is cut round and round."""
    read = plan.marks.notation.read_off
    s, width = float(tube.side.value), float(cut.width.value)
    long, high = s * sqrt(2), s / sqrt(2)
    shape = ((0.0, high), (long, high), (long + high, 0.0), (high, 0.0))
    head = f"Bias for the {cut.what}: a square of {read(tube.side.value)}, cut on its diagonal "
    head += "and sewn, right sides together, to this"
    items: list[Item] = [
        Label((0.0, -1.0), head, align="left", strong=True),
        Cloth(shape, plan.project.print_of(cut.cloth)),
        Shade(shape, "window"),
        Line(shape, "raw", closed=True),
    ]
    rows = tube.lines.whole
    for at in range(1, rows + 1):
        y = high - at * width
        x = high - y
        if y > 0.05:
            items.append(Line(((x, y), (x + long, y)), "mark"))
        if at <= MOST_NUMBERED:
            items.append(Label((x - width / 2 - 0.6, y + width / 2), str(at), align="right"))
        if at > 1 and at - 1 <= MOST_NUMBERED:
            items.append(
                Label((x + long - width / 2 + 0.6, y + width / 2), str(at - 1), align="left")
            )
    words = f"Lines {read(cut.width.value)} apart. Sew its slanted ends together, 1 to 1."
    items.append(Label((0.0, high + 1.2), words, align="left"))
    return items, long + high, high + 1.6


def _joined_part(plan: Plan, cut: BiasCut) -> tuple[list[Item], float, float]:
    """The strips joined in their order, in rows as long as the bench is wide."""
    joined: Joined = cut.plan.joined
    read = plan.marks.notation.read_off
    width = float(cut.width.value)
    cost = join_cost(float(SEAM))
    items: list[Item] = []
    x, y = 0.0, 0.0
    for at, used in enumerate(joined.used):
        long = used.length - (cost if at else 0.0)
        if x and x + long > MOST_WIDE:
            x, y = 0.0, y + width + 1.6
        lean = width / 2
        body = (
            (x - lean, y),
            (x + long - lean, y),
            (x + long + lean, y + width),
            (x + lean, y + width),
        )
        items += [Shade(body, "paper"), Line(body, "raw", closed=True)]
        turned = " turned" if used.turned else ""
        items.append(Label((x + long / 2, y + width / 2), f"{at + 1}{turned}"))
        x += long
    words = f"{joined.joins} join{'' if joined.joins == 1 else 's'}; they reach "
    words += f"{read(cut.reaches.value)}, {read(cut.need.value)} are needed"
    if cut.other is not None:
        over = given("over", Fraction(round(max(cut.other.waste, 0.0))), Basis.GEOMETRY, 2)
        words += f"; the other way: {cut.other.joined.joins} joins, "
        words += f"{value_text(over, plan.marks.notation)} over"
    items.append(Label((0.0, y + width + 1.1), words, align="left"))
    return items, min(float(cut.reaches.value), MOST_WIDE), y + width + 2.4


# -- piping, straps, closing ------------------------------------------------------------------


def _piping_picture(plan: Plan, panel: PanelPlan) -> Picture:
    piping = plan.edging.piping
    piped = piping.panels if piping is not None else ()

    def heavy(run: Run) -> bool:
        return piping is not None and run in piping.runs

    parts = [_panel_part(plan, panel, heavy)]
    caption = f"{panel.panel.label}: no piping goes into its seams."
    if piping is not None:
        caption = "Red: where piping goes in. Clip its allowance at corners and round curves."
        if panel.key in piped:
            parts.append(piping_unrolled(plan, panel.key))
        parts.append(piping_strip_part(plan))
    return _stacked(parts, caption)


def _straps_picture(plan: Plan, panel: PanelPlan) -> Picture:
    if not plan.edging.straps:
        words = Label((10, 1), "This bag has no strap and no handle.")
        return Picture((words,), (0, 0, 20, 3), ruled=False, caption="Nothing to carry it by.")
    parts = [strap_part(plan, strap) for strap in plan.edging.straps]
    return _stacked(parts, "Straps unrolled. Broken: folds; pale: interfacing; boxes: stitching.")


def _closing_picture(plan: Plan, panel: PanelPlan) -> Picture:
    parts = []
    if plan.edging.zipper is not None:
        parts.append(zipper_part(plan))
    if plan.edging.cord is not None:
        parts.append(cord_part(plan))
    if not parts:
        words = Label((10, 1), "This bag closes without zipper or cord.")
        return Picture((words,), (0, 0, 20, 3), ruled=False, caption="Nothing to close it with.")
    caption = "The cord leaves the channel where its side is open."
    if plan.edging.zipper is not None:
        caption = "Hatched: cut off, once the pull is inside."
    return _stacked(parts, caption)


_LEAVES: dict[str, Callable[[Plan, PanelPlan], Picture]] = {
    "binding": _binding_picture,
    "bias": _bias_picture,
    "piping": _piping_picture,
    "straps": _straps_picture,
    "closing": _closing_picture,
}
