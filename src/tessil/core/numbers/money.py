"""Amounts of money as people write them: signs, separators and a dash for no cents.

Knows numbers; must not know what is paid for.
"""

from __future__ import annotations

import re

from tessil.core.numbers.exact import Fraction

MOST = Fraction(1_000_000)
# A sign or letters before and behind, never between; ``48.-`` and ``48,–`` have no cents.
_AMOUNT = re.compile(r"(?P<before>[^0-9]*)(?P<amount>[0-9](?:[0-9.,'’/\s]*[0-9])?)[^0-9/]*")
_PLAIN = re.compile(r"[0-9]+(\.[0-9]{1,9})?")


class MoneyError(ValueError):
    """A text that is no amount, with a sentence for the person who typed it."""


def read_money(text: str) -> Fraction:
    """An amount: ``48``, ``€ 1,234.50``, ``1.234,50 EUR``, ``48.-``; of two separators the last is
    the decimal one, a single one that stands before three figures parts thousands.

    Raises MoneyError for what is no amount, is below zero or beyond a million.
    """
    found = _AMOUNT.fullmatch(text.strip())
    if found is None:
        raise MoneyError("An amount of money goes here, such as 12.50.")
    if any(sign in found["before"] for sign in "-−–"):
        raise MoneyError("An amount cannot be below zero.")
    point = "0." if found["before"].endswith((".", ",")) else ""
    over, _, under = f"{point}{''.join(found['amount'].split())}".partition("/")
    value = _number(over)
    if under:
        parts = _number(under)
        if not parts:
            raise MoneyError("Nothing can be divided by zero.")
        value /= parts
    if value > MOST:
        raise MoneyError("So much is no price of a bag: 1,000,000 at most.")
    return value


def _number(text: str) -> Fraction:
    plain = text.replace("'", "").replace("’", "")
    last = max(plain.rfind("."), plain.rfind(","))
    if last >= 0:
        both = "." in plain and "," in plain
        many = plain.count(plain[last]) > 1
        thousands = many or (not both and re.fullmatch(r"[1-9][0-9]{0,2}[.,][0-9]{3}", plain))
        whole = re.sub("[.,]", "", plain[:last])
        plain = re.sub("[.,]", "", plain) if thousands else f"{whole}.{plain[last + 1 :]}"
    if not _PLAIN.fullmatch(plain.rstrip(".")):
        raise MoneyError("An amount of money goes here, such as 12.50.")
    over, _, under = plain.rstrip(".").partition(".")
    return Fraction(int(over + under), 10 ** len(under))


def kept_money(text: str) -> Fraction:
    """An amount as a file keeps it, where a single point is the decimal one however many figures
    follow it; else as people write it.  Raises MoneyError as ``read_money`` does."""
    if not _PLAIN.fullmatch(text):
        return read_money(text)
    over, _, under = text.partition(".")
    value = Fraction(int(over + under), 10 ** len(under))
    return value if value <= MOST else read_money(text)


def write_money(value: Fraction) -> str:
    """An amount for a file: a decimal where it is one, else p/q."""
    scaled = value * 10**6
    if scaled.denominator == 1:
        over, under = divmod(int(scaled), 10**6)
        return f"{over}.{under:06d}".rstrip("0").rstrip(".")
    return f"{value.numerator}/{value.denominator}"
