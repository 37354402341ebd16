"""Numbers that remember how they were made.

A ``Figure`` is an exact number with a power of length.  Arithmetic on figures gives
figures, and keeps the sum that was done; ``called`` gives a result its name.  A working is
rendered from that record, so it cannot disagree with its number.  Knows lengths and
notation; must not know what is computed with them.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import IntEnum
from fractions import Fraction
from math import ceil, floor
from typing import Literal

from tessil.core.lengths import (
    IN_PER,
    MM_PER_INCH,
    Notation,
    round_down,
    round_near,
    round_up,
    write_decimal,
    write_fraction,
)

Show = Literal["plain", "percent", "mm", "metres", "grams", "minutes"]


class Basis(IntEnum):
    """What a figure rests on, from the firmest to the softest.

    A sum of choices is geometry; a sum is never firmer than its softest part.
    """

    CHOSEN = 0
    GEOMETRY = 1
    MEASURED = 2
    SWATCHES = 3
    PRACTICE = 4
    GUESS = 5

    @property
    def words(self) -> str:
        return _BASIS_WORDS[self]


_BASIS_WORDS = {
    Basis.GEOMETRY: "geometry",
    Basis.CHOSEN: "your choice",
    Basis.MEASURED: "measured",
    Basis.SWATCHES: "your swatches",
    Basis.PRACTICE: "common practice",
    Basis.GUESS: "starting guess",
}

# How tightly an operation binds, for brackets: functions spelled in words bind loosest.
_LOOSE, _ADD, _MULTIPLY, _TIGHT = range(4)
MOST_TERMS = 40  # of a sum that is written out
_BINDING = {"+": _ADD, "−": _ADD, "×": _MULTIPLY, "÷": _MULTIPLY}


class Figure:
    """An exact number, its power of length, and the sum that made it.

    ``value`` is in inches to the ``power`` (0 a bare number, 1 a length, 2 an area).
    Figures are immutable.  Adding unlike powers raises TypeError: that is a fault in the
    program, not in what a maker typed.
    """

    __slots__ = ("args", "basis", "label", "op", "passes", "power", "show", "value")

    value: Fraction
    power: int
    op: str
    args: tuple[Figure, ...]
    label: str
    basis: Basis
    passes: Basis  # what a sum that uses this figure rests on through it
    show: Show

    def __init__(
        self, value: Fraction, power: int, op: str, args: tuple[Figure, ...], basis: Basis
    ) -> None:
        self.value = value
        self.power = power
        self.op = op
        self.args = args
        self.basis = basis
        self.passes = basis
        self.label = ""
        self.show = "plain"

    def __repr__(self) -> str:
        return f"Figure({self.label or self.op}: {working(self, Notation()) or self.value})"

    def called(self, label: str, show: Show = "plain") -> Figure:
        """The same number as a named result; other workings then show it as one value."""
        named = Figure(self.value, self.power, "named", (self,), self.basis)
        named.label = label
        named.show = show
        named.passes = self.passes
        return named

    def settled(self, label: str) -> Figure:
        """A named size that is cut to: soft in its reasons, but exact for all that follows."""
        named = self.called(label)
        named.passes = Basis.GEOMETRY
        return named

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


def _combined(op: str, left: Figure, right: Figure) -> Figure:
    if op in "+−" and left.power != right.power:
        raise TypeError(f"cannot {op} power {left.power} and {right.power}: {left!r}, {right!r}")
    if op == "+":
        value, power = left.value + right.value, left.power
    elif op == "−":
        value, power = left.value - right.value, left.power
    elif op == "×":
        value, power = left.value * right.value, left.power + right.power
    else:
        value, power = left.value / right.value, left.power - right.power
    return Figure(value, power, op, (left, right), max(Basis.GEOMETRY, left.passes, right.passes))


def number(value: int | Fraction, basis: Basis = Basis.GEOMETRY) -> Figure:
    """A bare number inside a formula."""
    return Figure(Fraction(value), 0, "given", (), basis)


def given(
    label: str,
    value: int | Fraction,
    basis: Basis = Basis.CHOSEN,
    power: int = 1,
    show: Show = "plain",
) -> Figure:
    """A number from outside the arithmetic: chosen, measured, or a usual value."""
    figure = Figure(Fraction(value), power, "given", (), basis)
    figure.label = label
    figure.show = show
    return figure


def count(label: str, value: int, basis: Basis = Basis.CHOSEN) -> Figure:
    """A given whole number of things."""
    return given(label, value, basis, power=0)


def from_mm(label: str, value: Fraction, basis: Basis) -> Figure:
    """A given length known in millimetres, and shown so."""
    return given(label, value / MM_PER_INCH, basis, show="mm")


def _one(op: str, figure: Figure, value: Fraction, *more: Figure) -> Figure:
    basis = max(Basis.GEOMETRY, *(part.passes for part in (figure, *more)))
    return Figure(value, figure.power, op, (figure, *more), basis)


def up_to(figure: Figure, mark: Figure) -> Figure:
    """Rounded up to a ruler mark."""
    return _one("up", figure, round_up(figure.value, mark.value), mark)


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
    return Figure(
        figure.value**2, 2 * figure.power, "²", (figure,), max(Basis.GEOMETRY, figure.passes)
    )


def total(figures: Iterable[Figure]) -> Figure:
    """The sum of at least one figure; as one operation, however many there are."""
    parts = tuple(figures)
    if len(parts) == 1:
        return parts[0]
    if len({part.power for part in parts}) > 1:
        raise TypeError(f"cannot sum unlike powers: {parts[:3]!r}")
    value = sum((part.value for part in parts), Fraction(0))
    basis = max(Basis.GEOMETRY, *(part.passes for part in parts))
    return Figure(value, parts[0].power, "sum", parts, basis)


@dataclass(frozen=True, slots=True)
class _Text:
    text: str
    binding: int

    def inside(self, outer: int) -> str:
        return self.text if self.binding >= outer else f"({self.text})"


_WORDED = {
    "up": "{0}, up to {1}",
    "down": "{0}, down to {1}",
    "near": "{0}, nearest {1}",
    "ceil": "{0}, rounded up",
    "floor": "{0}, whole ones",
    "round": "{0}, rounded",
}


def _render(figure: Figure, notation: Notation, words: bool, mm: bool) -> _Text:
    if figure.op in ("given", "named"):
        if words and figure.label:
            return _Text(figure.label, _TIGHT)
        return _Text(_leaf(figure, notation, mm), _TIGHT)
    parts = [_render(arg, notation, words, mm) for arg in figure.args]
    if figure.op in _BINDING:
        own = _BINDING[figure.op]
        right = own + 1 if figure.op in "−÷" else own
        left, last = parts
        return _Text(f"{left.inside(own)} {figure.op} {last.inside(right)}", own)
    if figure.op == "sum":
        if len(parts) > MOST_TERMS:
            return _Text(f"{len(parts)} figures added", _LOOSE)
        return _Text(" + ".join(part.inside(_ADD) for part in parts), _ADD)
    if figure.op == "²":
        return _Text(parts[0].inside(_TIGHT) + "²", _TIGHT)
    if figure.op in ("largest", "smallest"):
        return _Text(f"{figure.op} of " + ", ".join(p.inside(_ADD) for p in parts), _LOOSE)
    return _Text(_WORDED[figure.op].format(*(p.inside(_ADD) for p in parts)), _LOOSE)


def _leaf(figure: Figure, notation: Notation, mm: bool) -> str:
    if mm and figure.power == 1:
        return write_decimal(figure.value * MM_PER_INCH, 2)
    return exact_text(figure, notation)


def exact_text(figure: Figure, notation: Notation) -> str:
    """The value without a ruler's rounding: fractions where they are, else decimals."""
    if figure.show == "percent":
        return write_decimal(figure.value * 100, 2) + " %"
    if figure.show == "mm":
        return write_decimal(figure.value * MM_PER_INCH, 2) + " mm"
    if figure.show == "metres":
        return write_decimal(figure.value * MM_PER_INCH / 1000, 1) + " m"
    if figure.show == "grams":
        return write_decimal(figure.value, 1) + " g"
    if figure.show == "minutes":
        return write_decimal(figure.value, 0) + " min"
    if figure.power == 0:
        return _bare(figure.value)
    if figure.power == 2:
        return _area(figure.value, notation)
    if figure.power == 3:
        return _volume(figure.value, notation)
    return notation.exact(figure.value)


