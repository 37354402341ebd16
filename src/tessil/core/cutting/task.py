"""What the cut list reads beside the planned panels and edges."""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.brief.choice import Base
from tessil.core.catalogue import Material
from tessil.core.catalogue.prints import Print
from tessil.core.cutting.choice import Stock
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Figure
from tessil.core.sandwich.choice import Offcut
from tessil.core.trimming.choice import Mark


class CutTask(Record, frozen=True):
    """How many bags, from what.

    ``cloth`` is the binding's, ``pocket_cloth`` the lining's; ``straight`` whether binding is cut
    on the straight grain.
    """

    bags: int
    stock: Stock
    prints: tuple[Print, ...]
    materials: Mapping[str, Material]
    offcuts: tuple[Offcut, ...]
    marks: tuple[Mark, ...]
    snaps: tuple[str, ...]  # the panels on which the parts of a snap are set
    cloth: str
    pocket_cloth: str
    side_seam: Inches
    corner_seam: Inches
    base: Base
    floor: tuple[Figure, Figure] | None
    bottom_seam: bool
    straight: bool
    strips_in_hand: bool  # that are cut already, for one bag
    straight_joins: bool  # of straps
    rulers: Rulers

    def name_of(self, stock: str) -> str:
        """What a print is called."""
        return next((entry.name for entry in self.prints if entry.key == stock), stock)
