"""Amounts as people write them."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.money import MoneyError, kept_money, read_money, write_money

F = Fraction


@pytest.mark.parametrize(
    ("text", "amount"),
    [
        ("48", F(48)),
        ("€ 48", F(48)),
        ("48.-", F(48)),
        ("48,–", F(48)),
        ("12.50", F(25, 2)),
        ("12,5 EUR", F(25, 2)),
        ("$1,234.50", F(2469, 2)),
        ("1.234,50 €", F(2469, 2)),
        ("1'234.50", F(2469, 2)),
        ("1,234", F(1234)),
        ("1.234.567", None),  # more than a million
        ("0,05", F(1, 20)),
        (".5", F(1, 2)),
        ("0.125", F(1, 8)),  # not thousands: nobody writes a nought before them
        ("7/18", F(7, 18)),
        ("1 200", F(1200)),
        ("", None),
        ("free", None),
        ("-3", None),
        ("−3", None),
        ("1/0", None),
        ("1e9", None),
        ("٣", None),
    ],
)
def test_an_amount_is_read_or_refused_in_a_sentence(text, amount):
    if amount is not None:
        assert read_money(text) == amount
        return
    with pytest.raises(MoneyError) as trouble:
        read_money(text)
    assert str(trouble.value)[0].isupper()
    assert str(trouble.value).endswith(".")


@given(st.fractions(0, 10**6, max_denominator=10**9))
def test_an_amount_in_a_file_is_read_back_exactly(amount):
    assert kept_money(write_money(F(amount.numerator, amount.denominator))) == amount


@given(st.integers(1, 999_999), st.integers(1, 9))
def test_a_point_in_a_file_parts_no_thousands(amount, places):
    """Three figures after it are thousandths there: 1.125 is what an inch costs at 40.50 a yard."""
    assert kept_money(write_money(F(amount, 10**places))) == F(amount, 10**places)
    assert kept_money(f"{amount}.125") == amount + F(1, 8)


@pytest.mark.parametrize("text", ["1,234.50", "€ 12", "1/3", "", "1000001", "1e9"])
def test_all_else_in_a_file_is_read_as_people_write(text):
    try:
        amount = read_money(text)
    except MoneyError as trouble:
        with pytest.raises(MoneyError, match=re.escape(str(trouble))):
            kept_money(text)
    else:
        assert kept_money(text) == amount
