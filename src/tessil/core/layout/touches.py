"""Which pieces touch which: on their panel, across seams, and as the bag is worn.

Reads the seams of the sewn model and the pieced tops.  Two outlines that both run clockwise, as
panels seen from outside do, are always sewn against each other's direction; so a place t along one
run meets L − t on the other.  Knows no prints and no rules.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from math import hypot
from typing import Literal, NamedTuple

from tessil.core.bag.ids import ENDS, EdgeKey
from tessil.core.bag.model import Bag, Edge
from tessil.core.bag.net import Net, Sheet, Side
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import box_of
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.panels.panel import PanelPlan
from tessil.core.sewn.faces import Look

Kind = Literal["side", "corner", "join", "worn"]
NEAR = 1e-6
LEAST = 1 / 16  # pieces that meet along less than this are not seen to meet
AWAY = 0.06  # how far inside an edge a piece is looked for

At = tuple[float, float]
Stretch = list[tuple[float, float, "Ref"]]  # from, to, which piece, along a sewn run


class Ref(NamedTuple):
    """One piece on one panel.  ``owner`` is the panel whose choices it shares, so that pieces
    of panels pieced alike are the same decision."""

    panel: str
    owner: str
    zone: int
    piece: int

    @property
    def decision(self) -> tuple[str, int, int]:
        return self.owner, self.zone, self.piece


class Touch(Record, frozen=True):
    """Two pieces that touch, and how."""

    one: Ref
    other: Ref
    kind: Kind


class EdgeLine(NamedTuple):
    """One edge of a trimmed outline, in floats."""

    key: EdgeKey
    start: At
    end: At
    allowance: float


class Seen(NamedTuple):
    """A face of the bag in floats: x, y, width and height on the panel and in the look."""

    panel: str
    source: tuple[float, ...]
    target: tuple[float, ...]
    turned: bool


class Reach(NamedTuple):
    """A stretch of an edge that goes into a seam, in inches from where the edge begins."""

    panel: str
    edge: EdgeLine
    begin: float
    end: float


class Laid(Record, frozen=True):
    """The geometry of one panel's pieces on its trimmed outline; quick to hash, for the cache."""

    panel: str
    edges: tuple[EdgeLine, ...]
    refs: tuple[Ref, ...]
    outlines: tuple[Outline, ...]


def laid_of(panel: PanelPlan, owner: str, rimmed: bool) -> Laid:
    """The pieces of a panel that have a print of their own; with its rim, if what lies beyond
    it is asked for."""
    pieces = [patch for patch in panel.patches if patch.piece >= 0 and not panel.panel.made_of]
    return Laid(
        panel=panel.key,
        edges=tuple(_edge_line(edge) for edge in panel.panel.edges) if rimmed else (),
        refs=tuple(Ref(panel.key, owner, patch.zone, patch.piece) for patch in pieces),
        outlines=tuple(patch.on_panel for patch in pieces),
    )


def _edge_line(edge: Edge) -> EdgeLine:
    (x1, y1), (x2, y2) = edge.start, edge.end
    return EdgeLine(
        edge.key, (float(x1), float(y1)), (float(x2), float(y2)), float(edge.allowance.value)
    )


Sewn = tuple[tuple[Reach, ...], tuple[Reach, ...]]


@lru_cache(maxsize=16)
def touches(
    laid: tuple[Laid, ...], seams: tuple[Sewn, ...], looks: tuple[tuple[Seen, ...], ...]
) -> tuple[Touch, ...]:
    """Everything that touches; each pair of pieces once, by the closest way they touch."""
    found: dict[tuple[Ref, Ref], Kind] = {}

    def note(one: Ref, other: Ref, kind: Kind) -> None:
        if one == other:  # a piece that goes round the fold is one piece
            return
        key = (one, other) if _order(one) <= _order(other) else (other, one)
        if key not in found or (found[key] == "corner" and kind != "corner"):
            found[key] = kind

    by_key = {entry.panel: entry for entry in laid}
    nets = {entry.panel: Cells(entry.outlines) for entry in laid}
    for entry in laid:
        for one, other, kind in _within(entry, nets[entry.panel]):
            note(one, other, kind)
    for seam in seams:
        for one, other in _joined(by_key, seam):
            note(one, other, "join")
    for look in looks:
        for one, other in _worn(by_key, nets, look):
            note(one, other, "worn")
    return tuple(Touch(one, other, kind) for (one, other), kind in found.items())


