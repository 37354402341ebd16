"""Bags that could be made of a heap, held against hand sums: ``n(w − 2s) + 2s`` (common practice,
no source): 5 × 4 small squares are 10½ × 8½ pieced, 8 × 5 16½ × 10½, ten strips 20½."""

import pytest

from tessil.core.brief.choice import Thing
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.proposals.offers import Asked, best, offer, ways, with_others
from tessil.core.proposals.said import read_heap
from tessil.core.proposals.words import left_words, less_words, made_words
from tessil.core.shapes import SHAPES
from tessil.core.snags import Weight

F = Fraction
TOPS = {(5, 4): (F(21, 2), F(17, 2)), (8, 5): (F(33, 2), F(21, 2)), (5, 8): (F(21, 2), F(33, 2))}
ONE_CLOTH = "a piece 21 × 23 quilted already"


FEW = ("tote", "clutch", "boxed-zip")
ANY = Asked()


def offers_of(text, asked=ANY, shapes=()):
    heap = read_heap(text, asked.units)
    every = [laid for laid in ways(heap) if not shapes or laid.shape in shapes]
    return heap, [one for one in (offer(heap, asked, laid) for laid in every) if one]


@pytest.fixture(scope="module")
def forty():
    return offers_of("forty 2½ squares")


def test_forty_squares_make_three_bags_of_forty(forty):
    heap, found = forty
    chosen = best(found)
    assert [one.used for one in chosen] == [40, 40, 40]
    assert len({one.made.shape.key for one in chosen}) == 3
    assert {left_words(heap, one) for one in chosen} == {"Nothing is left over"}


def test_the_panel_is_the_largest_that_whole_squares_give(forty):
    """The plan asks for just so much of a top as the squares make, and for all of them; an eighth
    more of the panel would ask for another column or row."""
    _, found = forty
    seen = 0
    for one in found:
        top = TOPS.get((one.across, one.down))
        if top is None:
            continue
        lead = one.made.panel(one.made.shape.leader)
        needed = (lead.needed.width.value, lead.needed.height.value)
        assert all(need <= there for need, there in zip(needed, top, strict=True))
        assert [part.top.pieces.whole for part in lead.parts] == [one.across * one.down]
        assert (lead.pieced.width.value, lead.pieced.height.value) == top
        for way, at in (("panel_width", 0), ("panel_height", 1)):
            sizes = dict(one.made.project.shape.sizes)
            sizes[way] += F(3, 8)  # the top is cut to a quarter: two of its marks at most
            choice = one.made.project.shape.model_copy(update={"sizes": sizes})
            more = plan(one.made.project.model_copy(update={"shape": choice}))
            grown = more.panel(more.shape.leader).needed
            assert (grown.width.value, grown.height.value)[at] > top[at]
        seen += 1
    assert seen >= 4


def test_what_is_offered_is_planned_again_the_same(forty):
    """An offer is a project like any other: what is opened is what was shown."""
    for one in best(forty[1]):
        again = plan(one.made.project)
        assert [f.value for f in again.bag.finished] == [f.value for f in one.made.bag.finished]
        assert not [snag for snag in again.snags if snag.weight.name == "BLOCKS"]


def test_a_column_and_a_row_less_are_beside_it():
    heap, found = offers_of("forty 2½ squares", shapes=("tote",))
    one = with_others(heap, Asked(), next(o for o in found if (o.across, o.down) == (5, 4)))
    column, row = one.beside
    assert (column.across, column.down, column.used) == (4, 4, 32)
    assert (row.across, row.down, row.used) == (5, 3, 30)
    assert less_words(one, column).startswith("A column less: ")
    assert less_words(one, row).startswith("A row less: ")
    narrow, wide = column.made.bag.finished[0].value, one.made.bag.finished[0].value
    assert F(1) < wide - narrow < F(5, 2)  # a square finishes 2 wide, the base a little less deep


def test_no_more_is_used_than_there_is():
    for text in ("17 squares", "nine 5 squares", "a pack of 42 squares", "seven strips 2½ wide"):
        heap, found = offers_of(text, shapes=FEW)
        assert found
        assert all(0 < one.used <= heap.number for one in found)
        assert all(one.used + one.left == heap.number for one in found)


def test_strips_lie_one_below_another_and_are_cut_from_the_cloth():
    heap, found = offers_of("ten strips 2½ wide")
    assert {one.down for one in found} == {10}
    for one in found:
        lead = one.made.panel(one.made.shape.leader)
        assert lead.pieced.height.value == F(41, 2)
        assert one.made.shape.cloths * lead.pieced.width.value <= 40
    assert made_words(heap, found[0]).startswith("10 strips one below another")


def test_cloth_is_the_largest_bag_of_each_shape():
    heap, found = offers_of(ONE_CLOTH, shapes=("boxed-zip", "sleeve"))
    assert heap.quilted
    for one in found:
        lead = one.made.panel(one.made.shape.leader).panel
        assert min(lead.width.value, lead.height.value) <= 21
        assert max(lead.width.value, lead.height.value) <= 23
        assert one.made.cloth is not None
    assert len(found) == 2


def test_it_must_hold_the_thing_and_stand_where_it_shall():
    thing = Thing(name="tuner", width=F(3), height=F(5), thickness=F(1))
    _, held = offers_of("forty 2½ squares", Asked(thing=thing), FEW)
    assert held
    assert all(fit.fits for one in held for fit in one.made.fits)
    assert all(one.made.fits for one in held)
    _, narrow = offers_of("forty 2½ squares", Asked(most=(F(8),)), FEW)
    assert narrow
    assert max(one.made.bag.finished[0].value for one in narrow) <= 8
    huge = Thing(name="tuba", width=F(30), height=F(30), thickness=F(10))
    assert offers_of("forty 2½ squares", Asked(thing=huge), FEW)[1] == []


def test_metric_squares_are_planned_in_metric():
    heap, found = offers_of("40 squares 6,5 cm", Asked(units="metric"), FEW)
    assert heap.height == F(650, 254)
    assert any(one.used == 40 for one in found)
    assert {one.made.project.units for one in found} == {"metric"}
    for shape in ("one-piece", "boxed-zip", "tote", "sleeve"):
        for one in offers_of("60 squares 6,5 cm", Asked(units="metric"), [shape])[1]:
            sizes = one.made.project.shape.sizes.values()
            assert all(size * F(254, 10) % 1 == 0 for size in sizes)  # whole millimetres
            assert not [snag for snag in one.made.snags if snag.weight is Weight.BLOCKS]


def test_squares_that_are_offered_are_counted_over_all_cloths():
    heap = read_heap("forty 2½ squares")
    found = [laid for laid in ways(heap) if laid.used]
    assert found
    for laid in found:
        cloths = SHAPES[laid.shape].cloths
        assert laid.used == laid.across * laid.down * cloths <= 40
        assert 40 - laid.used < cloths * max(laid.across, laid.down) + cloths
