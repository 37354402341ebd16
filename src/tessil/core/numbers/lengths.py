"""Exact lengths: reading them as makers write them, writing them as makers read them.

Knows inches, yards, feet and metric, fractions and small sums.  Must not know what a
length is for.  Inside, a length is a ``Fraction`` of an inch; 1 in = 25.4 mm exactly
(international inch, 1959), so metric input loses nothing.
"""

from __future__ import annotations

import re
from functools import lru_cache
from math import ceil, floor, isqrt
from typing import Literal

from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.records import Record

Inches = Fraction
Units = Literal["inch", "metric"]

MM_PER_INCH = Fraction(254, 10)
IN_PER = {
    "in": Fraction(1),
    "ft": Fraction(12),
    "yd": Fraction(36),
    "mm": 1 / MM_PER_INCH,
    "cm": 10 / MM_PER_INCH,
    "m": 1000 / MM_PER_INCH,
}
LONGEST = 10 * IN_PER["m"]
FARTHEST = 1000 * IN_PER["m"]  # of cloth, cord and the like, as they are sold and cut from

_SPELLINGS = {
    "in": "in",
    "inch": "in",
    "inches": "in",
    '"': "in",
    "″": "in",
    "”": "in",
    "''": "in",
    "ft": "ft",
    "foot": "ft",
    "feet": "ft",
    "'": "ft",
    "′": "ft",
    "yd": "yd",
    "yds": "yd",
    "yard": "yd",
    "yards": "yd",
    "mm": "mm",
    "cm": "cm",
    "m": "m",
}
_METRIC = {"mm", "cm", "m"}
_VULGAR = {
    "½": Fraction(1, 2),
    "¼": Fraction(1, 4),
    "¾": Fraction(3, 4),
    "⅛": Fraction(1, 8),
    "⅜": Fraction(3, 8),
    "⅝": Fraction(5, 8),
    "⅞": Fraction(7, 8),
    "⅓": Fraction(1, 3),
    "⅔": Fraction(2, 3),
}
_TOKEN = re.compile(
    r"\s*(?:"
    r"(?P<mixed>\d+(?:\s+|-)\d+\s*[/⁄]\s*\d+(?![.,]?\d))"
    r"|(?P<vulgar>(?:\d+\s*-?)?[½¼¾⅛⅜⅝⅞⅓⅔])"
    r"|(?P<fraction>\d+\s*[/⁄]\s*\d+(?![.,]?\d))"
    r"|(?P<decimal>\d+[.,]\d+|[.,]\d+)"
    r"|(?P<whole>\d+)"
    r"|(?P<unit>''|[a-zA-Z]+|[\"″”'′])"
    r"|(?P<op>[-+*/()×·÷−⁄])"
    r")"
)
# Small raised and lowered figures, as this program writes sixteenths itself.
_PLAIN = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹₀₁₂₃₄₅₆₇₈₉", "01234567890123456789")
_APART = re.compile(r"(?<=[0-9])(?=[⁰¹²³⁴⁵⁶⁷⁸⁹]+⁄)")
_SMALL = "⁰¹²³⁴⁵⁶⁷⁸⁹₀₁₂₃₄₅₆₇₈₉"
_SMALL_FRACTION = re.compile("[⁰¹²³⁴⁵⁶⁷⁸⁹]+⁄[₀₁₂₃₄₅₆₇₈₉]+")  # they stand in fractions only
_OPS = {"×": "*", "·": "*", "÷": "/", "⁄": "/", "−": "-"}
_MOST_LETTERS = 80


class LengthError(ValueError):
    """A text that is no length; the message is a sentence for the maker."""


class _Quantity(Record, frozen=True):
    value: Fraction
    power: int  # power of length: 0 a bare number, 1 a length in inches


