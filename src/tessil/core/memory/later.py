"""A result that is made when it is first asked for, and once.

What nobody looks at while letters are typed need not be made for each of them.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, TypeVar

W = TypeVar("W")
T = TypeVar("T")


class Later(Generic[W, T]):
    """What ``work`` makes of the whole that this belongs to.

    It does not hold that whole, so that both go as soon as nothing needs them.
    """

    __slots__ = ("_made", "_work")
    _made: T

    def __init__(self, work: Callable[[W], T]) -> None:
        self._work: Callable[[W], T] | None = work

    def of(self, whole: W) -> T:
        """The result; how it is made is forgotten with the first asking."""
        work = self._work  # once: another thread may be done with it meanwhile
        if work is not None:
            self._made = work(whole)
            self._work = None
        return self._made
