"""What work takes, on the clock and of the processor, and how that is told.

Where others use the machine, the clock tells of them, too: a stall of theirs stands in its p95.
The processor's time has no stalls in it.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from typing import NamedTuple

from speed import Speed

SPEED = Speed()


class Spent(NamedTuple):
    """Seconds on the clock, and of the processor."""

    clock: float
    processor: float


def now() -> Spent:
    """Both clocks as they stand."""
    return Spent(time.perf_counter(), time.process_time())


def since(begun: Spent) -> Spent:
    """What has been spent from then on."""
    clock, processor = now()
    return Spent(clock - begun.clock, processor - begun.processor)


def timed(work: Callable[[int], object], times: int) -> list[Spent]:
    """What each of many runs takes, after three to warm up."""
    for at in range(3):
        work(at)
    found = []
    for at in range(times):
        begun = now()
        work(at)
        found.append(since(begun))
    return found


def percentiles(spent: list[Spent]) -> str:
    """Median, 95th percentile and worst on the clock, the first two of the processor, in
    milliseconds; and how much of its own speed the machine gives, taken right after them."""
    clock = sorted(one.clock * 1000 for one in spent)
    processor = sorted(one.processor * 1000 for one in spent)
    high = min(int(len(spent) * 0.95), len(spent) - 1)
    return (
        f"median {statistics.median(clock):.2f} ms, p95 {clock[high]:.2f} ms, "
        f"worst {clock[-1]:.2f} ms; of the processor median {statistics.median(processor):.2f} ms, "
        f"p95 {processor[high]:.2f} ms (n={len(spent)}, at {SPEED.share():.0%} of speed)"
    )