def touches_of(bag: Bag, looks: tuple[Look, ...], laid: tuple[Laid, ...]) -> tuple[Touch, ...]:
    """Everything that touches in a bag."""
    seams = tuple(_sewn(bag.net))
    worn = tuple(
        tuple(Seen(face.panel, face.source, face.target, face.turned) for face in look.faces)
        for look in looks
        if look.side != "open"
    )
    return touches(laid, seams, worn)


def _sewn(net: Net) -> Iterator[Sewn]:
    """The seams in which cloth meets cloth: neither a zipper's tape nor a binding lies between."""
    sheets = {sheet.panel: sheet for sheet in net.sheets}
    for seam in net.seams:
        if all(side.sheet in sheets for side in (*seam.one, *seam.other)):
            one, other = (
                [edge for side in row for edge in _edges(sheets[side.sheet], side)]
                for row in (seam.one, seam.other)
            )
            if not all(edge.finish == "bound" for _, edge, _ in (*one, *other)):
                yield tuple(map(_reach, one)), tuple(map(_reach, other))


Sewing = tuple[str, Edge, tuple[Inches, Inches] | None]


def _edges(sheet: Sheet, side: Side) -> Iterator[Sewing]:
    """The edges of a sheet that a side of a seam is made of; of a curve all its short ones."""
    for edge in sheet.edges:
        if edge.key.run == side.edge.run:
            yield sheet.panel, edge, side.part


def _reach(sewing: Sewing) -> Reach:
    panel, edge, part = sewing
    line = _edge_line(edge)
    if part is None:
        return Reach(panel, line, 0.0, _length(line))
    way = 1 if edge.key.side in ENDS else 0  # so far down at the sides, so far across else
    begin, end = (abs(float(place) - line.start[way]) for place in part)
    return Reach(panel, line, begin, end)


def _order(ref: Ref) -> tuple[str, int, int]:
    return ref.panel, ref.zone, ref.piece


# -- on one panel -----------------------------------------------------------------


