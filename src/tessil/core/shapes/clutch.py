"""The fold-over clutch: one panel folded in three, front, back and flap.

Lying flat: flap above, back in the middle, front below.  Once folded, what pointed up on the
flap and on the front points down; on the back it stays up.  Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, JoinKey
from tessil.core.bag.model import (
    Bag,
    BagFigure,
    BoundEdge,
    EdgeRef,
    Finish,
    FlapNeed,
    Fold,
    FoldKey,
    Panel,
    edge_long,
)
from tessil.core.bag.net import OVER, Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import SIDES
from tessil.core.numbers.workings import Figure, count, total
from tessil.core.shapes.base import (
    HEIGHT,
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    SIDES_BOUND,
    WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.base import SIDES as SIDES_CHOICE
from tessil.core.shapes.common import follows, lining_of, positive, ruler
from tessil.core.shapes.edged import CORNER, TURNED_UNDER, less_binding
from tessil.core.shapes.flat_pouch import flat_for_object, flat_inside
from tessil.core.shapes.nets import ZERO, clockwise, level, seam, side
from tessil.core.shapes.outlines import Rims, Style, shaped_top, style_named
from tessil.core.trouble import CannotPlan

FLAP_SHAPE = Option(
    "flap_shape",
    "Flap",
    "Its free corners",
    (("round", "round"), ("square", "square"), ("envelope", "envelope")),
    asks="closes",
)
AROUND = replace(
    SIDES_CHOICE,
    key="around",
    label="Edges",
    why="Sewn to its lining and turned, or laid on it and bound: the front's top, then all round",
)
FLAP = SizeField("flap", "Flap", "How far it comes down", Fraction(4), "always", asks="closes")
FLAP_ROUND = SizeField(
    "flap_round",
    "Flap corner",
    "Radius, or height of the clip",
    Fraction(3, 2),
    "always",
    asks="closes",
    only=("flap_shape", "round", "envelope"),
)


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The one panel: twice the height, the flap, and a seam all round."""
    seam, flap = lost(brief), finished["flap"]
    length = 2 * finished["height"] + flap + 2 * seam
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * seam, "trimmed width"),
        "panel_height": ruler(brief, length, "trimmed height"),
    }


FOLDS: tuple[FoldKey, FoldKey] = ("flap", "bottom")


def flap_style(brief: Brief) -> Style:
    return style_named(brief.options["flap_shape"])


def is_bound(brief: Brief) -> bool:
    """Whether it is bound outside, all round, and nothing of it is turned."""
    return brief.options.get(AROUND.key) == SIDES_BOUND


def lost(brief: Brief) -> Figure:
    """What its edges take of the panel: their seam, or nothing under a binding."""
    return NOTHING if is_bound(brief) else brief.seams.side


def _panel(brief: Brief, panel: Sizes, height: Inches) -> Panel:
    w, h = panel["panel_width"].value, panel["panel_height"].value
    seam, flap = lost(brief).value, panel["flap"].value
    finish: Finish = "bound" if is_bound(brief) else "turned"
    rims: Rims = dict.fromkeys(SIDES, (finish, lost(brief)))
    edges = shaped_top((w, h), rims, flap_style(brief), panel["flap_round"].value)
    zero = Fraction(0)
    folds = tuple(
        Fold(key, (zero, y), (w, y))
        for key, y in zip(FOLDS, (seam + flap, seam + flap + height), strict=True)
    )
    return Panel("body", "Body", "outer", panel["panel_width"], panel["panel_height"], edges, folds)


def _net(brief: Brief, body: Panel, tall: Figure, flaps: Figure) -> Net:
    """The front folds up against the back, the flap down over both."""
    seams = lost(brief)
    w, s, height, flap = body.width.value, seams.value, tall.value, flaps.value
    creases = tuple(
        level(at, ZERO, w, OVER, opens=opens)
        for at, opens in ((seams + flaps + tall, False), (seams + flaps, True))
    )
    top, fold, end = s + flap, s + flap + height, s + flap + 2 * height
    return Net(
        sheets=(Sheet("body", body.edges, creases),),
        seams=tuple(
            seam(JoinKey("seam", way), side("body", way, part=one), side("body", way, part=other))
            for way in ENDS
            for one, other in (clockwise(way, (top, fold), (fold, end)),)
        ),
        still=("body", (w / 2, s + flap + height / 2)),
        facing="back",
    )


