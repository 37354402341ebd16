"""How much quilting draws a panel in, both ways, and how far it makes it lean.

Two causes: cloth riding over the loft between lines (a flat arc of rise a over gap p is
longer than its chord by ``8/3·(a/p)²``), and a little per line, d.  Across the lines
``e = 8/3·(a/p)² + d/p``, along them g.  Lines at an angle turn that strain like any plane
strain; sets of lines add; one-way slanted lines leave a shear, the lean.  Constants are
starting values, from memory, until there are swatches.  See docs/shrinkage.md.
"""

from __future__ import annotations

from functools import lru_cache
from math import cos, radians, sin

from tessil.core.catalogue import Material
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH, write_degrees
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, from_mm, given, no_less, number, squared
from tessil.core.quilting.fitting import Fitted, Prior, Triple, unlearned

FINE = 10**6
BARE_DRAW_MM = Fraction(35, 100)
BARE_ALONG = Fraction(5, 1000)
# How far starting values may be off, as shares of themselves, and at least so much.
_SPREAD = (0.6, 0.3, 0.5)
_LEAST = (8 / 3 * (0.2 / 25.4) ** 2, 0.05 / 25.4, 0.002)


class Strain(Record, frozen=True):
    """The share of a length lost in one direction: expected, least and most."""

    expected: Figure
    least: Figure
    most: Figure
    miss: Figure


class Constants(Record, frozen=True):
    """The model's constants for one stack of layers, and how sure they are."""

    rise: Figure
    draw: Figure
    along: Figure
    fitted: Fitted

    @property
    def basis(self) -> Basis:
        return Basis.SWATCHES if self.fitted.swatches else Basis.GUESS


class Family(Record, frozen=True):
    """Parallel lines: ``angle`` in degrees to the width, rising to the right; ``share`` of the
    panel that they cover, None for all of it."""

    name: str
    angle: float
    gap: Figure
    share: Figure | None = None
    key: str = ""  # of the set of lines that it is


class FamilyDraw(Record, frozen=True):
    """What one family takes across its lines and along them."""

    family: Family
    across: Figure
    along: Figure


class Draw(Record, frozen=True):
    """What quilting does to a panel: x and y, and the lean (None where nothing leans).

    ``lean`` is a share of the height by which the top moves to the right over the bottom.
    """

    x: Strain
    y: Strain
    lean: Strain | None
    parts: tuple[FamilyDraw, ...]
    fitted: Fitted | None


def loft_materials(materials: tuple[Material, ...]) -> tuple[Material, ...]:
    """The layers that cloth rides over: what has loft, in order."""
    return tuple(entry for entry in materials if entry.kind == "batting")


def stack_key(materials: tuple[Material, ...]) -> str:
    """Under which name swatches of this stack stand: its lofty layers, or bare."""
    return "+".join(sorted(entry.key for entry in loft_materials(materials))) or "bare"


def starting(materials: tuple[Material, ...]) -> tuple[Fraction, Fraction, Fraction]:
    """Rise and draw in mm, and the share along: lofts add, the strongest draw counts."""
    lofty = loft_materials(materials)
    if not lofty:
        return Fraction(0), BARE_DRAW_MM, BARE_ALONG
    return (
        sum((entry.rise_mm for entry in lofty), start=Fraction(0)),
        max(entry.draw_mm for entry in lofty),
        max(entry.along for entry in lofty),
    )


def prior_of(materials: tuple[Material, ...]) -> Prior:
    """The starting values as what the fit begins with, in inches."""
    rise, draw, along = starting(materials)
    mean = (8 / 3 * float(rise / MM_PER_INCH) ** 2, float(draw / MM_PER_INCH), float(along))
    spread = tuple(
        max(share * value, least) for share, value, least in zip(_SPREAD, mean, _LEAST, strict=True)
    )
    return Prior(mean, spread)  # type: ignore[arg-type]


@lru_cache(maxsize=64)
def starting_constants(materials: tuple[Material, ...]) -> Constants:
    """The starting constants of a stack, with no swatch behind them."""
    rise, draw, along = starting(materials)
    guess = Basis.GUESS
    return Constants(
        rise=from_mm("rise over the loft", rise, guess),
        draw=from_mm("drawn in per line", draw, guess),
        along=given("drawn in along a line", along, guess, 0, "percent"),
        fitted=unlearned(prior_of(materials)),
    )


@lru_cache(maxsize=64)
def learned_constants(fitted: Fitted) -> Constants:
    """The constants that swatches have taught."""
    q, d, g = fitted.mean
    basis = Basis.SWATCHES
    return Constants(
        rise=from_mm("rise over the loft", _fine((3 / 8 * q) ** 0.5 * 25.4), basis),
        draw=from_mm("drawn in per line", _fine(d * 25.4), basis),
        along=given("drawn in along a line", _fine(g), basis, 0, "percent"),
        fitted=fitted,
    )


