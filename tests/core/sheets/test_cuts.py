"""Cuts in order: made one after the other with nothing but a ruler, they free every piece."""

import random

import pytest
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.cuts import Box, parted
from tessil.core.sheets.plan import plan_cutting
from tests.core.sheets.test_cutting_plans import random_job

F = Fraction


def lying(*sizes):
    return [Box(*(F(v) for v in size), at) for at, size in enumerate(sizes)]


def made(cloth, cuts):
    """The rectangles that lie on the mat when all cuts are made, each cut in the one part it
    crosses from edge to edge."""
    parts = [(cloth.x, cloth.y, cloth.right, cloth.end)]
    for cut in cuts:
        across = cut.way == "across"
        low, high = (1, 3) if across else (0, 2)
        for part in parts:
            ends = (part[0], part[2]) if across else (part[1], part[3])
            if ends == (cut.begins, cut.ends) and part[low] == cut.edge < cut.at < part[high]:
                break
        else:
            raise AssertionError(f"no part is cut from edge to edge by {cut}")
        parts.remove(part)
        one, other = list(part), list(part)
        one[high], other[low] = cut.at, cut.at
        parts += [tuple(one), tuple(other)]
    return parts


def test_a_cloth_worked_through_by_hand():
    cloth = Box(F(0), F(0), F(12), F(10))
    pieces = lying((0, 0, 8, 6), (8, 0, 4, 3), (8, 3, 4, 3), (0, 6, 12, 2))
    found = parted(cloth, pieces)
    assert [(cut.deep, cut.way, cut.reading, cut.done) for cut in found.cuts] == [
        (1, "across", 6, -1),
        (2, "along", 8, 0),
        (3, "across", 3, 1),
        (1, "across", 2, 3),
    ]
    assert [(one.x, one.y, one.w, one.h) for one in found.left] == [(0, 8, 12, 2)]


def test_what_lies_before_a_piece_is_cut_off_first():
    found = parted(Box(F(0), F(0), F(10), F(10)), lying((2, 3, 5, 4)))
    assert [(cut.way, cut.reading, cut.done) for cut in found.cuts] == [
        ("across", 3, -1),
        ("across", 4, -1),
        ("along", 2, -1),
        ("along", 5, 0),
    ]
    assert sum(one.w * one.h for one in found.left) == 100 - 20


def test_strips_along_the_cloth_where_none_go_across():
    pieces = lying((0, 0, 3, 10), (3, 0, 7, 4), (3, 4, 7, 6))
    assert parted(Box(F(0), F(0), F(10), F(10)), pieces).cuts[0].way == "along"


def test_a_pinwheel_cannot_be_cut_from_edge_to_edge():
    pinwheel = lying((0, 0, 2, 1), (2, 0, 1, 2), (1, 2, 2, 1), (0, 1, 1, 2))
    assert parted(Box(F(0), F(0), F(3), F(3)), pinwheel) is None


def test_a_cloth_without_pieces_is_left_whole():
    cloth = Box(F(0), F(0), F(3), F(3))
    found = parted(cloth, [])
    assert found.cuts == ()
    assert found.left == (cloth,)


@pytest.mark.parametrize("seed", range(6))
def test_every_piece_comes_free_and_the_rest_is_what_is_left(seed):
    job = random_job(seed, random.Random(seed).randint(3, 30))
    answer = plan_cutting(job, 0.2, seed)
    long = max(one.y + one.h for one in answer.placements) + seed
    cloth = Box(F(0), F(0), job.stock[0].w, long)
    pieces = [Box(p.x, p.y, p.w, p.h, at) for at, p in enumerate(answer.placements)]
    found = parted(cloth, pieces)
    parts = made(cloth, found.cuts)
    for one in (*pieces, *found.left):
        assert (one.x, one.y, one.right, one.end) in parts
    assert len(parts) == len(pieces) + len(found.left)
    shapes = [rectangle(*(float(v) for v in part)) for part in parts]
    assert unary_union(shapes).area == pytest.approx(float(cloth.w * long))
    assert sorted(cut.done for cut in found.cuts if cut.done >= 0) == sorted(
        {cut.done for cut in found.cuts if cut.done >= 0}
    )
