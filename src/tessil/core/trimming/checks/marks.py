"""Do marks keep clear of seams and notches, do snap halves meet, are handle ends even?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from tessil.core.bag.model import Box
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_down, round_near, round_up
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.snags import Place, Snag, Stage, Weight
from tessil.core.trimming.acts.marking import face_room, free_room, remove_mark, set_mark
from tessil.core.trimming.marks import MARGIN, Placed, female_below_top

ON_PURPOSE = ("d-ring", "stiffener", "strip")  # these lie in a seam or on the base by their nature
CLOSE = Fraction(1, 8)
FACING = {"lining": "front", "lining-back": "back"}
APART = Fraction(1, 4)  # between marks that were moved off one another


def mark_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of the marks on one panel."""
    for placed in plan.marks_on(panel.key):
        if placed.kind not in ON_PURPOSE:
            yield from _in_the_way(plan, panel, placed)
    yield from _on_one_another(plan, panel)
    yield from _behind(plan, panel)


def _place(box: Box) -> Place:
    x, y, w, h = (float(v) for v in box)
    return Place(x, y, w, h)


def _outside(box: Box, room: Box) -> bool:
    (x, y, w, h), (rx, ry, rw, rh) = box, room
    return x < rx or y < ry or x + w > rx + rw or y + h > ry + rh


def _meets(one: Box, other: Box) -> bool:
    (x, y, w, h), (u, v, p, q) = one, other
    return x < u + p and u < x + w and y < v + q and v < y + h


def _in_the_way(plan: Plan, panel: PanelPlan, placed: Placed) -> Iterator[Snag]:
    """A pocket, snap or handle in a seam or a notch; a motif too near to either."""
    motif = placed.kind == "motif"
    room = (
        face_room(plan, panel, placed.box, MARGIN) if motif else free_room(plan, panel, Fraction(0))
    )
    if placed.caught == "edge":
        return
    if placed.caught == "sides":
        room = (Fraction(0), room[1], panel.trimmed.width.value, room[3])
    elif placed.caught == "top":
        room = (room[0], Fraction(0), room[2], room[1] + room[3])
    notches = [(n.x, n.y, n.width, n.height) for n in panel.panel.notches]
    in_notch = any(_meets(placed.box, notch) for notch in notches)
    if not in_notch and not _outside(placed.box, room):
        return
    where = "a seam, the base or an end" if motif else "a seam or the base"
    where = "a notch" if in_notch else where
    verb = "comes too near to" if motif else "runs into"
    yield Snag(
        key=f"mark.seam.{panel.key}.{placed.key}",
        stage=Stage.TRIM,
        weight=Weight.WARNS,
        title=f"The {placed.label.lower()} {verb} {where}",
        why="It is caught in the stitching or cut off there."
        if not motif
        else "A motif keeps ½ in (13 mm) clear of seams, of the base and of where the bag turns "
        "round its ends.",
        panel=panel.key,
        place=_place(placed.box),
        fixes=_into_room(plan, placed, room),
    )


def _into_room(plan: Plan, placed: Placed, room: Box) -> tuple[Edit, ...]:
    if placed.index is None:
        without = edit("Leave the snap out", ("snap.used", False))
        return (without,) if placed.kind == "snap" else ()
    (x, y, w, h), (rx, ry, rw, rh) = placed.box, room
    width, height = min(w, rw), min(h, rh)
    to_x, to_y = min(max(x, rx), rx + rw - width), min(max(y, ry), ry + rh - height)
    changes: dict[str, Inches] = {"x": to_x, "y": to_y}
    if placed.kind not in ("window", "d-ring"):
        changes |= {"width": width, "height": height}
    elif placed.kind == "window":
        changes["width"] = width
    return (set_mark(plan, placed.index, f"Move the {placed.label.lower()} clear", **changes),)


