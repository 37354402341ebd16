"""The worksheet's edge pages: drawings of what is cut and joined; a list of strips and figures."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from tessil.core.edges.readings import edge_readings
from tessil.core.planned import Plan
from tessil.core.words.steps import told
from tessil.core.words.written import value_text, working
from tessil.drawing import theme
from tessil.drawing.edgesview import paper_pictures
from tessil.files.flow import Block, Column, gap, heading, paragraph, pictures, table
from tessil.files.sheet import LEAST, RIGHT, TO_CUT, text, title
from tessil.files.striplist import HEAD, strip_rows

LEAVES = ("binding", "bias", "piping", "straps", "closing")
HIGH = 68.0  # mm of one drawing
SHARES = {
    "for": 0.13,
    "cloth": 0.15,
    "strip": 0.06,
    "piece": 0.075,
    "angle": 0.075,
    "width": 0.12,
    "length": 0.16,
    "turned": 0.08,
    "join at": 0.15,
}


def has_edges(plan: Plan) -> bool:
    """Whether there is anything at the edges to cut or to buy."""
    edging = plan.edging
    return bool(plan.binding or edging.bias or edging.straps or edging.zipper or edging.cord)


def edge_blocks(plan: Plan, width: float) -> Iterator[Block]:
    """Everything unrolled, joined, and on its cloth; every strip; what to do; every figure."""
    if not has_edges(plan):
        return
    yield heading("Edges, straps, closing", fresh=True)
    for picture in paper_pictures(plan):
        yield pictures(((picture, picture.caption, 1.0),), HIGH, width)
    yield from _strips(plan, width)
    for leaf in LEAVES:
        steps = told(plan.edge_steps.get(leaf, ()), plan.marks.notation)
        if steps:
            words = " ".join(f"{at}. {step}" for at, step in enumerate(steps, start=1))
            yield paragraph(f"{leaf.capitalize()}: {words}", width)
    yield from _figures(plan, width)


def _strips(plan: Plan, width: float) -> Iterator[Block]:
    """Every strip in the order in which it is joined."""
    rows = strip_rows(plan)
    if not rows:
        return
    yield heading("Strips, in the order in which they are joined")
    columns = [
        Column(name, share * width, font=title(TO_CUT) if name in ("width", "length") else None)
        for name, share in SHARES.items()
    ]
    yield from table(columns, [[str(row[name]) for name in HEAD] for row in rows])
    yield gap(3)


def _figures(plan: Plan, width: float) -> Iterator[Block]:
    notation = plan.marks.notation
    yield heading("Figures of the edges")
    columns = (
        Column("", width * 0.36),
        Column("", width * 0.14, RIGHT, text(LEAST + 0.5, True)),
        Column("", width * 0.5, font=text(LEAST), colour=theme.SOFT),
    )
    rows = [
        (r.figure.label, value_text(r.figure, notation), working(r.figure, notation))
        for r in edge_readings(plan, plan.panel(plan.shape.leader))
        if not r.key.startswith(("edge.run", "edge.radius"))
    ]
    yield from (replace(block, again=None) for block in table(columns, rows))
