"""What was drawn last of each thing, kept while all that it is drawn from is the same objects.

For pictures that change at every move of the hand though most of what is in them does not.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any, TypeVar

T = TypeVar("T")
MOST = 200  # things; more would only fill memory


class Kept:
    """Results by a name, each with the objects it was made of."""

    def __init__(self) -> None:
        self._kept: dict[Hashable, tuple[tuple[object, ...], Any]] = {}

    def of(self, name: Hashable, made_of: tuple[object, ...], make: Callable[[], T]) -> T:
        """What was made of these very objects, made anew if any is another."""
        found = self._kept.get(name)
        if found is not None and all(a is b for a, b in zip(found[0], made_of, strict=True)):
            return found[1]  # type: ignore[no-any-return]
        made = make()
        self._kept.pop(name, None)
        self._kept[name] = made_of, made
        while len(self._kept) > MOST:
            del self._kept[next(iter(self._kept))]
        return made


KEPT = Kept()
