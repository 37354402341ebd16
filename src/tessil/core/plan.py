"""``plan(project)``: the one way from what a maker decided to everything that follows.

Pure and quick enough for every keystroke: with a memory, a stage whose inputs are those of the
last plan hands back what it made then.  What is cut and sewn is planned at once, so that what
cannot be is refused; what follows from it for those who look, when they first do.  Orchestrates
only; each sum stands in the module that knows its subject.
"""

from __future__ import annotations

import weakref
from collections.abc import Callable
from functools import partial
from typing import TypeVar

from msgspec.structs import replace

from tessil.core.bag.model import Bag, Panel
from tessil.core.catalogue import Material
from tessil.core.checks import find_snags
from tessil.core.choices import batting_of
from tessil.core.cutting.cutlist import Lain, by_stock, cut_list, purchase, stocked, strip_sets
from tessil.core.cutting.task import CutTask
from tessil.core.edges.binding import BindingPlan, EdgeStrip, edge_strips, plan_binding
from tessil.core.edges.bulk import Spot, spots_of
from tessil.core.edges.bulktasks import bulk_tasks
from tessil.core.edges.choice import Binding
from tessil.core.edges.edging import plan_edging
from tessil.core.edges.runs import bound_edge
from tessil.core.edges.sewing import edge_steps
from tessil.core.edges.straps import OF_WEBBING
from tessil.core.hooping.hoopings import plan_hoopings
from tessil.core.layout.board import areas, board_of
from tessil.core.layout.packs import packed
from tessil.core.layout.rules import Table, broken_rules
from tessil.core.logbook.book import EMPTY, Book
from tessil.core.logbook.flow import knowledge_of
from tessil.core.memory.collecting import uncollected
from tessil.core.memory.later import Later
from tessil.core.memory.recall import Memory, NoMemory
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, given, total
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.planning import Setting, Task, alike, plan_panel
from tessil.core.planned import Amounts, Outside, Plan
from tessil.core.project import Project
from tessil.core.sandwich.layers import weight
from tessil.core.sewn.faces import looks_of
from tessil.core.sewn.placing import Sewn
from tessil.core.sewn.stacks import meeting, walls_bound
from tessil.core.shapes import Brief
from tessil.core.shapes.fit import fits_of
from tessil.core.snags import Snag
from tessil.core.tasks.building import build_task_of, built_of
from tessil.core.tasks.inputs import (
    brief_of,
    check_materials,
    cut_task_of,
    edge_task_of,
    hooped_of,
    sewn_on_base,
    shape_of,
    to_plan,
)
from tessil.core.trimming.marks import base_places, placed_marks
from tessil.core.trimming.squaring import all_but, least_gap

T = TypeVar("T")


def _binding(bag: Bag, brief: Brief, choice: Binding, usable: Inches) -> BindingPlan | None:
    bound = any(edge.finish == "bound" for panel in bag.panels for edge in panel.edges)
    if not bound or bag.opening is None:
        return None
    width = given("usable width", usable)
    edge, corners = bound_edge(bag)
    walls = walls_bound(bag.net)
    thick = brief.wall if walls == 1 else walls * brief.wall
    return plan_binding(choice, edge, bag.loop, thick, width, brief.rulers.ruler, corners)


def _gaps(project: Project, bag: Bag, padded: bool) -> tuple[Figure, Figure]:
    """The least gap that this bag turns through, and the one that is left."""
    stiff = bag.floor[1] if bag.floor is not None else None
    least = least_gap(bag.finished[0], padded, stiff if _is_stiff(project) else None)
    if project.gap_corners is not None:
        seam = bag.finished[0] if bag.has_bottom_seam or bag.zipper else bag.finished[1]
        return least, all_but(seam, project.gap_corners)
    if project.turning_gap is not None:
        return least, given("turning gap", project.turning_gap)
    return least, least


def _is_stiff(project: Project) -> bool:
    """Whether something is fused on the base that is turned with the bag."""
    return project.base.stiffener in ("fused", "lining")


