"""A cloth of the cutting plan: its pieces where they lie, its cuts in order, the cut in hand.

Knows the plan of the cuts and pictures; must not know Qt.  A cloth that is longer than wide lies
with its length to the right, as it does on a table.
"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.cutting.acts.whole import Lying, Spread, Spreads
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.sheets.cuts import Box, Stroke
from tessil.drawing.picture import (
    Affine,
    Cloth,
    Dimension,
    Item,
    Label,
    Line,
    Picture,
    Placed,
    Point,
    Shade,
    rectangle,
)

STRAIGHT: Affine = (1.0, 0.0, 0.0, 1.0, 0.0, 0.0)
LEAST_HIGH = 1.6  # inches: what is lower has no name on it
MOST_NAMES = 60


class Table(Record, frozen=True):
    """How a cloth lies on the table: as it is, or with its length to the right."""

    wide: float
    long: float
    lies: bool

    @property
    def affine(self) -> Affine:
        return (0.0, -1.0, 1.0, 0.0, 0.0, self.wide) if self.lies else STRAIGHT

    @property
    def box(self) -> tuple[float, float, float, float]:
        return (0.0, 0.0, self.long, self.wide) if self.lies else (0.0, 0.0, self.wide, self.long)

    def at(self, x: float, y: float) -> Point:
        """Where a place on the cloth lies on the table."""
        return (y, self.wide - x) if self.lies else (x, y)

    def outline(self, box: Box) -> tuple[Point, ...]:
        """A rectangle of the cloth on the table."""
        x, y, right, end = (float(v) for v in (box.x, box.y, box.right, box.end))
        return (self.at(x, y), self.at(right, y), self.at(right, end), self.at(x, end))


def table_of(spread: Spread) -> Table:
    """How one cloth is laid out on the bench."""
    wide, long = float(spread.sheet.width), float(spread.sheet.length)
    return Table(wide, long, long > wide)


def cutting_picture(
    found: Spreads, at: int, in_hand: bool, notation: Notation, piece: str = ""
) -> Picture:
    """One cloth of the cutting plan, with the piece in hand; or the cut that comes next on it."""
    spread = found.spreads[at]
    table = table_of(spread)
    done = min(spread.sheet.done, len(spread.parting.cuts))
    items: list[Item] = [Shade(table.outline(_whole(spread)), "off")]
    made = set(_freed(spread, done))
    items += _pieces(spread, table, made)
    items += [Line(table.outline(_whole(spread)), "thin", closed=True)]
    cuts = spread.parting.cuts
    if in_hand and done < len(cuts):
        items += _cut_in_hand(spread, cuts[done], table, notation)
    else:
        items += _names(spread, table)
        items += _cuts(spread, table, done)
        items += _sizes(table, notation)
    places = {f"laid:{n}": table.outline(one.box) for n, one in enumerate(spread.pieces)}
    if piece in places and not in_hand:
        items.append(Line(places[piece], "picked", closed=True))
    words = _caption(spread, notation) + (" A first layout." if found.first else "")
    return Picture(
        tuple(items),
        table.box,
        (60, 40, 60, 36),
        words,
        ruled=False,
        cuts=True,
        pieces={} if in_hand else places,
    )


def bare_table(plan: Plan) -> Picture:
    """The cloth before anything is laid on it: a first layout is being made, or there are more
    pieces than are laid unasked."""
    wide = float(plan.project.stock.usable_width)
    cloth = rectangle(0.0, 0.0, wide, wide / 2)
    read = plan.marks.notation.read_off(plan.project.stock.usable_width, unit=True)
    number = sum(item.number.whole for item in plan.items if not item.in_hand)
    words = f"Cloth {read} wide, and {number} pieces of this bag to lay on it: “Plan the cutting”."
    items = (Shade(cloth, "off"), Line(cloth, "thin", closed=True))
    return Picture(items, (0.0, 0.0, wide, wide / 2), (44, 40, 36, 36), words, ruled=False)


def map_picture(spread: Spread, notation: Notation) -> Picture:
    """One cloth for paper: plain, every piece with its number."""
    table = table_of(spread)
    items: list[Item] = [Shade(table.outline(_whole(spread)), "off")]
    for number, one in enumerate(spread.pieces, start=1):
        items.append(Shade(table.outline(one.box), "paper"))
        items.append(Line(table.outline(one.box), "raw", closed=True))
        items.append(Label(_middle(table, one.box), str(number)))
    items.append(Line(table.outline(_whole(spread)), "thin", closed=True))
    items += _cuts(spread, table, 0)
    items += _sizes(table, notation)
    return Picture(tuple(items), table.box, (44, 40, 36, 24), ruled=False)


def _whole(spread: Spread) -> Box:
    zero = spread.sheet.width * 0
    return Box(zero, zero, spread.sheet.width, spread.sheet.length)


def _caption(spread: Spread, notation: Notation) -> str:
    lot, sheet = spread.lot, spread.sheet
    size = notation.size(sheet.width, sheet.length + sheet.trim)
    pieces = _many(len(spread.pieces), "piece")
    cuts = _many(len(spread.parting.cuts), "cut")
    said = f"{lot.name}, {size}: {pieces}, {cuts}, {spread.share:.0%} used"
    if not sheet.source:
        read = notation.read_off
        said += f". They take {read(spread.used)} of it; no layout takes less than "
        said += read(sheet.least)
    return f"{said}. Hatched is over."


def _many(number: int, what: str) -> str:
    return f"{number} {what}" if number == 1 else f"{number} {what}s"


def _freed(spread: Spread, done: int) -> Iterator[int]:
    """The pieces that lie by themselves after so many cuts."""
    rest = spread.parting.cuts[done:]
    for number, one in enumerate(spread.pieces):
        if not any(_inside(one.box, cut.of) for cut in rest):
            yield number


def _inside(box: Box, part: Box) -> bool:
    across = part.x <= box.x and box.right <= part.right
    return across and part.y <= box.y and box.end <= part.end


def _pieces(spread: Spread, table: Table, made: set[int]) -> Iterator[Item]:
    """Every piece in its print; those that are cut, plain."""
    cloths: list[Cloth | Line] = []
    for number, one in enumerate(spread.pieces):
        if number in made:
            yield Shade(table.outline(one.box), "paper")
        elif spread.lot.print is None:
            yield Shade(table.outline(one.box), "batting")
        else:
            flat = rectangle(*(float(v) for v in (one.box.x, one.box.y, one.box.w, one.box.h)))
            cloths.append(Cloth(flat, spread.lot.print, f"laid:{number}"))
    if cloths:
        yield Placed(tuple(cloths), table.affine)
    for one in spread.pieces:
        yield Line(table.outline(one.box), "raw", closed=True)


def _middle(table: Table, box: Box) -> Point:
    return table.at(float(box.x + box.w / 2), float(box.y + box.h / 2))


def _names(spread: Spread, table: Table) -> Iterator[Item]:
    """What the larger pieces are, as far as there is room on them."""
    named = sorted(spread.pieces, key=lambda one: -one.box.w * one.box.h)[:MOST_NAMES]
    for one in named:
        wide, high = (one.box.h, one.box.w) if table.lies else (one.box.w, one.box.h)
        if float(high) >= LEAST_HIGH:
            words, short = name_of(one), one.want.words
            yield Label(_middle(table, one.box), words, chip=True, within=float(wide), short=short)


def name_of(one: Lying) -> str:
    """``Front, top · rehearsal satchel``."""
    return f"{one.want.words} · {one.want.bag_name.lower()}"


def _cuts(spread: Spread, table: Table, done: int) -> Iterator[Item]:
    """Every cut with its number at the edge the ruler starts from; those made are thin."""
    for number, cut in enumerate(spread.parting.cuts):
        ends = _ends(cut, table)
        yield Line(ends, "thin" if number < done else "trim")
        if cut.deep == 1:
            yield Label(ends[0], str(spread.first + number), strong=True, chip=True)


def _ends(cut: Stroke, table: Table) -> tuple[Point, Point]:
    begins, ends, at = float(cut.begins), float(cut.ends), float(cut.at)
    if cut.way == "across":
        return table.at(begins, at), table.at(ends, at)
    return table.at(at, begins), table.at(at, ends)


def _sizes(table: Table, notation: Notation) -> Iterator[Item]:
    """How wide the cloth is between its selvages, how long from its straightened end."""
    corner = table.at(table.wide, 0.0) if not table.lies else table.at(0.0, table.long)
    for start, end, value, lane in (
        (table.at(0.0, 0.0), table.at(table.wide, 0.0), table.wide, -1.0),
        (corner, table.at(table.wide, table.long), table.long, 1.0),
    ):
        yield Dimension(start, end, notation.read_off(Fraction(value)), lane)


def _cut_in_hand(spread: Spread, cut: Stroke, table: Table, notation: Notation) -> Iterator[Item]:
    """What lies under the ruler, the cut, its reading, and what it frees."""
    yield Shade(table.outline(cut.part), "glow")
    yield Line(table.outline(cut.of), "object", closed=True)
    yield Line(_ends(cut, table), "picked")
    middle = float(cut.begins + cut.ends) / 2
    edge, at = float(cut.edge), float(cut.at)
    across = cut.way == "across"
    start = table.at(middle, edge) if across else table.at(edge, middle)
    end = table.at(middle, at) if across else table.at(at, middle)
    yield Dimension(start, end, notation.read_off(cut.reading), 0, True, True)
    if cut.done >= 0:
        yield Label(_middle(table, cut.part), name_of(spread.pieces[cut.done]), chip=True)
