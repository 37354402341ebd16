"""The general model of a bag in pieces: panels, their edges, joins, folds and matches.

Every shape speaks it, and every later question (what is sewn to what, what must be equal,
what ends upside-down) is asked of it.  Lengths are exact inches on the *trimmed* panel,
origin at its top left corner, x to the right, y downwards, outlines clockwise as drawn.
"""

from __future__ import annotations

from math import lcm
from typing import TYPE_CHECKING, Literal, NamedTuple

from tessil.core.bag.ids import ENDS, EdgeKey, FigureId, JoinKey
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, exact_root
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side
from tessil.core.numbers.workings import Basis, Figure, given

if TYPE_CHECKING:
    from tessil.core.bag.net import Net

ExactPoint = tuple[Inches, Inches]
JoinKind = Literal["seam", "zip", "corner", "folded"]  # folded: each side closed on itself
FoldKey = Literal["bottom", "top", "flap", "upper", "lower"]
Finish = Literal["seam", "bound", "turned", "zip", "free"]


class Edge(Record, frozen=True):
    """One side of an outline, from its start to the next corner.

    ``allowance`` is what the seam along it takes; ``finish`` what becomes of it.
    """

    key: EdgeKey
    start: ExactPoint
    end: ExactPoint
    finish: Finish
    allowance: Figure


def edge_long(edge: Edge) -> Figure:
    """How long an edge is, straight or slanted."""
    across, down = edge.end[0] - edge.start[0], edge.end[1] - edge.start[1]
    return given("edge", exact_root(across**2 + down**2), Basis.GEOMETRY)


class Fold(Record, frozen=True):
    """A line on a panel where the finished bag turns."""

    name: FoldKey
    start: ExactPoint
    end: ExactPoint


class Notch(Record, frozen=True):
    """A corner that is boxed: its two legs, where they meet, and what seams take of each.

    ``side_leg`` runs along x from the raw side edge, ``other_leg`` along y from a raw edge, a
    fold, or a zipper's raw edge (``meets``).  The sewn edges agree when each leg less what
    its seam takes is alike.  ``cut`` is False where the square is only drawn or pinched.
    The place is inches on the trimmed panel.
    """

    name: str
    side_leg: Figure
    other_leg: Figure
    side_takes: Inches
    other_takes: Inches
    meets: Literal["seam", "fold", "zip"]
    x: Inches
    y: Inches
    width: Inches
    height: Inches
    cut: bool = True

    @property
    def agrees(self) -> bool:
        return self.side_leg.value - self.side_takes == self.other_leg.value - self.other_takes


class Panel(Record, frozen=True):
    """One panel of the bag at its trimmed size.

    ``like`` names the panel whose choices it shares until it is given its own; ``kind``
    tells outer panels (pieced, layered, quilted) from linings and plain parts (cut from one
    cloth or sheet).
    """

    key: str
    label: str
    kind: Literal["outer", "lining", "plain"]
    width: Figure
    height: Figure
    edges: tuple[Edge, ...]
    folds: tuple[Fold, ...] = ()
    notches: tuple[Notch, ...] = ()
    like: str = ""
    copies: int = 1
    made_of: str = ""  # a material of the catalogue, where it is no cloth with a print
    spare: Figure | None = None  # cut longer by so much at its free sides, trimmed with the others

    @property
    def area(self) -> Inches:
        """Area of the trimmed outline in square inches, by its corners."""
        if len(self.edges) == 4 and not self.notches:
            (x1, y1), (x2, y2) = self.edges[0].start, self.edges[2].start
            if self.edges[0].start[1] == self.edges[0].end[1]:
                return abs((x2 - x1) * (y2 - y1))
        # In whole numbers over one denominator: an outline with curves has many corners.
        over = lcm(*(value.denominator for point in self.outline for value in point))
        points = [
            (x.numerator * (over // x.denominator), y.numerator * (over // y.denominator))
            for x, y in self.outline
        ]
        pairs = zip(points, (*points[1:], points[0]), strict=True)
        return Fraction(abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in pairs)), 2 * over**2)

    @property
    def outline(self) -> tuple[ExactPoint, ...]:
        return tuple(edge.start for edge in self.edges)

    def edge(self, key: EdgeKey) -> Edge:
        """The edge of that key; raises KeyError if the panel has none."""
        for edge in self.edges:
            if edge.key == key:
                return edge
        raise KeyError(f"{self.key} has no edge {key}")

    def side(self, side: str) -> Edge:
        """The edge, or the first half of it, on a side: left, right, top or bottom."""
        for edge in self.edges:
            if edge.key.plain and edge.key.side == side:
                return edge
        raise KeyError(f"{self.key} has no edge on its {side}")


class EdgeRef(Record, frozen=True):
    """An edge of a panel, as one part of a join."""

    panel: str
    edge: EdgeKey


class Join(Record, frozen=True):
    """Edges sewn to edges: the two runs must have the same sewn length.

    ``raw`` are the seams it leaves raw inside, where they are not as long as its edges: none where
    it is turned or bound outside.
    """

    key: JoinKey
    one: tuple[EdgeRef, ...]
    other: tuple[EdgeRef, ...]
    allowance: Figure
    kind: JoinKind = "seam"
    raw: tuple[Figure, ...] | None = None