class _Reader:
    """Recursive descent over one typed text; bare numbers take ``unit`` at the end."""

    def __init__(self, text: str, unit: str) -> None:
        self.text = text.strip()
        self.unit = unit
        self.tokens = self._tokens()
        self.at = 0

    def _tokens(self) -> list[tuple[str, str]]:
        if len(self.text) > _MOST_LETTERS:
            raise LengthError("That is too long for a length: keep it to one small sum.")
        found: list[tuple[str, str]] = []
        at, end = 0, len(self.text)
        while at < end:
            match = _TOKEN.match(self.text, at)
            if match is None:
                raise LengthError(f"“{self.text[at:].strip()[:12]}” cannot be read as a length.")
            kind = match.lastgroup or ""
            found.append((kind, match.group(kind)))
            at = match.end()
        return found

    def _peek(self, kind: str, among: str = "") -> str | None:
        if self.at < len(self.tokens):
            got, text = self.tokens[self.at]
            text = _OPS.get(text, text)
            if got == kind and (not among or text in among):
                return text
        return None

    def length(self) -> Fraction:
        if not self.tokens:
            raise LengthError("A length is missing here.")
        total = self._settled(self._sum(0))
        if self.at < len(self.tokens):
            raise LengthError(f"“{self.tokens[self.at][1]}” was not expected there.")
        return total

    def _settled(self, quantity: _Quantity) -> Fraction:
        if quantity.power == 0:
            return quantity.value * IN_PER[self.unit]
        if quantity.power != 1:
            raise LengthError("Two lengths multiplied or divided do not make a length.")
        return quantity.value

    def _sum(self, depth: int) -> _Quantity:
        total = self._product(depth)
        while sign := self._peek("op", "+-"):
            self.at += 1
            total = self._added(total, self._product(depth), 1 if sign == "+" else -1)
        return total

    def _added(self, left: _Quantity, right: _Quantity, sign: int) -> _Quantity:
        if left.power == right.power == 0:
            return _Quantity(left.value + sign * right.value, 0)
        return _Quantity(self._settled(left) + sign * self._settled(right), 1)

    def _product(self, depth: int) -> _Quantity:
        total = self._signed(depth)
        while sign := self._peek("op", "*/"):
            self.at += 1
            other = self._signed(depth)
            if sign == "*":
                total = _Quantity(total.value * other.value, total.power + other.power)
            elif total.power == other.power == 1:
                raise LengthError("Two lengths multiplied or divided do not make a length.")
            elif other.value == 0:
                raise LengthError("Nothing can be divided by zero.")
            else:
                total = _Quantity(total.value / other.value, total.power - other.power)
            if (unit := self._unit()) and total.power == 0:
                total = _Quantity(total.value * IN_PER[unit], 1)
        return total

    def _signed(self, depth: int) -> _Quantity:
        if self._peek("op", "-"):
            self.at += 1
            if self._peek("op", "-"):
                raise LengthError("Two minus signs in a row make no length.")
            inner = self._signed(depth + 1)
            return _Quantity(-inner.value, inner.power)
        return self._run(depth)

    def _run(self, depth: int) -> _Quantity:
        """One number or bracket with its unit, and more of them side by side: ``1 yd 4 in``."""
        total = self._one(depth)
        while total.power == 1 and self._starts_number():
            total = self._added(total, self._one(depth), 1)
        return total

    def _starts_number(self) -> bool:
        return self.at < len(self.tokens) and self.tokens[self.at][0] in (
            "mixed",
            "vulgar",
            "fraction",
            "decimal",
            "whole",
        )

    def _one(self, depth: int) -> _Quantity:
        if depth > 12:
            raise LengthError("That sum has too many brackets inside each other.")
        if self._peek("op", "("):
            return self._bracket(depth)
        if not self._starts_number():
            seen = self.tokens[self.at][1] if self.at < len(self.tokens) else self.text
            raise LengthError(f"A number is missing near “{seen[:12]}”.")
        kind, text = self.tokens[self.at]
        self.at += 1
        value = _number(kind, text)
        unit = self._unit()
        mixed = kind == "mixed" or (kind == "vulgar" and len(text) > 1)
        if mixed and self._starts_number():
            raise LengthError(f"“{self.tokens[self.at][1]}” was not expected there.")
        if mixed and (unit or self.unit) in _METRIC:
            shown = f"{float(value):g} {unit or self.unit}"
            raise LengthError(f"Metric lengths take no fractions: write {shown}.")
        return _Quantity(value * IN_PER[unit], 1) if unit else _Quantity(value, 0)

    def _bracket(self, depth: int) -> _Quantity:
        self.at += 1
        inner = self._sum(depth + 1)
        if not self._peek("op", ")"):
            raise LengthError("A bracket is not closed.")
        self.at += 1
        unit = self._unit()
        if unit and inner.power == 0:
            return _Quantity(inner.value * IN_PER[unit], 1)
        return inner

    def _unit(self) -> str | None:
        if (word := self._peek("unit")) is None:
            return None
        self.at += 1
        try:
            return _SPELLINGS[word.lower()]
        except KeyError:
            raise LengthError(f"“{word[:12]}” is no unit: use in, yd, mm, cm or m.") from None


