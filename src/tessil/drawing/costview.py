"""Time and money drawn: minutes a bag by how many are made together, where a price goes, and what
it pays an hour.  Pictures as data; must not know what is reckoned."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from math import ceil

from msgspec.structs import replace

from tessil.core.costing.acts.hours import Hours, share_words
from tessil.core.costing.acts.price import Pay, kept
from tessil.core.costing.days import Day, Share
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.records import Record
from tessil.core.words.making import OPERATION_WORDS
from tessil.core.words.money import money_text
from tessil.drawing.picture import Item, Label, Line, Picture, Point, Shade, Tone, rectangle
from tessil.drawing.plotview import ROOM, WIDE, axes, diamond

NUMBERS = (1, 2, 3, 4, 6, 8, 10, 12)
BAR = 0.9
TALL, DAY, MOST_DAYS = 4.0, 0.62, 9  # the plot of time, a row of a sitting, and how many rows


class Reckoned(Record, frozen=True):
    """What is looked at: the time of a batch, or what a bag pays."""

    hours: Hours
    days: tuple[Day, ...] = ()
    pay: Pay | None = None
    together: bool = False  # the sittings are for all bags of the job


def reckoned_picture(one: Reckoned, notation: Notation) -> Picture:
    """The bench of time, or of money."""
    if one.pay is None:
        return time_picture(one.hours, one.days, one.together)
    return price_picture(one.pay, notation)


def step_of(most: float) -> float:
    """A round step that parts an axis into four to eight."""
    step = 1.0
    while most / step > 8:
        for by in (2.0, 2.5, 2.0):
            step *= by
            if most / step <= 8:
                break
    return step


def _with(hours: Hours, number: int) -> Hours:
    return replace(hours, number=number)


def time_picture(hours: Hours, days: Sequence[Day], together: bool) -> Picture:
    """Minutes for one bag against how many are made together, with what it may be; below it what
    is done in which sitting."""
    numbers = sorted({*NUMBERS, hours.number})
    rows = [(n, float(_with(hours, n).each.value), *_with(hours, n).range()) for n in numbers]
    most_x = float(max(numbers))
    step = step_of(max(row[1] for row in rows) * 1.6)
    most = ceil(max(row[1] for row in rows) * 1.6 / step) * step

    def place(number: float, minutes: float) -> Point:
        return number / most_x * WIDE, TALL - min(minutes / most, 1.04) * TALL

    band = [place(n, low) for n, _, low, _ in rows]
    band += [place(n, high) for n, _, _, high in reversed(rows)]
    items: list[Item] = [Shade(tuple(band), "glow")]
    words = ("bags made together", "minutes for one")
    items += axes(most_x, most, _marks(numbers), words, step, TALL)
    items.append(Line(tuple(place(n, each) for n, each, _, _ in rows), "drawn"))
    each = float(hours.each.value)
    at = place(hours.number, each)
    items += [Shade(diamond(at, 0.13), "shade"), Line(diamond(at, 0.13), "picked", closed=True)]
    bags = "bag" if hours.number == 1 else "bags"
    said = f"{hours.number} {bags}: {each:.0f} min each"
    items.append(_beside(at, said, most_x / 2 < hours.number))
    items += _days(days, hours.number, TALL + 1.5)
    high = TALL + 1.5 + DAY * min(len(days), MOST_DAYS + 1)
    caption = "Red: what to expect, with the range for nine sittings of ten."
    if together:
        caption = "Above: the bag in hand. Below: the sittings for all bags of the job."
    room = (92, 26, 24, 40)
    return Picture(tuple(items), (0.0, 0.0, WIDE, high), room, ruled=False, caption=caption)


def _marks(numbers: Sequence[int]) -> list[tuple[float, str]]:
    """Marks of an axis of bags: those that lie apart from one another."""
    found: list[tuple[float, str]] = []
    for n in numbers:
        if not found or (n - found[-1][0]) / numbers[-1] > 0.05:
            found.append((float(n), str(n)))
    return found


def _days(days: Sequence[Day], number: int, top: float) -> Iterator[Item]:
    """A row for each sitting, as long as its works take."""
    longest = max((day.minutes for day in days), default=1.0)
    for at, day in enumerate(days[:MOST_DAYS]):
        x, y = 0.0, top + at * DAY
        yield Label((-0.15, y + DAY * 0.36), f"sitting {at + 1}", align="right")
        for number_, share in enumerate(_by_work(day)):
            wide = share.minutes / longest * WIDE
            box = rectangle(x, y, wide, DAY * 0.72)
            yield Shade(box, "glow" if number_ % 2 else "paper")
            yield Line(box, "raw", closed=True)
            words = share_words(share, number == 1)
            short = OPERATION_WORDS[share.work].lower()
            yield Label((x + wide / 2, y + DAY * 0.36), words, within=wide, short=short)
            x += wide
    if len(days) > MOST_DAYS:
        words = f"and {len(days) - MOST_DAYS} more sittings"
        yield Label((0.0, top + MOST_DAYS * DAY + 0.2), words, align="left")


def _by_work(day: Day) -> list[Share]:
    """A sitting's works, each whole, whatever the bags are called."""
    found: list[Share] = []
    for share in day.shares:
        if found and found[-1].work == share.work:
            last = found[-1]
            number, minutes = last.number + share.number, last.minutes + share.minutes
            found[-1] = replace(last, number=number, minutes=minutes, name="")
        else:
            found.append(share)
    return found


