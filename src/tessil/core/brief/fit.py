"""One direction of what is held against the bag that holds it."""

from __future__ import annotations

from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure


class Fit(Record, frozen=True):
    """One direction of the object against the bag: what it needs and what there is."""

    way: str
    needs: Figure
    bare: Figure  # the same without any ease
    there: Figure

    @property
    def fits(self) -> bool:
        return self.needs.value <= self.there.value

    @property
    def goes_in(self) -> bool:
        """Whether it goes in at all, if not with the ease wished for."""
        return self.bare.value <= self.there.value
