"""The bound pouch and window bag: a front of two parts and a zipper, a whole back, bound.

Linings are inside already; front and back are stacked wrong sides together and bound all
round, so that finished = panel and no seam is lost; the binding takes from the inside.  Front
height ``= lower − z + v + upper − z``.  Common practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import JoinKey
from tessil.core.bag.model import Assembled, Bag, Panel, ZipperNeed
from tessil.core.bag.net import OVER, Net, Sheet, Tape
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import SIDES, Side
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.shapes.base import (
    HEIGHT,
    NOTHING,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.common import (
    follows,
    join_pairs,
    less_walls,
    positive,
    ruler,
    zip_join,
    zipper_length,
)
from tessil.core.shapes.nets import MIRRORED, ZERO, clockwise, seam, side
from tessil.core.shapes.outlines import Rims, panel_edges

UPPER = SizeField(
    "upper", "Upper strip", "What shows above the zipper, or the window", Fraction(3, 2), "always"
)
LOWER = SizeField("panel_height", "Lower front", "Cut edge to cut edge", Fraction(6), "panel")
WINDOW = Option(
    "window",
    "Above the zipper",
    "A strip of cloth, or a window to see what is in it",
    (("strip", "a strip"), ("vinyl", "clear vinyl"), ("mesh", "mesh")),
    asks="closes",
)


MADE_OF = {"vinyl": "clear-vinyl", "mesh": "bag-mesh"}
SPARE = Fraction(1, 2)  # at each free side; common practice, no source


def for_object(brief: Brief) -> Sizes:
    """A flat bag wraps the thickness, and its binding's seam takes from every side."""
    held, wall, seam = brief.held, brief.wall, brief.seams.binding
    width = held.width + held.thickness + 2 * held.ease + 2 * wall + 2 * seam
    height = held.height + held.thickness + held.ease + wall + 2 * seam
    return {"width": width.called("width to hold it"), "height": height.called("height to hold it")}


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """Width of all parts, and the lower front for a finished height."""
    seams = brief.seams
    lower = finished["height"] - seams.shown - finished["upper"] + seams.zip
    return {
        "panel_width": ruler(brief, finished["width"], "trimmed width"),
        "panel_height": ruler(brief, lower, "lower front, trimmed height"),
    }


def from_piece(brief: Brief, sizes: Sizes) -> Sizes:
    """The back is the largest panel: the lower front is what it leaves below the zipper."""
    seams = brief.seams
    lower = sizes["panel_height"] - seams.shown - sizes["upper"] + seams.zip
    return {"panel_height": lower.settled("lower front, trimmed height")}


def as_assembled(brief: Brief, sizes: Sizes, front: Sizes) -> Sizes:
    """Sizes of the parts of a front that was measured as it was trimmed in one: all as wide as
    that; what it is higher or lower shows above the zipper."""
    changed: dict[str, Figure] = {}
    if "width" in front:
        changed["panel_width"] = front["width"]
    if "height" in front:
        seams = brief.seams
        upper = front["height"] - seams.shown - (sizes["panel_height"] - seams.zip)
        changed["upper"] = positive(
            upper.called("shows above the zipper"),
            "upper",
            "So high assembled, nothing would be left above the zipper: measure it again.",
        )
    return changed


def _rims(brief: Brief, zipped: Side | None = None) -> Rims:
    rims: Rims = dict.fromkeys(SIDES, ("bound", NOTHING))
    if zipped:
        rims[zipped] = ("zip", brief.seams.zip)
    return rims


def _panels(
    brief: Brief, width: Figure, lower: Figure, upper: Figure, back: Figure
) -> tuple[Panel, ...]:
    window = MADE_OF.get(brief.options["window"], "")
    w = width.value
    return (
        Panel(
            "lower",
            "Lower front",
            "outer",
            width,
            lower,
            panel_edges((w, lower.value), _rims(brief, "top")),
        ),
        Panel(
            "upper",
            "Window" if window else "Upper strip",
            "plain",
            width,
            upper,
            panel_edges((w, upper.value), _rims(brief, "bottom")),
            made_of=window,
            spare=given("to trim together", SPARE, Basis.PRACTICE),
        ),
        Panel(
            "back",
            "Back",
            "outer",
            width,
            back,
            panel_edges((w, back.value), _rims(brief)),
            like="lower",
        ),
    )


