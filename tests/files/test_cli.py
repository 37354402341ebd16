"""The command line, without a display."""

import json
import os
import re
import subprocess
import sys
import unicodedata

import pytest

from tessil.cli import main
from tessil.core.plan import plan
from tessil.files.report import finished_text
from tests.conftest import DEMO, load_bag, save_bag, tote


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
