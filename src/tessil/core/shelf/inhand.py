"""What a bag has in hand, laid on the shelf for all bags, and taken up again.

Scraps for piecing, offcuts of batting and a pack of squares stand with one bag until they are laid
on the shelf; scraps of a bag's prints that lie there may be taken for its courses.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping

from tessil.core.catalogue import Material
from tessil.core.catalogue.prints import Print, known_as
from tessil.core.choices import bound_print
from tessil.core.edges.choice import MOST_PIECES, BiasPiece
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import MOST_SCRAPS, Scrap
from tessil.core.planned import Plan
from tessil.core.shelf.rows import (
    MOST_OF_A_ROW,
    MOST_ROWS,
    NOBODY,
    Keeper,
    Kind,
    Row,
    Shelf,
    fresh_id,
)

PACKED = Fraction(5, 2)  # a small charm square, where nothing says how large those of a pack are
# What a kind of material is called on the shelf, and those that are called otherwise.
_AS: Mapping[str, Kind] = {
    "batting": "batting",
    "firm": "interfacing",
    "stabiliser": "stabiliser",
    "foundation": "stabiliser",
    "web": "web",
}
CLOTHS: tuple[Kind, ...] = ("yardage", "fat quarter", "fat eighth", "squares", "strips", "scrap")
_OWN: Mapping[str, Kind] = {"sew-in-foam": "foam", "clear-vinyl": "vinyl"}


def kind_on_shelf(material: Material) -> Kind:
    """What a material is called on the shelf; cloth by the roll is yardage."""
    return _OWN.get(material.key) or _AS.get(material.kind, "yardage")


def laid_down(shelf: Shelf, plan: Plan, mark: str, date: str) -> tuple[Shelf, Edit]:
    """The shelf with all that the bag has in hand, and the bag without it; scraps that it is pieced
    of stay with it.  A shelf that is full takes nothing, and the bag keeps what it has."""
    after = shelf
    for row in _rows(plan):
        alike = next((r for r in after.rows if _as(r) == _as(row) and _takes(r, row)), None)
        if alike is not None:
            more = {"number": alike.number + row.number}
            after = after.having(alike.model_copy(update=more))
            continue
        if len(after.rows) >= MOST_ROWS:
            return shelf, Edit("", ())
        fresh = {"id": fresh_id(after, mark), "date": date}
        after = after.having(row.model_copy(update=fresh))
    scraps = plan.project.scraps if _pieced_of_scraps(plan) else ()
    changes = (("scraps", scraps), ("offcuts", ()), ("pack", None))
    return after, edit("Lay what is in hand on the shelf", *changes)


def _pieced_of_scraps(plan: Plan) -> bool:
    """Whether a panel is made of the scraps that stand with the bag: they stay with it then."""
    return any(
        part.choice.way in ("courses", "crumbs") for panel in plan.panels for part in panel.parts
    )


def _takes(row: Row, more: Row) -> bool:
    """Whether a row may be so many more."""
    return row.number + more.number <= MOST_OF_A_ROW


def _as(row: Row) -> tuple[object, ...]:
    return row.kind, row.name, row.width, row.length, row.kept_for, row.kept_by


def _rows(plan: Plan) -> Iterator[Row]:
    project = plan.project
    names = {one.key: one.name for one in project.prints}
    for scrap in () if _pieced_of_scraps(plan) else project.scraps:
        yield Row(
            id="scrap",
            kind="scrap",
            name=names.get(scrap.print, "cloth"),
            width=scrap.width,
            length=scrap.height,
            number=scrap.number,
        )
    for offcut in project.offcuts:
        material = plan.materials[offcut.material]
        yield Row(
            id="offcut",
            kind=kind_on_shelf(material),
            name=material.name,
            width=offcut.width,
            length=offcut.height,
            number=offcut.number,
        )
    if project.pack is not None:
        side = _square_side(plan)
        yield Row(
            id="pack",
            kind="squares",
            name="pack of squares",
            width=side,
            length=side,
            number=project.pack.pieces,
        )


def _square_side(plan: Plan) -> Fraction:
    """How large the squares are that this bag is pieced of."""
    sides = [
        panel.choices.piecing.strip_cut
        for panel in plan.panels
        if panel.choices.piecing.way in ("squares", "web")
    ]
    return sides[0] if sides else PACKED


def taken_up(shelf: Shelf, plan: Plan, job: Keeper = NOBODY) -> tuple[Shelf, Edit]:
    """Scraps and squares of the bag's prints from the shelf, as scraps to piece of."""
    prints = {known_as(one.name): one.key for one in plan.project.prints}
    scraps, after = list(plan.project.scraps), shelf
    for row in shelf.rows:
        key = prints.get(known_as(row.name))
        small = row.kind in ("scrap", "squares") and row.flat and row.number
        if key is None or not small or not row.free_for(job) or len(scraps) >= MOST_SCRAPS:
            continue
        assert row.width is not None
        assert row.length is not None
        number = min(row.number, 200)
        scraps.append(Scrap(width=row.width, height=row.length, number=number, print=key))
        left = row.number - number
        kept = after.having(row.model_copy(update={"number": left}))
        after = kept if left else after.without(row.id)
    if after is shelf:
        return shelf, Edit("", ())
    return after, edit("Take scraps from the shelf", ("scraps", tuple(scraps)))


def bias_taken_up(shelf: Shelf, plan: Plan, job: Keeper = NOBODY) -> tuple[Shelf, Edit]:
    """Pieces of the binding's cloth from the shelf, small ones first, as pieces to cut bias
    from."""
    project, after = plan.project, shelf
    wanted = known_as(project.print_of(bound_print(project)).name)
    pieces = list(project.bias.pieces)
    rows = [row for row in shelf.rows if row.kind in CLOTHS and known_as(row.name) == wanted]
    for row in sorted(rows, key=lambda row: (row.width or 0) * (row.length or 0)):
        number = min(row.number, MOST_PIECES - len(pieces))
        if not row.flat or number < 1 or not row.free_for(job) or row.kind == "yardage":
            continue
        assert row.width is not None
        assert row.length is not None
        piece = BiasPiece(width=row.width, height=row.length, corners=row.corners)
        pieces += [piece] * number
        left = row.number - number
        kept = after.having(row.model_copy(update={"number": left}))
        after = kept if left else after.without(row.id)
    if after is shelf:
        return shelf, Edit("", ())
    changes = (("bias.pieces", tuple(pieces)), ("bias.source", "pieces"))
    return after, edit("Take pieces for bias from the shelf", *changes)


def with_looks(shelf: Shelf, prints: Iterable[Print]) -> Shelf:
    """The shelf with the looks of these cloths of a bag's, where something of them lies there and
    no look of it is known yet."""
    there = {known_as(row.name) for row in shelf.rows if row.kind in CLOTHS}
    there -= {known_as(one.name) for one in shelf.cloths}
    for one in prints:
        if known_as(one.name) in there:
            shelf = shelf.looking(one.model_copy(update={"amount": None, "favourite": False}))
    return shelf


def cloth_names(shelf: Shelf, prints: Iterable[Print]) -> tuple[str, ...]:
    """What cloths on the shelf are called that a bag's basket has not, each once."""
    known = {known_as(one.name) for one in prints}
    found: dict[str, str] = {}
    for row in shelf.rows:
        name = row.name.strip()
        if row.kind in CLOTHS and row.number and known_as(name) not in known:
            found.setdefault(known_as(name), name)
    return tuple(found.values())
