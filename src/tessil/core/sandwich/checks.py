"""Do the layers go together, come out of their rolls, and fit under the needle?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.choices import owner_key
from tessil.core.choosing import choose
from tessil.core.edges.bulk import ADVICE, Spot, thickest
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import whole
from tessil.core.planned import Plan
from tessil.core.sandwich.acts.plying import hold_out, set_ply
from tessil.core.sandwich.choice import Ply
from tessil.core.sandwich.layers import Layer
from tessil.core.snags import Place, Snag, Stage, Weight
from tessil.core.words.written import working

THICK = Fraction(1)  # pressed mm of a fusible that is felt in a seam; common practice
REDESIGN = ADVICE[-2].most


def layer_snags(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """Snags of one panel's sandwich."""
    if panel.panel.kind != "outer" or _shared(plan, panel):
        return
    for layer in panel.layers[1:]:
        yield from _too_narrow(plan, panel, layer)
        yield from _fusible_in_seam(plan, panel, layer)
        yield from _wrong_bond(plan, panel, layer)
    yield from _melts(plan, panel)
    yield from _too_thick(plan, panel)


def hold_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of the snap's hold and of the needle for all of it."""
    yield from _snap_without_hold(plan)
    yield from _thin_needle(plan)


def _shared(plan: Plan, panel: PanelPlan) -> bool:
    """Whether another panel's choices are its own, so that it has the same snags."""
    return owner_key(plan.project, panel.panel) != panel.key


def _name(panel: PanelPlan) -> str:
    return panel.panel.label.lower()


