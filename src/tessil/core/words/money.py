"""Money as it is written where the maker lives: by her locale, in the job's currency.

The rules are the Unicode locale data's, by Babel; loaded when the first amount is written.
"""

from __future__ import annotations

import os
from functools import cache

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import round_near


def place() -> str:
    """The locale that money is written by, from the environment; plain English where none says."""
    for name in ("LC_ALL", "LC_MONETARY", "LANG"):
        said = os.environ.get(name, "").partition(".")[0].partition("@")[0]
        if said and said not in ("C", "POSIX"):
            return said if _known(said) else "en_US"
    return "en_US"


@cache
def _known(said: str) -> bool:
    from babel import Locale, UnknownLocaleError

    try:
        Locale.parse(said)
    except (UnknownLocaleError, ValueError):
        return False
    return True


@cache
def usual_currency(locale: str) -> str:
    """The currency of a locale's country today; none where it names no country."""
    from babel import Locale
    from babel.numbers import get_territory_currencies

    territory = Locale.parse(locale).territory
    return next(iter(get_territory_currencies(territory)), "") if territory else ""


def currency_of(code: str) -> str:
    """A currency that was chosen, or that of the maker's country; none where no country is said."""
    if code or not any(os.environ.get(name) for name in ("LC_ALL", "LC_MONETARY", "LANG")):
        return code
    named = place()
    return usual_currency(named) if named != "en_US" or _says("en_US") else ""


def _says(locale: str) -> bool:
    return any(
        os.environ.get(name, "").startswith(locale) for name in ("LC_ALL", "LC_MONETARY", "LANG")
    )


@cache
def is_currency(code: str) -> bool:
    """Whether three letters name a currency."""
    from babel.numbers import list_currencies

    return code in list_currencies()


@cache
def _decimals(code: str) -> int:
    from babel.numbers import get_currency_precision

    return int(get_currency_precision(code)) if code else 2


def rounded_money(value: Fraction, code: str, finer: int = 0) -> Fraction:
    """An amount to the smallest coin, or so many decimals finer."""
    step = Fraction(1, 10 ** (_decimals(currency_of(code)) + finer))
    return -round_near(-value, step) if value < 0 else round_near(value, step)


def money_text(value: Fraction, code: str, finer: int = 0, signed: bool = True) -> str:
    """An amount with its sign, ``€48.00``; the bare number where there is none or it is not
    wanted."""
    from decimal import Decimal

    from babel.numbers import format_currency, format_decimal

    code = currency_of(code)
    places = _decimals(code) + finer
    kept = rounded_money(value, code, finer)
    number = Decimal(int(kept * 10**places)).scaleb(-places)
    decimals = f".{'0' * places}" if places else ""
    if not code or not signed:
        return str(format_decimal(number, format=f"#,##0{decimals}", locale=place()))
    return str(format_currency(number, code, locale=place()))
