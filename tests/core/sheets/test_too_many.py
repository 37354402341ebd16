"""A plan from cloths of given size never has a piece too often."""

from tessil.core.sheets.job import CutJob
from tessil.core.sheets.plan import plan_cutting
from tests.core.sheets.checking import faults
from tests.core.sheets.test_cutting_plans import cloth, random_job


def test_no_piece_lies_on_cloths_of_given_size_more_often_than_it_is_wanted():
    for seed in range(3):
        stock = [cloth(f"q{at}", 21, 18) for at in range(5)]
        job = random_job(seed + 70, 24, stock)
        answer = plan_cutting(CutJob("in", job.stock, job.pieces), 0.5, seed=seed)
        assert faults(job, answer) == []
        wanted = {piece.id: piece.qty for piece in job.pieces}
        laid = [one.piece for one in answer.placements]
        assert all(laid.count(key) <= number for key, number in wanted.items())
        left = dict(answer.left_out)
        assert all(laid.count(key) + left.get(key, 0) == number for key, number in wanted.items())
