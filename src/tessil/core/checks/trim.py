"""Can the panel be trimmed to size, and do the panels that must match agree?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

from tessil.core.choosing import measure
from tessil.core.edits import Edit, edit
from tessil.core.lengths import Inches, round_down
from tessil.core.panels import PanelPlan
from tessil.core.places import measured_way
from tessil.core.project import Got, Measured
from tessil.core.snags import Snag, Stage, Weight

if TYPE_CHECKING:
    from tessil.core.plan import Plan


def trim_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of trimming, panel by panel."""
    for panel in plan.panels:
        yield from _too_small(plan, panel)
        yield from _mismatched(plan, panel)


def _shortfalls(panel: PanelPlan) -> list[tuple[str, Inches, bool]]:
    """Ways in which trimming fails: direction, by how much, and whether for certain."""
    short = []
    got = panel.measured.quilted
    for way, measured in (("width", got.width), ("height", got.height)):
        want = getattr(panel.trimmed, way).value
        worst = getattr(panel.least, way).value if measured is None else measured
        best = getattr(panel.most, way).value if measured is None else measured
        if worst < want:
            short.append((way, want - worst, best < want))
    return short


def _too_small(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    read = plan.marks.notation.read_off
    rung = "quilted" if panel.quilts else "pieced"
    for way, by, certain in _shortfalls(panel):
        will = "is" if certain else "may come out"
        yield Snag(
            key=f"trim.small.{panel.key}.{way}",
            stage=Stage.TRIM,
            weight=Weight.BLOCKS if certain else Weight.WARNS,
            title=f"The {rung} {panel.panel.label.lower()} {will} {read(by, unit=True)} "
            f"too small in {way}",
            why=(
                f"It must be trimmed to {read(panel.trimmed.width.value)} × "
                f"{read(panel.trimmed.height.value)}."
            ),
            panel=panel.key,
            place=measured_way(panel, way),
            fixes=_small_fixes(plan, panel, certain),
        )


def _small_fixes(plan: Plan, panel: PanelPlan, certain: bool) -> tuple[Edit, ...]:
    fixes = []
    if plan.project.oversize.way != "model" and not certain:
        fixes.append(edit("Piece it as large as the model says", ("oversize.way", "model")))
    fixes.append(_trim_to_what_is(plan, panel))
    return tuple(fixes)


def _trim_to_what_is(plan: Plan, panel: PanelPlan) -> Edit:
    """Settle for the size there is: the leading panel takes it, and all others follow."""
    mark, read = plan.marks.ruler.value, plan.marks.notation.read_off
    got = panel.measured.quilted
    have = (
        got.width if got.width is not None else panel.least.width.value,
        got.height if got.height is not None else panel.least.height.value,
    )
    width, height = (
        min(round_down(there, mark), want)
        for there, want in zip(have, panel.trimmed.values(), strict=True)
    )
    words = f"Trim all to {read(width)} × {read(height)}"
    step = measure(plan.project, plan.shape.leader, "trimmed", Got(width=width, height=height))
    return Edit(words, step.changes)


def _mismatched(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A follower that was trimmed to another size than its leader."""
    leads = [match.leader for match in plan.bag.matches if match.follower == panel.key]
    got = panel.measured.trimmed
    if not leads:
        return
    read = plan.marks.notation.read_off
    for way, value in (("width", got.width), ("height", got.height)):
        want = getattr(panel.trimmed, way).value
        if value is None or value == want:
            continue
        smaller = value < want
        fixes = [_take_over(plan, leads[0], way, value)] if smaller else []
        forget = measure(plan.project, panel.key, "trimmed", Got())
        words = "It is trimmed down now" if not smaller else "Forget this measurement"
        fixes.append(Edit(words, forget.changes))
        yield Snag(
            key=f"trim.match.{panel.key}.{way}",
            stage=Stage.TRIM,
            weight=Weight.BLOCKS if smaller else Weight.WARNS,
            title=f"The {panel.panel.label.lower()} is {read(abs(value - want), unit=True)} "
            f"{'smaller' if smaller else 'larger'} in {way} than the {leads[0]}",
            why="The two are sewn to each other edge to edge.",
            panel=panel.key,
            place=measured_way(panel, way),
            fixes=tuple(fixes),
        )


def _take_over(plan: Plan, leader: str, way: str, value: Inches) -> Edit:
    got = plan.project.measured.get(leader, Measured()).trimmed
    smaller = got.model_copy(update={way: value})
    read = plan.marks.notation.read_off(value, unit=True)
    step = measure(plan.project, leader, "trimmed", smaller)
    return Edit(f"Trim the {leader} to {read} too", step.changes)
