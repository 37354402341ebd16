"""What each stage reads of a project, as small frozen records; sums nothing that a maker sees."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Bag
from tessil.core.catalogue import Material
from tessil.core.choices import (
    bound_print,
    choices_for,
    choices_of_lining,
    first_print,
    linings_in,
    materials_of,
    owner_key,
    wall_of,
)
from tessil.core.cutting.task import CutTask
from tessil.core.edges.task import EdgeTask
from tessil.core.hooping.hoopings import Hooped, cut_for, field_of
from tessil.core.logbook.flow import Knowledge
from tessil.core.numbers.decided import usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import Figure, given
from tessil.core.panels.choice import PanelChoices
from tessil.core.panels.learning import measured_losses
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.planning import Setting, Task
from tessil.core.piecing.seamtest import piecing_seam
from tessil.core.project import Project
from tessil.core.sandwich.choice import STIFF
from tessil.core.sandwich.layers import thickness
from tessil.core.shapes import Brief, SeamFigures, Shape, shape_as
from tessil.core.shapes.base import NOTHING
from tessil.core.shapes.held import held_figures
from tessil.core.trouble import CannotPlan
from tessil.core.words.refusals import shortened


def _seams(project: Project) -> SeamFigures:
    seams = project.seams
    return SeamFigures(
        piecing=piecing_seam(seams.piecing, project.seam_test),
        side=given("side seam", seams.side),
        bottom=given("bottom seam", seams.bottom),
        top=given("top seam", seams.top),
        corner=given("corner seam", seams.corner),
        zip=given("zipper seam", project.zipper.seam) if project.zipper.set == "seam" else NOTHING,
        shown=given("visible zipper", project.zipper.shown),
        binding=given("binding seam", project.binding.seam),
    )


def shape_of(project: Project) -> Shape:
    """The project's shape; raises CannotPlan for one this program does not know."""
    try:
        return shape_as(project.shape.kind, project.shape.options.get("base", ""))
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
                f"shape.options.{option.key}",
                f"“{shortened(value)}” is not a choice for {option.label}.",
            )
        settled[option.key] = value
    return settled


def check_materials(project: Project) -> None:
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
    return project.panels.get(shape.leader) or usual(PanelChoices)


def _wall(project: Project, shape: Shape) -> Figure:
    """One wall of the bag with its lining, relaxed: what a bound edge turns over."""
    return thickness(wall_of(project, leading_choices(project, shape)), "relaxed")


def brief_of(project: Project, shape: Shape) -> Brief:
    """What a shape is told when it computes."""
    return Brief(
        held=held_figures(project.hold),
        seams=_seams(project),
        wall=_wall(project, shape),
        lining_shorter=given("lining shorter by", _shorter(project, shape)),
        lining_apart=project.lining_apart,
        rulers=rulers(project.units, project.rounding, project.pricing.currency),
        options=_options(shape, project.shape.options),
        lining=project.lining,
        corner=project.corner,
        zip_set=project.zipper.set,
        zip_inside=_zip_inside(project),
        base_thick=_base_thick(project),
    )


FALSE_SEAM = Fraction(1, 2)  # of a lining, that a pleat takes: common practice, no source


def _shorter(project: Project, shape: Shape) -> Inches:
    """How much shorter the lining is; one in one piece is longer by a false seam, if it has one."""
    pleated = project.lining_in == "false-seam" and shape.cloths == 1
    return project.lining_shorter - (FALSE_SEAM if pleated else 0)


def _zip_inside(project: Project) -> tuple[Figure, Figure] | None:
    """How far inside the seams at its ends the zipper's teeth begin and end, if they do."""
    left, right = project.zipper.left, project.zipper.right
    if not left and not right:
        return None
    return given("teeth begin, from the left seam", left), given("teeth end, from the right", right)


def _base_thick(project: Project) -> Figure | None:
    """What lies on the base of a boxed bag, relaxed; None where nothing does."""
    known, base = materials_of(project), project.base
    cloth, stiff = known["cotton"], known[STIFF]
    layers = (cloth,) if base.strip else ()
    if base.stiffener != "none":
        layers = (*layers, stiff, *((cloth, cloth) if base.stiffener == "sleeve" else ()))
    return thickness(layers, "relaxed").called("on the base", "mm") if layers else None


def sewn_on_base(project: Project, bag: Bag) -> tuple[Material, ...]:
    """The cloth of a strip over the bottom seam, or of a stiffener's sleeve."""
    base, cloth = project.base, materials_of(project)["cotton"]
    if bag.floor is None or not bag.has_bottom_seam:
        return ()
    sleeve = base.stiffener == "sleeve" and project.lining != "drop-in"
    return (cloth,) * (int(base.strip) + int(sleeve))


def setting_of(project: Project, brief: Brief, known: Knowledge) -> Setting:
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
        hoop=cut_for(field_of(project.hooping)) if _in_a_hoop(project) else None,
    )


def _in_a_hoop(project: Project) -> bool:
    """Whether some panel is made in the hoop of an embroidery machine."""
    return any(choices.layers.stabiliser for choices in project.panels.values())


def tasks_of(project: Project, bag: Bag) -> tuple[Task, ...]:
    """Each panel with what was decided and measured for it."""
    lining = first_print(choices_of_lining(project))
    stitched = {mark.panel for mark in project.marks if mark.kind == "motif"}
    return tuple(
        Task(
            panel=panel,
            choices=choices_for(project, panel),
            measured=project.got(panel.key),
            owner=owner_key(project, panel),
            linings=linings_in(project, panel.kind),
            lining_print=lining,
            motif=panel.key in stitched,
        )
        for panel in bag.panels
    )


def to_plan(
    project: Project, brief: Brief, known: Knowledge, bag: Bag
) -> tuple[Setting, tuple[Task, ...]]:
    """What all panels share, and each with its own; panels measured in this very project teach
    it too."""
    setting, tasks = setting_of(project, brief, known), tasks_of(project, bag)
    own = measured_losses(setting, tasks)
    return (replace(setting, knowledge=replace(known, own=own)) if own else setting), tasks


def edge_task_of(project: Project, bag: Bag, brief: Brief) -> EdgeTask:
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


def cut_task_of(project: Project, brief: Brief, bag: Bag) -> CutTask:
    flap = bag.flap
    snapped = flap is not None and project.snap.used
    return CutTask(
        bags=project.made,
        stock=project.stock,
        prints=project.prints,
        materials=materials_of(project),
        offcuts=project.offcuts,
        marks=project.marks,
        snaps=(flap.male_panel, flap.female_panel) if flap is not None and snapped else (),
        cloth=bound_print(project),
        pocket_cloth=first_print(choices_of_lining(project)),
        side_seam=project.seams.side,
        corner_seam=project.seams.corner,
        base=project.base,
        floor=bag.floor,
        bottom_seam=bag.has_bottom_seam,
        straight=project.binding.grain == "straight",
        strips_in_hand=project.binding.strips_on_hand is not None,
        straight_joins=project.strap.joins == "straight",
        rulers=brief.rulers,
    )


def hooped_of(project: Project, panels: tuple[PanelPlan, ...]) -> tuple[Hooped, ...]:
    """The panels that are made in a hoop, as many as all bags take of each; a cloth with an up
    keeps it."""
    upright = {entry.key for entry in project.prints if entry.directional}
    return tuple(
        Hooped(
            panel=panel,
            many=panel.panel.copies * project.made,
            turns=not (panel.only_cloth and panel.patches[0].print in upright),
        )
        for panel in panels
        if panel.choices.layers.stabiliser and panel.panel.kind == "outer"
    )
