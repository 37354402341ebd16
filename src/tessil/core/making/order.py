"""The order of the steps: computed from what they need and end, looked through for broken gates.

Knows facts, no bag.  ``graphlib`` sorts; among steps whose turn has come those are taken that go on
with the same work and the same tool, so that foot, iron and thread are changed seldom.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from graphlib import CycleError, TopologicalSorter

from tessil.core.bag.deeds import OPERATIONS, Broken, Deed
from tessil.core.trouble import CannotPlan

_RANK = {operation: at for at, operation in enumerate(OPERATIONS)}


def before_each(deeds: Sequence[Deed]) -> dict[str, set[str]]:
    """For each step those that come before it: the ones that make so what it needs, and, before one
    that ends a fact, all that need it."""
    giving: dict[str, set[str]] = {}
    for deed in deeds:
        for fact in deed.gives:
            giving.setdefault(fact, set()).add(deed.id)
    before: dict[str, set[str]] = {deed.id: set() for deed in deeds}
    for deed in deeds:
        for fact in facts_for(deed):
            before[deed.id] |= giving.get(fact, set()) - {deed.id}
        for fact in deed.ends:
            users = {other.id for other in deeds if fact in facts_for(other)}
            before[deed.id] |= users - {deed.id}
        for gate in deed.gates:
            if not gate.holds:  # before whatever makes it so
                for other in giving.get(gate.fact, set()) - {deed.id}:
                    before[other].add(deed.id)
    return before


def facts_for(deed: Deed) -> tuple[str, ...]:
    """All that must be so before a step."""
    return (*deed.needs, *(gate.fact for gate in deed.gates if gate.holds))


def ordered(deeds: Sequence[Deed]) -> tuple[Deed, ...]:
    """The steps in an order in which each has what it needs; raises CannotPlan if there is none."""
    by_id = {deed.id: deed for deed in deeds}
    place = {deed.id: at for at, deed in enumerate(deeds)}
    sorter = TopologicalSorter(before_each(deeds))
    try:
        sorter.prepare()
    except CycleError as error:
        names = " → ".join(str(name) for name in error.args[1])
        raise CannotPlan("made", f"These steps wait for one another: {names}.") from None
    made: list[Deed] = []
    ready = set(sorter.get_ready())
    while ready:
        last = made[-1] if made else None
        following = min(ready, key=lambda id_: _wish(by_id[id_], last, place[id_]))
        ready.remove(following)
        made.append(by_id[following])
        sorter.done(following)
        ready |= set(sorter.get_ready())
    return tuple(made)


def _wish(deed: Deed, last: Deed | None, place: int) -> tuple[int, int, int, int]:
    """What comes next, the least first: earlier kinds of work; then the same tool; then as told."""
    same = last is not None and last.operation == deed.operation
    tool = 0 if last is not None and deed.tool in ("", last.tool) else 1
    return (_RANK[deed.operation], 0 if same else 1, tool if not deed.check else 0, place)


def moved(deeds: Sequence[Deed], moves: Iterable[tuple[str, str]]) -> tuple[Deed, ...]:
    """The same steps, some of them put before others as their maker wants."""
    made = list(deeds)
    for id_, before in moves:
        one = next((deed for deed in made if deed.id == id_), None)
        at = next((n for n, deed in enumerate(made) if deed.id == before), None)
        if one is None or at is None or id_ == before:
            continue
        now = made.index(one)
        made.remove(one)
        made.insert(at - 1 if now < at else at, one)
    return tuple(made)


def state_after(deeds: Iterable[Deed]) -> frozenset[str]:
    """What is so once these steps are done."""
    facts: set[str] = set()
    for deed in deeds:
        facts -= set(deed.ends)
        facts |= set(deed.gives)
    return frozenset(facts)


def broken_in(deeds: Iterable[Deed], facts: Iterable[str] = ()) -> tuple[Broken, ...]:
    """Every step in such an order that comes too early, or too late, and why."""
    now, found = set(facts), []
    for deed in deeds:
        found += broken_at(deed, frozenset(now))
        now -= set(deed.ends)
        now |= set(deed.gives)
    return tuple(found)


def broken_at(deed: Deed, facts: frozenset[str]) -> list[Broken]:
    """What keeps one step back in that state of the work."""
    gates = [
        Broken(deed.id, gate.id, gate.fact)
        for gate in deed.gates
        if (gate.fact in facts) != gate.holds
    ]
    return gates + [Broken(deed.id, "", fact) for fact in deed.needs if fact not in facts]