def _on_one_another(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Two marks in one place: one would be sewn over the other."""
    marks = [mark for mark in plan.marks_on(panel.key) if mark.kind not in ("stiffener", "strip")]
    for one, other in combinations(marks, 2):
        if not _meets(other.box, one.box):
            continue
        moved, stays = (one, other) if other.index is None else (other, one)
        yield Snag(
            key=f"mark.over.{panel.key}.{one.key}.{other.key}",
            stage=Stage.TRIM,
            weight=Weight.WARNS,
            title=f"The {moved.label.lower()} lies on the {stays.label.lower()}",
            why="One would be sewn over the other: what comes second has no room there.",
            panel=panel.key,
            place=_place(other.box),
            fixes=_off_it(plan, panel, moved, stays),
        )


def _behind(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """What is sewn on a lining where something goes through the wall from its other face: the
    prongs of a snap, the boxes that hold handles sewn on last."""
    outer = _facing(plan, panel)
    if outer is None:
        return
    for mark in plan.marks_on(panel.key):
        x, y, w, h = mark.box
        seen = (panel.trimmed.width.value - x - w, y, w, h)  # from outside, left is right
        for name, box in _through(plan, outer):
            if mark.index is None or not _meets(seen, box):
                continue
            away = round_up(box[1] + box[3] + APART, plan.marks.ruler.value)
            down = set_mark_if(plan, mark.index, f"Move the {mark.label.lower()} below", x, away)
            fixes = () if down is None else (down,)
            yield Snag(
                key=f"mark.behind.{panel.key}.{mark.key}",
                stage=Stage.TRIM,
                weight=Weight.WARNS,
                title=f"The {mark.label.lower()} lies behind the {name}",
                why=f"Both go through the wall of the {outer.panel.label.lower()}, one from each "
                "face: what is sewn last catches the other.",
                panel=panel.key,
                place=_place(mark.box),
                fixes=(*fixes, remove_mark(plan, mark.index)),
            )


def _facing(plan: Plan, lining: PanelPlan) -> PanelPlan | None:
    """The outer panel on whose wall a lining lies, where it is only one: of two halves alike a
    maker sews to the one that is free."""
    if lining.key not in FACING or lining.panel.copies > 1:
        return None
    outer = {panel.key: panel for panel in plan.panels if panel.panel.kind == "outer"}
    if plan.shape.cloths == 1:  # one body that is folded, and so is its lining
        return outer.get(plan.shape.leader)
    return outer.get(FACING[lining.key])


def _through(plan: Plan, outer: PanelPlan) -> Iterator[tuple[str, Box]]:
    """What goes through the wall of a panel: its name and box."""
    for mark in plan.marks_on(outer.key):
        if mark.kind == "snap":
            yield mark.label.lower(), mark.box
    late = plan.project.making.handles == "after"
    ends = {one.key: one.ends for one in plan.bag.attachments}
    for hang in plan.bag.net.hangs:
        if not hang.on_face or not (late or ends.get(hang.key) == "below"):
            continue
        for sheet, _, (x, y) in hang.ends:
            if sheet == outer.key:
                half = hang.wide / 2
                yield "handle's end", (x - half, y, hang.wide, hang.wide)


def _off_it(plan: Plan, panel: PanelPlan, moved: Placed, stays: Placed) -> tuple[Edit, ...]:
    """To the nearest side of the other mark where it is clear of everything; else away."""
    if moved.index is None:
        return ()
    room = free_room(plan, panel, Fraction(0))
    others = [mark for mark in plan.marks_on(panel.key) if mark.key != moved.key]
    x, y, w, h = moved.box
    u, v, p, q = stays.box
    mark, gap = plan.marks.ruler.value, APART
    places = (
        (x, round_up(v + q + gap, mark)),
        (x, round_down(v - gap - h, mark)),
        (round_up(u + p + gap, mark), y),
        (round_down(u - gap - w, mark), y),
    )
    name = moved.label.lower()
    for to_x, to_y in sorted(places, key=lambda at: abs(at[0] - x) + abs(at[1] - y)):
        change = set_mark_if(plan, moved.index, f"Move the {name} off it", to_x, to_y)
        if change is None or _outside((to_x, to_y, w, h), room):
            continue
        if not any(_meets((to_x, to_y, w, h), mark_.box) for mark_ in others):
            return (change, remove_mark(plan, moved.index))
    return (remove_mark(plan, moved.index),)


def set_mark_if(plan: Plan, index: int, words: str, x: Inches, y: Inches) -> Edit | None:
    """A mark set to a place, if that is one."""
    return set_mark(plan, index, words, x=x, y=y) if x >= 0 and y >= 0 else None


def snap_snags(plan: Plan) -> Iterator[Snag]:
    """A female half that is set where the flap does not land, or where it cannot be."""
    right, flap = female_below_top(plan.project.snap, plan.bag.flap), plan.bag.flap
    if right is None or flap is None:
        return
    typed = plan.project.snap.female
    read = plan.marks.notation.read_off
    half = next(p for p in plan.marks_on(flap.female_panel) if p.key == "snap:female")
    if right.value <= 0:
        offset = round_near(max(flap.lands.value / 2, CLOSE), plan.marks.ruler.value)
        title = "The snap's halves cannot meet: the flap is too short"
        why = "The male part sits higher on the flap than the flap comes down the front."
        fixes = (
            edit(
                f"Set the male part {read(offset, unit=True)} above the edge",
                ("snap.offset", offset),
            ),
        )
    elif typed is not None and abs(typed - right.value) > CLOSE:
        title = f"The snap's halves miss each other by {read(abs(typed - right.value), unit=True)}"
        why = (
            f"The flap comes down {read(flap.lands.value, unit=True)}; the female part belongs "
            f"{read(right.value, unit=True)} below the top edge."
        )
        fixes = (edit("Set it where the flap lands", ("snap.female", None)),)
    else:
        return
    yield Snag(
        "mark.snap",
        Stage.TRIM,
        Weight.BLOCKS,
        title,
        why,
        flap.female_panel,
        _place(half.box),
        fixes,
    )
