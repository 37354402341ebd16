"""Where the prints of a panel lie, on its pieced top and on its trimmed outline."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels import PanelPlan
from tessil.core.plan import Plan
from tessil.drawing.picture import Cloth, clipped, rectangle


def bands(plan: Plan, panel: PanelPlan) -> Iterator[Cloth]:
    """The pieces of the pieced top, each in its print."""
    width, height = (float(v) for v in panel.pieced.values())
    across, down = _stretch(panel)
    for at, band in enumerate(panel.bands):
        start, end = float(band.start), float(band.end)
        if panel.level_strips:
            shape = rectangle(0, start * down, width, (end - start) * down)
        else:
            shape = rectangle(start * across, 0, (end - start) * across, height)
        yield Cloth(shape, plan.project.print_of(band.print), f"piece:{at}", band.turned)


def _stretch(panel: PanelPlan) -> tuple[float, float]:
    """Measured against planned pieced size, so that bands fill what there really is."""
    return (
        float(panel.pieced.width.value / panel.planned.width.value),
        float(panel.pieced.height.value / panel.planned.height.value),
    )


def trimmed_bands(plan: Plan, panel: PanelPlan) -> Iterator[Cloth]:
    """The prints as they lie on the trimmed panel, clipped to its outline."""
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    across, down = panel.scale
    left, top = float(panel.cut_off["left"].value), float(panel.cut_off["top"].value)
    for at, band in enumerate(bands(plan, panel)):
        low, high = band.outline[0], band.outline[2]
        if panel.level_strips:
            shape = clipped(outline, low[1] * down - top, high[1] * down - top, 1)
        else:
            shape = clipped(outline, low[0] * across - left, high[0] * across - left, 0)
        if len(shape) > 2:
            yield Cloth(shape, band.print, f"piece:{at}", band.turned)
