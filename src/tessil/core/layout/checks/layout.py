"""Do like prints touch, are there enough of each, do the scraps reach, is the seam true?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from tessil.core.choosing import choose, choose_apart
from tessil.core.edits import Edit, edit
from tessil.core.layout.acts.arranging import NAMED
from tessil.core.layout.rules import RULED, Broken, minded, over_amounts
from tessil.core.layout.touches import Ref
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import box_of
from tessil.core.numbers.workings import Figure
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import piece_place, whole
from tessil.core.piecing.acts.laying import part_path, swap
from tessil.core.piecing.choice import GRIDS
from tessil.core.piecing.scrap_tops import usable_scraps
from tessil.core.piecing.seamtest import allowance, seam_cost
from tessil.core.piecing.top import Patch
from tessil.core.planned import Plan
from tessil.core.snags import Place, Snag, Stage, Weight

TOUCHING = ("side", "corner", "join", "worn")
SEARCHED = 200  # in larger layouts no single swap is looked for
COSTS = Fraction(1, 8)
LEAST_OVERHANG = Fraction(1, 2)


def layout_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of prints over the whole bag."""
    yield from _alike(plan)
    yield from _itself(plan)
    yield from _amounts(plan)
    yield from _unknown(plan)
    yield from _twice(plan)


def top_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of one panel's scraps, foundation strips and piecing seam."""
    yield from _scraps(plan, panel)
    yield from _overhang(plan, panel)
    yield from _seam(plan, panel)


def _alike(plan: Plan) -> Iterator[Snag]:
    """Like prints that touch, panel by panel."""
    by_panel: dict[str, list[Broken]] = {}
    for broken in plan.broken:
        if broken.rule in TOUCHING and not broken.itself:
            by_panel.setdefault(broken.pieces[0].panel, []).append(broken)
    for key, found in by_panel.items():
        first, many = found[0], len(found)
        title = f"Like prints touch, {NAMED[first.rule].removeprefix('alike ')}"
        if many > 1:
            title = f"Like prints touch in {many} places"
        yield Snag(
            key=f"layout.alike.{key}",
            stage=Stage.PIECE,
            weight=Weight.NOTES,
            title=title,
            why="The rules of the layout forbid it. Arrange the prints, or leave the rule out.",
            panel=key,
            place=_boxes(plan, [ref for ref in first.pieces if ref.panel == key]),
            fixes=_swaps(plan, found) or _without_rules(found),
        )


def _boxes(plan: Plan, refs: list[Ref]) -> Place:
    boxes = [box_of(plan.table.board.patches[ref].on_panel) for ref in refs]
    x1, y1 = min(box[0] for box in boxes), min(box[1] for box in boxes)
    return Place(x1, y1, max(b[2] for b in boxes) - x1, max(b[3] for b in boxes) - y1)


def _swaps(plan: Plan, found: list[Broken]) -> tuple[Edit, ...]:
    """One swap that mends the first place without breaking another, if there is one."""
    patches = plan.table.board.patches
    if len(patches) > SEARCHED:
        return ()
    beside: dict[Ref, list[Ref]] = {}
    for touch in plan.table.board.touching():
        if minded(plan.project.rules, touch):
            beside.setdefault(touch.one, []).append(touch.other)
            beside.setdefault(touch.other, []).append(touch.one)

    def fits(ref: Ref, cloth: str, other: Ref) -> bool:
        return all(patches[near].print != cloth or near == other for near in beside.get(ref, ()))

    for ref in found[0].pieces:
        for other, patch in patches.items():
            mine = patches[ref]
            if other.panel != ref.panel or patch.print == mine.print or patch.locked:
                continue
            if mine.locked or patch.turned != mine.turned:
                continue
            if fits(ref, patch.print, other) and fits(other, mine.print, ref):
                change = swap(
                    plan.project,
                    plan.panel(ref.panel),
                    (ref.zone, ref.piece),
                    (other.zone, other.piece),
                )
                return (Edit(f"Swap {_named(mine)} and {_named(patch)}", change.changes),)
    return ()


def _without_rules(found: list[Broken]) -> tuple[Edit, ...]:
    """What cannot be kept is not asked for."""
    rules = sorted({RULED[broken.rule] for broken in found})
    words = "Leave this rule out" if len(rules) == 1 else "Leave these rules out"
    return (edit(words, *((f"rules.{rule}", False) for rule in rules)),)


def _named(patch: Patch) -> str:
    return patch.name if patch.in_grid else f"piece {patch.name}"


