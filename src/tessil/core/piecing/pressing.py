"""How pressing changes the thickness of a pieced top at its seams and crossings.

Counted in layers of cloth.  Pressed open, a seam is two layers each side of it; pressed to one
side it is three on that side and one on the other.  Where two seams cross, the layers of one
are each as many as the other makes them there: open 2 × 2; to the side and nested, of the three
layers one lies where its own seam is one thick and two where theirs are three, or the other way
about, so the thicker side has 3 + 3 + 1.
Common practice for the ways of pressing; the counting is geometry.
"""

from __future__ import annotations

from tessil.core.catalogue import material
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, from_mm


class Pressed(Record, frozen=True):
    """Layers and thickness of the top alone, under the presser foot."""

    seam: Figure
    crossing: Figure
    at_seam: Figure
    at_crossing: Figure


def pressed(way: str) -> Pressed:
    """The top at a seam and at a crossing, pressed ``open`` or to one ``side``."""
    one = count("layer", 1, Basis.GEOMETRY)
    allowance = count("allowances on it", 1 if way == "open" else 2, Basis.GEOMETRY)
    seam = (one + allowance).called("layers at a seam")
    if way == "open":
        crossing = (seam * seam).called("layers at a crossing")
    else:
        crossing = (2 * seam + one).called("layers at a crossing, nested")
    cotton = from_mm("cotton, pressed", material("cotton").pressed_mm, Basis.GUESS)
    return Pressed(
        seam=seam,
        crossing=crossing,
        at_seam=(seam * cotton).called("thick at a seam", "mm"),
        at_crossing=(crossing * cotton).called("thick at a crossing", "mm"),
    )
