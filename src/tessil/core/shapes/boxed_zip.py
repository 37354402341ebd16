"""The boxed zip bag: one panel closed to a ring by its zipper, both ends sewn, four corners boxed.

Ring ``C = L − 2z + v``; the corners' stitch lines lie k from the side's and from the fold or zipper
they are at.  Where they lie makes two bags of the one panel, both ``W − 2a − 2k`` long:

- zipper along the middle of the top, corners on the folds halfway between it and the base: across
  ``C/2 − 2k``, height ``2k``;
- zipper at the top edge, corners at the zipper and at the bottom fold: across ``2k``, height
  ``C/2 − 2k``.

A notch cut first is b inside its stitch lines; its leg from the raw zipper edge is ``c + z − v/2``
where the tape stays as wide as it shows, ``c + z`` where its edges are brought together there.
Geometry; proved in space by ``core/sewn``.
"""

from __future__ import annotations

from tessil.core.bag.ids import ENDS, CutOut, EdgeKey, Half, JoinKey
from tessil.core.bag.model import (
    Bag,
    BagFigure,
    Edge,
    EdgeRef,
    Fold,
    FoldKey,
    Join,
    Panel,
    ZipperNeed,
)
from tessil.core.bag.net import Net, Seam, Sheet, Tape
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    ZIPPED,
    Brief,
    Option,
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
    less_walls,
    lining_of,
    positive,
    ruler,
    zip_join,
    zipper_length,
)
from tessil.core.shapes.corners import TRIMMED, Corner, corner_for, corner_of
from tessil.core.shapes.flat_pouch import zip_rims
from tessil.core.shapes.nets import ZERO, fold_notch, level, seam, side, upright
from tessil.core.shapes.outlines import NONE, Cut, Notches, Rims, panel_edges
from tessil.core.shapes.tote import NOTCH_SIDE
from tessil.core.trouble import CannotPlan

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
    only=("zip_lies", "edge"),
)
LIES = Option(
    "zip_lies",
    "Zipper",
    "Along the middle of the top the bag is low and wide, at the top edge tall and narrow",
    (("middle", "along the middle of the top"), ("edge", "at the top edge")),
    asks="closes",
)
ENDS_OF_ZIP = Option(
    "zip_ends",
    "Zipper at its ends",
    "Where the corners at the zipper are sewn: as wide as it shows, or its edges together",
    (("wide", "as wide as it shows"), ("together", "edges together")),
    only=("zip_lies", "edge"),
    asks="closes",
)
FOLD_CUTS: tuple[CutOut, CutOut] = ("upper fold", "lower fold")


def for_object(brief: Brief) -> Sizes:
    """What lies in the bag: its width along the zipper, its height across, its pile up."""
    held, wall = brief.held, brief.wall
    return {
        "width": (held.width + 2 * held.ease + 2 * wall).called("length to hold it"),
        "depth": (held.height + 2 * held.ease + 2 * wall).called("width to hold it"),
        "height": (held.thickness + held.ease + 2 * wall).called("height to hold it"),
    }


def _at_edge(brief: Brief) -> bool:
    """Whether the zipper lies at the top edge, with corners at it."""
    return brief.options["zip_lies"] == "edge"


def _past_zip(brief: Brief) -> Figure:
    """What the zipper takes of a leg from its raw edge."""
    if brief.options["zip_ends"] == "together":
        return brief.seams.zip
    return (brief.seams.zip - brief.seams.shown / 2).called("zipper seam less half of what shows")


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Panel and all kinds of leg for a finished length, width and height."""
    seams = brief.seams
    boxed, other = ("depth", "height") if _at_edge(brief) else ("height", "depth")
    fold_legs = corner_for(brief, finished[boxed], seams.side, NOTHING, "fold")
    zip_legs = corner_for(brief, finished[boxed], seams.side, _past_zip(brief), "zip")
    corner = corner_of(brief, fold_legs, seams.side, NOTHING, "fold")
    ring = 2 * (finished[other] + corner.depth)
    length = ring + 2 * seams.zip - seams.shown
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * corner.in_side, "trimmed width"),
        "panel_height": ruler(brief, length, "trimmed height"),
        "notch_side": fold_legs[0],
        "notch_fold": fold_legs[1],
        "notch_zip": zip_legs[1],
    }


class Boxing(Record, frozen=True):
    """The corners of the panel, and where its level lines lie from its upper raw edge: the
    zipper's middle, the folds, and the ring from there and back."""

    fold: Corner
    zipped: Corner | None
    middle: Figure  # of the zipper, above the raw edge where it is less than nothing
    ring: Figure

    @property
    def folds(self) -> tuple[Figure, ...]:
        """Where corners lie at folds: halfway down both faces, or at the bottom alone."""
        if self.zipped is not None:
            return (self.middle + self.ring / 2,)
        return self.middle + self.ring / 4, self.middle + 3 * self.ring / 4


