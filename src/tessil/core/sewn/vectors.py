"""Points and directions on a panel and in space: the few sums that facets need."""

from __future__ import annotations

from math import cos, radians, sin, sqrt
from typing import NamedTuple

Flat = tuple[float, float]  # on a panel: x to the right, y down
Space = tuple[float, float, float]  # x to the right, y up, z towards the one who looks


def plus(a: Space, b: Space, times: float = 1.0) -> Space:
    return a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2]


def minus(a: Space, b: Space) -> Space:
    return a[0] - b[0], a[1] - b[1], a[2] - b[2]


def scaled(a: Space, by: float) -> Space:
    return a[0] * by, a[1] * by, a[2] * by


def dot(a: Space, b: Space) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Space, b: Space) -> Space:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]


def long(a: Space) -> float:
    return sqrt(dot(a, a))


def unit(a: Space) -> Space:
    return scaled(a, 1 / long(a))


def turned(a: Space, axis: Space, degrees: float) -> Space:
    """A direction turned about an axis of length 1, by the right hand."""
    c, s = cos(radians(degrees)), sin(radians(degrees))
    across, along = cross(axis, a), dot(axis, a) * (1 - c)
    return plus(plus(scaled(a, c), across, s), axis, along)


class Pose(NamedTuple):
    """Where a flat piece lies: its origin, and which way its x and y go.

    ``right`` and ``down`` are of length 1 and square to each other, except on a facet that gives.
    """

    origin: Space
    right: Space
    down: Space

    def at(self, point: Flat) -> Space:
        """Where a point of the panel lies in space."""
        o, u, v, (x, y) = self.origin, self.right, self.down, point
        return o[0] + x * u[0] + y * v[0], o[1] + x * u[1] + y * v[1], o[2] + x * u[2] + y * v[2]

    def way(self, direction: Flat) -> Space:
        """Where a direction on the panel points in space."""
        return plus(scaled(self.right, direction[0]), self.down, direction[1])

    @property
    def out(self) -> Space:
        """Where the right side of the cloth looks."""
        return cross(self.down, self.right)

    def about(self, at: Space, axis: Space, degrees: float) -> Pose:
        """Turned about an axis of length 1 through a point."""
        origin = plus(at, turned(minus(self.origin, at), axis, degrees))
        return Pose(origin, turned(self.right, axis, degrees), turned(self.down, axis, degrees))

    def moved(self, by: Space) -> Pose:
        return Pose(plus(self.origin, by), self.right, self.down)