def _net(brief: Brief, panels: tuple[Panel, ...], upper: Inches) -> Net:
    """The front in two parts with the zipper between, the back folded behind it."""
    back = panels[2]
    w, h, v = back.width.value, back.height.value, brief.seams.shown.value
    seams = [
        seam(JoinKey("zipper"), side("lower", "top"), side("zipper", "bottom"), hinge=True),
        seam(
            JoinKey("zipper", at="behind"),
            side("zipper", "top"),
            side("upper", "bottom"),
            hinge=True,
        ),
        seam(
            JoinKey("edge", "bottom"),
            side("lower", "bottom"),
            side("back", "bottom"),
            OVER,
            hinge=True,
        ),
        seam(JoinKey("edge", "top"), side("upper", "top"), side("back", "top")),
    ]
    for way, behind in MIRRORED:
        parts = ((ZERO, upper), (upper, upper + v), (upper + v, h))
        for sheet, part in zip(
            ("upper", "zipper", "lower"), clockwise(behind, *parts), strict=True
        ):
            seams.append(
                seam(JoinKey("edge", way), side(sheet, way), side("back", behind, part=part))
            )
    return Net(
        sheets=tuple(Sheet(panel.key, panel.edges) for panel in panels),
        tapes=(Tape("zipper", w, v),),
        seams=tuple(seams),
        still=("lower", (w / 2, panels[0].height.value / 2)),
    )


def build(brief: Brief, panel: Sizes) -> Bag:
    """Front in two parts and a back; raises CannotPlan if zipper seams take all."""
    seams = brief.seams
    width, lower = panel["panel_width"], panel["panel_height"]
    upper = (panel["upper"] + seams.zip).settled("upper strip, trimmed height")
    shows = positive(
        lower - seams.zip,
        "panel_height",
        "The zipper seam takes all of the lower front: make it higher.",
    )
    height = (shows + seams.shown + upper - seams.zip).called("finished height")
    finished = width.called("finished width")
    inside = (
        less_walls(brief, width - 2 * seams.binding, 2, "width"),
        less_walls(brief, height - 2 * seams.binding, 1, "height"),
    )
    back = height.settled("back, trimmed height")
    panels = _panels(brief, width, lower, upper, back)
    return Bag(
        shape="bound-pouch",
        panels=panels,
        joins=(
            zip_join(("lower", "top"), ("upper", "bottom"), seams.zip),
            replace(
                *join_pairs(
                    (JoinKey("edge", "bottom"), ("lower", "bottom"), ("back", "bottom"), NOTHING)
                ),
                raw=(),  # bound outside, with all the rest of the rim
            ),
        ),
        matches=follows(
            "lower", ("upper", "one width"), ("back", "the back is trimmed to the assembled front")
        ),
        finished=(finished, height),
        inside=inside,
        net=_net(brief, panels, panel["upper"].value),
        assembled=Assembled("lower", finished, height),
        zipper=ZipperNeed(width, zipper_length(width), finished),
        opening=(2 * (width + height)).called("round the pouch"),
    )


BOUND_POUCH = Shape(
    key="bound-pouch",
    name="Bound pouch",
    short="Pouch",
    sentence="A zipped front, a strip or window above, a whole back, bound all round.",
    fields=(
        starting(WIDTH, Fraction(10)),
        starting(HEIGHT, Fraction(8)),
        starting(PANEL_WIDTH, Fraction(10)),
        LOWER,
        UPPER,
    ),
    options=(WINDOW,),
    carries=("strap", "wrist", "end", "tabs"),
    for_object=for_object,
    to_panel=to_panel,
    build=build,
    leader="lower",
    cloths=2,
    from_piece=from_piece,
    assembled=as_assembled,
    proportions={"upper": lambda sizes: sizes["height"] / 5},
    uses=frozenset({"zip", "binding"}),
)
