"""The drawstring bag: boxed mains, a contrast band above, a channel for two cords.

Two cords, each going once round and back out at its own side: ``2(W − 2a) + 2·tail`` each.  A
directional band is laid upside-down for sewing, so that it stands once flipped up.  First
channel line ¾ below the top, the second ¾ below that (for a ¼ cord).  Common practice.
"""

from __future__ import annotations

from tessil.core.bag.ids import JoinKey
from tessil.core.bag.model import Attachment, Bag, BagFigure, ExactPoint, Panel
from tessil.core.bag.net import Hang, Net, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.shapes.base import (
    BASE,
    DEPTH,
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
from tessil.core.shapes.common import follows, join_pairs, lining_of, positive, ruler
from tessil.core.shapes.flat_pouch import flat_for_object
from tessil.core.shapes.nets import MIRRORED, boxed_seams, boxed_sheet, ends_of, seam, side
from tessil.core.shapes.outlines import Notches, Rim, Rims, panel_edges
from tessil.core.shapes.tote import (
    NOTCH_BOTTOM,
    NOTCH_SIDE,
    Body,
    base_figures,
    body_joins,
    body_panel,
    boxed_for_object,
    corner_by,
    height_label,
    inside_of,
    legs_for,
    middle_of,
    width_label,
)

BAND = SizeField("band", "Band", "What shows of the contrast above", Fraction(4), "always")
TAIL = SizeField(
    "tail",
    "Cord tails",
    "Beyond the bag, for the knot: 4 to 6 in (10 to 15 cm)",
    Fraction(5),
    "always",
    asks="closes",
)
CHANNEL = SizeField(
    "channel",
    "Channel width",
    "Half the cord's round and ¼ in (6 mm)",
    Fraction(3, 4),
    "always",
    asks="closes",
)
BELOW = SizeField(
    "below", "Channel below top", "To its first line", Fraction(3, 4), "always", asks="closes"
)


CORDS = Option(
    "cords",
    "Cords",
    "Two close from both sides, one from one side",
    (("two", "two"), ("one", "one")),
    asks="closes",
)
OUT = Option(
    "cords_out",
    "They come out",
    "At openings left in the side seams, or through eyelets in the band",
    (("seams", "at the side seams"), ("eyelets", "through eyelets")),
    asks="closes",
)
EYELETS_APART = Fraction(1)  # from the middle of one to that of the other; common practice


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The main panel under the band, and both legs."""
    seams, legs = brief.seams, legs_for(brief, finished)
    corner = corner_by(brief, legs)
    main = finished["height"] - finished["band"] + seams.side + corner.in_other
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * corner.in_side, "trimmed width"),
        "panel_height": ruler(brief, main, "main, trimmed height"),
        **legs,
    }


def _body(brief: Brief, panel: Sizes) -> Body:
    seams = brief.seams
    corner = corner_by(brief, panel)
    width = (panel["panel_width"] - 2 * corner.in_side).called(width_label(corner))
    main = panel["panel_height"] - seams.side - corner.in_other
    positive(width, "notch_side", "Notches this wide meet in the middle: cut them smaller.")
    positive(main, "band", "The band and the base take all of the height: make the band less.")
    height = (main + panel["band"]).called(height_label(corner))
    return Body(corner, width, height, corner.depth.called("finished depth"))


def _band(brief: Brief, panel: Sizes) -> Panel:
    seams = brief.seams
    height = (panel["band"] + seams.side + seams.top).settled("band, trimmed height")
    w = panel["panel_width"].value
    end: Rim = ("seam", seams.side)
    rims: Rims = {"top": ("turned", seams.top), "right": end, "bottom": end, "left": end}
    return Panel(
        "band",
        "Band",
        "lining",
        panel["panel_width"],
        height,
        panel_edges((w, height.value), rims),
        copies=2,
    )


def _lining(brief: Brief, panel: Sizes, body: Body) -> Panel:
    """As high as main and band together."""
    seams = brief.seams
    height = (body.height + body.corner.in_other + seams.top).settled("lining height")
    whole = body_panel(brief, (panel["panel_width"], height), body.corner, "lining", "Lining")
    return lining_of(whole, brief, 2)


Cords = tuple[Inches, tuple[tuple[str, int, ExactPoint], ...]]


def _cords(brief: Brief, panel: Sizes, band: Panel) -> Cords:
    """How far their tails hang, and where each comes out: at a side seam, or beside it through
    eyelets; one cord with eyelets comes out in the middle of the front."""
    y = brief.seams.top.value + panel["below"].value + panel["channel"].value / 2
    a, w = brief.seams.side.value, band.width.value
    eyelets = brief.options["cords_out"] == "eyelets"
    into = EYELETS_APART if eyelets else Fraction(0)
    places = [a + into, w - a - into]
    if brief.options["cords"] == "one":
        places = [w / 2] if eyelets else places[:1]
    return panel["tail"].value, tuple(("band", 0, (x, y)) for x in places)


def _net(panels: list[Panel], body: Body, rims: Rims, cord: Cords) -> Net:
    """The mains fold into a box, a band goes on above each of them."""
    front, back, band = panels[:3]
    above = Sheet("band", band.edges, ends_of(band, body.corner), copies=2)
    return Net(
        sheets=(*(boxed_sheet(panel, body.corner, rims) for panel in (front, back)), above),
        seams=(
            *boxed_seams(boxed=not body.corner.none),
            seam(JoinKey("band"), side("front", "top"), side("band", "bottom"), hinge=True),
            seam(
                JoinKey("band", at="behind"),
                side("back", "top"),
                side("band", "bottom", 1),
                hinge=True,
            ),
            *(
                seam(JoinKey("seam", way), side("band", way), side("band", other, 1))
                for way, other in MIRRORED
            ),
        ),
        still=("front", middle_of(front)),
        hangs=tuple(Hang("cord", (end, end), 2 * cord[0], _THICK.value) for end in cord[1]),
    )


def build(brief: Brief, panel: Sizes) -> Bag:
    """Mains, band, lining and cords; raises CannotPlan when nothing is left."""
    body, seams = _body(brief, panel), brief.seams
    size = (panel["panel_width"], panel["panel_height"])
    w, h = size[0].value, size[1].value
    front = body_panel(brief, size, body.corner, "front", "Front main")
    joined: Rim = ("seam", seams.side)
    rims: Rims = {"top": joined, "right": joined, "left": joined, "bottom": ("seam", seams.bottom)}
    edges = panel_edges((w, h), rims, Notches(bottom=body.corner.cut, seam=seams.corner))
    front, back = (
        Panel(key, label, "outer", *size, edges, notches=front.notches, like=like)
        for key, label, like in (("front", "Front main", ""), ("back", "Back main", "front"))
    )
    panels = [front, back, _band(brief, panel)]
    matches = follows("front", ("back", "the back is the front's size"), ("band", "one width"))
    if brief.has_lining:
        panels.append(_lining(brief, panel, body))
        matches += follows("front", ("lining", "the lining follows the front"))
    flat = (panel["panel_width"] - 2 * seams.side).called("opening, flat")
    cord = (2 * flat + 2 * panel["tail"]).called("each cord")
    cords = 1 if brief.options["cords"] == "one" else 2
    inside = inside_of(brief, body)
    joined_by = seams.side
    return Bag(
        shape="drawstring",
        panels=tuple(panels),
        joins=(
            *body_joins(brief, body, panel),
            *join_pairs(
                (JoinKey("band"), ("front", "top"), ("band", "bottom"), joined_by),
                (JoinKey("band", at="behind"), ("back", "top"), ("band", "bottom"), joined_by),
            ),
        ),
        matches=matches,
        finished=body.finished,
        corners=body.corners,
        inside=inside,
        figures=(
            BagFigure("opening-flat", flat),
            BagFigure("each-cord", cord),
            *base_figures(body, inside, "depth-by-the-bottom-leg", "depth by the bottom leg"),
        ),
        net=_net(panels, body, rims, _cords(brief, panel, panels[2])),
        attachments=(Attachment("cord", "Cord", cord, _THICK, cords, cloth=False),),
        eyelets=2 * cords if brief.options["cords_out"] == "eyelets" else 0,
    )


_THICK: Figure = given("cord", Fraction(1, 4), Basis.PRACTICE)

DRAWSTRING = Shape(
    key="drawstring",
    name="Drawstring bag",
    short="Drawstring bag",
    sentence="Boxed mains with a band above and a channel for two cords.",
    fields=(
        starting(WIDTH, Fraction(8)),
        starting(HEIGHT, Fraction(12)),
        DEPTH,
        starting(PANEL_WIDTH, Fraction(12)),
        starting(PANEL_HEIGHT, Fraction(11)),
        NOTCH_SIDE,
        NOTCH_BOTTOM,
        BAND,
        BELOW,
        CHANNEL,
        TAIL,
    ),
    options=(BASE, CORDS, OUT),
    flat=flat_for_object,
    for_object=boxed_for_object,
    to_panel=to_panel,
    build=build,
    carries=("strap", "handles", "wrist"),
    starts={"strap_below": Fraction(2), "wrist_below": Fraction(2)},  # under the channel
    leader="front",
    cloths=2,
    proportions={"band": lambda sizes: sizes["height"] / 4},
    uses=frozenset({"lining", "corner", "bottom", "top"}),
)
