"""Lines set by a printed check or stripe: the print's own repeat is the ruler."""

from __future__ import annotations

from tessil.core.catalogue.prints import Print
from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan

RULED = ("checks", "ticking", "plaid")  # prints with lines to follow


def ruling_print(plan: Plan, panel: PanelPlan) -> Print | None:
    """The print of a panel of one cloth, if it has lines to follow."""
    if not panel.only_cloth or not panel.patches:
        return None
    cloth = plan.project.print_of(panel.patches[0].print)
    return cloth if cloth.motif in RULED else None


def by_print(plan: Plan, panel: PanelPlan, path: str) -> Edit | None:
    """The gap as so many repeats of the print, the nearest to what was wished; None where nothing
    is printed to follow, or it lies so already."""
    cloth = ruling_print(plan, panel)
    if cloth is None:
        return None
    gap = panel.choices.quilting.gap
    repeats = max(round(gap / cloth.repeat), 1)
    wanted: Fraction = repeats * cloth.repeat
    if gap == wanted and panel.choices.quilting.spacing == "keep":
        return None
    every = "every line" if repeats == 1 else f"every {repeats}. line"
    words = f"Quilt by {every} of {cloth.name.lower()}"
    return choose(
        plan.project, panel.panel, words, (f"{path}.gap", wanted), (f"{path}.spacing", "keep")
    )
