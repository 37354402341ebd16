"""Everything a job takes that no cloth gives: zippers, cord, webbing, rings, snaps, thread; and the
whole list of what to buy.

Knows planned bags and the plan of the cuts; words are made here for a list that is read away from
the program.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from tessil.core.cutting.acts.whole import Spread
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, Notation, round_up, write_fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, Show, count, given, total
from tessil.core.planned import Plan
from tessil.core.reading import Reading

WareKind = Literal[
    "zipper",
    "slider",
    "cord",
    "piping cord",
    "webbing",
    "ring",
    "strap slider",
    "snap",
    "eyelet",
    "button",
    "thread",
    "ribbon",
    "edge tape",
    "label",
    "patch",
]
RINGS = 2  # of an adjustable strap: common practice, no source
YARD = Fraction(36)


class Ware(Record, frozen=True):
    """So much of one thing: each so long or so wide, or none where it is only counted; for one bag
    of a job, all its copies together."""

    kind: WareKind
    bag: str
    size: Figure | None
    number: Figure

    @property
    def long(self) -> bool:
        """Whether it is bought by its length."""
        return self.kind in ("cord", "piping cord", "webbing", "thread", "ribbon", "edge tape")

    @property
    def amount(self) -> Figure:
        """How many, or how long together."""
        if not self.long or self.size is None:
            return self.number
        return self.number * self.size


def wares_of(plan: Plan) -> Iterator[Ware]:
    """What all copies of one bag take."""
    bags = count("bags", plan.project.made)
    needs = (*_closing(plan), *_carrying(plan), *_sewing(plan), *_sewn_on(plan))
    for kind, size, each in needs:
        number = count("each", each, Basis.GEOMETRY) * bags if each > 1 else bags
        yield Ware(kind, plan.project.name, size, number.called("pieces"))


Need = tuple[WareKind, Figure | None, int]  # each so large, so many for one bag


def _closing(plan: Plan) -> Iterator[Need]:
    zipper = plan.edging.zipper
    if zipper is not None:
        yield "zipper", zipper.buy, 1
        more = zipper.sliders if zipper.rolled else zipper.sliders - 1
        if more:
            yield "slider", None, more
    for mark in plan.project.marks:
        if mark.kind == "window":
            opening = given("window, opening", mark.width)
            longer = given("zipper beyond it", 1, Basis.PRACTICE)
            yield "zipper", (opening + longer).called("zipper of the pocket"), 1
    for strip in plan.edge_strips:
        if strip.tape:
            yield "edge tape", strip.edge.length, strip.edge.number.whole
    for part in plan.bag.attachments:
        if not part.cloth:
            yield "cord", part.length, part.number
    if plan.bag.eyelets:
        yield "eyelet", None, plan.bag.eyelets
    if plan.project.snap.used and plan.bag.flap is not None:
        yield "snap", None, 1
    if plan.edging.loop is not None:
        yield "button", None, 1


def _carrying(plan: Plan) -> Iterator[Need]:
    """Webbing, and rings: an adjustable strap runs through those that hang on the tabs."""
    rings = sum(mark.kind == "d-ring" for mark in plan.project.marks)
    size: Figure | None = None
    for strap in plan.edging.straps:
        if strap.webbing is not None:
            yield "webbing", strap.webbing, strap.part.number
        if strap.longest is not None:
            yield "strap slider", strap.ring, 1
            own = strap.part.ends == "ring"  # else it runs through rings on tabs that are marked
            rings, size = rings + RINGS if own else max(rings, RINGS), strap.ring
        elif strap.part.ends == "ring":
            rings, size = rings + RINGS, strap.ring
    if rings:
        yield "ring", size, rings


def _sewn_on(plan: Plan) -> Iterator[Need]:
    """Flat trims, each as long as its panel is wide and a little over, and labels."""
    over = given("over at its ends", 1, Basis.PRACTICE)
    for placed in plan.placed:
        panel = plan.panel(placed.panel)
        if placed.kind == "ribbon":
            upright = placed.box[3] > placed.box[2]
            long = panel.trimmed.height if upright else panel.trimmed.width
            yield "ribbon", (long + over).called("ribbon"), panel.panel.copies
        elif placed.kind == "patch":
            yield "patch", None, 1
        elif placed.kind == "label":
            yield "label", None, 1


def _sewing(plan: Plan) -> Iterator[Need]:
    if plan.edging.piping is not None:
        yield "piping cord", plan.edging.piping.cord, 1
    threads = [
        panel.panel.copies * panel.sewing.thread
        for panel in plan.panels
        if panel.sewing is not None and panel.sewing.thread.value > 0
    ]
    if threads:
        yield "thread", total(threads).called("thread for quilting", "metres"), 1


_NAMES: Mapping[WareKind, str] = {
    "zipper": "Zippers",
    "slider": "Zipper sliders more",
    "cord": "Cord",
    "piping cord": "Piping cord",
    "webbing": "Webbing",
    "ring": "Rings",
    "strap slider": "Strap sliders",
    "eyelet": "Eyelet",
    "snap": "Magnetic snaps",
    "button": "Buttons",
    "thread": "Thread for quilting",
    "ribbon": "Ribbon or lace",
    "edge tape": "Decorative tape, lapped over the zipper",
    "label": "Labels",
    "patch": "Patches",
}


def grouped(plans: Sequence[Plan | None]) -> tuple[tuple[str, str, tuple[Ware, ...]], ...]:
    """What all bags take, what is alike together: its key, its name, and the wares."""
    found: dict[tuple[WareKind, Inches | None], list[Ware]] = {}
    for plan in plans:
        for ware in wares_of(plan) if plan is not None else ():
            size = None if ware.long or ware.size is None else ware.size.value
            found.setdefault((ware.kind, size), []).append(ware)
    order = list(_NAMES)
    keys = sorted(found, key=lambda key: (order.index(key[0]), key[1] or 0))
    return tuple(
        (f"{kind}.{at}".replace(" ", "-"), _NAMES[kind], tuple(found[kind, size]))
        for at, (kind, size) in enumerate(keys)
    )


def ware_readings(plans: Sequence[Plan | None], notation: Notation) -> Iterator[Reading]:
    """One line for each thing to buy that is no cloth."""
    for key, name, wares in grouped(plans):
        size = wares[0].size
        if size is not None and not wares[0].long:
            name = f"{name}, {notation.read_off(size.value, unit=True)}"
        show: Show = "metres" if wares[0].kind == "thread" else "plain"
        parts = [ware.amount.called(ware.bag.lower(), show) for ware in wares]
        figure = total(parts).called(name, show) if len(parts) > 1 else parts[0].called(name, show)
        about = f"For {', '.join(dict.fromkeys(ware.bag.lower() for ware in wares))}"
        yield Reading(f"ware.{key}", figure, about, leaf="wares")


def sold(length: Inches, notation: Notation) -> str:
    """A length of cloth as it is asked for over a counter: ``⅝ yd (22½ in)``, ``0.6 m``."""
    if notation.units == "metric":
        return notation.read_off(length, unit=True)
    yards = round_up(length, Fraction(9, 2)) / YARD
    return f"{write_fraction(yards)} yd ({notation.read_off(length, unit=True)})"


class Line(Record, frozen=True):
    """One line of the shopping list: what, how much, and for what."""

    what: str
    amount: str
    about: str
    kind: WareKind | None = None  # of what is no cloth
    size: Inches | None = None  # of each of them
    stock: tuple[str, bool] = ("", False)  # of cloth: its key, and whether it is a material
    figure: Figure | None = None  # how long together, or how many
    cost: str = ""  # what it comes to, where that is known


def shopping(
    spreads: Sequence[Spread], plans: Sequence[Plan | None], notation: Notation
) -> Iterator[Line]:
    """The whole list: cloth that the plan of the cuts takes beside what there is, and all else."""
    for one in spreads:
        if not one.sheet.source:
            length = one.sheet.length + one.sheet.trim
            wide = notation.read_off(one.sheet.width, unit=True)
            bags = dict.fromkeys(lying.want.bag_name.lower() for lying in one.pieces)
            yield Line(
                one.lot.name,
                f"{sold(length, notation)} of {wide} wide",
                f"for {', '.join(bags)}",
                stock=(one.lot.stock, one.lot.material),
                figure=given("to buy", length, Basis.GEOMETRY),
            )
    each = [(wares[0].kind, wares[0].size) for _, _, wares in grouped(plans)]
    for (kind, size), reading in zip(each, ware_readings(plans, notation), strict=True):
        yield Line(
            reading.figure.label,
            _amount(reading.figure, notation),
            reading.about.lower(),
            kind,
            None if size is None or kind == "thread" else size.value,
            figure=reading.figure,
        )


def _amount(figure: Figure, notation: Notation) -> str:
    if figure.show == "metres":
        metres = figure.value * Fraction(127, 5) / 1000
        return f"about {round(float(metres))} m"
    if figure.power == 0:
        return str(figure.whole)
    return sold(round_up(figure.value, notation.mark), notation)
