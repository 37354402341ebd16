"""A whole job to be cut: the pieces of all its bags, cloth by cloth, and the plan of the cuts.

Makes a bare cutting job of planned bags and a kept decision of its answer; reads that decision
back as sheets with cuts in order.  Must not know windows.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from zlib import crc32

from msgspec.structs import replace

from tessil.core.bag.ids import NoteKind
from tessil.core.catalogue import Material
from tessil.core.catalogue.prints import Print
from tessil.core.cutting.choice import MOST_LAID, MOST_SHEETS, Cutting, Laid, Sheet
from tessil.core.cutting.item import SCRAP, CutItem
from tessil.core.edits import Edit, edit
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import FARTHEST, Inches, round_up
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Basis, given, total, up_to
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.sheets.cuts import Box, Parting, parted
from tessil.core.sheets.job import Aim, Answer, CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting
from tessil.core.sheets.search import Told
from tessil.core.trouble import CannotPlan
from tessil.core.words.cuts import id_words

Solve = Callable[[CutJob, float, int, Told | None], Answer]
NEW = "new"
# Cut across the width whatever their print shows: folded, sewn into sets, or on the cross.
FREE = ("binding strip", "strip to fold", "strip for a set", "cloth to cut on the cross")
KEEP = Fraction(2)  # inches: what is narrower than that is no offcut


class Want(Record, frozen=True):
    """One line of a bag's cut list, as it is to be laid: which bag, which line."""

    key: str
    bag: int
    bag_name: str
    words: str  # front, strip
    item: CutItem
    width: Inches
    height: Inches
    number: int
    turns: bool

    def is_cut_as(self, laid: Laid) -> bool:
        """Whether a piece that lies there is one of these."""
        size, lies = (self.width, self.height), (laid.w, laid.h)
        return lies == size or (self.turns and lies == size[::-1])


class Lot(Record, frozen=True):
    """All that a job cuts from one cloth, and what that cloth is like off the bolt."""

    stock: str
    name: str
    material: bool
    print: Print | None
    usable: Inches
    straightening: Inches
    wants: tuple[Want, ...]
    of: Material | None = None  # where it is no cloth of a print


class Source(Record, frozen=True):
    """One piece of cloth that is there already."""

    id: str
    stock: str
    width: Inches
    length: Inches


class FirstLaid(Record, frozen=True):
    """The cloths of one lot as they are laid at once, and what fits on none."""

    sheets: tuple[Sheet, ...]
    over: tuple[tuple[str, int], ...]


def lots_of(plans: Sequence[Plan | None]) -> tuple[Lot, ...]:
    """Everything to cut for all bags of a job, by cloth, without bags that cannot be planned."""
    found: dict[tuple[str, bool], list[Want]] = {}
    heads: dict[tuple[str, bool], Plan] = {}
    for bag, plan in enumerate(plans):
        if plan is None:
            continue
        for line, item in enumerate(plan.items):
            if item.what == SCRAP or item.in_hand or not item.number.value:
                continue
            kind = (item.stock, item.material)
            heads.setdefault(kind, plan)
            found.setdefault(kind, []).append(_want(plan, bag, line, item))
    return tuple(_lot(heads[kind], *kind, tuple(wants)) for kind, wants in found.items())


def _lot(plan: Plan, stock: str, material: bool, wants: tuple[Want, ...]) -> Lot:
    made = plan.materials[stock] if material else None
    return Lot(
        stock=stock,
        name=made.name if made else plan.project.print_of(stock).name,
        material=material,
        print=None if material else plan.project.print_of(stock),
        usable=made.width if made else plan.project.stock.usable_width,
        straightening=plan.project.stock.straightening,
        wants=wants,
        of=made,
    )


def _want(plan: Plan, bag: int, line: int, item: CutItem) -> Want:
    width, height = item.width.value, item.height.value
    notes: set[NoteKind] = {note.kind for note in item.notes}
    directional = not item.material and plan.project.print_of(item.stock).directional
    turns = not (notes & {"upright", "level", "window"}) and (not directional or item.what in FREE)
    if "level" in notes:  # the stiff way of the roll lies level in the bag
        width, height = height, width
    return Want(
        key=f"{bag}.{line}",
        bag=bag,
        bag_name=plan.project.name,
        words=id_words(item.id, plan.bag),
        item=item,
        width=width,
        height=height,
        number=item.number.whole,
        turns=turns,
    )


