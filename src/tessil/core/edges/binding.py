"""Binding: how wide its strips are cut, how long it must be, how many strips that takes.

Double fold: half of it covers the seam s in front, turns over the edge (thickness τ), covers the
stitching behind and a little, o: ``cut = 2(3s + τ + o)``.  Single fold wraps the seam's
width four times and the thickness once: ``cut = 4s + τ``.  Diagonal joins
cost a strip's width each.  Common practice.
"""

from __future__ import annotations

from tessil.core.bag.model import BoundEdge
from tessil.core.edges.choice import Binding
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, ceiling, count, given, no_less, up_to
from tessil.core.trouble import CannotPlan

_TUCK = given("end pressed under", Fraction(1, 2), Basis.PRACTICE)
_CORNERS = given("corners and ending", 10, Basis.PRACTICE)
_BUTTED = given("a little at both ends of each side", 4, Basis.PRACTICE)
CORNER_CLEAR = 2.0  # inches a join keeps from a corner or a zipper's end; common practice
STEPS = 48
SHARES = 6


class Begin(Record, frozen=True):
    """Where along an edge a binding begins, where its joins fall, how far both keep from corners;
    inches along the edge from its first corner."""

    at: float
    joins: tuple[float, ...]
    clear: float


class EdgeStrip(Record, frozen=True):
    """The strips of an edge with a binding of its own: how long and wide each is cut, of how many
    full strips of cloth each is joined; of a tape that is lapped over, only how long."""

    edge: BoundEdge
    cut: Figure | None
    strips: Figure

    @property
    def tape(self) -> bool:
        return self.cut is None


class BindingPlan(Record, frozen=True):
    """One binding of a bag: cut width, length, and strips from the cloth's usable width.

    ``begin`` is for strips on the straight grain.
    """

    edge: Figure
    length: Figure
    cut: Figure
    strips: Figure
    joins: Figure
    reaches: Figure  # what the strips in hand, or those planned, give once joined
    formula: Figure
    front: Figure
    behind: Figure  # what shows there
    begin: Begin


def strip_width(choice: Binding, thickness: Figure, mark: Figure) -> Figure:
    """The cut width by the formula of its fold, up to a ruler mark."""
    seam, cover = given("binding seam", choice.seam), given("cover", choice.cover, Basis.PRACTICE)
    if choice.fold == "double":
        return up_to(2 * (3 * seam + thickness + cover), mark)
    return up_to(4 * seam + thickness, mark)


def shows_behind(choice: Binding, thickness: Figure, cut: Figure) -> Figure:
    """What shows behind: what is left of the strip once it is sewn on, in front and over the edge;
    of a single fold a seam more is turned under."""
    seam = given("binding seam", choice.seam)
    double = choice.fold == "double"
    left = cut / 2 - 2 * seam - thickness if double else cut - 3 * seam - thickness
    return no_less(left, seam - seam).called("binding, shows behind")


def joined_length(strips: Figure, usable: Figure, cut: Figure) -> Figure:
    """What strips give once joined on the diagonal."""
    return strips * usable - (strips - 1) * cut


def binding_length(choice: Binding, edge: Figure, loop: bool, cut: Figure) -> Figure:
    """The edge with its ending: tucked or joined on the diagonal; corners mitred or butted."""
    if loop and choice.ending == "diagonal":
        return (edge + cut).called("binding length")
    if loop:
        return (edge + given("overlap", choice.overlap) + _TUCK).called("binding length")
    more = _CORNERS if choice.corners == "mitred" else _BUTTED
    return (edge + more).called("binding length")


