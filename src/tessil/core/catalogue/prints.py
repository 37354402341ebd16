"""The cloths of a bag's basket: drawn by the program, or the maker's own picture."""

from __future__ import annotations

from math import hypot
from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Colour, Key, Limits, Name, Share, Size
from tessil.core.numbers.lengths import Inches

Motif = Literal[
    "plain",
    "dots",
    "checks",
    "sprigs",
    "ticking",
    "waves",
    "plaid",
    "notes",
    "stars",
    "leaves",
    "birds",
    "rings",
]
MOST_PHOTO = 700_000  # letters of base64: about half a megabyte
MOST_IN_HAND = 5000


def known_as(name: str) -> str:
    """By what a cloth is known, however it is written."""
    return name.strip().casefold()


class Photo(Decided):
    """The maker's own picture of a cloth: the part to use, and its scale.

    ``data`` is a PNG or JPEG in base64.  ``crop`` is left, top, width and height and the two
    points are across and down, all as shares of the picture; the points lie ``apart`` on the
    cloth.  ``mean`` is the average colour of the part in use.
    """

    data: Annotated[str, Limits(min_length=8, max_length=MOST_PHOTO, pattern=r"^[A-Za-z0-9+/=]+$")]
    wide: Annotated[int, Limits(ge=1, le=2048)]
    high: Annotated[int, Limits(ge=1, le=2048)]
    crop: tuple[Share, Share, Share, Share] = (0.0, 0.0, 1.0, 1.0)
    one: tuple[Share, Share] = (0.0, 0.5)
    other: tuple[Share, Share] = (1.0, 0.5)
    apart: Size = Fraction(4)
    mean: Colour = "#808080"


class Print(Decided):
    """One cloth in the bag's print basket: drawn by the program at true scale, or a photo.

    ``amount`` is how many pieces of it are in hand; None where it is cut as needed.
    """

    key: Key
    name: Name
    motif: Motif = "plain"
    ground: Colour = "#d8c8a8"
    ink: Colour = "#5a4a3a"
    repeat: Size = Fraction(1)
    directional: bool = False
    placed: bool = False  # each piece is cut with its picture in the middle
    favourite: bool = False
    amount: Annotated[int, Limits(ge=0, le=MOST_IN_HAND)] | None = None
    photo: Photo | None = None

    @property
    def tile(self) -> tuple[Inches, Inches]:
        """How far across and along its picture comes again; of a photo to a sixteenth."""
        if self.photo is None:
            return self.repeat, self.repeat
        photo = self.photo
        across = (photo.other[0] - photo.one[0]) * photo.wide
        down = (photo.other[1] - photo.one[1]) * photo.high
        inch = max(hypot(across, down), 1.0) / float(photo.apart)
        sides = (photo.crop[2] * photo.wide / inch, photo.crop[3] * photo.high / inch)
        wide, high = (max(Fraction(round(side * 16), 16), Fraction(1, 16)) for side in sides)
        return wide, high
