"""What a hand does to the plan of the cuts: a piece turned, sent to another cloth, cut wrong.

A cloth that is changed so is laid anew with what shall lie on it, and then stays as it is.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence

from tessil.core.cutting.acts.whole import (
    REST,
    Lot,
    Lying,
    Source,
    Spread,
    Spreads,
    Want,
    laid_on,
    whence_rest,
)
from tessil.core.cutting.choice import Cutting, Laid, Sheet
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, Notation
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.sheets.job import CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting
from tessil.core.trouble import CannotPlan

SECONDS = 0.09  # to lay one cloth anew: a window waits for it
BEGUN = "Cuts are made on this cloth: what lies on it stays where it is."

Lies = tuple[Want, Inches, Inches, bool]  # a piece, how wide and high it lies, if it may turn


class Place(Record, frozen=True):
    """Where a piece could be cut as well: a cloth of the plan, one that lies on the shelf, what is
    left of a cloth, or new cloth.  ``at`` is the cloth of the plan, else -1."""

    at: int
    source: str
    width: Inches
    length: Inches


def _lies_on(spread: Spread) -> list[Lies]:
    """What lies on a cloth; a piece that a hand has turned stays so."""
    return [
        (one.want, one.box.w, one.box.h, one.want.turns and not spread.sheet.pinned)
        for one in spread.pieces
    ]


def turned(cutting: Cutting, spread: Spread, number: int, marks: Rulers) -> Edit:
    """A piece lies the other way on its cloth; raises CannotPlan where it does not fit so."""
    _must_be_whole(spread)
    one = spread.pieces[number]
    if not one.want.turns:
        raise CannotPlan("piece", f"{one.want.words}: its print or its stiff way has an up.")
    lies = _lies_on(spread)
    lies[number] = (one.want, one.box.h, one.box.w, False)
    sheet = _laid(spread.sheet, lies, marks)
    if sheet is None:
        raise CannotPlan("piece", f"Turned, {one.want.words} does not fit beside the others.")
    return _having(cutting, f"Turn {one.want.words}", {spread.at: sheet})


def places_for(found: Spreads, spread: Spread, sources: Sequence[Source]) -> tuple[Place, ...]:
    """The other cloths a piece of this one could be cut from, new cloth last."""
    alike = [one for one in found.spreads if one.lot is spread.lot]
    there = [
        Place(one.at, one.sheet.source, one.sheet.width, one.sheet.length)
        for one in alike
        if one.at != spread.at and not one.sheet.done and not one.sheet.stored
    ]
    used = {one.sheet.source for one in alike if not one.sheet.stored}
    there += [
        Place(-1, one.id, one.width, one.length)
        for one in sources
        if one.stock == spread.lot.stock and one.id not in used
    ]
    new = any(not one.sheet.source for one in alike)
    return tuple(there) if new else (*there, Place(-1, "", spread.lot.usable, Fraction(0)))


def sent(
    cutting: Cutting, found: Spreads, spread: Spread, number: int, to: Place, marks: Rulers
) -> Edit:
    """A piece goes to another cloth; raises CannotPlan where it does not fit there."""
    _must_be_whole(spread)
    one = spread.pieces[number]
    lies = _lies_on(spread)
    moved = lies.pop(number)
    goes = (moved[0], moved[0].width, moved[0].height, moved[0].turns)
    other = next((s for s in found.spreads if s.at == to.at), None)
    there = _lies_on(other) if other is not None else []
    fresh = _fresh(spread.lot, to)
    made = _laid(fresh if other is None else other.sheet, [*there, goes], marks)
    if made is None:
        raise CannotPlan("piece", f"{one.want.words} does not fit there beside what lies there.")
    left = _without(spread, number, lies, marks) if lies else None
    changes: dict[int, Sheet | None] = {spread.at: left}
    if other is not None:
        changes[other.at] = made
    added = [made] if other is None else []
    return _having(cutting, f"Cut {one.want.words} from another cloth", changes, added)


def partners(found: Spreads, spread: Spread, number: int) -> tuple[tuple[Spread, int], ...]:
    """Pieces that one could change places with: of its size on its own cloth, any on others of the
    same cloth that no cut is made on; alike ones once."""
    mine, told = spread.pieces[number], set()
    made = []
    for other in found.spreads:
        if other.lot is not spread.lot or other.sheet.done or other.sheet.stored:
            continue
        for at, one in enumerate(other.pieces):
            here = other.at == spread.at
            if one.want.key == mine.want.key or (here and not _as_large(one, mine)):
                continue
            if (other.at, one.want.key) not in told:
                told.add((other.at, one.want.key))
                made.append((other, at))
    return tuple(made)


def _as_large(one: Lying, other: Lying) -> bool:
    return (one.box.w, one.box.h) == (other.box.w, other.box.h)


def swapped(
    cutting: Cutting, spread: Spread, number: int, other: Spread, at: int, marks: Rulers
) -> Edit:
    """Two pieces change places; raises CannotPlan where one does not fit."""
    _must_be_whole(spread)
    _must_be_whole(other)
    one, two = spread.pieces[number].want, other.pieces[at].want
    words = f"Swap {one.words} and {two.words}"
    if other.at == spread.at:
        changed = {number: two.key, at: one.key}
        rows = tuple(
            Laid(piece=changed.get(n, p.want.key), x=p.box.x, y=p.box.y, w=p.box.w, h=p.box.h)
            for n, p in enumerate(spread.pieces)
        )
        kept = {"laid": rows, "pinned": True}
        return _having(cutting, words, {spread.at: spread.sheet.model_copy(update=kept)})
    changes: dict[int, Sheet | None] = {}
    for cloth, gone, comes in ((spread, number, two), (other, at, one)):
        lies = _lies_on(cloth)
        lies[gone] = (comes, comes.width, comes.height, comes.turns)
        sheet = _laid(cloth.sheet, lies, marks)
        if sheet is None:
            raise CannotPlan("piece", f"{comes.words} does not fit there beside what lies there.")
        changes[cloth.at] = sheet
    return _having(cutting, words, changes)


def spoiled(
    cutting: Cutting,
    found: Spreads,
    spread: Spread,
    number: int,
    sources: Sequence[Source],
    marks: Rulers,
) -> tuple[Edit, Place]:
    """A piece was cut wrong and is cut once more: from what is left of a cloth, from the shelf, or
    from as little new cloth as can be; the change, and where it comes from."""
    want = spread.pieces[number].want
    lies = (want, want.width, want.height, want.turns)
    if not spread.sheet.done:
        raise CannotPlan("piece", "No cut is made on this cloth yet.")
    for place in _to_save(found, spread, sources, want):
        sheet = _laid(_fresh(spread.lot, place), [lies], marks)
        if sheet is not None:
            words = f"Cut {want.words} once more"
            wrong = (*cutting.wrong, want.key)
            changed = cutting.model_copy(
                update={"sheets": (*cutting.sheets, sheet), "wrong": wrong}
            )
            return edit(words, ("cutting", changed)), place
    raise CannotPlan("piece", f"{want.words} comes out of no cloth there is.")


def spoiled_words(words: str, place: Place, notation: Notation) -> str:
    """From where a piece is cut once more."""
    if not place.source:
        return f"{words}: nothing that is left will do. The list says what to buy."
    size = notation.size(place.width, place.length)
    where = "what is left of a cloth" if place.source.startswith(REST) else "a piece that is there"
    return f"{words} comes out of {where}, {size}."


def _to_save(
    found: Spreads, spread: Spread, sources: Sequence[Source], want: Want
) -> Iterable[Place]:
    """What could give the piece once more, the smallest first: what is left of cloths that are
    not put away yet, then the shelf, then new cloth."""
    alike = [one for one in found.spreads if one.lot is spread.lot]
    rests = [
        Place(-1, whence_rest(one.sheet, box), box.w, box.h)
        for one in alike
        if one.sheet.stays and not one.sheet.stored
        for box in one.offcuts
    ]
    yield from sorted(rests, key=lambda one: one.width * one.length)
    used = {one.sheet.source for one in alike if not one.sheet.stored}
    free = [one for one in sources if one.stock == want.item.stock and one.id not in used]
    for one in sorted(free, key=lambda one: one.width * one.length):
        yield Place(-1, one.id, one.width, one.length)
    yield Place(-1, "", spread.lot.usable, Fraction(0))


def _must_be_whole(spread: Spread) -> None:
    if spread.sheet.done or spread.sheet.stored:
        raise CannotPlan("piece", BEGUN)


def _fresh(lot: Lot, place: Place) -> Sheet:
    """A cloth with nothing on it yet; of new cloth the length comes with what is laid."""
    if place.source:
        return Sheet(stock=lot.stock, source=place.source, width=place.width, length=place.length)
    return Sheet(stock=lot.stock, width=lot.usable, length=Fraction(1), trim=lot.straightening)


def _laid(sheet: Sheet, lies: Sequence[Lies], marks: Rulers) -> Sheet | None:
    """These pieces on that cloth, which then stays so; nothing if they do not all fit."""
    many = Counter(lies)
    pieces = tuple(
        Piece(f"{at}", want.key, wide, high, number, "", turns)
        for at, ((want, wide, high, turns), number) in enumerate(many.items())
    )
    new = not sheet.source
    cloth = Stock(
        "cloth",
        "yardage" if new else "scrap",
        "",
        sheet.width,
        None if new else sheet.length,
        sheet.trim if new else Fraction(0),
    )
    answer = plan_cutting(CutJob("in", (cloth,), pieces), SECONDS)
    if answer.left_out:
        return None
    names = {piece.id: piece.label for piece in pieces}
    rows = tuple(
        Laid(piece=names[one.piece], x=one.x, y=one.y, w=one.w, h=one.h)
        for one in answer.placements
    )
    return laid_on(sheet, rows, answer.bound, marks).model_copy(update={"pinned": True})


def _without(spread: Spread, number: int, lies: Sequence[Lies], marks: Rulers) -> Sheet:
    """A cloth without one of its pieces: as the others lie, or anew where that takes less."""
    rows = tuple(
        Laid(piece=one.want.key, x=one.box.x, y=one.box.y, w=one.box.w, h=one.box.h)
        for at, one in enumerate(spread.pieces)
        if at != number
    )
    kept = laid_on(spread.sheet, rows, Fraction(0), marks).model_copy(update={"pinned": True})
    anew = _laid(spread.sheet, lies, marks)
    return anew if anew is not None and anew.length < kept.length else kept


def _having(
    cutting: Cutting, words: str, changes: dict[int, Sheet | None], added: Sequence[Sheet] = ()
) -> Edit:
    """The plan with some cloths in place of others, or without them."""
    there = [changes.get(at, sheet) for at, sheet in enumerate(cutting.sheets)]
    sheets = (*(sheet for sheet in there if sheet is not None), *added)
    return edit(words, ("cutting", cutting.model_copy(update={"sheets": sheets})))
