"""Bias strips from pieces of cloth: which strips at 45°, how long they really are, how they join.

A strip lies between two parallel lines at 45° to the grain.  Its ends are cut on the straight
grain, which slants them one way or the other; two ends join only if they slant alike, else one
is cut anew and loses the strip's width.  A join with seam s takes ``2·√2·s`` of length
(geometry).  Floats inside, inches.  Knows outlines; must not know what is bound.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from itertools import pairwise
from math import inf, sqrt

from msgspec.structs import replace

from tessil.core.numbers.polygons import along, area
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.quilting.clip import chords
from tessil.core.quilting.seams import point_at, ways

ROOT2 = sqrt(2)
PHASES = 12
FINE = 8  # parts of an inch in which the least waste is sought
MOST_STRIPS = 400
Slant = int  # 0 leans with the upper side ahead, 1 with it behind
Watch = Callable[[float], bool]


class Ends(Record, frozen=True):
    """Where a strip's centre line may begin or end, for either slant of its end cut."""

    left: tuple[float, float]
    right: tuple[float, float]

    def length(self, left: Slant, right: Slant) -> float:
        """Centre length with these end cuts."""
        return self.right[right] - self.left[left]

    @property
    def longest(self) -> float:
        """Centre length with each end at its best."""
        return max(self.right) - min(self.left)

    def turned(self) -> Ends:
        """The strip turned half round: ends change places, their slants stay."""
        return Ends((-self.right[0], -self.right[1]), (-self.left[0], -self.left[1]))


class BiasStrip(Record, frozen=True):
    """One strip in one piece of cloth: its number there, its outline on the cloth, its ends."""

    scrap: int
    number: int
    angle: float
    outline: Outline
    ends: Ends

    @property
    def longest(self) -> float:
        """The longest it can be, each end at its best."""
        return self.ends.longest


def join_cost(seam: float) -> float:
    """What one join takes of length: 2·√2·s."""
    return 2 * ROOT2 * seam


def strips_of(
    outline: Outline, width: float, angle: float, phase: float, scrap: int
) -> tuple[BiasStrip, ...]:
    """All strips of a width at an angle from a convex or hollow outline, side by side.

    ``phase`` shifts them by a share of the width.
    """
    return _strips(_laid(outline, width, angle, phase), outline, width, angle, scrap)


Strips = list[tuple[float, Ends]]  # each strip's lower side, as an offset, and its ends


def _laid(outline: Outline, width: float, angle: float, phase: float) -> Strips:
    """Strips side by side, without their shapes: the search looks at many."""
    _, across = ways(angle)
    places = [along(corner, across) for corner in outline]
    first = min(places) + (phase - 1) * width
    number = min(int((max(places) - first) / width) + 2, MOST_STRIPS)
    edges = [first + width * at for at in range(number + 1)]
    fine = 1e-7 * max(width, 1.0)
    low = chords(outline, angle, [edge + fine for edge in edges])
    high = chords(outline, angle, [edge - fine for edge in edges])
    found: Strips = []
    for at in range(number):
        for a in low[at]:
            for b in high[at + 1]:
                made = _between(a, b, width)
                if made is not None:
                    found.append((edges[at], made))
    return found


def _strips(
    laid: Strips, outline: Outline, width: float, angle: float, scrap: int
) -> tuple[BiasStrip, ...]:
    """The strips with their shapes; of a hollow piece only those that lie on it whole."""
    made = [
        BiasStrip(scrap, at, angle, _shape(ends, angle, offset, width), ends)
        for at, (offset, ends) in enumerate(laid, start=1)
    ]
    return tuple(made) if _convex(outline) else _apart(made, outline, angle)


def _convex(outline: Outline) -> bool:
    """Whether every corner turns the same way."""
    around = (*outline, *outline[:2])
    turns = [_turn(a, b, c) for a, b, c in zip(around, around[1:], around[2:], strict=False)]
    return all(turn >= -1e-9 for turn in turns) or all(turn <= 1e-9 for turn in turns)


def _apart(strips: list[BiasStrip], outline: Outline, angle: float) -> tuple[BiasStrip, ...]:
    """Of a hollow piece: strips that lie on it whole, the longest first where two share cloth."""
    sides = list(pairwise((*outline, outline[0])))
    way, normal = ways(angle)
    kept: list[tuple[float, list[float], BiasStrip]] = []
    for strip in sorted(strips, key=lambda strip: -strip.longest):
        own = list(pairwise((*strip.outline, strip.outline[0])))
        if any(_meet(one, other) for one in own for other in sides):
            continue
        if any(_within(corner, strip.outline) for corner in outline):
            continue
        lower, upper = strip.outline[:2], strip.outline[3:1:-1]
        places = [along(corner, way) for corner in (*lower, *upper)]
        band = along(strip.outline[0], normal)
        if all(abs(band - other) > 1e-6 or _clear(places, those) for other, those, _ in kept):
            kept.append((band, places, strip))
    return tuple(strip for _, _, strip in sorted(kept, key=lambda one: one[2].number))


