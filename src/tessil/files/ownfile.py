"""Tessil's own files beside all projects: one that cannot be read is put aside, never written
over."""

from __future__ import annotations

from contextlib import suppress
from itertools import count
from pathlib import Path

from tessil.files.disk import held


def put_aside(path: Path, lost: str) -> str:
    """Move a broken file out of the way, over none that was put aside before; what became of it in
    a sentence.  ``lost`` is what is not kept if it cannot be moved."""
    places = (path.with_suffix(f".unreadable-{number}.json") for number in count(1))
    with held(path) as ours, suppress(OSError):
        aside = next(place for place in places if not place.exists())
        if ours:
            path.rename(aside)
            return f"It was put aside as “{aside.name}”; a new one is begun."
    return f"It could not be put aside; {lost} is not kept."
