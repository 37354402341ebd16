"""The figures of a layout: what is laid of each print, which rules are broken, packs."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.layout.rules import laid_amounts, over_amounts
from tessil.core.layout.values import value_of, value_word
from tessil.core.numbers.workings import Basis, count
from tessil.core.planned import Plan
from tessil.core.reading import Reading


def print_readings(plan: Plan) -> Iterator[Reading]:
    """What is laid of each print, against what there is; and the rules still broken."""
    laid = laid_amounts(plan.table)
    for entry in plan.project.prints:
        if entry.key not in laid:
            continue
        there = "" if entry.amount is None else f"; {entry.amount} in hand"
        about = f"{value_word(entry).capitalize()}, lightness {value_of(entry):.0f}{there}"
        figure = count("pieces laid", laid[entry.key], Basis.CHOSEN).called(entry.name)
        yield Reading(f"laid.{entry.key}", figure, about, leaf="prints")
    if laid:
        between = count("broken between pieces", len(plan.broken), Basis.GEOMETRY)
        short = count(
            "prints laid more than in hand", len(over_amounts(plan.table)), Basis.GEOMETRY
        )
        figure = (between + short).called("rules broken")
        yield Reading("rules.broken", figure, "Marked on the bench where it is", leaf="prints")


def pack_readings(plan: Plan) -> Iterator[Reading]:
    """How many bags a pack of squares makes, and what is left of it."""
    found = plan.packed
    if found is None:
        return
    yield Reading("pack.needs", found.needs, "All squares of one bag", leaf="stock")
    yield Reading("pack.bags", found.bags, "Whole bags", leaf="stock")
    yield Reading("pack.left", found.left, found.use, leaf="stock")
    if found.pocket is not None:
        about = "As wide as so many squares in a row"
        yield Reading("pack.pocket", found.pocket, about, leaf="stock")
