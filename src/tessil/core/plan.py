"""``plan(project)``: the one way from what a maker decided to everything that follows.

Pure and quick enough for every keystroke.  Orchestrates only; each sum stands in the
module that knows its subject.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction

from tessil.core.bag.model import Bag, Panel
from tessil.core.brief.choice import Held, Thing
from tessil.core.brief.cloth import ClothFit, cloth_for, from_cloth
from tessil.core.checks import find_snags
from tessil.core.choices import materials_of, wall_of
from tessil.core.cutting.cutlist import CutItem, Purchase, SetGroup, cut_list, purchases, strip_sets
from tessil.core.edges.binding import BindingPlan, plan_binding
from tessil.core.edges.edging import Edging, plan_edging
from tessil.core.edges.runs import bound_edge
from tessil.core.layout.board import Board, board_of
from tessil.core.layout.rules import Broken, broken_rules
from tessil.core.logbook.book import EMPTY, Book
from tessil.core.logbook.flow import Knowledge, knowledge_of
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.rulers import Rulers, rulers
from tessil.core.numbers.workings import Basis, Figure, count, down_to, given, largest, total
from tessil.core.panels.choice import Measured, PanelChoices
from tessil.core.panels.ladder import Rung, ladder
from tessil.core.panels.learning import measured_losses
from tessil.core.panels.planning import PanelPlan, Setting, plan_panel
from tessil.core.piecing.seamtest import piecing_seam
from tessil.core.project import Project
from tessil.core.sandwich.layers import thickness, weight
from tessil.core.shapes import SHAPES, Brief, HeldFigures, SeamFigures, Shape
from tessil.core.shapes.base import Sizes
from tessil.core.snags import Snag
from tessil.core.trouble import CannotPlan

MOST_TRIES = 4  # of a bag out of cloth whose panels took more than was thought


@dataclass(frozen=True, slots=True)
class Fit:
    """One direction of the object against the bag: what it needs and what there is."""

    way: str
    needs: Figure
    bare: Figure  # the same without any ease
    there: Figure

    @property
    def fits(self) -> bool:
        return self.needs.value <= self.there.value

    @property
    def goes_in(self) -> bool:
        """Whether it goes in at all, if not with the ease wished for."""
        return self.bare.value <= self.there.value


@dataclass(frozen=True, slots=True)
class Plan:
    """Everything computed for one project.  Views read it; nothing else is computed."""

    project: Project
    shape: Shape
    marks: Rulers
    bag: Bag
    sizes: Sizes
    cloth: ClothFit | None
    brief: Brief
    panels: tuple[PanelPlan, ...]
    fits: tuple[Fit, ...]
    wall: Figure
    weight: Figure
    binding: BindingPlan | None
    edging: Edging
    sets: tuple[SetGroup, ...]
    items: tuple[CutItem, ...]
    bought: tuple[Purchase, ...]
    board: Board
    setting: Setting
    broken: tuple[Broken, ...] = ()
    snags: tuple[Snag, ...] = ()

    def panel(self, key: str) -> PanelPlan:
        """The panel of that key, or the leading one if it has gone."""
        for panel in self.panels:
            if panel.key == key:
                return panel
        return self.panels[0]

    def with_panel(self, project: Project, key: str) -> Plan:
        """This plan with one panel planned anew for a changed project: what a slider shows while
        it is dragged.  All else stays as it was until the whole is planned."""
        setting = replace(self.setting, project=project)
        panels = tuple(
            plan_panel(setting, panel.panel) if panel.key == key else panel for panel in self.panels
        )
        return replace(self, project=project, panels=panels, setting=setting)

    def ladder(self, key: str) -> tuple[Rung, ...]:
        return ladder(self.panel(key), self.bag)


def _thickness(thing: Thing) -> Figure:
    one = given(f"{thing.name} thickness", thing.thickness)
    return count(f"{thing.name}, how many", thing.count) * one if thing.count > 1 else one


def _greatest(figures: list[Figure], label: str) -> Figure:
    first, *others = figures
    return first if not others else largest(first, *others).called(label)


def _summed(figures: list[Figure], label: str) -> Figure:
    return figures[0] if len(figures) == 1 else total(figures).called(label)


def _held(held: Held) -> HeldFigures:
    """All things together: one behind another, or side by side."""
    widths = [given(f"{thing.name} width", thing.width) for thing in held.things]
    heights = [given(f"{thing.name} height", thing.height) for thing in held.things]
    depths = [_thickness(thing) for thing in held.things]
    stacked = held.packed == "stacked"
    return HeldFigures(
        width=(_greatest if stacked else _summed)(widths, "all together, width"),
        height=_greatest(heights, "the highest"),
        thickness=(_summed if stacked else _greatest)(depths, "all together, thickness"),
        ease=given("ease each side", held.ease),
    )


def _seams(project: Project) -> SeamFigures:
    seams = project.seams
    return SeamFigures(
        piecing=piecing_seam(project),
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


def brief_of(project: Project, shape: Shape, known: Knowledge | None = None) -> Brief:
    """What a shape is told when it computes."""
    return Brief(
        project=project,
        held=_held(project.hold),
        seams=_seams(project),
        wall=_wall(project, shape),
        lining_shorter=given("lining shorter by", project.lining_shorter),
        rulers=rulers(project.units, project.rounding),
        options=_options(shape, project.shape.options),
        knowledge=known or knowledge_of(EMPTY),
    )


def _typed(project: Project, shape: Shape, way: str) -> Sizes:
    sizes = project.shape.sizes
    return {
        field.key: given(field.label.lower(), sizes.get(field.key, field.start))
        for field in shape.fields_for(way)
    }


def _panel_sizes(project: Project, shape: Shape, brief: Brief) -> tuple[Sizes, ClothFit | None]:
    """Trimmed panel sizes by the chosen way in, and how the cloth was used if it began there."""
    way = project.shape.way
    if way == "panel":
        return _typed(project, shape, "panel"), None
    typed = _typed(project, shape, "finished")
    if way == "cloth":
        return _out_of_cloth(project, shape, brief, typed)
    finished = {**typed, **shape.for_object(brief)} if way == "object" else typed
    finished = {**finished, **_proportioned(project, shape, brief, finished)}
    return {**finished, **shape.to_panel(brief, finished)}, None


def _out_of_cloth(
    project: Project, shape: Shape, brief: Brief, typed: Sizes
) -> tuple[Sizes, ClothFit]:
    """The largest bag out of the cloth.

    Lines that come out even lie a little closer than wished, or follow seams: where panels then
    take more cloth than was thought, a smaller bag is tried.  The search takes a while, so the last
    few are remembered by all that they rest on.
    """
    plain = {"name": "-", "id": "", "bags": 1, "marks": (), "settled": (), "left": {}}
    asked = (project.model_copy(update=plain), brief.knowledge)
    for key, answer in _FOUND:
        if key == asked:
            return answer
    answer = _searched(project, shape, brief, typed)
    _FOUND.appendleft((asked, answer))
    return answer


_FOUND: deque[tuple[tuple[Project, Knowledge], tuple[Sizes, ClothFit]]] = deque(maxlen=8)


def _searched(project: Project, shape: Shape, brief: Brief, typed: Sizes) -> tuple[Sizes, ClothFit]:
    needs: dict[str, tuple[Inches, Inches]] = {}
    for _ in range(MOST_TRIES):
        sizes, fit = from_cloth(brief, shape, typed, needs)
        if project.shape.cloth.quilted:
            break
        bag = shape.build(brief, sizes)
        more = _more_cloth(_setting(project, brief, bag), bag, cloth_for(brief, shape))
        if not any(max(more[key]) > max(needs.get(key, (0, 0))) for key in more):
            break
        needs |= more
    return sizes, fit


def _more_cloth(
    setting: Setting, bag: Bag, thought: Callable[[Panel], tuple[Inches, Inches]]
) -> dict[str, tuple[Inches, Inches]]:
    """What outer panels really take more of the cloth than was thought, each way."""
    found = {}
    for panel in bag.panels:
        if panel.kind != "outer":
            continue
        needed = plan_panel(setting, panel).needed
        width, height = thought(panel)
        more = (
            max(needed.width.value - width, Fraction(0)),
            max(needed.height.value - height, Fraction(0)),
        )
        if max(more):
            found[panel.key] = more
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
    for keys, value in ((("notch_side",), cut.width), (("notch_bottom", "notch_fold"), cut.height)):
        for key in keys:
            if value is not None and key in sizes:
                changed[key] = given("notch, as cut", value, Basis.MEASURED)
    return changed


def _build(project: Project, shape: Shape, brief: Brief) -> tuple[Bag, Sizes, ClothFit | None]:
    planned, fit = _panel_sizes(project, shape, brief)
    real = _with_measured(project, shape, planned)
    if real == planned:
        return shape.build(brief, planned), planned, fit
    try:
        return shape.build(brief, real), real, fit
    except CannotPlan as trouble:
        field = f"measured.{shape.leader}.trimmed"
        raise CannotPlan(field, f"Trimmed so small there is no bag. {trouble.sentence}") from None


def fits_of(shape: Shape, brief: Brief, bag: Bag) -> tuple[Fit, ...]:
    """The finished sizes against those the object needs, if one is minded."""
    if not brief.project.hold.minded:
        return ()
    needs = shape.for_object(brief)
    no_ease = given("no ease", 0, Basis.GEOMETRY)
    bare = shape.for_object(replace(brief, held=replace(brief.held, ease=no_ease)))
    # The rounding of cut sizes leaves the bag at or above its wish, never below.
    return tuple(
        Fit(way, needs[way], bare[way], there)
        for way, there in zip(shape.finished_keys, bag.finished, strict=True)
    )


def _binding(bag: Bag, brief: Brief) -> BindingPlan | None:
    bound = any(edge.finish == "bound" for panel in bag.panels for edge in panel.edges)
    if not bound or bag.opening is None:
        return None
    usable = given("usable width", brief.project.stock.usable_width)
    edge, corners = bound_edge(bag)
    return plan_binding(
        brief.project.binding, edge, bag.loop, brief.wall, usable, brief.rulers.ruler, corners
    )


def _weight(panels: tuple[PanelPlan, ...]) -> Figure:
    """Grams of all panels with their layers, without hardware and seams."""
    parts = []
    for panel in panels:
        one = weight(panel.panel.area, panel.materials)
        copies = panel.panel.copies
        parts.append((one if copies == 1 else copies * one).called(panel.panel.label, "grams"))
    return total(parts).called("weight, about", "grams")


def _setting(project: Project, brief: Brief, bag: Bag) -> Setting:
    """What all panels share; panels measured in this very project teach it too."""
    known = brief.knowledge
    setting = Setting(
        project=project,
        marks=brief.rulers,
        piecing_seam=brief.seams.piecing,
        squaring=given("squaring margin", project.oversize.squaring),
        binding_seam=given("binding covers", project.binding.seam),
        knowledge=known,
    )
    own = measured_losses(setting, bag)
    return replace(setting, knowledge=replace(known, own=own)) if own else setting


def plan(project: Project, book: Book = EMPTY) -> Plan:
    """The whole plan by what the maker's logbook has taught; raises CannotPlan, naming the field
    to change, if there is none."""
    shape = shape_of(project)
    _check_materials(project)
    brief = brief_of(project, shape, knowledge_of(book, project.log_name))
    bag, sizes, cloth = _build(project, shape, brief)
    setting = _setting(project, brief, bag)
    panels = tuple(plan_panel(setting, panel) for panel in bag.panels)
    binding = _binding(bag, brief)
    sets = strip_sets(panels, project)
    edging = plan_edging(project, bag, binding, brief.rulers)
    items = cut_list(panels, sets, binding, edging, project)
    made = Plan(
        project=project,
        shape=shape,
        marks=brief.rulers,
        bag=bag,
        sizes=sizes,
        cloth=cloth,
        brief=brief,
        panels=panels,
        fits=fits_of(shape, brief, bag),
        wall=brief.wall,
        weight=_weight(panels),
        binding=binding,
        edging=edging,
        sets=sets,
        items=items,
        bought=purchases(items, project, brief.rulers),
        board=board_of(project, bag, panels),
        setting=setting,
    )
    made = replace(made, broken=broken_rules(made))
    return replace(made, snags=find_snags(made))
