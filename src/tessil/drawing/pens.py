"""How lines look: colour, width and dashes of each kind of stroke, and pens for them."""

from __future__ import annotations

from functools import lru_cache

from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QPen

from tessil.drawing import theme

STROKES: dict[str, tuple[str, float, tuple[float, ...]]] = {
    "raw": (theme.INK, 1.0, ()),
    "thin": (theme.RULE, 1.0, ()),
    "seam": (theme.INK, 1.0, (4, 3)),
    "trim": (theme.INK, 1.6, (7, 3, 1.5, 3)),
    "notch": (theme.INK, 1.8, ()),
    "fold": (theme.SOFT, 1.0, (8, 4)),
    "piece": (theme.INK, 0.8, ()),
    "picked": (theme.THREAD, 2.4, ()),
    "warn": (theme.WARNING, 2.4, (3, 2)),
    "object": (theme.INK, 1.4, (5, 4)),
    "cord": (theme.INK, 3.0, ()),
    "teeth": (theme.CARD, 2.0, (2, 2)),
    "mark": (theme.INK, 1.8, ()),
    "pin": (theme.INK, 1.4, ()),
    "head": (theme.THREAD, 5.0, ()),
    "clash": (theme.WARNING, 4.0, (3, 2)),
    "drawn": (theme.THREAD, 1.8, ()),
    "hatch": (theme.INK, 1.0, ()),
}


# Chalk-white stitches on a thin dark shadow, so that they read on any print.
STITCHES: tuple[tuple[str, float, tuple[float, ...]], ...] = (
    (theme.INK, 2.6, (7, 4)),
    (theme.CHALK, 1.6, (7, 4)),
)


MOST_STITCHED = 160  # so many lines lie too close for single stitches to be seen
MANY_STITCHES: tuple[tuple[str, float, tuple[float, ...]], ...] = (
    (theme.INK, 1.8, ()),
    (theme.CHALK, 1.0, ()),
)


@lru_cache(maxsize=256)
def pen_of(colour: str, share: float, width: float, unit: float, dashes: tuple[float, ...]) -> QPen:
    """A pen of its own for each look of a line: hundreds of lines share a few."""
    shade = QColor(colour)
    shade.setAlphaF(share)
    pen = QPen(shade, width * unit)
    pen.setCapStyle(Qt.PenCapStyle.FlatCap)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    if dashes:
        pen.setDashPattern([dash / width for dash in dashes])
    return pen
