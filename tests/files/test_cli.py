"""The command line, without a display."""

import json

import pytest

from tessil.cli import main
from tessil.files.projectfile import save
from tests.conftest import DEMO, tote


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
    save(project.model_copy(update={"binding": binding}), path)
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
    save(tote(shape=shape), path)
    assert main(["check", str(path)]) == 2
    assert "not one this Tessil knows" in capsys.readouterr().err


def test_the_schema_can_be_printed(capsys):
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Tessil project"


def test_unknown_arguments_are_refused(capsys):
    with pytest.raises(SystemExit):
        main(["report"])
    capsys.readouterr()
