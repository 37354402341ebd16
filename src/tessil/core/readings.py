"""Which figures a stage shows for a panel, in reading order, and what each one measures.

One table; the workings column, the report and the worksheet all read it.  Each room tells its own,
and is asked when its stage is: a reading is a figure of the plan, a place on the panel and a line
of help.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Stage


def _brief(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.brief.readings import brief_readings

    return brief_readings(plan, panel)


def _piece(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.layout.readings import pack_readings, print_readings
    from tessil.core.piecing.readings import piece_readings, stock_readings

    yield from piece_readings(plan, panel)
    yield from print_readings(plan)
    yield from stock_readings(plan, panel)
    yield from pack_readings(plan)


def _layer(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.cutting.readings import roll_readings
    from tessil.core.edges.readings import bulk_readings
    from tessil.core.hooping.readings import hoop_readings
    from tessil.core.sandwich.readings import layer_readings

    yield from layer_readings(plan, panel)
    yield from roll_readings(plan)
    yield from bulk_readings(plan, panel)
    yield from hoop_readings(plan, panel)


def _quilt(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.quilting.readings import quilt_readings

    return quilt_readings(plan, panel)


def _trim(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.trimming.readings import trim_readings

    return trim_readings(plan, panel)


def _edge(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.edges.readings import edge_readings

    return edge_readings(plan, panel)


def _cut(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    from tessil.core.cutting.readings import cut_readings

    return cut_readings(plan)


_TABLE: dict[Stage, Callable[[Plan, PanelPlan], Iterator[Reading]]] = {
    Stage.BRIEF: _brief,
    Stage.PIECE: _piece,
    Stage.LAYER: _layer,
    Stage.QUILT: _quilt,
    Stage.TRIM: _trim,
    Stage.EDGE: _edge,
    Stage.CUT: _cut,
    Stage.MAKE: lambda plan, panel: iter(()),
}


def readings(plan: Plan, stage: Stage, panel_key: str) -> tuple[Reading, ...]:
    """The receipt of one stage for one panel."""
    return tuple(_TABLE[stage](plan, plan.panel(panel_key)))
