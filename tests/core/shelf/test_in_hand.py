"""Odd scraps by their corners, and what a bag has in hand laid on the shelf and taken up again."""

import pytest
import shapely

from tessil.core.catalogue.prints import Print
from tessil.core.choices import bound_print
from tessil.core.edges.choice import MOST_PIECES
from tessil.core.edges.pieces import read_pieces
from tessil.core.edits import applied
from tessil.core.numbers.corners import read_corners
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError
from tessil.core.piecing.choice import Pack, Scrap
from tessil.core.plan import plan
from tessil.core.sandwich.choice import Offcut
from tessil.core.shelf.inhand import bias_taken_up, kind_on_shelf, laid_down, taken_up, with_looks
from tessil.core.shelf.outlines import largest_inside
from tessil.core.shelf.rows import Keeper, Row, Shelf, merged_shelves
from tessil.core.shelf.typed import read_row
from tests.conftest import tote

F = Fraction


def corners(*places):
    return tuple((F(x), F(y)) for x, y in places)


@pytest.mark.parametrize(
    ("outline", "size"),
    [
        (corners((0, 0), (8, 0), (8, 5), (0, 5)), (8, 5)),
        (corners((0, 0), (8, 0), (0, 6)), (4, 3)),  # of a right triangle half of each leg
        (corners((4, 0), (8, 6), (0, 6)), (4, 3)),  # of any triangle half of base and height
        (corners((0, 0), (9, 0), (9, 4), (5, 4), (5, 9), (0, 9)), (5, 9)),  # 45 of an L, not 36
        (corners((0, 4), (4, 0), (8, 4), (4, 8)), (4, 4)),  # a square on its corner
    ],
)
def test_the_largest_square_cornered_piece_by_hand(outline, size):
    """Geometry; a level between corners may miss the best by a forty-eighth of the height."""
    width, length = largest_inside(outline)
    assert float(width * length) == pytest.approx(size[0] * size[1], rel=0.03)
    assert width * length <= size[0] * size[1]


def test_it_lies_inside_whatever_the_outline():
    outline = corners((1, 0), (7, 1), (9, 5), (6, 4), (4, 8), (0, 6))
    width, length = largest_inside(outline)
    shape = shapely.Polygon([(float(x), float(y)) for x, y in outline])
    box = shapely.box(0, 0, float(width), float(length))
    places = [(x / 16, y / 16) for x in range(160) for y in range(160)]
    moved = (shapely.affinity.translate(box, x, y) for x, y in places)
    assert any(shape.buffer(0.07).covers(one) for one in moved)


@pytest.mark.parametrize(
    "outline", [corners((0, 0), (4, 4), (4, 0), (0, 4)), corners((0, 0), (4, 0), (8, 0))]
)
def test_corners_that_go_round_nothing_are_refused(outline):
    with pytest.raises(LengthError):
        largest_inside(outline)


def test_an_odd_scrap_is_said_by_its_corners():
    row = read_row("corners 0,0 8,0 0,6 river ripple 2", "inch", F(40), "a")
    assert (row.kind, row.name, row.number) == ("scrap", "river ripple", 2)
    assert row.corners == corners((0, 0), (8, 0), (0, 6))
    assert float(row.width * row.length) == pytest.approx(12, rel=0.03)
    metric = read_row("corners 0;0 20,5;0 20,5;10 0;10 oat", "metric", F(40), "a")
    assert metric.corners[1][0] == F(41, 2) * 50 / 127  # 20.5 cm
    assert metric.flat


