"""What a maker decides about the hoop in which panels are stitched."""

from __future__ import annotations

from typing import Literal

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Key, Size


class Hooping(Decided):
    """The hoop, and how outlines and cloth are laid in it.

    ``width`` and ``height`` are the field of a hoop that is not on the list; ``turned`` whether an
    outline may lie across; ``cloth`` whether one long piece is drawn on from hooping to hooping,
    or each hooping has a piece of its own.  Which panels are made in it, and on what, stands with
    their layers.
    """

    hoop: Key = "h-5-7"
    width: Size = Fraction(5)
    height: Size = Fraction(7)
    turned: bool = True
    cloth: Literal["drawn-on", "apiece"] = "drawn-on"
