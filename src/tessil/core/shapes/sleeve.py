"""The sleeve: one panel folded at the bottom, its sides sewn, its top open.

Finished width ``W − 2a``, height ``L/2`` less the top seam where the top is turned in.  Common
practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, JoinKey
from tessil.core.bag.model import Bag, BagFigure, Fold, Join, Panel
from tessil.core.bag.net import OVER, Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    HEIGHT,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Shape,
    Sizes,
    starting,
)
from tessil.core.shapes.common import follows, join_pairs, lining_of, positive, ruler
from tessil.core.shapes.flat_pouch import flat_for_object, flat_inside
from tessil.core.shapes.nets import ZERO, clockwise, level, seam, side
from tessil.core.shapes.outlines import panel_edges
from tessil.core.shapes.tote import TOP, body_rims, raw_top, top_bound


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The one panel: twice the height, a seam at both sides."""
    half = finished["height"] if top_bound(brief) else finished["height"] + brief.seams.top
    wide = finished["width"] + 2 * brief.seams.side
    return {
        "panel_width": ruler(brief, wide, "trimmed width"),
        "panel_height": ruler(brief, 2 * half, "trimmed height"),
    }


def _panel(brief: Brief, size: tuple[Figure, Figure]) -> Panel:
    w, h = size[0].value, size[1].value
    rims = body_rims(brief) | {"bottom": body_rims(brief)["top"]}
    fold = Fold("bottom", (ZERO, h / 2), (w, h / 2))
    return Panel("body", "Body", "outer", *size, panel_edges((w, h), rims), (fold,))


def _net(brief: Brief, body: Panel) -> Net:
    """Folded together at the bottom; each side lies on itself."""
    w, h, top = body.width.value, body.height.value, raw_top(brief)
    halves = (top, h / 2), (h / 2, h - top)
    return Net(
        sheets=(Sheet("body", body.edges, (level(body.height / 2, ZERO, w, OVER),)),),
        seams=tuple(
            seam(JoinKey("seam", way), side("body", way, part=one), side("body", way, part=other))
            for way in ENDS
            for one, other in (clockwise(way, *halves),)
        ),
        still=("body", (w / 2, h / 4)),
    )


def _sides(brief: Brief, height: Figure) -> Join:
    """Each side sewn to itself."""
    (join,) = join_pairs(
        (JoinKey("side seams"), ("body", "left"), ("body", "right"), brief.seams.side)
    )
    raw = height.called("left side seam"), height.called("right side seam")
    return replace(join, kind="folded", raw=raw)


def build(brief: Brief, panel: Sizes) -> Bag:
    """The sleeve in one piece; raises CannotPlan when seams take all."""
    size = panel["panel_width"], panel["panel_height"]
    width = (size[0] - 2 * brief.seams.side).called("finished width")
    half = size[1] / 2
    height = (half if top_bound(brief) else half - brief.seams.top).called("finished height")
    positive(width, "panel_width", "The two side seams take all of it: make it wider.")
    positive(height, "panel_height", "The top seams take all of it: make it longer.")
    body = _panel(brief, size)
    panels = [body]
    if brief.has_lining:
        panels.append(lining_of(body, brief, 1))
    return Bag(
        shape="sleeve",
        panels=tuple(panels),
        joins=(_sides(brief, height),),
        matches=follows("body", ("lining", "the lining follows the body")) if panels[1:] else (),
        finished=(width, height),
        inside=flat_inside(brief, width, height),
        net=_net(brief, body),
        figures=(BagFigure("opening-flat", width.called("opening, flat")),),
        opening=(2 * width).called("round the opening"),
        loop=True,
    )


SLEEVE = Shape(
    key="sleeve",
    name="Sleeve",
    short="Sleeve",
    sentence="One panel folded at the bottom, sides sewn, open at the top.",
    fields=(
        starting(WIDTH, Fraction(10)),
        starting(HEIGHT, Fraction(13)),
        starting(PANEL_WIDTH, Fraction(11)),
        starting(PANEL_HEIGHT, Fraction(26)),
    ),
    options=(TOP,),
    for_object=flat_for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    flat_sides=True,
    uses=frozenset({"lining", "top"}),
)
