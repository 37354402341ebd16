"""The search in a process of its own: the same answers, stopped when asked, gone when done."""

import time

import pytest

from tessil.core.sheets.apart import Apart
from tessil.core.sheets.job import CutJob
from tessil.core.trouble import CannotPlan
from tests.core.sheets.checking import faults
from tests.core.sheets.test_cutting_plans import piece, random_job, yardage


def test_jobs_are_planned_one_after_the_other():
    with Apart() as apart:
        first = apart(CutJob("in", (yardage(trim=1),), (piece("a", 10, 5, 4),)), 1.0, 1, None)
        second = apart(CutJob("in", (yardage(),), (piece("a", 10, 5, 5),)), 1.0, 1, None)
        process = apart._process
    assert (first.used, second.used) == (6, 10)
    assert process.returncode == 0


def test_it_is_stopped_and_gives_the_best_so_far_and_takes_another_job():
    job, heard = random_job(3, 60), []

    def told(far):
        heard.append(far)
        return len(heard) < 3

    with Apart() as apart:
        begun = time.monotonic()
        answer = apart(job, 60.0, 1, told)
        assert time.monotonic() - begun < 20
        again = apart(CutJob("in", (yardage(),), (piece("a", 10, 5, 5),)), 1.0, 1, None)
    assert faults(job, answer) == []
    assert len(heard) >= 3
    assert all(0 <= far <= 1 for far in heard)
    assert again.used == 10


def test_a_job_that_makes_no_sense_says_the_same_there():
    with Apart() as apart, pytest.raises(CannotPlan, match="is there twice") as trouble:
        apart(CutJob("in", (yardage(),), (piece("a", 1, 1), piece("a", 2, 2))), 1.0, 1, None)
    assert trouble.value.field == "id"


def test_a_process_that_has_gone_is_noticed():
    job = CutJob("in", (yardage(),), (piece("a", 1, 1),))
    with Apart() as apart:
        apart._process.kill()
        apart._process.wait()
        with pytest.raises(EOFError):
            apart(job, 1.0, 1, None)


def test_it_ends_at_once_where_nobody_waits_any_more():
    class Enough(Exception):
        pass

    def told(_far):
        raise Enough

    def search():
        with Apart() as apart:
            there.append(apart._process)
            apart(random_job(3, 60), 60.0, 1, told)

    there, begun = [], time.monotonic()
    with pytest.raises(Enough):
        search()
    assert there[0].returncode is not None
    assert time.monotonic() - begun < 5