def shares_of(pay: Pay) -> Iterator[tuple[str, Fraction, Tone]]:
    """Where a price goes: each part with its words, the maker's own last."""
    price = pay.price if pay.price is not None else pay.asked
    taken = price.value - kept(price, pay.pricing).value
    if taken:
        yield "tax and fees", taken, "off"
    yield "materials", pay.cost.materials.cost.value, "batting"
    other = pay.cost.by_hour.value + pay.cost.by_bag.value
    if other:
        yield "overhead, wear", other, "backing"
    left = price.value - taken - pay.cost.all.value
    if pay.price is None and pay.pricing.profit:
        wages = pay.time.value * pay.pricing.wage
        yield "your hours", wages, "glow"
        yield "profit", left - wages, "binding"
    else:
        yield "your hours", left, "glow"


def price_picture(pay: Pay, notation: Notation) -> Picture:
    """Where a price goes, part by part; below it what it pays an hour, by the batch."""

    def say(value: Fraction) -> str:
        return money_text(value, notation.currency)

    price = pay.price if pay.price is not None else pay.asked
    items: list[Item] = [*_bar(pay, price.value, say)]
    top = 3.4
    items += _wages(pay, notation, top)
    words = "The price" if pay.price is not None else "The price by your wage"
    items.append(Label((0.0, -0.35), f"{words}, {say(price.value)}, goes to", align="left"))
    caption = "" if pay.price is not None else "Type a price to see what it pays an hour."
    return Picture(tuple(items), (0.0, -0.4, WIDE, top + 4.6), ROOM, ruled=False, caption=caption)


def _beside(at: Point, words: str, left: bool) -> Label:
    """Words above a point of a plot, to the side where there is room."""
    x, y = at[0] + (-0.3 if left else 0.3), at[1] - 0.35
    return Label((x, y), words, align="right" if left else "left", strong=True, chip=True)


def _bar(pay: Pay, whole: Fraction, say: Callable[[Fraction], str]) -> Iterator[Item]:
    parts = list(shares_of(pay))
    most = max(float(whole), float(sum(max(value, Fraction(0)) for _, value, _ in parts)), 0.01)
    x = 0.0
    for at, (name, value, tone) in enumerate(parts):
        wide = max(float(value), 0.0) / most * WIDE
        yield Shade(rectangle(x, 0.0, wide, BAR), tone)
        yield Line(rectangle(x, 0.0, wide, BAR), "raw", closed=True)
        y = BAR + 0.35 + 0.42 * at
        yield Line(((x + wide / 2, BAR), (x + wide / 2, y)), "thin")
        left = x + wide / 2 < WIDE * 0.7
        text = f"{name}, {say(value)}"
        yield Label(
            (x + wide / 2 + (0.1 if left else -0.1), y), text, align="left" if left else "right"
        )
        x += wide


def _wages(pay: Pay, notation: Notation, top: float) -> Iterator[Item]:
    """What the price pays an hour in batches of so many."""
    if pay.price is None:
        return
    numbers = sorted({*NUMBERS, pay.hours.number})
    rows: Sequence[tuple[int, Pay]] = [
        (n, replace(pay, hours=_with(pay.hours, n))) for n in numbers
    ]
    ends = [float(value) for _, one in rows for value in (one.wage_range() or (0, 0))]
    step = step_of(max(max(ends), 1.0))
    most = (
        max(ceil(max(float(one.wage.value) for _, one in rows if one.wage) * 1.3 / step), 1) * step
    )
    high, wide = 4.0, WIDE

    def place(number: float, value: float) -> Point:
        share = min(max(value / most, 0.0), 1.04)
        return number / max(numbers) * wide, top + high - share * high

    bounds = [(n, one.wage_range() or (Fraction(0), Fraction(0))) for n, one in rows]
    band = [place(n, float(low)) for n, (low, _) in bounds]
    band += [place(n, float(up)) for n, (_, up) in reversed(bounds)]
    yield Shade(tuple(band), "glow")
    marks = _marks(numbers)
    unit = f"an hour, {notation.currency}" if notation.currency else "an hour"
    for item in axes(float(max(numbers)), most, marks, ("bags made together", unit), step, high):
        yield _moved(item, top)
    yield Line(tuple(place(n, float(one.wage.value)) for n, one in rows if one.wage), "drawn")
    wish = float(pay.pricing.wage)
    if 0 < wish < most:
        y = place(0, wish)[1]
        yield Line(((0.0, y), (wide, y)), "fold")
        yield Label((wide, y - 0.2), "the wage you wish", align="right", chip=True)
    assert pay.wage is not None
    at = place(pay.hours.number, float(pay.wage.value))
    yield Shade(diamond(at, 0.16), "shade")
    yield Line(diamond(at, 0.16), "picked", closed=True)
    said = f"{pay.hours.number} together: {money_text(pay.wage.value, notation.currency)} an hour"
    yield _beside(at, said, max(numbers) / 2 < pay.hours.number)


def _moved(item: Item, by: float) -> Item:
    if isinstance(item, Line):
        return replace(item, points=tuple((x, y + by) for x, y in item.points))
    if isinstance(item, Label):
        return replace(item, at=(item.at[0], item.at[1] + by))
    return item
