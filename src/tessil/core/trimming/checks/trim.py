"""Can the panel be trimmed to size, and do the panels that must match agree?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.brief.choice import SLIDES
from tessil.core.choosing import forget, measure
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import MOST_ROOM
from tessil.core.numbers.lengths import Inches, round_down, round_up
from tessil.core.numbers.workings import given
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across, measured_way
from tessil.core.panels.trial import AFRESH, can_be, panel_if
from tessil.core.planned import Plan
from tessil.core.shapes.trial import body_if
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
        as_said = edit("Piece it as large as the model says", ("oversize.way", "model"))
        fixes += [as_said] if _is_enough(plan, panel, as_said) else []
    fixes += _trim_to_what_is(plan, panel)
    if certain:
        fixes.append(_sew_border_on(plan, panel, way, by))
    if certain or not fixes:
        fixes += _piece_again(plan, panel, by)
    return tuple(fixes)


def _sew_border_on(plan: Plan, panel: PanelPlan, way: str, by: Inches) -> Edit:
    """Strips sewn to both sides of the quilted panel: at least ½ in of each shows."""
    now = getattr(panel.measured.added, way) or Fraction(0)
    each = round_up(max((now + by) / 2, Fraction(1, 2)), plan.marks.ruler.value)
    read = plan.marks.notation.read_off
    added = panel.measured.added.model_copy(update={way: 2 * each})
    step = measure(plan.project, panel.key, "added", added)
    wider = "wider " if now else ""
    return Edit(f"Sew a {wider}border on, {read(each, unit=True)} each side", step.changes)


def _piece_again(plan: Plan, panel: PanelPlan, by: Inches) -> list[Edit]:
    """A new top, larger: what makes it so is planned, and the first that is enough is offered."""
    now, bare = plan.project.oversize, forget(plan.project, panel.key, *AFRESH)
    each = round_up(by / 2, plan.marks.ruler.value)
    verb = "Piece it again," if panel.measured.made else "Piece it"
    larger = f"{verb} {plan.marks.notation.read_off(2 * each, unit=True)} larger"
    field = "fixed" if now.way == "fixed" else "squaring"
    model = f"{verb} as large as the model says"
    for words, changes in (
        (larger, {field: min(getattr(now, field) + each, MOST_ROOM)}),
        (model, {"way": "model"}),
        (larger, {"way": "model", "squaring": min(now.squaring + each, MOST_ROOM)}),
    ):
        sizes = tuple((("oversize", key), value) for key, value in changes.items())
        step = Edit(words, (bare, *sizes))
        if _is_enough(plan, panel, step):
            return [step]
    return []


def _is_enough(plan: Plan, panel: PanelPlan, step: Edit) -> bool:
    """Whether there is enough to trim after an edit."""
    made = panel_if(plan.setting, plan.tasks, panel.key, step)
    return made is not None and not _shortfalls(made)


def _trim_to_what_is(plan: Plan, panel: PanelPlan) -> list[Edit]:
    """Settle for the size there is: the leading panel takes it, and all that match it follow.  None
    where nothing is pieced (it would be pieced as much smaller), where less is there than the
    smallest mark of the ruler, or no bag comes of it."""
    mark, leader = plan.marks.ruler.value, plan.shape.leader
    leads = {match.leader for match in plan.bag.matches if match.follower == panel.key}
    if panel.key != leader and leader not in leads:
        return []
    got = panel.measured.quilted
    if not panel.measured.made:
        return []
    have = (
        got.width if got.width is not None else panel.least.width.value,
        got.height if got.height is not None else panel.least.height.value,
    )
    width, height = (
        min(round_down(there, mark), want)
        for there, want in zip(have, panel.trimmed.values(), strict=True)
    )
    if not width or not height or not _leaves_a_bag(plan, panel, width, height):
        return []
    words = f"Trim all to {plan.marks.notation.size(width, height)}"
    if any(p.key == "lining" for p in plan.panels):
        words += ", the lining too"
    step = measure(plan.project, leader, "trimmed", Got(width=width, height=height))
    return [Edit(words, step.changes)]


def _leaves_a_bag(plan: Plan, panel: PanelPlan, width: Inches, height: Inches) -> bool:
    """Whether there is a bag of a leading panel so small, and this panel comes out of its cloth."""
    shape, sizes = plan.shape, dict(plan.sizes)
    for key, value in ((shape.panel_width, width), (shape.panel_height, height)):
        sizes[key] = given("trimmed", value)
    made = body_if(shape, plan.brief, sizes)
    if made is None or not can_be(plan.setting, plan.tasks, made):
        return False
    now = made.panel(panel.key)
    return now.width.value <= width and now.height.value <= height


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
