"""Numbers that remember how they were made.

A ``Figure`` is an exact number with a power of length.  Arithmetic on figures gives
figures, and keeps the sum that was done; ``called`` gives a result its name.  ``written``
renders a working from that record, so that it cannot disagree with its number.  Knows lengths;
must not know what is computed with them.
"""

from __future__ import annotations

from collections.abc import Iterable
from enum import IntEnum
from math import ceil, floor
from typing import Literal

from msgspec import Struct

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH, exact_root, round_down, round_near, round_up

Show = Literal["plain", "percent", "mm", "metres", "grams", "minutes", "money", "hours"]


class Basis(IntEnum):
    """What a figure rests on, from the firmest to the softest.

    A sum of choices is geometry; a sum is never firmer than its softest part.
    """

    CHOSEN = 0
    GEOMETRY = 1
    MEASURED = 2
    SWATCHES = 3
    TIMES = 4
    PRICES = 5
    PRACTICE = 6
    GUESS = 7

    @property
    def words(self) -> str:
        return _BASIS_WORDS[self]


_BASIS_WORDS = {
    Basis.GEOMETRY: "geometry",
    Basis.CHOSEN: "your choice",
    Basis.MEASURED: "measured",
    Basis.SWATCHES: "your swatches",
    Basis.TIMES: "your own times",
    Basis.PRICES: "your prices",
    Basis.PRACTICE: "common practice",
    Basis.GUESS: "starting guess",
}

NO_HAIR = Fraction(0)
HAIR = Fraction(1, 10**5)  # inches: a quarter of a thousandth of a millimetre


class Figure(Struct, frozen=True, eq=False, gc=False):  # a sum never holds itself: no circles
    """An exact number, its power of length, and the sum that made it.

    ``value`` is in inches to the ``power`` (0 a bare number, 1 a length, 2 an area).
    Figures are immutable.  Adding unlike powers raises TypeError: that is a fault in the
    program, not in what a maker typed.
    """

    value: Fraction
    power: int
    op: str
    args: tuple[Figure, ...]
    basis: Basis
    passes: Basis  # what a sum that uses this figure rests on through it
    label: str = ""
    show: Show = "plain"

    def __repr__(self) -> str:
        return f"Figure({self.label or self.op}: {self.value})"

    def called(self, label: str, show: Show = "plain") -> Figure:
        """The same number as a named result; other workings then show it as one value."""
        return self._named(label, show, self.passes)

    def _named(self, label: str, show: Show, passes: Basis) -> Figure:
        return Figure(self.value, self.power, "named", (self,), self.basis, passes, label, show)

    def settled(self, label: str) -> Figure:
        """A named size that is cut to: soft in its reasons, but exact for all that follows."""
        return self._named(label, "plain", Basis.GEOMETRY)

    @property
    def whole(self) -> int:
        """The value of a count; raises ValueError if it is not whole."""
        if self.value.denominator != 1:
            raise ValueError(f"{self.label or 'figure'} is not a whole number: {self.value}")
        return int(self.value)

    def _with(self, op: str, other: Figure | int | Fraction, swap: bool = False) -> Figure:
        right = other if isinstance(other, Figure) else number(other)
        left = self
        if swap:
            left, right = right, left
        return _combined(op, left, right)

    def __add__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("+", other)

    def __radd__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("+", other, swap=True)

    def __sub__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("−", other)

    def __rsub__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("−", other, swap=True)

    def __mul__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("×", other)

    def __rmul__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("×", other, swap=True)

    def __abs__(self) -> Figure:
        return self if self.value >= 0 else number(-1) * self

    def __truediv__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("÷", other)

    def __rtruediv__(self, other: Figure | int | Fraction) -> Figure:
        return self._with("÷", other, swap=True)


CHOSEN, GEOMETRY = Basis.CHOSEN, Basis.GEOMETRY


def _combined(op: str, left: Figure, right: Figure) -> Figure:
    one, other, power, own = left.value, right.value, left.power, right.power
    if op == "×":
        value, power = one * other, power + own
    elif op == "÷":
        value, power = one / other, power - own
    elif power != own:
        raise TypeError(f"cannot {op} power {power} and {own}: {left!r}, {right!r}")
    else:
        value = one + other if op == "+" else one - other
    basis = left.passes if left.passes >= right.passes else right.passes
    if basis is CHOSEN:
        basis = GEOMETRY
    return Figure(value, power, op, (left, right), basis, basis)


