"""What the layer stage asks, leaf by leaf: the layers, their amounts, how thick it gets."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial
from typing import Any

from tessil.core.catalogue import NO_PLIES
from tessil.core.choices import materials_of
from tessil.core.edges.bulk import Spot, thickest
from tessil.core.edits import Edit, edit
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.sandwich.acts.plying import (
    add_ply,
    begin_with,
    let_in,
    move_ply,
    remove_ply,
    schools_for,
    set_ply,
)
from tessil.core.sandwich.checks import held_out, tab_moved
from tessil.core.sandwich.offcutlist import read_offcut, write_offcut
from tessil.ui.asking import alike, always, choice_of, field_of
from tessil.ui.hoop_specs import hoop_specs
from tessil.ui.specs import Kind, Spec

_RULES = (
    ("margin", "a margin over the top"),
    ("panel", "as the top"),
    ("inside", "inside the seams"),
    ("short", "short of the seams"),
)
_BONDS = (
    ("pins", "pins"),
    ("spray", "spray"),
    ("glue", "glue"),
    ("fuse", "fused"),
    ("itself", "grips by itself"),
)
_GRAINS = (("free", "either way"), ("upright", "upright"), ("level", "level"))
_NEEDLES = (
    ("", "not said"),
    ("70", "70/10"),
    ("80", "80/12"),
    ("90", "90/14"),
    ("100", "100/16"),
    ("110", "110/18"),
)


def layer_specs(plan: Plan, panel: PanelPlan, leaf: str, ply: int) -> Iterator[Spec]:
    """The fields of one leaf."""
    if panel.panel.kind != "outer":
        return
    if leaf == "amounts":
        yield from _amounts(plan)
    elif leaf == "hoop":
        yield from hoop_specs(plan, panel)
    elif leaf == "bulk":
        yield from _bulk(plan, panel)
    else:
        yield from _layers(plan, panel, ply)


def _layers(plan: Plan, panel: PanelPlan, ply: int) -> Iterator[Spec]:
    yield from alike(plan, panel)
    schools = tuple((school.key, school.name) for school in schools_for(plan))
    yield Spec(
        "layers.school",
        "choice",
        "Begin with",
        "A usual way of layering it",
        "",
        lambda key: begin_with(plan, panel, key) if key else Edit("", ()),
        (("", "a usual way…"), *schools),
    )
    known = materials_of(plan.project).values()
    tops = tuple((entry.key, entry.name) for entry in known if entry.kind == "cloth")
    yield choice_of(plan, panel, "layers.top", "choice", "Top of", "What is pieced", tops)
    under = tuple((entry.key, entry.name) for entry in known if entry.kind not in NO_PLIES)
    yield Spec(
        "layers.add",
        "choice",
        "Put under it",
        "One more layer",
        "",
        lambda key: add_ply(plan, panel, key) if key else Edit("", ()),
        (("", "choose a layer…"), *under),
    )
    if panel.choices.layers.plies:
        yield from _ply(plan, panel, ply, under)


def _ply(
    plan: Plan, panel: PanelPlan, at: int, under: tuple[tuple[str, str], ...]
) -> Iterator[Spec]:
    plies = panel.choices.layers.plies
    at = min(at, len(plies) - 1)
    layer = plies[at]
    number = f"Layer {at + 1} of {len(plies)}"

    def ask(
        key: str, kind: Kind, label: str, help_: str, choices: tuple[tuple[Any, str], ...] = ()
    ) -> Spec:
        change: Callable[[Any], Edit] = lambda new: set_ply(  # noqa: E731
            plan, panel, at, f"Set a layer's {key}", **{key: new}
        )
        return Spec(f"ply.{key}", kind, label, help_, getattr(layer, key), change, choices)

    yield ask("material", "choice", number, "Click another on the bench", under)
    yield ask("rule", "choice", "It is cut", "How large against the top", _RULES)
    if layer.rule == "margin":
        yield ask("margin", "length", "Over by", "Beyond the pieced top, each side")
    yield ask("bond", "choice", "Held by", "How it stays in place until it is sewn", _BONDS)
    yield ask("grain", "choice", "Its grain", "Which way it must lie", _GRAINS)
    if materials_of(plan.project)[layer.material].key == "cotton":
        prints = tuple((entry.key, entry.name) for entry in plan.project.prints)
        yield ask(
            "print", "choice", "Its cloth", "From the basket", (("", "as the lining"), *prints)
        )
    yield ask(
        "joined",
        "toggle",
        "Joined edge to edge where it must be",
        "Butted and zigzagged, where the roll is too narrow",
    )
    if len(plies) > 1:
        if at:
            yield Spec(
                "ply.out",
                "action",
                "One further out",
                "Nearer to the top",
                None,
                always(move_ply(plan, panel, at, -1)),
            )
        if at < len(plies) - 1:
            yield Spec(
                "ply.in",
                "action",
                "One further in",
                "Nearer to the lining",
                None,
                always(move_ply(plan, panel, at, 1)),
            )
    name = materials_of(plan.project)[layer.material].name.lower()
    yield Spec(
        "ply.gone",
        "action",
        f"Take the {name} out",
        "Leave this layer away",
        None,
        always(remove_ply(plan, panel, at)),
    )


def _amounts(plan: Plan) -> Iterator[Spec]:
    yield field_of(plan, "bags", "count", "Bags to make", "All amounts are for so many")
    yield Spec(
        "materials.page",
        "page",
        "Open the catalogue of materials",
        "Rolls, thickness",
        None,
        always(Edit("", ())),
    )
    offcuts = plan.project.offcuts
    yield Spec(
        "offcuts.add",
        "entry",
        "An offcut",
        "Such as cotton batting 20 × 30 ×2",
        "",
        partial(_add_offcut, plan),
    )
    for at, entry in enumerate(offcuts):
        rest = (*offcuts[:at], *offcuts[at + 1 :])
        yield Spec(
            f"offcuts.{at}.gone",
            "action",
            f"Use up: {write_offcut(entry, plan.project.units, plan.materials)}",
            "Take it off the list",
            None,
            always(edit("Take an offcut off the list", ("offcuts", rest))),
        )


def _add_offcut(plan: Plan, text: str) -> Edit:
    made = read_offcut(text, plan.project.units, plan.materials)
    return edit("Note an offcut", ("offcuts", (*plan.project.offcuts, made)))


def _bulk(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    yield field_of(
        plan,
        "press_seams",
        "choice",
        "Bag's seams",
        "How they are pressed",
        choices=(("open", "open"), ("side", "to one side")),
    )
    if not panel.only_cloth:
        yield choice_of(
            plan,
            panel,
            "piecing.press",
            "choice",
            "Patchwork",
            "How it is pressed",
            (("open", "open"), ("side", "to one side")),
        )
    yield Spec(
        "machine.needle",
        "choice",
        "Needle",
        "What is in the machine",
        str(plan.project.machine.needle or ""),
        lambda key: edit("Set the needle", ("machine.needle", int(key) if key else None)),
        _NEEDLES,
    )
    worst = thickest(plan.spots_on(panel.key))
    if worst is not None:
        yield from _thinner(plan, worst)
    if any(ply.rule == "inside" for ply in panel.choices.layers.plies):
        yield Spec(
            "bulk.back",
            "action",
            "Let the layers into the seams again",
            "A margin over",
            None,
            always(let_in(plan, panel)),
        )
    yield Spec(
        "machine.lift_mm",
        "word",
        "Foot lifts",
        "Millimetres under the lifted foot",
        f"{plan.project.machine.lift_mm:g} mm",
        partial(_number, "machine.lift_mm", "Set the foot's lift"),
    )


def _thinner(plan: Plan, worst: Spot) -> Iterator[Spec]:
    """What makes the worst place thinner; how seams are pressed is asked above."""
    for at, fix in enumerate((*held_out(plan, worst), *tab_moved(plan, worst))):
        about = f"Makes it thinner: {worst.label}"
        yield Spec(f"bulk.fix.{at}", "action", fix.words, about, None, always(fix))


def _number(path: str, words: str, text: str) -> Edit:
    return edit(words, (path, text.replace(",", ".").removesuffix("mm").strip()))
