"""What a maker's own piecing seam really takes, learned from a few strips sewn together.

k strips of cut width w that measure M across: ``s = (k·w − M) / (2(k − 1))``, k − 1 seams each
taking s of both its strips (geometry).
"""

from __future__ import annotations

from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, count, given
from tessil.core.piecing.choice import SeamTest
from tessil.core.piecing.top import Strips
from tessil.core.trouble import CannotPlan


def allowance(test: SeamTest) -> Figure:
    """The allowance that a seam test shows."""
    strips = count("strips sewn", test.strips, Basis.MEASURED)
    cut = given("cut width", test.cut, Basis.MEASURED)
    across = given("measured across", test.measured, Basis.MEASURED)
    return ((strips * cut - across) / (2 * (strips - 1))).called("piecing seam, as you sew")


def piecing_seam(wish: Inches, test: SeamTest | None) -> Figure:
    """The measured piecing seam if there is a seam test, else the one wished for.

    Raises CannotPlan for a test that cannot be right.
    """
    wished = given("piecing seam", wish)
    if test is None:
        return wished
    found = allowance(test)
    if not 0 < found.value <= 2 * wished.value:
        raise CannotPlan(
            "seam_test.measured",
            "That would be a seam of nothing or less: measure across all strips, raw edge to "
            "raw edge."
            if found.value <= 0
            else "That is more than twice the seam wished for: measure again.",
        )
    return found


def seam_cost(wish: Inches, test: SeamTest | None, strips: Strips | None) -> Figure | None:
    """How much smaller (or, below zero, larger) the pieces of the wished seam come out on one
    panel as its maker really sews; None where there is no test or nothing is joined."""
    if test is None or strips is None or strips.number.value < 2:
        return None
    seams = strips.number - 1
    wished = given("seam wished for", wish)
    return (2 * seams * (allowance(test) - wished)).called("your seam takes more by")
