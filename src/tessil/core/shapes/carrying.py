"""How a bag is carried: a strap, handles, a wrist loop, a handle across an end, on every shape.

Where their ends go follows from the bag in space: the highest place of a side seam, the edges that
lie open or along the zipper.  Knows nets and their seams; must not know which shape it is.
Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cached_property

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS
from tessil.core.bag.model import Attachment, Bag, Edge, ExactPoint, StripEnds
from tessil.core.bag.net import Hang, Sheet, Side
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side as Way
from tessil.core.numbers.workings import Basis, given
from tessil.core.sewn.placing import Sewn
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.shapes.carry_choices import ROOM, fields_of, options_of
from tessil.core.trouble import CannotPlan

RIM = ("bound", "turned", "seam", "zip")  # what may become of an edge that handles are caught in
SIDE_SEAMS = ("seam", "end", "edge")
FINE = 4096  # parts of an inch to which a height in space is read


def carrying(shape: Shape) -> Shape:
    """The shape with all ways of carrying it."""

    def build(brief: Brief, sizes: Sizes) -> Bag:
        return carried(shape.build(brief, sizes), brief, sizes)

    return replace(
        shape,
        options=(*shape.options, *options_of(shape.carries, shape.begins)),
        fields=(*shape.fields, *fields_of(shape.carries, shape.starts)),
        build=build,
        bare=shape.build,
    )


def carried(bag: Bag, brief: Brief, sizes: Sizes) -> Bag:
    """The bag with all that it is carried by; raises CannotPlan where there is no room for it."""
    hung = tuple(_Carrying(bag, brief, sizes).all())
    if not hung:
        return bag
    return replace(
        bag,
        attachments=(*bag.attachments, *(part for part, _ in hung)),
        net=replace(bag.net, hangs=(*bag.net.hangs, *(one for _, on in hung for one in on))),
    )


class Start(Record, frozen=True):
    """The highest place of a side seam on a sheet, and which way it goes down from there."""

    sheet: str
    copy: int
    at: ExactPoint
    down: int
    room: Inches
    other: bool  # of the other row of its seam
    falls: bool  # whether it goes down in space
    score: tuple[float, ...]

    def beside(self, best: Start) -> bool:
        """Whether another part of the same seam begins there and goes the other way."""
        level = self.score[:2] == best.score[:2] and self.other == best.other
        return level and (self.sheet, self.down) != (best.sheet, best.down)

    def below(self, by: Inches) -> End:
        return self.sheet, self.copy, (self.at[0], self.at[1] + self.down * by)


class Rim(Record, frozen=True):
    """An open top edge, or one along the zipper: where its middle is sewn, which way is down."""

    sheet: str
    copy: int
    middle: ExactPoint
    half: Inches  # from the middle to where its sides are sewn
    down: int


Hung = tuple[Attachment, tuple[Hang, ...]]


class _Carrying:
    """All that one bag is carried by."""

    def __init__(self, bag: Bag, brief: Brief, sizes: Sizes) -> None:
        self.bag, self.options, self.sizes = bag, brief.options, sizes

    def all(self) -> Iterator[Hung]:
        chosen = self.options
        if chosen.get("strap") == "one":
            yield from self.strap()
        if chosen.get("handles") == "pair":
            yield self.handles()
        if chosen.get("wrist") == "loop":
            yield self.wrist()
        if chosen.get("end") in ("one", "both"):
            yield self.end_handles()
        if chosen.get("tabs") in ("right", "both"):
            yield self.end_tabs()

    def strip(
        self, key: str, label: str, size: str, number: int, ends: StripEnds = "seam"
    ) -> Attachment:
        """A strip cut four times as wide as it ends."""
        cut = (4 * self.sizes[f"{size}_width"]).called(f"{label.lower()}, cut")
        return Attachment(key, label, self.sizes[f"{size}_length"], cut, number, ends=ends)

    def hang(
        self, key: str, size: str, ends: Ends, long: Inches | None = None, sewn: bool = True
    ) -> Hang:
        wide = self.sizes[f"{size}_width"].value
        return Hang(
            key, ends, self.sizes[f"{size}_length"].value if long is None else long, wide, sewn
        )

    # -- what there is ------------------------------------------------------------

    def strap(self) -> Iterator[Hung]:
        below = self.sizes["strap_below"].value
        left, right = (self.place(way, below, "strap_below") for way in ENDS)
        how = self.options["strap_ends"]
        sewn = how == "sides"
        ends: StripEnds = "seam" if sewn else ("ring" if how == "rings" else "tied")
        part = self.strip("strap", "Strap", "strap", 1, ends)
        yield part, (self.hang("strap", "strap", (left, right), sewn=sewn),)
        if not sewn:
            label = "Ring tabs" if how == "rings" else "Tie loops"
            tabs = tuple(
                Hang("tabs", (at, at), _TAB.value, TAB_CUT.value / 4) for at in (left, right)
            )
            yield Attachment("tabs", label, _TAB, TAB_CUT, 2), tabs

    def handles(self) -> Hung:
        how = self.options["handle_ends"]
        down = self.sizes["handle_down"].value if how != "top" else 0
        rims = self.rims()
        if len(rims) != 2:
            raise CannotPlan(
                "shape.options.handles",
                "This bag has no top edge on both sides for a pair of handles: give it a strap.",
            )
        # Below the edge a quarter is sewn at each end, twice over as it is flipped up.
        below = how == "below"
        long = self.looped("handle") if below else self.sizes["handle_length"].value
        hangs = tuple(
            replace(
                self.hang("handles", "handle", _apart(rim, self.off(rim), Fraction(down)), long),
                on_face=how != "top",
            )
            for rim in rims
        )
        return self.strip("handles", "Handles", "handle", 2, _HANDLE_ENDS[how]), hangs

    def off(self, rim: Rim) -> Inches:
        """From the middle of the bag to the middle of a handle's end."""
        face, at = self.bag.finished[0].value, self.sizes["handle_at"].value
        how = self.options["handle_set"]
        off = {"quarter": face / 4, "centre": at, "sides": face / 2 - at, "seams": rim.half - at}[
            how
        ]
        half = self.sizes["handle_width"].value / 2
        if not half <= off <= rim.half - half:
            where = "shape.sizes.handle_at" if how != "quarter" else "shape.sizes.handle_width"
            raise CannotPlan(where, "Set so, handles lie in a seam or on each other.")
        return off

    def wrist(self) -> Hung:
        below = self.sizes["wrist_below"].value
        way: Way = "left" if self.options["wrist_side"] == "left" else "right"
        at = self.place(way, below, "wrist_below")
        part = self.strip("wrist", "Wrist strap", "wrist", 1)
        return part, (self.hang("wrist", "wrist", (at, at), self.looped("wrist")),)

    def by_zipper(self, start: Start) -> tuple[float, ...]:
        """By the zipper first, which may end below the top of the side; on a quilted panel."""
        outer = any(p.key == start.sheet and p.kind == "outer" for p in self.bag.panels)
        return start.score[1], outer, *start.score

    def looped(self, size: str) -> Inches:
        """How long a loop is whose two ends lie in a seam."""
        long = self.sizes[f"{size}_length"].value - 1
        if long <= 0:
            raise CannotPlan(f"shape.sizes.{size}_length", "Its ends in the seam take all of it.")
        return long

    def end_handles(self) -> Hung:
        """Across an end: where two parts of a seam begin together, one end on each."""
        apart, ways = (
            self.sizes["end_apart"].value,
            ENDS if self.options["end"] == "both" else ENDS[1:],
        )
        if apart >= self.sizes["end_length"].value:
            raise CannotPlan(
                "shape.sizes.end_apart", "So far apart its ends are wider than the handle is long."
            )
        hangs = []
        for way in ways:
            starts = self.starts(way, apart / 2)
            best = starts[0]
            other = next((one for one in starts[1:] if one.beside(best)), None)
            if best.score[1] and other is not None:  # both beside the zipper
                ends = best.below(apart / 2), other.below(apart / 2)
            else:
                ends = (
                    self.place(way, ROOM, "end_apart"),
                    self.place(way, ROOM + apart, "end_apart"),
                )
            hangs.append(self.hang("end", "end", ends))
        return self.strip("end", "End handle", "end", len(hangs)), tuple(hangs)

    def end_tabs(self) -> Hung:
        """Folded in two, in the side seams where the zipper ends."""
        hangs = []
        for way in ENDS if self.options["tabs"] == "both" else ENDS[1:]:
            starts = self.starts(way, Fraction(0))
            at = max(starts, key=self.by_zipper).below(Fraction(0))
            hangs.append(self.hang("end-tabs", "tab", (at, at), self.looped("tab")))
        return self.strip("end-tabs", "Zipper end tabs", "tab", len(hangs)), tuple(hangs)

    # -- where it goes --------------------------------------------------------------

    def place(self, way: Way, below: Inches, field: str) -> End:
        """On a side so far below the top of the bag, on the panel that lies there."""
        found = self.starts(way, below)
        for one in found:
            above = found[0].score[0] - one.score[0]
            by = below - Fraction(round(above * FINE), FINE)
            if 0 <= by <= one.room and (one.falls or not above):
                return one.below(by)
        raise CannotPlan(f"shape.sizes.{field}", "The side of this bag is not so long.")

    def starts(self, way: Way, below: Inches) -> list[Start]:
        """Both ends of every seam on that side of the bag, seen from the front, the best first: as
        high as can be, beside the zipper, with room below, on the panel's own side."""
        parts = self.parts
        middle = sum(part.x for part in parts) / max(len(parts), 1)
        aside = [part for part in parts if (part.x > middle) == (way == "right")]
        found = [start for part in aside for start in part.ends(below)]
        return sorted(found, key=lambda one: one.score, reverse=True)

    @cached_property
    def parts(self) -> list[Part]:
        """Every part of a seam at the sides, where it stands in space."""
        net = self.bag.net
        sewn = Sewn(net)
        poses, sheets = sewn.placed(), {sheet.panel: sheet for sheet in net.sheets}
        found = []
        for seam in net.seams:
            if seam.key.what not in SIDE_SEAMS or seam.key.side not in ENDS:
                continue
            for other, row in enumerate((seam.one, seam.other)):
                for side in row:
                    if side.sheet in sheets and side.edge.plain:
                        first, *_, last = sewn.along(side, 4, poses)
                        own, x = side.edge.side == seam.key.side, (first[0] + last[0]) / 2
                        heights = first[1], last[1]
                        found.append(Part(sheets[side.sheet], side, bool(other), own, x, heights))
        return found

    def rims(self) -> list[Rim]:
        """The edges round the bag's opening, front and back."""
        net, flap = self.bag.net, self.bag.flap
        sewn_on = {
            (side.sheet, side.copy, side.edge)
            for seam in net.seams
            if seam.key.what not in ("flap", "zipper")
            for side in (*seam.one, *seam.other)
        }
        return [
            _rim(sheet, copy, edge)
            for sheet in net.sheets
            if flap is None or sheet.panel != flap.panel
            for copy in range(sheet.copies)
            for edge in sheet.edges
            if edge.key.plain
            and edge.key.side in ("top", "bottom")
            and edge.finish in RIM
            and (sheet.panel, copy, edge.key) not in sewn_on
        ]


