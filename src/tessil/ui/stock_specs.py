"""What piecing draws from, as fields: the maker's own seam, packs of squares, scraps."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import MOST_SCRAPS, Pack, SeamTest
from tessil.core.piecing.scraplist import read_scrap, write_scrap
from tessil.core.planned import Plan
from tessil.ui.asking import always, field_of
from tessil.ui.specs import Spec


def stock_specs(plan: Plan) -> Iterator[Spec]:
    """All of the leaf."""
    yield from _seam_test(plan)
    yield from _pack(plan)
    yield from _scraps(plan)


def _seam_test(plan: Plan) -> Iterator[Spec]:
    if plan.project.seam_test is None:
        seam = plan.project.seams.piecing
        wide = max(Fraction(5, 2), 2 * seam + 1)
        usual = SeamTest(strips=4, cut=wide, measured=4 * wide - 6 * seam)
        yield Spec(
            "seam_test.on",
            "action",
            "Test my own seam",
            "Sew a few strips and measure",
            None,
            always(edit("Test the seam", ("seam_test", usual))),
        )
        return
    yield field_of(plan, "seam_test.strips", "count", "Test: strips", "Sewn side by side")
    yield field_of(plan, "seam_test.cut", "length", "Test: cut width", "Of each strip")
    yield field_of(
        plan,
        "seam_test.measured",
        "length",
        "Test: measured",
        "Across all of them, raw edge to raw edge",
    )
    yield Spec(
        "seam_test.off",
        "action",
        "Forget the test",
        "Plan with the seam wished for",
        None,
        always(edit("Forget the seam test", ("seam_test", None))),
    )


def _pack(plan: Plan) -> Iterator[Spec]:
    if plan.project.pack is None:
        yield Spec(
            "pack.on",
            "action",
            "I have a pack of squares",
            "Counts bags a pack",
            None,
            always(edit("Count a pack", ("pack", Pack()))),
        )
        return
    yield field_of(plan, "pack.pieces", "count", "Pack of", "Squares in it; about 42 is usual")
    yield Spec(
        "pack.off",
        "action",
        "No pack",
        "Leave it out",
        None,
        always(edit("Leave the pack out", ("pack", None))),
    )


def _scraps(plan: Plan) -> Iterator[Spec]:
    project, notation = plan.project, plan.marks.notation

    def changed(at: int, text: str) -> Edit:
        scraps = list(project.scraps)
        if text.strip() in ("-", "–", "0"):
            del scraps[at]
            return edit("Take a scrap out", ("scraps", tuple(scraps)))
        scraps[at : at + 1] = [read_scrap(text, project.prints, project.units)]
        return edit("Change a scrap", ("scraps", tuple(scraps)))

    def added(text: str) -> Edit:
        if not text.strip():
            return Edit("", ())
        scrap = read_scrap(text, project.prints, project.units)
        return edit("Add a scrap", ("scraps", (*project.scraps, scrap)))

    if len(project.scraps) < MOST_SCRAPS:
        yield Spec(
            "scraps.add",
            "entry",
            "Add a scrap",
            "Such as 4½ × 6 ×3 " + (project.prints[0].name if project.prints else "blue"),
            "",
            added,
        )
    for at, scrap in enumerate(project.scraps):
        yield Spec(
            f"scraps.{at}",
            "word",
            f"Scrap {at + 1}",
            "Width × height, how many, print; – takes it out",
            write_scrap(scrap, project.prints, notation),
            partial(changed, at),
        )
