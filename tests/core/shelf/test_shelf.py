"""What is typed onto the shelf, what two windows make of it, and what cutting takes and leaves."""

import pytest

from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError
from tessil.core.plan import plan
from tessil.core.shelf.acts import kept_for, put_away, row_of, sources_of, taken_by_others
from tessil.core.shelf.outlines import largest_inside
from tessil.core.shelf.rows import NOTHING, Keeper, Row, Shelf, fresh_id, merged_shelves
from tessil.core.shelf.typed import read_row
from tests.conftest import tote

F = Fraction
MM = F(5, 127)  # inches


def typed(text, units="inch"):
    row = read_row(text, units, F(40), "a")
    return row.kind, row.name, row.width, row.length, row.number


@pytest.mark.parametrize(
    ("text", "row"),
    [
        ("fq river ripple 3", ("fat quarter", "river ripple", 21, 18, 3)),
        ("Fat quarter sea stars", ("fat quarter", "sea stars", 21, 18, 1)),
        ("f8 sea stars ×2", ("fat eighth", "sea stars", 21, 9, 2)),
        ("1/2 yd oat", ("yardage", "oat", 40, 18, 1)),
        ("1 1/2 yd oat plain", ("yardage", "oat plain", 40, 54, 1)),
        ("½ yd oat", ("yardage", "oat", 40, 18, 1)),
        ("0,5 m oat", ("yardage", "oat", 40, 500 * MM, 1)),
        ("60cm oat", ("yardage", "oat", 40, 600 * MM, 1)),
        ("5 x 4 pea dots", ("scrap", "pea dots", 5, 4, 1)),
        ("12 1/2 × 7 pea dots x3", ("scrap", "pea dots", F(25, 2), 7, 3)),
        ("5×4 pea dots × 3", ("scrap", "pea dots", 5, 4, 3)),
        ("sq 5 birds 42", ("squares", "birds", 5, 5, 42)),
        ("squares birds", ("squares", "birds", 5, 5, 1)),
        ("strips 2.5 birds 6", ("strips", "birds", 40, F(5, 2), 6)),
        ("zip 12 navy 2", ("zipper", "navy", None, 12, 2)),
        ("zip 30 cm navy", ("zipper", "navy", None, 300 * MM, 1)),
        ("cord 3 m natural", ("cord", "natural", None, 3000 * MM, 1)),
        ("webbing 1 x 72 black", ("webbing", "black", 1, 72, 1)),
        ("batting 45 x 60 cotton batting", ("batting", "cotton batting", 45, 60, 1)),
        ("ring 1 in 4", ("ring", "1 in", None, None, 4)),
        ("thread 200 m oat 2", ("thread", "200 m oat", None, None, 2)),
    ],
)
def test_a_row_is_typed_as_one_says_it(text, row):
    assert typed(text) == row


def test_a_roll_is_longer_than_any_bag():
    """A metre is 5000/127 in exactly."""
    cord = read_row("cord 25 m natural", "inch", F(40), "a")
    assert (cord.kind, cord.length) == ("cord", 25 * F(5000, 127))
    assert read_row("15 m oat", "metric", F(40), "a").length == 15 * F(5000, 127)
    with pytest.raises(LengthError, match="1000 m"):
        read_row("cord 1001 m natural", "inch", F(40), "a")


def test_bare_numbers_are_in_the_maker_s_unit():
    assert typed("12 x 9 dots", "metric") == ("scrap", "dots", 120 * MM, 90 * MM, 1)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Say what it is"),
        ("   ", "Say what it is"),
        ("oat", "has no size"),
        ("18 oat 2", "has no size"),
        ("fq", "name"),
        ("5 × 4", "name"),
        ("zip 3000 m navy", "longer than 1000 m"),
        ("fq " + "x" * 90, "at most 80 letters"),
    ],
)
def test_what_cannot_be_read_is_said_in_a_sentence(text, says):
    with pytest.raises(LengthError, match=says):
        typed(text)


def row(id_, number=1, **more):
    return Row(id=id_, name=more.pop("name", "oat"), number=number, **more)


def test_rows_change_in_their_place_and_new_ones_come_last():
    shelf = Shelf(rows=(row("a"), row("b"), row("c")))
    assert [(r.id, r.number) for r in shelf.having(row("b", 5), row("d")).rows] == [
        ("a", 1),
        ("b", 5),
        ("c", 1),
        ("d", 1),
    ]
    assert [r.id for r in shelf.without("a", "c").rows] == ["b"]
    assert (shelf.row("c"), shelf.row("z")) == (row("c"), None)
    assert (fresh_id(shelf, "z"), fresh_id(shelf, "a")) == ("z", "a-2")


