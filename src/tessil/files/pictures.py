"""Pictures inside the maker's files: only PNG and JPEG, by what is in them.

Knows how such files begin; decoding is the drawing's.
"""

from __future__ import annotations

from collections.abc import Iterable

from tessil.core.catalogue.prints import Photo
from tessil.core.trouble import BrokenFile
from tessil.core.words.refusals import printable

# How PNG (ISO/IEC 15948, 5.2) and JPEG (ISO/IEC 10918-1, SOI and the marker after it) begin, in
# base64.
_BEGINNINGS = ("iVBORw0KGgo", "/9j/")


def check_pictures(photos: Iterable[tuple[str, Photo | None]], name: str) -> None:
    """Refuse a file with a picture of another kind; raises BrokenFile.  ``photos`` are the things
    pictured, by name.  How many points are shown at once is bounded where they are decoded."""
    for thing, photo in photos:
        if photo is not None and not photo.data.startswith(_BEGINNINGS):
            raise BrokenFile(
                f"{name} has a picture of “{printable(thing)}” that is neither PNG nor JPEG."
            )