def _clear(one: list[float], other: list[float]) -> bool:
    """Whether of two strips of a band one ends, below and above, before the other begins."""
    return (one[1] <= other[0] and one[3] <= other[2]) or (
        other[1] <= one[0] and other[3] <= one[2]
    )


def _within(point: tuple[float, float], shape: Outline) -> bool:
    """Whether a point is well inside a convex shape."""
    turns = [_turn(a, b, point) for a, b in pairwise((*shape, shape[0]))]
    return all(turn > 1e-6 for turn in turns) or all(turn < -1e-6 for turn in turns)


def _between(one: tuple[float, float], other: tuple[float, float], width: float) -> Ends | None:
    """The ends of a strip whose lower side runs over ``one`` and whose upper over ``other``."""
    (a0, b0), (a1, b1) = one, other
    if min(b0, b1) <= max(a0, a1) - 2 * width:
        return None
    half_ = width / 2
    left = (max(a0 + half_, a1 - half_), max(a0 - half_, a1 + half_))
    right = (min(b0 + half_, b1 - half_), min(b0 - half_, b1 + half_))
    ends = Ends(left, right)
    return ends if ends.longest > 0 else None


def _shape(ends: Ends, angle: float, offset: float, width: float) -> Outline:
    """The strip at its longest, on the cloth."""
    a, b = max(((i, j) for i in (0, 1) for j in (0, 1)), key=lambda ij: ends.length(*ij))
    lean = (width / 2, -width / 2)
    # Slant 0: the upper side is ahead of the lower by the width.
    start, end = ends.left[a], ends.right[b]
    return (
        point_at(angle, offset, start - lean[a]),
        point_at(angle, offset, end - lean[b]),
        point_at(angle, offset + width, end + lean[b]),
        point_at(angle, offset + width, start + lean[a]),
    )


@lru_cache(maxsize=256)
def best_strips(
    outline: Outline, width: float, least: float, longest_first: bool, scrap: int
) -> tuple[BiasStrip, ...]:
    """The best way to lay strips on one piece: both diagonals, shifted by small steps.

    For few joins the longest strip counts, then all together; for little waste the sum of what
    is long enough.
    """
    best: Tried = (45.0, [], [])
    score = (-1.0, -1.0)
    for way in tried(outline, width):
        long = [length for length in way[2] if length >= least]
        total, top = sum(long), max(long, default=0.0)
        now = (top, total) if longest_first else (total, top)
        if now > (score[0] + 1e-9, score[1]) or (
            abs(now[0] - score[0]) <= 1e-9 and now[1] > score[1] + 1e-9
        ):
            best, score = way, now
    angle, laid, lengths = best
    kept = [one for one, length in zip(laid, lengths, strict=True) if length >= least]
    strips = _strips(kept, outline, width, angle, scrap)
    return tuple(replace(strip, number=at + 1) for at, strip in enumerate(strips))


# At which angle, which strips, and how long each can be.
Tried = tuple[float, Strips, list[float]]


@lru_cache(maxsize=48)  # every way of every piece is large, and a bag has few pieces
def tried(outline: Outline, width: float) -> tuple[Tried, ...]:
    """Both diagonals, each shifted by small steps; of a hollow piece only what lies on it."""
    made = []
    hollow = not _convex(outline)
    for angle in (45.0, -45.0):
        for phase in range(PHASES):
            laid = _laid(outline, width, angle, phase / PHASES)
            if hollow:
                kept = {strip.number for strip in _strips(laid, outline, width, angle, 0)}
                laid = [one for at, one in enumerate(laid, start=1) if at in kept]
            made.append((angle, laid, [ends.longest for _, ends in laid]))
    return tuple(made)


class Used(Record, frozen=True):
    """One strip in the joined length: turned half round or not, its end cuts, its length."""

    strip: BiasStrip
    turned: bool
    left: Slant
    right: Slant
    length: float


