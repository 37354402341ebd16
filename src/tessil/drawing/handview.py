"""The bag in the hand: the sewn model drawn with every print in its place at true scale.

Straps hang from where they are sewn on; what is held shows as a dashed outline.  From outside the
right side of each facet shows, from inside its lining.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import cos, dist, hypot, pi, sin, sqrt

from msgspec.structs import replace

from tessil.core.bag.net import Hang
from tessil.core.brief.checks.fit import held_name
from tessil.core.catalogue.prints import Print
from tessil.core.choices import bound_print, choices_of_lining, first_print
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import box_of, cut_by
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.sewn.facets import Facet
from tessil.core.sewn.placing import Piece, Sewn
from tessil.core.sewn.vectors import Pose, Space, minus, plus
from tessil.core.snags import Place
from tessil.drawing.bands import lying
from tessil.drawing.keeping import KEPT
from tessil.drawing.picture import (
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Placed,
    Point,
    Shade,
    rectangle,
)
from tessil.drawing.projecting import FLAT_STANDS, STANDS, Shown, Stand, poses_for, shown

LIGHT = 0.34  # how much darker a facet is that is seen along its edge
RISE = 0.6  # of the bag's height, that a long strap is drawn to rise at most
STEPS = 24  # straight pieces of a strap's curve


class Hand(Record, frozen=True, dict=True):
    """A bag drawn: its items, the box they fill, and where its pieces lie."""

    items: tuple[Item, ...]
    box: tuple[float, float, float, float]
    pieces: Mapping[str, tuple[Point, ...]]


def stand_of(plan: Plan, side: str) -> Stand:
    """The stand of that name, for a bag that stands or one that lies."""
    stands = STANDS if plan.bag.boxed else FLAT_STANDS
    return stands.get(side, stands["front"])


def stands_of(plan: Plan) -> tuple[str, ...]:
    """The names of the stands from which a bag is worth looking at."""
    opens = any(look.side == "open" for look in plan.looks)
    names = STANDS if plan.bag.boxed else FLAT_STANDS
    return tuple(
        name
        for name in names
        if (opens or name != "open") and (len(plan.looks) > 1 or name == "front")
    )


def in_hand(plan: Plan, stand: Stand, things: bool = True, named: bool = False) -> Hand:
    """The bag from a stand about its own middle, with what it holds if wanted; with the outlines of
    its pieces by name where they are to be taken in hand."""
    sewn = plan.sewn
    poses = poses_for(sewn, stand)
    items: list[Item] = []
    pieces: dict[str, tuple[Point, ...]] = {}
    cloths = _Cloths(plan, sewn)
    facets = shown(sewn, poses, stand)
    hung = stand.sewn_up and not stand.within
    hangs = list(_hangs(plan, sewn, poses, stand)) if hung else []
    items += [item for depth, parts in hangs if depth < 0 for item in parts]
    for one in facets:
        items += cloths.facet(one)
        for key, outline in cloths.pieces(one) if named else ():
            pieces.pop(key, None)
            pieces[key] = outline
    items += [item for depth, parts in hangs if depth >= 0 for item in parts]
    whole = stand.sewn_up and not stand.opened
    straps = [item for _, parts in hangs for item in parts]
    if things and whole:
        items += _held(plan, sewn, stand)
    if whole:
        items += _sizes(plan, sewn, stand)
    return Hand(tuple(items), _extent(straps, sewn, poses, stand), pieces)


def _extent(
    items: list[Item], sewn: Sewn, poses: Mapping[Piece, Pose], stand: Stand
) -> tuple[float, float, float, float]:
    """The box the bag fills, whichever way it is turned about its upright axis, and its straps."""
    points = [point for piece, pose in poses.items() for point in sewn.outline(piece, pose)]
    round_ = max((hypot(x, z) for x, _, z in points), default=1.0)
    seen = [(way * round_, y, way * round_) for _, y, _ in points for way in (1.0, -1.0)]
    tilt = replace(stand, turn=0.0)
    ys = [tilt.drawn((0.0, y, z))[1] for _, y, z in seen]
    straps = [p for item in items if isinstance(item, Cloth | Line) for p in _points(item)]
    xs = [-round_, round_, *(x for x, _ in straps)]
    ys += [y for _, y in straps]
    return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


def _points(item: Cloth | Line) -> tuple[Point, ...]:
    return item.outline if isinstance(item, Cloth) else item.points


class _Cloths:
    """What each facet is covered with, on its own panel."""

    def __init__(self, plan: Plan, sewn: Sewn) -> None:
        self.plan, self.sewn = plan, sewn
        self.tapes = {tape.key for tape in sewn.net.tapes}
        self.bound = plan.project.print_of(bound_print(plan.project))
        self.lining = _lining(plan)

    def facet(self, one: Shown) -> Iterator[Item]:
        """One facet as it lies."""
        facet = self.sewn.facet(one.piece)
        if one.piece[0] in self.tapes:
            yield from self._tape(one, facet)
            return
        if one.right_side:
            yield Placed(self._covered(facet), one.affine)
        elif self.lining is not None:
            yield Placed((Cloth(facet.corners, self.lining),), one.affine)
        else:
            yield Shade(one.outline, "backing")
        if one.square < 0.99:
            yield Shade(one.outline, "shade", share=LIGHT * (1 - one.square))
        yield Line(one.outline, "raw", closed=True)

    def pieces(self, one: Shown) -> Iterator[tuple[str, tuple[Point, ...]]]:
        """The pieces that can be taken in hand, where they are seen."""
        if one.right_side and one.piece[0] not in self.tapes:
            placed = Placed((), one.affine)
            for cloth in self._outside(self.sewn.facet(one.piece)):
                if cloth.key:
                    yield cloth.key, tuple(placed.at(point) for point in cloth.outline)

    def _covered(self, facet: Facet) -> tuple[Cloth | Line, ...]:
        """Its prints, and the binding along its edges."""
        project = self.plan.project
        return KEPT.of(
            ("covered", facet.sheet, facet.number),
            (self._outside(facet), project.binding, project.prints),
            lambda: (*self._outside(facet), *self._binding(facet)),
        )

    def _outside(self, facet: Facet) -> tuple[Cloth, ...]:
        return facet_cloths(self.plan, facet)

    def _binding(self, facet: Facet) -> Iterator[Cloth | Line]:
        """Its strip along bound edges."""
        seam = float(self.plan.project.binding.seam)
        edges = {edge.key.run: edge for edge in self.plan.panel(facet.sheet).panel.edges}
        corners = (*facet.corners, facet.corners[0])
        for at, rim in enumerate(facet.rims):
            if rim.edge is None or rim.edge not in edges or edges[rim.edge].finish != "bound":
                continue
            (x1, y1), (x2, y2) = corners[at], corners[at + 1]
            long = hypot(x2 - x1, y2 - y1)
            if long < 1e-6:
                continue
            nx, ny = (y1 - y2) / long * seam, (x2 - x1) / long * seam
            strip = ((x1, y1), (x2, y2), (x2 + nx, y2 + ny), (x1 + nx, y1 + ny))
            yield Cloth(strip, self.bound)
            yield Line(strip[2:], "thin")

    def _tape(self, one: Shown, facet: Facet) -> Iterator[Item]:
        """The zipper: its tape, and its teeth along the middle or the fold in it."""
        yield Shade(one.outline, "zip")
        tape = next(tape for tape in self.sewn.net.tapes if tape.key == facet.sheet)
        x, _, wide, _ = facet.box
        middle = float(tape.width) / 2
        placed = Placed((), one.affine)
        first, last = self._teeth(float(tape.length))
        first, last = max(x, first), min(x + wide, last)
        if last > first:
            yield Line((placed.at((first, middle)), placed.at((last, middle))), "teeth")
        yield Line(one.outline, "raw", closed=True)

    def _teeth(self, long: float) -> tuple[float, float]:
        """From where to where a tape so long has teeth."""
        need = self.plan.bag.zipper
        left, right = need.inside if need is not None and need.inside else (None, None)
        return (
            float(left.value) if left is not None else 0.0,
            long - (float(right.value) if right is not None else 0.0),
        )


def _lining(plan: Plan) -> Print | None:
    """The cloth seen inside, if the bag is lined."""
    if plan.project.lining == "none":
        return None
    return plan.project.print_of(first_print(choices_of_lining(plan.project)))


def facet_cloths(plan: Plan, facet: Facet) -> tuple[Cloth, ...]:
    """The prints of a facet, on its panel; kept while the bag is turned."""
    panel = plan.panel(facet.sheet)
    made: tuple[Cloth, ...] = KEPT.of(
        ("facet", facet.sheet, facet.number),
        (panel, facet, plan.project.prints),
        lambda: tuple(_cut(plan, facet)),
    )
    return made


def _cut(plan: Plan, facet: Facet) -> Iterator[Cloth]:
    left, top, wide, high = facet.box
    for cloth in lying(plan, plan.panel(facet.sheet)):
        x1, y1, x2, y2 = box_of(cloth.outline)
        if x2 <= left or x1 >= left + wide or y2 <= top or y1 >= top + high:
            continue
        shape = cut_by(facet.corners, cloth.outline)
        if len(shape) > 2:
            yield Cloth(shape, cloth.print, cloth.key, cloth.turned)


def lit_on(plan: Plan, stand: Stand, panel: str, place: Place) -> Iterator[Item]:
    """What is picked on a panel, lit where it lies on the bag; nothing where it is out of sight."""
    sewn = plan.sewn
    x, y, wide, high = place.x, place.y, place.width, place.height
    pad = 0.06  # of an inch, so that a line is seen
    box = rectangle(x - pad, y - pad, wide + 2 * pad, high + 2 * pad)
    for one in shown(sewn, poses_for(sewn, stand), stand):
        if one.piece[0] == panel and one.right_side:
            shape = cut_by(sewn.facet(one.piece).corners, box)
            if len(shape) > 2:
                placed = Placed((), one.affine)
                outline = tuple(placed.at(point) for point in shape)
                yield Shade(outline, "glow")
                yield Line(outline, "picked", closed=True)


# -- what hangs on it ---------------------------------------------------------------


def _hangs(
    plan: Plan, sewn: Sewn, poses: Mapping[Piece, Pose], stand: Stand
) -> Iterator[tuple[float, list[Item]]]:
    """Straps, loops and cords, each with how far before the bag's middle it begins."""
    cloth = plan.project.print_of(bound_print(plan.project))
    high = max(
        (point[1] for piece, pose in poses.items() for point in sewn.outline(piece, pose)),
        default=1.0,
    )
    for hang in sewn.net.hangs:
        ends = [place_on(sewn, poses, *end) for end in hang.ends]
        curve = _curve(hang, ends[0], ends[1], high)
        points = tuple(stand.drawn(point) for point in curve)
        depth = (stand.seen(ends[0])[2] + stand.seen(ends[1])[2]) / 2
        if hang.key == "cord":
            yield depth, [Line(points, "cord")]
        else:
            band = _band(points, float(hang.wide))
            yield depth, [Cloth(band, cloth), Line(band, "raw", closed=True)]


