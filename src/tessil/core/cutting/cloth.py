"""How much cloth to buy: pieces laid in rows across the usable width.

Rotary cuts run edge to edge, so a row is a strip across the cloth, as high as its highest
piece.  First fit in falling height: what a maker does, with the bare area as lower bound.
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.bag.ids import CutId
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rows import Row, lay_out
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Basis, Figure, count, given, total, up_to


class ClothPlan(Record, frozen=True):
    """The rows for one cloth and what to buy; ``too_long`` names pieces that fit no way."""

    rows: tuple[Row[CutId], ...]
    usable: Inches
    buy: Figure
    bare: Inches  # length that the area alone would take
    too_long: tuple[CutId, ...]


def plan_cloth(
    pieces: Sequence[tuple[CutId, Inches, Inches, int]],
    usable: Inches,
    straightening: Inches,
    marks: Rulers,
    upright: frozenset[CutId] = frozenset(),
) -> ClothPlan:
    """Rows and the length to buy, up to ⅛ yard or 10 cm, with straightening of the end; what must
    stay ``upright`` keeps its width across the cloth."""
    rows, too_long = lay_out(pieces, usable, upright)
    area = sum((p[1] * p[2] * p[3] for p in pieces), start=straightening * 0)
    if not rows:
        nothing = given("nothing to buy", 0, Basis.GEOMETRY).called("to buy")
        return ClothPlan(rows, usable, nothing, area / usable, too_long)
    terms = [given("straightening the end", straightening)]
    heights: dict[Inches, int] = {}
    for row in rows:
        heights[row.high] = heights.get(row.high, 0) + row.times
    for high, times in heights.items():
        each = given("row", high, Basis.GEOMETRY)
        terms.append(count("rows", times, Basis.GEOMETRY) * each if times > 1 else each)
    buy = up_to(total(terms), marks.yardage).called("to buy")
    return ClothPlan(rows, usable, buy, area / usable, too_long)
