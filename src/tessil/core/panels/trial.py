"""A panel as it would be after an edit: whether a way out of a snag leads out of it."""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from tessil.core.bag.model import Bag
from tessil.core.edits import Edit, tried
from tessil.core.numbers.workings import given
from tessil.core.panels.choice import Measured
from tessil.core.panels.learning import measured_losses
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.planning import Setting, Task, alike, plan_panel
from tessil.core.trouble import CannotPlan

NOTHING = Measured.model_construct()
AFRESH = ("pieced", "quilted", "added")  # what is forgotten where a panel is pieced again


def panel_if(setting: Setting, tasks: Sequence[Task], key: str, edit: Edit) -> PanelPlan | None:
    """A panel planned after an edit of its choices, of what was measured on it, or of how much
    larger panels are pieced; none where that cannot be, there or on one that shares its choices.

    What else the edit does is not asked, nor whether its values are taken: what checks entries is
    loaded beside the window.
    """
    at = next(at for at, task in enumerate(tasks) if task.panel.key == key)
    asked = tasks[at]
    setting, after = _oversized(setting, edit), [_after(task, edit) for task in tasks]
    try:
        setting = _taught(setting, after)
        for task, other in zip(after, tasks, strict=True):
            if other.owner == asked.owner and not alike(asked, other):
                plan_panel(setting, task)
        return plan_panel(setting, after[at])
    except CannotPlan:
        return None


def can_be(setting: Setting, tasks: Sequence[Task], bag: Bag) -> bool:
    """Whether every panel of a bag of other sizes can be planned as those that there are."""
    try:
        for task in tasks:
            plan_panel(setting, replace(task, panel=bag.panel(task.panel.key)))
    except CannotPlan:
        return False
    return True


def _taught(setting: Setting, tasks: Sequence[Task]) -> Setting:
    """What panels measured in this very project teach hangs on their choices, too."""
    if not any(task.measured.quilted.some for task in tasks):
        return setting
    bare = replace(setting, knowledge=replace(setting.knowledge, own=()))
    own = measured_losses(bare, tasks)
    return replace(bare, knowledge=replace(bare.knowledge, own=own))


def _oversized(setting: Setting, edit: Edit) -> Setting:
    changes = tuple((path[1:], value) for path, value in edit.changes if path[0] == "oversize")
    if not changes:
        return setting
    oversize = tried(setting.oversize, Edit("", changes))
    squaring = given("squaring margin", oversize.squaring)
    return replace(setting, oversize=oversize, squaring=squaring)


def _after(task: Task, edit: Edit) -> Task:
    key = task.panel.key
    for path, value in edit.changes:
        if path[:2] == ("panels", task.owner):
            choices = tried(task.choices, Edit("", ((path[2:], value),)))
            task = replace(task, choices=choices)
        elif path == ("measured", key):
            task = replace(task, measured=value or NOTHING)
        elif path[0] == "copies":
            task = replace(task, measured=(value or {}).get(key, NOTHING))
    return task
