"""All bags of a job cut from one heap of cloth: every piece once, none turned that must not be."""

import pytest
from msgspec.structs import replace

from tessil.core.cutting.acts.whole import (
    Source,
    asked,
    first_laid,
    kept_as,
    lots_of,
    pinned,
    plan_whole,
    spread_readings,
    spreads_of,
    stored,
    ticked,
)
from tessil.core.cutting.choice import Cutting
from tessil.core.cutting.cutlist import SCRAP
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tessil.files.projectfile import from_text, load, to_text
from tests.conftest import DEMO, tote
from tests.core.sheets.checking import separable

F = Fraction
KIT = DEMO.with_name("kit-of-four.tessil")


@pytest.fixture(scope="module")
def kit():
    job = load(KIT)
    return job, [plan(job.project(at)) for at in range(len(job.bags))]


@pytest.fixture(scope="module", params=["searched", "first"])
def cut(request, kit):
    lots, marks = lots_of(kit[1]), kit[1][0].marks
    if request.param == "searched":
        return lots, plan_whole(lots, (), marks, 1.5)
    laid = [first_laid(lot, (), marks, "least") for lot in lots]
    sheets = tuple(sheet for one in laid for sheet in one.sheets)
    return lots, Cutting(asked=asked(lots), sheets=sheets)


def test_every_line_of_every_cut_list_is_laid_as_often_as_it_says(kit, cut):
    _, plans = kit
    lots, cutting = cut
    laid = {}
    for sheet in cutting.sheets:
        for one in sheet.laid:
            laid[one.piece] = laid.get(one.piece, 0) + 1
    wanted = {
        f"{bag}.{line}": item.number.whole
        for bag, made in enumerate(plans)
        for line, item in enumerate(made.items)
        if item.what != SCRAP and not item.in_hand
    }
    assert laid == wanted
    assert cutting.over == ()
    assert sum(want.number for lot in lots for want in lot.wants) == sum(wanted.values())


def test_pieces_have_their_size_lie_on_their_cloth_and_come_out_edge_to_edge(cut):
    lots, cutting = cut
    found = spreads_of(cutting, lots)
    assert len(found.spreads) == len(cutting.sheets)
    for spread in found.spreads:
        boxes = []
        for one in spread.pieces:
            size = (one.want.width, one.want.height)
            assert (one.box.w, one.box.h) == (size[::-1] if one.turned else size)
            assert not (one.turned and not one.want.turns)
            assert one.box.x >= 0
            assert one.box.right <= spread.sheet.width
            assert one.box.end <= spread.sheet.length
            boxes.append((one.box.x, one.box.y, one.box.right, one.box.end))
        assert separable(boxes, "y", 3)
        assert spread.sheet.least <= spread.used <= spread.sheet.length + spread.sheet.trim


def test_cut_together_the_kit_takes_no_more_of_any_cloth_than_bag_by_bag(kit, cut):
    lots, cutting = cut
    alone = {}
    for made in kit[1]:
        for bought in made.bought:
            alone[bought.stock] = alone.get(bought.stock, 0) + bought.cloth.buy.value
    figures = {
        reading.key.partition(".")[2]: reading.figure
        for reading in spread_readings(spreads_of(cutting, lots), kit[1][0].marks)
    }
    assert figures.keys() == alone.keys()
    assert all(figures[stock].value <= alone[stock] for stock in alone)
    assert sum(f.value for f in figures.values()) < 0.9 * sum(alone.values())
    by_stock = {sheet.stock: sheet for sheet in cutting.sheets}
    for stock, figure in figures.items():  # the sum on show is the cloth that is drawn
        assert figure.value == by_stock[stock].length + by_stock[stock].trim
        assert (figure.value / F(9, 2)).denominator == 1


def test_a_print_with_an_up_is_not_turned_and_its_strips_for_folding_are_free():
    project = tote()
    prints = tuple(
        entry.model_copy(update={"directional": entry.key == "oat"}) for entry in project.prints
    )
    (lot,) = [
        one
        for one in lots_of([plan(project.model_copy(update={"prints": prints}))])
        if one.stock == "oat"
    ]
    free = {want.item.what for want in lot.wants if want.turns}
    held = {want.item.what for want in lot.wants if not want.turns}
    assert "lining" in held
    assert free <= {"binding strip", "strip to fold", "cloth to cut on the cross"}