def _itself(plan: Plan) -> Iterator[Snag]:
    """Pieces of a panel pieced as another that meet themselves there."""
    found = [broken for broken in plan.broken if broken.itself]
    if not found:
        return
    ref = found[0].pieces[1]
    panel = plan.panel(ref.panel)
    follower = next((r for r in found[0].pieces if r.owner != r.panel), ref)
    other = plan.panel(follower.panel)
    yield Snag(
        key=f"layout.itself.{follower.panel}",
        stage=Stage.PIECE,
        weight=Weight.NOTES,
        title=f"{len(found)} {'pieces meet' if len(found) > 1 else 'piece meets'} its like at a "
        "seam of the bag",
        why=f"The {other.panel.label.lower()} is pieced just as the panel it is sewn to; no "
        "arranging can part them.",
        panel=ref.panel,
        place=piece_place(panel, ref.zone, ref.piece),
        fixes=(choose_apart(plan.project, other.panel),),
    )


def _amounts(plan: Plan) -> Iterator[Snag]:
    for cloth, used, there in over_amounts(plan.table) if plan.project.rules.amounts else ():
        at, key, name = plan.project.prints.index(cloth), cloth.key, cloth.name
        ref = next(ref for ref, patch in plan.table.board.patches.items() if patch.print == key)
        yield Snag(
            key=f"layout.amount.{key}",
            stage=Stage.PIECE,
            weight=Weight.WARNS,
            title=f"{name}: {used} pieces laid, {there} in hand",
            why="Counted over all panels and bags to make. Arranging keeps to what there is.",
            panel=ref.panel,
            place=piece_place(plan.panel(ref.panel), ref.zone, ref.piece),
            fixes=(edit(f"Cut {name} as needed", (f"prints.{at}.amount", None)),),
        )


def _unknown(plan: Plan) -> Iterator[Snag]:
    """Pieces of a print that is no longer in the basket."""
    known = {entry.key for entry in plan.project.prints}
    if not known:
        return
    for panel in plan.panels:
        lost = [p for p in panel.patches if p.print not in known and p.piece >= 0]
        if not lost or panel.panel.kind != "outer" or not panel.parts[lost[0].zone].choice.prints:
            continue
        first = plan.project.prints[0]
        zone = lost[0].zone
        kept = tuple(key if key in known else first.key for key in panel.parts[zone].choice.prints)
        change = choose(
            plan.project,
            panel.panel,
            f"Use {first.name} there",
            (f"{part_path(zone)}.prints", kept),
        )
        yield Snag(
            f"layout.unknown.{panel.key}",
            Stage.PIECE,
            Weight.WARNS,
            f"{len(lost)} {'pieces are' if len(lost) > 1 else 'piece is'} of a print no longer "
            "in the basket",
            "It is drawn plain until it is given another.",
            panel.key,
            piece_place(panel, zone, lost[0].piece),
            (change,),
        )


