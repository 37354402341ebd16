"""How to square a panel up, and how large a gap to leave for turning.

Common practice, no source.
"""

from __future__ import annotations

from tessil.core.bag.steps import Do, Step, Value, one_by_one
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, given, no_less
from tessil.core.panels.panel import PanelPlan
from tessil.core.trouble import CannotPlan

_SMALL = given("turning gap", Fraction(5, 2), Basis.PRACTICE)
_PLAIN = given("turning gap", Fraction(3), Basis.PRACTICE)
_PADDED = given("turning gap", Fraction(4), Basis.PRACTICE)
SMALL_BAG = 8


def least_gap(width: Figure, padded: bool, stiff: Figure | None = None) -> Figure:
    """The gap a bag turns through: 2½ in for a small pouch, 3, or 4 with batting; never less than
    what is ``stiff`` and does not fold, such as a fused base turned along its length."""
    least = _SMALL if width.value < SMALL_BAG else _PADDED if padded else _PLAIN
    return least if stiff is None else no_less(least, stiff).called(least.label)


def all_but(seam: Figure, corners: Inches) -> Figure:
    """A gap of all of a seam but so much from each corner; raises CannotPlan if nothing is left."""
    gap = (seam - 2 * given("sewn from each corner", corners)).called("turning gap")
    if gap.value <= 0:
        sentence = "So much from each corner leaves no gap: take less."
        raise CannotPlan("gap_corners", sentence)
    return gap


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
