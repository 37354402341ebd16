"""Tops made from the scraps there are: courses of one height, or crumbs as they come.

A course is a row of scraps cut to one height and joined end to end: widths w give
``Σ(w − 2s) + 2s``.  Crumbs yield ``(a − 2s)(b − 2s)`` of each a × b.  Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import cycle

from tessil.core.bag.steps import Do
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import boxed, rectangle
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.piecing.choice import Filled, Scrap
from tessil.core.piecing.fill import Filling, Watch, fill_quickly, fill_well, unwatched
from tessil.core.piecing.strips import NARROWEST, in_turn, joined
from tessil.core.piecing.top import CutPiece, Patch, Top, TopLine, Wish, sewing_order
from tessil.core.trouble import CannotPlan

UNIT = Fraction(1, 64)  # of an inch: what the search counts in, rounded down
MOST_COURSES = 60
MANY_TIMES = 6  # so many times the length needed is looked through at most


class Blank(Record, frozen=True):
    """A piece of one course height out of a scrap: which scrap, how long, and how it lies."""

    scrap: int
    length: Inches
    turned: bool


def usable_scraps(wish: Wish) -> tuple[int, ...]:
    """Places in the list of scraps that are more than two seams and a little each way."""
    least = 2 * wish.seam.value + NARROWEST
    return tuple(
        at for at, scrap in enumerate(wish.scraps) if min(scrap.width, scrap.height) >= least
    )


def blanks_of(
    scraps: tuple[Scrap, ...], at: int, high: Inches, upright_only: frozenset[str], least: Inches
) -> list[Blank]:
    """What one scrap gives for courses of a cut height; turned where that shows more.

    A directional print is never laid on its side.
    """
    scrap = scraps[at]
    ways = [(int(scrap.height // high), scrap.width, False)]
    if scrap.print not in upright_only:
        ways.append((int(scrap.width // high), scrap.height, True))
    pieces, length, turned = max(ways, key=lambda way: (way[0] * (way[1] - least), not way[2]))
    if not pieces or length < least:
        return []
    return [Blank(at, length, turned)] * (pieces * scrap.number)


def enough(pool: list[Blank], length: Inches) -> list[Blank]:
    """Blanks from every scrap in turn until they are so long together: a box of ten thousand
    scraps is no better to choose from than a large handful, and takes far longer."""
    by_scrap: dict[int, list[Blank]] = {}
    for blank in pool:
        by_scrap.setdefault(blank.scrap, []).append(blank)
    chosen: list[Blank] = []
    left = float(length)
    while by_scrap and left > 0:
        for at in list(by_scrap):
            blank = by_scrap[at].pop()
            chosen.append(blank)
            left -= float(blank.length)
            if not by_scrap[at]:
                del by_scrap[at]
    return chosen


def _courses(wish: Wish) -> list[Inches]:
    """Cut heights of the courses, in turn until they reach the need."""
    seam, need = wish.seam.value, wish.need.height.value
    for high in wish.choice.heights:
        if high - 2 * seam < NARROWEST:
            raise CannotPlan(
                f"{wish.field}.heights",
                "A course this low goes into its two seams: cut it at least ¼ in (6 mm) higher "
                "than them.",
            )
    found, made = [], 2 * seam
    for high in cycle(wish.choice.heights):
        found.append(high)
        made += high - 2 * seam
        if made >= need:
            return found
        if len(found) >= MOST_COURSES:
            raise CannotPlan(
                f"{wish.field}.heights",
                f"That takes more than {MOST_COURSES} courses: cut them higher.",
            )
    return found


def _units(length: Inches) -> int:
    return int(length // UNIT)


def _search(
    wish: Wish, heights: list[Inches], seed: int | None = None, watch: Watch = unwatched
) -> list[list[Blank]]:
    """Blanks for each course: height by height, the highest first; quick without a seed."""
    seam = wish.seam.value
    target = _units(wish.need.width.value - 2 * seam)
    least = 2 * seam + NARROWEST
    used: dict[int, int] = {}
    rows: dict[int, list[Blank]] = {}
    usable = usable_scraps(wish)
    for high in sorted(set(heights), reverse=True):
        pool: list[Blank] = []
        for at in usable:
            whole = blanks_of(wish.scraps, at, high, wish.upright_only, least)
            if whole and used.get(at, 0):
                each = len(whole) // wish.scraps[at].number
                whole = whole[: max(wish.scraps[at].number - used[at], 0) * each]
            pool += whole
        places = [place for place, other in enumerate(heights) if other == high]
        targets = [target] * len(places)
        pool = enough(pool, MANY_TIMES * len(places) * wish.need.width.value)
        lengths = [_units(blank.length - 2 * seam) for blank in pool]
        filling = (
            fill_quickly(lengths, targets)
            if seed is None
            else fill_well(lengths, targets, seed, watch=watch)
        )
        _note_used(wish, pool, filling, used)
        for place, row in zip(places, filling.rows, strict=True):
            rows[place] = [pool[at] for at in row]
    return [rows[place] for place in range(len(heights))]


def _note_used(wish: Wish, pool: list[Blank], filling: Filling, used: dict[int, int]) -> None:
    """How many of each scrap are cut into, so that a lower course does not count them again."""
    taken: dict[int, int] = {}
    for row in filling.rows:
        for at in row:
            taken[pool[at].scrap] = taken.get(pool[at].scrap, 0) + 1
    each: dict[int, int] = {}
    for blank in pool:
        each[blank.scrap] = each.get(blank.scrap, 0) + 1
    for scrap, pieces in taken.items():
        per = max(each[scrap] // wish.scraps[scrap].number, 1)
        used[scrap] = used.get(scrap, 0) + -(-pieces // per)


def least_waste(wish: Wish, seed: int, watch: Watch) -> tuple[tuple[Filled, ...], ...]:
    """A better filling of all courses by a longer search, as a decision to keep."""
    rows = _search(wish, _courses(wish), seed, watch)
    return tuple(
        tuple(Filled(scrap=blank.scrap, turned=blank.turned) for blank in _spread(wish, row))
        for row in rows
    )


def _spread(wish: Wish, row: list[Blank]) -> list[Blank]:
    """The same blanks in an order in which like prints lie apart where they can."""
    left = sorted(row, key=lambda blank: (wish.scraps[blank.scrap].print, -blank.length))
    groups: dict[str, list[Blank]] = {}
    for blank in left:
        groups.setdefault(wish.scraps[blank.scrap].print, []).append(blank)
    found: list[Blank] = []
    while any(groups.values()):
        last = wish.scraps[found[-1].scrap].print if found else None
        ready = [key for key, blanks in groups.items() if blanks and key != last] or [
            key for key, blanks in groups.items() if blanks
        ]
        most = max(ready, key=lambda key: len(groups[key]))
        found.append(groups[most].pop(0))
    return found


def _stored(wish: Wish, heights: list[Inches]) -> list[list[Blank]] | None:
    """The courses as decided, if they are still of this list."""
    filled = wish.choice.filled
    if not filled:
        return None
    rows = []
    for place in range(len(heights)):
        row = []
        for entry in filled[place] if place < len(filled) else ():
            if entry.scrap < len(wish.scraps):
                scrap = wish.scraps[entry.scrap]
                row.append(
                    Blank(entry.scrap, scrap.height if entry.turned else scrap.width, entry.turned)
                )
        rows.append(row)
    return rows


def course_top(wish: Wish) -> Top:
    """Courses filled from the scrap list: as decided, or quickly by themselves."""
    _need_scraps(wish)
    heights = _courses(wish)
    rows = _stored(wish, heights)
    if rows is None:
        rows = [_spread(wish, row) for row in _search(wish, heights)]
    seam = wish.seam
    cuts = [given(f"course {at}, cut height", high) for at, high in enumerate(heights, start=1)]
    height = joined(cuts, seam).called("courses sewn together")
    made = [_row_length(row, wish, at) for at, row in enumerate(rows, start=1)]
    patches = tuple(_course_patches(wish, heights, rows))
    pieces = total(
        count(f"in course {at}", len(row), Basis.GEOMETRY) for at, row in enumerate(rows, start=1)
    )
    number = in_turn(cuts, wish.need.height, seam, "courses").called("courses")
    over = made
    lines = (
        TopLine("courses.number", number, "Rows of one cut height each", "upright"),
        TopLine("courses.pieces", pieces.called("scraps laid"), "Joined end to end", "whole"),
        TopLine("courses.height", height, "What they make", "upright"),
        *(
            TopLine(f"courses.{at}", figure, "This row, over what is needed", "across")
            for at, figure in enumerate(over, start=1)
        ),
        *(
            (
                TopLine(
                    "courses.over",
                    total(over).called("over in all"),
                    "Trimmed off the ends",
                    "whole",
                ),
            )
            if len(over) > 1
            else ()
        ),
    )
    return Top(
        size=Pair(wish.need.width, height),
        patches=patches,
        cuts=_course_cuts(wish, cuts, rows),
        lines=lines,
        order=sewing_order(
            Do("course.cut"),
            Do("course.join", {"press": wish.choice.press}),
            Do("course.trim"),
            Do("course.rows"),
        ),
        pieces=pieces,
        piece_size=(cuts[0],),
        left=_left(wish, heights, rows),
    )


def _need_scraps(wish: Wish) -> None:
    if not wish.scraps:
        raise CannotPlan(f"{wish.field}.way", "There are no scraps yet: list them first, below.")
    if not usable_scraps(wish):
        raise CannotPlan(
            f"{wish.field}.way", "Every scrap goes into its seams: none is wide enough to show."
        )


def _row_length(row: list[Blank], wish: Wish, number: int) -> Figure:
    """By how much a course is over the need; below zero if it is short."""
    if not row:
        return (-1 * wish.need.width).called(f"course {number}, over")
    cuts = [given("scrap", blank.length) for blank in row]
    return (joined(cuts, wish.seam) - wish.need.width).called(f"course {number}, over")


def _course_patches(wish: Wish, heights: list[Inches], rows: list[list[Blank]]) -> Iterator[Patch]:
    seam, width = float(wish.seam.value), wish.need.floats()[0]
    y, last = 0.0, len(heights) - 1
    for number, (high, row) in enumerate(zip(heights, rows, strict=True)):
        bottom = y + float(high) - 2 * seam + (0 if number else seam)
        if number == last:
            bottom += seam
        x = 0.0
        for place, blank in enumerate(row):
            end = x + float(blank.length) - 2 * seam + (0 if place else seam)
            if place == len(row) - 1:
                end += seam
            shape = rectangle(x, y, min(end, width) - x, bottom - y)
            if min(end, width) > x:
                scrap = wish.scraps[blank.scrap]
                yield Patch(
                    shape,
                    scrap.print or wish.prints[0],
                    -1,
                    number + 1,
                    place + 1,
                    f"{blank.scrap + 1}",
                    kind="scrap",
                )
            x = end
        y = bottom


def _course_cuts(wish: Wish, cuts: list[Figure], rows: list[list[Blank]]) -> tuple[CutPiece, ...]:
    found: dict[tuple[object, ...], CutPiece] = {}
    for cut, row in zip(cuts, rows, strict=True):
        for blank in row:
            scrap = wish.scraps[blank.scrap]
            key = (blank.scrap, cut.value)
            each = found[key].each + 1 if key in found else 1
            length = given("scrap, length", blank.length)
            found[key] = CutPiece("course piece", scrap.print, each, length, cut, blank.scrap)
    return tuple(found.values())


def _left(wish: Wish, heights: list[Inches], rows: list[list[Blank]]) -> tuple[str, ...]:
    """Which scraps are untouched, and what falls off the end of each course."""
    read = wish.marks.notation
    used: dict[int, int] = {}
    for row, high in zip(rows, heights, strict=True):
        for blank in row:
            scrap = wish.scraps[blank.scrap]
            per = int((scrap.width if blank.turned else scrap.height) // high) or 1
            used[blank.scrap] = used.get(blank.scrap, 0) + Fraction(1, per)  # type: ignore[assignment]
    words = []
    for at, scrap in enumerate(wish.scraps):
        rest = scrap.number - -(-used.get(at, 0) // 1)
        if rest > 0:
            size = read.size(scrap.width, scrap.height)
            words.append(f"scrap {at + 1}, {size}" + (f", {rest} of it" if rest > 1 else ""))
    return tuple(words)


def crumb_top(wish: Wish) -> Top:
    """Made fabric of scraps as they come: does the box yield enough for this part?"""
    _need_scraps(wish)
    seam = wish.seam
    net, gross = [], []
    for at in usable_scraps(wish):
        scrap = wish.scraps[at]
        a, b = given("scrap width", scrap.width), given("scrap height", scrap.height)
        one, bare = (a - 2 * seam) * (b - 2 * seam), a * b
        many = count("of it", scrap.number)
        net.append(many * one if scrap.number > 1 else one)
        gross.append(many * bare if scrap.number > 1 else bare)
    yields = total(net).called("the scraps yield")
    lie = total(gross).called("the scraps as they lie")
    share = (yields / lie).called("left of them, net", "percent")
    need = (wish.need.width * wish.need.height).called("area to make")
    allowance = given("allowance", wish.choice.allowance, Basis.PRACTICE, 0, "percent")
    takes = (need / share * (1 + allowance)).called("scraps it takes")
    spare = (lie - takes).called("scraps over")
    return Top(
        size=wish.need,
        patches=tuple(_crumb_patches(wish)),
        cuts=(),
        lines=(
            TopLine("crumbs.need", need, "Of made fabric", "whole"),
            TopLine("crumbs.gross", lie, "All that are wide enough to show"),
            TopLine("crumbs.net", yields, "After the seams on all four sides"),
            TopLine("crumbs.share", share, "Small scraps lose most"),
            TopLine("crumbs.takes", takes, "With an allowance for trimming straight"),
            TopLine("crumbs.spare", spare, "Below zero: find more scraps"),
        ),
        order=sewing_order(Do("crumbs.join"), Do("crumbs.cut")),
        pieces=count("scraps", sum(wish.scraps[at].number for at in usable_scraps(wish))),
        piece_size=(),
    )


def _crumb_patches(wish: Wish) -> Iterator[Patch]:
    """One way the crumbs may fall: shelf after shelf, highest first, each at its net size."""
    seam, (width, height) = float(wish.seam.value), wish.need.floats()
    area, left = 2 * width * height, []
    for at in sorted(usable_scraps(wish), key=lambda at: -wish.scraps[at].height):
        scrap = wish.scraps[at]
        high, wide = float(scrap.height) - 2 * seam, float(scrap.width) - 2 * seam
        many = min(scrap.number, int(area / (high * wide)) + 1)
        left += [(high, wide, at)] * many
        area -= many * high * wide
        if area <= 0:
            break
    y, row = 0.0, 0
    while left and y < height:
        shelf, x = [], 0.0
        while left and x < width:
            shelf.append(left.pop(0))
            x += shelf[-1][1]
        high = sum(item[0] for item in shelf) / len(shelf)
        stretch, at_x, row = max(width / x, 1.0), 0.0, row + 1
        if x < width and y == 0.0:
            stretch = 1.0
        for place, (_, wide, at) in enumerate(shelf, start=1):
            shape = boxed(rectangle(at_x, y, wide * stretch, high), 0, 0, width, height)
            if shape:
                print_ = wish.scraps[at].print or wish.prints[0]
                yield Patch(shape, print_, -1, row, place, str(at + 1), kind="scrap")
            at_x += wide * stretch
        y += high
