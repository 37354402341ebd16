"""The command line, without a display."""

import json
import os
import re
import subprocess
import sys
import unicodedata
from pathlib import Path

import jsonschema
import pytest

from tessil.cli import main
from tessil.core.plan import plan
from tessil.files.report import finished_text
from tests.conftest import DEMO, load_bag, save_bag, tote

ROOT = Path(__file__).parents[2]


def test_report_as_text_shows_workings(capsys):
    assert main(["report", str(DEMO)]) == 0
    out = capsys.readouterr().out
    assert "Rehearsal satchel" in out
    assert "= 8 × (2½ − 2 × ¼) + 2 × ¼" in out


def test_report_as_json_and_csv(capsys):
    assert main(["report", str(DEMO), "--format", "json"]) == 0
    assert json.loads(capsys.readouterr().out)["name"] == "Rehearsal satchel"
    assert main(["report", str(DEMO), "--format", "csv"]) == 0
    assert capsys.readouterr().out.startswith("panel,what,from,number,width,height,note\n")


def test_check_exits_one_only_if_something_blocks(tmp_path, capsys):
    assert main(["check", str(DEMO)]) == 0
    assert "blocks" not in capsys.readouterr().out
    path = tmp_path / "short.tessil"
    project = tote()
    binding = project.binding.model_copy(update={"strips_on_hand": 0})
    save_bag(project.model_copy(update={"binding": binding}), path)
    assert main(["check", str(path)]) == 1
    assert "blocks: The binding in hand" in capsys.readouterr().out


def test_a_bad_file_is_one_sentence_and_exit_two(tmp_path, capsys):
    path = tmp_path / "bad.tessil"
    path.write_text("{")
    assert main(["report", str(path)]) == 2
    said = capsys.readouterr()
    assert said.out == ""
    assert said.err.count("\n") == 1


def test_an_impossible_project_is_one_sentence(tmp_path, capsys):
    path = tmp_path / "odd.tessil"
    shape = tote().shape.model_copy(update={"kind": "balloon"})
    save_bag(tote(shape=shape), path)
    assert main(["check", str(path)]) == 2
    assert "not one this Tessil knows" in capsys.readouterr().err


def test_the_schema_can_be_printed(capsys):
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Tessil project"


def test_unknown_arguments_are_refused(capsys):
    with pytest.raises(SystemExit):
        main(["report"])
    capsys.readouterr()


def test_another_logbook_can_be_planned_by(tmp_path, capsys):
    log = DEMO.parent / "logbook.json"
    assert main(["report", str(DEMO), "--format", "json", "--log", str(log)]) == 0
    learned = json.loads(capsys.readouterr().out)
    assert main(["report", str(DEMO), "--format", "json"]) == 0
    guessed = json.loads(capsys.readouterr().out)
    bases = [data["panels"][0]["figures"]["quilt.width"]["basis"] for data in (learned, guessed)]
    assert bases == ["your swatches", "starting guess"]
    assert main(["check", str(DEMO), "--log", str(tmp_path / "none.json")]) == 2
    assert "not a file" in capsys.readouterr().err
    bad = tmp_path / "bad.json"
    bad.write_text("[]")
    assert main(["check", str(DEMO), "--log", str(bad)]) == 2
    assert "no logbook" in capsys.readouterr().err


def test_the_report_has_layers_thickness_sets_lines_and_order(capsys):
    assert main(["report", str(DEMO), "--format", "json"]) == 0
    data = json.loads(capsys.readouterr().out)
    front = data["panels"][0]
    assert data["report"] == 3
    assert [layer["role"] for layer in front["layers"]] == ["top", "batting"]
    assert {spot["label"] for spot in front["thickness"]} >= {"bound top edge", "left seam"}
    assert [entry["name"] for entry in front["sets"]] == ["upright lines", "level lines"]
    keys = {line["key"] for line in front["lines"]}
    assert {step["line"] for step in front["order"]} == keys
    assert all(len(line["points"]) == 2 for line in front["lines"])
    assert not any(key.startswith("layer.buy") for key in front["figures"])


def _tessil(*words, **env):
    return subprocess.run(
        [sys.executable, "-m", "tessil", *words],
        capture_output=True,
        check=False,
        env={**os.environ, **env},
    )


def test_a_terminal_without_these_letters_still_gets_every_size():
    done = _tessil("report", str(DEMO), LC_ALL="C", PYTHONUTF8="0", PYTHONCOERCECLOCALE="0")
    assert done.returncode == 0
    text = done.stdout.decode("ascii")
    assert "finished 10 3/8 wide x 13 1/4 high" in text
    spelt = _tessil("report", str(DEMO), PYTHONUTF8="1").stdout.decode("utf-8")
    whole = {f"{a} {b}" for a, b in re.findall(r"(\d+)([½¼¾⅜⅝⅞⅛]|[⁰¹²³⁴⁵⁶⁷⁸⁹]+⁄[₀-₉]+)", spelt)}
    for size in whole:
        plain = unicodedata.normalize("NFKD", size).replace("⁄", "/")
        assert plain in text


