"""A panel or the finished bag as SVG at true size: 96 units to the inch, so that it prints one to
one; the bag as PNG too."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QRectF, QSize
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtSvg import QSvgGenerator

from tessil.core.cutting.acts.whole import Spreads
from tessil.core.numbers.lengths import Notation
from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.cuttingview import cutting_picture
from tessil.drawing.fonts import load_fonts
from tessil.drawing.handview import in_hand
from tessil.drawing.painter import Surface, paint_picture
from tessil.drawing.picture import Picture
from tessil.drawing.pictures import View, hand_picture, picture_of
from tessil.drawing.projecting import Stand
from tessil.files.projectfile import write_export

PER_INCH = 96
FINE_POINTS, MOST_POINTS = 192, 2400  # of a PNG: to the inch, and at most along a side


def svg_bytes(plan: Plan, panel: str, stage: Stage = Stage.TRIM, leaf: str = "") -> bytes:
    """One panel at one stage and leaf; words and dimensions keep their reading size round it."""
    load_fonts()
    with theme.usual_size():
        return _painted(plan, panel, stage, leaf)


def _painted(plan: Plan, panel: str, stage: Stage, leaf: str) -> bytes:
    picture = picture_of(plan, View(stage, panel, leaf=leaf))
    name = f"{plan.project.name}: {plan.panel(panel).panel.label}, {stage}"
    return _drawn(picture, name)


def _drawn(picture: Picture, name: str) -> bytes:
    wide, high, surface = _laid_out(picture, PER_INCH)
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    made = QSvgGenerator()
    made.setOutputDevice(buffer)
    made.setResolution(PER_INCH)
    made.setSize(QSize(wide, high))
    made.setViewBox(QRectF(0, 0, wide, high))
    made.setTitle(name)
    made.setDescription(picture.caption)
    painter = QPainter(made)
    paint_picture(painter, picture, surface)
    painter.end()
    return bytes(buffer.data().data())


def _laid_out(picture: Picture, per_inch: float) -> tuple[int, int, Surface]:
    """Width and height with the room for words, and where the picture lies there."""
    unit = per_inch / PER_INCH
    left, top, right, bottom = (side * unit for side in picture.room)
    x, y, width, height = picture.box
    wide, high = width * per_inch + left + right, height * per_inch + top + bottom
    surface = Surface(left - x * per_inch, top - y * per_inch, per_inch, unit)
    return round(wide), round(high), surface


def cloth_svg(spreads: Spreads, at: int, notation: Notation) -> bytes:
    """One cloth of the plan of the cuts, to scale."""
    load_fonts()
    with theme.usual_size():
        picture = cutting_picture(spreads, at, False, notation)
        return _drawn(picture, f"{spreads.spreads[at].lot.name}: to cut")


def bag_svg(plan: Plan, stand: Stand) -> bytes:
    """The finished bag as it is looked at, to scale."""
    load_fonts()
    with theme.usual_size():
        return _drawn(hand_picture(in_hand(plan, stand)), f"{plan.project.name}: the bag")


def bag_png(plan: Plan, stand: Stand) -> bytes:
    """The same in points, on paper."""
    load_fonts()
    with theme.usual_size():
        picture = hand_picture(in_hand(plan, stand))
        points = min(FINE_POINTS, MOST_POINTS / max(*picture.box[2:], 1.0))
        wide, high, surface = _laid_out(picture, points)
        image = QImage(wide, high, QImage.Format.Format_ARGB32)
        image.fill(QColor(theme.CARD))
        painter = QPainter(image)
        paint_picture(painter, picture, surface)
        painter.end()
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(buffer, "PNG")  # type: ignore[call-overload]
    return bytes(buffer.data().data())


def save_bag(plan: Plan, stand: Stand, path: Path) -> None:
    """Write a view of the bag, as PNG if its name says so; FileTrouble if the disk refuses."""
    made = bag_png if path.suffix.lower() == ".png" else bag_svg
    write_export(path, made(plan, stand))


def save_svg(plan: Plan, panel: str, path: Path, stage: Stage = Stage.TRIM, leaf: str = "") -> None:
    """Write a panel; raises FileTrouble if the disk refuses."""
    write_export(path, svg_bytes(plan, panel, stage, leaf))
