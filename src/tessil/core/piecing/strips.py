"""Pieces sewn side by side: how many, how wide, what is left over.

Strips on a panel, and the rows and columns of a grid.  Knows one panel's need across and
along the pieces.  ``T = n(w − 2s) + 2s`` for n pieces of cut width w with seam allowance s
(geometry).  Must not know shapes or quilting.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import cycle

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rows import Row, ToLay, fill_rows
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import (
    Basis,
    Figure,
    ceiling,
    count,
    floored,
    given,
    no_less,
    total,
    up_to,
)
from tessil.core.piecing.choice import Piecing, Surplus
from tessil.core.piecing.top import Kind, Strips
from tessil.core.trouble import CannotPlan

NARROWEST = Fraction(1, 4)
MOST = 200
ONE = count("piece", 1, Basis.GEOMETRY)


class Need(Record, frozen=True):
    """What a top must measure across its pieces and along them, and the piecing seam."""

    across: Figure
    along: Figure
    seam: Figure
    field: str  # dotted path of the panel's piecing choices, for complaints


class Joining(Record, frozen=True):
    """How pieces are chosen: by their cut width, their number, or widths in turn."""

    fixed: str
    cut: Inches
    count: int
    widths: tuple[Inches, ...]
    surplus: Surplus
    sash: Inches = Fraction(0)
    noun: str = "strip"
    field: str = "strip_cut"


def pieced_size(number: Figure, cut: Figure, seam: Figure) -> Figure:
    """What ``number`` strips of one cut width measure once sewn."""
    return number * (cut - 2 * seam) + 2 * seam


def strips_for(need: Figure, cut: Figure, seam: Figure) -> Figure:
    """The least number of strips that reach a size."""
    one = count("strip", 1, Basis.GEOMETRY)
    return no_less(ceiling((need - 2 * seam) / (cut - 2 * seam)), one)


def width_for(need: Figure, number: Figure, seam: Figure, mark: Figure) -> Figure:
    """The cut width at which ``number`` strips reach a size, up to a ruler mark."""
    return up_to((need - 2 * seam) / number + 2 * seam, mark)


def _check_cut(cut: Inches, need: Need, field: str, noun: str) -> None:
    shows = cut - 2 * need.seam.value
    if shows >= NARROWEST:
        return
    if field == "count":
        most = max(int((need.across.value - 2 * need.seam.value) / NARROWEST), 1)
        raise CannotPlan(
            f"{need.field}.count",
            f"So many {noun}s would each show less than ¼ in (6 mm): use {most} at most.",
        )
    raise CannotPlan(
        f"{need.field}.{field}",
        f"A {noun} this narrow goes into its two seams: cut it at least ¼ in (6 mm) wider than "
        "them.",
    )


def joined(cuts: Sequence[Figure], seam: Figure) -> Figure:
    """What pieces of unlike cut widths measure once sewn side by side."""
    many = count("pieces", len(cuts), Basis.GEOMETRY)
    return total(cuts) - 2 * (many - 1) * seam


def joining_of(choice: Piecing) -> Joining:
    """The joining of a panel made of strips."""
    return Joining(choice.fixed, choice.strip_cut, choice.count, choice.widths, choice.surplus)


def plan_joined(ask: Joining, need: Need, marks: Rulers) -> Strips:
    """Count or width of the pieces by what the maker fixed, and what they make.

    Raises CannotPlan when pieces would vanish in their seams or grow past reason.
    """
    if ask.fixed == "mixed":
        return _mixed(ask, need)
    if ask.sash:
        _check_cut(ask.sash, need, "sashing", "sashing strip")
    if ask.fixed == "count":
        return _counted(ask, need, marks)
    cut = given(f"{ask.noun}, cut", ask.cut)
    _check_cut(cut.value, need, ask.field, ask.noun)
    number = _number(ask, need, cut).called(f"{ask.noun}s")
    if number.whole > MOST:
        raise CannotPlan(
            f"{need.field}.{ask.field}",
            f"That takes {number.whole} {ask.noun}s for one panel: cut them wider.",
        )
    if ask.surplus == "border" and not ask.sash:
        return _filled(ask, need, marks, number, cut)
    if ask.surplus == "recut":
        cut = _recut(ask, need, number, marks).called(f"{ask.noun}, cut")
    return _sewn(ask, need, number, cut)


def _number(ask: Joining, need: Need, cut: Figure) -> Figure:
    if not ask.sash:
        return strips_for(need.across, cut, need.seam)
    sash = given("sashing, cut", ask.sash) - 2 * need.seam
    step = cut - 2 * need.seam + sash
    return no_less(ceiling((need.across - 2 * need.seam + sash) / step), ONE)


def _counted(ask: Joining, need: Need, marks: Rulers) -> Strips:
    number = count(f"{ask.noun}s", ask.count).called(f"{ask.noun}s")
    cut = _recut(ask, need, number, marks)
    bare = cut.value if ask.sash else (need.across.value - 2 * need.seam.value) / ask.count
    _check_cut(bare if ask.sash else bare + 2 * need.seam.value, need, "count", ask.noun)
    return _sewn(ask, need, number, cut.called(f"{ask.noun}, cut"))


def _recut(ask: Joining, need: Need, number: Figure, marks: Rulers) -> Figure:
    """The cut width at which so many come out even, sashing between them allowed for."""
    across = need.across
    if ask.sash and number.value > 1:
        sash = given("sashing, cut", ask.sash)
        across = across - (number - 1) * (sash - 2 * need.seam)
    return width_for(across, number, need.seam, marks.ruler)


def _sewn(ask: Joining, need: Need, number: Figure, cut: Figure) -> Strips:
    cuts: list[Figure] = [cut] * number.whole
    kinds: list[Kind] = ["piece"] * number.whole
    across = pieced_size(number, cut, need.seam)
    if ask.sash and number.value > 1:
        sash = given("sashing, cut", ask.sash)
        across = across + (number - 1) * (sash - 2 * need.seam)
        for at in range(number.whole - 1, 0, -1):
            cuts.insert(at, sash)
            kinds.insert(at, "sash")
    return _made(ask, need, number, tuple(cuts), tuple(kinds), across)


def _filled(ask: Joining, need: Need, marks: Rulers, number: Figure, cut: Figure) -> Strips:
    """As many whole ones as go in, and a border either side that makes up the rest."""
    whole = pieced_size(number, cut, need.seam)
    if whole.value == need.across.value:
        return _sewn(ask, need, number, cut)
    fits = floored((need.across - 2 * need.seam) / (cut - 2 * need.seam))
    number = no_less(fits, ONE).called(f"{ask.noun}s")
    inner = pieced_size(number, cut, need.seam)
    if inner.value >= need.across.value:
        return _sewn(ask, need, number, cut)
    fill = up_to((need.across - inner) / 2 + 2 * need.seam, marks.ruler).called("border, cut")
    cuts = (fill, *[cut] * number.whole, fill)
    whole_ones: list[Kind] = ["piece"] * number.whole
    kinds: tuple[Kind, ...] = ("border", *whole_ones, "border")
    return _made(ask, need, number, cuts, kinds, inner + 2 * (fill - 2 * need.seam))


def _mixed(ask: Joining, need: Need) -> Strips:
    """Widths in turn until they reach the size."""
    shows = []
    for width in ask.widths:
        _check_cut(width, need, "widths", ask.noun)
        shows.append(width - 2 * need.seam.value)
    cuts: list[Figure] = []
    made = 2 * need.seam.value
    for width, show in cycle(zip(ask.widths, shows, strict=True)):
        cuts.append(given(f"{ask.noun}, cut", width))
        made += show
        if made >= need.across.value:
            break
        if len(cuts) > MOST:
            raise CannotPlan(
                f"{need.field}.widths",
                f"That takes more than {MOST} {ask.noun}s for one panel: cut them wider.",
            )
    number = in_turn(cuts, need.across, need.seam, f"{ask.noun}s").called(f"{ask.noun}s")
    kinds: list[Kind] = ["piece"] * len(cuts)
    return _made(ask, need, number, tuple(cuts), tuple(kinds), joined(cuts, need.seam))


def in_turn(cuts: Sequence[Figure], across: Figure, seam: Figure, noun: str) -> Figure:
    """How many widths in turn reach a size: of each so many, or of one as many as it takes."""
    widths = dict.fromkeys(cut.value for cut in cuts)
    if len(widths) == 1:
        shows = cuts[0] - 2 * seam
        return no_less(ceiling((across - 2 * seam) / shows), ONE)
    return total(
        count(f"{noun} of one width", sum(c.value == width for c in cuts), Basis.GEOMETRY)
        for width in widths
    )


def _made(
    ask: Joining,
    need: Need,
    number: Figure,
    cuts: tuple[Figure, ...],
    kinds: tuple[Kind, ...],
    across: Figure,
) -> Strips:
    cut = cuts[kinds.index("piece")]
    across = across.called(f"{ask.noun}s sewn together")
    return Strips(
        number=number,
        cut=cut,
        along=need.along,
        across=across,
        surplus=(across - need.across).called(f"surplus across the {ask.noun}s"),
        shows=(cut - 2 * need.seam).called(f"each {ask.noun} shows"),
        cuts=cuts,
        kinds=kinds,
        keeps=ask.surplus,
    )


def cut_across(usable: Inches, lengths: Sequence[tuple[str, Inches, int]]) -> tuple[Row[str], ...]:
    """Panels cut across from strip sets of one usable length: a row is one set.

    ``lengths`` are (panel, length, how many), each within ``usable``.  The longest first:
    common practice at the table, not always the fewest sets.
    """
    pieces = [ToLay(name, length, Fraction(1), many) for name, length, many in lengths]
    return fill_rows(pieces, usable)


def edge_shows(
    cut: Figure, seam: Figure, draws_in: Figure, cut_off: Figure, allowance: Figure
) -> Figure:
    """What the outermost piece still shows after quilting, trimming and the bag's seam."""
    return (cut - seam) * (1 - draws_in) - cut_off - allowance