@pytest.mark.parametrize(
    ("text", "units", "rest"),
    [
        ("0 0, 8 0, 0 6", "inch", ""),
        ("0,0 8,0 0,6", "inch", ""),
        ("0;0 8;0 0;6", "inch", ""),
        ("0 0, 8 0, 0 6 oat, washed 2", "inch", "oat, washed 2"),
        ("0,0 8,0 0,6 oat, washed 2", "inch", "oat, washed 2"),
        ("0 0, 20.32 0, 0 15.24", "metric", ""),  # 1 in is 2.54 cm exactly
        ("0;0 20,32;0 0;15,24", "metric", ""),
    ],
)
def test_corners_are_read_in_every_way_they_are_said(text, units, rest):
    assert read_corners(text, units) == (corners((0, 0), (8, 0), (0, 6)), rest)
    if not rest:
        assert [piece.corners for piece in read_pieces(text, units)] == [
            corners((0, 0), (8, 0), (0, 6))
        ]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("corners 0,0 8,0 river", "one after the other"),
        ("corners river", "two numbers"),
        ("corners 0,0 8,0 0,6", "name"),
        ("corners 0,0 -8,0 0,6 river", "left and top"),
        ("corners 0,0 8x,0 0,6 river", "no unit"),
    ],
)
def test_corners_that_cannot_be_are_told(text, says):
    with pytest.raises(LengthError, match=says):
        read_row(text, "inch", F(40), "a")


@pytest.fixture
def rich():
    """A tote with scraps of two sizes, an offcut and a pack."""
    return plan(
        tote(
            scraps=(
                Scrap(width=F(4), height=F(6), number=3, print="red"),
                Scrap(width=F(2), height=F(9), print="blue"),
            ),
            offcuts=(Offcut(material="sew-in-foam", width=F(12), height=F(9), number=2),),
            pack=Pack(pieces=42),
        )
    )


def told(shelf):
    return [(r.kind, r.name, r.width, r.length, r.number) for r in shelf.rows]


def test_what_is_in_hand_lies_on_the_shelf_and_the_bag_has_it_no_more(rich):
    lying = Row(id="old", kind="scrap", name="Red dots", width=F(4), length=F(6), number=5)
    shelf, change = laid_down(Shelf(rows=(lying,)), rich, "mark", "2026-11-28")
    assert told(shelf) == [
        ("scrap", "Red dots", 4, 6, 8),  # those like it are counted together
        ("scrap", "Blue checks", 2, 9, 1),
        ("foam", "Sew-in foam", 12, 9, 2),
        ("squares", "pack of squares", F(5, 2), F(5, 2), 42),
    ]
    assert len({row.id for row in shelf.rows}) == 4
    after = applied(rich.project, change)
    assert (after.scraps, after.offcuts, after.pack) == ((), (), None)


def test_nothing_is_lost_where_the_shelf_has_no_room(rich, monkeypatch):
    full = Row(id="old", kind="scrap", name="Red dots", width=F(4), length=F(6), number=9998)
    shelf, _ = laid_down(Shelf(rows=(full,)), rich, "mark", "")
    assert [r.number for r in shelf.rows if r.name == "Red dots"] == [9998, 3]
    monkeypatch.setattr("tessil.core.shelf.inhand.MOST_ROWS", 2)
    shelf, change = laid_down(Shelf(rows=(full,)), rich, "mark", "")
    assert told(shelf) == told(Shelf(rows=(full,)))
    assert applied(rich.project, change) == rich.project


def test_pieces_of_the_binding_s_cloth_are_taken_for_bias_small_ones_first(rich):
    cloth = rich.project.print_of(bound_print(rich.project)).name
    odd = corners((0, 0), (9, 0), (0, 8))
    shelf = Shelf(
        rows=(
            Row(id="fq", kind="fat quarter", name=cloth.upper(), width=F(21), length=F(18)),
            Row(id="odd", name=cloth, width=F(4), length=F(4), corners=odd, number=2),
            Row(id="long", kind="yardage", name=cloth, width=F(40), length=F(9)),
            Row(id="kept", name=cloth, width=F(3), length=F(3), kept_by="other"),
            Row(id="else", name="moss", width=F(3), length=F(3)),
        )
    )
    after, change = bias_taken_up(shelf, rich, Keeper("mine", "Mine"))
    assert [row.id for row in after.rows] == ["long", "kept", "else"]
    bias = applied(rich.project, change).bias
    assert bias.source == "pieces"
    assert [(one.width, one.corners) for one in bias.pieces] == [(4, odd), (4, odd), (21, ())]
    many = Shelf(rows=(Row(id="m", name=cloth, width=F(5), length=F(5), number=99),))
    after, change = bias_taken_up(many, rich)
    assert after.row("m").number == 99 - MOST_PIECES
    assert len(applied(rich.project, change).bias.pieces) == MOST_PIECES
    bare = Shelf()
    assert bias_taken_up(bare, rich)[0] is bare


