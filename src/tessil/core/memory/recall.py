"""The last result of each stage, kept with what it was computed from.

A stage is a pure function of small frozen inputs.  Where they are the same as last time, the same
object is handed back, so that what rests on it need not be computed, compared or painted either.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Mapping
from threading import RLock
from typing import ParamSpec, TypeVar, cast

from tessil.core.memory.same import same
from tessil.core.memory.watched import Watched, Way, still

P = ParamSpec("P")
R = TypeVar("R")
T = TypeVar("T")
UNUSED = 2  # plans after which a result that nothing asked for is let go


class Memory:
    """Results by stage and key.  An empty one changes nothing but the time that is taken.

    One at a time: a search beside the window may be the first to ask for what is made later.
    """

    def __init__(self) -> None:
        self._lock = RLock()
        self._kept: dict[Hashable, tuple[object, object]] = {}
        self._used: dict[Hashable, int] = {}
        self._plans = 0
        # Found unlike in this plan, and held until the next so that no other takes their places.
        self._unlike: dict[tuple[int, int], tuple[object, object]] = {}

    def of(self, key: Hashable, work: Callable[P, R], *inputs: P.args, **none: P.kwargs) -> R:
        """What ``work`` makes of its inputs: what it made last time where they are the same."""
        with self._lock:
            self._used[key] = self._plans
            kept = self._kept.get(key)
            if kept is not None and self._same_all(cast("tuple[object, ...]", kept[0]), inputs):
                return kept[1]  # type: ignore[return-value]
            made = work(*inputs, **none)
            self._kept[key] = inputs, made
            return made

    def like(self, key: Hashable, made: R) -> R:
        """The object of last time where the new one is the same."""
        with self._lock:
            self._used[key] = self._plans
            kept = self._kept.get(key)
            if kept is not None:
                if same(kept[1], made):
                    return kept[1]  # type: ignore[return-value]
                self._unlike[id(kept[1]), id(made)] = kept[1], made
            self._kept[key] = (), made
            return made

    def _same_all(self, kept: tuple[object, ...], inputs: tuple[object, ...]) -> bool:
        """Whether all inputs are the same; those known to be unlike are not compared again."""
        pairs = zip(kept, inputs, strict=False)
        return not any((id(a), id(b)) in self._unlike for a, b in pairs) and same(kept, inputs)

    def _is(self, before: object, now: object) -> bool:
        return (id(before), id(now)) not in self._unlike and same(before, now)

    def reading(
        self,
        key: Hashable,
        work: Callable[[T], Iterable[R]],
        record: T,
        whole: frozenset[str] = frozenset(),
        asked: object = None,
    ) -> tuple[R, ...]:
        """What ``work`` finds in a record: what it found last time where the same was ``asked``
        and all that it read then is the same now.  Fields named ``whole`` are records of which it
        may read a part.  What is found must not hold the record itself."""
        with self._lock:
            self._used[key] = self._plans
            kept = self._kept.get(key)
            if kept is not None:
                before, read = cast("tuple[object, Mapping[Way, object]]", kept[0])
                if same(before, asked) and still(record, read, self._is):
                    return cast("tuple[R, ...]", kept[1])
            noted: dict[Way, object] = {}
            found = tuple(work(cast("T", Watched(record, noted, whole))))
            self._kept[key] = (asked, noted), found
            return found

    def begin(self) -> None:
        """Another plan begins, whether the last was asked for to its end or not."""
        with self._lock:
            self._unlike.clear()

    def settle(self) -> None:
        """A plan is made: what no plan asked for of late is let go."""
        with self._lock:
            self._plans += 1
            self._unlike.clear()
            gone = [key for key, at in self._used.items() if at < self._plans - UNUSED]
            for key in gone:
                del self._used[key]
                self._kept.pop(key, None)  # none where it could not be made


class NoMemory(Memory):
    """For a plan that no other follows: nothing is noted, compared or kept."""

    def of(self, key: Hashable, work: Callable[P, R], *inputs: P.args, **none: P.kwargs) -> R:
        return work(*inputs, **none)

    def like(self, key: Hashable, made: R) -> R:
        return made

    def reading(
        self,
        key: Hashable,
        work: Callable[[T], Iterable[R]],
        record: T,
        whole: frozenset[str] = frozenset(),
        asked: object = None,
    ) -> tuple[R, ...]:
        return tuple(work(record))