def number(value: int | Fraction, basis: Basis = Basis.GEOMETRY) -> Figure:
    """A bare number inside a formula."""
    return Figure(_exact(value), 0, "given", (), basis, basis)


def _exact(value: int | Fraction) -> Fraction:
    return value if type(value) is Fraction else Fraction(value)


def given(
    label: str,
    value: int | Fraction,
    basis: Basis = Basis.CHOSEN,
    power: int = 1,
    show: Show = "plain",
) -> Figure:
    """A number from outside the arithmetic: chosen, measured, or a usual value."""
    return Figure(_exact(value), power, "given", (), basis, basis, label, show)


def count(label: str, value: int, basis: Basis = Basis.CHOSEN) -> Figure:
    """A given whole number of things."""
    return given(label, value, basis, power=0)


def from_mm(label: str, value: Fraction, basis: Basis) -> Figure:
    """A given length known in millimetres, and shown so."""
    mm = MM_PER_INCH
    inches = Fraction(value.numerator * mm.denominator, value.denominator * mm.numerator)
    return given(label, inches, basis, show="mm")


def _one(op: str, figure: Figure, value: Fraction, *more: Figure) -> Figure:
    basis = max(Basis.GEOMETRY, *(part.passes for part in (figure, *more)))
    return Figure(value, figure.power, op, (figure, *more), basis, basis)


def up_to(figure: Figure, mark: Figure, hair: Fraction = NO_HAIR) -> Figure:
    """Rounded up to a ruler mark; what was measured in floats may lie a ``hair`` above one."""
    return _one("up", figure, round_up(figure.value - hair, mark.value), mark)


def down_to(figure: Figure, mark: Figure) -> Figure:
    """Rounded down to a ruler mark."""
    return _one("down", figure, round_down(figure.value, mark.value), mark)


def near_to(figure: Figure, mark: Figure) -> Figure:
    """Rounded to the nearest ruler mark, ties up."""
    return _one("near", figure, round_near(figure.value, mark.value), mark)


def ceiling(figure: Figure) -> Figure:
    """The next whole number at or above."""
    return _one("ceil", figure, Fraction(ceil(figure.value)))


def floored(figure: Figure) -> Figure:
    """The next whole number at or below."""
    return _one("floor", figure, Fraction(floor(figure.value)))


def rounded(figure: Figure) -> Figure:
    """The nearest whole number, ties up."""
    return _one("round", figure, Fraction(floor(figure.value + Fraction(1, 2))))


def largest(first: Figure, *others: Figure) -> Figure:
    """The largest of several figures of one power."""
    value = max(first.value, *(other.value for other in others))
    return _one("largest", first, value, *others)


def smallest(first: Figure, *others: Figure) -> Figure:
    """The smallest of several figures of one power."""
    value = min(first.value, *(other.value for other in others))
    return _one("smallest", first, value, *others)


def no_less(figure: Figure, floor: Figure) -> Figure:
    """The figure, or the floor where that is larger; the floor shows only where it bites."""
    return figure if figure.value >= floor.value else largest(figure, floor)


def squared(figure: Figure) -> Figure:
    """A figure times itself."""
    basis = max(Basis.GEOMETRY, figure.passes)
    return Figure(figure.value**2, 2 * figure.power, "²", (figure,), basis, basis)


def root(figure: Figure) -> Figure:
    """The square root of an area as a length, or of a bare number: exact where it has an exact one,
    else to a millionth of a millionth."""
    power, odd = divmod(figure.power, 2)
    if odd:
        raise TypeError(f"no root of power {figure.power}: {figure!r}")
    basis = max(Basis.GEOMETRY, figure.passes)
    return Figure(exact_root(figure.value), power, "√", (figure,), basis, basis)


def total(figures: Iterable[Figure]) -> Figure:
    """The sum of at least one figure; as one operation, however many there are."""
    parts = tuple(figures)
    if len(parts) == 1:
        return parts[0]
    if len({part.power for part in parts}) > 1:
        raise TypeError(f"cannot sum unlike powers: {parts[:3]!r}")
    value = sum((part.value for part in parts), Fraction(0))
    basis = max(Basis.GEOMETRY, *(part.passes for part in parts))
    return Figure(value, parts[0].power, "sum", parts, basis, basis)
