"""How much quilting draws a panel in.

Two causes: cloth riding over the loft between lines (a flat arc of rise a over gap p is
longer than its chord by ``8/3·(a/p)²``), and a little per line, d.  Across the lines
``e = 8/3·(a/p)² + d/p``, along them g.  Constants are starting values, from memory, until
there are swatches; so a strain is a range.  See docs/shrinkage.md.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import cache

from tessil.core.catalogue import Material, material
from tessil.core.workings import Basis, Figure, from_mm, given, number, squared


@dataclass(frozen=True, slots=True)
class Strain:
    """The share of a length lost in one direction: expected, least and most."""

    expected: Figure
    least: Figure
    most: Figure

    def with_more(self, across: Strain, sine: Figure, along: Strain, cosine: Figure) -> Strain:
        """This one and that of another set of lines on a slant: ``sine`` and ``cosine`` are
        the squares for the angle between this direction and those lines (plane strain)."""
        parts = ("expected", "least", "most")
        return Strain(*(
            (getattr(self, part) + getattr(across, part) * sine + getattr(along, part) * cosine)
            .called(getattr(self, part).label, "percent")
            for part in parts
        ))  # fmt: skip


@dataclass(frozen=True, slots=True)
class Constants:
    """The model's constants for one batting, as figures."""

    rise: Figure
    draw: Figure
    along: Figure
    unsure: Figure


@cache
def constants(key: str) -> Constants:
    """The starting constants of a batting, by catalogue key."""
    return _constants(material(key))


@cache
def bare_constants() -> Constants:
    """Two cloths with no batting between: no loft to ride over, but every line draws in."""
    guess = Basis.GUESS
    return Constants(
        rise=from_mm("rise over the loft", Fraction(0), guess),
        draw=from_mm("drawn in per line", Fraction(35, 100), guess),
        along=given("drawn in along a line", Fraction(5, 1000), guess, 0, "percent"),
        unsure=given("may miss by", Fraction(1, 2), guess, 0, "percent"),
    )


def _constants(batting: Material) -> Constants:
    guess = Basis.GUESS
    return Constants(
        rise=from_mm("rise over the loft", batting.rise_mm, guess),
        draw=from_mm("drawn in per line", batting.draw_mm, guess),
        along=given("drawn in along a line", batting.along, guess, 0, "percent"),
        unsure=given("may miss by", batting.unsure, guess, 0, "percent"),
    )


NO_STRAIN = Strain(*(number(0).called("draws in", "percent"),) * 3)


def _range(expected: Figure, unsure: Figure, label: str) -> Strain:
    named = expected.called(label, "percent")
    return Strain(
        named,
        (named * (1 - unsure)).called(f"{label}, at least", "percent"),
        (named * (1 + unsure)).called(f"{label}, at most", "percent"),
    )


def across_lines(gap: Figure, known: Constants) -> Strain:
    """What is lost across one set of lines a ``gap`` apart."""
    strain = number(8) / 3 * squared(known.rise / gap) + known.draw / gap
    return _range(strain, known.unsure, "draws in across")


def along_lines(known: Constants) -> Strain:
    """What is lost along the lines."""
    return _range(known.along, known.unsure, "draws in along")