def test_what_there_is_comes_first():
    """By hand: 2 linings of a tote, in a cloth that takes just one of them."""
    lots = tuple(lot for lot in lots_of([plan(tote())]) if lot.stock == "oat")
    (lining,) = [want for want in lots[0].wants if want.item.what == "lining"]
    there = Source("scrap 1", "oat", lining.width, lining.height)
    marks = plan(tote()).marks
    cutting = plan_whole(lots, (there,), marks, 0.0)
    first, *rest = spreads_of(cutting, lots).spreads
    assert first.sheet.source == "scrap 1"
    assert [one.want for one in first.pieces] == [lining]
    assert first.parting.cuts == ()
    assert [one.sheet.source for one in rest] == [""]
    other = Source("scrap 2", "red", F(40), F(40))
    assert all(sheet.source == "" for sheet in plan_whole(lots, (other,), marks, 0.0).sheets)


def test_a_plan_of_the_cuts_is_kept_in_the_file_and_knows_when_the_bags_have_changed(kit, cut):
    job, plans = kit
    lots, cutting = cut
    shared = job.shared.model_copy(update={"cutting": cutting})
    again = from_text(to_text(job.model_copy(update={"shared": shared})))
    assert again.shared.cutting == cutting
    assert not spreads_of(cutting, lots).changed
    more = plan(plans[0].project.model_copy(update={"bags": 3}))
    others = lots_of([more, *plans[1:]])
    assert spreads_of(cutting, others).changed
    assert asked(others) != asked(lots) == cutting.asked
    assert spreads_of(cutting, ()).spreads == ()


def test_bags_that_cannot_be_planned_are_left_out(kit):
    _, plans = kit
    lots = lots_of([plans[0], None, plans[2]])
    assert {want.bag for lot in lots for want in lot.wants} == {0, 2}


def test_cuts_are_ticked_one_cloth_at_a_time(kit, cut):
    job, _ = kit
    lots, cutting = cut
    project = job.project().model_copy(update={"cutting": cutting})
    after = applied(project, ticked(cutting, 2, 3, "Make a cut"))
    assert [sheet.done for sheet in after.cutting.sheets[:4]] == [0, 0, 3, 0]
    found = spreads_of(after.cutting, lots)
    assert (found.done, found.cuts) == (3, sum(len(s.parting.cuts) for s in found.spreads))
    assert [s.first for s in found.spreads[:2]] == [1, 1 + len(found.spreads[0].parting.cuts)]
    assert applied(after, ticked(after.cutting, 2, -1, "")).cutting.sheets[2].done == 0


def test_a_search_that_is_stopped_at_once_still_cuts_everything(kit):
    lots = lots_of(kit[1])
    heard = []

    def stop(far):
        heard.append(far)
        return False

    cutting = plan_whole(lots, (), kit[1][0].marks, 60.0, told=stop)
    assert cutting.over == ()
    assert heard
    assert all(0 <= far <= 1 for far in heard)


def test_more_than_ten_metres_of_a_cloth_are_laid_kept_and_read_again():
    """Thirty satchels take more of a lining's cloth than any bag is long."""
    satchel = load(DEMO)
    made = plan(applied(satchel.project(), edit("", ("bags", 60))))
    lots = lots_of([made])
    laid = [first_laid(lot, (), made.marks, "least") for lot in lots]
    cutting = kept_as(lots, (sheet for one in laid for sheet in one.sheets), ())
    assert max(sheet.length for sheet in cutting.sheets) > 394
    wanted = {want.key: want.number for lot in lots for want in lot.wants}
    assert laid_by_piece(cutting) == wanted
    job = satchel.holding(applied(made.project, edit("", ("cutting", cutting))))
    assert from_text(to_text(job)) == job


def test_what_is_too_large_to_be_kept_is_said(kit):
    made = kit[1][0]
    lots = lots_of([made])
    sheet = first_laid(lots[0], (), made.marks, "least").sheets[0]
    with pytest.raises(CannotPlan, match="more than 400 cloths"):
        kept_as(lots, [sheet] * 401, ())
    want = lots[0].wants[0]
    many = replace(lots[0], wants=(replace(want, width=F(1), height=F(1), number=5001),))
    with pytest.raises(CannotPlan, match="5001 pieces are more"):
        first_laid(many, (), made.marks, "least")


