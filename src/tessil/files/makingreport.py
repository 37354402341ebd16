"""The steps of a bag as data and as a page of text: gates, what is done, how it stands."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from tessil.core.bag.deeds import Deed, Making
from tessil.core.making.acts.telling import told
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.planned import Plan
from tessil.core.trouble import CannotPlan
from tessil.core.words.making import GATE_WORDS, OPERATION_WORDS, seam_words

NONE = Making(())


def making_data(plan: Plan) -> dict[str, Any]:
    """Every step in its order, what breaks in it, and the facts after those that are done."""
    making = _making(plan)
    stands = standing(making, plan.project.making.done)
    return {
        "steps": [_step_data(plan, deed) for deed in making.deeds],
        "broken": [{"step": one.deed, "gate": one.gate, "fact": one.fact} for one in making.broken],
        "next": "" if stands.next is None else stands.next.id,
        "state": sorted(fact for fact in stands.facts if not fact.startswith("done:")),
    }


def _making(plan: Plan) -> Making:
    try:
        return making_of(plan, plan.project.making)
    except CannotPlan:
        return NONE


def _step_data(plan: Plan, deed: Deed) -> dict[str, Any]:
    title, words = told(plan, deed)
    made = plan.project.making
    return {
        "id": deed.id,
        "kind": deed.what,
        "work": deed.operation,
        "title": title,
        "words": words,
        "panels": list(deed.panels),
        "edges": [list(pair) for pair in deed.edges],
        "seam": None if deed.seam is None else float(deed.seam.value),
        "length": None if deed.length is None else float(deed.length.value),
        "gap": None if deed.gap is None else float(deed.gap.value),
        "tool": deed.tool,
        "minutes": None if deed.minutes is None else float(deed.minutes.value),
        "check": deed.check,
        "needs": list(deed.needs),
        "gates": [
            {"gate": gate.id, "fact": gate.fact, "holds": gate.holds, "why": GATE_WORDS[gate.id][0]}
            for gate in deed.gates
        ],
        "gives": list(deed.gives),
        "ends": list(deed.ends),
        "done": deed.id in made.done,
        "seconds": made.seconds.get(deed.id, 0),
        "note": made.notes.get(deed.id, ""),
    }


def making_text(plan: Plan) -> str:
    """The steps as a page to read."""
    return "\n".join(_lines(plan)) + "\n"


def _lines(plan: Plan) -> Iterator[str]:
    making, done = _making(plan), set(plan.project.making.done)
    yield "How it is made"
    for number, deed in enumerate(making.deeds, start=1):
        title, words = told(plan, deed)
        beside = seam_words(deed, plan.marks.notation)
        tick = "x" if deed.id in done else " "
        work = OPERATION_WORDS[deed.operation].lower()
        stop = "" if title.endswith("?") else "."
        seam = f" ({beside})" if beside else ""
        yield f"{number:>4}. [{tick}] {work}: {title}{stop} {words}{seam}"
