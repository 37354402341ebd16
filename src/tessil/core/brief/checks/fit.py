"""Does the object fit, do the notch legs agree, is there a base left?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.brief.choice import Held
from tessil.core.brief.fit import Fit
from tessil.core.choosing import measure
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import given
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import measured_way, notch_place
from tessil.core.planned import Plan
from tessil.core.shapes.trial import body_if, finished_if
from tessil.core.snags import Snag, Stage, Weight

LEAST_BASE = Fraction(1)


def fit_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of the brief: object, notch legs, base."""
    yield from (_too_big(plan, fit) for fit in plan.fits if not _fits(plan, fit))
    yield from _legs(plan)
    yield from _narrow_base(plan)


def _read(plan: Plan, value: Inches) -> str:
    return plan.marks.notation.read_off(value, unit=True)


def _fits(plan: Plan, fit: Fit) -> bool:
    """Whether nothing is missing that one could see; of the ease, not of the room itself."""
    short = fit.needs.value - fit.there.value
    return fit.fits or (fit.goes_in and not plan.marks.notation.reads(short))


def _too_big(plan: Plan, fit: Fit) -> Snag:
    held = plan.project.hold
    many = len(held.things) > 1 or held.things[0].count > 1
    missing = max(fit.needs.value - fit.there.value, plan.marks.notation.mark)
    short = _read(plan, missing)
    if fit.goes_in:
        said = f"{'are' if many else 'is'} a tight fit: {short} less {fit.way} than wished"
    else:
        said = f"{'do' if many else 'does'} not fit: {short} too little {fit.way}"
    leader = plan.panel(plan.shape.leader)
    return Snag(
        key=f"fit.{fit.way}",
        stage=Stage.BRIEF,
        weight=Weight.WARNS if fit.goes_in else Weight.BLOCKS,
        title=f"{_sentence(_the_held(held))} {said}",
        why=(
            f"With ease and the thickness of the walls it needs a finished {fit.way} of "
            f"{_read(plan, fit.needs.value)}; the bag has {_read(plan, fit.there.value)}. The "
            f"{leader.panel.label.lower()} must grow with it."
        ),
        panel=leader.key,
        place=measured_way(leader, fit.way),
        fixes=_roomier(plan, fit),
    )


def held_name(held: Held) -> str:
    """All that is held, in words."""
    return " and ".join(
        thing.name if thing.count == 1 else f"{thing.count} × {thing.name}" for thing in held.things
    )


def _the_held(held: Held) -> str:
    """The same within a sentence: ``the tuner and 2 × reed case``."""
    name = held_name(held)
    return name if held.things[0].count > 1 else f"the {name}"


def _sentence(words: str) -> str:
    return words[:1].upper() + words[1:]


