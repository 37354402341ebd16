"""The picture of each stage for one panel, made from the plan alone.

Pieced, layered and quilted stages draw the pieced top; brief and trim draw the trimmed
panel.  Knows the plan and pictures; must not know Qt.  Views of a stage that is not open at the
start are fetched when one turns to it.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

from msgspec.structs import replace

from tessil.core.bag.deeds import Deed, seams_in
from tessil.core.bag.net import named_seams
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.snags import Place, Snag, Stage, Weight
from tessil.drawing.bands import ON_BAG, trimmed_bands
from tessil.drawing.edgeletters import bag_letters, edge_words
from tessil.drawing.handview import Hand, in_hand, lit_on, moved, stand_of
from tessil.drawing.keeping import KEPT
from tessil.drawing.picture import (
    Badge,
    Cloth,
    Dimension,
    Item,
    Late,
    Line,
    Picture,
    Placed,
    Point,
    Shade,
    rectangle,
)
from tessil.drawing.pieceview import flat_picture, seam_lines, worn_picture
from tessil.drawing.projecting import Stand

if TYPE_CHECKING:
    from tessil.core.cutting.acts.whole import Spreads
    from tessil.drawing.costview import Reckoned

STRAIGHT = (1.0, 0.0, 0.0, 1.0, 0.0, 0.0)
ToBench = Callable[[float, float], Point]


class View(Record, frozen=True):
    """What the bench is asked to show beside the panel itself."""

    stage: Stage
    panel: str
    picked: Place | None = None
    piece: str = ""  # its name on the bench
    worn: str = ""  # piecing: the side of the bag on which to see the pieces, or flat
    side: str = "front"  # of the finished bag: front, back, end, above, open
    stand: Stand | None = None  # from where it is looked at, if it was turned by hand
    mark: int | None = None  # in hand
    leaf: str = ""  # of a stage that has several
    ply: int = -1  # the layer in hand
    line: str = ""  # the line of quilting in hand
    spreads: Spreads | None = None  # the plan of the cuts, at its stage
    sheet: int = 0  # which cloth of it
    cut: bool = False  # its next cut in hand
    step: Deed | None = None  # of making
    sewn: frozenset[str] | None = None  # its seams that are sewn, where not all are
    reckoned: Reckoned | None = None  # time and money


def picture_of(plan: Plan, view: View) -> Picture:
    """The bench of a stage, with the flags of its snags."""
    return flagged(bare_picture(plan, view), flags_of(plan, view))


def flagged(picture: Picture, flags: tuple[Item, ...]) -> Picture:
    """A picture and the flags on it."""
    return dataclasses.replace(picture, items=(*picture.items, *flags)) if flags else picture


def flags_of(plan: Plan, view: View) -> tuple[Item, ...]:
    """The numbered flags of the snags that sit on what is shown, and lines where they sit."""
    if view.stage not in _SHOWN_ON or (view.worn and view.stage is Stage.PIECE):
        return ()
    panel = plan.panel(view.panel)
    return tuple(_badges(plan, panel, view, _to_bench(panel, view)))


def bare_picture(plan: Plan, view: View) -> Picture:
    """The bench of a stage before anyone has looked for snags."""
    panel = plan.panel(view.panel)
    if view.stage is Stage.CUT:
        return _cut_picture(plan, view)
    if view.stage is Stage.MAKE:
        return _make_picture(plan, view)
    made = _STAGES.get(view.stage, _trimmed_picture)(plan, panel, view)
    if view.worn and view.stage is Stage.PIECE:
        return made
    return flagged(made, tuple(_picked(view.picked, _to_bench(panel, view))))


def _to_bench(panel: PanelPlan, view: View) -> ToBench:
    if view.stage is Stage.LAYER and view.leaf == "bulk":
        return lambda x, y: (x, y)
    if view.stage in (Stage.PIECE, Stage.LAYER, Stage.QUILT):
        return panel.pieced_at
    return lambda x, y: (x, y)


def thumbnail(plan: Plan, panel: PanelPlan) -> Picture:
    """The trimmed panel with its prints, small and without words."""
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    width, height = (float(v) for v in panel.trimmed.values())
    items: list[Item] = [*trimmed_bands(plan, panel), Line(outline, "raw", closed=True)]
    return Picture(tuple(items), (0, 0, width, height), (0, 0, 0, 0), ruled=False)


def _read(plan: Plan, value: object) -> str:
    return plan.marks.notation.read_off(value)  # type: ignore[arg-type]


def _pieced_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    if view.worn:
        return worn_picture(plan, view.worn, panel, view.piece)
    return flat_picture(plan, panel, view.piece)


def _layer_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    from tessil.drawing.layerview import layer_picture

    return layer_picture(plan, panel, view.leaf, view.ply)


def _quilt_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    from tessil.drawing.quiltview import quilt_picture

    return quilt_picture(plan, panel, view.leaf, view.line)


def _edge_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    from tessil.drawing.edgesview import edges_picture

    return edges_picture(plan, panel, view.leaf)


def _cut_picture(plan: Plan, view: View) -> Picture:
    from tessil.drawing.cuttingview import bare_table, cutting_picture

    found = view.spreads
    if found is None or not found.spreads:
        return bare_table(plan)
    at = min(view.sheet, len(found.spreads) - 1)
    return cutting_picture(found, at, view.cut, plan.marks.notation, view.piece)


def _make_picture(plan: Plan, view: View) -> Picture:
    if view.reckoned is not None:
        from tessil.drawing.costview import reckoned_picture

        return reckoned_picture(view.reckoned, plan.marks.notation)
    if view.leaf == "bag":
        from tessil.drawing.makingview import whole_picture

        return whole_picture(plan, "The bag as it is now.", view.sewn)
    return making_picture(plan, view.step, view.sewn)


def _trim_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    from tessil.drawing.markview import mark_items, outline_of

    left, right, top, bottom = (
        float(panel.cut_off[side].value) for side in ("left", "right", "top", "bottom")
    )
    width, height = (float(v) for v in panel.trimmed.values())
    whole = rectangle(-left, -top, width + left + right, height + top + bottom)
    items: list[Item] = []
    if max(left, right, top, bottom) > 0:
        items += [Shade(whole, "off"), Line(whole, "thin", closed=True)]
    items += _trimmed_body(plan, panel)
    items += _centres(panel)
    items += _trim_dimensions(plan, panel)
    items += _creases(plan, panel)
    placed = plan.marks_on(panel.key)
    for mark in placed:
        items += mark_items(
            plan, panel, mark, picked=mark.index is not None and mark.index == view.mark
        )
    handles = {mark.key: outline_of(mark.box) for mark in placed if mark.index is not None}
    x0, y0 = min(-left, 0.0), min(-top, 0.0)
    box = (x0, y0, max(width + right, width) - x0, max(height + bottom, height) - y0)
    caption = f"{panel.panel.label}, to be trimmed. Hatched: what the ruler takes off."
    if placed:
        caption = f"{panel.panel.label}: drag a mark, or move it by arrows. Sizes from both edges."
    return Picture(tuple(items), box, caption=caption, room=(88, 32, 64, 94), handles=handles)


def _creases(plan: Plan, panel: PanelPlan) -> Iterator[Line]:
    """Where the sewn bag turns: lines to press."""
    for facet in plan.sewn.facets.get(panel.key, ()):
        for at, rim in enumerate(facet.rims):
            if rim.crease >= 0:
                ends = facet.corners[at], facet.corners[(at + 1) % len(facet.corners)]
                yield Line(ends, "fold")


def _trimmed_body(plan: Plan, panel: PanelPlan) -> list[Item]:
    return [*_cloths(plan, panel), *_trimmed_lines(panel)]


def _cloths(plan: Plan, panel: PanelPlan) -> tuple[Cloth, ...]:
    """The prints on the trimmed panel, kept while it is looked at."""
    return KEPT.of(
        ("trimmed", panel.key),
        (panel, plan.project.prints),
        lambda: tuple(trimmed_bands(plan, panel)),
    )


def _trimmed_lines(panel: PanelPlan) -> list[Item]:
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    return [*seam_lines(panel), *_square_marks(panel), Line(outline, "notch", closed=True)]


def _trim_dimensions(plan: Plan, panel: PanelPlan) -> Iterator[Dimension]:
    width, height = (float(v) for v in panel.trimmed.values())
    yield Dimension((0, height), (width, height), _read(plan, panel.trimmed.width.value), 2.2)
    yield Dimension((0, 0), (0, height), _read(plan, panel.trimmed.height.value), -2.4)
    seen: set[str] = set()
    for notch in panel.panel.notches:
        if notch.meets in seen:
            continue
        seen.add(notch.meets)
        x, y = float(notch.x), float(notch.y)
        w, h = float(notch.width), float(notch.height)
        side, other = _read(plan, notch.side_leg.value), _read(plan, notch.other_leg.value)
        low, leg = (y + h, 0.3) if notch.meets == "seam" else (y, 0.4)
        yield Dimension((x, low), (x + w, low), side, leg)
        top = y if notch.meets != "fold" else y + h / 2
        yield Dimension((x, top), (x, y + h), other, -0.3)


def _wished(plan: Plan, panel: PanelPlan) -> Iterator[Dimension]:
    """The dimensions of a trimmed panel; those of the leading one can be wished for."""
    shape = plan.shape
    keys = [shape.panel_width, shape.panel_height] if panel.key == shape.leader else []
    there = {field.key for field in shape.fields}
    for at, one in enumerate(_trim_dimensions(plan, panel)):
        key = keys[at] if at < len(keys) else ""
        yield replace(one, size=key) if key in there else one


def _centres(panel: PanelPlan) -> Iterator[Line]:
    """Short marks in the middle of all four sides, to fold and crease."""
    width, height = (float(v) for v in panel.trimmed.values())
    reach = min(width, height) * 0.03
    for x, y, dx, dy in (
        (width / 2, 0, 0, reach),
        (width / 2, height, 0, -reach),
        (0, height / 2, reach, 0),
        (width, height / 2, -reach, 0),
    ):
        yield Line(((x, y), (x + dx, y + dy)), "notch")


def _square_marks(panel: PanelPlan) -> Iterator[Line]:
    """Corners that are drawn or pinched rather than cut: the line to sew."""
    for notch in panel.panel.notches:
        if not notch.cut:
            box = (float(notch.x), float(notch.y), float(notch.width), float(notch.height))
            yield Line(rectangle(*box), "fold", closed=True)


def _trimmed_picture(plan: Plan, panel: PanelPlan, view: View) -> Picture:
    """The brief: the trimmed panel, and the bag it becomes beside it."""
    width, height = (float(v) for v in panel.trimmed.values())
    items: list[Item] = [Placed(_cloths(plan, panel), STRAIGHT), *_trimmed_lines(panel)]
    items += [*_wished(plan, panel), *edge_words(panel)]
    stand = view.stand or stand_of(plan, view.side)
    hand = in_hand(plan, stand)
    apart = width + max(width, height) * 0.42
    bag_x, bag_y, bag_width, bag_height = hand.box
    dx, dy = apart - bag_x, height - bag_y - bag_height
    items += moved(hand.items, dx, dy)
    if view.picked is not None:
        items += moved(tuple(lit_on(plan, stand, panel.key, view.picked)), dx, dy)
    pieces = Late(lambda: _pieces_twice(plan, panel, stand, dx, dy))
    for key in (view.piece, view.piece + ON_BAG) if view.piece else ():
        if key in pieces:
            items += [Shade(pieces[key], "glow"), Line(pieces[key], "picked", closed=True)]
    if stand.sewn_up and not stand.within:
        items += bag_letters(plan, stand, dx, dy)
    y0 = min(0.0, height - bag_height)
    box = (0.0, y0, apart + bag_width, height - y0)
    caption = (
        f"{panel.panel.label}, trimmed, and the bag at one scale. Drag the bag to turn it, "
        "click a size to type another."
    )
    turns = (apart - 1.0, y0 - 1.0, bag_width + 2.0, height - y0 + 2.0)
    return Picture(
        tuple(items),
        box,
        caption=caption,
        room=(80, 14, 48, 98),
        ruled=False,
        turns=turns,
        pieces=pieces,
    )


def _pieces_twice(
    plan: Plan, panel: PanelPlan, stand: Stand, dx: float, dy: float
) -> dict[str, tuple[Point, ...]]:
    """The pieces of a panel as they lie on it, and all that are seen on the bag beside it."""
    flat = {cloth.key: cloth.outline for cloth in _cloths(plan, panel) if cloth.key}
    sewn = in_hand(plan, stand, named=True).pieces
    return flat | {
        key + ON_BAG: tuple((x + dx, y + dy) for x, y in outline) for key, outline in sewn.items()
    }


def bag_picture(plan: Plan, side: str = "front", things: bool = True) -> Picture:
    """The finished bag alone, with what it holds if wanted."""
    return hand_picture(in_hand(plan, stand_of(plan, side), things))


def hand_picture(hand: Hand) -> Picture:
    """A bag in the hand, with room for its sizes."""
    return Picture(hand.items, hand.box, (64, 16, 36, 52), ruled=False, caption="The finished bag.")


def _picked(place: Place | None, to_bench: ToBench) -> Iterator[Item]:
    if place is None:
        return
    (x1, y1), (x2, y2) = (
        to_bench(place.x, place.y),
        to_bench(place.x + place.width, place.y + place.height),
    )
    if place.kind == "area":
        yield Shade(rectangle(x1, y1, x2 - x1, y2 - y1), "glow")
        yield Line(rectangle(x1, y1, x2 - x1, y2 - y1), "picked", closed=True)
    else:
        yield Dimension((x1, y1), (x2, y2), "", 0, picked=True)


_SHOWN_ON = {
    Stage.BRIEF: (Stage.BRIEF, Stage.TRIM),
    Stage.PIECE: (Stage.PIECE,),
    Stage.LAYER: (Stage.LAYER,),
    Stage.QUILT: (Stage.QUILT,),
    Stage.TRIM: (Stage.TRIM, Stage.BRIEF),
    Stage.EDGE: (Stage.EDGE,),
}


def seat_of(snag: Snag) -> Place | None:
    """Where a snag sits on the bench of its leaf; nowhere on one that shows no panel."""
    return None if snag.leaf in LOOSE else snag.place


def snag_number(plan: Plan, snag: Snag) -> int:
    """The number a snag carries everywhere: its place in the plan's list."""
    return plan.snags.index(snag) + 1


