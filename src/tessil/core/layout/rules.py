"""The maker's rules for a layout: which are broken and where, and the problem they make.

One price list serves the search and the counting of what is broken, so they cannot disagree.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from tessil.core.catalogue.prints import Print
from tessil.core.edits import Edit
from tessil.core.layout.board import Area, Decision, areas, ways_up
from tessil.core.layout.choice import Rules
from tessil.core.layout.touches import Ref, Touch
from tessil.core.layout.values import classes_of, ranks_of
from tessil.core.panels.planning import PanelPlan
from tessil.core.piecing.acts.laying import laying
from tessil.core.piecing.top import Patch

if TYPE_CHECKING:
    from tessil.core.layout.arrange import Answer, Problem
    from tessil.core.plan import Plan

PRICES = {"side": 12, "join": 12, "worn": 12, "corner": 6}
SPREAD, STRIPED, GRADED, FAVOURITE, UPRIGHT = 2, 3, 2, 4, 12
PREFER = 1  # another print where a favourite could lie: no rule broken, but a pity
MET = {
    "side": "side by side",
    "corner": "corner to corner",
    "join": "across a seam or fold of the bag",
    "worn": "where one part lies on another",
}


@dataclass(frozen=True, slots=True)
class Broken:
    """One broken rule: which, the pieces concerned, and whether it is one decision twice."""

    rule: str  # side, corner, join, worn, order, favourite, upright
    pieces: tuple[Ref, ...]
    itself: bool = False


def minded(rules: Rules, touch: Touch) -> bool:
    """Whether a rule is switched on for this way of touching."""
    if touch.kind == "side":
        return rules.sides
    return rules.corners if touch.kind == "corner" else rules.joins


def in_play(plan: Plan) -> tuple[Print, ...]:
    """The prints to arrange: those counted in hand; else those laid now; else all there are."""
    prints = plan.project.prints
    counted = tuple(entry for entry in prints if entry.amount)
    if counted:
        return counted
    used = {patch.print for patch in plan.board.patches.values()}
    laid = tuple(entry for entry in prints if entry.key in used)
    return laid if len(laid) > 1 else prints


@dataclass(frozen=True, slots=True)
class Pricing:
    """What a print costs on a piece by itself, rule by rule."""

    prints: tuple[Print, ...]
    classes: list[int]
    ranks: list[int]
    rules: Rules
    favourite_area: frozenset[Ref]
    both_ways: frozenset[Ref]  # pieces that go round a fold and show both ways up

    def alone(self, ref: Ref, place: float, row: int, at: int) -> dict[str, int]:
        """The prices of print ``at`` on a piece: ``place`` from 0 to 1 along the grading."""
        rules, cloth = self.rules, self.prints[at]
        found: dict[str, int] = {}
        if rules.order == "graded":
            wanted = place * max(len(self.prints) - 1, 1)
            off = abs(self.ranks[at] - wanted)
            found["order"] = GRADED * int(off)
        elif rules.order == "striped":
            dark = self.ranks[at] < len(self.prints) / 2
            found["order"] = 0 if dark == (row % 2 == 1) else STRIPED
        if rules.favourites and any(entry.favourite for entry in self.prints):
            if cloth.favourite and ref not in self.favourite_area:
                found["favourite"] = FAVOURITE
            elif not cloth.favourite and ref in self.favourite_area:
                found["prefer"] = PREFER
        if rules.upright and cloth.directional and ref in self.both_ways:
            found["upright"] = UPRIGHT
        return {rule: price for rule, price in found.items() if price}


def pricing(plan: Plan, prints: tuple[Print, ...], to_ask: bool = False) -> Pricing:
    """The price list for a plan as it stands; to ask, with what lies both ways up."""
    rules, board = plan.project.rules, plan.board
    found = areas(plan.bag)
    area = next((a for a in found if a.key == rules.favourites), None)
    on_area: set[Ref] = set()
    both: set[Ref] = set()
    directional = to_ask and rules.upright and any(entry.directional for entry in prints)
    for ref, patch in board.patches.items():
        panel = plan.panel(ref.panel)
        if area is not None and middle_on(panel, ref, area, patch):
            on_area.add(ref)
        if directional and len(ways_up(found, panel, patch)) > 1:
            both.add(ref)
    return Pricing(
        prints, classes_of(prints), ranks_of(prints), rules, frozenset(on_area), frozenset(both)
    )


def middle_on(panel: PanelPlan, ref: Ref, area: Area, patch: Patch) -> bool:
    """Whether the middle of a piece lies on the part of the panel that an area shows."""
    if area.panel != ref.panel:
        return False
    xs, ys = zip(*patch.on_panel, strict=True)
    x, y, w, h = area.source
    across, down = sum(xs) / len(xs), sum(ys) / len(ys)
    return bool(x < across < x + w and y < down < y + h)


def place_along(plan: Plan, ref: Ref) -> float:
    """How far along the grading a piece lies on its panel, 0 to 1: dark at 0."""
    if plan.project.rules.order != "graded":
        return 0.0
    panel, patch = plan.panel(ref.panel), plan.board.patches[ref]
    width, height = panel.pieced.floats()
    xs, ys = [x for x, _ in patch.outline], [y for _, y in patch.outline]
    across, down = sum(xs) / len(xs) / width, sum(ys) / len(ys) / height
    way = plan.project.rules.graded
    place = {"down": 1 - down, "up": down, "right": 1 - across, "left": across}[way]
    return min(max(place, 0.0), 1.0)


def broken_rules(plan: Plan) -> tuple[Broken, ...]:
    """Every rule that the layout breaks now."""
    rules, board = plan.project.rules, plan.board
    found: list[Broken] = []
    touching = board.touching()
    for touch in touching:
        one, other = board.patches[touch.one], board.patches[touch.other]
        if one.print == other.print and minded(rules, touch):
            itself = touch.one.decision == touch.other.decision
            found.append(Broken(touch.kind, (touch.one, touch.other), itself))
    found += _order_broken(plan, touching)
    return tuple(found)


def _order_broken(plan: Plan, touching: Sequence[Touch]) -> list[Broken]:
    rules, board, project = plan.project.rules, plan.board, plan.project
    if rules.order == "free" and not rules.favourites:
        return []
    used = {patch.print for patch in board.patches.values()}
    prints = in_play(plan)
    prints += tuple(e for e in project.prints if e.key in used and e not in prints)
    place = {entry.key: at for at, entry in enumerate(prints)}
    price = pricing(plan, prints)
    found = []
    if rules.order == "spread":
        for touch in touching:
            one, other = (board.patches[ref].print for ref in (touch.one, touch.other))
            if one == other or touch.kind != "side" or one not in place or other not in place:
                continue
            if price.classes[place[one]] == price.classes[place[other]] != 1:
                found.append(Broken("order", (touch.one, touch.other)))
    for ref, patch in board.patches.items():
        if patch.print not in place:
            continue
        costs = price.alone(ref, place_along(plan, ref), patch.row, place[patch.print])
        if costs.get("order", 0) > GRADED or (rules.order == "striped" and "order" in costs):
            found.append(Broken("order", (ref,)))
        if "favourite" in costs:
            found.append(Broken("favourite", (ref,)))
    return found


# -- the problem, and its answer --------------------------------------------------


@dataclass(frozen=True, slots=True)
class Asked:
    """A plan's layout as a problem: its decisions in order, the prints in order."""

    problem: Problem
    decisions: tuple[Decision, ...]
    prints: tuple[Print, ...]


