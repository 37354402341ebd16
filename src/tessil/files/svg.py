"""A panel as SVG at its true size: 96 units to the inch, so that it prints one to one."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QRectF, QSize
from PySide6.QtGui import QPainter
from PySide6.QtSvg import QSvgGenerator

from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.drawing.painter import Surface, paint_picture
from tessil.drawing.pictures import View, picture_of
from tessil.files.projectfile import write_export

PER_INCH = 96


def svg_bytes(plan: Plan, panel: str, stage: Stage = Stage.TRIM, leaf: str = "") -> bytes:
    """One panel at one stage and leaf; words and dimensions keep their reading size round it."""
    load_fonts()
    with theme.usual_size():
        return _painted(plan, panel, stage, leaf)


def _painted(plan: Plan, panel: str, stage: Stage, leaf: str) -> bytes:
    picture = picture_of(plan, View(stage, panel, leaf=leaf))
    left, top, right, bottom = picture.room
    x, y, width, height = picture.box
    wide, high = width * PER_INCH + left + right, height * PER_INCH + top + bottom
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    made = QSvgGenerator()
    made.setOutputDevice(buffer)
    made.setResolution(PER_INCH)
    made.setSize(QSize(round(wide), round(high)))
    made.setViewBox(QRectF(0, 0, round(wide), round(high)))
    made.setTitle(f"{plan.project.name}: {plan.panel(panel).panel.label}, {stage}")
    made.setDescription(picture.caption)
    painter = QPainter(made)
    surface = Surface(left - x * PER_INCH, top - y * PER_INCH, PER_INCH)
    paint_picture(painter, picture, surface)
    painter.end()
    return bytes(buffer.data().data())


def save_svg(plan: Plan, panel: str, path: Path, stage: Stage = Stage.TRIM, leaf: str = "") -> None:
    """Write a panel; raises FileTrouble if the disk refuses."""
    write_export(path, svg_bytes(plan, panel, stage, leaf))
