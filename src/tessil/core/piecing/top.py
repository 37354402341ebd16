"""What every way of piecing is asked for, and what it answers.

A ``Wish`` names the size to reach and the choices; a ``Top`` is the pieced top that comes of
it: its size, its pieces in their places, what to cut, the order of sewing and the figures.
Knows sizes and choices; must not know shapes, quilting or how anything is drawn.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from msgspec.structs import replace

from tessil.core.bag.ids import CutKind
from tessil.core.bag.steps import Do, Step, one_by_one
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import box_of, boxed, shifted
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.sizes import Outline, Pair
from tessil.core.numbers.workings import Basis, Figure, count
from tessil.core.piecing.choice import MOST_PIECES, Piecing, Scrap, Surplus
from tessil.core.trouble import CannotPlan

Kind = Literal["piece", "sash", "border", "scrap"]
Where = Literal["", "whole", "across", "upright", "first", "second"]


class Patch(Record, frozen=True):
    """One piece where it shows on the pieced top, raw edges of the top included.

    ``piece`` is its place in the list of prints, −1 for one that has none of its own (border,
    sashing, scrap).  ``row`` and ``place`` count from 1, as on the layout page.
    """

    outline: Outline
    print: str
    piece: int
    row: int
    place: int
    name: str
    turned: bool = False
    locked: bool = False
    kind: Kind = "piece"
    zone: int = 0
    on_panel: Outline = ()  # where it lies on the trimmed panel, past its edges too

    @property
    def in_grid(self) -> bool:
        """Whether it has a row and a place in it."""
        return bool(self.row and self.place)

    def laid_at(self, on_panel: Outline) -> Patch:
        """The piece with its place on the trimmed panel; quicker than a general copy."""
        return Patch(
            self.outline,
            self.print,
            self.piece,
            self.row,
            self.place,
            self.name,
            self.turned,
            self.locked,
            self.kind,
            self.zone,
            on_panel,
        )


class CutPiece(Record, frozen=True):
    """Pieces of one size and print for one top."""

    what: CutKind
    print: str
    each: int
    width: Figure
    height: Figure
    scrap: int | None = None  # which of the list it is cut from


class Strips(Record, frozen=True):
    """Pieces side by side: ``across`` is what they make, ``surplus`` what it is over.

    ``cuts`` and ``kinds`` are all that is sewn in order, sashing and filling borders included;
    ``number`` counts the pieces proper and ``cut`` is the cut width of the first of them.
    """

    number: Figure
    cut: Figure
    along: Figure
    across: Figure
    surplus: Figure
    shows: Figure  # width of an inner piece between its seams
    cuts: tuple[Figure, ...]
    kinds: tuple[Kind, ...]
    keeps: Surplus = "both"  # which side is left whole when the surplus is trimmed

    def bands(self, seam: Inches) -> list[tuple[Inches, Inches]]:
        """From where to where each piece shows on the pieced top, raw edges included."""
        at, last, found = seam, len(self.cuts) - 1, []
        both = 2 * seam
        for i, cut in enumerate(self.cuts):
            end = at + cut.value - both
            found.append((at if i else at - seam, end + (seam if i == last else 0)))
            at = end
        return found

    @property
    def widest(self) -> Figure:
        """The widest of the pieces proper, as cut."""
        proper = [c for c, kind in zip(self.cuts, self.kinds, strict=True) if kind == "piece"]
        return max(proper, key=lambda cut: cut.value)

    @property
    def mixed(self) -> bool:
        return any(cut.value != self.cut.value for cut in self.cuts)


class TopLine(Record, frozen=True):
    """A figure of the piecing for the receipt, and what it measures on the top."""

    key: str
    figure: Figure
    about: str
    where: Where = ""


class Wish(Record, frozen=True):
    """What a way of piecing is asked for.  ``outline`` is the trimmed panel on the top."""

    choice: Piecing
    need: Pair
    outline: Outline
    seam: Figure
    marks: Rulers
    prints: tuple[str, ...]
    scraps: tuple[Scrap, ...]
    upright_only: frozenset[str]  # prints that must not be turned
    field: str  # dotted path of these choices, for complaints


class Top(Record, frozen=True):
    """A pieced top.  ``rows`` lie one below another, ``columns`` side by side."""

    size: Pair
    patches: tuple[Patch, ...]
    cuts: tuple[CutPiece, ...]
    lines: tuple[TopLine, ...]
    order: tuple[Step, ...]
    pieces: Figure
    piece_size: tuple[Figure, ...]
    rows: Strips | None = None
    columns: Strips | None = None
    left: tuple[str, ...] = ()  # what is over, in words
    border: Figure | None = None  # cut width of a border all round


def print_at(wish: Wish, piece: int, row: int = 0, place: int = 0, across: int = 0) -> str:
    """The print of a piece: as laid, or the basket's prints in turn, each row shifted."""
    laid = wish.choice.prints
    if not across:
        prints = laid or wish.prints
        return prints[piece % len(prints)]
    if laid and wish.choice.laid:
        rows = max(len(laid) // wish.choice.laid, 1)
        at = (row % rows) * wish.choice.laid + place % wish.choice.laid
        return laid[at % len(laid)]
    prints = laid or wish.prints
    shift = 2 if len(prints) > 4 else 1
    return prints[(place + shift * row) % len(prints)]


def laid_patch(
    wish: Wish, outline: Outline, piece: int, row: int, place: int, name: str, across: int = 0
) -> Patch:
    """A piece with its print as laid; ``across`` is how many stand in a full row."""
    at = _as_laid(wish, piece, row, place) if across else piece
    return Patch(
        outline=outline,
        print=print_at(wish, piece, row, place, across),
        piece=piece,
        row=row + 1,
        place=place + 1,
        name=name,
        turned=at in wish.choice.turned,
        locked=at in wish.choice.locked,
    )


def _as_laid(wish: Wish, piece: int, row: int, place: int) -> int:
    """The number a square had when the layout was made, by its row and place; −1 for a new one."""
    laid = wish.choice.laid
    if not laid:
        return piece
    return row * laid + place if place < laid else -1


def trimming(wish: Wish, outline: Outline, kind: Kind) -> Patch:
    """Border or sashing: in its own print, or the last of the basket."""
    cloth = wish.choice.border_print or wish.prints[-1]
    return Patch(outline, cloth, -1, 0, 0, "", kind=kind)


def cut_of(
    what: CutKind, patches: Iterable[Patch], width: Figure, height: Figure
) -> tuple[CutPiece, ...]:
    """What to cut for pieces of one size, print by print in order of appearance."""
    uses: dict[str, int] = {}
    for patch in patches:
        uses[patch.print] = uses.get(patch.print, 0) + 1
    return tuple(CutPiece(what, key, each, width, height) for key, each in uses.items())


def sewing_order(*deeds: Do) -> tuple[Step, ...]:
    """The order in which a top is sewn; which top it is, its panel knows."""
    return one_by_one("top", (), deeds)


def few_enough(wish: Wish, number: int, field: str) -> None:
    """Raise CannotPlan for more pieces than a panel can have."""
    if number > MOST_PIECES:
        raise CannotPlan(
            f"{wish.field}.{field}",
            f"That takes {number:,} pieces for one panel; {MOST_PIECES:,} at most: cut them "
            "larger.",
        )


def whole_cloth(wish: Wish) -> Top:
    """One cloth, cut to size."""
    width, height = wish.need.floats()
    outline: Outline = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    patch = laid_patch(wish, outline, 0, 0, 0, "1")
    return Top(
        size=wish.need,
        patches=(patch,),
        cuts=(),
        lines=(),
        order=sewing_order(Do("piece.whole")),
        pieces=count("pieces", 1, Basis.GEOMETRY),
        piece_size=(wish.need.width, wish.need.height),
    )


def placed(
    patches: Iterable[Patch],
    zone: int,
    dx: float,
    dy: float,
    box: tuple[float, float, float, float] | None = None,
) -> tuple[Patch, ...]:
    """Pieces moved to their zone, and cut to the box in which they show, if one is given."""
    found = []
    for patch in patches:
        outline = shifted(patch.outline, dx, dy)
        if box is not None:
            x1, y1, x2, y2 = box
            a, b, c, d = box_of(outline)
            if a < x1 or b < y1 or c > x2 or d > y2:
                outline = boxed(outline, x1, y1, x2 - x1, y2 - y1)
        if outline:
            found.append(replace(patch, outline=outline, zone=zone))
    return tuple(found)