def ask(plan: Plan) -> Asked:
    """The problem that a plan's pieces, prints and rules make; loads NumPy."""
    import numpy as np

    from tessil.core.layout.arrange import Problem

    board, rules, prints = plan.board, plan.project.rules, in_play(plan)
    decisions = tuple(board.copies)
    number = {decision: at for at, decision in enumerate(decisions)}
    price = pricing(plan, prints, to_ask=True)
    pairs: dict[tuple[int, int], list[int]] = {}
    for touch in board.touching():
        one, other = number[touch.one.decision], number[touch.other.decision]
        if one == other:
            continue
        same = PRICES[touch.kind] if minded(rules, touch) else 0
        alike = SPREAD if rules.order == "spread" and touch.kind == "side" else 0
        costs = pairs.setdefault((min(one, other), max(one, other)), [0, 0])
        costs[0], costs[1] = costs[0] + same, costs[1] + alike
    alone = np.zeros((len(decisions), len(prints)), dtype=np.int64)
    for ref, patch in board.patches.items():
        place = place_along(plan, ref)
        for at in range(len(prints)):
            alone[number[ref.decision], at] += sum(price.alone(ref, place, patch.row, at).values())
    fixed = np.full(len(decisions), -1, dtype=np.int64)
    keys = [entry.key for entry in prints]
    for ref, patch in board.patches.items():
        if patch.locked and patch.print in keys:
            fixed[number[ref.decision]] = keys.index(patch.print)
    bags = plan.project.bags
    limits = [-1 if entry.amount is None or not rules.amounts else entry.amount for entry in prints]
    weights = np.array([board.copies[d] * bags for d in decisions], dtype=np.int64)
    problem = Problem(
        floor=_floor(price, prints, alone, weights, limits),
        pairs=np.array(list(pairs), dtype=np.int64).reshape(-1, 2),
        same=np.array([costs[0] for costs in pairs.values()], dtype=np.int64),
        alike=np.array([costs[1] for costs in pairs.values()], dtype=np.int64),
        classes=np.array(price.classes, dtype=np.int64),
        alone=alone,
        weights=weights,
        limits=np.array(limits, dtype=np.int64),
        fixed=fixed,
    )
    return Asked(problem, decisions, prints)


