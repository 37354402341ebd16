"""What documents are made of: frozen parts that say what each of their fields may hold.

A part is a light thing: its class costs nothing to make, and what checks values is built when the
first are checked (``checker``, with the library for it).  So a window is on screen with its bag
before that library is loaded.  Must not know any document.
"""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator, Mapping, Sequence
from types import UnionType
from typing import (
    Annotated,
    Any,
    ClassVar,
    Literal,
    NoReturn,
    Self,
    TypeVar,
    Union,
    dataclass_transform,
    get_args,
    get_origin,
)

from tessil.core.numbers.records import Record

Part = TypeVar("Part", bound="Decided")
Entry = Mapping[str, Any]  # one refused entry: its kind, where it stands, what is wrong
NEEDED: Any = object()  # what a field without a start begins with
_NOTHING: Mapping[str, Any] = {}


class Refused(ValueError):
    """Values that a part of the document does not take: each with its place and what is wrong."""

    def __init__(self, entries: Sequence[Entry]) -> None:
        super().__init__("\n".join(f"{entry['loc']}: {entry['msg']}" for entry in entries))
        self._entries = entries

    def errors(self) -> Sequence[Entry]:
        """What was refused, in the order of the fields."""
        return self._entries

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (self._entries,)


class Check(Record, frozen=True):
    """What a field's value must be besides what its kind says; without names, the whole part's.

    ``look`` gives the value back, or another in its place, or raises ValueError with a sentence.
    """

    look: Callable[[Any], Any]
    names: tuple[str, ...] = ()


def checks(*names: str) -> Callable[[Callable[[Any], Any]], Check]:
    """Marks a function that looks at these fields; at the whole part, where none is named."""
    return lambda look: Check(look, names)


@dataclass_transform(kw_only_default=True, frozen_default=True)
class Decided:
    """Base of all parts of the document: frozen, and strict about unknown fields.

    ``Part(...)`` checks every value and raises ``Refused``; ``Part.model_construct(...)`` takes
    them as they are.
    """

    # The last three are written by what checks: see its own description of a class's place.
    __slots__ = (
        "__dict__",
        "__pydantic_extra__",
        "__pydantic_fields_set__",
        "__pydantic_private__",
        "__weakref__",
    )
    model_config: ClassVar[dict[str, Any]] = {"extra": "forbid", "frozen": True}
    model_fields: ClassVar[Mapping[str, Any]]  # the fields, in order, and what each begins with
    model_checks: ClassVar[tuple[Check, ...]]

    def __init_subclass__(cls) -> None:
        fields: dict[str, Any] = {}
        found: dict[str, Check] = {}
        for base in _line(cls):
            names = _named(base)
            fields |= {name: vars(base).get(name, NEEDED) for name in names}
            found |= {name: one for name, one in vars(base).items() if isinstance(one, Check)}
        cls.model_fields, cls.model_checks = fields, tuple(found.values())

    def __init__(self, **values: Any) -> None:
        _checker().check(type(self), values, self)

    @classmethod
    def model_validate(cls, data: object) -> Self:
        """The part as plain data says it, or itself; raises ``Refused``."""
        made: Self = _checker().check(cls, data)
        return made

    @classmethod
    def model_construct(cls, **values: Any) -> Self:
        """The part with these values, which nobody checks, and with what the others begin with."""
        made = object.__new__(cls)
        own = made.__dict__
        for name, start in cls.model_fields.items():
            if name in values:
                own[name] = values[name]
            elif start is not NEEDED:
                own[name] = {**start} if type(start) is dict else start
        return made

    def model_copy(self, update: Mapping[str, Any] = _NOTHING) -> Self:
        """The same with these values in place of its own, which nobody checks."""
        made = object.__new__(type(self))
        made.__dict__.update(self.__dict__)
        made.__dict__.update(update)
        return made

    def model_dump(self, mode: Literal["python", "json"] = "python", short: bool = False) -> Any:
        """Plain data of it; ``short`` leaves out what is as it begins."""
        return _checker().plain(self, mode, short)

    @classmethod
    def model_json_schema(cls, mode: Literal["validation", "serialization"]) -> dict[str, Any]:
        """The JSON Schema of what it is read from, or of what is written of it."""
        schema: dict[str, Any] = _checker().json_schema(cls, mode)
        return schema

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: Any) -> Any:
        return _checker().schema_of(cls, handler)

    def __iter__(self) -> Iterator[tuple[str, Any]]:
        return iter(self.__dict__.items())

    def __eq__(self, other: object) -> bool:
        if type(self) is not type(other):
            return NotImplemented
        return self is other or self.__dict__ == other.__dict__

    def __hash__(self) -> int:
        return hash((type(self), *self.__dict__.values()))

    def __setattr__(self, name: str, value: object) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen: make another.")

    def __delattr__(self, name: str) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen: make another.")

    def __repr__(self) -> str:
        fields = ", ".join(f"{name}={value!r}" for name, value in self)
        return f"{type(self).__name__}({fields})"

    def __reduce__(self) -> tuple[Any, ...]:
        return _again, (type(self), self.__dict__)


