"""The hoopings of a panel: each hoop with what is cut for it, its field, and what lies in it.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.hooping.hoopings import EACH_SIDE, HoopGroup, Laid, OneHooping
from tessil.core.hooping.readings import group_of
from tessil.core.hooping.words import hoopings_words
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.drawing.bands import trimmed_bands
from tessil.drawing.picture import (
    Affine,
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Picture,
    Placed,
    Point,
    Shade,
    rectangle,
)
from tessil.drawing.pieceview import seam_lines

APART = 2.2  # inches between two hoops on the bench
MOST_SHOWN = 5


def hoop_picture(plan: Plan, panel: PanelPlan) -> Picture:
    """Every kind of hooping of the panel once; the panel alone where it is in no hoop."""
    group = group_of(plan, panel.key)
    if group is None or plan.hooped is None:
        return _without(plan, panel)
    wide, high = plan.hooped.field.floats()
    over = float(EACH_SIDE.value)
    items: list[Item] = []
    shown = group.hoopings[:MOST_SHOWN]
    for at, hooping in enumerate(shown):
        items += _hoop(plan, group, hooping, at * (wide + 2 * over + APART))
    width = len(shown) * (wide + 2 * over + APART) - APART
    box = (-over, -over, width, high + 2 * over + 1.0)
    names = ", ".join(one.panel.label for one in group.panels)
    caption = f"{names}: {hoopings_words(group, plan.marks.notation)}."
    return Picture(tuple(items), box, caption=caption, room=(60, 40, 60, 48), ruled=False)


def _hoop(plan: Plan, group: HoopGroup, hooping: OneHooping, x: float) -> Iterator[Item]:
    assert plan.hooped is not None
    wide, high = plan.hooped.field.floats()
    over, read = float(EACH_SIDE.value), plan.marks.notation.read_off
    yield Shade(rectangle(x - over, -over, wide + 2 * over, high + 2 * over), "batting")
    yield Line(rectangle(x - over, -over, wide + 2 * over, high + 2 * over), "raw", closed=True)
    yield Shade(rectangle(x, 0, wide, high), "paper")
    for laid in hooping.laid:
        yield from _outline(plan, laid, x)
    yield Line(rectangle(x, 0, wide, high), "object", closed=True)
    if x == 0:
        field = plan.hooped.field
        yield Dimension((x, 0), (x + wide, 0), read(field.width.value), -1)
        yield Dimension((x, 0), (x, high), read(field.height.value), -1)
    times = f"{hooping.times} times" if hooping.times > 1 else "once"
    names = [plan.panel(one.panel).panel.label for one in hooping.laid]
    said = ", ".join(_counted(name, names.count(name)) for name in dict.fromkeys(names))
    yield Label((x + wide / 2, high + over + 0.5), f"{times}: {said}", strong=True)


def _counted(name: str, many: int) -> str:
    return f"{many} × {name.lower()}" if many > 1 else name.lower()


def _outline(plan: Plan, laid: Laid, x: float) -> Iterator[Item]:
    """One panel where it lies: its pieces, its outline, its seam lines, its name."""
    panel = plan.panel(laid.panel)
    affine = _affine(panel, laid, x)
    outline = tuple((float(a), float(b)) for a, b in panel.panel.outline)
    inner = [item for item in trimmed_bands(plan, panel) if isinstance(item, Cloth)]
    seams = [item for item in seam_lines(panel) if isinstance(item, Line)]
    yield Placed((*inner, *seams, Line(outline, "notch", closed=True)), affine)
    middle: Point = (x + float(laid.x + laid.width / 2), float(laid.y + laid.height / 2))
    yield Label(middle, panel.panel.label, chip=True, within=float(laid.width))


def _affine(panel: PanelPlan, laid: Laid, x: float) -> Affine:
    left, top = x + float(laid.x), float(laid.y)
    if not laid.turned:
        return (1.0, 0.0, 0.0, 1.0, left, top)
    return (0.0, 1.0, -1.0, 0.0, left + float(panel.trimmed.height.value), top)


def _without(plan: Plan, panel: PanelPlan) -> Picture:
    width, height = panel.trimmed.floats()
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    items: tuple[Item, ...] = (
        *trimmed_bands(plan, panel),
        *seam_lines(panel),
        Line(outline, "notch", closed=True),
    )
    words = f"{panel.panel.label}, trimmed: it is not made in a hoop. "
    words += "Choose a stabiliser, and its hoopings are laid out here."
    return Picture(items, (0, 0, width, height), caption=words, room=(60, 40, 60, 44))