def asked(lots: Iterable[Lot]) -> str:
    """What is asked in eight letters, so that a plan of the cuts knows whether it still holds."""
    lines = [
        f"{lot.stock} {lot.usable} {want.key} {want.width} {want.height} {want.number} {want.turns}"
        for lot in lots
        for want in lot.wants
    ]
    return crc32(repr(sorted(lines)).encode()).to_bytes(4, "big").hex()


def plan_whole(
    lots: Sequence[Lot],
    sources: Sequence[Source],
    marks: Rulers,
    seconds: float = 8.0,
    seed: int = 1,
    told: Told | None = None,
    before: Cutting | None = None,
    solve: Solve = plan_cutting,
    aim: Aim = "least",
) -> Cutting:
    """How all of it is cut: from what is there first, the rest from new cloth, each cloth as well
    as its share of the time allows.

    Cloths of the plan ``before`` that were begun or pinned stay as they are; what lies on them is
    not laid again.  ``told`` hears how far the search is and may stop it: the best so far is then
    the answer.  ``solve`` plans one cloth.
    """
    stay = [] if before is None else [sheet for sheet in before.sheets if sheet.stays]
    wrong = Counter(() if before is None else before.wrong)
    # What was stored is counted off the shelf already: its number there is another piece's now.
    opened = {sheet.source for sheet in stay if not sheet.stored}
    free = [one for one in sources if one.id not in opened]
    weights = [sum(want.number for want in lot.wants) + 5 for lot in lots]
    sheets: list[Sheet] = []
    over: list[tuple[str, int]] = []
    gone = 0.0
    for lot, weight in zip(lots, weights, strict=True):
        share = weight / sum(weights)
        here = [sheet for sheet in stay if sheet.stock == lot.stock]
        sheets += here
        rest = _rest(lot, here, wrong)
        if rest.wants:
            job, heard = _job_of(rest, free, aim), _partly(told, gone, share)
            # Once it is told to stop, what is not laid yet is laid at once.
            goes_on = heard is None or heard(0.0)
            answer = solve(job, seconds * share, seed, heard) if goes_on else plan_cutting(job, 0.0)
            sheets += _sheets(rest, job, answer, marks)
            over += answer.left_out
        gone += share
    return kept_as(lots, sheets, over, wrong.elements())


def kept_as(
    lots: Sequence[Lot],
    sheets: Iterable[Sheet],
    over: Iterable[tuple[str, int]],
    wrong: Iterable[str] = (),
) -> Cutting:
    """A plan of the cuts as it is kept; raises CannotPlan for one that is too large for that."""
    try:
        return Cutting(
            asked=asked(lots), sheets=tuple(sheets), over=tuple(over), wrong=tuple(wrong)
        )
    except Refused:
        words = f"It takes more than {MOST_SHEETS} cloths: cut fewer bags together."
        raise CannotPlan("cutting", words) from None


def first_laid(lot: Lot, sources: Sequence[Source], marks: Rulers, aim: Aim) -> FirstLaid:
    """One cloth laid at once, without a search: nobody has asked for one yet."""
    job = _job_of(lot, sources, aim)
    answer = plan_cutting(job, 0.0)
    return FirstLaid(tuple(_sheets(lot, job, answer, marks)), answer.left_out)


def _sheets(lot: Lot, job: CutJob, answer: Answer, marks: Rulers) -> Iterator[Sheet]:
    """The cloths that an answer lays pieces on."""
    stock = {one.id: one for one in job.stock}
    for name in dict.fromkeys(one.stock for one in answer.placements):
        yield _sheet(lot, stock[name], answer, marks)


def _rest(lot: Lot, sheets: Sequence[Sheet], wrong: Mapping[str, int]) -> Lot:
    """What is still to be laid beside the cloths that stay."""
    wants = {want.key: want for want in lot.wants}
    there: Counter[str] = Counter()
    for sheet in sheets:
        for one in sheet.laid:
            want = wants.get(one.piece)
            if want is not None and want.is_cut_as(one):
                there[one.piece] += 1
    # What was cut wrong lies there too, but is none of those that are wanted.
    left = {
        key: want.number - max(there[key] - wrong.get(key, 0), 0) for key, want in wants.items()
    }
    kept = [replace(want, number=left[want.key]) for want in lot.wants if left[want.key] > 0]
    return replace(lot, wants=tuple(kept))


