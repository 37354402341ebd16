"""How thick it gets under the foot: at every seam, crossing, corner, tab and bound edge.

Read off the bag model: what is joined to what, which layers the seam catches, how often they lie
folded there.  Pressed thickness is typical, from memory (the catalogue); the counting is
geometry; the advice on needles is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import partial
from math import dist
from typing import Literal

from tessil.core.bag.ids import ENDS, EdgeKey
from tessil.core.bag.model import Edge, ExactPoint, Join, Panel
from tessil.core.brief.choice import ZipSet
from tessil.core.catalogue import Material
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import Vector
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side
from tessil.core.numbers.workings import Basis, Figure, count, from_mm, total
from tessil.core.trimming.choice import Mark
from tessil.core.words.names import join_name, side_name

SHORT_EDGE = 0.75  # parts of a rounded corner are not shown one by one
TAB_CLOTH = 8  # a strip folded in four, looped through its ring
STRAP_CLOTH = 4
# What is sewn on by its mark: how many layers of cloth it is, and what it is called.
TABS = {"d-ring": (TAB_CLOTH, "ring tab"), "ribbon": (1, "ribbon")}
BINDING_CLOTH = 4  # two layers of a folded binding in front, two behind


class Advice(Record, frozen=True):
    """What to sew a thickness with; ``most`` is the thickest it is meant for, in mm."""

    most: Fraction
    needle: int
    words: str


ADVICE = (
    Advice(Fraction(2), 80, "needle 80/12, stitch 2.5"),
    Advice(Fraction(4), 90, "needle 90/14, stitch 3.0"),
    Advice(Fraction(6), 100, "needle 100/16, stitch 3.0 to 3.5, walking foot"),
    Advice(Fraction(1000), 110, "needle 110/18, by the hand wheel; hammer it, or make it thinner"),
)


def advice_for(thick_mm: Fraction) -> Advice:
    """What to sew that many millimetres with."""
    return next(entry for entry in ADVICE if thick_mm <= entry.most)


SpotKind = Literal["edge", "patch", "box", "mitre", "top", "tab", "hung", "base"]
HUNG = {
    "strap": "strap",
    "handles": "handle",
    "wrist": "wrist loop",
    "end": "end handle",
    "tabs": "ring tab",
    "end-tabs": "zipper end tab",
}
NEAR = 1.0  # inches: what is sewn on so near to an edge goes into its seam


class Spot(Record, frozen=True):
    """One place and how thick it is there, pressed under the foot.

    ``panels`` are those whose layers lie there; ``mark`` the tab that does, if one does;
    ``folded`` whether pressing seams open makes it thinner.
    """

    key: str
    kind: SpotKind
    panel: str
    label: str
    at: tuple[float, float]
    thick: Figure
    layers: int
    panels: tuple[str, ...]
    mark: int | None = None
    folded: bool = False

    @property
    def mm(self) -> Fraction:
        """Millimetres."""
        return self.thick.value * Fraction(254, 10)

    @property
    def advice(self) -> Advice:
        return advice_for(self.mm)


class Heap(Record, frozen=True):
    """Layers on top of each other, as a figure and by number."""

    thick: Figure
    layers: int

    def times(self, number: int, words: str) -> Heap:
        """So many of it."""
        if number == 1:
            return self
        return Heap(count(words, number, Basis.GEOMETRY) * self.thick, self.layers * number)

    def __add__(self, other: Heap) -> Heap:
        return Heap(self.thick + other.thick, self.layers + other.layers)


def _heap(materials: tuple[Material, ...], label: str) -> Heap:
    parts = [from_mm(entry.name.lower(), entry.pressed_mm, Basis.GUESS) for entry in materials]
    return Heap(total(parts).called(label, "mm"), len(parts))


# As thick as usual webbing is: from memory, common practice.
WEBBING = Heap(from_mm("webbing", Fraction(3, 2), Basis.GUESS), 1)


class Caught(Record, frozen=True):
    """What a seam catches of a panel: its name, and the layers that reach into the seam."""

    label: str
    materials: tuple[Material, ...]


class Hung(Record, frozen=True):
    """Ends of a strap or loop on a panel: of what, where, how many lie there, and whether they are
    sewn on its face and no edge catches them."""

    what: str
    at: ExactPoint
    ends: int
    on_face: bool


class BulkTask(Record, frozen=True):
    """What the counting of layers on one panel reads: all its layers, whether patchwork seams run
    into its edges and how they are pressed, its joins and what the panels there bring (itself
    among them), how the bag's seams are pressed, whether a lining lies inside, what else lies
    on each of its edges, the marks on it with their numbers, what hangs from it, whether its seams
    are piped; at which ends a zipper's tape is folded away."""

    panel: Panel
    layers: tuple[Material, ...]
    pieced: bool
    patch_press: Literal["open", "side"]
    shown: Mapping[Side, Inches]
    joins: tuple[Join, ...]
    caught: Mapping[str, Caught]
    materials: Mapping[str, Material]
    press: Literal["open", "side"]
    lined: bool
    met: Mapping[EdgeKey, tuple[str, ...]]
    marks: tuple[tuple[int, Mark], ...]
    hung: tuple[Hung, ...] = ()
    piped: tuple[Side, ...] = ()  # the sides along which a covered cord goes into its seams
    zip_on_fold: bool = False  # whether the zipper lies over the bag's top fold
    zip_set: ZipSet = "seam"
    zip_free: tuple[Side, ...] = ()
    webbing: bool = False  # whether straps are of it
    on_base: tuple[Material, ...] = ()  # what is sewn over or into the bottom seam