def test_a_cloth_looks_as_the_bag_has_it_once_something_of_it_lies_there(rich):
    red, blue = rich.project.prints[:2]
    shelf = Shelf(rows=(Row(id="a", name="red dots", width=F(4), length=F(6)),))
    seen = with_looks(shelf, rich.project.prints)
    assert [one.name for one in seen.cloths] == [red.name]
    assert seen.cloth(" RED DOTS ").motif == red.motif
    assert seen.cloth(blue.name) is None
    other = red.model_copy(update={"motif": "stars"})
    known = seen.looking(other)
    assert known.cloth(red.name).motif == "stars"
    assert with_looks(known, rich.project.prints) is known  # what the shelf knows, it knows


def test_the_looks_of_cloths_that_are_gone_make_room(monkeypatch):
    monkeypatch.setattr("tessil.core.shelf.rows.MOST_CLOTHS", 3)
    shelf = Shelf(rows=(Row(id="a", name="b", width=F(4), length=F(6)),))
    for name in ("a", "b", "c", "d"):
        shelf = shelf.looking(Print(key="k", name=name))
    assert [one.name for one in shelf.cloths] == ["b", "d"]


def test_two_windows_keep_each_other_s_looks():
    base = Shelf().looking(Print(key="k", name="oat")).looking(Print(key="k", name="moss"))
    ours = base.looking(Print(key="k", name="oat", motif="stars"))
    theirs = base.looking(Print(key="k", name="sky", motif="birds"))
    both = merged_shelves(base, ours, theirs)
    assert {one.name: one.motif for one in both.cloths} == {
        "oat": "stars",
        "moss": "plain",
        "sky": "birds",
    }
    gone = base.model_copy(update={"cloths": base.cloths[1:]})
    assert [one.name for one in merged_shelves(base, gone, theirs).cloths] == ["moss", "sky"]


def test_scraps_of_its_prints_are_taken_up_and_no_others(rich):
    laid, change = laid_down(Shelf(), rich, "mark", "")
    kept = Row(id="k", name="Red dots", width=F(3), length=F(3), kept_by="other")
    long = Row(id="l", kind="yardage", name="Red dots", width=F(40), length=F(9))
    shelf = laid.having(kept, long)
    bare = plan(applied(rich.project, change))
    left, taken = taken_up(shelf, bare, Keeper("mine", "Mine"))
    assert [row.id for row in left.rows][-2:] == ["k", "l"]
    assert {row.kind for row in left.rows} == {"foam", "squares", "scrap", "yardage"}
    assert applied(bare.project, taken).scraps == rich.project.scraps
    same, nothing = taken_up(left, bare)
    assert (same, nothing.changes) == (left, ())


def test_every_material_has_its_kind_on_the_shelf(rich):
    kinds = {key: kind_on_shelf(one) for key, one in rich.materials.items()}
    assert kinds["cotton-batting"] == kinds["fusible-fleece"] == "batting"
    assert kinds["stiff-interfacing"] == "interfacing"
    assert kinds["cut-away"] == kinds["foundation-paper"] == "stabiliser"
    assert (kinds["gridded-web"], kinds["clear-vinyl"]) == ("web", "vinyl")
    assert kinds["faux-leather"] == "yardage"