def _on_leaf(snag: Snag, view: View) -> bool:
    """Whether an open leaf is about what a snag says, and shows the panel it sits on."""
    if view.stage is Stage.QUILT and view.leaf == "sewing":
        return False
    if view.stage in FIRST_LEAF:
        return snag.leaf == (view.leaf or FIRST_LEAF[view.stage])
    return True


LOOSE = ("bias", "straps", "closing")  # leaves that show no panel: their snags stand at the top
FIRST_LEAF = {Stage.LAYER: "layers", Stage.QUILT: "lines", Stage.EDGE: "binding"}


def _badges(plan: Plan, panel: PanelPlan, view: View, to_bench: ToBench) -> Iterator[Item]:
    stage = view.stage
    taken: list[Point] = []
    for snag in plan.snags:
        if snag.place is None or snag.panel != panel.key:
            continue
        if snag.stage not in _SHOWN_ON.get(stage, ()) or not _on_leaf(snag, view):
            continue
        place = snag.place
        if snag.leaf in LOOSE:
            yield Badge(
                (-0.9, -0.9 + 1.2 * len(taken)),
                snag_number(plan, snag),
                snag.weight is Weight.BLOCKS,
            )
            taken.append((0.0, float(len(taken))))
            continue
        (x1, y1), (x2, y2) = (
            to_bench(place.x, place.y),
            to_bench(place.x + place.width, place.y + place.height),
        )
        if place.kind == "area":
            yield Line(rectangle(x1, y1, x2 - x1, y2 - y1), "warn", closed=True)
        else:
            yield Line(((x1, y1), (x2, y2)), "warn")
        at = ((x1 + x2) / 2, (y1 + y2) / 2)
        while at in taken:
            at = (at[0] + 0.6, at[1])
        taken.append(at)
        yield Badge(at, snag_number(plan, snag), snag.weight is Weight.BLOCKS)


