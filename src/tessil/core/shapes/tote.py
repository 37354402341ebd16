"""The cut-corner tote: two panels, a seam at the bottom, a notch cut from each corner.

A base is ``D = 2(c − a + b)`` deep by either leg of a notch cut b inside its stitch lines, and
the two must agree.  Common practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, LIES, EdgeKey, FigureId, JoinKey
from tessil.core.bag.model import Bag, BagFigure, EdgeRef, ExactPoint, Join, Panel
from tessil.core.bag.net import Net
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    BASE,
    DEPTH,
    FLAT,
    HEIGHT,
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
)
from tessil.core.shapes.common import (
    box_volume,
    follows,
    join_pairs,
    less_walls,
    lining_of,
    lying_flat,
    positive,
    ruler,
)
from tessil.core.shapes.corners import TRIMMED, Corner, corner_for, corner_of, no_corner
from tessil.core.shapes.flat_pouch import flat_for_object, flat_inside
from tessil.core.shapes.nets import boxed_seams, boxed_sheet
from tessil.core.shapes.outlines import Notches, Rim, Rims, panel_edges

NOTCH_SIDE = SizeField(
    "notch_side", "Notch, from side", "Along the bottom edge", Fraction(3, 2), "panel", leg="side"
)
NOTCH_BOTTOM = SizeField(
    "notch_bottom", "Notch, from bottom", "Up the side edge", Fraction(3, 2), "panel", leg="other"
)
TOP = Option(
    "top",
    "Top edge",
    "Bound over the raw edge, or turned in with a seam",
    (("bound", "bound"), ("turned", "turned in")),
    asks="sewn",
)


def top_bound(brief: Brief) -> bool:
    """A bound top keeps its raw edge, so that no seam is lost there."""
    return brief.options.get("top") == "bound"


def has_base(brief: Brief) -> bool:
    """Whether its corners are boxed."""
    return brief.options.get(BASE.key) != FLAT


def boxed_for_object(brief: Brief) -> Sizes:
    """Finished sizes round what stands in a boxed bag.

    Ease goes on both sides of the width, but only once above the object and once before a
    pile, which leans on one wall.  The walls take their thickness from the inside.
    """
    held, wall = brief.held, brief.wall
    return {
        "width": (held.width + 2 * held.ease + 2 * wall).called("width to hold it"),
        "height": (held.height + held.ease + wall).called("height to hold it"),
        "depth": (held.thickness + held.ease + 2 * wall).called("depth to hold it"),
    }


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Trimmed panel and both notch legs for a finished width, height and depth."""
    legs = legs_for(brief, finished)
    corner = corner_by(brief, legs)
    stands = finished["height"] if top_bound(brief) else finished["height"] + brief.seams.top
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * corner.in_side, "trimmed width"),
        "panel_height": ruler(brief, stands + corner.in_other, "trimmed height"),
        **legs,
    }


def legs_for(brief: Brief, finished: Sizes) -> Sizes:
    """Both legs for a finished depth; none without a base."""
    seams = brief.seams
    if not has_base(brief):
        return {}
    side, bottom = corner_for(brief, finished["depth"], seams.side, seams.bottom, "seam")
    return {"notch_side": side, "notch_bottom": bottom}


def corner_by(brief: Brief, panel: Sizes) -> Corner:
    """The corner of a body of two panels, by its legs."""
    seams = brief.seams
    if not has_base(brief):
        return no_corner(seams.side, seams.bottom)
    legs = (panel["notch_side"], panel["notch_bottom"])
    return corner_of(brief, legs, seams.side, seams.bottom, "seam")


class Body(Record, frozen=True):
    """The body of a boxed bag of two panels: its corner and its finished sizes."""

    corner: Corner
    width: Figure
    height: Figure
    depth: Figure

    @property
    def finished(self) -> tuple[Figure, ...]:
        sizes = self.width, self.height, self.depth
        return sizes[:2] if self.corner.none else sizes

    @property
    def corners(self) -> int:
        """How many of its corners are boxed."""
        return 0 if self.corner.none else 2


def body_of(brief: Brief, panel: Sizes) -> Body:
    """Finished sizes of two notched panels; raises CannotPlan when nothing is left."""
    seams = brief.seams
    corner = corner_by(brief, panel)
    width = (panel["panel_width"] - 2 * corner.in_side).called(width_label(corner))
    below = panel["panel_height"] if top_bound(brief) else panel["panel_height"] - seams.top
    height = (below - corner.in_other).called(height_label(corner))
    sentence = "Notches this wide meet in the middle and leave no base: cut them smaller."
    positive(width, "notch_side", sentence)
    positive(height, "notch_bottom", "A notch this high leaves no side to stand: cut it smaller.")
    return Body(corner, width, height, corner.depth.called("finished depth"))


def width_label(corner: Corner) -> str:
    """What the finished width is called."""
    return "finished width" if corner.none else "finished width of the base"


def height_label(corner: Corner) -> str:
    """What the finished height is called."""
    return "finished height" if corner.none else "standing height"


def body_rims(brief: Brief) -> Rims:
    """What becomes of the four sides of a body panel."""
    seams = brief.seams
    side: Rim = ("seam", seams.side)
    return {
        "top": ("bound", NOTHING) if top_bound(brief) else ("turned", seams.top),
        "right": side,
        "left": side,
        "bottom": ("seam", seams.bottom),
    }


