"""One line of the receipt."""

from __future__ import annotations

from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure
from tessil.core.snags import Place


class Reading(Record, frozen=True):
    """A figure with a stable key, its help and its place on the panel.

    ``leaf`` is where it stands in a stage that has several; ``zone`` the part of the panel.
    """

    key: str
    figure: Figure
    about: str
    place: Place | None = None
    leaf: str = "pieces"
    zone: int | None = None