def test_nothing_to_cut_is_a_plan_of_no_cloths(kit):
    assert plan_whole((), (), kit[1][0].marks) == Cutting(asked=asked(()))


def laid_by_piece(cutting):
    laid = {}
    for sheet in cutting.sheets:
        for one in sheet.laid:
            laid[one.piece] = laid.get(one.piece, 0) + 1
    return laid


def test_what_was_begun_or_pinned_stays_when_the_rest_is_planned_again(kit, cut):
    job, plans = kit
    lots, cutting = cut
    project = job.project().model_copy(update={"cutting": cutting})
    begun = applied(project, ticked(cutting, 1, 2, "Make a cut")).cutting
    held = applied(project, pinned(begun, 4, True)).cutting
    again = plan_whole(lots, (), plans[0].marks, 0.0, seed=7, before=held)
    assert held.sheets[1] in again.sheets
    assert held.sheets[4] in again.sheets
    assert laid_by_piece(again) == laid_by_piece(cutting)
    assert applied(project, pinned(held, 4, False)).cutting == begun


def test_more_bags_are_laid_beside_what_is_cut_already(kit, cut):
    """Two satchels more: the cloths that were begun stay, and only what they lack is laid."""
    job, plans = kit
    _, cutting = cut
    begun = cutting
    for at in range(len(cutting.sheets)):
        begun = applied(job.project(), ticked(begun, at, 1, "")).cutting
    more = plan(plans[0].project.model_copy(update={"bags": 4}))
    lots = lots_of([more, *plans[1:]])
    again = plan_whole(lots, (), plans[0].marks, 0.0, before=begun)
    assert again.sheets[:1] == begun.sheets[:1]
    assert set(begun.sheets) <= set(again.sheets)
    wanted = {want.key: want.number for lot in lots for want in lot.wants}
    assert laid_by_piece(again) == wanted
    assert not spreads_of(again, lots).changed


def test_a_cloth_of_the_shelf_that_was_begun_is_not_opened_twice(kit):
    _, plans = kit
    lots = tuple(lot for lot in lots_of(plans) if lot.stock == "linen")
    there = (Source("a#1", "linen", F(40), F(30)), Source("b#1", "linen", F(20), F(20)))
    first = plan_whole(lots, there, plans[0].marks, 0.0)
    assert {sheet.source for sheet in first.sheets} >= {"a#1", ""}
    held = applied(plans[0].project, pinned(first, 0, True)).cutting
    again = plan_whole(lots, there, plans[0].marks, 0.0, before=held)
    opened = [sheet.source for sheet in again.sheets if sheet.source]
    assert len(opened) == len(set(opened))
    assert laid_by_piece(again) == laid_by_piece(first)


def test_of_two_alike_on_the_shelf_the_other_is_free_once_the_first_is_counted_off(kit):
    _, plans = kit
    lots = tuple(lot for lot in lots_of(plans) if lot.stock == "linen")
    there = (Source("a#1", "linen", F(40), F(20)), Source("a#2", "linen", F(40), F(20)))
    first = plan_whole(lots, there[:1], plans[0].marks, 0.0)
    at = next(n for n, sheet in enumerate(first.sheets) if sheet.source == "a#1")
    held = applied(plans[0].project, stored(first, at, "")).cutting
    again = plan_whole(lots, there[:1], plans[0].marks, 0.0, before=held)
    assert [sheet.source for sheet in again.sheets].count("a#1") == 2
    assert laid_by_piece(again) == laid_by_piece(first)


def test_a_piece_of_another_size_than_it_was_cut_is_not_that_piece(kit, cut):
    lots, cutting = cut
    sheet = cutting.sheets[0]
    one = sheet.laid[0]
    other = one.model_copy(update={"w": one.w + 1})
    broken = sheet.model_copy(update={"laid": (other, *sheet.laid[1:]), "pinned": True})
    changed = cutting.model_copy(update={"sheets": (broken, *cutting.sheets[1:])})
    again = plan_whole(lots, (), kit[1][0].marks, 0.0, before=changed)
    laid = laid_by_piece(again)
    assert laid[one.piece] == laid_by_piece(cutting)[one.piece] + 1
