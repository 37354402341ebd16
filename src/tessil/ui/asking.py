"""Small builders of fields that several stages use: a field of the document, of a panel."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from tessil.core.choosing import choose, choose_alike, choose_apart
from tessil.core.edits import Edit, edit
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.ui.specs import Kind, Spec


def field_of(
    plan: Plan,
    path: str,
    kind: Kind,
    label: str,
    help_: str,
    words: str = "",
    choices: tuple[tuple[Any, str], ...] = (),
) -> Spec:
    """A field of the document itself, by its dotted path."""
    value: Any = plan.project
    for part in path.split("."):
        value = value[int(part)] if part.isdigit() else getattr(value, part)
    said = words or f"Set {label.lower()}"
    return Spec(path, kind, label, help_, value, lambda new: edit(said, (path, new)), choices)


def choice_of(
    plan: Plan,
    panel: PanelPlan,
    path: str,
    kind: Kind,
    label: str,
    help_: str,
    choices: tuple[tuple[Any, str], ...] = (),
) -> Spec:
    """A field of a panel's choices."""
    value: Any = panel.choices
    for part in path.split("."):
        value = value[int(part)] if part.isdigit() else getattr(value, part)
    name = panel.panel.label.lower()

    def make(new: Any) -> Edit:
        return choose(plan.project, panel.panel, f"Set {label.lower()}, {name}", (path, new))

    return Spec(f"panel.{path}", kind, label, help_, value, make, choices)


def setter(path: str, label: str) -> Callable[[Any], Edit]:
    return lambda new: edit(f"Set {label.lower()}", (path, new))


def alike(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    if not panel.panel.like:
        return
    as_one = panel.key not in plan.project.panels
    other = plan.panel(panel.panel.like).panel.label.lower()

    def make(new: bool) -> Edit:
        return choose_alike(panel.panel) if new else choose_apart(plan.project, panel.panel)

    yield Spec(
        "alike", "toggle", f"Just as the {other}", "One set of choices for both", as_one, make
    )


def always(change: Edit) -> Callable[[Any], Edit]:
    """An answer that is always the same change."""
    return lambda _: change


def oversize(plan: Plan) -> Iterator[Spec]:
    yield field_of(
        plan,
        "oversize.way",
        "choice",
        "Piece larger",
        "Quilting draws a panel in",
        "Choose how much larger to piece",
        (("model", "by the model"), ("fixed", "by a fixed margin"), ("none", "not at all")),
    )
    if plan.project.oversize.way == "fixed":
        yield field_of(plan, "oversize.fixed", "length", "Fixed margin", "Over in each direction")
    if plan.project.oversize.way == "model":
        yield field_of(plan, "oversize.squaring", "length", "Squaring", "Each side, to true it up")
