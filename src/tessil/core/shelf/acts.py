"""What cutting takes from the shelf and puts back on it."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator

from tessil.core.catalogue.prints import known_as
from tessil.core.costing.prices import Priced
from tessil.core.cutting.acts.shopping import Line, WareKind
from tessil.core.cutting.acts.whole import Lot, Source, Spread, Spreads
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import MM_PER_INCH, read_length
from tessil.core.planned import Plan
from tessil.core.shelf.inhand import kind_on_shelf
from tessil.core.shelf.rows import NOBODY, Keeper, Kind, Row, Shelf, fresh_id

MOST_OF_ONE = 40  # pieces alike that a search is given; more would only slow it
PART = "#"


def _means(name: str, lot: Lot) -> bool:
    """Whether a row's name is that of a cloth: its print's, or its material's."""
    return known_as(name) in (known_as(lot.name), known_as(lot.stock))


def sources_of(shelf: Shelf, lots: Iterable[Lot], job: Keeper = NOBODY) -> Iterator[Source]:
    """Every single piece on the shelf that some of a job can be cut from, without what is kept for
    others."""
    for lot in lots:
        for row in shelf.rows:
            if not row.flat or not row.number or not _means(row.name, lot):
                continue
            if not row.free_for(job):
                continue
            assert row.width is not None
            assert row.length is not None
            for number in range(min(row.number, MOST_OF_ONE)):
                yield Source(f"{row.id}{PART}{number + 1}", lot.stock, row.width, row.length)


def row_of(shelf: Shelf, source: str) -> Row | None:
    """The row that a cloth of a cutting plan comes from."""
    return shelf.row(source.partition(PART)[0])


def kept_for(shelf: Shelf, sources: Iterable[str], job: Keeper) -> Shelf:
    """The shelf with what a plan is cut from kept for that job: of a row as many as it takes, the
    others of it in a row of their own; what is kept for another stays as it is."""
    after = shelf
    highest: dict[str, int] = {}
    for one in sources:
        id_, _, number = one.partition(PART)
        highest[id_] = max(highest.get(id_, 1), int(number) if number.isdigit() else 1)
    for id_, taken in highest.items():
        row = after.row(id_)
        if row is None or row.kept_for:
            continue
        mine = {"kept_for": job.title[:80], "kept_by": job.mark, "number": min(taken, row.number)}
        rest = row.number - taken
        after = after.having(row.model_copy(update=mine))
        if rest > 0:
            free = {"id": fresh_id(after, id_[:34]), "number": rest}
            after = after.having(row.model_copy(update=free))
    return after


def taken_by_others(shelf: Shelf, sources: Iterable[str], job: Keeper) -> tuple[Row, ...]:
    """The rows of a plan that are kept for another job."""
    rows = [row_of(shelf, one) for one in sources if one]
    there = {row.id: row for row in rows if row is not None and not row.free_for(job)}
    return tuple(there.values())


def put_away(shelf: Shelf, spread: Spread, mark: str, date: str) -> Shelf:
    """The shelf after a cloth is cut: one less of its row, and what is left of it with its size."""
    lot, row = spread.lot, row_of(shelf, spread.sheet.source)
    after = shelf
    if row is not None and row.number:
        after = after.having(row.model_copy(update={"number": row.number - 1}))
    kind: Kind = row.kind if row is not None and lot.material else _kind_left(lot)
    for box in spread.offcuts:
        alike = next((r for r in after.rows if _alike(r, kind, lot.name, box.w, box.h)), None)
        if alike is not None:
            after = after.having(alike.model_copy(update={"number": alike.number + 1}))
            continue
        made = Row(
            id=fresh_id(after, mark),
            kind=kind,
            name=lot.name,
            width=box.w,
            length=box.h,
            date=date,
            note="left of a cutting",
        )
        after = after.having(made)
    return after


_ALIKE: dict[WareKind, Kind] = {
    "zipper": "zipper",
    "slider": "slider",
    "cord": "cord",
    "piping cord": "cord",
    "webbing": "webbing",
    "ring": "ring",
    "strap slider": "slider",
    "snap": "snap",
    "thread": "thread",
    "eyelet": "eyelet",
    "button": "button",
    "ribbon": "ribbon",
    "edge tape": "ribbon",
    "label": "label",
    "patch": "patch",
}


def serving(shelf: Shelf, line: Line) -> tuple[Row, ...]:
    """The rows that could serve for a line of the shopping list: of its kind, and long enough where
    that is told."""
    kind = None if line.kind is None else _ALIKE.get(line.kind)
    return tuple(
        row
        for row in shelf.rows
        if row.kind == kind
        and row.number
        and _as_wide(row, line)
        and (row.length is None or line.size is None or row.length >= line.size)
    )


