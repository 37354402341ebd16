"""What the rooms of making share: gates by name, edges and lengths of seams, first guesses."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from itertools import zip_longest

from tessil.core.bag.deeds import Deed, Gate, Operation, Tool
from tessil.core.bag.ids import JoinKey
from tessil.core.bag.model import Bag, Edge, EdgeRef, edge_long
from tessil.core.bag.net import Seam, Side, named_seams
from tessil.core.bag.steps import Step
from tessil.core.memory.once import once
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given, total

OPEN_ZIP = Gate("zip-open", "zip open")
PULL_IN = Gate("pull-inside", "pull inside")
SNAP_IN = Gate("snap-first", "snap in")
TEETH_TO_LINING = Gate("lining-right", "linings right")
GAP_LEFT = Gate("gap-left", "gap left")
UPRIGHT = Gate("upright", "prints upright")
CAUGHT = Gate("caught", "layers caught")
CLIPPED = Gate("clipped", "clipped")
MIDDLES_MEET = Gate("middles-meet", "middles meet")
NOT_CLOSED = Gate("not-closed", "lining closed", holds=False)
FLAP_ON = Gate("flap-in-seam", "flap on")
PIPED = Gate("piping-first", "piping on")
COOL = Gate("cool-iron", "iron set")


FRONT = "front trimmed as one"


def minutes(value: int | Fraction) -> Figure:
    """A first guess of how long a step takes, before any log: common practice, no source."""
    return given("a first guess", Fraction(value), Basis.GUESS, power=0).called("minutes")


class Sewing(Record, frozen=True):
    """One seam of the sewn model: its edges on either side, what it takes, how long it is."""

    slug: str
    key: JoinKey
    one: tuple[EdgeRef, ...]
    other: tuple[EdgeRef, ...]
    allowance: Figure
    length: Figure

    @property
    def panels(self) -> tuple[str, ...]:
        """Its panels, each once: the one that lies on top first, then the one below it."""
        rows = zip_longest(self.one, self.other)
        return tuple(dict.fromkeys(ref.panel for row in rows for ref in row if ref is not None))

    @property
    def edges(self) -> tuple[tuple[str, str], ...]:
        """Its edges, panel by panel, by their slugs."""
        return edges_of((*self.one, *self.other))


def edges_of(refs: Iterable[EdgeRef]) -> tuple[tuple[str, str], ...]:
    """Edges panel by panel, by their slugs."""
    return tuple(dict.fromkeys((ref.panel, ref.edge.slug) for ref in refs))


@once
def sewings_of(bag: Bag) -> tuple[Sewing, ...]:
    """Every seam of the sewn model once; a seam told in parts is one, each box corner its own."""
    tapes = {tape.key for tape in bag.net.tapes}
    groups: dict[str, list[Seam]] = {}
    for slug, seam in named_seams(bag.net):
        groups.setdefault(slug, []).append(seam)
    return tuple(_sewing(bag, slug, groups, tapes) for slug in groups)


def _sewing(bag: Bag, slug: str, groups: Mapping[str, Sequence[Seam]], tapes: set[str]) -> Sewing:
    seams = groups[slug]
    one = [side for seam in seams for side in seam.one if side.sheet not in tapes]
    other = [side for seam in seams for side in seam.other if side.sheet not in tapes]
    if not one:  # a tape on the side that is told first
        one, other = other, []
    edge = edge_of(bag, one[0].sheet, one[0].edge.slug)
    terms = [_side_long(bag, side) for side in one]
    crossed = [
        taken
        for name, others in groups.items()
        if name != slug
        for seam in others
        for taken in _crossed(bag, seam, one)
    ]
    long = total(terms) if not crossed else total(terms) - total(crossed)
    if seams[0].key.what == "box corner":  # it is sewn from fold to fold, past both its cut ends
        long = long + 2 * edge.allowance
    return Sewing(
        slug=slug,
        key=seams[0].key,
        one=tuple(EdgeRef(side.sheet, side.edge) for side in one),
        other=tuple(EdgeRef(side.sheet, side.edge) for side in other),
        allowance=edge.allowance,
        length=long.called("along the edge"),
    )


def _crossed(bag: Bag, seam: Seam, along: Sequence[Side]) -> list[Figure]:
    """What another seam has taken of edges that run on from one to the next across it: a bag's
    side over the seam of its band, a boxed corner over the bottom seam."""
    crossing = []
    for half in (seam.one, seam.other):
        met = [(side, one) for side in half for one in along if _meet(bag, one, side)]
        crossing += met[:1]
    if len(crossing) < 2 or crossing[0][1] == crossing[1][1]:
        return []
    return [edge_of(bag, side.sheet, side.edge.slug).allowance for side, _ in crossing]


def _meet(bag: Bag, one: Side, other: Side) -> bool:
    """Whether two edges are neighbours on one panel."""
    if one.sheet != other.sheet:
        return False
    sheet = next(sheet for sheet in bag.net.sheets if sheet.panel == one.sheet)
    keys = [edge.key for edge in sheet.edges]
    if one.edge not in keys or other.edge not in keys:
        return False
    apart = abs(keys.index(one.edge) - keys.index(other.edge))
    return apart in (1, len(keys) - 1)


def edge_of(bag: Bag, panel: str, slug: str) -> Edge:
    """An edge as it is sewn: corners that are drawn and not cut are edges there too.  Raises
    KeyError if there is none."""
    for sheet in bag.net.sheets:
        for edge in sheet.edges if sheet.panel == panel else ():
            if edge.key.slug == slug:
                return edge
    raise KeyError(f"{panel} has no edge {slug}")


def _side_long(bag: Bag, side: Side) -> Figure:
    if side.part is not None:
        return given("edge", abs(side.part[1] - side.part[0]), Basis.GEOMETRY)
    return edge_long(edge_of(bag, side.sheet, side.edge.slug))


def from_steps(
    steps: Iterable[Step],
    prefix: str,
    operation: Operation,
    panels: tuple[str, ...],
    needs: tuple[str, ...],
    gives: tuple[str, ...],
    tool: Tool = "",
) -> tuple[Deed, ...]:
    """Steps told elsewhere as steps of making, one after the other; the last gives what is so."""
    made: list[Deed] = []
    rows, seen = list(steps), Counter[str]()
    for at, step in enumerate(rows):
        seen[step.what] += 1  # by its kind, not by its place: others may come before it
        id_ = f"{prefix}.{step.what}" + (f".{seen[step.what]}" if seen[step.what] > 1 else "")
        wait = needs if not made else (f"done:{made[-1].id}",)
        ends = gives if at == len(rows) - 1 else ()
        made.append(
            Deed(
                id=id_,
                what=step.what,
                operation=operation,
                panels=panels,
                tool=tool,
                needs=wait,
                gives=(f"done:{id_}", *ends),
                values=step.values,
                minutes=minutes(3),
            )
        )
    return tuple(made)
