"""Whether all pieces come out at all: as a layout for least cloth says it, only sooner."""

import random

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.job import CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting
from tests.core.sheets.checking import faults

F = Fraction


def job(seed, aim):
    """Six to nine sizes of pieces on two or three cloths, about as large as they are together."""
    dice = random.Random(seed)
    pieces = tuple(
        Piece(f"p{n}", "", F(dice.randint(2, 12)), F(dice.randint(2, 12)), dice.randint(1, 3), "a")
        for n in range(dice.randint(6, 9))
    )
    area = sum(p.w * p.h * p.qty for p in pieces) * F(dice.choice((90, 112, 150)), 100)
    many = dice.randint(2, 3)
    stock = tuple(Stock(f"s{n}", "scrap", "a", F(18), area / 18 / many) for n in range(many))
    return CutJob("in", stock, pieces, aim)


@pytest.mark.parametrize("seed", range(5))
def test_all_come_out_where_least_cloth_lays_them_all(seed):
    least = plan_cutting(job(seed, "least"), 0.3)
    fits = plan_cutting(job(seed, "fits"), 0.3)
    assert faults(job(seed, "fits"), fits) == []
    if not least.left_out:
        assert fits.left_out == ()
    area = sum(p.w * p.h * p.qty for p in job(seed, "fits").pieces)
    if area > sum(s.w * s.h for s in job(seed, "fits").stock):
        assert fits.left_out


def test_a_piece_larger_than_every_cloth_is_left_out():
    stock = (Stock("s", "scrap", "a", F(10), F(10)),)
    pieces = (Piece("p", "", F(11), F(11), 1, "a"), Piece("q", "", F(3), F(3), 9, "a"))
    answer = plan_cutting(CutJob("in", stock, pieces, "fits"), 1.0)
    assert ("p", 1) in answer.left_out
