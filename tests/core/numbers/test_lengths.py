"""Lengths are read as makers write them and written as makers read them."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import (
    LengthError,
    Notation,
    read_length,
    read_size,
    round_down,
    round_near,
    round_up,
    write_exact,
    write_fraction,
)
from tessil.core.numbers.rulers import rulers

F = Fraction


@pytest.mark.parametrize("units", ["inch", "metric"])
@pytest.mark.parametrize("marks", [None, "inch", "metric"])
def test_sizes_may_keep_to_the_marks_of_another_unit_than_they_are_read_in(units, marks):
    kept = rulers(units, marks)
    assert kept.notation.units == units
    assert kept.units == (marks or units)
    assert kept.ruler.value == (F(1, 8) if kept.units == "inch" else F(10, 254))


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("12 1/2", F(25, 2)),
        ("12½", F(25, 2)),
        ("12 ½", F(25, 2)),
        ("12.5", F(25, 2)),
        ("12,5", F(25, 2)),
        ('12-1/2"', F(25, 2)),
        ("12-½", F(25, 2)),
        ("12 1/2 in", F(25, 2)),
        ("12 - 1/2", F(23, 2)),
        ("31.8 cm", F(318 * 5, 127)),
        ("318 mm", F(318 * 5, 127)),
        ("12,5 cm", F(125 * 5, 127)),
        ("1/3 yd", F(12)),
        ("⅓ yd", F(12)),
        ("0.5 m", F(500 * 5, 127)),
        ("½ cm", F(25, 127)),
        ("3*2.5+1/2", F(8)),
        ("6 × (2½ − 2 × ¼) + 2 × ¼", F(25, 2)),
        ("1 yd 4 in", F(40)),
        ("10 cm + 1/2 in", F(500, 127) + F(1, 2)),
        ("2 ft 3 in", F(27)),
        ("3*2.5 cm", F(375, 127)),
        ("(1+2) cm", F(150, 127)),
        ("1/2/2", F(1, 4)),
        ("-3", F(-3)),
        (".5", F(1, 2)),
    ],
)
def test_reads_what_makers_write(text, inches):
    assert read_length(text) == inches


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "missing"),
        ("   ", "missing"),
        ("abc", "number is missing"),
        ("12 parsec", "no unit"),
        ("1/0", "divided by zero"),
        ("3/(1-1)", "divided by zero"),
        ("12 1/2 cm", "write 12.5 cm"),
        ("12½ mm", "write 12.5 mm"),
        ("11 m", "longer than 10 m"),
        ("99999999999", "longer than 10 m"),
        ("2 in * 3 in", "do not make a length"),
        ("4 in / 2 in", "do not make a length"),
        ("3*(", "number is missing"),
        ("(1", "bracket is not closed"),
        ("1)", "not expected"),
        ("5 $", "cannot be read"),
        ("(" * 30 + "1" + ")" * 30, "too many brackets"),
        ("1+" * 60 + "1", "too long"),
    ],
)
def test_says_what_is_wrong(text, says):
    with pytest.raises(LengthError, match=says):
        read_length(text)


def test_a_bare_number_is_inches_or_centimetres():
    assert read_length("10", "inch") == 10
    assert read_length("25.4", "metric") == 10
    with pytest.raises(LengthError, match=r"write 12\.5 cm"):
        read_length("12 1/2", "metric")


@pytest.mark.parametrize(
    ("text", "size"),
    [
        ("15 1/8 x 12", (F(121, 8), F(12))),
        ("15⅛ × 12", (F(121, 8), F(12))),
        ("15.125 by 12", (F(121, 8), F(12))),
        ("254 x 508 mm", (F(10), F(20))),
        ("10 in x 25.4 cm", (F(10), F(10))),
    ],
)
def test_reads_a_size(text, size):
    assert read_size(text) == size


@pytest.mark.parametrize("text", ["12", "12 x", "x 12", "1 x 2 x 3", "a x b"])
def test_a_size_needs_two_sides(text):
    with pytest.raises(LengthError):
        read_size(text)


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (F(25, 2), "12½"),
        (F(99, 8), "12⅜"),
        (F(3, 16), "³⁄₁₆"),
        (F(51, 16), "3³⁄₁₆"),
        (F(0), "0"),
        (F(-1, 2), "−½"),
        (F(7), "7"),
    ],
)
def test_writes_real_fractions(value, text):
    assert write_fraction(value) == text


def test_reading_off_rounds_but_exact_does_not():
    inch, metric = Notation("inch", F(1, 16)), Notation("metric", F(5, 127))
    value = read_length("31.8 cm")
    assert inch.read_off(value) == "12½"
    assert inch.exact(value) == "12.52"
    assert metric.read_off(value) == metric.exact(value) == "31.8 cm"
    assert inch.other(value) == "31.8 cm"
    assert inch.size(F(15), F(12)) == "15 × 12"
    assert metric.size(F(10), F(5)) == "25.4 × 12.7 cm"


def test_rounding_has_a_direction():
    value = F(101, 40)  # 2.525
    assert round_up(value, F(1, 8)) == F(21, 8)
    assert round_down(value, F(1, 8)) == F(5, 2)
    assert round_near(value, F(1, 8)) == F(5, 2)
    assert round_up(F(5, 2), F(1, 8)) == F(5, 2)


lengths = st.fractions(min_value=F(-300), max_value=F(300), max_denominator=10_000)


@given(lengths)
def test_a_file_keeps_every_length_exactly(value):
    assert read_length(write_exact(value)) == value


@given(st.integers(0, 50), st.integers(0, 63))
def test_what_is_written_is_read_back(whole, sixty_fourths):
    value = whole + F(sixty_fourths, 64)
    shown = write_fraction(value).replace("⁄", "/")
    plain = shown.translate(str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹₀₁₂₃₄₅₆₇₈₉", "01234567890123456789"))
    if value.denominator in (16, 32, 64) and whole:
        plain = plain.replace(str(whole), f"{whole} ", 1)
    assert read_length(plain) == value


@given(lengths.filter(lambda v: v > 0), st.sampled_from([F(1, 8), F(1, 4), F(5, 127)]))
def test_rounding_up_is_never_below_nor_a_mark_above(value, mark):
    up = round_up(value, mark)
    assert value <= up < value + mark
    assert (up / mark).denominator == 1


@pytest.mark.parametrize(
    ("text", "inches"), [("12¹³⁄₁₆", Fraction(205, 16)), ("⁵⁄₁₆", Fraction(5, 16))]
)
def test_what_is_written_with_small_figures_is_read_again(text, inches):
    assert read_length(text) == inches
    assert Notation("inch", Fraction(1, 16)).read_off(inches) == text


@pytest.mark.parametrize(
    ("text", "units", "says"),
    [
        ("1²", "inch", "“²” cannot be read as a length"),
        ("²", "inch", "“²” cannot be read as a length"),
        ("4²₃", "inch", "“²” cannot be read as a length"),
        ("--2", "inch", "Two minus signs"),
        ("12½½", "metric", "“½” was not expected there"),
        ("12½", "metric", "write 12.5 cm"),
    ],
)
def test_what_is_no_length_is_refused_with_the_right_hint(text, units, says):
    with pytest.raises(LengthError, match=re.escape(says)):
        read_length(text, units)


@pytest.mark.parametrize(
    ("units", "length", "up", "down", "near"),
    [
        ("inch", F(5), F(41, 8), F(39, 8), F(5)),
        ("inch", F(81, 16), F(41, 8), F(5), F(41, 8)),  # half of an eighth goes up
        ("metric", F(10, 254) * 50, F(10, 254) * 51, F(10, 254) * 49, F(10, 254) * 50),
    ],
)
def test_the_next_mark_on_a_tape(units, length, up, down, near):
    """Cloth is measured to an eighth of an inch, or to a millimetre: common practice."""
    notation = rulers(units).notation
    assert notation.next_mark(length, 1) == up
    assert notation.next_mark(length, -1) == down
    assert notation.nearest(length) == near


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("(" * 13 + "1" + ")" * 13, "too many brackets"),
        ("-(" * 13 + "1" + ")" * 13, "too many brackets"),
        ("--1", "Two minus signs in a row"),
    ],
)
def test_sums_inside_sums_end_somewhere(text, says):
    with pytest.raises(LengthError, match=says):
        read_length(text, "inch")


def test_twelve_brackets_are_not_too_many():
    assert read_length("(" * 12 + "1½" + ")" * 12, "inch") == F(3, 2)


@pytest.mark.parametrize(
    ("letter", "value"),
    [
        ("½", F(1, 2)),
        ("¼", F(1, 4)),
        ("¾", F(3, 4)),
        ("⅛", F(1, 8)),
        ("⅜", F(3, 8)),
        ("⅝", F(5, 8)),
        ("⅞", F(7, 8)),
        ("⅓", F(1, 3)),
        ("⅔", F(2, 3)),
    ],
)
def test_every_fraction_of_one_letter_is_read(letter, value):
    assert read_length(letter, "inch") == value
    assert read_length(f"2{letter}", "inch") == read_length(f"2 {letter} in", "inch") == 2 + value


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("3×2½", F(15, 2)),
        ("3·2½", F(15, 2)),
        ("9÷2", F(9, 2)),
        ("9⁄2×3", F(27, 2)),
        ("9−2½", F(13, 2)),
    ],
)
def test_the_signs_of_print_reckon_as_those_of_the_keys(text, inches):
    assert read_length(text, "inch") == inches
