"""What several shapes share: linings, side by side joins, boxes."""

from __future__ import annotations

from typing import Literal

from tessil.core.bag.ids import CutOut, EdgeKey, FigureId, JoinKey
from tessil.core.bag.model import BagFigure, Edge, EdgeRef, Fold, Join, Match, Notch, Panel
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.sizes import Side
from tessil.core.numbers.workings import Basis, Figure, given, no_less, up_to
from tessil.core.shapes.base import NOTHING, Brief
from tessil.core.trouble import CannotPlan


def positive(figure: Figure, field: str, sentence: str) -> Figure:
    """The figure, or CannotPlan beside a field if nothing is left of it."""
    if figure.value <= 0:
        raise CannotPlan(f"shape.sizes.{field}", sentence)
    return figure


Inside = Literal["width", "height", "depth", "length"]
_INSIDE: dict[Inside, FigureId] = {
    "width": "inside-width",
    "height": "inside-height",
    "depth": "inside-depth",
    "length": "inside-length",
}


def less_walls(brief: Brief, figure: Figure, walls: int, way: Inside) -> BagFigure:
    """A finished size less the thickness of the walls it lies between."""
    walls_figure = brief.wall if walls == 1 else walls * brief.wall
    return BagFigure(_INSIDE[way], no_less(figure - walls_figure, NOTHING).called(f"inside {way}"))


Whole = tuple[str, Side | EdgeKey]  # a panel, and a side of it or a part of one


def _ref(whole: Whole) -> EdgeRef:
    panel, edge = whole
    return EdgeRef(panel, edge if isinstance(edge, EdgeKey) else EdgeKey(edge))


def join_pairs(*rows: tuple[JoinKey, Whole, Whole, Figure]) -> tuple[Join, ...]:
    """Seams of one edge to one edge, with their allowance."""
    return tuple(
        Join(key, (_ref(one),), (_ref(other),), allowance) for key, one, other, allowance in rows
    )


def body_halves(side: Side) -> tuple[Whole, Whole]:
    """A side of a body folded at its bottom: its two halves, which are sewn to each other."""
    upper, lower = EdgeKey(side, half="upper"), EdgeKey(side, half="lower")
    return ("body", upper), ("body", lower)


def fold_corner(key: JoinKey, side: Side, allowance: Figure, cut: CutOut = "fold") -> Join:
    """A notch at a fold of a body, closed: its two level edges meet the upright one."""
    upper, lower = EdgeKey(side, cut, "level", "upper"), EdgeKey(side, cut, "level", "lower")
    level = (EdgeRef("body", upper), EdgeRef("body", lower))
    return Join(key, level, (EdgeRef("body", EdgeKey(side, cut, "upright")),), allowance, "corner")


def zip_join(one: Whole, other: Whole, allowance: Figure) -> Join:
    """Two edges with a zipper between them."""
    return Join(JoinKey("zipper"), (_ref(one),), (_ref(other),), allowance, "zip")


def lining_of(panel: Panel, brief: Brief, copies: int) -> Panel:
    """A lining cut as its panel, shorter or longer by what was chosen."""
    height = panel.height
    change = -brief.lining_shorter.value
    if brief.lining_shorter.value:
        least = max((notch.height for notch in panel.notches), default=Fraction(0))
        if height.value - brief.lining_shorter.value <= least:
            raise CannotPlan(
                "lining_shorter", "So much shorter there is no lining left: take less."
            )
        height = (height - brief.lining_shorter).settled("lining height")
    edges = panel.edges if not change else tuple(_moved(e, panel, change) for e in panel.edges)
    notches = panel.notches if not change else tuple(_slid(n, panel, change) for n in panel.notches)
    folds = panel.folds if not change else tuple(_fold(f, panel, change) for f in panel.folds)
    return Panel(
        "lining", "Lining", "lining", panel.width, height, edges, folds, notches, "", copies
    )


def _slide(y: Inches, panel: Panel, change: Inches) -> Inches:
    """Below the middle everything moves by the change, corners at a fold by half of it.  A curve
    that reaches over the middle would be drawn out of its round: there what lies below it moves."""
    middle = panel.height.value / 2
    for notch in panel.notches:
        low, high = notch.y, notch.y + notch.height
        if notch.meets == "fold" and low <= y <= high and low < middle < high:
            return y + change / 2
    return y + change if y > _below_curves(panel) else y


def _below_curves(panel: Panel) -> Inches:
    """The middle of a panel, or the lower end of a curve at its top that reaches further."""
    middle = panel.height.value / 2
    slanted = [
        max(edge.start[1], edge.end[1])
        for edge in panel.edges
        if edge.start[0] != edge.end[0] and edge.start[1] != edge.end[1]
    ]
    upper = [y for y in slanted if y < panel.height.value]
    return max([middle, *upper])


def _moved(edge: Edge, panel: Panel, change: Inches) -> Edge:
    (x1, y1), (x2, y2) = edge.start, edge.end
    start, end = (x1, _slide(y1, panel, change)), (x2, _slide(y2, panel, change))
    return Edge(edge.key, start, end, edge.finish, edge.allowance)


def _fold(fold: Fold, panel: Panel, change: Inches) -> Fold:
    (x1, y1), (x2, y2) = fold.start, fold.end
    return Fold(fold.name, (x1, _slide(y1, panel, change)), (x2, _slide(y2, panel, change)))


def _slid(notch: Notch, panel: Panel, change: Inches) -> Notch:
    return Notch(
        notch.name,
        notch.side_leg,
        notch.other_leg,
        notch.side_takes,
        notch.other_takes,
        notch.meets,
        notch.x,
        _slide(notch.y, panel, change),
        notch.width,
        notch.height,
        notch.cut,
    )


def follows(leader: str, *followers: tuple[str, str]) -> tuple[Match, ...]:
    """Panels that must match the leader, with the reason."""
    return tuple(Match(leader, follower, rule) for follower, rule in followers)


_ZIP_MORE = given("zipper tails", 2, Basis.PRACTICE)


def zipper_length(spans: Figure) -> Figure:
    """At least the width it is sewn to, and 2 in more, so that its stops stay out."""
    return (spans + _ZIP_MORE).called("zipper, at least")


def ruler(brief: Brief, figure: Figure, label: str) -> Figure:
    """A trimmed size: up to the ruler's mark, and settled."""
    return up_to(figure, brief.rulers.ruler).settled(label)


def lying_flat(height: Figure, depth: Figure) -> BagFigure:
    """How high a boxed bag lies when it is empty, its base folded up in its middle."""
    return BagFigure("height-lying-flat", (height + depth / 2).called("height lying flat"))


def box_volume(inside: tuple[BagFigure, ...]) -> BagFigure:
    """Inside width × height × depth."""
    width, height, depth = (told.figure for told in inside)
    volume = (width * height * depth).called("holds, filled as a box")
    return BagFigure("holds-filled-as-a-box", volume)
