"""Full-size templates of every panel: outline, stitch line, folds, notches, marks, middles, an
arrow that points up.  Tiled on A4 or Letter with edges that overlap, or each on one large page.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, hypot

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QColor, QPageSize, QPainter, QPen, QPolygonF

from tessil.core.bag.model import Edge
from tessil.core.numbers.polygons import box_of
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.files.flow import Block
from tessil.files.printing import FOOT, HEAD, Pages, paper_for, room_on
from tessil.files.sheet import FINE, LEAST, MARGIN, MM_PER_INCH, Sheet, text, title

OVERLAP = 12.0  # mm that neighbouring tiles share
MIDDLE = int(Qt.AlignmentFlag.AlignCenter)
SQUARE = 50.0  # mm: the side of the square to check the printer with
EDGE = 4.0  # mm round a panel on its page
Mm = tuple[float, float]


class Tile(Record, frozen=True):
    """One page of a panel: which column and row of how many, and what of the panel it shows, in
    millimetres from the panel's corner."""

    column: int
    row: int
    columns: int
    rows: int
    x: float
    y: float

    @property
    def name(self) -> str:
        """``B3``: the second column, the third row."""
        return f"{chr(ord('A') + self.column)}{self.row + 1}"


def tiles_for(wide: float, high: float, room: tuple[float, float]) -> Iterator[Tile]:
    """The pages of a panel that size, row by row; neighbours share ``OVERLAP``."""
    step = (room[0] - OVERLAP, room[1] - OVERLAP)
    columns = max(ceil((wide + 2 * EDGE - OVERLAP) / step[0]), 1)
    rows = max(ceil((high + 2 * EDGE - OVERLAP) / step[1]), 1)
    for row in range(rows):
        for column in range(columns):
            x, y = column * step[0] - EDGE, row * step[1] - EDGE
            yield Tile(column, row, columns, rows, x, y)


def templates(plan: Plan, large: bool = False) -> Pages:
    """Every panel at its own size, with a square to check the printer by."""
    load_fonts()
    paper = _one_page(plan) if large else paper_for(plan.project.units)
    with theme.usual_size():
        room = room_on(paper)
        every = [(panel, tile) for panel in plan.panels for tile in _tiles(panel, room)]
        pages = [[_tile(plan, panel, tile, room)] for panel, tile in every]
        flipped = [panel for panel in plan.panels if _is_flipped(panel)]
        pages += [[_flip_sheet(panel, t, room)] for panel in flipped for t in _sheets(panel, room)]
    said = "Templates at full size: cut on the outline, sew on the broken line"
    return Pages(plan.project.name, said, paper, tuple(pages))


def _tiles(panel: PanelPlan, room: tuple[float, float]) -> Iterator[Tile]:
    wide, high = (float(value) * MM_PER_INCH for value in panel.trimmed.values())
    yield from tiles_for(wide, high, room)


def _is_flipped(panel: PanelPlan) -> bool:
    """Whether some of it is flipped and sewn on what lies under it."""
    return any(part.choice.way == "flip" for part in panel.parts)


def _sheets(panel: PanelPlan, room: tuple[float, float]) -> Iterator[Tile]:
    wide, high = (float(value) * MM_PER_INCH for value in panel.planned.values())
    yield from tiles_for(wide, high, room)


def _flip_sheet(panel: PanelPlan, tile: Tile, room: tuple[float, float]) -> Block:
    """What strips are flipped and sewn on, as large as it is pieced: lines and their order."""

    def paint(sheet: Sheet) -> None:
        pen = _Pen(sheet, tile, room)
        painter = pen.sheet.painter
        painter.save()
        pen.clip()
        _flip_lines(panel, pen)
        painter.restore()
        _joins(sheet, tile, pen)
        if not tile.row and not tile.column:
            _square(sheet, pen, float(panel.planned.height.value) * MM_PER_INCH / 2)

    return Block(room[1], paint, tag="Figure", words=_said(panel, tile, "its foundation"))


def _said(panel: PanelPlan, tile: Tile, what: str) -> str:
    return f"{panel.panel.label}, {what} at full size: row {tile.row + 1}, sheet {tile.column + 1}"


def _flip_lines(panel: PanelPlan, pen: _Pen) -> None:
    """The outline that is stitched first, the line of every strip, its number; sections apart."""
    outline = [panel.pieced_at(float(x), float(y)) for x, y in panel.panel.outline]
    pen.ink(0.4).drawPolygon(QPolygonF([pen.at(_mm(point)) for point in outline]))
    divided = len(panel.parts) > 1
    for patch in panel.patches:
        if panel.parts[patch.zone].choice.way != "flip" or patch.piece < 0:
            continue
        corners = tuple(_mm(point) for point in patch.outline)
        pen.ink(0.2, Qt.PenStyle.DashLine).drawPolygon(QPolygonF([pen.at(p) for p in corners]))
        left, top, right, bottom = box_of(corners)
        name = f"{chr(ord('A') + patch.zone)}{patch.name}" if divided else patch.name
        pen.words(name, ((left + right) / 2, (top + bottom) / 2), 12, strong=True)
    wide, _ = (float(value) * MM_PER_INCH for value in panel.planned.values())
    said = f"{panel.panel.label}: flip and sew by the numbers, on the broken lines"
    pen.words(said, (wide / 2, 6.0), 10)