def _boxing(brief: Brief, panel: Sizes, ring: Figure) -> Boxing:
    side = brief.seams.side
    fold = corner_of(brief, (panel["notch_side"], panel["notch_fold"]), side, NOTHING, "fold")
    zipped = None
    if _at_edge(brief):
        legs = (panel["notch_side"], panel["notch_zip"])
        zipped = corner_of(brief, legs, side, _past_zip(brief), "zip")
    middle = brief.seams.zip - brief.seams.shown / 2
    return Boxing(fold, zipped, middle, ring)


def _rims(brief: Brief) -> Rims:
    return zip_rims(brief) | {"bottom": ("zip", brief.seams.zip)}


def _notches(boxing: Boxing, cut: bool, seam: Figure) -> Notches:
    """What is cut out, or left out once it is sewn on its lines."""

    def of(corner: Corner) -> Cut:
        sewn = corner.in_side.value, corner.in_other.value
        return corner.cut or sewn if cut else sewn

    ends = of(boxing.zipped) if boxing.zipped is not None else None
    folds = tuple((*of(boxing.fold), y.value) for y in boxing.folds)
    return Notches(bottom=ends, top=ends, folds=folds, seam=seam)


def _panel(brief: Brief, panel: Sizes, boxing: Boxing) -> Panel:
    width, height = panel["panel_width"], panel["panel_height"]
    w, h, zero = width.value, height.value, Fraction(0)
    cuts = Notches()
    if boxing.fold.cut is not None:
        cuts = _notches(boxing, True, brief.seams.corner)
    edges = panel_edges((w, h), _rims(brief), cuts)
    side, half = boxing.fold.side_leg.value, boxing.fold.other_leg.value
    ys = [y.value for y in boxing.folds]
    marks = [(boxing.fold, name, y - half) for name, y in zip(_NAMES, ys, strict=False)]
    if boxing.zipped is not None:
        down = boxing.zipped.other_leg.value
        marks = [
            (boxing.fold, "at the fold", ys[0] - half),
            (boxing.zipped, "at the zipper", zero),
            (boxing.zipped, "at the zipper, other side", h - down),
        ]
    notches = tuple(corner.notch(name, x, y) for corner, name, y in marks for x in (zero, w - side))
    names: tuple[FoldKey, ...] = ("bottom",) if boxing.zipped is not None else ("upper", "lower")
    lines = tuple(Fold(name, (zero, y), (w, y)) for name, y in zip(names, ys, strict=True))
    return Panel("body", "Body", "outer", width, height, edges, lines, notches)


_NAMES = ("at the upper fold", "at the lower fold")


def _joins(brief: Brief, boxing: Boxing) -> tuple[Join, ...]:
    joins = [zip_join(("body", "top"), ("body", "bottom"), brief.seams.zip)]
    if boxing.fold.cut is None:
        return tuple(joins)
    side, corner = brief.seams.side, brief.seams.corner
    for way in ENDS:
        if boxing.zipped is not None:
            joins += join_pairs((JoinKey("end", way), *body_halves(way), side))
            joins.append(fold_corner(JoinKey("box corner", way, "fold"), way, corner))
            continue
        upper, middle, lower = (EdgeRef("body", EdgeKey(way, half=half)) for half in THIRDS)
        ends = (lower, upper) if way == "right" else (upper, lower)
        joins.append(Join(JoinKey("end", way), (middle,), ends, side))
        for cut in FOLD_CUTS:
            joins.append(fold_corner(JoinKey("box corner", way, cut), way, corner, cut))  # type: ignore[arg-type]
    return tuple(joins)


