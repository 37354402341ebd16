"""Worksheet pages of the sandwich and the quilting: layers, a map of the lines, a swatch sheet."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QPen

from tessil.core.choices import owner_key
from tessil.core.logbook.flow import trust
from tessil.core.panels import PanelPlan
from tessil.core.plan import Plan
from tessil.core.quilt_readings import guide_of, quilt_readings
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewing import swatch_plan
from tessil.core.quilting.shrinkage import prior_of
from tessil.core.sandwich.bulk import bulk_of
from tessil.core.workings import value_text, working
from tessil.drawing import theme
from tessil.drawing.layerview import bulk_picture, open_picture, rule_words
from tessil.drawing.painter import Surface, fitted, paint_picture
from tessil.drawing.picture import Picture
from tessil.drawing.quiltview import quilt_picture
from tessil.files.sheet import LEFT, MARGIN, RIGHT, Sheet


def _own(plan: Plan, panel: PanelPlan) -> bool:
    return panel.panel.kind == "outer" and owner_key(plan.project, panel.panel) == panel.key


def layered(plan: Plan) -> list[PanelPlan]:
    """The panels that have layers of their own to cut."""
    return [panel for panel in plan.panels if _own(plan, panel) and len(panel.layers) > 1]


def quilted(plan: Plan) -> list[PanelPlan]:
    """The panels that have lines of their own to sew."""
    return [panel for panel in plan.panels if _own(plan, panel) and panel.quilt.lines]


def _also(plan: Plan, panel: PanelPlan) -> str:
    like = [p.panel.label.lower() for p in plan.panels
            if p.panel.like == panel.key and p.key not in plan.project.panels]  # fmt: skip
    return f" and {' and '.join(like)}" if like else ""


def _title(sheet: Sheet, words: str) -> None:
    sheet.words(words, sheet.title(16), MARGIN, sheet.inner, 7)
    sheet.y += 9


def picture_in(sheet: Sheet, picture: Picture, x: float, width: float, high: float) -> None:
    """A picture in a box at the pen; the pen does not move."""
    unit = sheet.unit * 0.85
    place = fitted(picture, width * sheet.per_mm, high * sheet.per_mm, unit)
    left, top = x * sheet.per_mm, sheet.y * sheet.per_mm
    surface = Surface(place.left + left, place.top + top, place.per_inch, unit)
    paint_picture(sheet.painter, picture, surface)


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


def paint_sandwich(sheet: Sheet, plan: Plan, panel: PanelPlan) -> None:
    """The layers of one panel with their cut sizes, and how thick it gets at its seams."""
    _title(sheet, f"Layers: {panel.panel.label.lower()}{_also(plan, panel)}")
    high = sheet.height * 0.4
    picture_in(sheet, open_picture(plan, panel, -1), MARGIN, sheet.inner, high)
    sheet.y += high + 3
    notation = plan.marks.notation
    _table(sheet, ("layer", "cut, width × height", "how it is cut", "held by"), (26, 26, 28, 20), [
        (
            layer.label,
            notation.size(layer.width.value, layer.height.value),
            rule_words(layer.rule, plan) if layer.role != "top" else "as pieced",
            _BONDS[layer.bond] if layer.role != "top" else "",
        )
        for layer in panel.layers
    ])  # fmt: skip
    sheet.y += 4
    sheet.words("Under the foot", sheet.title(13), MARGIN, sheet.inner, 6)
    sheet.y += 7
    rest = sheet.height - sheet.y - MARGIN
    picture_in(sheet, bulk_picture(plan, panel, 0.85), MARGIN, sheet.inner * 0.46, rest)
    _thick(sheet, plan, panel, MARGIN + sheet.inner * 0.48)


_BONDS = {"fuse": "fusing", "spray": "spray", "glue": "glue", "pins": "pins", "itself": "itself"}


def _thick(sheet: Sheet, plan: Plan, panel: PanelPlan, x: float) -> None:
    seen: set[str] = set()
    for spot in sorted(bulk_of(plan, panel.key), key=lambda one: -one.mm):
        if spot.label in seen or len(seen) > 8:
            continue
        seen.add(spot.label)
        words = f"{float(spot.mm):.1f} mm  {spot.label}"
        sheet.words(words, sheet.text(9.5, True), x, sheet.inner * 0.52, 5)
        sheet.y += 4.6
        sheet.words(spot.advice.words, sheet.text(8.5), x, sheet.inner * 0.52, 4, LEFT, theme.SOFT)
        sheet.y += 5.2


def _table(sheet: Sheet, heads: Iterable[str], widths: tuple[int, ...],
           rows: list[tuple[str, ...]]) -> None:  # fmt: skip
    """A small table; widths are hundredths of the page."""

    def row(cells: Iterable[str], size: float, colour: str) -> None:
        x = MARGIN
        for cell, width in zip(cells, widths, strict=True):
            room = sheet.inner * width / 100
            sheet.words(cell, sheet.text(size), x, room - 2, 5.6, LEFT, colour)
            x += room

    row(heads, 9, theme.SOFT)
    sheet.y += 5.4
    for cells in rows:
        sheet.rule()
        row(cells, 10.5, theme.INK)
        sheet.y += 5.8


# -- the map of the lines -----------------------------------------------------------------


def paint_quilting(sheet: Sheet, plan: Plan, panel: PanelPlan) -> None:
    """One panel's lines with their spacing, the order of sewing, and what it will become."""
    _title(sheet, f"Quilting: {panel.panel.label.lower()}{_also(plan, panel)}")
    high = sheet.height * 0.36
    half = sheet.inner / 2
    for leaf, x in (("lines", MARGIN), ("sewing", MARGIN + half)):
        picture_in(sheet, quilt_picture(plan, panel, leaf, ""), x, half, high)
    sheet.y += high
    for words, x in (("Spacing; broken: the trim", MARGIN), ("Order and direction", MARGIN + half)):
        sheet.words(words, sheet.text(9), x, half, 4, colour=theme.SOFT)
    sheet.y += 7
    for entry in panel.quilt.sets:
        sheet.wrapped(line_words(plan, panel, entry), sheet.text(10), theme.INK)
    sheet.y += 1
    _figures(sheet, plan, panel)
    if panel.draw.fitted is not None:
        said = trust(panel.draw.fitted, prior_of(panel.materials))
        sheet.wrapped(f"What stands behind the drawing in: {said.words}", sheet.text(9))