def _number(kind: str, text: str) -> Fraction:
    """The value of one number token; raises LengthError for a zero denominator."""
    try:
        if kind == "mixed":
            whole, over, under = (int(n) for n in re.findall(r"\d+", text))
            return whole + Fraction(over, under)
        if kind == "vulgar":
            whole_text = text[:-1].strip(" -")
            return int(whole_text or 0) + _VULGAR[text[-1]]
        if kind == "fraction":
            over, under = (int(n) for n in re.findall(r"\d+", text))
            return Fraction(over, under)
        return fraction_of(text.replace(",", "."))
    except ZeroDivisionError:
        raise LengthError("Nothing can be divided by zero.") from None


def bare_unit(units: Units) -> str:
    """The unit of a number typed without one: inches, or centimetres."""
    return "in" if units == "inch" else "cm"


@lru_cache(4096)
def read_length(text: str, units: Units = "inch", longest: Inches = LONGEST) -> Inches:
    """Exact inches from what a maker typed.

    Takes ``12 1/2``, ``12½``, ``12-1/2"``, ``12,5 cm``, ``1/3 yd``, ``1 yd 4 in`` and sums
    such as ``3*2.5+1/2``.  Raises LengthError, with a sentence, for anything else and for
    lengths beyond the ``longest``.  The sign is kept: what may be negative is the field's matter.
    """
    left = _SMALL_FRACTION.sub("", text)
    small = next((letter for letter in left if letter in _SMALL), "")
    if small:
        raise LengthError(f"“{small}” cannot be read as a length: write plain figures.")
    plain = _APART.sub(" ", text).translate(_PLAIN)
    value = _Reader(plain, bare_unit(units)).length()
    if abs(value) > longest:
        if longest > LONGEST:
            raise LengthError("That is longer than 1000 m: nobody lays so much by.")
        raise LengthError("That is longer than 10 m (394 in): no bag needs it.")
    return value


def read_size(text: str, units: Units = "inch", longest: Inches = LONGEST) -> tuple[Inches, Inches]:
    """Width and height from ``15 1/8 x 12`` (x, × or by between them).

    A unit written only once, at the end, counts for both: ``38 x 30 mm``.
    """
    parts = re.split(r"\s*(?:[xX×]|\bby\b)\s*", text.strip())
    if len(parts) != 2 or not all(parts):
        raise LengthError("Give width × height, such as 15 1/8 x 12.")
    trailing = re.search(r"[a-zA-Z\"″]+$", parts[1])
    if trailing and not re.search(r"[a-zA-Z\"″']\s*$", parts[0]):
        parts[0] += " " + trailing.group()
    return read_length(parts[0], units, longest), read_length(parts[1], units, longest)


def round_up(value: Inches, mark: Inches) -> Inches:
    """The next ruler mark at or above."""
    return ceil(value / mark) * mark


def round_down(value: Inches, mark: Inches) -> Inches:
    """The next ruler mark at or below."""
    return floor(value / mark) * mark


def round_near(value: Inches, mark: Inches) -> Inches:
    """The nearest ruler mark; a tie goes up, as a maker would cut it."""
    return floor(value / mark + Fraction(1, 2)) * mark


_GLYPHS = {value: glyph for glyph, value in _VULGAR.items()}
_RAISED = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")
_LOWERED = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")


def write_fraction(value: Fraction) -> str:
    """A number with a real fraction: ``12⅜``, ``3³⁄₁₆``; ``−½`` below zero."""
    sign, value = ("−" if value < 0 else ""), abs(value)
    whole, rest = divmod(value, 1)
    if rest == 0:
        return f"{sign}{whole}"
    glyph = _GLYPHS.get(rest) or (
        str(rest.numerator).translate(_RAISED) + "⁄" + str(rest.denominator).translate(_LOWERED)
    )
    return f"{sign}{whole or ''}{glyph}"


def write_degrees(angle: float) -> str:
    """``45°``, ``−20°``, ``22.5°``: to a tenth, with a real minus."""
    return f"{round(angle, 1):g}°".replace("-", "−")


def write_decimal(value: Fraction, places: int) -> str:
    """A plain decimal without trailing zeros, rounded to the nearest, a tie away from zero."""
    scaled = floor(abs(value) * 10**places + Fraction(1, 2))
    text = f"{scaled // 10**places}.{scaled % 10**places:0{places}d}" if places else str(scaled)
    text = text.rstrip("0").rstrip(".") if places else text
    return ("−" if value < 0 and scaled else "") + text


