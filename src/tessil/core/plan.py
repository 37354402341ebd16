"""``plan(project)``: the one way from what a maker decided to everything that follows.

Pure and quick enough for every keystroke: with a memory, a stage whose inputs are those of the
last plan hands back what it made then.  Orchestrates only; each sum stands in the module that
knows its subject.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import partial

from tessil.core.bag.model import Bag, Panel
from tessil.core.brief.choice import ShapeChoice
from tessil.core.catalogue import Material
from tessil.core.checks import find_snags
from tessil.core.choices import (
    batting_of,
    bound_print,
    choices_for,
    choices_of_lining,
    first_print,
    linings_in,
    materials_of,
    owner_key,
    wall_of,
)
from tessil.core.cutting.cutlist import by_stock, cut_list, purchase, stocked, strip_sets
from tessil.core.cutting.largest import ClothFit, ClothTask, cloth_for, from_cloth
from tessil.core.cutting.task import CutTask
from tessil.core.edges.binding import BindingPlan, plan_binding
from tessil.core.edges.bulk import bulk_tasks, spots_of
from tessil.core.edges.choice import Binding
from tessil.core.edges.edging import plan_edging
from tessil.core.edges.runs import bound_edge
from tessil.core.edges.sewing import edge_steps
from tessil.core.edges.task import EdgeTask
from tessil.core.layout.board import areas, board_of
from tessil.core.layout.packs import packed
from tessil.core.layout.rules import Table, broken_rules
from tessil.core.logbook.book import EMPTY, Book
from tessil.core.logbook.flow import Knowledge, knowledge_of
from tessil.core.memory.collecting import uncollected
from tessil.core.memory.recall import Memory
from tessil.core.memory.same import same
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import Basis, Figure, down_to, given, total
from tessil.core.panels.choice import Measured, PanelChoices
from tessil.core.panels.learning import measured_losses
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.planning import Setting, Task, plan_panel
from tessil.core.piecing.seamtest import piecing_seam
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.sandwich.layers import thickness, weight
from tessil.core.shapes import SHAPES, Brief, SeamFigures, Shape
from tessil.core.shapes.base import Sizes
from tessil.core.shapes.fit import fits_of
from tessil.core.shapes.held import held_figures
from tessil.core.trimming.marks import placed_marks
from tessil.core.trimming.squaring import least_gap
from tessil.core.trouble import CannotPlan

MOST_TRIES = 4  # of a bag out of cloth whose panels took more than was thought


def _seams(project: Project) -> SeamFigures:
    seams = project.seams
    return SeamFigures(
        piecing=piecing_seam(seams.piecing, project.seam_test),
        side=given("side seam", seams.side),
        bottom=given("bottom seam", seams.bottom),
        top=given("top seam", seams.top),
        corner=given("corner seam", seams.corner),
        zip=given("zipper seam", project.zipper.seam),
        shown=given("visible zipper", project.zipper.shown),
        binding=given("binding seam", project.binding.seam),
    )


def shape_of(project: Project) -> Shape:
    """The project's shape; raises CannotPlan for one this program does not know."""
    try:
        return SHAPES[project.shape.kind]
    except KeyError:
        raise CannotPlan(
            "shape.kind", f"The shape “{project.shape.kind}” is not one this Tessil knows."
        ) from None


def _options(shape: Shape, chosen: dict[str, str]) -> dict[str, str]:
    settled = {}
    for option in shape.options:
        value = chosen.get(option.key, option.start)
        if value not in {key for key, _ in option.choices}:
            raise CannotPlan(
                f"shape.options.{option.key}", f"“{value}” is not a choice for {option.label}."
            )
        settled[option.key] = value
    return settled


def _check_materials(project: Project) -> None:
    known = materials_of(project)
    for key, choices in project.panels.items():
        asked = [
            (f"plies.{at}.material", ply.material) for at, ply in enumerate(choices.layers.plies)
        ]
        for path, name in [("top", choices.layers.top), *asked]:
            if name not in known:
                raise CannotPlan(
                    f"panels.{key}.layers.{path}", f"“{name}” is not in the catalogue."
                )


def leading_choices(project: Project, shape: Shape) -> PanelChoices:
    """The choices of the panel that leads."""
    return project.panels.get(shape.leader, PanelChoices())


def _wall(project: Project, shape: Shape) -> Figure:
    """One wall of the bag with its lining, relaxed: what a bound edge turns over."""
    return thickness(wall_of(project, leading_choices(project, shape)), "relaxed")


