"""What a maker marks on trimmed panels, and whether sizes are asked for washed."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, checks
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Limits, Room60, Size, exact_share
from tessil.core.numbers.sizes import Side

WashShare = Annotated[Fraction, exact_share(minimum=0, maximum=0.2), Limits(ge=0, le=0.2)]


class Mark(Decided):
    """Something marked on a trimmed panel, from its raw left and top edges.

    ``x`` and ``y`` are the top left corner of an area, the middle of a point.  A pocket is of one
    ``doubled`` cloth, of ``two``, the inner one showing above, or of ``leftover`` strips, joined;
    its sides are sewn on, caught in the panel's side ``seams``, or it hangs ``free`` from the top
    seam; it is divided evenly, or ``at`` so far from its left.  A window has a ``box`` so high and
    a bag in one piece or in two.  A flat trim, a ``ribbon``, lies across the whole panel and is
    ``height`` wide, or goes into the seam along an ``edge``.
    """

    kind: Literal["slip", "divided", "window", "d-ring", "motif", "ribbon", "label", "patch"]
    panel: Key
    x: Room60
    y: Room60
    width: Size = Fraction(6)
    height: Size = Fraction(5)
    divisions: Annotated[int, Limits(ge=2, le=12)] = 2
    at: Annotated[tuple[Size, ...], Limits(max_length=11)] = ()
    cloths: Literal["doubled", "two", "leftover"] = "doubled"
    sides: Literal["sewn", "seams", "free"] = "sewn"
    edge: Side | Literal[""] = ""
    box: Size = Fraction(1, 2)
    bag: Literal["one", "two"] = "one"
    made: Literal["sewn", "fused", "embroidered"] = "sewn"  # of a motif

    @checks("at")
    @staticmethod
    def _in_order(value: tuple[Fraction, ...]) -> tuple[Fraction, ...]:
        return tuple(sorted(set(value)))


class Snap(Decided):
    """A magnetic snap: its male half on the flap, its female half where the flap lands."""

    used: bool = False
    offset: Size = Fraction(7, 4)
    female: Size | None = None


class Wash(Decided):
    """Whether sizes are asked for after the first wash, and what that takes."""

    used: bool = False
    share: WashShare = Fraction(3, 100)
