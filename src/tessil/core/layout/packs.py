"""How many bags a pack of squares makes, what is left, and what that is good for.

Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, floored, given, total
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.choice import GRIDS, Pack

TABS, POCKET = 2, 4


class Packed(Record, frozen=True):
    """One pack against one bag."""

    needs: Figure
    bags: Figure
    left: Figure
    use: str
    pocket: Figure | None  # width of a row that the left-over squares make


def packed(panels: Sequence[PanelPlan], pack: Pack, seam: Figure) -> Packed | None:
    """What a pack makes of the squares in a bag; None for a bag without squares."""
    needs, cut = [], None
    for panel in panels:
        for part in panel.parts:
            if part.choice.way in GRIDS:
                each = part.top.pieces
                copies = count("panels", panel.panel.copies, Basis.GEOMETRY)
                needs.append(each * copies if panel.panel.copies > 1 else each)
                cut = cut or part.top.piece_size[0]
    if not needs or cut is None:
        return None
    one_bag = total(needs).called("squares for a bag")
    have = count("squares in a pack", pack.pieces)
    bags = floored(have / one_bag).called("bags from a pack")
    left = (have - bags * one_bag).called("squares left of a pack")
    row = None
    if left.whole >= POCKET:
        side = given("square, cut", cut.value)
        row = (left * (side - 2 * seam) + 2 * seam).called("a row of them, for a pocket")
    return Packed(one_bag, bags, left, _use(left.whole), row)


def _use(left: int) -> str:
    if left >= POCKET:
        return "Joined in rows they make a slip pocket, or a tab at each side"
    if left >= TABS:
        return "Enough for two tabs, folded to the middle twice"
    if left == 1:
        return "One tab, or the square to test tension on"
    return "Nothing is left over"