def _too_narrow(plan: Plan, panel: PanelPlan, layer: Layer) -> Iterator[Snag]:
    roll = layer.material.width
    if layer.cloth or layer.joined or min(layer.width.value, layer.height.value) <= roll:
        return
    read = plan.marks.notation.read_off
    fixes = (
        (set_ply(plan, panel, layer.ply, "Join pieces edge to edge", joined=True),)
        if layer.ply >= 0
        else ()
    )
    yield Snag(
        key=f"layer.narrow.{panel.key}.{layer.ply}",
        stage=Stage.LAYER,
        weight=Weight.BLOCKS,
        title=f"{layer.label} is too narrow for the {_name(panel)}",
        why=(
            f"It takes {plan.marks.notation.size(layer.width.value, layer.height.value)}; the roll "
            f"is {read(roll, unit=True)} wide."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=fixes,
    )


def _fusible_in_seam(plan: Plan, panel: PanelPlan, layer: Layer) -> Iterator[Snag]:
    material = layer.material
    if not material.fusible or material.pressed_mm < THICK or not layer.in_seam or layer.ply < 0:
        return
    yield Snag(
        key=f"layer.fused.{panel.key}.{layer.ply}",
        stage=Stage.LAYER,
        weight=Weight.NOTES if material.kind == "batting" else Weight.WARNS,
        title=f"{material.name} is caught in the seams of the {_name(panel)}",
        why=(
            f"It is fused, {float(material.pressed_mm):g} mm thick under the foot, and cannot be "
            "trimmed out of a seam later."
        ),
        panel=panel.key,
        place=whole(panel),
        fixes=(
            set_ply(plan, panel, layer.ply, "Cut it inside the seams", rule="inside"),
            set_ply(plan, panel, layer.ply, "Cut it short of the seams", rule="short"),
        ),
    )


def _wrong_bond(plan: Plan, panel: PanelPlan, layer: Layer) -> Iterator[Snag]:
    if layer.ply < 0 or layer.bond != "fuse" or layer.material.fusible:
        return
    yield Snag(
        key=f"layer.bond.{panel.key}.{layer.ply}",
        stage=Stage.LAYER,
        weight=Weight.WARNS,
        title=f"{layer.material.name} has nothing to fuse with",
        why="It has no adhesive of its own: pin or spray it, or put fusible web between.",
        panel=panel.key,
        place=whole(panel),
        fixes=(set_ply(plan, panel, layer.ply, "Pin it", bond="pins"),),
    )


def _melts(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    """A hot iron is called for where something melts under it."""
    fused = [layer for layer in panel.layers[1:] if layer.bond == "fuse" and layer.ply >= 0]
    soft = [layer for layer in panel.layers if layer.material.melts and layer.bond != "fuse"]
    if not fused or not soft:
        return
    fixes: list[Edit] = [
        set_ply(plan, panel, layer.ply, f"Spray the {layer.label.lower()} instead", bond="spray")
        for layer in fused[:1]
    ]
    yield Snag(
        key=f"layer.melts.{panel.key}",
        stage=Stage.LAYER,
        weight=Weight.WARNS,
        title=f"{soft[0].material.name} melts under the iron for the {fused[0].label.lower()}",
        why="Fuse before they come together, or bond it cold. Try an offcut, with a press cloth.",
        panel=panel.key,
        place=whole(panel),
        fixes=tuple(fixes),
    )


def held_out(plan: Plan, spot: Spot) -> tuple[Edit, ...]:
    """Loft held out of the seams makes a place thinner."""
    panels = tuple(plan.panel(key) for key in dict.fromkeys(spot.panels))
    lofty = [
        panel
        for panel in panels
        if any(
            layer.in_seam and layer.ply >= 0 and layer.role != "backing" for layer in panel.layers
        )
    ]
    words = "Hold the batting out of the seams"
    return (hold_out(plan.project, tuple(lofty), words),) if lofty else ()


def pressed_open(plan: Plan, spot: Spot) -> tuple[Edit, ...]:
    """So do seams pressed open: the bag's own, or those of the patchwork."""
    if not spot.folded:
        return ()
    if spot.kind == "patch":
        panel = plan.panel(spot.panel).panel
        return (choose(plan.project, panel, "Press the patchwork open", ("piecing.press", "open")),)
    if plan.project.press_seams != "side":
        return ()
    return (edit("Press the bag's seams open", ("press_seams", "open")),)


def tab_moved(plan: Plan, spot: Spot) -> tuple[Edit, ...]:
    """And so does a tab that is sewn on elsewhere."""
    return () if spot.mark is None else (_shift_tab(plan, spot.mark),)


def _shift_tab(plan: Plan, at: int) -> Edit:
    """Move a tab out of the side seam, on to the face."""
    mark = plan.project.marks[at]
    panel = plan.panel(mark.panel)
    left, right = panel.shown["left"], panel.trimmed.width.value - panel.shown["right"]
    inch = Fraction(1)
    x = left + inch if mark.x < left else right - inch - mark.width if mark.x > right else mark.x
    moved = mark.model_copy(update={"x": x})
    marks = plan.project.marks
    return edit(
        "Set the tab on the face, beside the seam",
        ("marks", (*marks[:at], moved, *marks[at + 1 :])),
    )


def _too_thick(plan: Plan, panel: PanelPlan) -> Iterator[Snag]:
    spots = plan.spots_on(panel.key)
    spot = thickest(spots)
    lift = fraction_of(str(plan.project.machine.lift_mm))
    if spot is None or spot.mm <= min(REDESIGN, lift):
        return
    foot = spot.mm > lift
    why = f"{working(spot.thick, plan.marks.notation)}. "
    why += "The foot does not lift so high." if foot else "Few household machines pierce that."
    yield Snag(
        key=f"layer.thick.{panel.key}",
        stage=Stage.LAYER,
        weight=Weight.WARNS,
        title=f"{float(spot.mm):.1f} mm to sew through: {spot.label}",
        why=why + f" If it must be: {spot.advice.words}.",
        panel=panel.key,
        place=_spot_place(spot),
        fixes=(*held_out(plan, spot), *pressed_open(plan, spot), *tab_moved(plan, spot)),
    )


def _spot_place(spot: Spot) -> Place:
    x, y = spot.at
    return Place(x - 0.4, y - 0.4, 0.8, 0.8)


def _thin_needle(plan: Plan) -> Iterator[Snag]:
    """The needle in the machine against the thickest place of all."""
    needle = plan.project.machine.needle
    if needle is None:
        return
    spots = tuple(spot for panel in plan.panels for spot in plan.spots_on(panel.key))
    worst = thickest(spots)
    if worst is None or needle >= worst.advice.needle:
        return
    wanted = worst.advice.needle
    fixes = (edit(f"Take a needle {wanted}", ("machine.needle", wanted)),)
    yield Snag(
        key="layer.needle",
        stage=Stage.LAYER,
        weight=Weight.WARNS,
        title=f"A needle {needle} is thin for {float(worst.mm):.1f} mm",
        why=f"{worst.label.capitalize()}: {worst.advice.words} (common practice). A thin one bends "
        "and breaks: cover your eyes.",
        panel=worst.panel,
        place=_spot_place(worst),
        fixes=fixes,
    )


def _snap_without_hold(plan: Plan) -> Iterator[Snag]:
    """A magnetic snap tears out of bare cloth."""
    flap = plan.bag.flap
    if flap is None or not plan.project.snap.used:
        return
    for key in dict.fromkeys((flap.male_panel, flap.female_panel)):
        panel = plan.panel(key)
        held = any(layer.role in ("batting", "firm") for layer in panel.layers)
        if held or panel.panel.kind == "lining":  # there its patch of interfacing holds it
            continue
        plies = (
            *panel.choices.layers.plies,
            Ply(material="woven-interfacing", rule="panel", bond="fuse"),
        )
        yield Snag(
            key=f"layer.snap.{key}",
            stage=Stage.LAYER,
            weight=Weight.WARNS,
            title=f"Too few layers for a snap in the {panel.panel.label.lower()}",
            why="Its prongs tear out of bare cloth: they want batting or interfacing behind.",
            panel=key,
            place=whole(panel),
            fixes=(
                choose(
                    plan.project,
                    panel.panel,
                    "Put woven interfacing behind it",
                    ("layers.plies", plies),
                ),
            ),
        )
