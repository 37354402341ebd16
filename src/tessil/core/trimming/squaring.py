"""How to square a panel up, and how large a gap to leave for turning.

Common practice, no source.
"""

from __future__ import annotations

from tessil.core.bag.steps import Do, Step, Value, one_by_one
from tessil.core.numbers.exact import Fraction
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


def squaring(panel: PanelPlan) -> tuple[Step, ...]:
    """Which seam to keep parallel and what to take off each side; nothing if nothing is cut."""
    if not any(figure.value > 0 for figure in panel.cut_off.values()):
        return ()
    off: dict[str, Value] = {side: figure.value for side, figure in panel.cut_off.items()}
    first = Do("square.level-first" if panel.level_strips else "square.upright-first", off)
    return one_by_one(f"trim.{panel.key}", (panel.key,), (_keep(panel), first))


def _keep(panel: PanelPlan) -> Do:
    """What the ruler is laid by."""
    strips = panel.strips
    if strips is None or strips.number.whole < 2:
        return Do("square.by-lines")
    middle = strips.number.whole // 2
    noun = "strips" if panel.choices.piecing.way == "strips" else "rows"
    return Do(f"square.by-{noun}", {"one": middle, "two": middle + 1})
