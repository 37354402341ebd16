"""The shipped faces: figures in them are lining and tabular, on screen, on paper and in a PDF that
is searched (see ``tools/make_fonts.py``)."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFont, QFontDatabase, QFontMetricsF

from tessil.drawing import theme

_FILES = (
    "TessilText-Regular.otf",
    "TessilText-Medium.otf",
    "TessilText-SemiBold.otf",
    "TessilTitle-Regular.ttf",
    "TessilTitle-Medium.ttf",
    "TessilTitle-SemiBold.ttf",
)
WRAP = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap)
_loaded: list[int] = []


def load_fonts() -> None:
    """Register the shipped faces with Qt, once for the application."""
    if _loaded:
        return
    folder = Path(__file__).parents[1] / "fonts"
    for name in _FILES:
        _loaded.append(QFontDatabase.addApplicationFontFromData((folder / name).read_bytes()))


@lru_cache(maxsize=256)
def _font(face: str, pixels: float, weight: QFont.Weight) -> QFont:
    """A shared font: treat it as frozen."""
    font = QFont(face)
    font.setPixelSize(max(1, round(pixels)))
    font.setWeight(weight)
    return font


def text_font(pixels: float | None = None, strong: bool = False) -> QFont:
    """The reading face."""
    weight = QFont.Weight.DemiBold if strong else QFont.Weight.Normal
    return _font(theme.TEXT_FACE, pixels or theme.TEXT, weight)


def medium_font(pixels: float | None = None) -> QFont:
    """The reading face, a shade stronger, for names of things."""
    return _font(theme.TEXT_FACE, pixels or theme.TEXT, QFont.Weight.Medium)


def title_font(pixels: float | None = None, strong: bool = False) -> QFont:
    """The face of titles and large figures."""
    weight = QFont.Weight.DemiBold if strong else QFont.Weight.Medium
    return _font(theme.TITLE_FACE, pixels or theme.TITLE, weight)


@lru_cache(maxsize=4096)
def wrapped_height(face: str, pixels: float, weight: QFont.Weight, wide: int, words: str) -> float:
    """How high words are in that width, in pixels; measured once, since layouts ask many times."""
    room = QRectF(0, 0, wide, 10_000)
    return QFontMetricsF(_font(face, pixels, weight)).boundingRect(room, WRAP, words).height()


def text_height(words: str, wide: float, pixels: float, strong: bool = False) -> float:
    """How high words of the reading face are in that width; strong as names of things are."""
    weight = QFont.Weight.Medium if strong else QFont.Weight.Normal
    return wrapped_height(theme.TEXT_FACE, pixels, weight, int(wide), words)