def place_on(
    sewn: Sewn, poses: Mapping[Piece, Pose], sheet: str, copy: int, at: tuple[Inches, Inches]
) -> Space:
    """Where a place on a sheet lies, by the facet that is nearest to it."""
    point = float(at[0]), float(at[1])

    def off(facet: Facet) -> float:
        x, y, wide, high = facet.box
        return hypot(
            max(x - point[0], point[0] - x - wide, 0.0), max(y - point[1], point[1] - y - high, 0.0)
        )

    facet = min(sewn.facets[sheet], key=off)
    return poses[sheet, copy, facet.number].at(point)


def _curve(hang: Hang, start: Space, end: Space, high: float) -> list[Space]:
    """An arch upwards between two ends, a loop or a tail hanging from one."""
    long = float(hang.long)
    apart = sqrt(sum((a - b) ** 2 for a, b in zip(start, end, strict=True)))
    if apart < 0.1:
        return _loop(start, long, hang.key == "cord")
    rise = apart * sqrt(max(3 / 8 * (long / apart - 1), 0.01))
    rise = min(rise, high * RISE)
    across = minus(end, start)
    return [
        plus(plus(start, across, t), (0.0, 1.0, 0.0), 4 * rise * t * (1 - t))
        for t in (step / STEPS for step in range(STEPS + 1))
    ]


