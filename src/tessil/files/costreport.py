"""Time, cost and price of a job as data and as a page of text: each bag, and all of them as one."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from tessil.core.costing.acts.cost import Heap, things_of
from tessil.core.costing.acts.hours import day_words, days_of, tasks_of
from tessil.core.costing.acts.levers import pay_of
from tessil.core.costing.acts.price import Pay
from tessil.core.costing.acts.together import Member, Whole
from tessil.core.costing.days import Day, Task
from tessil.core.costing.prices import PriceList
from tessil.core.cutting.acts.whole import Spreads
from tessil.core.logbook.book import Book
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure
from tessil.core.planned import Plan
from tessil.core.shelf.acts import prices_of, scraps_of
from tessil.core.shelf.rows import Shelf
from tessil.core.trouble import CannotPlan
from tessil.core.words.making import OPERATION_WORDS
from tessil.core.words.written import exact_text, value_text, working


class Ledger(Record, frozen=True):
    """What time and money are reckoned from beside the job itself."""

    book: Book
    shelf: Shelf
    spreads: Spreads | None = None


class Reckoning(Record, frozen=True):
    """A job reckoned: bag by bag, and the sittings to come for all."""

    whole: Whole
    plans: tuple[Plan, ...]
    days: tuple[Day, ...]


def reckoned(plans: Sequence[Plan], ledger: Ledger) -> Reckoning:
    """What each bag takes, costs and pays; bags that cannot be made are left out."""
    members: list[Member] = []
    kept: list[Plan] = []
    tasks: list[Task] = []
    scraps = scraps_of(ledger.shelf, ledger.spreads)
    for at, plan in enumerate(plans):
        known = prices_of(ledger.shelf, things_of(plan), plan)
        prices = PriceList(plan.project.pricing.prices, known)
        try:
            pay = pay_of(plan, ledger.book, prices, Heap(at, ledger.spreads, scraps))
        except CannotPlan:
            continue
        if pay is not None:
            members.append(Member(plan.project.name, pay))
            kept.append(plan)
            tasks += tasks_of(plan, pay.hours, plan.project.name if len(plans) > 1 else "")
    days = days_of(plans[0], tasks) if tasks else ()
    return Reckoning(Whole(tuple(members)), tuple(kept), days)


def cost_data(made: Reckoning) -> dict[str, Any]:
    """Time, cost, price and wage of each bag, of all, and the sittings to come."""
    whole = made.whole
    return {
        "bags": [
            _bag_data(member.pay, plan)
            for member, plan in zip(whole.members, made.plans, strict=True)
        ],
        "all": {
            "hours": _number(whole.hours) if whole.members else None,
            "cost": _number(whole.cost) if whole.members else None,
            "wage": _number(whole.wage) if whole.members else None,
        },
        "sittings": [
            [
                {
                    "work": one.work,
                    "bag": one.name,
                    "number": one.number,
                    "minutes": round(one.minutes, 1),
                }
                for one in day.shares
            ]
            for day in made.days
        ],
    }


def _number(figure: Figure | None) -> float | None:
    return None if figure is None else round(float(figure.value), 4)


def _figure(figure: Figure | None, plan: Plan) -> dict[str, Any] | None:
    if figure is None:
        return None
    notation = plan.marks.notation
    return {
        "value": _number(figure),
        "text": value_text(figure, notation),
        "working": working(figure, notation),
        "basis": figure.basis.words,
    }


def _bag_data(pay: Pay, plan: Plan) -> dict[str, Any]:
    ends = pay.wage_range()
    return {
        "name": plan.project.name,
        "number": pay.hours.number,
        "currency": plan.project.pricing.currency,
        "minutes": {
            one.work: {
                **(_figure(one.all(pay.hours.number).called(one.work, "minutes"), plan) or {}),
                "range": [round(value, 1) for value in one.range(pay.hours.number)],
                "sittings": one.curve.sittings,
                "rate": round(one.curve.rate, 3),
            }
            for one in pay.hours.works
        },
        "hours": _figure(pay.time, plan),
        "hours_range": [round(value / 60, 3) for value in pay.hours.range()],
        "materials": [
            {
                "what": line.thing.name,
                "amount": exact_text(line.amount, plan.marks.notation),
                "cost": _figure(line.cost, plan),
            }
            for line in pay.cost.materials.lines
        ],
        "missing": list(pay.cost.materials.missing),
        "cost": _figure(pay.cost.all, plan),
        "price": _figure(pay.price, plan),
        "asked": _figure(pay.asked, plan),
        "wage": _figure(pay.wage, plan),
        "wage_range": None if ends is None else [round(float(value), 2) for value in ends],
    }


def cost_text(made: Reckoning) -> str:
    """The same as a page to read."""
    return "\n".join(_lines(made)) + "\n"


def _lines(made: Reckoning) -> Iterator[str]:
    yield "Time, cost and price"
    for member, plan in zip(made.whole.members, made.plans, strict=True):
        pay, notation = member.pay, plan.marks.notation
        low, high = pay.hours.range()
        yield ""
        yield f"{plan.project.name}, {pay.hours.number} together"
        each = value_text(pay.hours.each, notation)
        yield f"  time for one   {each}, {low:.0f} to {high:.0f} nine times in ten"
        for one in pay.hours.works:
            figure = one.all(pay.hours.number).called("", "minutes")
            name = OPERATION_WORDS[one.work].lower()
            yield f"    {name:<10} {value_text(figure, notation):>8}  {working(figure, notation)}"
        for label, found in (
            ("cost", pay.cost.all),
            ("price", pay.price),
            ("by your wage", pay.asked),
            ("wage an hour", pay.wage),
        ):
            if found is not None:
                said = f"{value_text(found, notation)}  {working(found, notation)}"
                yield f"  {label:<14} {said.rstrip()}"
        if pay.cost.materials.missing:
            yield f"  no price yet   {', '.join(pay.cost.materials.missing).lower()}"
    if made.days:
        yield ""
        alone = len(made.plans) == 1 and made.plans[0].project.made == 1
        yield from day_words(made.days, alone)
