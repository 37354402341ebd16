"""What the quilting stage says beyond its figures: how to sew, a swatch to sew, whom to trust."""

from __future__ import annotations

from tessil.core.logbook.flow import trust
from tessil.core.quilting.sewing import swatch_plan
from tessil.core.quilting.shrinkage import prior_of, stack_key
from tessil.core.snags import Stage
from tessil.core.words.steps import told
from tessil.ui.desk import Desk


def quilting_words(desk: Desk) -> list[str]:
    """The sentences of the open leaf."""
    leaf = desk.seen.leaf.get(Stage.QUILT, "lines")
    panel = desk.shown.panel(desk.seen.panel)
    if panel.panel.kind != "outer":
        return []
    if leaf == "sewing" and panel.sewing is not None:
        return [*_how_to_sew(), *_swatch(desk)]
    if leaf == "draws":
        return _trust(desk)
    return []


def _how_to_sew() -> list[str]:
    return [
        "Begin in the middle and work outwards; sew every other line the other way, so that the "
        "feed does not push all of it one way. Run off the edge on to the spare batting. Try the "
        "tension on an offcut first."
    ]


def _swatch(desk: Desk) -> list[str]:
    """How to sew a test swatch for this panel."""
    panel = desk.plan.panel(desk.seen.panel)
    if not panel.quilt.sets:
        return []
    first = panel.quilt.sets[0]
    what = ", ".join(layer.label.lower() for layer in panel.layers[1:]) or "no batting"
    made = swatch_plan(first.gap, desk.plan.marks.notation, what, first.name)
    steps = [
        f"{at}. {step}"
        for at, step in enumerate(told(made.steps, desk.plan.marks.notation), start=1)
    ]
    return ["A swatch for this panel", *steps]


def _trust(desk: Desk) -> list[str]:
    """How many swatches stand behind the figures, and what they leave open."""
    panel = desk.plan.panel(desk.seen.panel)
    if panel.draw.fitted is None:
        return []
    materials = panel.materials
    said = trust(panel.draw.fitted, prior_of(materials))
    names = {entry.key: entry.name for entry in materials}
    stack = " with ".join(names.get(key, key) for key in stack_key(materials).split("+"))
    stack = "No batting" if stack == "bare" else stack
    return [
        f"{stack}: {said.words} (At a gap of 1 in (25 mm), nine panels of ten fall in that range.)"
    ]
