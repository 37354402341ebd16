"""Edges finished one by one: sides sewn and turned or bound outside, zippers under a binding or
lapped over the edges they meet.

A bag is built as ever, with nothing lost where nothing is sewn in; what becomes of its edges is
then said once, for every shape.  Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Callable

from msgspec.structs import replace

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Bag, BagFigure, BoundEdge, Edge, EdgeRef, Join, Panel, ZipperNeed
from tessil.core.numbers.workings import Basis, Figure, count, given, no_less, total
from tessil.core.shapes.base import BASE, FLAT, NOTHING, SIDES, SIDES_BOUND, Brief, Shape, Sizes
from tessil.core.trouble import CannotPlan

_Runs = set[tuple[str, EdgeKey]]
SEWN = ("seam", "side seams")  # joins that may be bound outside instead
TURNED_UNDER = given("turned under at both ends", 1, Basis.PRACTICE)
CORNER = given("for a mitred corner", 1, Basis.PRACTICE)


def edged(shape: Shape) -> Shape:
    """The shape with its sides as chosen, where it has flat ones, and its zipper's edges."""
    option = SIDES if shape.flat is None else replace(SIDES, only=(BASE.key, FLAT))

    def build(brief: Brief, sizes: Sizes) -> Bag:
        bound = sides_bound(brief)
        bag = shape.build(without_seams(brief) if bound else brief, sizes)
        if bound:
            bag = with_bound_sides(bag, brief)
        return with_zipper_edges(with_stops(bag, brief), brief)

    def to_panel(brief: Brief, finished: Sizes) -> Sizes:
        return shape.to_panel(without_seams(brief) if sides_bound(brief) else brief, finished)

    if not shape.flat_sides:
        return replace(shape, build=build)
    return replace(
        shape,
        build=build,
        to_panel=to_panel,
        options=(*shape.options, option),
        for_object=_wider(shape.for_object, shape.cloths > 1),
        flat=None if shape.flat is None else _wider(shape.flat, shape.cloths > 1),
        uses=shape.uses | {"binding"},
    )


def sides_bound(brief: Brief) -> bool:
    """Whether sides are bound outside; those of a boxed bag are always sewn."""
    flat = brief.options.get(BASE.key, FLAT) == FLAT
    return flat and brief.options.get(SIDES.key) == SIDES_BOUND


def without_seams(brief: Brief) -> Brief:
    """As if sides and bottom lost nothing: their edges stay where they are."""
    return replace(brief, seams=replace(brief.seams, side=NOTHING, bottom=NOTHING))


def _wider(for_object: Callable[[Brief], Sizes], bottom: bool) -> Callable[[Brief], Sizes]:
    """What holds an object, with what a binding takes inside: at the bottom too where two panels
    meet there."""

    def wider(brief: Brief) -> Sizes:
        needs = for_object(brief)
        if not sides_bound(brief):
            return needs
        taken = brief.seams.binding
        wide = (needs["width"] + 2 * taken).called("width to hold it")
        if not bottom:
            return {**needs, "width": wide}
        high = (needs["height"] + taken).called("height to hold it")
        return {**needs, "width": wide, "height": high}

    return wider


def with_bound_sides(bag: Bag, brief: Brief) -> Bag:
    """The bag with the edges of its seams bound together outside, wrong sides together."""
    sewn = [join for join in bag.joins if join.key.what in SEWN]
    refs = {(ref.panel, ref.edge.run) for join in sewn for ref in (*join.one, *join.other)}
    bottom = any(join.key.side == "bottom" for join in sewn)
    panels = tuple(_bound_panel(panel, refs) for panel in bag.panels)
    sheets = tuple(
        replace(sheet, edges=_bound_edges(sheet.panel, sheet.edges, refs))
        for sheet in bag.net.sheets
    )
    return replace(
        bag,
        panels=panels,
        joins=tuple(replace(join, raw=()) if join in sewn else join for join in bag.joins),
        inside=tuple(less_binding(told, brief, bottom) for told in bag.inside),
        net=replace(bag.net, sheets=sheets),
        bound=(*bag.bound, *_strips(bag, sewn, bottom)),
    )


