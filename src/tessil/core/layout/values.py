"""How light or dark a print is, as the eye takes it from a little way off.

Lightness is CIE 1976 L*, from sRGB after IEC 61966-2-1; a drawn print is its ground and its ink
by the share that the motif covers (measured on the drawn tiles, by a test).
"""

from __future__ import annotations

from collections.abc import Sequence

from tessil.core.catalogue.prints import Print

COVERS = {
    "plain": 0.03,
    "dots": 0.08,
    "checks": 0.28,
    "sprigs": 0.07,
    "ticking": 0.32,
    "waves": 0.14,
    "plaid": 0.31,
    "notes": 0.06,
    "stars": 0.07,
    "leaves": 0.07,
    "birds": 0.10,
    "rings": 0.17,
}
WORDS = ("dark", "medium", "light")


def _linear(channel: int) -> float:
    share = channel / 255
    return share / 12.92 if share <= 0.04045 else float(((share + 0.055) / 1.055) ** 2.4)


def luminance(colour: str) -> float:
    """Relative luminance of a ``#rrggbb`` colour, 0 to 1."""
    red, green, blue = (_linear(int(colour[at : at + 2], 16)) for at in (1, 3, 5))
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def lightness(share: float) -> float:
    """L* of a relative luminance, 0 to 100."""
    if share > (6 / 29) ** 3:
        return float(116 * share ** (1 / 3) - 16)
    return share * (29 / 3) ** 3


def value_of(cloth: Print) -> float:
    """The lightness of a print, 0 (black) to 100 (white)."""
    if cloth.photo is not None:
        return lightness(luminance(cloth.photo.mean))
    covers = COVERS[cloth.motif]
    mixed = luminance(cloth.ground) * (1 - covers) + luminance(cloth.ink) * covers
    return lightness(mixed)


def value_word(cloth: Print) -> str:
    """Dark, medium or light: thirds of the scale."""
    return WORDS[min(int(value_of(cloth) * 3 / 100), 2)]


def classes_of(prints: Sequence[Print]) -> list[int]:
    """The prints of a basket in three classes of equal number, dark to light; in two where
    there are two or three."""
    kinds = 3 if len(prints) > 3 else 2
    order = sorted(range(len(prints)), key=lambda at: value_of(prints[at]))
    found = [0] * len(prints)
    for rank, at in enumerate(order):
        found[at] = rank * kinds // len(prints)
    return found


def ranks_of(prints: Sequence[Print]) -> list[int]:
    """0 for the darkest, and so on."""
    order = sorted(range(len(prints)), key=lambda at: value_of(prints[at]))
    found = [0] * len(prints)
    for rank, at in enumerate(order):
        found[at] = rank
    return found