def prices_of(shelf: Shelf, things: Iterable[Priced], plan: Plan) -> dict[str, Fraction]:
    """What was paid last for each thing, by the shelf: for an inch of what is sold by its length,
    cloth over its whole width, else for a piece."""
    found: dict[str, Fraction] = {}
    rows = sorted((row for row in shelf.rows if row.price), key=lambda row: row.date)
    for thing in things:
        for row in rows:
            price = _unit_price(row, thing, plan)
            if price is not None:
                found[thing.key] = price
    return found


def _unit_price(row: Row, thing: Priced, plan: Plan) -> Fraction | None:
    assert row.price is not None
    price = fraction_of(str(row.price))
    if thing.key == "fat quarter":
        return price if row.kind == "fat quarter" else None
    kind, _, rest = thing.key.partition(" ")
    if kind in ("cloth", "material"):
        if not row.flat or known_as(row.name) not in (known_as(thing.name), rest):
            return None
        assert row.width is not None
        assert row.length is not None
        made = plan.materials.get(rest) if kind == "material" else None
        wide = made.width if made else plan.project.stock.usable_width
        return price * wide / (row.width * row.length)
    return _ware_price(row, thing, price)


def _ware_price(row: Row, thing: Priced, price: Fraction) -> Fraction | None:
    name, _, size = thing.key.rpartition(" ") if not thing.long else (thing.key, "", "")
    kind = _ALIKE.get(name or thing.key)  # type: ignore[call-overload]
    if row.kind != kind:
        return None
    if thing.long:
        length = row.length or _spool(row)
        return price / length if length else None
    if size and row.length is not None and row.length < fraction_of(size):
        return None
    return price


def _spool(row: Row) -> Fraction | None:
    """How much thread a spool holds, where its name says so: ``200 m oat``."""
    found = re.search(r"(?<![\w.])([1-9][0-9]{1,4}) ?m(?!\w)", row.name)
    return Fraction(int(found[1]) * 1000) / MM_PER_INCH if found else None


def used_up(shelf: Shelf, lines: Iterable[Line]) -> Shelf:
    """The shelf after what a shopping list takes of zippers, rings, cord and the like is taken from
    it: what is counted by its number, what is long by its length, the smallest that does first."""
    after = shelf
    for line in lines:
        need = Fraction(0) if line.figure is None or line.kind is None else line.figure.value
        long = line.figure is not None and line.figure.power == 1
        rows = sorted(serving(after, line), key=lambda row: (row.length or Fraction(0), row.id))
        for row in rows:
            if need <= 0:
                break
            after, need = _taken(after, row, need, long)
    return after


def _taken(shelf: Shelf, row: Row, need: Fraction, long: bool) -> tuple[Shelf, Fraction]:
    """The shelf with as much of a row as is needed taken, and what is then still wanted."""
    if not long:
        number = min(int(need), row.number)
        left = row.model_copy(update={"number": row.number - number})
        return shelf.having(left), need - number
    if row.length is None:
        return shelf, need
    whole = min(int(need / row.length), row.number)
    after, need = row.model_copy(update={"number": row.number - whole}), need - whole * row.length
    if need <= 0 or after.number == 0:
        return shelf.having(after), max(need, Fraction(0))
    rest = row.length - need
    kept = shelf.having(after.model_copy(update={"number": after.number - 1}))
    if rest > 0:
        made = {"id": fresh_id(kept, f"{row.id}-rest"), "number": 1, "length": rest}
        kept = kept.having(row.model_copy(update=made))
    return kept, Fraction(0)


def scraps_of(shelf: Shelf, spreads: Spreads | None) -> frozenset[str]:
    """The cloths of a plan of the cuts that are scraps: rests of others, scraps of the shelf."""
    found = set()
    for one in spreads.spreads if spreads is not None else ():
        row = row_of(shelf, one.sheet.source) if one.sheet.source else None
        if one.sheet.source and (row is None or row.kind == "scrap"):
            found.add(one.sheet.source)
    return frozenset(found)


def _as_wide(row: Row, line: Line) -> bool:
    """Whether a ring or slider whose name says how wide it is, is as wide as it should be."""
    if line.size is None or row.kind not in ("ring", "slider"):
        return True
    found = re.match(r"[0-9][0-9 ./½¼¾⅛⅜⅝⅞]* ?(in|mm|cm)\b", row.name)
    return found is None or read_length(found[0], "inch") == line.size


def _kind_left(lot: Lot) -> Kind:
    return "scrap" if lot.of is None else kind_on_shelf(lot.of)


def _alike(row: Row, kind: Kind, name: str, width: object, length: object) -> bool:
    return (row.kind, row.name, row.width, row.length) == (kind, name, width, length)