def brief_of(project: Project, shape: Shape) -> Brief:
    """What a shape is told when it computes."""
    return Brief(
        held=held_figures(project.hold),
        seams=_seams(project),
        wall=_wall(project, shape),
        lining_shorter=given("lining shorter by", project.lining_shorter),
        rulers=rulers(project.units, project.rounding),
        options=_options(shape, project.shape.options),
        lining=project.lining,
        corner=project.corner,
    )


def _typed(task: BuildTask, way: str) -> Sizes:
    sizes = task.choice.sizes
    return {
        field.key: given(field.label.lower(), sizes.get(field.key, field.start))
        for field in task.shape.fields_for(way)
    }


@dataclass(frozen=True, slots=True)
class BuildTask:
    """What the sizes of a bag follow from.  ``job`` only where the bag begins with a cloth: how
    much of it the panels take hangs on all that is decided for them."""

    brief: Brief
    shape: Shape
    choice: ShapeChoice
    got: Measured  # of the leading panel
    known: Knowledge | None
    job: Project | None


def _build_task(project: Project, shape: Shape, brief: Brief, known: Knowledge) -> BuildTask:
    cut = project.shape.way == "cloth"
    plain = {"name": "-", "id": "", "bags": 1, "marks": (), "settled": (), "left": {}}
    return BuildTask(
        brief=brief,
        shape=shape,
        choice=project.shape,
        got=project.measured.get(shape.leader, Measured()),
        known=known if cut else None,
        job=project.model_copy(update=plain) if cut else None,
    )


def _panel_sizes(task: BuildTask) -> tuple[Sizes, ClothFit | None]:
    """Trimmed panel sizes by the chosen way in, and how the cloth was used if it began there."""
    shape, brief, way = task.shape, task.brief, task.choice.way
    if way == "panel":
        return _typed(task, "panel"), None
    typed = _typed(task, "finished")
    if task.job is not None and task.known is not None:
        return _out_of_cloth(task, task.job, task.known, typed)
    finished = {**typed, **shape.for_object(brief)} if way == "object" else typed
    finished = {**finished, **_proportioned(task, finished)}
    return {**finished, **shape.to_panel(brief, finished)}, None


def _out_of_cloth(
    task: BuildTask, project: Project, known: Knowledge, typed: Sizes
) -> tuple[Sizes, ClothFit]:
    """The largest bag out of the cloth.

    Lines that come out even lie a little closer than wished, or follow seams: where panels then
    take more cloth than was thought, a smaller bag is tried.
    """
    cloth = ClothTask(
        brief=task.brief,
        shape=task.shape,
        cloth=project.shape.cloth,
        choices=leading_choices(project, task.shape),
        oversize=project.oversize,
        materials=materials_of(project),
        knowledge=known,
        typed=frozenset(project.shape.sizes),
    )
    return _searched(project, cloth, typed)


def _searched(project: Project, task: ClothTask, typed: Sizes) -> tuple[Sizes, ClothFit]:
    needs: dict[str, tuple[Inches, Inches]] = {}
    for _ in range(MOST_TRIES):
        sizes, fit = from_cloth(task, typed, needs)
        if task.cloth.quilted:
            break
        bag = task.shape.build(task.brief, sizes)
        setting, tasks = _to_plan(project, task.brief, task.knowledge, bag)
        more = _more_cloth(setting, tasks, cloth_for(task))
        if not any(max(more[key]) > max(needs.get(key, (0, 0))) for key in more):
            break
        needs |= more
    return sizes, fit


def _more_cloth(
    setting: Setting, tasks: tuple[Task, ...], thought: Callable[[Panel], tuple[Inches, Inches]]
) -> dict[str, tuple[Inches, Inches]]:
    """What outer panels really take more of the cloth than was thought, each way."""
    found = {}
    for task in tasks:
        if task.panel.kind != "outer":
            continue
        needed = plan_panel(setting, task).needed
        width, height = thought(task.panel)
        more = (
            max(needed.width.value - width, Fraction(0)),
            max(needed.height.value - height, Fraction(0)),
        )
        if max(more):
            found[task.panel.key] = more
    return found


def _proportioned(task: BuildTask, finished: Sizes) -> Sizes:
    """Sizes that nobody typed, in proportion to the bag, down to the ruler's mark."""
    return {
        key: down_to(share(finished), task.brief.rulers.ruler).settled(key)
        for key, share in task.shape.proportions.items()
        if key not in task.choice.sizes
    }


