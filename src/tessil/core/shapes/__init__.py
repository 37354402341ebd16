"""Bag shapes, one module each; this registry is the only place that lists them."""

from __future__ import annotations

from functools import cache

from tessil.core.shapes.base import BASE, Brief, HeldFigures, Option, SeamFigures, Shape, SizeField
from tessil.core.shapes.based import based
from tessil.core.shapes.bound_pouch import BOUND_POUCH
from tessil.core.shapes.boxed_zip import BOXED_ZIP
from tessil.core.shapes.carrying import carrying
from tessil.core.shapes.clutch import CLUTCH
from tessil.core.shapes.drawstring import DRAWSTRING
from tessil.core.shapes.edged import edged
from tessil.core.shapes.flat_pouch import FLAT_POUCH
from tessil.core.shapes.free_panel import FREE_PANEL
from tessil.core.shapes.halved import halved
from tessil.core.shapes.offset_pouch import OFFSET_POUCH
from tessil.core.shapes.one_piece import ONE_PIECE
from tessil.core.shapes.satchel import SATCHEL
from tessil.core.shapes.sleeve import SLEEVE
from tessil.core.shapes.tote import TOTE

SHAPES: dict[str, Shape] = {
    shape.key: carrying(based(halved(edged(shape))))
    for shape in (
        TOTE,
        ONE_PIECE,
        SATCHEL,
        FLAT_POUCH,
        OFFSET_POUCH,
        BOXED_ZIP,
        CLUTCH,
        BOUND_POUCH,
        DRAWSTRING,
        SLEEVE,
        FREE_PANEL,
    )
}


@cache
def shape_as(key: str, base: str = "") -> Shape:
    """A shape with or without its base; raises KeyError for one that is not known."""
    return SHAPES[key].as_chosen({BASE.key: base})


__all__ = [
    "SHAPES",
    "Brief",
    "HeldFigures",
    "Option",
    "SeamFigures",
    "Shape",
    "SizeField",
    "shape_as",
]
