"""Will every piece at the edge still show, is what was pieced large enough?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.choosing import choose
from tessil.core.panels.panel import EdgeShow, PanelPlan, foundation_of
from tessil.core.panels.places import edge_place, whole
from tessil.core.piecing.acts.showing import LEAST_EDGE, Tried, edge_ways
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight


def piece_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of piecing one panel."""
    tried = Tried(plan, panel)
    for edge in panel.edges_show:
        if edge.shows.value < LEAST_EDGE:
            yield _thin_edge(tried, edge)
    yield from _melts(plan, panel)


def _melts(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A layer that is fused by an iron to what melts under it."""
    under = plan.materials.get(foundation_of(panel.choices))
    plies = panel.choices.layers.plies
    fused = [ply for ply in plies if ply.bond == "fuse"]
    if under is None or not under.melts or not fused:
        return
    names = ", ".join(plan.materials[ply.material].name.lower() for ply in fused)
    pinned = tuple(
        ply.model_copy(update={"bond": "pins"}) if ply.bond == "fuse" else ply for ply in plies
    )
    name = panel.panel.label.lower()
    yield Snag(
        key=f"piece.melts.{panel.key}",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=f"The foundation of the {name} melts where {names} "
        f"{'are' if len(fused) > 1 else 'is'} fused",
        why=f"{under.caution} Fusing takes a hot iron.",
        panel=panel.key,
        place=whole(panel),
        fixes=(
            choose(
                plan.project,
                panel.panel,
                "Sew it on foundation cloth",
                ("piecing.foundation", "foundation"),
                *(
                    (f"zones.{at}.piecing.foundation", "foundation")
                    for at in range(len(panel.choices.zones))
                ),
            ),
            choose(plan.project, panel.panel, "Pin what was to be fused", ("layers.plies", pinned)),
        ),
    )


def _thin_edge(tried: Tried, edge: EdgeShow) -> Snag:
    plan, panel = tried.plan, tried.panel
    read = plan.marks.notation.read_under
    piecing = panel.parts[edge.zone].choice
    noun = "border" if piecing.border else "strip" if piecing.way == "strips" else "row of squares"
    if edge.shows.value <= 0:
        title = f"The {edge.side} {noun} is trimmed away or sewn in"
    else:
        title = f"The {edge.side} {noun} will show only {read(edge.shows.value, unit=True)}"
    part = f".{edge.zone}" if edge.zone else ""
    return Snag(
        key=f"piece.edge.{panel.key}.{edge.side}{part}",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=title,
        why="After quilting, trimming and the bag's own seam; under ½ in (13 mm) looks a mistake.",
        panel=panel.key,
        place=edge_place(panel, edge),
        fixes=edge_ways(tried, edge),
    )
