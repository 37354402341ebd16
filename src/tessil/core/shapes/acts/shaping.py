"""Turning to another shape, and working sizes out from another end."""

from __future__ import annotations

from tessil.core.brief.choice import Cloth, ShapeChoice
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import round_up
from tessil.core.panels.choice import PanelChoices
from tessil.core.planned import Plan
from tessil.core.project import LeftShape, Project
from tessil.core.shapes import SHAPES, Shape


def reshape(project: Project, shape: Shape) -> Edit:
    """Turn to another shape.

    What was chosen and measured for the one that is left is put by, and is there again when that
    comes back.  To a shape not looked at yet, choices of the leading panel and the lining go along.
    """
    words = f"Make it a {shape.name.lower()}"
    here = LeftShape(**{part: getattr(project, part) for part in LeftShape.model_fields})
    left = {**project.left, project.shape.kind: here}
    there = left.pop(shape.key, None) or _fresh(project, shape)
    return edit(
        words, *((part, getattr(there, part)) for part in LeftShape.model_fields), ("left", left)
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
    return LeftShape(shape=choice, panels=panels, lining=shape.begins_lining)


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
    cloth = _cloth_enough(plan) if way == "cloth" else project.shape.cloth
    choice = applied(project.shape, edit("", ("way", way), ("sizes", sizes), ("cloth", cloth)))
    return edit("Choose what to start from", ("shape", choice))


def _cloth_enough(plan: Plan) -> Cloth:
    """The cloth as told, or if no panel like the leading one comes out of it, as much as lays the
    present panels side by side: a size to begin from that can be planned, and typed otherwise."""
    cloth = plan.project.shape.cloth
    lead = plan.panel(plan.shape.leader).needed
    if max(lead.width.value, lead.height.value) <= max(cloth.width, cloth.height):
        return cloth
    wide = sum((panel.needed.width.value for panel in plan.panels), Fraction(0))
    high = max(panel.needed.height.value for panel in plan.panels)
    enough = {"width": max(cloth.width, wide), "height": max(cloth.height, high)}
    return cloth.model_copy(update={k: round_up(size, Fraction(1)) for k, size in enough.items()})


def wish(plan: Plan, key: str, value: object) -> Edit:
    """A finished size or one of the panel's as a wish: from its end all sizes are worked out."""
    field = next(field for field in plan.shape.fields if field.key == key)
    words = f"Wish for another {field.label.lower()}"
    if field.way in ("always", plan.project.shape.way):
        return edit(words, (f"shape.sizes.{key}", value))
    begun = applied(plan.project, start_from(plan, field.way)).shape
    choice = applied(begun, edit("", (f"sizes.{key}", value)))
    return edit(words, ("shape", choice))
