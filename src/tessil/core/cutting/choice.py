"""What the cloth on the table is like."""

from __future__ import annotations

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Decided, Room, Size


class Stock(Decided):
    """What the cloth on the table is like."""

    usable_width: Size = Fraction(40)
    straightening: Room = Fraction(1, 2)