def _loop(at: Space, long: float, tail: bool) -> list[Space]:
    side = 1.0 if at[0] >= 0 else -1.0
    if tail:
        return [
            at,
            plus(at, (side * long / 12, -long / 5, 0.0)),
            plus(at, (side * 0.2, -long / 2, 0.0)),
        ]
    wide, deep = long / 7, long / 2.4
    return [
        plus(at, (side * wide * sin(t), -deep * (1 - cos(t)) / 2, 0.0))
        for t in (2 * pi * step / STEPS for step in range(STEPS + 1))
    ]


def _band(points: tuple[Point, ...], wide: float) -> tuple[Point, ...]:
    """A ribbon about a line."""
    one: list[Point] = []
    other: list[Point] = []
    for at, (x, y) in enumerate(points):
        (x1, y1), (x2, y2) = points[max(at - 1, 0)], points[min(at + 1, len(points) - 1)]
        long = hypot(x2 - x1, y2 - y1) or 1.0
        nx, ny = (y1 - y2) / long * wide / 2, (x2 - x1) / long * wide / 2
        one.append((x + nx, y + ny))
        other.append((x - nx, y - ny))
    return (*one, *reversed(other))


# -- what it holds, and its sizes -----------------------------------------------------


def _corners(plan: Plan) -> tuple[float, float, float]:
    """How wide, high and deep it stands."""
    sizes = [float(figure.value) for figure in plan.bag.finished]
    if plan.bag.words[0] == "long":
        return sizes[0], sizes[2], sizes[1]
    return sizes[0], sizes[1], sizes[2] if len(sizes) > 2 else 0.0


