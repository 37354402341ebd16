"""The maker's rules for a layout: which are broken and where, and the problem they make.

One price list serves the search and the counting of what is broken, so they cannot disagree.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any

from tessil.core.catalogue.prints import Print
from tessil.core.layout.board import Area, Board, Decision, ways_up
from tessil.core.layout.choice import Rules
from tessil.core.layout.touches import Ref, Touch
from tessil.core.layout.values import classes_of, ranks_of
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.top import Patch

if TYPE_CHECKING:
    from tessil.core.layout.arrange import Problem

PRICES = {"side": 12, "join": 12, "worn": 12, "corner": 6}
SPREAD, STRIPED, GRADED, FAVOURITE, UPRIGHT = 2, 3, 2, 4, 12
PREFER = 1  # another print where a favourite could lie: no rule broken, but a pity


class Broken(Record, frozen=True):
    """One broken rule: which, the pieces concerned, and whether it is one decision twice."""

    rule: str  # side, corner, join, worn, order, favourite
    pieces: tuple[Ref, ...]
    itself: bool = False


# Which rule asks for it that prints do not touch in a way.
RULED = {"side": "sides", "corner": "corners", "join": "joins", "worn": "joins"}


def minded(rules: Rules, touch: Touch) -> bool:
    """Whether a rule is switched on for this way of touching."""
    return {"sides": rules.sides, "corners": rules.corners, "joins": rules.joins}[RULED[touch.kind]]


class Table(Record, frozen=True):
    """All that a layout is judged by: the pieces as they lie, the prints, the maker's rules."""

    board: Board
    areas: tuple[Area, ...]
    panels: Mapping[str, PanelPlan]
    prints: tuple[Print, ...]  # of the basket
    rules: Rules
    bags: int


def in_play(table: Table) -> tuple[Print, ...]:
    """The prints to arrange: those counted in hand; else those laid now; else all there are."""
    prints = table.prints
    counted = tuple(entry for entry in prints if entry.amount)
    if counted:
        return counted
    used = {patch.print for patch in table.board.patches.values()}
    laid = tuple(entry for entry in prints if entry.key in used)
    return laid if len(laid) > 1 else prints


class Pricing(Record, frozen=True):
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


def pricing(table: Table, prints: tuple[Print, ...], to_ask: bool = False) -> Pricing:
    """The price list for a plan as it stands; to ask, with what lies both ways up."""
    rules, board = table.rules, table.board
    found = table.areas
    area = next((a for a in found if a.key == rules.favourites), None)
    on_area: set[Ref] = set()
    both: set[Ref] = set()
    directional = to_ask and rules.upright and any(entry.directional for entry in prints)
    for ref, patch in board.patches.items():
        panel = table.panels[ref.panel]
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


def place_along(table: Table, ref: Ref) -> float:
    """How far along the grading a piece lies on its panel, 0 to 1: dark at 0."""
    if table.rules.order != "graded":
        return 0.0
    panel, patch = table.panels[ref.panel], table.board.patches[ref]
    width, height = panel.pieced.floats()
    xs, ys = [x for x, _ in patch.outline], [y for _, y in patch.outline]
    across, down = sum(xs) / len(xs) / width, sum(ys) / len(ys) / height
    way = table.rules.graded
    place = {"down": 1 - down, "up": down, "right": 1 - across, "left": across}[way]
    return min(max(place, 0.0), 1.0)


def broken_rules(table: Table) -> tuple[Broken, ...]:
    """Every rule that the layout breaks now."""
    rules, board = table.rules, table.board
    found: list[Broken] = []
    touching = board.touching()
    for touch in touching:
        one, other = board.patches[touch.one], board.patches[touch.other]
        if one.print == other.print and minded(rules, touch):
            itself = touch.one.decision == touch.other.decision
            found.append(Broken(touch.kind, (touch.one, touch.other), itself))
    found += _order_broken(table, touching)
    return tuple(found)


def _order_broken(table: Table, touching: Sequence[Touch]) -> list[Broken]:
    rules, board = table.rules, table.board
    if rules.order == "free" and not rules.favourites:
        return []
    used = {patch.print for patch in board.patches.values()}
    prints = in_play(table)
    prints += tuple(e for e in table.prints if e.key in used and e not in prints)
    place = {entry.key: at for at, entry in enumerate(prints)}
    price = pricing(table, prints)
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
        costs = price.alone(ref, place_along(table, ref), patch.row, place[patch.print])
        if costs.get("order", 0) > GRADED or (rules.order == "striped" and "order" in costs):
            found.append(Broken("order", (ref,)))
        if "favourite" in costs:
            found.append(Broken("favourite", (ref,)))
    return found


# -- the problem, and its answer --------------------------------------------------


class Asked(Record, frozen=True):
    """A plan's layout as a problem: its decisions in order, the prints in order."""

    problem: Problem
    decisions: tuple[Decision, ...]
    prints: tuple[Print, ...]


def ask(table: Table) -> Asked:
    """The problem that a plan's pieces, prints and rules make; loads NumPy."""
    import numpy as np

    from tessil.core.layout.arrange import Problem

    board, rules, prints = table.board, table.rules, in_play(table)
    decisions = tuple(board.copies)
    number = {decision: at for at, decision in enumerate(decisions)}
    price = pricing(table, prints, to_ask=True)
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
        place = place_along(table, ref)
        for at in range(len(prints)):
            alone[number[ref.decision], at] += sum(price.alone(ref, place, patch.row, at).values())
    fixed = np.full(len(decisions), -1, dtype=np.int64)
    keys = [entry.key for entry in prints]
    for ref, patch in board.patches.items():
        if patch.locked and patch.print in keys:
            fixed[number[ref.decision]] = keys.index(patch.print)
    bags = table.bags
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


def laid_amounts(table: Table) -> dict[str, int]:
    """How many pieces of each print the whole job lays, over all bags."""
    found: dict[str, int] = {}
    counted: set[Decision] = set()
    for ref, patch in table.board.patches.items():
        if ref.decision in counted:
            continue
        counted.add(ref.decision)
        pieces = table.board.copies[ref.decision] * table.bags
        found[patch.print] = found.get(patch.print, 0) + pieces
    return found


def over_amounts(table: Table) -> list[tuple[Print, int, int]]:
    """Prints of which more is laid than there is, how many are laid, and how many are in hand."""
    used = laid_amounts(table)
    return [
        (entry, used[entry.key], entry.amount)
        for entry in table.prints
        if entry.amount is not None and used.get(entry.key, 0) > entry.amount
    ]
