"""How much of its own speed a machine gives just now, where others use it, too.

A small piece of fixed work is timed again and again: the fastest time there ever was is taken for
the machine's own speed.  Two busy neighbours do not change that time, only how often it is reached.
"""

from __future__ import annotations

import time

ROUNDS = 200_000  # additions in one piece of work


def fixed_work() -> float:
    """Seconds of the processor for always the same work."""
    begun, total = time.process_time(), 0
    for number in range(ROUNDS):
        total += number
    return time.process_time() - begun


class Speed:
    """The machine, and the fastest it ever was."""

    def __init__(self) -> None:
        self.best = min(fixed_work() for _ in range(150))

    def share(self, samples: int = 8) -> float:
        """The share of its own speed that it gives now."""
        taken = [fixed_work() for _ in range(samples)]
        self.best = min(self.best, *taken)
        return sum(self.best / one for one in taken) / samples
