"""Kinds of fields the documents are made of: exact lengths, angles, names, and their bounds.

Shared by the project, the logbook and the shelf.  Must not know what is asked, nor load what
checks.
"""

from __future__ import annotations

from collections.abc import Callable
from numbers import Rational
from typing import TYPE_CHECKING, Annotated, Any

from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import (
    FARTHEST,
    LONGEST,
    Inches,
    LengthError,
    read_length,
    write_exact,
)
from tessil.core.numbers.money import MOST, kept_money, write_money
from tessil.core.numbers.records import Record

if TYPE_CHECKING:
    from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
    from pydantic_core import CoreSchema


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


class Kind:
    """An exact number: how it is read and written, and its JSON Schema; built once for all fields
    of it."""

    def __init__(
        self,
        read: Callable[[Any], Fraction],
        write: Callable[[Fraction], object],
        written: dict[str, Any],
    ) -> None:
        self.read, self.write, self._written = read, write, written
        self._schema: CoreSchema | None = None

    def __get_pydantic_core_schema__(self, _source: Any, _handler: GetCoreSchemaHandler) -> Any:
        if self._schema is None:
            from tessil.core.numbers.checker import exact

            self._schema = exact(self.read, self.write, self._written["type"])
        return self._schema

    def __get_pydantic_json_schema__(
        self, _schema: CoreSchema, _handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return dict(self._written)


class Limits(Record, frozen=True):
    """Bounds of a text, a number, a list or a group of entries, by the names of JSON Schema's
    library."""

    min_length: int | None = None
    max_length: int | None = None
    pattern: str | None = None
    gt: float | None = None
    ge: float | None = None
    lt: float | None = None
    le: float | None = None
    allow_inf_nan: bool | None = None

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> Any:
        from tessil.core.numbers.checker import within

        bounds = {name: getattr(self, name) for name in self.__struct_fields__}
        return within(handler(source), {name: at for name, at in bounds.items() if at is not None})


class Then(Record, frozen=True):
    """What a value must be besides: ``look`` gives it back or raises ValueError."""

    look: Callable[[Any], Any]

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> Any:
        from tessil.core.numbers.checker import then

        return then(handler(source), self.look)


_LENGTH = {"type": "string", "pattern": r"^-?[0-9 ./]+ (in|mm)$", "maxLength": 80}
_NUMBER = {"type": "number"}


def _bounded(low: Inches, high: Inches, strict: bool, sentence: str) -> Kind:
    """A length between bounds."""

    def read(value: Any) -> Inches:
        length = _length(value, max(high, LONGEST))
        if length > high:
            raise ValueError(f"At most {write_exact(high)} goes here.")
        if length < low or (strict and length == low):
            raise ValueError(sentence)
        return length

    return Kind(read, write_exact, _LENGTH)


_MORE = "This must be more than zero."
_NOT_LESS = "This cannot be below zero."
_FAR = "That lies far off the panel."
_THIN = "A seam needs at least 1/16 in (1.6 mm)."
Size = Annotated[Fraction, _bounded(Fraction(0), LONGEST, True, _MORE)]
MOST_ROOM = Fraction(12)
Room = Annotated[Fraction, _bounded(Fraction(0), MOST_ROOM, False, _NOT_LESS)]
Room60 = Annotated[Fraction, _bounded(Fraction(0), LONGEST, False, _NOT_LESS)]
Bolt = Annotated[Fraction, _bounded(Fraction(0), FARTHEST, True, _MORE)]  # as it is sold
Along = Annotated[Fraction, _bounded(Fraction(0), FARTHEST, False, _NOT_LESS)]  # a bolt
Longer = Annotated[Fraction, _bounded(-Fraction(4), Fraction(12), False, _FAR)]  # or shorter
Ranged = Annotated[Fraction, _bounded(-Fraction(12), LONGEST, False, _FAR)]
Seam = Annotated[Fraction, _bounded(Fraction(1, 16), Fraction(2), False, _THIN)]
Name = Annotated[str, Limits(min_length=1, max_length=80)]
Key = Annotated[str, Limits(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
Colour = Annotated[str, Limits(pattern=r"^#[0-9a-f]{6}$")]


Share = Annotated[float, Limits(ge=0, le=1, allow_inf_nan=False)]


def _part(value: Any) -> Fraction:
    """A share, exact as it is written in decimals."""
    try:
        return value if isinstance(value, Fraction) else fraction_of(str(value))
    except (ValueError, ZeroDivisionError):
        raise ValueError("A share goes here, such as 0.03.") from None


def exact_share(**written: float) -> Kind:
    """A number as it is written in decimals, kept exact; with what its JSON Schema says besides."""
    return Kind(_part, float, {**_NUMBER, **written})


ExactShare = Annotated[Fraction, exact_share()]
Degrees = Annotated[Fraction, Kind(_degrees, float, _NUMBER)]


def _money(value: Any) -> Fraction:
    """An amount of money; ``MoneyError`` is a ValueError with its sentence."""
    if isinstance(value, Fraction):
        if not 0 <= value <= MOST:
            raise ValueError("An amount from 0 to 1,000,000 goes here.")
        return value
    if isinstance(value, (int, float)) and not isinstance(value, bool):
        return kept_money(str(value))
    if isinstance(value, str):
        return kept_money(value)
    raise ValueError("An amount of money goes here, such as 12.50.")


_MONEY = {"type": "string", "pattern": r"^[0-9]+([.][0-9]+|/[0-9]+)?$", "maxLength": 80}
Money = Annotated[Fraction, Kind(_money, write_money, _MONEY)]
