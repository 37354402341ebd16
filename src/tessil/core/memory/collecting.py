"""The collector of circular garbage waits while a plan is made.

A plan is many small records without circles, that go as soon as nothing holds them.  Looking
through them again and again while they are made finds nothing, and takes longer than making them
where much else is in memory.
"""

from __future__ import annotations

import gc
from collections.abc import Iterator
from contextlib import contextmanager

SELDOM = 50_000  # records more than there were, before young ones are looked through


@contextmanager
def uncollected() -> Iterator[None]:
    """No looking for circles inside; afterwards as it was before."""
    was = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if was:
            gc.enable()


def seldom() -> None:
    """Look for circles seldom: a plan alone makes more records than the usual threshold."""
    gc.set_threshold(SELDOM, 20, 20)
