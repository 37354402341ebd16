"""Channel lines: gaps that come out even, where the lines fall, what they are sewn at.

Positions are measured from the middle of the part that shows between the seam lines, in
the sewn state, so that what lies in the bag is even.  Must not know shapes.
"""

from __future__ import annotations

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import (
    Basis,
    Figure,
    count,
    floored,
    given,
    no_less,
    number,
    rounded,
)
from tessil.core.quilting.choice import Quilting
from tessil.core.trouble import CannotPlan

MOST_LINES = 500
CLEAR = Fraction(1, 8)  # a line stays this far from a seam line; common practice


class Channels(Record, frozen=True):
    """One set of lines: sewn gap, how many gaps and lines, margin to each seam line.

    ``positions`` run from the middle, in inches as sewn.
    """

    gap: Figure
    lines: Figure
    margin: Figure
    positions: tuple[Inches, ...]


def _even(wish: Figure, shows: Figure, centre: str) -> Figure:
    """How many gaps divide ``shows``: an even number puts a line on the middle."""
    if centre == "line":
        return no_less(2 * rounded(shows / (2 * wish)), number(2))
    return no_less(2 * rounded((shows / wish - 1) / 2) + 1, number(1))


def _divided(choice: Quilting, wish: Figure, shows: Figure) -> Channels:
    gaps = _even(wish, shows, choice.centre).called("gaps")
    gap = (shows / gaps).called("gap, as sewn")
    lines = (gaps - 1).called("lines")
    first = -gap.value * (gaps.whole - 2) / 2
    places = tuple(first + i * gap.value for i in range(lines.whole))
    return Channels(gap, lines, gap.called("margin to the seam line"), places)


def _kept(choice: Quilting, wish: Figure, shows: Figure) -> Channels:
    gap = wish.called("gap, as sewn")
    if choice.centre == "line":
        spans = (2 * floored(shows / 2 / gap)).called("gaps between lines")
    else:
        spans = (2 * floored((shows / 2 - gap / 2) / gap) + 1).called("gaps between lines")
    if spans.value < 0:
        spans = count("gaps between lines", 0, Basis.GEOMETRY)
    lines = (spans + 1).called("lines")
    margin = ((shows - spans * gap) / 2).called("margin to the seam line")
    first = -gap.value * spans.value / 2
    places = tuple(first + i * gap.value for i in range(lines.whole))
    return Channels(gap, lines, margin, places)


def plan_channels(choice: Quilting, shows: Figure, field: str) -> Channels:
    """The lines across a part ``shows`` wide; raises CannotPlan for absurd gaps."""
    wish = given("wished gap", choice.gap)
    if shows.value <= 0:
        raise CannotPlan(f"{field}.gap", "Seams take all of this panel: nothing is left to quilt.")
    if shows.value / choice.gap > MOST_LINES:
        raise CannotPlan(
            f"{field}.gap", f"That makes more than {MOST_LINES} lines: choose a wider gap."
        )
    if choice.gap < Fraction(1, 16):
        raise CannotPlan(f"{field}.gap", "Lines need at least 1/16 in (1.6 mm) between them.")
    return (_divided if choice.spacing == "divide" else _kept)(choice, wish, shows)
