"""Bags of round numbers for worked examples."""

from tessil.core.bag.ids import FigureId
from tessil.core.brief.choice import Seams, ShapeChoice
from tessil.core.edges.choice import Zipper
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.starting import Answers, first_project

F = Fraction
QUARTER = Seams(side=F(1, 4), bottom=F(1, 4), top=F(1, 4), corner=F(1, 4))


def made(kind: str, way: str = "finished", options: dict | None = None, **sizes) -> Plan:
    """A bag with quarter-inch seams and a zipper that shows ¾ in."""
    base = first_project(Answers(shape=kind, width=F(4), height=F(4), thickness=F(1, 2), strips=2))
    choice = ShapeChoice(
        kind=kind, way=way, options=options or {}, sizes={k: F(v) for k, v in sizes.items()}
    )
    hold = base.hold.model_copy(update={"minded": False})
    zipper = Zipper(seam=F(1, 4), shown=F(3, 4))
    changes = {"shape": choice, "seams": QUARTER, "hold": hold, "zipper": zipper}
    return plan(base.model_copy(update=changes))


def size_of(plan_: Plan, panel: str) -> tuple[Fraction, Fraction]:
    return plan_.panel(panel).trimmed.values()


def finished(plan_: Plan) -> list[Fraction]:
    return [figure.value for figure in plan_.bag.finished]


def figure(plan_: Plan, wanted: FigureId) -> Fraction:
    return plan_.bag.figure(wanted).value


def bare(text: str, **changes) -> dict:
    """Sizes written as a maker writes them: ``bare("width 9, height 6 1/2")``."""
    from tessil.core.numbers.lengths import read_length

    pairs = (part.strip().split(" ", 1) for part in text.split(","))
    return {key: read_length(value) for key, value in pairs} | changes
