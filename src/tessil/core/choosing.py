"""Edits to a panel's choices, whether they are its own or shared with the panel it is like.

Knows which entry of the document holds them; must not know what the choices do.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal

from tessil.core.bag.model import Panel
from tessil.core.brief.choice import ShapeChoice
from tessil.core.choices import choices_for, owner_key
from tessil.core.edits import Edit, applied, edit, path_of
from tessil.core.numbers.lengths import Units
from tessil.core.panels.choice import Measured, PanelChoices
from tessil.core.project import LeftShape, Project
from tessil.core.shapes import SHAPES, Shape

if TYPE_CHECKING:
    from tessil.core.planned import Plan


def choose(project: Project, panel: Panel, words: str, *changes: tuple[str, Any]) -> Edit:
    """An edit of panel choices from dotted paths below them, such as ``piecing.count``.

    Raises pydantic's ValidationError at once for a value the field refuses.
    """
    current = choices_for(project, panel)
    changed = applied(current, Edit(words, tuple((path_of(path), v) for path, v in changes)))
    return Edit(words, ((("panels", owner_key(project, panel)), changed),))


def reshape(project: Project, shape: Shape) -> Edit:
    """Turn to another shape.

    What was chosen and measured for the one that is left is put by, and is there again when that
    comes back.  To a shape not looked at yet, choices of the leading panel and the lining go along.
    """
    words = f"Make it a {shape.name.lower()}"
    here = LeftShape(
        shape=project.shape, panels=project.panels, measured=project.measured, lining=project.lining
    )
    left = {**project.left, project.shape.kind: here}
    there = left.pop(shape.key, None) or _fresh(project, shape)
    return edit(
        words,
        ("shape", there.shape),
        ("panels", there.panels),
        ("measured", there.measured),
        ("lining", there.lining),
        ("left", left),
    )


def _fresh(project: Project, shape: Shape) -> LeftShape:
    """What a shape begins with that was not looked at before."""
    old = SHAPES.get(project.shape.kind)
    lead = project.panels.get(old.leader if old else "", PanelChoices())
    panels = {shape.leader: lead}
    if "lining" in project.panels:
        panels["lining"] = project.panels["lining"]
    way = project.shape.way
    kept = {k: v for k, v in project.shape.sizes.items() if k in ("width", "height", "depth")}
    choice = ShapeChoice(
        kind=shape.key, way=way, cloth=project.shape.cloth, sizes=kept if way == "finished" else {}
    )
    lining: Literal["drop-in", "quilted-in", "none"] = (
        "drop-in" if "lining" in shape.uses else "quilted-in"
    )
    if shape.key == "free-panel":
        lining = "none"
    return LeftShape(shape=choice, panels=panels, lining=lining)


def start_from(plan: Plan, way: str) -> Edit:
    """Work the sizes out from another end, beginning with the sizes there are now."""
    shape, project = plan.shape, plan.project
    there = {key: figure.value for key, figure in plan.sizes.items()}
    there |= {
        key: figure.value
        for key, figure in zip(shape.finished_keys, plan.bag.finished, strict=True)
    }
    sizes = dict(project.shape.sizes)
    if way in ("finished", "panel"):
        wanted = (field.key for field in shape.fields_for(way) if field.key in there)
        sizes |= {key: there[key] for key in wanted}
    choice = applied(project.shape, edit("", ("way", way), ("sizes", sizes)))
    return edit("Choose what to start from", ("shape", choice))


def read_in(project: Project, units: Units) -> Edit:
    """Read lengths in another unit.

    Sizes are rounded to its marks from then on; but once something was measured, or a stage is
    settled, they keep the marks they were cut to.
    """
    words = "Read centimetres" if units == "metric" else "Read inches"
    rounding = project.rounding
    if project.measured or project.settled:
        rounding = rounding or project.units
    return edit(words, ("units", units), ("rounding", None if rounding == units else rounding))


def choose_apart(project: Project, panel: Panel) -> Edit:
    """Give a panel its own copy of the choices it has shared so far."""
    words = f"Choose for the {panel.label.lower()} apart"
    return Edit(words, ((("panels", panel.key), choices_for(project, panel)),))


def choose_alike(panel: Panel) -> Edit:
    """Let a panel share the choices of the panel it is like again."""
    return Edit(f"Make the {panel.label.lower()} alike", ((("panels", panel.key), None),))


def measure(project: Project, key: str, rung: str, got: Any) -> Edit:
    """Write down what a rung of a panel really measured."""
    record = project.measured.get(key, Measured())
    changed = applied(record, Edit("", (((rung,), got),)))
    kept = None if changed == Measured() else changed
    if rung == "added":
        return Edit(f"Sew a border on the {key}", ((("measured", key), kept),))
    return Edit(f"Measure the {rung} {key}", ((("measured", key), kept),))
