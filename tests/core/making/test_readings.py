"""Minutes of the making, kind of work by kind of work; sums by hand."""

import pytest

from tessil.core.bag.deeds import OPERATIONS
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.making.readings import making_readings
from tessil.core.plan import plan
from tests.conftest import tote


@pytest.fixture(scope="module")
def making():
    return making_of(plan(tote()), Made())


def told(making, made):
    return {reading.key: reading for reading in making_readings(making, made)}


def test_each_kind_of_work_has_the_minutes_of_its_steps(making):
    found = told(making, Made())
    for work in OPERATIONS:
        deeds = [deed for deed in making.deeds if deed.operation == work]
        assert (f"making.{work}" in found) == bool(deeds)
        if deeds:
            minutes = sum(deed.minutes.value for deed in deeds if deed.minutes)
            assert found[f"making.{work}"].figure.value == minutes
    every = sum(reading.figure.value for key, reading in found.items() if key != "making.all")
    assert found["making.all"].figure.value == every > 0
    assert found["making.all"].about == f"0 of {len(making.deeds)} steps done"


def test_what_is_done_is_counted_and_the_clock_told(making):
    pieced = [deed.id for deed in making.deeds if deed.operation == "piece"]
    made = Made(done=tuple(pieced[:2]), seconds={pieced[0]: 100, pieced[1]: 50})
    found = told(making, made)
    said = f"2 of {len(pieced)} steps done, 2 min of them by the clock; a first guess of how long "
    assert found["making.piece"].about == said + "it takes"
    assert found["making.trim"].about.startswith("0 of ")
    assert "clock" not in found["making.trim"].about
    assert found["making.all"].about == f"2 of {len(making.deeds)} steps done"
