"""Binding: how wide its strips are cut, how long it must be, how many strips that takes.

Double fold: half of it covers the seam s in front, turns over the thickness τ, covers the
stitching behind and a little, o: ``cut = 2(3s + τ + o)``.  Single fold wraps the seam's
width four times and the thickness once: ``cut = 4s + τ``.  Diagonal joins
cost a strip's width each.  Common practice.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from tessil.core.project import Binding
from tessil.core.trouble import CannotPlan
from tessil.core.workings import Basis, Figure, ceiling, count, given, no_less, up_to

_TUCK = given("end pressed under", Fraction(1, 2), Basis.PRACTICE)
_CORNERS = given("corners and ending", 10, Basis.PRACTICE)


@dataclass(frozen=True, slots=True)
class BindingPlan:
    """One binding of a bag: cut width, length, and strips from the cloth's usable width."""

    edge: Figure
    length: Figure
    cut: Figure
    strips: Figure
    joins: Figure
    reaches: Figure  # what the strips in hand, or those planned, give once joined
    formula: Figure


def strip_width(choice: Binding, thickness: Figure, mark: Figure) -> Figure:
    """The cut width by the formula of its fold, up to a ruler mark."""
    seam, cover = given("binding seam", choice.seam), given("cover", choice.cover, Basis.PRACTICE)
    if choice.fold == "double":
        return up_to(2 * (3 * seam + thickness + cover), mark)
    return up_to(4 * seam + thickness, mark)


def joined_length(strips: Figure, usable: Figure, cut: Figure) -> Figure:
    """What strips give once joined on the diagonal."""
    return strips * usable - (strips - 1) * cut


def plan_binding(
    choice: Binding, edge: Figure, loop: bool, thickness: Figure, usable: Figure, mark: Figure
) -> BindingPlan:
    """Binding for a closed loop (a bag's opening) or round a panel with mitred corners.

    Raises CannotPlan if the strip is wider than the cloth it should be cut from.
    """
    formula = strip_width(choice, thickness, mark).called("binding, by formula")
    cut = given("binding, cut", choice.cut) if choice.cut else formula.called("binding, cut")
    if cut.value * 2 > usable.value:
        raise CannotPlan("binding.cut", "This binding is wider than half the cloth: make it less.")
    if loop:
        overlap = given("overlap", choice.overlap)
        length = (edge + overlap + _TUCK).called("binding length")
    else:
        length = (edge + _CORNERS).called("binding length")
    one = count("strip", 1, Basis.GEOMETRY)
    strips = no_less(ceiling((length - cut) / (usable - cut)), one).called("binding strips")
    in_hand = strips
    if choice.strips_on_hand is not None:
        in_hand = count("strips in hand", choice.strips_on_hand)
    return BindingPlan(
        edge=edge,
        length=length,
        cut=cut,
        strips=strips,
        joins=(strips - 1).called("joins"),
        reaches=joined_length(in_hand, usable, cut).called("joined, they reach"),
        formula=formula,
    )
