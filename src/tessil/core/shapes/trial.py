"""A bag as it would be with other sizes: whether there is one at all."""

from __future__ import annotations

from tessil.core.bag.model import Bag
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import given
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.trouble import CannotPlan


def body_if(shape: Shape, brief: Brief, sizes: Sizes) -> Bag | None:
    """The bag of these panel sizes; none where there is no such bag."""
    try:
        return shape.body(brief, sizes)
    except CannotPlan:
        return None


def finished_if(shape: Shape, brief: Brief, now: Sizes, finished: dict[str, Inches]) -> Bag | None:
    """The bag of these finished sizes, all else as it is now; none where there is no such bag."""
    sizes = {**now, **{key: given(key, value) for key, value in finished.items()}}
    try:
        return shape.body(brief, {**sizes, **shape.to_panel(brief, sizes)})
    except CannotPlan:
        return None
