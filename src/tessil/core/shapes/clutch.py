"""The fold-over clutch: one panel folded in three, front, back and flap.

Lying flat: flap above, back in the middle, front below.  Once folded, what pointed up on the
flap and on the front points down; on the back it stays up.  Common practice, no source.
"""

from __future__ import annotations

from tessil.core.bag.ids import ENDS, JoinKey
from tessil.core.bag.model import Bag, FlapNeed, Fold, FoldKey, Panel
from tessil.core.bag.net import OVER, Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import SIDES
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    HEIGHT,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.common import follows, lining_of, positive, ruler
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
FLAP = SizeField("flap", "Flap", "How far it comes down", Fraction(4), "always", asks="closes")
FLAP_ROUND = SizeField(
    "flap_round",
    "Flap corner",
    "Radius, or height of the clip",
    Fraction(3, 2),
    "always",
    asks="closes",
)


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The one panel: twice the height, the flap, and a seam all round."""
    seam, flap = brief.seams.side, finished["flap"]
    length = 2 * finished["height"] + flap + 2 * seam
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * seam, "trimmed width"),
        "panel_height": ruler(brief, length, "trimmed height"),
    }


FOLDS: tuple[FoldKey, FoldKey] = ("flap", "bottom")


def flap_style(brief: Brief) -> Style:
    return style_named(brief.options["flap_shape"])


def _panel(brief: Brief, panel: Sizes, height: Inches) -> Panel:
    w, h = panel["panel_width"].value, panel["panel_height"].value
    seam, flap = brief.seams.side.value, panel["flap"].value
    rims: Rims = dict.fromkeys(SIDES, ("turned", brief.seams.side))
    edges = shaped_top((w, h), rims, flap_style(brief), panel["flap_round"].value)
    zero = Fraction(0)
    folds = tuple(
        Fold(key, (zero, y), (w, y))
        for key, y in zip(FOLDS, (seam + flap, seam + flap + height), strict=True)
    )
    return Panel("body", "Body", "outer", panel["panel_width"], panel["panel_height"], edges, folds)


def _net(brief: Brief, body: Panel, tall: Figure, flaps: Figure) -> Net:
    """The front folds up against the back, the flap down over both."""
    seams = brief.seams.side
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
    seam = brief.seams.side
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
        inside=flat_inside(brief, width, height),
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
    options=(FLAP_SHAPE,),
    carries=("strap", "wrist"),
    for_object=flat_for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    proportions={"flap": lambda sizes: sizes["height"] * 2 / 3},
    uses=frozenset({"lining"}),
)
