"""What is held against the bag that holds it: whether it goes in, one way after the other."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Bag
from tessil.core.brief.fit import Fit
from tessil.core.numbers.workings import Basis, given
from tessil.core.shapes.base import Brief, Shape


def fits_of(shape: Shape, brief: Brief, bag: Bag) -> tuple[Fit, ...]:
    """The finished sizes against those that what is held needs."""
    needs = shape.for_object(brief)
    no_ease = given("no ease", 0, Basis.GEOMETRY)
    bare = shape.for_object(replace(brief, held=replace(brief.held, ease=no_ease)))
    # The rounding of cut sizes leaves the bag at or above its wish, never below.
    return tuple(
        Fit(way, needs[way], bare[way], there)
        for way, there in zip(shape.finished_keys, bag.finished, strict=True)
    )
