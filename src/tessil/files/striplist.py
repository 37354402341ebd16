"""The strips of all edges as a list: straight ones, bias ones with their places, straps."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from tessil.core.choices import bound_print
from tessil.core.edges.bias import join_cost
from tessil.core.edges.crosscut import SEAM, BiasCut
from tessil.core.numbers.exact import Fraction
from tessil.core.planned import Plan
from tessil.files.csvtext import write_list

HEAD = ("for", "cloth", "strip", "piece", "angle", "width", "length", "turned", "join at")


def strip_rows(plan: Plan) -> list[dict[str, Any]]:
    """One row a strip, in the order in which they are joined; lengths in the project's units."""
    rows = list(_straight(plan))
    for cut in plan.edging.bias:
        rows += _bias(plan, cut)
    return rows


def _row(plan: Plan, what: str, cloth: str, *rest: object) -> dict[str, Any]:
    return dict(zip(HEAD, (what, plan.project.print_of(cloth).name, *rest), strict=True))


def _straight(plan: Plan) -> Iterator[dict[str, Any]]:
    binding, read = plan.binding, plan.marks.notation.read_off
    if binding is None or plan.project.binding.grain == "bias":
        return
    places = (*binding.begin.joins, None)
    width, usable = read(binding.cut.value), read(plan.project.stock.usable_width)
    cloth = bound_print(plan.project)
    for at in range(binding.strips.whole):
        join = _at(plan, places[at] if at < len(places) else None)
        yield _row(plan, "binding", cloth, at + 1, "", 0, width, usable, "", join)


def _bias(plan: Plan, cut: BiasCut) -> Iterator[dict[str, Any]]:
    joined, read = cut.plan.joined, plan.marks.notation.read_off
    width = read(cut.width.value)
    if cut.tube is not None:
        gives = read(cut.tube.reaches.value)
        yield _row(plan, cut.what, cut.cloth, 1, "tube", 45, width, gives, "", "")
        return
    places = (*joined.places(join_cost(float(SEAM))), None)
    for at, used in enumerate(joined.used):
        yield _row(
            plan,
            cut.what,
            cut.cloth,
            at + 1,
            used.strip.scrap + 1,
            round(used.strip.angle),
            width,
            _at(plan, used.length),
            "turned" if used.turned else "",
            _at(plan, places[at]),
        )


def _at(plan: Plan, place: float | None) -> str:
    """A place along an edge as it is read off a tape."""
    return (
        "" if place is None else plan.marks.notation.read_off(Fraction(round(place * 10000), 10000))
    )


def strips_csv(plan: Plan) -> str:
    """The list as CSV with a head row."""
    return write_list(HEAD, ([row[name] for name in HEAD] for row in strip_rows(plan)))
