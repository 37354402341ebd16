"""Does every piece come out of the cloth's usable width?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.model import Bag
from tessil.core.catalogue.prints import Print
from tessil.core.choosing import choose
from tessil.core.cutting.cutlist import Purchase
from tessil.core.cutting.item import CutItem
from tessil.core.edits import Edit, edit
from tessil.core.numbers.lengths import Inches, round_down, round_up
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.shapes.trial import finished_if
from tessil.core.snags import Snag, Stage, Weight
from tessil.core.words.cuts import id_words

MOST_STEPS = 12  # by which a bag is made smaller


def cut_snags(plan: Plan) -> Iterator[Snag]:
    """Pieces longer than the cloth is wide, and strip sets shorter than a panel."""
    read = plan.marks.notation.read_off
    for bought in plan.bought:
        if bought.cloth.too_long:
            yield _too_wide(plan, bought)
    yield from _placed_in_sets(plan)
    for group in plan.sets:
        if group.too_long:
            first = group.panels[0]
            apart: Edit = choose(
                plan.project, first.panel, "Cut each strip by itself", ("piecing.strip_sets", False)
            )
            yield Snag(
                key=f"cut.set.{first.key}",
                stage=Stage.PIECE,
                weight=Weight.BLOCKS,
                title="A strip set is shorter than the panel",
                why=(
                    f"Its length is the usable width, "
                    f"{read(plan.project.stock.usable_width, unit=True)}."
                ),
                panel=first.key,
                fixes=(apart,),
            )


def _placed_in_sets(plan: Plan) -> Iterator[Snag]:
    """Strips of a set are cut across all prints at once: no picture of theirs can be placed."""
    placed = {one.key: one.name for one in plan.project.prints if one.placed}
    lost = {i.stock for i in plan.items if i.what == "strip for a set" and i.stock in placed}
    for group in plan.sets:
        first = group.panels[0]
        names = [placed[key] for key in sorted(lost) if key in _prints_of(first)]
        if names:
            yield Snag(
                key=f"cut.placed.{first.key}",
                stage=Stage.CUT,
                weight=Weight.NOTES,
                title=f"{names[0]} is not placed in strips that come from a set",
                why="A set is sewn of whole strips and cut across: its pictures lie as they fall.",
                panel=first.key,
                fixes=(
                    choose(
                        plan.project,
                        first.panel,
                        "Cut each strip by itself",
                        ("piecing.strip_sets", False),
                    ),
                ),
            )


def _prints_of(panel: PanelPlan) -> set[str]:
    return {patch.print for patch in panel.patches}


def _smaller(plan: Plan, bought: Purchase) -> tuple[Edit, ...]:
    """The bag so much narrower, or lower if that is less, that its panels come out of their cloth
    after all."""
    items = [item for item in bought.items if item.id in bought.cloth.too_long]
    of_panels = all(item.owner.kind == "panels" for item in items)
    if not of_panels or plan.lead.measured.settles:
        return ()
    found = []
    for way, words in (("width", "narrower"), ("height", "lower")):
        less = _less(plan, items, bought.cloth.usable, way)
        if less is not None:
            found.append((less, way, words))
    if not found:
        return ()
    less, way, words = min(found)
    typed = {**plan.project.shape.sizes, **_finished(plan, way, less)}
    said = f"Make the bag {plan.marks.notation.read_off(less, unit=True)} {words}"
    return (edit(said, ("shape.way", "finished"), ("shape.sizes", typed)),)


def _finished(plan: Plan, way: str, less: Inches) -> dict[str, Inches]:
    """The finished sizes, one of them so much less."""
    sizes = dict(zip(plan.shape.finished_keys, plan.bag.finished, strict=True))
    return {key: figure.value - (less if key == way else 0) for key, figure in sizes.items()}


def _less(plan: Plan, items: list[CutItem], usable: Inches, way: str) -> Inches | None:
    """How much less of a finished size it takes; none where no bag is left."""
    now = dict(zip(plan.shape.finished_keys, plan.bag.finished, strict=True)).get(way)
    if now is None:
        return None
    mark, step = plan.marks.ruler.value, plan.marks.piece_step.value
    over = max(getattr(item, way).value for item in items) - usable
    if over <= 0:
        return None  # it is not too much this way
    for more in range(1, MOST_STEPS):
        to = round_down(now.value - round_up(over, mark) - more * step, mark)
        less = now.value - to
        made = finished_if(plan.shape, plan.brief, plan.sizes, _finished(plan, way, less))
        if to <= 0 or made is None:
            return None
        if all(_comes_out(plan, made, item, usable) for item in items):
            return less
    return None


def _comes_out(plan: Plan, made: Bag, item: CutItem, usable: Inches) -> bool:
    """Whether a piece of a panel does, cut as much smaller as the panel is where it is as long."""
    key = item.owner.keys[0]
    before, after = plan.bag.panel(key), made.panel(key)
    width, height = (
        cut.value - (old.value - new.value if cut.value >= old.value else 0)
        for cut, old, new in (
            (item.width, before.width, after.width),
            (item.height, before.height, after.height),
        )
    )
    return min(width, height) <= usable


def _prints(plan: Plan, stock: str, **changes: bool) -> tuple[Print, ...]:
    """The basket with one print changed."""
    return tuple(
        one.model_copy(update=changes) if one.key == stock else one for one in plan.project.prints
    )


def _too_wide(plan: Plan, bought: Purchase) -> Snag:
    """A piece that does not come out of its cloth, by how much; or only against its print's up."""
    read, usable = plan.marks.notation.read_off, bought.cloth.usable
    first = bought.cloth.too_long[0]
    item = next(item for item in bought.items if item.id == first)
    width, height = item.width.value, item.height.value
    what, wide = id_words(first, plan.bag), read(usable, unit=True)
    title = f"{what}: larger than {bought.name} both ways"
    over = read(min(width, height) - usable, unit=True)
    fixes: tuple[Edit, ...] = _smaller(plan, bought)
    why = f"Its usable width is {wide}: {over} is missing at the least."
    if any(note.kind == "window" for note in item.notes):
        title = f"{what}: with room to place its picture, wider than {bought.name}"
        over = read(width - usable, unit=True)
        why = f"A repeat more each way is cut: {over} more than the usable width, {wide}."
        free = _prints(plan, bought.stock, placed=False)
        fixes = (edit(f"Cut {bought.name} as its picture falls", ("prints", free)),)
    elif height <= usable:
        title = f"{what}: comes out of {bought.name} only turned, and its print has an up"
        over = read(width - usable, unit=True)
        why = f"Upright it is {read(width, unit=True)} wide, {over} more than the cloth."
        turned = _prints(plan, bought.stock, directional=False)
        fixes = (edit(f"Let {bought.name} be turned", ("prints", turned)),)
    return Snag(
        key=f"cut.wide.{bought.stock}",
        stage=Stage.CUT,
        weight=Weight.BLOCKS,
        title=title,
        why=why,
        panel=plan.shape.leader,
        fixes=fixes,
    )
