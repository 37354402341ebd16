"""Edits to a panel's choices, whether they are its own or shared with the panel it is like.

Knows which entry of the document holds them; must not know what the choices do.
"""

from __future__ import annotations

from typing import Any

from tessil.core.bag.model import Panel
from tessil.core.choices import choices_for, owner_key
from tessil.core.edits import Edit, Path, applied, edit, path_of
from tessil.core.numbers.lengths import Units
from tessil.core.panels.choice import Got, Measured
from tessil.core.project import Project


def choose(project: Project, panel: Panel, words: str, *changes: tuple[str, Any]) -> Edit:
    """An edit of panel choices from dotted paths below them, such as ``piecing.count``.

    Choices that do not stand in the document yet come into it first, as they are in force now.
    """
    key = owner_key(project, panel)
    begun = () if key in project.panels else ((("panels", key), choices_for(project, panel)),)
    return Edit(
        words, (*begun, *((("panels", key, *path_of(path)), value) for path, value in changes))
    )


def read_in(project: Project, units: Units) -> Edit:
    """Read lengths in another unit.

    Sizes are rounded to its marks from then on; but once something was measured, or a stage is
    settled, they keep the marks they were cut to.
    """
    words = "Read centimetres" if units == "metric" else "Read inches"
    rounding = project.rounding
    if project.measured or project.copies or project.settled:
        rounding = rounding or project.units
    return edit(words, ("units", units), ("rounding", None if rounding == units else rounding))


def choose_apart(project: Project, panel: Panel) -> Edit:
    """Give a panel its own copy of the choices it has shared so far."""
    words = f"Choose for the {panel.label.lower()} apart"
    return Edit(words, ((("panels", panel.key), choices_for(project, panel)),))


def choose_alike(panel: Panel) -> Edit:
    """Let a panel share the choices of the panel it is like again."""
    return Edit(f"Make the {panel.label.lower()} alike", ((("panels", panel.key), None),))


def measure(project: Project, key: str, rung: str, got: Any, label: str = "") -> Edit:
    """Write down what a rung of a panel really measured, of all bags or of the one in hand.
    ``label`` is what the panel is called where that is not its key."""
    name = label.lower() or key
    words = f"Sew a border on the {name}" if rung == "added" else f"Measure the {rung} {name}"
    return Edit(words, (_record(project, key, {rung: got}),))


def forget(project: Project, key: str, *rungs: str) -> tuple[Path, Any]:
    """The change that forgets what was measured at rungs of a panel."""
    return _record(project, key, dict.fromkeys(rungs, Got()))


def _record(project: Project, key: str, rungs: dict[str, Any]) -> tuple[Path, Any]:
    of_one = project.copies.get(str(project.nth), {}) if project.nth else project.measured
    changes = tuple(((rung,), got) for rung, got in rungs.items())
    changed = applied(of_one.get(key, Measured()), Edit("", changes))
    kept = None if changed == Measured() else changed
    if not project.nth:
        return ("measured", key), kept
    others = {panel: record for panel, record in of_one.items() if panel != key}
    records = others if kept is None else {**others, key: kept}
    return ("copies", str(project.nth)), records or None