def for_object(brief: Brief) -> Sizes:
    """What holds the objects: wider by what a binding takes inside at either side."""
    needs = flat_for_object(brief)
    if not is_bound(brief):
        return needs
    wide = needs["width"] + 2 * brief.seams.binding
    return {**needs, "width": wide.called("width to hold it")}


def _inside(brief: Brief, width: Figure, height: Figure) -> tuple[BagFigure, ...]:
    """Inside of the pocket: a binding's seam less at either side."""
    told = flat_inside(brief, width, height)
    return (
        tuple(less_binding(one, brief, bottom=False) for one in told) if is_bound(brief) else told
    )


def _strips(brief: Brief, body: Panel, width: Figure, height: Figure) -> Iterator[BoundEdge]:
    """The front's top first, by itself; once it is folded up one strip round sides and flap."""
    front = tuple(EdgeRef(body.key, edge.key) for edge in body.edges if edge.key.side == "bottom")
    long = (width + TURNED_UNDER).called("front's top, binding")
    yield BoundEdge("bottom", "front's top edge", long, count("strip", 1), 1, front)
    others = [edge for edge in body.edges if edge.key.side != "bottom"]
    along = total(edge_long(edge) for edge in others).called("sides and flap, along the panel")
    # The front's own sides lie under the back's; a corner that is not round is mitred.
    more = TURNED_UNDER if flap_style(brief) == "round" else TURNED_UNDER + 2 * CORNER
    long = (along - 2 * height + more).called("sides and flap, binding")
    refs = tuple(EdgeRef(body.key, edge.key) for edge in others)
    yield BoundEdge(
        "sides", "sides and flap, the front folded up", long, count("strip", 1), 2, refs
    )


def check_corners(style: str, by: Figure, width: Figure, height: Figure) -> None:
    """Raise CannotPlan where rounded or clipped corners would meet, or outgrow what they end."""
    if style == "square":
        return
    if by.value >= height.value or (style == "round" and 2 * by.value >= width.value):
        raise CannotPlan(
            "shape.sizes.flap_round", "Corners so large meet each other: make them smaller."
        )


def check_flap(flap: Figure, body: Figure) -> None:
    """Raise CannotPlan for a flap longer than what it closes."""
    if flap.value > body.value:
        raise CannotPlan("shape.sizes.flap", "The flap is longer than the body: make it shorter.")


def build(brief: Brief, panel: Sizes) -> Bag:
    """The clutch in one panel; raises CannotPlan if flap or seams take all."""
    seam = lost(brief)
    width = (panel["panel_width"] - 2 * seam).called("finished width")
    height = ((panel["panel_height"] - 2 * seam - panel["flap"]) / 2).called("finished height")
    positive(width, "panel_width", "The two seams take all of it: make it wider.")
    positive(height, "panel_height", "Flap and seams take all of it: make it longer.")
    check_flap(panel["flap"], height)
    check_corners(flap_style(brief), panel["flap_round"], panel["panel_width"], panel["flap"])
    body = _panel(brief, panel, height.value)
    panels = [body]
    if brief.has_lining:
        panels.append(lining_of(body, brief, 1))
    return Bag(
        shape="clutch",
        panels=tuple(panels),
        joins=(),
        matches=follows("body", ("lining", "the lining follows the body")) if panels[1:] else (),
        finished=(width, height),
        inside=_inside(brief, width, height),
        bound=tuple(_strips(brief, body, width, height)) if is_bound(brief) else (),
        net=_net(brief, body, height, panel["flap"]),
        flap=FlapNeed(
            lands=(panel["flap"] - 2 * brief.wall).called("flap comes down the front"),
            panel="body",
            male_panel="lining" if brief.has_lining else "body",
            male_from=seam,
            female_panel="body",
            female_from=(panel["panel_height"] - seam).called("front's top edge"),
            male_sign=1,
            female_sign=-1,
        ),
    )


CLUTCH = Shape(
    key="clutch",
    name="Fold-over clutch",
    short="Clutch",
    sentence="One panel folded in three: front, back and a flap.",
    fields=(
        starting(WIDTH, Fraction(9)),
        starting(HEIGHT, Fraction(6)),
        starting(PANEL_WIDTH, Fraction(10)),
        starting(PANEL_HEIGHT, Fraction(17)),
        FLAP,
        FLAP_ROUND,
    ),
    options=(FLAP_SHAPE, AROUND),
    carries=("strap", "wrist"),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    proportions={"flap": lambda sizes: sizes["height"] * 2 / 3},
    uses=frozenset({"lining", "binding"}),
)
