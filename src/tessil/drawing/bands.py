"""Where the prints of a panel lie, on its pieced top and on its trimmed outline."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache

from tessil.core.catalogue.prints import Print
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import box_of, cut_by
from tessil.core.numbers.sizes import Outline
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.top import Patch
from tessil.core.planned import Plan
from tessil.drawing.picture import Cloth, clipped


def stretch(panel: PanelPlan) -> tuple[float, float]:
    """Measured against planned pieced size, so that pieces fill what there really is."""
    return (
        float(panel.pieced.width.value / panel.planned.width.value),
        float(panel.pieced.height.value / panel.planned.height.value),
    )


def key_of(panel: str, patch: Patch) -> str:
    """The name of a piece on the bench; nothing for what cannot be taken in hand."""
    return f"piece:{panel}:{patch.zone}:{patch.piece}" if patch.piece >= 0 else ""


def spot_in(key: str) -> tuple[str, int, int]:
    """The panel, part and piece of a name on the bench."""
    _, panel, zone, piece = on_panel(key).split(":")
    return panel, int(zone), int(piece)


ON_BAG = ":bag"  # ends the name of a piece where it is seen on the bag, beside its panel


def on_panel(key: str) -> str:
    """The name of a piece on its panel, by that or by its name on the bag."""
    return key.removesuffix(ON_BAG)


# A window's material as it looks on paper: pale, or with the holes of a mesh.
@cache
def _windows() -> dict[str, Print]:
    mesh = {"motif": "checks", "ground": "#d9d5cd", "ink": "#a8a39a", "repeat": Fraction(1, 4)}
    return {
        "clear-vinyl": Print.model_construct(
            key="clear-vinyl", name="Clear vinyl", ground="#e4ebe9"
        ),
        "bag-mesh": Print.model_construct(key="bag-mesh", name="Bag mesh", **mesh),
    }


def patch_cloths(plan: Plan, panel: PanelPlan) -> Iterator[tuple[Patch, Cloth]]:
    """The pieces of the pieced top, each in its print."""
    across, down = stretch(panel)
    same = across == down == 1.0
    prints = {entry.key: entry for entry in plan.project.prints}
    if made_of := panel.panel.made_of:
        yield from ((patch, Cloth(patch.outline, _windows()[made_of])) for patch in panel.patches)
        return
    for patch in panel.patches:
        shape = patch.outline if same else tuple((x * across, y * down) for x, y in patch.outline)
        cloth = prints.get(patch.print) or plan.project.print_of(patch.print)
        yield patch, Cloth(shape, cloth, key_of(panel.key, patch), patch.turned)


def bands(plan: Plan, panel: PanelPlan) -> Iterator[Cloth]:
    """The pieces of the pieced top, without what they are."""
    for _, cloth in patch_cloths(plan, panel):
        yield cloth


def lying(plan: Plan, panel: PanelPlan) -> Iterator[Cloth]:
    """The prints as they lie on the trimmed panel, not yet cut to its outline."""
    across, down, left, top = panel.at
    for cloth in bands(plan, panel):
        shape = tuple((x * across - left, y * down - top) for x, y in cloth.outline)
        yield Cloth(shape, cloth.print, cloth.key, cloth.turned)


def trimmed_bands(plan: Plan, panel: PanelPlan) -> Iterator[Cloth]:
    """The prints as they lie on the trimmed panel, clipped to its outline."""
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    width, height = panel.trimmed.floats()
    plain = len(outline) == 4
    for cloth in lying(plan, panel):
        shape = on_outline(cloth.outline, outline, plain, (width, height))
        if len(shape) > 2:
            yield Cloth(shape, cloth.print, cloth.key, cloth.turned)


def on_outline(shape: Outline, outline: Outline, plain: bool, size: tuple[float, float]) -> Outline:
    """A convex piece cut to the panel; the panel may have notches, so it is cut by the piece."""
    x1, y1, x2, y2 = box_of(shape)
    if plain:
        if x1 >= 0 and y1 >= 0 and x2 <= size[0] and y2 <= size[1]:
            return shape
        return clipped(clipped(shape, 0, size[0], 0), 0, size[1], 1)
    return cut_by(outline, shape)