def _with_measured(task: BuildTask, sizes: Sizes) -> Sizes:
    """What the leading panel was really trimmed to wins over the plan."""
    shape, got = task.shape, task.got
    changed = dict(sizes)
    for key, way, value in (
        (shape.panel_width, "width", got.trimmed.width),
        (shape.panel_height, "height", got.trimmed.height),
    ):
        if value is not None:
            changed[key] = given(f"trimmed {way}, measured", value, Basis.MEASURED)
    for field in shape.fields:
        value = {"side": got.notch.width, "other": got.notch.height}.get(field.leg)
        if value is not None and field.key in sizes:
            changed[field.key] = given("notch, as cut", value, Basis.MEASURED)
    return changed


def _build(task: BuildTask) -> tuple[Bag, Sizes, ClothFit | None]:
    shape, brief = task.shape, task.brief
    planned, fit = _panel_sizes(task)
    real = _with_measured(task, planned)
    if real == planned:
        return shape.build(brief, planned), planned, fit
    try:
        return shape.build(brief, real), real, fit
    except CannotPlan as trouble:
        field = f"measured.{shape.leader}.trimmed"
        raise CannotPlan(field, f"Trimmed so small there is no bag. {trouble.sentence}") from None


def _binding(bag: Bag, brief: Brief, choice: Binding, usable: Inches) -> BindingPlan | None:
    bound = any(edge.finish == "bound" for panel in bag.panels for edge in panel.edges)
    if not bound or bag.opening is None:
        return None
    width = given("usable width", usable)
    edge, corners = bound_edge(bag)
    return plan_binding(choice, edge, bag.loop, brief.wall, width, brief.rulers.ruler, corners)


def _weight(weights: tuple[Figure, ...]) -> Figure:
    return total(weights).called("weight, about", "grams")


def _panel_weight(panel: Panel, materials: tuple[Material, ...]) -> Figure:
    """Grams of a panel with its layers, without hardware and seams."""
    one = weight(panel.area, materials)
    return (one if panel.copies == 1 else panel.copies * one).called(panel.label, "grams")


def _setting(project: Project, brief: Brief, known: Knowledge) -> Setting:
    """What all panels share."""
    prints = project.prints
    return Setting(
        marks=brief.rulers,
        piecing_seam=brief.seams.piecing,
        squaring=given("squaring margin", project.oversize.squaring),
        binding_seam=given("binding covers", project.binding.seam),
        oversize=project.oversize,
        prints=tuple(entry.key for entry in prints),
        upright_only=frozenset(entry.key for entry in prints if entry.directional),
        scraps=project.scraps,
        materials=materials_of(project),
        bobbin_m=project.machine.bobbin_m,
        knowledge=known,
    )


def _tasks(project: Project, bag: Bag) -> tuple[Task, ...]:
    """Each panel with what was decided and measured for it."""
    lining = first_print(choices_of_lining(project))
    return tuple(
        Task(
            panel=panel,
            choices=choices_for(project, panel),
            measured=project.measured.get(panel.key, Measured()),
            owner=owner_key(project, panel),
            linings=linings_in(project, panel.kind),
            lining_print=lining,
        )
        for panel in bag.panels
    )


def _to_plan(
    project: Project, brief: Brief, known: Knowledge, bag: Bag
) -> tuple[Setting, tuple[Task, ...]]:
    """What all panels share, and each with its own; panels measured in this very project teach
    it too."""
    setting, tasks = _setting(project, brief, known), _tasks(project, bag)
    own = measured_losses(setting, tasks)
    return (replace(setting, knowledge=replace(known, own=own)) if own else setting), tasks


def _edge_task(project: Project, bag: Bag, brief: Brief) -> EdgeTask:
    return EdgeTask(
        bag=bag,
        binding=project.binding,
        bias=project.bias,
        piping=project.piping,
        strap=project.strap,
        cord=project.cord,
        button=project.button,
        zipper=project.zipper,
        lining=project.lining,
        cloth=bound_print(project),
        usable_width=project.stock.usable_width,
        top_seam=project.seams.top,
        channel=project.shape.sizes.get("channel"),
        units=project.units,
        marks=brief.rulers,
    )


def _cut_task(project: Project, brief: Brief) -> CutTask:
    return CutTask(
        bags=project.bags,
        stock=project.stock,
        prints=project.prints,
        materials=materials_of(project),
        offcuts=project.offcuts,
        marks=project.marks,
        cloth=bound_print(project),
        pocket_cloth=first_print(choices_of_lining(project)),
        side_seam=project.seams.side,
        straight=project.binding.grain == "straight",
        rulers=brief.rulers,
    )


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


def _alike(one: Task, other: Task) -> bool:
    """Whether two panels differ in nothing but their names."""
    named = replace(other.panel, key=one.panel.key, label=one.panel.label, like=one.panel.like)
    return same(one, replace(other, panel=named))


