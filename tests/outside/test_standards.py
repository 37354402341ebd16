"""Lengths against the international inch, and papers against ISO 216.

The inch is 25.4 mm exactly by the international yard and pound agreement of 1959; ISO 216
gives A4 as 210 × 297 mm and A5 as 148 × 210 mm.  Both from memory of the standards' text.
"""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.brief.choice import Held, ShapeChoice, Thing
from tessil.core.numbers.lengths import read_length, write_exact
from tessil.core.plan import plan
from tests.conftest import tote


def test_the_inch_of_1959():
    assert read_length("25.4 mm") == 1
    assert read_length("0.9144 m") == read_length("1 yd") == 36
    assert read_length("30.48 cm") == read_length("1 ft")


@given(st.integers(1, 100_000))
def test_hundredths_of_a_millimetre_agree_with_pythons_fractions(hundredths):
    text = f"{hundredths // 100}.{hundredths % 100:02d} mm"
    expected = Fraction(text.removesuffix(" mm")) / Fraction("25.4")
    if expected <= 390:
        assert read_length(text) == expected
        assert read_length(write_exact(expected)) == expected


@given(st.integers(0, 60), st.integers(0, 31), st.sampled_from([2, 4, 8, 16, 32]))
def test_mixed_numbers_agree_with_pythons_fractions(whole, over, under):
    assert read_length(f"{whole} {over}/{under}") == whole + Fraction(over, under)


@pytest.mark.parametrize(("name", "width", "height"), [("A4", 210, 297), ("A5", 148, 210)])
def test_a_tote_made_for_an_iso_sheet_takes_it(name, width, height):
    millimetre = Fraction(5, 127)
    sheets = Thing(
        name=name, width=width * millimetre, height=height * millimetre, thickness=20 * millimetre
    )
    held = Held(things=(sheets,), minded=True)
    made = plan(tote(shape=ShapeChoice(way="object"), hold=held))
    inside = {one.id: one.figure.value for one in made.bag.inside}
    assert inside["inside-width"] > width * millimetre
    assert inside["inside-height"] > height * millimetre
    assert inside["inside-depth"] > 20 * millimetre
