"""The flat zip pouch: two outer panels, two linings, a zipper between.

Finished width ``W − 2a``, height ``(L − z − a_bottom) + v/2``.  Common practice, no source.
"""

from __future__ import annotations

from tessil.core.bag.ids import JoinKey
from tessil.core.bag.model import Bag, BagFigure, Panel, ZipperNeed
from tessil.core.bag.net import OVER, Net, Sheet, Tape
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    HEIGHT,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    ZIPPED,
    Brief,
    Shape,
    Sizes,
    starting,
)
from tessil.core.shapes.common import (
    follows,
    join_pairs,
    less_walls,
    lining_of,
    positive,
    ruler,
    zip_join,
    zipper_length,
)
from tessil.core.shapes.nets import seam, side
from tessil.core.shapes.outlines import Rim, Rims, panel_edges


def flat_for_object(brief: Brief) -> Sizes:
    """A flat bag wraps the thickness of what it holds, both ways."""
    held, wall = brief.held, brief.wall
    width = held.width + held.thickness + 2 * held.ease + 2 * wall
    height = held.height + held.thickness + held.ease + wall
    return {"width": width.called("width to hold it"), "height": height.called("height to hold it")}


def flat_inside(brief: Brief, width: Figure, height: Figure) -> tuple[BagFigure, ...]:
    """Inside of a flat bag: a wall on either side, one at the bottom."""
    return (less_walls(brief, width, 2, "width"), less_walls(brief, height, 1, "height"))


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Trimmed outer panel for a finished pouch."""
    seams = brief.seams
    height = finished["height"] - seams.shown / 2 + seams.zip + seams.bottom
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * seams.side, "trimmed width"),
        "panel_height": ruler(brief, height, "trimmed height"),
    }


def zip_rims(brief: Brief) -> Rims:
    """A zipper along the top, seams on the other three sides."""
    seams = brief.seams
    end: Rim = ("seam", seams.side)
    return {"top": ("zip", seams.zip), "right": end, "left": end, "bottom": ("seam", seams.bottom)}


def _net(brief: Brief, front: Panel, back: Panel) -> Net:
    """Front and back fold together at the bottom, the zipper in its middle at the top."""
    sheets = tuple(Sheet(panel.key, panel.edges) for panel in (front, back))
    wide = front.width.value - front.side("left").allowance.value * 2
    return Net(
        sheets=sheets,
        tapes=(Tape("zipper", wide, brief.seams.shown.value, turn=OVER),),
        seams=(
            seam(
                JoinKey("seam", "bottom"),
                side("front", "bottom"),
                side("back", "bottom"),
                OVER,
                hinge=True,
            ),
            seam(JoinKey("zipper"), side("front", "top"), side("zipper", "bottom"), hinge=True),
            seam(JoinKey("zipper", at="behind"), side("back", "top"), side("zipper", "top")),
            seam(JoinKey("seam", "left"), side("front", "left"), side("back", "right")),
            seam(JoinKey("seam", "right"), side("front", "right"), side("back", "left")),
        ),
        still=("front", (front.width.value / 2, front.height.value / 2)),
    )


def build(brief: Brief, panel: Sizes) -> Bag:
    """Front, back and lining; raises CannotPlan if the seams take all."""
    seams = brief.seams
    width = (panel["panel_width"] - 2 * seams.side).called("finished width")
    cloth = panel["panel_height"] - seams.zip - seams.bottom
    height = (cloth + seams.shown / 2).called("finished height")
    positive(width, "panel_width", "The two side seams take all of it: make it wider.")
    positive(cloth, "panel_height", "Zipper and bottom seam take all of it: make it higher.")
    size = (panel["panel_width"], panel["panel_height"])
    edges = panel_edges((size[0].value, size[1].value), zip_rims(brief))
    front = Panel("front", "Front", "outer", *size, edges)
    panels = [front, Panel("back", "Back", "outer", *size, edges, like="front")]
    matches = follows("front", ("back", "the back is the front's size"))
    if brief.has_lining:
        panels.append(lining_of(front, brief, 2))
        matches += follows("front", ("lining", "the lining follows the front"))
    return Bag(
        shape="flat-pouch",
        panels=tuple(panels),
        joins=(
            *join_pairs(
                (JoinKey("seam", "left"), ("front", "left"), ("back", "right"), seams.side),
                (JoinKey("seam", "right"), ("front", "right"), ("back", "left"), seams.side),
                (JoinKey("seam", "bottom"), ("front", "bottom"), ("back", "bottom"), seams.bottom),
            ),
            zip_join(("front", "top"), ("back", "top"), seams.zip),
        ),
        matches=matches,
        finished=(width, height),
        inside=flat_inside(brief, width, height),
        net=_net(brief, front, panels[1]),
        zipper=ZipperNeed(size[0], zipper_length(size[0]), width),
    )


FLAT_POUCH = Shape(
    key="flat-pouch",
    carries=ZIPPED,
    name="Flat zip pouch",
    short="Pouch",
    sentence="Two panels, two linings, a zipper between them.",
    fields=(
        starting(WIDTH, Fraction(9)),
        starting(HEIGHT, Fraction(6)),
        starting(PANEL_WIDTH, Fraction(10)),
        starting(PANEL_HEIGHT, Fraction(13, 2)),
    ),
    options=(),
    for_object=flat_for_object,
    to_panel=to_panel,
    build=build,
    leader="front",
    flat_sides=True,
    cloths=2,
    uses=frozenset({"lining", "bottom", "zip"}),
)
