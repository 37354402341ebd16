"""The worksheet's edge pages: drawings of what is cut and joined; a list of strips and figures."""

from __future__ import annotations

from collections.abc import Callable

from tessil.core.edge_readings import edge_readings
from tessil.core.edges.steps import edge_steps
from tessil.core.plan import Plan
from tessil.core.workings import value_text, working
from tessil.drawing import theme
from tessil.drawing.edgesview import paper_pictures
from tessil.files.quiltpages import picture_in
from tessil.files.sheet import LEFT, MARGIN, RIGHT, Sheet
from tessil.files.striplist import HEAD, strip_rows

LEAVES = ("binding", "bias", "piping", "straps", "closing")
MOST_HIGH = 74.0  # mm of one drawing
STRIP_WIDTHS = (22, 24, 14, 14, 14, 20, 26, 20, 26)  # mm of the columns of the list
MOST_STRIPS = 22
FEW = 8  # strips that go on one page with a drawing


def has_edges(plan: Plan) -> bool:
    """Whether there is anything at the edges to cut or to buy."""
    edging = plan.edging
    return bool(plan.binding or edging.bias or edging.straps or edging.zipper or edging.cord)


def edge_pages(plan: Plan) -> list[Callable[[Sheet, Plan], None]]:
    """One page where there is but one drawing; else drawings and lists on a page each."""
    if not has_edges(plan):
        return []
    if len(paper_pictures(plan)) == 1 and len(strip_rows(plan)) <= FEW:
        return [_both]
    return [paint_edges, paint_edge_list]


def _both(sheet: Sheet, plan: Plan) -> None:
    paint_edges(sheet, plan)
    sheet.y += 4
    paint_edge_list(sheet, plan)


def paint_edges(sheet: Sheet, plan: Plan) -> None:
    """Everything unrolled, joined, and where it lies on its cloth, one below the other."""
    sheet.words("Edges, straps, closing", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 9
    pictures = paper_pictures(plan)
    high = min((sheet.height - sheet.y - MARGIN) / max(len(pictures), 1) - 6, MOST_HIGH)
    for picture in pictures:
        picture_in(sheet, picture, MARGIN, sheet.inner, high)
        sheet.y += high
        sheet.words(picture.caption, sheet.text(8.5), MARGIN, sheet.inner, 5, LEFT, theme.SOFT)
        sheet.y += 6


def paint_edge_list(sheet: Sheet, plan: Plan) -> None:
    """Every strip in the order in which it is joined, and every figure with its working."""
    rows = strip_rows(plan)
    if rows:
        sheet.words("Strips, in the order in which they are joined", sheet.title(16), MARGIN,
                    sheet.inner, 7)  # fmt: skip
        sheet.y += 9
        _row(sheet, HEAD, strong=True)
        for row in rows[:MOST_STRIPS]:
            sheet.rule()
            _row(sheet, tuple(str(row[name]) for name in HEAD))
        if len(rows) > MOST_STRIPS:
            words = f"and {len(rows) - MOST_STRIPS} more: save them as CSV."
            sheet.words(words, sheet.text(9), MARGIN, sheet.inner, 5, LEFT, theme.SOFT)
            sheet.y += 5
        sheet.y += 4
    for leaf in LEAVES:
        steps = edge_steps(plan, leaf)
        if steps:
            words = " ".join(f"{at}. {step}" for at, step in enumerate(steps, start=1))
            sheet.wrapped(f"{leaf.capitalize()}: {words}", sheet.text(9.5), theme.INK)
    sheet.y += 3
    sheet.words("Figures of the edges", sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 9
    _figures(sheet, plan)


def _row(sheet: Sheet, cells: tuple[str, ...], strong: bool = False) -> None:
    x = MARGIN
    for text, width in zip(cells, STRIP_WIDTHS, strict=True):
        sheet.words(text, sheet.text(9, strong), x, width, 4.6)
        x += width
    sheet.y += 4.6


def _figures(sheet: Sheet, plan: Plan) -> None:
    notation = plan.marks.notation
    for reading in edge_readings(plan, plan.panel(plan.shape.leader)):
        if reading.key.startswith(("edge.run", "edge.radius")) or sheet.y > sheet.height - 18:
            continue
        sheet.rule()
        sheet.words(reading.figure.label, sheet.text(9), MARGIN, 62, 4.6)
        worth = value_text(reading.figure, notation)
        sheet.words(worth, sheet.text(9.5, True), MARGIN + 62, 22, 4.6, RIGHT)
        sheet.words(working(reading.figure, notation), sheet.text(8.5), MARGIN + 88,
                    sheet.inner - 88, 4.6, LEFT, theme.SOFT)  # fmt: skip
        sheet.y += 4.6
