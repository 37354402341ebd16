"""Filling one strip: stacks of pieces of one width side by side, worth as much as they can be.

Whole numbers of a fine unit; a strip is ``high`` along the cloth and as wide as that.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from functools import cached_property
from typing import TYPE_CHECKING

from tessil.core.numbers.records import Record

if TYPE_CHECKING:
    import numpy as np

EPS = 1e-9


class Kind(Record, frozen=True):
    """Pieces alike: how wide, how high, how many, and whether they may be turned."""

    wide: int
    high: int
    many: int
    turns: bool

    @property
    def area(self) -> int:
        return self.wide * self.high


class Stack(Record, frozen=True):
    """Pieces of one width, one on top of the other: their kinds, and which of them lie turned."""

    wide: int
    pieces: tuple[tuple[int, bool], ...]


class Strip(Record, frozen=True, dict=True):
    """Stacks side by side."""

    high: int
    stacks: tuple[Stack, ...]

    @cached_property
    def counts(self) -> dict[int, int]:
        found: dict[int, int] = {}
        for stack in self.stacks:
            for kind, _ in stack.pieces:
                found[kind] = found.get(kind, 0) + 1
        return found


def settings(strips: Iterable[Strip]) -> int:
    """How often the ruler is set: once for strips of one height, once for stacks of one width in
    them, once for each height to which such a stack is trimmed."""
    found: set[tuple[object, ...]] = set()
    for strip in strips:
        found.add((strip.high,))
        for stack in strip.stacks:
            found.add((strip.high, stack.wide))
            found |= {(strip.high, stack.wide, piece) for piece in stack.pieces}
    return len(found)


Option = tuple[int, int, bool]  # kind, height, turned


class Filler:
    """Fills strips of one cloth's width."""

    def __init__(self, kinds: Sequence[Kind], wide: int) -> None:
        self.kinds, self.wide = tuple(kinds), wide
        self.by_width: dict[int, list[Option]] = {}
        self._for: Sequence[float] | None = None  # the worths for which stacks are known
        self._stacked: dict[tuple[object, ...], list[tuple[int, float, Stack]]] = {}
        for at, kind in enumerate(kinds):
            ways = {(kind.wide, kind.high, False)}
            if kind.turns and kind.wide != kind.high:
                ways.add((kind.high, kind.wide, True))
            for across, along, turned in sorted(ways):
                if across <= wide:
                    self.by_width.setdefault(across, []).append((at, along, turned))

    def fits(self, kind: int) -> bool:
        """Whether a kind can be laid at all."""
        return any(option[0] == kind for options in self.by_width.values() for option in options)

    def heights(self, most: int) -> list[int]:
        """Heights that strips may have: of pieces, and of stacks of two and three alike wide."""
        found: set[int] = set()
        for options in self.by_width.values():
            ones = {along for _, along, _ in options}
            twos = {a + b for a in ones for b in ones}
            found |= ones | twos
            if len(ones) < 4:
                found |= {a + b for a in twos for b in ones}
        return sorted(height for height in found if height <= most)

    def fill(self, high: int, left: Mapping[int, int], values: Sequence[float]) -> Strip:
        """The strip of that height that is worth most, of no more pieces than are left."""
        if values is not self._for:
            self._for, self._stacked = values, {}
        items: list[tuple[int, float, Stack]] = []
        for across, options in self.by_width.items():
            there = tuple(left.get(at, 0) if along <= high else 0 for at, along, _ in options)
            key = (across, high, there)
            if key not in self._stacked:
                self._stacked[key] = self._stacks(across, high, left, values)
            items += self._stacked[key]
        return Strip(high, self.once(self._chosen(items), left))

    def _stacks(
        self, across: int, high: int, left: Mapping[int, int], values: Sequence[float]
    ) -> list[tuple[int, float, Stack]]:
        """Stacks of one width, the one worth most first, of what is left by those before it."""
        options = self.by_width[across]
        there = {at: left.get(at, 0) for at, along, _ in options if along <= high}
        made = []
        for _ in range(self.wide // across):
            worth, stack = _best_stack(across, options, high, there, values)
            if worth <= EPS:
                break
            made.append((across, worth, stack))
            for at, _ in stack.pieces:
                there[at] -= 1
        return made

    def _chosen(self, items: list[tuple[int, float, Stack]]) -> list[Stack]:
        """The stacks that together are worth most across the width: the sums of all widths."""
        import numpy as np

        best = np.zeros(self.wide + 1)
        taken = np.zeros((len(items), self.wide + 1), dtype=bool)
        for at, (across, worth, _) in enumerate(items):
            with_it = best[: self.wide + 1 - across] + worth
            taken[at, across:] = with_it > best[across:] + EPS
            best[across:] = np.maximum(best[across:], with_it)
        found, room = [], self.wide
        for at in range(len(items) - 1, -1, -1):
            if taken[at, room]:
                found.append(items[at][2])
                room -= items[at][0]
        return found

    def once(self, stacks: list[Stack], left: Mapping[int, int]) -> tuple[Stack, ...]:
        """No more of a kind than are left: one that may lie both ways was offered twice."""
        there, kept = dict(left), []
        for stack in sorted(stacks, key=lambda one: -len(one.pieces)):
            pieces = []
            for piece in stack.pieces:
                if there.get(piece[0], 0) > 0:
                    there[piece[0]] -= 1
                    pieces.append(piece)
            if pieces:
                kept.append(Stack(stack.wide, tuple(pieces)))
        return tuple(sorted(kept, key=lambda one: (-self.tall(one), -one.wide)))

    def tall(self, stack: Stack) -> int:
        """How high a stack is."""
        return sum(
            self.kinds[at].wide if turned else self.kinds[at].high for at, turned in stack.pieces
        )

    def worth_of_all(self, values: Sequence[float], most: int) -> np.ndarray:
        """For every height up to ``most``, what a strip could be worth at most if there were any
        number of every piece: for bounds.  One number a height, in fine units."""
        import numpy as np

        stacked = {}
        for across, options in self.by_width.items():
            best = np.zeros(most + 1)
            for high in range(1, most + 1):
                worth = best[high - 1]
                for at, along, _ in options:
                    if along <= high:
                        worth = max(worth, best[high - along] + values[at])
                best[high] = worth
            stacked[across] = best
        across_all = np.zeros((self.wide + 1, most + 1))
        for at in range(1, self.wide + 1):
            row = across_all[at - 1]
            for across, best in stacked.items():
                if across <= at:
                    row = np.maximum(row, across_all[at - across] + best)
            across_all[at] = row
        return np.asarray(across_all[self.wide])


def _best_stack(
    across: int,
    options: Sequence[Option],
    high: int,
    left: Mapping[int, int],
    values: Sequence[float],
) -> tuple[float, Stack]:
    """The pieces of one width that are worth most in a stack of that height."""
    best: dict[int, tuple[float, tuple[tuple[int, bool], ...]]] = {0: (0.0, ())}
    for at, along, turned in options:
        number, worth = left.get(at, 0), values[at]
        if worth <= EPS:
            continue
        for _ in range(min(number, high // along)):
            grown = {}
            for used, (sum_, pieces) in best.items():
                there = used + along
                if there <= high and sum_ + worth > best.get(there, (0.0, ()))[0] + EPS:
                    grown[there] = (sum_ + worth, (*pieces, (at, turned)))
            if not grown:
                break
            best.update(grown)
    worth, pieces = max(best.values(), key=lambda one: one[0])
    counted: dict[int, int] = {}
    kept = []
    for piece in pieces:  # the same kind may have come in twice, straight and turned
        counted[piece[0]] = counted.get(piece[0], 0) + 1
        if counted[piece[0]] <= left.get(piece[0], 0):
            kept.append(piece)
    return worth, Stack(across, tuple(kept))
