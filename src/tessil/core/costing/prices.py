"""What things are called in a list of prices, and what a unit of each costs.

A price is for one inch of what is sold by its length (cloth over its whole width), else for one
piece.  Knows numbers; must not know plans.
"""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given

Known = Mapping[str, Fraction]


class Priced(Record, frozen=True):
    """One thing that has a price: its key, what it is called, whether it is sold by its length."""

    key: str
    name: str
    long: bool


def cloth_key(stock: str, material: bool) -> str:
    """Of a print's cloth, or of a material of the catalogue."""
    return f"{'material' if material else 'cloth'} {stock}"


def ware_key(kind: str, size: Fraction | None) -> str:
    """Of what is no cloth; what is sold by the piece has its size."""
    return kind if size is None else f"{kind} {size}"


class PriceList(Record, frozen=True):
    """The maker's own prices, and before them what the shelf says was paid last."""

    own: Known
    shelf: Known

    def of(self, thing: Priced) -> Figure | None:
        """The price of an inch or of a piece; none where nobody knows it."""
        value = self.own.get(thing.key, self.shelf.get(thing.key))
        if value is None:
            return None
        power = -1 if thing.long else 0
        return given(f"price of {thing.name.lower()}", value, Basis.PRICES, power, "money")

    def whence(self, key: str) -> str:
        """Where a price comes from: typed, the shelf, or nowhere yet."""
        return "own" if key in self.own else "shelf" if key in self.shelf else ""