def test_two_windows_lose_nothing_of_each_other():
    base = Shelf(rows=(row("a"), row("b"), row("c"), row("d")))
    ours = base.without("a").having(row("b", 2), row("x"))
    theirs = base.without("d").having(row("c", 7), row("y"))
    both = merged_shelves(base, ours, theirs)
    assert {(r.id, r.number) for r in both.rows} == {("b", 2), ("c", 7), ("x", 1), ("y", 1)}
    assert merged_shelves(base, ours, base) == ours
    assert merged_shelves(base, base, theirs) == theirs
    # What one changed and the other took out stays, since somebody cared for it.
    assert merged_shelves(base, base.having(row("d", 9)), theirs).row("d") == row("d", 9)
    assert merged_shelves(base, base.without("c"), theirs).row("c") == row("c", 7)


@pytest.fixture(scope="module")
def lots():
    return lots_of([plan(tote())])


def test_rows_are_found_by_the_name_of_the_print_and_every_piece_counts(lots):
    shelf = Shelf(
        rows=(
            row("q", 2, name="OAT plain", kind="fat quarter", width=F(21), length=F(18)),
            row("z", 3, name="oat plain", kind="zipper", length=F(12)),
            row("n", 0, name="oat plain", width=F(9), length=F(9)),
            row("s", 1, name="something else", width=F(9), length=F(9)),
            row("k", 1, name="red", width=F(9), length=F(8)),
        )
    )
    found = [(one.id, one.stock, one.width, one.length) for one in sources_of(shelf, lots)]
    assert sorted(found) == [("k#1", "red", 9, 8), ("q#1", "oat", 21, 18), ("q#2", "oat", 21, 18)]
    assert row_of(shelf, "q#2").number == 2
    assert row_of(shelf, "gone#1") is None


def test_what_is_left_of_a_cloth_goes_on_the_shelf_and_what_was_used_goes_from_it(lots):
    """By area: what there was is what was cut, what is kept, and slivers under 2 in."""
    there = row("big", 2, name="Oat plain", kind="yardage", width=F(40), length=F(36))
    shelf = Shelf(rows=(there,))
    oat = tuple(lot for lot in lots if lot.stock == "oat")
    cutting = plan_whole(oat, tuple(sources_of(shelf, oat)), plan(tote()).marks, 0.0)
    spread = spreads_of(cutting, oat).spreads[0]
    assert spread.sheet.source == "big#1"
    after = put_away(shelf, spread, "left", "2026-11-27")
    assert after.row("big").number == 1
    new = after.rows[1:]
    assert {(r.kind, r.name, r.date) for r in new} == {("scrap", "Oat plain", "2026-11-27")}
    assert sorted((r.width, r.length) for r in new for _ in range(r.number)) == sorted(
        (box.w, box.h) for box in spread.offcuts
    )
    kept = sum(r.width * r.length * r.number for r in new)
    cut = sum(one.box.w * one.box.h for one in spread.pieces)
    slivers = sum(box.w * box.h for box in spread.parting.left if min(box.w, box.h) < 2)
    assert kept + cut + slivers == 40 * 36
    again = put_away(after, spread, "left", "2026-11-28")
    assert len(again.rows) == len(after.rows)  # offcuts alike are counted, not told twice
    assert put_away(NOTHING, spread, "left", "").rows


def test_what_is_kept_for_one_job_is_cut_by_no_other():
    """Two alike and a third kept for the fair: the kit is cut from two, the fair from all three."""
    shelf = Shelf(
        rows=(
            Row(id="a", kind="fat quarter", name="Oat plain", width=F(21), length=F(18), number=2),
            Row(id="b", name="Oat plain", width=F(9), length=F(9), kept_for="The fair"),
        )
    )
    lots = [lot for lot in lots_of([plan(tote())]) if lot.stock == "oat"]
    assert [one.id for one in sources_of(shelf, lots, Keeper("", "The kit"))] == ["a#1", "a#2"]
    assert len(list(sources_of(shelf, lots, Keeper("", "The fair")))) == 3
    kept = kept_for(shelf, ("a#1", "a#2", "b#1", "", "offcut 1.1"), Keeper("m1", "The kit"))
    assert [row.kept_for for row in kept.rows] == ["The kit", "The fair"]
    assert kept_for(kept, ("a#1",), Keeper("m2", "The fair")) is kept
    renamed = Keeper("m1", "Renamed")
    assert [row.id for row in taken_by_others(kept, ("a#1", "b#1"), renamed)] == ["b"]
    assert taken_by_others(kept, ("a#1", ""), renamed) == ()
    assert taken_by_others(kept, ("a#1",), Keeper("m2", "The kit"))  # another job of that name


def test_the_largest_piece_of_a_slanted_one_that_lies_lower_down():
    """In a right triangle it is half as wide and half as high, wherever its corners lie."""
    assert largest_inside([(F(0), F(7)), (F(20), F(7)), (F(0), F(27))]) == (10, 10)
