"""The strips of all edges as a list: straight ones, bias ones with their places, straps."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from fractions import Fraction
from typing import Any

from tessil.core.edges.bias import join_cost
from tessil.core.edges.edging import SEAM, BiasCut, bound_print
from tessil.core.plan import Plan

HEAD = ("for", "cloth", "strip", "piece", "angle", "width", "length", "turned", "join at")


def strip_rows(plan: Plan) -> list[dict[str, Any]]:
    """One row a strip, in the order in which they are joined; lengths in the project's units."""
    rows = list(_straight(plan))
    for cut in plan.edging.bias:
        rows += _bias(plan, cut)
    return rows


def _straight(plan: Plan) -> Iterator[dict[str, Any]]:
    binding, read = plan.binding, plan.marks.notation.read_off
    if binding is None or plan.project.binding.grain == "bias":
        return
    places = (*binding.begin.joins, None)
    for at in range(binding.strips.whole):
        yield {
            "for": "binding", "cloth": _name(plan, bound_print(plan.project)), "strip": at + 1, "piece": "",
            "angle": 0, "width": read(binding.cut.value),
            "length": read(plan.project.stock.usable_width), "turned": "",
            "join at": _at(plan, places[at] if at < len(places) else None),
        }  # fmt: skip


def _bias(plan: Plan, cut: BiasCut) -> Iterator[dict[str, Any]]:
    if cut.tube is not None:
        yield {
            "for": cut.what, "cloth": _name(plan, cut.cloth), "strip": 1, "piece": "tube", "angle": 45,
            "width": plan.marks.notation.read_off(cut.width.value),
            "length": plan.marks.notation.read_off(cut.tube.reaches.value),
            "turned": "", "join at": "",
        }  # fmt: skip
        return
    joined, width = cut.plan.joined, plan.marks.notation.read_off(cut.width.value)
    places = (*joined.places(join_cost(float(SEAM))), None)
    for at, used in enumerate(joined.used):
        yield {
            "for": cut.what, "cloth": _name(plan, cut.cloth), "strip": at + 1, "piece": used.strip.scrap + 1,
            "angle": round(used.strip.angle), "width": width,
            "length": _at(plan, used.length), "turned": "turned" if used.turned else "",
            "join at": _at(plan, places[at]),
        }  # fmt: skip


def _name(plan: Plan, cloth: str) -> str:
    return plan.project.print_of(cloth).name


def _at(plan: Plan, place: float | None) -> str:
    """A place along an edge as it is read off a tape."""
    return (
        "" if place is None else plan.marks.notation.read_off(Fraction(round(place * 10000), 10000))
    )


def strips_csv(plan: Plan) -> str:
    """The list as CSV with a head row."""
    out = io.StringIO()
    writer = csv.DictWriter(out, HEAD, lineterminator="\n")
    writer.writeheader()
    writer.writerows(strip_rows(plan))
    return out.getvalue()
