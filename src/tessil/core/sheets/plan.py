"""A whole cutting job: print by print, from pieces of stock first, the rest from yardage."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import floor, gcd, lcm
from typing import TYPE_CHECKING

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.sheets.job import Aim, Answer, Cut, CutJob, Piece, Placement, Stock
from tessil.core.sheets.search import Search, Told
from tessil.core.sheets.strips import Filler, Kind, Strip
from tessil.core.trouble import CannotPlan

if TYPE_CHECKING:
    from tessil.core.sheets.cloths import Cloths, Filling

LEAST_SECONDS = 1e-6  # of a search whose time was spent by others
REST_SECONDS = 0.2  # to look for a larger rest of one cloth
FINEST = 6000  # units across a cloth at most: finer sizes are rounded up to one


class Units(Record, frozen=True):
    """Lengths as whole numbers of a unit: pieces up, cloth down."""

    unit: Fraction

    def up(self, value: Fraction) -> int:
        return -floor(-value / self.unit)

    def down(self, value: Fraction) -> int:
        return floor(value / self.unit)


def units_for(stock: Sequence[Stock], pieces: Sequence[Piece]) -> Units:
    """The largest unit of which all lengths are whole numbers, unless that is too fine."""
    values = [v for p in pieces for v in (p.w, p.h)] + [s.w for s in stock]
    values += [s.h for s in stock if s.h is not None]
    over = lcm(*(value.denominator for value in values))
    common = gcd(*(int(value * over) for value in values))
    widest = max(max(s.w, s.h or 0) for s in stock)
    return Units(max(Fraction(common, over), Fraction(widest) / FINEST))


def plan_cutting(
    job: CutJob, seconds: float = 10.0, seed: int = 1, told: Told | None = None
) -> Answer:
    """The best layout that the time allows, with what no layout could do without.

    Raises CannotPlan for a job that makes no sense.  ``told`` hears how far the search is and may
    stop it; the best layout so far is then the answer.  With no seconds at all that is the first
    one: as full strips as can be, one after the other.
    """
    _check(job)
    prints = list(dict.fromkeys(piece.print for piece in job.pieces))
    answers = []
    search = Search(seconds, seed) if told is None else Search(seconds, seed, told)
    for at, name in enumerate(prints):
        stock = [one for one in job.stock if one.print == name]
        pieces = [one for one in job.pieces if one.print == name]
        seconds_left = max(search.left() / (len(prints) - at), min(seconds, LEAST_SECONDS))
        share = Search(seconds_left, seed, search.told)
        answers.append(_one_print(stock, pieces, share, job.aim))
    return _together(answers, job)


def _check(job: CutJob) -> None:
    every: list[Sequence[Stock | Piece]] = [job.stock, job.pieces]
    for what in every:
        seen: set[str] = set()
        for one in what:
            if one.id in seen:
                raise CannotPlan("id", f"“{one.id}” is there twice: give each a name of its own.")
            seen.add(one.id)
            if one.w <= 0 or (one.h is not None and one.h <= 0):
                words = f"“{one.id}” has no size: width and height are more than zero."
                raise CannotPlan("w", words)


class _Laid(Record, frozen=True):
    """The strips of one cloth in their order, and how they lie on it."""

    stock: Stock
    filler: Filler
    strips: tuple[Strip, ...]
    across: bool = False


def _one_print(stock: Sequence[Stock], pieces: Sequence[Piece], search: Search, aim: Aim) -> Answer:
    if not stock:
        return _answer(
            [], pieces, dict.fromkeys(range(len(pieces)), 0), Fraction(0), Units(Fraction(1))
        )
    units = units_for(stock, pieces)
    kinds = [Kind(units.up(p.w), units.up(p.h), p.qty, p.turn) for p in pieces]
    given = dict.fromkeys(range(len(pieces)), 0)
    laid: list[_Laid] = []
    bound = Fraction(0)
    given_size = [one for one in stock if one.h is not None]
    lengths = [one for one in stock if one.h is None]
    if given_size:
        found, least = _from_cloths(given_size, kinds, units, search, bool(lengths), aim)
        laid += found
        bound += least
    for one in laid:
        for strip in one.strips:
            for at, many in strip.counts.items():
                given[at] += many
    if lengths:
        rest = [replace(kind, many=max(kind.many - given[at], 0)) for at, kind in enumerate(kinds)]
        widest = max(lengths, key=lambda one: one.w)
        strips, least = _from_yardage(widest, rest, units, search, aim)
        laid.append(strips)
        bound = least if not given_size else _beyond(given_size, widest, kinds, units)
        for strip in strips.strips:
            for at, many in strip.counts.items():
                given[at] += many
    return _answer(laid, pieces, given, bound, units)


def _beyond(
    cloths: Sequence[Stock], yardage: Stock, kinds: Sequence[Kind], units: Units
) -> Fraction:
    """The least length that is needed beside pieces of cloth: for what is larger than all of them
    together, and for the highest piece that goes into none."""
    wide = units.down(yardage.w)
    area = sum(kind.area * kind.many for kind in kinds if min(_ways(kind)) <= wide)
    there = sum(units.down(one.w) * units.down(one.h or one.w) for one in cloths)
    long = max(Fraction(area - there, wide), Fraction(0))
    for kind in kinds:
        ways = [high for across, high in _sides(kind) if across <= wide]
        if ways and not any(
            across <= units.down(one.w) and high <= units.down(one.h or one.w)
            for one in cloths
            for across, high in _sides(kind)
        ):
            long = max(long, Fraction(min(ways)))
    return long * units.unit + yardage.trim if long else Fraction(0)


def _sides(kind: Kind) -> tuple[tuple[int, int], ...]:
    """Width and height of the ways a piece may lie."""
    straight = (kind.wide, kind.high)
    return (straight, straight[::-1]) if kind.turns else (straight,)


def _ways(kind: Kind) -> tuple[int, ...]:
    return tuple(across for across, _ in _sides(kind))


def _from_yardage(
    stock: Stock, kinds: Sequence[Kind], units: Units, search: Search, aim: Aim
) -> tuple[_Laid, Fraction]:
    from tessil.core.sheets.lengths import Yardage

    found = Yardage(kinds, units.down(stock.w), search, aim)
    done = found.solve()
    trim = stock.trim if done.strips else Fraction(0)
    least = Fraction(-floor(-done.bound + 1e-6)) * units.unit + trim if done.strips else trim
    return _Laid(stock, found.filler, done.strips), least


def _from_cloths(
    stock: Sequence[Stock],
    kinds: Sequence[Kind],
    units: Units,
    search: Search,
    more: bool,
    aim: Aim,
) -> tuple[list[_Laid], Fraction]:
    from tessil.core.sheets.cloths import Cloth, Cloths

    sizes: dict[tuple[int, int], list[Stock]] = {}
    for one in stock:
        assert one.h is not None
        sizes.setdefault((units.down(one.w), units.down(one.h)), []).append(one)
    cloths = [Cloth(wide, high, len(these)) for (wide, high), these in sizes.items()]
    half = search.part(1 / 2) if more else search
    found = Cloths(kinds, cloths, half, aim)
    laid = []
    left = {size: list(these) for size, these in sizes.items()}
    solved = found.solve()
    for filling in (
        solved if aim == "fits" or search.at_once else _drawn_together(found, solved, search)
    ):
        cloth = cloths[filling.cloth]
        one = left[cloth.wide, cloth.high].pop(0)
        filler = found.fillers[filling.cloth, filling.across]
        laid.append(_Laid(one, filler, filling.strips, filling.across))
    return laid, found.least_area() * units.unit * units.unit


def _drawn_together(found: Cloths, fillings: Sequence[Filling], search: Search) -> list[Filling]:
    """The same pieces on the same cloths, laid so that what is left is as large as can be."""
    made = []
    for number, filling in enumerate(fillings):
        many = dict(filling.counts)
        ways = [(found.rest(filling), filling)]
        seconds = min((search.left() + REST_SECONDS) / (len(fillings) - number), REST_SECONDS) / 2
        for across in (False, True):
            laid = found.laid_short(filling.cloth, across, many, Search(seconds, search.seed))
            if laid is not None:
                ways.append((found.rest(laid), laid))
        best = max(ways, key=lambda one: one[0])
        made.append(best[1] if best[0] > ways[0][0] else filling)
    return made


# -- where everything lies, and what is cut -------------------------------------------------


def _placed(laid: _Laid, pieces: Sequence[Piece], units: Units) -> Iterator[Placement | Cut]:
    """The pieces of one cloth, and its cuts in the order in which they are made.  Of strips that
    run along the cloth's height all is told with x and y exchanged."""
    unit, y = units.unit, Fraction(0)
    full = laid.stock.h if laid.across and laid.stock.h is not None else laid.stock.w
    for strip in laid.strips:
        high = strip.high * unit
        yield _cut(laid, 1, y + high, Fraction(0), full)
        x = Fraction(0)
        for stack in strip.stacks:
            wide, low = stack.wide * unit, y
            yield _cut(laid, 2, x + wide, y, y + high)
            for at, turned in stack.pieces:
                piece, kind = pieces[at], laid.filler.kinds[at]
                size = (piece.h, piece.w) if turned else (piece.w, piece.h)
                where = (low, x) if laid.across else (x, low)
                yield Placement(piece.id, laid.stock.id, *where, *size)
                low += (kind.wide if turned else kind.high) * unit
                if low < y + high:
                    yield _cut(laid, 3, low, x, x + wide)
            x += wide
        y += high