class _Bulk:
    """The places of one panel."""

    def __init__(self, task: BulkTask) -> None:
        self.task, self.panel = task, task.panel
        self.known = task.materials
        self.folds = 2 if task.press == "open" else 3
        self.joins = {
            (ref.panel, ref.edge): join for join in task.joins for ref in (*join.one, *join.other)
        }

    def in_seam(self, key: str) -> Heap:
        """What a seam catches of a panel."""
        caught = self.task.caught[key]
        return _heap(caught.materials, f"{caught.label.lower()} in the seam")

    def lining(self) -> Heap | None:
        """The cloth of a lining that is dropped in; None without."""
        if not self.task.lined:
            return None
        return _heap((self.known["cotton"],), "lining")

    def partner(self, edge: Edge) -> tuple[Heap | None, tuple[str, ...], str]:
        """What an edge is sewn to, whose layers those are, and the name of the seam."""
        join: Join | None = self.joins.get((self.panel.key, edge.key))
        if join is None:
            return self.lining(), (), f"{side_name(edge.key)} seam"
        refs = (*join.one, *join.other)
        others = [ref.panel for ref in refs if (ref.panel, ref.edge) != (self.panel.key, edge.key)]
        other = others[0] if others else self.panel.key
        return self.in_seam(other), (other,), join_name(join.key)

    # -- the places --------------------------------------------------------------

    def spots(self) -> Iterator[Spot]:
        for edge in self.panel.edges:
            if _length(edge) >= SHORT_EDGE and edge.finish != "free":
                yield from self.along(edge)
        yield from self.corners()
        yield from self.base()
        yield from self.tabs()
        yield from self.hung()

    def along(self, edge: Edge) -> Iterator[Spot]:
        """The seam along an edge, and where a patchwork seam runs into it."""
        heap, panels, name = self.edge_heap(edge)
        yield self.spot("edge", f"{edge.key.slug}", name, _point(edge, 0.5), heap, panels)
        short = name if edge.finish != "bound" else f"{side_name(edge.key)} edge"
        if not self.task.pieced or _length(edge) < 3:
            return
        press = self.task.patch_press
        more = 1 if press == "open" else 2
        cloth = _heap((self.task.layers[0],), "allowance of the patchwork seam")
        over = heap + cloth.times(more, "allowances")
        yield self.spot(
            "patch",
            f"{edge.key.slug}",
            f"patch seam, {short}",
            _point(edge, 0.25),
            over,
            panels,
            folded=press == "side",
        )

    def edge_heap(self, edge: Edge) -> tuple[Heap, tuple[str, ...], str]:
        own = self.in_seam(self.panel.key)
        if edge.finish == "bound":
            lining = self.lining()
            wall = own + lining if lining else own
            binding = _heap((self.known["cotton"],), "binding cloth")
            others, panels = self.on_top(edge)
            bound = wall + binding.times(BINDING_CLOTH, "layers of binding")
            for heap in others:
                bound = bound + heap
            return bound, (self.panel.key, *panels), f"bound {side_name(edge.key)} edge"
        if edge.finish == "zip":
            name = f"zipper, {side_name(edge.key)} edge"
            return self.by_zipper(), (self.panel.key,), name
        if edge.finish == "turned":
            lining = self.lining()
            both = own + lining if lining else own
            turned = both.times(2, "turned in")
            others, panels = self.on_top(edge)
            for heap in others:
                turned = turned + heap
            return (turned, (self.panel.key, *panels), f"{side_name(edge.key)} edge, turned in")
        other, panels, name = self.partner(edge)
        heap = own + other if other else own.times(2, "turned in")
        if edge.key.side in self.task.piped and edge.finish == "seam":
            cover = _heap((self.known["cotton"],), "cover of the cord")
            heap = heap + cover.times(2, "layers of it")
        return heap, (self.panel.key, *panels), name

    def by_zipper(self, taped: bool = True) -> Heap:
        """An edge that the zipper is sewn to; without its tape where that is folded away."""
        own, lining = self.in_seam(self.panel.key), self.lining()
        heap = self.at_zipper(own + lining if lining else own)
        return heap + _heap((self.known["zipper-tape"],), "zipper tape") if taped else heap

    def at_zipper(self, cloth: Heap) -> Heap:
        """Folded where a seam takes the zipper; flat under a binding or a tape lapped over it."""
        over = _heap((self.known["cotton"],), "over its edge")
        if self.task.zip_set == "bound":
            return cloth + over.times(BINDING_CLOTH, "layers of binding")
        return cloth + over if self.task.zip_set == "lapped" else cloth.times(2, "folded")

    def on_top(self, edge: Edge) -> tuple[list[Heap], tuple[str, ...]]:
        """What else lies on an edge that is bound or turned in: the thickest of the panels there
        with its lining, and the tape of a zipper that ends there."""
        met = self.task.met.get(edge.key.run, ())
        panels = [key for key in met if key in self.task.caught and key != self.panel.key]
        heaps = []
        if panels:
            thickest = max(panels, key=lambda key: self.in_seam(key).thick.value)
            heaps.append(self.in_seam(thickest))
            lining = self.lining()
            if lining is not None:
                heaps.append(lining)
        tape = any(key not in self.task.caught for key in met)
        if tape and edge.key.side not in self.task.zip_free:
            heaps.append(_heap((self.known["zipper-tape"],), "zipper tape"))
        return heaps, tuple(panels)

    def corners(self) -> Iterator[Spot]:
        """The top edge over the side seams, and the boxed corners."""
        edges = self.panel.edges
        tops = [
            edge
            for edge in edges
            if edge.key == EdgeKey("top") and edge.finish in ("bound", "zip", "seam", "turned")
        ]
        for top in tops:
            yield from self.over_sides(top)
        seen: set[tuple[float, float]] = set()
        for notch in self.panel.notches:
            at = (float(notch.x + notch.width / 2), float(notch.y + notch.height / 2))
            if at in seen or notch.meets == "zip":
                continue
            seen.add(at)
            own = self.in_seam(self.panel.key)
            heap = own.times(2 * self.folds, "folded, both sides")
            yield self.spot(
                "box",
                f"{len(seen)}",
                "boxed corner, over the seam",
                at,
                heap,
                (self.panel.key,),
                folded=self.folds > 2,
            )

    def base(self) -> Iterator[Spot]:
        """The strip over the open bottom seam, or the sleeve of a stiffener in it."""
        bottoms = [edge for edge in self.panel.edges if edge.key == EdgeKey("bottom")]
        for edge in bottoms if self.task.on_base else ():
            own = self.in_seam(self.panel.key)
            over = _heap(self.task.on_base, "on the base")
            heap = own.times(2, "with its allowance") + over.times(2, "turned under")
            at, panels = _point(edge, 0.4), (self.panel.key,)
            yield self.spot("base", "bottom", "what lies on the base", at, heap, panels)

    def over_sides(self, top: Edge) -> Iterator[Spot]:
        upright = [edge for edge in self.panel.edges if edge.key.plain and edge.key.side in ENDS]
        sides = [edge for edge in upright if edge.finish == "seam"]
        bound_sides = [edge for edge in upright if edge.finish == "bound"]
        heap, panels, name = self.edge_heap(top)
        if top.finish == "bound" and bound_sides:
            binding = _heap((self.known["cotton"],), "binding cloth")
            mitred = heap + binding.times(BINDING_CLOTH, "more of it in the mitre")
            for edge in bound_sides:
                yield self.spot(
                    "mitre",
                    f"{edge.key.slug}",
                    "bound corner",
                    self.corner(top, edge.key.side),
                    mitred,
                    panels,
                )
        own = self.in_seam(self.panel.key)
        bare = self.by_zipper(taped=False) if top.finish == "zip" else heap
        if top.finish == "zip" and self.task.zip_on_fold:
            heap, bare = (one.times(2, "both edges on the fold") for one in (heap, bare))
            name = "zipper on the top fold"
        ends = {edge.key.side: edge for edge in reversed(sides)}
        folded = 2 if top.finish == "turned" else 1  # turned in, the allowances lie there twice
        for side in ends:
            lies = bare if side in self.task.zip_free else heap
            over = lies + own.times(folded * (self.folds - 1), "allowances of the side seam")
            yield self.spot(
                "top",
                f"{side}",
                f"{name}, {side} seam",
                self.corner(top, side),
                over,
                panels,
                folded=self.folds > 2,
            )

    def corner(self, top: Edge, side: str) -> tuple[float, float]:
        xs = sorted((float(top.start[0]), float(top.end[0])))
        return (xs[0] if side == "left" else xs[1]), float(top.start[1])

    def tabs(self) -> Iterator[Spot]:
        """Tabs and handle ends, in a seam or on the face."""
        width, shown = self.panel.width.value, self.task.shown
        for at, mark in self.task.marks:
            if mark.kind not in TABS:
                continue
            layers, name = TABS[mark.kind]
            strip = _heap((self.known["cotton"],), "folded strip")
            tab = strip.times(layers, "layers of the strip")
            own = self.in_seam(self.panel.key)
            in_side = mark.kind == "ribbon" or (
                mark.kind == "d-ring"
                and (mark.x < shown["left"] or mark.x > width - shown["right"])
            )
            where = "in the side seam" if in_side else "on the face"
            base = own.times(2, "both panels") if in_side else self.wall()
            yield self.spot(
                "tab",
                f"{at}",
                f"{name} {where}",
                (float(mark.x), float(mark.y)),
                base + tab,
                (self.panel.key,),
                mark=at,
            )

    def hung(self) -> Iterator[Spot]:
        """Where straps, handles and loops are sewn in: folded strips in a seam, under a binding or
        on the face."""
        for one in self.task.hung:
            what, at = one.what, (float(one.at[0]), float(one.at[1]))
            strap = self.strap(one.ends)
            near = min(self.panel.edges, key=partial(_held_by, what, at))
            panels: tuple[str, ...] = (self.panel.key,)
            heap, where = self.wall(), "on the face"
            if not one.on_face and _away(near, at) <= NEAR and near.finish != "free":
                heap, panels, name = self.edge_heap(near)
                where = f"in the {name}"
            of = f"{what}.{near.key.slug}.{round(at[0])}"
            yield self.spot("hung", of, f"{HUNG[what]} {where}", at, heap + strap, panels)

    def strap(self, ends: int) -> Heap:
        """What lies at the ends of a strap: cloth folded, or pressed in twice; webbing alone, since
        its cover stops short of them."""
        if self.task.webbing:
            return WEBBING.times(ends, "ends of the webbing")
        strip = _heap((self.known["cotton"],), "folded strip")
        return strip.times(STRAP_CLOTH * ends, "layers of the strip")

    def wall(self) -> Heap:
        return _heap(self.task.layers, f"{self.panel.label.lower()}, all layers")

    def spot(
        self,
        kind: SpotKind,
        of: str,
        label: str,
        at: tuple[float, float],
        heap: Heap,
        panels: tuple[str, ...],
        mark: int | None = None,
        folded: bool = False,
    ) -> Spot:
        return Spot(
            f"{self.panel.key}.{kind}.{of}",
            kind,
            self.panel.key,
            label,
            at,
            heap.thick.called(label, "mm"),
            heap.layers,
            panels,
            mark,
            folded,
        )