_TAB = given("ring tab, cut length", 3, Basis.PRACTICE)
TAB_CUT = given("ring tab, cut", Fraction(5, 2), Basis.PRACTICE)
_HANDLE_ENDS: Mapping[str, StripEnds] = {"top": "seam", "face": "face", "below": "below"}
End = tuple[str, int, ExactPoint]
Ends = tuple[End, End]


def _apart(rim: Rim, off: Inches, down: Inches) -> Ends:
    """Both ends of a handle, so far from the middle and so far below the edge."""
    (x, y), by = rim.middle, rim.down * down
    return (rim.sheet, rim.copy, (x - off, y + by)), (rim.sheet, rim.copy, (x + off, y + by))


def _rim(sheet: Sheet, copy: int, edge: Edge) -> Rim:
    (x0, y), (x1, _) = edge.start, edge.end
    low, high = min(x0, x1), max(x0, x1)
    down = 1 if edge.key.side == "top" else -1
    beside = [e.allowance.value for e in sheet.edges if e.key.side in ENDS and _meets(e, edge)]
    half = (high - low) / 2 - max(beside, default=Fraction(0))
    return Rim(sheet.panel, copy, ((low + high) / 2, y + down * edge.allowance.value), half, down)


def _meets(one: Edge, other: Edge) -> bool:
    return bool({one.start, one.end} & {other.start, other.end})