_MADE_AT = {
    "piece": (Stage.PIECE, ""),
    "layer": (Stage.LAYER, "layers"),
    "quilt": (Stage.QUILT, "lines"),
    "trim": (Stage.TRIM, ""),
    "mark": (Stage.TRIM, ""),
}


def making_picture(plan: Plan, deed: Deed | None, sewn: frozenset[str] | None = None) -> Picture:
    """The step in hand, and the bag after it where it sews a seam; the whole bag where all are
    done.  ``sewn`` are the seams that are sewn before it."""
    from tessil.drawing.makingview import beside, then, whole_picture

    if deed is None:
        return whole_picture(plan, "All steps are done.")
    picture = _step_picture(plan, deed)
    seams = seams_in(deed.gives) & {slug for slug, _ in named_seams(plan.bag.net)}
    if seams and sewn is not None:
        picture = then(picture, plan, sewn | seams)
    photo = plan.project.making.photos.get(deed.id)
    return picture if photo is None else beside(picture, photo)


def _step_picture(plan: Plan, deed: Deed) -> Picture:
    from tessil.drawing.makingview import seam_picture, table_picture, whole_picture

    stage, leaf = _MADE_AT.get(deed.operation, (Stage.MAKE, ""))
    if stage is not Stage.MAKE and len(deed.panels) == 1:
        panel = plan.panel(deed.panels[0])
        return looked_at(_STAGES[stage](plan, panel, View(stage, panel.key, leaf=leaf)))
    if deed.edges and deed.panels:
        return seam_picture(
            plan, deed, "Thread is what is sewn; short lines across it are back-tacks."
        )
    if not deed.panels and deed.operation not in ("cut", "prepare", "zipper"):
        return whole_picture(plan, "The bag as it will be.")
    return table_picture(plan, deed, "Right sides up, at one scale.")


def looked_at(picture: Picture) -> Picture:
    """A stage's picture to be looked at alone: nothing on it is taken in hand."""
    return Picture(picture.items, picture.box, picture.room, picture.caption, picture.ruled)


_STAGES: dict[Stage, Callable[[Plan, PanelPlan, View], Picture]] = {
    Stage.BRIEF: _trimmed_picture,
    Stage.PIECE: _pieced_picture,
    Stage.LAYER: _layer_picture,
    Stage.QUILT: _quilt_picture,
    Stage.TRIM: _trim_picture,
    Stage.EDGE: _edge_picture,
}
