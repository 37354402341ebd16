"""The bag that is built: from sizes typed, what it holds, its panel, or a piece of cloth.

What the leading panel was really trimmed to wins over all of them.
"""

from __future__ import annotations

from collections.abc import Callable

from tessil.core.bag.model import Bag, Panel
from tessil.core.brief.choice import ShapeChoice
from tessil.core.choices import materials_of
from tessil.core.cutting.largest import ClothFit, ClothTask, cloth_for, from_cloth
from tessil.core.logbook.flow import Knowledge
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, down_to, given
from tessil.core.panels.choice import Measured
from tessil.core.panels.planning import Setting, Task, plan_panel
from tessil.core.project import Project
from tessil.core.shapes import Brief, Shape
from tessil.core.shapes.base import Sizes
from tessil.core.tasks.inputs import leading_choices, to_plan
from tessil.core.trouble import CannotPlan

MOST_TRIES = 4  # of a bag out of cloth whose panels took more than was thought


def _typed(task: BuildTask, way: str) -> Sizes:
    sizes, units = task.choice.sizes, task.brief.rulers.units
    return {
        field.key: given(field.label.lower(), sizes.get(field.key, field.begins(units)))
        for field in task.shape.fields_for(way)
    }


class BuildTask(Record, frozen=True):
    """What the sizes of a bag follow from.  ``job`` only where the bag begins with a cloth: how
    much of it the panels take hangs on all that is decided for them."""

    brief: Brief
    shape: Shape
    choice: ShapeChoice
    got: Measured  # of the leading panel
    known: Knowledge | None
    job: Project | None


def build_task_of(project: Project, shape: Shape, brief: Brief, known: Knowledge) -> BuildTask:
    cut = project.shape.way == "cloth"
    plain = {
        "name": "-",
        "id": "",
        "bags": 1,
        "nth": 0,
        "copies": {},
        "marks": (),
        "settled": (),
        "left": {},
    }
    return BuildTask(
        brief=brief,
        shape=shape,
        choice=project.shape,
        got=project.got(shape.leader),
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
        zipper=project.zipper.length,
    )
    return _searched(project, cloth, typed)


def _searched(project: Project, task: ClothTask, typed: Sizes) -> tuple[Sizes, ClothFit]:
    needs: dict[str, tuple[Inches, Inches]] = {}
    for _ in range(MOST_TRIES):
        sizes, fit = from_cloth(task, typed, needs)
        if task.cloth.quilted:
            break
        bag = task.shape.body(task.brief, sizes)
        setting, tasks = to_plan(project, task.brief, task.knowledge, bag)
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
    front = {
        way: given(f"assembled {way}, measured", value, Basis.MEASURED)
        for way, value in (("width", got.assembled.width), ("height", got.assembled.height))
        if value is not None
    }
    if shape.assembled is not None and front:
        changed.update(shape.assembled(task.brief, changed, front))
    for field in shape.fields:
        value = {"side": got.notch.width, "other": got.notch.height}.get(field.leg)
        if value is not None and field.key in sizes:
            changed[field.key] = given("notch, as cut", value, Basis.MEASURED)
    return changed


def built_of(task: BuildTask) -> tuple[Bag, Sizes, ClothFit | None]:
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
