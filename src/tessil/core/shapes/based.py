"""The base of any boxed bag: what lies on it takes from the height inside.

A strip over the open bottom seam, a stiffener fused over it, in a sleeve, or on the lining: common
practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Bag, BagFigure
from tessil.core.numbers.workings import Figure, no_less
from tessil.core.shapes.base import NOTHING, Brief, Shape, Sizes
from tessil.core.shapes.common import box_volume

HEIGHT, VOLUME = "inside-height", "holds-filled-as-a-box"


def based(shape: Shape) -> Shape:
    """The shape with what lies on its base, if it has one."""
    if "corner" not in shape.uses:
        return shape

    def build(brief: Brief, sizes: Sizes) -> Bag:
        return on_base(shape.build(brief, sizes), brief)

    def for_object(brief: Brief) -> Sizes:
        needs = shape.for_object(brief)
        if brief.base_thick is None:
            return needs
        height = needs["height"] + brief.base_thick
        return {**needs, "height": height.called("height to hold it")}

    return replace(shape, build=build, for_object=for_object)


def on_base(bag: Bag, brief: Brief) -> Bag:
    """The bag with less height inside, by what lies on its base."""
    if brief.base_thick is None or bag.floor is None:
        return bag
    inside = tuple(_lower(told, brief.base_thick) for told in bag.inside)
    figures = tuple(box_volume(inside) if one.id == VOLUME else one for one in bag.figures)
    return replace(bag, inside=inside, figures=figures)


def _lower(told: BagFigure, by: Figure) -> BagFigure:
    if told.id != HEIGHT:
        return told
    return BagFigure(told.id, no_less(told.figure - by, NOTHING).called("inside height"))
