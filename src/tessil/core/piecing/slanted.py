"""Strips at an angle, and strips flipped and sewn on a foundation or straight on the batting.

Lengths on a slant are chords of the outline, found in floats and rounded up to the ruler; all
that follows from them is exact again.  Common practice for overhang and order, no source.
"""

from __future__ import annotations

from math import cos, radians, sin

from tessil.core.bag.steps import Do, Step
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import write_degrees
from tessil.core.numbers.polygons import Vector, band, reach, rectangle
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline, Pair
from tessil.core.numbers.workings import HAIR, Basis, Figure, count, given, up_to
from tessil.core.piecing.choice import Piecing
from tessil.core.piecing.strips import Need, joining_of, plan_joined
from tessil.core.piecing.top import (
    CutPiece,
    Patch,
    Strips,
    Top,
    TopLine,
    Wish,
    laid_patch,
    sewing_order,
    trimming,
)
from tessil.core.trouble import CannotPlan

FINE = 10**6  # chords are measured to a millionth of an inch


class Slant(Record, frozen=True):
    """Which way strips run and which way they are counted, as unit vectors (y downwards)."""

    along: Vector
    across: Vector
    sine: Fraction
    cosine: Fraction


def slant_of(choice: Piecing) -> Slant:
    """The directions of level, upright or diagonal strips; a positive angle rises rightwards."""
    angle = {"level": 0.0, "upright": 90.0}.get(choice.run, float(choice.angle))
    s, c = sin(radians(angle)), cos(radians(angle))
    if choice.run != "diagonal":
        s, c = round(s), round(c)
    return Slant(
        (c, -s),
        (s, c),
        abs(Fraction(s).limit_denominator(FINE)),
        abs(Fraction(c).limit_denominator(FINE)),
    )


def _across(wish: Wish, slant: Slant) -> Figure:
    """How far the size reaches across the strips: W·sin + H·cos (geometry)."""
    need = wish.need
    if slant.sine == 0:
        return need.height
    if slant.cosine == 0:
        return need.width
    angle = write_degrees(float(abs(wish.choice.angle)))
    sine = given(f"sine of {angle}", slant.sine, Basis.GEOMETRY, 0)
    cosine = given(f"cosine of {angle}", slant.cosine, Basis.GEOMETRY, 0)
    return (need.width * sine + need.height * cosine).called("across the strips")


def chord(outline: Outline, slant: Slant, low: float, high: float) -> Fraction:
    """How long the outline is along the strips, anywhere between two lines across; 0 if it is
    not there."""
    part = band(outline, slant.across, low, high)
    if not part:
        return Fraction(0)
    first, last = reach(part, slant.along)
    return Fraction(round((last - first) * FINE), FINE)


def _low(strips: Strips, top: Outline, slant: Slant) -> float:
    """Where the first strip begins along ``across``: all of them centred on the top."""
    first, last = reach(top, slant.across)
    return (first + last) / 2 - float(strips.across.value) / 2


def _length(
    wish: Wish,
    outline: Outline,
    slant: Slant,
    raw: tuple[float, float],
    name: str,
    overhang: Figure | None,
) -> Figure:
    found = chord(outline, slant, *raw)
    figure = given(f"chord, strip {name}", found, Basis.GEOMETRY)
    if overhang is not None:
        figure = figure + 2 * overhang
    return up_to(figure, wish.marks.ruler, HAIR).called(f"strip {name}, length")


def diagonal_top(wish: Wish) -> Top:
    """Strips sewn side by side at an angle, and the size cut out of them."""
    slant = slant_of(wish.choice)
    need = Need(_across(wish, slant), wish.need.width, wish.seam, wish.field)
    strips = plan_joined(joining_of(wish.choice), need, wish.marks)
    top = rectangle(0, 0, *wish.need.floats())
    patches, lengths = _lay(wish, strips, slant, top, top, None)
    longest = max(lengths.values(), key=lambda figure: figure.value)
    return Top(
        size=wish.need,
        patches=patches,
        cuts=_cuts(strips, patches, lengths),
        lines=(
            TopLine("strips.number", strips.number, "Strips sewn side by side", "whole"),
            TopLine("strips.cut", strips.cut, "Cut width of each strip", "first"),
            TopLine("strips.across.need", need.across, "The panel's reach across the strips"),
            TopLine("strips.across", strips.across, "What they make"),
            TopLine("strips.longest", longest.called("longest strip"), "Chord of the panel"),
        ),
        order=sewing_order(
            Do("slant.join"), Do("slant.press", {"press": wish.choice.press}), Do("slant.cut")
        ),
        pieces=count("pieces", len(lengths), Basis.GEOMETRY),
        piece_size=(strips.widest, longest),
    )