def _bound_panel(panel: Panel, refs: _Runs) -> Panel:
    """A lining is caught in the binding of what it lines."""
    own = {(panel.key, run) for _, run in refs} if panel.kind == "lining" else refs
    return replace(panel, edges=_bound_edges(panel.key, panel.edges, own))


def _bound_edges(panel: str, edges: tuple[Edge, ...], refs: _Runs) -> tuple[Edge, ...]:
    return tuple(
        replace(edge, finish="bound", allowance=NOTHING) if (panel, edge.key.run) in refs else edge
        for edge in edges
    )


def less_binding(told: BagFigure, brief: Brief, bottom: bool) -> BagFigure:
    """Inside, a binding's seam is lost at either side, and at a bottom that is bound too."""
    seam = brief.seams.binding
    if told.id == "inside-width":
        return BagFigure(told.id, no_less(told.figure - 2 * seam, NOTHING).called("inside width"))
    if told.id == "inside-height" and bottom:
        return BagFigure(told.id, no_less(told.figure - seam, NOTHING).called("inside height"))
    return told


def _strips(bag: Bag, sewn: list[Join], bottom: bool) -> tuple[BoundEdge, ...]:
    """Down one side, along the bottom and up the other in one strip; else one at either side."""
    width, height = bag.finished[:2]
    refs = tuple(ref for join in sewn for ref in (*join.one, *join.other))
    if bottom:
        parts = height.value, width.value, height.value
        long = (2 * height + width + 2 * CORNER + TURNED_UNDER).called("sides and bottom, binding")
        return (BoundEdge("sides", "sides and bottom", long, count("strip", 1), 2, refs, parts),)
    long = (height + TURNED_UNDER).called("a side, binding")
    return (BoundEdge("sides", "each side", long, count("strips", 2, Basis.GEOMETRY), 2, refs),)


def with_stops(bag: Bag, brief: Brief) -> Bag:
    """The bag with its zipper ending inside the seams at its ends, where that is chosen: so much
    less of it is needed; raises CannotPlan where nothing of it is left."""
    need, inside = bag.zipper, brief.zip_inside
    if need is None or inside is None:
        return bag
    opens = replace(need, inside=inside).opens
    if opens.value <= 0:
        wider = "left" if inside[0].value >= inside[1].value else "right"
        raise CannotPlan(f"zipper.{wider}", "So far inside its seams no zipper is left: take less.")
    through = [room for room in inside if not room.value]  # ends that run on into their seam
    spans, length = opens, opens
    for _ in through:
        spans = spans + (need.spans - need.between) / 2
        length = length + (need.length - need.between) / 2
    told = ZipperNeed(
        spans.called("sewn to") if through else opens,
        length.called(need.length.label),
        need.between,
        inside,
    )
    return replace(bag, zipper=told)


def with_zipper_edges(bag: Bag, brief: Brief) -> Bag:
    """The bag with a strip, or a tape, along each edge that its zipper meets without a seam."""
    zips = [join for join in bag.joins if join.kind == "zip"]
    if brief.zip_set == "seam" or not zips:
        return bag
    refs = tuple(ref for join in zips for ref in (*join.one, *join.other))
    lengths = [_along(bag, ref) for ref in refs]
    taped = brief.zip_set == "lapped"
    name = "zipper, each edge"
    edge = BoundEdge(
        "zipper",
        name,
        (total(lengths) / len(lengths)).called(f"{name}, {'tape' if taped else 'binding'}"),
        count("edges", len(refs), Basis.GEOMETRY),
        1,
        refs,
        tape=taped,
    )
    return replace(bag, bound=(*bag.bound, edge))


def _along(bag: Bag, ref: EdgeRef) -> Figure:
    """How long an edge is, from one side of its panel to the other."""
    panel = bag.panel(ref.panel)
    return panel.width if ref.edge.side in ("top", "bottom") else panel.height
