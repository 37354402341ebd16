"""What is to buy: lengths of cloth and of the roll, and what comes out of offcuts instead."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.cutting.offcuts import OffcutUse
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.words.cuts import taken_words


def cut_readings(plan: Plan) -> Iterator[Reading]:
    """Every stock with the length to buy."""
    for bought in plan.bought:
        figure = bought.cloth.buy.called(bought.name)
        bare = plan.marks.notation.read_under(bought.cloth.bare)
        about = f"Length to buy, off the bolt; the bare area alone would take {bare}"
        yield Reading(f"buy.{bought.stock}", figure, about, leaf="cloth")


def roll_readings(plan: Plan) -> Iterator[Reading]:
    """What is bought by the roll, for the layers."""
    read = plan.marks.notation.read_off
    for bought in plan.bought:
        if bought.batting:
            about = f"Off a roll {read(bought.cloth.usable, unit=True)} wide, for all bags"
            if bought.from_offcuts:
                about = "; ".join(_from_offcut(plan, use) for use in bought.from_offcuts)
            yield Reading(
                f"layer.buy.{bought.stock}",
                bought.cloth.buy.called(bought.name),
                about,
                leaf="amounts",
            )


def _from_offcut(plan: Plan, use: OffcutUse) -> str:
    """What comes out of an offcut."""
    took = " and ".join(taken_words(one.id, one.number, one.parts, plan.bag) for one in use.pieces)
    size = plan.marks.notation.size(use.offcut.width, use.offcut.height)
    return f"{took}: from the offcut {size}"
