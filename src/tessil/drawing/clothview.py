"""Pictures of cloth rather than panels: the binding unrolled, and rows on the stock."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.cutting.cloth import Row
from tessil.core.cutting.cutlist import Purchase, binding_print
from tessil.core.plan import Plan
from tessil.core.project import Print
from tessil.drawing.picture import (
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Picture,
    Sheet,
    rectangle,
)

MOST_ROWS = 60


def edge_picture(plan: Plan) -> Picture:
    """The binding unrolled to scale: each strip, its joins, and where the edge ends."""
    binding = plan.binding
    if binding is None:
        words = Label((10, 2), "No edge of this bag is bound.")
        return Picture((words,), (0, 0, 20, 4), ruled=False)
    cut, usable = float(binding.cut.value), float(plan.project.stock.usable_width)
    cloth = plan.project.print_of(binding_print(plan.project))
    read = plan.marks.notation.read_off
    items: list[Item] = []
    items += _round(plan)
    left, y, step = float(binding.length.value), 5.6, cut + 2.2
    strips = binding.strips.whole
    for at in range(strips):
        used = min(left, usable if at == 0 else usable - cut)
        items += _strip(cloth, y, cut, usable, used + (cut if at else 0), first=at == 0)
        items.append(Label((0, y - 0.45), f"Strip {at + 1}", align="left"))
        text = f"{read(plan.project.stock.usable_width)} usable, cut {read(binding.cut.value)} wide"
        items.append(Label((usable, y - 0.45), text, align="right"))
        left -= used
        y += step
    joins = binding.joins.whole
    note = f"{joins} join{'' if joins == 1 else 's'} on the diagonal. Hatched: over."
    items.append(Label((0, y), note, align="left", strong=True))
    box = (0.0, -1.6, max(usable, float(binding.length.value)), y + 2.4)
    return Picture(tuple(items), box, caption="The binding, unrolled", ruled=False,
                   room=(28, 32, 28, 28))  # fmt: skip


def _round(plan: Plan) -> Iterator[Item]:
    """The edge the binding goes round, unrolled above it, and the ending beyond."""
    binding = plan.binding
    assert binding is not None
    read = plan.marks.notation.read_off
    edge, length = float(binding.edge.value), float(binding.length.value)
    sides = [panel.panel for panel in plan.panels if panel.panel.kind == "outer"]
    words = "The edge, from seam to seam" if plan.bag.loop else "The edge, once round"
    yield Label((0, -1.2), words, align="left", strong=True)
    yield Sheet(rectangle(0, 0, edge, 0.9), "paper")
    yield Sheet(rectangle(edge, 0, length - edge, 0.9), "glow")
    yield Line(rectangle(0, 0, length, 0.9), "raw", closed=True)
    each = edge / len(sides)
    for at, panel in enumerate(sides):
        yield Line(((at * each, 0), (at * each, 0.9)), "seam")
        yield Label(((at + 0.5) * each, 0.45), panel.label)
    yield Label(((edge + length) / 2, 0.45), "ending")
    yield Dimension((0, 0.9), (edge, 0.9), read(binding.edge.value), 0.7)
    yield Dimension((0, 0.9), (length, 0.9), read(binding.length.value), 2.0)


def _strip(
    cloth: Print, y: float, cut: float, usable: float, used: float, first: bool
) -> Iterator[Item]:
    """One strip from the cloth: what the edge takes, and hatched what stays over."""
    start = 0.0 if first else cut
    end = min(used, usable)
    body = ((0.0, y), (end, y), (end, y + cut), (start, y + cut))
    yield Sheet(rectangle(0, y, usable, cut), "off")
    yield Cloth(body, cloth)
    yield Line(body, "raw", closed=True)
    yield Line(rectangle(0, y, usable, cut), "thin", closed=True)
    yield Line(((0, y + cut / 2), (usable, y + cut / 2)), "fold")


def _row(row: Row, y: float, x0: float, print_: Print | None) -> Iterator[Item]:
    x = x0
    for _name, along, high, number in row.pieces:
        for _ in range(number):
            shape = rectangle(x, y, float(along), float(high))
            yield Cloth(shape, print_) if print_ else Sheet(shape, "batting")
            yield Line(shape, "raw", closed=True)
            x += float(along)


def _stock(plan: Plan, bought: Purchase, x0: float, y0: float) -> tuple[list[Item], float]:
    usable, length = float(bought.cloth.usable), float(bought.cloth.buy.value)
    print_ = None if bought.batting else plan.project.print_of(bought.stock)
    read = plan.marks.notation.read_off
    rows = [row for row in bought.cloth.rows for _ in range(min(row.times, MOST_ROWS))][:MOST_ROWS]
    whole = rectangle(x0, y0, usable, length)
    title = f"{bought.name}: {read(bought.cloth.buy.value)} of {read(bought.cloth.usable)} usable"
    items: list[Item] = [
        Label((x0, y0 - 1.3), title, align="left", strong=True),
        Sheet(whole, "off"),
    ]
    y = y0
    for row in rows:
        if y + float(row.high) > y0 + length + 1e-9:
            break
        items += _row(row, y, x0, print_)
        y += float(row.high)
    items.append(Line(whole, "thin", closed=True))
    return items, length


def cut_picture(plan: Plan) -> Picture:
    """Every stock with its pieces in rows, in columns that fill about a bench."""
    columns, gap = 3, 5.0
    heights = [0.0] * columns
    widest = max((float(bought.cloth.usable) for bought in plan.bought), default=20.0)
    items: list[Item] = []
    for bought in sorted(plan.bought, key=lambda b: -b.cloth.buy.value):
        at = heights.index(min(heights))
        made, length = _stock(plan, bought, at * (widest + gap), heights[at] + 3.0)
        items += made
        heights[at] += length + 5.5
    box = (0.0, 0.0, columns * widest + (columns - 1) * gap, max(heights))
    return Picture(tuple(items), box, caption="What to cut from which cloth; hatched is over.",
                   ruled=False, room=(24, 24, 24, 36))  # fmt: skip
