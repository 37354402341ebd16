"""The finished bag, drawn plainly from its real numbers.

A boxed bag stands in oblique projection: one side with its prints, the end in shade, the
opening or zipped lid above.  A flat bag lies.  The object it holds is a dashed outline.  What
lies where is the shape's to say (``Bag.looks``).
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.model import Detail, Face, Look
from tessil.core.brief.checks.fit import held_name
from tessil.core.choices import bound_print
from tessil.core.numbers.polygons import shifted
from tessil.core.planned import Plan
from tessil.drawing.bands import trimmed_bands
from tessil.drawing.picture import (
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Point,
    Shade,
    clipped,
    rectangle,
)

SLANT = (0.46, 0.34)  # how far a unit of depth goes right and up


def look_of(plan: Plan, side: str) -> Look:
    """The look of that name, or the first."""
    for look in plan.bag.looks:
        if look.side == side:
            return look
    return plan.bag.looks[0]


def finished_bag(
    plan: Plan, x: float, floor: float, side: str = "front", objects: bool = True
) -> tuple[list[Item], float, float]:
    """Items with the bag standing on ``floor`` at ``x``, and the width and height it takes;
    with what it holds, if that is minded."""
    look = look_of(plan, side)
    width, height, depth = float(look.width), float(look.height), float(look.depth)
    back, rise = depth * SLANT[0], depth * SLANT[1]
    over = max((-float(y) for d in look.details for _, y in d.points), default=0.0)
    top = floor - height
    cloths = [cloth for face in look.faces for cloth in face_cloths(plan, face)]
    placed = [Cloth(shifted(c.outline, x, top), c.print, c.key, c.turned) for c in cloths]
    items: list[Item] = []
    if depth:
        items += _mouth(plan, look, x, top)
        items += _end(placed, (x + width, top), height, depth)
    items += [*placed, *_creases(plan, look, x, top)]
    items.append(Line(rectangle(x, top, width, height), "raw", closed=True))
    items += _top_binding(plan, look, x, top)
    items += [item for detail in look.details for item in _detail(plan, detail, x, top)]
    if objects:
        items += _object(plan, look, x, floor)
    items += _sizes(plan, look, x, floor)
    return items, width + back, height + max(rise, over)


def face_cloths(plan: Plan, face: Face) -> Iterator[Cloth]:
    """The prints of one face, where they lie in its look; turned where they point down."""
    for cloth in trimmed_bands(plan, plan.panel(face.panel)):
        points = _on_face(face, cloth.outline)
        if len(points) > 2:
            yield Cloth(points, cloth.print, cloth.key, face.turned != cloth.turned)


def _creases(plan: Plan, look: Look, x: float, top: float) -> Iterator[Line]:
    """Outlines of the faces that lie on the first: a flap's shape, a band's edge."""
    for face in look.faces[1:]:
        panel = plan.panel(face.panel).panel
        whole = tuple((float(px), float(py)) for px, py in panel.outline)
        shape = shifted(_on_face(face, whole), x, top)
        if len(shape) > 2:
            yield Line(shape, "raw", closed=True)


def _on_face(face: Face, outline: tuple[Point, ...]) -> tuple[Point, ...]:
    """The part of an outline of the panel that a face shows, where it lies in the look."""
    sx, sy, w, h = (float(v) for v in face.source)
    tx, ty, tw, th = (float(v) for v in face.target)
    part = clipped(clipped(outline, sx, sx + w, 0), sy, sy + h, 1)
    if face.turned:
        return tuple((tx + tw - (px - sx), ty + th - (py - sy)) for px, py in part)
    return tuple((tx + px - sx, ty + py - sy) for px, py in part)


def _mouth(plan: Plan, look: Look, x: float, top: float) -> Iterator[Item]:
    width, depth = float(look.width), float(look.depth)
    back, rise = depth * SLANT[0], depth * SLANT[1]
    shape: tuple[Point, ...] = (
        (x, top),
        (x + back, top - rise),
        (x + width + back, top - rise),
        (x + width, top),
    )
    if look.closed:
        cloth = plan.project.print_of(plan.panel(plan.shape.leader).patches[0].print)
        yield Cloth(shape, cloth)
        middle = ((x + back / 2, top - rise / 2), (x + width + back / 2, top - rise / 2))
        yield Line(middle, "cord")
        yield Line(middle, "teeth")
    else:
        yield Shade(shape, "backing")
    yield Line(shape, "raw", closed=True)


def _end(placed: list[Cloth], foot: Point, height: float, depth: float) -> Iterator[Item]:
    """The end: what reaches the right edge runs on round the corner, at a slant and in shade."""
    x, top = foot
    back, rise = depth * SLANT[0], depth * SLANT[1]

    def slanted(low: float, high: float) -> tuple[Point, ...]:
        return ((x, low), (x + back, low - rise), (x + back, high - rise), (x, high))

    for cloth in placed:
        ys = [py for px, py in cloth.outline if abs(px - x) < 1e-6]
        if ys and max(ys) > min(ys):
            yield Cloth(slanted(min(ys), max(ys)), cloth.print)
    yield Shade(slanted(top, top + height), "shade")
    yield Line(slanted(top, top + height), "raw", closed=True)
    middle = ((x + back / 2, top - rise / 2), (x + back / 2, top + height - rise / 2))
    yield Line(middle, "seam")


def _top_binding(plan: Plan, look: Look, x: float, top: float) -> Iterator[Item]:
    if plan.binding is None or not plan.bag.loop:
        return
    cloth = plan.project.print_of(bound_print(plan.project))
    seam = float(plan.project.binding.seam)
    yield Cloth(rectangle(x, top, float(look.width), seam), cloth)
    yield Line(rectangle(x, top, float(look.width), seam), "thin", closed=True)


def _detail(plan: Plan, detail: Detail, x: float, top: float) -> Iterator[Item]:
    points = tuple((x + float(px), top + float(py)) for px, py in detail.points)
    cloth = plan.project.print_of(bound_print(plan.project))
    if detail.kind == "strap":
        yield Cloth(points, cloth)
        yield Line(points, "raw", closed=True)
    elif detail.kind == "cord":
        yield Line(points, "cord")
    elif detail.kind == "fold":
        yield Line(points, "seam")
    elif detail.kind == "bound":
        yield from _frame(points, cloth, float(plan.project.binding.seam))
    elif detail.kind == "zip":
        yield Shade(points, "zip")
        middle = (points[0][1] + points[2][1]) / 2
        yield Line(((points[0][0], middle), (points[1][0], middle)), "teeth")
        yield Line(points, "raw", closed=True)
    elif detail.kind == "window":
        yield Shade(points, "window")
        yield Line(points, "thin", closed=True)


def _frame(points: tuple[Point, ...], cloth: object, seam: float) -> Iterator[Item]:
    (x, y), _, (right, bottom), _ = points
    for part in (
        rectangle(x, y, right - x, seam),
        rectangle(x, bottom - seam, right - x, seam),
        rectangle(x, y, seam, bottom - y),
        rectangle(right - seam, y, seam, bottom - y),
    ):
        yield Cloth(part, cloth)  # type: ignore[arg-type]
        yield Line(part, "thin", closed=True)


def _object(plan: Plan, look: Look, x: float, floor: float) -> Iterator[Item]:
    """Each thing to scale: those one behind another in one place, others side by side."""
    hold = plan.project.hold
    if not hold.minded or look.side == "open":
        return
    lying = plan.bag.words[0] == "long"
    beside = hold.packed == "beside"
    wall = float(plan.wall.value)
    widths = [float(thing.width) for thing in hold.things]
    whole = sum(widths) if beside else max(widths)
    left = x + (float(look.width) - whole) / 2
    base = floor - wall
    for thing in hold.things:
        width = float(thing.width)
        height = float(thing.thickness * thing.count if lying else thing.height)
        at = left if beside else left + (whole - width) / 2
        yield Line(rectangle(at, base - height, width, height), "object", closed=True)
        left += width if beside else 0.0
    middle = (x + float(look.width) / 2, floor - float(look.height) * 0.4)
    yield Label(middle, held_name(hold), chip=True)


def _sizes(plan: Plan, look: Look, x: float, floor: float) -> Iterator[Dimension]:
    read = plan.marks.notation.read_off
    width, height, depth = float(look.width), float(look.height), float(look.depth)
    yield Dimension((x, floor), (x + width, floor), read(look.width), 1.4)
    yield Dimension((x, floor - height), (x, floor), read(look.height), -1.0)
    if depth:
        back, rise = depth * SLANT[0], depth * SLANT[1]
        end = (x + width + back, floor - rise)
        yield Dimension((x + width, floor), end, read(look.depth), 0.9)
