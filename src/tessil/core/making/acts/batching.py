"""A batch made step by step: what is done for all bags before the next, and where it must split.

Bags alike go through one kind of work together, since foot, iron and thread are changed once; where
a step measures what others follow, one bag goes first.  Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import groupby

from tessil.core.bag.deeds import Deed, Operation
from tessil.core.numbers.records import Record
from tessil.core.words.making import OPERATION_WORDS


class Stretch(Record, frozen=True):
    """Steps of one kind of work in a row: from which to which (counted from 1), and the one up to
    which a first bag goes alone, if one of them measures what others follow."""

    operation: Operation
    deeds: tuple[Deed, ...]
    first: int
    alone: int | None

    @property
    def last(self) -> int:
        return self.first + len(self.deeds) - 1

    def holds(self, deed: Deed) -> bool:
        """Whether a step is one of them."""
        return any(one.id == deed.id for one in self.deeds)


def stretches(deeds: Sequence[Deed]) -> Iterator[Stretch]:
    """All steps in their order, each kind of work as long as it lasts."""
    at = 1
    for operation, run in groupby(deeds, key=lambda deed: deed.operation):
        there = tuple(run)
        measures = [at + n for n, deed in enumerate(there) if deed.what.endswith(".measure")]
        yield Stretch(operation, there, at, measures[-1] if measures else None)
        at += len(there)


def every(bags: int) -> str:
    """``both bags``, ``all 6 bags``."""
    return "both bags" if bags == 2 else f"all {bags} bags"


def batch_words(stretch: Stretch, bags: int) -> str:
    """``Steps 12 to 18 (quilt) for all 6 bags …``, and how far one goes first; nothing for one."""
    if bags < 2:
        return ""
    name = OPERATION_WORDS[stretch.operation].lower()
    steps = f"Steps {stretch.first} to {stretch.last}"
    if stretch.first == stretch.last:
        steps = f"Step {stretch.first}"
    words = f"{steps} ({name}) for {every(bags)} before the next kind of work."
    if stretch.alone is not None:
        words += (
            f" Take one bag first, up to step {stretch.alone}: what it measures, the others follow."
        )
    return words
