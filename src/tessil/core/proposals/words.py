"""How a bag that could be made is told."""

from __future__ import annotations

from tessil.core.proposals.offers import Offer
from tessil.core.proposals.said import Heap


def size_words(one: Offer) -> str:
    """``9¾ × 6½ × 2½``."""
    return one.made.marks.notation.size(*(figure.value for figure in one.made.bag.finished))


def made_words(heap: Heap, one: Offer) -> str:
    """How the heap lies: ``5 × 4 squares on each side, 40 in all``."""
    sides = "on each side" if one.made.shape.cloths > 1 else "in one piece"
    if heap.kind == "squares":
        return f"{one.across} × {one.down} squares {sides}, {one.used} in all"
    if heap.kind == "strips":
        return f"{one.down} strips one below another {sides}, {one.used} cut across the cloth"
    pieces = "the piece" if heap.number == 1 else f"all {heap.number} pieces"
    return f"The largest that comes out of {pieces}"


def less_words(one: Offer, other: Offer) -> str:
    """``A column less: 7¾ × 5``."""
    what = "column" if other.across < one.across else "row"
    return f"A {what} less: {size_words(other)}"


def left_words(heap: Heap, one: Offer) -> str:
    """What is left over, and what that is good for."""
    if heap.kind == "cloth":
        fit = one.made.cloth
        return f"Its {fit.limits} is what the cloth limits" if fit is not None else ""
    if not one.left:
        return "Nothing is left over"
    what = "square" if heap.kind == "squares" else "strip"
    return f"{one.left} {what}{'s are' if one.left > 1 else ' is'} left over"
