"""Time and chance of a search: how long it may go on, and dice that fall the same again."""

from __future__ import annotations

import random
import time
from collections.abc import Callable

Told = Callable[[float], bool]  # hears how far the search is; says whether to go on


def _on(_share: float) -> bool:
    return True


class Search:
    """A search until a moment, unless it is told to stop."""

    def __init__(self, seconds: float, seed: int = 1, told: Told = _on) -> None:
        self.seconds = seconds
        self.seed = seed
        self.told = told
        self.begun = time.monotonic()
        self.stopped = False
        self.dice = random.Random(seed)

    @property
    def at_once(self) -> bool:
        """Whether no time is given: the first layout is the answer."""
        return self.seconds <= 0

    def part(self, share: float) -> Search:
        """A search with that share of the time, from the same beginning."""
        part = Search(self.seconds * share, self.seed, self.told)
        part.begun = self.begun
        return part

    @property
    def spent(self) -> float:
        return time.monotonic() - self.begun

    def left(self, share: float = 1.0) -> float:
        """Seconds left of that share of the time."""
        return max(self.seconds * share - self.spent, 0.0)

    def goes_on(self, share: float = 1.0) -> bool:
        """Whether there is time left, and nobody said stop."""
        if not self.stopped and not self.told(min(self.spent / max(self.seconds, 1e-9), 1.0)):
            self.stopped = True
        return not self.stopped and self.spent < self.seconds * share
