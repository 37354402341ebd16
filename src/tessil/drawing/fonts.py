"""The shipped faces, and fonts made from them with tabular figures and real fractions."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

from PySide6.QtGui import QFont, QFontDatabase

from tessil.drawing import theme

_FILES = (
    "Inter-Regular.otf",
    "Inter-Medium.otf",
    "Inter-SemiBold.otf",
    "Vollkorn-Regular.ttf",
    "Vollkorn-Medium.ttf",
    "Vollkorn-SemiBold.ttf",
)
_loaded: list[int] = []


def load_fonts() -> None:
    """Register the shipped faces with Qt, once for the application."""
    if _loaded:
        return
    folder = files("tessil") / "fonts"
    for name in _FILES:
        _loaded.append(QFontDatabase.addApplicationFontFromData((folder / name).read_bytes()))


@lru_cache(maxsize=256)
def _font(face: str, pixels: float, weight: QFont.Weight, tabular: bool) -> QFont:
    """A shared font: treat it as frozen."""
    font = QFont(face)
    font.setPixelSize(max(1, round(pixels)))
    font.setWeight(weight)
    for feature in ("tnum", "lnum"):  # said both ways, or the application's font lends its own
        font.setFeature(QFont.Tag(feature), int(tabular))
    return font


def text_font(pixels: float | None = None, strong: bool = False, tabular: bool = True) -> QFont:
    """The reading face; plain figures where text goes to a file.

    Qt writes tabular figures to a PDF as private code points, which nobody can search or copy.
    """
    weight = QFont.Weight.DemiBold if strong else QFont.Weight.Normal
    return _font(theme.TEXT_FACE, pixels or theme.TEXT, weight, tabular)


def medium_font(pixels: float | None = None) -> QFont:
    """The reading face, a shade stronger, for names of things."""
    return _font(theme.TEXT_FACE, pixels or theme.TEXT, QFont.Weight.Medium, tabular=True)


def title_font(pixels: float | None = None, strong: bool = False, tabular: bool = True) -> QFont:
    """The face of titles and large figures."""
    weight = QFont.Weight.DemiBold if strong else QFont.Weight.Medium
    return _font(theme.TITLE_FACE, pixels or theme.TITLE, weight, tabular)
