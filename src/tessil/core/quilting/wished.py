"""What a pattern takes by its wish alone, before there is a panel to even it out on."""

from __future__ import annotations

from tessil.core.numbers.workings import Figure, given
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.shrinkage import Family


def wished_families(choice: Quilting) -> tuple[Family, ...]:
    """The families of a pattern at its wished gaps; seams followed count as a grid."""
    if choice.pattern == "none":
        return ()
    gap: Figure = given("wished gap", choice.gap)
    other = gap if choice.gap_other is None else given("wished gap, other way", choice.gap_other)
    angle = float(choice.angle)
    if choice.pattern == "channels":
        return (Family("", 90.0 if choice.run == "upright" else 0.0, gap),)
    if choice.pattern == "diagonal":
        return (Family("", angle, gap),)
    if choice.pattern == "diamonds":
        return (Family("", abs(angle), gap), Family("", -abs(angle), other))
    return (Family("", 90.0, gap), Family("", 0.0, other))
