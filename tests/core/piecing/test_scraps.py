"""Scraps: read as they are written, laid in courses, counted as crumbs."""

from itertools import combinations
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.catalogue.prints import Print
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError
from tessil.core.numbers.rulers import rulers
from tessil.core.piecing.choice import Scrap
from tessil.core.piecing.fill import best_row, fill_quickly, fill_well
from tessil.core.piecing.scrap_tops import Blank, enough, least_waste, usable_scraps
from tessil.core.piecing.scraplist import read_lengths, read_scrap, write_lengths, write_scrap
from tessil.core.plan import plan
from tests.conftest import tote
from tests.core.piecing.helpers import F, top, wish

PRINTS = (
    Print(key="dots", name="Pea dots"),
    Print(key="stars", name="Sea stars"),
    Print(key="moss", name="Sea green"),
)


@given(st.lists(st.integers(1, 60), min_size=1, max_size=9), st.integers(1, 200))
def test_a_row_is_the_best_of_all_subsets(lengths, target):
    picked = best_row(lengths, target)
    got = sum(lengths[at] for at in picked)
    sums = [sum(some) for n in range(len(lengths) + 1) for some in combinations(lengths, n)]
    reached = [value for value in sums if value >= target]
    assert got == (min(reached) if reached else sum(lengths))
    assert len(set(picked)) == len(picked)


@given(
    st.lists(st.integers(20, 90), min_size=4, max_size=24), st.integers(60, 160), st.integers(1, 4)
)
def test_no_piece_lies_twice_and_the_longer_search_is_no_worse(lengths, target, rows):
    targets = [target] * rows
    quick, well = fill_quickly(lengths, targets), fill_well(lengths, targets, seed=1, tries=20)
    for filling in (quick, well):
        used = [at for row in filling.rows for at in row]
        assert len(used) == len(set(used))
        sums = [sum(lengths[at] for at in row) for row in filling.rows]
        assert filling.over == sum(max(got - target, 0) for got in sums)
        assert filling.short == sum(max(target - got, 0) for got in sums)
    assert well.rank <= quick.rank
    assert fill_well(lengths, targets, seed=1, tries=20) == well


def test_a_search_can_be_stopped():
    asked = []

    def watch(share):
        asked.append(share)
        return len(asked) < 3

    fill_well([37, 41, 53, 29, 47], [60, 60], seed=2, tries=100, watch=watch)
    assert len(asked) <= 3


BOX = (
    Scrap(width=7, height=3, number=3, print="a"),
    Scrap(width=5, height=4, number=4),
    Scrap(width=F(9, 2), height=F(5, 2), number=12, print="b"),
    Scrap(width=3, height=9, number=2, print="c"),
)


def test_a_course_reaches_the_width_and_says_by_how_much_it_is_over():
    made = top(12, 10, way="courses", scraps=BOX)
    over = {line.key: line.figure.value for line in made.lines}
    lengths = {str(cut.scrap + 1): cut.width.value for cut in made.cuts}
    for number in range(1, 6):
        assert over[f"courses.{number}"] >= 0
        row = [patch for patch in made.patches if patch.row == number]
        cut = sum(lengths[patch.name] for patch in row)
        sewn = cut - (len(row) - 1) * F(1, 2)
        assert sewn - 12 == over[f"courses.{number}"]
    assert over["courses.over"] == sum(over[f"courses.{n}"] for n in range(1, 6))


def used_scraps(made):
    """How many of each scrap, by its place in the list, is cut into."""
    found = {}
    for cut in made.cuts:
        if cut.scrap is not None:
            at = int(str(cut.scrap + 1)) - 1
            found[at] = found.get(at, 0) + cut.each
    return found


def test_no_scrap_is_used_more_often_than_it_is_there():
    made = top(12, 14, way="courses", scraps=BOX)
    lengths = {cut.scrap: cut.width.value for cut in made.cuts}
    cases = list(used_scraps(made).items())
    assert cases
    for at, pieces in cases:
        on_its_side = lengths[at] == BOX[at].height != BOX[at].width
        each = (BOX[at].width if on_its_side else BOX[at].height) // F(5, 2)
        assert pieces <= BOX[at].number * each


def test_what_the_higher_courses_used_up_is_not_there_for_the_lower():
    """Two of 7 × 4 make a course of 4; the course of 2½ has one of its own and is too short."""
    scraps = (Scrap(width=7, height=4, number=2), Scrap(width=7, height=F(5, 2)))
    made = top(12, F(21, 4), way="courses", scraps=scraps, heights=(F(4), F(5, 2)))
    assert used_scraps(made) == {0: 2, 1: 1}
    over = {line.key: line.figure.value for line in made.lines}
    assert over["courses.1"] == F(27, 2) - 12
    assert over["courses.2"] < 0


