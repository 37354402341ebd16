"""Whose choices a panel uses: its own, those of the panel it is like, or the start of its kind."""

from __future__ import annotations

from tessil.core.bag import Panel
from tessil.core.project import Layers, PanelChoices, Piecing, Project, Quilting


def choices_for(project: Project, panel: Panel) -> PanelChoices:
    """A panel's own choices, those of the panel it is like, or the start for its kind."""
    for key in (panel.key, panel.like):
        if key in project.panels:
            return project.panels[key]
    if panel.kind == "outer":
        return PanelChoices()
    first = choices_of_lining(project)
    if first is not None:
        return first
    return PanelChoices(
        piecing=Piecing(way="whole"),
        layers=Layers(batting="none"),
        quilting=Quilting(pattern="none"),
    )


def owner_key(project: Project, panel: Panel) -> str:
    """Under which key the choices this panel uses stand in the document."""
    return panel.key if panel.key in project.panels or not panel.like else panel.like


def has_backing(project: Project, choices: PanelChoices, kind: str) -> bool:
    """Whether a cloth is quilted in behind the batting: an interlining or the lining."""
    return kind == "outer" and (project.lining == "quilted-in" or choices.layers.backing != "none")


def choices_of_lining(project: Project) -> PanelChoices | None:
    """The lining's own choices, if it has been given any."""
    return project.panels.get("lining")


def first_print(choices: PanelChoices | None) -> str:
    if choices and choices.piecing.prints:
        return choices.piecing.prints[0]
    return "cloth"
