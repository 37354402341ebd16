"""What a bag has to be sold for, and what a price pays an hour.

Of the price that is paid the tax is taken first (it is on top of the price without it), then fees
(a share of what is paid), then all that the bag costs; what is left pays its maker's hours.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tessil.core.costing.acts.cost import NOTHING, Cost
from tessil.core.costing.acts.hours import Hours
from tessil.core.costing.choice import Pricing
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, given, number
from tessil.core.planned import Plan
from tessil.core.reading import Reading

SIXTY = 60


def in_hours(minutes: Figure) -> Figure:
    """Minutes as hours."""
    return (minutes / count("minutes in an hour", SIXTY, Basis.GEOMETRY)).called("hours", "hours")


def kept(price: Figure, pricing: Pricing) -> Figure:
    """What of a price that is paid stays with the maker, before what the bag costs."""
    left = price
    if pricing.vat:
        left = left / (1 + _share("tax", pricing.vat))
    if pricing.fees:
        left = left - price * _share("fees", pricing.fees)
    return left.called("what you keep", "money")


def _share(label: str, value: Fraction) -> Figure:
    return given(label, value, Basis.CHOSEN, 0, "percent")


def wage(price: Figure, cost: Figure, hours: Figure, pricing: Pricing) -> Figure:
    """What a price pays for an hour: what is kept, less what the bag costs, by its hours.

    20 of materials, half an hour, sold at 55: 70 an hour (common practice, no source).
    """
    return ((kept(price, pricing) - cost) / hours).called("wage an hour", "money")


def asked(cost: Figure, hours: Figure, pricing: Pricing) -> Figure:
    """The price that pays the wage that is wished for: cost and time, profit on top, then what
    fees and tax take of it; nothing where they take all of it."""
    wished = given("wage wished for", pricing.wage, Basis.CHOSEN, 0, "money")
    need = cost + hours * wished
    if pricing.profit:
        need = need * (1 + _share("profit", pricing.profit))
    left = number(1) / (1 + _share("tax", pricing.vat)) if pricing.vat else number(1)
    if pricing.fees:
        left = left - _share("fees", pricing.fees)
    if left.value <= 0:
        return NOTHING.called("price by your wage", "money")
    made = need / left if pricing.fees or pricing.vat else need
    return made.called("price by your wage", "money")


class Pay(Record, frozen=True):
    """What one bag costs, takes and pays."""

    cost: Cost
    hours: Hours
    pricing: Pricing
    price: Figure | None

    @property
    def time(self) -> Figure:
        """Hours for one bag."""
        return in_hours(self.hours.each)

    @property
    def asked(self) -> Figure:
        """The price by the wage that is wished for."""
        return asked(self.cost.all, self.time, self.pricing)

    @property
    def wage(self) -> Figure | None:
        """What the market's price pays for an hour."""
        if self.price is None or not self.time.value:
            return None
        return wage(self.price, self.cost.all, self.time, self.pricing)

    def wage_range(self) -> tuple[Fraction, Fraction] | None:
        """What it pays if the bag takes long, and if it goes quickly, nine times in ten."""
        if self.price is None:
            return None
        low, high = self.hours.range()
        left = kept(self.price, self.pricing).value - self.cost.all.value
        ends = [left * SIXTY / Fraction(round(minutes * 100), 100) for minutes in (high, low)]
        return min(ends), max(ends)


def sale_price(plan: Plan) -> Figure | None:
    """The price that a bag is sold for, if one is set; a gift has none."""
    sale = plan.project.sale
    if sale.price is None or sale.way == "gift":
        return None
    return given("price", sale.price, Basis.CHOSEN, 0, "money")


def price_readings(pay: Pay, say: Callable[[Fraction], str]) -> Iterator[Reading]:
    """From the wage, which comes first, down to each thing that the bag is made of."""
    ends = pay.wage_range()
    if pay.wage is not None and ends is not None and pay.price is not None:
        about = f"{say(ends[0])} to {say(ends[1])}, nine times in ten, by how long it takes"
        yield Reading("price.wage", pay.wage, about, leaf="price")
        if pay.pricing.vat or pay.pricing.fees:
            about = "After tax and fees"
            yield Reading("price.kept", kept(pay.price, pay.pricing), about, leaf="price")
    about = "Cost, your time at the wage you wish, profit, fees and tax"
    yield Reading("price.asked", pay.asked, about, leaf="price")
    yield Reading("price.time", pay.time, f"Each, {pay.hours.number} together", leaf="price")
    missing = pay.cost.materials.missing
    names = ", ".join(missing[:4]).lower()
    about = f"Without {names}: no price yet" if missing else "All that one bag costs but your time"
    yield Reading("price.cost", pay.cost.all, about, leaf="price")
    for at, line in enumerate(pay.cost.materials.lines):
        if line.cost is not None:
            key = f"price.{line.thing.key}.{at}"  # thread stands twice: of lines and of seams
            yield Reading(key, line.cost, "For one bag", leaf="price")
    for key, part in (("by hour", pay.cost.by_hour), ("by bag", pay.cost.by_bag)):
        if part.value:
            yield Reading(f"price.{key}", part, "For one bag", leaf="price")