THIRDS: tuple[Half, Half, Half] = ("upper", "middle", "lower")


def _net(brief: Brief, body: Panel, boxing: Boxing) -> Net:
    edges = body.edges
    if boxing.fold.cut is None:
        size = (body.width.value, body.height.value)
        edges = panel_edges(size, _rims(brief), _notches(boxing, False, NONE))
    return (_edge_net if boxing.zipped is not None else _middle_net)(brief, body, edges, boxing)


def _middle_net(brief: Brief, body: Panel, edges: tuple[Edge, ...], boxing: Boxing) -> Net:
    """Top with the zipper in it, walls at the folds, base; the ends in two halves, the upper ones
    with the zipper's ends between."""
    a, v = brief.seams.side.value, brief.seams.shown.value
    x0 = boxing.fold.in_side.value
    w, h = body.width.value, body.height.value
    deep = boxing.fold.in_other
    walls = [at for y in boxing.folds for at in (y - deep, y + deep)]
    creases = [level(y, x0, w - x0) for y in walls]
    ys = [ZERO, *(y.value for y in walls), h]
    for x in (boxing.fold.in_side, body.width - boxing.fold.in_side):
        creases += [upright(x, start, end) for start, end in zip(ys[::2], ys[1::2], strict=True)]
    seams = [
        seam(JoinKey("zipper"), side("body", "top"), side("zipper", "bottom"), hinge=True),
        seam(JoinKey("zipper", at="behind"), side("body", "bottom"), side("zipper", "top")),
    ]
    for way in ENDS:
        upper, middle, lower = (side("body", EdgeKey(way, half=half)) for half in THIRDS)
        tape = side("zipper", way)
        ends = (lower, tape, upper) if way == "right" else (upper, tape, lower)
        seams.append(Seam(JoinKey("end", way), ends, (middle,)))
        seams += [fold_notch(way, cut) for cut in FOLD_CUTS]
    return Net(
        sheets=(Sheet("body", edges, tuple(creases)),),
        tapes=(Tape("zipper", w - 2 * a, v, ends=x0 - a),),
        seams=tuple(seams),
        still=("body", (w / 2, boxing.folds[0].value)),
    )


def _edge_net(brief: Brief, body: Panel, edges: tuple[Edge, ...], boxing: Boxing) -> Net:
    """A narrow top with the zipper in it, high walls, the base at the fold; each end a half of
    either wall."""
    assert boxing.zipped is not None
    v = brief.seams.shown.value
    x0, k, w = boxing.fold.in_side.value, boxing.fold.in_other.value, body.width.value
    deep, zipper, base = boxing.fold.in_other, boxing.middle, boxing.folds[0]
    h, fold, top = body.height.value, base.value, zipper.value + k
    down = boxing.zipped.in_other.value
    high = zipper + deep
    creases = [level(y, x0, w - x0) for y in (high, base - deep, base + deep, body.height - high)]
    for x in (boxing.fold.in_side, body.width - boxing.fold.in_side):
        creases += [upright(x, down, fold - k), upright(x, fold + k, h - down)]
    eased = down - top  # by how much the zipper's edges are brought together at each of its ends
    seams = [
        seam(JoinKey("zipper"), side("body", "top"), side("zipper", "bottom"), hinge=True),
        seam(JoinKey("zipper", at="behind"), side("body", "bottom"), side("zipper", "top")),
    ]
    for way in ENDS:
        upper, lower = (side("body", EdgeKey(way, half=half)) for half in ("upper", "lower"))
        seams += [seam(JoinKey("end", way), upper, lower), fold_notch(way)]
        levels = (
            side("body", EdgeKey(way, "top corner", "level")),
            side("body", EdgeKey(way, "corner", "level")),
        )
        ups = (
            side("body", EdgeKey(way, "top corner", "upright")),
            side("zipper", way),
            side("body", EdgeKey(way, "corner", "upright")),
        )
        seams.append(Seam(JoinKey("box corner", way, "behind"), levels, ups, ease=2 * eased))
    return Net(
        sheets=(Sheet("body", edges, tuple(creases)),),
        tapes=(Tape("zipper", w - 2 * x0, v),),
        seams=tuple(seams),
        still=("body", (w / 2, (top + fold - k) / 2)),
    )


