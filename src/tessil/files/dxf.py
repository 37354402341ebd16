"""The cutting plan as DXF: cloths side by side, their pieces and cuts on layers of their own.

Plain text of the format's twelfth release, which every reader takes: closed polylines, lines and
words, y upwards, in the maker's own unit.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from tessil.core.cutting.acts.whole import Spread
from tessil.core.numbers.lengths import IN_PER, Inches, Units
from tessil.core.sheets.cuts import Box
from tessil.drawing.cuttingview import name_of

LAYERS = ("CLOTH", "PIECES", "CUTS", "NAMES")
APART = 4  # inches between cloths
HIGH = 0.6  # of words, inches
CODES = {"inch": 1, "metric": 4}  # of $INSUNITS: inches, millimetres
Pair = tuple[int, object]
At = Callable[[Inches, Inches], tuple[float, float]]


def cutting_dxf(spreads: Sequence[Spread], units: Units) -> str:
    """All cloths of the plan of the cuts."""
    per_inch = 1.0 if units == "inch" else float(1 / IN_PER["mm"])
    pairs = [*_head(units), *_entities(spreads, per_inch), (0, "EOF")]
    return "".join(f"{code:>3}\n{value}\n" for code, value in pairs)


def _head(units: Units) -> Iterator[Pair]:
    yield from ((0, "SECTION"), (2, "HEADER"), (9, "$ACADVER"), (1, "AC1009"))
    yield from ((9, "$INSUNITS"), (70, CODES[units]), (0, "ENDSEC"))
    yield from ((0, "SECTION"), (2, "TABLES"), (0, "TABLE"), (2, "LAYER"), (70, len(LAYERS)))
    for layer in LAYERS:
        yield from ((0, "LAYER"), (2, layer), (70, 0), (62, 7), (6, "CONTINUOUS"))
    yield from ((0, "ENDTAB"), (0, "ENDSEC"))


def _entities(spreads: Sequence[Spread], per_inch: float) -> Iterator[Pair]:
    yield from ((0, "SECTION"), (2, "ENTITIES"))
    left = 0.0
    for spread in spreads:
        yield from _cloth(spread, left, per_inch)
        left += float(spread.sheet.width) + APART
    yield (0, "ENDSEC")


def _cloth(spread: Spread, left: float, per_inch: float) -> Iterator[Pair]:
    """One cloth as it lies: its width to the right, its length upwards."""

    def at(x: Inches, y: Inches) -> tuple[float, float]:
        return (left + float(x)) * per_inch, float(y) * per_inch

    zero = spread.sheet.width * 0
    whole = Box(zero, zero, spread.sheet.width, spread.sheet.length)
    yield from _frame("CLOTH", whole, at)
    yield from _words(at(zero, zero - 1), spread.lot.name, per_inch)
    for one in spread.pieces:
        yield from _frame("PIECES", one.box, at)
        middle = at(one.box.x + one.box.w / 10, one.box.y + one.box.h / 2)
        yield from _words(middle, name_of(one), per_inch)
    for cut in spread.parting.cuts:
        if cut.way == "across":
            ends = at(cut.begins, cut.at), at(cut.ends, cut.at)
        else:
            ends = at(cut.at, cut.begins), at(cut.at, cut.ends)
        yield from ((0, "LINE"), (8, "CUTS"))
        for plus, (x, y) in enumerate(ends):
            yield from ((10 + plus, _number(x)), (20 + plus, _number(y)))


def _number(value: float) -> str:
    return f"{value:.6f}"


def _frame(layer: str, box: Box, at: At) -> Iterator[Pair]:
    """A closed outline of four corners."""
    yield from ((0, "POLYLINE"), (8, layer), (66, 1), (70, 1))
    for x, y in ((box.x, box.y), (box.right, box.y), (box.right, box.end), (box.x, box.end)):
        across, up = at(x, y)
        yield from ((0, "VERTEX"), (8, layer), (10, _number(across)), (20, _number(up)))
    yield (0, "SEQEND")


def _words(place: tuple[float, float], words: str, per_inch: float) -> Iterator[Pair]:
    """Words in letters that the format takes."""
    plain = words.encode("ascii", "replace").decode("ascii").replace("\n", " ")
    yield from ((0, "TEXT"), (8, "NAMES"), (10, _number(place[0])), (20, _number(place[1])))
    yield from ((40, _number(HIGH * per_inch)), (1, plain))
