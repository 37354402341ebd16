"""Checks values for the parts of a document, by the library for it; loaded at the first check.

Knows how that library is told of a part and how it answers.  Must not know any document.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from threading import RLock
from typing import Any, get_args

from pydantic import GetCoreSchemaHandler, TypeAdapter, ValidationError
from pydantic.json_schema import GenerateJsonSchema
from pydantic_core import CoreSchema, PydanticKnownError, core_schema

from tessil.core.numbers.decided import NEEDED, Decided, Refused, hints_of


def check(kind: type[Decided], data: object, into: Decided | None = None) -> Any:
    """Plain data as a part of a kind, a new one or a given one; raises ``Refused``."""
    try:
        return _adapter(kind).validator.validate_python(data, self_instance=into)
    except ValidationError as error:
        raise Refused(error.errors(include_url=False)) from None


def plain(part: Decided, mode: Any, short: bool) -> Any:
    """Plain data of a part; ``short`` without what is as it begins."""
    return _adapter(type(part)).dump_python(part, mode=mode, exclude_defaults=short)


def json_schema(kind: type[Decided], mode: Any) -> dict[str, Any]:
    """The JSON Schema of a part as it is read or written."""
    return _adapter(kind).json_schema(mode=mode, schema_generator=_Schema)


def ready(kinds: Iterable[type[Decided]]) -> None:
    """Build what checks these parts and all that they are made of, the smallest first."""
    for kind in kinds:
        ready(one for hint in hints_of(kind).values() for one in _parts(hint))
        _adapter(kind)


def _parts(hint: Any) -> Iterator[type[Decided]]:
    """The parts in a field's kind that nobody has built yet."""
    if isinstance(hint, type) and issubclass(hint, Decided) and hint not in _ADAPTERS:
        yield hint
    for inner in get_args(hint):
        yield from _parts(inner)


_ADAPTERS: dict[type, TypeAdapter[Any]] = {}
_BUILDING = RLock()  # they are built beside the window, and by it if it cannot wait


def _adapter(kind: type[Decided]) -> TypeAdapter[Any]:
    made = _ADAPTERS.get(kind)
    if made is None:
        with _BUILDING:
            made = _ADAPTERS.get(kind) or _ADAPTERS.setdefault(kind, TypeAdapter(kind))
    return made


def schema_of(kind: type[Decided], handler: GetCoreSchemaHandler) -> CoreSchema:
    """What the library is told of a part: its fields with their kinds, starts and checks."""
    fields = {name: _field(kind, name, hint, handler) for name, hint in hints_of(kind).items()}
    whole = [one for one in kind.model_checks if not one.names]
    ref = f"{kind.__module__}.{kind.__qualname__}:{id(kind)}"
    schema: CoreSchema = core_schema.model_schema(
        kind,
        core_schema.model_fields_schema(fields, model_name=kind.__name__),
        config=core_schema.CoreConfig(
            title=kind.__name__, extra_fields_behavior=kind.model_config["extra"]
        ),
        ref=None if whole else ref,
    )
    for one in whole:
        last = one is whole[-1]
        schema = core_schema.no_info_after_validator_function(
            one.look, schema, ref=ref if last else None
        )
    return schema


def _field(
    kind: type[Decided], name: str, hint: Any, handler: GetCoreSchemaHandler
) -> core_schema.ModelField:
    schema = handler.generate_schema(hint)
    for one in kind.model_checks:
        if name in one.names:
            schema = core_schema.no_info_after_validator_function(one.look, schema)
    start = kind.model_fields[name]
    if start is NEEDED:
        return core_schema.model_field(schema)
    if not _shown(start):
        make = dict if isinstance(start, dict) else lambda: start
        return core_schema.model_field(
            core_schema.with_default_schema(schema, default_factory=make)
        )
    return core_schema.model_field(core_schema.with_default_schema(schema, default=start))


def _shown(start: object) -> bool:
    """Whether a schema says what a field begins with: not where that has fields of its own to say
    so, nor where it is written only as part of a list."""
    if isinstance(start, tuple):
        return all(_flat(row) for row in start)
    return not isinstance(start, Decided | dict)


def _flat(row: object) -> bool:
    if isinstance(row, Decided):
        return not any(isinstance(value, Decided | dict | tuple) for _, value in row)
    return isinstance(row, float | int | str)


class _Schema(GenerateJsonSchema):
    """Knows how parts stand in a list that a field begins with."""

    def encode_default(self, dft: Any) -> Any:
        if isinstance(dft, tuple):
            return [plain(row, "json", False) if isinstance(row, Decided) else row for row in dft]
        return super().encode_default(dft)


# Which bounds the library's own kinds know; what is read by a function is held to them after it.
_KNOWN = ("str", "int", "float", "tuple", "dict")


def within(schema: CoreSchema, bounds: dict[str, Any]) -> CoreSchema:
    """A kind of value with bounds."""
    if schema["type"] in _KNOWN:
        return {**schema, **bounds}
    return core_schema.no_info_after_validator_function(lambda value: _held(value, bounds), schema)


def _held(value: Any, bounds: dict[str, Any]) -> Any:
    for name, bound in bounds.items():
        kind, holds = {
            "gt": ("greater_than", value > bound),
            "ge": ("greater_than_equal", value >= bound),
            "lt": ("less_than", value < bound),
            "le": ("less_than_equal", value <= bound),
        }[name]
        if not holds:
            raise PydanticKnownError(kind, {name: bound})  # type: ignore[arg-type]
    return value


def exact(
    read: Callable[[Any], Any], write: Callable[[Any], object], written_as: str
) -> CoreSchema:
    """An exact number, read and written by these."""
    returns = core_schema.str_schema() if written_as == "string" else core_schema.float_schema()
    serialization = core_schema.plain_serializer_function_ser_schema(write, return_schema=returns)
    return core_schema.no_info_plain_validator_function(read, serialization=serialization)


def then(schema: CoreSchema, look: Callable[[Any], Any]) -> CoreSchema:
    """A kind of value that is looked at once more."""
    return core_schema.no_info_after_validator_function(look, schema)