def _again(kind: type[Part], values: dict[str, Any]) -> Part:
    """The part of which another program, or a copy, was given the values."""
    return kind.model_construct(**values)


def ready(*kinds: type[Decided]) -> None:
    """Load and build what checks these parts and all that they are made of."""
    _checker().ready(kinds)


def _checker() -> Any:
    """What checks, loaded when it is first wanted."""
    from tessil.core.numbers import checker

    return checker


def _line(kind: type[Decided]) -> list[type[Decided]]:
    """A part's class and those it comes from, the first of all first."""
    bases = [base for base in kind.__mro__ if base is not Decided and issubclass(base, Decided)]
    return bases[::-1]


def _named(kind: type[Decided]) -> list[str]:
    """The fields that a class itself says."""
    return [name for name in vars(kind).get("__annotations__", ()) if not name.startswith("model_")]


_USUAL: dict[type, Any] = {}


def usual(kind: type[Part]) -> Part:
    """The part with nothing decided, as a default: it is frozen, so that all share the one."""
    made: Part | None = _USUAL.get(kind)
    if made is None:
        made = _USUAL[kind] = kind.model_construct()
    return made


def none_yet() -> dict[Any, Any]:
    """A default without entries; each part gets its own."""
    return {}


_PLAIN = {"bool": bool, "str": str, "int": int}


def hints_of(kind: type[Decided]) -> Mapping[str, Any]:
    """What each field may hold, with all that is said of it, in the order of the fields."""
    return {name: hint_of(kind, name) for name in kind.model_fields}


def hint_of(kind: type[Decided], name: str) -> Any:
    """What a field may hold, with all that is said of it."""
    base = next(base for base in kind.__mro__ if name in vars(base).get("__annotations__", ()))
    said = base.__annotations__[name]
    if not isinstance(said, str):
        return said
    names = vars(sys.modules[base.__module__])  # an annotation that is put off stands as text
    return _PLAIN.get(said) or names.get(said) or eval(said, names)


def trusted(kind: type[Part], data: Mapping[str, Any]) -> Part:
    """A part of a document that ships with the program, read from its plain data without checking
    it: tests do.  A value that is written as text or as a list becomes what it stands for."""
    ways = _WAYS.setdefault(kind, {})
    read = {}
    for name, value in data.items():
        if name not in ways:
            ways[name] = _way(hint_of(kind, name))
        way = ways[name]
        read[name] = way(value) if way else value
    return kind.model_construct(**read)


Way = Callable[[Any], Any] | None  # how a plain value is read; None where it is one already


_WAYS: dict[type, dict[str, Way]] = {}  # how each field of a part is read, once one was


def _way(hint: Any) -> Way:
    """How a value of a kind is read from plain data."""
    origin, args = get_origin(hint), get_args(hint)
    if origin is Annotated:
        reads = next((mark.read for mark in args[1:] if hasattr(mark, "read")), None)
        return reads or _way(args[0])
    if origin in (Union, UnionType):
        return _way_or_none([way for one in args if (way := _way(one))])
    if origin is tuple:
        return _way_of_rows(args)
    if origin is dict:
        inner = _way(args[1])
        return inner and (lambda rows: {key: inner(value) for key, value in rows.items()})
    if isinstance(hint, type) and issubclass(hint, Decided):
        return lambda data: trusted(hint, data)
    return None


def _way_or_none(ways: Sequence[Callable[[Any], Any]]) -> Way:
    if not ways:
        return None
    (way,) = ways
    return lambda value: None if value is None else way(value)


def _way_of_rows(args: Sequence[Any]) -> Way:
    if args[-1] is Ellipsis:
        inner = _way(args[0])
        return (lambda rows: tuple(inner(row) for row in rows)) if inner else tuple
    inners = [_way(one) for one in args]
    return lambda rows: tuple(
        inner(row) if inner else row for inner, row in zip(inners, rows, strict=True)
    )
