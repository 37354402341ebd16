"""Outlines of panels: rectangles with notches cut from corners and at folds, and rounding.

Clockwise from the top left, y downwards.  Must not know which bag they are for.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from math import cos, pi, sin
from typing import Literal

from tessil.core.bag.model import Edge, Finish, Point
from tessil.core.numbers.lengths import Inches

Cut = tuple[Inches, Inches]  # how far in along x, how far along y
Rims = dict[str, tuple[Finish, Inches]]  # finish and allowance of top, right, bottom, left


@dataclass(frozen=True, slots=True)
class Notches:
    """Rectangles cut out: at both bottom corners, both top corners, and at a level fold.

    ``fold`` is (in along x, half the height, the fold's y).  ``seam`` is the box corner's.
    """

    bottom: Cut | None = None
    top: Cut | None = None
    fold: tuple[Inches, Inches, Inches] | None = None
    seam: Inches = Fraction(0)


_NONE = Notches()


def panel_edges(size: Cut, rims: Rims, notches: Notches = _NONE) -> tuple[Edge, ...]:
    """The edges of a panel; a side broken by a fold notch has an upper and a lower part."""
    width, height = size
    steps = _steps(width, height, notches)
    points = [point for point, _, _ in steps]
    ends = points[1:] + points[:1]
    return tuple(
        Edge(name, start, end, *(rims[side] if side else ("seam", notches.seam)))
        for (start, name, side), end in zip(steps, ends, strict=True)
    )


def _steps(w: Inches, h: Inches, cut: Notches) -> list[tuple[Point, str, str]]:
    """(start, edge name, side or nothing for a notch edge), clockwise."""
    zero = Fraction(0)
    tx, ty = cut.top or (zero, zero)
    bx, by = cut.bottom or (zero, zero)
    steps: list[tuple[Point, str, str]] = [((tx, zero), "top", "top")]
    if cut.top:
        steps += [
            ((w - tx, zero), "right top notch, upright", ""),
            ((w - tx, ty), "right top notch, level", ""),
        ]
    steps += _side("right", w, ty, h - by, cut)
    if cut.bottom:
        steps += [
            ((w, h - by), "right notch, level", ""),
            ((w - bx, h - by), "right notch, upright", ""),
        ]
    steps.append(((w - bx, h), "bottom", "bottom"))
    if cut.bottom:
        steps += [((bx, h), "left notch, upright", ""), ((bx, h - by), "left notch, level", "")]
    steps += _side("left", w, ty, h - by, cut)
    if cut.top:
        steps += [
            ((zero, ty), "left top notch, level", ""),
            ((tx, ty), "left top notch, upright", ""),
        ]
    return steps


def _side(
    side: Literal["left", "right"], w: Inches, top: Inches, bottom: Inches, cut: Notches
) -> list[tuple[Point, str, str]]:
    outer = w if side == "right" else Fraction(0)
    start = top if side == "right" else bottom
    if cut.fold is None:
        return [((outer, start), side, side)]
    into, half, at = cut.fold
    inner = w - into if side == "right" else into
    names = ["upper", "lower"] if side == "right" else ["lower", "upper"]
    ys = [at - half, at + half] if side == "right" else [at + half, at - half]
    return [
        ((outer, start), f"{side}, {names[0]}", side),
        ((outer, ys[0]), f"{side} fold notch, level {names[0]}", ""),
        ((inner, ys[0]), f"{side} fold notch, upright", ""),
        ((inner, ys[1]), f"{side} fold notch, level {names[1]}", ""),
        ((outer, ys[1]), f"{side}, {names[1]}", side),
    ]


ARC = 8  # straight pieces to a quarter round: within 0.005 of a radius


def shaped_top(
    size: Cut, rims: Rims, style: Literal["square", "round", "envelope"], by: Inches
) -> tuple[Edge, ...]:
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
    names: list[tuple[str, tuple[Finish, Inches]]] = [
        *((f"left top {i + 1}", top) for i in range(curved)),
        ("top", top),
        *((f"right top {i + 1}", top) for i in range(curved)),
        ("right", side),
        ("bottom", bottom),
        ("left", rims["left"]),
    ]
    ends = points[1:] + points[:1]
    return tuple(
        Edge(name, start, end, *rim)
        for (name, rim), start, end in zip(names, points, ends, strict=True)
        if start != end or name == "top"
    )


def _corner_points(style: str, width: Inches, by: Inches) -> list[Point]:
    """From the left edge up to the top edge."""
    if style == "envelope":
        tip = width * 3 / 8
        return [(Fraction(0), by), (tip, Fraction(0))]
    radius = min(by, width / 2)
    return [(radius * x, radius * y) for x, y in _QUARTER]


def _quarter_round() -> tuple[Point, ...]:
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
