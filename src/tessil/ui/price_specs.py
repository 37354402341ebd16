"""The fields of time, price and costs at the Make stage: words and order only."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import Any

from tessil.core.costing.acts.hours import Hours
from tessil.core.costing.acts.levers import Lever
from tessil.core.costing.prices import Priced, PriceList
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.planned import Plan
from tessil.core.words.making import OPERATION_WORDS
from tessil.core.words.money import currency_of, money_text
from tessil.core.words.written import LONG_UNIT
from tessil.ui.asking import always, field_of
from tessil.ui.specs import Spec, with_empty

_SOLD = (("sold", "sold"), ("lower", "for less"), ("gift", "a gift"))
_COUNT = (("used", "what goes in"), ("opened", "what is opened"))
_NONE = Edit("", ())


def _page(key: str, label: str, help_: str) -> Spec:
    return Spec(key, "page", label, help_, None, always(_NONE))


def time_specs(plan: Plan, hours: Hours | None, clock: bool, several: bool) -> Iterator[Spec]:
    """How many, how long one sits, how far the batch is."""
    yield field_of(plan, "bags", "count", "Bags together", "Made work by work, as one batch")
    if several:
        yield _together(plan)
    yield field_of(
        plan, "pricing.sitting", "count", "A sitting, min", "How long one sews at a time"
    )
    about = "For the best batch"
    yield field_of(plan, "pricing.sittings", "count", "Sittings there are", about)
    if hours is not None and hours.number > 1:
        through = plan.project.making.through
        one = next((w.work for w in hours.works if through.get(w.work, 0) < hours.number), None)
        if one is not None:
            name = OPERATION_WORDS[one].lower()
            path = ("making", "through", one)
            yield Spec(
                f"through.{one}",
                "count",
                f"Through “{name}”",
                f"How many of {hours.number} are through this kind of work",
                through.get(one, 0),
                _setting(f"Count bags through {name}", path),
            )
    yield field_of(plan, "sale.buyer", "note", "For", "Who ordered it", "Say for whom")
    yield field_of(plan, "sale.due", "note", "Due", "Year-month-day", "Say when it is due")
    if clock:
        yield _page("times.clock", "Write the clock's times down", "Into your log, work by work")
    yield _page("times.page", "Your times…", "Every sitting you timed, and what it teaches")


def _together(plan: Plan) -> Spec:
    about = "One plan of the sittings, one price"
    return field_of(plan, "pricing.together", "toggle", "All bags of the job as one", about)


def _setting(words: str, path: tuple[str, ...]) -> Callable[[Any], Edit]:
    return lambda new: Edit(words, ((path, new),))


def price_specs(plan: Plan, levers: Sequence[Lever], several: bool) -> Iterator[Spec]:
    """The price it brings, the wage that is wished for, what others take of it."""
    price = field_of(plan, "sale.price", "money?", "Price it brings", "What a buyer pays")
    yield with_empty(price, "none yet")
    if several:
        yield _together(plan)
    yield field_of(plan, "sale.way", "choice", "It goes", "How it leaves you", "", _SOLD)
    if plan.project.sale.way == "lower":
        yield field_of(plan, "sale.reason", "note", "Why for less", "A friend, a flaw, a fair")
    yield field_of(plan, "pricing.wage", "money", "Wage you wish", "For an hour of your work")
    yield field_of(plan, "pricing.profit", "percent", "Profit", "On top of cost and time")
    yield field_of(plan, "pricing.fees", "percent", "Fees", "Of the price: stall, platform, card")
    about = "On top of the price without it; 0 where none is due"
    yield field_of(plan, "pricing.vat", "percent", "Sales tax", about)
    for at, one in enumerate([one for one in levers if one.gain > 0][:3]):
        yield Spec(
            f"lever.{at}", "action", one.edit.words, "It would pay more", None, always(one.edit)
        )
    yield _page("made.log", "Write this bag down", "Into the log of bags made, with what it took")
    yield _page("made.page", "Bags you made…", "What they took, cost and taught")
    yield _page("tag.page", "Price tag…", "A tag and a label to print")


def cost_specs(plan: Plan, things: Sequence[Priced], prices: PriceList) -> Iterator[Spec]:
    """How cloth is counted, what comes with every bag, and the price of each thing."""
    yield field_of(plan, "pricing.count", "choice", "Count cloth by", "Two ways", "", _COUNT)
    yield field_of(
        plan, "pricing.scraps_free", "toggle", "Scraps cost nothing", "They were paid for long ago"
    )
    usual = currency_of("") or "none"
    yield Spec(
        "pricing.currency",
        "note",
        "Currency",
        f"Three letters, such as EUR; empty: {usual}",
        plan.project.pricing.currency,
        lambda new: edit("Set the currency", ("pricing.currency", str(new).strip().upper())),
    )
    for key, label, about in (
        ("overhead", "Overhead", "For each bag: room, tools, the fair"),
        ("packaging", "Packaging", "For each bag"),
        ("wear", "Wear", "For an hour: needles, blades, the machine"),
        ("electricity", "Electricity", "For an hour; 0 is off"),
    ):
        yield field_of(plan, f"pricing.{key}", "money", label, about)
    for thing in things:
        yield _price(plan, thing, prices)


def _price(plan: Plan, thing: Priced, prices: PriceList) -> Spec:
    per, unit = LONG_UNIT[plan.project.units] if thing.long else (Fraction(1), "")
    own = prices.own.get(thing.key)
    shelf = prices.shelf.get(thing.key)
    empty = "no price yet" if shelf is None else f"{money_text(shelf * per, '')} by the shelf"
    name = f"{thing.name}, a {unit}" if unit else f"{thing.name}, each"
    words = f"Set the price of {thing.name.lower()}"
    return Spec(
        f"price.{thing.key}",
        "money?",
        name,
        f"What it costs; empty: {empty}",
        None if own is None else own * per,
        lambda new: Edit(
            words, ((("pricing", "prices", thing.key), None if new is None else new / per),)
        ),
        empty=empty,
    )