def _strips(bag: Bag, brief: Brief, choice: Binding, usable: Inches) -> tuple[EdgeStrip, ...]:
    width = given("usable width", usable)
    return edge_strips(choice, bag.bound, brief.wall, width, brief.rulers.ruler)


def _weight(weights: tuple[Figure, ...]) -> Figure:
    return total(weights).called("weight, about", "grams")


def _panel_weight(panel: Panel, materials: tuple[Material, ...]) -> Figure:
    """Grams of a panel with its layers, without hardware and seams."""
    one = weight(panel.area, materials)
    return (one if panel.copies == 1 else panel.copies * one).called(panel.label, "grams")


def _washed(takes: Fraction, bag: Bag) -> tuple[Figure, ...]:
    """The finished sizes after the first wash: 2 to 4 % less, common practice, no source."""
    share = given("first wash takes", takes, Basis.PRACTICE, 0, "percent")
    return tuple(
        (figure * (1 - share)).called(f"{word} after the first wash")
        for figure, word in zip(bag.finished, bag.words, strict=False)
    )


def _kept_bag(memory: Memory, bag: Bag) -> Bag:
    """The bag with those panels that are as they were before."""
    panels = tuple(memory.like(("panel", panel.key), panel) for panel in bag.panels)
    return memory.like("bag as built", replace(bag, panels=panels))


def _planned_panels(
    memory: Memory, setting: Setting, tasks: tuple[Task, ...]
) -> tuple[PanelPlan, ...]:
    """Every panel, those alike only once."""
    made: list[PanelPlan] = []
    for at, task in enumerate(tasks):
        key = task.panel.key
        twin = next(
            (
                n
                for n, other in enumerate(tasks[:at])
                if memory.of(("alike", key, other.panel.key), alike, task, other)
            ),
            None,
        )
        if twin is None:
            made.append(memory.of(("planned", key), plan_panel, setting, task))
        else:
            made.append(memory.of(("twin", key), _twin, made[twin], task.panel))
    return tuple(made)


def _twin(made: PanelPlan, panel: Panel) -> PanelPlan:
    return replace(made, panel=panel)


def plan(project: Project, book: Book = EMPTY, memory: Memory | None = None) -> Plan:
    """The whole plan by what the maker's logbook has taught; raises CannotPlan, naming the field
    to change, if there is none.

    ``memory`` keeps what each stage made of what, for the next plan; it changes nothing else.
    """
    memory = memory or NoMemory()
    with uncollected():
        return memory.of("plan", partial(_plan, memory), project, book)


def _plan(memory: Memory, project: Project, book: Book) -> Plan:
    memory.begin()
    shape, of, like = shape_of(project), memory.of, memory.like
    check_materials(project)
    brief = like("brief", brief_of(project, shape))
    known = like("known", knowledge_of(book, project.log_name))
    built = of("built", built_of, build_task_of(project, shape, brief, known))
    # Not among the inputs: a memory that held itself would only go with the circles.
    bag, sizes, cloth = of("kept bag", partial(_kept_bag, memory), built[0]), built[1], built[2]
    setting, tasks = to_plan(project, brief, known, bag)
    setting = like("setting", setting)
    tasks = like("tasks", tuple(like(("task", task.panel.key), task) for task in tasks))
    panels = like("panels", _planned_panels(memory, setting, tasks))
    by_key = {panel.key: panel for panel in panels}
    lead = by_key.get(shape.leader, panels[0])
    width = project.stock.usable_width
    binding = of("binding", _binding, bag, brief, project.binding, width)
    by_edge = of("edge strips", _strips, bag, brief, project.binding, width)
    edge_task = like("edge task", edge_task_of(project, bag, brief))
    cut_task = like("cut task", cut_task_of(project, brief, bag))
    edging = of("edging", plan_edging, edge_task, binding, by_edge)
    sets = of("sets", strip_sets, panels, cut_task)
    hooped = of(
        "hooped", plan_hoopings, project.hooping, like("to hoop", hooped_of(project, panels))
    )
    lain = Lain(panels, sets, binding, edging, hooped, by_edge)
    items = of("items", cut_list, like("lain", lain), cut_task)
    least, gap = _gaps(project, bag, batting_of(project, lead.choices) is not None)
    return Plan(
        project=project,
        shape=shape,
        marks=brief.rulers,
        materials=setting.materials,
        bag=bag,
        sizes=sizes,
        cloth=cloth,
        brief=brief,
        setting=setting,
        tasks=tasks,
        panels=panels,
        sewn=of("sewn", Sewn, bag.net),
        wall=brief.wall,
        gap_least=least,
        gap=like("gap", gap),
        binding=binding,
        edge_strips=by_edge,
        edge_task=edge_task,
        edging=edging,
        hooped=hooped,
        sets=sets,
        items=items,
        outside=_later(memory, _outside),
        amounts=_later(memory, partial(_amounts, cut_task)),
        found=_later(memory, _found),
    )


