"""Pieces of a print whose picture is placed: each cut by a window with the picture in its middle.

Nobody knows where the repeats of a cloth begin, so a piece is cut roughly first, a repeat larger
each way: wherever the cloth begins, the piece lies in it once.  Pieces side by side lie whole
repeats apart and share that room.  Geometry.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, floor

from msgspec.structs import replace

from tessil.core.bag.ids import CutKind, CutNote
from tessil.core.catalogue.prints import Print
from tessil.core.cutting.item import SCRAP, CutItem, Windows
from tessil.core.cutting.task import CutTask
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, count, given

# Sewn or folded from strips first: no picture is placed on those.
NEVER: tuple[CutKind, ...] = (
    "binding strip",
    "strip to fold",
    "strip for a set",
    "cloth to cut on the cross",
    SCRAP,
)


def placed_items(items: list[CutItem], task: CutTask) -> list[CutItem]:
    """The list with pieces of placed prints as rough rows to cut them from."""
    placed = {one.key: one for one in task.prints if one.placed}
    made: list[CutItem] = []
    for item in items:
        cloth = None if item.material or item.in_hand else placed.get(item.stock)
        if cloth is None or item.what in NEVER or not item.number.value:
            made.append(item)
        else:
            made += _rows(item, cloth, task.stock.usable_width)
    return made


def _rows(item: CutItem, cloth: Print, usable: Inches) -> Iterator[CutItem]:
    """As many pieces to a row as the cloth is wide, the rest in a shorter one."""
    across, along = cloth.tile
    apart = ceil(item.width.value / across) * across
    most = max(1 + floor((usable - item.width.value - across) / apart), 1)
    whole, rest = divmod(item.number.whole, most)
    for number, many in ((whole, most), (1 if rest else 0, rest)):
        if number:
            wide = item.width + given("repeat", across)
            if many > 1:
                wide = wide + count("more", many - 1, Basis.GEOMETRY) * given(
                    "repeats from one to the next", apart, Basis.GEOMETRY
                )
            yield replace(
                item,
                number=count("rows", number, Basis.GEOMETRY).called("pieces"),
                width=wide.called("rough, width"),
                height=_higher(item.height, along),
                notes=(*item.notes, CutNote("window", many)),
                windows=Windows(item.width, item.height, many),
            )


def _higher(height: Figure, along: Inches) -> Figure:
    return (height + given("repeat", along)).called("rough, height")
