"""Single things of the edge stage, unrolled: piping, a strap, the zipper, a cord's channel.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from tessil.core.choices import bound_print
from tessil.core.edges.runs import Run
from tessil.core.edges.straps import StrapPlan
from tessil.core.planned import Plan
from tessil.drawing.picture import Cloth, Dimension, Item, Label, Line, Shade, rectangle

Drawn = tuple[list[Item], float, float]
CLIP = 0.5  # inches between clips on a curve; common practice


def piping_unrolled(plan: Plan, panel: str) -> Drawn:
    """The piping of a panel as it is sewn in: its corners clipped, its curves clipped often."""
    piping = plan.edging.piping
    assert piping is not None
    read = plan.marks.notation.read_off
    runs = [run for run in piping.runs if run.panel == panel]
    long = sum(float(run.sewn.value) for run in runs)
    over, high = float(piping.over.value), 0.9
    items: list[Item] = [
        Label(
            (0, -1.1),
            "The piping, unrolled: where its allowance is clipped",
            align="left",
            strong=True,
        ),
        Shade(rectangle(0, 0, long, high), "paper"),
        Shade(rectangle(long, 0, over, high), "glow"),
        Line(rectangle(0, 0, long + over, high), "raw", closed=True),
        Line(((0, high * 0.3), (long + over, high * 0.3)), "quilt"),
        Dimension((0, high), (long + over, high), read(piping.on(panel).value), 0.8),
    ]
    x = 0.0
    for run in runs:
        items += [
            Line(((at, high), (at, high * 0.4)), "mark")
            for at in _clips(run, x if piping.corners else 0.0)
        ]
        x += float(run.sewn.value)
    return items, long + over, high + 2.2


def _clips(run: Run, begins: float) -> list[float]:
    """Along a curve every half inch; else three, close together, at the corner it begins with."""
    long = float(run.sewn.value)
    if run.radius is not None:
        return [begins + CLIP * at for at in range(int(long / CLIP) + 1)]
    return [begins + at for at in (0.0, 0.25, 0.5)] if begins else []


def piping_strip_part(plan: Plan) -> Drawn:
    """The piping's strip round its cord, seen from its end, and a length of it."""
    piping = plan.edging.piping
    assert piping is not None
    read = plan.marks.notation.read_off
    wide, seam = float(piping.strip.value), float(piping.allowance.value)
    cloth = plan.project.print_of(piping.cloth)
    shape = rectangle(0, 0, 12.0, wide)
    items: list[Item] = [
        Label((0, -1.1), "Its strip, flat: the cord lies in the middle", align="left", strong=True),
        Cloth(shape, cloth),
        Line(shape, "raw", closed=True),
        Line(((0, seam), (12.0, seam)), "seam"),
        Line(((0, wide - seam), (12.0, wide - seam)), "seam"),
        Line(((0, wide / 2), (12.0, wide / 2)), "fold"),
        Dimension((12.0, 0), (12.0, wide), read(piping.strip.value), 0.8),
        Dimension((0, 0), (0, seam), read(piping.allowance.value), -0.6),
    ]
    return items, 12.0, wide + 0.6


def strap_part(plan: Plan, strap: StrapPlan) -> Drawn:
    """One strap as it is cut, and as it ends with its stitch boxes."""
    read = plan.marks.notation.read_off
    length, done = float(strap.part.length.value), float(strap.finished.value)
    items, cut = _cut_strap(plan, strap)
    y = cut + 4.8
    items += [
        Shade(rectangle(0, y, length, done), "paper"),
        Line(rectangle(0, y, length, done), "raw", closed=True),
    ]
    back = _box_of(plan, strap)
    for x in (0.0, length - back) if back else ():
        items.append(Line(rectangle(x, y, back, done), "mark", closed=True))
        items.append(Line(((x, y), (x + back, y + done)), "mark"))
        items.append(Line(((x, y + done), (x + back, y)), "mark"))
    items.append(Dimension((length, y), (length, y + done), read(strap.finished.value), 0.7))
    return items, length, y + done


