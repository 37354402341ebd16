"""What a plan is made of cannot be changed behind its back: every record is frozen."""

import importlib
import pkgutil

import msgspec
import pytest

import tessil.core
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import count


def _below(kind):
    for one in kind.__subclasses__():
        yield one
        yield from _below(one)


def test_every_record_of_the_core_is_frozen():
    for module in pkgutil.walk_packages(tessil.core.__path__, "tessil.core."):
        importlib.import_module(module.name)
    ours = [one for one in _below(Record) if one.__module__.startswith("tessil.core.")]
    assert len(ours) > 150
    thawed = [one.__qualname__ for one in ours if not one.__struct_config__.frozen]
    assert thawed == []
    with pytest.raises(AttributeError):
        count("bags", 2).label = "other"
    assert msgspec.structs.replace(count("bags", 2), label="other").label == "other"
