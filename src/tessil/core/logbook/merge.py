"""Two Tessils, one logbook: what both wrote down since they last agreed, put together."""

from __future__ import annotations

from typing import TypeVar

from tessil.core.logbook.book import MOST_MADE, MOST_SWATCHES, MOST_TESTS, MOST_TIMES, Book

T = TypeVar("T")


def merged(base: tuple[T, ...], ours: tuple[T, ...], theirs: tuple[T, ...]) -> tuple[T, ...]:
    """Theirs, without what we took out since ``base``, with what we put in."""
    gone = [entry for entry in base if entry not in ours]
    new = [entry for entry in ours if entry not in base and entry not in theirs]
    return (*(entry for entry in theirs if entry not in gone), *new)


def merged_books(base: Book, ours: Book, theirs: Book) -> Book:
    """A book with the changes of both since ``base``; a swatch both changed stands twice."""
    if theirs == base:
        return ours
    return Book(
        swatches=merged(base.swatches, ours.swatches, theirs.swatches)[:MOST_SWATCHES],
        seam_tests=merged(base.seam_tests, ours.seam_tests, theirs.seam_tests)[-MOST_TESTS:],
        times=merged(base.times, ours.times, theirs.times)[-MOST_TIMES:],
        made=merged(base.made, ours.made, theirs.made)[-MOST_MADE:],
        materials=tuple(
            {
                entry.key: entry
                for entry in merged(base.materials, ours.materials, theirs.materials)
            }.values()
        )[:60],
    )
