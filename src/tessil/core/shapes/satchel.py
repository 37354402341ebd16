"""The flap satchel: the cut-corner body with a lined flap and an adjustable strap.

The flap ends ½ to 1 narrower than the opening, is sewn on three sides, turned, and joined to
the back at the top edge.  It lands as far down as it is long, less what it passes over, which is
the maker's to say.  Common practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, EdgeKey, JoinKey
from tessil.core.bag.model import (
    Bag,
    BagFigure,
    BoundEdge,
    Edge,
    EdgeRef,
    FlapNeed,
    Panel,
    edge_long,
)
from tessil.core.bag.net import OVER, SQUARE, Net, Seam, Sheet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import SIDES, Side
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.shapes.base import (
    BASE,
    DEPTH,
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
)
from tessil.core.shapes.base import SIDES as SIDES_CHOICE
from tessil.core.shapes.clutch import FLAP_ROUND, FLAP_SHAPE, check_corners, check_flap, flap_style
from tessil.core.shapes.common import follows, join_pairs, lining_of
from tessil.core.shapes.edged import CORNER
from tessil.core.shapes.flat_pouch import flat_for_object
from tessil.core.shapes.nets import ZERO, level, side
from tessil.core.shapes.outlines import Rim, Rims, shaped_top
from tessil.core.shapes.tote import (
    NOTCH_BOTTOM,
    NOTCH_SIDE,
    TOP,
    Body,
    base_figures,
    body_joins,
    body_net,
    body_of,
    body_panel,
    boxed_for_object,
    inside_of,
    to_panel,
    top_bound,
)
from tessil.core.trouble import CannotPlan

FLAP = SizeField(
    "flap",
    "Flap length",
    "From the back's top edge to its free edge",
    Fraction(9),
    "always",
    asks="closes",
)
FLAP_LESS = SizeField(
    "flap_less",
    "Flap narrower by",
    "Than the opening laid flat: ½ to 1 in (13 to 25 mm)",
    Fraction(3, 4),
    "always",
    asks="closes",
)
PASSES = Option(
    "flap_passes",
    "The flap passes over",
    "Before it comes down the front; a soft bag closes up above, a stiff or full one does not",
    (
        ("half", "half the depth"),
        ("whole", "the whole depth"),
        ("held", "what is carried"),
        ("none", "nothing"),
        ("own", "so much"),
    ),
    asks="closes",
)
EDGES = replace(
    SIDES_CHOICE,
    key="flap_edges",
    label="Flap edges",
    choices=(("seam", "turned"), (SIDES_BOUND, "bound")),
    why="Sewn to its lining and turned, or laid on it wrong sides together and bound",
    asks="closes",
)
FLAP_OVER = SizeField(
    "flap_over",
    "Passes over",
    "From the back's top edge to the front's, as the bag closes",
    Fraction(1),
    "always",
    only=("flap_passes", "own"),
    asks="closes",
)


ENDS_OFF = given("to trim off at both ends", 1, Basis.PRACTICE)


def _over(brief: Brief, panel: Sizes, depth: Figure) -> Figure:
    """What the flap passes over, from the back's top edge to the front's."""
    way = brief.options["flap_passes"]
    over = {
        "half": depth / 2,
        "whole": depth,
        "held": brief.held.thickness,
        "none": NOTHING,
        "own": panel["flap_over"],
    }[way]
    return over.called("the flap passes over")


def _flap_bound(brief: Brief) -> bool:
    return brief.options.get(EDGES.key) == SIDES_BOUND


def _flap_lost(brief: Brief) -> Figure:
    """What the flap's free edges take of it: their seam, or nothing under a binding."""
    return NOTHING if _flap_bound(brief) else brief.seams.side