def test_a_reader_that_leaves_early_is_no_trouble():
    done = subprocess.run(
        f'"{sys.executable}" -m tessil report "{DEMO}" | head -1',
        shell=True,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.stdout == "Rehearsal satchel\n"
    assert done.stderr == ""


def test_the_finished_size_is_told_in_the_words_of_the_shape():
    pouch = plan(load_bag(DEMO.with_name("reed-pouch.tessil")))
    assert finished_text(pouch) == "6⅜ long × 4⁵⁄₁₆ across × 3 high"
    metric = plan(pouch.project.model_copy(update={"units": "metric"}))
    assert re.fullmatch(r"[\d.]+ long × [\d.]+ across × [\d.]+ cm high", finished_text(metric))


# -- a cutting job -----------------------------------------------------------------------------

CUT_JOB = {
    "unit": "in",
    "stock": [
        {"id": "y1", "kind": "yardage", "print": "oat", "w": 40, "trim": 0.5, "step": 4.5},
        {"id": "fq1", "kind": "fat_quarter", "print": "ripple", "w": 21, "h": 18},
    ],
    "pieces": [
        {"id": "a", "label": "strip", "w": 14.25, "h": 2.5, "qty": 8, "print": "ripple"},
        {"id": "b", "label": "flap", "w": 12, "h": 9, "qty": 2, "print": "oat", "turn": False},
        {"id": "c", "label": "pocket", "w": 7.25, "h": 8.75, "qty": 2, "print": "oat"},
    ],
}


def _cut(tmp_path, capfd, job, *more):
    path = tmp_path / "job.json"
    path.write_text(job if isinstance(job, str) else json.dumps(job))
    code = main(["cut", str(path), "--seconds", "0.3", *more])
    return code, *capfd.readouterr()


def test_a_cutting_job_is_answered_in_json(tmp_path, capfd):
    code, out, _ = _cut(tmp_path, capfd, CUT_JOB)
    answer = json.loads(out)
    assert code == 0
    assert len(answer["placements"]) == 12
    assert set(answer["placements"][0]) == {"piece", "stock", "x", "y", "w", "h"}
    # Beside two flaps of 12 two pockets of 7¼ or 8¾: 38½ or 40 wide, 9 high, and ½ to straighten.
    assert answer["lengths"] == {"y1": 9.5}
    assert answer["opened"] == ["fq1"]
    assert answer["left_out"] == {}
    assert answer["bound"] <= answer["used"] == 9.5
    assert 0 < answer["seconds"] < 5
    assert [cut["number"] for cut in answer["cuts"]] == list(range(1, len(answer["cuts"]) + 1))
    assert {cut["deep"] for cut in answer["cuts"]} <= {1, 2, 3}


def test_a_cutting_job_is_answered_in_words(tmp_path, capfd):
    code, out, _ = _cut(tmp_path, capfd, CUT_JOB, "--format", "text")
    assert code == 0
    assert out.startswith("y1: 9.5 in long\nOpened: fq1\nAt most ")
    assert "strip, across, ruler at 9, 0 to 40" in out


def test_what_is_left_out_is_told_by_the_exit_code_too(tmp_path, capfd):
    job = {**CUT_JOB, "pieces": [{**CUT_JOB["pieces"][0], "qty": 30}]}
    code, out, _ = _cut(tmp_path, capfd, job)
    assert code == 1
    # Eight upright, 20 wide and 14¼ high, and one level in the 3¾ that are left of 18.
    assert json.loads(out)["left_out"] == {"a": 21}


@pytest.mark.parametrize(
    ("job", "says"),
    [
        ("{", "its contents make no sense"),
        ("[]", "is not a cutting job"),
        ("{}", "has a wrong entry at stock"),
        ({**CUT_JOB, "stock": [{"id": "q", "kind": "scrap", "w": 3}]}, "without a height"),
        ({**CUT_JOB, "stock": [{"id": "q", "kind": "roll", "w": 3}]}, "has a wrong entry at stock"),
        ({**CUT_JOB, "pieces": [{"id": "a", "w": 0, "h": 1}]}, "has a wrong entry at pieces"),
        ({**CUT_JOB, "pieces": [{"id": "a", "w": 1, "h": 1, "qty": 10_001}]}, "at pieces"),
        ({**CUT_JOB, "pieces": [{"id": "a", "w": 1, "h": 1}] * 2}, "“a” is there twice"),
        (
            {**CUT_JOB, "pieces": [{"id": f"{n}", "w": 1, "h": 1, "qty": 6000} for n in (1, 2)]},
            "more than 10,000 pieces",
        ),
    ],
)
def test_a_job_that_makes_no_sense_gets_a_sentence(tmp_path, capfd, job, says):
    code, out, error = _cut(tmp_path, capfd, job)
    assert (code, out) == (2, "")
    assert says in error
    assert error.count("\n") == 1


def test_the_schema_of_a_cutting_job_is_the_one_in_the_docs(capfd):
    assert main(["schema", "cut"]) == 0
    told = json.loads(capfd.readouterr().out)
    kept = json.loads((ROOT / "docs" / "cutting-job.schema.json").read_text())
    assert told == kept
    jsonschema.Draft202012Validator(told).validate(CUT_JOB)
