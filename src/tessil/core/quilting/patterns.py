"""The patterns of quilting, one record each: how its lines lie, what it asks, what it is called.

Everything else about a pattern (clipping, order of sewing, thread, draw-in, drawing, fields, tests)
is driven from here.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, given
from tessil.core.quilting.choice import Pattern, Quilting
from tessil.core.quilting.filling import lay_meander, lay_repeat, lay_rows
from tessil.core.quilting.seams import SeamLine
from tessil.core.quilting.sets import (
    LineSet,
    Region,
    check_gaps,
    lay_beside,
    lay_channels,
    lay_diagonal,
    lay_diamonds,
    lay_ditch,
    lay_echo,
    lay_grid,
)
from tessil.core.quilting.shrinkage import Family
from tessil.core.trouble import CannotPlan

Sets = tuple[LineSet, ...]
Asked = Literal["run", "angle", "offset", "gap", "gap_other", "spacing", "wide", "free"]


class QuiltPattern(Record, frozen=True):
    """One pattern.

    ``lay`` puts its lines into a region, given the seams of the patchwork; ``wished`` is what it
    takes by its wish alone, before there is a panel to even it out on; ``asks`` which of the
    fields it has.  ``by_seams`` tells whether its lines follow seams: always, or where they shall
    hit them.  ``other`` is what the lines of ``gap_other`` are called.
    """

    key: Pattern
    name: str
    lay: Callable[[Region, Quilting, tuple[SeamLine, ...]], Sets]
    wished: Callable[[Quilting], tuple[Family, ...]]
    asks: tuple[Asked, ...]
    by_seams: Literal["never", "to hit", "always"] = "never"
    other: str = "The other way"

    def follows_seams(self, choice: Quilting) -> bool:
        """Whether, as chosen, its gaps hang on where the seams lie."""
        return self.by_seams == "always" or (self.by_seams == "to hit" and choice.spacing == "hit")


def _gap(choice: Quilting, angle: float) -> Family:
    return Family("", angle, given("wished gap", choice.gap))


def _other_gap(choice: Quilting, angle: float) -> Family:
    if choice.gap_other is None:
        return _gap(choice, angle)
    return Family("", angle, given("wished gap, other way", choice.gap_other))


def _as_grid(choice: Quilting) -> tuple[Family, ...]:
    return _gap(choice, 90.0), _other_gap(choice, 0.0)


def _as_channels(choice: Quilting) -> tuple[Family, ...]:
    return (_gap(choice, 90.0 if choice.run == "upright" else 0.0),)


def _as_diagonal(choice: Quilting) -> tuple[Family, ...]:
    return (_gap(choice, float(choice.angle)),)


def _as_diamonds(choice: Quilting) -> tuple[Family, ...]:
    angle = abs(float(choice.angle))
    return _gap(choice, angle), _other_gap(choice, -angle)


def _as_filling(choice: Quilting) -> tuple[Family, ...]:
    """Half of it upright, half level."""
    half = given("half of it each way", Fraction(1, 2), Basis.PRACTICE, 0)
    return tuple(replace(_gap(choice, angle), share=half) for angle in (90.0, 0.0))


PATTERNS: dict[Pattern, QuiltPattern] = {
    pattern.key: pattern
    for pattern in (
        QuiltPattern(
            "channels", "channels", lay_channels, _as_channels, ("run", "gap", "spacing"), "to hit"
        ),
        QuiltPattern(
            "grid",
            "grid",
            lay_grid,
            _as_grid,
            ("gap", "gap_other", "spacing"),
            "to hit",
            "Level lines",
        ),
        QuiltPattern(
            "diagonal",
            "slanted lines, one way",
            lay_diagonal,
            _as_diagonal,
            ("angle", "gap", "spacing"),
        ),
        QuiltPattern(
            "diamonds",
            "diamonds",
            lay_diamonds,
            _as_diamonds,
            ("angle", "gap", "gap_other", "spacing"),
        ),
        QuiltPattern("ditch", "in the seams", lay_ditch, _as_grid, (), "always"),
        QuiltPattern("offset", "beside the seams", lay_beside, _as_grid, ("offset",), "always"),
        QuiltPattern(
            "ditch-rows",
            "in the seams, rows between",
            lay_rows,
            _as_grid,
            ("run", "gap", "wide"),
            "always",
        ),
        QuiltPattern("echo", "echo of the outline", lay_echo, _as_grid, ("gap",)),
        QuiltPattern("meander", "a wandering line", lay_meander, _as_filling, ("gap", "free")),
        QuiltPattern("repeat", "rings, repeated", lay_repeat, _as_filling, ("gap", "free")),
        QuiltPattern("none", "none", lambda region, choice, seams: (), lambda choice: (), ()),
    )
}


def sets_in(region: Region, choice: Quilting, seams: tuple[SeamLine, ...]) -> Sets:
    """The sets of one part; raises CannotPlan for gaps that make no sense."""
    if choice.pattern == "none":
        return ()
    if region.right <= region.left or region.bottom <= region.top:
        raise CannotPlan(
            f"{region.field}.gap", "Seams take all of this panel: nothing is left to quilt."
        )
    check_gaps(region, choice)
    return PATTERNS[choice.pattern].lay(region, choice, seams)


def wished_families(choice: Quilting) -> tuple[Family, ...]:
    """The families of a pattern at its wished gaps; seams followed count as a grid."""
    return PATTERNS[choice.pattern].wished(choice)
