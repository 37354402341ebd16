"""The bag as it is now: what is sewn, which way is open and how wide, what can still be set in."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import seams_in
from tessil.core.making.acts.common import OPEN_ZIP, sewings_of
from tessil.core.making.acts.kinds import kinds_of, turned_through_gap
from tessil.core.numbers.workings import Figure
from tessil.core.planned import Plan
from tessil.core.words.making import STATE_WORDS


def sewn_share(plan: Plan, facts: frozenset[str]) -> float:
    """How much of the sewn model's seams is sewn, from 0 to 1."""
    every = sewings_of(plan.bag)
    sewn = _number_sewn(plan, facts)
    return sewn / len(every) if every else float("finished" in facts)


def _number_sewn(plan: Plan, facts: frozenset[str]) -> int:
    return len(seams_in(facts) & {one.slug for one in sewings_of(plan.bag)})


def way_out(plan: Plan, facts: frozenset[str]) -> tuple[str, Figure | None]:
    """Through what the inside is reached now: a key of the words, and how wide it is."""
    kinds = kinds_of(plan)
    if "turned" not in facts and sewn_share(plan, facts) < 1.0:
        return "open", None
    if "gap left" in facts:
        return "gap", plan.gap
    if kinds.zips:
        zipper = plan.bag.zipper
        between = None if zipper is None else zipper.opens
        return ("zip" if OPEN_ZIP.fact in facts else "shut"), between
    return "mouth", plan.bag.opening


def state_words(plan: Plan, facts: frozenset[str]) -> Iterator[str]:
    """The bag as it is now, a sentence each."""
    read = plan.marks.notation.read_off
    every = sewings_of(plan.bag)
    if every:
        sewn = _number_sewn(plan, facts)
        yield STATE_WORDS["seams"].format(sewn=sewn, number=len(every))
    kinds = kinds_of(plan)
    if kinds.lined:
        key = "lining closed" if "lining closed" in facts else "lining open"
        yield STATE_WORDS[key]
    way, wide = way_out(plan, facts)
    said = "" if wide is None else read(wide.value, unit=True)
    yield STATE_WORDS[way].format(wide=said).strip()
    if turned_through_gap(kinds) and "turned" not in facts:
        least = read(plan.gap_least.value, unit=True)
        enough = plan.gap.value >= plan.gap_least.value
        yield STATE_WORDS["enough" if enough else "narrow"].format(
            gap=read(plan.gap.value, unit=True), least=least
        )
    if "turned" in facts:
        yield STATE_WORDS["turned"]
    elif sewn_share(plan, facts):
        yield STATE_WORDS["inside out"]
