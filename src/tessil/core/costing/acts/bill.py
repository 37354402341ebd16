"""What the shopping list comes to, and what else could be bought for it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from math import ceil

from msgspec.structs import replace

from tessil.core.costing.acts.cost import NOTHING
from tessil.core.costing.prices import Priced, PriceList, cloth_key, ware_key
from tessil.core.cutting.acts.shopping import Line, sold
from tessil.core.cutting.acts.whole import Solve, Spread
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.reading import Reading
from tessil.core.sheets.cuts import Box, parted
from tessil.core.sheets.job import CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting

QUARTER = Priced("fat quarter", "Fat quarters", False)
WIDE, HIGH = Fraction(21), Fraction(18)  # of a fat quarter, as it is planned on
MOST_QUARTERS = 8
NONE = Fraction(0)
SECONDS = 0.3  # for one number of quarters
Say = Callable[[Fraction], str]


class Bill(Record, frozen=True):
    """The lines of a shopping list with what each costs, where that is known."""

    lines: tuple[tuple[Line, Figure | None], ...]
    coupon: Figure | None = None  # the share it takes off

    @property
    def total(self) -> Figure:
        """All that is known, together."""
        known = [cost for _, cost in self.lines if cost is not None]
        every = total(known or [NOTHING])
        if self.coupon is not None:
            every = every * (1 - self.coupon)
        return every.called("the list comes to", "money")

    @property
    def missing(self) -> tuple[str, ...]:
        """What has no price yet."""
        return tuple(line.what for line, cost in self.lines if cost is None)


def thing_of(line: Line) -> Priced:
    """What a line of the list is called in a list of prices."""
    if line.kind is None:
        return Priced(cloth_key(*line.stock), line.what, True)
    long = line.figure is not None and line.figure.power == 1
    return Priced(ware_key(line.kind, None if long else line.size), line.what, long)


def bill_of(lines: Iterable[Line], prices: PriceList, coupon: Fraction = NONE) -> Bill:
    """What each line comes to, and how much a coupon takes off all of them."""
    found: list[tuple[Line, Figure | None]] = []
    for line in lines:
        price = prices.of(thing_of(line))
        cost = None if price is None or line.figure is None else line.figure * price
        found.append((line, None if cost is None else cost.called(line.what, "money")))
    less = given("coupon", coupon, Basis.PRICES, 0, "percent") if coupon else None
    return Bill(tuple(found), less)


def told_bill(bill: Bill, say: Say) -> tuple[Line, ...]:
    """The lines with what they cost in words."""
    return tuple(
        line if cost is None else replace(line, cost=say(Fraction(cost.value)))
        for line, cost in bill.lines
    )


def bill_readings(bill: Bill, cloth: bool) -> Iterator[Reading]:
    """What the list comes to, with what has no price; ``cloth`` where it is in the list yet."""
    if not any(cost is not None for _, cost in bill.lines):
        return
    names = ", ".join(dict.fromkeys(bill.missing)).lower()
    about = f"Without {names}: no price yet" if names else "All of the shopping list"
    if not cloth:
        about = "Without cloth: its cutting is not planned yet"
    yield Reading("bill.total", bill.total, about, leaf="wares")


class Other(Record, frozen=True):
    """So many fat quarters in place of yardage: what they cost more or less, what is left."""

    name: str
    number: int
    instead: str
    dearer: Fraction | None
    left: tuple[Fraction, Fraction] | None


def others_of(
    spreads: Sequence[Spread],
    prices: PriceList,
    notation: Notation,
    told: Callable[[float], bool] | None = None,
    solve: Solve = plan_cutting,
) -> Iterator[Other]:
    """For each new cloth that is bought the fewest fat quarters that its pieces come out of;
    ``solve`` lays the pieces out."""
    bought = [one for one in spreads if not one.sheet.source and not one.lot.material]
    quarter = prices.of(QUARTER)
    for at, one in enumerate(bought):
        if told is not None and not told(at / len(bought)):
            return
        found = _quarters(one, solve)
        if found is None:
            continue
        number, left = found
        length = one.sheet.length + one.sheet.trim
        price = prices.of(Priced(cloth_key(one.lot.stock, False), one.lot.name, True))
        dearer = None
        if quarter is not None and price is not None:
            dearer = Fraction((count("quarters", number) * quarter).value - length * price.value)
        yield Other(one.lot.name, number, sold(length, notation), dearer, left)


def _quarters(spread: Spread, solve: Solve) -> tuple[int, tuple[Fraction, Fraction] | None] | None:
    """How many fat quarters its pieces come out of, and the largest that is then left."""
    wants = {one.want.key: one.want for one in spread.pieces}
    number = {key: sum(one.want.key == key for one in spread.pieces) for key in wants}
    pieces = tuple(
        Piece(key, key, want.width, want.height, number[key], spread.lot.stock, want.turns)
        for key, want in wants.items()
    )
    area = sum((piece.w * piece.h * piece.qty for piece in pieces), Fraction(0))
    for many in range(max(ceil(area / (WIDE * HIGH)), 1), MOST_QUARTERS + 1):
        names = [f"quarter {at + 1}" for at in range(many)]
        stock = tuple(Stock(n, "fat_quarter", spread.lot.stock, WIDE, HIGH) for n in names)
        answer = solve(CutJob("in", stock, pieces), SECONDS, 1, None)
        if not answer.left_out:
            boxes: list[Box] = []
            for cloth in stock:
                laid = [one for one in answer.placements if one.stock == cloth.id]
                rows = [Box(one.x, one.y, one.w, one.h, n) for n, one in enumerate(laid)]
                parting = parted(Box(Fraction(0), Fraction(0), WIDE, HIGH), rows)
                boxes += parting.left if parting is not None else ()
            best = max(boxes, key=lambda box: box.w * box.h, default=None)
            return many, None if best is None else (best.w, best.h)
    return None


def other_words(one: Other, notation: Notation, say: Say) -> str:
    """``3 fat quarters of oat plain instead of ⅝ yd, 1.40 dearer, a 9 × 12 left``."""
    many = "fat quarter" if one.number == 1 else "fat quarters"
    words = f"{one.number} {many} of {one.name.lower()} instead of {one.instead}"
    if one.dearer is not None:
        more = "dearer" if one.dearer >= 0 else "cheaper"
        words += f", {say(abs(one.dearer))} {more}"
    if one.left is not None:
        words += f", a {notation.size(*one.left)} left"
    return f"{words}."