def _volume(brief: Brief, w: Figure, length: Figure, k: Figure) -> Figure:
    """Finished volume of a panel w along the zipper and ``length`` the other way; the same for both
    constructions."""
    ring = length - 2 * brief.seams.zip + brief.seams.shown
    return (w - 2 * brief.seams.side - 2 * k) * (ring / 2 - 2 * k) * (2 * k)


def _finished(brief: Brief, boxing: Boxing, ring: Figure) -> tuple[Figure, Figure]:
    """Across and height: the one is what the corners box, the other what is left of the ring."""
    boxed = boxing.fold.depth
    if _at_edge(brief):
        across = boxed.called("finished width")
        return across, (ring / 2 - across).called("finished height")
    height = boxed.called("finished height")
    return (ring / 2 - height).called("finished width"), height


def _zipper(width: Figure, boxing: Boxing, between: Figure) -> ZipperNeed:
    """The whole edge it is sewn to; of corners cut first only what lies between the notches."""
    edge = width
    if boxing.zipped is not None and boxing.zipped.cut is not None:
        edge = (width - 2 * boxing.zipped.side_leg).called("zipper edge, between the notches")
    return ZipperNeed(edge, zipper_length(edge), between)


def build(brief: Brief, panel: Sizes) -> Bag:
    """The bag in one piece; raises CannotPlan when nothing is left."""
    seams = brief.seams
    ring = (panel["panel_height"] - 2 * seams.zip + seams.shown).called("ring, zipper and all")
    boxing = _boxing(brief, panel, ring)
    fold = boxing.fold
    across, height = _finished(brief, boxing, ring)
    length = (panel["panel_width"] - 2 * fold.in_side).called("finished length")
    positive(length, "notch_side", "The corners meet along the zipper: cut them smaller.")
    left = height if boxing.zipped is not None else across
    positive(left, "notch_fold", "The corners meet across the bag: cut them smaller.")
    if boxing.zipped is None and (across - seams.shown).value <= 0:
        raise CannotPlan("shape.sizes.panel_height", "The zipper takes all of the top.")
    body = _panel(brief, panel, boxing)
    panels = [body]
    if brief.has_lining:
        panels.append(lining_of(body, brief, 1))
    inside = (
        less_walls(brief, length, 2, "length"),
        less_walls(brief, across, 2, "width"),
        less_walls(brief, height, 2, "height"),
    )
    k = (across if boxing.zipped is not None else height) / 2
    now = _volume(brief, panel["panel_width"], panel["panel_height"], k)
    other = _volume(brief, panel["panel_height"], panel["panel_width"], k)
    by_zip = (
        (boxing.zipped.told("height-by-the-zipper-leg", "width by the zipper leg"),)
        if boxing.zipped is not None
        else ()
    )
    spans = (panel["panel_width"] - 2 * seams.side).called("between the ends")
    if boxing.zipped is not None:
        spans = length.called("between the corners")
    return Bag(
        shape="boxed-zip",
        panels=tuple(panels),
        joins=_joins(brief, boxing),
        matches=follows("body", ("lining", "the lining follows the body")) if panels[1:] else (),
        finished=(length, across, height),
        inside=inside,
        figures=(
            BagFigure("ring-zipper-and-all", ring),
            *by_zip,
            box_volume(inside),
            BagFigure("volume-finished", now.called("volume, finished")),
            BagFigure(
                "volume-with-the-zipper-on-the-other-side",
                other.called("volume with the zipper on the other side"),
            ),
        ),
        net=_net(brief, body, boxing),
        corners=4,
        corner=across if boxing.zipped is not None else height,
        raw=()
        if fold.cut
        else tuple((left + 2 * TRIMMED).called(f"{way} end") for way in ("left", "right")),
        zipper=_zipper(panel["panel_width"], boxing, spans),
        words=("long", "wide", "high"),
    )


BOXED_ZIP = Shape(
    key="boxed-zip",
    carries=ZIPPED,
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
    options=(LIES, ENDS_OF_ZIP),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    uses=frozenset({"lining", "corner", "zip"}),
)
