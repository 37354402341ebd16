"""Three bags that could be made of a heap: planned, with what is used and left.

Every shape is tried with every way of laying the heap on its sides; the panel is the largest that
such a top still gives once it is quilted, as the plan itself says.  Knows plans, and of shapes what
they declare.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import log
from typing import Any

from msgspec.structs import replace

from tessil.core.brief.choice import Cloth, Held, ShapeChoice, Thing
from tessil.core.edits import applied, edit
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, Units, round_down
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import rulers
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.proposals.said import Heap
from tessil.core.shapes import SHAPES, Shape
from tessil.core.starting import Answers, first_project
from tessil.core.trouble import CannotPlan

OFFERS = 3
TRIES = 6  # at the largest panel that a top gives
EACH = 3  # ways of laying a heap that are planned for a shape
LEAST = Fraction(3)  # inches of a panel, at least
APART = 2.2  # so many times wider or narrower than the shape begins is no such bag any more
Sides = tuple[Inches, Inches]


class Asked(Record, frozen=True):
    """What else is asked: the units, what it must hold, and how large it may be outside."""

    units: Units = "inch"
    thing: Thing | None = None
    most: tuple[Inches | None, ...] = ()


class Laid(Record, frozen=True):
    """One way of laying a heap on every side of a shape: so many across and down."""

    shape: str
    across: int
    down: int
    used: int
    off: float  # how far its panel is from the proportion the shape begins with


class Offer(Record, frozen=True):
    """A bag that could be made: its plan, how many pieces are used and left, how they lie."""

    made: Plan
    used: int
    left: int
    across: int
    down: int
    off: float
    beside: tuple[Offer, ...] = ()  # with a column or a row of squares less

    @property
    def rank(self) -> tuple[float, float]:
        """The fewest left first, then what looks most like a bag of its shape."""
        return self.left, self.off


def ways(heap: Heap) -> list[Laid]:
    """What is worth planning, shape by shape, the most promising of each first."""
    found = []
    for shape in SHAPES.values():
        if not shape.carries:
            continue
        every = sorted(_laid(heap, shape), key=lambda one: (-one.used, one.off))
        found += every[: EACH if heap.kind != "cloth" else 1]
    return found


def _laid(heap: Heap, shape: Shape) -> Iterator[Laid]:
    if heap.kind == "cloth":
        yield Laid(shape.key, 1, 1, heap.number, 0.0)
        return
    each = heap.number // shape.cloths if heap.kind == "squares" else heap.number
    for across in range(2, each // 2 + 1) if heap.kind == "squares" else (1,):
        down = each // across
        wide, high = _pieced(heap, across, down, Fraction(1, 4))
        if heap.kind == "strips":
            wide = min(high * _proportion(shape), heap.width / shape.cloths)
        off = abs(log(float(wide / high / _proportion(shape))))
        if min(wide, high) >= LEAST and off <= log(APART):
            used = across * down * shape.cloths if heap.kind == "squares" else down
            yield Laid(shape.key, across, down, used, off)


def _proportion(shape: Shape) -> Inches:
    start = _starts(shape)
    return start[shape.panel_width] / start[shape.panel_height]


def _starts(shape: Shape, units: Units = "inch") -> dict[str, Inches]:
    return {field.key: field.begins(units) for field in shape.fields_for("panel")}


def _pieced(heap: Heap, across: int, down: int, seam: Inches) -> Sides:
    """A top of whole pieces: ``n(w − 2s) + 2s`` each way."""
    net = heap.height - 2 * seam
    return across * net + 2 * seam, down * net + 2 * seam


def offer(heap: Heap, asked: Asked, laid: Laid) -> Offer | None:
    """The bag that is laid so; None if there is none, or none that is asked for."""
    try:
        made = _of_cloth(heap, asked, laid) if heap.kind == "cloth" else _of_top(heap, asked, laid)
    except (CannotPlan, Refused):
        return None
    if made is None or not _wanted(made, asked):
        return None
    used = heap.number if heap.kind == "cloth" else _counted(heap, made)
    if used > heap.number:
        return None
    off = laid.off if heap.kind != "cloth" else _off(made)
    return Offer(made, used, heap.number - used, laid.across, laid.down, off)


def best(found: list[Offer]) -> list[Offer]:
    """Three of them, each of another shape while there is one."""
    first: dict[str, Offer] = {}
    for one in sorted(found, key=lambda one: one.rank):
        first.setdefault(one.made.shape.key, one)
    chosen = list(first.values())[:OFFERS]
    more = [one for one in sorted(found, key=lambda one: one.rank) if one not in chosen]
    return (chosen + more)[:OFFERS]


def _off(made: Plan) -> float:
    starts, lead = _starts(made.shape, made.project.units), made.panel(made.shape.leader).panel
    shape = made.shape
    begun = starts[shape.panel_width] / starts[shape.panel_height]
    return abs(log(float(lead.width.value / lead.height.value / begun)))


def _wanted(made: Plan, asked: Asked) -> bool:
    """Whether it holds what it must, and stands where it must."""
    if not all(fit.fits for fit in made.fits):
        return False
    limits = zip(made.bag.finished, asked.most, strict=False)
    return all(most is None or size.value <= most for size, most in limits)


def _counted(heap: Heap, made: Plan) -> int:
    """How many squares or strips the plan itself takes."""
    if heap.kind == "strips":
        sets = [item for item in made.items if item.what == "strip for a set"]
        plain = [item for item in made.items if item.what == "strip"]
        return sum(int(item.number.value) for item in (*sets, *plain))
    sides = [panel for panel in made.panels if panel.panel.kind == "outer"]
    parts = [(part, panel.panel.copies) for panel in sides for part in panel.parts]
    if any(part.choice.way != "squares" for part, _ in parts):
        return heap.number + 1  # a side of something else
    return sum(part.top.pieces.whole * copies for part, copies in parts)


def _spread(keys: tuple[str, ...], across: int, down: int) -> tuple[str, ...]:
    """Prints row by row so that none touches its like: two further on in every row."""
    return tuple(keys[(2 * row + at) % len(keys)] for row in range(down) for at in range(across))


def _begun(heap: Heap, asked: Asked, laid: Laid, way: str) -> Project:
    """A first project of that shape, of the heap, with what it must hold."""
    shape = SHAPES[laid.shape]
    project = first_project(Answers(shape=shape.key).changed("units", asked.units))
    changes: list[tuple[str, Any]] = [
        ("name", shape.short),
        ("shape.way", way),
        ("hold.minded", asked.thing is not None),
    ]
    if asked.thing is not None:
        changes.append(("hold", Held(things=(asked.thing,), ease=project.hold.ease, minded=True)))
    top = project.panels[shape.leader].piecing
    ways: Mapping[str, Mapping[str, Any]] = {
        "squares": {
            "way": "squares",
            "fixed": "width",
            "square": heap.height,
            "prints": _spread(top.prints, laid.across, laid.down),
            "laid": laid.across,
        },
        "strips": {"way": "strips", "fixed": "width", "strip_cut": heap.height, "strip_sets": True},
        "cloth": {"way": "whole"},
    }
    lead = f"panels.{shape.leader}"
    changes.append((f"{lead}.piecing", top.model_copy(update=dict(ways[heap.kind]))))
    if heap.kind == "squares":
        changes.append((f"{lead}.quilting.pattern", "ditch"))
    return applied(project, edit("", *changes))


def _of_cloth(heap: Heap, asked: Asked, laid: Laid) -> Plan:
    """The largest bag of that shape from the pieces there are."""
    project = _begun(heap, asked, laid, "cloth")
    cloth = Cloth(
        width=heap.width, height=heap.height, pieces=min(heap.number, 50), quilted=heap.quilted
    )
    return plan(applied(project, edit("", ("shape.cloth", cloth))))


def _of_top(heap: Heap, asked: Asked, laid: Laid) -> Plan | None:
    """The largest panel that so many pieces give, as the plan says what a panel takes."""
    shape = SHAPES[laid.shape]
    begun = _begun(heap, asked, laid, "panel")
    top = _pieced(heap, laid.across, laid.down, begun.seams.piecing)
    marks = rulers(asked.units)
    mark = marks.ruler.value
    if heap.kind == "strips":
        wide = min(top[1] * _proportion(shape), heap.width / shape.cloths)
        top = round_down(wide, 2 * marks.piece_step.value), top[1]
    sides = top[0] * Fraction(24, 25), top[1] * Fraction(24, 25)
    best_made: Plan | None = None
    for _ in range(TRIES):
        sides = round_down(sides[0], mark), round_down(sides[1], mark)
        made = plan(_sized(begun, shape, sides))
        needed = made.panel(shape.leader).needed
        over = top[0] - needed.width.value, top[1] - needed.height.value
        if min(over) >= 0:
            if best_made is not None and max(over) >= max(_over(best_made, top)):
                break
            best_made = made
            if max(over) < mark:
                break
        sides = sides[0] + over[0], sides[1] + over[1]
        if min(sides) < LEAST:
            return None
    return None if best_made is None else _agreeing(best_made)


def _agreeing(made: Plan) -> Plan:
    """The same with the legs of its corners as its own seams ask."""
    while True:
        apart = next((one for one in made.snags if one.key.startswith("notch.legs")), None)
        if apart is None:
            return made
        made = plan(applied(made.project, apart.fixes[0]))


def _over(made: Plan, top: Sides) -> Sides:
    needed = made.panel(made.shape.leader).needed
    return top[0] - needed.width.value, top[1] - needed.height.value


def _sized(project: Project, shape: Shape, sides: Sides) -> Project:
    """With a panel of that size, its corners in proportion and all else as the shape begins."""
    starts = _starts(shape, project.units)
    share = sides[0] / starts[shape.panel_width]
    step = rulers(project.units).piece_step.value
    sizes = {key: starts[key] for key in shape.legs}
    if sizes:
        least = min(sizes.values())
        more = max(round_down((share - 1) * least, step), step - least)
        sizes = {key: leg + more for key, leg in sizes.items()}
    sizes |= {shape.panel_width: sides[0], shape.panel_height: sides[1]}
    choice = ShapeChoice(kind=shape.key, way="panel", sizes=sizes, options=project.shape.options)
    return applied(project, edit("", ("shape", choice)))


def with_others(heap: Heap, asked: Asked, one: Offer) -> Offer:
    """With the same bag of a column less, and of a row less, beside it."""
    if heap.kind != "squares":
        return one
    shape = one.made.shape
    others = ((one.across - 1, one.down), (one.across, one.down - 1))
    laid = [
        Laid(shape.key, across, down, across * down * shape.cloths, one.off)
        for across, down in others
        if min(across, down) > 1
    ]
    found = [offer(heap, asked, other) for other in laid]
    return replace(one, beside=tuple(other for other in found if other is not None))
