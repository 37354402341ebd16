"""What making takes, kind of work by kind of work: how many steps, how many minutes at first."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import OPERATIONS, Making
from tessil.core.making.choice import Made
from tessil.core.numbers.workings import Basis, Figure, given, total
from tessil.core.reading import Reading
from tessil.core.words.making import OPERATION_WORDS


def making_readings(making: Making, made: Made) -> Iterator[Reading]:
    """Minutes of each kind of work, and of all; what is done is told beside it."""
    done = set(made.done)
    sums: list[Figure] = []
    for operation in OPERATIONS:
        deeds = [deed for deed in making.deeds if deed.operation == operation]
        if not deeds:
            continue
        name = OPERATION_WORDS[operation]
        parts = [deed.minutes for deed in deeds if deed.minutes is not None]
        zero = given("none", 0, Basis.GUESS, power=0)
        figure = total(parts or [zero]).called(name, "minutes")
        made_ = sum(deed.id in done for deed in deeds)
        took = sum(made.seconds.get(deed.id, 0) for deed in deeds)
        clock = f", {took // 60} min of them by the clock" if took else ""
        about = f"{made_} of {len(deeds)} steps done{clock}; a first guess of how long it takes"
        yield Reading(f"making.{operation}", figure, about)
        sums.append(figure)
    if sums:
        about = f"{sum(d.id in done for d in making.deeds)} of {len(making.deeds)} steps done"
        yield Reading("making.all", total(sums).called("All of it", "minutes"), about)