class Joined(Record, frozen=True):
    """Strips joined in their order; ``reaches`` is what they give once sewn together."""

    used: tuple[Used, ...]
    reaches: float

    @property
    def joins(self) -> int:
        return max(len(self.used) - 1, 0)

    def places(self, cost: float) -> tuple[float, ...]:
        """Where along the joined strip each join falls."""
        at, found = 0.0, []
        for used in self.used[:-1]:
            at += used.length - cost
            found.append(at + cost / 2)
        return tuple(found)


def takes_joins(strip: BiasStrip, width: float, cost: float) -> bool:
    """Whether its shorter side is long enough for a seam at both ends, however they are cut."""
    return any(_sewable(strip.ends, a, b, width, cost) for a in (0, 1) for b in (0, 1))


def _sewable(ends: Ends, left: Slant, right: Slant, width: float, cost: float) -> bool:
    """Whether both seams find room on the shorter side: where the ends lean against each other, it
    is shorter than the middle by the strip's width."""
    shorter = ends.length(left, right) - (width if left != right else 0.0)
    return shorter >= cost - 1e-9


def joined(strips: tuple[BiasStrip, ...], cost: float, width: float = 0.0) -> Joined:
    """Strips put in an order and turned so that their ends match, the cuts at their best.

    With ``width``, no strip among several is cut so that its shorter side could not take its joins;
    nothing is joined where that cannot be.

    Next comes the strip, straight or turned, whose best end fits the one before; the end cuts are
    then chosen together (dynamic programming over the two slants).
    """
    if not strips:
        return Joined((), 0.0)
    left = list(strips)
    order: list[tuple[BiasStrip, bool, Ends]] = []
    first = max(left, key=lambda strip: strip.longest)
    left.remove(first)
    order.append((first, False, first.ends))
    while left:
        last = order[-1][2]
        wish = 0 if last.right[0] >= last.right[1] else 1
        fits = [
            (ends.left[wish] - min(ends.left), at, turned, ends)
            for at, strip in enumerate(left)
            for turned, ends in ((False, strip.ends), (True, strip.ends.turned()))
        ]
        _, at, turned, ends = min(fits, key=lambda entry: entry[0])
        order.append((left.pop(at), turned, ends))
    return _cut(order, cost, width)


def _cut(order: list[tuple[BiasStrip, bool, Ends]], cost: float, width: float) -> Joined:
    """The end cuts that make the joined length longest."""
    several = len(order) > 1

    def gives(ends: Ends, a: Slant, b: Slant) -> float:
        if several and width and not _sewable(ends, a, b, width, cost):
            return -inf
        return ends.length(a, b)

    # best[s]: the longest so far if this strip's right end is cut with slant s.
    best = [
        [max((gives(ends, a, b), a) for a in (0, 1)) for b in (0, 1)] for _, _, ends in order[:1]
    ]
    for _, _, ends in order[1:]:
        before = best[-1]
        best.append(
            [max((before[a][0] + gives(ends, a, b) - cost, a) for a in (0, 1)) for b in (0, 1)]
        )
    right = 0 if best[-1][0][0] >= best[-1][1][0] else 1
    total = best[-1][right][0]
    if total == -inf:
        return Joined((), 0.0)
    used: list[Used] = []
    for at in range(len(order) - 1, -1, -1):
        strip, turned, ends = order[at]
        left = best[at][right][1]
        used.append(Used(strip, turned, left, right, ends.length(left, right)))
        right = left
    return Joined(tuple(reversed(used)), total)


class BiasPlan(Record, frozen=True):
    """Strips for a length: those there are, those used, and what is left over."""

    strips: tuple[BiasStrip, ...]
    joined: Joined
    need: float
    least: int  # joins that no other choice of these strips can go below
    waste: float  # square inches of the pieces cut into that are in no strip used

    @property
    def enough(self) -> bool:
        return self.joined.reaches >= self.need - 1e-9

    @property
    def over(self) -> float:
        return self.joined.reaches - self.need


def plan_bias(
    outlines: tuple[Outline, ...],
    width: float,
    need: float,
    seam: float,
    least: float,
    fewest: bool,
    watch: Watch = lambda _: True,
) -> BiasPlan:
    """Strips from several pieces, for the fewest joins or for the least waste.

    Stops early, with what it has, when ``watch`` (told the share done) says no.
    """
    strips: list[BiasStrip] = []
    for at, outline in enumerate(outlines):
        if not watch(at / max(len(outlines), 1)):
            break
        strips += best_strips(outline, width, least, fewest, at)
    cost = join_cost(seam)
    whole = next((strip for strip in strips if strip.longest >= need - 1e-9), None)
    sewable = (strip for strip in strips if strip is whole or takes_joins(strip, width, cost))
    ranked = tuple(sorted(sewable, key=lambda strip: -strip.longest))
    few = _fewest(ranked, need, cost, width)
    areas = [area(outline) for outline in outlines]
    chosen = few if fewest else _least_waste(ranked, need, cost, areas, few, width)
    bound = _bound(ranked, need, cost)
    made = joined(chosen, cost, width)
    touched = sum(areas[scrap] for scrap in {used.strip.scrap for used in made.used})
    sewn = sum(used.length for used in made.used) * width
    return BiasPlan(tuple(strips), made, need, bound, touched - sewn)