def _one_page(plan: Plan) -> QPageSize:
    """A page on which the largest panel has room."""
    sizes = [panel.trimmed.floats() for panel in plan.panels]
    sizes += [panel.planned.floats() for panel in plan.panels if _is_flipped(panel)]
    wide = max(width for width, _ in sizes) * MM_PER_INCH + 2 * (MARGIN + EDGE)
    high = max(height for _, height in sizes) * MM_PER_INCH + 2 * (MARGIN + EDGE) + HEAD + FOOT
    size = QSizeF(max(wide, 210.0), max(high, 297.0))
    exactly = QPageSize.SizeMatchPolicy.ExactMatch
    return QPageSize(size, QPageSize.Unit.Millimeter, "one large page", exactly)


def _tile(plan: Plan, panel: PanelPlan, tile: Tile, room: tuple[float, float]) -> Block:
    def paint(sheet: Sheet) -> None:
        pen = _Pen(sheet, tile, room)
        _panel(plan, panel, pen)
        _joins(sheet, tile, pen)
        if not tile.row and not tile.column:
            _square(sheet, pen, float(panel.trimmed.height.value) * MM_PER_INCH / 2)

    return Block(room[1], paint, tag="Figure", words=_said(panel, tile, "its template"))


class _Pen:
    """Draws on one tile in millimetres of the panel; nothing is drawn beyond the tile."""

    def __init__(self, sheet: Sheet, tile: Tile, room: tuple[float, float]) -> None:
        self.sheet, self.tile, self.room = sheet, tile, room
        self.left, self.top = MARGIN, sheet.y

    def at(self, point: Mm) -> QPointF:
        """Where a place on the panel lies on the page."""
        x, y = point[0] - self.tile.x + self.left, point[1] - self.tile.y + self.top
        return QPointF(x * FINE, y * FINE)

    def ink(self, width: float, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> QPainter:
        """The painter with such a pen, clipped to the tile."""
        painter = self.sheet.painter
        painter.setPen(QPen(QColor(theme.INK), width * FINE, style))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        return painter

    def clip(self) -> None:
        """From now on nothing beyond the tile."""
        box = QRectF(self.left * FINE, self.top * FINE, self.room[0] * FINE, self.room[1] * FINE)
        self.sheet.painter.setClipRect(box)

    def line(
        self, start: Mm, end: Mm, width: float, style: Qt.PenStyle = Qt.PenStyle.SolidLine
    ) -> None:
        """A straight line between two places on the panel."""
        self.ink(width, style).drawLine(self.at(start), self.at(end))

    def words(self, said: str, at: Mm, points: float = 10, strong: bool = False) -> None:
        """Words round a place on the panel."""
        place = self.at(at)
        self.sheet.painter.setFont(title(points) if strong else text(points))
        box = QRectF(place.x() - 60 * FINE, place.y() - 6 * FINE, 120 * FINE, 12 * FINE)
        self.sheet.painter.drawText(box, MIDDLE, said)


def _panel(plan: Plan, panel: PanelPlan, pen: _Pen) -> None:
    painter = pen.sheet.painter
    painter.save()
    pen.clip()
    outline = [_mm(point) for point in panel.panel.outline]
    pen.ink(0.4).drawPolygon(QPolygonF([pen.at(point) for point in outline]))
    for edge in panel.panel.edges:
        for start, end in _stitch(edge):
            pen.line(start, end, 0.25, Qt.PenStyle.DashLine)
    for fold in panel.panel.folds:
        pen.line(_mm(fold.start), _mm(fold.end), 0.25, Qt.PenStyle.DashDotLine)
    wide, high = (float(value) * MM_PER_INCH for value in panel.trimmed.values())
    _middles(pen, wide, high)
    _corners(panel, pen)
    _marks(plan, panel, pen)
    _named(plan, panel, pen, wide, high)
    painter.restore()


def _mm(point: tuple[object, object]) -> Mm:
    return float(point[0]) * MM_PER_INCH, float(point[1]) * MM_PER_INCH  # type: ignore[arg-type]


def _stitch(edge: Edge) -> Iterator[tuple[Mm, Mm]]:
    """The line on which an edge is sewn; none where it is bound or stays as it is."""
    if edge.finish in ("bound", "free") or not edge.allowance.value:
        return
    (x, y), (right, down) = _mm(edge.start), _mm(edge.end)
    long = hypot(right - x, down - y)
    if not long:
        return
    off = float(edge.allowance.value) * MM_PER_INCH / long
    dx, dy = (y - down) * off, (right - x) * off
    yield (x + dx, y + dy), (right + dx, down + dy)


def _middles(pen: _Pen, wide: float, high: float) -> None:
    """A short line in the middle of every side."""
    for start, end in (
        ((wide / 2, 0.0), (wide / 2, 6.0)),
        ((wide / 2, high), (wide / 2, high - 6.0)),
        ((0.0, high / 2), (6.0, high / 2)),
        ((wide, high / 2), (wide - 6.0, high / 2)),
    ):
        pen.line(start, end, 0.3)


def _corners(panel: PanelPlan, pen: _Pen) -> None:
    """Corners that are drawn and not cut."""
    for notch in panel.panel.notches:
        if not notch.cut:
            x, y = _mm((notch.x, notch.y))
            wide, high = _mm((notch.width, notch.height))
            pen.line((x, y), (x + wide, y), 0.25, Qt.PenStyle.DotLine)
            pen.line((x + wide, y), (x + wide, y + high), 0.25, Qt.PenStyle.DotLine)
            pen.line((x, y + high), (x + wide, y + high), 0.25, Qt.PenStyle.DotLine)
            pen.line((x, y), (x, y + high), 0.25, Qt.PenStyle.DotLine)


def _marks(plan: Plan, panel: PanelPlan, pen: _Pen) -> None:
    for mark in plan.marks_on(panel.key):
        x, y, wide, high = (float(value) * MM_PER_INCH for value in mark.box)
        pen.ink(0.25, Qt.PenStyle.DashDotDotLine).drawRect(
            QRectF(pen.at((x, y)), pen.at((x + wide, y + high)))
        )
        x, y, wide, high = (float(value) * MM_PER_INCH for value in mark.box)
        pen.words(mark.label.lower(), (x + wide / 2, y + high / 2), LEAST)


def _named(plan: Plan, panel: PanelPlan, pen: _Pen, wide: float, high: float) -> None:
    """What it is, how many, which size, and which way is up; on every tile."""
    read = plan.marks.notation.size
    middle = (wide / 2, high / 2 - 14)
    pen.ink(0.3)
    pen.words(panel.panel.label, middle, 16, strong=True)
    number = panel.panel.copies * plan.project.made
    size = read(panel.trimmed.width.value, panel.trimmed.height.value)
    pen.words(f"cut {number}, {size}, trimmed", (middle[0], middle[1] + 9), 10)
    top, end = (wide / 2, high / 2 + 4), (wide / 2, high / 2 + 26)
    pen.line(end, top, 0.4)
    pen.line(top, (top[0] - 3, top[1] + 5), 0.4)
    pen.line(top, (top[0] + 3, top[1] + 5), 0.4)
    pen.words("up", (end[0], end[1] + 5), LEAST)


def _joins(sheet: Sheet, tile: Tile, pen: _Pen) -> None:
    """Where the neighbouring pages go on, and which this one is."""
    wide, high = pen.room
    thin = Qt.PenStyle.DotLine
    lines = []
    if tile.column:
        lines.append(((OVERLAP, 0.0), (OVERLAP, high)))
    if tile.column < tile.columns - 1:
        lines.append(((wide - OVERLAP, 0.0), (wide - OVERLAP, high)))
    if tile.row:
        lines.append(((0.0, OVERLAP), (wide, OVERLAP)))
    if tile.row < tile.rows - 1:
        lines.append(((0.0, high - OVERLAP), (wide, high - OVERLAP)))
    for start, end in lines:
        moved = [(x + tile.x, y + tile.y) for x, y in (start, end)]
        pen.line(moved[0], moved[1], 0.15, thin)
    if tile.columns * tile.rows > 1:
        at = (tile.x + wide - OVERLAP - 12, tile.y + high - OVERLAP - 8)
        last = f"{chr(ord('A') + tile.columns - 1)}{tile.rows}"
        pen.words(f"{tile.name} of {last}", at, 12, strong=True)


def _square(sheet: Sheet, pen: _Pen, name_at: float) -> None:
    """A square that must measure what it says, clear of the panel's name ``name_at`` mm down."""
    down = name_at - pen.tile.y
    x = MARGIN + (pen.room[0] - SQUARE) / 2
    y = sheet.y + (40 if down > SQUARE + 65 else min(down + 40, pen.room[1] - SQUARE - 20))
    sheet.frame(x, y, SQUARE, SQUARE)
    words = "50 mm (1.97 in) each way"
    sheet.painter.setFont(text(LEAST))
    sheet.painter.setPen(QColor(theme.SOFT))
    sheet.painter.drawText(sheet.box(x, y, SQUARE, SQUARE), MIDDLE, words)
