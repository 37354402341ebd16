"""Ways out for an outermost piece that will not show.

Whether one leads out is not reasoned about: the panel is planned with it.  Knows the plan; changes
nothing.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from tessil.core.choosing import choose, forget
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import MOST_ROOM
from tessil.core.numbers.lengths import Inches, round_up
from tessil.core.numbers.sizes import Side
from tessil.core.panels.panel import EdgeShow, PanelPlan
from tessil.core.panels.trial import AFRESH, panel_if
from tessil.core.piecing.acts.laying import part_path
from tessil.core.piecing.choice import GRIDS
from tessil.core.planned import Plan

LEAST_EDGE = Fraction(1, 2)
ACROSS: dict[Side, Side] = {"left": "right", "right": "left", "top": "bottom", "bottom": "top"}
FEWER = 6  # so many numbers of strips are tried one by one
STEP = Fraction(1, 4)

Try = tuple[str, dict[str, Any]]  # its words, and the choices of the part that it changes


class Tried:
    """A panel, and what became of it with each choice that was tried: its sides ask alike."""

    def __init__(self, plan: Plan, panel: PanelPlan) -> None:
        self.plan, self.panel = plan, panel
        self.made: dict[tuple[object, ...], PanelPlan | None] = {}

    def after(self, key: tuple[object, ...], step: Edit) -> PanelPlan | None:
        if key not in self.made:
            plan = self.plan
            self.made[key] = panel_if(plan.setting, plan.tasks, self.panel.key, step)
        return self.made[key]


def edge_ways(tried: Tried, edge: EdgeShow) -> tuple[Edit, ...]:
    """How the outermost piece comes to show; a panel that is pieced is trimmed otherwise, or, where
    that does not help, pieced again."""
    plan, panel = tried.plan, tried.panel
    trims, recuts = _trims(panel, edge), _recuts(plan, panel, edge)
    made = panel.measured.made
    first = tuple(_leading(tried, edge, trims if made else [*trims, *recuts]))
    if first:
        return first
    again = recuts if made else []
    return tuple(_leading(tried, edge, again, again=made)) or tuple(
        _leading(tried, edge, [[("Cut it from whole cloth", {"way": "whole"})]], again=made)
    )


def _leading(
    tried: Tried, edge: EdgeShow, ways: list[list[Try]], again: bool = False
) -> Iterator[Edit]:
    """The first of each way that leads out."""
    plan, panel, path = tried.plan, tried.panel, part_path(edge.zone)
    bare = (forget(plan.project, panel.key, *AFRESH),) if again else ()
    for way in ways:
        for words, choices in way:
            said = f"Piece it again: {words[:1].lower()}{words[1:]}" if again else words
            changes = [(f"{path}.{key}", value) for key, value in choices.items()]
            step = choose(plan.project, panel.panel, said, *changes)
            step = Edit(said, (*step.changes, *bare))
            made = tried.after((edge.zone, again, *choices.items()), step)
            if made is not None and _better(panel, made, edge):
                yield step
                break


def _thin(panel: PanelPlan) -> dict[tuple[Side, int], Inches]:
    """What shows at each side of the pieces that show too little."""
    shows = {(one.side, one.zone): one.shows.value for one in panel.edges_show}
    return {place: value for place, value in shows.items() if value < LEAST_EDGE}


def _better(panel: PanelPlan, made: PanelPlan, edge: EdgeShow) -> bool:
    """Whether the piece shows, and none shows too little that showed more before."""
    before, after = _thin(panel), _thin(made)
    less = (place for place, value in after.items() if value < before.get(place, LEAST_EDGE))
    return (edge.side, edge.zone) not in after and next(less, None) is None


def _may_show(panel: PanelPlan, edge: EdgeShow) -> bool:
    """Whether the piece could show if all that is too much came off the other side: else nothing
    needs to be tried that leaves its cut as it is."""
    top = panel.parts[edge.zone].top
    pieces = top.columns if edge.side in ("left", "right") else top.rows
    if pieces is None or panel.measured.made:
        return True
    return edge.shows.value + max(pieces.surplus.value, Fraction(0)) + STEP >= LEAST_EDGE


def _trims(panel: PanelPlan, edge: EdgeShow) -> list[list[Try]]:
    """What is too much, trimmed off elsewhere."""
    choice = panel.parts[edge.zone].choice
    upright = edge.side in ("left", "right")
    rule = "surplus_across" if choice.way in GRIDS and upright else "surplus"
    now, keeps = getattr(choice, rule), "one" if edge.side in ("left", "top") else "other"
    ways: list[list[Try]] = []
    if not _may_show(panel, edge):
        return ways
    if now in ("one", "other"):
        ways.append([("Trim both sides alike", {rule: "both"})])
    if now in ("both", "one", "other") and now != keeps:
        ways.append([(f"Trim what is too much off the {ACROSS[edge.side]}", {rule: keeps})])
    return ways


def _recuts(plan: Plan, panel: PanelPlan, edge: EdgeShow) -> list[list[Try]]:
    """The same panel of pieces that are cut otherwise."""
    part = panel.parts[edge.zone]
    choice, upright = part.choice, edge.side in ("left", "right")
    pieces = part.top.columns if upright else part.top.rows
    if choice.border or pieces is None:
        wider = choice.border + LEAST_EDGE - min(edge.shows.value, LEAST_EDGE)
        near = plan.marks.notation.nearest(wider + STEP / 2)
        cuts = [{"border": min(near + at * STEP, MOST_ROOM)} for at in range(FEWER)]
        off = [("Leave the border off", {"border": Fraction(0)})] if choice.border else []
        return [[("Cut the border wider", cut) for cut in cuts], off]
    grid = choice.way in GRIDS
    rule = "surplus_across" if grid and upright else "surplus"
    number, now, ways = pieces.number.whole, getattr(choice, rule), list[list[Try]]()
    as_cut = choice.fixed == "width" and now not in ("recut", "border")
    if as_cut and _may_show(panel, edge):
        noun = "rows" if grid else "strips"
        ways.append([(f"Recut all {number} {noun} to come out even", {rule: "recut"})])
        if number > 2:
            ways.append([("One fewer, and a border to fill", {rule: "border"})])
    if grid:
        marks, missing = plan.marks.notation, LEAST_EDGE - edge.shows.value
        least = round_up(choice.square + missing, STEP)
        sizes = [marks.nearest(least + at * STEP) for at in range(FEWER)]
        ways.append(
            [
                (f"Cut the squares {marks.exact(size, unit=True)}", {"square": size})
                for size in sizes
            ]
        )
    elif choice.fixed != "mixed":
        one_by_one = range(number - 1, number - 1 - FEWER, -1)
        counts = dict.fromkeys((*one_by_one, number // 2, number // 3))
        fewer = [at for at in counts if at > 1]
        as_count = {"fixed": "count", "surplus": "both"}
        ways.append([(f"{at} wider strips instead", {**as_count, "count": at}) for at in fewer])
    return ways
