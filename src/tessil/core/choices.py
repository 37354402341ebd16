"""Whose choices a panel uses: its own, those of the panel it is like, or the start of its kind."""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.bag.model import Panel
from tessil.core.catalogue import Material, with_own
from tessil.core.numbers.decided import usual
from tessil.core.panels.choice import PanelChoices
from tessil.core.panels.panel import foundation_of
from tessil.core.piecing.choice import Piecing
from tessil.core.project import Project
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers
from tessil.core.sandwich.layers import main_batting, stack


def choices_for(project: Project, panel: Panel) -> PanelChoices:
    """A panel's own choices, those of the panel it is like, or the start for its kind; one of a
    material of its own is that alone."""
    if panel.made_of:
        return _whole(Layers.model_construct(top=panel.made_of, plies=()))
    for key in (panel.key, panel.like):
        if key in project.panels:
            return project.panels[key]
    if panel.kind == "outer":
        return usual(PanelChoices)
    first = choices_of_lining(project)
    if first is not None:
        return first
    return _whole(Layers.model_construct(plies=()))


def _whole(layers: Layers) -> PanelChoices:
    """One piece, not quilted."""
    return PanelChoices.model_construct(
        piecing=Piecing.model_construct(way="whole"),
        layers=layers,
        quilting=Quilting.model_construct(pattern="none"),
    )


def owner_key(project: Project, panel: Panel) -> str:
    """Under which key the choices this panel uses stand in the document."""
    return panel.key if panel.key in project.panels or not panel.like else panel.like


def materials_of(project: Project) -> Mapping[str, Material]:
    """The catalogue as this project has it."""
    return with_own(project.materials)


def linings_in(project: Project, kind: str) -> int:
    """How many linings are quilted in with a panel of that kind: one or none."""
    return int(kind == "outer" and project.lining == "quilted-in")


def wall_of(project: Project, choices: PanelChoices) -> tuple[Material, ...]:
    """All materials of one wall of the bag, lining and all."""
    linings = int(project.lining != "none")
    return stack(materials_of(project), choices.layers, linings, foundation_of(choices))


def batting_of(project: Project, choices: PanelChoices) -> Material | None:
    """The first layer with loft."""
    return main_batting(materials_of(project), choices.layers)


def choices_of_lining(project: Project) -> PanelChoices | None:
    """The lining's own choices, if it has been given any."""
    return project.panels.get("lining")


def first_print(choices: PanelChoices | None) -> str:
    if choices and choices.piecing.prints:
        return choices.piecing.prints[0]
    return "cloth"


def bound_print(project: Project) -> str:
    """The cloth of the binding: the chosen one, or the last of the basket."""
    if project.binding.print:
        return project.binding.print
    return project.prints[-1].key if project.prints else "cloth"