def _fine(value: float) -> Fraction:
    return Fraction(round(value * FINE), FINE)


def turned(angle: float) -> tuple[Fraction, Fraction, Fraction]:
    """sin², cos² and sin·cos of an angle in degrees, exact where it is straight."""
    if angle % 180 == 0:
        return Fraction(0), Fraction(1), Fraction(0)
    if angle % 90 == 0:
        return Fraction(1), Fraction(0), Fraction(0)
    s, c = sin(radians(angle)), cos(radians(angle))
    square = _fine(s * s)
    return square, 1 - square, _fine(s * c)


def row_of(family: Family) -> tuple[Triple, Triple, Triple]:
    """The family's rows in q, d, g for the loss of width, of height, and for the lean."""
    square, rest, product = (float(v) for v in turned(family.angle))
    share = 1.0 if family.share is None else float(family.share.value)
    gap = float(family.gap.value)
    a, b = share / gap**2, share / gap
    return (
        (a * square, b * square, share * rest),
        (a * rest, b * rest, share * square),
        (2 * a * product, 2 * b * product, -2 * share * product),
    )


def rows_of(families: tuple[Family, ...]) -> tuple[Triple, Triple, Triple]:
    """The rows of several families together: sets of lines add."""
    rows = [row_of(family) for family in families]
    return tuple(
        tuple(sum(row[way][part] for row in rows) for part in range(3)) for way in range(3)
    )  # type: ignore[return-value]


_NONE = number(0).called("draws in", "percent")
NO_STRAIN = Strain(_NONE, _NONE, _NONE, _NONE)
NO_DRAW = Draw(NO_STRAIN, NO_STRAIN, None, (), None)


def across_lines(gap: Figure, known: Constants) -> Figure:
    """What is lost across one set of lines a ``gap`` apart."""
    strain = number(8) / 3 * squared(known.rise / gap) + known.draw / gap
    return strain.called("draws in across", "percent")


def along_lines(known: Constants) -> Figure:
    """What is lost along the lines."""
    return known.along.called("draws in along", "percent")


def _part(family: Family, known: Constants) -> FamilyDraw:
    across = across_lines(family.gap, known)
    if family.name:
        across = across.called(f"draws in across {family.name}", "percent")
    return FamilyDraw(family, across, along_lines(known))


def _terms(part: FamilyDraw, way: int) -> list[Figure]:
    """The summands of one family for the width (0), the height (1) or the lean (2)."""
    square, rest, product = turned(part.family.angle)
    share = part.family.share
    angle = write_degrees(part.family.angle)

    def turn(value: Fraction, words: str, figure: Figure) -> list[Figure]:
        if value == 0:
            return []
        shared = figure if share is None else share * figure
        return [shared if value == 1 else given(words, value, Basis.GEOMETRY, 0) * shared]

    sine, cosine = f"sin² {angle}", f"cos² {angle}"
    if way == 0:
        return turn(square, sine, part.across) + turn(rest, cosine, part.along)
    if way == 1:
        return turn(rest, cosine, part.across) + turn(square, sine, part.along)
    return turn(2 * product, f"2 sin·cos {angle}", part.across - part.along)


def _summed(terms: list[Figure]) -> Figure:
    first, *others = terms
    for other in others:
        first = first + other
    return first


def _strain(terms: list[Figure], row: Triple, known: Constants, label: str, floor: bool) -> Strain:
    if not terms:
        return NO_STRAIN
    expected = _summed(terms).called(label, "percent")
    miss = given("may miss by", _fine(known.fitted.miss(row)), known.basis, 0, "percent")
    least = expected - miss
    if floor:
        least = no_less(least, number(0))
    return Strain(
        expected,
        least.called(f"{label}, at least", "percent"),
        (expected + miss).called(f"{label}, at most", "percent"),
        miss,
    )


def draw_in(families: tuple[Family, ...], known: Constants) -> Draw:
    """What all families together do to the width, the height and the squareness."""
    if not families:
        return NO_DRAW
    parts = tuple(_part(family, known) for family in families)
    rows = rows_of(families)
    terms = [[term for part in parts for term in _terms(part, way)] for way in range(3)]
    lean = None
    if terms[2]:
        lean = _strain(terms[2], rows[2], known, "leans", floor=False)
    return Draw(
        _strain(terms[0], rows[0], known, "width drawn in", floor=True),
        _strain(terms[1], rows[1], known, "height drawn in", floor=True),
        lean,
        parts,
        known.fitted,
    )
