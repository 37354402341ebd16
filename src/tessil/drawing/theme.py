"""Every colour and size of Tessil's look: cut paper, chalk and thread.  Knows no Qt.

Pairs meant as text on ground keep a contrast of 4.5:1 or more; a test checks them.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

PAPER = "#f3ecdf"
SELVAGE = "#e8deca"
CARD = "#fdfaf3"
MAT = "#ece3d2"
RULE = "#d9cdb6"
INK = "#262a33"
SOFT = "#645d52"
FAINT = "#716a5d"
THREAD = "#a92b3c"
THREAD_WASH = "#f5e2e0"
MEASURED = "#1d6656"
MEASURED_WASH = "#e0eee7"
WARNING = "#8a5a00"
WARNING_WASH = "#fbf0dc"
BLOCKING = "#8c2f14"
BATTING = "#fbfaf6"
LINING = "#e3d8c4"
CHALK = "#ffffff"
SHADE = "#262a33"

RADIUS = 6

# Sizes of text on screen, in pixels at the usual size; they move with the maker's setting.
SMALL, TEXT, FIGURE, TITLE, LARGE = _TEXTS = (11, 13, 18, 22, 28)
READING = 11  # of words in a picture, in its own reading sizes
_scale = 1.0

TEXT_FACE = "Tessil Text"
TITLE_FACE = "Tessil Title"


def px(pixels: float) -> int:
    """A length on screen that moves with the size of texts."""
    return round(pixels * _scale)


def scale() -> float:
    """How large texts on screen are, as a share of the usual size."""
    return _scale


def set_scale(share: float) -> None:
    """How large texts and what holds them are on screen, as a share of the usual size."""
    global _scale, SMALL, TEXT, FIGURE, TITLE, LARGE
    _scale = share
    SMALL, TEXT, FIGURE, TITLE, LARGE = (px(size) for size in _TEXTS)


@contextmanager
def usual_size() -> Iterator[None]:
    """On paper and in files the size of texts on screen is of no account."""
    kept = _scale
    set_scale(1.0)
    try:
        yield
    finally:
        set_scale(kept)
