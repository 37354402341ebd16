"""Kinds of fields the documents are made of: exact lengths, angles, names, and their bounds.

Frozen pydantic types, shared by the project and the logbook.  Must not know what is asked.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache, partial
from numbers import Rational
from typing import Annotated, Any, TypeVar

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic_core import CoreSchema, core_schema

from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import (
    FARTHEST,
    LONGEST,
    Inches,
    LengthError,
    read_length,
    write_exact,
)
from tessil.core.numbers.money import MOST, read_money, write_money


def _length(value: Any, longest: Inches = LONGEST) -> Inches:
    if isinstance(value, Fraction):
        return value
    if isinstance(value, str):
        try:
            return read_length(value, longest=longest)
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


class _Kind:
    """A kind of field, built once for all that are of it: most of what a document's types take to
    make ready is the same kinds over and over."""

    def __init__(self, schema: CoreSchema, written: dict[str, Any] | None = None) -> None:
        self._schema, self._written = schema, written

    def __get_pydantic_core_schema__(self, _source: Any, _handler: GetCoreSchemaHandler) -> Any:
        return self._schema

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return dict(self._written) if self._written else handler(schema)


def _exact(
    read: Callable[[Any], Fraction],
    write: Callable[[Fraction], object],
    returns: CoreSchema,
    written: dict[str, Any],
) -> _Kind:
    """An exact number, read and written by these."""
    serialization = core_schema.plain_serializer_function_ser_schema(write, return_schema=returns)
    return _Kind(
        core_schema.no_info_plain_validator_function(read, serialization=serialization), written
    )


_LENGTH = {"type": "string", "pattern": r"^-?[0-9 ./]+ (in|mm)$", "maxLength": 80}
_NUMBER = {"type": "number"}


def _bounded(low: Inches, high: Inches, strict: bool, sentence: str) -> _Kind:
    """A length between bounds."""

    def read(value: Any) -> Inches:
        length = _length(value, max(high, LONGEST))
        if length > high:
            raise ValueError(f"At most {write_exact(high)} goes here.")
        if length < low or (strict and length == low):
            raise ValueError(sentence)
        return length

    return _exact(read, write_exact, core_schema.str_schema(), _LENGTH)


_MORE = "This must be more than zero."
_NOT_LESS = "This cannot be below zero."
_FAR = "That lies far off the panel."
_THIN = "A seam needs at least 1/16 in (1.6 mm)."
Size = Annotated[Fraction, _bounded(Fraction(0), LONGEST, True, _MORE)]
Room = Annotated[Fraction, _bounded(Fraction(0), Fraction(12), False, _NOT_LESS)]
Room60 = Annotated[Fraction, _bounded(Fraction(0), LONGEST, False, _NOT_LESS)]
Bolt = Annotated[Fraction, _bounded(Fraction(0), FARTHEST, True, _MORE)]  # as it is sold
Along = Annotated[Fraction, _bounded(Fraction(0), FARTHEST, False, _NOT_LESS)]  # a bolt
Longer = Annotated[Fraction, _bounded(-Fraction(4), Fraction(12), False, _FAR)]  # or shorter
Ranged = Annotated[Fraction, _bounded(-Fraction(12), LONGEST, False, _FAR)]
Seam = Annotated[Fraction, _bounded(Fraction(1, 16), Fraction(2), False, _THIN)]
Name = Annotated[str, _Kind(core_schema.str_schema(min_length=1, max_length=80))]
Key = Annotated[str, _Kind(core_schema.str_schema(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$"))]
Colour = Annotated[str, _Kind(core_schema.str_schema(pattern=r"^#[0-9a-f]{6}$"))]


class Decided(BaseModel):
    """Base of all parts of the document: frozen, and strict about unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


Part = TypeVar("Part", bound=Decided)


def usual(kind: type[Part]) -> Callable[[], Part]:
    """Gives the part of the document with nothing decided, as a default.

    It is frozen, so that all share the one; made when it is first asked for, and without building
    what checks such parts.
    """
    return partial(_usual, kind)


@cache
def _usual(kind: type[Part]) -> Part:
    return kind.model_construct()


Share = Annotated[float, _Kind(core_schema.float_schema(ge=0, le=1, allow_inf_nan=False))]


def _part(value: Any) -> Fraction:
    """A share, exact as it is written in decimals."""
    try:
        return value if isinstance(value, Fraction) else fraction_of(str(value))
    except (ValueError, ZeroDivisionError):
        raise ValueError("A share goes here, such as 0.03.") from None


ExactShare = Annotated[Fraction, _exact(_part, float, core_schema.float_schema(), _NUMBER)]
Degrees = Annotated[Fraction, _exact(_degrees, float, core_schema.float_schema(), _NUMBER)]


def _money(value: Any) -> Fraction:
    """An amount of money; ``MoneyError`` is a ValueError with its sentence."""
    if isinstance(value, Fraction):
        if not 0 <= value <= MOST:
            raise ValueError("An amount from 0 to 1,000,000 goes here.")
        return value
    if isinstance(value, (int, float)) and not isinstance(value, bool):
        return read_money(str(value))
    if isinstance(value, str):
        return read_money(value)
    raise ValueError("An amount of money goes here, such as 12.50.")


_MONEY = {"type": "string", "pattern": r"^[0-9]+([.][0-9]+|/[0-9]+)?$", "maxLength": 80}
Money = Annotated[Fraction, _exact(_money, write_money, core_schema.str_schema(), _MONEY)]
