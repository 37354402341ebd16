"""What the hand does to lines: draw one, move one, leave one out, put them back.

A pattern's line that is moved is left out of its pattern and drawn by hand instead.
"""

from __future__ import annotations

from typing import Any

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_near
from tessil.core.numbers.polygons import Vector
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.choice import MOST_DRAWN, DrawnLine
from tessil.core.quilting.seams import angle_of, ways

STRAIGHT = 4.0  # degrees within which a drawn line is made level or upright
SHORTEST = 0.25


def _set(plan: Plan, panel: PanelPlan, words: str, **changes: Any) -> Edit:
    pairs = ((f"quilting.{key}", value) for key, value in changes.items())
    return choose(plan.project, panel.panel, words, *pairs)


def _snapped(plan: Plan, value: float) -> Inches:
    return round_near(Fraction(round(value * 10000), 10000), plan.marks.ruler.value)


def _line(plan: Plan, one: Vector, other: Vector) -> DrawnLine:
    """A line with its ends on ruler marks, level or upright if it nearly is."""
    (x1, y1), (x2, y2) = one, other
    angle = angle_of(x2 - x1, y2 - y1)
    if abs(angle) < STRAIGHT:
        y1 = y2 = (y1 + y2) / 2
    elif 90 - abs(angle) < STRAIGHT:
        x1 = x2 = (x1 + x2) / 2
    ends = [_snapped(plan, value) for value in (x1, y1, x2, y2)]
    return DrawnLine(x1=ends[0], y1=ends[1], x2=ends[2], y2=ends[3])


def add_line(plan: Plan, panel: PanelPlan, one: Vector, other: Vector) -> Edit:
    """Draw a line between two points of the trimmed panel; nothing if they are one."""
    drawn = panel.choices.quilting.drawn
    if abs(one[0] - other[0]) + abs(one[1] - other[1]) < SHORTEST:
        return Edit("", ())
    if len(drawn) >= MOST_DRAWN:
        raise ValueError(f"So many lines by hand are enough: {MOST_DRAWN} at most.")
    return _set(plan, panel, "Draw a line", drawn=(*drawn, _line(plan, one, other)))


def leave_out(plan: Plan, panel: PanelPlan, key: str) -> Edit:
    """Take a line away: one by hand is gone, one of a pattern left out."""
    quilting = panel.choices.quilting
    at = hand_number(key)
    if at is not None:
        kept = (*quilting.drawn[:at], *quilting.drawn[at + 1 :])
        return _set(plan, panel, "Take a line away", drawn=kept)
    return _set(plan, panel, "Leave a line out", left_out=(*quilting.left_out, key))


def put_back(plan: Plan, panel: PanelPlan) -> Edit:
    """The pattern as it was: nothing left out, nothing by hand, nothing gone round."""
    zones = tuple(
        zone.model_copy(update={"quilting": zone.quilting.model_copy(update={"kept_free": ()})})
        for zone in panel.choices.quilt_zones
    )
    quilting = panel.choices.quilting
    changes = {"left_out": (), "drawn": (), "kept_free": ()}
    return choose(
        plan.project,
        panel.panel,
        "Put all lines back",
        ("quilting", quilting.model_copy(update=changes)),
        ("quilt_zones", zones),
    )


def hand_number(key: str) -> int | None:
    """Which of the lines by hand a key names; None for a pattern's."""
    head, _, number = key.partition(".")
    return int(number) if head == "drawn" else None


def move_line(plan: Plan, panel: PanelPlan, key: str, by: Vector) -> tuple[Edit, str]:
    """Move a line so far, square to itself, by ruler marks; and the key it has from then on."""
    line = panel.quilt.line(key)
    if line is None or line.bent:
        return Edit("", ()), key
    quilting = panel.choices.quilting
    (x1, y1), (x2, y2) = line.points[0], line.points[-1]
    angle = angle_of(x2 - x1, y2 - y1)
    _, (nx, ny) = ways(angle)
    step = float(_snapped(plan, by[0] * nx + by[1] * ny))
    moved = _moved(plan, (x1 + nx * step, y1 + ny * step), (x2 + nx * step, y2 + ny * step), angle)
    at = hand_number(key)
    if at is not None:
        drawn = (*quilting.drawn[:at], moved, *quilting.drawn[at + 1 :])
        return _set(plan, panel, "Move a line", drawn=drawn), key
    change = _set(
        plan,
        panel,
        "Move a line",
        drawn=(*quilting.drawn, moved),
        left_out=(*quilting.left_out, key),
    )
    return change, f"drawn.{len(quilting.drawn)}"


def _moved(plan: Plan, one: Vector, other: Vector, angle: float) -> DrawnLine:
    """Straight lines land on ruler marks, slanted ones keep their slant."""
    if angle in (0.0, 90.0):
        return _line(plan, one, other)
    fine = [Fraction(round(value * 1000), 1000) for value in (*one, *other)]
    return DrawnLine(x1=fine[0], y1=fine[1], x2=fine[2], y2=fine[3])
