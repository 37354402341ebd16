"""All that a bag must hold, put together as figures."""

from __future__ import annotations

from tessil.core.brief.choice import Held, Thing
from tessil.core.numbers.workings import Figure, count, given, largest, total
from tessil.core.shapes.base import HeldFigures


def _thickness(thing: Thing) -> Figure:
    one = given(f"{thing.name} thickness", thing.thickness)
    return count(f"{thing.name}, how many", thing.count) * one if thing.count > 1 else one


def _greatest(figures: list[Figure], label: str) -> Figure:
    first, *others = figures
    return first if not others else largest(first, *others).called(label)


def _summed(figures: list[Figure], label: str) -> Figure:
    return figures[0] if len(figures) == 1 else total(figures).called(label)


def held_figures(held: Held) -> HeldFigures:
    """All things together: one behind another, or side by side."""
    widths = [given(f"{thing.name} width", thing.width) for thing in held.things]
    heights = [given(f"{thing.name} height", thing.height) for thing in held.things]
    depths = [_thickness(thing) for thing in held.things]
    stacked = held.packed == "stacked"
    return HeldFigures(
        width=(_greatest if stacked else _summed)(widths, "all together, width"),
        height=_greatest(heights, "the highest"),
        thickness=(_summed if stacked else _greatest)(depths, "all together, thickness"),
        ease=given("ease each side", held.ease),
    )
