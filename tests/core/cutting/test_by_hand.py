"""A hand changes the plan of the cuts: nothing is lost, all can still be cut edge to edge."""

from collections import Counter

import pytest
from msgspec.structs import replace

from tessil.core.cutting.acts.byhand import (
    Place,
    partners,
    places_for,
    sent,
    spoiled,
    spoiled_words,
    swapped,
    turned,
)
from tessil.core.cutting.acts.whole import Source, lots_of, plan_whole, spreads_of, ticked
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import tote

F = Fraction


@pytest.fixture(scope="module")
def begun():
    """A tote cut from new cloth, and two red pieces that lie on the shelf."""
    made = plan(tote())
    lots = lots_of([made])
    sources = (Source("a", "red", F(20), F(9)), Source("b", "red", F(3), F(5)))
    return made, lots, sources, plan_whole(lots, (), made.marks, 0.0)


def laid(cutting):
    return Counter(one.piece for sheet in cutting.sheets for one in sheet.laid)


def after(made, change):
    return applied(made.project, change).cutting


def spread_of(cutting, lots, stock):
    found = spreads_of(cutting, lots)
    assert len(found.spreads) == len(cutting.sheets)  # every cloth can be cut edge to edge
    return found, next(one for one in found.spreads if one.lot.stock == stock)


def test_a_piece_goes_to_another_cloth_and_both_stay_so(begun):
    made, lots, sources, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    at = next(n for n, one in enumerate(spread.pieces) if max(one.box.w, one.box.h) <= 20)
    places = places_for(found, spread, sources)
    assert [place.source for place in places] == ["a", "b"]
    moved = after(made, sent(cutting, found, spread, at, places[0], made.marks))
    assert laid(moved) == laid(cutting)
    new = moved.sheets[-1]
    assert (new.source, len(new.laid), new.pinned) == ("a", 1, True)
    assert new.laid[0].piece == spread.pieces[at].want.key
    found, smaller = spread_of(moved, lots, "red")
    assert len(smaller.pieces) == len(spread.pieces) - 1
    assert smaller.sheet.length <= spread.sheet.length
    back = next(one for one in found.spreads if one.sheet.source == "a")
    home = next(one for one in places_for(found, back, sources) if one.at >= 0)
    again = after(made, sent(moved, found, back, 0, home, made.marks))
    assert laid(again) == laid(cutting)
    assert "a" not in {sheet.source for sheet in again.sheets}


def test_two_pieces_change_places_on_two_cloths(begun):
    """One that was sent to the shelf's cloth comes back, another goes there in its place."""
    made, lots, _, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    at = next(n for n, one in enumerate(spread.pieces) if max(one.box.w, one.box.h) <= 20)
    first = spread.pieces[at].want.key
    moved = after(made, sent(cutting, found, spread, at, Place(-1, "a", F(20), F(9)), made.marks))
    found, home = spread_of(moved, lots, "red")
    away = next(one for one in found.spreads if one.sheet.source == "a")
    others = [(one, n) for one, n in partners(found, away, 0) if one.at == home.at]
    swaps = 0
    for other, n in others:
        try:
            change = swapped(moved, away, 0, other, n, made.marks)
        except CannotPlan:
            continue  # it does not fit there
        again = after(made, change)
        assert laid(again) == laid(cutting)
        found, _ = spread_of(again, lots, "red")
        there = next(one for one in found.spreads if one.sheet.source == "a")
        assert [one.want.key for one in there.pieces] == [other.pieces[n].want.key]
        assert again.sheets[home.at].pinned
        assert again.sheets[away.at].pinned
        assert first in {one.piece for one in again.sheets[home.at].laid}
        swaps += 1
    assert swaps


def test_pieces_of_one_size_change_places_on_their_cloth(begun):
    made, lots, _, cutting = begun
    found = spreads_of(cutting, lots)
    pairs = [
        (spread, n, m)
        for spread in found.spreads
        for n in range(len(spread.pieces))
        for other, m in partners(found, spread, n)
        if other.at == spread.at
    ]
    assert pairs
    spread, n, m = pairs[0]
    one, two = spread.pieces[n], spread.pieces[m]
    assert (one.box.w, one.box.h) == (two.box.w, two.box.h)
    change = swapped(cutting, spread, n, spread, m, made.marks)
    assert change.words == f"Swap {one.want.words} and {two.want.words}"
    again = spreads_of(after(made, change), lots).spreads[spread.at]
    assert again.pieces[n].want.key == two.want.key
    assert again.pieces[m].want.key == one.want.key
    assert [p.box for p in again.pieces] == [p.box for p in spread.pieces]


def test_a_cloth_that_was_begun_swaps_nothing(begun):
    made, lots, _, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    started = after(made, ticked(cutting, spread.at, 1, "cut"))
    found, spread = spread_of(started, lots, "red")
    assert partners(found, spread, 0) == ()
    with pytest.raises(CannotPlan, match="Cuts are made"):
        swapped(started, spread, 0, spread, 1, made.marks)


def test_what_does_not_fit_there_says_so_and_changes_nothing(begun):
    made, lots, sources, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    small = places_for(found, spread, sources)[1]
    with pytest.raises(CannotPlan, match="does not fit there"):
        sent(cutting, found, spread, 0, small, made.marks)