def body_panel(
    brief: Brief, size: tuple[Figure, Figure], corner: Corner, key: str, label: str, like: str = ""
) -> Panel:
    """One notched panel of a body."""
    width, height = size
    w, h = width.value, height.value
    edges = panel_edges(
        (w, h), body_rims(brief), Notches(bottom=corner.cut, seam=brief.seams.corner)
    )
    if corner.none:
        return Panel(key, label, "outer", width, height, edges, like=like)
    side, other = corner.side_leg.value, corner.other_leg.value
    notches = (
        corner.notch("bottom left", Fraction(0), h - other),
        corner.notch("bottom right", w - side, h - other),
    )
    return Panel(key, label, "outer", width, height, edges, notches=notches, like=like)


def body_joins(brief: Brief, body: Body, panel: Sizes) -> tuple[Join, ...]:
    """Front to back: sides, bottom and, where notches are cut, both box corners.

    Corners that are sewn first are trimmed afterwards, and what is trimmed off is not raw inside.
    """
    seams, f, b = brief.seams, "front", "back"
    side = seams.side
    plain = join_pairs(
        (JoinKey("seam", "left"), (f, "left"), (b, "right"), side),
        (JoinKey("seam", "right"), (f, "right"), (b, "left"), side),
        (JoinKey("seam", "bottom"), (f, "bottom"), (b, "bottom"), seams.bottom),
    )
    corner = body.corner
    if corner.none:
        return plain
    if corner.cut is None:
        side_raw = panel["panel_height"] - corner.in_other + TRIMMED
        left, right, bottom = plain
        bottom_raw = panel["panel_width"] - 2 * corner.in_side + 2 * TRIMMED
        return (
            replace(left, raw=(side_raw.called("left seam"),)),
            replace(right, raw=(side_raw.called("right seam"),)),
            replace(bottom, raw=(bottom_raw.called("bottom seam"),)),
        )
    boxed = []
    for way, other in zip(ENDS, reversed(ENDS), strict=True):
        level, up = (
            (EdgeRef(f, EdgeKey(way, "corner", lies)), EdgeRef(b, EdgeKey(other, "corner", lies)))
            for lies in LIES
        )
        boxed.append(Join(JoinKey("box corner", way), level, up, seams.corner, "corner"))
    return (*plain, *boxed)


def body_net(brief: Brief, body: Body, front: Panel, back: Panel) -> Net:
    """Both panels fold into a box and are sewn to each other."""
    rims = body_rims(brief)
    return Net(
        sheets=tuple(boxed_sheet(panel, body.corner, rims) for panel in (front, back)),
        seams=boxed_seams(boxed=not body.corner.none),
        still=("front", middle_of(front)),
    )


def raw_top(brief: Brief) -> Inches:
    """Where the bag ends, from the raw top edge of a body panel."""
    return Fraction(0) if top_bound(brief) else brief.seams.top.value


def middle_of(panel: Panel) -> ExactPoint:
    """The middle of a body panel, which lies on the bag's front."""
    return panel.width.value / 2, panel.height.value / 4


def inside_of(brief: Brief, body: Body) -> tuple[BagFigure, ...]:
    """Inside width, height and depth."""
    if body.corner.none:
        return flat_inside(brief, body.width, body.height)
    return (
        less_walls(brief, body.width, 2, "width"),
        less_walls(brief, body.height, 1, "height"),
        less_walls(brief, body.depth, 2, "depth"),
    )


def base_figures(
    body: Body, inside: tuple[BagFigure, ...], by: FigureId, label: str
) -> tuple[BagFigure, ...]:
    """What a bag with a base tells of it."""
    if body.corner.none:
        return ()
    return (body.corner.told(by, label), lying_flat(body.height, body.depth), box_volume(inside))


def build(brief: Brief, panel: Sizes) -> Bag:
    """The tote in pieces from its trimmed panel; raises CannotPlan when nothing is left."""
    body = body_of(brief, panel)
    size = (panel["panel_width"], panel["panel_height"])
    front = body_panel(brief, size, body.corner, "front", "Front")
    panels = [front, body_panel(brief, size, body.corner, "back", "Back", "front")]
    matches = follows("front", ("back", "the back is the front's size"))
    if brief.has_lining:
        panels.append(lining_of(front, brief, 2))
        matches += follows("front", ("lining", "the lining follows the front"))
    flat = (panel["panel_width"] - 2 * brief.seams.side).called("opening, flat")
    inside = inside_of(brief, body)
    return Bag(
        shape="tote",
        panels=tuple(panels),
        joins=body_joins(brief, body, panel),
        matches=matches,
        finished=body.finished,
        corners=body.corners,
        inside=inside,
        figures=(
            BagFigure("opening-flat", flat),
            *base_figures(body, inside, "depth-by-the-bottom-leg", "depth by the bottom leg"),
        ),
        net=body_net(brief, body, panels[0], panels[1]),
        opening=(2 * flat).called("round the opening"),
        loop=True,
    )


TOTE = Shape(
    key="tote",
    name="Cut-corner tote",
    short="Tote",
    sentence="Two panels and a bottom seam; a notch at each corner makes the base.",
    fields=(WIDTH, HEIGHT, DEPTH, PANEL_WIDTH, PANEL_HEIGHT, NOTCH_SIDE, NOTCH_BOTTOM),
    options=(BASE, TOP),
    flat=flat_for_object,
    for_object=boxed_for_object,
    to_panel=to_panel,
    build=build,
    leader="front",
    flat_sides=True,
    cloths=2,
    uses=frozenset({"lining", "corner", "bottom", "top"}),
)
