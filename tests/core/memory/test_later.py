"""What is made when it is asked for is made once, of the whole that it belongs to."""

from concurrent.futures import ThreadPoolExecutor

import pytest

from tessil.core.edits import applied, edit
from tessil.core.memory.later import Later
from tessil.core.memory.recall import Memory
from tessil.core.memory.same import same
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan


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


def test_what_could_never_be_made_is_let_go_like_all_else():
    memory = Memory()
    with pytest.raises(CannotPlan):
        memory.of("never", _refused)
    for _ in range(4):
        memory.settle()
    assert memory.of("never", lambda: 3) == 3


def _refused():
    raise CannotPlan("x", "It cannot be.")


def test_a_search_beside_the_window_may_ask_first(demo):
    """Four threads ask one memory for the same things at once: all have the same, none fails."""
    memory = Memory()
    made = [plan(applied(demo, edit("", ("bags", 2 + at))), memory=memory) for at in range(4)]
    with ThreadPoolExecutor(4) as hands:
        found = list(hands.map(lambda one: (one.snags, one.weight, one.table), made * 4))
    assert len(found) == 16
    for at in range(4):
        fresh = plan(applied(demo, edit("", ("bags", 2 + at))))
        assert same(found[at], (fresh.snags, fresh.weight, fresh.table))


def test_what_fails_fails_again_and_is_not_taken_for_made():
    later = Later(lambda whole: 1 // whole)
    for _ in range(2):
        with pytest.raises(ZeroDivisionError):
            later.of(0)
    assert later.of(1) == 1
