"""What the rooms of making share: gates by name, edges and lengths of seams, first guesses."""

from __future__ import annotations

from collections.abc import Iterable

from tessil.core.bag.model import Bag, EdgeRef, Join
from tessil.core.bag.steps import Step
from tessil.core.making.deeds import Deed, Gate, Operation, Tool
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Basis, Figure, given, total

OPEN_ZIP = Gate("zip-open", "zip open")
PULL_IN = Gate("pull-inside", "pull inside")
SNAP_IN = Gate("snap-first", "snap in")
POCKETS_ON = Gate("pockets-first", "pockets on")
FOLD_IN = Gate("fold-inside", "strap looked at")
UNTWISTED = Gate("untwisted", "strap untwisted")
TEETH_TO_LINING = Gate("lining-right", "linings right")
GAP_LEFT = Gate("gap-left", "gap left")
UPRIGHT = Gate("upright", "prints upright")
CAUGHT = Gate("caught", "layers caught")
CLIPPED = Gate("clipped", "clipped")
CENTRED = Gate("centred", "zip centred")
BOXED = Gate("boxed", "corners boxed")
NOT_CLOSED = Gate("not-closed", "lining closed", holds=False)
FLAP_ON = Gate("flap-in-seam", "flap on")
PIPED = Gate("piping-first", "piping on")
COOL = Gate("cool-iron", "iron set")


def minutes(value: int | Fraction) -> Figure:
    """A first guess of how long a step takes, before any log: common practice, no source."""
    return given("a first guess", Fraction(value), Basis.GUESS).called("minutes")


def edges_of(refs: Iterable[EdgeRef]) -> tuple[tuple[str, str], ...]:
    """The edges of a join, panel by panel, by their slugs."""
    return tuple((ref.panel, ref.edge.slug) for ref in refs)


def long_of(bag: Bag, refs: Iterable[EdgeRef]) -> Figure:
    """How long a run of edges is, raw, as far as it is straight."""
    terms = [given("edge", _edge_long(bag, ref), Basis.GEOMETRY) for ref in refs]
    return total(terms).called("along the edge")


def _edge_long(bag: Bag, ref: EdgeRef) -> Inches:
    edge = bag.panel(ref.panel).edge(ref.edge)
    across, down = abs(edge.end[0] - edge.start[0]), abs(edge.end[1] - edge.start[1])
    return max(across, down) if not across or not down else Fraction(across + down)


def panels_of(join: Join) -> tuple[str, ...]:
    """The panels of a join, each once: the one that lies on top first."""
    return tuple(dict.fromkeys(ref.panel for ref in (*join.one, *join.other)))


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
    rows = list(steps)
    for at, step in enumerate(rows):
        id_ = f"{prefix}.{at}.{step.what}"
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
