"""Sewing the lines: their order, how long they are together, thread, bobbins and time.

A lockstitch of length p through thickness t takes about ``1 + t/p`` times the seam of each of
its two threads: p along the face and t through the layers (geometry of the ISO 4915 class 301
stitch, from memory; real seams take a tenth more or less with tension).
"""

from __future__ import annotations

from tessil.core.bag.steps import Do, Step, one_by_one
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import IN_PER, MM_PER_INCH, Notation
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import (
    Basis,
    Figure,
    ceiling,
    count,
    from_mm,
    given,
    root,
    squared,
    total,
    up_to,
)
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewn import QuiltLine

TOLERANCE = 1e-6
CM = IN_PER["cm"]


class Turn(Record, frozen=True):
    """One line in the order of sewing: which, from which of its ends, in which direction."""

    line: int  # its place among the panel's lines
    back: bool  # sewn from its last point to its first


class Stitching(Record, frozen=True):
    """What the lines of one panel take."""

    lines: Figure
    length: Figure
    top: Figure
    bobbin: Figure
    thread: Figure
    bobbins: Figure
    minutes: Figure
    order: tuple[Turn, ...]


def _number(entry: LineSet, lines: int) -> Figure:
    """The lines of one set: as it counts them, but for what a hollow outline parts in two or a
    corner cuts off."""
    off = lines - entry.lines.whole
    if not off:
        return entry.lines
    more = count("parted in two" if off > 0 else "off the corners", abs(off), Basis.GEOMETRY)
    made = entry.lines + more if off > 0 else entry.lines - more
    return made.called(f"{entry.name or 'lines'}, sewn")


def _group_length(entry: LineSet, lengths: list[float]) -> Figure:
    """The length of one set: so many times one line where they are alike."""
    name = entry.name if entry.name else "lines"
    if max(lengths) - min(lengths) < TOLERANCE and len(lengths) > 1:
        each = given("each", _inches(lengths[0]), Basis.GEOMETRY)
        return count(name, len(lengths), Basis.GEOMETRY) * each
    every = (given("a line", _inches(length), Basis.GEOMETRY) for length in lengths)
    return total(every).called(f"{name}, together")


def _inches(value: float) -> Fraction:
    return Fraction(round(value * 10000), 10000)


def _swung(entry: LineSet, length: Figure, stitch: Figure) -> Figure:
    """What a needle that swings from side to side sews along a line: for each stitch the slanted
    side of a triangle (geometry)."""
    if not entry.wide:
        return length
    swing = given("swings by", entry.wide)
    slant = root(squared(stitch) + squared(swing)) / stitch
    return (length * slant.called("longer by its swing")).called(f"{entry.name}, as stitched")


def stitching(
    sets: tuple[LineSet, ...],
    lines: tuple[QuiltLine, ...],
    thickness: Figure,
    stitch_mm: Fraction,
    pace: Figure,
    bobbin_m: float,
) -> Stitching | None:
    """Everything that sewing the lines takes; None where there are none."""
    groups: dict[int, list[float]] = {}
    for line in lines:
        groups.setdefault(line.group, []).append(line.length)
    if not groups:
        return None
    stitch = from_mm("stitch", stitch_mm, Basis.CHOSEN)
    parts = [
        _swung(sets[group], _group_length(sets[group], lengths), stitch)
        for group, lengths in sorted(groups.items())
    ]
    length = total(parts).called("stitched length")
    each = (length * (1 + thickness / stitch)).called("thread of each kind", "metres")
    holds = given(
        "a bobbin holds",
        fraction_of(str(bobbin_m)) * 1000 / MM_PER_INCH,
        Basis.GUESS,
        show="metres",
    )
    return Stitching(
        lines=total(
            [_number(sets[group], len(lengths)) for group, lengths in sorted(groups.items())]
        ).called("lines"),
        length=length,
        top=each.called("top thread", "metres"),
        bobbin=each.called("bobbin thread", "metres"),
        thread=(length * (2 * (1 + thickness / stitch))).called("thread, both together", "metres"),
        bobbins=ceiling(each / holds).called("bobbins"),
        minutes=(length / pace).called("time to sew", "minutes"),
        order=order_of(sets, lines),
    )


def order_of(sets: tuple[LineSet, ...], lines: tuple[QuiltLine, ...]) -> tuple[Turn, ...]:
    """Set by set, from the middle outwards, first one side and then the other; every other line
    is sewn the other way, so that what the feed pushes in one is taken back in the next."""
    turns: list[Turn] = []
    for group in range(len(sets)):
        mine = [at for at, line in enumerate(lines) if line.group == group]
        turns += _outwards(mine, [lines[at].offset for at in mine], back=len(turns) % 2 == 1)
    return tuple(turns)


def _outwards(mine: list[int], offsets: list[float], back: bool) -> list[Turn]:
    if not mine:
        return []
    middle = (min(offsets) + max(offsets)) / 2
    pairs = list(zip(mine, offsets, strict=True))
    after = sorted((p for p in pairs if p[1] >= middle - TOLERANCE), key=lambda p: p[1])
    before = sorted((p for p in pairs if p[1] < middle - TOLERANCE), key=lambda p: -p[1])
    turns = []
    for half in (after, before):
        for line, _ in half:
            turns.append(Turn(line, back))
            back = not back
    return turns


class SwatchPlan(Record, frozen=True):
    """A test swatch to sew: its size, and what to write down."""

    size: Figure
    steps: tuple[Step, ...]


def swatch_plan(gap: Figure, notation: Notation, what: str, pattern: str) -> SwatchPlan:
    """How to sew a swatch for one panel's quilting: ten gaps, between 8 and 14 in, or 20 and
    35 cm."""
    metric = notation.units == "metric"
    least, most, rim = (CM * 20, CM * 35, CM * 2) if metric else (Fraction(8), Fraction(14), 1)
    mark = given("mark", CM if metric else Fraction(1), Basis.GEOMETRY)
    ten = up_to(10 * gap, mark).called("ten gaps")
    size = given("swatch", max(least, min(ten.value, most)), Basis.PRACTICE)

    deeds = (
        Do("swatch.cut", {"layers": what, "side": size.value}),
        Do("swatch.draw", {"inner": size.value - rim}),
        Do("swatch.quilt", {"pattern": pattern, "gap": gap.value}),
        Do("swatch.measure"),
    )
    return SwatchPlan(size, one_by_one("swatch", (), deeds))