def _frame(wide: float, high: float, deep: float, lift: float) -> list[tuple[Space, Space]]:
    """The edges of a box in the middle of the ground."""
    xs, ys, zs = (-wide / 2, wide / 2), (lift, lift + high), (-deep / 2, deep / 2)
    found: list[tuple[Space, Space]] = []
    for x in xs:
        for y in ys:
            found.append(((x, y, zs[0]), (x, y, zs[1])))
        for z in zs:
            found.append(((x, ys[0], z), (x, ys[1], z)))
    for y in ys:
        for z in zs:
            found.append(((xs[0], y, z), (xs[1], y, z)))
    return found


def _held(plan: Plan, sewn: Sewn, stand: Stand) -> Iterator[Item]:
    """What the bag must hold, dashed as if one saw through its walls."""
    hold = plan.project.hold
    if not hold.minded:
        return
    held = plan.brief.held
    wide, high, deep = (float(f.value) for f in (held.width, held.height, held.thickness))
    if plan.bag.words[0] == "long":
        high, deep = deep, high
    if not plan.bag.boxed:
        deep = 0.0
    edges = _frame(wide, high, deep, float(plan.wall.value))
    towards = 1 if stand.seen((0.0, 0.0, 1.0))[2] >= 0 else -1
    front = {stand.drawn(p) for edge in edges for p in edge if p[2] * towards >= 0}
    drawn = {tuple(sorted((stand.drawn(a), stand.drawn(b)))) for a, b in edges}
    for start, end in sorted(drawn):
        if hypot(start[0] - end[0], start[1] - end[1]) > 1e-6:
            near = start in front and end in front
            yield Line((start, end), "object" if near else "fold")
    middle = stand.drawn((0.0, high * 0.42, deep / 2))
    yield Label(middle, held_name(hold), chip=True)


def _sizes(plan: Plan, sewn: Sewn, stand: Stand) -> Iterator[Dimension]:
    """The finished sizes along the edges nearest to the one who looks."""
    read = plan.marks.notation.read_off
    wide, high, deep = _corners(plan)
    told = list(zip(plan.bag.finished, plan.shape.finished_keys, strict=True))
    if plan.bag.words[0] == "long":
        told = [told[0], told[2], told[1]]

    def along(start: Space, end: Space, at: int, lane: float) -> Dimension:
        figure, key = told[at]
        words = read(figure.value)
        return Dimension(stand.drawn(start), stand.drawn(end), words, lane, size=key)

    front = deep / 2 if stand.seen((0.0, 0.0, 1.0))[2] >= 0 else -deep / 2
    left, right = (-wide / 2, 0.0, front), (wide / 2, 0.0, front)
    if stand.drawn(left)[0] > stand.drawn(right)[0]:
        left, right = right, left
    if abs(stand.drawn(right)[0] - stand.drawn(left)[0]) > 0.1:
        yield along(left, right, 0, 1.4)
    yield along(plus(left, (0.0, high, 0.0)), left, 1, -1.0)
    if deep:
        behind = (right[0], 0.0, -front)
        if dist(stand.drawn(right), stand.drawn(behind)) > 0.4:
            yield along(right, behind, 2, 0.9)


def moved(items: tuple[Item, ...], dx: float, dy: float, by: float = 1.0) -> tuple[Item, ...]:
    """The same items elsewhere in the picture, so many times as large."""
    return tuple(_moved(item, dx, dy, by) for item in items)


def _moved(item: Item, dx: float, dy: float, by: float) -> Item:
    def to(point: Point) -> Point:
        return point[0] * by + dx, point[1] * by + dy

    if isinstance(item, Cloth):
        return Cloth(tuple(map(to, item.outline)), item.print, item.key, item.turned)
    if isinstance(item, Shade):
        return Shade(tuple(map(to, item.outline)), item.tone, item.key, item.share)
    if isinstance(item, Line):
        return Line(tuple(map(to, item.points)), item.stroke, item.closed, item.key)
    if isinstance(item, Placed):
        a, b, c, d, e, f = (value * by for value in item.affine)
        return Placed(item.items, (a, b, c, d, e + dx, f + dy))
    if isinstance(item, Dimension):
        return replace(item, start=to(item.start), end=to(item.end))
    if isinstance(item, Label):
        return Label(to(item.at), item.text, item.align, item.strong, item.chip)
    return item
