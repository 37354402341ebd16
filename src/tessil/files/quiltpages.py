"""Worksheet pages of the sandwich and the quilting: layers, a map of the lines, a swatch sheet."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.choices import owner_key
from tessil.core.logbook.flow import trust
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.readings import guide_of, quilt_readings
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewing import swatch_plan
from tessil.core.quilting.shrinkage import prior_of
from tessil.core.words.steps import told
from tessil.core.words.written import value_text, working
from tessil.drawing import theme
from tessil.drawing.layerview import bulk_picture, open_picture, rule_words
from tessil.drawing.quiltview import quilt_picture
from tessil.files.flow import Block, Column, gap, heading, paragraph, pictures, table
from tessil.files.sheet import LEAST, MARGIN, RIGHT, TO_CUT, Sheet, text, title


def _own(plan: Plan, panel: PanelPlan) -> bool:
    return panel.panel.kind == "outer" and owner_key(plan.project, panel.panel) == panel.key


def layered(plan: Plan) -> list[PanelPlan]:
    """The panels that have layers of their own to cut."""
    return [panel for panel in plan.panels if _own(plan, panel) and len(panel.layers) > 1]


def quilted(plan: Plan) -> list[PanelPlan]:
    """The panels that have lines of their own to sew."""
    return [panel for panel in plan.panels if _own(plan, panel) and panel.quilt.lines]


def _also(plan: Plan, panel: PanelPlan) -> str:
    like = [
        p.panel.label.lower()
        for p in plan.panels
        if p.panel.like == panel.key and p.key not in plan.project.panels
    ]
    return f" and {' and '.join(like)}" if like else ""


def line_words(plan: Plan, panel: PanelPlan, entry: LineSet) -> str:
    """One set of lines in a sentence: how many, how far apart, the guide bar."""
    notation = plan.marks.notation
    guide = guide_of(plan, panel, entry)
    bar = f", guide bar at {value_text(guide, notation)}" if guide is not None else ""
    number = entry.lines.whole
    if not number:
        return f"{panel.panel.label}: {entry.name} with the lines before."
    return (
        f"{panel.panel.label}: {number} {entry.name}, {value_text(entry.gap, notation)} apart as "
        f"sewn{bar}; begin in the middle, turn the panel for every other line."
    )


# -- the sandwich ----------------------------------------------------------------------

_BONDS = {"fuse": "fusing", "spray": "spray", "glue": "glue", "pins": "pins", "itself": "itself"}


def sandwich_blocks(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    """The layers of one panel with their cut sizes, and how thick it gets at its seams."""
    yield heading(f"Layers: {panel.panel.label.lower()}{_also(plan, panel)}")
    yield pictures(((open_picture(plan, panel, -1), "", 1.0),), 62, width)
    notation = plan.marks.notation
    columns = (
        Column("layer", width * 0.24),
        Column("cut, width × height", width * 0.3, font=title(TO_CUT)),
        Column("how it is cut", width * 0.28),
        Column("held by", width * 0.18),
    )
    yield from table(
        columns,
        [
            (
                layer.label,
                notation.size(layer.width.value, layer.height.value),
                rule_words(layer.rule, plan) if layer.role != "top" else "as pieced",
                _BONDS[layer.bond] if layer.role != "top" else "",
            )
            for layer in panel.layers
        ],
    )
    yield gap(4)
    yield from _thick(plan, panel, width)


def _thick(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    """Every kind of thick spot, the thickest first; those sewn alike stand together."""
    yield heading("Under the foot")
    yield pictures(((bulk_picture(plan, panel, 0.85), "", 1.0),), 48, width)
    alike: dict[tuple[str, str], dict[str, None]] = {}
    for spot in sorted(plan.spots_on(panel.key), key=lambda one: -one.mm):
        row = alike.setdefault((f"{float(spot.mm):.1f} mm", spot.advice.words), {})
        row[spot.label] = None
    columns = (
        Column("thick", width * 0.12, RIGHT, text(LEAST, True)),
        Column("where", width * 0.48),
        Column("how to sew it", width * 0.4, font=text(LEAST), colour=theme.SOFT),
    )
    yield from table(
        columns, [(thick, "; ".join(where), how) for (thick, how), where in alike.items()]
    )


# -- the map of the lines -----------------------------------------------------------------


def quilt_blocks(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    """One panel's lines with their spacing, the order of sewing, and what it will become."""
    yield heading(f"Quilting: {panel.panel.label.lower()}{_also(plan, panel)}")
    row = (
        (quilt_picture(plan, panel, "lines", ""), "Spacing; broken: the trim", 0.5),
        (quilt_picture(plan, panel, "sewing", ""), "Order and direction", 0.5),
    )
    yield pictures(row, 92, width)
    for entry in panel.quilt.sets:
        yield paragraph(line_words(plan, panel, entry), width)
    yield gap(1)
    yield from _figures(plan, panel, width)
    if panel.draw.fitted is not None:
        said = trust(panel.draw.fitted, prior_of(panel.materials))
        words = f"What stands behind the drawing in: {said.words}"
        yield paragraph(words, width, LEAST, theme.SOFT)


