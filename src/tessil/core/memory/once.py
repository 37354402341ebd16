"""What follows from a few records alone, worked out once while the same ones are asked about."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Generic, TypeVar

T = TypeVar("T")
R = TypeVar("R")
KEPT = 4  # results: of what is in hand, and of what a search or another bag goes between


class Once(Generic[R]):
    """The last few results of one pure function, known by being asked of the same objects.

    Other threads may work at the same time: at worst both work it out.
    """

    def __init__(self) -> None:
        self._kept: tuple[tuple[tuple[object, ...], R], ...] = ()

    def of(self, records: tuple[object, ...], work: Callable[[], R]) -> R:
        """What ``work`` makes, or made of these very records before."""
        for before, made in self._kept:
            if all(one is other for one, other in zip(before, records, strict=True)):
                return made
        made = work()
        self._kept = ((records, made), *self._kept[: KEPT - 1])
        return made


def once(work: Callable[[T], R]) -> Callable[[T], R]:
    """The function of one frozen record, keeping what it made of the last few."""
    kept: Once[R] = Once()

    @wraps(work)
    def kept_or_made(record: T) -> R:
        return kept.of((record,), lambda: work(record))

    return kept_or_made
