"""Prints whose picture is placed: rough rows by hand, windows found in them wherever they begin."""

import io
import random
import re
from collections import Counter
from math import floor

import pypdf
import pytest

from tessil.core.bag.ids import CutNote
from tessil.core.catalogue.prints import Photo, Print
from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.words.cuts import note_words
from tessil.drawing.picture import Cloth
from tessil.files.cuttingpages import OnPaper, cutting_sheet
from tessil.files.printing import pdf_of
from tests.conftest import tote

F = Fraction


def bag(repeat, **more):
    """A tote whose red dots are placed; its front is pieced of squares of 2½."""
    base = tote()
    prints = tuple(
        one.model_copy(update={"placed": one.key == "red", "repeat": F(repeat)})
        for one in base.prints
    )
    front = base.panels["front"]
    squares = front.piecing.model_copy(update={"way": "squares"})
    panels = {**base.panels, "front": front.model_copy(update={"piecing": squares})}
    return plan(base.model_copy(update={"prints": prints, "panels": panels, **more}))


def rows_of(made):
    found = [i for i in made.items if i.stock == "red" and any(n.kind == "window" for n in i.notes)]
    return [(i.number.whole, i.width.value, i.height.value, i.notes[-1].number) for i in found]


def wanted(made):
    plain = tuple(one.model_copy(update={"placed": False}) for one in made.project.prints)
    without = plan(made.project.model_copy(update={"prints": plain}))
    return [i for i in without.items if i.stock == "red" and i.what == "square"]


def test_squares_lie_whole_repeats_apart_in_a_rough_row():
    """Repeat 4, squares of 2½, cloth 40 wide: 2½ and 4, then one every 4: nine to a row of 38½,
    each row 6½ high."""
    made = bag(4)
    expected = []
    for item in wanted(made):
        whole, rest = divmod(item.number.whole, 9)
        expected += [(whole, F(77, 2), F(13, 2), 9)] if whole else []
        expected += [(1, F(5, 2) + 4 * rest, F(13, 2), rest)] if rest else []
    assert expected
    assert rows_of(made) == expected
    item = next(i for i in made.items if i.notes and i.notes[-1].kind == "window")
    assert "cut 9 from it by a window" in note_words(item.owner, item.notes)


@pytest.mark.parametrize("repeat", [F(1), F(5, 2), F(3), F(7)])
def test_wherever_the_cloth_begins_every_piece_is_in_its_row(repeat):
    """A hundred beginnings at random: the first place of the picture in the row, and one every
    whole repeats after it, all lie inside."""
    dice = random.Random(7)
    for _, wide, high, each in rows_of(bag(repeat)):
        apart = -floor(-F(5, 2) / repeat) * repeat
        for _ in range(100):
            x, y = (F(dice.randrange(1000), 1000) * repeat for _ in range(2))
            last = x + (each - 1) * apart + F(5, 2)
            assert last <= wide
            assert y + F(5, 2) <= high


def test_the_whole_of_it_is_cut_edge_to_edge_from_one_cloth():
    made = bag(4)
    lots = lots_of([made])
    cutting = plan_whole(lots, (), made.marks, 0.0)
    red = [one for one in spreads_of(cutting, lots).spreads if one.lot.stock == "red"]
    sizes = sorted((p.box.w, p.box.h) for one in red for p in one.pieces)
    asked = sorted((w, h) for many, w, h, _ in rows_of(made) for _ in range(many))
    laid = Counter(tuple(sorted(size)) for size in sizes)
    assert asked
    assert all(laid[tuple(sorted(size))] >= asked.count(size) for size in asked)
    windows = [w for lot in lots for w in lot.wants if w.item.notes[-1:] == (CutNote("window", 9),)]
    assert windows
    assert not any(want.turns for want in windows)  # the picture would lie sideways
    assert cutting.over == ()


def test_a_repeat_wider_than_the_cloth_says_so_and_may_be_let_go():
    made = bag(60)
    (snag,) = [one for one in made.snags if one.key == "cut.wide.red"]
    assert "a repeat more" in snag.why.lower()
    after = plan(applied(made.project, snag.fixes[0]))
    assert not [one for one in after.snags if one.key == "cut.wide.red"]
    assert rows_of(after) == []


def test_strips_that_are_folded_or_sewn_into_sets_are_never_placed():
    prints = tuple(one.model_copy(update={"placed": True}) for one in tote().prints)
    sets = tote().panels["front"].piecing.model_copy(update={"strip_sets": True})
    panels = {**tote().panels}
    panels["front"] = panels["front"].model_copy(update={"piecing": sets})
    made = plan(tote(prints=prints, panels=panels))
    never = [i for i in made.items if i.what in ("binding strip", "strip for a set")]
    assert {item.what for item in never} == {"binding strip", "strip for a set"}
    assert "window" not in {note.kind for item in never for note in item.notes}
    found = [snag for snag in made.snags if snag.key.startswith("cut.placed")]
    assert found
    for snag in found[:1]:
        after = plan(applied(made.project, snag.fixes[0]))
        assert snag.key not in [one.key for one in after.snags]


def test_a_photo_comes_again_by_its_own_size():
    """800 points across for 4 inches between two points 400 apart: 8 inches; its half, 4 by 3."""
    photo = Photo(
        data="AAAAAAAAAAAA",
        wide=800,
        high=600,
        crop=(0.0, 0.0, 0.5, 0.5),
        one=(0.0, 0.5),
        other=(0.5, 0.5),
        apart=F(4),
    )
    assert Print(key="p", name="P", photo=photo).tile == (4, 3)
    assert Print(key="p", name="P", repeat=F(3, 2)).tile == (F(3, 2), F(3, 2))


def test_every_piece_of_a_window_has_a_label_of_its_own_size(qapp):
    made = bag(4)
    lots = lots_of([made])
    found = spreads_of(plan_whole(lots, (), made.marks, 0.0), lots)
    asked = OnPaper(
        "Tote", found, ("new cloth",) * len(found.spreads), (), made.marks.notation, "inch"
    )
    pages = pypdf.PdfReader(io.BytesIO(pdf_of(cutting_sheet(asked), "Tote"))).pages
    text = " ".join(" ".join(page.extract_text().split()) for page in pages)
    labels = re.findall(r"2½ × 2½ Test tote, (\d+) of (\d+) Red dots, by a window", text)
    expected = []
    for number in [item.number.whole for item in wanted(made)]:
        expected += [(nth, number) for nth in range(1, number + 1)]
    assert expected
    assert sorted((int(nth), int(of)) for nth, of in labels) == sorted(expected)


@pytest.mark.parametrize(("turned", "at"), [(False, (2.0, 1.0)), (True, (6.0, 5.0))])
def test_its_picture_is_drawn_in_the_middle(turned, at):
    """A piece of 8 by 6 and a picture of 4: it begins 2 from the left and 1 from the top; turned it
    is laid the other way from the other end."""
    placed = Print(key="p", name="P", repeat=F(4), placed=True)
    outline = ((0.0, 0.0), (8.0, 0.0), (8.0, 6.0), (0.0, 6.0))
    assert Cloth(outline, placed, turned=turned).origin == at
    plain = Print(key="p", name="P", repeat=F(4))
    assert Cloth(outline, plain).origin == (0.0, 0.0)