def _cut(laid: _Laid, deep: int, at: Fraction, begins: Fraction, ends: Fraction) -> Cut:
    across = (deep != 2) != laid.across
    return Cut(laid.stock.id, deep, "across" if across else "along", at, begins, ends)


def _answer(
    laid: Sequence[_Laid],
    pieces: Sequence[Piece],
    given: dict[int, int],
    bound: Fraction,
    units: Units,
) -> Answer:
    both = [one for cloth in laid for one in _placed(cloth, pieces, units)]
    lengths, opened, area = [], [], Fraction(0)
    for cloth in laid:
        if cloth.stock.h is None:
            long = sum((strip.high for strip in cloth.strips), 0) * units.unit
            if cloth.strips:
                lengths.append((cloth.stock.id, long + cloth.stock.trim))
        else:
            opened.append(cloth.stock.id)
            area += cloth.stock.w * cloth.stock.h
    out = [(piece.id, piece.qty - given[at]) for at, piece in enumerate(pieces)]
    return Answer(
        placements=tuple(one for one in both if isinstance(one, Placement)),
        cuts=tuple(one for one in both if isinstance(one, Cut)),
        left_out=tuple((name, many) for name, many in out if many > 0),
        used=sum((long for _, long in lengths), Fraction(0)) if lengths else area,
        bound=bound,
        lengths=tuple(lengths),
        opened=tuple(opened),
    )


def _together(answers: Sequence[Answer], job: CutJob) -> Answer:
    """The answers of all prints as one."""
    by_length = any(answer.lengths for answer in answers)
    counted = [answer for answer in answers if bool(answer.lengths) == by_length]
    return Answer(
        placements=tuple(one for answer in answers for one in answer.placements),
        cuts=tuple(one for answer in answers for one in answer.cuts),
        left_out=tuple(one for answer in answers for one in answer.left_out),
        used=sum((answer.used for answer in counted), Fraction(0)),
        bound=sum((answer.bound for answer in counted), Fraction(0)),
        lengths=tuple(one for answer in answers for one in answer.lengths),
        opened=tuple(one for answer in answers for one in answer.opened),
    )
