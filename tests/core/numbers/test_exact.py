"""Exact fractions are those of the standard library, and no text reaches the compiled ones."""

import ast
import fractions
from math import ceil, floor
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import tessil
from tessil.core.numbers.exact import Fraction, fraction_of

NUMBERS = st.fractions(min_value=-(10**6), max_value=10**6, max_denominator=10**6)


@given(NUMBERS, NUMBERS)
def test_sums_are_those_of_the_standard_library(one, other):
    a, b = Fraction(one), Fraction(other)
    assert (a + b, a - b, a * b, -a, abs(a)) == (
        one + other,
        one - other,
        one * other,
        -one,
        abs(one),
    )
    assert (a < b, a <= b, a == b) == (one < other, one <= other, one == other)
    assert (floor(a), ceil(a), round(a)) == (floor(one), ceil(one), round(one))
    assert (hash(a), float(a), str(a)) == (hash(one), float(one), str(one))
    assert (a.numerator, a.denominator) == (one.numerator, one.denominator)
    if other:
        assert (a / b, a // b, a % b) == (one / other, one // other, one % other)


@pytest.mark.parametrize("text", ["8", "0", "3/8", "2.5", "-7", " 12.70 ", "1e3"])
def test_text_is_read_by_the_standard_library(text):
    assert fraction_of(text) == fractions.Fraction(text)
    assert type(fraction_of(text)) is Fraction


def test_what_says_no_number_is_refused():
    for text in ("", "x", "3/", "½"):
        with pytest.raises(ValueError, match="Invalid literal"):
            fraction_of(text)
    with pytest.raises(ZeroDivisionError):
        fraction_of("1/0")


def _texts(tree):
    """Calls of Fraction with a text, or with a str(...)."""
    for node in ast.walk(tree):
        if not (isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.args):
            continue
        given = node.args[0]
        if node.func.id == "Fraction" and (
            isinstance(given, ast.JoinedStr)
            or (isinstance(given, ast.Constant) and isinstance(given.value, str))
            or (isinstance(given, ast.Call) and ast.unparse(given.func) == "str")
        ):
            yield node.lineno


def test_no_text_goes_to_the_compiled_ones():
    assert list(_texts(ast.parse("Fraction('8')\nFraction(str(x))\nFraction(8)"))) == [1, 2]
    files = sorted(Path(tessil.__file__).parent.rglob("*.py"))
    assert len(files) > 200
    found = [
        (file.name, line)
        for file in files
        if file.name != "exact.py"
        for line in _texts(ast.parse(file.read_text("utf-8")))
    ]
    assert found == []
