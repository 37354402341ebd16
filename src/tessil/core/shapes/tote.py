"""The cut-corner tote: two panels, a seam at the bottom, a notch cut from each corner.

The notch is given by two legs, measured from the raw edges.  With stitch lines b inside
the notch, a base is ``D = 2(c − a + b)`` deep by either leg, and the two must agree.
Common practice, no source.
"""

from __future__ import annotations

from fractions import Fraction

from tessil.core.bag import Bag, Edge, EdgeRef, Join, Match, Notch, Panel
from tessil.core.lengths import Inches
from tessil.core.shapes.base import Brief, Option, Shape, SizeField, Sizes
from tessil.core.trouble import CannotPlan
from tessil.core.workings import Basis, Figure, given, no_less, up_to

_ZERO = given("nothing", 0, Basis.GEOMETRY)


def _bound(brief: Brief) -> bool:
    """A bound top keeps its raw edge, so that no seam is lost there."""
    return brief.options["top"] == "bound"


def for_object(brief: Brief) -> Sizes:
    """Finished sizes round a box of ``count`` objects standing in the bag.

    Ease goes on both sides of the width, but only once above the object and once before a
    pile, which leans on one wall.  The walls take their thickness from the inside.
    """
    held, wall = brief.held, brief.wall
    return {
        "width": (held.width + 2 * held.ease + 2 * wall).called("width to hold it"),
        "height": (held.height + held.ease + wall).called("height to hold it"),
        "depth": (held.count * held.thickness + held.ease + 2 * wall).called("depth to hold it"),
    }


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Trimmed panel and both notch legs for a finished width, height and depth."""
    seams, mark = brief.seams, brief.rulers.ruler
    half = finished["depth"] / 2
    side_leg = up_to(half + seams.side - seams.corner, mark).settled("notch, from the side")
    bottom_leg = up_to(half + seams.bottom - seams.corner, mark).settled("notch, from the bottom")
    if min(side_leg.value, bottom_leg.value) <= 0:
        raise CannotPlan(
            "shape.sizes.depth",
            "A base this shallow leaves no notch to cut: make it deeper or the corner seam less.",
        )
    width = up_to(finished["width"] + 2 * (side_leg + seams.corner), mark)
    stands = finished["height"] if _bound(brief) else finished["height"] + seams.top
    height = up_to(stands + bottom_leg + seams.corner, mark)
    return {
        "panel_width": width.settled("trimmed width"),
        "panel_height": height.settled("trimmed height"),
        "notch_side": side_leg,
        "notch_bottom": bottom_leg,
    }


def _finished(brief: Brief, panel: Sizes) -> tuple[Figure, Figure, Figure]:
    seams = brief.seams
    in_side = panel["notch_side"] + seams.corner
    in_bottom = panel["notch_bottom"] + seams.corner
    width = (panel["panel_width"] - 2 * in_side).called("finished width of the base")
    below = panel["panel_height"] if _bound(brief) else panel["panel_height"] - seams.top
    height = (below - in_bottom).called("standing height")
    depth = (2 * (panel["notch_side"] - seams.side + seams.corner)).called("finished depth")
    _check(panel, width, height, depth)
    return width, height, depth


def _check(panel: Sizes, width: Figure, height: Figure, depth: Figure) -> None:
    if width.value <= 0:
        raise CannotPlan(
            "shape.sizes.notch_side",
            "Notches this wide meet in the middle and leave no base: cut them smaller.",
        )
    if height.value <= 0:
        raise CannotPlan(
            "shape.sizes.notch_bottom",
            "A notch this high leaves no side to stand: cut it smaller.",
        )
    if depth.value <= 0:
        raise CannotPlan(
            "shape.sizes.notch_side", "A notch inside the side seam makes no base: cut it larger."
        )


def notched_edges(
    size: tuple[Inches, Inches], legs: tuple[Inches, Inches], brief: Brief
) -> tuple[Edge, ...]:
    """The eight edges of a panel with both bottom corners cut out, clockwise from the top."""
    (w, h), (cx, cy), zero = size, legs, Fraction(0)
    side, bottom = brief.seams.side.value, brief.seams.bottom.value
    corner = brief.seams.corner.value
    bound = _bound(brief)
    points = [(zero, zero), (w, zero), (w, h - cy), (w - cx, h - cy), (w - cx, h)]
    points += [(cx, h), (cx, h - cy), (zero, h - cy)]
    names = (
        ("top", "bound" if bound else "turned", zero if bound else brief.seams.top.value),
        ("right", "seam", side),
        ("right notch, level", "seam", corner),
        ("right notch, upright", "seam", corner),
        ("bottom", "seam", bottom),
        ("left notch, upright", "seam", corner),
        ("left notch, level", "seam", corner),
        ("left", "seam", side),
    )
    ends = points[1:] + points[:1]
    return tuple(
        Edge(name, start, end, finish, allowance)  # type: ignore[arg-type]
        for (name, finish, allowance), start, end in zip(names, points, ends, strict=True)
    )


def _panel(brief: Brief, panel: Sizes, key: str, label: str, like: str) -> Panel:
    lining = key == "lining"
    shorter = brief.lining_shorter if lining else None
    height = panel["panel_height"]
    if shorter is not None and shorter.value:
        height = (height - shorter).called("lining height")
    legs = (panel["notch_side"], panel["notch_bottom"])
    size = (panel["panel_width"].value, height.value)
    return Panel(
        key=key,
        label=label,
        kind="lining" if lining else "outer",
        width=panel["panel_width"],
        height=height,
        edges=notched_edges(size, (legs[0].value, legs[1].value), brief),
        notches=(Notch("left", *legs), Notch("right", *legs)),
        like=like,
        copies=2 if lining else 1,
    )


def _joins(brief: Brief) -> tuple[Join, ...]:
    seams = brief.seams
    front, back = "front", "back"
    plain = [
        Join(f"{way} seam", (EdgeRef(front, way),), (EdgeRef(back, other),), allowance.value)
        for way, other, allowance in (
            ("left", "right", seams.side),
            ("right", "left", seams.side),
            ("bottom", "bottom", seams.bottom),
        )
    ]
    boxed = []
    for way, other in (("left", "right"), ("right", "left")):
        level = (EdgeRef(front, f"{way} notch, level"), EdgeRef(back, f"{other} notch, level"))
        up = (EdgeRef(front, f"{way} notch, upright"), EdgeRef(back, f"{other} notch, upright"))
        boxed.append(Join(f"{way} box corner", level, up, seams.corner.value))
    return (*plain, *boxed)


def build(brief: Brief, panel: Sizes) -> Bag:
    """The tote in pieces from its trimmed panel; raises CannotPlan when nothing is left."""
    width, height, depth = _finished(brief, panel)
    panels = [
        _panel(brief, panel, "front", "Front", ""),
        _panel(brief, panel, "back", "Back", "front"),
    ]
    matches = [Match("front", "back", "the back is the front's size")]
    if brief.project.lining == "drop-in":
        panels.append(_panel(brief, panel, "lining", "Lining", ""))
        matches.append(Match("front", "lining", "the lining follows the front"))
    flat = (panel["panel_width"] - 2 * brief.seams.side).called("opening, flat")
    by_bottom = 2 * (panel["notch_bottom"] - brief.seams.bottom + brief.seams.corner)
    return Bag(
        shape="tote",
        panels=tuple(panels),
        joins=_joins(brief),
        matches=tuple(matches),
        finished=(width, height, depth),
        figures=(
            flat,
            by_bottom.called("depth by the bottom leg"),
            no_less(width - 2 * brief.wall, _ZERO).called("inside width"),
            no_less(height - brief.wall, _ZERO).called("inside height"),
            no_less(depth - 2 * brief.wall, _ZERO).called("inside depth"),
        ),
        opening=(2 * flat).called("round the opening"),
        boxed=True,
    )


TOTE = Shape(
    key="tote",
    name="Cut-corner tote",
    sentence="Two panels and a bottom seam; a notch at each corner makes the base.",
    fields=(
        SizeField("width", "Width", "Across the base, as the bag stands", Fraction(11)),
        SizeField("height", "Height", "From the table to the top edge", Fraction(12)),
        SizeField("depth", "Depth", "From the front to the back of the base", Fraction(3)),
        SizeField("panel_width", "Panel width", "Cut edge to cut edge", Fraction(15), "panel"),
        SizeField("panel_height", "Panel height", "Cut edge to cut edge", Fraction(14), "panel"),
        SizeField(
            "notch_side", "Notch, from side", "Along the bottom edge", Fraction(3, 2), "panel"
        ),
        SizeField(
            "notch_bottom", "Notch, from bottom", "Up the side edge", Fraction(3, 2), "panel"
        ),
    ),
    options=(
        Option(
            "top",
            "Top edge",
            "Bound over the raw edge, or turned in with a seam",
            (("bound", "bound"), ("turned", "turned in")),
        ),
    ),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    leader="front",
)
