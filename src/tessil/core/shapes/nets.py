"""What several shapes say of how they fold and join: boxed bodies, notches, parts of sides."""

from __future__ import annotations

from tessil.core.bag.ids import LIES, CutOut, EdgeKey, JoinKey
from tessil.core.bag.model import Edge, Panel
from tessil.core.bag.net import FLAT, OVER, SQUARE, Crease, Seam, Sheet, Side
from tessil.core.numbers import sizes
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.corners import Corner
from tessil.core.shapes.outlines import NONE, Notches, Rims, panel_edges

ZERO = Fraction(0)
Span = tuple[Inches, Inches]
# A side of the front, and the side of the back it is sewn to.
MIRRORED: tuple[tuple[sizes.Side, sizes.Side], ...] = (("left", "right"), ("right", "left"))


def side(
    sheet: str, edge: sizes.Side | EdgeKey, copy: int = 0, part: tuple[Inches, Inches] | None = None
) -> Side:
    """An edge of a sheet, by its key or the side it is."""
    return Side(sheet, edge if isinstance(edge, EdgeKey) else EdgeKey(edge), copy, part)


def seam(key: JoinKey, one: Side, other: Side, turn: int = FLAT, hinge: bool = False) -> Seam:
    """One edge on one edge."""
    return Seam(key, (one,), (other,), turn, hinge)


def clockwise(way: sizes.Side, *parts: Span) -> tuple[Span, ...]:
    """Parts of a side, given from the top down, as they go round the panel clockwise."""
    return parts if way == "right" else tuple((end, start) for start, end in parts)


At = Inches | Figure


def _exact(at: At) -> tuple[Inches, Figure | None]:
    return (at.value, at) if isinstance(at, Figure) else (at, None)


def level(y: At, start: Inches, end: Inches, turn: int = SQUARE, opens: bool = False) -> Crease:
    """A crease across a panel; told with its sum where it is given as a figure."""
    down, told = _exact(y)
    return Crease((start, down), (end, down), turn, opens, told)


def upright(x: At, start: Inches, end: Inches, turn: int = SQUARE) -> Crease:
    """A crease down a panel."""
    across, told = _exact(x)
    return Crease((across, start), (across, end), turn, at=told)


def sewn_edges(panel: Panel, corner: Corner, rims: Rims, notches: Notches) -> tuple[Edge, ...]:
    """The edges a panel is sewn by: its own where its corners are cut off, else those it has once
    the corners are sewn on their lines."""
    if corner.cut is not None:
        return panel.edges
    return panel_edges((panel.width.value, panel.height.value), rims, notches)


def boxed_sheet(panel: Panel, corner: Corner, rims: Rims) -> Sheet:
    """A body panel of a bag with boxed corners at its bottom: front, half of each end, half of the
    base."""
    if corner.none:
        return Sheet(panel.key, panel.edges)
    x0, y0 = corner.in_side.value, corner.in_other.value
    w, h = panel.width.value, panel.height.value
    edges = sewn_edges(panel, corner, rims, Notches(bottom=(x0, y0), seam=NONE))
    return Sheet(
        panel.key,
        edges,
        (
            level(panel.height - corner.in_other, x0, w - x0),
            upright(corner.in_side, ZERO, h - y0),
            upright(panel.width - corner.in_side, ZERO, h - y0),
        ),
    )


def ends_of(panel: Panel, corner: Corner) -> tuple[Crease, ...]:
    """Where a band above a boxed body turns round its ends."""
    if corner.none:
        return ()
    h = panel.height.value
    return upright(corner.in_side, ZERO, h), upright(panel.width - corner.in_side, ZERO, h)


def boxed_seams(front: str = "front", back: str = "back", boxed: bool = True) -> tuple[Seam, ...]:
    """Front to back of a body: the bottom holds, sides and corners close; without a base the back
    turns over at the bottom."""
    corners = []
    turn = FLAT if boxed else OVER
    for way, other in MIRRORED if boxed else ():
        one, two = (
            (side(front, EdgeKey(way, "corner", lies)), side(back, EdgeKey(other, "corner", lies)))
            for lies in LIES
        )
        corners.append(Seam(JoinKey("box corner", way), one, two))
    return (
        seam(JoinKey("seam", "bottom"), side(front, "bottom"), side(back, "bottom"), turn, True),
        seam(JoinKey("seam", "left"), side(front, "left"), side(back, "right")),
        seam(JoinKey("seam", "right"), side(front, "right"), side(back, "left")),
        *corners,
    )


def fold_notch(way: sizes.Side, cut: CutOut = "fold") -> Seam:
    """A notch at a fold closed: its two level edges lie on the upright one."""
    upper, lower = EdgeKey(way, cut, "level", "upper"), EdgeKey(way, cut, "level", "lower")
    return Seam(
        JoinKey("box corner", way),
        (Side("body", upper), Side("body", lower)),
        (Side("body", EdgeKey(way, cut, "upright")),),
    )
