"""Does what must stand upright end upside-down in the finished bag?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.edits import Edit
from tessil.core.layout.board import Area, areas, areas_inside, shown_on, ways_up
from tessil.core.numbers.polygons import box_of
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.acts.laying import PieceAt, laying, spot_of
from tessil.core.piecing.top import Patch
from tessil.core.planned import Plan
from tessil.core.snags import Place, Snag, Stage, Weight


def upright_snags(plan: Plan) -> Iterator[Snag]:
    """Directional prints that end upside-down in the finished bag, side by side of it."""
    directional = {entry.key for entry in plan.project.prints if entry.directional}
    found = _areas(plan) if directional else ()
    for panel in plan.panels if directional else ():
        patches = [p for p in panel.patches if p.piece >= 0 and p.print in directional]
        seen: set[PieceAt] = set()
        for area in found:
            wrong = [
                patch
                for patch in patches
                if area.panel == panel.key
                and patch.turned != area.turned
                and spot_of(patch) not in seen
                and shown_on(panel, area, patch)
            ]
            if wrong:
                seen |= {spot_of(patch) for patch in wrong}
                yield _inverted(plan, panel, area, wrong)


def _areas(plan: Plan) -> tuple[Area, ...]:
    """The parts of the bag outside and inside."""
    outer = areas(plan.bag, plan.looks)
    return (*outer, *areas_inside(plan.bag, outer))


def _inverted(plan: Plan, panel: PanelPlan, area: Area, wrong: list[Patch]) -> Snag:
    names = sorted({plan.project.print_of(patch.print).name for patch in wrong})
    several = f", {len(wrong)} pieces," if len(wrong) > 1 else ""
    boxes = [box_of(patch.on_panel) for patch in wrong]
    x1, y1 = min(box[0] for box in boxes), min(box[1] for box in boxes)
    x2, y2 = max(box[2] for box in boxes), max(box[3] for box in boxes)
    x, y, w, h = area.source
    x1, y1, x2, y2 = max(x1, x), max(y1, y), min(x2, x + w), min(y2, y + h)
    way = "turned" if area.turned else "straight"
    title = f"{' and '.join(names[:2])}{several} {_ends(names, wrong)} upside-down on the "
    return Snag(
        key=f"piece.upside-down.{panel.key}.{area.name}.{way}",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=title + area.name,
        why="The panel is folded there: what points up on it points down in the bag.",
        panel=panel.key,
        place=Place(x1, y1, max(x2 - x1, 0), max(y2 - y1, 0)),
        fixes=_fixes(plan, panel, wrong),
    )


def _ends(names: list[str], wrong: list[Patch]) -> str:
    return "end" if len(names) > 1 or len(wrong) > 1 else "ends"


def _fixes(plan: Plan, panel: PanelPlan, wrong: list[Patch]) -> tuple[Edit, ...]:
    project, fixes, found = plan.project, [], _areas(plan)
    turning = {
        spot_of(patch): not patch.turned
        for patch in wrong
        if len(ways_up(found, panel, patch)) == 1
    }
    if turning:
        many = f"{len(turning)} pieces" if len(turning) > 1 else f"piece {wrong[0].name}"
        fixes.append(laying(project, panel, f"Lay {many} turned", {}, turning))
    plain = next((entry for entry in project.prints if not entry.directional), None)
    if plain is not None:
        spots = {spot_of(patch): plain.key for patch in wrong}
        fixes.append(laying(project, panel, f"Use {plain.name} there", spots))
    return tuple(fixes)
