"""What would raise the wage most: other choices for the same bag, each planned and reckoned."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from msgspec.structs import replace

from tessil.core.bag.deeds import Making
from tessil.core.choosing import choose
from tessil.core.costing.acts.cost import Heap, cost_of, materials_of
from tessil.core.costing.acts.hours import hours_of
from tessil.core.costing.acts.price import Pay, in_hours, sale_price
from tessil.core.costing.prices import PriceList
from tessil.core.edits import Edit, applied, edit
from tessil.core.logbook.book import Book
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.project import MOST_BAGS, Project
from tessil.core.trouble import CannotPlan

WIDER = Fraction(3, 2)
Planner = Callable[[Project], Plan]


class Lever(Record, frozen=True):
    """One other choice: its words, the change, and how much more or less it pays an hour."""

    edit: Edit
    gain: Fraction


def pay_of(
    plan: Plan, book: Book, prices: PriceList, heap: Heap, making: Making | None = None
) -> Pay | None:
    """What a planned bag costs, takes and pays; none where it cannot be made.  ``making`` where its
    steps are known already."""
    steps = making or making_of(plan, plan.project.making)
    hours = hours_of(plan, steps, book)
    if hours is None:
        return None
    materials = materials_of(plan, prices, heap, steps)
    cost = cost_of(plan, materials, in_hours(hours.each))
    return Pay(cost, hours, plan.project.pricing, sale_price(plan))


def best_first(found: Iterable[Lever]) -> tuple[Lever, ...]:
    """What raises the wage most first."""
    return tuple(sorted(found, key=lambda one: -one.gain))


def each_lever(
    plan: Plan, book: Book, prices: PriceList, heap: Heap, planner: Planner
) -> Iterator[Lever | None]:
    """One other choice after the other, each planned when it is asked for; none where it cannot be
    planned."""
    now = pay_of(plan, book, prices, heap)
    if now is None or now.wage is None:
        return
    fresh = replace(heap, spreads=None)  # other pieces are not in the plan of the cuts
    for change in _others(plan):
        try:
            made = planner(applied(plan.project, change))
            pay = pay_of(made, book, prices, heap if made.items == plan.items else fresh)
        except (CannotPlan, ValueError):
            yield None
            continue
        if pay is None or pay.wage is None:
            yield None
        else:
            yield Lever(change, pay.wage.value - now.wage.value)


def _others(plan: Plan) -> Iterator[Edit]:
    project = plan.project
    if project.bags * 2 <= MOST_BAGS and not project.nth:
        yield edit(f"Make {project.bags * 2} at once", ("bags", project.bags * 2))
    yield from _quilting(plan)
    yield from _piecing(plan)
    if project.piping.panels:
        yield edit("Leave the piping off", ("piping.panels", ()))
    if project.marks:
        yield edit("Leave pockets and marks off", ("marks", ()))
    if plan.edging.loop is not None:
        yield edit("Leave button and loop off", ("button.used", False))
    if project.snap.used:
        yield edit("Leave the snap off", ("snap.used", False))


def _quilting(plan: Plan) -> Iterator[Edit]:
    """Lines half as far apart again, where the batting allows, and none at all."""
    wider: list[Edit] = []
    for panel in plan.panels:
        quilting = panel.choices.quilting
        batting = [m.widest_gap for m in panel.materials if m.kind == "batting" and m.widest_gap]
        gap = quilting.gap * WIDER
        if not panel.quilts or panel.panel.made_of or quilting.pattern in ("ditch", "offset"):
            continue
        if panel.key in plan.project.panels and all(gap <= limit for limit in batting):
            wider.append(choose(plan.project, panel.panel, "", ("quilting.gap", gap)))
    if wider:
        yield Edit("Sew the lines half as far apart again", _together(wider))


def _piecing(plan: Plan) -> Iterator[Edit]:
    """The outside cut from whole cloth."""
    whole = [
        choose(plan.project, panel.panel, "", ("piecing.way", "whole"))
        for panel in plan.panels
        if panel.key in plan.project.panels and panel.choices.piecing.way != "whole"
        if not panel.panel.made_of and not panel.only_cloth
    ]
    if whole:
        yield Edit("Cut it from whole cloth", _together(whole))


def _together(edits: list[Edit]) -> tuple[tuple[tuple[str | int, ...], object], ...]:
    return tuple(change for one in edits for change in one.changes)