_SHOWN = (
    "quilt.sewn", "quilt.length", "quilt.top", "quilt.bobbin", "quilt.bobbins", "quilt.minutes",
    "quilt.expected.width", "quilt.least.width", "quilt.expected.height", "quilt.least.height",
    "quilt.leans",
)  # fmt: skip


def _figures(sheet: Sheet, plan: Plan, panel: PanelPlan) -> None:
    notation = plan.marks.notation
    found = {reading.key: reading.figure for reading in quilt_readings(plan, panel)}
    for key in _SHOWN:
        figure = found.get(key)
        if figure is None:
            continue
        sheet.rule()
        sheet.words(figure.label, sheet.text(10), MARGIN, 52, 5.4)
        sheet.words(value_text(figure, notation), sheet.text(10.5, True), MARGIN + 52, 24, 5.4,
                    RIGHT)  # fmt: skip
        sheet.words(working(figure, notation), sheet.text(9), MARGIN + 80, sheet.inner - 80, 5.4,
                    LEFT, theme.SOFT)  # fmt: skip
        sheet.y += 5.4
    sheet.y += 2


# -- the swatch sheet ------------------------------------------------------------------------


_BLANKS = ("date", "layers", "pattern, gap, angle", "width before", "height before",
           "diagonal ╱ before", "diagonal ╲ before", "width after", "height after",
           "diagonal ╱ after", "diagonal ╲ after", "minutes", "thread, needle, foot")  # fmt: skip
COLUMNS = 4


def paint_swatch_sheet(sheet: Sheet, plan: Plan) -> None:
    """How to sew swatches for this bag, and a form to write down four of them."""
    _title(sheet, "Swatches")
    panel = quilted(plan)[0]
    entry = panel.quilt.sets[0]
    what = ", ".join(layer.label.lower() for layer in panel.layers[1:]) or "no batting"
    made = swatch_plan(entry.gap, plan.marks.notation, what, entry.name)
    for at, step in enumerate(made.steps, start=1):
        sheet.wrapped(f"{at}. {step}", sheet.text(10.5), theme.INK)
    words = "Three swatches at different gaps teach most. Write them into the logbook (Ctrl+L)."
    sheet.wrapped(words, sheet.text(10.5), theme.INK)
    sheet.y += 4
    _form(sheet)


def _form(sheet: Sheet) -> None:
    first, high = 40.0, 11.0
    wide = (sheet.inner - first) / COLUMNS
    for at in range(COLUMNS):
        sheet.words(f"swatch {at + 1}", sheet.text(10, True), MARGIN + first + at * wide, wide, 6)
    sheet.y += 7
    for name in _BLANKS:
        sheet.words(name, sheet.text(10), MARGIN, first, high)
        sheet.painter.setPen(QPen(QColor(theme.FAINT), 0.2 * sheet.per_mm, Qt.PenStyle.DashLine))
        sheet.painter.setBrush(Qt.BrushStyle.NoBrush)
        for at in range(COLUMNS):
            sheet.painter.drawRect(
                sheet.box(MARGIN + first + at * wide, sheet.y + 0.8, wide - 3, high - 1.6)
            )
        sheet.y += high