def _bound(ranked: tuple[BiasStrip, ...], need: float, cost: float) -> int:
    """So many joins at least: were no end ever cut anew, the longest would do it with these."""
    total = 0.0
    for number, strip in enumerate(ranked):
        total += strip.longest - (cost if number else 0.0)
        if total >= need - 1e-9:
            return number
    return max(len(ranked) - 1, 0)


def _fewest(
    ranked: tuple[BiasStrip, ...], need: float, cost: float, width: float
) -> tuple[BiasStrip, ...]:
    """The longest strips until they reach; then the last one as short as still does."""
    number = _bound(ranked, need, cost) + 1
    while number < len(ranked) and joined(ranked[:number], cost, width).reaches < need - 1e-9:
        number += 1
    chosen = ranked[:number]
    if len(chosen) < 2 or joined(chosen, cost, width).reaches < need - 1e-9:
        return chosen
    most = sum(strip.longest - cost for strip in chosen[:-1])
    for strip in reversed(ranked[number:]):
        if most + strip.longest < need - 1e-9:
            continue  # too short even if no end were cut anew
        other = (*chosen[:-1], strip)
        if joined(other, cost, width).reaches >= need - 1e-9:
            return other
    return chosen


Chain = tuple[int, "Chain"] | None


def _least_waste(
    ranked: tuple[BiasStrip, ...],
    need: float,
    cost: float,
    areas: list[float],
    few: tuple[BiasStrip, ...],
    width: float,
) -> tuple[BiasStrip, ...]:
    """The strips of those pieces whose area together is least: every strip of a piece is used up
    before the next piece is cut into.  Covering by dynamic programming, in eighths of an inch.
    """
    own: dict[int, list[BiasStrip]] = {}
    for strip in ranked:
        own.setdefault(strip.scrap, []).append(strip)
    goal = max(int((need - cost) * FINE) + 1, 1)
    reach: dict[int, tuple[float, Chain]] = {0: (0.0, None)}
    for scrap, strips in own.items():
        value = int(sum(max(strip.longest - cost, 0.0) for strip in strips) * FINE)
        for total, (ground, chain) in sorted(reach.items(), reverse=True):
            to = min(total + value, goal)
            if total < goal and (to not in reach or reach[to][0] > ground + areas[scrap] + 1e-9):
                reach[to] = (ground + areas[scrap], (scrap, chain))
    if goal not in reach:
        return few
    scraps: set[int] = set()
    chain = reach[goal][1]
    while chain is not None:
        scrap, chain = chain
        scraps.add(scrap)
    mine = tuple(strip for strip in ranked if strip.scrap in scraps)
    found = _fewest(mine, need, cost, width)
    return found if joined(found, cost, width).reaches >= need - 1e-9 else few


# -- outlines ----------------------------------------------------------------------------


class OutlineError(ValueError):
    """An outline that no cloth has; the message is a sentence."""


def checked(outline: Outline) -> Outline:
    """An outline of at least three corners with some area that does not cross itself, clockwise
    as drawn; raises OutlineError."""
    if len(outline) < 3 or area(outline) < 1e-6:
        raise OutlineError("These corners lie in a line: a scrap has some area.")
    if crosses_itself(outline):
        raise OutlineError("This outline crosses itself: go round the scrap corner by corner.")
    twice = sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in pairwise((*outline, outline[0])))
    return outline if twice > 0 else tuple(reversed(outline))


def crosses_itself(outline: Outline) -> bool:
    """Whether two sides that are no neighbours meet."""
    sides = list(pairwise((*outline, outline[0])))
    for at, one in enumerate(sides):
        for to in range(at + 2, len(sides)):
            if at == 0 and to == len(sides) - 1:
                continue
            if _meet(one, sides[to]):
                return True
    return False


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _meet(
    one: tuple[tuple[float, float], tuple[float, float]],
    other: tuple[tuple[float, float], tuple[float, float]],
) -> bool:
    (a, b), (c, d) = one, other
    return _turn(a, b, c) * _turn(a, b, d) < 0 and _turn(c, d, a) * _turn(c, d, b) < 0
