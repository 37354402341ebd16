"""Bag shapes, one module each; this registry is the only place that lists them."""

from __future__ import annotations

from tessil.core.shapes.base import Brief, HeldFigures, Option, SeamFigures, Shape, SizeField
from tessil.core.shapes.free_panel import FREE_PANEL
from tessil.core.shapes.tote import TOTE

SHAPES: dict[str, Shape] = {shape.key: shape for shape in (TOTE, FREE_PANEL)}

__all__ = ["SHAPES", "Brief", "HeldFigures", "Option", "SeamFigures", "Shape", "SizeField"]
