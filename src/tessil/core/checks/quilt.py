"""Do lines keep clear of seams, and close enough for the batting?"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import TYPE_CHECKING

from tessil.core.catalogue import material
from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.lengths import Inches
from tessil.core.panels import PanelPlan
from tessil.core.places import whole
from tessil.core.quilting.channels import CLEAR
from tessil.core.snags import Place, Snag, Stage, Weight

if TYPE_CHECKING:
    from tessil.core.plan import Plan


def quilt_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of quilting, panel by panel."""
    for panel in plan.panels:
        yield from _near_seams(plan, panel)
        yield from _too_far_apart(plan, panel)


def _span(panel: PanelPlan) -> tuple[Inches, Inches, str, str]:
    if panel.upright_lines:
        return (
            panel.shown["left"],
            panel.trimmed.width.value - panel.shown["right"],
            "left",
            "right",
        )
    return panel.shown["top"], panel.trimmed.height.value - panel.shown["bottom"], "top", "bottom"


def _near_seams(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A line in a seam allowance, or within ⅛ of a seam line, shows as a crooked seam."""
    start, end, first, last = _span(panel)
    for at, place in enumerate(panel.line_places(), start=1):
        for side, gap in ((first, place - start), (last, end - place)):
            if gap >= CLEAR:
                continue
            if panel.panel.side(side).finish == "bound" and gap >= 0:
                continue
            yield _near_seam(plan, panel, at, place, side, gap)


def _near_seam(
    plan: Plan, panel: PanelPlan, number: int, place: Inches, side: str, gap: Inches
) -> Snag:
    read = plan.marks.notation.exact
    inside = gap < 0
    title = (
        f"Line {number} runs inside the {side} seam"
        if inside
        else f"Line {number} runs {read(gap, unit=True)} from the {side} seam line"
    )
    width, height = (float(v) for v in panel.trimmed.values())
    at = float(place)
    spot = (
        Place(at, 0, 0, height, "line")
        if panel.upright_lines
        else Place(at * 0, at, width, 0, "line")
    )
    return Snag(
        key=f"quilt.seam.{panel.key}.{side}.{number}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=title,
        why="A line in the allowance adds bulk, one within ⅛ in (3 mm) of the seam looks crooked.",
        panel=panel.key,
        place=spot,
        fixes=_spacing_fixes(plan, panel),
    )


def _spacing_fixes(plan: Plan, panel: PanelPlan) -> tuple[Edit, ...]:
    quilting = panel.choices.quilting
    fixes = []
    if quilting.spacing == "keep":
        fixes.append(choose(plan.project, panel.panel, "Divide the width evenly",
                            ("quilting.spacing", "divide")))  # fmt: skip
        other = "gap" if quilting.centre == "line" else "line"
        fixes.append(choose(plan.project, panel.panel, f"Put a {other} on the centre",
                            ("quilting.centre", other)))  # fmt: skip
    return tuple(fixes)


def _too_far_apart(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    batting = panel.choices.layers.batting
    if batting == "none" or panel.panel.kind != "outer":
        return
    limit = material(batting).widest_gap
    widest = _widest_gap(panel)
    if limit is None or widest <= limit:
        return
    read = plan.marks.notation.read_off
    wish = _gap_within(panel, limit)
    fixes = (
        choose(plan.project, panel.panel, f"Set the gap to {read(wish, unit=True)}",
               ("quilting.pattern", "channels"), ("quilting.gap", wish)),
        choose(plan.project, panel.panel, "Use fusible fleece, which needs no lines",
               ("layers.batting", "fusible-fleece")),
    )  # fmt: skip
    yield Snag(
        key=f"quilt.limit.{panel.key}",
        stage=Stage.QUILT,
        weight=Weight.WARNS,
        title=f"{read(widest, unit=True)} without a line is too far for this batting",
        why=(
            f"{material(batting).name} shifts and bunches when more than "
            f"{read(limit, unit=True)} lie between lines (typical, from memory)."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=fixes,
    )


def _widest_gap(panel: PanelPlan) -> Inches:
    if panel.channels is None and panel.sewn_down:
        return _widest_strip(panel)
    if panel.channels is None or not panel.channels.positions:
        start, end, *_ = _span(panel)
        other = panel.trimmed.height.value if panel.upright_lines else panel.trimmed.width.value
        return max(end - start, other) if panel.channels is None else end - start
    return max(panel.channels.gap.value, panel.channels.margin.value)


def _widest_strip(panel: PanelPlan) -> Inches:
    """From seam to seam of strips sewn through the batting."""
    shows = next(line.figure for line in panel.top.lines if line.key == "strips.shows")
    piecing = panel.choices.piecing
    if piecing.fixed != "mixed":
        return shows.value
    return shows.value + max(piecing.widths) - piecing.widths[0]


def _gap_within(panel: PanelPlan, limit: Inches) -> Inches:
    """A wish that stays within the limit after it has been evened out."""
    start, end, *_ = _span(panel)
    wish = min(limit, (end - start) / 2)
    return max(wish - Fraction(1, 2), wish / 2) if wish == limit else wish
