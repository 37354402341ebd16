"""The free panel: any rectangle, for a mat, a cover or a part of something else."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Bag, BagFigure, Finish, Panel
from tessil.core.bag.net import Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.sizes import SIDES
from tessil.core.numbers.workings import Figure, up_to
from tessil.core.shapes.base import (
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.clutch import FLAP_ROUND, check_corners
from tessil.core.shapes.outlines import Rims, shaped_top, style_named
from tessil.core.trouble import CannotPlan

_FINISH: dict[str, Finish] = {"seam": "seam", "bound": "bound", "raw": "free"}


def _allowance(brief: Brief) -> Figure:
    return brief.seams.side if brief.options["edge"] == "seam" else NOTHING


def for_object(brief: Brief) -> Sizes:
    """A panel that an object lies on, with ease all round."""
    held = brief.held
    return {
        "width": (held.width + 2 * held.ease).called("width to carry it"),
        "height": (held.height + 2 * held.ease).called("height to carry it"),
    }


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The trimmed panel: finished size and, where it is sewn in, a seam on every side."""
    seam, mark = _allowance(brief), brief.rulers.ruler
    return {
        "panel_width": up_to(finished["width"] + 2 * seam, mark).settled("trimmed width"),
        "panel_height": up_to(finished["height"] + 2 * seam, mark).settled("trimmed height"),
    }


def build(brief: Brief, panel: Sizes) -> Bag:
    """One rectangle, its edges sewn in, bound or left; raises CannotPlan if seams eat it."""
    seam = _allowance(brief)
    width = (panel["panel_width"] - 2 * seam).called("finished width")
    height = (panel["panel_height"] - 2 * seam).called("finished height")
    for figure, field in ((width, "panel_width"), (height, "panel_height")):
        if figure.value <= 0:
            raise CannotPlan(f"shape.sizes.{field}", "The two seams take all of it: make it more.")
    finish = _FINISH[brief.options["edge"]]
    sides: Rims = dict.fromkeys(SIDES, (finish, seam))
    size = (panel["panel_width"].value, panel["panel_height"].value)
    style, by = style_named(brief.options["corners"]), panel["flap_round"].value
    check_corners(style, panel["flap_round"], panel["panel_width"], panel["panel_height"])
    edges = shaped_top(size, sides, style, by)
    only = Panel("panel", "Panel", "outer", panel["panel_width"], panel["panel_height"], edges)
    round_it = 2 * (panel["panel_width"] + panel["panel_height"])
    return Bag(
        shape="free-panel",
        panels=(only,),
        joins=(),
        matches=(),
        finished=(width, height),
        inside=(BagFigure("finished-width", width), BagFigure("finished-height", height)),
        net=Net((Sheet("panel", edges),), (), ("panel", (size[0] / 2, size[1] / 2))),
        opening=round_it.called("round the panel") if finish == "bound" else None,
    )


FREE_PANEL = Shape(
    key="free-panel",
    lining="none",
    side_seam=("edge", "seam"),
    name="Free panel",
    short="Panel",
    sentence="Any rectangle: a mat, a cover, or a part of something else.",
    fields=(
        SizeField(
            "width", "Width", "Without seam allowances", Fraction(12), said="wide", from_cloth=True
        ),
        SizeField(
            "height", "Height", "Without seam allowances", Fraction(9), said="high", from_cloth=True
        ),
        starting(PANEL_WIDTH, Fraction(12)),
        starting(PANEL_HEIGHT, Fraction(9)),
        replace(FLAP_ROUND, label="Corner", asks="size"),
    ),
    options=(
        Option(
            "edge",
            "Edges",
            "What becomes of the four edges",
            (("bound", "bound"), ("seam", "sewn in"), ("raw", "left as cut")),
            asks="sewn",
        ),
        Option(
            "corners",
            "Top corners",
            "Square, rounded or clipped",
            (("square", "square"), ("round", "round"), ("envelope", "clipped")),
        ),
    ),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    carries=(),
    leader="panel",
)
