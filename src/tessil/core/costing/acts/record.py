"""A planned bag written down once it is made: what it was to be, what it took, all its choices."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from tessil.core.costing.acts.price import Pay
from tessil.core.costing.stats import wage_of
from tessil.core.cutting.item import SCRAP
from tessil.core.logbook.book import MadeBag
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.planned import Plan
from tessil.core.project import Job, job_of


def bag_made(plan: Plan, pay: Pay | None, today: str) -> MadeBag:
    """The bag in hand as an entry of the log."""
    project = plan.project
    seconds = sum(project.making.seconds.values())
    clock = seconds / 60 / project.made if seconds >= 60 else None
    expected = float(pay.hours.each.value) if pay is not None else None
    minutes = clock or expected
    notes = [f"{step}: {words}" for step, words in project.making.notes.items()]
    way = {"sold": "sold", "lower": "lower", "gift": "gift"}[project.sale.way]
    return MadeBag(
        name=project.name,
        kind=project.shape.kind,
        date=today,
        number=project.made,
        planned=tuple(Fraction(figure.value) for figure in plan.bag.finished[:3]),
        minutes=None if minutes is None else round(minutes, 1),
        currency=project.pricing.currency,
        cost=None if pay is None else _cents(pay.cost.all.value),
        price=project.sale.price,
        way="kept" if project.sale.price is None and way == "sold" else way,  # type: ignore[arg-type]
        buyer=project.sale.buyer,
        remarks="; ".join(notes)[:1000],
        scraps=scrap_share(plan),
        source=project.log_name,
        choices=choices_of(plan),
    )


def _cents(value: Fraction) -> Fraction:
    return Fraction(round(value * 100), 100)


def scrap_share(plan: Plan) -> float | None:
    """The part of the cloth, by area, that comes from scraps."""
    areas = [
        (item.number.value * item.width.value * item.height.value, item.what == SCRAP)
        for item in plan.items
        if not item.material
    ]
    every = sum(area for area, _ in areas)
    return float(sum(area for area, scrap in areas if scrap) / every) if every else None


def choices_of(plan: Plan) -> dict[str, Any]:
    """All that was decided, as a job of one bag: without what was measured, cut and done, and
    without photos."""
    project = plan.project.model_copy(
        update={
            "prints": tuple(one.model_copy(update={"photo": None}) for one in plan.project.prints),
            "cutting": None,
            "making": Made(),
            "measured": {},
            "copies": {},
            "left": {},
            "nth": 0,
        }
    )
    job: Job = job_of(project)
    data: dict[str, Any] = job.model_dump(mode="json")
    return data


def compared(
    one: MadeBag, other: MadeBag, notation: Notation, say: Callable[[Fraction], str]
) -> Iterator[str]:
    """Two bags side by side, line by line where they differ."""
    rows = zip(_lines(one, notation, say), _lines(other, notation, say), strict=True)
    for (name, left), (_, right) in rows:
        if left != right:
            yield f"{name}: {left or 'nothing'} against {right or 'nothing'}"


def _lines(
    bag: MadeBag, notation: Notation, say: Callable[[Fraction], str]
) -> Iterator[tuple[str, str]]:
    wage = wage_of(bag)
    yield "Kind", bag.kind.replace("-", " ")
    yield "Made", bag.date
    yield "Number", str(bag.number)
    yield "Planned", notation.size(*bag.planned) if bag.planned else ""
    yield "Got", notation.size(*bag.got) if bag.got else ""
    yield "Minutes", "" if bag.minutes is None else f"{bag.minutes:.0f}"
    yield "Cost", "" if bag.cost is None else say(bag.cost)
    yield "Price", "" if bag.price is None else say(bag.price)
    yield "Wage", "" if wage is None else say(wage)
    yield "Mistakes", bag.mistakes
    yield "Remarks", bag.remarks
