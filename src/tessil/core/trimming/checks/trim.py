"""Can the panel be trimmed to size, and do the panels that must match agree?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.brief.choice import SLIDES
from tessil.core.choosing import choose, forget, measure
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_down, round_up
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, measured_way
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight


def trim_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of trimming one panel."""
    yield from _too_small(plan, panel)
    yield from _mismatched(plan, panel)
    if panel.key == plan.shape.leader:
        yield from _shallow(plan, panel)


def _shallow(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A stiffener in a sleeve on a base that leaves nothing of it."""
    wanted = plan.project.base.stiffener == "sleeve" and plan.bag.floor is not None
    if not wanted or any(item.what == "stiffener" for item in plan.items):
        return
    yield Snag(
        key="trim.base",
        stage=Stage.TRIM,
        weight=Weight.BLOCKS,
        title="The base is too shallow for a stiffener in a sleeve",
        why=f"It is cut {plan.marks.notation.read_off(SLIDES, unit=True)} smaller each way, so as "
        "to slide: nothing is left of it.",
        panel=panel.key,
        place=across(panel, 1.0),
        fixes=(edit("Leave the stiffener out", ("base.stiffener", "none")),),
    )


def _shortfalls(panel: PanelPlan) -> list[tuple[str, Inches, bool]]:
    """Ways in which trimming fails: direction, by how much, and whether for certain."""
    short = []
    got = panel.measured.quilted
    for way, measured in (("width", got.width), ("height", got.height)):
        if getattr(panel.measured.trimmed, way) is not None:
            continue  # it is trimmed: what it might have been is no matter any more
        want = getattr(panel.trimmed, way).value
        added = getattr(panel.measured.added, way) or want * 0
        worst = (getattr(panel.least, way).value if measured is None else measured) + added
        best = (getattr(panel.most, way).value if measured is None else measured) + added
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
            why=f"It must be trimmed to {plan.marks.notation.size(*panel.trimmed.values())}.",
            panel=panel.key,
            place=measured_way(panel, way),
            fixes=_small_fixes(plan, panel, certain, way, by),
        )


def _small_fixes(
    plan: Plan, panel: PanelPlan, certain: bool, way: str, by: Inches
) -> tuple[Edit, ...]:
    fixes = list[Edit]()
    if plan.project.oversize.way != "model" and not certain:
        fixes.append(edit("Piece it as large as the model says", ("oversize.way", "model")))
    fixes += _trim_to_what_is(plan, panel)
    if certain:
        fixes.append(_sew_border_on(plan, panel, way, by))
        fixes.append(_piece_again(plan, panel, by))
    return tuple(fixes)


def _sew_border_on(plan: Plan, panel: PanelPlan, way: str, by: Inches) -> Edit:
    """Strips sewn to both sides of the quilted panel: at least ½ in of each shows."""
    each = round_up(max(by / 2, Fraction(1, 2)), plan.marks.ruler.value)
    read = plan.marks.notation.read_off
    added = panel.measured.added.model_copy(update={way: 2 * each})
    step = measure(plan.project, panel.key, "added", added)
    return Edit(f"Sew a border on, {read(each, unit=True)} each side", step.changes)


def _piece_again(plan: Plan, panel: PanelPlan, by: Inches) -> Edit:
    """A new top, larger: one strip or row more where their number is chosen."""
    piecing, key = panel.choices.piecing, panel.key
    bare = forget(plan.project, key, "pieced", "quilted", "added")
    if piecing.way in ("strips", "flip") and piecing.fixed == "count" and not panel.choices.zones:
        more = choose(plan.project, panel.panel, "", ("piecing.count", piecing.count + 1))
        noun = "strip" if piecing.run != "level" else "row"
        return Edit(f"Piece it again, one {noun} more", (bare, *more.changes))
    larger = plan.project.oversize.squaring + round_up(by / 2, plan.marks.ruler.value)
    read = plan.marks.notation.read_off(2 * round_up(by / 2, plan.marks.ruler.value), unit=True)
    return Edit(
        f"Piece it again, {read} larger",
        (bare, (("oversize", "squaring"), min(larger, Fraction(12)))),
    )


def _trim_to_what_is(plan: Plan, panel: PanelPlan) -> list[Edit]:
    """Settle for the size there is: the leading panel takes it, and all others follow.  None where
    less is there than the smallest mark of the ruler."""
    mark = plan.marks.ruler.value
    got = panel.measured.quilted
    have = (
        got.width if got.width is not None else panel.least.width.value,
        got.height if got.height is not None else panel.least.height.value,
    )
    width, height = (
        min(round_down(there, mark), want)
        for there, want in zip(have, panel.trimmed.values(), strict=True)
    )
    if not width or not height:
        return []
    words = f"Trim all to {plan.marks.notation.size(width, height)}"
    if any(p.key == "lining" for p in plan.panels):
        words += ", the lining too"
    step = measure(plan.project, plan.shape.leader, "trimmed", Got(width=width, height=height))
    return [Edit(words, step.changes)]


def _mismatched(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A follower that was trimmed to another size than its leader."""
    leads = [match.leader for match in plan.bag.matches if match.follower == panel.key]
    got = panel.measured.trimmed
    if not leads:
        return
    read, lead = plan.marks.notation.read_off, plan.panel(leads[0]).panel.label
    for way, value in (("width", got.width), ("height", got.height)):
        want = getattr(panel.trimmed, way).value
        if value is None or not plan.marks.notation.reads(value - want):
            continue
        smaller = value < want
        fixes = [_take_over(plan, leads[0], way, value)] if smaller else []
        unsaid = measure(plan.project, panel.key, "trimmed", Got())
        words = "It is trimmed down now" if not smaller else "Forget this measurement"
        fixes.append(Edit(words, unsaid.changes))
        yield Snag(
            key=f"trim.match.{panel.key}.{way}",
            stage=Stage.TRIM,
            weight=Weight.BLOCKS if smaller else Weight.WARNS,
            title=f"The {panel.panel.label.lower()} is {read(abs(value - want), unit=True)} "
            f"{'smaller' if smaller else 'larger'} in {way} than the {lead.lower()}",
            why="The two are sewn to each other edge to edge.",
            panel=panel.key,
            place=measured_way(panel, way),
            fixes=tuple(fixes),
        )


def _take_over(plan: Plan, leader: str, way: str, value: Inches) -> Edit:
    got = plan.project.got(leader).trimmed
    smaller = got.model_copy(update={way: value})
    read = plan.marks.notation.read_off(value, unit=True)
    step = measure(plan.project, leader, "trimmed", smaller)
    label = plan.panel(leader).panel.label.lower()
    return Edit(f"Trim the {label} to {read} too", step.changes)