def _cut_strap(plan: Plan, strap: StrapPlan) -> tuple[list[Item], float]:
    """The cloth of a strap as it is cut, with its joins and the lines it is folded along, and how
    high that is; of webbing its length alone."""
    read, strip, part = plan.marks.notation.read_off, strap.strip, strap.part
    if strip is None:
        words = f"{part.label} ×{part.number}, of webbing {read(part.length.value, unit=True)} long"
        return [Label((0, 1.4), words, align="left", strong=True)], -1.4
    length, cut = float(strip.length.value), float(strip.width.value)
    shape = rectangle(0, 0, length, cut)
    number = part.number * strip.plies
    many = f" ×{number}" if number > 1 else ""
    name = "cover, cut" if strap.webbing is not None else "cut"
    items: list[Item] = [
        Label((0, -1.4), f"{part.label}{many}, {name}", align="left", strong=True),
        Cloth(shape, plan.project.print_of(bound_print(plan.project))),
        Line(shape, "raw", closed=True),
    ]
    lean = cut / 2 if strap.takes is strip.width else 0.0
    for at in strap.joins_at:
        items += [Line(((at - lean, cut), (at + lean, 0.0)), "picked"), Label((at, -1.4), "join")]
    if strap.interfacing is not None:
        width, long = (float(figure.value) for figure in strap.interfacing)
        firm = rectangle((length - long) / 2, (cut - width) / 2, long, width)
        items += [Shade(firm, "window"), Line(firm, "thin", closed=True)]
    for down in _folds(strap, cut):
        items.append(Line(((0, down), (length, down)), "fold"))
    items += [
        Dimension((0, cut), (length, cut), read(strip.length.value), 0.7),
        Dimension((length, 0), (length, cut), read(strip.width.value), 0.7),
    ]
    return items, cut


def _folds(strap: StrapPlan, cut: float) -> tuple[float, ...]:
    """The lines along which a strip is folded: twice to its middle, round webbing, or its edges."""
    if strap.strip is not None and strap.strip.plies > 1:
        edge = (cut - float(strap.finished.value)) / 2
        return edge, cut - edge
    return (cut / 4, cut * 3 / 4) if strap.webbing is not None else (cut / 4, cut / 2, cut * 3 / 4)


def _box_of(plan: Plan, strap: StrapPlan) -> float:
    """How long the box of stitches at each end is: over what is turned back, as wide as the strap
    where it is sewn on the face, none where a seam catches it."""
    if strap.turns:
        return float(plan.project.strap.turned_back)
    return float(strap.finished.value) if strap.part.ends == "face" else 0.0


def zipper_part(plan: Plan) -> Drawn:
    zipper, need = plan.edging.zipper, plan.bag.zipper
    assert zipper is not None
    assert need is not None
    read = plan.marks.notation.read_off
    buy, between = float(zipper.buy.value), float(need.between.value)
    left, right = (float(room.value) for room in need.inside) if need.inside else (0.0, 0.0)
    over = max(buy - (between - left - right), 0.0)  # beyond where the teeth show
    # Shared by the ends that run on into their seams; beyond the right where neither does.
    before = over if right and not left else (0.0 if left else over / 2)
    inner = before - left  # where the left seam is, from the end of what is bought
    items: list[Item] = [
        Label((0, -0.6), "The zipper", align="left", strong=True),
        Shade(rectangle(0, 0, buy, 1.2), "off"),
        Shade(rectangle(before, 0, between - left - right, 1.2), "paper"),
        Line(rectangle(0, 0, buy, 1.2), "raw", closed=True),
        Line(((0.2, 0.6), (buy - 0.2, 0.6)), "cord"),
        Line(((0.2, 0.6), (buy - 0.2, 0.6)), "teeth"),
        Line(((inner, -0.3), (inner, 1.5)), "seam"),
        Line(((inner + between, -0.3), (inner + between, 1.5)), "seam"),
        Dimension((0, 1.2), (buy, 1.2), read(zipper.buy.value), 2.0),
        Dimension((inner, 1.2), (inner + between, 1.2), read(need.between.value), 0.7),
    ]
    middle = inner + between / 2
    lies_left = plan.project.zipper.rests == "left"
    closed = inner + left + 0.3 if lies_left else inner + between - right - 0.7
    pulls = (middle - 0.5, middle + 0.1) if zipper.sliders == 2 else (closed,)
    for x in pulls:
        pull = rectangle(x, 0.35, 0.4, 0.5)
        items += [Shade(pull, "shade"), Line(pull, "notch", closed=True)]
    if zipper.tape is not None:
        for x in (inner, inner + between - 0.5):
            tab = rectangle(x, 0, 0.5, 1.2)
            items += [Shade(tab, "binding"), Line(tab, "raw", closed=True)]
    return items, buy, 3.6


def cord_part(plan: Plan) -> Drawn:
    cord = plan.edging.cord
    assert cord is not None
    read = plan.marks.notation.read_off
    channel, thick = float(cord.channel.value), float(cord.thick.value)
    items: list[Item] = [
        Label((0, -0.6), "The channel, and the cord in it", align="left", strong=True),
        Shade(rectangle(0, 0, 16.0, channel), "paper"),
        Line(((0, 0), (16.0, 0)), "quilt"),
        Line(((0, channel), (16.0, channel)), "quilt"),
        Shade(rectangle(-1.5, (channel - thick) / 2, 19.0, thick), "shade"),
        Dimension((17.5, 0), (17.5, channel), read(cord.channel.value), 0.7),
        Label(
            (0, channel + 0.8),
            f"at least {read(cord.least.value)}; each cord {read(cord.each.value)}",
            align="left",
        ),
    ]
    return items, 18.0, channel + 1.4
