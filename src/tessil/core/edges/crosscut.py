"""Bias cut for a purpose: from pieces there are, or from new cloth, for few joins or little waste.

Knows what strips are asked for; what they bind stands in ``edging``.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from tessil.core.edges.bias import BiasPlan, join_cost, plan_bias
from tessil.core.edges.binding import BindingPlan, EdgeStrip
from tessil.core.edges.runs import fine
from tessil.core.edges.task import EdgeTask
from tessil.core.edges.tube import TubePlan, plan_tube
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER, Inches
from tessil.core.numbers.polygons import area
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.trouble import CannotPlan

FAT_QUARTER = (Fraction(18), Fraction(21))  # on which one plans; common practice
SEAM = Fraction(1, 4)
HALF_YARD = Fraction(18)
HEIGHT_STEP = {"inch": Fraction(1), "metric": IN_PER["cm"] * 2}
JOIN_COST = given("a join takes", fine(join_cost(float(SEAM))), Basis.GEOMETRY)


class BiasCut(Record, frozen=True):
    """Bias strips for one purpose: from pieces of cloth there are, or from new cloth.

    ``new`` is width and height of a rectangle to cut from new cloth; ``quarters`` how many fat
    quarters would do instead.  ``other`` is the plan by the other preference.
    """

    what: str
    cloth: str
    width: Figure
    need: Figure
    plan: BiasPlan
    other: BiasPlan | None
    outlines: tuple[Outline, ...]
    reaches: Figure
    joins: Figure
    waste: Figure
    new: tuple[Figure, Figure] | None = None
    quarters: Figure | None = None
    tube: TubePlan | None = None
    own: bool = False  # of edges bound by themselves


class Wanted(Record, frozen=True):
    """Bias that is asked for: what for, of which cloth, how wide and how long."""

    what: str
    cloth: str
    width: Figure
    need: Figure
    own: bool = False


@lru_cache(maxsize=64)
def _planned(
    outlines: tuple[Outline, ...], width: float, need: float, least: float, fewest: bool
) -> BiasPlan:
    return plan_bias(outlines, width, need, float(SEAM), least, fewest)


def bias_cuts(
    task: EdgeTask,
    binding: BindingPlan | None,
    own: tuple[EdgeStrip, ...],
    more: tuple[Wanted, ...],
) -> tuple[BiasCut, ...]:
    """Bias for the binding and for edges bound by themselves, if they are cut so, and for ``more``;
    pieces in hand go to the first.  Raises CannotPlan where no length of the cloth is enough."""
    wanted: list[Wanted] = []
    if binding is not None and task.binding.grain == "bias":
        wanted.append(Wanted("binding", task.cloth, binding.cut, binding.length))
    if task.binding.grain == "bias":
        wanted += _own(task, own)
    wanted += more
    return tuple(_cut(task, one, first=at == 0) for at, one in enumerate(wanted))


def _own(task: EdgeTask, own: tuple[EdgeStrip, ...]) -> Iterator[Wanted]:
    """Edges with a strip of their own, those of one width together; each strip joined as it must
    be, so that one more join may fall between two edges."""
    by_cut: dict[Inches, list[EdgeStrip]] = {}
    for strip in own:
        if strip.cut is not None:
            by_cut.setdefault(strip.cut.value, []).append(strip)
    for at, (_, group) in enumerate(sorted(by_cut.items()), start=1):
        cut = group[0].cut
        assert cut is not None
        need = total(strip.edge.number * strip.edge.length for strip in group)
        what = f"edges, width {at}" if len(by_cut) > 1 else "edges"
        yield Wanted(what, task.cloth, cut, need.called("edges, binding"), own=True)


def _cut(task: EdgeTask, wanted: Wanted, first: bool) -> BiasCut:
    choice = task.bias
    if choice.source == "pieces" and first and choice.pieces:
        return _from_pieces(task, wanted)
    return _from_new(task, wanted)


def _figures(
    plan: BiasPlan, outlines: tuple[Outline, ...], width: Figure
) -> tuple[Figure, Figure, Figure]:
    """What the joined strips reach, in how many joins, and what is over of the pieces cut into."""
    used = plan.joined.used
    if not used:
        none = count("strips", 0, Basis.GEOMETRY)
        return given("joined, they reach", 0, Basis.GEOMETRY), none, none * none
    strips = count("strips", len(used), Basis.GEOMETRY)
    joins = strips - 1
    sewn = total(
        given(f"strip {at}", fine(one.length), Basis.GEOMETRY)
        for at, one in enumerate(used, start=1)
    )
    reaches = sewn - joins * JOIN_COST
    touched = total(
        given(f"piece {scrap + 1}", fine(area(outlines[scrap])), Basis.GEOMETRY, 2)
        for scrap in sorted({one.strip.scrap for one in used})
    )
    over = touched - sewn * width
    return (
        reaches.called("joined, they reach"),
        joins.called("joins"),
        over.called("of the pieces cut into, over"),
    )


def _from_pieces(task: EdgeTask, wanted: Wanted) -> BiasCut:
    choice = task.bias
    outlines = tuple(piece.outline for piece in choice.pieces)
    fewest = choice.prefer == "joins"
    asked = (outlines, float(wanted.width.value), float(wanted.need.value), float(choice.least))
    plan, other = (_planned(*asked, way) for way in (fewest, not fewest))
    return BiasCut(
        wanted.what,
        wanted.cloth,
        wanted.width,
        wanted.need,
        plan,
        other,
        outlines,
        *_figures(plan, outlines, wanted.width),
        own=wanted.own,
    )


def _from_new(task: EdgeTask, wanted: Wanted) -> BiasCut:
    """A rectangle across the cloth: as low as will do, or higher for fewer joins; or a tube's
    square."""
    usable = task.usable_width
    tried = _heights(task, wanted)
    fewest = task.bias.prefer == "joins"
    ways = [min(tried, key=_by_joins), tried[0]]
    (high, plan), (_, other) = ways if fewest else reversed(ways)
    new = (given("usable width", usable), given("cloth for it, height", high, Basis.GEOMETRY))
    tube = None
    if task.bias.source == "tube":
        tube = plan_tube(
            wanted.need, wanted.width, given("seam of the tube", SEAM), task.marks.ruler
        )
        new = (tube.side, tube.side)
    return BiasCut(
        wanted.what,
        wanted.cloth,
        wanted.width,
        wanted.need,
        plan,
        other,
        (_rectangle(usable, high),),
        *_figures(plan, (_rectangle(usable, high),), wanted.width),
        new=new,
        quarters=_quarters(task, wanted.width, wanted.need),
        tube=tube,
        own=wanted.own,
    )


def _by_joins(one: tuple[Inches, BiasPlan]) -> tuple[int, Inches]:
    return one[1].joined.joins, one[0]


def _rectangle(width: Inches, height: Inches) -> Outline:
    w, h = float(width), float(height)
    return ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))


def _heights(task: EdgeTask, wanted: Wanted) -> list[tuple[Inches, BiasPlan]]:
    """Heights of cloth that give enough, the lowest first, up to half a yard if that will do."""
    usable, step = task.usable_width, HEIGHT_STEP[task.marks.units]
    high = max(step * 4, wanted.width.value * 2)
    found: list[tuple[Inches, BiasPlan]] = []
    while not found or high <= HALF_YARD:
        if high > 10 * usable:
            raise CannotPlan(
                "bias.least",
                "No length of this cloth gives bias enough: take wider cloth or shorter pieces.",
            )
        least = min(float(task.bias.least), float(high))
        plan = _planned(
            (_rectangle(usable, high),),
            float(wanted.width.value),
            float(wanted.need.value),
            least,
            True,
        )
        if plan.enough:
            found.append((high, plan))
        high += step
    return found


def _quarters(task: EdgeTask, width: Figure, need: Figure) -> Figure:
    """How many fat quarters give as much."""
    one = _rectangle(*FAT_QUARTER)
    asked = (
        float(width.value),
        float(need.value),
        min(float(task.bias.least), float(FAT_QUARTER[0])),
    )
    number = 1
    while number < 20 and not _planned((one,) * number, *asked, True).enough:
        number += 1
    return count("fat quarters instead", number, Basis.GEOMETRY)


def bias_bound(plan: BiasPlan) -> str:
    """What can be said of the joins found against the fewest there can be."""
    if plan.joined.joins <= plan.least:
        return "No choice of these strips has fewer joins"
    return f"At least {plan.least} joins, whatever is chosen"
