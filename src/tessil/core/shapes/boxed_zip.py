"""The boxed zip bag: one panel, a zipper on its width, a fold below, all four ends boxed.

Ring ``C = L − 2z + v``; with k from the zipper's middle, the fold and the side stitch line to
each corner's stitch line, length ``W − 2a − 2k``, across ``C/2 − 2k``, height ``2k``.  A notch
cut first is b inside: its leg from the raw zipper edge is ``c + z − v/2``.  Common practice.
"""

from __future__ import annotations

from tessil.core.bag.ids import ENDS, JoinKey
from tessil.core.bag.model import Bag, BagFigure, Edge, Face, Fold, Join, Look, Panel, ZipperNeed
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.shapes.base import (
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    Brief,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.common import (
    WRIST,
    body_halves,
    box_volume,
    fold_corner,
    follows,
    join_pairs,
    less_walls,
    lining_of,
    positive,
    ruler,
    wrist_strap,
    zip_join,
    zipper_length,
)
from tessil.core.shapes.corners import TRIMMED, Corner, corner_for, corner_of
from tessil.core.shapes.flat_pouch import zip_rims
from tessil.core.shapes.outlines import Notches, panel_edges
from tessil.core.shapes.tote import NOTCH_SIDE

LENGTH = SizeField("width", "Length", "Along the zipper", Fraction(8), said="long", from_cloth=True)
ACROSS = SizeField(
    "depth", "Width", "Across the zipper", Fraction(4), said="across", from_cloth=True
)
HIGH = SizeField("height", "Height", "From the base to the zipper", Fraction(3), said="high")
NOTCH_FOLD = SizeField(
    "notch_fold", "Notch, from fold", "From the fold", Fraction(9, 8), "panel", leg="other"
)
NOTCH_ZIP = SizeField(
    "notch_zip",
    "Notch, from zip edge",
    "From the raw edge the zipper is sewn to",
    Fraction(1),
    "panel",
    leg="zip",
)
_LONGER = given("lining longer, for the false seam", Fraction(1, 2), Basis.PRACTICE)


def for_object(brief: Brief) -> Sizes:
    """What lies in the bag: its width along the zipper, its height across, its pile up."""
    held, wall = brief.held, brief.wall
    return {
        "width": (held.width + 2 * held.ease + 2 * wall).called("length to hold it"),
        "depth": (held.height + 2 * held.ease + 2 * wall).called("width to hold it"),
        "height": (held.thickness + held.ease + 2 * wall).called("height to hold it"),
    }


def _past_zip(brief: Brief) -> Figure:
    """From the raw zipper edge to the zipper's middle, counted into the panel."""
    return (brief.seams.zip - brief.seams.shown / 2).called("zipper seam less half of what shows")


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Panel and all three kinds of leg for a finished length, width and height."""
    seams = brief.seams
    fold_legs = corner_for(brief, finished["height"], seams.side, NOTHING, "fold")
    zip_legs = corner_for(brief, finished["height"], seams.side, _past_zip(brief), "zip")
    corner = corner_of(brief, fold_legs, seams.side, NOTHING, "fold")
    ring = 2 * (finished["depth"] + corner.depth)
    length = ring + 2 * seams.zip - seams.shown
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * corner.in_side, "trimmed width"),
        "panel_height": ruler(brief, length, "trimmed height"),
        "notch_side": fold_legs[0],
        "notch_fold": fold_legs[1],
        "notch_zip": zip_legs[1],
    }


def _corners(brief: Brief, panel: Sizes) -> tuple[Corner, Corner]:
    side = brief.seams.side
    at_fold = (panel["notch_side"], panel["notch_fold"])
    at_zip = (panel["notch_side"], panel["notch_zip"])
    return (
        corner_of(brief, at_fold, side, NOTHING, "fold"),
        corner_of(brief, at_zip, side, _past_zip(brief), "zip"),
    )


def _panel(brief: Brief, panel: Sizes, fold: Corner, zipped: Corner) -> Panel:
    width, height = panel["panel_width"], panel["panel_height"]
    w, h, zero = width.value, height.value, Fraction(0)
    rims = zip_rims(brief) | {"bottom": ("zip", brief.seams.zip)}
    cuts = Notches(
        bottom=zipped.cut,
        top=zipped.cut,
        fold=(*fold.cut, h / 2) if fold.cut else None,
        seam=brief.seams.corner,
    )
    edges: tuple[Edge, ...] = panel_edges((w, h), rims, cuts)
    side, up, down = fold.side_leg.value, fold.other_leg.value, zipped.other_leg.value
    notches = tuple(
        corner.notch(name, x, y)
        for corner, name, y in (
            (fold, "at the fold", h / 2 - up),
            (zipped, "at the zipper", zero),
            (zipped, "at the zipper, other side", h - down),
        )
        for x in (zero, w - side)
    )
    line = Fold("bottom", (zero, h / 2), (w, h / 2))
    return Panel("body", "Body", "outer", width, height, edges, (line,), notches)


def _joins(brief: Brief, cut: bool) -> tuple[Join, ...]:
    joins = [zip_join(("body", "top"), ("body", "bottom"), brief.seams.zip)]
    if not cut:
        return tuple(joins)
    for way in ENDS:
        joins += join_pairs((JoinKey("end", way), *body_halves(way), brief.seams.side))
        joins.append(fold_corner(JoinKey("box corner", way, "fold"), way, brief.seams.corner))
    return tuple(joins)


def _volume(brief: Brief, w: Figure, length: Figure, k: Figure) -> Figure:
    """Finished volume of a panel w along the zipper and ``length`` the other way."""
    ring = length - 2 * brief.seams.zip + brief.seams.shown
    return (w - 2 * brief.seams.side - 2 * k) * (ring / 2 - 2 * k) * (2 * k)


def build(brief: Brief, panel: Sizes) -> Bag:
    """The bag in one piece; raises CannotPlan when nothing is left."""
    seams = brief.seams
    fold, zipped = _corners(brief, panel)
    height = fold.depth.called("finished height")
    ring = (panel["panel_height"] - 2 * seams.zip + seams.shown).called("ring, zipper and all")
    length = (panel["panel_width"] - 2 * fold.in_side).called("finished length")
    across = (ring / 2 - height).called("finished width")
    positive(length, "notch_side", "The corners meet along the zipper: cut them smaller.")
    positive(across, "notch_fold", "The corners meet across the bag: cut them smaller.")
    body = _panel(brief, panel, fold, zipped)
    panels = [body]
    if brief.has_lining:
        panels.append(lining_of(body, brief, 1, _LONGER))
    inside = (
        less_walls(brief, length, 2, "length"),
        less_walls(brief, across, 2, "width"),
        less_walls(brief, height, 2, "height"),
    )
    k = height / 2
    now = _volume(brief, panel["panel_width"], panel["panel_height"], k)
    other = _volume(brief, panel["panel_height"], panel["panel_width"], k)
    zero, lid = Fraction(0), across.value / 2 - seams.shown.value / 2
    w, h, inset = length.value, height.value, fold.in_side.value
    wall = (inset, seams.zip.value + lid, w, h)
    back = (inset, panel["panel_height"].value - seams.zip.value - lid - h, w, h)
    box = (zero, zero, w, h)
    return Bag(
        shape="boxed-zip",
        panels=tuple(panels),
        joins=_joins(brief, fold.cut is not None),
        matches=follows("body", ("lining", "the lining follows the body")) if panels[1:] else (),
        finished=(length, across, height),
        inside=inside,
        figures=(
            BagFigure("ring-zipper-and-all", ring),
            zipped.told("height-by-the-zipper-leg", "height by the zipper leg"),
            box_volume(inside),
            BagFigure("volume-finished", now.called("volume, finished")),
            BagFigure(
                "volume-with-the-zipper-on-the-other-side",
                other.called("volume with the zipper on the other side"),
            ),
        ),
        looks=(
            Look("front", w, h, (Face("body", wall, box),), (), across.value, closed=True),
            Look(
                "back", w, h, (Face("body", back, box, turned=True),), (), across.value, closed=True
            ),
        ),
        attachments=wrist_strap(brief),
        corners=4,
        raw=()
        if fold.cut
        else tuple((across + 2 * TRIMMED).called(f"{way} end") for way in ("left", "right")),
        zipper=ZipperNeed(
            panel["panel_width"],
            zipper_length(panel["panel_width"]),
            (panel["panel_width"] - 2 * seams.side).called("between the ends"),
        ),
        words=("long", "wide", "high"),
    )


BOXED_ZIP = Shape(
    key="boxed-zip",
    name="Boxed zip bag",
    short="Zip bag",
    sentence="One panel, a zipper on one pair of sides, all four ends boxed.",
    fields=(
        LENGTH,
        ACROSS,
        HIGH,
        starting(PANEL_WIDTH, Fraction(12)),
        starting(PANEL_HEIGHT, Fraction(14)),
        NOTCH_SIDE,
        NOTCH_FOLD,
        NOTCH_ZIP,
    ),
    options=(WRIST,),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    uses=frozenset({"lining", "corner", "zip"}),
)