def write_kept(value: Fraction, places: int) -> str:
    """A decimal that is not taken for the whole number beside it: ``2.997`` with two places is
    ``3.00``; a whole number has no noughts."""
    text = write_decimal(value, places)
    if value.denominator != 1 and "." not in text and places:
        return f"{text}.{'0' * places}"
    return text


def exact_root(value: Fraction) -> Fraction:
    """The square root of a number that is not negative: exact where it is a fraction itself, else
    cut off after twelve decimals."""
    over, under = isqrt(value.numerator), isqrt(value.denominator)
    if over * over == value.numerator and under * under == value.denominator:
        return Fraction(over, under)
    return Fraction(isqrt(value.numerator * 10**24 // value.denominator), 10**12)


def is_on_mark(value: Inches, mark: Inches) -> bool:
    """Whether a length falls on a ruler mark exactly."""
    return (value / mark).denominator == 1


class Notation(Record, frozen=True):
    """How a maker reads lengths and money: unit system, finest ruler mark (in inches), currency."""

    units: Units = "inch"
    mark: Inches = Fraction(1, 16)
    currency: str = ""  # that amounts of money are in

    def read_off(self, value: Inches, unit: bool = False) -> str:
        """A length as one would read it off the ruler, rounded to the nearest mark."""
        if self.units == "metric":
            return write_decimal(round_near(value, self.mark) / IN_PER["cm"], 2) + " cm"
        return write_fraction(round_near(value, self.mark)) + (" in" if unit else "")

    def read_under(self, value: Inches, unit: bool = False) -> str:
        """The same of what must not seem more than it is: down to a mark, or the least one."""
        return self.read_off(max(round_down(value, self.mark), self.mark), unit)

    def reads(self, value: Inches) -> bool:
        """Whether a difference can be seen against the ruler's marks at all."""
        return 2 * abs(value) >= self.mark

    def exact(self, value: Inches, unit: bool = False) -> str:
        """A length that does not hide anything: a fraction if it is one, else decimals."""
        if self.units == "metric":
            return write_kept(value / IN_PER["cm"], 3) + " cm"
        if is_on_mark(value, Fraction(1, 32)) or value.denominator == 3:
            text = write_fraction(value)
        else:
            text = write_kept(value, 3 if abs(value) < 1 else 2)
        return text + (" in" if unit else "")

    def size(self, *values: Inches) -> str:
        """Sides of one thing, with the unit once: ``15⅛ × 12``, ``38.4 × 30.5 cm``."""
        sides = [self.read_off(value).removesuffix(" cm") for value in values]
        return " × ".join(sides) + (" cm" if self.units == "metric" else "")

    def nearest(self, value: Inches) -> Inches:
        """The nearest mark a maker reads while measuring cloth: ⅛ in or 1 mm."""
        return round_near(value, self._cloth_mark)

    def next_mark(self, value: Inches, by: int) -> Inches:
        """The next such mark above (``by`` > 0) or below a length."""
        mark = self._cloth_mark
        return (floor(value / mark) + 1 if by > 0 else ceil(value / mark) - 1) * mark

    @property
    def _cloth_mark(self) -> Inches:
        return self.mark * 2 if self.units == "inch" else self.mark

    def other(self, value: Inches) -> str:
        """The same length in the other unit, for a faint second reading."""
        if self.units == "metric":
            return write_fraction(round_near(value, Fraction(1, 16))) + " in"
        return write_decimal(value / IN_PER["cm"], 1) + " cm"


def write_exact(value: Inches) -> str:
    """A length for a file: exact, short and readable back by :func:`read_length`.

    Inches where the fraction is a ruler's, millimetres where they come out, else p/q in.
    """
    if value.denominator <= 64 and 64 % value.denominator == 0:
        whole, rest = divmod(abs(value), 1)
        body = " ".join(str(part) for part in (whole or None, rest or None) if part) or "0"
        return ("-" if value < 0 else "") + body + " in"
    mm = value * MM_PER_INCH
    if 10**4 % mm.denominator == 0:
        scaled = abs(mm) * 10**4
        body = f"{scaled.numerator // 10**4}.{scaled.numerator % 10**4:04d}".rstrip("0").rstrip(".")
        return ("-" if mm < 0 else "") + body + " mm"
    return f"{value.numerator}/{value.denominator} in"
