"""The free panel: any rectangle, for a mat, a cover or a part of something else."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Bag, BagFigure, BoundEdge, EdgeRef, Finish, Panel
from tessil.core.bag.net import Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.sizes import SIDES, Side
from tessil.core.numbers.workings import Figure, count, total, up_to
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
from tessil.core.shapes.edged import CORNER, TURNED_UNDER
from tessil.core.shapes.outlines import Rims, shaped_top, style_named
from tessil.core.trouble import CannotPlan

_FINISH: dict[str, Finish] = {"seam": "seam", "bound": "bound", "turned": "turned", "raw": "free"}
_WAYS = (
    ("bound", "bound"),
    ("seam", "sewn in"),
    ("turned", "turned in"),
    ("raw", "overcast as cut"),
)
_SAME = "same"
_SIDE_OPTIONS = tuple(
    Option(
        f"edge_{side}",
        f"{side.capitalize()} edge",
        "By itself, or as the others",
        ((_SAME, "as the others"), *_WAYS),
        asks="sewn",
        only=None if side == "bottom" else ("corners", "square"),
    )
    for side in SIDES
)


def rims_of(brief: Brief) -> Rims:
    """What becomes of each side, and what that takes of it.  Round and clipped corners belong to
    the top and both sides alike: these are finished as one."""
    rims: Rims = {}
    square = brief.options["corners"] == "square"
    for side in SIDES:
        own = brief.options.get(f"edge_{side}", _SAME) if square or side == "bottom" else _SAME
        way = brief.options["edge"] if own == _SAME else own
        rims[side] = _FINISH[way], brief.seams.side if way in ("seam", "turned") else NOTHING
    return rims


def _taken(brief: Brief, one: Side, other: Side) -> Figure:
    """What two opposite sides take."""
    rims = rims_of(brief)
    first, last = rims[one][1], rims[other][1]
    return 2 * first if first.value == last.value else first + last


def _bound_runs(rims: Rims, size: tuple[Figure, Figure]) -> tuple[BoundEdge, ...]:
    """Sides that are bound and others not: those that meet at a corner in one strip."""
    ring: tuple[Side, ...] = ("top", "right", "bottom", "left")
    on = [rims[side][0] == "bound" for side in ring]
    made = []
    for at, side in enumerate(ring):
        if not on[at] or on[at - 1]:
            continue
        run = [side]
        while on[(at + len(run)) % 4] and len(run) < 4:
            run.append(ring[(at + len(run)) % 4])
        parts = [size[0] if one in ("top", "bottom") else size[1] for one in run]
        name = " and ".join([", ".join(run[:-1]), run[-1]] if run[1:] else run)
        corners = len(run) - 1
        values = tuple(part.value for part in parts)
        long = total([*parts, *(CORNER for _ in range(corners)), TURNED_UNDER])
        refs = tuple(EdgeRef("panel", EdgeKey(one)) for one in run)
        one = count("strip", 1)
        label = f"{name}, binding"
        made.append(BoundEdge(side, name, long.called(label), one, 1, refs, values))
    return tuple(made)


def for_object(brief: Brief) -> Sizes:
    """A panel that an object lies on, with ease all round."""
    held = brief.held
    return {
        "width": (held.width + 2 * held.ease).called("width to carry it"),
        "height": (held.height + 2 * held.ease).called("height to carry it"),
    }


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The trimmed panel: finished size and, where it is sewn in, a seam on every side."""
    mark = brief.rulers.ruler
    width = finished["width"] + _taken(brief, "left", "right")
    height = finished["height"] + _taken(brief, "top", "bottom")
    return {
        "panel_width": up_to(width, mark).settled("trimmed width"),
        "panel_height": up_to(height, mark).settled("trimmed height"),
    }


def build(brief: Brief, panel: Sizes) -> Bag:
    """One rectangle, each edge sewn in, turned, bound or left; CannotPlan if seams eat it."""
    width = (panel["panel_width"] - _taken(brief, "left", "right")).called("finished width")
    height = (panel["panel_height"] - _taken(brief, "top", "bottom")).called("finished height")
    for figure, field in ((width, "panel_width"), (height, "panel_height")):
        if figure.value <= 0:
            raise CannotPlan(f"shape.sizes.{field}", "The two seams take all of it: make it more.")
    sides = rims_of(brief)
    all_bound = all(finish == "bound" for finish, _ in sides.values())
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
        opening=round_it.called("round the panel") if all_bound else None,
        bound=()
        if all_bound
        else _bound_runs(sides, (panel["panel_width"], panel["panel_height"])),
    )


FREE_PANEL = Shape(
    key="free-panel",
    lining="none",
    side_seam=("edge", "seam", "turned"),
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
        replace(FLAP_ROUND, label="Corner", asks="size", only=("corners", "round", "envelope")),
    ),
    options=(
        Option("edge", "Edges", "What becomes of the four edges", _WAYS, asks="sewn"),
        *_SIDE_OPTIONS,
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