class Part(Record, frozen=True):
    """A part of a side seam: on which sheet, in which row of its seam, whether by the panel's own
    side, how far to the right and how high both its ends stand."""

    sheet: Sheet
    side: Side
    other: bool
    own: bool
    x: float
    heights: tuple[float, float]

    def ends(self, below: Inches) -> Iterator[Start]:
        """Both ends, each with what may lie below it."""
        sheet, side = self.sheet, self.side
        edge = next(one for one in sheet.edges if one.key == side.edge)
        allowed = edge.allowance.value
        x = edge.start[0] + (allowed if edge.key.side == "left" else -allowed)
        first, last = side.part or _sewn_span(sheet, edge)
        long = max(max(one.start[1], one.end[1]) for one in sheet.edges)
        one, two = self.heights
        for y, far, high, low in ((first, last, one, two), (last, first, two, one)):
            down = 1 if far > y else -1
            room = long - y if down > 0 else y
            zipped = any(one.finish == "zip" and _near(one, edge, y) for one in sheet.edges)
            enough = room >= below + ROOM
            score = (round(high, 3), zipped, enough, self.own, -float(y))
            falls = low < high
            yield Start(side.sheet, side.copy, (x, y), down, room, self.other, falls, score)


def _near(level: Edge, edge: Edge, y: Inches) -> bool:
    """Whether an edge meets the side there."""
    return _meets(level, edge) and abs(level.start[1] - y) <= level.allowance.value


def _sewn_span(sheet: Sheet, edge: Edge) -> tuple[Inches, Inches]:
    """A side from stitch line to stitch line, in the order of its edge."""
    found: list[Inches] = []
    for point, sign in ((edge.start, 1), (edge.end, -1)):
        level = [
            one.allowance.value
            for one in sheet.edges
            if one is not edge
            and point in (one.start, one.end)
            and one.start[1] == one.end[1]
            and one.key.plain
        ]
        way = sign if edge.end[1] > edge.start[1] else -sign
        found.append(point[1] + way * max(level, default=Fraction(0)))
    return found[0], found[1]
