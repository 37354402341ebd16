"""The general model of a bag in pieces: panels, their edges, joins, folds and matches.

Every shape speaks it, and every later question (what is sewn to what, what must be equal,
what ends upside-down) is asked of it.  Lengths are exact inches on the *trimmed* panel,
origin at its top left corner, x to the right, y downwards, outlines clockwise as drawn.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from tessil.core.lengths import Inches
from tessil.core.workings import Figure

Point = tuple[Inches, Inches]
Finish = Literal["seam", "bound", "turned", "zip", "free"]


@dataclass(frozen=True, slots=True)
class Edge:
    """One side of an outline, from its start to the next corner.

    ``allowance`` is what the seam along it takes; ``finish`` what becomes of it.
    """

    name: str
    start: Point
    end: Point
    finish: Finish
    allowance: Inches

    @property
    def length_squared(self) -> Fraction:
        return (self.end[0] - self.start[0]) ** 2 + (self.end[1] - self.start[1]) ** 2


@dataclass(frozen=True, slots=True)
class Fold:
    """A line on a panel where the finished bag turns."""

    name: str
    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class Notch:
    """A rectangle cut from a corner: side leg along x, bottom leg along y."""

    corner: Literal["left", "right"]
    side_leg: Figure
    bottom_leg: Figure


@dataclass(frozen=True, slots=True)
class Panel:
    """One panel of the bag at its trimmed size.

    ``like`` names the panel whose choices it shares until it is given its own; ``kind``
    tells outer panels (pieced, layered, quilted) from linings (cut from one cloth).
    """

    key: str
    label: str
    kind: Literal["outer", "lining"]
    width: Figure
    height: Figure
    edges: tuple[Edge, ...]
    folds: tuple[Fold, ...] = ()
    notches: tuple[Notch, ...] = ()
    like: str = ""
    copies: int = 1

    @property
    def outline(self) -> tuple[Point, ...]:
        return tuple(edge.start for edge in self.edges)

    def edge(self, name: str) -> Edge:
        """The edge of that name; raises KeyError if the panel has none."""
        for edge in self.edges:
            if edge.name == name:
                return edge
        raise KeyError(f"{self.key} has no edge {name!r}")

    def allowance(self, side: Literal["left", "right", "top", "bottom"]) -> Inches:
        return self.edge(side).allowance


@dataclass(frozen=True, slots=True)
class EdgeRef:
    """An edge of a panel, as one part of a join."""

    panel: str
    edge: str


@dataclass(frozen=True, slots=True)
class Join:
    """Edges sewn to edges: the two runs must have the same sewn length."""

    name: str
    one: tuple[EdgeRef, ...]
    other: tuple[EdgeRef, ...]
    allowance: Inches


@dataclass(frozen=True, slots=True)
class Match:
    """A panel that must follow another: what the leader becomes, it becomes."""

    leader: str
    follower: str
    rule: str


@dataclass(frozen=True, slots=True)
class Bag:
    """A bag in pieces, with the size it will have and what it offers inside."""

    shape: str
    panels: tuple[Panel, ...]
    joins: tuple[Join, ...]
    matches: tuple[Match, ...]
    finished: tuple[Figure, ...]
    figures: tuple[Figure, ...]
    opening: Figure | None = None
    boxed: bool = False

    def panel(self, key: str) -> Panel:
        """The panel of that key; raises KeyError if there is none."""
        for panel in self.panels:
            if panel.key == key:
                return panel
        raise KeyError(f"no panel {key!r}")


def rectangle(
    width: Inches, height: Inches, finishes: dict[str, tuple[Finish, Inches]]
) -> tuple[Edge, ...]:
    """The four edges of a plain panel: top, right, bottom, left."""
    zero = Fraction(0)
    corners = {
        "top": ((zero, zero), (width, zero)),
        "right": ((width, zero), (width, height)),
        "bottom": ((width, height), (zero, height)),
        "left": ((zero, height), (zero, zero)),
    }
    return tuple(Edge(name, *corners[name], *finishes[name]) for name in corners)