def _partly(told: Told | None, gone: float, share: float) -> Told | None:
    """The same listener for one part of the work."""
    return None if told is None else lambda far: told(gone + far * share)


def _job_of(lot: Lot, sources: Sequence[Source], aim: Aim) -> CutJob:
    there = [
        Stock(one.id, "scrap", lot.stock, one.width, one.length)
        for one in sources
        if one.stock == lot.stock
    ]
    new = Stock(NEW, "yardage", lot.stock, lot.usable, None, lot.straightening)
    pieces = [
        Piece(want.key, want.key, want.width, want.height, want.number, lot.stock, want.turns)
        for want in lot.wants
    ]
    return CutJob("in", (*there, new), tuple(pieces), aim)


def _sheet(lot: Lot, cloth: Stock, answer: Answer, marks: Rulers) -> Sheet:
    laid = [one for one in answer.placements if one.stock == cloth.id]
    if len(laid) > MOST_LAID or any(one.y + one.h > FARTHEST / 2 for one in laid):
        words = f"{lot.name}: {len(laid)} pieces are more than are laid on one cloth"
        raise CannotPlan("cutting", f"{words}: cut fewer bags together.")
    rows = tuple(Laid(piece=one.piece, x=one.x, y=one.y, w=one.w, h=one.h) for one in laid)
    if cloth.h is not None:
        return Sheet(stock=lot.stock, source=cloth.id, width=cloth.w, length=cloth.h, laid=rows)
    new = Sheet(stock=lot.stock, width=cloth.w, length=lot.usable, trim=cloth.trim)
    return laid_on(new, rows, answer.bound, marks)


def laid_on(sheet: Sheet, rows: tuple[Laid, ...], bound: Inches, marks: Rulers) -> Sheet:
    """A cloth with these pieces on it; new cloth as long as it is then bought."""
    if sheet.source:
        return sheet.model_copy(update={"laid": rows})
    bought = round_up(max(one.y + one.h for one in rows) + sheet.trim, marks.yardage.value)
    length, least = bought - sheet.trim, min(bound, bought)
    return sheet.model_copy(update={"laid": rows, "length": length, "least": least})


# -- read back ---------------------------------------------------------------------------------


class Lying(Record, frozen=True):
    """One piece on a cloth: what it is, where it lies."""

    want: Want
    box: Box
    turned: bool


class Spread(Record, frozen=True):
    """One cloth with its pieces, its cuts in order, and what is left of it."""

    at: int  # of the sheets kept
    sheet: Sheet
    lot: Lot
    pieces: tuple[Lying, ...]
    parting: Parting
    first: int  # the number of its first cut, over all cloths

    taken: frozenset[str] = frozenset()  # what is left of it and cut from since

    @property
    def offcuts(self) -> tuple[Box, ...]:
        """What is left and worth keeping."""
        return tuple(
            box
            for box in self.parting.left
            if min(box.w, box.h) >= KEEP and whence_rest(self.sheet, box) not in self.taken
        )

    @property
    def used(self) -> Inches:
        """How far along the cloth its pieces reach, from the raw end."""
        return self.sheet.trim + max((one.box.end for one in self.pieces), default=Fraction(0))

    @property
    def share(self) -> float:
        """The part of the cloth that becomes pieces."""
        area = sum((one.box.w * one.box.h for one in self.pieces), Fraction(0))
        return float(area / (self.sheet.width * (self.sheet.length + self.sheet.trim)))


REST = "rest "


def whence_rest(sheet: Sheet, box: Box) -> str:
    """What is left of a cloth as the source of another: of which, and where on it."""
    of = crc32(f"{sheet.stock} {sheet.source}".encode()).to_bytes(4, "big").hex()
    return f"{REST}{of}: {box.x}, {box.y}"


