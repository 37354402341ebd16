"""Money as it is written, against the toolkit's own locale data (the Unicode CLDR, as Babel's)."""

import pytest
from PySide6.QtCore import QLocale

from tessil.core.numbers.exact import Fraction
from tessil.core.words.money import currency_of, is_currency, money_text, place, usual_currency

LOCALES = ("en_US", "en_GB", "de_DE", "fr_FR", "nl_NL", "sv_SE", "da_DK", "ja_JP", "pt_BR")


def plain(text):
    """Digits and separators, whatever kind of space and sign stands beside them."""
    return "".join(letter for letter in text if letter.isdigit() or letter in ".,")


@pytest.mark.parametrize("locale", LOCALES)
@pytest.mark.parametrize("amount", ["48", "1234.5", "0.05"])
def test_amounts_are_written_as_the_toolkit_writes_them(locale, amount, monkeypatch):
    monkeypatch.setenv("LC_ALL", f"{locale}.UTF-8")
    theirs = QLocale(locale)
    code = theirs.currencySymbol(QLocale.CurrencySymbolFormat.CurrencyIsoCode)
    assert usual_currency(locale) == code
    ours = money_text(Fraction(amount), code)
    assert plain(ours) == plain(theirs.toCurrencyString(float(amount), theirs.currencySymbol()))


def test_without_a_country_there_is_no_currency(monkeypatch):
    for name in ("LC_ALL", "LC_MONETARY", "LANG"):
        monkeypatch.delenv(name, raising=False)
    assert (place(), currency_of("")) == ("en_US", "")
    assert money_text(Fraction(48), "") == "48.00"
    monkeypatch.setenv("LANG", "C.UTF-8")
    assert currency_of("") == ""
    monkeypatch.setenv("LANG", "de_DE.UTF-8")
    assert (place(), currency_of(""), currency_of("GBP")) == ("de_DE", "EUR", "GBP")
    monkeypatch.setenv("LANG", "xx_nonsense")
    assert place() == "en_US"


def test_half_a_cent_and_less_than_nothing(monkeypatch):
    monkeypatch.setenv("LC_ALL", "en_US.UTF-8")
    assert money_text(Fraction("0.005"), "EUR") == "€0.01"
    assert money_text(Fraction("-3.456"), "EUR") == "-€3.46"
    assert money_text(Fraction("12.3456"), "EUR", 1, signed=False) == "12.346"
    assert money_text(Fraction("48.4"), "JPY") == "¥48"


def test_currencies_are_the_published_ones():
    """ISO 4217."""
    assert all(map(is_currency, ("EUR", "GBP", "USD", "SEK", "JPY")))
    assert not is_currency("ABC")
