"""Outlines of panels: rectangles with notches cut from corners and at folds, and rounding.

Clockwise from the top left, y downwards.  Must not know which bag they are for.
"""

from __future__ import annotations

from math import cos, pi, sin
from typing import Literal

from tessil.core.bag.ids import CutOut, EdgeKey, Half
from tessil.core.bag.model import Edge, ExactPoint, Finish
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side
from tessil.core.numbers.workings import Basis, Figure, given

NONE = given("no seam", 0, Basis.GEOMETRY)
Style = Literal["square", "round", "envelope"]  # of top corners
STYLES: tuple[Style, ...] = ("square", "round", "envelope")
Cut = tuple[Inches, Inches]  # how far in along x, how far along y
FoldCut = tuple[Inches, Inches, Inches]
Rim = tuple[Finish, Figure]  # what becomes of an edge, and what its seam takes
Rims = dict[Side, Rim]  # finish and allowance of top, right, bottom, left


class Notches(Record, frozen=True):
    """Rectangles cut out: at both bottom corners, both top corners, and at one or two level folds.

    A fold is (in along x, half the height, the fold's y).  ``seam`` is the box corner's.
    """

    bottom: Cut | None = None
    top: Cut | None = None
    folds: tuple[FoldCut, ...] = ()
    seam: Figure = NONE


_WHOLE = Notches()


def panel_edges(size: Cut, rims: Rims, notches: Notches = _WHOLE) -> tuple[Edge, ...]:
    """The edges of a panel; a side broken by a fold notch has an upper and a lower part."""
    width, height = size
    steps = _steps(width, height, notches)
    points = [point for point, _ in steps]
    ends = points[1:] + points[:1]
    return tuple(
        Edge(key, start, end, *(("seam", notches.seam) if key.notch else rims[key.side]))
        for (start, key), end in zip(steps, ends, strict=True)
    )


def _steps(w: Inches, h: Inches, cut: Notches) -> list[tuple[ExactPoint, EdgeKey]]:
    """Where each edge starts, and which it is, clockwise."""
    zero = Fraction(0)
    tx, ty = cut.top or (zero, zero)
    bx, by = cut.bottom or (zero, zero)
    steps: list[tuple[ExactPoint, EdgeKey]] = [((tx, zero), EdgeKey("top"))]
    if cut.top:
        steps += [
            ((w - tx, zero), EdgeKey("right", "top corner", "upright")),
            ((w - tx, ty), EdgeKey("right", "top corner", "level")),
        ]
    steps += _side("right", w, ty, h - by, cut)
    if cut.bottom:
        steps += [
            ((w, h - by), EdgeKey("right", "corner", "level")),
            ((w - bx, h - by), EdgeKey("right", "corner", "upright")),
        ]
    steps.append(((w - bx, h), EdgeKey("bottom")))
    if cut.bottom:
        steps += [
            ((bx, h), EdgeKey("left", "corner", "upright")),
            ((bx, h - by), EdgeKey("left", "corner", "level")),
        ]
    steps += _side("left", w, ty, h - by, cut)
    if cut.top:
        steps += [
            ((zero, ty), EdgeKey("left", "top corner", "level")),
            ((tx, ty), EdgeKey("left", "top corner", "upright")),
        ]
    return steps


def _side(
    side: Literal["left", "right"], w: Inches, top: Inches, bottom: Inches, cut: Notches
) -> list[tuple[ExactPoint, EdgeKey]]:
    outer = w if side == "right" else Fraction(0)
    start = top if side == "right" else bottom
    if not cut.folds:
        return [((outer, start), EdgeKey(side))]
    parts, names = _PARTS[len(cut.folds)]
    steps = [((outer, top), EdgeKey(side, half=parts[0]))]
    for at, ((into, half, fold), name) in enumerate(zip(cut.folds, names, strict=True)):
        inner = w - into if side == "right" else into
        above, below = fold - half, fold + half
        steps += [
            ((outer, above), EdgeKey(side, name, "level", "upper")),
            ((inner, above), EdgeKey(side, name, "upright")),
            ((inner, below), EdgeKey(side, name, "level", "lower")),
            ((outer, below), EdgeKey(side, half=parts[at + 1])),
        ]
    if side == "right":
        return steps
    # Up the left side: each edge begins where, going down, it ends.
    ends = [point for point, _ in steps[1:]] + [(outer, bottom)]
    return [(end, key) for end, (_, key) in zip(reversed(ends), reversed(steps), strict=True)]


_PARTS: dict[int, tuple[tuple[Half, ...], tuple[CutOut, ...]]] = {
    1: (("upper", "lower"), ("fold",)),
    2: (("upper", "middle", "lower"), ("upper fold", "lower fold")),
}


def style_named(name: str) -> Style:
    """The style of that name, as an option of a shape has it."""
    return next(style for style in STYLES if style == name)


ARC = 8  # straight pieces to a quarter round: within 0.005 of a radius


def shaped_top(size: Cut, rims: Rims, style: Style, by: Inches) -> tuple[Edge, ...]:
    """A rectangle whose two top corners are square, rounded by a radius, or clipped.

    An envelope's corners are clipped to half the width each, ``by`` high.  Points of an arc
    are rational approximations, on the radius to within a ten-thousandth of an inch.
    """
    width, height = size
    if style == "square" or by == 0:
        return panel_edges(size, rims)
    left = _corner_points(style, width, by)
    right = [(width - x, y) for x, y in reversed(left)]
    points = [*left, *right, (width, height), (Fraction(0), height)]
    top, side, bottom = rims["top"], rims["right"], rims["bottom"]
    curved = len(left) - 1
    keys: list[tuple[EdgeKey, Rim]] = [
        *((EdgeKey("left", "curve", step=i + 1), top) for i in range(curved)),
        (EdgeKey("top"), top),
        *((EdgeKey("right", "curve", step=i + 1), top) for i in range(curved)),
        (EdgeKey("right"), side),
        (EdgeKey("bottom"), bottom),
        (EdgeKey("left"), rims["left"]),
    ]
    ends = points[1:] + points[:1]
    return tuple(
        Edge(key, start, end, *rim)
        for (key, rim), start, end in zip(keys, points, ends, strict=True)
        if start != end or key == EdgeKey("top")
    )


def _corner_points(style: Style, width: Inches, by: Inches) -> list[ExactPoint]:
    """From the left edge up to the top edge."""
    if style == "envelope":
        tip = width * 3 / 8
        return [(Fraction(0), by), (tip, Fraction(0))]
    radius = min(by, width / 2)
    return [(radius * x, radius * y) for x, y in _QUARTER]


def _quarter_round() -> tuple[ExactPoint, ...]:
    """A quarter circle of radius 1 from the left tangent up to the top one."""
    angles = [pi + step * pi / 2 / ARC for step in range(1, ARC)]
    between = [
        (
            1 + Fraction(cos(angle)).limit_denominator(10_000),
            1 + Fraction(sin(angle)).limit_denominator(10_000),
        )
        for angle in angles
    ]
    return ((Fraction(0), Fraction(1)), *between, (Fraction(1), Fraction(0)))


_QUARTER = _quarter_round()
