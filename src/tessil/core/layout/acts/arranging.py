"""Arranging prints by rule: the answer of a search as an edit, and what came of it in words."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from tessil.core.edits import Edit
from tessil.core.layout.board import ways_up
from tessil.core.layout.rules import Asked, Broken, in_play, minded, over_amounts
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.acts.laying import laying
from tessil.core.planned import Plan

if TYPE_CHECKING:
    from tessil.core.layout.arrange import Answer


def arranged(plan: Plan, asked: Asked, answer: Answer) -> Edit:
    """The layout of an answer as one edit, directional prints turned to stand upright."""
    if not asked.prints:
        return Edit("Arrange the prints", ())
    chosen = {
        decision: asked.prints[int(at)]
        for decision, at in zip(asked.decisions, answer.prints, strict=True)
    }
    found = plan.table.areas
    by_owner: dict[str, tuple[PanelPlan, dict[Any, str], dict[Any, bool]]] = {}
    for ref, patch in plan.table.board.patches.items():
        panel = plan.panel(ref.panel)
        if ref.owner != ref.panel and ref.owner in by_owner:
            continue
        _, prints, turned = by_owner.setdefault(ref.owner, (panel, {}, {}))
        if by_owner[ref.owner][0].key != ref.panel:
            continue
        cloth, spot = chosen[ref.decision], (ref.zone, ref.piece)
        prints[spot] = cloth.key
        ways = ways_up(found, panel, patch) if cloth.directional else set()
        turned[spot] = ways == {True}
    changes: list[Any] = []
    for panel, prints, turned in by_owner.values():
        changes += laying(plan.project, panel, "", prints, turned).changes
    return Edit("Arrange the prints", tuple(changes))


def reasons(plan: Plan) -> tuple[str, ...]:
    """Why some rules cannot all be met, as far as that can be seen without searching."""
    rules, board = plan.project.rules, plan.table.board
    prints, found = in_play(plan.table), []
    pieces = sum(board.copies.values()) * plan.project.made
    if not plan.project.prints:
        return ("The basket is empty: add prints first.",)
    if rules.amounts and prints and all(entry.amount is not None for entry in prints):
        there = sum(entry.amount or 0 for entry in prints)
        if there < pieces:
            found.append(
                f"There are {there} pieces in hand and {pieces} to lay: {pieces - there} too few."
            )
    kinds = {touch.kind for touch in board.touching() if minded(rules, touch)}
    needs = 4 if "corner" in kinds and board.grids else 2 if kinds else 1
    if len(prints) < needs:
        what = "Four squares meet at every corner" if needs == 4 else "Neighbours touch"
        said = "one print" if len(prints) == 1 else f"{len(prints)} prints"
        found.append(f"{what}: {said} cannot keep them apart, {needs} could.")
    itself = [b for b in plan.broken if b.itself]
    if itself:
        label = plan.panel(itself[0].pieces[1].panel).panel.label.lower()
        many = (
            "1 piece meets itself" if len(itself) == 1 else f"{len(itself)} pieces meet themselves"
        )
        found.append(f"{many}, since the {label} is pieced alike: choose for it apart.")
    return tuple(found)


def outcome(after: Plan) -> str:
    """What came of arranging, honestly: how many rules are still broken, and why if it can be
    said without searching."""
    if not after.project.prints:
        return reasons(after)[0]
    left = after.broken
    why = " ".join(reasons(after))
    short = over_amounts(after.table)
    if not left and not short:
        return "Every rule is kept."
    words = []
    if left:
        words.append(
            f"{len(left)} {'rule is' if len(left) == 1 else 'rules are'} still broken: "
            f"{broken_words(left)}."
        )
    if short:
        words.append(
            " ".join(f"{cloth.name}: {used} laid, {there} in hand." for cloth, used, there in short)
        )
    words.append(why or "No layout with fewer was found; another try number may find one.")
    return " ".join(words)


NAMED = {
    "side": "alike side by side",
    "corner": "alike corner to corner",
    "join": "alike across a seam or fold",
    "worn": "alike where the bag closes",
    "order": "out of the order of light and dark",
    "favourite": "favourites out of place",
}


def broken_words(found: Sequence[Broken]) -> str:
    """``2 alike side by side, 1 alike corner to corner``."""
    counts: dict[str, int] = {}
    for broken in found:
        counts[broken.rule] = counts.get(broken.rule, 0) + 1
    return ", ".join(f"{number} {NAMED[rule]}" for rule, number in counts.items())
