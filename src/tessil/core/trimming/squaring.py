"""How to square a panel up, and how large a gap to leave for turning.

Common practice, no source.
"""

from __future__ import annotations

from fractions import Fraction

from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.panels.panel import PanelPlan

_SMALL = given("turning gap", Fraction(5, 2), Basis.PRACTICE)
_PLAIN = given("turning gap", Fraction(3), Basis.PRACTICE)
_PADDED = given("turning gap", Fraction(4), Basis.PRACTICE)
SMALL_BAG = 8


def least_gap(width: Figure, padded: bool) -> Figure:
    """The gap a bag turns through: 2½ in for a small pouch, 3, or 4 with batting."""
    if width.value < SMALL_BAG:
        return _SMALL
    return _PADDED if padded else _PLAIN


def squaring_advice(panel: PanelPlan, notation: Notation) -> str:
    """Which seam to keep parallel and what to take off each side; empty if nothing is cut."""
    off = {side: notation.read_off(figure.value) for side, figure in panel.cut_off.items()}
    if not any(figure.value > 0 for figure in panel.cut_off.values()):
        return ""
    first, last, ends = ("top", "bottom", ("left", "right"))
    if not panel.level_strips:
        first, last, ends = ("left", "right", ("top", "bottom"))
    keep = "Lay the ruler square to the quilting lines. "
    strips = panel.strips
    if strips is not None and strips.number.whole > 1:
        middle = strips.number.whole // 2
        noun = "strips" if panel.choices.piecing.way == "strips" else "rows"
        keep = f"Keep the seam between {noun} {middle} and {middle + 1} parallel to the ruler. "
    return (
        f"{keep}Take {off[first]} off the {first} and {off[last]} off the {last}; square the "  # type: ignore[index]
        f"{ends[0]} to it and take {off[ends[0]]}, then {off[ends[1]]} off the {ends[1]}."  # type: ignore[index]
    )
