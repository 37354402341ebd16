"""What the open stage has to say beyond its figures, in the column below them."""

from __future__ import annotations

from tessil.core.brief.readings import squares
from tessil.core.hooping.words import hoop_words
from tessil.core.snags import Stage
from tessil.core.trimming.squaring import squaring
from tessil.core.words.steps import told
from tessil.core.words.written import value_text
from tessil.ui.desk import Desk
from tessil.ui.quilt_words import quilting_words
from tessil.ui.stages import leaf_of


def advice_of(desk: Desk) -> list[str]:
    """What the open stage has to say beyond its figures."""
    plan = desk.plan
    if desk.seen.stage is Stage.PIECE:
        return _piecing_words(desk)
    if desk.seen.stage is Stage.QUILT:
        return quilting_words(desk)
    if desk.seen.stage is Stage.EDGE:
        leaf = leaf_of(desk.seen.stage, desk.seen.leaf)
        steps = told(plan.edge_steps.get(leaf, ()), plan.marks.notation)
        return [f"{at}. {step}" for at, step in enumerate(steps, start=1)]
    if desk.seen.stage is Stage.TRIM:
        return [" ".join(told(squaring(plan.panel(desk.seen.panel)), plan.marks.notation))]
    return [_cloth_words(desk), _square_words(desk), _hoop_words(desk)]


def _piecing_words(desk: Desk) -> list[str]:
    """The order of sewing, and what of the scraps is left."""
    panel = desk.plan.panel(desk.seen.panel)
    if panel.only_cloth or desk.seen.leaf.get(Stage.PIECE, "pieces") == "prints":
        return []
    top = panel.parts[min(desk.seen.zone, len(panel.parts) - 1)].top
    if desk.seen.leaf.get(Stage.PIECE) == "stock":
        return [f"Left of the scraps: {'; '.join(top.left)}."] if top.left else []
    order = told(top.order, desk.plan.marks.notation)
    steps = [f"{at}. {step}" for at, step in enumerate(order, start=1)]
    return ["Order of sewing", *steps]


def _hoop_words(desk: Desk) -> str:
    """Which hoops take the panel, while the hoop is asked for."""
    seen = desk.seen
    if seen.stage is not Stage.LAYER or leaf_of(seen.stage, seen.leaf) != "hoop":
        return ""
    return hoop_words(desk.plan.panel(seen.panel), desk.project.hooping.turned)


def _square_words(desk: Desk) -> str:
    """What other corners would make of the same panel, while sizes are asked for."""
    seen = desk.seen
    if seen.stage is not Stage.BRIEF or leaf_of(seen.stage, seen.leaf) != "size":
        return ""
    notation = desk.plan.marks.notation
    rows = []
    for one in desk.told("squares", squares):
        legs, sizes = ((figure.value for figure in row) for row in (one.legs, one.finished))
        holds = value_text(one.holds, notation)
        rows.append(f"{notation.size(*legs)}: {notation.size(*sizes)}, {holds}")
    words = " × ".join(desk.plan.bag.words)
    return "\n".join([f"The same panel with other corners: {words}, volume", *rows]) if rows else ""


def _cloth_words(desk: Desk) -> str:
    """How the cloth is used, and what limits the bag, where it was begun from cloth."""
    fit = desk.plan.cloth
    if fit is None or desk.seen.stage is not Stage.BRIEF:
        return ""
    rows = "; ".join(" + ".join(row) for row in fit.rows)
    top = "Straps" if fit.linings else "Linings, straps"
    return (
        f"The largest bag found for this cloth. Cut in rows: {rows}. It is the {fit.limits} of the "
        f"cloth that limits it. {top} and binding come on top."
    )
