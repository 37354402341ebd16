"""Figures and their workings as they are written, in the maker's notation.

A sum is rendered from the record that its arithmetic left; printed operands give the printed
figure, or the sum says that it is about so much.  Must not know what is computed.
"""

from __future__ import annotations

import operator
from collections.abc import Callable
from math import ceil, floor

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import (
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
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import NO_HAIR, Figure, Show, given
from tessil.core.words.money import money_text, rounded_money

# How tightly an operation binds, for brackets: functions spelled in words bind loosest.
_LOOSE, _ADD, _MULTIPLY, _TIGHT = range(4)
MOST_TERMS = 40  # of a sum that is written out
_BINDING = {"+": _ADD, "−": _ADD, "×": _MULTIPLY, "÷": _MULTIPLY}


class _Text(Record, frozen=True):
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


class _Pen(Record, frozen=True):
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
        other = right.inside(own + 1 if op in "−÷" else own)
        sign = op
        if op in "+−" and other.startswith("−") and " " not in other:
            # What is less than nothing is taken off, said once: ``1½ − ⅛`` and not ``1½ + −⅛``.
            sign, other = ("−" if op == "+" else "+"), other[1:]
        text = f"{left.inside(own)} {sign} {other}"
        if op == "÷" and right.value == 0:  # too small to be printed: only finer figures tell
            return _Text(text, own, Fraction(0))
        return _Text(text, own, _SUMS[op](left.value, right.value))


_SUMS: dict[str, Callable[[Fraction, Fraction], Fraction]] = {
    "+": operator.add,
    "−": operator.sub,
    "×": operator.mul,
    "÷": operator.truediv,
}


class _Number(Record, frozen=True):
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
    "hours": (2, "h", _ONE),
}
LONG_UNIT = {"inch": (Fraction(36), "yd"), "metric": (IN_PER["cm"] * 100, "m")}  # cloth's prices


def _written(figure: Figure, notation: Notation, finer: int = 0, mm: bool = False) -> _Number:
    """A number that hides nothing: a fraction where it is one, else decimals, ``finer`` by so many
    places where a sum needs them."""
    value = figure.value
    if mm and figure.power == 1:
        made = _decimal(value, 2 + finer, "", 1 / MM_PER_INCH)
        return _Number(made.text, made.value)
    if figure.show == "money":
        return _money(figure, notation, finer)
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


def _money(figure: Figure, notation: Notation, finer: int) -> _Number:
    """An amount; one that is paid for a length (its power is −1) is told for a yard or a metre."""
    per, unit = LONG_UNIT[notation.units] if figure.power == -1 else (_ONE, "")
    kept = figure.value * per
    text = money_text(kept, notation.currency, finer, signed=False)
    return _Number(
        f"{text} a {unit}" if unit else text, rounded_money(kept, notation.currency, finer) / per
    )


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
    if figure.show == "hours":
        return write_decimal(value, 1) + " h"
    if figure.show == "money" and figure.power == 0:
        return money_text(value, notation.currency)
    if figure.power == 2 and notation.units == "metric":
        return write_decimal(value / IN_PER["cm"] ** 2, 0) + " cm²"
    if figure.power == 3 and notation.units == "inch":
        return write_decimal(value, 0) + " cu in"
    plain = given("", value, figure.basis, figure.power, figure.show)
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