def _scraps(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    for zone, part in enumerate(panel.parts):
        way = part.choice.way
        if way not in ("courses", "crumbs"):
            continue
        figures = {line.key: line.figure for line in part.top.lines}
        if way == "crumbs" and figures["crumbs.spare"].value < 0:
            yield _short(plan, panel, zone, "The scraps do not make enough", "crumbs")
        if way == "courses":
            short = _short_course(figures)
            if short is not None:
                number, figure = short
                missing = plan.marks.notation.read_off(abs(figure.value), unit=True)
                yield _short(
                    plan, panel, zone, f"Course {number} is {missing} too short", "courses"
                )
        small = len(plan.project.scraps) - len(usable_scraps(part.wish))
        if small:
            usable = usable_scraps(part.wish)
            kept = tuple(plan.project.scraps[at] for at in usable)
            said = "scraps go" if small > 1 else "scrap goes"
            yield Snag(
                f"piece.scraps.small.{panel.key}.{zone}",
                Stage.PIECE,
                Weight.NOTES,
                f"{small} {said} into the seams",
                "Narrower than two seams and ¼ in (6 mm) that show.",
                panel.key,
                whole(panel),
                (edit("Take them out of the list", ("scraps", kept)),),
            )


def _twice(plan: Plan) -> Iterator[Snag]:
    """The same scraps laid for several panels or bags: there is only one of each."""
    first: PanelPlan | None = None
    panels = 0
    for panel in plan.panels:
        if any(part.choice.way in ("courses", "crumbs") for part in panel.parts):
            first = first or panel
            panels += panel.panel.copies * plan.project.made
    if first is None or panels == 1:
        return
    fixes: list[Edit] = []
    if plan.project.made > 1:
        fixes.append(edit("Make one bag of them", ("bags", 1)))
    follower = next(
        (p for p in plan.panels if p.panel.like == first.key and p.key not in plan.project.panels),
        None,
    )
    if follower is not None:
        apart = choose_apart(plan.project, follower.panel)
        choices = follower.choices
        strips = choices.piecing.model_copy(update={"way": "strips", "filled": ()})
        changed = choices.model_copy(update={"piecing": strips})
        words = f"Piece the {follower.panel.label.lower()} of strips"
        fixes.append(Edit(words, ((apart.changes[0][0], changed),)))
    yield Snag(
        key="piece.scraps.twice",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=f"The scraps are laid for one panel, and {panels} are to be made",
        why="Each scrap is there once: what is laid here cannot be laid again.",
        panel=first.key,
        place=whole(first),
        fixes=tuple(fixes),
    )


def _short_course(figures: dict[str, Figure]) -> tuple[str, Figure] | None:
    for key, figure in figures.items():
        number = key.removeprefix("courses.")
        if number.isdigit() and figure.value < 0:
            return number, figure
    return None


def _short(plan: Plan, panel: PanelPlan, zone: int, title: str, what: str) -> Snag:
    path = part_path(zone)
    fixes: list[Edit] = []

    def fix(words: str, *changes: tuple[str, Any]) -> Edit:
        return choose(plan.project, panel.panel, words, *changes)

    if what == "courses" and panel.parts[zone].choice.filled:
        fixes.append(fix("Fill the courses anew", (f"{path}.filled", ())))
    fixes.append(fix("Use strips instead", (f"{path}.way", "strips")))
    return Snag(
        key=f"piece.{what}.short.{panel.key}.{zone}",
        stage=Stage.PIECE,
        weight=Weight.BLOCKS,
        title=title,
        why="All scraps that are wide enough are counted; add more, or make less of them.",
        panel=panel.key,
        place=whole(panel),
        fixes=tuple(fixes),
    )


def _overhang(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Flipped strips that reach less than half an inch past the outline."""
    for zone, part in enumerate(panel.parts):
        if part.choice.way != "flip" or part.choice.overhang >= LEAST_OVERHANG:
            continue
        path = f"{part_path(zone)}.overhang"
        words = plan.marks.notation.read_off(Fraction(3, 4), unit=True)
        yield Snag(
            f"piece.overhang.{panel.key}.{zone}",
            Stage.PIECE,
            Weight.WARNS,
            "The flipped strips hardly reach past the outline",
            "A strip that shifts a little in sewing leaves bare batting: ½ to 1 in (12 to 25 mm) "
            "beyond is usual.",
            panel.key,
            whole(panel),
            (choose(plan.project, panel.panel, f"Reach {words} past it", (path, Fraction(3, 4))),),
        )


def _seam(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A measured seam that costs more than ⅛ in over a panel whose pieces are not cut to it."""
    test, choice = plan.project.seam_test, panel.parts[0].choice
    rules = ("surplus", "surplus_across") if choice.way in GRIDS else ("surplus",)
    if choice.fixed == "count" or all(getattr(choice, rule) == "recut" for rule in rules):
        return
    cost = seam_cost(plan.project.seams.piecing, test, panel.strips)
    if cost is None or test is None or abs(cost.value) <= COSTS or panel.panel.kind != "outer":
        return
    read = plan.marks.notation.read_off
    real, wished = allowance(test).value, plan.project.seams.piecing
    side, more = ("wide", "wider") if cost.value > 0 else ("narrow", "narrower")
    over = float(abs(real - wished)) * 25.4
    fixes = [edit("Move the needle, and forget the test", ("seam_test", None))]
    if choice.fixed == "width":
        cut = [(f"{part_path(0)}.{rule}", "recut") for rule in rules]
        fixes.append(choose(plan.project, panel.panel, "Recut the pieces to my seam", *cut))
    yield Snag(
        key=f"piece.seam.{panel.key}",
        stage=Stage.PIECE,
        weight=Weight.WARNS,
        title=f"Your seam is too {side}: {read(abs(cost.value), unit=True)} over this panel",
        why=f"Each seam is {over:.1f} mm {more} than planned. Move the needle by that, or keep "
        "to the seam you have and recut.",
        panel=panel.key,
        place=whole(panel),
        fixes=tuple(fixes),
    )