def _flap_strip(brief: Brief, flap: Panel) -> BoundEdge:
    """Down one side, along the lower edge and up the other, the flap on its lining.  Its ends go
    into the back's top edge: nothing is turned under there."""
    free = [edge for edge in flap.edges if edge.key.side != "top"]
    along = total(edge_long(edge) for edge in free)
    # A corner that is not round is mitred; an envelope has one at either end of its clip.
    corners = {"round": 0, "square": 2, "envelope": 4}[flap_style(brief)]
    long = along + corners * CORNER + ENDS_OFF if corners else along + ENDS_OFF
    refs = tuple(EdgeRef(flap.key, edge.key) for edge in free)
    words = "flap's sides and lower edge"
    return BoundEdge("flap", words, long.called(f"{words}, binding"), count("strip", 1), 1, refs)


def _flap_panel(brief: Brief, panel: Sizes, opening: Figure) -> Panel:
    """The flap as it is worn: joined at the top, its free corners at the bottom."""
    allowed = _flap_lost(brief)
    finished = (opening - panel["flap_less"]).called("finished width of the flap")
    if finished.value <= 0:
        raise CannotPlan("shape.sizes.flap_less", "So narrow a flap is none: take off less.")
    width = (finished + 2 * allowed).settled("flap, trimmed width")
    hung: Rim = ("bound", NOTHING) if top_bound(brief) else ("seam", brief.seams.top)
    whole = panel["flap"] + allowed
    if not top_bound(brief):
        whole = whole + brief.seams.top
    height = whole.settled("flap, trimmed height")
    w, h = width.value, height.value
    # As it is shaped, lying the other way up: its free edge above.
    free: Rim = ("bound", NOTHING) if _flap_bound(brief) else ("seam", allowed)
    rims: Rims = dict.fromkeys(SIDES, free) | {"bottom": hung}
    style, by = flap_style(brief), panel["flap_round"].value
    check_corners(style, panel["flap_round"], width, height)
    edges = _upside_down(shaped_top((w, h), rims, style, by), h)
    return Panel("flap", "Flap", "outer", width, height, edges)


def _upside_down(edges: tuple[Edge, ...], height: Inches) -> tuple[Edge, ...]:
    """Mirrored about the level middle, still clockwise."""
    sides: dict[Side, Side] = {"top": "bottom", "bottom": "top"}
    turned = [
        Edge(
            replace(e.key, side=sides.get(e.key.side, e.key.side)),
            (e.end[0], height - e.end[1]),
            (e.start[0], height - e.start[1]),
            e.finish,
            e.allowance,
        )
        for e in reversed(edges)
    ]
    first = next(at for at, edge in enumerate(turned) if edge.key == EdgeKey("top"))
    return tuple(turned[first:] + turned[:first])


def _net(net: Net, body: Body, panels: list[Panel], passes: Figure) -> Net:
    """The flap hangs on the back's top edge, passes over the opening and comes down the front.

    It lies flat: where it is wider than the front, what it is sewn to goes round the ends.
    """
    back, flap = panels[1], next(panel for panel in panels if panel.key == "flap")
    top = flap.side("top")
    ends = [edge for edge in flap.edges if edge.key.side in ENDS and edge.key.plain]
    wide = flap.width.value - sum(edge.allowance.value for edge in ends)
    middle = back.width.value / 2
    over = passes.value
    at = passes if top.finish == "bound" else top.allowance + passes
    turns = (level(at, ZERO, flap.width.value, opens=True),) if over else ()
    first = SQUARE if over else OVER
    held = side("back", "top", part=(middle - wide / 2, middle + wide / 2))
    beyond = max(wide - body.width.value, ZERO) * 3 / 4
    return replace(
        net,
        mouth=over if over < body.depth.value else None,
        sheets=(*net.sheets, Sheet("flap", flap.edges, turns)),
        seams=(
            *net.seams,
            Seam(JoinKey("flap"), (held,), (side("flap", "top"),), first, True, beyond, True),
        ),
    )


