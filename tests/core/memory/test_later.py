"""What is made when it is asked for is made once, of the whole that it belongs to."""

import pytest

from tessil.core.memory.later import Later
from tessil.core.plan import plan


def test_it_is_made_once_and_not_before_it_is_asked_for():
    asked = []

    def make(whole):
        asked.append(whole)
        return len(whole)

    later = Later(make)
    assert asked == []
    assert later.of("abc") == 3
    assert later.of("abcdef") == 3
    assert asked == ["abc"]


def test_no_snag_is_looked_for_until_someone_asks(demo, monkeypatch):
    from tessil.core import plan as planning

    looked = []
    find = planning.find_snags
    monkeypatch.setattr(planning, "find_snags", lambda *a: looked.append(1) or find(*a))
    made = plan(demo)
    assert made.panels
    assert looked == []
    assert made.snags is made.snags
    assert looked == [1]


def test_what_fails_fails_again_and_is_not_taken_for_made():
    later = Later(lambda whole: 1 // whole)
    for _ in range(2):
        with pytest.raises(ZeroDivisionError):
            later.of(0)
    assert later.of(1) == 1