def _length(edge: Edge) -> float:
    return dist(_floats(edge.start), _floats(edge.end))


def _point(edge: Edge, share: float) -> tuple[float, float]:
    (x1, y1), (x2, y2) = edge.start, edge.end
    return float(x1) + share * float(x2 - x1), float(y1) + share * float(y2 - y1)


def _held_by(what: str, at: tuple[float, float], edge: Edge) -> tuple[bool, float]:
    """How likely an edge takes the end of a strap: all but handles go into the sides."""
    away = _away(edge, at)
    beside = what != "handles" and edge.key.side in ENDS and away <= NEAR
    return not beside, away


def _away(edge: Edge, at: Vector) -> float:
    """How far a point lies from an edge."""
    (x1, y1), (x2, y2) = _floats(edge.start), _floats(edge.end)
    dx, dy = x2 - x1, y2 - y1
    along = ((at[0] - x1) * dx + (at[1] - y1) * dy) / (dx * dx + dy * dy)
    share = min(max(along, 0.0), 1.0)
    return dist(at, (x1 + share * dx, y1 + share * dy))


def _floats(point: ExactPoint) -> Vector:
    return float(point[0]), float(point[1])


def spots_of(task: BulkTask) -> tuple[Spot, ...]:
    """How thick it gets round a panel, in the order of its edges."""
    return tuple(_Bulk(task).spots())


def thickest(spots: tuple[Spot, ...]) -> Spot | None:
    """The worst place of them."""
    return max(spots, key=lambda spot: spot.mm, default=None)