def value_text(figure: Figure, notation: Notation) -> str:
    """The value as a maker reads it: off the ruler, to its nearest mark."""
    if figure.power == 1 and figure.show == "plain":
        return notation.read_off(figure.value)
    if figure.show == "percent":
        return write_decimal(figure.value * 100, 1) + " %"
    if figure.show == "grams":
        return write_decimal(figure.value, 0) + " g"
    return exact_text(figure, notation)


def _bare(value: Fraction) -> str:
    if value.denominator in (1, 2, 3, 4, 8):
        return write_fraction(value)
    return write_decimal(value, 3 if abs(value) < 1 else 2)


def _area(value: Fraction, notation: Notation) -> str:
    if notation.units == "metric":
        return write_decimal(value / IN_PER["cm"] ** 2, 0) + " cm²"
    return write_decimal(value, 1) + " sq in"


def _volume(value: Fraction, notation: Notation) -> str:
    if notation.units == "metric":
        return write_decimal(value / IN_PER["cm"] ** 3 / 1000, 2) + " l"
    return write_decimal(value, 0) + " cu in"


def _sum_of(figure: Figure) -> Figure | None:
    """The recorded sum behind a figure, or None if it was simply given."""
    while figure.op == "named":
        figure = figure.args[0]
    return None if figure.op == "given" else figure


def working(figure: Figure, notation: Notation) -> str:
    """The sum with its numbers, ``6 × (2½ − 2 × ¼) + 2 × ¼``; empty if there was none."""
    made = _sum_of(figure)
    if made is None:
        return ""
    mm = _in_mm(figure)
    text = _render(made, notation, words=False, mm=mm)
    return f"{text.inside(_TIGHT)} mm" if mm and made.power == 1 else text.text


def working_words(figure: Figure, notation: Notation) -> str:
    """The same sum with its names, ``strips × (strip cut − 2 × seam) + 2 × seam``."""
    made = _sum_of(figure)
    return _render(made, notation, words=True, mm=_in_mm(figure)).text if made else ""


def _in_mm(figure: Figure) -> bool:
    """Whether some number of the sum is thread-fine, so that all of it reads in mm."""
    made = _sum_of(figure)
    return made is not None and any(_shows_mm(arg) for arg in made.args)


def _shows_mm(figure: Figure) -> bool:
    if figure.op in ("given", "named"):
        return figure.show == "mm"
    return any(_shows_mm(arg) for arg in figure.args)
