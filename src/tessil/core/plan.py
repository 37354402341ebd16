"""``plan(project)``: the one way from what a maker decided to everything that follows.

Pure and quick enough for every keystroke.  Orchestrates only; each sum stands in the
module that knows its subject.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction

from tessil.core.bag.model import Bag, Panel
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
from tessil.core.cutting.cutlist import cut_list, purchases, strip_sets
from tessil.core.cutting.largest import ClothFit, ClothTask, cloth_for, from_cloth
from tessil.core.cutting.task import CutTask
from tessil.core.edges.binding import BindingPlan, plan_binding
from tessil.core.edges.bulk import BulkTask, bulk_of
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


def _typed(project: Project, shape: Shape, way: str) -> Sizes:
    sizes = project.shape.sizes
    return {
        field.key: given(field.label.lower(), sizes.get(field.key, field.start))
        for field in shape.fields_for(way)
    }


def _panel_sizes(
    project: Project, shape: Shape, brief: Brief, known: Knowledge
) -> tuple[Sizes, ClothFit | None]:
    """Trimmed panel sizes by the chosen way in, and how the cloth was used if it began there."""
    way = project.shape.way
    if way == "panel":
        return _typed(project, shape, "panel"), None
    typed = _typed(project, shape, "finished")
    if way == "cloth":
        return _out_of_cloth(project, shape, brief, known, typed)
    finished = {**typed, **shape.for_object(brief)} if way == "object" else typed
    finished = {**finished, **_proportioned(project, shape, brief, finished)}
    return {**finished, **shape.to_panel(brief, finished)}, None


def _out_of_cloth(
    project: Project, shape: Shape, brief: Brief, known: Knowledge, typed: Sizes
) -> tuple[Sizes, ClothFit]:
    """The largest bag out of the cloth.

    Lines that come out even lie a little closer than wished, or follow seams: where panels then
    take more cloth than was thought, a smaller bag is tried.  The search takes a while, so the last
    few are remembered by all that they rest on.
    """
    plain = {"name": "-", "id": "", "bags": 1, "marks": (), "settled": (), "left": {}}
    asked = (project.model_copy(update=plain), known)
    for key, answer in _FOUND:
        if key == asked:
            return answer
    task = ClothTask(
        brief=brief,
        shape=shape,
        cloth=project.shape.cloth,
        choices=leading_choices(project, shape),
        oversize=project.oversize,
        materials=materials_of(project),
        knowledge=known,
        typed=frozenset(project.shape.sizes),
    )
    answer = _searched(project, task, typed)
    _FOUND.appendleft((asked, answer))
    return answer


_FOUND: deque[tuple[tuple[Project, Knowledge], tuple[Sizes, ClothFit]]] = deque(maxlen=8)


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


def _proportioned(project: Project, shape: Shape, brief: Brief, finished: Sizes) -> Sizes:
    """Sizes that nobody typed, in proportion to the bag, down to the ruler's mark."""
    return {
        key: down_to(share(finished), brief.rulers.ruler).settled(key)
        for key, share in shape.proportions.items()
        if key not in project.shape.sizes
    }


def _with_measured(project: Project, shape: Shape, sizes: Sizes) -> Sizes:
    """What the leading panel was really trimmed to wins over the plan."""
    got = project.measured.get(shape.leader, Measured()).trimmed
    changed = dict(sizes)
    for key, way, value in (
        (shape.panel_width, "width", got.width),
        (shape.panel_height, "height", got.height),
    ):
        if value is not None:
            changed[key] = given(f"trimmed {way}, measured", value, Basis.MEASURED)
    cut = project.measured.get(shape.leader, Measured()).notch
    for field in shape.fields:
        value = {"side": cut.width, "other": cut.height}.get(field.leg)
        if value is not None and field.key in sizes:
            changed[field.key] = given("notch, as cut", value, Basis.MEASURED)
    return changed


def _build(
    project: Project, shape: Shape, brief: Brief, known: Knowledge
) -> tuple[Bag, Sizes, ClothFit | None]:
    planned, fit = _panel_sizes(project, shape, brief, known)
    real = _with_measured(project, shape, planned)
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


def _weight(panels: tuple[PanelPlan, ...]) -> Figure:
    """Grams of all panels with their layers, without hardware and seams."""
    parts = []
    for panel in panels:
        one = weight(panel.panel.area, panel.materials)
        copies = panel.panel.copies
        parts.append((one if copies == 1 else copies * one).called(panel.panel.label, "grams"))
    return total(parts).called("weight, about", "grams")


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


def _washed(project: Project, bag: Bag) -> tuple[Figure, ...]:
    """The finished sizes after the first wash: 2 to 4 % less, common practice, no source."""
    share = given("first wash takes", project.wash.share, Basis.PRACTICE, 0, "percent")
    return tuple(
        (figure * (1 - share)).called(f"{word} after the first wash")
        for figure, word in zip(bag.finished, bag.words, strict=False)
    )


def _bulk_task(project: Project, bag: Bag, panels: tuple[PanelPlan, ...]) -> BulkTask:
    return BulkTask(
        joins=bag.joins,
        panels={panel.key: panel for panel in panels},
        materials=materials_of(project),
        press=project.press_seams,
        dropped_in=project.lining == "drop-in",
        marks=project.marks,
    )


def plan(project: Project, book: Book = EMPTY) -> Plan:
    """The whole plan by what the maker's logbook has taught; raises CannotPlan, naming the field
    to change, if there is none."""
    shape = shape_of(project)
    _check_materials(project)
    brief, known = brief_of(project, shape), knowledge_of(book, project.log_name)
    bag, sizes, cloth = _build(project, shape, brief, known)
    setting, tasks = _to_plan(project, brief, known, bag)
    panels = tuple(plan_panel(setting, task) for task in tasks)
    by_key = {panel.key: panel for panel in panels}
    lead = by_key.get(shape.leader, panels[0])
    binding = _binding(bag, brief, project.binding, project.stock.usable_width)
    edge_task, cut_task = _edge_task(project, bag, brief), _cut_task(project, brief)
    edging = plan_edging(edge_task, binding)
    sets = strip_sets(panels, cut_task)
    items = cut_list(panels, sets, binding, edging, cut_task)
    least = least_gap(bag.finished[0], batting_of(project, lead.choices) is not None)
    gap = project.turning_gap
    table = Table(
        board_of(bag, panels), areas(bag), by_key, project.prints, project.rules, project.bags
    )
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
        fits=fits_of(shape, brief, bag) if project.hold.minded else (),
        wall=brief.wall,
        weight=_weight(panels),
        washed=_washed(project, bag),
        gap_least=least,
        gap=least if gap is None else given("turning gap", gap),
        binding=binding,
        edge_task=edge_task,
        edging=edging,
        edge_steps=edge_steps(edge_task, binding, edging),
        placed=placed_marks(project.marks, project.snap, bag.flap, by_key),
        bulk=bulk_of(_bulk_task(project, bag, panels)),
        sets=sets,
        items=items,
        bought=purchases(items, cut_task),
        table=table,
        packed=packed(panels, project.pack, brief.seams.piecing) if project.pack else None,
        broken=broken_rules(table),
    )
    return replace(made, snags=find_snags(made))


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
