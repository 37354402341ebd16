"""Pictures of cloth rather than panels: the binding unrolled, and rows on the stock."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.ids import CutId
from tessil.core.catalogue.prints import Print
from tessil.core.cutting.acts.shopping import sold
from tessil.core.cutting.cutlist import Purchase
from tessil.core.numbers.rows import Row
from tessil.core.planned import Plan
from tessil.drawing.picture import Cloth, Item, Label, Line, Picture, Shade, rectangle

MOST_ROWS = 60


HEAD = 12.0  # inches above each stock, for its name and amount


def _row(row: Row[CutId], y: float, x0: float, print_: Print | None) -> Iterator[Item]:
    x = x0
    for _name, along, high, number in row.pieces:
        for _ in range(number):
            shape = rectangle(x, y, float(along), float(high))
            yield Cloth(shape, print_) if print_ else Shade(shape, "batting")
            yield Line(shape, "raw", closed=True)
            x += float(along)


def _stock(plan: Plan, bought: Purchase, x0: float, y0: float) -> tuple[list[Item], float]:
    usable, length = float(bought.cloth.usable), float(bought.cloth.buy.value)
    print_ = None if bought.batting else plan.project.print_of(bought.stock)
    notation = plan.marks.notation
    rows = [row for row in bought.cloth.rows for _ in range(min(row.times, MOST_ROWS))][:MOST_ROWS]
    whole = rectangle(x0, y0, usable, length)
    wide = notation.read_off(bought.cloth.usable, unit=True)
    amount = f"{sold(bought.cloth.buy.value, notation)} of {wide}"
    items: list[Item] = [
        Label((x0, y0 - 8.8), bought.name, align="left", strong=True),
        Label((x0, y0 - 2.8), amount, align="left"),
        Shade(whole, "off"),
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
    columns, gap = 3, 16.0
    heights = [0.0] * columns
    widest = max((float(bought.cloth.usable) for bought in plan.bought), default=20.0)
    items: list[Item] = []
    for bought in sorted(plan.bought, key=lambda b: -b.cloth.buy.value):
        at = heights.index(min(heights))
        made, length = _stock(plan, bought, at * (widest + gap), heights[at] + HEAD)
        items += made
        heights[at] += length + HEAD + 3.0
    box = (0.0, 0.0, columns * widest + (columns - 1) * gap, max(heights))
    caption = "What to buy of which cloth, and how wide it is; hatched is over."
    return Picture(tuple(items), box, caption=caption, ruled=False, room=(24, 24, 24, 36))
