"""Kinds of fields the documents are made of: exact lengths, angles, names, and their bounds.

Frozen pydantic types, shared by the project and the logbook.  Must not know what is asked.
"""

from __future__ import annotations

from numbers import Rational
from typing import Annotated, Any

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    InstanceOf,
    PlainSerializer,
    WithJsonSchema,
)

from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import LONGEST, Inches, LengthError, read_length, write_exact


def _length(value: Any) -> Inches:
    if isinstance(value, Fraction):
        return value
    if isinstance(value, str):
        try:
            return read_length(value)
        except LengthError as error:
            raise ValueError(str(error)) from None
    if isinstance(value, Rational) and not isinstance(value, bool):
        return Fraction(value)
    raise ValueError("A length is written as text, such as 12 1/2 in.")


def _degrees(value: Any) -> Fraction:
    """An angle to the width, lines rising to the right if positive; level and upright have
    their own choice."""
    try:
        angle = fraction_of(str(value).strip().removesuffix("°").replace("−", "-"))
    except (ValueError, ZeroDivisionError):
        raise ValueError("An angle is a number of degrees, such as 45.") from None
    if angle == 0:
        raise ValueError("At 0° they lie level: choose level instead.")
    if abs(angle) == 90:
        raise ValueError("At 90° they stand upright: choose upright instead.")
    if abs(angle) > 90:
        raise ValueError("Give an angle between −90 and 90 degrees.")
    if abs(angle) < 5 or abs(angle) > 85:
        raise ValueError("So near to level or upright the ends run out: 5° to 85°.")
    return angle


def _bounded(low: Inches, high: Inches, strict: bool, sentence: str) -> AfterValidator:
    def check(value: Inches) -> Inches:
        if value > high:
            raise ValueError(f"At most {write_exact(high)} goes here.")
        if value < low or (strict and value == low):
            raise ValueError(sentence)
        return value

    return AfterValidator(check)


# The validator must know the number's type, not how to read it: what stands before it does that.
_Exact = Annotated[Fraction, InstanceOf()]
_AS_TEXT = (
    BeforeValidator(_length),
    PlainSerializer(write_exact, return_type=str),
    WithJsonSchema({"type": "string", "pattern": r"^-?[0-9 ./]+ (in|mm)$", "maxLength": 80}),
)
_MORE = "This must be more than zero."
_NOT_LESS = "This cannot be below zero."
Size = Annotated[_Exact, *_AS_TEXT, _bounded(Fraction(0), LONGEST, True, _MORE)]
Room = Annotated[_Exact, *_AS_TEXT, _bounded(Fraction(0), Fraction(12), False, _NOT_LESS)]
Room60 = Annotated[_Exact, *_AS_TEXT, _bounded(Fraction(0), LONGEST, False, _NOT_LESS)]
Ranged = Annotated[
    _Exact, *_AS_TEXT, _bounded(-Fraction(12), LONGEST, False, "That lies far off the panel.")
]
Seam = Annotated[
    _Exact,
    *_AS_TEXT,
    _bounded(Fraction(1, 16), Fraction(2), False, "A seam needs at least 1/16 in (1.6 mm)."),
]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Key = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
Colour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]


class Decided(BaseModel):
    """Base of all parts of the document: frozen, and strict about unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


_AS_NUMBER = (PlainSerializer(float), WithJsonSchema({"type": "number"}))
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


def _part(value: Any) -> Fraction:
    """A share, exact as it is written in decimals."""
    try:
        return value if isinstance(value, Fraction) else fraction_of(str(value))
    except (ValueError, ZeroDivisionError):
        raise ValueError("A share goes here, such as 0.03.") from None


ExactShare = Annotated[_Exact, BeforeValidator(_part), *_AS_NUMBER]
Degrees = Annotated[_Exact, BeforeValidator(_degrees), *_AS_NUMBER]