class Spreads(Record, frozen=True):
    """The plan of the cuts as it is read: cloth by cloth; whether the bags have changed since."""

    spreads: tuple[Spread, ...]
    lots: tuple[Lot, ...]
    changed: bool
    over: tuple[tuple[Want, int], ...]
    first: bool = False  # laid at once and not searched for

    @property
    def cuts(self) -> int:
        """Cuts in all."""
        return sum(len(one.parting.cuts) for one in self.spreads)

    @property
    def done(self) -> int:
        """Cuts that are made."""
        return sum(min(one.sheet.done, len(one.parting.cuts)) for one in self.spreads)


def spreads_of(cutting: Cutting, lots: tuple[Lot, ...]) -> Spreads:
    """The kept plan with what it stands for today; cloths whose pieces have gone are left out."""
    made = tuple(_spreads(cutting, lots))
    wants = {want.key: want for lot in lots for want in lot.wants}
    over = tuple((wants[key], many) for key, many in cutting.over if key in wants)
    return Spreads(made, lots, cutting.asked != asked(lots), over)


def _spreads(cutting: Cutting, lots: tuple[Lot, ...]) -> Iterator[Spread]:
    by_stock = {lot.stock: lot for lot in lots}
    first, taken = 1, frozenset(sheet.source for sheet in cutting.sheets)
    for at, sheet in enumerate(cutting.sheets):
        lot = by_stock.get(sheet.stock)
        if lot is None:
            continue
        wants = {want.key: want for want in lot.wants}
        there = [one for one in sheet.laid if one.piece in wants]
        there = [one for one in there if wants[one.piece].is_cut_as(one)]
        pieces = tuple(_lying(at, one, wants[one.piece]) for at, one in enumerate(there))
        cloth = Box(Fraction(0), Fraction(0), sheet.width, sheet.length)
        parting = parted(cloth, [one.box for one in pieces])
        if parting is not None:
            yield Spread(at, sheet, lot, pieces, parting, first, taken)
            first += len(parting.cuts)


def _lying(number: int, laid: Laid, want: Want) -> Lying:
    turned = (laid.w, laid.h) != (want.width, want.height)
    return Lying(want, Box(laid.x, laid.y, laid.w, laid.h, number), turned)


# -- what is to be done ------------------------------------------------------------------------


def ticked(cutting: Cutting, at: int, done: int, words: str) -> Edit:
    """So many cuts of one cloth are made."""
    return _with(cutting, at, words, done=max(done, 0))


def stored(cutting: Cutting, at: int, words: str) -> Edit:
    """What is left of one cloth lies on the shelf."""
    return _with(cutting, at, words, stored=True)


def pinned(cutting: Cutting, at: int, on: bool) -> Edit:
    """One cloth stays as it is when the rest is planned again, or does not."""
    return _with(cutting, at, "Keep a cloth as it is" if on else "Let a cloth go", pinned=on)


def _with(cutting: Cutting, at: int, words: str, **changes: object) -> Edit:
    sheets = list(cutting.sheets)
    sheets[at] = sheets[at].model_copy(update=changes)
    return edit(words, ("cutting", cutting.model_copy(update={"sheets": tuple(sheets)})))


def spread_readings(found: Spreads, marks: Rulers) -> Iterator[Reading]:
    """What to buy of each cloth for all bags together, with the least that it could be."""
    read = marks.notation.read_off
    for one in found.spreads:
        sheet, rows = one.sheet, _rows(one)
        if sheet.source:
            continue
        terms = [given("straightening the end", sheet.trim)] if sheet.trim else []
        terms += [given("strip", high, Basis.GEOMETRY) for high in rows]
        figure = up_to(total(terms), marks.yardage).called(one.lot.name)
        about = (
            f"Off the bolt, {read(sheet.width, unit=True)} wide, for all bags; no layout takes "
            f"less than {read(sheet.least)}"
        )
        yield Reading(f"cutting.{sheet.stock}", figure, about, leaf="cloth")


def _rows(one: Spread) -> list[Inches]:
    """The strips of one cloth as high as they are, along it."""
    first = [cut for cut in one.parting.cuts if cut.deep == 1 and cut.way == "across"]
    rows = [cut.reading for cut in first]
    reach = max((lying.box.end for lying in one.pieces), default=Fraction(0))
    last = reach - (first[-1].at if first else Fraction(0))
    return [*rows, last] if last > 0 else rows
