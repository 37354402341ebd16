"""Numbers that remember how they were made.

A ``Figure`` is an exact number with a power of length.  Arithmetic on figures gives
figures, and keeps the sum that was done; ``called`` gives a result its name.  A working is
rendered from that record, so it cannot disagree with its number.  Knows lengths and
notation; must not know what is computed with them.
"""

from __future__ import annotations

import operator
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import IntEnum
from fractions import Fraction
from math import ceil, floor
from typing import Literal

from tessil.core.lengths import (
    IN_PER,
    MM_PER_INCH,
    Notation,
    exact_root,
    is_on_mark,
    round_down,
    round_near,
    round_up,
    write_decimal,
    write_fraction,
    write_kept,
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

NO_HAIR = Fraction(0)
HAIR = Fraction(1, 10**5)  # inches: a quarter of a thousandth of a millimetre

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
    return Figure(
        figure.value**2, 2 * figure.power, "²", (figure,), max(Basis.GEOMETRY, figure.passes)
    )


def root(figure: Figure) -> Figure:
    """The square root of an area as a length, or of a bare number: exact where it has an exact one,
    else to a millionth of a millionth."""
    power, odd = divmod(figure.power, 2)
    if odd:
        raise TypeError(f"no root of power {figure.power}: {figure!r}")
    return Figure(
        exact_root(figure.value), power, "√", (figure,), max(Basis.GEOMETRY, figure.passes)
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
    """A part of a printed sum, and what the sum as it is printed comes to."""

    text: str
    binding: int
    value: Fraction

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
_ROUNDED: dict[str, Callable[..., Fraction]] = {
    "up": round_up,
    "down": round_down,
    "near": round_near,
    "ceil": lambda value: Fraction(ceil(value)),
    "floor": lambda value: Fraction(floor(value)),
    "round": lambda value: Fraction(floor(value + Fraction(1, 2))),
}


@dataclass(frozen=True, slots=True)
class _Pen:
    """How a sum is written: in whose units, with names or numbers, and with how many decimals more
    than usual."""

    notation: Notation
    words: bool = False
    mm: bool = False
    finer: int = 0

    def leaf(self, figure: Figure) -> _Text:
        if self.words and figure.label:
            return _Text(figure.label, _TIGHT, figure.value)
        written = _written(figure, self.notation, self.finer, self.mm)
        return _Text(written.text, _TIGHT, written.value)

    def render(self, figure: Figure) -> _Text:
        if figure.op in ("given", "named"):
            return self.leaf(figure)
        parts = [self.render(arg) for arg in figure.args]
        values = [part.value for part in parts]
        if figure.op in _BINDING:
            return self._two(figure.op, *parts)
        if figure.op == "sum":
            if len(parts) > MOST_TERMS:
                return _Text(f"{len(parts)} figures added", _LOOSE, figure.value)
            text = " + ".join(part.inside(_ADD) for part in parts)
            return _Text(text, _ADD, sum(values, Fraction(0)))
        if figure.op == "√":
            return _Text("√" + parts[0].inside(_TIGHT), _TIGHT, exact_root(max(values[0], NO_HAIR)))
        if figure.op == "²":
            base = parts[0].inside(_TIGHT)
            base = f"({base})" if " " in base and not base.startswith("(") else base
            return _Text(base + "²", _TIGHT, values[0] ** 2)
        if figure.op in ("largest", "smallest"):
            text = f"{figure.op} of " + ", ".join(p.inside(_ADD) for p in parts)
            return _Text(text, _LOOSE, (max if figure.op == "largest" else min)(values))
        text = _WORDED[figure.op].format(*(p.inside(_ADD) for p in parts))
        return _Text(text, _LOOSE, _ROUNDED[figure.op](*values))

    @staticmethod
    def _two(op: str, left: _Text, right: _Text) -> _Text:
        own = _BINDING[op]
        text = f"{left.inside(own)} {op} {right.inside(own + 1 if op in '−÷' else own)}"
        if op == "÷" and right.value == 0:  # too small to be printed: only finer figures tell
            return _Text(text, own, Fraction(0))
        return _Text(text, own, _SUMS[op](left.value, right.value))


_SUMS: dict[str, Callable[[Fraction, Fraction], Fraction]] = {
    "+": operator.add,
    "−": operator.sub,
    "×": operator.mul,
    "÷": operator.truediv,
}


@dataclass(frozen=True, slots=True)
class _Number:
    """A number as it is printed, and the number that then stands there, in inches."""

    text: str
    value: Fraction


def _decimal(value: Fraction, places: int, unit: str, per: Fraction) -> _Number:
    """A decimal in a unit of so many inches."""
    scaled = value / per
    shown = round_near(abs(scaled), Fraction(1, 10**places))
    shown = -shown if scaled < 0 else shown
    return _Number(f"{write_kept(scaled, places)} {unit}".rstrip(), shown * per)


_ONE = Fraction(1)
# By the way a figure is shown: decimals, unit, and how much that is of the number kept.
_SHOWN: dict[Show, tuple[int, str, Fraction]] = {
    "percent": (2, "%", Fraction(1, 100)),
    "mm": (2, "mm", 1 / MM_PER_INCH),
    "metres": (1, "m", 1000 / MM_PER_INCH),
    "grams": (1, "g", _ONE),
    "minutes": (1, "min", _ONE),
}


def _written(figure: Figure, notation: Notation, finer: int = 0, mm: bool = False) -> _Number:
    """A number that hides nothing: a fraction where it is one, else decimals, ``finer`` by so many
    places where a sum needs them."""
    value = figure.value
    if mm and figure.power == 1:
        made = _decimal(value, 2 + finer, "", 1 / MM_PER_INCH)
        return _Number(made.text, made.value)
    if figure.show != "plain":
        places, unit, per = _SHOWN[figure.show]
        return _decimal(value, places + finer, unit, per)
    if figure.power == 0:
        return _bare(value, finer)
    if figure.power == 2:
        return _area(value, notation, finer)
    if figure.power == 3:
        return _volume(value, notation, finer)
    if notation.units == "metric":
        return _decimal(value, 3 + finer, "cm", IN_PER["cm"])
    if is_on_mark(value, Fraction(1, 32)) or value.denominator == 3:
        return _Number(write_fraction(value), value)
    return _decimal(value, (3 if abs(value) < 1 else 2) + finer, "", _ONE)


def _bare(value: Fraction, finer: int) -> _Number:
    if value.denominator in (1, 2, 3, 4, 8):
        return _Number(write_fraction(value), value)
    return _decimal(value, (3 if abs(value) < 1 else 2) + finer, "", _ONE)


def _area(value: Fraction, notation: Notation, finer: int) -> _Number:
    if notation.units == "metric":
        return _decimal(value, 1 + finer, "cm²", IN_PER["cm"] ** 2)
    return _decimal(value, 1 + finer, "sq in", _ONE)


def _volume(value: Fraction, notation: Notation, finer: int) -> _Number:
    if notation.units == "metric":
        return _decimal(value, 2 + finer, "l", 1000 * IN_PER["cm"] ** 3)
    return _decimal(value, 1 + finer, "cu in", _ONE)


def exact_text(figure: Figure, notation: Notation) -> str:
    """The value without a ruler's rounding: fractions where they are, else decimals."""
    return _written(figure, notation).text


def value_text(figure: Figure, notation: Notation) -> str:
    """The value as a maker reads it: off the ruler, to its nearest mark."""
    return _reads(figure, figure.value, notation)


def _reads(figure: Figure, value: Fraction, notation: Notation) -> str:
    """Another value, read as this figure is."""
    if figure.power == 1 and figure.show == "plain":
        return notation.read_off(value)
    if figure.show == "percent":
        return write_decimal(value * 100, 1) + " %"
    if figure.show == "grams":
        return write_decimal(value, 0) + " g"
    if figure.show == "minutes":
        return write_decimal(value, 0) + " min"
    if figure.power == 2 and notation.units == "metric":
        return write_decimal(value / IN_PER["cm"] ** 2, 0) + " cm²"
    if figure.power == 3 and notation.units == "inch":
        return write_decimal(value, 0) + " cu in"
    plain = Figure(value, figure.power, "given", (), figure.basis)
    plain.show = figure.show
    return exact_text(plain, notation)


def _sum_of(figure: Figure) -> Figure | None:
    """The recorded sum behind a figure, or None if it was simply given."""
    while figure.op == "named":
        figure = figure.args[0]
    return None if figure.op == "given" else figure


MOST_FINER = 6


def working(figure: Figure, notation: Notation) -> str:
    """The sum with its numbers, ``6 × (2½ − 2 × ¼) + 2 × ¼``; empty if there was none.

    Done on a calculator with the numbers as they are printed, it gives the figure as it is read: if
    the usual decimals are too few for that, more are printed; ``≈`` where none would do.
    """
    made = _sum_of(figure)
    if made is None:
        return ""
    mm, wanted = _in_mm(figure), value_text(figure, notation)
    for finer in range(MOST_FINER + 1):
        text = _Pen(notation, mm=mm, finer=finer).render(made)
        if _reads(figure, text.value, notation) == wanted:
            break
    about = "" if _reads(figure, text.value, notation) == wanted else "≈ "
    shown = f"{text.inside(_TIGHT)} mm" if mm and made.power == 1 else text.text
    return about + shown


def working_words(figure: Figure, notation: Notation) -> str:
    """The same sum with its names, ``strips × (strip cut − 2 × seam) + 2 × seam``."""
    made = _sum_of(figure)
    return _Pen(notation, words=True, mm=_in_mm(figure)).render(made).text if made else ""


def _in_mm(figure: Figure) -> bool:
    """Whether some number of the sum is thread-fine, so that all of it reads in mm."""
    made = _sum_of(figure)
    return made is not None and any(_shows_mm(arg) for arg in made.args)


def _shows_mm(figure: Figure) -> bool:
    if figure.op in ("given", "named"):
        return figure.show == "mm"
    return any(_shows_mm(arg) for arg in figure.args)
