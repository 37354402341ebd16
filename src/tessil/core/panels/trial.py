"""A panel as it would be after an edit: whether a way out of a snag leads out of it."""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from tessil.core.bag.model import Bag
from tessil.core.edits import Edit, tried
from tessil.core.numbers.workings import given
from tessil.core.panels.choice import Measured
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
    asked = next(task for task in tasks if task.panel.key == key)
    try:
        for other in tasks:
            if other.owner == asked.owner and not alike(asked, other):
                plan_panel(*_after(setting, other, edit))
        return plan_panel(*_after(setting, asked, edit))
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


def _after(setting: Setting, task: Task, edit: Edit) -> tuple[Setting, Task]:
    key = task.panel.key
    for path, value in edit.changes:
        change = Edit("", ((path[2:], value),))
        if path[:2] == ("panels", task.owner):
            task = replace(task, choices=tried(task.choices, change))
        elif path == ("measured", key):
            task = replace(task, measured=value or NOTHING)
        elif path[0] == "copies":
            task = replace(task, measured=(value or {}).get(key, NOTHING))
        elif path[0] == "oversize":
            oversize = tried(setting.oversize, Edit("", ((path[1:], value),)))
            squaring = given("squaring margin", oversize.squaring)
            setting = replace(setting, oversize=oversize, squaring=squaring)
    return setting, task