def _planned_panels(
    memory: Memory, setting: Setting, tasks: tuple[Task, ...]
) -> tuple[PanelPlan, ...]:
    """Every panel, those alike only once."""
    made: list[PanelPlan] = []
    for at, task in enumerate(tasks):
        twin = next((n for n, other in enumerate(tasks[:at]) if _alike(task, other)), None)
        if twin is None:
            made.append(memory.of(("planned", task.panel.key), plan_panel, setting, task))
        else:
            made.append(memory.of(("twin", task.panel.key), _twin, made[twin], task.panel))
    return tuple(made)


def _twin(made: PanelPlan, panel: Panel) -> PanelPlan:
    return replace(made, panel=panel)


def plan(project: Project, book: Book = EMPTY, memory: Memory | None = None) -> Plan:
    """The whole plan by what the maker's logbook has taught; raises CannotPlan, naming the field
    to change, if there is none.

    ``memory`` keeps what each stage made of what, for the next plan; it changes nothing else.
    """
    memory = memory or Memory()
    with uncollected():
        made = _plan(project, book, memory)
    memory.settle()
    return made


def _plan(project: Project, book: Book, memory: Memory) -> Plan:
    shape, of, like = shape_of(project), memory.of, memory.like
    _check_materials(project)
    brief = like("brief", brief_of(project, shape))
    known = like("known", knowledge_of(book, project.log_name))
    built = of("built", _build, _build_task(project, shape, brief, known))
    # Not among the inputs: a memory that held itself would only go with the circles.
    bag, sizes, cloth = of("kept bag", partial(_kept_bag, memory), built[0]), built[1], built[2]
    setting, tasks = _to_plan(project, brief, known, bag)
    setting = like("setting", setting)
    tasks = like("tasks", tuple(like(("task", task.panel.key), task) for task in tasks))
    panels = like("panels", _planned_panels(memory, setting, tasks))
    by_key = {panel.key: panel for panel in panels}
    lead = by_key.get(shape.leader, panels[0])
    width = project.stock.usable_width
    binding = of("binding", _binding, bag, brief, project.binding, width)
    edge_task = like("edge task", _edge_task(project, bag, brief))
    cut_task = like("cut task", _cut_task(project, brief))
    edging = of("edging", plan_edging, edge_task, binding)
    sets = of("sets", strip_sets, panels, cut_task)
    items = of("items", cut_list, panels, sets, binding, edging, cut_task)
    least = least_gap(bag.finished[0], batting_of(project, lead.choices) is not None)
    gap = project.turning_gap
    bulk = bulk_tasks(
        bag.joins,
        by_key,
        setting.materials,
        project.press_seams,
        project.lining == "drop-in",
        project.marks,
    )
    spots = {task.panel.key: of(("bulk", task.panel.key), spots_of, task) for task in bulk}
    bought = tuple(
        of(("bought", *key), purchase, stocked(*key, cut_task), group)
        for key, group in by_stock(items).items()
    )
    weights = tuple(
        of(("weight", panel.key), _panel_weight, panel.panel, panel.materials) for panel in panels
    )
    board, shown = of("board", board_of, bag, panels), of("areas", areas, bag)
    table = like("table", Table(board, shown, by_key, project.prints, project.rules, project.bags))
    made = Plan(
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
        fits=of("fits", fits_of, shape, brief, bag) if project.hold.minded else (),
        wall=brief.wall,
        weight=of("weight", _weight, weights),
        washed=of("washed", _washed, project.wash.share, bag),
        gap_least=least,
        gap=least if gap is None else like("gap", given("turning gap", gap)),
        binding=binding,
        edge_task=edge_task,
        edging=edging,
        edge_steps=of("edge steps", edge_steps, edge_task, binding, edging),
        placed=of("placed", placed_marks, project.marks, project.snap, bag.flap, by_key),
        bulk=like("bulk", spots),
        sets=sets,
        items=items,
        bought=like("bought", bought),
        table=table,
        packed=of("packed", packed, panels, project.pack, brief.seams.piecing)
        if project.pack
        else None,
        broken=of("broken", broken_rules, table),
    )
    return replace(made, snags=like("snags", find_snags(made, memory)))


def with_panel(made: Plan, project: Project, key: str) -> Plan:
    """A plan with one panel planned anew for a changed project: what a slider shows while
    it is dragged.  All else stays as it was until the whole is planned."""
    setting = _setting(project, made.brief, made.setting.knowledge)
    tasks = _tasks(project, made.bag)
    panels = tuple(
        plan_panel(setting, task) if task.panel.key == key else panel
        for task, panel in zip(tasks, made.panels, strict=True)
    )
    return replace(made, project=project, panels=panels, setting=setting, tasks=tasks)
