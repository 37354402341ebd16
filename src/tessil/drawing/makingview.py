"""The step in hand: panels as they lie on the table, what is sewn as a line of thread.

Steps on one panel show the picture of that stage; seams show the uppermost panel, wrong side up,
the one below it shifted a little so that it is seen; what is turned or finished shows the bag.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from math import hypot

from msgspec.structs import replace

from tessil.core.bag.deeds import Deed
from tessil.core.bag.model import Edge, Panel
from tessil.core.bag.net import named_seams
from tessil.core.catalogue.prints import Photo, Print
from tessil.core.making.acts.common import edge_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import box_of
from tessil.core.planned import Plan
from tessil.drawing.bands import trimmed_bands
from tessil.drawing.handview import in_hand, moved, stand_of
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
from tessil.drawing.projecting import Stand

SHIFT = 0.55  # inches: how far what lies below is drawn aside
CLIP_EVERY = 2.2  # inches
TACK = 0.28
GAP = 0.5  # inches below the bag for its words
ABOVE, ASIDE = 30.0, 20.0  # degrees: from where a bag is seen that is not sewn up


def seam_picture(plan: Plan, deed: Deed, caption: str, small: bool = False) -> Picture:
    """Panels on one another with the seam that is sewn; ``small`` without words on them."""
    top = plan.bag.panel(deed.panels[0])
    below = plan.bag.panel(deed.panels[1]) if len(deed.panels) > 1 else None
    if below is None and top.copies > 1:  # two alike
        below = top
    mirrored = below is not None and deed.operation != "zipper"
    items: list[Item] = []
    if below is not None:
        items += _below(plan, below, float(top.width.value), mirrored)
    items += _on_top(plan, top, below is not None, deed)
    edges = list(_sewn(plan, top, deed))
    longest = max(edges, key=_long, default=None)
    for edge in edges:
        items += _thread(plan, edge, deed, gap=edge is longest)
        if deed.operation == "zipper":
            items += _teeth(edge)
    wide, high = float(top.width.value), float(top.height.value)
    if below is not None:
        wide = max(wide, float(below.width.value))
        high = max(high, float(below.height.value))
        wide, high = wide + SHIFT, high + SHIFT
    if small:
        items = [item for item in items if not isinstance(item, Label)]
    room = (12, 12, 12, 12) if small else (60, 46, 60, 56)
    return Picture(tuple(items), (0.0, 0.0, wide, high), room, caption, ruled=False)


def whole_picture(plan: Plan, caption: str, sewn: frozenset[str] | None = None) -> Picture:
    """The bag in the hand, as far as it is sewn."""
    hand = in_hand(plan, _stand(plan, sewn), things=False)
    return Picture(hand.items, hand.box, (60, 40, 60, 56), caption, ruled=False)


def _stand(plan: Plan, sewn: frozenset[str] | None) -> Stand:
    """The bag from the front with these seams sewn; from a little above while it is open."""
    stand = stand_of(plan, "front")
    if sewn is None or sewn >= {slug for slug, _ in named_seams(plan.bag.net)}:
        return stand
    return replace(stand, above=max(stand.above, ABOVE), turn=stand.turn or -ASIDE, done=sewn)


def then(picture: Picture, plan: Plan, sewn: frozenset[str], small: bool = False) -> Picture:
    """A step's picture with the bag as it is after it at the right, smaller where it must be;
    ``small`` without words."""
    hand = in_hand(plan, replace(_stand(plan, sewn), done=sewn), things=False)
    left, top, wide, high = picture.box
    x, y, broad, tall = _extent(hand.items)
    by = min(1.0, max(high, wide * 0.5) / tall, max(wide, high) * 0.9 / broad)
    at = left + wide + max(wide, high) * 0.2
    low = top + max((high - tall * by) / 2, 0.0)
    items = moved(hand.items, at - x * by, low - y * by, by)
    if not small:
        spot = (at + broad * by / 2, low + tall * by + GAP)
        items = (*items, Label(spot, "after this step", chip=True))
    box = (left, top, at + broad * by - left, max(high, tall * by + 2 * GAP))
    caption = f"{picture.caption} At the right: the bag after this step, right side out."
    return Picture((*picture.items, *items), box, picture.room, caption, picture.ruled)


def _extent(items: tuple[Item, ...]) -> tuple[float, float, float, float]:
    """The box of a bag as it lies, by the outlines of its facets."""
    lines = tuple(point for item in items if isinstance(item, Line) for point in item.points)
    left, top, right, bottom = box_of(lines)
    return left, top, right - left, bottom - top


def table_picture(plan: Plan, deed: Deed, caption: str) -> Picture:
    """Panels side by side, right sides up, as they are looked at."""
    items: list[Item] = []
    x, high = 0.0, 0.0
    for key in deed.panels or tuple(panel.key for panel in plan.panels):
        panel = plan.panel(key)
        cloths = tuple(trimmed_bands(plan, panel))
        place: Affine = (1.0, 0.0, 0.0, 1.0, x, 0.0)
        outline = tuple((float(px) + x, float(py)) for px, py in panel.panel.outline)
        items.append(Placed(cloths, place) if cloths else Shade(outline, "paper"))
        items.append(Line(outline, "raw", closed=True))
        wide, tall = (float(v) for v in panel.trimmed.values())
        items.append(Label((x + wide / 2, tall / 2), panel.panel.label, chip=True, strong=True))
        x, high = x + wide + 1.0, max(high, tall)
    return Picture(tuple(items), (0.0, 0.0, x - 1.0, high), (50, 40, 50, 56), caption, ruled=False)


def _below(plan: Plan, panel: Panel, across: float, mirrored: bool) -> Iterator[Item]:
    """What lies underneath, right side up, turned over so that edges lie on edges."""
    wide = float(panel.width.value)
    place: Affine = (
        (-1.0, 0.0, 0.0, 1.0, (across + wide) / 2 + SHIFT, SHIFT)
        if mirrored
        else (1.0, 0.0, 0.0, 1.0, SHIFT, SHIFT)
    )
    there = plan.panel(panel.key)
    cloths = tuple(trimmed_bands(plan, there))
    placed = Placed(cloths, place)
    outline = tuple(placed.at((float(x), float(y))) for x, y in panel.outline)
    yield placed if cloths else Shade(outline, "paper")
    yield Line(outline, "raw", closed=True)
    low = max(y for _, y in outline)
    left = min(x for x, _ in outline)
    yield Label(
        (left, low + 0.05), f"below: {panel.label.lower()}, right side up", "left", chip=True
    )


def _on_top(plan: Plan, panel: Panel, lies: bool, deed: Deed) -> Iterator[Item]:
    """The panel under the hand; its wrong side shows where it ``lies`` on another."""
    outline = tuple((float(x), float(y)) for x, y in panel.outline)
    if lies and deed.operation != "zipper":
        yield Shade(outline, "backing" if panel.kind == "outer" else "paper")
        side = "wrong side up"
    else:
        there = plan.panel(panel.key)
        cloths = tuple(trimmed_bands(plan, there))
        yield Placed(cloths, (1.0, 0.0, 0.0, 1.0, 0.0, 0.0)) if cloths else Shade(outline, "paper")
        side = "right side up" if deed.operation == "zipper" else "to be folded, right sides in"
    yield Line(outline, "raw", closed=True)
    middle = (float(panel.width.value) / 2, float(panel.height.value) / 2)
    yield Label(middle, f"{panel.label}, {side}", chip=True, strong=True)


def _sewn(plan: Plan, panel: Panel, deed: Deed) -> Iterator[Edge]:
    """The edges along which is sewn; corners that are not cut out have theirs in the sewn model."""
    for key, slug in deed.edges:
        if key == panel.key:
            own = [edge for edge in panel.edges if edge.key.slug == slug]
            with suppress(KeyError):
                yield own[0] if own else edge_of(plan.bag, key, slug)


def _thread(plan: Plan, edge: Edge, deed: Deed, gap: bool) -> Iterator[Item]:
    """The seam as it is sewn: back-tacks at its ends, the gap where it is left, clips before it."""
    start, end, inward = _line(edge)
    if start == end:
        return
    off = float(deed.seam.value) if deed.seam is not None else float(edge.allowance.value)
    a, b = (_moved(point, inward, off) for point in (start, end))
    long = hypot(b[0] - a[0], b[1] - a[1])
    left_open = float(deed.gap.value) if deed.gap is not None and gap else 0.0
    if 0 < left_open < long:
        share = left_open / long / 2
        left, right = _between(a, b, 0.5 - share), _between(a, b, 0.5 + share)
        runs = [(a, left), (right, b)]
        said = plan.marks.notation.read_off(deed.gap.value, unit=True) if deed.gap else ""
        yield Dimension(left, right, f"{said} open", 0, over_cloth=True)
    else:
        runs = [(a, b)]
    for one, other in runs:
        yield Line((one, other), "picked")
        for point in (one, other):
            yield Line(
                (_moved(point, inward, -TACK / 2), _moved(point, inward, TACK / 2)), "picked"
            )
    yield from _clips(start, end, inward, long)


def _clips(start: Point, end: Point, inward: Point, long: float) -> Iterator[Item]:
    number = int(long // CLIP_EVERY)
    for at in range(1, number + 1):
        point = _between(start, end, at / (number + 1))
        yield Line((_moved(point, inward, -0.2), _moved(point, inward, 0.15)), "notch")


def _teeth(edge: Edge) -> Iterator[Item]:
    """The zipper laid along an edge, its teeth towards the panel."""
    start, end, inward = _line(edge)
    yield Line((_moved(start, inward, 0.5), _moved(end, inward, 0.5)), "teeth")


def _line(edge: Edge) -> tuple[Point, Point, Point]:
    """An edge's ends, and a step inwards from it: outlines go round clockwise."""
    start, end = ((float(x), float(y)) for x, y in (edge.start, edge.end))
    long = hypot(end[0] - start[0], end[1] - start[1]) or 1.0
    return start, end, ((start[1] - end[1]) / long, (end[0] - start[0]) / long)


def _long(edge: Edge) -> float:
    (x, y), (right, down) = edge.start, edge.end
    return hypot(float(right - x), float(down - y))


def _moved(point: Point, way: Point, by: float) -> Point:
    return point[0] + way[0] * by, point[1] + way[1] * by


def _between(a: Point, b: Point, share: float) -> Point:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def beside(picture: Picture, photo: Photo) -> Picture:
    """A step's picture with the maker's own photo of it at its right."""
    left, top, wide, high = picture.box
    broad = max(wide * 0.45, high * 0.5)
    tall = broad * photo.high / photo.wide
    x, y = left + wide * 1.06, top + max((high - tall) / 2, 0.0)
    shown = photo.model_copy(update={"apart": Fraction(round(broad * 1000), 1000)})
    cloth = Print.model_construct(key="photo", name="photo", photo=shown)
    outline = rectangle(0.0, 0.0, broad, tall)
    flat = (Cloth(outline, cloth), Line(outline, "raw", closed=True))
    items = (*picture.items, Placed(flat, (1.0, 0.0, 0.0, 1.0, x, y)))
    box = (left, top, wide * 1.06 + broad, max(high, tall))
    return Picture(items, box, picture.room, picture.caption, picture.ruled)