_SHOWN = (
    "quilt.sewn",
    "quilt.length",
    "quilt.top",
    "quilt.bobbin",
    "quilt.bobbins",
    "quilt.minutes",
    "quilt.expected.width",
    "quilt.least.width",
    "quilt.expected.height",
    "quilt.least.height",
    "quilt.leans",
)


def _figures(plan: Plan, panel: PanelPlan, width: float) -> Iterator[Block]:
    notation = plan.marks.notation
    found = {reading.key: reading.figure for reading in quilt_readings(plan, panel)}
    figures = [found[key] for key in _SHOWN if key in found]
    columns = (
        Column("", width * 0.3, font=text(10)),
        Column("", width * 0.16, RIGHT, text(10, True)),
        Column("", width * 0.54, font=text(LEAST), colour=theme.SOFT),
    )
    yield from table(
        columns,
        [
            (figure.label, value_text(figure, notation), working(figure, notation))
            for figure in figures
        ],
    )
    yield gap(2)


# -- the swatch sheet ------------------------------------------------------------------------


_BLANKS = (
    "date",
    "layers",
    "pattern, gap, angle",
    "width before",
    "height before",
    "diagonal ╱ before",
    "diagonal ╲ before",
    "width after",
    "height after",
    "diagonal ╱ after",
    "diagonal ╲ after",
    "minutes",
    "thread, needle, foot",
)
COLUMNS = 4
FIRST, ROW = 40.0, 11.0  # mm of the form


def swatch_blocks(plan: Plan, width: float) -> Iterator[Block]:
    """How to sew swatches for this bag, and a form to write down four of them."""
    yield heading("Swatches")
    panel = quilted(plan)[0]
    entry = panel.quilt.sets[0]
    what = ", ".join(layer.label.lower() for layer in panel.layers[1:]) or "no batting"
    made = swatch_plan(entry.gap, plan.marks.notation, what, entry.name)
    for at, step in enumerate(told(made.steps, plan.marks.notation), start=1):
        yield paragraph(f"{at}. {step}", width)
    words = "Three swatches at different gaps teach most. Write them into the logbook (Ctrl+L)."
    yield paragraph(words, width)
    yield gap(3)
    yield Block(7 + ROW * len(_BLANKS), _form, tag="P")


def _form(sheet: Sheet) -> None:
    wide = (sheet.inner - FIRST) / COLUMNS
    for at in range(COLUMNS):
        sheet.words(f"swatch {at + 1}", text(10, True), MARGIN + FIRST + at * wide, wide, 6)
    sheet.y += 7
    for name in _BLANKS:
        sheet.words(name, text(10), MARGIN, FIRST, ROW)
        for at in range(COLUMNS):
            x = MARGIN + FIRST + at * wide
            sheet.frame(x, sheet.y + 0.8, wide - 3, ROW - 1.6, dashed=True)
        sheet.y += ROW
