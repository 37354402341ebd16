"""What a plan holds: everything that is computed for one project.

A record.  Checks, readings and views read it; ``plan`` makes it.  What can be refused, and what is
cut and sewn, is there at once; what follows from it for those who look, when they first look.
"""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.bag.model import Bag
from tessil.core.bag.steps import Step
from tessil.core.brief.choice import LiningIn
from tessil.core.brief.fit import Fit
from tessil.core.catalogue import Material
from tessil.core.cutting.cutlist import Purchase, SetGroup
from tessil.core.cutting.item import CutItem
from tessil.core.cutting.largest import ClothFit
from tessil.core.edges.binding import BindingPlan, EdgeStrip
from tessil.core.edges.bulk import Spot
from tessil.core.edges.edging import Edging
from tessil.core.edges.task import EdgeTask
from tessil.core.hooping.hoopings import HoopPlan
from tessil.core.layout.packs import Packed
from tessil.core.layout.rules import Broken, Table
from tessil.core.memory.later import Later
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Figure
from tessil.core.panels.ladder import Rung, ladder
from tessil.core.panels.learning import Learning
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.planning import Setting, Task
from tessil.core.project import Project
from tessil.core.sewn.faces import Look
from tessil.core.sewn.placing import Sewn
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.snags import Snag
from tessil.core.trimming.marks import Placed

PARTS = frozenset({"project"})  # of a plan, that are seldom read as a whole


class Outside(Record, frozen=True):
    """What is seen of a bag, and which rules its pieces break there."""

    looks: tuple[Look, ...]  # from the front, the back, and open
    table: Table
    broken: tuple[Broken, ...]


class Amounts(Record, frozen=True):
    """How much of it there is: heavy, thick, to buy, to mark and to sew."""

    fits: tuple[Fit, ...]
    weight: Figure
    washed: tuple[Figure, ...]  # finished sizes after the first wash
    edge_steps: Mapping[str, tuple[Step, ...]]  # leaf by leaf of the edge stage
    placed: tuple[Placed, ...]  # all marks, on whichever panel
    bulk: Mapping[str, tuple[Spot, ...]]  # how thick it gets round each outer panel
    bought: tuple[Purchase, ...]
    packed: Packed | None  # what a pack of squares makes


class Plan(Record, frozen=True):
    """Everything computed for one project.  Views read it; nothing else is computed.

    ``tasks`` and ``edge_task`` are what panels and edges were planned from.
    """

    project: Project
    shape: Shape
    marks: Rulers
    materials: Mapping[str, Material]
    bag: Bag
    sizes: Sizes
    cloth: ClothFit | None
    brief: Brief
    setting: Setting
    tasks: tuple[Task, ...]
    panels: tuple[PanelPlan, ...]
    sewn: Sewn
    wall: Figure
    gap_least: Figure  # that this bag turns through
    gap: Figure  # that is left open to turn it
    binding: BindingPlan | None
    edge_strips: tuple[EdgeStrip, ...]  # of edges that have a binding of their own
    edge_task: EdgeTask
    edging: Edging
    hooped: HoopPlan | None  # what is made in a hoop, and how
    sets: tuple[SetGroup, ...]
    items: tuple[CutItem, ...]
    outside: Later[Plan, Outside]
    amounts: Later[Plan, Amounts]
    found: Later[Plan, tuple[Snag, ...]]

    def complete(self) -> Plan:
        """The same, with all made that is made when it is asked for."""
        self.outside.of(self)
        self.amounts.of(self)
        self.found.of(self)
        return self

    @property
    def looks(self) -> tuple[Look, ...]:
        return self.outside.of(self).looks

    @property
    def table(self) -> Table:
        return self.outside.of(self).table

    @property
    def broken(self) -> tuple[Broken, ...]:
        return self.outside.of(self).broken

    @property
    def fits(self) -> tuple[Fit, ...]:
        return self.amounts.of(self).fits

    @property
    def weight(self) -> Figure:
        return self.amounts.of(self).weight

    @property
    def washed(self) -> tuple[Figure, ...]:
        return self.amounts.of(self).washed

    @property
    def edge_steps(self) -> Mapping[str, tuple[Step, ...]]:
        return self.amounts.of(self).edge_steps

    @property
    def placed(self) -> tuple[Placed, ...]:
        return self.amounts.of(self).placed

    @property
    def bulk(self) -> Mapping[str, tuple[Spot, ...]]:
        return self.amounts.of(self).bulk

    @property
    def bought(self) -> tuple[Purchase, ...]:
        return self.amounts.of(self).bought

    @property
    def packed(self) -> Packed | None:
        return self.amounts.of(self).packed

    @property
    def snags(self) -> tuple[Snag, ...]:
        return self.found.of(self)

    def panel(self, key: str) -> PanelPlan:
        """The panel of that key, or the leading one if it has gone."""
        for panel in self.panels:
            if panel.key == key:
                return panel
        return self.panels[0]

    @property
    def lead(self) -> PanelPlan:
        """The panel that all others follow."""
        return self.panel(self.shape.leader)

    @property
    def learning(self) -> Learning:
        """What its measured panels teach, under the names they have in the logbook."""
        project = self.project
        if not project.nth:
            return Learning(self.setting, self.tasks, project.name, project.log_name)
        own = project.copies.get(str(project.nth), {})
        tasks = tuple(task for task in self.tasks if task.panel.key in own)
        name, source = f"{project.name} {project.nth}", f"{project.log_name}#{project.nth}"
        return Learning(self.setting, tasks, name, source)

    def marks_on(self, panel: str) -> tuple[Placed, ...]:
        """The marks on one panel, the maker's own first."""
        return tuple(mark for mark in self.placed if mark.panel == panel)

    def spots_on(self, panel: str) -> tuple[Spot, ...]:
        """How thick it gets round one panel, in the order of its edges."""
        return self.bulk.get(panel, ())

    @property
    def lining_way(self) -> LiningIn:
        """How a dropped-in lining comes in; through a gap where it cannot as was chosen: tucked in
        at an open top, as a sleeve where both ends of one panel are turned in, with a false seam
        where it is in one piece."""
        way = self.project.lining_in
        if way == "false-seam":
            return way if any(p.kind == "lining" and p.folds for p in self.bag.panels) else "gap"
        ends = {edge.finish for edge in self.lead.panel.edges if edge.key.side in ("top", "bottom")}
        open_top = self.bag.zipper is None
        if way == "sleeve":
            one = len([p for p in self.bag.panels if p.kind == "outer"]) == 1
            both = one and ends == {"turned"} and bool(self.bag.joins)
            return way if open_top and both else "gap"
        return way if open_top else "gap"

    @property
    def tucked(self) -> bool:
        """Whether the lining is in without a gap to turn through."""
        return self.lining_way in ("tucked", "sleeve")

    def ladder(self, key: str) -> tuple[Rung, ...]:
        return ladder(self.panel(key), self.bag)
