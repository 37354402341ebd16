"""Where the words of a picture go: none on another, none outside, none on a ruler.

Knows boxes only.  Words keep their place if it is free; else they move a little aside, the nearest
free place first; where all is taken they are left out until there is room, by zooming in.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from tessil.core.numbers.records import Record

CELL = 64.0
GAP = 1.0
# Steps aside, in heights up or down and in widths to the left or right.
_ASIDE = (
    (0.0, 0.0),
    (0.0, -1.0),
    (0.0, 1.0),
    (-0.55, 0.0),
    (0.55, 0.0),
    (0.0, -2.0),
    (0.0, 2.0),
    (-1.1, 0.0),
    (1.1, 0.0),
    (-0.6, -1.0),
    (0.6, -1.0),
    (-0.6, 1.0),
    (0.6, 1.0),
    (0.0, -3.0),
    (0.0, 3.0),
)


class Box(Record, frozen=True):
    """A rectangle on the device: its left and top, its width and height."""

    left: float
    top: float
    width: float
    height: float

    @property
    def right(self) -> float:
        return self.left + self.width

    @property
    def bottom(self) -> float:
        return self.top + self.height

    def moved(self, dx: float, dy: float) -> Box:
        return Box(self.left + dx, self.top + dy, self.width, self.height)

    def meets(self, other: Box) -> bool:
        """Whether two boxes lie on one another."""
        return (
            self.left < other.right - GAP
            and other.left < self.right - GAP
            and self.top < other.bottom - GAP
            and other.top < self.bottom - GAP
        )

    def within(self, other: Box) -> Box | None:
        """The box pushed inside another, or None if it is too large, or lies off it altogether."""
        middle = self.left + self.width / 2, self.top + self.height / 2
        inside = other.left <= middle[0] <= other.right and other.top <= middle[1] <= other.bottom
        if not inside or self.width > other.width or self.height > other.height:
            return None
        left = min(max(self.left, other.left), other.right - self.width)
        top = min(max(self.top, other.top), other.bottom - self.height)
        return Box(left, top, self.width, self.height)


class Ground:
    """What is taken already, looked up by squares."""

    def __init__(self, bounds: Box | None, taken: Iterable[Box] = ()) -> None:
        self.bounds = bounds
        self.cells: dict[tuple[int, int], list[Box]] = {}
        for box in taken:
            self.take(box)

    def _cells(self, box: Box) -> Iterator[tuple[int, int]]:
        for x in range(int(box.left // CELL), int(box.right // CELL) + 1):
            for y in range(int(box.top // CELL), int(box.bottom // CELL) + 1):
                yield x, y

    def take(self, box: Box) -> None:
        """Something lies there."""
        for cell in self._cells(box):
            self.cells.setdefault(cell, []).append(box)

    def is_free(self, box: Box) -> bool:
        """Whether nothing lies there."""
        return not any(
            box.meets(other) for cell in self._cells(box) for other in self.cells.get(cell, ())
        )

    def place(self, box: Box, other: Ground | None = None) -> Box | None:
        """Take the nearest place for a box that is free, on ``other`` ground too; None if there is
        none near by."""
        for across, down in _ASIDE:
            tried: Box | None = box.moved(across * (box.width + 2), down * (box.height + 1))
            if self.bounds is not None and tried is not None:
                tried = tried.within(self.bounds)
            if tried is None or (other is not None and not other.is_free(tried)):
                continue
            if self.is_free(tried):
                self.take(tried)
                return tried
        return None
