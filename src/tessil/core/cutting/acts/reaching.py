"""The largest bag of which every part comes out of the cloths there are.

A heap of pieces for each cloth, each print with its own up; lining, flap, band, straps and all else
that is cut of that cloth must come out of it.  A search by halving over the bag's sizes: each is
planned whole, and its pieces laid on the cloths.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import ceil
from typing import Literal

from tessil.core.cutting.acts.whole import Lot, Solve, Source, Want, lots_of
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_down
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape
from tessil.core.shapes.base import Shape
from tessil.core.sheets.job import Answer, CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting
from tessil.core.sheets.search import Told
from tessil.core.trouble import CannotPlan

Planned = Callable[[Project], Plan]
Keep = Literal["none", "width", "height"]
MOST, LEAST = Fraction(4), Fraction(1, 6)  # times the size that stands there
STEPS = 9
MARK = Fraction(1, 4)
SECONDS = 0.5  # for one cloth of one try
QUICK = 0.1  # where many shapes are compared


class Reached(Record, frozen=True):
    """The bag found: how to get it, its sizes, how many were tried, the cloth that has no more; of
    no sizes where not even a small one comes out of that cloth."""

    edit: Edit
    sizes: tuple[Inches, ...]
    tries: int
    limit: str


def largest_bag(
    made: Plan,
    sources: Sequence[Source],
    plan: Planned,
    told: Told | None = None,
    solve: Solve = plan_cutting,
) -> Reached:
    """The largest bag in proportion, or with one size held, if one comes out at all.  ``told``
    hears how far it is and may stop it: the largest so far is the answer then."""
    keep: Keep = made.project.shape.cloth.keep
    low, high = Fraction(0), MOST
    best: tuple[Project, Plan] | None = None
    limit = ""
    factor = Fraction(1)
    for step in range(STEPS):
        tried = _sized(made, factor, keep)
        bag = _planned(plan, tried)
        short = _short_of(bag, sources, solve) if bag is not None else "its seams"
        if bag is not None and not short:
            best, low = (tried, bag), factor
        else:
            high, limit = factor, short or limit
        factor = (low + high) / 2 if step else (MOST / 2 if low else Fraction(1, 2))
        if factor < LEAST or (told is not None and not told((step + 1) / STEPS)):
            break
    if best is None:
        return Reached(edit(""), (), step + 1, limit)
    project, bag = best
    sizes = tuple(figure.value for figure in bag.bag.finished)
    words = "Make the largest bag from the shelf"
    change = edit(words, ("shape", project.shape))
    return Reached(change, sizes, step + 1, limit)


class Among(Record, frozen=True):
    """The largest bag of one shape, if one comes out."""

    name: str
    found: Reached


def largest_of_each(
    made: Plan,
    sources: Sequence[Source],
    plan: Planned,
    told: Told | None = None,
    solve: Solve = plan_cutting,
) -> tuple[Among, ...]:
    """The largest bag of every shape from the same cloths, each in the proportion it begins with;
    the largest front first.  ``told`` hears how far it is and may stop it."""

    def quick(job: CutJob, _: float, seed: int, heard: Told | None) -> Answer:
        return solve(job, QUICK, seed, heard)

    shapes = [shape for shape in SHAPES.values() if shape.carries]
    every: list[Among] = []
    for at, shape in enumerate(shapes):
        begun = _planned(plan, _shaped(made.project, shape))
        part = _part_of(told, at, len(shapes))
        if begun is not None:
            every.append(Among(shape.name, largest_bag(begun, sources, plan, part, quick)))
        if part is not None and not part(1.0):
            break
    return tuple(sorted(every, key=_front, reverse=True))


def _shaped(project: Project, shape: Shape) -> Project:
    """The bag in another shape, begun as that shape begins."""
    if shape.key == project.shape.kind:
        return project
    turned = applied(project, reshape(project, shape))
    units = project.rounding or project.units
    sizes = {field.key: field.begins(units) for field in shape.fields}
    begun = {"way": "finished", "sizes": sizes}
    return applied(turned, edit("", ("shape", turned.shape.model_copy(update=begun))))


def _part_of(told: Told | None, at: int, number: int) -> Told | None:
    return None if told is None else lambda far: told((at + far) / number)


def _front(one: Among) -> Inches:
    wide, *others = one.found.sizes or (Fraction(0), Fraction(0))
    return wide * max(others)


def _sized(made: Plan, factor: Fraction, keep: Keep) -> Project:
    """The bag with its sizes times a factor, to the ruler's quarter; one may be held."""
    shape, sizes = made.shape, dict(made.project.shape.sizes)
    now = dict(zip(shape.finished_keys, made.bag.finished, strict=True))
    for field in shape.fields_for("finished"):
        if field.key in now:
            value = now[field.key].value
            if field.from_cloth and field.key != keep:
                value = max(round_down(value * factor, MARK), MARK)
            sizes[field.key] = value
    choice = made.project.shape.model_copy(update={"way": "finished", "sizes": sizes})
    return applied(made.project, edit("", ("shape", choice)))


def _planned(plan: Planned, project: Project) -> Plan | None:
    try:
        return plan(project)
    except (CannotPlan, Refused):
        return None


def _short_of(made: Plan, sources: Sequence[Source], solve: Solve) -> str:
    """The first cloth that does not give all its pieces; nothing where all come out."""
    zipper, need = made.project.zipper.length, made.bag.zipper
    if zipper is not None and need is not None and need.length.value > zipper:
        return "the zipper in hand"
    for lot in lots_of([made]):
        there = [one for one in sources if one.stock == lot.stock]
        if not lot.material and there and not _comes_out(lot, there, solve):
            return lot.name
    return ""


JOINED = ("binding strip", "strip to fold")  # may be of shorter pieces, joined on the diagonal


def _piece(want: Want, stock: str, longest: Inches) -> Piece:
    """A piece to lay; a strip longer than any cloth in several, each longer by its join."""
    wide, high, many = want.width, want.height, want.number
    if want.item.what in JOINED and wide > longest > 2 * high:
        parts = ceil(wide / (longest - high))
        wide, many = wide / parts + high, many * parts
    return Piece(want.key, want.key, wide, high, many, stock, want.turns)


def _comes_out(lot: Lot, there: Sequence[Source], solve: Solve) -> bool:
    """Whether all pieces of a cloth lie on what there is of it."""
    area = sum((one.width * one.length for one in there), Fraction(0))
    if sum((want.width * want.height * want.number for want in lot.wants), Fraction(0)) > area:
        return False
    stock = [Stock(one.id, "scrap", lot.stock, one.width, one.length) for one in there]
    longest = max(max(one.width, one.length) for one in there)
    pieces = [_piece(want, lot.stock, longest) for want in lot.wants]
    answer = solve(CutJob("in", tuple(stock), tuple(pieces), "fits"), SECONDS, 1, None)
    return not answer.left_out
