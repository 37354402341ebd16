"""The finished bag in plain oblique projection, from its real numbers.

A boxed bag is drawn as it stands: front with its prints, one side in shade, the opening
above, the object inside as a dashed outline.  A flat piece is drawn as it lies.
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels import PanelPlan
from tessil.core.plan import Plan
from tessil.drawing.picture import (
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Point,
    Sheet,
    clipped,
    rectangle,
)

SLANT = (0.46, 0.34)  # how far a unit of depth goes right and up


def finished_bag(plan: Plan, x: float, floor: float) -> tuple[list[Item], float, float]:
    """Items with the bag standing on ``floor`` at ``x``, and the width and height it takes."""
    sizes = [float(figure.value) for figure in plan.bag.finished]
    if len(sizes) == 3:
        return _standing(plan, x, floor, (sizes[0], sizes[1], sizes[2]))
    return _lying(plan, x, floor, (sizes[0], sizes[1]))


def _faces(plan: Plan, panel: PanelPlan, face: tuple[float, float, float, float],
           shown: tuple[float, float]) -> Iterator[Cloth]:  # fmt: skip
    """The part of the trimmed panel from ``shown`` that becomes a face at ``face``."""
    from tessil.drawing.pictures import trimmed_bands

    x, y, width, height = face
    left, top = shown
    for cloth in trimmed_bands(plan, panel):
        part = clipped(clipped(cloth.outline, left, left + width, 0), top, top + height, 1)
        if len(part) > 2:
            yield Cloth(tuple((px - left + x, py - top + y) for px, py in part), cloth.print)


def _standing(
    plan: Plan, x: float, floor: float, size: tuple[float, float, float]
) -> tuple[list[Item], float, float]:
    width, height, depth = size
    back, rise = depth * SLANT[0], depth * SLANT[1]
    top = floor - height
    panel = plan.panel(plan.shape.leader)
    inset = (float(panel.trimmed.width.value) - width) / 2
    side: tuple[Point, ...] = (
        (x + width, top), (x + width + back, top - rise),
        (x + width + back, floor - rise), (x + width, floor),
    )  # fmt: skip
    mouth: tuple[Point, ...] = (
        (x, top), (x + back, top - rise), (x + width + back, top - rise), (x + width, top),
    )  # fmt: skip
    below = float(panel.trimmed.height.value) - height if panel.panel.notches else 0.0
    shown = (inset, max(float(panel.trimmed.height.value) - height - below, 0.0))
    items: list[Item] = [
        Sheet(mouth, "backing"),
        Line(mouth, "raw", closed=True),
        *_side_face(plan, panel, x + width, floor, size),
        Line(side, "raw", closed=True),
        *_faces(plan, panel, (x, top, width, height), shown),
        Line(rectangle(x, top, width, height), "raw", closed=True),
        *_binding(plan, x, top, width),
        *_object(plan, x, floor, size),
        *_sizes(plan, x, floor, size),
    ]
    return items, width + back, height + rise


def _side_face(
    plan: Plan, panel: PanelPlan, x: float, floor: float, size: tuple[float, float, float]
) -> Iterator[Item]:
    """The side: the front's strips run on round the corner, seen at a slant and in shade."""
    from tessil.drawing.pictures import trimmed_bands

    _, height, depth = size
    back, rise = depth * SLANT[0], depth * SLANT[1]
    top = floor - height

    def slanted(low: float, high: float) -> tuple[Point, ...]:
        return ((x, top + low), (x + back, top + low - rise),
                (x + back, top + high - rise), (x, top + high))  # fmt: skip

    for cloth in trimmed_bands(plan, panel):
        ys = [y for _, y in cloth.outline]
        low, high = (0.0, height) if not panel.level_strips else (min(ys), min(max(ys), height))
        if high > low:
            yield Cloth(slanted(low, high), cloth.print)
        if not panel.level_strips:
            break
    yield Sheet(slanted(0.0, height), "shade")
    yield Line(((x + back / 2, top - rise / 2), (x + back / 2, floor - rise / 2)), "seam")


def _binding(plan: Plan, x: float, top: float, width: float) -> Iterator[Item]:
    if plan.binding is None:
        return
    from tessil.core.cutting.cutlist import binding_print

    seam = float(plan.project.binding.seam)
    cloth = plan.project.print_of(binding_print(plan.project))
    yield Cloth(rectangle(x, top, width, seam), cloth)
    yield Line(rectangle(x, top, width, seam), "thin", closed=True)


def _object(plan: Plan, x: float, floor: float, size: tuple[float, float, float]) -> Iterator[Item]:
    held = plan.project.hold
    if not held.minded:
        return
    width, height = float(held.width), float(held.height)
    left = x + (size[0] - width) / 2
    wall = float(plan.wall.value)
    outline = rectangle(left, floor - wall - height, width, height)
    yield Line(outline, "object", closed=True)
    name = held.name if held.count == 1 else f"{held.count} × {held.name}"
    yield Label((left + width / 2, floor - wall - height * 0.55), name, chip=True)


def _sizes(
    plan: Plan, x: float, floor: float, size: tuple[float, float, float]
) -> Iterator[Dimension]:
    width, height, depth = size
    read = plan.marks.notation.read_off
    texts = [read(figure.value) for figure in plan.bag.finished]
    back, rise = depth * SLANT[0], depth * SLANT[1]
    yield Dimension((x, floor), (x + width, floor), texts[0], 1.4)
    yield Dimension((x, floor - height), (x, floor), texts[1], -1.0)
    yield Dimension((x + width, floor), (x + width + back, floor - rise), texts[2], 0.9)


def _lying(
    plan: Plan, x: float, floor: float, size: tuple[float, float]
) -> tuple[list[Item], float, float]:
    width, height = size
    panel = plan.panel(plan.shape.leader)
    inset = (float(panel.trimmed.width.value) - width) / 2
    top = floor - height
    read = plan.marks.notation.read_off
    items: list[Item] = [
        *_faces(plan, panel, (x, top, width, height), (inset, inset)),
        Line(rectangle(x, top, width, height), "raw", closed=True),
        Dimension((x, floor), (x + width, floor), read(plan.bag.finished[0].value), 1.4),
        Dimension((x, top), (x, floor), read(plan.bag.finished[1].value), -1.0),
    ]
    if plan.binding is not None:
        from tessil.core.cutting.cutlist import binding_print

        cloth = plan.project.print_of(binding_print(plan.project))
        seam = float(plan.project.binding.seam)
        for part in (
            rectangle(x, top, width, seam), rectangle(x, floor - seam, width, seam),
            rectangle(x, top, seam, height), rectangle(x + width - seam, top, seam, height),
        ):  # fmt: skip
            items.append(Cloth(part, cloth))
    return items, width, height
