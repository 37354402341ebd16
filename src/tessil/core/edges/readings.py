"""What the edge stage shows, leaf by leaf."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.edges.binding import EdgeStrip
from tessil.core.edges.crosscut import bias_bound
from tessil.core.edges.tube import TubePlan
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import across
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Place


def edge_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """All leaves; the runs of the panel in hand, all else of the whole bag."""
    yield from _binding(plan, panel)
    yield from _runs(plan, panel)
    yield from _bias(plan)
    yield from _piping(plan)
    yield from _straps(plan)
    yield from _closing(plan)


def _binding(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    binding, leaf = plan.binding, "binding"
    if binding is not None:
        yield Reading(
            "edge.round", binding.edge, "What the binding goes round", across(panel, 0.0), leaf
        )
        yield Reading("edge.length", binding.length, "With its ending", leaf=leaf)
        yield Reading("edge.cut", binding.cut, "Cut width of the strips", leaf=leaf)
        if plan.project.binding.cut is not None:
            yield Reading(
                "edge.formula", binding.formula, "What seam and thickness ask for", leaf=leaf
            )
        yield Reading("edge.front", binding.front, "From its seam to the edge", leaf=leaf)
        yield Reading(
            "edge.behind", binding.behind, "What is left once it lies round the edge", leaf=leaf
        )
        if plan.project.binding.grain == "straight":
            yield Reading(
                "edge.strips", binding.strips, "From the usable width, for one bag", leaf=leaf
            )
            yield Reading(
                "edge.joins", binding.joins, "On the diagonal, a strip's width each", leaf=leaf
            )
            yield Reading("edge.reaches", binding.reaches, "The strips once joined", leaf=leaf)
    for strip in plan.edge_strips:
        yield from _own_strip(strip)
    if plan.edging.inner is not None:
        length, width = plan.edging.inner
        yield Reading(
            "edge.inner", length, "Every inner seam and 1 in (25 mm) at its ends", leaf=leaf
        )
        yield Reading("edge.inner.cut", width, "Single fold", leaf=leaf)


def _own_strip(strip: EdgeStrip) -> Iterator[Reading]:
    """An edge with a strip of its own: how long, how wide, how many."""
    key, edge, leaf = f"edge.own.{strip.edge.key}", strip.edge, "binding"
    what = "Tape lapped over the raw edge" if strip.tape else "One strip, with its ends"
    yield Reading(f"{key}.length", edge.length, what, leaf=leaf)
    if strip.cut is not None:
        name = f"{edge.label}, binding cut"
        walls = "Two walls lie under it" if edge.walls > 1 else "One wall lies under it"
        yield Reading(f"{key}.cut", strip.cut.called(name), walls, leaf=leaf)
    if edge.number.whole > 1:
        number = edge.number.called(f"{edge.label}: strips")
        yield Reading(f"{key}.number", number, "Joined to one length", leaf=leaf)


def _runs(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """Every edge of the panel in hand: its seam line, since that is what is sewn."""
    for run in plan.edging.runs_on(panel.key):
        if run.cut.value < 1 and run.radius is None:
            continue
        xs, ys = [x for x, _ in run.points], [y for _, y in run.points]
        place = Place(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys), "line")
        figure = run.cut if run.finish == "bound" else run.sewn
        yield Reading(
            f"edge.run.{run.edge.slug}",
            figure.called(f"{run.name}, {run.becomes}"),
            f"On the cut edge {plan.marks.notation.read_off(run.cut.value, unit=True)}",
            place,
            "binding",
        )
        if run.radius is not None:
            yield Reading(
                f"edge.radius.{run.edge.slug}",
                run.radius,
                "Tighter than 3 in (7.5 cm), it wants bias",
                place,
                "binding",
            )


def _bias(plan: Plan) -> Iterator[Reading]:
    leaf = "bias"
    for cut in plan.edging.bias:
        key = f"bias.{cut.what}"
        yield Reading(
            f"{key}.need", cut.need.called(f"{cut.what}: bias needed"), "With its ending", leaf=leaf
        )
        yield Reading(
            f"{key}.width", cut.width.called(f"{cut.what}: strip, cut"), "At 45°", leaf=leaf
        )
        if cut.tube is not None:
            yield from _tube(key, cut.tube)
            continue
        yield Reading(
            f"{key}.joins", cut.joins.called(f"{cut.what}: joins"), bias_bound(cut.plan), leaf=leaf
        )
        yield Reading(
            f"{key}.reaches",
            cut.reaches.called(f"{cut.what}: joined, they reach"),
            "Less what every join takes",
            leaf=leaf,
        )
        yield Reading(
            f"{key}.waste",
            cut.waste.called(f"{cut.what}: cloth over"),
            "Of the pieces that are cut into",
            leaf=leaf,
        )
        if cut.new is not None:
            yield Reading(
                f"{key}.high",
                cut.new[1].called(f"{cut.what}: cloth, height"),
                "Of the usable width, cut on the cross",
                leaf=leaf,
            )
        if cut.quarters is not None:
            yield Reading(
                f"{key}.quarters",
                cut.quarters.called(f"{cut.what}: fat quarters"),
                "Planned on 18 × 21 in (46 × 53 cm)",
                leaf=leaf,
            )


def _tube(key: str, tube: TubePlan) -> Iterator[Reading]:
    leaf = "bias"
    yield Reading(f"{key}.tube", tube.side, "So that whole lines reach", leaf=leaf)
    yield Reading(
        f"{key}.tube.area", tube.by_area, "Cloth enough, but lines end half way", leaf=leaf
    )
    yield Reading(f"{key}.tube.lines", tube.lines, "Drawn this strip apart", leaf=leaf)
    yield Reading(f"{key}.tube.gives", tube.reaches, "In one length, less its two seams", leaf=leaf)


def _piping(plan: Plan) -> Iterator[Reading]:
    piping, leaf = plan.edging.piping, "piping"
    if piping is None:
        return
    yield Reading(
        "piping.length", piping.length, "All seams it goes into, and the overlaps", leaf=leaf
    )
    yield Reading(
        "piping.strip", piping.strip, "Bias, round the cord and two allowances", leaf=leaf
    )
    yield Reading(
        "piping.allowance", piping.allowance, "As the seam's, else it hides or gaps", leaf=leaf
    )
    yield Reading("piping.cord", piping.cord, "A little more than its strip", leaf=leaf)


MADE_WORDS = {
    "cloth": "Folded to the middle twice",
    "covered": "Twice as wide as the webbing",
    "underside": "Each of a top and an underside",
}


def _joined(plan: Plan) -> str:
    return "Straight" if plan.project.strap.joins == "straight" else "On the diagonal"


def _straps(plan: Plan) -> Iterator[Reading]:
    leaf = "straps"
    for strap in plan.edging.straps:
        key, name = f"strap.{strap.part.key}", strap.part.label.lower()
        yield Reading(
            f"{key}.length",
            strap.part.length.called(f"{name}, length"),
            "Cut length of each",
            leaf=leaf,
        )
        if strap.strip is not None:
            yield Reading(
                f"{key}.cut",
                strap.strip.width.called(f"{name}, strip cut"),
                MADE_WORDS[plan.project.strap.made],
                leaf=leaf,
            )
        yield Reading(f"{key}.finished", strap.finished, "As wide as it ends", leaf=leaf)
        if strap.webbing is not None:
            yield Reading(
                f"{key}.webbing", strap.webbing.called(f"{name}, webbing"), "Of each", leaf=leaf
            )
        yield Reading(
            f"{key}.joins", strap.joins.called(f"{name}, joins"), _joined(plan), leaf=leaf
        )
        for at, figure in enumerate(strap.interfacing or ()):
            yield Reading(
                f"{key}.firm.{at}",
                figure.called(f"{name}, {figure.label}"),
                "½ in (13 mm) short at both ends",
                leaf=leaf,
            )
        if strap.turns:
            yield Reading(
                f"{key}.ring", strap.ring, "Rings and slider, at least so wide inside", leaf=leaf
            )
        if strap.patch is not None:
            yield Reading(f"{key}.patch", strap.patch, "A square behind each end", leaf=leaf)
        hang = strap.hangs if strap.part.key == "strap" else None
        if hang is not None:
            yield Reading(f"{key}.hangs", hang, "The strap is two sides of a triangle", leaf=leaf)
        for word, end in (("shortest", strap.shortest), ("longest", strap.longest)):
            if end is not None:
                yield Reading(f"{key}.{word}", end, "With its slider, from ring to ring", leaf=leaf)


def _closing(plan: Plan) -> Iterator[Reading]:
    zipper, cord, leaf = plan.edging.zipper, plan.edging.cord, "closing"
    if zipper is not None:
        yield Reading(
            "zip.needs",
            zipper.length.called("zipper, at least"),
            "Its stops stay out of the seams",
            leaf=leaf,
        )
        yield Reading("zip.buy", zipper.buy, "Nylon coil can be cut; metal never", leaf=leaf)
        if plan.bag.zipper is not None and plan.bag.zipper.free:
            opens = plan.bag.zipper.opens
            yield Reading("zip.opens", opens, "From where its teeth begin to their end", leaf=leaf)
        about = "What shows and both seams, where its edges lie on the raw edges"
        yield Reading("zip.wide", zipper.wide, about, leaf=leaf)
        yield Reading("zip.off", zipper.cut_off, "Only after the pull is inside", leaf=leaf)
        yield Reading(
            "zip.topstitch", zipper.topstitch, "So that the lining is not caught", leaf=leaf
        )
        if zipper.tape is not None:
            yield Reading(
                "zip.tape", zipper.tape, "A tab on each end covers ½ in (13 mm)", leaf=leaf
            )
    for at, figure in enumerate(plan.edging.pull or ()):
        yield Reading(f"zip.pull.{at}", figure, "Folded twice, it ends ¼ in (6 mm) wide", leaf=leaf)
    if plan.edging.loop is not None:
        yield Reading("loop.cut", plan.edging.loop, "It goes over the button edge first", leaf=leaf)
    if cord is not None:
        yield Reading("cord.each", cord.each, "Once round and out at its own side", leaf=leaf)
        yield Reading("cord.channel", cord.channel, "As it is sewn", leaf=leaf)
        yield Reading(
            "cord.least", cord.least, "Half of its round, and ¼ in (6 mm) to run in", leaf=leaf
        )


def bulk_readings(plan: Plan, panel: PanelPlan) -> Iterator[Reading]:
    """How thick it gets round a panel; places alike are told once."""
    seen: set[str] = set()
    for spot in plan.spots_on(panel.key):
        if spot.label in seen:
            continue
        seen.add(spot.label)
        x, y = spot.at
        about = f"{spot.layers} layers: {spot.advice.words}"
        yield Reading(
            f"bulk.{spot.key}", spot.thick, about, Place(x - 0.4, y - 0.4, 0.8, 0.8), "bulk"
        )
