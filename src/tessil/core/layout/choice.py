"""What the arranging of prints must mind."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.fields import Limits


class Rules(Decided):
    """What the arranging of prints must mind, and the number that makes it repeatable."""

    sides: bool = True
    corners: bool = True
    joins: bool = True
    amounts: bool = True
    upright: bool = True
    order: Literal["free", "spread", "graded", "striped"] = "free"
    graded: Literal["down", "up", "right", "left"] = "down"
    favourites: str = ""  # panel:zone on which they shall lie
    seed: Annotated[int, Limits(ge=0, le=999_999)] = 1
