"""What moved from one plan to the next, told in one line: figures that nobody looked at.

Reads two plans; computes nothing new.
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure
from tessil.core.planned import Plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.words.written import exact_text

MOST_TOLD = 3


class Told(Record, frozen=True):
    """One figure with its name; ``at`` is where a maker sees it: a stage and a panel."""

    name: str
    figure: Figure
    at: tuple[str, str]


Key = tuple[str, str, str]


def _told(plan: Plan) -> Iterator[tuple[Key, Told]]:
    for at, figure in enumerate(plan.bag.finished):
        yield ("finished", "", str(at)), Told(f"finished {figure.label}", figure, ("", ""))
    for panel in plan.panels:
        label = panel.panel.label.lower()
        for rung in plan.ladder(panel.key):
            if rung.key == "finished":
                continue
            name = f"{label} {_RUNGS[rung.key]}"
            sides = ("width", "height") if len(rung.sizes) == 2 else ("",) * len(rung.sizes)
            for side, figure in zip(sides, rung.sizes, strict=True):
                yield (
                    (panel.key, rung.key, side),
                    Told(f"{name}, {side}" if side else name, figure, ("", panel.key)),
                )
    for stage in (Stage.EDGE, Stage.CUT):
        for reading in readings(plan, stage, plan.shape.leader):
            yield (
                (str(stage), "", reading.key),
                Told(reading.figure.label, reading.figure, (str(stage), "")),
            )


_RUNGS = {
    "pieces": "piece",
    "pieced": "pieced",
    "quilted": "quilted",
    "trimmed": "to cut",
    "assembled": "front",
}


def moved(before: Plan, after: Plan, stage: Stage, panel: str) -> str:
    """``flap to cut, width 25.4 → 25.5 cm``: what changed that is not in sight where ``stage`` and
    ``panel`` are on show, a few figures by name and how many more; nothing if nothing did."""
    was = dict(_told(before))
    found = []
    for key, now in _told(after):
        then = was.get(key)
        if then is None or then.figure.value == now.figure.value:
            continue
        if now.at in ((str(stage), ""), ("", panel), ("", "")):
            continue
        found.append(_line(then.figure, now, after.marks.notation))
    told = ", ".join(found[:MOST_TOLD])
    more = len(found) - MOST_TOLD
    return f"{told} and {more} more" if more > 0 else told


def _line(then: Figure, now: Told, notation: Notation) -> str:
    old, new = exact_text(then, notation), exact_text(now.figure, notation)
    if new.endswith(" cm"):
        old = old.removesuffix(" cm")
    return f"{now.name} {old} → {new}"
