"""Will every piece at the edge still show, is what was pieced large enough?"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import TYPE_CHECKING

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.panels import PanelPlan
from tessil.core.snags import Place, Snag, Stage, Weight
from tessil.core.workings import Figure

if TYPE_CHECKING:
    from tessil.core.plan import Plan

LEAST_EDGE = Fraction(1, 2)


def piece_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of piecing, panel by panel."""
    for panel in plan.panels:
        for at, shows in enumerate(panel.edge_strips):
            if shows.value < LEAST_EDGE:
                yield _thin_edge(plan, panel, shows, first=at == 0)


def _thin_edge(plan: Plan, panel: PanelPlan, shows: Figure, first: bool) -> Snag:
    sides = ("top", "bottom") if panel.level_strips else ("left", "right")
    side = sides[0] if first else sides[1]
    read = plan.marks.notation.read_off
    if shows.value <= 0:
        title = f"The {side} strip is trimmed away or sewn in"
    else:
        title = f"The {side} strip will show only {read(shows.value, unit=True)}"
    return Snag(
        key=f"piece.edge.{panel.key}.{side}",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=title,
        why="After quilting, trimming and the bag's own seam; under ½ in (13 mm) looks a mistake.",
        panel=panel.key,
        place=_strip_place(panel, shows, first),
        fixes=_edge_fixes(plan, panel),
    )


def _strip_place(panel: PanelPlan, shows: Figure, first: bool) -> Place:
    width, height = (float(v) for v in panel.trimmed.values())
    level = panel.level_strips
    side = ("top" if first else "bottom") if level else ("left" if first else "right")
    deep = max(float(shows.value), 0.0) + float(panel.shown[side])  # type: ignore[index]
    if level:
        return Place(0, 0 if first else height - deep, width, deep)
    return Place(0 if first else width - deep, 0, deep, height)


def _edge_fixes(plan: Plan, panel: PanelPlan) -> tuple[Edit, ...]:
    assert panel.strips is not None
    project, choice = plan.project, panel.choices.piecing
    number = panel.strips.number.whole
    fixes = []
    if choice.surplus != "both":
        fixes.append(choose(project, panel.panel, "Trim both sides alike",
                            ("piecing.surplus", "both")))  # fmt: skip
    if choice.surplus != "recut" and choice.fixed == "width":
        fixes.append(choose(project, panel.panel, f"Recut all {number} strips to come out even",
                            ("piecing.surplus", "recut")))  # fmt: skip
    if number > 2:
        fixes.append(choose(project, panel.panel, f"{number - 1} wider strips instead",
                            ("piecing.fixed", "count"), ("piecing.count", number - 1),
                            ("piecing.surplus", "both")))  # fmt: skip
    return tuple(fixes)