def build(brief: Brief, panel: Sizes) -> Bag:
    """Body, flap and linings; raises CannotPlan when nothing is left or the flap is too long."""
    body = body_of(brief, panel)
    allowed = _flap_lost(brief)
    flat = (panel["panel_width"] - 2 * brief.seams.side).called("opening, flat")
    over = _over(brief, panel, body.depth)
    lands = (panel["flap"] - over).called("flap comes down the front")
    if lands.value <= 0:
        raise CannotPlan("shape.sizes.flap", "The flap ends on top of the bag: make it longer.")
    check_flap(lands, body.height)
    size = (panel["panel_width"], panel["panel_height"])
    front = body_panel(brief, size, body.corner, "front", "Front")
    flap = _flap_panel(brief, panel, flat)
    flap_lining = Panel("flap-lining", "Flap lining", "lining", flap.width, flap.height, flap.edges)
    panels = [
        front,
        body_panel(brief, size, body.corner, "back", "Back", "front"),
        flap,
        flap_lining,
    ]
    matches = follows(
        "front", ("back", "the back is the front's size"), ("flap", "the flap follows the opening")
    )
    if brief.has_lining:
        panels.insert(2, lining_of(front, brief, 2))
        matches += follows("front", ("lining", "the lining follows the front"))
    inside = inside_of(brief, body)
    return Bag(
        shape="satchel",
        panels=tuple(panels),
        joins=(
            *body_joins(brief, body, panel),
            replace(
                *join_pairs(
                    (JoinKey("flap"), ("flap", "bottom"), ("flap-lining", "bottom"), allowed)
                ),
                raw=(),
            ),
        ),  # turned: nothing of it is raw
        matches=(*matches, *follows("flap", ("flap-lining", "the flap's lining is its size"))),
        finished=body.finished,
        inside=inside,
        figures=(
            BagFigure("opening-flat", flat),
            BagFigure(
                "finished-width-of-the-flap",
                (flap.width - 2 * allowed).called("finished width of the flap"),
            ),
            BagFigure("flap-comes-down-the-front", lands),
            *base_figures(body, inside, "depth-by-the-bottom-leg", "depth by the bottom leg"),
        ),
        net=_net(body_net(brief, body, panels[0], panels[1]), body, panels, over),
        bound=(_flap_strip(brief, flap),) if _flap_bound(brief) else (),
        flap=FlapNeed(
            lands=lands,
            panel="flap",
            male_panel="flap-lining",
            male_from=(flap.height - allowed).called("flap's free edge"),
            female_panel="front",
            female_from=NOTHING if top_bound(brief) else brief.seams.top,
            male_sign=-1,
            female_sign=1,
            narrower=panel["flap_less"],
        ),
        corners=body.corners,
        opening=(2 * flat).called("round the opening"),
        loop=True,
    )


SATCHEL = Shape(
    key="satchel",
    name="Flap satchel",
    short="Satchel",
    sentence="The cut-corner body with a lined flap and an adjustable strap.",
    fields=(
        WIDTH,
        HEIGHT,
        DEPTH,
        PANEL_WIDTH,
        PANEL_HEIGHT,
        NOTCH_SIDE,
        NOTCH_BOTTOM,
        FLAP,
        FLAP_LESS,
        FLAP_ROUND,
        FLAP_OVER,
    ),
    options=(BASE, TOP, FLAP_SHAPE, EDGES, PASSES),
    flat=flat_for_object,
    for_object=boxed_for_object,
    to_panel=to_panel,
    build=build,
    leader="front",
    cloths=2,
    proportions={"flap": lambda sizes: sizes.get("depth", NOTHING) / 2 + sizes["height"] * 3 / 5},
    uses=frozenset({"lining", "corner", "bottom", "top", "binding"}),
    carries=("strap", "wrist", "end"),
    begins={"strap": "one"},
    starts={"strap_length": Fraction(60), "strap_width": Fraction(3, 2)},
)