class Match(Record, frozen=True):
    """A panel that must follow another: what the leader becomes, it becomes."""

    leader: str
    follower: str
    rule: str


Box = tuple[Inches, Inches, Inches, Inches]  # x, y, width, height


StripEnds = Literal["seam", "face", "below", "ring", "tied"]


class Attachment(Record, frozen=True):
    """A strip made into something: strap, handle, tab, cord; ``cut`` is its cut width, ``ends``
    what becomes of its ends: caught in a seam, sewn on the face, through rings, or tied."""

    key: str
    label: str
    length: Figure
    cut: Figure
    number: int
    cloth: bool = True
    ends: StripEnds = "seam"


class ZipperNeed(Record, frozen=True):
    """The zipper a shape takes: the seam it spans and the length to buy at least.  Where its teeth
    begin or end ``inside`` the seam at the left or right, it spans so much less."""

    spans: Figure
    length: Figure
    between: Figure  # room between the seam lines at its ends
    inside: tuple[Figure, Figure] | None = None

    @property
    def opens(self) -> Figure:
        """How far it can be opened."""
        if self.inside is None:
            return self.between
        opens = self.between
        for room in self.inside:
            opens = opens - room if room.value else opens
        return opens.called("zipper opens")

    @property
    def free(self) -> tuple[Side, ...]:
        """The ends where no seam meets it."""
        return tuple(
            side for side, room in zip(ENDS, self.inside or (), strict=False) if room.value
        )


class FlapNeed(Record, frozen=True):
    """A flap: how far it comes down the front, and where both halves of a snap are marked.

    ``lands`` is measured from the front's top edge.  Halves are measured on the trimmed panel:
    the male one, on what lines the flap, ``sign`` × offset from ``male_from``, the female one
    ``sign`` × its distance below the top edge from ``female_from``.
    """

    lands: Figure
    panel: str
    male_panel: str
    male_from: Figure
    female_panel: str
    female_from: Figure
    male_sign: int
    female_sign: int
    narrower: Figure | None = None  # than the opening, where it is a panel of its own


class Assembled(Record, frozen=True):
    """A front of several parts once they are sewn together and trimmed as one: the template of what
    lies behind it.  What was measured of it stands with the ``leader`` among its parts."""

    leader: str
    width: Figure
    height: Figure


class BoundEdge(Record, frozen=True):
    """An edge with a binding of its own, or with a ``tape`` lapped over it: how long one strip is,
    how many of them, how many walls lie under it, which edges of panels, its parts from corner to
    corner."""

    key: Literal["sides", "zipper", "flap", "top", "right", "bottom", "left"]
    label: str
    length: Figure
    number: Figure
    walls: int
    edges: tuple[EdgeRef, ...]
    parts: tuple[Inches, ...] = ()  # from corner to corner, where it mitres some
    tape: bool = False

    @property
    def corners(self) -> int:
        """How many it mitres."""
        return max(len(self.parts) - 1, 0)


class BagFigure(NamedTuple):
    """A figure that a bag tells of itself, by its id."""

    id: FigureId
    figure: Figure


class Bag(Record, frozen=True):
    """A bag in pieces, with the size it will have and what it offers inside.

    ``finished`` has two sizes for a flat bag, three for a boxed one; ``words`` names them.
    ``opening`` is what a binding goes round, closed in a ring if ``loop``.
    """

    shape: str
    panels: tuple[Panel, ...]
    joins: tuple[Join, ...]
    matches: tuple[Match, ...]
    finished: tuple[Figure, ...]
    inside: tuple[BagFigure, ...]
    net: Net  # how its panels fold and join
    figures: tuple[BagFigure, ...] = ()
    attachments: tuple[Attachment, ...] = ()
    zipper: ZipperNeed | None = None
    flap: FlapNeed | None = None
    opening: Figure | None = None
    loop: bool = False
    eyelets: int = 0  # through which cords come out
    assembled: Assembled | None = None
    bound: tuple[BoundEdge, ...] = ()  # edges with strips of their own
    corners: int = 0  # that are boxed
    corner: Figure | None = None  # how long the seam of each is; as the bag is deep if not said
    raw: tuple[Figure, ...] = ()  # further seams that are raw inside, once corners are trimmed
    words: tuple[str, ...] = ("wide", "high", "deep")

    @property
    def boxed(self) -> bool:
        return len(self.finished) == 3

    @property
    def floor(self) -> tuple[Figure, Figure] | None:
        """How long and how deep its base is; None for a flat bag."""
        if not self.boxed:
            return None
        rest = zip(self.finished[1:], self.words[1:], strict=True)
        return self.finished[0], next(size for size, word in rest if word != "high")

    @property
    def panel_kinds(self) -> set[str]:
        """Which kinds of panels it has."""
        return {panel.kind for panel in self.panels}

    @property
    def has_bottom_seam(self) -> bool:
        """Whether a seam runs along its bottom."""
        return any(join.key.what == "seam" and join.key.side == "bottom" for join in self.joins)

    def figure(self, wanted: FigureId) -> Figure | None:
        """What it tells of itself under that id, if it does."""
        return next((told.figure for told in self.figures if told.id == wanted), None)

    def panel(self, key: str) -> Panel:
        """The panel of that key; raises KeyError if there is none."""
        for panel in self.panels:
            if panel.key == key:
                return panel
        raise KeyError(f"no panel {key!r}")