def _later(memory: Memory, work: Callable[[Memory, Plan], T]) -> Later[Plan, T]:
    """A part of a plan that is made when it is asked for, by the same memory while there is one."""
    still = weakref.ref(memory)

    def make(made: Plan) -> T:
        with uncollected():
            return work(still() or NoMemory(), made)

    return Later(make)


def _outside(memory: Memory, made: Plan) -> Outside:
    """What is seen of the bag, and what its pieces do there."""
    project, bag, of, like = made.project, made.bag, memory.of, memory.like
    by_key = {panel.key: panel for panel in made.panels}
    looks = of("looks", looks_of, made.sewn)
    board, shown = of("board", board_of, bag, looks, made.panels), of("areas", areas, bag, looks)
    table = like("table", Table(board, shown, by_key, project.prints, project.rules, project.made))
    broken = of("broken", broken_rules, like("judged", replace(table, bags=1)))
    return Outside(looks, table, broken)


def _amounts(cut_task: CutTask, memory: Memory, made: Plan) -> Amounts:
    """How much of it there is."""
    project, bag, brief, of, like = made.project, made.bag, made.brief, memory.of, memory.like
    by_key = {panel.key: panel for panel in made.panels}
    placed = of("placed", placed_marks, project.marks, project.snap, bag.flap, by_key)
    on_base = of("placed base", base_places, project.base, bag, by_key)
    weights = tuple(
        of(("weight", panel.key), _panel_weight, panel.panel, panel.materials)
        for panel in made.panels
    )
    bought = tuple(
        of(("bought", *key), purchase, stocked(*key, cut_task), group)
        for key, group in by_stock(made.items).items()
    )
    pack = project.pack
    sewing = (made.edge_task, made.binding, made.edging, made.edge_strips)
    return Amounts(
        fits=of("fits", fits_of, made.shape, brief, bag) if project.hold.minded else (),
        weight=of("weight", _weight, weights),
        washed=of("washed", _washed, project.wash.share, bag),
        edge_steps=of("edge steps", edge_steps, *sewing),
        placed=like("all placed", (*placed, *on_base)),
        bulk=like("bulk", _bulk(memory, made)),
        bought=like("bought", bought),
        packed=of("packed", packed, made.panels, pack, brief.seams.piecing) if pack else None,
    )


def _bulk(memory: Memory, made: Plan) -> dict[str, tuple[Spot, ...]]:
    """How thick it gets round each outer panel."""
    project, bag = made.project, made.bag
    tasks = bulk_tasks(
        bag.joins,
        meeting(bag.net),
        {panel.key: panel for panel in made.panels},
        made.materials,
        project.press_seams,
        project.lining == "drop-in",
        project.marks,
        bag.net,
        project.piping,
        sewn_on_base(project, bag),
        project.zipper.set,
        project.strap.made in OF_WEBBING,
        bag.zipper.free if bag.zipper is not None else (),
    )
    return {task.panel.key: memory.of(("bulk", task.panel.key), spots_of, task) for task in tasks}


def _found(memory: Memory, made: Plan) -> tuple[Snag, ...]:
    """What will go wrong; it is asked for once a plan stands, and so the memory settles then."""
    found = memory.like("snags", find_snags(made, memory))
    memory.settle()
    return found
