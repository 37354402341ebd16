"""All bags of a job reckoned as one: their hours, what they cost and bring, each one's share."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from tessil.core.costing.acts.price import Pay, in_hours, kept
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure, count, total
from tessil.core.reading import Reading


class Member(Record, frozen=True):
    """One bag of a job with what it costs and pays, so many of it."""

    name: str
    pay: Pay

    @property
    def number(self) -> Figure:
        """How many of it are made."""
        return count("bags", self.pay.hours.number)

    def times(self, figure: Figure) -> Figure:
        """What is said of one, for all of them."""
        return (self.number * figure).called(self.name.lower(), figure.show)


class Whole(Record, frozen=True):
    """The whole job."""

    members: tuple[Member, ...]

    @property
    def hours(self) -> Figure:
        """Hours for all bags."""
        return total([m.times(in_hours(m.pay.hours.each)) for m in self.members]).called(
            "hours for all", "hours"
        )

    @property
    def cost(self) -> Figure:
        """What all bags cost."""
        return total([m.times(m.pay.cost.all) for m in self.members]).called("all cost", "money")

    @property
    def brings(self) -> Figure | None:
        """What stays of all their prices; none where one has none."""
        rows = [
            m.times(kept(m.pay.price, m.pay.pricing))
            for m in self.members
            if m.pay.price is not None
        ]
        return total(rows).called("all bring", "money") if rows else None

    @property
    def asked(self) -> Figure:
        """The price of the whole by the wage that is wished for."""
        rows = [m.times(m.pay.asked) for m in self.members]
        return total(rows).called("price of all by your wage", "money")

    @property
    def wage(self) -> Figure | None:
        """What an hour of the whole job is paid; none where a bag has no price."""
        if self.brings is None or not self.hours.value:
            return None
        if any(m.pay.price is None for m in self.members):
            return None
        return ((self.brings - self.cost) / self.hours).called("wage an hour, all", "money")


def whole_readings(whole: Whole, say: Callable[[Fraction], str]) -> Iterator[Reading]:
    """The job's figures, then each bag's share of them."""
    if whole.wage is not None:
        yield Reading("whole.wage", whole.wage, "Over all bags of the job", leaf="price")
    if whole.brings is not None:
        yield Reading("whole.brings", whole.brings, "After tax and fees", leaf="price")
    yield Reading("whole.asked", whole.asked, "If each is sold at its own", leaf="price")
    yield Reading("whole.hours", whole.hours, "Each bag in its batch", leaf="price")
    yield Reading("whole.cost", whole.cost, "All but your time", leaf="price")
    for at, member in enumerate(whole.members):
        cost, hours = member.times(member.pay.cost.all), member.times(member.pay.time)
        wage = member.pay.wage
        paid = "" if wage is None else f", {say(wage.value)} an hour"
        part = float(hours.value / whole.hours.value) * 100 if whole.hours.value else 0.0
        about = f"{member.pay.hours.number} of it, {part:.0f} % of the hours{paid}"
        yield Reading(f"whole.{at}", cost, about, leaf="price")


def paid_for(members: Sequence[Member]) -> tuple[str, ...]:
    """The bags that have no price yet."""
    return tuple(member.name for member in members if member.pay.price is None)