def test_a_directional_scrap_is_not_laid_on_its_side():
    tall = (Scrap(width=3, height=9, number=8, print="birds"),)
    turned = top(8, 5, way="courses", scraps=tall)
    straight = top(8, 5, way="courses", scraps=tall, upright=("birds",))
    assert {cut.width.value for cut in turned.cuts} == {F(9)}
    assert {cut.width.value for cut in straight.cuts} == {F(3)}


def test_what_was_decided_stays_until_the_list_changes():
    asked = wish(12, 10, way="courses", scraps=BOX)
    filled = least_waste(asked, 1, lambda _: True)
    made = top(12, 10, way="courses", scraps=BOX, filled=filled)
    over = {line.key: line.figure.value for line in made.lines}
    quick = {line.key: line.figure.value for line in top(12, 10, way="courses", scraps=BOX).lines}
    assert over["courses.over"] <= quick["courses.over"]
    fewer = top(12, 10, way="courses", scraps=BOX[:1], filled=filled)
    assert any(line.figure.value < 0 for line in fewer.lines)


def test_crumbs_lose_their_seams_and_small_ones_lose_most():
    large = top(8, 8, way="crumbs", scraps=(Scrap(width=5, height=4, number=10),))
    small = top(8, 8, way="crumbs", scraps=(Scrap(width=2, height=F(3, 2), number=66),))
    share = [{line.key: line.figure.value for line in made.lines} for made in (large, small)]
    assert share[0]["crumbs.net"] == 10 * F(9, 2) * F(7, 2)
    assert share[0]["crumbs.share"] == F(9, 2) * F(7, 2) / 20
    assert share[1]["crumbs.share"] == F(3, 2) * 1 / 3
    assert share[0]["crumbs.takes"] == 64 / share[0]["crumbs.share"] * F(9, 8)


def test_scraps_narrower_than_their_seams_are_not_counted():
    scraps = (Scrap(width=F(1, 2), height=9), Scrap(width=F(3, 4), height=9))
    assert usable_scraps(wish(way="crumbs", scraps=scraps)) == (1,)


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("4½ × 6 ×3 dots", (F(9, 2), F(6), 3, "dots")),
        ("4 1/2 x 6", (F(9, 2), F(6), 1, "")),
        ("10x20 cm pea", (F(500, 127), F(1000, 127), 1, "dots")),
        ("3*4*2 sea stars", (F(3), F(4), 2, "stars")),
        ("2.5x10 x12", (F(5, 2), F(10), 12, "")),
    ],
)
def test_scraps_are_read_as_they_are_written(text, expected):
    scrap = read_scrap(text, PRINTS, "inch")
    assert (scrap.width, scrap.height, scrap.number, scrap.print) == expected
    if "cm" in text:
        return
    again = read_scrap(write_scrap(scrap, PRINTS, rulers("inch").notation), PRINTS, "inch")
    assert again == scrap


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("4", "width × height"),
        ("4 x", "width × height"),
        ("4 x 5 wool", "no print “wool”"),
        ("4 x 5 sea", "could be Sea stars or Sea green"),
        ("0 x 5", "more than zero"),
        ("4 x 5 x900", "less than or equal|200"),
        ("x", "width × height"),
    ],
)
def test_what_is_no_scrap_says_so(text, says):
    with pytest.raises((LengthError, ValueError), match=says):
        read_scrap(text, PRINTS, "inch")


def test_lists_of_lengths():
    assert read_lengths("2½, 1½", "inch") == (F(5, 2), F(3, 2))
    assert read_lengths("6,5; 4,5", "metric") == (F(65, 10) / F(254, 100), F(45, 10) / F(254, 100))
    assert write_lengths((F(5, 2), F(3, 2)), rulers("inch").notation) == "2½, 1½"
    with pytest.raises(LengthError, match="at least one"):
        read_lengths("  ", "inch")


def _pieced(**changes):
    front = tote().panels["front"]
    piecing = front.piecing.model_copy(update={"way": "courses", "prints": ()})
    panels = {**tote().panels, "front": front.model_copy(update={"piecing": piecing})}
    return tote(panels=panels, **changes)


def test_scraps_too_few_block_with_a_way_out():
    made = plan(_pieced(scraps=(Scrap(width=9, height=3, number=2, print="red"),)))
    short = next(s for s in made.snags if s.key.startswith("piece.courses.short.front"))
    assert "too short" in short.title
    mended = plan(applied(made.project, short.fixes[-1]))
    assert not any(s.key.startswith("piece.courses") for s in mended.snags)


