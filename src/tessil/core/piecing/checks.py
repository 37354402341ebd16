"""Will every piece at the edge still show, is what was pieced large enough?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.panel import EdgeShow, PanelPlan, foundation_of
from tessil.core.panels.places import edge_place, whole
from tessil.core.piecing.acts.laying import part_path
from tessil.core.piecing.top import Strips
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight

LEAST_EDGE = Fraction(1, 2)


def piece_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of piecing one panel."""
    for edge in panel.edges_show:
        if edge.shows.value < LEAST_EDGE:
            yield _thin_edge(plan, panel, edge)
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


def _thin_edge(plan: Plan, panel: PanelPlan, edge: EdgeShow) -> Snag:
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
        fixes=_edge_fixes(plan, panel, edge),
    )


def _edge_fixes(plan: Plan, panel: PanelPlan, edge: EdgeShow) -> tuple[Edit, ...]:
    part = panel.parts[edge.zone]
    choice, upright = part.choice, edge.side in ("left", "right")
    pieces = part.top.columns if upright else part.top.rows
    if choice.border or pieces is None:
        wider = choice.border + LEAST_EDGE - min(edge.shows.value, LEAST_EDGE)
        wider = plan.marks.notation.nearest(wider + Fraction(1, 8))
        field = f"{part_path(edge.zone)}.border"
        return (choose(plan.project, panel.panel, "Cut the border wider", (field, wider)),)
    path = part_path(edge.zone)
    grid = choice.way in ("squares", "web")
    rule = "surplus_across" if grid and upright else "surplus"
    number, now = pieces.number.whole, getattr(choice, rule)

    def fix(words: str, *changes: tuple[str, object]) -> Edit:
        return choose(
            plan.project, panel.panel, words, *((f"{path}.{key}", value) for key, value in changes)
        )

    fixes = []
    if now in ("one", "other"):
        fixes.append(fix("Trim both sides alike", (rule, "both")))
    if now not in ("recut", "border") and choice.fixed == "width":
        noun = "rows" if grid else "strips"
        fixes.append(fix(f"Recut all {number} {noun} to come out even", (rule, "recut")))
        if number > 2 and _border_shows(plan, panel, edge, pieces) >= LEAST_EDGE:
            fixes.append(fix("One fewer, and a border to fill", (rule, "border")))
    if number > 2 and not grid and choice.fixed == "width":
        fixes.append(
            fix(
                f"{number - 1} wider strips instead",
                ("fixed", "count"),
                ("count", number - 1),
                ("surplus", "both"),
            )
        )
    return tuple(fixes)


def _border_shows(plan: Plan, panel: PanelPlan, edge: EdgeShow, pieces: Strips) -> Fraction:
    """About what a border would show at this side if one piece fewer were laid."""
    seam = plan.brief.seams.piecing.value
    missing = pieces.shows.value - pieces.surplus.value
    cut = missing / 2 + 2 * seam
    beyond = pieces.surplus.value / 2  # of what is cut off now, as much is surplus
    off = max(panel.cut_off[edge.side].value - beyond, Fraction(0))
    return cut - seam - off - panel.shown[edge.side]
