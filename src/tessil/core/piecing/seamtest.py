"""What a maker's own piecing seam really takes, learned from a few strips sewn together.

k strips of cut width w that measure M across: ``s = (k·w − M) / (2(k − 1))``, k − 1 seams each
taking s of both its strips (geometry).
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from tessil.core.numbers.workings import Basis, Figure, count, given
from tessil.core.piecing.choice import SeamTest
from tessil.core.project import Project
from tessil.core.trouble import CannotPlan

if TYPE_CHECKING:
    from tessil.core.panels.planning import PanelPlan


def allowance(test: SeamTest) -> Figure:
    """The allowance that a seam test shows."""
    strips = count("strips sewn", test.strips, Basis.MEASURED)
    cut = given("cut width", test.cut, Basis.MEASURED)
    across = given("measured across", test.measured, Basis.MEASURED)
    return ((strips * cut - across) / (2 * (strips - 1))).called("piecing seam, as you sew")


def piecing_seam(project: Project) -> Figure:
    """The measured piecing seam if there is a seam test, else the one wished for.

    Raises CannotPlan for a test that cannot be right.
    """
    wished = given("piecing seam", project.seams.piecing)
    if project.seam_test is None:
        return wished
    found = allowance(project.seam_test)
    if not 0 < found.value <= 2 * wished.value:
        raise CannotPlan(
            "seam_test.measured",
            "That would be a seam of nothing or less: measure across all strips, raw edge to "
            "raw edge."
            if found.value <= 0
            else "That is more than twice the seam wished for: measure again.",
        )
    return found


def seam_cost(project: Project, panel: PanelPlan) -> Figure | None:
    """How much smaller (or, below zero, larger) the pieces of the wished seam come out on one
    panel as its maker really sews; None where there is no test or nothing is joined."""
    strips = panel.strips
    if project.seam_test is None or strips is None or strips.number.value < 2:
        return None
    real = allowance(project.seam_test)
    wished = given("seam wished for", project.seams.piecing)
    seams = strips.number - 1
    return (2 * seams * (real - wished)).called("your seam takes more by")
