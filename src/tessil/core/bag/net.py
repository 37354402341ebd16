"""How the panels of a bag fold and join: all that a shape says of its form in space.

Where panels turn and which edges meet; everything else about the finished bag follows from it (see
``core/sewn``).  Lengths are exact inches on the trimmed panel, turns whole degrees, positive
towards the wrong side, as the outside of a bag turns.
"""

from __future__ import annotations

from typing import Literal

from tessil.core.bag.ids import EdgeKey, JoinKey
from tessil.core.bag.model import Edge, ExactPoint
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure

LOSE_NOTHING = ("bound", "free")  # edges at which the bag is as large as its panel
FLAT, SQUARE, OVER = 0, 90, 180  # degrees: straight on, round a corner, folded together


class Crease(Record, frozen=True):
    """A straight line on a panel where the finished bag turns; ``at`` how far down or across the
    panel it lies, where that is told."""

    start: ExactPoint
    end: ExactPoint
    turn: int
    opens: bool = False  # lies straight when the bag is open
    at: Figure | None = None


class Sheet(Record, frozen=True):
    """A panel as it is sewn: its edges, boxed corners left out whether or not they are cut off,
    and its creases.  ``copies`` of it are in the bag."""

    panel: str
    edges: tuple[Edge, ...]
    creases: tuple[Crease, ...] = ()
    copies: int = 1


class Tape(Record, frozen=True):
    """The zipper that shows between two edges: a strip as long as they are, ``turn`` in its
    middle where it lies over a fold, square turns ``ends`` in from either end."""

    key: str
    length: Inches
    width: Inches
    turn: int = FLAT
    ends: Inches | None = None


class Side(Record, frozen=True):
    """An edge of one copy of a sheet or tape, or a part of it from one place to another clockwise:
    so far down the panel on its left or right, so far across it at its top or bottom."""

    sheet: str
    edge: EdgeKey
    copy: int = 0
    part: tuple[Inches, Inches] | None = None


class Seam(Record, frozen=True):
    """Edges that lie on edges: those of ``one`` in a row on those of ``other``.

    ``turn`` is how far the other turns away from going straight on; a ``hinge`` holds the other's
    sheet while the bag is folded up from flat.  ``ease`` is how much longer one side may be.  What
    ``opens`` lies straight when the bag is open.
    """

    key: JoinKey
    one: tuple[Side, ...]
    other: tuple[Side, ...]
    turn: int = FLAT
    hinge: bool = False
    ease: Inches | None = None
    opens: bool = False


class Hang(Record, frozen=True):
    """A strap, handle, loop or cord: where its two ends are sewn on, each on a copy of a sheet, how
    long it is between them and how wide; not ``sewn`` where it hangs on something else, ``on_face``
    where no edge catches it."""

    key: str
    ends: tuple[tuple[str, int, ExactPoint], tuple[str, int, ExactPoint]]
    long: Inches
    wide: Inches
    sewn: bool = True
    on_face: bool = False


Facing = Literal["front", "back", "down"]


class Net(Record, frozen=True):
    """All sheets and tapes of the outside of a bag, their seams, and the facet that keeps still:
    the one on which ``still`` lies, facing the front, the back or down."""

    sheets: tuple[Sheet, ...]
    seams: tuple[Seam, ...]
    still: tuple[str, ExactPoint]
    tapes: tuple[Tape, ...] = ()
    hangs: tuple[Hang, ...] = ()
    mouth: Inches | None = None  # how deep it is at the top when it is closed, if less than below
    facing: Facing = "front"


def named_seams(net: Net) -> tuple[tuple[str, Seam], ...]:
    """Every seam with the slug of the work that sews it: a seam told in parts is sewn as one, each
    box corner by itself."""
    named: list[tuple[str, Seam]] = []
    for seam in net.seams:
        slug = seam.key.slug
        if seam.key.what == "box corner":
            number = len({one for one, _ in named if one == slug or one.startswith(f"{slug}:")})
            slug = f"{slug}:{number + 1}" if number else slug
        named.append((slug, seam))
    return tuple(named)