def _lay(
    wish: Wish,
    strips: Strips,
    slant: Slant,
    top: Outline,
    outline: Outline,
    overhang: Figure | None,
    names: dict[int, str] | None = None,
) -> tuple[tuple[Patch, ...], dict[int, Figure]]:
    """The strips that show on the top, and the length each is cut."""
    low, seam = _low(strips, top, slant), float(wish.seam.value)
    patches, lengths, piece, row = [], {}, 0, 0
    for (start, end), kind in zip(strips.bands(wish.seam.value), strips.kinds, strict=True):
        begins, ends = low + float(start), low + float(end)
        shape = band(top, slant.across, begins, ends)
        if kind != "piece":
            if shape:
                patches.append(trimming(wish, shape, kind))
            continue
        name = names[piece] if names else str(piece + 1)
        if shape:
            patches.append(laid_patch(wish, shape, piece, row, 0, name))
            row += 1
            more = seam + (float(overhang.value) if overhang is not None else 0.0)
            raw = (begins - more, ends + more)
            lengths[piece] = _length(wish, outline, slant, raw, name, overhang)
        piece += 1
    return tuple(patches), lengths


def _cuts(
    strips: Strips, patches: tuple[Patch, ...], lengths: dict[int, Figure]
) -> tuple[CutPiece, ...]:
    widths = [c for c, kind in zip(strips.cuts, strips.kinds, strict=True) if kind == "piece"]
    found: dict[tuple[object, ...], CutPiece] = {}
    for patch in patches:
        if patch.piece < 0:
            continue
        length, cut = lengths[patch.piece], widths[patch.piece]
        key = (patch.print, length.value, cut.value)
        each = found[key].each + 1 if key in found else 1
        found[key] = CutPiece("strip", patch.print, each, length, cut)
    return tuple(found.values())


def middle_out(number: int) -> dict[int, str]:
    """The order of sewing from the middle to both sides: which strip is sewn how-manieth."""
    middle = (number - 1) // 2
    order = [middle]
    for step in range(1, number):
        order += [at for at in (middle + step, middle - step) if 0 <= at < number]
    return {at: str(turn) for turn, at in enumerate(order[:number], start=1)}


def flip_top(wish: Wish) -> Top:
    """Strips flipped and sewn, each reaching past the panel's outline by the overhang."""
    choice = wish.choice
    overhang = given("overhang", choice.overhang)
    if choice.overhang == 0:
        raise CannotPlan(
            f"{wish.field}.overhang",
            "A strip with no overhang leaves bare batting: ½ to 1 in (12 to 25 mm) is usual.",
        )
    slant = slant_of(choice)
    extent = (_across(wish, slant) + 2 * overhang).called("to cover, with overhang")
    strips = plan_joined(
        joining_of(choice), Need(extent, wish.need.width, wish.seam, wish.field), wish.marks
    )
    top = rectangle(0, 0, *wish.need.floats())
    number = strips.kinds.count("piece")
    names = middle_out(number)
    patches, lengths = _lay(wish, strips, slant, top, wish.outline or top, overhang, names)
    longest = max(lengths.values(), key=lambda figure: figure.value)
    return Top(
        size=Pair(wish.need.width, wish.need.height),
        patches=patches,
        cuts=_cuts(strips, patches, lengths),
        lines=(
            TopLine("strips.number", strips.number, "Strips flipped and sewn", "whole"),
            TopLine("strips.cut", strips.cut, "Cut width of each strip", "first"),
            TopLine("strips.shows", strips.shows, "From its own seam to the next one's"),
            TopLine("strips.across.need", extent, "What they must cover"),
            TopLine("strips.across", strips.across, "What they do cover"),
            TopLine("strips.longest", longest.called("longest strip"), "Chord and two overhangs"),
        ),
        order=_flip_order(choice, number),
        pieces=count("pieces", len(lengths), Basis.GEOMETRY),
        piece_size=(strips.widest, longest),
    )


_BASES = {
    "batting": "batting",
    "foundation": "foundation",
    "paper": "foundation paper",
    "melting": "printed foundation",
}


def _flip_order(choice: Piecing, number: int) -> tuple[Step, ...]:
    """Drawn or stitched on what it is sewn on, strip by strip from the middle; no iron on what
    melts."""
    base, on = _BASES[choice.foundation], choice.foundation
    sew = "flip.sew-finger" if on == "melting" else "flip.sew"
    lined = (Do("flip.line", {"base": base}),) if choice.lined else ()
    through = on == "batting" or choice.lined
    last = "flip.quilts" if through else "flip.torn" if on == "paper" else "flip.stays"
    return sewing_order(
        *lined,
        Do("flip.draw", {"base": base}),
        Do("flip.first", {"base": base}),
        Do("flip.next"),
        Do(sew, {"number": number}),
        Do(last, {"base": base}),
    )
