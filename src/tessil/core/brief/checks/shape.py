"""What goes wrong with the shape as a whole: zipper, flap, turning, prints upside-down."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from tessil.core.brief.fit import Fit
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import MOST_ROOM
from tessil.core.numbers.lengths import Inches, round_up
from tessil.core.numbers.workings import given
from tessil.core.panels.places import across, measured_way
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight


def shape_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of zipper, flap, turning gap and directional prints."""
    yield from _zipper(plan)
    yield from _zipper_side(plan)
    yield from _flap(plan)
    yield from _turning(plan)
    yield from _washing(plan)


def _read(plan: Plan, value: Inches) -> str:
    return plan.marks.notation.read_off(value, unit=True)


def _zipper(plan: Plan) -> Iterator[Snag]:
    """A zipper in hand that is too short, or whose stops come into a seam."""
    need, choice = plan.bag.zipper, plan.project.zipper
    if need is None or choice.length is None or choice.length >= need.length.value:
        return
    reaches = choice.length >= need.spans.value
    metal = choice.teeth == "metal"
    short = need.length.value - choice.length
    title = f"The zipper is {_read(plan, short)} too short"
    if reaches:
        title = f"The zipper's stops come into the seams: {_read(plan, short)} too short"
    lead = plan.panel(plan.shape.leader)
    yield Snag(
        key="fit.zipper",
        stage=Stage.BRIEF,
        weight=Weight.WARNS if reaches and not metal else Weight.BLOCKS,
        title=title,
        why="It takes the width it is sewn to and 2 in (5 cm), so that no needle meets a stop."
        + (" Metal teeth must never meet the needle." if metal else ""),
        panel=lead.key,
        place=across(lead, 0.0),
        fixes=(
            edit(
                f"Take one of {_read(plan, need.length.value)}",
                ("zipper.length", need.length.value),
            ),
            edit("Take one as long as it needs", ("zipper.length", None)),
        ),
    )


def _zipper_side(plan: Plan) -> Iterator[Snag]:
    """The same cloth with the zipper on its shorter side holds more."""
    now = plan.bag.figure("volume-finished")
    other = plan.bag.figure("volume-with-the-zipper-on-the-other-side")
    if now is None or other is None or other.value <= now.value:
        return
    lead = plan.panel(plan.shape.leader)
    if lead.measured.some:
        return  # what is pieced lies the way it lies
    gain = (other.value / now.value - 1) * 100
    notch = {key: plan.sizes[key].value for key in plan.shape.legs if key in plan.sizes}
    swapped = {
        **plan.project.shape.sizes,
        **notch,
        "panel_width": lead.trimmed.height.value,
        "panel_height": lead.trimmed.width.value,
    }
    yield Snag(
        key="fit.zipper-side",
        stage=Stage.BRIEF,
        weight=Weight.NOTES,
        title=f"With the zipper on its shorter side this cloth holds {float(gain):.0f} % more",
        why="The zipper is on the longer side of the panel; turned, the bag is wider and shorter.",
        panel=lead.key,
        place=across(lead, 0.0),
        fixes=(
            edit(
                "Put the zipper on the shorter side",
                ("shape.way", "panel"),
                ("shape.sizes", swapped),
            ),
        ),
    )


LEAST_FLAP_ROOM = Fraction(1, 2)
USUAL_LESS = Fraction(3, 4)


def _flap(plan: Plan) -> Iterator[Snag]:
    """A flap as wide as the opening, or wider, rubs and buckles at the sides."""
    need = plan.bag.flap
    if need is None or need.narrower is None or need.narrower.value >= LEAST_FLAP_ROOM:
        return
    less, flap = need.narrower.value, plan.panel(need.panel)
    yield Snag(
        key="fit.flap",
        stage=Stage.BRIEF,
        weight=Weight.WARNS,
        title=f"The flap is only {_read(plan, less)} narrower than the opening",
        why="A flap ends ½ to 1 in (13 to 25 mm) narrower, or it buckles at the sides.",
        panel=flap.key,
        place=across(flap, 0.5),
        fixes=(
            edit(
                f"Make it {_read(plan, USUAL_LESS)} narrower", ("shape.sizes.flap_less", USUAL_LESS)
            ),
        ),
    )


def _turning(plan: Plan) -> Iterator[Snag]:
    """Is the gap chosen for the lining large enough, and does it leave enough to stitch?"""
    chosen = plan.project.turning_gap is not None or plan.project.gap_corners is not None
    gap = plan.gap.value if chosen and not plan.tucked else None
    if gap is None or not any(panel.panel.key == "lining" for panel in plan.panels):
        return
    least = plan.gap_least.value
    if gap < least:
        title = f"A turning gap of {_read(plan, gap)} is too small"
        why = f"This bag turns through {_read(plan, least)} at least."
    elif gap > plan.bag.finished[0].value - 2:
        title = f"A turning gap of {_read(plan, gap)} leaves too little to stitch"
        why = "The lining's bottom should be stitched 1 in (25 mm) from each corner at least."
    else:
        return
    fixes = (edit(f"Leave {_read(plan, least)}", ("turning_gap", None), ("gap_corners", None)),)
    place = across(plan.panel("lining"), 1.0)
    yield Snag("trim.gap", Stage.TRIM, Weight.WARNS, title, why, "lining", place, fixes)


def _washing(plan: Plan) -> Iterator[Snag]:
    """Does what it must hold still go in after the first wash?"""
    if not plan.project.wash.used:
        return
    for fit, after in zip(plan.fits, plan.washed, strict=False):
        if fit.goes_in and after.value < fit.bare.value:
            yield Snag(
                key=f"fit.wash.{fit.way}",
                stage=Stage.BRIEF,
                weight=Weight.WARNS,
                title=f"After the first wash it no longer goes in: {fit.way}",
                why=f"{_read(plan, after.value)} left, {_read(plan, fit.bare.value)} needed.",
                panel=plan.shape.leader,
                place=measured_way(plan.panel(plan.shape.leader), fit.way),
                fixes=_wash_fixes(plan, fit),
            )


def _wash_fixes(plan: Plan, fit: Fit) -> tuple[Edit, ...]:
    """Make it larger by what the wash takes, or wash what it is made of first."""
    mark, wanted = plan.marks.ruler.value, fit.bare.value / (1 - plan.project.wash.share)
    fixes = [edit("Wash cloth and batting first", ("wash.used", False))]
    if plan.lead.measured.settles:
        return tuple(fixes)  # it is cut
    if plan.project.shape.way == "object":
        more = (wanted - fit.needs.value) / _per_ease(plan, fit.way)
        ease = round_up(plan.project.hold.ease + more, mark)
        if ease <= MOST_ROOM:
            fixes.insert(0, edit(f"Give {_read(plan, ease)} ease", ("hold.ease", ease)))
    elif plan.project.shape.way == "finished":
        size = round_up(wanted, mark)
        fixes.insert(0, edit(f"Make it {_read(plan, size)}", (f"shape.sizes.{fit.way}", size)))
    return tuple(fixes)


def _per_ease(plan: Plan, way: str) -> Fraction:
    """By how much a bag made for what it holds grows in a way for an inch more of ease."""
    held = plan.brief.held
    more = replace(plan.brief, held=replace(held, ease=held.ease + given("more", 1)))
    return (plan.shape.for_object(more)[way] - plan.shape.for_object(plan.brief)[way]).value
