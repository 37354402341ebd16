"""A cutting job as JSON and its answer, field by field; docs/cutting-job.md says what each is."""

import json

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.job import Answer, Cut, CutJob, Piece, Placement, Stock
from tessil.core.trouble import BrokenFile, FileTrouble
from tessil.files.cutjob import answer_data, answer_text, load_job

F = Fraction
TOLD = {
    "unit": "cm",
    "aim": "setups",
    "note": "not ours",
    "stock": [
        {"id": "y", "kind": "yardage", "print": "oat", "w": 110.1, "trim": 2.5, "step": 10},
        {"id": "q", "kind": "fat_quarter", "w": 45, "h": 55},
    ],
    "pieces": [
        {"id": "a", "label": "Front", "w": 30.1, "h": 20, "qty": 2, "print": "oat", "turn": False},
        {"id": "b", "w": 5, "h": 6},
    ],
}


@pytest.fixture
def asked(tmp_path):
    def write(data):
        path = tmp_path / "job.json"
        path.write_text(data if isinstance(data, str) else json.dumps(data), "utf-8")
        return load_job(path)

    return write


def test_a_job_is_taken_as_it_is_written(asked):
    """A tenth is a tenth, not what a machine keeps for it."""
    assert asked(TOLD) == CutJob(
        "cm",
        (
            Stock("y", "yardage", "oat", F(1101, 10), None, F(5, 2), F(10)),
            Stock("q", "fat_quarter", "", F(45), F(55), F(0), None),
        ),
        (
            Piece("a", "Front", F(301, 10), F(20), 2, "oat", False),
            Piece("b", "", F(5), F(6), 1, "", True),
        ),
        "setups",
    )


def test_yardage_has_no_height_of_its_own(asked):
    (stock,) = asked(
        {"stock": [{"id": "y", "kind": "yardage", "w": 40, "h": 9}], "pieces": []}
    ).stock
    assert stock.h is None


@pytest.mark.parametrize(
    ("data", "says"),
    [
        ("[]", "“job.json” is not a cutting job: it has no pieces."),
        ("{", "“job.json” is not a cutting job: its contents make no sense."),
        (
            {"stock": [{"id": "s", "kind": "scrap", "w": 4}], "pieces": []},
            "“job.json”: “s” is a piece of cloth without a height.",
        ),
        (
            {"stock": [], "pieces": [{"id": str(n), "w": 1, "h": 1, "qty": 5001} for n in (1, 2)]},
            "“job.json” asks for more than 10,000 pieces.",
        ),
    ],
)
def test_what_is_no_job_is_told(asked, data, says):
    with pytest.raises(BrokenFile) as trouble:
        asked(data)
    assert str(trouble.value) == says


def test_as_many_pieces_as_there_may_be(asked):
    pieces = [{"id": str(n), "w": 1, "h": 1, "qty": 5000} for n in (1, 2)]
    assert sum(one.qty for one in asked({"stock": [], "pieces": pieces}).pieces) == 10_000


def test_a_file_that_is_not_there_is_told_with_the_reason(tmp_path):
    with pytest.raises(FileTrouble) as trouble:
        load_job(tmp_path / "none.json")
    assert str(trouble.value).startswith("“none.json” cannot be read: ")


JOB = CutJob(
    "in",
    (
        Stock("y", "yardage", "oat", F(40), None, F(1), F(9)),
        Stock("z", "yardage", "red", F(40)),
        Stock("q", "fat_quarter", "oat", F(18), F(21)),
    ),
    (),
)
ANSWER = Answer(
    (Placement("a", "y", F(1, 2), F(0), F(10), F(5, 4)),),
    (
        Cut("y", 1, "across", F(5, 4), F(0), F(40)),
        Cut("y", 2, "along", F(21, 2), F(0), F(5, 4)),
        Cut("q", 3, "across", F(3), F(1), F(2)),
    ),
    (("b", 3),),
    F(22),
    F(20),
    (("y", F(37, 2)), ("z", F(7, 2))),
    ("q",),
)


def test_an_answer_as_data():
    """18½ of what is sold by nine are 27; what has no step is sold as it is."""
    told = answer_data(ANSWER, JOB, 1.23456)
    assert told["placements"] == [
        {"piece": "a", "stock": "y", "x": 0.5, "y": 0.0, "w": 10.0, "h": 1.25}
    ]
    assert (told["bound"], told["used"], told["seconds"]) == (20.0, 22.0, 1.235)
    assert told["lengths"] == {"y": 18.5, "z": 3.5}
    assert told["buy"] == {"y": 27.0, "z": 3.5}
    assert (told["opened"], told["left_out"]) == (["q"], {"b": 3})
    first, second, third = told["cuts"]
    assert first == {
        "number": 1,
        "stock": "y",
        "deep": 1,
        "way": "across",
        "at": 1.25,
        "from": 0.0,
        "to": 40.0,
    }
    assert (second["number"], second["way"], second["at"]) == (2, "along", 10.5)
    assert (third["from"], third["to"]) == (1.0, 2.0)
    assert json.loads(json.dumps(told)) == told


def test_an_answer_as_a_page():
    """22 of at least 20: a tenth more."""
    assert answer_text(ANSWER, JOB).splitlines() == [
        "y: 18.5 in long",
        "z: 3.5 in long",
        "Opened: q",
        "At most 10.0 % over the least that could do.",
        "   1. y: strip, across, ruler at 1.25, 0 to 40",
        "   2. y: crosscut, along, ruler at 10.5, 0 to 1.25",
        "   3. q: trim, across, ruler at 3, 1 to 2",
        "Left out: 3 of b",
    ]


def test_nothing_opened_and_no_bound_are_not_told():
    bare = Answer((), (), (), F(0), F(0), (), ())
    assert answer_text(bare, JOB) == ""
    exact = Answer((), (), (), F(20), F(20), (("y", F(20)),), ())
    assert "At most 0.0 % over" in answer_text(exact, JOB)