def _roomier(plan: Plan, fit: Fit) -> tuple[Edit, ...]:
    fixes = [edit("Do not mind the object", ("hold.minded", False))]
    if plan.lead.measured.settles:
        return tuple(fixes)  # it is cut
    wanted = {way: figure.value for way, figure in plan.shape.for_object(plan.brief).items()}
    made = finished_if(plan.shape, plan.brief, plan.sizes, wanted)
    if plan.project.shape.way != "object" and made is not None:
        words = f"Size the bag by {_the_held(plan.project.hold)}"
        fixes.insert(0, edit(words, ("shape.way", "object")))
    if plan.project.shape.way == "finished":
        up = plan.marks.ruler.value
        size = -(-fit.needs.value // up) * up
        words = f"Make the {fit.way} {_read(plan, size)}"
        fixes.insert(0, edit(words, (f"shape.sizes.{fit.way}", size)))
    return tuple(fixes)


def _legs(plan: Plan) -> Iterator[Snag]:
    """Both legs of a boxed corner must give the same depth, or its seam will not lie flat."""
    panel = plan.panel(plan.shape.leader)
    seen: set[str] = set()
    for notch in panel.panel.notches:
        if notch.agrees or notch.meets in seen:
            continue
        seen.add(notch.meets)
        side, other = notch.side_leg.value, notch.other_leg.value
        right_other = side - notch.side_takes + notch.other_takes
        right_side = other - notch.other_takes + notch.side_takes
        where = {"seam": "bottom", "fold": "fold", "zip": "zipper edge"}[notch.meets]
        apart = 2 * abs(right_other - other)
        yield Snag(
            key=f"notch.legs.{notch.meets}",
            stage=Stage.TRIM,
            weight=Weight.BLOCKS,
            title=f"The corner's edges at the {where} differ by {_read(plan, apart)}",
            why=(
                f"Less what its seams take, {_read(plan, side)} from the side and "
                f"{_read(plan, other)} from the {where} do not meet: it will not lie flat."
            ),
            panel=panel.key,
            place=notch_place(notch),
            fixes=_leg_fixes(plan, where, notch.meets, right_other, right_side),
        )


_LEG_FIELD = {"seam": "notch_bottom", "fold": "notch_fold", "zip": "notch_zip"}


def _leg_fixes(plan: Plan, where: str, meets: str, other: Inches, side: Inches) -> tuple[Edit, ...]:
    lead = plan.panel(plan.shape.leader)
    cut = lead.measured.notch
    if cut.width is not None or cut.height is not None:
        return _recut_fixes(plan, lead, where, other, side)
    if plan.project.shape.way != "panel":
        return ()
    fixes = []
    if other > 0:
        words = f"Mark {_read(plan, other)} from the {where}"
        fixes.append(edit(words, (f"shape.sizes.{_LEG_FIELD[meets]}", other)))
    if side > 0:
        words = f"Mark {_read(plan, side)} from the side"
        fixes.append(edit(words, ("shape.sizes.notch_side", side)))
    return tuple(fixes)


def _recut_fixes(
    plan: Plan, lead: PanelPlan, where: str, other: Inches, side: Inches
) -> tuple[Edit, ...]:
    """What is cut cannot be uncut: the shorter leg is cut longer."""
    notch = lead.panel.notches[0]
    longer = {"height": other} if other > notch.other_leg.value else {"width": side}
    size, from_ = (other, where) if "height" in longer else (side, "side")
    if not _leaves_a_bag(plan, "other" if "height" in longer else "side", size):
        unsaid = measure(plan.project, lead.key, "notch", Got())
        return (Edit("It is not cut yet: forget its size", unsaid.changes),)
    got = lead.measured.notch.model_copy(
        update={"width": notch.side_leg.value, "height": notch.other_leg.value} | longer
    )
    step = measure(plan.project, lead.key, "notch", got)
    return (Edit(f"Cut on to {_read(plan, size)} from the {from_}", step.changes),)


def _larger_base(plan: Plan, key: str) -> tuple[Edit, ...]:
    """A size that stands, all others as they are."""
    finished = {
        name: figure.value
        for name, figure in zip(plan.shape.finished_keys, plan.bag.finished, strict=True)
    } | {key: LEAST_BASE}
    made = finished_if(plan.shape, plan.brief, plan.sizes, finished)
    if made is None or plan.lead.measured.settles:
        return ()
    words = f"Make the {key} {_read(plan, LEAST_BASE)}"
    if plan.project.shape.way == "finished":
        return (edit(words, (f"shape.sizes.{key}", LEAST_BASE)),)
    sizes = {**plan.project.shape.sizes, **finished}
    return (edit(words, ("shape.way", "finished"), ("shape.sizes", sizes)),)


def _leaves_a_bag(plan: Plan, leg: str, size: Inches) -> bool:
    """Whether there is a bag with one leg of its notches cut so long."""
    cut = {
        field.key: given("notch, as cut", size)
        for field in plan.shape.fields
        if field.leg == leg and field.key in plan.sizes
    }
    return body_if(plan.shape, plan.brief, {**plan.sizes, **cut}) is not None


def _narrow_base(plan: Plan) -> Iterator[Snag]:
    """A boxed bag of which the notches leave hardly anything in some direction."""
    panel = plan.panel(plan.shape.leader)
    if not panel.panel.notches:
        return
    for figure, key in zip(plan.bag.finished, plan.shape.finished_keys, strict=True):
        if figure.value >= LEAST_BASE or key == plan.shape.finished_keys[-1]:
            continue
        fixes: tuple[Edit, ...] = ()
        if plan.project.shape.way == "panel":
            fixes = (_smaller_notches(plan, panel),)
        else:
            fixes = _larger_base(plan, key)
        yield Snag(
            key=f"notch.deep.{key}",
            stage=Stage.TRIM,
            weight=Weight.WARNS,
            title=f"The notches leave a {key} of only {_read(plan, figure.value)}",
            why="They are deeper than the panel allows: under 1 in (25 mm) nothing will stand.",
            panel=plan.shape.leader,
            place=notch_place(panel.panel.notches[0]),
            fixes=fixes,
        )


def _smaller_notches(plan: Plan, panel: PanelPlan) -> Edit:
    """Notches for a base of 1 in, by every leg the shape asks for."""
    base = Fraction(1, 2)
    changes = {"shape.sizes.notch_side": base + panel.panel.notches[0].side_takes}
    for notch in panel.panel.notches:
        changes[f"shape.sizes.{_LEG_FIELD[notch.meets]}"] = base + notch.other_takes
    size = _read(plan, next(iter(changes.values())))
    return edit(f"Cut the notches {size}", *changes.items())