class Cells:
    """The pieces of a panel by the squares of a coarse net in which they lie."""

    def __init__(self, outlines: tuple[Outline, ...]) -> None:
        self.boxes = [box_of(outline) for outline in outlines]
        spans = sum(b[2] - b[0] + b[3] - b[1] for b in self.boxes)
        self.size = max(spans / (2 * len(self.boxes)), 0.1) if self.boxes else 1.0
        self.cells: dict[tuple[int, int], list[int]] = {}
        for at, (x1, y1, x2, y2) in enumerate(self.boxes):
            for across in range(self._cell(x1 - NEAR), self._cell(x2 + NEAR) + 1):
                for down in range(self._cell(y1 - NEAR), self._cell(y2 + NEAR) + 1):
                    self.cells.setdefault((across, down), []).append(at)

    def _cell(self, place: float) -> int:
        return int(place // self.size)

    def at(self, point: At) -> list[int]:
        """The pieces that may lie at a point."""
        return self.cells.get((self._cell(point[0]), self._cell(point[1])), [])

    def pairs(self) -> Iterator[tuple[int, int]]:
        """Pieces whose boxes touch, each pair once."""
        seen: set[tuple[int, int]] = set()
        for members in self.cells.values():
            for place, one in enumerate(members):
                a1, a2, a3, a4 = self.boxes[one]
                for other in members[place + 1 :]:
                    b1, b2, b3, b4 = self.boxes[other]
                    if a3 < b1 - NEAR or b3 < a1 - NEAR or a4 < b2 - NEAR or b4 < a2 - NEAR:
                        continue
                    if (one, other) not in seen:
                        seen.add((one, other))
                        yield one, other


def _level(outline: Outline) -> bool:
    """Whether a piece is a rectangle standing straight."""
    if len(outline) != 4:
        return False
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = outline
    return (ay == by and bx == cx and cy == dy and dx == ax) or (
        ax == bx and by == cy and cx == dx and dy == ay
    )


def _within(laid: Laid, cells: Cells) -> Iterator[tuple[Ref, Ref, Kind]]:
    level = [_level(outline) for outline in laid.outlines]
    for one, other in cells.pairs():
        met: float | None
        if level[one] and level[other]:  # boxes that touch: along the longer overlap
            a, b = cells.boxes[one], cells.boxes[other]
            across = min(a[2], b[2]) - max(a[0], b[0])
            met = max(across, min(a[3], b[3]) - max(a[1], b[1]), 0.0)
        else:
            met = meeting(laid.outlines[one], laid.outlines[other])
        if met is not None:
            yield laid.refs[one], laid.refs[other], "side" if met > LEAST else "corner"


def meeting(one: Outline, other: Outline) -> float | None:
    """Along how much of their boundary two polygons that do not overlap meet: 0 at a corner
    alone, None not at all."""
    best: float | None = None
    for a, b in zip(one, (*one[1:], one[0]), strict=True):
        dx, dy = b[0] - a[0], b[1] - a[1]
        length = hypot(dx, dy)
        if length < NEAR:
            continue
        ux, uy = dx / length, dy / length
        for c, d in zip(other, (*other[1:], other[0]), strict=True):
            off_c = ux * (c[1] - a[1]) - uy * (c[0] - a[0])
            off_d = ux * (d[1] - a[1]) - uy * (d[0] - a[0])
            if abs(off_c) > 1e-5 or abs(off_d) > 1e-5:
                continue
            t_c = ux * (c[0] - a[0]) + uy * (c[1] - a[1])
            t_d = ux * (d[0] - a[0]) + uy * (d[1] - a[1])
            shared = min(length, max(t_c, t_d)) - max(0.0, min(t_c, t_d))
            if shared > -1e-5:
                best = max(best or 0.0, shared)
    return best


# -- across seams -------------------------------------------------------


def _inner(edge: EdgeLine, t: float) -> At:
    """A point a little inside an edge, t along it; outlines run clockwise as drawn."""
    (x1, y1), (x2, y2) = edge.start, edge.end
    length = hypot(x2 - x1, y2 - y1)
    ux, uy = (x2 - x1) / length, (y2 - y1) / length
    inside = edge.allowance + AWAY
    return x1 + ux * t - uy * inside, y1 + uy * t + ux * inside


def _length(edge: EdgeLine) -> float:
    (x1, y1), (x2, y2) = edge.start, edge.end
    return hypot(x2 - x1, y2 - y1)


def _holds(outline: Outline, at: At) -> bool:
    """Whether a point lies in a convex polygon, clockwise as drawn."""
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        if (bx - ax) * (at[1] - ay) - (by - ay) * (at[0] - ax) < -NEAR:
            return False
    return True


def _crossed(outline: Outline, start: At, end: At) -> tuple[float, float] | None:
    """Between which shares of a segment it runs inside a convex polygon."""
    low, high = 0.0, 1.0
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        a = (bx - ax) * (start[1] - ay) - (by - ay) * (start[0] - ax)
        b = (bx - ax) * (end[1] - ay) - (by - ay) * (end[0] - ax)
        if a < 0 and b < 0:
            return None
        if a < 0 or b < 0:
            share = a / (a - b)
            if a < 0:
                low = max(low, share)
            else:
                high = min(high, share)
    return (low, high) if high > low else None


def _along(laid: Laid, reach: Reach, offset: float) -> Stretch:
    """The pieces along a stretch of an edge, which lies ``offset`` into its run."""
    start, end = _inner(reach.edge, reach.begin), _inner(reach.edge, reach.end)
    length = reach.end - reach.begin
    found = []
    for ref, outline in zip(laid.refs, laid.outlines, strict=True):
        part = _crossed(outline, start, end)
        if part is not None:
            found.append((offset + part[0] * length, offset + part[1] * length, ref))
    return found


def _run(by_key: dict[str, Laid], row: tuple[Reach, ...]) -> tuple[Stretch, float]:
    offset, found = 0.0, []
    for reach in row:
        laid = by_key.get(reach.panel)
        if laid is None:
            return [], 0.0
        found += _along(laid, reach, offset)
        offset += reach.end - reach.begin
    return found, offset


def _meets(one: Stretch, other: Stretch) -> Iterator[tuple[Ref, Ref]]:
    for a1, a2, a in one:
        for b1, b2, b in other:
            if min(a2, b2) - max(a1, b1) > LEAST:
                yield a, b


def _joined(by_key: dict[str, Laid], seam: Sewn) -> Iterator[tuple[Ref, Ref]]:
    """What meets at a seam."""
    one, long = _run(by_key, seam[0])
    other, _ = _run(by_key, seam[1])
    yield from _meets(one, [(long - b2, long - b1, ref) for b1, b2, ref in other])


# -- as worn ----------------------------------------------------------------------


def _on_panel(face: Seen, at: At) -> At:
    """The point of the panel that shows at a point of the look."""
    sx, sy, w, h = face.source
    tx, ty, _, _ = face.target
    if face.turned:
        return sx + w - (at[0] - tx), sy + h - (at[1] - ty)
    return sx + at[0] - tx, sy + at[1] - ty


def _in_look(face: Seen, at: At) -> At:
    """Where a point of the panel shows in the look."""
    sx, sy, w, h = face.source
    tx, ty, _, _ = face.target
    if face.turned:
        return tx + w - (at[0] - sx), ty + h - (at[1] - sy)
    return tx + at[0] - sx, ty + at[1] - sy


def _showing(
    by_key: dict[str, Laid], nets: dict[str, Cells], faces: tuple[Seen, ...], at: At
) -> Ref | None:
    """The piece seen at a point of a look: the last face that is there lies on top."""
    for face in reversed(faces):
        tx, ty, w, h = face.target
        if not (tx <= at[0] <= tx + w and ty <= at[1] <= ty + h):
            continue
        laid = by_key.get(face.panel)
        point = _on_panel(face, at)
        if laid is None or not _in_outline(laid, point):
            continue
        for at_piece in nets[face.panel].at(point):
            if _holds(laid.outlines[at_piece], point):
                return laid.refs[at_piece]
        return None
    return None


def _in_outline(laid: Laid, at: At) -> bool:
    found = False
    for edge in laid.edges:
        (x1, y1), (x2, y2) = edge.start, edge.end
        if (y1 > at[1]) != (y2 > at[1]) and at[0] < (x2 - x1) * (at[1] - y1) / (y2 - y1) + x1:
            found = not found
    return found


def _worn(
    by_key: dict[str, Laid], nets: dict[str, Cells], faces: tuple[Seen, ...]
) -> Iterator[tuple[Ref, Ref]]:
    """What is seen side by side where one part of the bag lies on another."""
    counts: dict[tuple[Ref, Ref], int] = {}
    step = LEAST * 2
    for face in faces[1:]:
        laid = by_key.get(face.panel)
        if laid is None:
            continue
        for edge in laid.edges:
            length = _length(edge)
            for at in range(int(length / step)):
                inner = _in_look(face, _inner(edge, (at + 0.5) * step))
                outer_edge = _outer(edge, (at + 0.5) * step)
                outer = _in_look(face, outer_edge)
                one = _showing(by_key, nets, faces, inner)
                other = _showing(by_key, nets, faces, outer)
                if one is not None and other is not None and one != other:
                    counts[one, other] = counts.get((one, other), 0) + 1
    yield from (pair for pair, times in counts.items() if times > 1)


def _outer(edge: EdgeLine, t: float) -> At:
    """A point a little outside the finished edge, t along it."""
    (x1, y1), (x2, y2) = edge.start, edge.end
    length = hypot(x2 - x1, y2 - y1)
    ux, uy = (x2 - x1) / length, (y2 - y1) / length
    outside = AWAY - edge.allowance
    return x1 + ux * t + uy * outside, y1 + uy * t - ux * outside