def test_a_piece_lies_the_other_way_and_stays_so(begun):
    made, lots, _, cutting = begun
    _, spread = spread_of(cutting, lots, "red")
    at = next(n for n, one in enumerate(spread.pieces) if one.box.w != one.box.h)
    box, key = spread.pieces[at].box, spread.pieces[at].want.key
    other = after(made, turned(cutting, spread, at, made.marks))
    assert laid(other) == laid(cutting)
    _, there = spread_of(other, lots, "red")
    way = (box.h, box.w)
    before = sum((one.box.w, one.box.h) == way and one.want.key == key for one in spread.pieces)
    now = sum((one.box.w, one.box.h) == way and one.want.key == key for one in there.pieces)
    assert now == before + 1


def test_once_cuts_are_made_what_lies_there_stays(begun):
    made, lots, sources, cutting = begun
    _, spread = spread_of(cutting, lots, "red")
    cut = after(made, ticked(cutting, spread.at, 1, ""))
    found, spread = spread_of(cut, lots, "red")
    with pytest.raises(CannotPlan, match="Cuts are made"):
        turned(cut, spread, 0, made.marks)
    with pytest.raises(CannotPlan, match="Cuts are made"):
        sent(cut, found, spread, 0, places_for(found, spread, sources)[0], made.marks)


def test_a_piece_cut_wrong_is_cut_once_more_from_the_smallest_that_does(begun):
    made, lots, sources, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    at = next(n for n, one in enumerate(spread.pieces) if min(one.box.w, one.box.h) == F(5, 2))
    with pytest.raises(CannotPlan, match="No cut is made"):
        spoiled(cutting, found, spread, at, sources, made.marks)
    cut = after(made, ticked(cutting, spread.at, len(spread.parting.cuts), ""))
    found, spread = spread_of(cut, lots, "red")
    piece = spread.pieces[at].want
    change, place = spoiled(cut, found, spread, at, sources, made.marks)
    again = after(made, change)
    assert laid(again)[piece.key] == laid(cut)[piece.key] + 1
    assert again.wrong == (piece.key,)
    there, _ = spread_of(again, lots, "red")
    one = there.spreads[-1].pieces[-1]
    assert one.want.key == piece.key
    fits = [
        (box.w, box.h)
        for box in spread.offcuts
        if any(box.w >= w and box.h >= h for w, h in ways(piece))
    ]
    if fits:
        assert (place.width, place.length) == min(fits, key=lambda one: one[0] * one[1])
        parent = next(one for one in there.spreads if one.at == spread.at)
        assert len(parent.offcuts) == len(spread.offcuts) - 1  # it is not left twice
    assert piece.words in spoiled_words(piece.words, place, made.marks.notation)


def ways(want):
    straight = (want.width, want.height)
    return (straight, straight[::-1]) if want.turns else (straight,)


def test_without_anything_left_the_least_new_cloth_is_bought(begun):
    """A whole lining piece comes out of no rest of its own cloth: ½ and its height are bought."""
    made, lots, _, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    at = max(range(len(spread.pieces)), key=lambda n: max(ways(spread.pieces[n].want)[0]))
    piece = spread.pieces[at].want
    bare = cutting.model_copy(
        update={
            "sheets": tuple(
                s.model_copy(update={"stored": True, "done": 9}) for s in cutting.sheets
            )
        }
    )
    found, spread = spread_of(bare, lots, "red")
    change, place = spoiled(bare, found, spread, at, (), made.marks)
    assert place.source == ""
    new = after(made, change).sheets[-1]
    least = min(high for wide, high in ways(piece) if wide <= 40) + F(1, 2)
    assert new.length + new.trim >= least
    assert new.length + new.trim - least < F(9, 2)
    assert "what to buy" in spoiled_words(piece.words, place, made.marks.notation)


def test_planned_again_a_piece_cut_wrong_is_still_cut_once_more(begun):
    made, lots, sources, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    cut = after(made, ticked(cutting, spread.at, len(spread.parting.cuts), ""))
    found, spread = spread_of(cut, lots, "red")
    change, _ = spoiled(cut, found, spread, 0, sources, made.marks)
    again = plan_whole(lots, sources, made.marks, 0.0, before=after(made, change))
    assert laid(again) == laid(after(made, change))


def test_a_piece_that_has_another_size_now_is_not_cut_once_more_for_what_was_cut_wrong(begun):
    made, lots, sources, cutting = begun
    found, spread = spread_of(cutting, lots, "red")
    cut = after(made, ticked(cutting, spread.at, len(spread.parting.cuts), ""))
    found, spread = spread_of(cut, lots, "red")
    change, _ = spoiled(cut, found, spread, 0, sources, made.marks)
    key = spread.pieces[0].want.key
    larger = [
        replace(
            lot,
            wants=tuple(
                replace(want, width=want.width + 1) if want.key == key else want
                for want in lot.wants
            ),
        )
        for lot in lots
    ]
    again = plan_whole(larger, (), made.marks, 0.0, before=after(made, change))
    new = [
        one for sheet in again.sheets if not sheet.done and not sheet.pinned for one in sheet.laid
    ]
    wanted = next(want for lot in larger for want in lot.wants if want.key == key)
    assert sum(one.piece == key for one in new) == wanted.number