def _floor(
    price: Pricing, prints: tuple[Print, ...], alone: Any, weights: Any, limits: list[int]
) -> int:
    """What any layout must cost: places for favourites that there are too few of."""
    if not price.favourite_area or any(
        entry.favourite and limit < 0 for entry, limit in zip(prints, limits, strict=True)
    ):
        return 0
    there = sum(limit for entry, limit in zip(prints, limits, strict=True) if entry.favourite)
    plain = [at for at, entry in enumerate(prints) if not entry.favourite]
    if not plain:
        return 0
    wanted = (alone[:, plain].min(axis=1) >= PREFER) * weights
    return max(int(wanted.sum()) - there, 0) * PREFER


def arranged(plan: Plan, asked: Asked, answer: Answer) -> Edit:
    """The layout of an answer as one edit, directional prints turned to stand upright."""
    if not asked.prints:
        return Edit("Arrange the prints", ())
    chosen = {
        decision: asked.prints[int(at)]
        for decision, at in zip(asked.decisions, answer.prints, strict=True)
    }
    found = areas(plan.bag)
    by_owner: dict[str, tuple[PanelPlan, dict[Any, str], dict[Any, bool]]] = {}
    for ref, patch in plan.board.patches.items():
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
    rules, board = plan.project.rules, plan.board
    prints, found = in_play(plan), []
    pieces = sum(board.copies.values()) * plan.project.bags
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
        found.append(
            f"{len(itself)} pieces meet themselves, since the {label} is pieced alike: "
            "choose for it apart."
        )
    return tuple(found)


def outcome(plan: Plan, change: Edit) -> str:
    """What came of arranging, honestly: how many rules are still broken, and why if it can be
    said without searching."""
    from tessil.core.edits import applied
    from tessil.core.plan import plan as plan_again

    if not plan.project.prints:
        return reasons(plan)[0]
    after = plan_again(applied(plan.project, change))
    left = after.broken
    why = " ".join(reasons(after))
    short = over_amounts(after)
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


def laid_amounts(plan: Plan) -> dict[str, int]:
    """How many pieces of each print the whole job lays, over all bags."""
    found: dict[str, int] = {}
    counted: set[Decision] = set()
    for ref, patch in plan.board.patches.items():
        if ref.decision in counted:
            continue
        counted.add(ref.decision)
        pieces = plan.board.copies[ref.decision] * plan.project.bags
        found[patch.print] = found.get(patch.print, 0) + pieces
    return found


def over_amounts(plan: Plan) -> list[tuple[Print, int, int]]:
    """Prints of which more is laid than there is, how many are laid, and how many are in hand."""
    used = laid_amounts(plan)
    return [
        (entry, used[entry.key], entry.amount)
        for entry in plan.project.prints
        if entry.amount is not None and used.get(entry.key, 0) > entry.amount
    ]
