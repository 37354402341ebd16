"""A calculator: works out a printed sum from its letters alone, knowing nothing of what printed it.

Numbers stand as makers read them; the answer is in inches, square or cubic inches, or bare.
"""

import re
from fractions import Fraction
from math import ceil, floor, sqrt

CM = Fraction(100, 254)
UNITS = {
    "cm": CM,
    "mm": CM / 10,
    "m": CM * 100,
    "%": Fraction(1, 100),
    "cm²": CM**2,
    "l": CM**3 * 1000,
    "sq in": 1,
    "cu in": 1,
    "g": 1,
    "min": 1,
}
GLYPHS = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}
RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹₀₁₂₃₄₅₆₇₈₉", "01234567890123456789")
TOKEN = re.compile(
    r"\s*(?:(?P<number>\d+[⁰¹³⁴⁵⁶⁷⁸⁹²]+⁄[₀-₉]+|[⁰¹²³⁴⁵⁶⁷⁸⁹]+⁄[₀-₉]+|\d+(?:\.\d+)?[½¼¾⅛⅜⅝⅞⅓⅔]?"
    r"|[½¼¾⅛⅜⅝⅞⅓⅔])\s*(?P<unit>cm²|cm|mm|sq in|cu in|m\b|l\b|g\b|min\b|%)?"
    r"|(?P<word>largest of|smallest of|up to|down to|nearest|rounded up|whole ones|rounded)"
    r"|(?P<sign>[-+×÷−²√(),]))"
)


class Sum:
    """Recursive descent: worded roundings bind loosest, then + −, then × ÷, then ², √, brackets."""

    def __init__(self, text):
        self.tokens, at = [], 0
        while at < len(text):
            found = TOKEN.match(text, at)
            if found is None:
                raise ValueError(f"{text[at:]!r} in {text!r}")
            self.tokens.append(found)
            at = found.end()
        self.at = 0

    def peek(self, *wanted):
        if self.at < len(self.tokens):
            found = self.tokens[self.at]
            text = found["word"] or found["sign"]
            if text in wanted:
                return text
        return None

    def take(self, *wanted):
        text = self.peek(*wanted)
        if text:
            self.at += 1
        return text

    def loose(self):
        which = self.take("largest of", "smallest of")
        if which:
            values = [self.added()]
            while self.take(","):
                values.append(self.added())
            return (max if which == "largest of" else min)(values)
        value = self.added()
        while (
            self.peek(",") and self.at + 1 < len(self.tokens) and self.tokens[self.at + 1]["word"]
        ):
            self.at += 1
            value = self.rounding(value)
        return value

    def rounding(self, value):
        word = self.take("up to", "down to", "nearest", "rounded up", "whole ones", "rounded")
        if word in ("rounded up", "whole ones", "rounded"):
            return {"rounded up": ceil, "whole ones": floor}.get(word, lambda v: floor(v + 0.5))(
                value
            )
        mark = self.added()
        rounds = {"up to": ceil, "down to": floor, "nearest": lambda v: floor(v + Fraction(1, 2))}
        return rounds[word](value / mark) * mark

    def added(self):
        value = self.multiplied()
        while sign := self.take("+", "−"):
            other = self.multiplied()
            value = value + other if sign == "+" else value - other
        return value

    def multiplied(self):
        value = self.tight()
        while sign := self.take("×", "÷"):
            other = self.tight()
            value = value * other if sign == "×" else value / other
        return value

    def tight(self):
        if self.take("−"):
            return -self.tight()
        if self.take("√"):
            return Fraction(sqrt(self.tight()))
        if self.take("("):
            value = self.loose()
            assert self.take(")")
        else:
            value = number(self.tokens[self.at])
            self.at += 1
        while self.take("²"):
            value = value**2
        return value


def number(found):
    text = found["number"]
    mixed = re.fullmatch(r"(\d*)([⁰¹²³⁴⁵⁶⁷⁸⁹]+)⁄([₀-₉]+)", text)
    if mixed:
        over, under = (int(part.translate(RAISED)) for part in mixed.groups()[1:])
        value = int(mixed[1] or 0) + Fraction(over, under)
    elif text[-1] in GLYPHS:
        value = Fraction(text[:-1] or 0) + Fraction(GLYPHS[text[-1]])
    else:
        value = Fraction(text)
    return value * UNITS.get(found["unit"], 1)


def worked_out(text):
    """What a printed sum comes to; raises ValueError for letters that are no sum."""
    text = text.removeprefix("≈ ")
    whole = re.fullmatch(r"\((.*)\) mm|(.*[^)]) mm", text)
    in_mm = whole is not None and "cm" not in text
    if in_mm:  # a sum all in millimetres, its unit once at the end
        text = whole[1] or whole[2]
    found = Sum(text)
    value = found.loose()
    if found.at != len(found.tokens):
        raise ValueError(f"left over in {text!r}")
    return value * CM / 10 if in_mm else value