def plan_binding(
    choice: Binding,
    edge: Figure,
    loop: bool,
    thickness: Figure,
    usable: Figure,
    mark: Figure,
    corners: tuple[float, ...] = (),
) -> BindingPlan:
    """Binding for a closed loop (a bag's opening) or round a panel with mitred corners.

    ``corners`` are places along the edge that joins should keep clear of.
    Raises CannotPlan if the strip is wider than the cloth it should be cut from.
    """
    formula = strip_width(choice, thickness, mark).called("binding, as it would be cut")
    cut = given("binding, cut", choice.cut) if choice.cut else formula.called("binding, cut")
    if cut.value * 2 > usable.value:
        raise CannotPlan("binding.cut", "This binding is wider than half the cloth: make it less.")
    length = binding_length(choice, edge, loop, cut)
    one = count("strip", 1, Basis.GEOMETRY)
    strips = no_less(ceiling((length - cut) / (usable - cut)), one).called("binding strips")
    in_hand = strips
    if choice.strips_on_hand is not None:
        in_hand = count("strips in hand", choice.strips_on_hand)
        strips = no_less(strips, in_hand).called("binding strips")
    step = float(usable.value - cut.value)
    spare = float(joined_length(strips, usable, cut).value - length.value)
    begin = begin_strips(step, strips.whole, spare, corners, float(edge.value))
    return BindingPlan(
        edge=edge,
        length=length,
        cut=cut,
        strips=strips,
        joins=(strips - 1).called("joins"),
        reaches=joined_length(in_hand, usable, cut).called("joined, they reach"),
        formula=formula,
        front=given("binding seam", choice.seam).called("binding, shows in front"),
        behind=shows_behind(choice, thickness, cut),
        begin=begin,
    )


def edge_strips(
    choice: Binding, edges: tuple[BoundEdge, ...], wall: Figure, usable: Figure, mark: Figure
) -> tuple[EdgeStrip, ...]:
    """The strip of every edge that is bound by itself, as wide as the walls under it ask; on the
    straight grain, since such edges are straight."""
    return tuple(_edge_strip(choice, edge, wall, usable, mark) for edge in edges)


def _edge_strip(
    choice: Binding, edge: BoundEdge, wall: Figure, usable: Figure, mark: Figure
) -> EdgeStrip:
    one = count("strip", 1, Basis.GEOMETRY)
    if edge.tape:
        return EdgeStrip(edge, None, one)
    thick = wall if edge.walls == 1 else edge.walls * wall
    cut = strip_width(choice, thick, mark).called("binding, cut")
    if choice.cut is not None:
        cut = given("binding, cut", choice.cut)
    if cut.value * 2 > usable.value:
        raise CannotPlan("binding.cut", "This binding is wider than half the cloth: make it less.")
    strips = no_less(ceiling((edge.length - cut) / (usable - cut)), one).called("strips for each")
    return EdgeStrip(edge, cut, strips)


def pooled(length: Figure, number: Figure, usable: Figure, takes: Figure) -> Figure:
    """Full strips for so many of one length, joined across bags: what is left of one is the
    beginning of the next.  ``takes`` is what a join takes."""
    one = count("strip", 1, Basis.GEOMETRY)
    every = number * length
    return no_less(ceiling((every - takes) / (usable - takes)), one).called("strips for all")


def begin_clear(joins: tuple[float, ...], corners: tuple[float, ...], edge: float) -> Begin:
    """Begin so that the ending and every join, at these lengths along the strip, keep as far from
    the corners as can be."""
    if not corners or edge <= 0:
        return Begin(edge / 4, tuple((edge / 4 + join) % edge for join in joins), edge)
    best = Begin(0.0, (), -1.0)
    for step in range(STEPS):
        start = edge * step / STEPS
        places = tuple((start + join) % edge for join in joins)
        near = min(_apart(place, corner, edge) for place in (start, *places) for corner in corners)
        if near > best.clear + 1e-9:
            best = Begin(start, places, near)
    return best


def begin_strips(
    step: float, strips: int, spare: float, corners: tuple[float, ...], edge: float
) -> Begin:
    """The same for strips that give ``step`` each, the first of which may be cut shorter by what
    is to spare."""
    tried = []
    for share in range(SHARES if strips > 1 and spare > 0 else 1):
        lead = step - min(spare, step / 2) * share / (SHARES - 1)
        joins = tuple(lead + step * at for at in range(strips - 1))
        tried.append(begin_clear(joins, corners, edge))
    return max(tried, key=lambda begin: begin.clear)


def _apart(one: float, other: float, edge: float) -> float:
    """How far two places are from each other round a closed edge."""
    way = abs(one - other) % edge
    return min(way, edge - way)