def test_scraps_laid_for_front_and_back_are_there_only_once():
    many = (Scrap(width=9, height=3, number=40, print="red"),)
    made = plan(_pieced(scraps=many, bags=3))
    snag = next(s for s in made.snags if s.key == "piece.scraps.twice")
    assert "6 are to be made" in snag.title
    project = made.project
    for words in ("Make one bag", "Piece the back"):
        snag = next(s for s in plan(project).snags if s.key == "piece.scraps.twice")
        project = applied(project, next(f for f in snag.fixes if f.words.startswith(words)))
    assert not any(s.key == "piece.scraps.twice" for s in plan(project).snags)


def test_scraps_are_cut_but_not_bought():
    made = plan(_pieced(scraps=(Scrap(width=9, height=3, number=40, print="red"),)))
    cut = [item for item in made.items if item.what == "course piece"]
    assert cut
    assert all("course piece" not in item.what for b in made.bought for item in b.items)


def test_small_scraps_are_noted_and_taken_out():
    scraps = (Scrap(width=9, height=3, number=40, print="red"), Scrap(width=F(1, 2), height=3))
    made = plan(_pieced(scraps=scraps))
    snag = next(s for s in made.snags if s.key.startswith("piece.scraps.small.front"))
    assert applied(made.project, snag.fixes[0]).scraps == scraps[:1]
    assert isinstance(made.project.scraps[0].width, Fraction)
    assert applied(made.project, edit("", ("scraps", ()))).scraps == ()


def test_a_mountain_of_scraps_is_looked_through_by_the_handful():
    mountain = tuple(
        Scrap(width=F(24 + at, 8), height=F(40 + at % 9, 8), number=200, print="abc"[at % 3])
        for at in range(300)
    )
    made = top(12, 16, way="courses", scraps=mountain)
    assert {line.figure.value for line in made.lines if line.key == "courses.over"} == {0}
    pool = [Blank(at, F(24 + at, 8), False) for at in range(300) for _ in range(200)]
    handful = enough(pool, F(600))
    assert len(handful) < 1200
    assert sum(blank.length for blank in handful) >= 600
    assert len({blank.scrap for blank in handful}) > 90
    assert len(enough(pool[:3], F(600))) == 3
    assert len(top(12, 16, way="crumbs", scraps=mountain).patches) < 200


def test_the_last_row_of_crumbs_is_drawn_to_the_edge():
    """Five of 5 × 4 show 4½ × 3½: two in a row, and one drawn as wide as 8."""
    made = top(8, 8, way="crumbs", scraps=(Scrap(width=5, height=4, number=5),))
    drawn = [(patch.row, patch.place, patch.outline[0], patch.outline[2]) for patch in made.patches]
    assert drawn == [
        (1, 1, (0, 0), (4.5, 3.5)),
        (1, 2, (4.5, 0), (8, 3.5)),
        (2, 1, (0, 3.5), (4.5, 7)),
        (2, 2, (4.5, 3.5), (8, 7)),
        (3, 1, (0, 7), (8, 8)),
    ]


def test_courses_are_drawn_from_edge_to_edge():
    """Two of 7 × 3 in a course of 3 are 13½: to 6¾ and to 12, where the rest is cut off."""
    scraps = (Scrap(width=7, height=3, number=4),)
    made = top(12, F(11, 2), way="courses", scraps=scraps, heights=(F(3), F(3)))
    drawn = [(p.row, p.place, p.outline[0], p.outline[2]) for p in made.patches]
    assert drawn == [
        (1, 1, (0, 0), (6.75, 2.75)),  # with what stands over at the outer edges
        (1, 2, (6.75, 0), (12, 2.75)),
        (2, 1, (0, 2.75), (6.75, 5.5)),
        (2, 2, (6.75, 2.75), (12, 5.5)),
    ]


@pytest.mark.parametrize("seed", range(5))
def test_a_filling_says_what_its_rows_are_over_and_short(seed):
    dice = Random(seed)
    lengths, targets = [dice.randint(3, 40) for _ in range(9)], (60, 45, 80)
    for filling in (fill_quickly(lengths, targets), fill_well(lengths, targets, seed, tries=30)):
        sums = [sum(lengths[at] for at in row) for row in filling.rows]
        off = [got - target for got, target in zip(sums, targets, strict=True)]
        assert filling.over == sum(by for by in off if by > 0)
        assert filling.short == -sum(by for by in off if by < 0)
        assert len({at for row in filling.rows for at in row}) == sum(map(len, filling.rows))
