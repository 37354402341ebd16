"""The one-piece tote: one panel folded at the bottom.

The side leg of its notch crosses a seam, the fold leg none, so they differ:
``c_side = c_fold + a`` and ``D = 2(c_fold + b)``.  Equal legs are a mistake.  Common practice.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, EdgeKey, JoinKey
from tessil.core.bag.model import Bag, BagFigure, Fold, Join, Panel
from tessil.core.bag.net import Net, Seam, Sheet, Side
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Figure
from tessil.core.shapes import sleeve
from tessil.core.shapes.base import (
    BASE,
    DEPTH,
    HEIGHT,
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.common import (
    body_halves,
    box_volume,
    fold_corner,
    follows,
    join_pairs,
    lining_of,
    lying_flat,
    positive,
    ruler,
)
from tessil.core.shapes.corners import TRIMMED, Corner, corner_for, corner_of
from tessil.core.shapes.flat_pouch import flat_for_object
from tessil.core.shapes.nets import ZERO, fold_notch, level, seam, sewn_edges, upright
from tessil.core.shapes.outlines import Notches, panel_edges
from tessil.core.shapes.tote import (
    NOTCH_SIDE,
    TOP,
    Body,
    body_rims,
    boxed_for_object,
    has_base,
    inside_of,
    top_bound,
)

NOTCH_FOLD = SizeField(
    "notch_fold",
    "Notch, from fold",
    "From the fold, each way",
    Fraction(9, 8),
    "panel",
    leg="other",
)


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Panel width and whole length, and the two unlike legs."""
    side, top = brief.seams.side, brief.seams.top
    if not has_base(brief):
        return sleeve.to_panel(brief, finished)
    legs = corner_for(brief, finished["depth"], side, NOTHING, "fold")
    corner = corner_of(brief, legs, side, NOTHING, "fold")
    stands = finished["height"] if top_bound(brief) else finished["height"] + top
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * corner.in_side, "trimmed width"),
        "panel_height": ruler(brief, 2 * (stands + corner.in_other), "trimmed height"),
        "notch_side": legs[0],
        "notch_fold": legs[1],
    }


def _body(brief: Brief, panel: Sizes) -> Body:
    seams = brief.seams
    legs = (panel["notch_side"], panel["notch_fold"])
    corner = corner_of(brief, legs, seams.side, NOTHING, "fold")
    width = (panel["panel_width"] - 2 * corner.in_side).called("finished width of the base")
    half = panel["panel_height"] / 2
    below = half if top_bound(brief) else half - seams.top
    height = (below - corner.in_other).called("standing height")
    positive(width, "notch_side", "Notches this wide meet in the middle: cut them smaller.")
    positive(height, "notch_fold", "A notch this high leaves no side to stand: cut it smaller.")
    return Body(corner, width, height, corner.depth.called("finished depth"))


def _panel(brief: Brief, size: tuple[Figure, Figure], corner: Corner) -> Panel:
    (w, h), zero = (size[0].value, size[1].value), Fraction(0)
    rims = body_rims(brief) | {"bottom": body_rims(brief)["top"]}
    cut = ((*corner.cut, h / 2),) if corner.cut else ()
    edges = panel_edges((w, h), rims, Notches(folds=cut, seam=brief.seams.corner))
    side, other = corner.side_leg.value, corner.other_leg.value
    notches = (
        corner.notch("left, at the fold", zero, h / 2 - other),
        corner.notch("right, at the fold", w - side, h / 2 - other),
    )
    fold = Fold("bottom", (zero, h / 2), (w, h / 2))
    return Panel("body", "Body", "outer", *size, edges, (fold,), notches)


def _joins(brief: Brief, cut: bool) -> tuple[Join, ...]:
    """Each side sewn to itself across the fold; each notch closed into a box corner."""
    if not cut:
        return ()
    seams = brief.seams
    plain = join_pairs(*((JoinKey("seam", way), *body_halves(way), seams.side) for way in ENDS))
    boxed = tuple(fold_corner(JoinKey("box corner", way), way, seams.corner) for way in ENDS)
    return plain + boxed


def _raw(panel: Sizes, corner: Corner) -> tuple[Figure, ...]:
    """The side seams of a tote whose corners are sewn first and trimmed afterwards."""
    if corner.cut is not None:
        return ()
    side = panel["panel_height"] / 2 - corner.in_other + TRIMMED
    return side.called("left seam"), side.called("right seam")


def _net(brief: Brief, panel: Panel, corner: Corner) -> Net:
    """Front, base and back in a row, half of each end beside front and back."""
    x0, y0 = corner.in_side.value, corner.in_other.value
    w, h = panel.width.value, panel.height.value
    rims = body_rims(brief) | {"bottom": body_rims(brief)["top"]}
    edges = sewn_edges(panel, corner, rims, Notches(folds=((x0, y0, h / 2),)))
    half, below = panel.height / 2, corner.in_other
    creases = [level(y, x0, w - x0) for y in (half - below, half + below)]
    for x in (corner.in_side, panel.width - corner.in_side):
        creases += [upright(x, ZERO, h / 2 - y0), upright(x, h / 2 + y0, h)]
    seams: list[Seam] = []
    for way in ENDS:
        upper, lower = (
            Side("body", edge) for _, edge in body_halves(way) if isinstance(edge, EdgeKey)
        )
        seams += [seam(JoinKey("seam", way), upper, lower), fold_notch(way)]
    return Net((Sheet("body", edges, tuple(creases)),), tuple(seams), ("body", (w / 2, h / 8)))


def build(brief: Brief, panel: Sizes) -> Bag:
    """The tote in one piece; raises CannotPlan when nothing is left.  Without a base it is sewn as
    a sleeve is."""
    if not has_base(brief):
        return replace(sleeve.build(brief, panel), shape="one-piece")
    body = _body(brief, panel)
    outer = _panel(brief, (panel["panel_width"], panel["panel_height"]), body.corner)
    panels = [outer]
    if brief.has_lining:
        panels.append(lining_of(outer, brief, 1))
    flat = (panel["panel_width"] - 2 * brief.seams.side).called("opening, flat")
    inside = inside_of(brief, body)
    return Bag(
        shape="one-piece",
        panels=tuple(panels),
        joins=_joins(brief, body.corner.cut is not None),
        matches=follows("body", ("lining", "the lining follows the body")) if panels[1:] else (),
        finished=body.finished,
        inside=inside,
        figures=(
            BagFigure("opening-flat", flat),
            body.corner.told("depth-by-the-fold-leg", "depth by the fold leg"),
            lying_flat(body.height, body.depth),
            box_volume(inside),
        ),
        net=_net(brief, outer, body.corner),
        opening=(2 * flat).called("round the opening"),
        loop=True,
        corners=2,
        raw=_raw(panel, body.corner),
    )


ONE_PIECE = Shape(
    key="one-piece",
    name="One-piece tote",
    short="Tote",
    sentence="One panel folded at the bottom; its notches have two unlike legs.",
    fields=(
        WIDTH,
        HEIGHT,
        DEPTH,
        PANEL_WIDTH,
        starting(PANEL_HEIGHT, Fraction(28)),
        NOTCH_SIDE,
        NOTCH_FOLD,
    ),
    options=(BASE, TOP),
    flat=flat_for_object,
    for_object=boxed_for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    flat_sides=True,
    uses=frozenset({"lining", "corner", "top"}),
)
